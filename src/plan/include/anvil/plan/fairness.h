// What is not fair about a study.
#pragma once

#include <anvil/results/values.h>

namespace anvil::plan {

/// One piece of advice about fairness.
struct Finding {
    std::string rule;     ///< key, for accepting
    std::string sentence; ///< what is wrong, for a tester
    std::string remedy;   ///< what the button does; empty: only accepting is possible
    bool accepted = false;
    std::string why; ///< the reason it was accepted
};

/// What is not fair about the study as it stands, by its intent. As-used studies are not asked for equal
/// batches or speeds, exploratory ones not for replicates or a control.
std::vector<Finding> fairness(const domain::StudyData& data, const results::Readings& readings);

} // namespace anvil::plan
