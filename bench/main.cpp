// Runs the benchmarks and sets their times against each other: ratios of one run on one machine.
#include <QApplication>
#include <algorithm>
#include <anvil/quantity/digits.h>
#include <benchmark/benchmark.h>
#include <fmt/format.h>
#include <map>

namespace {

class Keeper : public benchmark::ConsoleReporter {
public:
    void ReportRuns(const std::vector<Run>& runs) override {
        for (const auto& r :
             runs) { // the best of the repetitions: least disturbed by what else the machine did
            if (r.run_type != Run::RT_Iteration) continue;
            const auto name = r.benchmark_name().substr(0, r.benchmark_name().find("/real_time"));
            const auto [at, fresh] = ms.try_emplace(name, r.GetAdjustedRealTime());
            if (!fresh) at->second = std::min(at->second, r.GetAdjustedRealTime());
        }
        ConsoleReporter::ReportRuns(runs);
    }
    std::map<std::string, double> ms;
};

} // namespace

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("DISPLAY")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    anvil::quantity::usePoints();
    benchmark::Initialize(&argc, argv);
    Keeper keeper;
    benchmark::RunSpecifiedBenchmarks(&keeper);
    const auto time = [&](const std::string& name) {
        for (const auto& [key, ms] : keeper.ms)
            if (key.rfind(name, 0) == 0) return ms;
        return 0.0;
    };
    const double bare = time("bareFromChars");
    fmt::print("\n| what | measured | aim |\n|---|---|---|\n");
    const auto row = [](const char* what, const char* unit, double value, const char* aim) {
        if (value > 0) fmt::print("| {} | {:.2f} {} | {} |\n", what, value, unit, aim);
    };
    if (bare > 0) {
        row("parse 5·10⁶ rows, two threads, to a bare from_chars loop", "×", time("parseTwoThreads") / bare,
            "≤ 1.0 ×");
        row("whole stored import, to the bare loop", "×", time("wholeStoredImport") / bare, "≤ 4 ×");
        row("read 10⁷ samples, to the bare loop", "×", time("readCurve/10000000") / bare, "≤ 1 ×");
    }
    if (time("readCurve/100000000") > 0)
        row("read 10⁸ samples to 10⁷ (linear: 10)", "×",
            time("readCurve/100000000") / time("readCurve/10000000"), "about 10 ×");
    double worst = 0;
    for (const auto& [key, ms] : keeper.ms)
        if (key.rfind("frameOf", 0) == 0) worst = std::max(worst, ms);
    row("slowest frame of a 10⁸-sample curve", "ms", worst, "≤ 16 ms");
    for (const char* n : {"50", "500"})
        row(n == std::string("50") ? "letters of 50 options, slowest case"
                                   : "letters of 500 options, slowest case",
            "ms",
            std::max(time(std::string("lettersAllTied/") + n), time(std::string("lettersManySets/") + n)),
            n == std::string("50") ? "≤ 20 ms" : "≤ 2000 ms");
    row("answer page of 50 options × 10 values", "ms", time("answer/options:50/values:10/bounds:0"),
        "≤ 150 ms");
    row("the same where every option has a bound", "ms", time("answer/options:50/values:10/bounds:1"),
        "≤ 150 ms");
    row("start with the demo to the first painted window", "ms", time("demoToFirstPaint"), "≤ 1000 ms");
    return 0;
}
