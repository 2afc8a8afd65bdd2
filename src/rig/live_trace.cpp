#include <anvil/rig/live_trace.h>

#include <algorithm>

namespace anvil::rig {

void LiveTrace::add(double time, double force) {
    if (!m_all.empty() && time < m_all.back().time + m_width) {
        m_all.back().low = std::min(m_all.back().low, force);
        m_all.back().high = std::max(m_all.back().high, force);
        return;
    }
    if (m_all.size() == most) { // two become one
        for (std::size_t i = 0; i < most / 2; ++i)
            m_all[i] = {m_all[2 * i].time, std::min(m_all[2 * i].low, m_all[2 * i + 1].low),
                        std::max(m_all[2 * i].high, m_all[2 * i + 1].high)};
        m_all.resize(most / 2);
        m_width *= 2;
    }
    m_all.push_back({time, force, force});
}

} // namespace anvil::rig
