#include <anvil/sim/specimen.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace anvil::sim {
namespace {

constexpr const char* names[] = {"pull-out",        "brittle-bond", "wire-rope",      "yielding-metal",
                                 "smooth-friction", "plastic",      "cracking-sheet", "slipping-grip"};
static_assert(std::size(names) == static_cast<std::size_t>(Model::slippingGrip) + 1);

/// The noise-free force against travel since first contact, built of a few straight and curved pieces.
class Shape {
public:
    explicit Shape(const Specimen& s) : m_s(s) {
        const double k = s.stiffness, c = s.bedding;
        const auto onLine = [&](double force) { return c + force / k; };
        switch (s.model) {
        case Model::pullOut:
            m_slip = 0.75 * s.strength;
            m_slipAt = onLine(*m_slip);
            m_slipWidth = 0.02 * s.strength / k;
            m_regain = 0.5 * k;
            m_peakAt = m_slipAt + m_slipWidth + (s.strength - 0.90 * *m_slip) / m_regain;
            break;
        case Model::brittleBond:
            m_peakAt = onLine(s.strength);
            break;
        case Model::wireRope:
            m_slip = 0.93 * s.strength;
            m_slipAt = onLine(*m_slip);
            m_slipWidth = 0.01 * s.strength / k;
            m_regain = 0.9 * k;
            m_peakAt = m_slipAt + m_slipWidth + (s.strength - 0.90 * *m_slip) / m_regain;
            break;
        case Model::yieldingMetal:
            m_yield = 0.7 * s.strength;
            m_yieldAt = onLine(m_yield);
            m_peakAt = m_yieldAt + 5 * s.strength / k;
            break;
        case Model::smoothFriction:
            round(onLine, 0.8, 0.6);
            break;
        case Model::plastic:
            round(onLine, 0.65, 1.5);
            break;
        case Model::crackingSheet:
            m_slip = 0.5 * s.strength;
            zigzag({{0.50, 0},
                    {0.44, 0.01},
                    {0.70, 0.30},
                    {0.62, 0.31},
                    {0.86, 0.60},
                    {0.76, 0.61},
                    {1.0, 0.92}},
                   onLine);
            break;
        case Model::slippingGrip:
            m_slip = 0.85 * s.strength;
            zigzag({{0.85, 0}, {0.70, 0.01}, {0.93, 0.25}, {0.78, 0.26}, {1.0, 0.50}}, onLine);
            break;
        }
    }

    double peakAt() const { return m_peakAt; }
    std::optional<double> slip() const { return m_slip; }

    double operator()(double u) const {
        if (u <= 0) return 0;
        return u <= m_peakAt ? rise(u) : after(u - m_peakAt);
    }

private:
    /// From a share of the strength on, rounded to the peak within so many times the straight travel to it.
    template <class OnLine> void round(OnLine onLine, double share, double travel) {
        m_yield = share * m_s.strength;
        m_yieldAt = onLine(m_yield);
        m_peakAt = m_yieldAt + travel * m_s.strength / m_s.stiffness;
    }
    /// Corners as shares of the strength, and of the straight travel to it since the first one.
    template <class OnLine>
    void zigzag(const std::vector<std::pair<double, double>>& corners, OnLine onLine) {
        m_slipAt = onLine(*m_slip);
        for (const auto& [force, travel] : corners)
            m_corners.emplace_back(m_slipAt + travel * m_s.strength / m_s.stiffness, force * m_s.strength);
        m_peakAt = m_corners.back().first;
    }
    double alongCorners(double u) const {
        std::size_t i = 1;
        while (i + 1 < m_corners.size() && u > m_corners[i].first)
            ++i;
        const auto& [u0, f0] = m_corners[i - 1];
        const auto& [u1, f1] = m_corners[i];
        return f0 + (f1 - f0) * (u - u0) / (u1 - u0);
    }

