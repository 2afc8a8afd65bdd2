#include <anvil/curve/reading.h>

#include <algorithm>
#include <cmath>

namespace anvil::curve {

Turning turning(std::span<const double> angle, std::span<const double> torque, std::size_t departure,
                double first, double until) {
    Turning out;
    if (departure >= angle.size() || angle.size() != torque.size()) return out;
    const double start = angle[departure];
    double area = 0, turned = 0, greatest = 0;
    for (std::size_t i = departure; i < angle.size(); ++i) {
        const double a = std::abs(angle[i] - start);
        if (a <= first) greatest = std::max(greatest, torque[i]);
        if (i == departure) continue;
        const double before = std::abs(angle[i - 1] - start);
        if (before >= first && a <= until && a > before) {
            area += 0.5 * (torque[i] + torque[i - 1]) * (a - before);
            turned += a - before;
        }
    }
    if (greatest > 0) out.breakaway = greatest;
    if (turned >= 0.5 * (until - first)) out.running = area / turned;
    return out;
}

} // namespace anvil::curve
