#include "shell/reading_progress.h"

#include <QEventLoop>
#include <QProgressDialog>
#include <QTimer>
#include <atomic>
#include <future>

namespace anvil::app {
namespace {

constexpr std::size_t few = 100; // about a tenth of a second: not worth a dialog
constexpr int glance = 40;       // ms between two looks at how far it is

} // namespace

bool waitForReadings(QWidget* parent, project::OpenProject& project, domain::Id study) {
    const auto curves = project.unread(study);
    if (curves.size() <= few) return true;
    QProgressDialog dialog(parent);
    dialog.setObjectName("reading");
    dialog.setWindowTitle(QObject::tr("Jaunty Anvil"));
    dialog.setWindowModality(Qt::WindowModal);
    dialog.setRange(0, static_cast<int>(curves.size()));
    dialog.setMinimumDuration(400);
    dialog.setAutoClose(false);
    std::atomic<bool> stop{false};
    std::atomic<std::size_t> done{0};
    auto job = std::async(std::launch::async, [&] {
        return project::readCurves(project.file(), curves, [&](std::size_t n) {
            done = n;
            return !stop;
        });
    });
    QEventLoop loop;
    QTimer timer;
    const auto look = [&] {
        dialog.setLabelText(QObject::tr("Reading curves: %1 of %2. They are kept, so this is done once.")
                                .arg(done)
                                .arg(curves.size()));
        dialog.setValue(static_cast<int>(std::min<std::size_t>(done, curves.size() - 1)));
        stop = stop || dialog.wasCanceled();
        if (job.wait_for(std::chrono::seconds(0)) == std::future_status::ready) loop.quit();
    };
    QObject::connect(&timer, &QTimer::timeout, &loop, look);
    look();
    timer.start(glance);
    loop.exec();
    project.take(job.get());
    return !stop;
}

} // namespace anvil::app
