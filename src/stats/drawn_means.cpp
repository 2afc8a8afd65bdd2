#include <anvil/stats/drawn_means.h>

#include "location_slice.h"
#include <algorithm>
#include <anvil/stats/density.h>
#include <anvil/stats/draws.h>
#include <cmath>

namespace anvil::stats {
namespace {

constexpr std::size_t enoughForOwn = 5;

std::size_t exactIn(std::span<const Value> values) {
    return static_cast<std::size_t>(
        std::count_if(values.begin(), values.end(), [](const Value& v) { return v.exact(); }));
}

/// The values of a contender, as they are drawn: of bounds only, these count as if they were exact.
std::vector<Value> drawnAs(std::span<const Value> values) {
    std::vector<Value> out;
    const bool bounds = onlyBounds(values) != Bound::exact;
    for (auto v : values) {
        if (v.aside) continue;
        if (bounds) v.bound = Bound::exact;
        out.push_back(v);
    }
    return out;
}

/// Mean + s/√n·t for complete values, else from the density.
std::optional<std::vector<double>> drawOne(Family family, const std::vector<Value>& values, Draws random,
                                           int draws) {
    std::vector<double> means;
    means.reserve(static_cast<std::size_t>(draws));
    const auto all = observed(family, values);
    if (!all || all->empty()) return std::nullopt;
    std::vector<Value> scaled; // on the scale that is drawn on
    for (const auto& o : *all)
        scaled.push_back({o.y, o.bound, o.upper});
    const auto s = summarise(scaled);
    if (!s.censored()) {
        if (!s.sd) return std::nullopt;
        const auto n = static_cast<double>(s.n);
        for (int k = 0; k < draws; ++k)
            means.push_back(*s.mean + *s.sd / std::sqrt(n) * random.student(n - 1));
        return means;
    }
    const auto density = Density::of(family, values);
    if (!density) return std::nullopt;
    return density->drawn(random, draws);
}

/// What one contender says of its mean on logarithms at each σ of a grid.
struct OnLogs {
    std::vector<Observation> all;
    double mean = 0, squares = 0; ///< of complete values: mean, and sum of squares about it
    bool complete = true, counts = true;
    std::vector<Slice> slices; ///< by σ, of values with bounds
};

std::optional<OnLogs> onLogs(const Contender& c) {
    OnLogs out;
    out.counts = exactIn(c.values) > 0;
    const auto all = observed(Family::lognormal, drawnAs(c.values));
    if (!all || all->empty()) return std::nullopt;
    out.all = *all;
    double sum = 0;
    for (const auto& o : out.all) {
        out.complete = out.complete && o.bound == Bound::exact;
        sum += o.y;
    }
    const auto n = static_cast<double>(out.all.size());
    out.mean = sum / n;
    for (const auto& o : out.all)
        out.squares += (o.y - out.mean) * (o.y - out.mean);
    return out;
}

/// A grid of ln σ with the density of the shared spread.
struct SharedSpread {
    std::vector<double> scales, cumulated;
    std::size_t drawn(double u) const {
        const auto at = std::lower_bound(cumulated.begin(), cumulated.end(), u);
        return static_cast<std::size_t>(std::min(at, cumulated.end() - 1) - cumulated.begin());
    }
};

/// ln ∫L dμ at one σ.
double logEvidence(OnLogs& g, double scale) {
    const auto n = static_cast<double>(g.all.size());
    if (g.complete) return -g.squares / (2 * scale * scale) - (n - 1) * std::log(scale);
    // The top of the slice before is near, but for where the walk turns.
    const double from = g.slices.empty() ? g.mean : g.slices.back().top;
    g.slices.push_back(sliceAt(Family::lognormal, g.all, scale, from));
    return g.slices.back().logIntegral;
}

/// Rough size of the shared spread: of what lies about each mean, bounds counted where they are.
std::optional<double> roughSpread(const std::vector<OnLogs>& groups) {
    double squares = 0, df = 0;
    for (const auto& g : groups)
        if (g.counts) {
            squares += g.squares;
            df += static_cast<double>(g.all.size()) - 1;
        }
    if (!(df > 0) || !(squares > 1e-24)) return std::nullopt;
    return std::sqrt(squares / df);
}

std::optional<SharedSpread> sharedSpread(std::vector<OnLogs>& groups) {
    const auto rough = roughSpread(groups);
    if (!rough) return std::nullopt;
    constexpr int steps = 40;                     // to either side
    constexpr double step = 0.075, faintest = 18; // of ln σ; ln of what no longer matters
    SharedSpread out;
    std::vector<double> logs;
    double greatest = -1e308;
    const auto walk = [&](double sign, int first) {
        for (int k = first; k <= steps; ++k) {
            const double scale = *rough * std::exp(sign * step * k);
            double sum = 0; // dσ/σ = d ln σ
            for (auto& g : groups)
                if (g.counts)
                    sum += logEvidence(g, scale);
                else if (!g.complete)
                    g.slices.push_back(sliceAt(Family::lognormal, g.all, scale, g.mean));
            out.scales.push_back(scale);
            logs.push_back(sum);
            greatest = std::max(greatest, sum);
            if (sum < greatest - faintest) break;
        }
    };
    walk(1, 0);
    walk(-1, 1);
    double all = 0;
    for (const double l : logs)
        out.cumulated.push_back(all += std::exp(l - greatest));
    if (!(all > 0) || !std::isfinite(all)) return std::nullopt;
    for (auto& c : out.cumulated)
        c /= all;
    return out;
}

} // namespace

std::uint64_t streamOf(std::uint64_t seed, std::string_view option, std::string_view condition) {
    std::uint64_t h = 0xcbf29ce484222325ULL;
    const auto add = [&](unsigned char byte) { h = (h ^ byte) * 0x100000001b3ULL; };
    for (int k = 0; k < 8; ++k)
        add(static_cast<unsigned char>(seed >> (8 * k)));
    for (const auto text : {option, condition}) {
        for (const char c : text)
            add(static_cast<unsigned char>(c));
        add(0xff); // no byte of UTF-8: "ab" + "c" is not "a" + "bc"
    }
    return h;
}

bool canBeDrawn(std::span<const Value> values) {
    return onlyBounds(values) != Bound::exact ||
           std::any_of(values.begin(), values.end(),
                       [](const Value& v) { return v.exact() || v.bound == Bound::between; });
}

Bound onlyBounds(std::span<const Value> values) {
    std::optional<Bound> kind; // none seen yet
    for (const auto& v : values) {
        if (v.aside) continue;
        if (v.bound != Bound::above && v.bound != Bound::below) return Bound::exact;
        if (kind && *kind != v.bound) return Bound::exact;
        kind = v.bound;
    }
    return kind.value_or(Bound::exact);
}

bool drawnFairly(std::span<const Value> values, bool moreIsBetter) {
    return onlyBounds(values) != (moreIsBetter ? Bound::below : Bound::above);
}

void centre(std::vector<double>& draws, double at) {
    if (draws.empty()) return;
    auto sorted = draws;
    const auto middle = sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2);
    std::nth_element(sorted.begin(), middle, sorted.end());
    const double by = at - *middle;
    for (auto& d : draws)
        d += by;
}

