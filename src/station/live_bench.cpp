#include <anvil/station/live_bench.h>

#include "side_stream.h"
#include <QThread>
#include <QTimer>
#include <anvil/curve/steady.h>
#include <anvil/link/last_words.h>
#include <anvil/store/recording.h>
#include <mutex>

namespace anvil::station {

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
        m_channels = ChannelGroup(rig::channelsOf(setup));
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

    /// The rig is told first, whatever else there is to be done.
    void orderStop() {
        if (m_main && !m_setup.onStop.empty()) m_main->sendNow(QByteArray::fromStdString(m_setup.onStop));
    }

    void halt() {
        orderStop();
        m_recorder.stop();
        publish();
    }

    void silence() {
        orderStop();
        link::setLastWords(-1, {});
        if (m_main) m_main->close();
        m_recorder.linkLost();
        finishRecording();
        m_recorder.reset();
        std::unique_ptr<Listener> main; // ends outside the lock: it may still tell that its link is gone
        std::vector<std::unique_ptr<SideStream>> sides;
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
        if (m_recorder.state() == rig::RecorderState::loading) return; // there is load on it
        const bool itself = !m_setup.onZero.empty();                   // the device takes its own offset away
        m_conversion.zero(itself ? 0 : m_rawLevel);
        m_conversion.zeroOthers(itself ? ChannelGroup::Values{} : m_channels.raw());
        for (auto& side : m_sides)
            side->zero();
        if (itself) send(QByteArray::fromStdString(m_setup.onZero));
        m_recorder.zeroed();
        set([&](Live& l) { l.zeroedAt = now(); });
    }

    void send(const QByteArray& line) {
        if (m_main) m_main->send(line);
    }

    void arm(store::Project* project, const domain::Pull& pull, const rig::RecorderSettings& settings) {
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
        m_pull.settings.calibratedTo = m_conversion.calibratedTo();
        m_channels.arm();
        for (auto& side : m_sides)
            side->arm();
        {
            const std::lock_guard lock(m_mutex);
            m_trace.clear();
            ++m_live.armings;
            m_live.pull = 0;
            m_live.committed = 0;
            m_live.saved = false;
            m_live.trouble.clear();
            m_live.tapeTrouble.clear();
            m_live.taped = true;
        }
        m_overload = false;
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
        return side < m_sides.size() ? m_sides[side]->lines() : QStringList();
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
        link::setLastWords(connected && m_main ? m_main->handle() : -1,
                           QByteArray::fromStdString(m_setup.onStop));
        set([&](Live& l) {
            l.link = connected ? LinkState::connected : LinkState::searching;
            l.said = sentence;
        });
        publish();
    }

    void listenBeside(const rig::SideDevice& about, const link::Address& address) {
        const auto index = m_sides.size();
        auto side = std::make_unique<SideStream>(
            about, address, m_clock, [this, index](std::span<const rig::Sample> samples) {
                if (m_recording && m_recorder.state() == rig::RecorderState::loading)
                    m_recording->appendSide(index, samples);
            });
        auto* opened = side.get();
        {
            const std::lock_guard lock(m_mutex);
            m_sides.push_back(std::move(side));
        }
        opened->open();
    }

    void take(const rig::RawSample& raw, double time) {
        rig::Sample s;
        s.time = time;
        if (!m_rawKnown) m_rawLevel = raw.load; // the first one is the best guess there is
        m_rawKnown = true;
        const double weight = smoothing(s.time - m_lastTime);
        m_rawLevel += (raw.load - m_rawLevel) * weight;
        m_lastTime = s.time;
        s.others = m_channels.take(m_conversion, raw.others, weight);
        const auto force = m_conversion.force(raw.load);
        s.load = force.value;
        s.inside = force.inside;
        if (raw.travel) s.travel = m_conversion.displacement(*raw.travel, force.value);
        ++m_arrived;
        m_inside = force.inside;
        m_displacement = s.travel;
        const auto before = m_recorder.state();
        m_recorder.feed(s);
        m_overload = m_overload || (raw.overload && m_recorder.state() == rig::RecorderState::loading);
        if (before == rig::RecorderState::loading || m_recorder.state() == rig::RecorderState::loading) {
            const std::lock_guard lock(m_mutex);
            m_trace.add(s.time, s.load);
        }
    }

