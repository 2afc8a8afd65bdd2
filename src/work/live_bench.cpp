#include <anvil/work/live_bench.h>

#include "listener.h"
#include <QThread>
#include <QTimer>
#include <anvil/curve/steady.h>
#include <anvil/store/recording.h>
#include <array>
#include <cmath>
#include <deque>
#include <mutex>

namespace anvil::work {
namespace {

constexpr double keptSeconds = 2; // of a device beside the main one, before a recording begins
constexpr std::size_t mostKept = 400000;

/// A device that is listened to beside the main one.
struct Side {
    rig::SideDevice about;
    std::unique_ptr<Listener> listener;
    rig::Conversion conversion;
    std::vector<rig::ChannelName> names;
    std::array<double, rig::mostOthers> raw{};
    std::array<bool, rig::mostOthers> inside{};
    rig::Sample last;
    std::vector<rig::Sample> fresh; ///< of the bytes that are being taken in
    std::deque<rig::Sample> recent; ///< the last seconds, for what comes before a start
    bool heard = false;
    QString said;
};

} // namespace

/// Everything that happens on the listening thread. What others may look at lies under one mutex.
class LiveBench::Worker : public QObject, private rig::SampleSink {
public:
    explicit Worker(LiveBench& owner) : m_owner(owner), m_recorder(*this) { m_clock.start(); }

    void listen(const rig::Setup& setup, const link::Address& address,
                const std::vector<link::Address>& sides) {
        silence();
        m_setup = setup;
        m_conversion = rig::Conversion::make(setup).value_or(rig::Conversion{});
        m_recorder.setUnloaded(m_conversion.ratio().offset);
        m_rawKnown = false;
        m_names = rig::channelsOf(setup);
        auto listener = std::make_unique<Listener>(
            address, rig::heardLayout(setup), setup.protocol == rig::Protocol::answers, true, m_clock,
            Listener::Ear{[this](const rig::RawSample& raw, double time) { take(raw, time); },
                          [this] { publish(false); },
                          [this](bool connected, const QString& said) { linkChanged(connected, said); }});
        {
            const std::lock_guard lock(m_mutex);
            m_main = std::move(listener);
        }
        set([&](Live& l) {
            l = {};
            l.link = LinkState::searching;
        });
        m_main->open();
        for (std::size_t i = 0; i < sides.size(); ++i)
            listenBeside(setup.sides[i], sides[i]);
        if (!m_tick) {
            m_tick = std::make_unique<QTimer>();
            connect(m_tick.get(), &QTimer::timeout, this, &Worker::tick);
            m_tick->start(50);
        }
    }

    void silence() {
        if (m_main) m_main->close();
        m_recorder.linkLost();
        finishRecording();
        std::unique_ptr<Listener> main; // ends outside the lock: it may still tell that its link is gone
        std::vector<std::unique_ptr<Side>> sides;
        {
            const std::lock_guard lock(m_mutex);
            main.swap(m_main);
            sides.swap(m_sides);
        }
        set([](Live& l) { l = {}; });
    }

    /// Ends timers and files on their own thread.
    void quit() {
        silence();
        m_tick.reset();
        m_recording.reset();
    }

    void zero() {
        const bool itself = !m_setup.onZero.empty(); // the device takes its own offset away
        m_conversion.zero(itself ? 0 : m_rawLevel);
        m_conversion.zeroOthers(itself ? std::array<double, rig::mostOthers>{} : m_rawOthers);
        for (auto& side : m_sides)
            side->conversion.zeroOthers(side->raw);
        if (itself) send(QByteArray::fromStdString(m_setup.onZero));
        m_recorder.zeroed();
        set([&](Live& l) { l.zeroedAt = now(); });
    }

    void send(const QByteArray& line) {
        if (m_main) m_main->send(line);
    }

