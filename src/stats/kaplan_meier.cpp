#include <anvil/stats/kaplan_meier.h>

#include <algorithm>

namespace anvil::stats {

std::vector<SurvivalStep> kaplanMeier(std::span<const Value> values) {
    std::vector<Value> all;
    for (const auto& v : values) {
        if (v.aside) continue;
        if (v.bound == Bound::below || v.bound == Bound::between) return {};
        all.push_back(v);
    }
    std::sort(all.begin(), all.end(), [](const Value& a, const Value& b) {
        return a.value != b.value ? a.value < b.value : a.bound == Bound::exact && b.bound != Bound::exact;
    });
    std::vector<SurvivalStep> out;
    double share = 1;
    for (std::size_t k = 0; k < all.size();) {
        std::size_t broke = 0, next = k;
        for (; next < all.size() && all[next].value == all[k].value; ++next)
            broke += all[next].bound == Bound::exact;
        if (broke > 0) {
            const auto left = static_cast<double>(all.size() - k);
            share *= (left - static_cast<double>(broke)) / left;
            out.push_back({all[k].value, share});
        }
        k = next;
    }
    return out;
}

std::optional<double> medianOf(std::span<const SurvivalStep> steps) {
    constexpr double half = 0.5 + 1e-12; // a product of shares may miss a half by rounding
    for (std::size_t k = 0; k < steps.size(); ++k) {
        if (steps[k].share > half) continue;
        // Exactly a half over a stretch: the middle of it, as of four complete values.
        const bool stretch = steps[k].share >= 1 - half && k + 1 < steps.size();
        return stretch ? 0.5 * (steps[k].value + steps[k + 1].value) : steps[k].value;
    }
    return std::nullopt;
}

} // namespace anvil::stats
