// From bytes to columns, and on into a stored project, against a bare std::from_chars loop over the same
// bytes.
#include "inputs.h"

#include <QFile>
#include <QTemporaryDir>
#include <anvil/tables/log.h>
#include <anvil/work/import.h>
#include <benchmark/benchmark.h>
#include <charconv>
#include <cstdio>
#include <map>

namespace anvil::bench {

const std::string& log(std::size_t rows) {
    static std::map<std::size_t, std::string> made;
    auto& text = made[rows];
    if (!text.empty()) return text;
    text = "Time (s),Force (N),Displacement (mm)\n";
    text.reserve(rows * 32);
    const auto c = pull(rows);
    char line[96];
    for (std::size_t i = 0; i < rows; ++i)
        text.append(line,
                    static_cast<std::size_t>(std::snprintf(line, sizeof line, "%.4f,%.3f,%.5f\n", c.time[i],
                                                           c.force[i], c.displacement[i] * 1000)));
    return text;
}

namespace {

const std::size_t rows = sized(5'000'000);

/// The measure: one thread, every number through std::from_chars, into three vectors.
void bareFromChars(benchmark::State& state) {
    const auto& text = log(rows);
    for (auto _ : state) {
        std::vector<double> columns[3];
        const char *p = text.data() + text.find('\n') + 1, *end = text.data() + text.size();
        while (p < end)
            for (auto& column : columns) {
                double v = 0;
                p = std::from_chars(p, end, v).ptr + 1;
                column.push_back(v);
            }
        benchmark::DoNotOptimize(columns[0].data());
    }
}
BENCHMARK(bareFromChars)->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(5);

void parseTwoThreads(benchmark::State& state) {
    const auto& text = log(rows);
    const auto layout = tables::detect(text);
    for (auto _ : state) {
        const auto columns = tables::parseColumns(text, *layout, 2);
        benchmark::DoNotOptimize(columns.force.data());
    }
}
BENCHMARK(parseTwoThreads)->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(5);

/// File to project: look, read, store with checksums, pyramid and the file itself, committed to disk.
void wholeStoredImport(benchmark::State& state) {
    const QTemporaryDir dir;
    QFile file(dir.filePath("pin_dry_1.csv"));
    if (!file.open(QIODevice::WriteOnly)) return state.SkipWithError("no room for the log");
    const auto& text = log(rows);
    file.write(text.data(), static_cast<qint64>(text.size()));
    file.close();
    int n = 0;
    for (auto _ : state) {
        auto project = work::OpenProject::create(dir.filePath(QString::number(++n) + ".anvil"));
        const auto plan = work::lookAt({file.fileName()}, {}, {});
        study::StudyData into;
        into.study.title = "Bench";
        const auto done = work::importRuns((*project)->file(), into, plan);
        if (!done) state.SkipWithError(done.error().message.c_str());
    }
}
BENCHMARK(wholeStoredImport)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1)->Repetitions(4);

} // namespace
} // namespace anvil::bench
