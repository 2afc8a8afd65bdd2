#include <anvil/rig/recorder.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <span>

namespace anvil::rig {
namespace {

constexpr double window = 1.0;             // s looked at for levels and rates
constexpr std::size_t mostRecent = 400000; // of any rate: 2 s at 200 000 samples a second

/// Where the last second begins.
std::size_t lastSecond(const std::deque<Sample>& recent) {
    if (recent.empty()) return 0;
    const double from = recent.back().time - window;
    const auto at = std::lower_bound(recent.begin(), recent.end(), from,
                                     [](const Sample& s, double t) { return s.time < t; });
    return static_cast<std::size_t>(at - recent.begin());
}

/// Least-squares slope of a value against time over the last second.
template <class Value> std::optional<double> slope(const std::deque<Sample>& recent, Value value) {
    const auto from = lastSecond(recent);
    const auto n = static_cast<double>(recent.size() - from);
    if (n < 3 || recent.back().time - recent[from].time < 0.5 * window) return std::nullopt;
    double mt = 0, mv = 0, tt = 0, tv = 0;
    for (std::size_t i = from; i < recent.size(); ++i) {
        const auto v = value(recent[i]);
        if (!v) return std::nullopt;
        mt += recent[i].time / n;
        mv += *v / n;
    }
    for (std::size_t i = from; i < recent.size(); ++i) {
        const double dt = recent[i].time - mt;
        tt += dt * dt;
        tv += dt * (*value(recent[i]) - mv);
    }
    return tt > 0 ? std::optional(tv / tt) : std::nullopt;
}

double medianOf(std::span<double> values) {
    if (values.empty()) return 0;
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

/// A single sample far above both its neighbours: the bench's electricity, no load.
bool standsOut(double before, double at, double after, double noise) {
    const double beside = std::max(before, after);
    return at - beside > std::max(8 * noise, 0.5 * std::abs(beside));
}

} // namespace

const char* sentence(Ending ending) {
    static constexpr const char* sentences[] = {"The load fell away: it broke.", "Stopped by hand.",
                                                "The load stood still as long as was wanted.",
                                                "The device went silent; what had arrived is kept.",
                                                "The file could not take any more; what was saved is kept."};
    static_assert(std::size(sentences) == static_cast<std::size_t>(Ending::cannotSave) + 1);
    return sentences[static_cast<int>(ending)];
}

void Recorder::arm(const RecorderSettings& settings) {
    m_settings = settings;
    m_ending.reset();
    m_peak = m_firmPeak = 0;
    m_recorded = 0;
    m_above = m_near = 0;
    m_paused = false;
    m_belowSince = m_stillSince = -1;
    learn();
    m_threshold = settings.startForce > 0
                      ? settings.startForce
                      : std::max({8 * m_noise, 0.001 * settings.limit.value_or(0), settings.leastStart});
    m_state = RecorderState::armed;
}

/// Unloaded level and noise of the last second, by medians: a spike in it must not keep a pull from being
/// seen.
void Recorder::learn() {
    std::vector<double> levels, steps;
    for (auto i = lastSecond(m_recent); i < m_recent.size(); ++i) {
        levels.push_back(m_recent[i].load);
        if (levels.size() > 1) steps.push_back(std::abs(levels.back() - levels[levels.size() - 2]));
    }
    m_base = medianOf(levels);
    // Of normal noise the median step between neighbours is 0.6745 · √2 s.
    m_noise = medianOf(steps) / (0.6745 * std::sqrt(2.0));
    if (m_noise > 0 || steps.empty()) return;
    // Most steps of a coarse resolution are none: the lower nine tenths of them, s = rms(Δ)/√2.
    std::sort(steps.begin(), steps.end());
    steps.resize(steps.size() - steps.size() / 10);
    double squares = 0;
    for (const double d : steps)
        squares += d * d;
    m_noise = std::sqrt(squares / (2 * static_cast<double>(steps.size())));
}

void Recorder::begin() {
    m_state = RecorderState::loading;
    m_sink.begin();
    const double from = m_last.time - m_settings.preTrigger;
    std::vector<Sample> before;
    for (const auto& s : m_recent)
        if (s.time >= from) before.push_back(s);
    m_sink.append(before);
    m_recorded = before.size();
    for (std::size_t i = 1; i + 1 < before.size(); ++i)
        seePeak(before[i - 1].load, before[i].load, before[i + 1].load);
    m_firmPeak = std::max(0.0, firmLoad());
}

void Recorder::seePeak(double before, double at, double after) {
    if (!standsOut(before, at, after, m_noise)) m_peak = std::max(m_peak, at - m_base);
}

/// The median of the last five samples: what one or two spikes among them cannot move.
double Recorder::firmLoad() const {
    std::array<double, 5> few{};
    const auto n = std::min(few.size(), m_recent.size());
    for (std::size_t i = 0; i < n; ++i)
        few[i] = m_recent[m_recent.size() - n + i].load;
    return medianOf(std::span(few).first(n)) - m_base;
}

void Recorder::start() {
    if (m_state == RecorderState::armed) begin();
}

void Recorder::finish(Ending ending) {
    m_state = RecorderState::done;
    m_ending = ending;
    m_sink.end(ending);
}

void Recorder::stop() {
    if (m_state == RecorderState::loading)
        finish(Ending::stopped);
    else if (m_state == RecorderState::armed)
        m_state = RecorderState::idle;
}

void Recorder::linkLost() {
    if (m_state == RecorderState::loading) finish(Ending::linkLost);
    if (m_state == RecorderState::armed) m_state = RecorderState::idle;
    m_recent.clear();
}

void Recorder::cannotSave() {
    if (m_state == RecorderState::loading) finish(Ending::cannotSave);
}

void Recorder::reset() {
    stop();
    m_state = RecorderState::idle;
    m_ending.reset();
    m_peak = m_firmPeak = 0;
    m_recorded = 0;
}

void Recorder::zeroed() {
    reset();
    m_recent.clear();
}

void Recorder::feed(const Sample& sample) {
    if (!std::isfinite(sample.load) || !std::isfinite(sample.time)) return;
    m_last = sample;
    m_recent.push_back(sample);
    const double keep = std::max(window, m_settings.preTrigger);
    while (m_recent.size() > mostRecent || m_recent.front().time < sample.time - keep)
        m_recent.pop_front();
    const double load = sample.load - m_base;
    if (m_state == RecorderState::armed) {
        m_above = load > m_threshold ? m_above + 1 : 0;
        if (m_above >= 3) begin(); // a single spike starts nothing
        return;
    }
    if (m_state != RecorderState::loading) return;
    m_sink.append(std::span(&sample, 1));
    ++m_recorded;
    if (const auto n = m_recent.size(); n >= 3)
        seePeak(m_recent[n - 3].load, m_recent[n - 2].load, sample.load);
    m_near = nearLimit() ? std::min(m_near + 1, 3) : 0;
    m_nearTimes += m_near == 2;
    // What ends a pull is judged by what a spike cannot move, else one in mid-rise would pass for the peak.
    const double firm = firmLoad();
    m_firmPeak = std::max(m_firmPeak, firm);
    if (m_firmPeak < 2 * m_threshold) return;
    if (firm < m_settings.breakShare * m_firmPeak) {
        if (m_belowSince < 0) m_belowSince = sample.time;
        if (sample.time - m_belowSince >= m_settings.breakSeconds) return finish(Ending::broke);
    } else {
        m_belowSince = -1;
    }
    if (m_settings.holdSeconds > 0 && !m_paused) {
        if (m_stillSince < 0 || std::abs(firm - m_stillLevel) > 0.01 * m_firmPeak) {
            m_stillSince = sample.time;
            m_stillLevel = firm;
        } else if (sample.time - m_stillSince >= m_settings.holdSeconds) {
            finish(Ending::held);
        }
    }
}

std::optional<double> Recorder::loadRate() const {
    return slope(m_recent, [](const Sample& s) { return std::optional(s.load); });
}

std::optional<double> Recorder::speed() const {
    return slope(m_recent, [](const Sample& s) { return s.travel; });
}

bool Recorder::nearLimit() const {
    return m_settings.limit && m_last.load >= m_settings.warnShare * *m_settings.limit;
}

double Recorder::level() const {
    const auto from = lastSecond(m_recent);
    double sum = 0;
    for (std::size_t i = from; i < m_recent.size(); ++i)
        sum += m_recent[i].load;
    return m_recent.empty() ? 0 : sum / static_cast<double>(m_recent.size() - from);
}

double Recorder::noise() const {
    // Differences of neighbours, so that a slow drift is not taken for noise: s = rms(Δ)/√2.
    const auto from = lastSecond(m_recent);
    double squares = 0;
    std::size_t n = 0;
    for (std::size_t i = from + 1; i < m_recent.size(); ++i, ++n) {
        const double d = m_recent[i].load - m_recent[i - 1].load;
        squares += d * d;
    }
    return n ? std::sqrt(squares / (2 * static_cast<double>(n))) : 0;
}

bool Recorder::offZero() const {
    return m_state == RecorderState::idle && m_recent.size() >= 5 &&
           std::abs(level() - m_unloaded) > 3 * std::max(noise(), 1e-9);
}

std::string skewText(double skew) {
    return std::to_string(std::lround(std::abs(skew) * 1e6)) + " parts in a million " +
           (skew < 0 ? "slow" : "fast");
}

double Timeline::stamp(std::optional<double> device, double host) {
    constexpr double leap = 10, settle = 5, steer = 1e-3; // s, s, s per s
    double t = host;
    if (device) {
        if (m_anchored && (*device < m_lastDevice || *device - m_lastDevice > leap + (host - m_lastHost))) {
            ++m_jumps;
            m_anchored = false;
        }
        if (!m_anchored) {
            m_offset = std::max(host, m_last) - *device;
            m_firstDevice = *device;
            m_firstHost = host;
            m_lastDevice = *device;
            m_late = m_usual = 0;
            m_anchored = true;
        }
        t = *device + m_offset;
        // Lines come late by a little that varies; only what that grows by is the clocks running apart.
        const double passed = host - m_firstHost, step = std::max(0.0, *device - m_lastDevice);
        m_late += (host - t - m_late) * std::min(1.0, step / settle);
        if (passed < 2 * settle)
            m_usual = m_late;
        else
            m_offset += std::clamp((m_late - m_usual) * step / settle, -steer * step, steer * step);
        m_lastDevice = *device;
    } else if (m_rate > 0 && m_started) {
        const double next = m_last + 1 / m_rate;
        t = std::abs(host - next) > 1 ? host
                                      : next; // a second apart: samples were lost, or the rate is not so
    }
    m_lastHost = host;
    t = m_started ? std::max(t, m_last) : t; // never back
    m_last = t;
    m_started = true;
    return t;
}

std::optional<double> Timeline::skew() const {
    const double hosts = m_lastHost - m_firstHost;
    if (!m_anchored || hosts < 10) return std::nullopt;
    return (m_lastDevice - m_firstDevice) / hosts - 1;
}

} // namespace anvil::rig
