// What is being recorded, as it arrives, in files beside the project. A commit waits for the disk, and may
// wait long: for a slow card, or behind the end of the pull before. The tape waits for nothing, so a program
// that dies meanwhile leaves there what the project does not hold yet. Layout: docs/file-format.md.
#pragma once

#include <QJsonObject>
#include <QString>
#include <QStringList>
#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <array>
#include <condition_variable>
#include <mutex>
#include <span>
#include <string>
#include <thread>
#include <vector>

namespace anvil::store {

/// What is recorded beside force and travel: the main device's further channels, and those of each device
/// read beside it.
struct RecordedChannels {
    std::vector<rig::ChannelName> others;
    std::vector<std::vector<rig::ChannelName>> sides;
    quantity::Dimension load = quantity::Dimension::force, travel = quantity::Dimension::length;

    /// Further channels of the main device (stream 0) or of a device beside it (from 1).
    const std::vector<rig::ChannelName>& names(std::size_t stream) const;
    /// The main device and those beside it.
    std::size_t streams() const { return 1 + sides.size(); }
};

/// What a recording is of: enough to make the pull when the project never came to hear of it.
struct TapeHeader {
    QJsonObject pull; ///< its row
    RecordedChannels channels;
    std::vector<domain::Id> curves{}; ///< of each stream, once it is being committed; 0 before
};

/// Takes down the samples of one recording. Its two sides are used in turn: one is wiped once the project
/// holds all that is on it, so that a long recording needs little room.
class Tape {
public:
    /// `project`: path of the project file; the sides lie beside it. Nothing is made before the first sample.
    /// `sideBytes`: how long a side gets before the other one is wiped and used.
    Tape(const QString& project, TapeHeader header, std::size_t sideBytes = 4 << 20);
    /// Takes down what has come in. The sides stay, unless `done` was called.
    ~Tape();
    Tape(const Tape&) = delete;
    Tape& operator=(const Tape&) = delete;

    /// Never waits for the disk: a thread of the tape's own writes, at most `gatherMs` later.
    void add(std::size_t stream, std::span<const rig::Sample> samples);
    /// To be called before the first samples of a stream are committed as part of this curve.
    void begins(std::size_t stream, domain::Id curve);
    /// How many samples of each stream the project holds by now.
    void committed(const std::vector<std::size_t>& samples);
    /// The project holds everything: the tape is taken away.
    void done();
    /// Why nothing can be taken down at the moment; empty: it can. It is tried again all the time.
    QString trouble() const;
    /// Everything that came in and is not in the project stands on it, or waits for it no longer than
    /// `gatherMs`.
    bool whole() const;

    static constexpr int gatherMs = 10;
    /// What may wait to be written where a disk takes nothing; what comes then is missing on the tape.
    static constexpr std::size_t mostWaiting = 64 << 20;
    static constexpr int againMs = 200; ///< until what could not be written is tried again

private:
    struct Side {
        QString path;
        int file = -1;
        std::size_t bytes = 0;
        std::vector<std::size_t>
            until; ///< of each stream, the samples taken down when it was last written to
    };
    void loop();
    bool write(const std::string& records, const std::vector<std::size_t>& until);
    bool put(Side& side, const std::string& bytes);
    bool start(Side& side);
    void end(bool remove);
    std::string header();

    const QString m_project;
    const std::size_t m_sideBytes;
    // What is handed over by `add`.
    mutable std::mutex m_mutex;
    std::condition_variable m_wake;
    std::string m_waiting;
    std::vector<std::size_t> m_added;
    bool m_stop = false;
    std::vector<std::size_t> m_inProject;    ///< of each stream, as `committed` said last
    std::vector<std::size_t> m_missingUntil; ///< of each stream, what had come when something was not taken
    QString m_trouble;
    // The files, and what is known of the project.
    mutable std::mutex m_fileMutex;
    TapeHeader m_header;
    int m_headers = 0;
    std::array<Side, 2> m_sides;
    std::size_t m_current = 0;
    std::vector<std::size_t> m_committed;
    bool m_ended = false, m_restate = false; ///< the header has to be written once more
    std::thread m_thread;
};

/// Samples on a tape that follow one another.
struct Stretch {
    std::size_t first = 0; ///< samples of the stream before these
    std::vector<rig::Sample> samples;
};

/// What was found on a tape, by stream, in order and each sample once.
struct TapeContent {
    TapeHeader header;
    std::vector<std::vector<Stretch>> streams;
};

/// The tapes beside a project, each as its sides.
std::vector<QStringList> tapesOf(const QString& project);

/// Reads the sides of a tape up to where each was torn off or is damaged. Error: not a tape, or unreadable.
Expected<TapeContent> readTape(const QStringList& sides);

} // namespace anvil::store
