// One frame of the real curve widget on 10⁸ samples: a turn of the wheel and the repaint, at every depth of
// zoom.
#include "inputs.h"

#include "widgets/curve_view.h"
#include <QApplication>
#include <QImage>
#include <QWheelEvent>
#include <benchmark/benchmark.h>

namespace anvil::bench {
namespace {

app::CurveView& longCurve() {
    static auto* view = [] {
        auto* v = new app::CurveView;
        v->resize(900, 560);
        auto read = curve::readAndKeep(pull(sized(100'000'000)));
        v->showCurve(std::make_shared<const curve::ReadCurve>(std::move(*read)),
                     quantity::unitsFrom("N", "mm"), {});
        return v;
    }();
    return *view;
}

void frameOf100MillionSamples(benchmark::State& state) {
    auto& view = longCurve();
    view.resetZoom();
    const QPointF at(500, 250);
    const auto turn = [&](int notches) {
        QWheelEvent wheel(at, at, {}, QPoint(0, 120 * notches), Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(&view, &wheel);
    };
    for (int i = 0; i < state.range(0); ++i)
        turn(1);
    QImage image(view.size(), QImage::Format_ARGB32_Premultiplied);
    int direction = 1;
    for (auto _ : state) {
        turn(direction);
        direction = -direction;
        view.render(&image);
    }
}
BENCHMARK(frameOf100MillionSamples)
    ->Arg(0)
    ->Arg(10)
    ->Arg(25)
    ->Arg(40)
    ->Arg(55)
    ->Arg(70)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();

} // namespace
} // namespace anvil::bench
