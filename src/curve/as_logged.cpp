#include <anvil/curve/as_logged.h>

namespace anvil::curve {

std::vector<double> asLogged(const Curve& raw, const ReadCurve& read, double preload) {
    const auto ordered = order(raw);
    if (ordered.load.size() != read.cleaned.load.size()) return {};
    const double sign = read.reading.flipped ? -1 : 1;
    std::vector<double> out(ordered.load.begin(), ordered.load.end());
    for (auto& f : out)
        f = sign * (f - read.reading.baseline) + preload;
    return out;
}

std::vector<double> filtered(const ReadCurve& read) {
    const auto& c = read.cleaned;
    if (!read.reading.burst || !(read.reading.burst->lowPass > 0) || c.time.size() < 2) return {};
    const double rate = static_cast<double>(c.time.size() - 1) / (c.time.back() - c.time.front());
    return lowPassed(c.load, rate, read.reading.burst->lowPass).value_or(std::vector<double>{});
}

} // namespace anvil::curve
