#include <anvil/sim/virtual_rig.h>

#include <algorithm>
#include <cmath>

namespace anvil::sim {

VirtualRig::VirtualRig(const RigOptions& options)
    : m_options(options), m_random(m_options.seed), m_offset(m_options.logger.zeroOffset) {}

RigReading VirtualRig::unloaded() {
    const auto& g = m_options.logger;
    // A held load relaxes by a few percent with the logarithm of time; an empty hook shows the offset.
    double force = m_held * (1 - 0.01 * std::log1p(m_heldFor)) + m_offset + g.noise * m_random.normal();
    if (g.resolution > 0) force = std::round(force / g.resolution) * g.resolution;
    if (g.limit) force = std::clamp(force, -*g.limit, *g.limit);
    return {m_clock, force, m_place};
}

RigReading VirtualRig::complete(RigReading r) {
    const auto& g = m_options.logger;
    r.legs.reserve(m_options.legs.size());
    for (std::size_t i = 0; i < m_options.legs.size(); ++i) {
        // While the load is held the legs relax, each a little faster than the one before.
        const double loosened = 1 - 0.02 * static_cast<double>(i + 1) * std::log1p(m_heldFor);
        r.legs.push_back(m_options.legs[i] * (r.load - m_offset) * loosened + g.noise * m_random.normal());
    }
    r.load += m_drifted;
    if (m_spikes > 0 && m_random.uniform() < 0.05) {
        --m_spikes;
        r.load += (m_random.uniform() < 0.5 ? -1 : 1) * m_random.uniform(0.3, 0.9) * m_options.strength;
    }
    if (g.limit) r.load = std::clamp(r.load, -*g.limit, *g.limit);
    return r;
}

std::vector<RigReading> VirtualRig::advance(double seconds) {
    std::vector<RigReading> out;
    const double step = 1 / m_options.logger.rate;
    m_due += std::min(seconds, 1.0);
    const auto samples = static_cast<long>(m_due / step);
    m_due -= static_cast<double>(samples) * step;
    out.reserve(static_cast<std::size_t>(samples));
    for (long i = 0; i < samples; ++i) {
        if (pulling() && !m_paused) {
            const auto& c = m_run.curve;
            m_place = c.travel[m_at];
            out.push_back(complete({m_clock, c.load[m_at], m_place}));
            if (++m_at == c.load.size()) {
                m_held = std::max(0.0, c.load.back() - m_offset);
                m_heldFor = 0;
            }
        } else {
            out.push_back(complete(unloaded()));
            m_heldFor += step;
        }
        m_clock += step;
        m_drifted += m_drift * step;
    }
    return out;
}

void VirtualRig::pull() {
    Specimen s;
    s.model = m_options.model;
    s.strength = m_options.strength * std::max(0.2, 1 + m_options.cv * m_random.normal());
    s.stiffness = s.strength / m_random.uniform(0.0045, 0.0055);
    s.slack = m_random.uniform(0.0005, 0.0015);
    s.bedding = 0.04 * s.strength / s.stiffness;
    s.residual = 0.2;
    auto logger = m_options.logger;
    logger.zeroOffset = m_offset;
    logger.before = 0;
    logger.after = 4 * s.strength / s.stiffness; // far enough for every kind to let go
    m_run = sim::pull(s, logger, m_options.seed + 1000 * static_cast<std::uint64_t>(++m_pulls));
    m_at = 0;
    m_held = m_heldFor = 0;
    m_paused = false;
}

void VirtualRig::stop() {
    if (!pulling()) return;
    m_held = m_at > 0 ? std::max(0.0, m_run.curve.load[m_at - 1] - m_offset) : 0;
    m_heldFor = 0;
    m_paused = false;
    m_at = m_run.curve.load.size();
}

void VirtualRig::pause(bool on) {
    if (on == m_paused || (on && !pulling())) return;
    m_paused = on;
    m_held = on && m_at > 0 ? std::max(0.0, m_run.curve.load[m_at - 1] - m_offset) : 0;
    m_heldFor = 0;
}

void VirtualRig::release() {
    m_paused = false;
    m_at = m_run.curve.load.size();
    m_held = m_heldFor = m_place = 0;
}

void VirtualRig::zero() { m_offset = m_drifted = 0; }

} // namespace anvil::sim
