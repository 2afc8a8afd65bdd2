#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/words/scales.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

constexpr double usualRung = 30, leastRung = 18, mostRung = 60, headHeight = 20, gap = 6, foot = 42,
                 numberWidth = 190;

double longestName(const domain::StudyData& data) {
    std::size_t longest = 0;
    for (const auto& o : data.options)
        longest = std::max(longest, o.name.size());
    return static_cast<double>(longest);
}

} // namespace

Picture ratioLadder(const domain::StudyData& data, const results::Verdict& verdict, results::RatioBase base,
                    const quantity::Unit& unit, double width, double height) {
    const auto rungs = results::ratiosOf(data, verdict, base);
    const double factor = words::scaleFactor(base, unit);
    const bool share = base != results::RatioBase::cost && base != results::RatioBase::weight;
    const bool several = data.conditions.size() > 1;
    Picture p;
    p.width = width;
    const double names = std::clamp(16 + 7.2 * longestName(data), 110.0, 0.34 * width);
    const double left = names + 14, right = width - numberWidth - 12;
    double high = share ? 105 : 0;
    for (const auto& r : rungs)
        high = std::max(high, factor * r.ratio * 1.04);
    for (const auto& r : rungs)
        if (r.interval) high = std::max(high, std::min(factor * r.interval->second * 1.02, 1.6 * high));
    const double step = niceStep(0, high, right - left > 420 ? 7 : 4);
    const auto at = [&](double shown) { return left + std::clamp(shown / high, 0.0, 1.0) * (right - left); };
    std::size_t heads = 0;
    domain::Id last = 0;
    for (const auto& r : rungs)
        if (verdict.groups[r.group].condition != last) {
            last = verdict.groups[r.group].condition;
            ++heads;
        }
    const double rest = height - foot - 8 - static_cast<double>(heads) * (gap + (several ? headHeight : 0));
    const double rung = height > 0
                            ? std::clamp(rest / static_cast<double>(std::max<std::size_t>(1, rungs.size())),
                                         leastRung, mostRung)
                            : usualRung;
    double y = 8;
    last = 0;
    for (const auto& r : rungs) {
        const auto& g = verdict.groups[r.group];
        if (g.condition != last) {
            if (last) y += gap;
            last = g.condition;
            if (several) {
                p.add(Label{{8, y + 14},
                            elided(data.conditionAt(g.condition).name, 40),
                            13,
                            Align::left,
                            Ink::faint,
                            true});
                y += headHeight;
            }
        }
        const double mid = y + rung / 2;
        p.add(Label{
            {8, mid + 4}, elided(data.optionAt(g.option).name, static_cast<std::size_t>(names / 7)), 13});
        p.add(Line{{left, mid}, {right, mid}, Ink::grid, 5});
        if (r.interval && !r.itself)
            p.add(Area{{{at(factor * r.interval->first), mid - 7},
                        {at(factor * r.interval->second), mid - 7},
                        {at(factor * r.interval->second), mid + 7},
                        {at(factor * r.interval->first), mid + 7}},
                       Ink::band,
                       1});
        const double x = at(factor * r.ratio);
        p.add(Line{{x, mid - 12}, {x, mid + 12}, r.itself ? Ink::faint : Ink::accent, 2.5});
        if (r.atLeast) p.add(Mark{{x + 10, mid}, MarkShape::arrowRight, 9, Ink::accent});
        if (r.atMost) p.add(Mark{{x - 10, mid}, MarkShape::arrowLeft, 9, Ink::accent});
        p.add(Label{{width - 8, mid + 4},
                    words::rungText(r, base, data, unit),
                    13,
                    Align::right,
                    r.itself ? Ink::faint : Ink::text});
        y += rung;
    }
    for (const double v : ticks(0, high, step)) {
        p.shapes.insert(p.shapes.begin(), Line{{at(v), 8}, {at(v), y}, Ink::grid, 0.8});
        p.add(Label{{at(v), y + 15}, tickText(v, step), 11, Align::center, Ink::faint});
    }
    if (share) p.add(Line{{at(100), 4}, {at(100), y}, Ink::text, 1.4, Dash::dotted});
    p.add(Label{{(left + right) / 2, y + 34},
                words::scaleTitle(data, verdict, base, unit),
                13,
                Align::center,
                Ink::text});
    p.height = y + foot;
    return p;
}

} // namespace anvil::chart
