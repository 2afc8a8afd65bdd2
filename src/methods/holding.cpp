// Holding and drag: the load that is held for a while at a creep that is slow enough.
#include "common_metrics.h"
#include "tell.h"

#include <anvil/quantity/print.h>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"weight", "Its own weight", "such as 12 kg", Dimension::force, Of::specimen},
    {"moves", "Starts to move at", "such as 1.8 kN, >2 kN", Dimension::force, Of::pull, Form::one, true,
     true},
    {"creeps", "Creeps at", "the load it creeps at", Dimension::force, Of::pull, Form::one, false, true},
    {"seconds", "Held for", "such as 30 s", Dimension::time, Of::pull},
    {"speed", "At a speed of", "such as 2 mm/min", Dimension::speed, Of::pull, Form::one, false, false, true},
};
constexpr Metric metrics[] = {
    {.key = "holding",
     .title = "Holding load",
     .noun = "load at which it starts to move",
     .dimension = Dimension::force,
     .atEnd = true,
     .more = "holds more than",
     .less = "holds less than"},
    {"creeping", "Load while creeping", "load while creeping", Dimension::force},
    {.key = "holding_per_weight",
     .title = "Holding per weight",
     .noun = "holding load for each of its own weight",
     .dimension = Dimension::ratio,
     .atEnd = true,
     .more = "holds more than",
     .less = "holds less than"},
    peakRow,
    firstSlipRow,
    afterwardsRow,
};

/// The load at which it starts to move: as entered, or the first slip of its curve. No formula of its own:
/// how slow is slow enough is the tester's, and stands with the number.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    auto moves = e.doubted("moves");
    bool guess = false;
    if (e.reading) {
        tellForceCurve(tell, e);
        const bool slipped = e.reading->loadKind == Dimension::force && e.reading->firstSlip;
        if (!moves && e.reading->sustained) { // held long enough at a creep that is slow enough
            const double v = *e.reading->sustained;
            moves = stats::Value{v, e.bound, v};
            guess = e.calibratedTo > 0 && v + e.reading->baseline > e.calibratedTo;
        } else if (!moves && slipped) {
            const double v = e.reading->firstSlip->load;
            moves = stats::Value{v, stats::Bound::exact, v};
            guess = e.calibratedTo > 0 && v + e.reading->baseline > e.calibratedTo;
        }
    }
    tell.number("holding", moves, guess);
    tell.without("holding", e.reading ? "it never slipped before its peak" : "no load was entered");
    for (const char* metric : {"peak", "first_slip"})
        tell.without(metric, "there is no curve");
    tell.number("creeping", e.doubted("creeps"));
    tell.without("creeping", "no load while creeping was entered");
    const auto weight = e.value("weight");
    if (moves && weight) tell.number("holding_per_weight", times(*moves, 1 / *weight), guess);
    tell.without("holding_per_weight", "it needs its own weight");
    if (const auto at = e.inputs.find("creeps"); at != e.inputs.end())
        tell.note(fmt::format("It creeps at {}.", quantity::print(at->second)));
    if (const auto at = e.inputs.find("seconds"); at != e.inputs.end())
        tell.note(fmt::format("Held for {}.", quantity::print(at->second)));
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.line({20, 130}, {280, 130}, Tone::ground, 4);
    e.box(70, 88, 80, 40);
    e.label({62, 113}, "W", "weight", Beside::left);
    e.force({152, 106}, {226, 106}, "F", "moves");
    e.label({190, 150}, "v", "speed");
    e.label({110, 76}, "T", "seconds");
}

void card(Easel& e) {
    e.box(40, 38, 40, 14);
    e.line({26, 26}, {26, 64}, Tone::ground, 4);
    e.line({26, 45}, {40, 45}, Tone::ground, 2);
    e.arrow({82, 45}, {130, 45});
}

} // namespace

extern const Method holding;
const Method holding{"holding",
                     "Holding and drag",
                     "The load that is held for a while at a creep that is slow enough.",
                     "A steady pull and a way to see movement.",
                     Action::hold,
                     {sketch, card},
                     inputs,
                     metrics,
                     formulas,
                     Dimension::force,
                     "The load at which it first moves, and the load it then creeps at.",
                     "slip grip clamp cleat friction hold magnet suction brake moves creep drag"};

} // namespace anvil::methods
