#include <anvil/chart/charts.h>

#include <algorithm>
#include <fmt/format.h>

namespace anvil::chart {

Picture deviceLadder(const std::vector<methods::DeviceEfficiency>& devices, double width) {
    constexpr double row = 34, head = 30, names = 170;
    Picture p;
    p.width = width;
    p.height = head + row * static_cast<double>(devices.size()) + 12;
    const double right = width - 90;
    const auto px = [&](double share) { return names + std::clamp(share, 0.0, 1.0) * (right - names); };
    for (int tick = 0; tick <= 100; tick += 20) {
        const double x = px(tick / 100.0);
        p.add(Line{{x, head - 8}, {x, p.height - 10}, Ink::grid, 0.8});
        p.add(Label{{x, head - 12}, fmt::format("{} %", tick), 11, Align::center, Ink::faint});
    }
    for (std::size_t i = 0; i < devices.size(); ++i) {
        const auto& d = devices[i];
        const double y = head + row * (static_cast<double>(i) + 0.5);
        p.add(Label{{8, y + 5}, elided(d.device, 22), 13, Align::left, Ink::text, i == 0});
        if (!d.efficiency) {
            p.add(Line{{names, y}, {right, y}, Ink::faint, 1, Dash::dotted});
            p.add(Label{{right + 8, y + 5}, "cannot be told", 11, Align::left, Ink::faint});
            continue;
        }
        p.add(Line{{names, y}, {px(*d.efficiency), y}, Ink::series0, 1.4});
        if (d.standardError)
            p.add(Line{{px(*d.efficiency - 2 * *d.standardError), y},
                       {px(*d.efficiency + 2 * *d.standardError), y},
                       Ink::band,
                       11});
        p.add(Mark{{px(*d.efficiency), y}, MarkShape::diamond, 13, Ink::accent});
        p.add(Label{{right + 8, y + 5},
                    fmt::format("{:.1f} %", 100 * *d.efficiency),
                    13,
                    Align::left,
                    Ink::text,
                    i == 0});
    }
    return p;
}

} // namespace anvil::chart
