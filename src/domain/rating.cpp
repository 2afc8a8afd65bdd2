#include <anvil/domain/rating.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::domain {
bool isRatingStep(double value) { return value >= 0 && value <= 10 && 2 * value == std::floor(2 * value); }

Expected<std::vector<RatingWord>> ratingWordsOf(std::span<const std::pair<std::string, std::string>> typed) {
    std::vector<RatingWord> out;
    for (const auto& [text, words] : typed) {
        const auto step = quantity::parseNumber(text);
        if (!step) return fail("\"" + text + "\" is no step of the scale: type a number from 0 to 10.");
        if (words.empty()) return fail("Say what the step " + text + " means.");
        if (!isRatingStep(*step))
            return fail("\"" + text + "\" is off the scale: its steps are 0 to 10, whole or half.");
        out.push_back({*step, words});
    }
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.step < b.step; });
    const auto twice = std::adjacent_find(out.begin(), out.end(),
                                          [](const auto& a, const auto& b) { return a.step == b.step; });
    if (twice != out.end())
        return fail("The step " + quantity::shortest(twice->step) +
                    " stands twice in the words of the scale.");
    return out;
}

std::string ratingWordsText(const std::vector<RatingWord>& words) {
    std::string out;
    for (const auto& w : words)
        out += (out.empty() ? "" : "; ") + quantity::shortest(w.step) + " = " + w.words;
    return out;
}

std::string meaningOf(double step, const std::vector<RatingWord>& words) {
    const RatingWord *below = nullptr, *above = nullptr;
    for (const auto& w : words) {
        if (w.step == step) return w.words;
        if (w.step < step) below = &w;
        if (w.step > step && !above) above = &w;
    }
    if (below && above) return "between \"" + below->words + "\" and \"" + above->words + "\"";
    return {};
}

} // namespace anvil::domain
