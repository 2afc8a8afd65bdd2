#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/words/size.h>
#include <fmt/format.h>

namespace anvil::chart {

namespace {

constexpr double head = 8, usualRow = 30, mostRow = 44, foot = 34, tall = 10;

void addBar(Picture& p, double left, double right, double y, Ink ink, double opacity) {
    p.add(Area{{{left, y - tall}, {right, y - tall}, {right, y + tall}, {left, y + tall}}, ink, opacity});
}

} // namespace

Picture scoreBars(const results::CardResult& card, double width, double height) {
    Picture p;
    p.width = width;
    auto order = card.order();
    std::size_t longest = 0;
    for (const auto i : order)
        longest = std::max(longest, card.options[i].size());
    const double names = std::clamp(16 + 7.2 * static_cast<double>(longest), 90.0, 0.34 * width);
    const double left = names + 12, right = width - 200;
    const auto at = [&](double mark) { return left + mark * (right - left); };
    const double row =
        std::clamp((height - head - foot) / static_cast<double>(std::max<std::size_t>(1, order.size())),
                   usualRow, mostRow);
    const double bottom = head + row * static_cast<double>(order.size());
    for (const int tick : {0, 25, 50, 75, 100}) {
        p.add(Line{{at(tick / 100.0), head}, {at(tick / 100.0), bottom}, Ink::grid, 1});
        p.add(Label{{at(tick / 100.0), bottom + 14}, fmt::format("{}", tick), 11, Align::center, Ink::faint});
    }
    p.add(Label{{right, bottom + 29}, "marks of 100", 11, Align::right, Ink::faint});
    double y = head;
    for (const auto i : order) {
        const auto& s = card.scores[i];
        const double mid = y + row / 2;
        const bool first = card.winner == i;
        p.add(Label{{8, mid + 4},
                    elided(card.options[i], static_cast<std::size_t>(names / 7)),
                    13,
                    Align::left,
                    Ink::text,
                    first});
        addBar(p, left, at(*s.score), mid, first ? Ink::accent : Ink::series0, first ? 0.9 : 0.45);
        if (s.tested < 1 - 1e-9 && s.worst && s.best) { // where it could lie
            p.add(Line{{at(*s.worst), mid}, {at(*s.best), mid}, Ink::text, 1.5, Dash::dashed});
            for (const double end : {*s.worst, *s.best})
                p.add(Line{{at(end), mid - 5}, {at(end), mid + 5}, Ink::text, 1.5});
        }
        p.add(Label{{width - 8, mid + 4},
                    fmt::format("{:.0f}, first in {}", 100 * *s.score, words::chanceText(s.wins)),
                    13,
                    Align::right,
                    Ink::text,
                    first});
        y += row;
    }
    p.height = bottom + foot;
    return p;
}

} // namespace anvil::chart
