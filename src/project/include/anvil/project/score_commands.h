// The score card of a study: worked out, and what can be done to it.
#pragma once

#include <anvil/project/open_project.h>
#include <anvil/results/score_card.h>

namespace anvil::project {

/// Whether the curves of a study are read, or so few that nobody has to wait for them.
bool quicklyRead(const OpenProject& project, Id study);

/// The study whose card weighs this one: its own, else the first that has a criterion of it; null: none has.
const domain::StudyData* cardStudyOf(const OpenProject& project, Id study);
/// The card that weighs a study; `weights` instead of those it has, where there are as many.
std::optional<results::CardResult> cardOf(OpenProject& project, Id study, const std::vector<double>& weights);
/// What could be put on it.
std::vector<domain::Criterion> offeredCriteria(OpenProject& project, Id study);

/// Error: a weight below zero, no criterion of that number, a criterion without a name, or with too few
/// ratings.
Expected<void> addCriterion(OpenProject& project, Id study, const domain::Criterion& criterion);
Expected<void> removeCriterion(OpenProject& project, Id study, std::size_t which);
Expected<void> weighCriterion(OpenProject& project, Id study, std::size_t which, double weight);

} // namespace anvil::project
