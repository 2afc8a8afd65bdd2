#include "fields.h"
#include "recorded_curve.h"
#include <anvil/store/recording.h>
#include <anvil/store/texts.h>

#include <algorithm>
#include <chrono>

namespace anvil::store {
PullRecording::PullRecording(Project& project, domain::Pull pull, RecordedChannels channels)
    : m_project(project), m_pull(std::move(pull)), m_channels(std::move(channels)),
      m_streams(m_channels.streams()), m_tape(project.path(), {toRow(m_pull), m_channels}),
      m_waiting(m_streams.size()), m_thread([this] { loop(); }) {}

PullRecording::~PullRecording() { close(); }

void PullRecording::close() {
    if (!m_thread.joinable()) return;
    {
        const std::lock_guard lock(m_mutex);
        m_stop = true;
    }
    m_wake.notify_one();
    m_thread.join();
}

void PullRecording::begin() {} // the first samples begin it

bool PullRecording::room(std::size_t more) {
    if (m_dropped || m_waitingSamples + more > mostWaiting) { // behind a hole nothing is committed
        m_error = QStringLiteral("The disk is too slow for what arrives.");
        m_dropped = true;
        return false;
    }
    m_waitingSamples += more;
    return true;
}

void PullRecording::append(std::span<const rig::Sample> samples) {
    const std::lock_guard lock(m_mutex);
    m_tape.add(0, samples); // whatever the project does
    if (room(samples.size())) m_waiting[0].insert(m_waiting[0].end(), samples.begin(), samples.end());
}

void PullRecording::appendSide(std::size_t side, std::span<const rig::Sample> samples) {
    const std::lock_guard lock(m_mutex);
    auto& to = m_waiting.at(side + 1);
    m_tape.add(side + 1, samples);
    if (room(samples.size())) to.insert(to.end(), samples.begin(), samples.end());
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
    m_error = why;
}

void PullRecording::succeeded() {
    const std::lock_guard lock(m_mutex);
    if (!m_dropped) m_error.clear();
}

void PullRecording::loop() {
    Parts parts(m_streams.size()); // not committed yet; kept when a commit fails, for the next one
    using Clock = std::chrono::steady_clock;
    constexpr std::chrono::milliseconds every(commitEveryMs);
    auto next = Clock::now() + every;
    bool ended = false, stop = false;
    for (bool done = false; !done && !stop;) {
        {
            std::unique_lock lock(m_mutex);
            // What could not be saved is tried again, until somebody closes: there may be room by then.
            m_wake.wait_until(lock, next, [&] { return m_stop || (m_ended && !ended); });
            next = Clock::now() + every; // a slow commit is followed by the next one at once
            for (std::size_t i = 0; i < parts.size(); ++i) {
                parts[i].insert(parts[i].end(), m_waiting[i].begin(), m_waiting[i].end());
                m_waiting[i].clear();
            }
            ended = m_ended;
            stop = m_stop;
        }
        const bool last = ended || stop;
        const bool nothing = std::all_of(parts.begin(), parts.end(), [](const auto& p) { return p.empty(); });
        if (nothing && !last) continue;
        if (!m_streams[0].curve) {
            if (parts[0].empty() && !last) continue; // what comes beside waits for the main device
            if (!parts[0].empty()) m_hasTravel = parts[0].front().travel.has_value();
        }
        if (!commit(parts)) {
            m_finished = last; // it could not be, so far
            next = Clock::now() + std::chrono::milliseconds(againMs);
            continue;
        }
        std::size_t taken = 0;
        for (auto& p : parts) {
            taken += p.size();
            p.clear();
        }
        {
            const std::lock_guard lock(m_mutex);
            m_waitingSamples -= taken;
        }
        done = last && finish();
        if (last && !done) {
            m_finished = true;
            next = Clock::now() + std::chrono::milliseconds(againMs);
            continue;
        }
        succeeded();
    }
    m_finished = true;
}

/// Everything is in the project; what is left is to read it through once, beside whatever else is written.
bool PullRecording::finish() {
    if (!m_dropped) m_tape.done(); // else it holds what the project does not
    if (!m_pullId) {               // nothing has arrived at all
        m_whole = !m_dropped;
        return true;
    }
    // Ended with samples missing it would not be looked for on the tape when the project is opened.
    if (m_dropped) return true;
    const auto curves = m_project.summarize(m_streams[0].curve);
    if (!curves) {
        failed(QString::fromStdString(curves.error().message));
        return false;
    }
    rig::Ending ending{};
    {
        const std::lock_guard lock(m_mutex);
        ending = m_ending;
    }
    const bool cut = ending == rig::Ending::linkLost || ending == rig::Ending::cannotSave;
    const auto done = m_project.write(QStringLiteral("Recorded"), [&](Writer& w) {
        for (const auto& c : *curves)
            w.finishCurve(c);
        QJsonObject fields{{"recording", cut ? "interrupted" : ""}};
        if (ending == rig::Ending::stopped || ending == rig::Ending::held) {
            auto outcome = m_pull.outcome; // what it was stopped at is no strength, whoever judges it or not
            outcome.limit = domain::Limit::stopped;
            fields["outcome"] = outcomeToJson(outcome);
        }
        w.update("pull", m_pullId, fields);
    });
    if (!done) {
        failed(QString::fromStdString(done.error().message));
        return false;
    }
    m_whole = true;
    return true;
}

bool PullRecording::commit(const Parts& parts) {
    const bool first = m_streams[0].curve == 0;
    if (first && parts[0].empty()) return true; // nothing has arrived at all
    auto streams = m_streams;
    Id pull = m_pullId;
    const auto done = m_project.write(first ? QStringLiteral("Recording began") : QString(), [&](Writer& w) {
        for (std::size_t i = 0; i < parts.size(); ++i) {
            if (parts[i].empty()) continue;
            auto& stream = streams[i];
            const auto part = recordedCurve(parts[i], m_channels, i, m_hasTravel, stream.travel);
            if (!stream.curve) {
                stream.curve = w.beginCurve(part, i == 0 ? 0 : streams[0].curve);
                m_tape.begins(i, stream.curve);
            }
            w.appendSamples(stream.curve, stream.sequence++, part);
            stream.committed += parts[i].size();
        }
        if (first) {
            auto p = m_pull;
            p.curve = streams[0].curve;
            p.recording = domain::Recording::running;
            pull = w.insert("pull", toRow(p));
        }
    });
    if (!done) {
        failed(QString::fromStdString(done.error().message));
        return false;
    }
    m_streams = std::move(streams);
    m_pullId = pull;
    std::vector<std::size_t> held;
    held.reserve(m_streams.size());
    for (const auto& stream : m_streams)
        held.push_back(stream.committed);
    m_tape.committed(held);
    m_committed = held[0];
    return true;
}

} // namespace anvil::store
