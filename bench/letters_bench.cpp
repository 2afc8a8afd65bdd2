// Tie letters of many options that nobody can tell apart, and of such where there are more sets than letters.
#include <anvil/stats/compare.h>
#include <benchmark/benchmark.h>

namespace anvil::bench {
namespace {

using stats::PairVerdict;

void lettersAllTied(benchmark::State& state) {
    const auto n = static_cast<std::size_t>(state.range(0));
    const std::vector<std::vector<PairVerdict>> table(n, std::vector<PairVerdict>(n, PairVerdict::tooClose));
    for (auto _ : state)
        benchmark::DoNotOptimize(stats::tieLetters(n, table));
}
BENCHMARK(lettersAllTied)->Arg(50)->Arg(500)->Unit(benchmark::kMillisecond)->UseRealTime();

/// Everybody ties with all but one: 2^(n/2) maximal sets.
void lettersManySets(benchmark::State& state) {
    const auto n = static_cast<std::size_t>(state.range(0));
    std::vector<std::vector<PairVerdict>> table(n, std::vector<PairVerdict>(n, PairVerdict::tooClose));
    for (std::size_t i = 0; i + 1 < n; i += 2)
        table[i][i + 1] = PairVerdict::stronger;
    for (auto _ : state)
        benchmark::DoNotOptimize(stats::tieLetters(n, table));
}
BENCHMARK(lettersManySets)->Arg(50)->Arg(500)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
} // namespace anvil::bench
