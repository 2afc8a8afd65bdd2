// How far off the stiffness reads on average, by number of samples to the peak and noise; truth from the
// simulator.
#include <algorithm>
#include <anvil/curve/reading.h>
#include <anvil/sim/specimen.h>
#include <fmt/format.h>

using namespace anvil;

int main() {
    fmt::print("| samples | noise, % of peak | median bias, % | 5 to 95 % of runs, % | none found "
               "|\n|---|---|---|---|---|\n");
    for (const int n : {100, 400, 2000})
        for (const double noise : {0.0, 0.003, 0.01}) {
            std::vector<double> off;
            int none = 0;
            for (std::uint64_t seed = 1; seed <= 400; ++seed) {
                sim::Specimen s;
                s.model = sim::Model::brittleBond;
                s.strength = 2000;
                s.stiffness = 4e5;
                s.slack = 0.001;
                s.bedding = 0.0003;
                sim::Logger g;
                const double travel = s.slack + s.bedding + s.strength / s.stiffness;
                g.speed = 0.001;
                g.rate = n / (travel / g.speed);
                g.noise = noise * s.strength;
                const auto run = sim::pull(s, g, seed);
                const auto r = curve::read(run.curve);
                if (!r || !r->stiffness) {
                    ++none;
                    continue;
                }
                off.push_back(100 * (r->stiffness->value / run.truth.stiffness - 1));
            }
            std::sort(off.begin(), off.end());
            const auto at = [&](double q) {
                return off.empty() ? 0
                                   : off[static_cast<std::size_t>(q * static_cast<double>(off.size() - 1))];
            };
            fmt::print("| {} | {:.1f} | {:+.2f} | {:+.2f} to {:+.2f} | {} |\n", n, 100 * noise, at(0.5),
                       at(0.05), at(0.95), none);
        }
}
