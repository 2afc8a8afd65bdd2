// What the answer page of a large study costs: groups, pairs, places, chances and what it hangs on.
#include <anvil/results/one_group.h>
#include <anvil/results/sureness.h>
#include <anvil/results/verdict.h>
#include <anvil/stats/draws.h>
#include <benchmark/benchmark.h>
#include <cmath>

namespace {

using namespace anvil;

/// Options with ten values each, a few per cent apart; every tenth value topped out where `bounds` is set.
domain::StudyData studyOf(int options, int values, bool bounds) {
    domain::StudyData d;
    d.study.id = 1;
    d.conditions.push_back({});
    d.conditions.back().id = 1000;
    d.conditions.back().name = "Dry";
    stats::Draws random(7);
    domain::Id next = 10000;
    for (int o = 1; o <= options; ++o) {
        d.options.push_back({});
        d.options.back().id = o;
        d.options.back().name = "Option " + std::to_string(o);
        for (int k = 0; k < values; ++k) {
            domain::Specimen s;
            s.id = next++;
            s.option = o;
            s.condition = 1000;
            domain::Pull p;
            p.id = next++;
            p.specimen = s.id;
            const double v = 1000 * (1 + 0.01 * o) * (1 + 0.08 * random.normal());
            p.typed = domain::TypedValue{domain::Metric(), v, v, ""};
            if (bounds && k == 0) p.standing = domain::Standing::atLeast;
            d.specimens.push_back(std::move(s));
            d.pulls.push_back(std::move(p));
        }
    }
    return d;
}

void answer(benchmark::State& state) {
    const auto data =
        studyOf(static_cast<int>(state.range(0)), static_cast<int>(state.range(1)), state.range(2) != 0);
    const results::Readings none;
    for (auto _ : state) {
        const results::Results table(data, none);
        const auto verdict = results::evaluate(table, data.study.goal);
        benchmark::DoNotOptimize(results::surenessOf(table, verdict));
    }
}
BENCHMARK(answer)
    ->ArgNames({"options", "values", "bounds"})
    ->Args({4, 5, 0})
    ->Args({4, 5, 1})
    ->Args({50, 10, 0})
    ->Args({50, 10, 1})
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();

void floors(benchmark::State& state) {
    const auto data = studyOf(50, 10, state.range(0) != 0);
    const auto verdict = results::evaluate(data, {}, data.study.goal);
    for (auto _ : state)
        for (const auto& g : verdict.groups)
            benchmark::DoNotOptimize(results::analyse(g));
}
BENCHMARK(floors)->ArgName("bounds")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
