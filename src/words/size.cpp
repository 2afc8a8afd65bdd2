#include <anvil/words/size.h>

#include <anvil/quantity/print.h>
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
    std::string text = least ? "at least " : most ? "at most " : "";
    text += percent ? oneEnd(ratio, true) : significant(ratio, 3) + " times";
    if (!than.empty()) text += (percent ? " than " : " ") + than;
    if (!c.ratioInterval) return text;
    const auto [a, b] = *c.ratioInterval;
    const double low = turned ? 1 / b : a, high = turned ? 1 / a : b;
    const auto ends = least  ? "from " + oneEnd(low, percent) + " up"
                      : most ? "up to " + oneEnd(high, percent)
                             : bothEnds(low, high, percent);
    return text + fmt::format(" (95 % interval {})", ends);
}

} // namespace anvil::words
