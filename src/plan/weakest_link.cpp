#include <anvil/plan/weakest_link.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace anvil::plan {

using namespace domain;

using quantity::percent;

namespace {

double density(double z) { return std::exp(-0.5 * z * z) / std::sqrt(2 * std::numbers::pi); }
double above(double z) { return 0.5 * std::erfc(z / std::numbers::sqrt2); }

} // namespace

std::vector<Weakest> weakestLink(std::span<const ChainPart> parts) {
    std::vector<Weakest> out;
    const auto sd = [](const ChainPart& p) { return p.strength * std::max(p.cv, 0.001); };
    for (const auto& part : parts) {
        Weakest w{part.name, 0, part.specimen};
        constexpr int steps = 4000; // Simpson's rule over ± 8 s
        const double h = 16.0 / steps;
        for (int i = 0; i <= steps; ++i) {
            const double z = -8 + i * h, x = part.strength + z * sd(part);
            double f = density(z);
            for (const auto& other : parts)
                if (&other != &part) f *= above((x - other.strength) / sd(other));
            w.probability += f * (i == 0 || i == steps ? 1 : i % 2 ? 4 : 2) * h / 3;
        }
        out.push_back(std::move(w));
    }
    return out;
}

std::string weakestSentence(std::span<const Weakest> parts) {
    const Weakest* specimen = nullptr;
    const Weakest* worst = nullptr;
    for (const auto& p : parts) {
        if (p.specimen)
            specimen = &p;
        else if (!worst || p.probability > worst->probability)
            worst = &p;
    }
    if (!specimen || !worst || specimen->probability >= 0.8) return {};
    return fmt::format("{} goes first in only {} of pulls; {} goes in {}. Use a stronger {}, or the day is "
                       "spent breaking it.",
                       specimen->name, percent(specimen->probability), worst->name,
                       percent(worst->probability), worst->name);
}

} // namespace anvil::plan
