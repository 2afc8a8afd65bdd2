// What moves or grows from reading to reading, drawn.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/over_time.h>

namespace anvil::chart {

/// How it is drawn.
struct CreepLook {
    bool logTime = false; ///< the time by its logarithm; what happened after the unloading is left out
    double width = 600, height = 320; ///< it may have to be higher
};

/// The movement of held loads against time, a panel a condition on one scale, a line a piece in the ink of
/// its option; readings as marks, rings and a dashed line after the unloading; the limits that were set as
/// lines. A hit's `pull` is the pull.
Picture creepLines(const domain::StudyData& data, const std::vector<results::CreepCurve>& curves,
                   const quantity::Unit& unit, const CreepLook& look);

/// Blows by the number of the hit, a line for each spot in the ink of its option; lower bounds as arrows.
/// `title`: of the axis. A hit's `pull` is the pull.
Picture hitLines(const domain::StudyData& data, const std::vector<results::HitHistory>& spots,
                 const std::string& title, const quantity::Unit& unit, double width, double height);

} // namespace anvil::chart
