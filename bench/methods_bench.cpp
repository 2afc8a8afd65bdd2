// What reading many curves anew, averaging long ones, sharing loads and telling devices apart cost.
#include <QTemporaryDir>
#include <anvil/curve/average.h>
#include <anvil/curve/burst.h>
#include <anvil/methods/devices.h>
#include <anvil/methods/load_plan.h>
#include <anvil/project/reading_commands.h>
#include <anvil/sim/specimen.h>
#include <benchmark/benchmark.h>
#include <cmath>
#include <memory>

namespace {

using namespace anvil;

/// A pull-out curve of so many samples, somewhat its own by seed.
curve::Curve longCurve(int samples, int seed) {
    curve::Curve c;
    for (int i = 0; i < samples; ++i) {
        const double x = 0.03 * i / samples, own = 1 + 0.02 * (seed % 7);
        c.time.push_back(0.001 * i);
        c.travel.push_back(x);
        c.load.push_back(i < samples / 50  ? 0
                         : x < 0.015 * own ? 3e5 * x
                                           : 4500 * own * std::exp(-(x - 0.015 * own) / 0.02));
    }
    return c;
}

void averageOfFiftyLongCurves(benchmark::State& state) {
    static std::vector<curve::ReadCurve> read;
    if (read.empty())
        for (int i = 0; i < 50; ++i)
            read.push_back(curve::readAndKeep(longCurve(100'000, i)).value());
    std::vector<const curve::ReadCurve*> curves;
    for (const auto& r : read)
        curves.push_back(&r);
    for (auto _ : state)
        benchmark::DoNotOptimize(curve::averaged(curves));
}
BENCHMARK(averageOfFiftyLongCurves)->Unit(benchmark::kMillisecond);

void eightNestedLegs(benchmark::State& state) {
    methods::LoadPlan plan;
    plan.loads = {{0, 0, -1000}, {0, 0, 0}, {0, 0, 0}, {0, 0, 0}};
    for (int point = 1; point < 4; ++point) {
        plan.legs.push_back({{0.1 * (point - 2), 0, 1}, 1, 0, point});
        for (const double side : {-0.4, 0.4})
            plan.legs.push_back({{side, 0.2 * (point - 2), 1}, 1.0 + 0.1 * point, point, -1});
    }
    plan.legs.pop_back();
    for (auto _ : state)
        benchmark::DoNotOptimize(methods::legLoads(plan));
}
BENCHMARK(eightNestedLegs)->Unit(benchmark::kMicrosecond);

void devicesOfTwelveRigs(benchmark::State& state) {
    std::vector<methods::Hauled> rigs;
    const char* const names[] = {"a", "b", "c", "d", "e"};
    for (int i = 0; i < 12; ++i) {
        methods::Reeving r{"", {names[i % 5], names[(i * 2 + 1) % 5], names[(i + 3) % 5]}};
        rigs.push_back(
            {r, methods::advantageOf(r, {1, 0.9 - 0.02 * (i % 5), 0.8, 0.7 + 0.01 * (i % 3)}), 0.02});
    }
    for (auto _ : state)
        benchmark::DoNotOptimize(methods::deviceEfficiencies(rigs));
}
BENCHMARK(devicesOfTwelveRigs)->Unit(benchmark::kMillisecond);

void severityOfABlow(benchmark::State& state) {
    std::vector<double> t, a;
    for (int i = 0; i < 10'000; ++i) { // a second at 10 kHz
        t.push_back(i * 1e-4);
        const double x = t.back() - 0.5;
        a.push_back(x >= 0 && x <= 0.01 ? 800 * std::sin(314.159 * x) : 0.5 * std::sin(i));
    }
    for (auto _ : state)
        benchmark::DoNotOptimize(curve::readBurst(t, a, {300}));
}
BENCHMARK(severityOfABlow)->Unit(benchmark::kMillisecond);

/// A thousand curves of two thousand samples in a project, and what another way of reading them would change.
void previewOfAThousandCurves(benchmark::State& state) {
    static QTemporaryDir dir;
    static std::unique_ptr<project::OpenProject> project;
    if (!project) {
        project = std::move(project::OpenProject::create(dir.filePath("thousand.anvil")).value());
        (void)project->run("made", [](store::Writer& w) {
            domain::Study s;
            s.title = "Thousand";
            s.id = w.add(s);
            domain::Option o;
            o.study = s.id;
            o.name = "One";
            o.id = w.add(o);
            domain::Condition c;
            c.study = s.id;
            c.name = "Dry";
            c.id = w.add(c);
            for (int i = 0; i < 1000; ++i) {
                domain::Specimen piece;
                piece.study = s.id;
                piece.option = o.id;
                piece.condition = c.id;
                piece.replicate = i + 1;
                piece.label = std::to_string(i + 1);
                domain::Pull p;
                p.specimen = w.add(piece);
                p.curve = w.addCurve(longCurve(2000, i));
                w.add(p);
            }
        });
    }
    const auto& data = project->studies().front();
    std::vector<domain::Id> pulls;
    for (const auto& p : data.pulls)
        pulls.push_back(p.id);
    curve::ReadingSettings chosen;
    chosen.yieldOffset = 1e-4;
    (void)project->readings(data.study.id);
    for (auto _ : state)
        benchmark::DoNotOptimize(project::previewReading(*project, data.study.id, pulls, chosen));
}
BENCHMARK(previewOfAThousandCurves)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
