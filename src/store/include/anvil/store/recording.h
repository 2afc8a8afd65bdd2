// A pull that is being recorded: its samples are committed as they come, so that a crash loses at most a
// quarter of a second.
#pragma once

#include <anvil/rig/recorder.h>
#include <anvil/store/project.h>
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
    PullRecording(Project& project, study::Pull pull);
    ~PullRecording() override; ///< waits until everything is committed

    void begin() override;
    void append(std::span<const rig::Sample> samples) override;
    void end(rig::Ending ending) override;

    /// Ids once the first commit is through; 0 before.
    Id pull() const { return m_pullId; }
    std::size_t committed() const { return m_committed; }
    /// The end has been committed too, or could not be.
    bool finished() const { return m_finished; }
    /// Why samples could not be committed; empty: they could. What was committed before is kept.
    QString error() const;

    /// The longest a sample waits before it is committed, without the commit itself.
    static constexpr int commitEveryMs = 100;
    /// Samples that may wait while the disk is slow; more are not taken, and `error` says so.
    static constexpr std::size_t mostWaiting = 20'000'000;

private:
    void loop();
    bool commit(const curve::Curve& part, bool last, rig::Ending ending);
    void failed(const QString& why);
    Project& m_project;
    study::Pull m_pull;
    Id m_curve = 0;
    int m_sequence = 0;
    bool m_hasDisplacement = false; ///< decided by the first sample
    mutable std::mutex m_mutex;
    std::condition_variable m_wake;
    std::vector<rig::Sample> m_waiting;
    bool m_ended = false, m_stop = false;
    rig::Ending m_ending = rig::Ending::stopped;
    QString m_error;
    std::atomic<Id> m_pullId{0};
    std::atomic<std::size_t> m_committed{0};
    std::atomic<bool> m_finished{false};
    std::thread m_thread;
};

} // namespace anvil::store
