#include <anvil/chart/charts.h>

#include "ladder_key.h"
#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/results/verdict.h>
#include <anvil/words/values.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

using quantity::withUnit;
using results::Group;

constexpr double rungHeight = 30, headHeight = 20, gap = 6, axisHeight = 40;

std::string unitName(const quantity::Unit& unit) { return std::string(unit.symbol); }

} // namespace

MarkShape markOf(stats::State state) {
    switch (state) {
    case stats::State::exact:
        return MarkShape::disc;
    case stats::State::above:
        return MarkShape::arrowRight;
    case stats::State::below:
        return MarkShape::arrowLeft;
    case stats::State::between:
        return MarkShape::span;
    case stats::State::aside:
        return MarkShape::cross;
    }
    return MarkShape::disc;
}

Picture ladder(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
               double width, domain::Id selected) {
    Picture p;
    p.width = width;
    std::size_t longest = 0;
    for (const auto& o : data.options)
        longest = std::max(longest, o.name.size());
    const double nameWidth = std::clamp(44 + 7.2 * static_cast<double>(longest), 110.0, 0.34 * width),
                 numberWidth = 150;
    const double left = nameWidth + 14, right = width - numberWidth - 12;
    double top = 0;
    double limit = 0; // 0: none to show
    for (const auto& g : verdict.groups)
        for (const auto& v : g.values)
            top = std::max(top, unit.fromSi(std::max(v.value.value, v.value.upper)));
    if (verdict.goal.metric->dimension == quantity::Dimension::force)
        for (const auto& pull : data.pulls)
            if (pull.settings.rigLimit) limit = std::max(limit, unit.fromSi(*pull.settings.rigLimit));
    if (limit > 1.25 * top) limit = 0; // far away: a line there would only squeeze the rungs
    top = std::max(top, limit);
    const double topMargin = limit > 0 ? 18 : 6;
    const double step = niceStep(0, top > 0 ? top * 1.04 : 1, right - left > 420 ? 7 : 4);
    const double x1 = std::ceil((top > 0 ? top * 1.04 : 1) / step) * step;
    const auto px = [&](double si) { return left + unit.fromSi(si) / x1 * (right - left); };

    // A letter that stands at one rung alone ties nothing.
    const auto shared = [&](const Group& g) { return results::sharedLetters(verdict, g); };
    double y = topMargin;
    std::vector<std::pair<double, double>> blocks;
    const bool several = data.conditions.size() > 1;
    for (const auto& condition : data.conditions) {
        const auto members = verdict.inCondition(condition.id);
        if (members.empty()) continue;
        if (several) {
            p.add(Label{{8, y + 14}, elided(condition.name, 40), 12, Align::left, Ink::faint, true});
            y += headHeight;
        }
        const double blockTop = y;
        for (const auto i : members) {
            const Group& g = verdict.groups[i];
            const double mid = y + rungHeight / 2;
            const auto* option = &data.optionAt(g.option);
            const auto nameChars = static_cast<std::size_t>((nameWidth - 30) / 7.0);
            if (g.rank > 0)
                p.add(Label{{8, mid + 5},
                            fmt::format("{}", g.rank),
                            14,
                            Align::left,
                            g.rank == 1 ? Ink::accent : Ink::faint,
                            true,
                            true});
            p.add(Label{
                {30, mid + 4}, elided(option->name, nameChars), 12.5, Align::left, Ink::text, g.rank == 1});
            p.hits.push_back(
                {0, y, nameWidth, rungHeight,
                 option->name +
                     (shared(g).empty() ? "" : "\nTied with all that share a letter: " + shared(g)),
                 0});
            p.add(Line{{left, mid}, {right, mid}, Ink::grid, 5});
            const auto& s = g.summary;
            if (s.meanInterval) {
                const double a = std::max(left, px(s.meanInterval->first)),
                             b = std::min(right, px(s.meanInterval->second));
                p.add(Area{{{a, mid - 7}, {b, mid - 7}, {b, mid + 7}, {a, mid + 7}}, Ink::band, 1});
            }
            if (s.lowest && s.n > 1)
                p.add(Mark{{px(*s.lowest), mid + 12}, MarkShape::triangleUp, 7, Ink::faint});
            // Results that would hide each other are stacked around the rung.
            std::vector<std::pair<double, double>> placed;
            for (const auto& v : g.values) {
                const double x = v.value.state == stats::State::between
                                     ? px(0.5 * (v.value.value + v.value.upper))
                                     : px(v.value.value);
                double shift = 0;
                for (const double candidate : {0.0, -5.5, 5.5, -10.0, 10.0}) {
                    shift = candidate;
                    if (std::none_of(placed.begin(), placed.end(), [&](const auto& q) {
                            return std::abs(q.first - x) < 8 && std::abs(q.second - candidate) < 5;
                        }))
                        break;
                }
                placed.emplace_back(x, shift);
                const bool aside = v.value.state == stats::State::aside;
                p.add(Mark{{x, mid + shift},
                           markOf(v.value.state),
                           v.pull == selected ? 13.0 : 8.5,
                           v.pull == selected ? Ink::accent
                           : aside            ? Ink::faint
                                              : Ink::series0});
                if (v.guess) // hollow
                    p.add(Mark{
                        {x, mid + shift}, markOf(v.value.state), v.pull == selected ? 6.5 : 4.2, Ink::paper});
                const auto* specimen = data.specimen(v.specimen);
                p.hits.push_back({x - 7, mid + shift - 7, 14, 14,
                                  (specimen ? specimen->label + ": " : "") +
                                      words::valueText(v.value, unit, v.guess) + (aside ? ", set aside" : ""),
                                  v.pull});
            }
            if (s.mean) {
                const double x = px(*s.mean);
                p.add(Line{{x, mid - 13}, {x, mid + 13}, Ink::accent, 2.5});
                if (s.basis == stats::MeanBasis::bound) {
                    p.add(Line{{x, mid - 13}, {x + 14, mid - 13}, Ink::accent, 2});
                    p.add(Mark{{x + 17, mid - 13}, MarkShape::arrowRight, 8, Ink::accent});
                }
            }
            p.add(Label{
                {width - 10, mid - 1}, words::meanText(s, unit), 12.5, Align::right, Ink::text, true, true});
            p.add(Label{{width - 10, mid + 13},
                        "n = " + words::countText(s) + (shared(g).empty() ? "" : ", ties: " + shared(g)),
                        10.5,
                        Align::right,
                        Ink::faint});
            y += rungHeight;
        }
        blocks.emplace_back(blockTop, y);
        // Tie brackets: one upright line for each letter that two or more rungs share.
        std::map<char, std::pair<double, double>> ties;
        double at = blockTop;
        for (const auto i : members) {
            for (const char letter : shared(verdict.groups[i]))
                if (auto [it, fresh] = ties.try_emplace(letter, at, at); !fresh) it->second.second = at;
            at += rungHeight;
        }
        double x = right + 7;
        for (const auto& [letter, span] : ties)
            if (span.second > span.first) {
                const double a = span.first + 8, b = span.second + rungHeight - 8;
                p.add(Polyline{{{x - 4, a}, {x, a}, {x, b}, {x - 4, b}}, Ink::faint, 1.4});
                p.hits.push_back(
                    {x - 5, a, 8, b - a, "These are too close to call or the same within the margin.", 0});
                x += 6;
            }
        y += gap;
    }
    const double axis = y;
    for (const auto& [a, b] : blocks) { // the two stiles of the ladder
        p.shapes.insert(p.shapes.begin(), Line{{left, a}, {left, b}, Ink::faint, 1.5});
        p.shapes.insert(p.shapes.begin(), Line{{right, a}, {right, b}, Ink::grid, 1.5});
    }
    for (const double v : ticks(0, x1 + step / 2, step)) {
        const double x = left + v / x1 * (right - left);
        p.shapes.insert(p.shapes.begin(),
                        Line{{x, topMargin + (several ? headHeight : 0)}, {x, axis}, Ink::grid, 0.7});
        p.add(Label{{x, axis + 14}, tickText(v, step), 11, Align::center, Ink::faint, false, true});
    }
    if (limit > 0) {
        const double x = left + limit / x1 * (right - left);
        p.add(Line{{x, 4}, {x, axis}, Ink::warn, 1.4, Dash::dashed});
        p.add(Label{{x + 4, 12},
                    "rig limit " + quantity::significant(limit) + " " + unitName(unit),
                    10.5,
                    x > 0.75 * width ? Align::right : Align::left,
                    Ink::warn});
    }
    p.add(Label{{(left + right) / 2, axis + 32},
                std::string(verdict.goal.metric->title) + " (" + unitName(unit) + ")",
                12,
                Align::center,
                Ink::text});
    p.height = addKey(p, verdict, axis + axisHeight);
    return p;
}

} // namespace anvil::chart