    /// Beds in along a parabola until it meets the line k·(u − c); a rope stiffens exponentially towards it.
    double bed(double u) const {
        const double k = m_s.stiffness, c = m_s.bedding;
        if (c <= 0) return k * u;
        if (m_s.model == Model::wireRope) return k * (u - c * (1 - std::exp(-u / c)));
        return u < 2 * c ? k * u * u / (4 * c) : k * (u - c);
    }

    double rise(double u) const {
        if (!m_corners.empty() && u > m_slipAt) return alongCorners(u);
        if (m_slip && u > m_slipAt) {
            const double low = 0.90 * *m_slip, into = u - m_slipAt;
            if (into < m_slipWidth) return *m_slip + (low - *m_slip) * into / m_slipWidth;
            return std::min(m_s.strength, low + m_regain * (into - m_slipWidth));
        }
        if (m_yield > 0 && u > m_yieldAt) {
            const double w = (u - m_yieldAt) / (m_peakAt - m_yieldAt); // a parabola that is level at the top
            return m_yield + (m_s.strength - m_yield) * w * (2 - w);
        }
        return bed(u);
    }

    double after(double v) const {
        const double f = m_s.strength;
        switch (m_s.model) {
        case Model::pullOut:
            return f * (m_s.residual + (1 - m_s.residual) * std::exp(-v / (1.5 * f / m_s.stiffness)));
        case Model::brittleBond:
            return 0;
        case Model::wireRope:
            return v < 0.3 * f / m_s.stiffness ? 0.55 * f : 0;
        case Model::yieldingMetal: {
            const double neck = v / (3 * f / m_s.stiffness);
            return neck < 1 ? f * (1 - 0.25 * neck * neck) : 0;
        }
        case Model::smoothFriction: {
            const double kept = 1 - 0.5 * (1 - m_s.residual);
            return f * (kept + (1 - kept) * std::exp(-v / (2 * f / m_s.stiffness)));
        }
        case Model::plastic: { // falls to the drawing force along half a cosine, draws, tears
            const double fall = v / (1.5 * f / m_s.stiffness);
            if (fall < 1) return f * (0.85 + 0.15 * std::cos(std::numbers::pi * fall));
            return fall < 2.5 ? 0.7 * f : 0;
        }
        case Model::crackingSheet:
            return 0;
        case Model::slippingGrip: { // teeth: down at once, up again over a quarter of the straight travel
            const double tooth = 0.25 * f / m_s.stiffness;
            const double place = v / tooth - std::floor(v / tooth);
            return f * (place < 0.04 ? 0.95 - 0.15 * place / 0.04 : 0.80 + 0.15 * (place - 0.04) / 0.96);
        }
        }
        return 0;
    }

    Specimen m_s;
    std::optional<double> m_slip;
    double m_slipAt = 0, m_slipWidth = 0, m_regain = 0, m_yield = 0, m_yieldAt = 0, m_peakAt = 0;
    std::vector<std::pair<double, double>> m_corners; ///< m since first contact, N
};

} // namespace

const char* name(Model model) { return names[static_cast<int>(model)]; }

std::optional<Model> modelFromName(const std::string& text) {
    for (const auto m : allModels)
        if (text == name(m)) return m;
    return std::nullopt;
}

Random::Random(std::uint64_t seed) {
    // splitmix64 (Steele, Lea & Flood 2014) fills the state of xorshift128+ (Vigna 2017).
    for (auto& s : m_state) {
        seed += 0x9e3779b97f4a7c15ULL;
        std::uint64_t z = seed;
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
        s = z ^ (z >> 31);
    }
}

std::uint64_t Random::next() {
    std::uint64_t a = m_state[0];
    const std::uint64_t b = m_state[1];
    m_state[0] = b;
    a ^= a << 23;
    m_state[1] = a ^ b ^ (a >> 18) ^ (b >> 5);
    return m_state[1] + b;
}

double Random::uniform() { return static_cast<double>(next() >> 11) * 0x1.0p-53; }

double Random::uniform(double low, double high) { return low + (high - low) * uniform(); }

