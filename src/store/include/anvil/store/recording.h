// A pull that is being recorded: its samples are committed as they come, and taken down on a tape meanwhile,
// so that a program that dies loses less than a quarter of a second, however slow the disk is. A machine
// without power loses what the disk had not confirmed.
#pragma once

#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <anvil/store/project.h>
#include <anvil/store/tape.h>
#include <atomic>
#include <condition_variable>
#include <mutex>
#include <thread>

namespace anvil::store {

/// Takes samples from a recorder and commits them on a thread of its own. Nothing here ever waits for the
/// disk but that thread.
class PullRecording : public rig::SampleSink {
public:
    /// `pull`: specimen, set-up, operator, reading settings and the like; its curve and recording are filled
    /// in.
    PullRecording(Project& project, domain::Pull pull, RecordedChannels channels = {});
    ~PullRecording() override; ///< waits until everything is committed

    void begin() override;
    void append(std::span<const rig::Sample> samples) override;
    void end(rig::Ending ending) override;
    /// Samples of a device beside the main one: times and further channels; its force is not looked at.
    void appendSide(std::size_t side, std::span<const rig::Sample> samples);

    /// Ids once the first commit is through; 0 before.
    Id pull() const { return m_pullId; }
    std::size_t committed() const { return m_committed; }
    /// The end has been committed too, or could not be.
    bool finished() const { return m_finished; }
    /// Everything that was taken is in the project, with its end.
    bool whole() const { return m_whole; }
    /// Waits until everything is committed or cannot be; takes nothing more.
    void close();
    /// Why samples cannot be committed at the moment; empty: they can. It is tried again until it succeeds.
    QString error() const;
    /// What is not in the project stands on the tape beside it, which is brought in when it is opened.
    bool taped() const { return m_tape.whole(); }
    /// Why the tape takes nothing at the moment; empty: it does.
    QString tapeTrouble() const { return m_tape.trouble(); }
    /// Samples that neither project nor tape nor memory had room for.
    bool lost() const { return m_dropped; }

    /// From one commit to the next, unless one takes longer.
    static constexpr int commitEveryMs = 100;
    /// Samples that may wait in memory while the disk takes none; more are only on the tape.
    static constexpr std::size_t mostWaiting = 20'000'000;
    /// Until a commit that failed is tried again.
    static constexpr int againMs = 250;

private:
    void loop();
    using Parts = std::vector<std::vector<rig::Sample>>; ///< the main device's samples, then each side's
    bool commit(const Parts& parts);
    bool finish();
    bool room(std::size_t more); ///< false when too much waits
    void failed(const QString& why);
    void succeeded();
    Project& m_project;
    domain::Pull m_pull;
    RecordedChannels m_channels;
    struct Stream {
        Id curve = 0;
        int sequence = 0;
        std::size_t committed = 0;
        double travel = 0; ///< the last one
    };
    std::vector<Stream> m_streams; ///< the main device, then each beside it
    bool m_hasTravel = false;      ///< decided by the first sample
    Tape m_tape;
    mutable std::mutex m_mutex;
    std::condition_variable m_wake;
    Parts m_waiting;
    std::size_t m_waitingSamples = 0; ///< in memory: those that wait and those that could not be committed
    bool m_ended = false, m_stop = false;
    rig::Ending m_ending = rig::Ending::stopped;
    QString m_error;
    std::atomic<Id> m_pullId{0};
    std::atomic<std::size_t> m_committed{0};
    std::atomic<bool> m_finished{false}, m_whole{false}, m_dropped{false};
    std::thread m_thread;
};

} // namespace anvil::store
