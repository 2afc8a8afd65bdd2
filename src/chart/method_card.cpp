#include <anvil/chart/method_card.h>

#include "arrow.h"
#include <anvil/chart/charts.h>
#include <iterator>
#include <map>

namespace anvil::chart {
namespace {

using Typed = std::map<std::string, std::string, std::less<>>;
using methods::At, methods::Beside, methods::Dot, methods::Stroke, methods::Tone;

Ink inkOf(Tone tone) {
    static constexpr Ink inks[] = {Ink::series0, Ink::series2, Ink::faint, Ink::band,
                                   Ink::accent,  Ink::warn,    Ink::text};
    static_assert(std::size(inks) == static_cast<std::size_t>(Tone::words) + 1);
    return inks[static_cast<std::size_t>(tone)];
}
Dash dashOf(Stroke stroke) {
    static constexpr Dash dashes[] = {Dash::solid, Dash::dashed, Dash::dotted};
    static_assert(std::size(dashes) == static_cast<std::size_t>(Stroke::dotted) + 1);
    return dashes[static_cast<std::size_t>(stroke)];
}
MarkShape shapeOf(Dot dot) {
    static constexpr MarkShape shapes[] = {MarkShape::disc, MarkShape::ring, MarkShape::cross};
    static_assert(std::size(shapes) == static_cast<std::size_t>(Dot::cross) + 1);
    return shapes[static_cast<std::size_t>(dot)];
}
Align alignOf(Beside beside) {
    static constexpr Align aligns[] = {Align::center, Align::right, Align::left};
    static_assert(std::size(aligns) == static_cast<std::size_t>(Beside::right) + 1);
    return aligns[static_cast<std::size_t>(beside)];
}
std::vector<Point> pointsOf(const std::vector<At>& all) {
    std::vector<Point> out;
    out.reserve(all.size());
    for (const auto& at : all)
        out.push_back({at.x, at.y});
    return out;
}

/// Makes a picture of what a method draws.
class PictureEasel : public methods::Easel {
public:
    PictureEasel(double width, double height, double opacity, ArrowLook arrows, const Typed& typed)
        : m_opacity(opacity), m_arrows(arrows), m_typed(typed) {
        p.width = width;
        p.height = height;
    }
    Picture p;

    void box(double x, double y, double w, double h, Tone tone) override {
        p.add(Area{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, inkOf(tone), m_opacity});
    }
    void area(const std::vector<At>& corners, Tone tone) override {
        p.add(Area{pointsOf(corners), inkOf(tone), m_opacity});
    }
    void line(At a, At b, Tone tone, double width, Stroke stroke) override {
        p.add(Line{{a.x, a.y}, {b.x, b.y}, inkOf(tone), width, dashOf(stroke)});
    }
    void curve(std::vector<At> points, Tone tone, double width) override {
        p.add(Polyline{pointsOf(points), inkOf(tone), width});
    }
    void dot(At at, Dot shape, double size, Tone tone) override {
        p.add(Mark{{at.x, at.y}, shapeOf(shape), size, inkOf(tone)});
    }
    void arrow(At from, At to, Tone tone) override {
        auto look = m_arrows;
        look.ink = inkOf(tone);
        drawArrow(p, {from.x, from.y}, {to.x, to.y}, look);
    }
    void words(At at, std::string_view text, Beside beside, Tone tone) override {
        p.add(Label{{at.x, at.y}, std::string(text), 12, alignOf(beside), inkOf(tone)});
    }
    void label(At at, std::string_view symbol, std::string_view key, Beside beside) override {
        const auto text = said(key) ? std::string(symbol) + " " + elided(m_typed.find(key)->second, 14)
                                    : std::string(symbol);
        p.add(Label{{at.x, at.y}, text, 12, alignOf(beside), said(key) ? Ink::text : Ink::faint, said(key)});
    }
    bool said(std::string_view key) const override {
        const auto at = m_typed.find(key);
        return at != m_typed.end() && !at->second.empty();
    }
    std::optional<double> count(std::string_view key) const override {
        if (!said(key)) return std::nullopt;
        const auto number = quantity::parseNumber(m_typed.find(key)->second);
        return number ? std::optional(*number) : std::nullopt;
    }

private:
    double m_opacity;
    ArrowLook m_arrows;
    const Typed& m_typed;
};

} // namespace

Picture methodSketch(const methods::Method& method, const Typed& typed) {
    PictureEasel easel(300, 170, 0.8, {Ink::accent, 2.2, 9}, typed);
    method.drawings.sketch(easel);
    return std::move(easel.p);
}

Picture methodCard(const methods::Method& method) {
    const Typed nothing;
    PictureEasel easel(150, 90, 1, {}, nothing);
    method.drawings.card(easel);
    return std::move(easel.p);
}

} // namespace anvil::chart
