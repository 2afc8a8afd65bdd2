// What pulls say: how one stands, and its value for a metric.
#pragma once

#include <anvil/curve/reading.h>
#include <anvil/domain/model.h>
#include <anvil/domain/outcomes.h>
#include <anvil/methods/evidence.h>
#include <functional>

namespace anvil::results {

using namespace domain; // results are told of the domain's values

/// Readings of curves by pull; a pull whose curve could not be read has an entry in `unreadable`.
struct Readings {
    std::map<Id, curve::Reading> byPull;
    std::map<Id, std::string> unreadable;
    const curve::Reading* find(Id pull) const; ///< null where there is none
};

/// A pull's value for a metric, or the reason it has none.
struct MetricValue {
    std::optional<stats::Value> value;
    std::string whyNot;
    bool guess = false; ///< read, all or in part, beyond the end of the rig's calibration table
    std::optional<stats::Tally> tally{}; ///< of a count
};

/// Whether the rig topped out: its curve shows it by the limit that holds for it now, or somebody said so.
bool toppedOut(const Pull& pull, const curve::Reading* reading);

/// How a pull stands: as somebody set it; one that counts and topped out is "at least". So correcting a limit
/// corrects the standing.
Standing standingOf(const StudyData& data, const Pull& pull, const curve::Reading* reading);
/// The same with why. What the tester said wins; where nobody said anything it follows from what is known.
domain::Proposal standsAs(const StudyData& data, const Pull& pull, const curve::Reading* reading);

/// What a pull says about a metric, by the formulas of its method. A pull whose standing is "at least" is a
/// bound for what is decided at its end and says nothing of what came after; what was seen before that stays
/// exact. A number that was typed stands as it was typed.
MetricValue valueOf(const StudyData& data, const Pull& pull, const curve::Reading* reading, Metric metric);

/// The same where what the formulas of the method give has been asked for before: `follows` is only called
/// when it is needed.
MetricValue valueFrom(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                      const Metric& metric,
                      const std::function<const Expected<methods::Numbers>&()>& follows);

/// Why somebody should look at this pull's curve; empty when nothing stands out or it has been looked at.
std::vector<std::string> needsLook(const Pull& pull, const Readings& readings);

} // namespace anvil::results
