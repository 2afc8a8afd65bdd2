// From bytes to columns, and on into a stored project, against a bare std::from_chars loop over the same
// bytes.
#include "inputs.h"

#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <anvil/curve/reading.h>
#include <anvil/project/import.h>
#include <anvil/tables/file.h>
#include <anvil/tables/log.h>
#include <benchmark/benchmark.h>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <fmt/format.h>
#include <map>

namespace anvil::bench {

const std::string& log(std::size_t rows) {
    static std::map<std::size_t, std::string> made;
    auto& text = made[rows];
    if (!text.empty()) return text;
    text = "Time (s),Force (N),Displacement (mm)\n";
    text.reserve(rows * 32);
    const auto c = pull(rows);
    for (std::size_t i = 0; i < rows; ++i)
        fmt::format_to(std::back_inserter(text), "{:.4f},{:.3f},{:.5f}\n", c.time[i], c.load[i],
                       c.travel[i] * 1000);
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
        benchmark::DoNotOptimize(columns.values[0].data());
    }
}
BENCHMARK(parseTwoThreads)->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(5);

/// The same log as another logger writes it: clock stamps, decimal commas, thousands set apart.
const std::string& awkwardLog() {
    static std::string text;
    if (!text.empty()) return text;
    text = "Time;Force (N);Displacement (mm)\n";
    text.reserve(rows * 40);
    const auto c = pull(rows);
    for (std::size_t i = 0; i < rows; ++i) {
        const double t = c.time[i];
        auto line =
            fmt::format("{:02}:{:02}:{:07.4f};{:.3f};{:.5f}\n", 8 + static_cast<int>(t / 3600) % 12,
                        static_cast<int>(t / 60) % 60, std::fmod(t, 60), c.load[i], c.travel[i] * 1000);
        std::replace(line.begin() + 8, line.end(), '.', ',');
        text += line;
    }
    return text;
}

void parseTolerantly(benchmark::State& state) {
    const auto& text = awkwardLog();
    const auto layout = tables::detect(text);
    if (!layout) return state.SkipWithError(layout.error().message.c_str());
    for (auto _ : state) {
        const auto columns = tables::parseColumns(text, *layout, 2);
        if (columns.rows != rows) state.SkipWithError("rows are missing");
        benchmark::DoNotOptimize(columns.values[0].data());
    }
}
BENCHMARK(parseTolerantly)->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(3);

/// The file of the plain log on disk, for what reads files.
QString logFile() {
    static const QTemporaryDir dir;
    const auto path = dir.filePath("log.csv");
    if (!QFile::exists(path)) {
        QFile file(path);
        if (file.open(QIODevice::WriteOnly))
            file.write(log(rows).data(), static_cast<qint64>(log(rows).size()));
    }
    return path;
}

/// A well-known reader of delimited text with two threads, where R and its data.table are installed.
void freadTwoThreads(benchmark::State& state) {
    QProcess r;
    r.start("Rscript", {"-e",
                        "suppressMessages(library(data.table)); setDTthreads(2); f <- commandArgs(TRUE)[1]; "
                        "cat(min(replicate(5, system.time(fread(f, showProgress=FALSE))[[3]])))",
                        logFile()});
    const bool ran = r.waitForFinished(300'000) && r.exitCode() == 0;
    const double seconds = r.readAllStandardOutput().trimmed().toDouble();
    if (!ran || !(seconds > 0)) return state.SkipWithError("R with data.table is not installed");
    for (auto _ : state)
        state.SetIterationTime(seconds);
}
BENCHMARK(freadTwoThreads)->Unit(benchmark::kMillisecond)->UseManualTime()->Iterations(1);

/// A log with all its landmarks, from the bytes of the file.
void readWithLandmarks(benchmark::State& state) {
    const auto path = logFile().toStdString();
    for (auto _ : state) {
        const auto bytes = tables::readFile(path);
        const auto all = bytes ? tables::readLog(*bytes, {}, 2) : tl::unexpected(bytes.error());
        if (!all) return state.SkipWithError(all.error().message.c_str());
        const auto reading = curve::read(all->runs.at(0).curve);
        benchmark::DoNotOptimize(reading->peak.load);
    }
}
BENCHMARK(readWithLandmarks)->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(3);

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
        auto project = project::OpenProject::create(dir.filePath(QString::number(++n) + ".anvil"));
        const auto plan = project::lookAt({file.fileName()}, {}, {});
        domain::StudyData into;
        into.study.title = "Bench";
        const auto done = project::importRuns((*project)->file(), into, plan);
        if (!done) state.SkipWithError(done.error().message.c_str());
    }
}
BENCHMARK(wholeStoredImport)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1)->Repetitions(4);

} // namespace
} // namespace anvil::bench
