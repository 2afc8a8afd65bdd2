#include <anvil/store/recording.h>

#include <algorithm>
#include <chrono>

namespace anvil::store {
namespace {

/// A sample without a displacement in a curve that has them keeps the last one. A stream beside the main one
/// has no force.
curve::Curve curveOf(std::span<const rig::Sample> samples, bool main, bool displacement,
                     const std::vector<rig::ChannelName>& others) {
    curve::Curve c;
    c.time.reserve(samples.size());
    for (const auto& o : others) {
        c.others.push_back({o.name, o.unit, {}});
        c.others.back().values.reserve(samples.size());
    }
    double last = 0;
    for (const auto& s : samples) {
        c.time.push_back(s.time);
        if (main) c.force.push_back(s.force);
        if (main && displacement) c.displacement.push_back(last = s.displacement.value_or(last));
        for (std::size_t i = 0; i < others.size(); ++i)
            c.others[i].values.push_back(s.others[i]);
    }
    return c;
}

} // namespace

PullRecording::PullRecording(Project& project, study::Pull pull, RecordedChannels channels)
    : m_project(project), m_pull(std::move(pull)), m_channels(std::move(channels)),
      m_streams(1 + m_channels.sides.size()), m_waiting(m_streams.size()), m_thread([this] { loop(); }) {}

PullRecording::~PullRecording() {
    {
        const std::lock_guard lock(m_mutex);
        m_stop = true;
    }
    m_wake.notify_one();
    m_thread.join();
}

void PullRecording::begin() {} // the first samples begin it

bool PullRecording::room(std::size_t more) {
    if (!m_error.isEmpty()) return false;
    if (m_waitingSamples + more > mostWaiting) {
        m_error = QStringLiteral("The disk is too slow for what arrives.");
        return false;
    }
    m_waitingSamples += more;
    return true;
}

void PullRecording::append(std::span<const rig::Sample> samples) {
    const std::lock_guard lock(m_mutex);
    if (room(samples.size())) m_waiting[0].insert(m_waiting[0].end(), samples.begin(), samples.end());
}

void PullRecording::appendSide(std::size_t side, std::span<const rig::Sample> samples) {
    const std::lock_guard lock(m_mutex);
    auto& to = m_waiting.at(side + 1);
    if (room(samples.size())) to.insert(to.end(), samples.begin(), samples.end());
}

const std::vector<rig::ChannelName>& PullRecording::names(std::size_t stream) const {
    return stream == 0 ? m_channels.others : m_channels.sides[stream - 1];
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
    Parts parts(m_streams.size()); // not committed yet; kept when a commit fails, for the next one
    for (bool last = false; !last;) {
        rig::Ending ending;
        {
            std::unique_lock lock(m_mutex);
            m_wake.wait_for(lock, std::chrono::milliseconds(commitEveryMs),
                            [this] { return m_stop || m_ended; });
            for (std::size_t i = 0; i < parts.size(); ++i) {
                parts[i].insert(parts[i].end(), m_waiting[i].begin(), m_waiting[i].end());
                m_waiting[i].clear();
            }
            m_waitingSamples = 0;
            last = m_ended || m_stop;
            ending = m_ending;
        }
        const bool nothing = std::all_of(parts.begin(), parts.end(), [](const auto& p) { return p.empty(); });
        if (nothing && !last) continue;
        if (!m_streams[0].curve) {
            if (parts[0].empty() && !last) continue; // what comes beside waits for the main device
            if (!parts[0].empty()) m_hasDisplacement = parts[0].front().displacement.has_value();
        }
        if (commit(parts, last, ending))
            for (auto& p : parts)
                p.clear();
    }
    m_finished = true;
}

bool PullRecording::commit(const Parts& parts, bool last, rig::Ending ending) {
    const bool first = m_streams[0].curve == 0;
    if (first && parts[0].empty()) return true; // nothing has arrived at all
    auto streams = m_streams;
    Id pull = m_pullId;
    const auto done = m_project.write(
        first  ? QStringLiteral("Recording began")
        : last ? QStringLiteral("Recorded")
               : QString(),
        [&](Writer& w) {
            for (std::size_t i = 0; i < parts.size(); ++i) {
                if (parts[i].empty()) continue;
                auto part = curveOf(parts[i], i == 0, m_hasDisplacement, names(i));
                part.load = m_channels.load;
                part.travel = m_channels.travel;
                auto& stream = streams[i];
                if (!stream.curve) stream.curve = w.beginCurve(part, i == 0 ? 0 : streams[0].curve);
                w.appendSamples(stream.curve, stream.sequence++, part);
            }
            if (first) {
                auto p = m_pull;
                p.curve = streams[0].curve;
                p.recording = study::Recording::running;
                pull = w.insert("pull", toRow(p));
            }
            if (last) {
                w.finishCurve(streams[0].curve);
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
    m_streams = std::move(streams);
    m_pullId = pull;
    m_committed += parts[0].size();
    return true;
}

} // namespace anvil::store