    void arm(store::Project* project, const study::Pull& pull, const rig::RecorderSettings& settings) {
        finishRecording();
        m_project = project;
        m_pull = pull;
        auto limited = settings;
        if (m_setup.cellLimit) { // the zero has taken a part of the cell's range
            const double end = m_conversion.cellEnd(*m_setup.cellLimit);
            limited.limit = std::min(end, limited.limit.value_or(end));
            m_pull.settings.rigLimit = limited.limit;
        }
        m_pull.settings.preload = m_conversion.ratio().offset;
        {
            const std::lock_guard lock(m_mutex);
            m_trace.clear();
            m_live.pull = 0;
            m_live.committed = 0;
            m_live.saved = false;
            m_live.trouble.clear();
        }
        m_recorder.arm(limited);
        if (!m_setup.onArm.empty()) send(QByteArray::fromStdString(m_setup.onArm));
        publish();
    }

    void start() {
        m_recorder.start();
        publish();
    }

    void stop() {
        m_recorder.stop();
        if (!m_setup.onStop.empty()) send(QByteArray::fromStdString(m_setup.onStop));
        publish();
    }

    void pause(bool on) {
        m_recorder.setPaused(on);
        const auto& line = on ? m_setup.onPause : m_setup.onResume;
        if (!line.empty()) send(QByteArray::fromStdString(line));
    }

    void reset() {
        m_recorder.reset();
        finishRecording();
        publish();
    }

    Live live() const {
        const std::lock_guard lock(m_mutex);
        return m_live;
    }
    std::vector<rig::LiveTrace::Stretch> trace() const {
        const std::lock_guard lock(m_mutex);
        return m_trace.stretches();
    }
    QStringList lines() const {
        const std::lock_guard lock(m_mutex);
        return m_main ? m_main->lines() : QStringList();
    }

    QStringList sideLines(std::size_t side) const {
        const std::lock_guard lock(m_mutex);
        return side < m_sides.size() ? m_sides[side]->listener->lines() : QStringList();
    }

private:
    double now() const { return static_cast<double>(m_clock.nsecsElapsed()) * 1e-9; }

    template <class Change> void set(Change change) {
        {
            const std::lock_guard lock(m_mutex);
            change(m_live);
        }
        emit m_owner.changed();
    }

    void linkChanged(bool connected, const QString& sentence) {
        if (!connected) m_recorder.linkLost();
        set([&](Live& l) {
            l.link = connected ? LinkState::connected : LinkState::searching;
            l.said = sentence;
        });
        publish();
    }

    void listenBeside(const rig::SideDevice& about, const link::Address& address) {
        auto side = std::make_unique<Side>();
        auto* s = side.get();
        const auto index = m_sides.size();
        side->about = about;
        side->conversion = rig::Conversion::make(about).value_or(rig::Conversion{});
        side->names = rig::channelsOf(about);
        side->listener = std::make_unique<Listener>(
            address, about.layout, about.answers(), false, m_clock,
            Listener::Ear{[s](const rig::RawSample& raw, double time) { takeBeside(*s, raw, time); },
                          [this, s, index] { keepBeside(*s, index); },
                          [s](bool, const QString& said) { s->said = said; }});
        {
            const std::lock_guard lock(m_mutex);
            m_sides.push_back(std::move(side));
        }
        s->listener->open();
    }

    static void takeBeside(Side& side, const rig::RawSample& raw, double time) {
        rig::Sample s;
        s.time = time;
        const double weight = side.heard ? smoothing(time - side.last.time) : 1;
        for (std::size_t i = 0; i < side.names.size(); ++i) {
            side.raw[i] += (raw.others[i] - side.raw[i]) * weight;
            const auto value = side.conversion.other(i, raw.others[i]);
            s.others[i] = value.value;
            side.inside[i] = value.inside;
        }
        side.last = s;
        side.heard = true;
        side.fresh.push_back(s);
    }

