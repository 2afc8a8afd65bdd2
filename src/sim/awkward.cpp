#include <anvil/sim/awkward.h>

#include <algorithm>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <numbers>
#include <vector>

namespace anvil::sim {
namespace {

constexpr const char* names[] = {"fast-break",
                                 "cycles",
                                 "cycles-against-time",
                                 "hold",
                                 "hold-against-time",
                                 "proof-load",
                                 "set-to-zero-again",
                                 "jump-under-load",
                                 "hum",
                                 "clipped",
                                 "clipped-under-noise",
                                 "coarse-scale",
                                 "whole-seconds",
                                 "starts-loaded",
                                 "plateau",
                                 "soft-toe"};
static_assert(std::size(names) == static_cast<std::size_t>(Trouble::softToe) + 1);

/// A piece on a rig, moved step by step; what it carries goes into the curve.
class AwkwardBench {
public:
    AwkwardBench(Trouble trouble, std::uint64_t seed)
        : m_trouble(trouble), m_random(seed * 31 + static_cast<std::uint64_t>(trouble)) {
        m_strength = m_random.uniform(800, 6000);
        m_travel = m_random.uniform(0.003, 0.008);
        m_rate = m_random.uniform(40, 150);
        m_seconds = m_random.uniform(6, 20); // from first load to break
        m_noise = m_strength * m_random.uniform(0, 0.0015);
        m_toe = m_random.uniform(0.02, 0.05);
        if (is(Trouble::softToe)) m_toe = m_random.uniform(0.1, 0.3);
        if (is(Trouble::hum)) m_rate = 20000, m_seconds = m_random.uniform(0.8, 2);
        if (is(Trouble::wholeSeconds) || is(Trouble::coarseScale)) m_rate = 10, m_seconds *= 2;
        if (is(Trouble::fastBreak)) {
            m_seconds = std::floor(m_random.uniform(4, 13)) / m_rate;
            m_toe = 0;
        }
    }

    AwkwardRun run() {
        m_run.stiffness = m_strength / (m_travel * (1 - m_toe));
        m_run.noise = m_noise;
        const double quiet = m_random.uniform(1, 3);
        level(std::max(quiet, 40 / m_rate));
        if (is(Trouble::setToZeroAgain)) {
            m_zero = 0;
            level(std::max(quiet, 40 / m_rate));
        }
        cycles();
        hold();
        finish();
        logged();
        return std::move(m_run);
    }

private:
    bool is(Trouble trouble) const { return m_trouble == trouble; }
    bool isAny(Trouble a, Trouble b) const { return is(a) || is(b); }

    /// Noise-free force at a share of the travel: beds in along a parabola, then straight to the strength.
    double elastic(double share) const {
        const double along = 1 / (1 - m_toe); // slope of the straight part, strengths a travel
        if (share <= 0) return 0;
        if (share < 2 * m_toe) return m_strength * along * share * share / (4 * m_toe);
        return m_strength * along * (share - m_toe);
    }

    void emit(double force) {
        auto& c = m_run.curve;
        const double t = static_cast<double>(c.time.size()) / m_rate;
        if (m_trouble == Trouble::jumpUnderLoad && m_zero != 0 && m_share > m_jumpAt) m_zero = 0;
        c.time.push_back(t);
        c.travel.push_back(m_share * m_travel);
        c.load.push_back(force + m_zero);
        m_run.peak = std::max(m_run.peak, force);
    }
    void level(double seconds) {
        for (int i = 0; i < seconds * m_rate; ++i)
            emit(m_share > 0 ? elastic(m_share) : 0);
    }
    void moveTo(double share, double pace = 1) {
        const double step = pace / (m_seconds * m_rate), way = share - m_share;
        const auto n = static_cast<int>(std::ceil(std::abs(way) / step - 1e-9));
        const double from = m_share;
        for (int i = 1; i <= n; ++i) {
            m_share = from + way * i / n;
            emit(elastic(m_share));
        }
    }

    void cycles() {
        int count =
            isAny(Trouble::cycles, Trouble::cyclesAgainstTime) ? static_cast<int>(m_random.uniform(2, 5)) : 0;
        for (; count > 0; --count) {
            moveTo(m_random.uniform(0.4, 0.8));
            moveTo(m_random.uniform(0.01, 0.1), m_random.uniform(0.7, 1.5));
            level(m_random.uniform(0.2, 2));
        }
    }

