// What moves or grows from reading to reading: creep over days, blows from hit to hit.
#pragma once

#include <anvil/methods/evidence.h>
#include <anvil/results/results.h>

namespace anvil::results {

/// How one held load moved on.
struct CreepCurve {
    Id pull = 0, option = 0, condition = 0;
    std::string label;
    std::vector<methods::SeriesPoint> moved; ///< s since its first reading under load, and m since then
    std::optional<double> unloadedAfter;     ///< s: later points are the recovery
    std::optional<double> limit;             ///< m
};

/// Of a creep study, in the order of its pulls; those with fewer than two readings, or whose entry cannot be,
/// are left out, void ones too.
std::vector<CreepCurve> creepOf(const StudyData& data);

/// The blows on one spot, by the number of the hit.
struct HitHistory {
    Id option = 0, condition = 0;
    std::string piece, where; ///< label of the piece, and which spot on it
    struct Hit {
        int number = 1;
        stats::Value peak{}; ///< of the study's deciding metric
        Id pull = 0;
    };
    std::vector<Hit> hits; ///< by number
};

/// Of a drop study: spots with more than one hit, in the order of their first pull. A pull without a number
/// is one more than the last on its spot.
std::vector<HitHistory> hitsOf(const Results& results, const Metric& metric);

} // namespace anvil::results