    void keepBeside(Side& side, std::size_t index) {
        side.recent.insert(side.recent.end(), side.fresh.begin(), side.fresh.end());
        while (!side.recent.empty() && (side.recent.size() > mostKept ||
                                        side.recent.front().time < side.recent.back().time - keptSeconds))
            side.recent.pop_front();
        if (m_recording && m_recorder.state() == rig::RecorderState::loading && !side.fresh.empty())
            m_recording->appendSide(index, side.fresh);
        side.fresh.clear();
    }

    /// How much a reading counts in the level that zeroing takes away: a quarter of a second's worth.
    static double smoothing(double step) { return std::min(1.0, 4 * std::max(1e-4, step)); }

    void take(const rig::RawSample& raw, double time) {
        rig::Sample s;
        s.time = time;
        if (!m_rawKnown) m_rawLevel = raw.force; // the first one is the best guess there is
        if (!m_rawKnown) m_rawOthers = raw.others;
        m_rawKnown = true;
        const double weight = smoothing(s.time - m_lastTime);
        m_rawLevel += (raw.force - m_rawLevel) * weight;
        m_lastTime = s.time;
        for (std::size_t i = 0; i < m_names.size(); ++i) {
            m_rawOthers[i] += (raw.others[i] - m_rawOthers[i]) * weight;
            const auto value = m_conversion.other(i, raw.others[i]);
            s.others[i] = value.value;
            m_othersInside[i] = value.inside;
        }
        m_others = s.others;
        const auto force = m_conversion.force(raw.force);
        s.force = force.value;
        s.inside = force.inside;
        if (raw.displacement) s.displacement = m_conversion.displacement(*raw.displacement, force.value);
        ++m_arrived;
        m_inside = force.inside;
        m_displacement = s.displacement;
        const auto before = m_recorder.state();
        m_recorder.feed(s);
        if (before == rig::RecorderState::loading || m_recorder.state() == rig::RecorderState::loading) {
            const std::lock_guard lock(m_mutex);
            m_trace.add(s.time, s.force);
        }
    }

    void tick() {
        const double at = now();
        if (!m_main) return publish();
        m_main->tick();
        for (auto& side : m_sides)
            side->listener->tick();
        if (at - m_countedAt >= 1) {
            m_perSecond = static_cast<double>(m_arrived - m_counted) / (at - m_countedAt);
            m_counted = m_arrived;
            m_countedAt = at;
        }
        if (m_recording && !m_recording->error().isEmpty()) m_recorder.cannotSave();
        if (m_recorder.state() == rig::RecorderState::loading && m_main->silence() > silentSeconds)
            m_recorder.linkLost();
        publish();
    }

    /// `slow`: also what has to look at a whole second of samples.
    void publish(bool slow = true) {
        Live l;
        {
            const std::lock_guard lock(m_mutex);
            l = m_live;
        }
        const auto before = std::tuple(l.recorder, l.saved, l.offZero, l.trouble, l.fresh);
        l.recorder = m_recorder.state();
        l.ending = m_recorder.ending();
        l.force = m_recorder.force();
        l.peak = m_recorder.peak();
        l.time = m_recorder.time();
        l.inside = m_inside;
        l.rawLevel = m_rawLevel;
        l.displacement = m_displacement;
        if (slow) {
            l.channels = channels(fresh());
            l.forceRate = m_recorder.forceRate();
            l.speed = m_recorder.speed();
            l.offZero = m_recorder.offZero();
            l.level = m_recorder.level();
        }
        l.nearLimit = m_recorder.nearLimit();
        l.fresh = fresh();
        l.perSecond = m_perSecond;
        l.recorded = m_recorder.recorded();
        if (m_main) {
            l.noise = m_main->noise();
            for (const auto& side : m_sides)
                l.noise += side->listener->noise();
            l.clockJumps = m_main->clockJumps();
            l.skew = m_main->skew();
        }
        if (m_recording) {
            l.pull = m_recording->pull();
            l.committed = m_recording->committed();
            l.saved = m_recording->finished();
            l.trouble = m_recording->error();
        }
        {
            const std::lock_guard lock(m_mutex);
            m_live = l;
        }
        if (before != std::tuple(l.recorder, l.saved, l.offZero, l.trouble, l.fresh)) emit m_owner.changed();
    }

