// Commands of the plan and the goal: replicates, fairness, pieces, run list, preparation.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/project/open_project.h>
#include <cstdint>
#include <tuple>

namespace anvil::project {

/// Changes the plan of a study. `what` names it for undo and journal.
Expected<void> changePlan(OpenProject& project, Id study, const QString& what,
                          const std::function<void(domain::Plan&)>& change);

/// Likewise of what is wanted: the metric that decides, its sense, limits, margin, control and part.
Expected<void> changeGoal(OpenProject& project, Id study, const QString& what,
                          const std::function<void(domain::Goal&)>& change);

/// Sets the method; where it does not tell what decides so far, its usual metric decides, and less is
/// wanted of a sag, a creep and a shock. Empty: no method.
Expected<void> setMethod(OpenProject& project, Id study, const std::string& method);

/// Replicates of every square that says nothing of its own. Error: below 0 or above 200.
Expected<void> planReplicates(OpenProject& project, Id study, int replicates);

/// Replicates of some squares; empty: as the study says.
Expected<void> planSquares(OpenProject& project, Id study, const std::vector<std::pair<Id, Id>>& squares,
                           std::optional<int> replicates);

/// Squares that are not to be tested, or are after all.
Expected<void> strikeSquares(OpenProject& project, Id study, const std::vector<std::pair<Id, Id>>& squares,
                             bool struck);

/// Makes the pieces that are planned and missing; returns how many. Error: nothing is planned, or all are
/// made.
Expected<int> makePieces(OpenProject& project, Id study, const QString& batch);

/// What is measured on every piece of a study, by name: nominal and tolerance where it is known already.
/// Error: no piece, or no name.
Expected<void> measureAll(OpenProject& project, Id study, const domain::Measured& what);

/// Carries out a fairness finding's remedy.
Expected<void> applyRemedy(OpenProject& project, Id study, const std::string& rule);

/// Accepts a finding for a reason, which lands in the report. An empty reason takes the acceptance back.
Expected<void> acceptFinding(OpenProject& project, Id study, const std::string& rule, const QString& why);

/// Draws the run list from a seed; with `groupConditions` the set-up is changed once a block at most.
Expected<void> drawRunList(OpenProject& project, Id study, std::uint64_t seed, bool groupConditions);

/// Moves a piece in the run list from a place to another; the list is "changed by hand" from then on.
Expected<void> moveInRunList(OpenProject& project, Id study, int from, int to);

/// Over which devices the line of each option runs, the nearest to the input first, as typed: the option,
/// "ring, roller", and what leads it round at the input or nothing. Options without devices are not reeved.
/// Error: no such option.
Expected<void> setReevings(OpenProject& project, Id study,
                           const std::vector<std::tuple<Id, std::string, std::string>>& typed);

/// Which options are another one in an arrangement, as typed: the option, the plain one and the factor; rows
/// without a plain one and a factor are none. Error: no such option, an option that is its own plain one, or
/// no factor above zero.
struct TypedArrangement {
    std::string option, base, factor;
};
Expected<void> setArrangements(OpenProject& project, Id study, const std::vector<TypedArrangement>& typed);

/// How the pieces are prepared, step by step.
Expected<void> setRecipe(OpenProject& project, Id study, const std::vector<domain::RecipeStep>& recipe);

/// Begins the preparation of the pieces that are made; `at` is ISO 8601. An empty text takes the
/// beginning back.
Expected<void> startRecipe(OpenProject& project, Id study, const QString& at);

/// A step of the preparation was done at a time, ISO 8601; empty: it was not.
Expected<void> markStep(OpenProject& project, Id study, const std::string& key, const QString& at);

} // namespace anvil::project
