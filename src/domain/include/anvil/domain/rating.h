// Judgements by eye: what the steps of the scale mean, in the tester's words.
#pragma once

#include <anvil/domain/plan.h>
#include <anvil/quantity/error.h>
#include <string>
#include <vector>

namespace anvil::domain {

/// Whether a number is a step of the scale: 0 to 10, whole or half.
bool isRatingStep(double value);

/// Words for the steps of a scale as a tester types them: "0 = falls out by hand; 5 = needs a hammer"; by
/// step. Empty: none. Error: no step before the sign, a step off the scale, one that stands twice, or no
/// words.
Expected<std::vector<RatingWord>> ratingWordsFrom(const std::string& text);
/// The same the other way round.
std::string ratingWordsText(const std::vector<RatingWord>& words);

/// What a step means: the words of it, "between … and …" where it lies between two, empty where nothing
/// tells.
std::string meaningOf(double step, const std::vector<RatingWord>& words);

} // namespace anvil::domain
