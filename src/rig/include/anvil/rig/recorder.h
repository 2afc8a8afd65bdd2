// Recording one pull: armed, loading, broken or stopped. Free of clocks, threads and files: it is fed samples
// and hands on those that belong to the pull.
#pragma once

#include <anvil/rig/lines.h>
#include <cstddef>
#include <cstdint>
#include <deque>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace anvil::rig {

/// One sample at the specimen, SI.
struct Sample {
    double time = 0;                         ///< s, monotonic
    double load = 0;                         ///< N
    std::optional<double> travel;            ///< m
    bool inside = true;                      ///< within the calibrated range
    std::array<double, mostOthers> others{}; ///< further channels, SI, as many as the rig has
};

/// Why a recording ended.
enum class Ending {
    broke,     ///< the load fell away
    stopped,   ///< by hand
    held,      ///< the load stood still as long as was wanted
    linkLost,  ///< the device went silent or was unplugged
    cannotSave ///< the file could not take any more
};
const char* sentence(Ending ending);

/// Takes what is recorded. Calls come in the order begin, append …, end; none may block.
class SampleSink {
public:
    virtual ~SampleSink() = default;
    virtual void begin() = 0;
    virtual void append(std::span<const Sample> samples) = 0;
    virtual void end(Ending ending) = 0;
};

struct RecorderSettings {
    double leastStart = 1;     ///< N: no load below this starts a recording
    double startForce = 0;     ///< N above the unloaded level that starts a recording; 0: 8 × its noise,
                               ///< a thousandth of the limit, or the least, whichever is most
    double preTrigger = 2;     ///< s kept from before the start, so that there is a baseline
    double breakShare = 0.4;   ///< of the peak: below it the piece counts as broken …
    double breakSeconds = 0.3; ///< … when it stays there so long
    double holdSeconds = 0; ///< a load that moves less than 1 % of the peak so long ends the pull; 0: never
    std::optional<double> limit; ///< N
    double warnShare = 0.9;      ///< of the limit
};

enum class RecorderState { idle, armed, loading, done };

/// The state machine. `feed` wants times that never step back.
class Recorder {
public:
    explicit Recorder(SampleSink& sink) : m_sink(sink) {}

    /// Waits for load. While armed the unloaded level and its noise are learnt.
    void arm(const RecorderSettings& settings);
    /// Begins at once, without waiting for load.
    void start();
    /// Ends by hand; from armed back to idle without anything recorded.
    void stop();
    /// A planned pause under load: a load that stands still is no reason to end meanwhile.
    void setPaused(bool on) {
        m_paused = on;
        m_stillSince = -1;
    }
    /// The device went silent: what was recorded is kept.
    void linkLost();
    /// The file could not take any more.
    void cannotSave();
    /// Ready for the next one.
    void reset();
    /// The zero has been moved: what was read before belongs to another one and is forgotten.
    void zeroed();
    void feed(const Sample& sample);

    RecorderState state() const { return m_state; }
    std::optional<Ending> ending() const { return m_ending; }
    double force() const { return m_last.load; }
    /// N, since loading began; a single sample that stands out above both its neighbours is none.
    double peak() const { return m_peak; }
    double time() const { return m_last.time; }
    std::size_t recorded() const { return m_recorded; } ///< samples handed on
    /// Slope over the last second, N/s and m/s; nothing before there is a second to look at.
    std::optional<double> loadRate() const;
    std::optional<double> speed() const;
    bool nearLimit() const;
    /// How often the load has come near the limit while loading, since the recorder was made; a single spike
    /// is no load. However short it was there, it is counted.
    std::uint64_t nearLimitTimes() const { return m_nearTimes; }
    /// The mean of the last second, and the noise about it, N.
    double level() const;
    double noise() const;
    /// Unloaded and off zero by more than three times the noise: wants zeroing.
    bool offZero() const;
    /// What an unloaded rig shows once it is zeroed, N: the levers' own weight.
    void setUnloaded(double level) { m_unloaded = level; }

private:
    void begin();
    void finish(Ending ending);
    void learn();
    void seePeak(double before, double at, double after);
    double firmLoad() const;
    SampleSink& m_sink;
    RecorderSettings m_settings;
    RecorderState m_state = RecorderState::idle;
    std::optional<Ending> m_ending;
    std::deque<Sample> m_recent; ///< the last seconds, for levels, rates and what came before the start
    Sample m_last;
    double m_base = 0, m_noise = 0, m_threshold = 0, m_peak = 0, m_unloaded = 0;
    double m_firmPeak = 0; ///< the greatest load that no spike has made
    double m_belowSince = -1, m_stillSince = -1, m_stillLevel = 0;
    bool m_paused = false;
    int m_above = 0, m_near = 0; ///< samples in a row above the start, near the limit
    std::uint64_t m_nearTimes = 0;
    std::size_t m_recorded = 0;
};

/// A clock's skew in words: "120 parts in a million fast".
std::string skewText(double skew);

/// Puts every device's samples on one clock that never steps back: the device's own differences where it has
/// a clock, anchored where it first spoke, and steered gently so that a clock that runs fast or slow stays
/// with this machine's; else the agreed rate; else arrival.
class Timeline {
public:
    explicit Timeline(double rate = 0) : m_rate(rate) {}
    /// `host`: s on this machine's monotonic clock at arrival.
    double stamp(std::optional<double> device, double host);
    /// How often the device's clock stepped back or leapt by more than ten seconds.
    int jumps() const { return m_jumps; }
    /// How much faster the device's clock runs than this machine's, as a share; nothing in the first ten
    /// seconds.
    std::optional<double> skew() const;
    /// After a gap: anchored anew.
    void restart() { m_anchored = false; }

private:
    double m_late =
        0; ///< s, mean of arrival less stamp: how late lines come, plus how far the clock has run off
    double m_usual = 0; ///< s, the same while the clock was fresh
    double m_rate = 0, m_offset = 0, m_last = 0, m_firstDevice = 0, m_firstHost = 0, m_lastDevice = 0,
           m_lastHost = 0;
    bool m_anchored = false, m_started = false;
    int m_jumps = 0;
};

} // namespace anvil::rig
