#include <anvil/store/recording.h>

#include <chrono>

namespace anvil::store {
namespace {

/// A sample without a displacement in a curve that has them keeps the last one.
curve::Curve curveOf(std::span<const rig::Sample> samples, bool displacement) {
    curve::Curve c;
    c.time.reserve(samples.size());
    c.force.reserve(samples.size());
    double last = 0;
    for (const auto& s : samples) {
        c.time.push_back(s.time);
        c.force.push_back(s.force);
        if (displacement) c.displacement.push_back(last = s.displacement.value_or(last));
    }
    return c;
}

} // namespace

PullRecording::PullRecording(Project& project, study::Pull pull)
    : m_project(project), m_pull(std::move(pull)), m_thread([this] { loop(); }) {}

PullRecording::~PullRecording() {
    {
        const std::lock_guard lock(m_mutex);
        m_stop = true;
    }
    m_wake.notify_one();
    m_thread.join();
}

void PullRecording::begin() {} // the first samples begin it

void PullRecording::append(std::span<const rig::Sample> samples) {
    const std::lock_guard lock(m_mutex);
    if (!m_error.isEmpty()) return;
    if (m_waiting.size() + samples.size() > mostWaiting) {
        m_error = QStringLiteral("The disk is too slow for what arrives.");
        return;
    }
    m_waiting.insert(m_waiting.end(), samples.begin(), samples.end());
}

void PullRecording::end(rig::Ending ending) {
    {
        const std::lock_guard lock(m_mutex);
        m_ended = true;
        m_ending = ending;
    }
    m_wake.notify_one();
}

QString PullRecording::error() const {
    const std::lock_guard lock(m_mutex);
    return m_error;
}

void PullRecording::failed(const QString& why) {
    const std::lock_guard lock(m_mutex);
    if (m_error.isEmpty()) m_error = why;
}

void PullRecording::loop() {
    std::vector<rig::Sample> part; // not committed yet; kept when a commit fails, for the next one
    for (bool last = false; !last;) {
        rig::Ending ending;
        {
            std::unique_lock lock(m_mutex);
            m_wake.wait_for(lock, std::chrono::milliseconds(commitEveryMs),
                            [this] { return m_stop || m_ended; });
            part.insert(part.end(), m_waiting.begin(), m_waiting.end());
            m_waiting.clear();
            last = m_ended || m_stop;
            ending = m_ending;
        }
        if (part.empty() && !last) continue;
        if (!m_curve && !part.empty()) m_hasDisplacement = part.front().displacement.has_value();
        if (commit(curveOf(part, m_hasDisplacement), last, ending)) part.clear();
    }
    m_finished = true;
}

bool PullRecording::commit(const curve::Curve& part, bool last, rig::Ending ending) {
    const bool first = m_curve == 0;
    Id curve = m_curve, pull = m_pullId;
    if (first && part.force.empty()) return true; // nothing has arrived at all
    const auto done = m_project.write(
        first  ? QStringLiteral("Recording began")
        : last ? QStringLiteral("Recorded")
               : QString(),
        [&](Writer& w) {
            if (first) {
                curve = w.beginCurve(!part.displacement.empty());
                auto p = m_pull;
                p.curve = curve;
                p.recording = study::Recording::running;
                pull = w.insert("pull", toRow(p));
            }
            if (!part.force.empty()) w.appendSamples(curve, m_sequence, part);
            if (last) {
                w.finishCurve(curve);
                w.update("pull", pull,
                         {{"recording", ending == rig::Ending::linkLost || ending == rig::Ending::cannotSave
                                            ? "interrupted"
                                            : ""}});
            }
        });
    if (!done) {
        failed(QString::fromStdString(done.error().message));
        return false;
    }
    if (first) {
        m_curve = curve;
        m_pullId = pull;
    }
    ++m_sequence;
    m_committed += part.force.size();
    return true;
}

} // namespace anvil::store
