// Drawings of the start page: what one may do first.
#include <anvil/chart/start_pictures.h>

#include <algorithm>
#include <array>

namespace anvil::chart {
namespace {

constexpr double width = 168, height = 96;

void box(Picture& p, double x, double y, double w, double h, Ink ink, double thick = 1.6) {
    p.add(Polyline{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}, {x, y}}, ink, thick});
}

void slab(Picture& p, double x, double y, double w, double h, Ink ink) {
    p.add(Area{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, ink, 1});
}

/// Squares of pieces that nobody has pulled yet.
void plan(Picture& p) {
    for (int row = 0; row < 3; ++row) {
        const double y = 12 + row * 26;
        slab(p, 10, y + 5, 34, 6, Ink::faint);
        for (int column = 0; column < 2; ++column) {
            const double x = 52 + column * 56;
            box(p, x, y, 50, 20, Ink::grid);
            for (int k = 0; k < 3; ++k)
                p.add(Mark{{x + 10 + k * 15.0, y + 10}, MarkShape::ring, 10, Ink::series0});
        }
    }
}

/// Lines of a log that become a curve.
void logs(Picture& p) {
    constexpr std::array lengths{30.0, 24.0, 34.0, 20.0, 28.0};
    box(p, 12, 10, 50, 76, Ink::faint);
    for (std::size_t k = 0; k < lengths.size(); ++k)
        slab(p, 20, 20 + 13 * static_cast<double>(k), lengths[k], 4, Ink::faint);
    p.add(Line{{72, 48}, {88, 48}, Ink::accent, 2.4});
    p.add(Area{{{94, 48}, {85, 42}, {85, 54}}, Ink::accent, 1});
    p.add(Polyline{{{102, 14}, {102, 84}, {160, 84}}, Ink::faint, 1.6});
    p.add(Polyline{
        {{104, 82}, {112, 76}, {126, 46}, {136, 27}, {141, 24}, {144, 60}, {156, 64}}, Ink::series0, 2.4});
}

/// A rig that is not there: dashed, with a piece in it and a load to read.
void practise(Picture& p) {
    const auto dashed = [&](Point a, Point b) { p.add(Line{a, b, Ink::faint, 2, Dash::dashed}); };
    dashed({24, 12}, {24, 86});
    dashed({88, 12}, {88, 86});
    dashed({24, 12}, {88, 12});
    dashed({24, 86}, {88, 86});
    p.add(Line{{56, 14}, {56, 34}, Ink::faint, 2, Dash::dashed});
    p.add(Line{{56, 64}, {56, 84}, Ink::faint, 2, Dash::dashed});
    slab(p, 50, 34, 12, 30, Ink::series0);
    box(p, 104, 30, 54, 34, Ink::text);
    p.add(Label{{152, 53}, "0 N", 16, Align::right, Ink::text, true});
}

/// Rungs of a ladder with what was pulled.
void example(Picture& p) {
    constexpr std::array means{134.0, 112.0, 84.0};
    for (std::size_t k = 0; k < means.size(); ++k) {
        const double y = 22 + 26 * static_cast<double>(k), x = means[k];
        p.add(Line{{16, y}, {156, y}, Ink::grid, 3});
        slab(p, x - 13, y - 7, 26, 14, Ink::band);
        for (const double d : {-11.0, 1.0, 8.0})
            p.add(Mark{{x + d, y}, MarkShape::disc, 7, Ink::series0});
        p.add(Line{{x, y - 9}, {x, y + 9}, Ink::accent, 2.4});
    }
}

} // namespace

Picture startPicture(FirstStep step) {
    Picture p;
    p.width = width;
    p.height = height;
    switch (step) {
    case FirstStep::plan:
        plan(p);
        break;
    case FirstStep::logs:
        logs(p);
        break;
    case FirstStep::practise:
        practise(p);
        break;
    case FirstStep::example:
        example(p);
        break;
    }
    return p;
}

std::vector<SmallRung> smallRungs(const results::Verdict& verdict) {
    std::vector<SmallRung> out;
    if (verdict.groups.empty()) return out;
    double most = 0;
    for (const auto i : verdict.inCondition(verdict.groups.front().condition)) {
        const auto& s = verdict.groups[i].summary;
        if (!s.typical || !(*s.typical > 0)) continue;
        const auto [low, high] = s.typicalInterval.value_or(std::pair(*s.typical, *s.typical));
        out.push_back({std::max(0.0, low), *s.typical, high});
        most = std::max({most, *s.typical, high});
    }
    for (auto& r : out)
        r = {r.low / most, r.mean / most, r.high / most};
    return out;
}

Picture smallLadder(std::span<const SmallRung> rungs, double width, double height) {
    constexpr std::size_t mostRungs = 5;
    Picture p;
    p.width = width;
    p.height = height;
    const auto n = std::min(rungs.size(), mostRungs);
    const auto x = [&](double share) { return 4 + std::clamp(share, 0.0, 1.0) * (width - 8); };
    for (std::size_t k = 0; k < n; ++k) {
        const double y = height * (static_cast<double>(k) + 0.5) / static_cast<double>(n);
        p.add(Line{{x(0), y}, {x(1), y}, Ink::grid, 1.5});
        p.add(Line{{x(rungs[k].low), y}, {x(rungs[k].high), y}, Ink::series0, 3});
        p.add(Mark{{x(rungs[k].mean), y}, MarkShape::disc, 6, k == 0 ? Ink::accent : Ink::series0});
    }
    return p;
}

} // namespace anvil::chart