    bool fresh() const { return m_main && m_arrived > 0 && m_main->silence() < 1; }

    std::vector<LiveChannel> channels(bool mainFresh) const {
        std::vector<LiveChannel> out;
        const auto add = [&](const rig::ChannelName& name, double value, double raw, bool inside,
                             bool isFresh) {
            LiveChannel c;
            c.name = QString::fromStdString(name.name);
            c.unit = QString::fromStdString(name.unit);
            c.value = value;
            c.raw = raw;
            c.inside = inside;
            c.fresh = isFresh;
            c.overLimit = name.limit && std::abs(value) >= *name.limit;
            out.push_back(std::move(c));
        };
        for (std::size_t i = 0; i < m_names.size(); ++i)
            add(m_names[i], m_others[i], m_rawOthers[i], m_othersInside[i], mainFresh);
        for (const auto& side : m_sides)
            for (std::size_t i = 0; i < side->names.size(); ++i) {
                add(side->names[i], side->last.others[i], side->raw[i], side->inside[i],
                    side->heard && side->listener->silence() < 1);
                out.back().skew = side->listener->skew();
                out.back().said = side->said;
            }
        std::vector<double> legs;
        for (const auto& c : out)
            if (c.unit == "N") legs.push_back(c.value);
        const auto shares = curve::sharesOf(legs);
        std::size_t leg = 0;
        for (auto& c : out)
            if (c.unit == "N" && !shares.empty()) c.share = shares[leg++];
        return out;
    }

    void finishRecording() {
        if (!m_recording) return;
        m_recording.reset(); // waits for the last commit
    }

    // SampleSink: what the recorder wants kept
    void begin() override {
        m_recording.reset();
        if (!m_project) return;
        const auto heard = rig::heardLayout(m_setup);
        store::RecordedChannels channels{m_names, {}, rig::loadOf(heard), rig::travelOf(heard)};
        for (const auto& side : m_sides)
            channels.sides.push_back(side->names);
        m_recording = std::make_unique<store::PullRecording>(*m_project, m_pull, std::move(channels));
        m_recording->begin();
        for (std::size_t i = 0; i < m_sides.size(); ++i)
            m_recording->appendSide(
                i, std::vector<rig::Sample>(m_sides[i]->recent.begin(), m_sides[i]->recent.end()));
    }
    void append(std::span<const rig::Sample> samples) override {
        if (m_recording) m_recording->append(samples);
        if (samples.size() > 1) { // from before the start
            const std::lock_guard lock(m_mutex);
            for (const auto& s : samples)
                m_trace.add(s.time, s.force);
        }
    }
    void end(rig::Ending ending) override {
        if (m_recording) m_recording->end(ending);
    }

