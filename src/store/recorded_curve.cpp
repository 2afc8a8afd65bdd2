#include "recorded_curve.h"

namespace anvil::store {

curve::Curve recordedCurve(std::span<const rig::Sample> samples, const RecordedChannels& channels,
                           std::size_t stream, bool hasDisplacement, double& displacement) {
    const bool main = stream == 0;
    const auto& others = channels.names(stream);
    curve::Curve c;
    c.load = channels.load;
    c.travel = channels.travel;
    c.time.reserve(samples.size());
    for (const auto& o : others) {
        c.others.push_back({o.name, o.unit, {}});
        c.others.back().values.reserve(samples.size());
    }
    for (const auto& s : samples) {
        c.time.push_back(s.time);
        if (main) c.force.push_back(s.force);
        if (main && hasDisplacement)
            c.displacement.push_back(displacement = s.displacement.value_or(displacement));
        for (std::size_t i = 0; i < others.size(); ++i)
            c.others[i].values.push_back(s.others[i]);
    }
    return c;
}

} // namespace anvil::store
