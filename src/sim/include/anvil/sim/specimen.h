// Virtual specimens and the logger that watches them: seeded, and honest about what they were made from.
#pragma once

#include <anvil/curve/curve.h>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace anvil::sim {

/// How a virtual specimen behaves under a steady pull.
enum class Model {
    pullOut,        ///< slips a little, climbs on, peaks, then loses its grip slowly
    brittleBond,    ///< straight up and gone
    wireRope,       ///< beds in and stiffens, a strand goes, then the rest
    yieldingMetal,  ///< straight, yields, hardens, necks, breaks
    smoothFriction, ///< comes loose without a jerk and slides on with most of its grip
    plastic,        ///< rounds off to its peak, draws out at less, tears in the end
    crackingSheet,  ///< cracks three times on the way up, each costing some stiffness, then goes at once
    slippingGrip    ///< lets go and catches again and again; it never breaks
};
inline constexpr Model allModels[] = {Model::pullOut,       Model::brittleBond,    Model::wireRope,
                                      Model::yieldingMetal, Model::smoothFriction, Model::plastic,
                                      Model::crackingSheet, Model::slippingGrip};

/// "pull-out", "brittle-bond", "wire-rope", "yielding-metal", "smooth-friction", "plastic", "cracking-sheet",
/// "slipping-grip"
const char* name(Model model);
std::optional<Model> modelFromName(const std::string& name);

/// A specimen, SI units.
struct Specimen {
    Model model = Model::pullOut;
    double strength = 2000;  ///< N, greatest force of the noise-free curve
    double stiffness = 4e5;  ///< N/m, slope of the straight part
    double slack = 0.002;    ///< m before first contact
    double bedding = 0.0003; ///< m by which the straight part's intercept lies behind first contact
    double residual = 0.45;  ///< share of the strength a pull-out keeps in the end
};

/// The rig and its logger, SI units.
struct Logger {
    double rate = 100;                ///< samples a second
    double speed = 0.001;             ///< m/s
    double before = 1.0;              ///< s logged before the crosshead starts
    double after = 0.01;              ///< m travelled after the greatest force
    double noise = 0;                 ///< N, standard deviation
    double resolution = 0;            ///< N, 0: not quantised
    double zeroOffset = 0;            ///< N shown without load
    double drift = 0;                 ///< N/s
    int spikes = 0;                   ///< single-sample spikes
    std::optional<double> rezeroAt{}; ///< s: from then on the amplifier takes its zero offset and drift away
    std::optional<double> limit;      ///< N, readings stop here
};

/// What a simulated run was made from; the measure for every reader.
struct Truth {
    double slack = 0;     ///< m on the displacement axis: first contact
    double toe = 0;       ///< m on the displacement axis: intercept of the noise-free straight part
    double peak = 0;      ///< N: greatest sample emitted that is no spike, above the true zero
    double strength = 0;  ///< N: greatest noise-free force
    double stiffness = 0; ///< N/m
    std::optional<double> firstSlip; ///< N, noise-free
    double energyToPeak = 0;         ///< J, noise-free
    bool saturated = false;
    int spikes = 0;
};

struct Run {
    curve::Curve curve;
    Truth truth;
};

/// Pulls a virtual specimen once. The same arguments give the same run on every machine (own generator and
/// transforms).
Run pull(const Specimen& specimen, const Logger& logger, std::uint64_t seed);

/// A specimen and logger drawn at random for a model, with the troubles of a home-made bench: used by
/// `simulate` and by tests.
struct Bench {
    Specimen specimen;
    Logger logger;
};
Bench typicalBench(Model model, std::uint64_t seed);

/// Uniform and normal deviates that are the same everywhere.
class Random {
public:
    explicit Random(std::uint64_t seed);
    double uniform(); ///< 0 ≤ u < 1
    double uniform(double low, double high);
    double normal(); ///< mean 0, sd 1 (Box & Muller 1958)

private:
    std::uint64_t next();
    std::uint64_t m_state[2];
    std::optional<double> m_spare;
};

} // namespace anvil::sim
