// The live rig: listens on a thread of its own, records pulls, and tells the window what to show.
#pragma once

#include <QObject>
#include <QStringList>
#include <anvil/domain/model.h>
#include <anvil/rig/live_trace.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <memory>

class QThread;

namespace anvil::store {
class Project;
}

namespace anvil::station {

enum class LinkState { none, searching, connected };

/// A channel beside force and travel, at one instant.
struct LiveChannel {
    QString name, unit; ///< unit of `value`: the SI unit's symbol
    double value = 0;
    double raw = 0;                ///< as the device says it, smoothed; in the same unit
    std::optional<double> share{}; ///< of what the force channels beside the main one carry together
    bool inside = true;            ///< within its calibrated range
    bool fresh = false;            ///< something arrived within the last second
    bool overLimit = false;        ///< beyond what its sensor can show
    std::optional<double>
        skew{};     ///< by how much its clock runs fast, as a share; of a device beside the main one
    QString said{}; ///< about the link of that device
};

/// Everything the window shows of the rig, at one instant. SI.
struct Live {
    LinkState link = LinkState::none;
    QString said; ///< about the link
    rig::RecorderState recorder = rig::RecorderState::idle;
    std::uint64_t armings = 0; ///< how often it has been armed
    std::optional<rig::Ending> ending;
    double load = 0, peak = 0, time = 0;
    double level = 0, rawLevel = 0; ///< N, mean of the last second; and as the device says it, smoothed
    bool inside = true;             ///< within the calibrated range
    std::optional<double> travel, loadRate, speed;
    std::uint64_t nearLimitTimes = 0; ///< how often it has come there in a pull, however shortly
    bool nearLimit = false, offZero = false,
         fresh = false,       ///< a load arrived within the last second
        hears = false,        ///< something did, if only lines that say no load
        overload = false;     ///< the device said in this pull that it cannot show as much
    double perSecond = 0;     ///< samples a second that arrive
    std::size_t recorded = 0; ///< samples of the present pull
    std::uint64_t noise = 0;  ///< lines that were none of numbers
    int clockJumps = 0;
    std::optional<double> skew; ///< by how much the main device's clock runs fast, as a share
    std::vector<LiveChannel> channels;
    std::optional<double> calibratedTo; ///< N, where the calibration table of the load ends
    QStringList beyondTable;            ///< channels that read beyond theirs since the arming
    double zeroedAt = -1;               ///< s on the bench's clock; below 0: never
    domain::Id pull = 0;                ///< of the present recording, once its first samples are safe
    std::size_t committed = 0;          ///< samples that are safe
    bool saved = false;                 ///< the ended recording is in the project as a whole
    QString trouble;     ///< what keeps samples from being saved at the moment; it is tried again
    QString tapeTrouble; ///< why they cannot be taken down beside the project either
    bool taped = true;   ///< what is not in the project stands on the tape beside it
};

/// What went wrong on the wire between two looks, as sentences; empty: nothing.
QStringList troublesBetween(const Live& before, const Live& after);

/// Lives in the window's thread; the listening is done on another. Signals arrive in the window's thread.
class LiveBench : public QObject {
    Q_OBJECT
public:
    explicit LiveBench(QObject* parent = nullptr);
    ~LiveBench() override;

    /// Looks for a rig and listens to it from then on. Error: what is wrong with the set-up or its address.
    Expected<void> connectTo(const rig::Setup& setup, bool otherMachines = false);
    void disconnectRig();
    const rig::Setup& setup() const { return m_setup; }

    Live live() const;
    /// The present pull as drawn so far.
    std::vector<rig::LiveTrace::Stretch> trace() const;
    /// The last raw lines that arrived from the main device, oldest first; and from one beside it.
    QStringList lines() const;
    QStringList sideLines(std::size_t side) const;

    /// Takes what is shown now as nothing.
    void zero();
    /// Sends a line to the rig.
    void send(const QString& line);
    /// Waits for load and records into the project. `pull` names specimen, set-up, operator and the like.
    void arm(store::Project& project, const domain::Pull& pull, const rig::RecorderSettings& settings);
    void start(); ///< records from now on, load or not
    void stop();
    /// Sends the order that stops the rig before anything else and waits until it has left; the pull is
    /// stopped. For a window that closes and a machine that goes to sleep.
    void halt();
    /// A planned pause under load begins or ends; the recording goes on.
    void pause(bool on);
    /// Ready for the next piece; waits until the last one is safe.
    void reset();

signals:
    void changed(); ///< link or recorder state; not every sample

private:
    class Worker;
    rig::Setup m_setup;
    QThread* m_thread;
    Worker* m_worker;
};

} // namespace anvil::station
