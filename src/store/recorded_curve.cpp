#include "recorded_curve.h"

namespace anvil::store {

curve::Curve recordedCurve(std::span<const rig::Sample> samples, const RecordedChannels& channels,
                           std::size_t stream, bool hasTravel, double& displacement) {
    const bool main = stream == 0;
    const auto& others = channels.names(stream);
    curve::Curve c;
    c.loadKind = channels.load;
    c.travelKind = channels.travel;
    c.time.reserve(samples.size());
    for (const auto& o : others) {
        c.others.push_back({o.name, o.unit, {}});
        c.others.back().values.reserve(samples.size());
    }
    for (const auto& s : samples) {
        c.time.push_back(s.time);
        if (main) c.load.push_back(s.load);
        if (main && hasTravel) c.travel.push_back(displacement = s.travel.value_or(displacement));
        for (std::size_t i = 0; i < others.size(); ++i)
            c.others[i].values.push_back(s.others[i]);
    }
    return c;
}

} // namespace anvil::store
