// What is told of a study beside its results: reference lines, working limits, what the report leaves out,
// what was published and corrected.
#pragma once

#include <anvil/project/open_project.h>
#include <anvil/quantity/unit.h>
#include <array>

namespace anvil::project {

/// How floors become working limits, as typed; empty: not said.
struct UseText {
    QString factor, why, step, load, uneven;
};
/// Error: a factor or an unevenness below one, or what is no force. Numbers without a unit are in the spoken
/// one.
Expected<void> setUse(OpenProject& project, Id study, const UseText& typed);
/// A design factor with its reason; the rest stays.
Expected<void> setDesignFactor(OpenProject& project, Id study, double factor, const std::string& why);

/// Reference lines, a row each as typed: name, value, upper end of a range or nothing. Error: a row without a
/// name, what is no quantity of the metric, or a range upside down.
Expected<void> setReferences(OpenProject& project, Id study, const std::vector<std::array<QString, 3>>& rows,
                             quantity::Dimension dimension);

/// Whether the report tells of a page of the verdict.
Expected<void> setInReport(OpenProject& project, Id study, const std::string& page, bool told);

/// The family that is fitted where values are bounds.
Expected<void> setFamily(OpenProject& project, Id study, stats::Family family);

/// Keeps what is shown now as published; a value that changes later is a correction. `at`: ISO 8601.
Expected<void> publish(OpenProject& project, Id study, const std::string& at);
/// Why a published value was changed. Error: no reason, or nothing that was published has changed.
Expected<void> explainCorrection(OpenProject& project, Id study, Id pull, const std::string& at,
                                 const QString& why);

} // namespace anvil::project
