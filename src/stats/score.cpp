#include <anvil/stats/score.h>

#include <algorithm>
#include <anvil/stats/draws.h>
#include <cmath>
#include <numeric>

namespace anvil::stats {
namespace {

/// The weighed mean of an option's marks; empty where none of them counts.
std::optional<double> weighed(const std::vector<std::optional<double>>& marks,
                              const std::vector<double>& weights) {
    double sum = 0, weight = 0;
    for (std::size_t k = 0; k < weights.size(); ++k)
        if (marks[k] && weights[k] > 0) {
            sum += weights[k] * *marks[k];
            weight += weights[k];
        }
    if (weight <= 0) return {};
    return sum / weight;
}

/// The greatest or least mark of each criterion.
std::vector<std::optional<double>> extremes(const Marks& marks, std::size_t criteria, bool greatest) {
    std::vector<std::optional<double>> out(criteria);
    for (const auto& option : marks)
        for (std::size_t k = 0; k < criteria; ++k)
            if (option[k] && (!out[k] || (greatest ? *option[k] > *out[k] : *option[k] < *out[k])))
                out[k] = option[k];
    return out;
}

std::optional<double> filled(std::vector<std::optional<double>> marks,
                             const std::vector<std::optional<double>>& with,
                             const std::vector<double>& weights) {
    for (std::size_t k = 0; k < marks.size(); ++k)
        if (!marks[k]) marks[k] = with[k];
    return weighed(marks, weights);
}

void addWins(const Marks& marks, const std::vector<double>& weights, std::uint64_t seed, int draws,
             std::vector<Score>& out) {
    constexpr double equal = 1e-12;
    Draws random(seed);
    std::vector<double> drawn(weights.size());
    std::vector<std::size_t> first;
    int counted = 0;
    for (int d = 0; d < draws; ++d) {
        for (std::size_t k = 0; k < weights.size(); ++k)
            drawn[k] = weights[k] > 0 ? -std::log(random.uniform()) : 0;
        first.clear();
        double best = -1;
        for (std::size_t i = 0; i < marks.size(); ++i) {
            const auto score = weighed(marks[i], drawn);
            if (!score || *score < best - equal) continue;
            if (*score > best + equal) {
                first.clear();
                best = *score;
            }
            first.push_back(i);
        }
        if (first.empty()) continue;
        ++counted;
        for (const auto i : first)
            out[i].wins += 1.0 / static_cast<double>(first.size());
    }
    for (auto& s : out)
        if (counted) s.wins /= counted;
}

/// Who wins where criterion k has this share; the first of equals.
std::optional<std::size_t> winnerAt(const Marks& marks, std::vector<double> weights, std::size_t k,
                                    double share) {
    const double others = std::accumulate(weights.begin(), weights.end(), 0.0) - weights[k];
    for (std::size_t j = 0; j < weights.size(); ++j)
        weights[j] = j == k ? share : weights[j] / others * (1 - share);
    std::optional<std::size_t> best;
    double most = -1;
    for (std::size_t i = 0; i < marks.size(); ++i)
        if (const auto score = weighed(marks[i], weights); score && *score > most + 1e-12) {
            most = *score;
            best = i;
        }
    return best;
}

} // namespace

std::vector<std::optional<double>> marksOfBest(const std::vector<std::optional<double>>& values,
                                               bool moreIsBetter) {
    std::vector<std::optional<double>> out(values.size());
    std::optional<double> best;
    for (const auto& v : values) {
        if (!v) continue;
        if (*v < 0) return out;
        if (!best || (moreIsBetter ? *v > *best : *v < *best)) best = v;
    }
    for (std::size_t i = 0; i < values.size(); ++i)
        if (values[i]) {
            // Nothing at all is a rating too: none of what is wanted, or the best there can be of what is
            // not.
            const double v = *values[i], over = moreIsBetter ? *best : v;
            out[i] = over > 0 ? (moreIsBetter ? v : *best) / over : (v == *best ? 1 : 0);
        }
    return out;
}

std::vector<std::optional<double>> marksBetween(const std::vector<std::optional<double>>& values,
                                                double worst, double best) {
    std::vector<std::optional<double>> out(values.size());
    if (worst == best) return out;
    for (std::size_t i = 0; i < values.size(); ++i)
        if (values[i]) out[i] = std::clamp((*values[i] - worst) / (best - worst), 0.0, 1.0);
    return out;
}

std::vector<Score> scores(const Marks& marks, const std::vector<double>& weights, std::uint64_t seed,
                          int draws) {
    std::vector<Score> out(marks.size());
    double all = 0;
    for (const double w : weights)
        all += std::max(0.0, w);
    if (!(all > 0)) return out;
    const auto least = extremes(marks, weights.size(), false),
               greatest = extremes(marks, weights.size(), true);
    for (std::size_t i = 0; i < marks.size(); ++i) {
        out[i].score = weighed(marks[i], weights);
        for (std::size_t k = 0; k < weights.size(); ++k)
            if (marks[i][k] && weights[k] > 0) out[i].tested += weights[k] / all;
        out[i].tested = std::min(1.0, out[i].tested);
        out[i].worst = filled(marks[i], least, weights);
        out[i].best = filled(marks[i], greatest, weights);
    }
    addWins(marks, weights, seed, draws, out);
    return out;
}

std::optional<std::size_t> winner(const std::vector<Score>& all) {
    std::optional<std::size_t> best;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].score && (!best || *all[i].score > *all[*best].score + 1e-12)) best = i;
    return best;
}

std::vector<Turn> turns(const Marks& marks, const std::vector<double>& weights) {
    constexpr int steps = 1000;
    std::vector<Turn> out;
    const double all = std::accumulate(weights.begin(), weights.end(), 0.0);
    for (std::size_t k = 0; k < weights.size(); ++k) {
        if (!(weights[k] > 0) || !(all - weights[k] > 0)) continue;
        const double share = weights[k] / all;
        const auto now = winnerAt(marks, weights, k, share);
        if (!now) continue;
        std::optional<Turn> nearest;
        for (int i = 1; i < steps; ++i) {
            const double at = static_cast<double>(i) / steps;
            if (nearest && std::abs(at - share) >= std::abs(nearest->share - share)) continue;
            const auto then = winnerAt(marks, weights, k, at);
            if (then && *then != *now) nearest = Turn{k, at, at > share, *then};
        }
        if (nearest) out.push_back(*nearest);
    }
    return out;
}

} // namespace anvil::stats
