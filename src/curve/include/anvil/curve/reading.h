// Reading one force curve: landmarks, stiffness, energy, what it still holds. A pure function of samples and
// settings.
#pragma once

#include <anvil/curve/curve.h>
#include <optional>
#include <string>
#include <vector>

namespace anvil::curve {

/// A landmark moved by hand to the sample nearest a time, or declared absent.
struct Override {
    double time = 0; ///< s, on the run's own clock
    bool none = false;
    bool operator==(const Override&) const = default;
};

/// Everything that steers a reading. The defaults are those of docs/calculations.
struct ReadingSettings {
    std::optional<double> rigLimit; ///< N, what the channel can show; raw |force| ≥ 99.8 % of it is off scale
    std::optional<double> calibratedTo; ///< N, where the calibration table ends; above it the load is a guess
    std::optional<double> crossheadSpeed; ///< m/s, constant; stands in for a displacement channel
    double preload = 0; ///< N that the piece carries when the log is unloaded, such as a lever's own weight
    double breakShare = 0.4; ///< a pull is broken when the force falls below this share of the peak
    std::optional<Override> peak, firstSlip, breakPoint;
    std::optional<Override> fitFrom, fitTo; ///< ends of the stiffness line; both or neither
    bool operator==(const ReadingSettings&) const = default;
    /// The same without what was moved by hand: what belongs to the rig stays.
    ReadingSettings withoutHand() const;
};

/// Raised whenever a curve is read otherwise than before: readings that were kept by an older one are made
/// anew. A test compares readings with those of this version.
inline constexpr int readerVersion = 1;

/// A place on the curve. Displacement is measured from the toe.
struct Landmark {
    std::size_t index = 0;              ///< into the cleaned samples
    double time = 0;                    ///< s
    double force = 0;                   ///< N above the baseline
    std::optional<double> displacement; ///< m from the toe
    bool byHand = false;
    bool operator==(const Landmark&) const = default;
};

/// A least-squares line force = slope · (x − toe) over part of the rise.
struct Stiffness {
    double value = 0;         ///< N/m
    double standardError = 0; ///< N/m
    double r2 = 0;
    double from = 0, to = 0; ///< N, at its end samples
    std::size_t fromIndex = 0, toIndex = 0, samples = 0;
    bool includesRigStretch = false; ///< from the crosshead speed, not a displacement channel
    bool byHand = false;
    bool operator==(const Stiffness&) const = default;
};

/// What is left after the peak.
struct Residual {
    double force = 0; ///< N
    double share = 0; ///< of the peak
    bool operator==(const Residual&) const = default;
};

/// How the force fell: the way from 90 to 50 % after the peak over the way from 50 to 90 % before it.
struct Fall {
    double ratio = 0;
    std::string word; ///< sudden < 0.25 ≤ quick < 1 ≤ gradual
    bool operator==(const Fall&) const = default;
};

/// The result of reading a curve; all values SI.
struct Reading {
    std::size_t samples = 0, dropped = 0, spikes = 0;
    double baseline = 0;   ///< N, taken off every force
    double noise = 0;      ///< N, standard deviation
    double resolution = 0; ///< N, 0 when the signal is not quantised
    bool flipped = false;  ///< the load was logged as negative force
    bool offScale = false; ///< the peak is "at least"
    bool guessed = false;  ///< the peak lies beyond the calibration table
    quantity::Dimension load = quantity::Dimension::force,
                        travel = quantity::Dimension::length; ///< as the curve's
    std::optional<double> breakaway, running; ///< N·m, of a torque against angle; see turning()
    bool againstTime = false;                 ///< no displacement: residual and fall are told against time
    std::size_t departure = 0;                ///< first sample under load
    Landmark peak;
    std::optional<Landmark> firstSlip, breakPoint;
    std::optional<Stiffness> stiffness;
    std::optional<double> toe;   ///< m, on the file's own displacement axis
    std::optional<double> slack; ///< m, toe − first displacement, along the pull
    std::optional<double> energyToFirstSlip, energyToPeak,
        energyToBreak; ///< J, from the departure of the load
    std::optional<Residual> residual;
    std::optional<Fall> fall;
    std::optional<double> forceRate;        ///< N/s in the 20–80 % band before the peak
    std::optional<double> displacementRate; ///< m/s in the same band
    std::vector<std::string> warnings;      ///< somebody should look
    std::vector<std::string> notes;         ///< put right without doubt; for the record
    bool operator==(const Reading&) const = default;
};

/// The samples a reading was made on: in order, spikes bridged, baseline taken off, load positive.
struct Cleaned {
    std::vector<double> time, force, displacement;
    std::vector<std::size_t> spikes; ///< indices that were bridged
};

/// Reads a curve. Error: a sentence when there is nothing to read (fewer than three samples, no load in it).
Expected<Reading> read(const Curve& raw, const ReadingSettings& settings = {});

/// The same, keeping the cleaned samples for drawing.
struct ReadCurve {
    Reading reading;
    Cleaned cleaned;
};
/// As read(); the samples it kept lie beside the reading.
Expected<ReadCurve> readAndKeep(const Curve& raw, const ReadingSettings& settings = {});

/// What a torque–angle curve says: breakaway is the greatest torque within `first` (rad) of turning since the
/// load departed; running the mean over angle (trapezoid) from there to `until`, if at least half of that was
/// turned.
struct Turning {
    std::optional<double> breakaway, running; ///< N·m
};
/// Of a torque (N·m) against an angle (rad), sample by sample, from the departure of the load on.
Turning turning(std::span<const double> angle, std::span<const double> torque, std::size_t departure,
                double first = 1.5707963267948966, double until = 6.283185307179586);

/// Force at a displacement from the toe on the way up, or nothing if it was not reached. m → N.
std::optional<double> forceAt(const ReadCurve& curve, double displacement);

} // namespace anvil::curve
