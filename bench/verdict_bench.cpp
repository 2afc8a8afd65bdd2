// What the answer page of a large study costs: groups, pairs, places, chances and what it hangs on.
#include <anvil/results/one_group.h>
#include <anvil/results/probability.h>
#include <anvil/results/sureness.h>
#include <anvil/results/verdict.h>
#include <anvil/results/why.h>
#include <anvil/stats/compare.h>
#include <anvil/stats/draws.h>
#include <anvil/stats/score.h>
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

/// What every step of a dragged weight costs: scores, wins over all weights, the weights at which it turns.
void dragged(benchmark::State& state) {
    const auto options = static_cast<std::size_t>(state.range(0)),
               criteria = static_cast<std::size_t>(state.range(1));
    stats::Draws random(3);
    stats::Marks marks(options, std::vector<std::optional<double>>(criteria));
    for (auto& option : marks)
        for (auto& mark : option)
            if (random.uniform() < 0.9) mark = random.uniform();
    std::vector<double> weights(criteria, 1);
    for (auto _ : state) {
        weights[0] = 1 + 10 * random.uniform();
        benchmark::DoNotOptimize(stats::scores(marks, weights));
        benchmark::DoNotOptimize(stats::turns(marks, weights));
    }
}
BENCHMARK(dragged)
    ->ArgNames({"options", "criteria"})
    ->Args({5, 4})
    ->Args({12, 8})
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();

/// The plots and the pair in view of a large study.
void looked(benchmark::State& state) {
    const auto data = studyOf(50, 10, state.range(0) != 0);
    const results::Readings none;
    const results::Results table(data, none);
    const auto verdict = results::evaluate(table, data.study.goal);
    for (auto _ : state) {
        benchmark::DoNotOptimize(results::whyOf(table, verdict, 0, 1));
        benchmark::DoNotOptimize(results::probabilityPlot(verdict.groups[0]));
    }
}
BENCHMARK(looked)->ArgName("bounds")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond)->UseRealTime();

/// What a peer can be asked for too: bench/verdict_peer.R.
void weibullFits(benchmark::State& state) {
    stats::Draws random(5);
    std::vector<std::vector<stats::Value>> groups(50);
    for (auto& g : groups)
        for (int k = 0; k < 10; ++k) {
            const double v = 1000 * std::pow(-std::log(random.uniform()), 0.1);
            g.push_back({v, k == 0 ? stats::Bound::above : stats::Bound::exact, v});
        }
    for (auto _ : state)
        for (const auto& g : groups)
            benchmark::DoNotOptimize(stats::fit(stats::Family::weibull, g));
}
BENCHMARK(weibullFits)->Unit(benchmark::kMillisecond)->UseRealTime();

void welchAndHolm(benchmark::State& state) {
    const auto data = studyOf(50, 10, false);
    const auto verdict = results::evaluate(data, {}, data.study.goal);
    std::vector<stats::Side> sides;
    for (const auto& g : verdict.groups)
        sides.emplace_back(g.summary);
    for (auto _ : state) {
        std::vector<stats::SidePair> pairs;
        for (std::size_t i = 0; i < sides.size(); ++i)
            for (std::size_t j = i + 1; j < sides.size(); ++j)
                pairs.emplace_back(&sides[i], &sides[j]);
        std::vector<stats::Comparison> family(pairs.size());
        stats::judge(family, pairs, 0.1);
        benchmark::DoNotOptimize(family);
    }
}
BENCHMARK(welchAndHolm)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