    void tick() {
        const double at = now();
        if (!m_main) return publish();
        m_main->tick();
        for (auto& side : m_sides)
            side->tick();
        if (at - m_countedAt >= 1) {
            m_perSecond = static_cast<double>(m_arrived - m_counted) / (at - m_countedAt);
            m_counted = m_arrived;
            m_countedAt = at;
        }
        // Whatever the disk does, the pull goes on; only what nothing has room for ends it.
        if (m_recording && m_recording->lost() && !m_recording->taped()) m_recorder.cannotSave();
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
        const auto told = [](const Live& of) {
            return std::tuple(of.recorder, of.saved, of.offZero, of.trouble, of.tapeTrouble, of.fresh,
                              of.nearLimitTimes);
        };
        const auto before = told(l);
        l.recorder = m_recorder.state();
        l.ending = m_recorder.ending();
        l.load = m_recorder.force();
        l.peak = m_recorder.peak();
        l.time = m_recorder.time();
        l.inside = m_inside;
        l.rawLevel = m_rawLevel;
        l.overload = m_overload;
        l.travel = m_displacement;
        if (slow) {
            l.channels = channels();
            l.beyondTable = beyondTable();
            l.calibratedTo = m_conversion.calibratedTo();
            l.loadRate = m_recorder.loadRate();
            l.speed = m_recorder.speed();
            l.offZero = m_recorder.offZero();
            l.level = m_recorder.level();
        }
        l.nearLimit = m_recorder.nearLimit();
        l.nearLimitTimes = m_recorder.nearLimitTimes();
        l.fresh = fresh();
        l.hears = m_main && m_main->silence() < 1;
        l.perSecond = m_perSecond;
        l.recorded = m_recorder.recorded();
        if (m_main) {
            l.noise = m_main->noise();
            for (const auto& side : m_sides)
                l.noise += side->noise();
            l.clockJumps = m_main->clockJumps();
            l.skew = m_main->skew();
        }
        if (m_recording) {
            l.pull = m_recording->pull();
            l.committed = m_recording->committed();
            l.saved = m_recording->whole();
            l.trouble = m_recording->error();
            l.tapeTrouble = m_recording->tapeTrouble();
            l.taped = m_recording->taped();
        }
        {
            const std::lock_guard lock(m_mutex);
            m_live = l;
        }
        if (before != told(l)) emit m_owner.changed();
    }

    QStringList beyondTable() const {
        QStringList out;
        m_channels.addBeyondTo(out);
        for (const auto& side : m_sides)
            side->channels().addBeyondTo(out);
        return out;
    }

    bool fresh() const { return m_main && m_arrived > 0 && m_main->silence() < 1; }

    std::vector<LiveChannel> channels() const {
        std::vector<LiveChannel> out;
        m_channels.addTo(out, fresh());
        for (const auto& side : m_sides)
            side->addTo(out);
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
        m_recording->close(); // the last commit may bring what the ones before it could not
        publish(false);
        m_recording.reset();
    }

    // SampleSink: what the recorder wants kept
    void begin() override {
        m_recording.reset();
        if (!m_project) return;
        const auto heard = rig::heardLayout(m_setup);
        store::RecordedChannels channels{
            m_channels.names(), {}, rig::recordedLoad(m_setup), rig::travelOf(heard)};
        for (const auto& side : m_sides)
            channels.sides.push_back(side->channels().names());
        m_recording = std::make_unique<store::PullRecording>(*m_project, m_pull, std::move(channels));
        m_recording->begin();
        for (std::size_t i = 0; i < m_sides.size(); ++i)
            m_recording->appendSide(i, m_sides[i]->recent());
    }
    void append(std::span<const rig::Sample> samples) override {
        if (m_recording) m_recording->append(samples);
        if (samples.size() > 1) { // from before the start
            const std::lock_guard lock(m_mutex);
            for (const auto& s : samples)
                m_trace.add(s.time, s.load);
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
    domain::Pull m_pull;
    QElapsedTimer m_clock;
    double m_countedAt = 0, m_perSecond = 0, m_rawLevel = 0, m_lastTime = 0;
    ChannelGroup m_channels; ///< of the main device
    std::vector<std::unique_ptr<SideStream>> m_sides;
    bool m_inside = true, m_rawKnown = false, m_overload = false;
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
    for (const auto& name : after.beyondTable)
        out << QObject::tr("%1 read beyond its calibration table").arg(name);
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

void LiveBench::halt() {
    QMetaObject::invokeMethod(
        m_worker, [w = m_worker] { w->halt(); }, Qt::BlockingQueuedConnection);
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
void LiveBench::arm(store::Project& project, const domain::Pull& pull,
                    const rig::RecorderSettings& settings) {
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

} // namespace anvil::station
