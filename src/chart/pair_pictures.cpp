#include <anvil/chart/charts.h>

#include "axis_title.h"

#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <anvil/words/values.h>
#include <anvil/words/why.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

constexpr double square = 30, mostSquare = 44, namesWidth = 210;

/// How a verdict is inked: those that are told stand out.
Ink inkOf(stats::PairVerdict v) {
    return v == stats::PairVerdict::stronger || v == stats::PairVerdict::weaker ? Ink::accent
           : v == stats::PairVerdict::same                                      ? Ink::text
                                                                                : Ink::faint;
}

} // namespace

Picture verdictTriangle(const domain::StudyData& data, const results::Verdict& verdict, domain::Id condition,
                        double width) {
    Picture p;
    p.width = width;
    const auto members = verdict.inCondition(condition);
    const auto n = static_cast<double>(members.size());
    const double side = std::clamp((width - namesWidth - 20) / std::max(1.0, n), 12.0, mostSquare);
    const double rowHeight = std::min(side, square);
    if (data.conditions.size() > 1)
        p.add(Label{{8, 14}, data.conditionAt(condition).name, 13, Align::left, Ink::faint, true});
    const auto place = [&](std::size_t group) {
        return std::find(members.begin(), members.end(), group) - members.begin();
    };
    for (std::size_t k = 0; k < members.size(); ++k) {
        const auto& g = verdict.groups[members[k]];
        const double y = 22 + rowHeight * static_cast<double>(k);
        const auto letters = results::sharedLetters(verdict, g);
        p.add(Label{{8, y + rowHeight / 2 + 4},
                    elided(data.optionAt(g.option).name, 24) + (letters.empty() ? "" : "  " + letters),
                    13,
                    Align::left,
                    Ink::text,
                    g.rank == 1});
        const double x = namesWidth + side * static_cast<double>(k);
        p.add(Label{
            {x + side / 2, y + rowHeight / 2 + 4}, fmt::format("{}", k + 1), 11, Align::center, Ink::faint});
    }
    for (const auto& pair : verdict.pairs) {
        if (pair.acrossConditions || verdict.groups[pair.a].condition != condition) continue;
        auto row = place(pair.a), column = place(pair.b);
        auto told = pair.comparison.verdict;
        if (row > column) { // the one that stands higher is spoken of
            std::swap(row, column);
            told = told == stats::PairVerdict::stronger ? stats::PairVerdict::weaker
                   : told == stats::PairVerdict::weaker ? stats::PairVerdict::stronger
                                                        : told;
        }
        const double x = namesWidth + side * static_cast<double>(column),
                     y = 22 + rowHeight * static_cast<double>(row);
        const auto sign = words::signOf(told);
        p.add(Area{{{x + 1, y + 1},
                    {x + side - 1, y + 1},
                    {x + side - 1, y + rowHeight - 1},
                    {x + 1, y + rowHeight - 1}},
                   Ink::grid,
                   0.5});
        p.add(Label{{x + side / 2, y + rowHeight / 2 + 5},
                    sign.sign,
                    side < 18 ? 11.0 : 15.0,
                    Align::center,
                    inkOf(told),
                    true});
        const auto name = [&](std::ptrdiff_t at) {
            return data.optionAt(verdict.groups[members[static_cast<std::size_t>(at)]].option).name;
        };
        p.hits.push_back({x, y, side, rowHeight,
                          fmt::format("{} {} {}. Click to see why.", name(row), sign.says, name(column)),
                          OfPair{pair.a, pair.b}});
    }
    const double y = 22 + rowHeight * n + 18;
    double x = 8;
    for (const auto v : {stats::PairVerdict::stronger, stats::PairVerdict::same, stats::PairVerdict::tooClose,
                         stats::PairVerdict::notYet}) {
        const auto sign = words::signOf(v);
        const auto text = fmt::format("{}  {}", sign.sign, sign.says);
        p.add(Label{{x, y}, text, 11, Align::left, Ink::faint});
        x += 6.4 * static_cast<double>(text.size()) + 22;
        if (x > width - 120) break;
    }
    p.height = y + 10;
    return p;
}

