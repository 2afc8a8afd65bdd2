// Results that come step by step, or over days: which piece and which step is next.
#pragma once

#include <anvil/results/values.h>
#include <optional>
#include <set>
#include <vector>

namespace anvil::plan {

using namespace domain;
using namespace results;

/// The load of the step after these: the last one plus `more`; after a failure nothing.
std::optional<LadderStep> nextStep(const std::vector<LadderStep>& steps, double firstLoad, double more,
                                   std::optional<double> firstDistance, double further);

/// A piece whose gauge is read again and again.
struct GaugeState {
    domain::Id specimen = 0, pull = 0;              ///< pull 0: not read yet
    std::optional<double> lastAt, lastValue, dueAt; ///< s since 1970, m, s since 1970
    bool due = false;
};
/// Every piece of a study whose method is a gauge, in the order to read them: what is due first. A piece that
/// was unloaded and read once more is done and left out. `now`: s since 1970.
std::vector<GaugeState> gauges(const domain::StudyData& data, double now);

/// The piece to pull next: by the run list where there is one, else in the order they were made. Pieces that
/// have been pulled (in a study that is no practice, practice pulls are none) and those in `skip` are passed
/// over; nullptr when none is left.
const domain::Specimen* nextSpecimen(const domain::StudyData& data, const std::set<domain::Id>& skip = {});

/// The piece whose turn it is at the bench: one whose ladder has begun and not failed comes before the next
/// fresh one.
const domain::Specimen* nextOnLadder(const domain::StudyData& data, const std::set<domain::Id>& skip = {});

} // namespace anvil::plan
