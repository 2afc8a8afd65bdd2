// Attempts: how often it works.
#include "common_metrics.h"
#include "tell.h"

#include <anvil/stats/counts.h>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"successes", "It worked", "times", Dimension::ratio, Of::pull, Form::one, true, false, true},
    {"tries", "of", "tries", Dimension::ratio, Of::pull, Form::one, true},
};
constexpr Metric metrics[] = {
    {.key = "success_rate",
     .title = "Success rate",
     .noun = "share of tries that worked",
     .dimension = Dimension::ratio,
     .unit = "%",
     .more = "works more often than",
     .less = "works less often than",
     .scale = Scale::counted},
};

/// The share of tries that worked; its interval is that of a binomial proportion (stats/counts.h). Tries are
/// taken to know nothing of each other.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto k = e.value("successes"), n = e.value("tries");
    if (!k || !n) {
        tell.without("success_rate", "it needs successes and tries");
        return tell.done();
    }
    if (*k != std::floor(*k) || *n != std::floor(*n)) return fail("Successes and tries are whole numbers.");
    if (!(*n >= 1)) return fail("At least one try is needed.");
    if (*n > 1e6) return fail("So many tries are none that somebody made.");
    if (*k < 0 || *k > *n) return fail(fmt::format("{:.0f} successes in {:.0f} tries cannot be.", *k, *n));
    tell.counted("success_rate", {static_cast<int>(*k), static_cast<int>(*n)});
    const auto [low, high] = stats::exactInterval({static_cast<int>(*k), static_cast<int>(*n)});
    tell.note(fmt::format("From {:.0f} of {:.0f} tries it lies between {:.1f} and {:.1f} % (95 %).", *k, *n,
                          100 * low, 100 * high));
    if (*n < 10) tell.note("So few tries say little: a rate from them can lie far off.");
    return tell.done();
}

void sketch(Easel& e) {
    for (int i = 0; i < 10; ++i)
        e.dot({40 + 24.0 * i, 80}, i < 8 ? Dot::disc : Dot::cross, 15, i < 8 ? Tone::piece : Tone::failed);
    e.label({110, 124}, "k", "successes");
    e.label({190, 124}, "of n", "tries");
}

/// Tries that came off and tries that did not.
void card(Easel& e) {
    for (int i = 0; i < 8; ++i) {
        const int row = i / 4, column = i % 4;
        const At at{30.0 + 30.0 * column, 30.0 + 30.0 * row};
        const bool failed = i == 2 || i == 7;
        e.dot(at, failed ? Dot::cross : Dot::disc, 16, failed ? Tone::failed : Tone::piece);
    }
}

} // namespace

extern const Method attempts;
const Method attempts{"attempts",
                      "Attempts",
                      "How often it works out of so many tries.",
                      "A count of tries and successes.",
                      Action::look,
                      {sketch, card},
                      inputs,
                      metrics,
                      formulas,
                      {},
                      "Say how often it worked; a failed try counts as a try.",
                      "try works fails catch latch open trigger click success rate"};

} // namespace anvil::methods
