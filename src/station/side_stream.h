// A device that is listened to beside the main one. On the listening thread only.
#pragma once

#include "channel_group.h"
#include "listener.h"
#include <deque>
#include <span>

namespace anvil::station {

class SideStream {
public:
    /// `arrived` is told the samples of every piece of bytes. The clock must outlive the stream.
    SideStream(const rig::SideDevice& about, const link::Address& address, const QElapsedTimer& clock,
               std::function<void(std::span<const rig::Sample>)> arrived);

    void open() { m_listener.open(); }
    void tick() { m_listener.tick(); }
    /// Takes what its force channels show now as nothing.
    void zero() { m_conversion.zeroOthers(m_channels.raw()); }
    void arm() { m_channels.arm(); }

    /// May be called from any thread.
    QStringList lines() const { return m_listener.lines(); }
    std::uint64_t noise() const { return m_listener.noise(); }
    const ChannelGroup& channels() const { return m_channels; }
    /// The last seconds, for what comes before a recording begins.
    std::vector<rig::Sample> recent() const { return {m_recent.begin(), m_recent.end()}; }
    void addTo(std::vector<LiveChannel>& all) const;

private:
    void take(const rig::RawSample& raw, double time);
    void keep();
    rig::Conversion m_conversion;
    ChannelGroup m_channels;
    std::function<void(std::span<const rig::Sample>)> m_arrived;
    std::vector<rig::Sample> m_fresh; ///< of the bytes that are being taken in
    std::deque<rig::Sample> m_recent;
    double m_last = 0; ///< s, of the last sample
    QString m_said;
    Listener m_listener; // last: it tells the others
};

} // namespace anvil::station
