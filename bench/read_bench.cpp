// Reading a curve: time against the bare parse, and growth with its length.
#include "inputs.h"

#include <anvil/curve/reading.h>
#include <anvil/sim/specimen.h>
#include <benchmark/benchmark.h>
#include <cstdlib>

namespace anvil::bench {

std::size_t sized(std::size_t n) {
    static const bool tiny = std::getenv("ANVIL_BENCH_TINY") != nullptr;
    return tiny ? n / 1000 : n;
}

curve::Curve pull(std::size_t n) {
    sim::Random random(7);
    curve::Curve c;
    c.time.reserve(n);
    c.load.reserve(n);
    c.travel.reserve(n);
    for (std::size_t i = 0; i < n; ++i) {
        const double u = static_cast<double>(i) / static_cast<double>(n);
        const double shape = u < 0.1 ? 0 : u < 0.7 ? (u - 0.1) / 0.6 : u < 0.71 ? 1 - 80 * (u - 0.7) : 0.2;
        c.time.push_back(static_cast<double>(i) * 1e-4);
        c.travel.push_back(u < 0.1 ? 0 : (u - 0.1) * 0.02);
        c.load.push_back(4000 * shape + 4 * random.normal());
    }
    return c;
}

namespace {

void readCurve(benchmark::State& state) {
    const auto c = pull(sized(static_cast<std::size_t>(state.range(0))));
    for (auto _ : state) {
        auto reading = curve::read(c);
        benchmark::DoNotOptimize(reading);
    }
}
BENCHMARK(readCurve)
    ->Arg(1'000'000)
    ->Arg(10'000'000)
    ->Arg(100'000'000)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Repetitions(2);

} // namespace
} // namespace anvil::bench