Picture pairStrips(const domain::StudyData& data, const results::Verdict& verdict, const results::Why& why,
                   const quantity::Unit& unit, double width) {
    constexpr double row = 52, head = 8, foot = 34, ratioHeight = 62;
    Picture p;
    p.width = width;
    const double left = std::min(namesWidth, 0.3 * width) + 14, right = width - 130;
    double low = INFINITY, high = -INFINITY;
    const std::size_t both[] = {why.a, why.b};
    for (const auto i : both)
        for (const auto& v : verdict.groups[i].values) {
            low = std::min(low, unit.fromSi(v.value.value));
            high = std::max(high, unit.fromSi(std::max(v.value.value, v.value.upper)));
        }
    if (!(high >= low)) return p;
    const double room = std::max(0.12 * (high - low), 0.02 * std::abs(high));
    low -= room;
    high += room;
    const double step = niceStep(low, high, 6);
    const auto px = [&](double si) { return left + (unit.fromSi(si) - low) / (high - low) * (right - left); };
    const double bottom = head + 2 * row;
    for (const double v : ticks(low, high, step)) {
        const double x = left + (v - low) / (high - low) * (right - left);
        p.add(Line{{x, head}, {x, bottom}, Ink::grid, 1});
        p.add(Label{{x, bottom + 14}, tickText(v, step), 11, Align::center, Ink::faint});
    }
    p.add(Label{{right, bottom + 29},
                axisTitle(verdict.goal.metric->title, unit.symbol),
                11,
                Align::right,
                Ink::faint});
    double y = head;
    for (const auto i : both) {
        const auto& g = verdict.groups[i];
        const double mid = y + row / 2;
        p.add(Label{
            {8, mid + 4}, elided(words::groupName(data, g), static_cast<std::size_t>((left - 14) / 7)), 13});
        if (const auto& ends = g.summary.typicalInterval) {
            const double a = std::clamp(px(ends->first), left, right),
                         b = std::clamp(px(ends->second), left, right);
            p.add(Area{{{a, mid - 9}, {b, mid - 9}, {b, mid + 9}, {a, mid + 9}}, Ink::band, 1});
        }
        double shift = 0;
        for (const auto& v : g.values) {
            const double x = px(v.value.value);
            p.add(Mark{{x, mid + shift}, markOf(v.value), 9, v.value.aside ? Ink::faint : Ink::series0});
            p.hits.push_back(
                {x - 7, mid + shift - 7, 14, 14,
                 data.specimenAt(v.specimen).label + ": " + words::valueText(v.value, unit, v.guess),
                 OfPull{v.pull}});
            shift = shift > 0 ? -6 : shift < 0 ? 0 : 6; // those of one value stand beside each other
        }
        if (g.summary.typical) {
            const double x = std::clamp(px(*g.summary.typical), left, right);
            p.add(Line{{x, mid - 15}, {x, mid + 15}, Ink::accent, 2.5});
        }
        p.add(
            Label{{width - 8, mid + 4}, words::meanText(g.summary, unit), 13, Align::right, Ink::text, true});
        y += row;
    }
    p.height = bottom + foot;
    const auto& c = why.comparison;
    const auto ends = stats::overPair(c);
    if (!c.ratio || !ends || !(ends->first > 0) || c.atLeast || c.atMost) return p;
    // The ratio with its interval, and the margin within which they count as the same.
    const double m = 1 + verdict.goal.margin;
    const double from = std::log(std::min({ends->first, 1 / m})) - 0.03,
                 to = std::log(std::max({ends->second, m})) + 0.03;
    const auto rx = [&](double ratio) {
        return left + (std::log(ratio) - from) / (to - from) * (right - left);
    };
    const double mid = p.height + 20;
    p.add(Label{{8, mid + 4}, "First over second", 13});
    p.add(Area{{{rx(1 / m), mid - 12}, {rx(m), mid - 12}, {rx(m), mid + 12}, {rx(1 / m), mid + 12}},
               Ink::grid,
               0.6});
    p.add(Line{{rx(1), mid - 16}, {rx(1), mid + 16}, Ink::text, 1.2});
    p.add(Line{{rx(ends->first), mid}, {rx(ends->second), mid}, Ink::accent, 3});
    p.add(Mark{{rx(*c.ratio), mid}, MarkShape::tick, 16, Ink::accent});
    p.add(
        Label{{rx(1 / m), mid + 27}, fmt::format("1/{}", tickText(m, 0.01)), 11, Align::center, Ink::faint});
    p.add(Label{{rx(m), mid + 27}, tickText(m, 0.01), 11, Align::center, Ink::faint});
    p.add(Label{{rx(1), mid + 27}, "1", 11, Align::center, Ink::faint});
    p.add(Label{{width - 8, mid + 4}, quantity::significant(*c.ratio, 3), 13, Align::right, Ink::text, true});
    p.height += ratioHeight;
    return p;
}

} // namespace anvil::chart
