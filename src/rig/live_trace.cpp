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

std::vector<LiveTrace::Stretch> thinned(const std::vector<LiveTrace::Stretch>& all, std::size_t most) {
    if (all.size() <= most || most == 0) return all;
    const std::size_t each = (all.size() + most - 1) / most;
    std::vector<LiveTrace::Stretch> out;
    out.reserve(all.size() / each + 1);
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (i % each == 0) {
            out.push_back(all[i]);
            continue;
        }
        out.back().low = std::min(out.back().low, all[i].low);
        out.back().high = std::max(out.back().high, all[i].high);
    }
    return out;
}

} // namespace anvil::rig
