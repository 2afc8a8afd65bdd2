// The further channels of one device as they are now. On the listening thread only.
#pragma once

#include <QStringList>
#include <anvil/rig/setup.h>
#include <anvil/station/live_bench.h>
#include <array>
#include <vector>

namespace anvil::station {

/// How much a reading counts in the level that zeroing takes away: a quarter of a second's worth. s → 0 … 1.
inline double smoothing(double step) { return std::min(1.0, 4 * std::max(1e-4, step)); }

class ChannelGroup {
public:
    using Values = std::array<double, rig::mostOthers>;

    ChannelGroup() = default;
    explicit ChannelGroup(std::vector<rig::ChannelName> names) : m_names(std::move(names)) {}

    /// Takes in the raw values of a sample, as much as `weight` (0 … 1) in the smoothed ones; the first
    /// sample whole. Returns what they mean.
    const Values& take(const rig::Conversion& conversion, const Values& raw, double weight);
    /// From here on it is told anew which of them read beyond their tables.
    void arm() { m_beyond = {}; }

    const std::vector<rig::ChannelName>& names() const { return m_names; }
    const Values& raw() const { return m_raw; }
    void addTo(std::vector<LiveChannel>& all, bool fresh) const;
    void addBeyondTo(QStringList& all) const;

private:
    std::vector<rig::ChannelName> m_names;
    Values m_raw{}, m_values{};
    std::array<bool, rig::mostOthers> m_inside{}, m_beyond{}; ///< their tables: now, and since the arming
    bool m_known = false;
};

} // namespace anvil::station
