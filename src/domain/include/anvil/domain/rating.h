// Judgements by eye: what the steps of the scale mean, in the tester's words.
#pragma once

#include <anvil/domain/plan.h>
#include <anvil/quantity/error.h>
#include <span>
#include <string>
#include <vector>

namespace anvil::domain {

/// Whether a number is a step of the scale: 0 to 10, whole or half.
bool isRatingStep(double value);

/// What the steps of a scale mean as it is typed, step ("0", "2.5") and words; by step. Error: no step, one
/// off the scale or twice, or no words.
Expected<std::vector<RatingWord>> ratingWordsOf(std::span<const std::pair<std::string, std::string>> typed);
/// The same in a line: "0 = falls out by hand; 5 = needs a hammer".
std::string ratingWordsText(const std::vector<RatingWord>& words);

/// What a step means: the words of it, "between … and …" where it lies between two, empty where nothing
/// tells.
std::string meaningOf(double step, const std::vector<RatingWord>& words);

} // namespace anvil::domain
