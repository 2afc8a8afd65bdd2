// A curve while it grows, in bounded room: minimum and maximum of ever wider stretches.
#pragma once

#include <cstddef>
#include <vector>

namespace anvil::rig {

class LiveTrace {
public:
    struct Stretch {
        double time = 0, low = 0, high = 0; ///< s at its beginning; N
        bool operator==(const Stretch&) const = default;
    };
    static constexpr std::size_t most = 4096;

    void clear() {
        m_all.clear();
        m_width = 0.005;
    }
    /// Times must not step back.
    void add(double time, double force);
    /// In order of time; at most `most`.
    const std::vector<Stretch>& stretches() const { return m_all; }

private:
    std::vector<Stretch> m_all;
    double m_width = 0.005; ///< s
};

/// The same with at most so many stretches, neighbours laid together; nothing is left out of low and high.
std::vector<LiveTrace::Stretch> thinned(const std::vector<LiveTrace::Stretch>& stretches, std::size_t most);

} // namespace anvil::rig
