// From starting the program with the demo project to its first painted window.
#include <QProcess>
#include <QProcessEnvironment>
#include <QTemporaryDir>
#include <benchmark/benchmark.h>

namespace {

void demoToFirstPaint(benchmark::State& state) {
    const QTemporaryDir dir;
    const auto demo = dir.filePath("demo.anvil");
    if (QProcess::execute(ANVIL_DEMO, {"--to", demo}) != 0)
        return state.SkipWithError("the demo could not be built");
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("XDG_CONFIG_HOME", dir.path());
    if (!environment.contains("DISPLAY")) environment.insert("QT_QPA_PLATFORM", "offscreen");
    for (auto _ : state) {
        QProcess window;
        window.setProcessEnvironment(environment);
        window.setStandardErrorFile(QProcess::nullDevice());
        window.start(ANVIL_WINDOW, {"--quit-when-painted", demo});
        if (!window.waitForFinished(20000) || window.exitCode() != 0)
            state.SkipWithError("the window did not come up");
    }
}
BENCHMARK(demoToFirstPaint)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(5);

} // namespace