double Random::normal() {
    if (m_spare) {
        const double z = *m_spare;
        m_spare.reset();
        return z;
    }
    const double r = std::sqrt(-2 * std::log(1 - uniform())), angle = 2 * std::numbers::pi * uniform();
    m_spare = r * std::sin(angle);
    return r * std::cos(angle);
}

Run pull(const Specimen& s, const Logger& g, std::uint64_t seed) {
    Random random(seed);
    const Shape shape(s);
    const double travel = s.slack + shape.peakAt() + g.after;
    const auto n = static_cast<std::size_t>((g.before + travel / g.speed) * g.rate) + 1;
    Run run;
    auto& c = run.curve;
    c.time.resize(n);
    c.load.resize(n);
    c.travel.resize(n);
    std::vector<bool> spiked(n, false);
    for (int k = 0; k < g.spikes && n > 40; ++k)
        spiked[10 + static_cast<std::size_t>(random.uniform() * static_cast<double>(n - 20))] = true;
    run.truth.peak = 0;
    for (std::size_t i = 0; i < n; ++i) {
        const double t = static_cast<double>(i) / g.rate;
        const double x = std::max(0.0, t - g.before) * g.speed;
        const double level = g.rezeroAt && t >= *g.rezeroAt ? 0 : g.zeroOffset + g.drift * t;
        double f = shape(x - s.slack) + level + (g.noise > 0 ? g.noise * random.normal() : 0);
        if (spiked[i]) f += (random.uniform() < 0.5 ? -1 : 1) * random.uniform(0.25, 0.9) * s.strength;
        if (g.resolution > 0) f = std::round(f / g.resolution) * g.resolution;
        if (g.limit && std::abs(f) >= *g.limit) {
            f = std::copysign(*g.limit, f);
            run.truth.saturated = run.truth.saturated || !spiked[i];
        }
        c.time[i] = t;
        c.load[i] = f;
        c.travel[i] = x;
        if (spiked[i])
            ++run.truth.spikes;
        else
            run.truth.peak = std::max(run.truth.peak, f - level);
    }
    auto& truth = run.truth;
    truth.slack = s.slack;
    truth.toe = s.slack + s.bedding;
    truth.strength = s.strength;
    truth.stiffness = s.stiffness;
    truth.firstSlip = shape.slip();
    constexpr int steps = 200000; // fine midpoint sum of the noise-free curve
    const double du = shape.peakAt() / steps;
    for (int i = 0; i < steps; ++i)
        truth.energyToPeak += shape((i + 0.5) * du) * du;
    return run;
}

Bench typicalBench(Model model, std::uint64_t seed) {
    Random random(seed * 2 + 0x5eed);
    Bench b;
    auto& s = b.specimen;
    auto& g = b.logger;
    s.model = model;
    s.strength = random.uniform(800, 6000);
    s.stiffness = s.strength / random.uniform(0.003, 0.008);
    s.slack = random.uniform(0.0005, 0.004);
    s.bedding = random.uniform(0.02, 0.06) * s.strength / s.stiffness;
    s.residual = random.uniform(0.3, 0.6);
    g.rate = random.uniform(60, 200);
    g.speed = random.uniform(0.0004, 0.0012);
    g.before = random.uniform(0.8, 2.0);
    g.after = 2.5 *
              (model == Model::yieldingMetal    ? 6.5
               : model == Model::pullOut        ? 1.9
               : model == Model::smoothFriction ? 1.4
               : model == Model::plastic        ? 2.5
                                                : 1.1) *
              s.strength / s.stiffness;
    g.noise = s.strength * random.uniform(0.0005, 0.003);
    g.resolution = random.uniform() < 0.3 ? 1.0 : 0;
    g.zeroOffset = random.uniform(-0.02, 0.05) * s.strength;
    g.drift = 0.0001 * s.strength * random.uniform(-0.5, 0.5);
    g.spikes = static_cast<int>(random.uniform(0, 4));
    return b;
}

} // namespace anvil::sim
