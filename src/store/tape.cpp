// Writing a tape.
#include "tape_records.h"
#include <anvil/store/tape.h>

#include <QFile>
#include <QFileInfo>
#include <QRandomGenerator>
#include <cerrno>
#include <chrono>
#include <cstring>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace anvil::store {

const std::vector<rig::ChannelName>& RecordedChannels::names(std::size_t stream) const {
    return stream == 0 ? others : sides.at(stream - 1);
}

Tape::Tape(const QString& project, TapeHeader header, std::size_t sideBytes)
    : m_project(project), m_sideBytes(sideBytes), m_added(header.channels.streams()),
      m_header(std::move(header)), m_committed(m_added.size()) {
    m_header.curves.resize(m_added.size());
    const auto name =
        project + tape::suffix +
        QStringLiteral("%1").arg(QRandomGenerator::system()->generate64(), 16, 16, QLatin1Char('0'));
    for (std::size_t i = 0; i < m_sides.size(); ++i) {
        m_sides[i].path = name + QLatin1Char(i == 0 ? 'a' : 'b');
        m_sides[i].until.resize(m_added.size());
    }
    m_thread = std::thread([this] { loop(); });
}

Tape::~Tape() {
    {
        const std::lock_guard lock(m_mutex);
        m_stop = true;
    }
    m_wake.notify_one();
    m_thread.join();
    const std::lock_guard lock(m_fileMutex);
    end(false);
}

void Tape::add(std::size_t stream, std::span<const rig::Sample> samples) {
    if (samples.empty()) return;
    const std::lock_guard lock(m_mutex);
    if (m_waiting.size() > mostWaiting) { // the disk takes nothing: there is a hole from here on
        m_added[stream] += samples.size();
        m_missingUntil = m_added;
        return;
    }
    const auto others = m_header.channels.names(stream).size(); // the channels never change
    tape::addSamples(m_waiting, stream, m_added[stream], others, samples);
    m_added[stream] += samples.size();
    m_wake.notify_one();
}

void Tape::loop() {
    std::string records;
    for (bool stop = false; !stop;) {
        std::vector<std::size_t> until;
        {
            std::unique_lock lock(m_mutex);
            m_wake.wait(lock, [this] { return m_stop || !m_waiting.empty(); });
            stop = m_stop;
            records.clear();
            records.swap(m_waiting);
            until = m_added;
        }
        const bool ok = records.empty() || write(records, until);
        const auto why = ok ? QString() : QString::fromLocal8Bit(std::strerror(errno));
        std::unique_lock lock(m_mutex);
        m_trouble = why;
        if (!ok) { // they stay in front of what has come since
            records += m_waiting;
            m_waiting = std::move(records);
        }
        m_wake.wait_for(lock, std::chrono::milliseconds(ok ? gatherMs : againMs), [this] { return m_stop; });
    }
}

bool Tape::write(const std::string& records, const std::vector<std::size_t>& until) {
    const std::lock_guard lock(m_fileMutex);
    if (m_ended) return true;
    auto* side = &m_sides[m_current];
    auto& other = m_sides[1 - m_current];
    const auto held = [this](const Side& s) {
        for (std::size_t i = 0; i < s.until.size(); ++i)
            if (s.until[i] > m_committed[i]) return false;
        return true;
    };
    bool ok = true;
    if (side->file < 0) {
        ok = start(*side);
    } else if (side->bytes > m_sideBytes && held(other)) {
        m_current = 1 - m_current;
        side = &other;
        ok = start(*side);
    }
    if (ok && m_restate) m_restate = !(ok = put(*side, header()));
    if (!ok || !put(*side, records)) return false;
    side->until = until;
    return true;
}

void Tape::begins(std::size_t stream, domain::Id curve) {
    const std::lock_guard lock(m_fileMutex);
    m_header.curves[stream] = curve;
    auto& side = m_sides[m_current];
    if (!m_ended && side.file >= 0 && !put(side, header())) m_restate = true;
}

void Tape::committed(const std::vector<std::size_t>& samples) {
    {
        const std::lock_guard lock(m_mutex);
        m_inProject = samples;
    }
    const std::lock_guard lock(m_fileMutex);
    m_committed = samples;
}

QString Tape::trouble() const {
    const std::lock_guard lock(m_mutex);
    return m_trouble;
}

bool Tape::whole() const {
    const std::lock_guard lock(m_mutex);
    if (!m_trouble.isEmpty()) return false;
    for (std::size_t i = 0; i < m_missingUntil.size(); ++i) // never behind the files: whoever listens asks
        if (i >= m_inProject.size() || m_missingUntil[i] > m_inProject[i]) return false;
    return true;
}

void Tape::done() {
    const std::lock_guard lock(m_fileMutex);
    end(true);
}

std::string Tape::header() {
    std::string out;
    tape::addHeader(out, m_header, ++m_headers);
    return out;
}

/// Wipes a side, or makes it, and begins it with the header.
bool Tape::start(Side& side) {
    if (side.file < 0)
        side.file = ::open(QFile::encodeName(side.path).constData(),
                           O_WRONLY | O_CREAT | O_EXCL | O_APPEND | O_CLOEXEC, 0600);
    if (side.file >= 0) { // who may read the project may read what is recorded for it, and nobody else
        struct stat info {};
        if (::stat(QFile::encodeName(m_project).constData(), &info) == 0)
            (void)::fchmod(side.file, info.st_mode & 0666);
    }
    if (side.file < 0 || ::ftruncate(side.file, 0) != 0) return false;
    side.bytes = 0;
    return put(side, header());
}

bool Tape::put(Side& side, const std::string& bytes) {
    for (std::size_t done = 0; done < bytes.size();) {
        const auto n = ::write(side.file, bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) { // half a record would hide all behind it
            const int why = errno;
            (void)!::ftruncate(side.file, static_cast<off_t>(side.bytes));
            errno = why;
            return false;
        }
        done += static_cast<std::size_t>(n);
    }
    side.bytes += bytes.size();
    return true;
}

void Tape::end(bool remove) {
    m_ended = true;
    for (auto& side : m_sides) {
        if (side.file < 0) continue;
        ::close(side.file);
        side.file = -1;
        if (remove) QFile::remove(side.path);
    }
}

} // namespace anvil::store
