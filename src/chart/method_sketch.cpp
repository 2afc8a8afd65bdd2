// What is measured of a piece, drawn: each method's piece with the symbols of its formulas, and beside them
// what was typed of them.
#include <anvil/chart/charts.h>

#include "arrow.h"
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace anvil::chart {
namespace {

using Typed = std::map<std::string, std::string, std::less<>>;

/// Draws on a box of 300 by 170.
class Sketch {
public:
    explicit Sketch(const Typed& typed) : m_typed(typed) {
        p.width = 300;
        p.height = 170;
    }
    Picture p;

    /// "L 400 mm" where it was typed, else "L".
    std::string named(const char* symbol, const char* key) const {
        const auto at = m_typed.find(key);
        return at == m_typed.end() || at->second.empty() ? std::string(symbol)
                                                         : std::string(symbol) + " " + elided(at->second, 14);
    }
    bool said(const char* key) const {
        const auto at = m_typed.find(key);
        return at != m_typed.end() && !at->second.empty();
    }
    /// A count that was typed; nothing where none was.
    std::optional<double> count(const char* key) const {
        const auto at = m_typed.find(key);
        const auto number =
            at == m_typed.end() ? Expected<double>(fail("")) : quantity::parseNumber(at->second);
        return number ? std::optional(*number) : std::nullopt;
    }
    void label(Point at, const char* symbol, const char* key, Align align = Align::center) {
        p.add(Label{at, named(symbol, key), 12, align, said(key) ? Ink::text : Ink::faint, said(key)});
    }
    void box(double x, double y, double w, double h, Ink ink = Ink::series0) {
        p.add(Area{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, ink, 0.8});
    }
    void line(Point a, Point b, Ink ink = Ink::faint, double width = 1.2, Dash dash = Dash::solid) {
        p.add(Line{a, b, ink, width, dash});
    }
    void arrow(Point from, Point to, Ink ink = Ink::accent) { drawArrow(p, from, to, {ink, 2.2, 9}); }
    void force(Point from, Point to, const char* symbol, const char* key, Align align = Align::left) {
        arrow(from, to);
        label({to.x + (align == Align::left    ? 6
                       : align == Align::right ? -6
                                               : 0),
               to.y - 6},
              symbol, key, align);
    }
    /// A measure between two places, with ticks at its ends and its name at the middle.
    void measure(Point a, Point b, const char* symbol, const char* key, double beside = 0) {
        line(a, b);
        const bool upright = std::abs(a.x - b.x) < 1;
        for (const auto& q : {a, b})
            upright ? line({q.x - 4, q.y}, {q.x + 4, q.y}) : line({q.x, q.y - 4}, {q.x, q.y + 4});
        const Point middle{(a.x + b.x) / 2, (a.y + b.y) / 2};
        if (upright)
            label({middle.x + (beside < 0 ? -7 : 7), middle.y + 4}, symbol, key,
                  beside < 0 ? Align::right : Align::left);
        else
            label({middle.x, middle.y + (beside < 0 ? -6 : 15)}, symbol, key);
    }
    void ring(Point at, double radius, Ink ink = Ink::series0) {
        Polyline circle{{}, ink, 2};
        for (int i = 0; i <= 32; ++i) {
            const double a = i / 32.0 * 2 * std::numbers::pi;
            circle.points.push_back({at.x + radius * std::cos(a), at.y + radius * std::sin(a)});
        }
        p.add(std::move(circle));
    }
    /// The section, in the upper right corner: round where a diameter was typed or nothing but one is asked
    /// for.
    void section(bool mayBeFlat, bool mayBeRound, const char* second = "depth",
                 const char* secondSymbol = "d") {
        if (mayBeRound && (!mayBeFlat || said("diameter"))) {
            ring({250, 40}, 24);
            if (said("wall")) ring({250, 40}, 16);
            label({250, 82}, "D", "diameter");
            return;
        }
        box(228, 22, 40, 30);
        measure({228, 60}, {268, 60}, "b", "breadth");
        measure({276, 22}, {276, 52}, secondSymbol, second);
    }

private:
    const Typed& m_typed;
};

void axialPull(Sketch& s) {
    s.box(40, 96, 200, 40, Ink::band);
    s.box(130, 66, 18, 52);
    s.measure({158, 96}, {158, 118}, "e", "engagement");
    s.force({139, 62}, {139, 22}, "F", "peak");
    s.label({60, 126}, "A", "area");
}
void tensionCoupon(Sketch& s) {
    s.box(20, 74, 50, 40);
    s.box(70, 84, 110, 20);
    s.box(180, 74, 50, 40);
    s.measure({80, 124}, {170, 124}, "L0", "gauge_length");
    s.force({230, 94}, {282, 94}, "F", "peak", Align::right);
    s.arrow({20, 94}, {2, 94});
    s.section(true, true, "thickness", "t");
}
void compression(Sketch& s) {
    s.line({40, 140}, {190, 140}, Ink::faint, 4);
    s.box(85, 70, 60, 68);
    s.line({40, 68}, {190, 68}, Ink::faint, 4);
    s.measure({160, 70}, {160, 138}, "h", "height");
    s.force({115, 20}, {115, 62}, "F", "peak");
    s.section(true, true);
}
void pinShear(Sketch& s) {
    s.box(60, 60, 130, 20, Ink::band);
    s.box(60, 84, 130, 20);
    if (s.count("planes") == 2) s.box(60, 108, 130, 20, Ink::band);
    s.box(116, 44, 16, 96, Ink::series2);
    s.force({190, 94}, {240, 94}, "F", "peak", Align::right);
    s.arrow({60, 70}, {20, 70});
    s.label({124, 158}, "m", "planes");
    s.section(false, true);
}
void lapShear(Sketch& s) {
    s.box(20, 78, 160, 12);
    s.box(120, 92, 160, 12, Ink::series2);
    s.measure({120, 116}, {180, 116}, "o", "overlap");
    s.force({280, 98}, {298, 98}, "F", "peak", Align::right);
    s.arrow({20, 84}, {2, 84});
    s.label({60, 70}, "w", "width");
}
void threePointBend(Sketch& s) {
    s.p.add(Polyline{{{20, 84}, {80, 96}, {110, 98}, {140, 96}, {200, 84}}, Ink::series0, 9});
    s.arrow({40, 138}, {40, 100}, Ink::faint);
    s.arrow({180, 138}, {180, 100}, Ink::faint);
    s.measure({40, 146}, {180, 146}, "L", "span");
    s.force({110, 40}, {110, 88}, "F", "peak");
    s.section(true, true);
}
void leverBend(Sketch& s) {
    s.box(20, 40, 14, 90, Ink::faint);
    s.box(34, 78, 180, 14);
    s.arrow({206, 94}, {206, 142});
    s.p.add(Label{{212, 138}, "W", 12, Align::left, Ink::faint});
    s.line({34, 112}, {206, 112});
    s.p.add(Label{{120, 127}, "a", 12, Align::center, Ink::faint});
    s.section(true, true);
}
void sag(Sketch& s) {
    s.line({30, 50}, {270, 50}, Ink::faint, 1, Dash::dashed);
    s.p.add(Polyline{{{30, 50}, {90, 72}, {150, 80}, {210, 72}, {270, 50}}, Ink::series0, 6});
    s.box(136, 84, 28, 22, Ink::series2);
    s.label({150, 122}, "W", "weight");
    s.line({20, 150}, {280, 150}, Ink::faint, 3);
    s.measure({60, 50}, {60, 150}, "h0", "unloaded", -1);
    s.measure({186, 78}, {186, 150}, "h1", "loaded");
    s.measure({30, 34}, {270, 34}, "L", "span", -1);
}
void torsion(Sketch& s) {
    s.box(30, 70, 16, 40, Ink::faint);
    s.box(46, 82, 150, 16);
    Polyline turn{{}, Ink::accent, 2.2};
    for (int i = 0; i <= 20; ++i) {
        const double a = -1.2 + i / 20.0 * 3.4;
        turn.points.push_back({196 + 12 * std::cos(a), 90 + 30 * std::sin(a)});
    }
    s.p.add(turn);
    s.label({214, 70}, "T", "peak", Align::left);
    s.label({214, 120}, "φ", "angle_at_peak", Align::left);
    s.measure({46, 122}, {196, 122}, "l", "length");
    s.section(false, true);
}
void torque(Sketch& s) {
    s.ring({80, 100}, 26);
    s.ring({80, 100}, 10, Ink::series2);
    s.box(90, 94, 150, 12);
    s.measure({80, 136}, {232, 136}, "r", "arm");
    s.force({232, 92}, {232, 44}, "F", "force", Align::right);
    s.label({80, 62}, "T", "breakaway");
    s.label({250, 160}, "to", "to", Align::right);
    s.label({40, 160}, "from", "from", Align::left);
}
void hammer(Sketch& s) {
    s.line({150, 10}, {60, 66}, Ink::faint, 2);
    s.line({150, 10}, {150, 118}, Ink::faint, 1, Dash::dashed);
    s.line({150, 10}, {226, 88}, Ink::faint, 2, Dash::dashed);
    s.box(44, 60, 26, 22);
    s.box(214, 82, 26, 22, Ink::band);
    s.box(144, 112, 12, 34, Ink::series2);
    s.line({20, 146}, {280, 146}, Ink::faint, 1.5);
    s.measure({30, 74}, {30, 146}, "h0", "from");
    s.measure({256, 96}, {256, 146}, "h1", "to", -1);
    s.label({76, 98}, "m", "mass");
    s.label({112, 30}, "R", "arm", Align::right);
}
void drop(Sketch& s) {
    s.line({20, 146}, {280, 146}, Ink::faint, 4);
    s.box(120, 24, 54, 40);
    s.label({147, 49}, "m", "mass");
    s.arrow({147, 68}, {147, 128});
    s.measure({200, 64}, {200, 146}, "h", "height");
    s.label({70, 130}, "a", "peak");
}
void creep(Sketch& s) {
    s.line({30, 20}, {150, 20}, Ink::faint, 4);
    s.box(82, 22, 16, 60);
    s.box(72, 86, 36, 28, Ink::series2);
    s.measure({120, 22}, {120, 82}, "L0", "gauge_length");
    s.line({170, 130}, {290, 130});
    s.line({170, 130}, {170, 30});
    Polyline rise{{}, Ink::series0, 2};
    for (int i = 0; i <= 24; ++i)
        rise.points.push_back({170 + 5.0 * i, 130 - 26 * std::log(1 + 0.9 * i)});
    s.p.add(std::move(rise));
    if (s.said("limit")) s.line({170, 52}, {290, 52}, Ink::warn, 1.2, Dash::dashed);
    s.label({286, 46}, "limit", "limit", Align::right);
}
void attempts(Sketch& s) {
    for (int i = 0; i < 10; ++i)
        s.p.add(Mark{{40 + 24.0 * i, 80},
                     i < 8 ? MarkShape::disc : MarkShape::cross,
                     15,
                     i < 8 ? Ink::series0 : Ink::warn});
    s.label({110, 124}, "k", "successes");
    s.label({190, 124}, "of n", "tries");
}
void loadShare(Sketch& s) {
    s.line({30, 14}, {270, 14}, Ink::faint, 4);
    static constexpr double tops[] = {50, 150, 250};
    static constexpr const char* keys[] = {"leg.1", "leg.2", "leg.3"};
    static constexpr const char* symbols[] = {"F1", "F2", "F3"};
    for (std::size_t i = 0; i < 3; ++i) {
        s.line({tops[i], 16}, {150, 96}, Ink::series0, 3);
        s.label({tops[i] + (i == 0   ? 4
                            : i == 2 ? -4
                                     : 6),
                 i == 1 ? 62.0 : 46.0},
                symbols[i], keys[i], i == 2 ? Align::right : Align::left);
    }
    s.force({150, 98}, {150, 150}, "F", "master");
}
void advantage(Sketch& s) {
    s.line({40, 14}, {230, 14}, Ink::faint, 4);
    s.ring({110, 40}, 14);
    s.ring({150, 104}, 14);
    s.line({96, 40}, {96, 140}, Ink::series0, 2);
    s.line({124, 40}, {136, 104}, Ink::series0, 2);
    s.line({164, 104}, {176, 16}, Ink::series0, 2);
    s.arrow({96, 130}, {96, 158});
    s.label({88, 156}, "in", "input", Align::right);
    s.arrow({150, 120}, {150, 158}, Ink::series2);
    s.label({160, 156}, "out", "output", Align::left);
    s.label({250, 90}, "ideal", "ideal");
}
void holding(Sketch& s) {
    s.line({20, 130}, {280, 130}, Ink::faint, 4);
    s.box(70, 88, 80, 40);
    s.label({110, 113}, "W", "weight");
    s.force({152, 106}, {226, 106}, "F", "moves");
    s.label({190, 150}, "v", "speed");
    s.label({110, 76}, "T", "seconds");
}
void stepLadder(Sketch& s) {
    for (int i = 0; i < 5; ++i)
        s.box(40 + 44.0 * i, 130 - 22.0 * i, 40, 14 + 22.0 * i, i < 4 ? Ink::series0 : Ink::warn);
    s.p.add(Label{{192, 36}, "held", 12, Align::center, Ink::faint});
    s.p.add(Label{{240, 26}, "failed", 12, Align::center, Ink::warn});
}
void byEye(Sketch& s) {
    s.line({30, 96}, {270, 96}, Ink::faint, 2);
    for (int i = 0; i <= 10; ++i) {
        s.line({30 + 24.0 * i, 90}, {30 + 24.0 * i, 102});
        if (i % 5 == 0)
            s.p.add(Label{{30 + 24.0 * i, 120}, std::to_string(i), 12, Align::center, Ink::faint});
    }
    s.label({150, 70}, "rating", "rating");
}

constexpr std::array<std::pair<std::string_view, void (*)(Sketch&)>, 19> drawings{{
    {"axial-pull", axialPull},
    {"tension-coupon", tensionCoupon},
    {"compression", compression},
    {"pin-shear", pinShear},
    {"lap-shear", lapShear},
    {"three-point-bend", threePointBend},
    {"lever-bend", leverBend},
    {"sag", sag},
    {"torsion", torsion},
    {"torque", torque},
    {"hammer", hammer},
    {"drop", drop},
    {"creep", creep},
    {"attempts", attempts},
    {"load-share", loadShare},
    {"advantage", advantage},
    {"holding", holding},
    {"step-ladder", stepLadder},
    {"by-eye", byEye},
}};

} // namespace

Picture methodSketch(const methods::Method& method,
                     const std::map<std::string, std::string, std::less<>>& typed) {
    const auto at =
        std::find_if(drawings.begin(), drawings.end(), [&](const auto& d) { return d.first == method.key; });
    if (at == drawings.end()) return methodPicture(method.action);
    Sketch sketch(typed);
    at->second(sketch);
    return std::move(sketch.p);
}

} // namespace anvil::chart
