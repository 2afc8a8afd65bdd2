#include <anvil/curve/as_logged.h>

namespace anvil::curve {

std::vector<double> asLogged(const Curve& raw, const ReadCurve& read, double preload) {
    const auto ordered = order(raw);
    if (ordered.force.size() != read.cleaned.force.size()) return {};
    const double sign = read.reading.flipped ? -1 : 1;
    std::vector<double> out(ordered.force.begin(), ordered.force.end());
    for (auto& f : out)
        f = sign * (f - read.reading.baseline) + preload;
    return out;
}

} // namespace anvil::curve
