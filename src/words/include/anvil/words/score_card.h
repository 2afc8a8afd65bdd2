// What a score card says.
#pragma once

#include <anvil/quantity/units.h>
#include <anvil/results/score_card.h>
#include <anvil/results/sureness.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// Who comes first, by how much, and for how many weights that holds.
std::string winnerSentence(const results::CardResult& card);

/// What that hangs on: weights at which it turns, blanks, criteria that tell nobody apart or give no marks.
std::vector<std::string> cardNotes(const results::CardResult& card);

/// Options best first: score, how much is tested, wins, with the blanks filled, the mark in each criterion.
/// `of`: the option's place on the card.
Table cardTable(const results::CardResult& card);

/// What was measured: the value of each option in each criterion, with its unit.
Table cardValues(const results::CardResult& card, const quantity::Units& units);

/// A share of the weight: "30 %".
std::string shareText(double share);
/// "Peak force, Salt-soaked"; with the study where it is another than `own`.
std::string criterionTitle(const results::CriterionResult& criterion);
std::string offeredTitle(const domain::Criterion& criterion, const domain::StudyData& own,
                         const domain::StudyData* of);

/// Who leads in each condition, and the chance that it is the best there. Empty: a single condition.
Table winnersByCondition(const domain::StudyData& data, const results::Verdict& verdict,
                         const results::Sureness* sure);

} // namespace anvil::words
