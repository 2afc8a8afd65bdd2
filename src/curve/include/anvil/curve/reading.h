// Reading one force curve: landmarks, stiffness, energy, what it still holds. A pure function of samples and
// settings.
#pragma once

#include <anvil/curve/burst.h>
#include <anvil/curve/curve.h>
#include <numbers>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace anvil::curve {

/// A landmark moved by hand to the sample nearest a time, or declared absent.
struct Override {
    double time = 0; ///< s, on the run's own clock
    bool none = false;
    bool operator==(const Override&) const = default;
};

/// Where the line of the stiffness is laid.
enum class StiffnessBy {
    straightPart,  ///< the steepest straight part of the rise
    chordOfLoads,  ///< between two forces
    chordOfShares, ///< between two shares of the peak
    secant         ///< from the departure of the load to the peak
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
    StiffnessBy stiffnessBy = StiffnessBy::straightPart;
    double chordFrom = 0.1, chordTo = 0.4;         ///< of a chord: N, or shares of the peak
    double rigCompliance = 0;                      ///< m/N, taken off the displacement; 0: not known
    std::optional<double> yieldOffset{};           ///< m that the stiffness line is shifted by
    std::optional<Override> holdFrom, holdTo;      ///< the window in which a load was held; both or neither
    std::optional<double> atTravel{};              ///< m from the toe (or rad): what was the load there?
    std::optional<double> atLoad{};                ///< N (or N·m): how far had it moved there?
    double sustainedFor = 0;                       ///< s a load has to be held to count; 0: not asked for
    double sustainedSpeed = 0;                     ///< m/s it may creep at meanwhile
    BurstSettings burst{};                         ///< of a deceleration
    double breakawayWithin = std::numbers::pi / 2; ///< rad, of a torque: its first turn
    double runningUntil = 2 * std::numbers::pi;    ///< rad
    bool operator==(const ReadingSettings&) const = default;
    /// The same without what was moved by hand: what belongs to the rig stays.
    ReadingSettings withoutHand() const;
};

/// Raised whenever a curve is read otherwise than before: readings that were kept by an older one are made
/// anew. A test compares readings with those of this version.
inline constexpr int readerVersion = 4;

/// A place on the curve. Displacement is measured from the toe.
struct Landmark {
    std::size_t index = 0;        ///< into the cleaned samples
    double time = 0;              ///< s
    double load = 0;              ///< N above the baseline
    std::optional<double> travel; ///< m from the toe
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
    double load = 0;  ///< N
    double share = 0; ///< of the peak
    bool operator==(const Residual&) const = default;
};

/// How the force fell: the way from 90 to 50 % after the peak over the way from 50 to 90 % before it.
struct Fall {
    double ratio = 0;
    std::string word; ///< sudden < 0.25 ≤ quick < 1 ≤ gradual
    bool operator==(const Fall&) const = default;
};

/// A load that was held for a while.
struct Held {
    double from = 0, to = 0; ///< s
    double mean = 0, sd = 0; ///< N
    double relaxation = 0;   ///< share of the load at the window's beginning that is gone at its end
    /// F = a − b·ln(1 + t/τ), t from the window's beginning; empty where that fits no better than a line.
    struct Law {
        double a = 0, b = 0, tau = 0, r2 = 0;
        bool operator==(const Law&) const = default;
    };
    std::optional<Law> law{};
    bool operator==(const Held&) const = default;
};

/// An answer to a question about one place of the curve; without a value the place was not reached.
struct At {
    double at = 0;
    std::optional<double> value{};
    bool operator==(const At&) const = default;
};

/// Several channels of force while all of them stood still: see commonSteady().
struct Together {
    double from = 0, to = 0;                              ///< s
    double load = 0;                                      ///< N, of the main channel, above its baseline
    std::vector<std::pair<std::string, double>> others{}; ///< N, by the names of their channels
    bool operator==(const Together&) const = default;
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
    quantity::Dimension loadKind = quantity::Dimension::force,
                        travelKind = quantity::Dimension::length; ///< as the curve's
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
    std::optional<double> loadRate;   ///< N/s in the 20–80 % band before the peak
    std::optional<double> travelRate; ///< m/s in the same band
    std::optional<Landmark> yield;    ///< where the curve meets the shifted stiffness line
    std::optional<Held> hold;
    std::optional<At> loadAtTravel; ///< N at a displacement from the toe, on the way up
    std::optional<At> travelAtLoad; ///< m from the toe where that load was first reached
    std::optional<double>
        sustained; ///< N, the greatest load that was held long enough; empty: none, or not asked
    std::optional<double> permanent;    ///< m of deformation that stayed after the load was let down
    std::optional<Burst> burst;         ///< of a deceleration
    std::optional<Together> together{}; ///< of a log with further channels of force
    std::vector<std::string> warnings;  ///< somebody should look
    std::vector<std::string> notes;     ///< put right without doubt; for the record
    bool operator==(const Reading&) const = default;
};

/// The samples a reading was made on: in order, spikes bridged, baseline taken off, load positive.
struct Cleaned {
    std::vector<double> time, load, travel;
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
std::optional<double> loadAt(const ReadCurve& curve, double travel);

} // namespace anvil::curve