bool drawnByOwnSpread(std::span<const Value> values) { return exactIn(values) >= enoughForOwn; }

std::optional<Means> drawMeans(std::span<const Contender> all, int draws) {
    Means out;
    for (const auto& c : all) {
        auto means = drawOne(Family::normal, drawnAs(c.values), Draws(c.stream), draws);
        if (!means) return std::nullopt;
        out.push_back(std::move(*means));
    }
    return out;
}

std::optional<std::vector<double>> drawLogMean(const Contender& one, int draws) {
    return drawOne(Family::lognormal, drawnAs(one.values), Draws(one.stream), draws);
}

std::optional<Means> drawLogMeans(std::span<const Contender> all, std::uint64_t shared, int draws) {
    std::vector<OnLogs> groups;
    for (const auto& c : all) {
        auto g = onLogs(c);
        if (!g) return std::nullopt;
        groups.push_back(std::move(*g));
    }
    const auto spread = sharedSpread(groups);
    if (!spread) return std::nullopt;
    Draws common(shared);
    std::vector<std::size_t> at; // the σ of every draw is the same for all
    at.reserve(static_cast<std::size_t>(draws));
    for (int k = 0; k < draws; ++k)
        at.push_back(spread->drawn(common.uniform()));
    Means out;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const auto& g = groups[i];
        Draws random(all[i].stream);
        std::vector<double> means;
        means.reserve(at.size());
        for (const auto k : at)
            means.push_back(g.complete
                                ? g.mean + spread->scales[k] / std::sqrt(static_cast<double>(g.all.size())) *
                                               random.normal()
                                : g.slices[k].drawn(random.uniform()));
        out.push_back(std::move(means));
    }
    return out;
}

} // namespace anvil::stats
