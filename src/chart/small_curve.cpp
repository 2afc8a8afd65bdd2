#include <anvil/chart/small_curve.h>

#include <algorithm>
#include <anvil/curve/pyramid.h>

namespace anvil::chart {

Picture smallCurve(const curve::ReadCurve& curve, double width, double height) {
    constexpr double margin = 6;
    Picture p;
    p.width = width;
    p.height = height;
    const auto& time = curve.cleaned.time;
    const auto& force = curve.cleaned.load;
    if (time.size() < 2 || !(time.back() > time.front())) return p;
    const auto [least, most] = std::minmax_element(force.begin(), force.end());
    const double low = std::min(0.0, *least), high = std::max(*most, low + 1e-12);
    const auto x = [&](double t) {
        return margin + (t - time.front()) / (time.back() - time.front()) * (width - 2 * margin);
    };
    const auto y = [&](double f) {
        return height - margin - (f - low) / (high - low) * (height - 2 * margin);
    };
    p.add(Line{{margin, y(0)}, {width - margin, y(0)}, Ink::grid, 1});
    Polyline line{{}, Ink::series0, 1.6};
    for (const auto& at :
         curve::Pyramid(force).draw(time, force, time.front(), time.back(),
                                    static_cast<std::size_t>(std::max(8.0, width - 2 * margin))))
        line.points.push_back({x(at.x), y(at.y)});
    p.add(std::move(line));
    p.add(Mark{{x(curve.reading.peak.time), y(curve.reading.peak.load)}, MarkShape::disc, 6, Ink::accent});
    return p;
}

} // namespace anvil::chart