    void hold() {
        if (!isAny(Trouble::hold, Trouble::holdAgainstTime)) return;
        moveTo(m_random.uniform(0.4, 0.85));
        const double held = elastic(m_share), lost = m_random.uniform(0.01, 0.02),
                     seconds = m_random.uniform(8, 40);
        double force = held;
        for (int i = 0; i < seconds * m_rate; ++i)
            emit(force = held * (1 - lost * std::log1p(i / m_rate)));
        const double short_ = held - force; // goes on up, the relaxed share missing
        const double from = m_share, step = 1 / (m_seconds * m_rate);
        while (m_share + step < 1) {
            m_share += step;
            emit(elastic(m_share) - short_ * (1 - (m_share - from) / (1 - from)));
        }
    }

    void finish() {
        if (is(Trouble::proofLoad)) {
            moveTo(m_random.uniform(0.5, 1));
            level(m_random.uniform(0, 2));
            moveTo(0.01, m_random.uniform(0.7, 2));
            level(1);
            m_run.breaks = false;
            return;
        }
        if (is(Trouble::coarseScale)) { // a dome
            while (m_share < 1.6) {
                m_share += 1 / (m_seconds * m_rate);
                const double u = 1 - std::min(m_share, 1.6);
                emit(m_strength * std::max(0.0, 1 - u * u));
            }
            for (int i = 0; i < 30; ++i)
                emit(0);
            return;
        }
        moveTo(1);
        if (is(Trouble::plateau)) {
            const double top = elastic(1);
            while (m_share < 1.5) {
                m_share += 1 / (m_seconds * m_rate);
                emit(top);
            }
        }
        for (int i = 0; i < 60; ++i) {
            m_share += 1 / (m_seconds * m_rate);
            emit(0);
        }
    }

    /// What the amplifier, the logger and its clock make of it.
    void logged() {
        auto& c = m_run.curve;
        double q = 0, limit = 0;
        if (isAny(Trouble::clipped, Trouble::clippedUnderNoise)) {
            limit = m_strength * m_random.uniform(0.6, 0.9);
            m_run.clipped = true;
            m_run.peak = limit;
        }
        if (is(Trouble::coarseScale)) {
            constexpr double steps[] = {1, 10, 9.80665};
            q = steps[static_cast<int>(m_random.uniform(0, 3))];
        }
        if (is(Trouble::plateau)) {
            q = std::max(1.0, std::round(4 * m_noise));
            m_noise = 0;
            m_run.rigLimit = m_run.peak * m_random.uniform(1.3, 3);
        }
        if (is(Trouble::clipped)) m_noise = 0.2 * m_noise;
        const double hum = is(Trouble::hum) ? m_strength * m_random.uniform(0.001, 0.004) : 0;
        const double offset = m_strength * m_random.uniform(-0.03, 0.03);
        for (std::size_t i = 0; i < c.load.size(); ++i) {
            auto& f = c.load[i];
            const double noise = m_noise * m_random.normal();
            if (is(Trouble::setToZeroAgain) || is(Trouble::jumpUnderLoad))
                f += noise;
            else if (is(Trouble::clippedUnderNoise))
                f = std::min(f, limit) + noise;
            else
                f += offset + noise + hum * std::sin(2 * std::numbers::pi * 50 * c.time[i]);
            if (is(Trouble::clipped)) f = std::min(f, limit + offset);
            if (q > 0) f = std::round(f / q) * q;
            if (is(Trouble::wholeSeconds)) c.time[i] = std::floor(c.time[i]);
        }
        if (is(Trouble::wholeSeconds))
            for (auto& f : c.load)
                f = std::round(f);
        if (is(Trouble::cyclesAgainstTime) || is(Trouble::holdAgainstTime)) c.travel.clear();
        if (is(Trouble::startsLoaded)) {
            const auto from = std::find_if(c.load.begin(), c.load.end(),
                                           [&](double f) { return f - offset > 0.3 * m_strength; }) -
                              c.load.begin();
            c = curve::part(c, static_cast<std::size_t>(from), c.load.size());
            m_run.startsLoaded = true;
            m_run.peak += offset;
        }
    }

    Trouble m_trouble;
    Random m_random;
    double m_strength = 0, m_travel = 0, m_rate = 0, m_seconds = 0, m_noise = 0, m_toe = 0;
    double m_share = 0; ///< of the travel to the strength
    double m_jumpAt = 0;
    double m_zero = 0;
    AwkwardRun m_run;

public:
    AwkwardBench& withZero() {
        if (is(Trouble::setToZeroAgain) || is(Trouble::jumpUnderLoad)) {
            m_zero = m_strength * m_random.uniform(0.05, 0.15) * (m_random.uniform() < 0.5 ? -1 : 1);
            m_jumpAt = m_random.uniform(0.4, 0.8);
        }
        return *this;
    }
};

} // namespace

const char* name(Trouble trouble) { return names[static_cast<int>(trouble)]; }

AwkwardRun awkward(Trouble trouble, std::uint64_t seed) {
    return AwkwardBench(trouble, seed).withZero().run();
}

} // namespace anvil::sim
