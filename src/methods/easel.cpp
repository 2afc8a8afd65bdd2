#include <anvil/methods/easel.h>

#include <cmath>
#include <numbers>

namespace anvil::methods {

void Easel::force(At from, At to, std::string_view symbol, std::string_view key, Beside beside) {
    arrow(from, to);
    const double aside = beside == Beside::right ? 6 : beside == Beside::left ? -6 : 0;
    label({to.x + aside, to.y - 6}, symbol, key, beside);
}

void Easel::measure(At a, At b, std::string_view symbol, std::string_view key, bool turned) {
    line(a, b);
    const bool upright = std::abs(a.x - b.x) < 1;
    for (const auto& end : {a, b})
        upright ? line({end.x - 4, end.y}, {end.x + 4, end.y}) : line({end.x, end.y - 4}, {end.x, end.y + 4});
    const At middle{(a.x + b.x) / 2, (a.y + b.y) / 2};
    if (upright)
        label({middle.x + (turned ? -7 : 7), middle.y + 4}, symbol, key,
              turned ? Beside::left : Beside::right);
    else
        label({middle.x, middle.y + (turned ? -6 : 15)}, symbol, key);
}

void Easel::ring(At at, double radius, Tone tone) {
    std::vector<At> circle;
    for (int i = 0; i <= 32; ++i) {
        const double a = i / 32.0 * 2 * std::numbers::pi;
        circle.push_back({at.x + radius * std::cos(a), at.y + radius * std::sin(a)});
    }
    curve(std::move(circle), tone, 2);
}

void Easel::section(bool mayBeFlat, bool mayBeRound, std::string_view second, std::string_view secondSymbol) {
    if (mayBeRound && (!mayBeFlat || said("diameter"))) {
        ring({250, 40}, 24);
        if (said("wall")) ring({250, 40}, 16);
        return label({250, 82}, "D", "diameter");
    }
    box(228, 22, 40, 30);
    measure({228, 60}, {268, 60}, "b", "breadth");
    measure({276, 22}, {276, 52}, secondSymbol, second);
}

} // namespace anvil::methods
