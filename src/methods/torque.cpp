// Breakaway and running torque of a thread.
#include "common_metrics.h"
#include "tell.h"
#include <cmath>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"breakaway", "Breakaway", "4.2 N·m, >9 N·m, 4…5 N·m", Dimension::torque, Of::pull, Form::one, true,
     true},
    {"running", "Running", "what keeps it turning", Dimension::torque, Of::pull, Form::one, false, true},
    {"force", "Force on an arm", "instead of a torque", Dimension::force, Of::pull, Form::one, false, true},
    {"arm", "Length of the arm", "such as 250 mm", Dimension::length, Of::pull},
    {.key = "from",
     .title = "Published from",
     .hint = "the range it should lie in",
     .dimension = Dimension::torque,
     .stays = true},
    {.key = "to",
     .title = "Published to",
     .hint = "its upper end",
     .dimension = Dimension::torque,
     .stays = true},
};
constexpr Metric metrics[] = {
    {.key = "breakaway",
     .title = "Breakaway torque",
     .noun = "breakaway torque",
     .dimension = Dimension::torque,
     .atEnd = true,
     .more = "breaks away later than",
     .less = "breaks away earlier than"},
    {.key = "running",
     .title = "Running torque",
     .noun = "running torque",
     .dimension = Dimension::torque,
     .more = "runs harder than",
     .less = "runs more easily than"},
    afterwardsRow,
};

/// T = F·r where a force on an arm was read, square to the arm.
/// Source: Gere & Goodno, Mechanics of Materials, ch. 3.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto* r = e.reading && e.reading->loadKind == Dimension::torque ? e.reading : nullptr;
    const auto force = e.doubted("force");
    const auto arm = e.value("arm");
    std::optional<stats::Value> breakaway = e.doubted("breakaway"), running = e.doubted("running");
    if (!breakaway && force && arm) breakaway = times(*force, *arm);
    if (!breakaway && r && r->breakaway) breakaway = stats::Value{*r->breakaway, e.bound, *r->breakaway};
    if (!running && r && r->running) running = stats::Value{*r->running, stats::Bound::exact, *r->running};
    const auto guess = [&](const std::optional<stats::Value>& v) {
        return r && v && e.calibratedTo > 0 && v->value + r->baseline > e.calibratedTo;
    };
    tell.number("breakaway", breakaway, guess(breakaway));
    tell.number("running", running, guess(running));
    const bool other = e.reading && !r;
    tell.without("breakaway", other   ? "its curve is of no torque"
                              : r     ? "it was not turned far enough"
                              : force ? "it needs the length of the arm"
                                      : "no torque was entered");
    tell.without("running", other ? "its curve is of no torque"
                            : r   ? "it was not turned far enough"
                                  : "no running torque was entered");
    if (breakaway && running && running->value > breakaway->value)
        tell.note("It took more to keep it turning than to start it.");
    const auto from = e.value("from"), to = e.value("to");
    if (from && to && *from > *to) return fail("The published range ends below where it begins.");
    if (force && !e.has("breakaway") && arm && *arm > 10)
        tell.note("An arm of more than 10 m: is its unit right?");
    if (breakaway && from && to && breakaway->bound == stats::Bound::exact)
        tell.note(breakaway->value < *from ? "It lies below the published range."
                  : breakaway->value > *to ? "It lies above the published range."
                                           : "It lies inside the published range.");
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.ring({80, 100}, 26);
    e.ring({80, 100}, 10, Tone::second);
    e.box(90, 94, 150, 12);
    e.measure({80, 136}, {232, 136}, "r", "arm");
    e.force({232, 92}, {232, 44}, "F", "force", Beside::left);
    e.label({80, 62}, "T", "breakaway");
    e.label({250, 160}, "to", "to", Beside::left);
    e.label({40, 160}, "from", "from", Beside::right);
}

/// A bolt's head seen from above and a wrench on it.
void card(Easel& e) {
    std::vector<At> head;
    for (int i = 0; i < 6; ++i)
        head.push_back({42 + 20 * std::cos(i * M_PI / 3), 52 + 20 * std::sin(i * M_PI / 3)});
    e.line({56, 48}, {132, 26}, Tone::piece, 9);
    e.area(head, Tone::second);
    e.arrow({132, 40}, {120, 74});
}

} // namespace

extern const Method torque;
const Method torque{"torque",
                    "Breakaway and running torque",
                    "What it takes to start and keep a thread turning.",
                    "A torque wrench or a force on an arm of known length.",
                    Action::twist,
                    {sketch, card},
                    inputs,
                    metrics,
                    formulas,
                    Dimension::torque,
                    "The greatest torque within the first quarter turn, and the mean while it turns on.",
                    "screw bolt nut tighten loosen thread cap lid clamp breakaway wrench strip"};

} // namespace anvil::methods
