#include <anvil/words/size.h>

#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::words {

using quantity::significant;

namespace {

/// From half to twice a difference is told in per cent.
bool inPercent(double ratio) { return ratio > 0.5 && ratio < 2; }

std::string percentOf(double ratio) { return quantity::percent(std::abs(ratio - 1)); }

const char* moreOrLess(double ratio) { return ratio < 1 ? "less" : "more"; }

std::string oneEnd(double ratio, bool percent) {
    if (!percent) return significant(ratio, 3);
    return fmt::format("{} {}", percentOf(ratio), moreOrLess(ratio));
}

/// Both ends; of one direction it is said once, the lesser difference first.
std::string bothEnds(double low, double high, bool percent) {
    if (!percent) return fmt::format("{} to {}", significant(low, 3), significant(high, 3));
    if (low >= 1) return fmt::format("{} to {}", percentOf(low), percentOf(high));
    if (high <= 1) return fmt::format("{} to {}", percentOf(high), percentOf(low));
    return fmt::format("{} to {}", oneEnd(low, true), oneEnd(high, true));
}

} // namespace

std::string chanceText(double chance) {
    if (chance > 0.99) return "over 99 %";
    if (chance < 0.01) return "under 1 %";
    return fmt::format("{:.0f} %", 100 * chance);
}

std::string sizeText(const stats::Comparison& c, bool turned, const std::string& than) {
    if (!c.ratio) return {};
    const double ratio = turned ? 1 / *c.ratio : *c.ratio;
    const bool percent = inPercent(ratio);
    const bool least = turned ? c.atMost : c.atLeast, most = turned ? c.atLeast : c.atMost;
    // "At least 0.7 times" is "at most 30 % less".
    const bool fewer = percent && ratio < 1;
    const bool greater = fewer ? most : least, smaller = fewer ? least : most;
    std::string text = greater ? "at least " : smaller ? "at most " : "";
    text += percent ? oneEnd(ratio, true) : significant(ratio, 3) + " times";
    if (!than.empty()) text += (percent ? " than " : " ") + than;
    // The interval is of the test that gave the word: "the same" promises 90 %, all others 95 % over all
    // pairs.
    const bool same = c.verdict == stats::PairVerdict::same && c.tostP;
    const auto shown = same ? stats::ofSameness(c) : stats::overFamily(c);
    if (!shown) return text;
    const double low = turned ? 1 / shown->second : shown->first,
                 high = turned ? 1 / shown->first : shown->second;
    const bool openUp = std::isinf(high), openDown = !(low > 0);
    const auto ends = openUp && openDown ? std::string("open at both ends")
                      : openUp           ? "from " + oneEnd(low, percent) + " up"
                      : openDown         ? "up to " + oneEnd(high, percent)
                                         : bothEnds(low, high, percent);
    const char* level = same           ? "90 % interval"
                        : c.family > 1 ? "95 % interval over all pairs"
                                       : "95 % interval";
    return text + fmt::format(" ({} {})", level, ends);
}

} // namespace anvil::words
