#include <anvil/domain/rating.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::domain {
namespace {

std::string trimmed(const std::string& s) {
    const auto from = s.find_first_not_of(" \t");
    return from == std::string::npos ? std::string() : s.substr(from, s.find_last_not_of(" \t") - from + 1);
}

} // namespace

bool isRatingStep(double value) { return value >= 0 && value <= 10 && 2 * value == std::floor(2 * value); }

Expected<std::vector<RatingWord>> ratingWordsFrom(const std::string& text) {
    std::vector<RatingWord> out;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find(';', at), text.size());
        const auto part = trimmed(text.substr(at, end - at));
        at = end + 1;
        if (part.empty()) continue;
        const auto sign = part.find('=');
        const auto step =
            sign == std::string::npos ? tl::unexpected(Error{}) : quantity::parseNumber(part.substr(0, sign));
        const auto words = sign == std::string::npos ? std::string() : trimmed(part.substr(sign + 1));
        if (!step || words.empty())
            return fail("\"" + part +
                        "\" says nothing of a step: write it as 0 = falls out; 5 = needs a hammer.");
        if (!isRatingStep(*step))
            return fail("\"" + part + "\" is off the scale: its steps are 0 to 10, whole or half.");
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