    static constexpr double silentSeconds = 2;
    LiveBench& m_owner;
    rig::Setup m_setup;
    rig::Recorder m_recorder;
    rig::Conversion m_conversion;
    std::unique_ptr<Listener> m_main;
    std::unique_ptr<QTimer> m_tick;
    std::unique_ptr<store::PullRecording> m_recording;
    store::Project* m_project = nullptr;
    study::Pull m_pull;
    QElapsedTimer m_clock;
    double m_countedAt = 0, m_perSecond = 0, m_rawLevel = 0, m_lastTime = 0;
    std::vector<rig::ChannelName> m_names; ///< of the main device's further channels
    std::array<double, rig::mostOthers> m_rawOthers{}, m_others{};
    std::array<bool, rig::mostOthers> m_othersInside{};
    std::vector<std::unique_ptr<Side>> m_sides;
    bool m_inside = true, m_rawKnown = false;
    std::optional<double> m_displacement;
    std::uint64_t m_arrived = 0, m_counted = 0;
    mutable std::mutex m_mutex;
    Live m_live;
    rig::LiveTrace m_trace;
};

QStringList troublesBetween(const Live& before, const Live& after) {
    QStringList out;
    if (const int jumps = after.clockJumps - before.clockJumps; jumps > 0)
        out << (jumps == 1 ? QObject::tr("the rig's clock jumped")
                           : QObject::tr("the rig's clock jumped %1 times").arg(jumps));
    if (after.noise > before.noise)
        out << (after.noise - before.noise == 1
                    ? QObject::tr("a line held no numbers")
                    : QObject::tr("%1 lines held no numbers").arg(after.noise - before.noise));
    return out;
}

LiveBench::LiveBench(QObject* parent)
    : QObject(parent), m_thread(new QThread(this)), m_worker(new Worker(*this)) {
    m_worker->moveToThread(m_thread);
    m_thread->start();
}

LiveBench::~LiveBench() {
    QMetaObject::invokeMethod(
        m_worker, [this] { m_worker->quit(); }, Qt::BlockingQueuedConnection);
    m_thread->quit();
    m_thread->wait();
    delete m_worker;
}

Expected<void> LiveBench::connectTo(const rig::Setup& setup, bool otherMachines) {
    const auto address = link::addressFrom(QString::fromStdString(setup.address), otherMachines);
    if (!address) return tl::unexpected(address.error());
    if (const auto c = rig::Conversion::make(setup); !c) return tl::unexpected(c.error());
    std::vector<link::Address> sides;
    for (const auto& side : setup.sides) {
        const auto at = link::addressFrom(QString::fromStdString(side.address), otherMachines);
        if (!at) return fail(side.name + ": " + at.error().message);
        if (const auto c = rig::Conversion::make(side); !c) return tl::unexpected(c.error());
        sides.push_back(*at);
    }
    m_setup = setup;
    QMetaObject::invokeMethod(m_worker,
                              [w = m_worker, setup, a = *address, sides] { w->listen(setup, a, sides); });
    return {};
}

void LiveBench::disconnectRig() {
    QMetaObject::invokeMethod(
        m_worker, [w = m_worker] { w->silence(); }, Qt::BlockingQueuedConnection);
}

Live LiveBench::live() const { return m_worker->live(); }
std::vector<rig::LiveTrace::Stretch> LiveBench::trace() const { return m_worker->trace(); }
QStringList LiveBench::lines() const { return m_worker->lines(); }
QStringList LiveBench::sideLines(std::size_t side) const { return m_worker->sideLines(side); }

void LiveBench::zero() {
    QMetaObject::invokeMethod(m_worker, [w = m_worker] { w->zero(); });
}
void LiveBench::send(const QString& line) {
    QMetaObject::invokeMethod(m_worker, [w = m_worker, line] { w->send(line.toUtf8()); });
}
void LiveBench::arm(store::Project& project, const study::Pull& pull, const rig::RecorderSettings& settings) {
    QMetaObject::invokeMethod(m_worker,
                              [w = m_worker, p = &project, pull, settings] { w->arm(p, pull, settings); });
}
void LiveBench::start() {
    QMetaObject::invokeMethod(m_worker, [w = m_worker] { w->start(); });
}
void LiveBench::stop() {
    QMetaObject::invokeMethod(m_worker, [w = m_worker] { w->stop(); });
}
void LiveBench::pause(bool on) {
    QMetaObject::invokeMethod(m_worker, [w = m_worker, on] { w->pause(on); });
}
void LiveBench::reset() {
    QMetaObject::invokeMethod(
        m_worker, [w = m_worker] { w->reset(); }, Qt::BlockingQueuedConnection);
}

} // namespace anvil::work
