// Records from a virtual rig on a wire for as long as it is told, drawing all the while, and says what was
// lost, how long a frame took and how much of a core it used.
#include "shell/rig_desk.h"
#include "shell/session.h"
#include "stages/pull/live_curve.h"
#include "theme/theme.h"
#include <CLI/CLI.hpp>
#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QFile>
#include <QProcess>
#include <QSettings>
#include <QTemporaryDir>
#include <QTimer>
#include <algorithm>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/digits.h>
#include <cstdio>
#include <ctime>
#include <fmt/format.h>
#include <iterator>
#include <sys/resource.h>
#include <unistd.h>

using namespace anvil;

namespace {

double cpuSeconds() {
    rusage u{};
    ::getrusage(RUSAGE_SELF, &u);
    const auto s = [](const timeval& t) {
        return static_cast<double>(t.tv_sec) + 1e-6 * static_cast<double>(t.tv_usec);
    };
    return s(u.ru_utime) + s(u.ru_stime);
}

/// Asleep, not spinning: the processor time is measured.
void settle(int ms) {
    QEventLoop loop;
    QTimer::singleShot(ms, &loop, &QEventLoop::quit);
    loop.exec();
}

double threadMs() {
    timespec t{};
    ::clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
    return 1e3 * static_cast<double>(t.tv_sec) + 1e-6 * static_cast<double>(t.tv_nsec);
}

/// Processor time, ms, of all processors, that the host of a virtual machine gave to somebody else; in steps
/// of 10 ms.
double stolenMs() {
    QFile f("/proc/stat");
    if (!f.open(QIODevice::ReadOnly)) return 0;
    const auto words = f.readLine().simplified().split(' '); // "cpu", then eight counts and more
    const auto ticks = words.size() > 8 ? quantity::machineNumber(words[8].toStdString()) : std::nullopt;
    return 1e3 * ticks.value_or(0) / static_cast<double>(::sysconf(_SC_CLK_TCK));
}

/// Where one frame's time went, so that a long one can be told: the program's own work, or waiting for a
/// processor that another thread, another program or another machine on the same host had.
struct Frame {
    double wall = 0;     ///< ms
    double own = 0;      ///< ms of processor time of the window's thread
    double fetching = 0; ///< ms of `wall` until the bench had handed over its trace
    long pushedOut = 0;  ///< times another thread was given the processor
    long waited = 0;     ///< times it waited of its own accord: for a lock or for the disk
    double stolen = 0;   ///< ms, see stolenMs()
};

/// Draws what `next` gives some thirty times a second; in the order drawn.
template <class Next> std::vector<Frame> framesOver(double seconds, app::LiveCurve& curve, Next next) {
    const double stolenBefore = stolenMs();
    std::vector<Frame> out;
    out.reserve(static_cast<std::size_t>(32 * seconds));
    QElapsedTimer clock;
    clock.start();
    while (static_cast<double>(clock.elapsed()) < 1000 * seconds) {
        Frame f;
        rusage before{}, after{};
        ::getrusage(RUSAGE_THREAD, &before);
        const double own = threadMs(), stolen = stolenMs();
        QElapsedTimer wall;
        wall.start();
        auto trace = next();
        f.fetching = static_cast<double>(wall.nsecsElapsed()) * 1e-6;
        curve.update(std::move(trace), {});
        curve.repaint();
        f.wall = static_cast<double>(wall.nsecsElapsed()) * 1e-6;
        f.own = threadMs() - own;
        ::getrusage(RUSAGE_THREAD, &after);
        f.pushedOut = after.ru_nivcsw - before.ru_nivcsw;
        f.waited = after.ru_nvcsw - before.ru_nvcsw;
        f.stolen = stolenMs() - stolen;
        out.push_back(f);
        settle(33);
    }
    fmt::print("{:.0f} s drawn; the host gave {:.0f} ms of its processors' time to others meanwhile\n",
               seconds, stolenMs() - stolenBefore);
    return out;
}

void print(const char* what, const std::vector<Frame>& frames) {
    const auto line = [&](const char* which, const std::vector<Frame>& of, double Frame::*time) {
        if (of.empty()) return;
        std::vector<double> ms(of.size());
        std::transform(of.begin(), of.end(), ms.begin(), [&](const Frame& f) { return f.*time; });
        std::sort(ms.begin(), ms.end());
        fmt::print("{}, {}: median {:.2f} ms, 99 % {:.2f} ms, 99.9 % {:.2f} ms, worst {:.2f} ms, {} of {} "
                   "over 16 ms\n",
                   what, which, ms[ms.size() / 2], ms[ms.size() * 99 / 100], ms[ms.size() * 999 / 1000],
                   ms.back(), ms.end() - std::upper_bound(ms.begin(), ms.end(), 16.0), ms.size());
    };
    std::vector<Frame> undisturbed;
    std::copy_if(frames.begin(), frames.end(), std::back_inserter(undisturbed),
                 [](const Frame& f) { return f.stolen == 0; });
    line("all frames", frames, &Frame::wall);
    line("frames in which the host took nothing away", undisturbed, &Frame::wall);
    line("own work in these", undisturbed, &Frame::own);
    for (const auto& f : undisturbed)
        if (f.wall > 16)
            fmt::print(
                "  {:.1f} ms long: own work {:.1f} ms, {:.1f} ms to fetch, pushed out {} times, waited "
                "{} times\n",
                f.wall, f.own, f.fetching, f.pushedOut, f.waited);
    std::fflush(stdout);
}

} // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    anvil::quantity::usePoints();
    CLI::App app("Records from a virtual rig and measures loss, frames and processor time.");
    double seconds = 60, rate = 10000, control = 0;
    int legs = 0;
    std::string rig;
    app.add_option("--seconds", seconds);
    app.add_option("--control", control,
                   "first draw for so many seconds with nothing recorded, to compare with");
    app.add_option("--rate", rate, "lines a second, of time, force and travel");
    app.add_option("--legs", legs, "further force channels")->check(CLI::Range(0, 6));
    app.add_option("--rig", rig, "the program anvil-rig")->required();
    CLI11_PARSE(app, argc, argv);
    const QTemporaryDir dir;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, dir.path());
    app::applyTheme(application, app::Appearance::light);
    app::Session session;
    if (!session.create(dir.filePath("torture.anvil"))) return 3;
    domain::Study s;
    s.title = "Torture";
    session.showStudy(*project::addStudy(*session.project(), s));
    if (!project::addOption(*session.project(), session.studyId(), "Pin") ||
        !project::addCondition(*session.project(), session.studyId(), "Dry") ||
        !project::planReplicates(*session.project(), session.studyId(), 1) ||
        !project::makePieces(*session.project(), session.studyId(), ""))
        return 3;
    app::LiveCurve curve(session);
    curve.resize(800, 600);
    curve.show();
    if (control > 0) {
        rig::LiveTrace noise;
        for (std::size_t i = 0; i < 400000; ++i)
            noise.add(1e-4 * static_cast<double>(i), 2 + 0.25 * static_cast<double>(i * 7919 % 13));
        auto trace = noise.stretches();
        print("nothing recorded", framesOver(control, curve, [&] {
                  trace.back().high += 1e-9; // another picture each time
                  return trace;
              }));
    }
    QProcess server;
    QStringList arguments{"--tcp", "0", "--rate", QString::number(rate), "--noise", "1"};
    if (legs > 0) arguments << "--legs";
    for (int i = 0; i < legs; ++i)
        arguments << QString::number(1.0 / (i + 2));
    server.start(QString::fromStdString(rig), arguments);
    if (!server.waitForReadyRead(5000)) return 3;
    rig::Setup setup;
    setup.name = "Torture";
    setup.address = server.readAllStandardOutput().trimmed().toStdString();
    setup.layout = rig::simulatedLayout();
    for (int i = 0; i < legs; ++i)
        setup.layout.columns.push_back({"leg " + std::to_string(i + 1), rig::Role::load, "N"});
    if (!session.rig().use(setup)) return 3;
    settle(1500);
    const auto pull = station::pullFor(*session.study(), session.study()->specimens[0],
                                       session.rig().station(), session.rig().circumstances());
    if (!pull) return 3;
    session.rig().bench().arm(session.project()->file(), *pull, station::recorderFor(session.rig().setup()));
    settle(100);
    session.rig().bench().start();
    settle(200);
    const double cpu = cpuSeconds();
    QElapsedTimer clock;
    clock.start();
    const auto frames = framesOver(seconds, curve, [&] { return session.rig().bench().trace(); });
    const double used = (cpuSeconds() - cpu) / (static_cast<double>(clock.elapsed()) * 1e-3);
    session.rig().bench().stop();
    QElapsedTimer saving;
    saving.start();
    while (!session.rig().live().saved && saving.elapsed() < 300000)
        settle(20);
    const auto live = session.rig().live();
    session.rig().bench().reset();
    if (!session.project()->reload()) return 3;
    const auto& pulls = session.study()->pulls;
    if (pulls.empty()) {
        fmt::print("Nothing was recorded. {}\n", live.trouble.toStdString().c_str());
        return 1;
    }
    const auto raw = session.project()->file().curve(pulls[0].curve);
    if (!raw) return 1;
    // The device's own clock runs evenly, so a missing line is a gap of more than one and a half steps.
    std::size_t gaps = 0;
    for (std::size_t i = 1; i < raw->time.size(); ++i)
        gaps += raw->time[i] - raw->time[i - 1] > 1.5 / rate;
    fmt::print("{:.0f} s at {:.0f} lines a second: {} samples of {} channels, {} gaps, saved {:.1f} s after "
               "the end\n",
               seconds, rate, (2 + raw->others.size()) * raw->time.size(), 2 + raw->others.size(), gaps,
               static_cast<double>(saving.elapsed()) * 1e-3);
    print("frame", frames);
    fmt::print("processor: {:.0f} % of a core\n", 100 * used);
    server.kill();
    server.waitForFinished();
    return gaps == 0 ? 0 : 1;
}
