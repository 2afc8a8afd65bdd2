#include <anvil/curve/steady.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace anvil::curve {
namespace {

SteadyValue over(std::string name, std::string unit, std::span<const double> time,
                 std::span<const double> values) {
    SteadyValue out{std::move(name), std::move(unit), 0, 0, 0};
    const auto n = static_cast<double>(values.size());
    double middle = 0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        out.mean += values[i] / n;
        middle += time[i] / n;
    }
    double tt = 0, tv = 0, vv = 0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double dt = time[i] - middle, dv = values[i] - out.mean;
        tt += dt * dt;
        tv += dt * dv;
        vv += dv * dv;
    }
    out.sd = std::sqrt(vv / (n - 1));
    if (tt > 0) out.drift = tv / tt * (time.back() - time.front());
    return out;
}

} // namespace

std::vector<double> resampled(std::span<const double> time, std::span<const double> values,
                              std::span<const double> at) {
    if (time.empty() || time.size() != values.size()) return {};
    std::vector<double> out;
    out.reserve(at.size());
    std::size_t next = 0; // first sample later than the place asked for
    for (const double t : at) {
        while (next < time.size() && time[next] <= t)
            ++next;
        if (next == 0) {
            out.push_back(values.front());
        } else if (next == time.size()) {
            out.push_back(values.back());
        } else {
            const double w = (t - time[next - 1]) / (time[next] - time[next - 1]);
            out.push_back(values[next - 1] + w * (values[next] - values[next - 1]));
        }
    }
    return out;
}

std::optional<Steady> steadyAt(const Curve& c, double time, double seconds) {
    const auto first = std::lower_bound(c.time.begin(), c.time.end(), time - seconds);
    const auto last = std::upper_bound(first, c.time.end(), time);
    const auto from = static_cast<std::size_t>(first - c.time.begin());
    const auto count = static_cast<std::size_t>(last - first);
    if (count < 3) return std::nullopt;
    Steady out{c.time[from], c.time[from + count - 1], count, {}, true};
    const auto part = [&](const std::vector<double>& v) { return std::span(v).subspan(from, count); };
    using quantity::Dimension;
    const auto unit = [](Dimension d) { return std::string(quantity::siUnit(d).symbol); };
    out.channels.push_back(
        over(std::string(quantity::name(c.loadKind)), unit(c.loadKind), part(c.time), part(c.load)));
    if (!c.travel.empty())
        out.channels.push_back(
            over(c.travelKind == Dimension::length ? "travel" : std::string(quantity::name(c.travelKind)),
                 unit(c.travelKind), part(c.time), part(c.travel)));
    for (const auto& o : c.others)
        if (o.values.size() == c.time.size())
            out.channels.push_back(over(o.name, o.unit, part(c.time), part(o.values)));
    for (const auto& v : out.channels)
        if (v.unit == "N" && std::abs(v.drift) > 0.01 * std::abs(v.mean)) out.still = false;
    return out;
}

namespace {

constexpr std::size_t blocks = 100;

/// Means of a channel over equal stretches of time; not a number where none of its samples lies.
std::vector<double> blockMeans(std::span<const double> time, std::span<const double> values) {
    std::vector<double> sum(blocks, 0), count(blocks, 0);
    const double each = (time.back() - time.front()) / blocks;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const auto at = std::min(blocks - 1, static_cast<std::size_t>((time[i] - time.front()) / each));
        sum[at] += values[i];
        ++count[at];
    }
    for (std::size_t b = 0; b < blocks; ++b)
        sum[b] = count[b] > 0 ? sum[b] / count[b] : std::numeric_limits<double>::quiet_NaN();
    return sum;
}

/// How many blocks from `first` on stand still in every channel.
std::size_t stillFrom(std::size_t first, const std::vector<std::vector<double>>& channels) {
    std::size_t longest = blocks - first;
    for (const auto& means : channels) {
        double greatest = 0;
        for (const double m : means)
            if (!std::isnan(m)) greatest = std::max(greatest, std::abs(m));
        double low = means[first], high = means[first];
        std::size_t n = 0;
        for (; n < longest; ++n) {
            const double m = means[first + n];
            low = std::min(low, m);
            high = std::max(high, m);
            const double size = std::max(std::abs(low), std::abs(high));
            if (!(high - low <= 0.02 * size) || !(std::min(std::abs(low), std::abs(high)) >= greatest / 5))
                break;
        }
        longest = n;
    }
    return longest;
}

} // namespace

std::optional<Steady> commonSteady(const Curve& c, double shortest) {
    std::vector<std::vector<double>> channels;
    if (c.loadKind != quantity::Dimension::force || c.time.size() < 3 ||
        !std::is_sorted(c.time.begin(), c.time.end()) || !(c.time.back() - c.time.front() >= shortest))
        return std::nullopt;
    channels.push_back(blockMeans(c.time, c.load));
    for (const auto& o : c.others)
        if (o.unit == "N" && o.values.size() == c.time.size())
            channels.push_back(blockMeans(c.time, o.values));
    if (channels.size() < 2) return std::nullopt;
    const double each = (c.time.back() - c.time.front()) / blocks;
    std::vector<std::pair<std::size_t, std::size_t>> runs; // length, first
    for (std::size_t b = 0; b < blocks; ++b)
        if (const auto n = stillFrom(b, channels); n > 0 && static_cast<double>(n) * each >= shortest)
            runs.emplace_back(n, b);
    std::stable_sort(runs.begin(), runs.end(),
                     [](const auto& a, const auto& b) { return a.first > b.first; });
    for (const auto& [n, b] : runs) {
        const double length = static_cast<double>(n) * each;
        const double end = c.time.front() + static_cast<double>(b) * each + length;
        if (auto window = steadyAt(c, end, length); window && window->still) return window;
    }
    return std::nullopt;
}

std::vector<double> sharesOf(std::span<const double> legs) {
    double sum = 0;
    for (const double leg : legs)
        sum += leg;
    if (legs.size() < 2 || !(sum > 0)) return {};
    std::vector<double> out;
    for (const double leg : legs)
        out.push_back(leg / sum);
    return out;
}

std::vector<Share> sharesOf(const Steady& steady) {
    std::vector<Share> out;
    std::vector<double> legs;
    for (std::size_t i = 1; i < steady.channels.size(); ++i)
        if (steady.channels[i].unit == "N") {
            out.push_back({steady.channels[i].name, 0});
            legs.push_back(steady.channels[i].mean);
        }
    const auto shares = sharesOf(legs);
    if (shares.empty()) return {};
    for (std::size_t i = 0; i < out.size(); ++i)
        out[i].share = shares[i];
    return out;
}

} // namespace anvil::curve
