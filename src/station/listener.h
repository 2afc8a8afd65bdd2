// One device that is listened to: from bytes to samples on the bench's clock. On the listening thread only.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QStringList>
#include <anvil/link/device.h>
#include <anvil/rig/dialogue.h>
#include <anvil/rig/lines.h>
#include <anvil/rig/recorder.h>
#include <functional>
#include <mutex>
#include <optional>

namespace anvil::station {

/// Asks the device where it has to be asked, cuts what it says into samples and stamps them.
class Listener : public QObject {
public:
    /// Who is told of what.
    struct Ear {
        std::function<void(const rig::RawSample&, double time)> sample; ///< `time`: s on the bench's clock
        std::function<void()> arrived;                                  ///< after every piece of bytes
        std::function<void(bool connected, const QString& sentence)> link;
    };
    /// `forceNeeded`: false for a device beside the main one. The clock must outlive the listener.
    Listener(const link::Address& address, const rig::Layout& layout, bool answers, bool forceNeeded,
             const QElapsedTimer& clock, Ear ear);

    void open() { m_device.open(); }
    void close() { m_device.close(); }
    void send(const QByteArray& line) { m_device.send(line); }
    bool sendNow(const QByteArray& line) { return m_device.sendNow(line); }
    int handle() const { return m_device.handle(); }
    /// Called often: asks anew where an answer was lost.
    void tick();

    /// The first few raw lines that arrived and the last ones, oldest first. May be called from any thread.
    QStringList lines() const;
    /// Lines that held no sample.
    std::uint64_t noise() const { return m_noise + m_cutter.tooLong(); }
    int clockJumps() const { return m_timeline.jumps(); }
    std::optional<double> skew() const { return m_timeline.skew(); }
    /// Seconds since anything arrived; very many before the first.
    double silence() const { return now() - m_lastHeard; }

private:
    double now() const { return static_cast<double>(m_clock.nsecsElapsed()) * 1e-9; }
    void linkChanged(bool connected, const QString& sentence);
    void hear(const QByteArray& bytes);
    std::optional<rig::RawSample> sampleIn(std::string_view line);
    void ask();

    const QElapsedTimer& m_clock;
    Ear m_ear;
    std::optional<rig::RawSample> m_last; ///< for a line that says no more than overload
    link::Device m_device;
    Expected<rig::SampleMaker> m_maker;
    std::optional<rig::Dialogue> m_dialogue; ///< of a device that answers
    rig::Timeline m_timeline;
    rig::LineCutter m_cutter;
    std::uint64_t m_noise = 0;
    double m_lastHeard = -1e9;
    mutable std::mutex m_mutex;   ///< of m_lines
    QStringList m_lines, m_first; ///< the last ones, and the first of all
    std::uint64_t m_heard = 0;    ///< lines
};

} // namespace anvil::station
