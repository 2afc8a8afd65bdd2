// Mechanical advantage: output over input of a hauling system.
#include "common_metrics.h"
#include "tell.h"

#include <algorithm>
#include <cmath>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {.key = "ideal",
     .title = "Ideal advantage",
     .hint = "by counting lines, such as 3",
     .dimension = Dimension::ratio,
     .stays = true},
    {.key = "line_angle",
     .title = "Lines not parallel",
     .hint = "how far each leans, such as 10°",
     .dimension = Dimension::angle,
     .mayBeZero = true,
     .stays = true},
    {"input", "Pulled with", "such as 400 N", Dimension::force, Of::pull, Form::one, true},
    {"output", "Load it moved", "such as 980 N", Dimension::force, Of::pull, Form::one, true},
};
constexpr Metric metrics[] = {
    {"advantage", "Advantage", "mechanical advantage", Dimension::ratio},
    {"efficiency", "Efficiency", "efficiency", Dimension::ratio, Sense::more, "%"},
    peakRow,
};

/// What was pulled with and what it moved, N.
struct Ends {
    std::optional<double> in, out;
    std::string whyNot = "it needs the load at both ends";
};

/// As entered, else read from a log of both over the window in which both stood still: its main channel is
/// the load that was moved, and the hand's that called "input", or the only other one.
Ends endsOf(const Evidence& e, Tell& tell) {
    Ends ends{e.value("input"), e.value("output")};
    if (ends.in || ends.out || !e.reading) return ends; // one end typed and one logged are of no one moment
    if (!e.reading->together) {
        ends.whyNot = "its curve has no window in which both ends stood still";
        return ends;
    }
    const auto& both = *e.reading->together;
    const auto named = std::find_if(both.others.begin(), both.others.end(),
                                    [](const auto& c) { return sameName(c.first, "input"); });
    if (named == both.others.end() && both.others.size() != 1) {
        ends.whyNot = "none of its channels is called \"input\"";
        return ends;
    }
    const auto& hand = named == both.others.end() ? both.others.front() : *named;
    if (!(hand.second > 0)) return ends;
    ends.in = hand.second;
    ends.out = both.load;
    tell.note(fmt::format("Read from {:.4g} to {:.4g} s, where both stood still: {:.4g} N moved by {:.4g} N "
                          "(\"{}\").",
                          both.from, both.to, both.load, hand.second, hand.first));
    return ends;
}

/// advantage = output/input; efficiency = advantage/(ideal·cos of the angle by which the lines lean).
/// Valid where both stand still or move slowly and evenly: nothing is being sped up.
/// Source: Meriam & Kraige, Statics, ch. 4 (machines).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    tellPeak(tell, e);
    const auto ends = endsOf(e, tell);
    const auto &in = ends.in, &out = ends.out;
    const auto ideal = e.value("ideal");
    if (in && out) {
        tell.exact("advantage", *out / *in);
        const double lean = e.value("line_angle").value_or(0);
        if (std::abs(lean) >= std::numbers::pi / 2)
            return fail("Lines that lean by 90° or more pull nothing along.");
        if (ideal && *ideal < 1)
            return fail("An ideal advantage below 1 loses force before any friction: is it counted "
                        "from the other end?");
        if (ideal) {
            const double corrected = *ideal * std::cos(lean);
            if (lean != 0)
                tell.note(
                    fmt::format("The ideal of {:.4g} is {:.4g} with lines that lean.", *ideal, corrected));
            tell.exact("efficiency", *out / *in / corrected);
            if (*out / *in > corrected)
                tell.note(
                    "It gives more than the ideal: the two readings are not of one steady moment, or a line "
                    "was not counted.");
        }
    }
    tell.without("advantage", ends.whyNot);
    tell.without("efficiency", in && out ? "it needs the ideal advantage" : ends.whyNot);
    return tell.done();
}

void sketch(Easel& e) {
    e.line({40, 14}, {230, 14}, Tone::ground, 4);
    e.ring({110, 40}, 14);
    e.ring({150, 104}, 14);
    e.line({96, 40}, {96, 140}, Tone::piece, 2);
    e.line({124, 40}, {136, 104}, Tone::piece, 2);
    e.line({164, 104}, {176, 16}, Tone::piece, 2);
    e.arrow({96, 130}, {96, 158});
    e.label({88, 156}, "in", "input", Beside::left);
    e.arrow({150, 120}, {150, 158}, Tone::second);
    e.label({160, 156}, "out", "output", Beside::right);
    e.label({250, 90}, "ideal", "ideal");
}

/// A line to and fro between two wheels.
void card(Easel& e) {
    e.line({24, 20}, {24, 70}, Tone::ground, 4);
    for (const double x : {44.0, 106.0})
        e.dot({x, 45}, Dot::ring, 24, Tone::piece);
    e.line({44, 33}, {106, 33}, Tone::second, 2.4);
    e.line({44, 57}, {106, 57}, Tone::second, 2.4);
    e.line({24, 45}, {36, 45}, Tone::ground, 2);
    e.arrow({106, 33}, {136, 12});
    e.arrow({120, 45}, {146, 45});
}

} // namespace

extern const Method advantage;
const Method advantage{
    "advantage",
    "Mechanical advantage",
    "Output over input of a hauling system, and its worst device.",
    "Readings at both ends at the same steady moment.",
    Action::share,
    {sketch, card},
    inputs,
    metrics,
    formulas,
    Dimension::force,
    "Both loads at the same steady moment.",
    "pulley tackle block rope reeving hoist winch rigging friction efficiency line tension",
    stats::Family::normal};

} // namespace anvil::methods
