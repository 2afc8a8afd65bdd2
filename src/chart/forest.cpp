#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/words/size.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

constexpr double head = 24, usualRow = 30, mostRow = 46, foot = 34;

/// The ends of the scale: everything that has a place on it, and no difference. An open end of an interval (0
/// or infinity) and a ratio that is none have no place; nobody reads more than a hundredfold.
std::pair<double, double> span(const std::vector<words::EffectRow>& rows) {
    constexpr double most = 100;
    double low = 0.95, high = 1.05;
    const auto take = [&](double ratio) {
        if (!(ratio > 1 / most) || !(ratio < most)) return;
        low = std::min(low, ratio);
        high = std::max(high, ratio);
    };
    for (const auto& r : rows) {
        take(r.ratio);
        if (!r.interval) continue;
        take(r.interval->first);
        take(r.interval->second);
    }
    const double margin = 0.06 * std::log(high / low);
    return {std::log(low) - margin, std::log(high) + margin};
}

} // namespace

Picture forest(const std::vector<words::EffectRow>& rows, double width, double height) {
    Picture p;
    p.width = width;
    std::size_t longest = 0;
    for (const auto& r : rows)
        longest = std::max(longest, r.name.size());
    const double names = std::clamp(16 + 7.2 * static_cast<double>(longest), 90.0, 0.34 * width);
    const double left = names + 12, right = width - 70;
    const auto [low, high] = span(rows);
    const auto at = [&, low = low, high = high](double ratio) {
        return ratio > 0
                   ? std::clamp(left + (std::log(ratio) - low) / (high - low) * (right - left), left, right)
                   : left;
    };
    const double row =
        std::clamp((height - head - foot) / static_cast<double>(std::max<std::size_t>(1, rows.size())),
                   usualRow, mostRow);
    const double bottom = head + row * static_cast<double>(rows.size());
    double told = -1e9; // where the last tick has its words
    for (const double tick : {0.25, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0, 1.1, 1.2, 1.3, 1.5, 2.0, 3.0, 4.0}) {
        const double x = at(tick);
        const bool none = tick == 1;
        if (std::log(tick) < low || std::log(tick) > high ||
            (!none && (x - told < 70 || std::abs(x - at(1)) < 70)))
            continue;
        told = x;
        p.add(Line{{x, head - 4}, {x, bottom}, none ? Ink::text : Ink::grid, none ? 1.4 : 1.0});
        p.add(Label{{x, bottom + 14},
                    none ? std::string("no effect")
                         : fmt::format("{:.0f} % {}", 100 * std::abs(tick - 1), tick < 1 ? "less" : "more"),
                    11,
                    Align::center,
                    Ink::faint});
    }
    double y = head;
    for (const auto& r : rows) {
        const double mid = y + row / 2;
        p.add(Label{{8, mid + 4},
                    elided(r.name, static_cast<std::size_t>(names / 7)),
                    13,
                    Align::left,
                    Ink::text,
                    r.pooled});
        const Ink ink = r.pooled ? Ink::accent : Ink::series0;
        if (r.interval)
            p.add(
                Line{{at(r.interval->first), mid}, {at(r.interval->second), mid}, ink, r.pooled ? 4.0 : 2.0});
        if (r.ratio > 0 && std::isfinite(r.ratio))
            p.add(Mark{{at(r.ratio), mid},
                       r.pooled ? MarkShape::tick : MarkShape::disc,
                       r.pooled ? 16.0 : 9.0,
                       ink});
        stats::Comparison c;
        c.ratio = r.ratio;
        p.add(Label{{width - 8, mid + 4}, words::sizeText(c), 13, Align::right, Ink::text, r.pooled});
        y += row;
    }
    p.height = bottom + foot;
    return p;
}

} // namespace anvil::chart
