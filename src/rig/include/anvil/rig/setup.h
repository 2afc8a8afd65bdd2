// A rig as it is set up: what it is reached by, what its columns mean, its limits and its load path. Plain
// values; a snapshot goes with every pull.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/rig/calibration.h>
#include <anvil/rig/lines.h>
#include <anvil/rig/ratio.h>
#include <optional>

namespace anvil::rig {

/// A device beside the main one, such as the cell of a leg with an amplifier of its own.
struct SideDevice {
    std::string name, address;
    Layout layout; ///< every column but the time is a channel
    bool operator==(const SideDevice&) const = default;
    /// Its columns have questions: it is asked instead of listened to.
    bool answers() const { return !layout.columns.empty() && !layout.columns.front().question.empty(); }
};

/// A rig and everything that decides what its readings mean.
struct Setup {
    std::string name;
    std::string address; ///< "tcp:127.0.0.1:4711", "serial:/dev/ttyUSB0@115200"; empty: files only
    Protocol protocol = Protocol::lines;
    std::string forceQuery, displacementQuery; ///< of a rig that answers questions
    std::vector<LineColumn> asked{};           ///< its further readings, each with its question
    Layout layout;
    bool flipped = false;             ///< the force reads negative when pulled
    std::optional<double> cellLimit;  ///< N at the cell
    std::optional<double> rigLimit;   ///< N at the specimen
    std::optional<double> travel;     ///< m
    std::optional<double> resolution; ///< N at the cell
    std::optional<double> speed;      ///< m/s wanted
    double compliance = 0;            ///< m/N, measured on a rigid bar
    /// What its display shows where that is no load: pressure (stress), voltage, or bare divisions (ratio) of
    /// a dial, which need a table to loads.
    quantity::Dimension shows = quantity::Dimension::force;
    std::vector<RatioPart> path;       ///< from the cell to the specimen
    CalibrationRecord calibration;     ///< of the force channel
    std::vector<SideDevice> sides;     ///< read at the same time, each by its own clock
    double holdSeconds = 0;            ///< a load that stands still so long ends the pull by itself; 0: never
    double lookEvery = 0;              ///< N: at every step of this the pull pauses to be looked at; 0: never
    std::string onPause{}, onResume{}; ///< lines sent at such a pause and after it
    std::string onArm, onStop, onZero; ///< lines sent to the rig, such as to a motor drive
    bool practice = false;             ///< a virtual bench: its pulls are never counted
    bool operator==(const Setup&) const = default;
};

/// Everything that is wrong with a set-up, as sentences; empty: it can be used. `today` is yyyy-mm-dd and
/// tells whether the calibration has run out.
std::vector<std::string> problems(const Setup& setup, const std::string& today);

/// Why what its display shows cannot become a load, as a sentence; empty: it can. What is shown and the path
/// have to fit, and a display of no loads wants either a ram or sensor, or a table to loads, never both.
std::string displayTrouble(const Setup& setup);

/// Why nothing can be recorded from it yet although it is listened to, as a sentence; empty: it can. A load
/// or a travel without a unit is never newtons or metres.
std::string armingTrouble(const Setup& setup);

/// What the load of its device is recorded as: torque and acceleration as they are, everything else as a load
/// at the specimen.
quantity::Dimension recordedLoad(const Setup& setup);

/// From the cell on: N at the specimen for each N at the cell, a ram or a sensor in front of it left out.
Expected<Ratio> ratioFromCell(const Setup& setup);

/// The greatest force at the specimen that can be shown: the lesser of rig limit and cell limit × ratio;
/// nothing when neither is known.
std::optional<double> limitOf(const Setup& setup);

/// The smallest step worth showing of a force at the specimen, N: what the device resolves, or one in
/// two thousand of the limit; 0.1 N where neither is known.
double displayStep(const Setup& setup);

/// The compliance of the rig, m/N, where a bar that does not give way read as a stiffness (N/m) with the
/// compliance the set-up has now: all that moved, moved in the rig. Error: a stiffness of zero or less.
Expected<double> complianceFrom(const Setup& setup, double stiffness);

std::string toJson(const Setup& setup);
/// Error: no JSON, or a member of the wrong kind.
Expected<Setup> setupFromJson(const std::string& json);

/// A channel beside force and travel as it is shown and stored: its name and the SI unit of its values.
struct ChannelName {
    std::string name, unit;
    std::optional<double> limit{}; ///< what its sensor can show, SI
    bool operator==(const ChannelName&) const = default;
};
/// What the main device's lines hold. Of one that answers: force, travel where it is asked for, and its
/// further readings.
Layout heardLayout(const Setup& setup);

/// The further channels of the main device, and of one beside it, in the order of their samples.
std::vector<ChannelName> channelsOf(const Setup& setup);
std::vector<ChannelName> channelsOf(const SideDevice& side);

/// All of them, the main device's first; and the column that a channel comes from, nullptr for a number
/// beyond the last.
std::vector<ChannelName> allChannels(const Setup& setup);
LineColumn* columnOf(Setup& setup, std::size_t channel);

/// Makes forces and displacements at the specimen of a rig's readings.
class Conversion {
public:
    /// Error: the first problem of the set-up that stands in the way.
    static Expected<Conversion> make(const Setup& setup);
    /// Of a device beside the main one: further channels only.
    static Expected<Conversion> make(const SideDevice& side);
    /// N at the specimen for a force reading in SI at the cell, less the zero.
    Calibrated force(double reading) const;
    /// m, corrected by what the rig itself gives way under `force` (N at the specimen).
    double displacement(double reading, double force) const { return reading - m_compliance * force; }
    /// A further channel of the main device, SI: calibrated, less its zero, by its sign.
    Calibrated other(std::size_t index, double reading) const;
    /// Takes these readings of the further channels as nothing; only those that show a force.
    void zeroOthers(const std::array<double, mostOthers>& readings);
    /// Where a cell that ends at `cellLimit` (N at the cell, behind a ram or a sensor) ends at the specimen
    /// with the present zero, N.
    double cellEnd(double cellLimit) const;
    /// Where the force's calibration table ends at the specimen with the present zero, N; empty without one.
    std::optional<double> calibratedTo() const;
    /// Takes this reading (SI, at the cell) as unloaded.
    void zero(double reading) { m_zero = reading; }
    double zero() const { return m_zero; }
    /// N at the specimen for each N, pascal or volt that is read; its offset is that of the levers alone.
    const Ratio& ratio() const { return m_ratio; }

private:
    Calibration m_calibration;
    Ratio m_ratio;
    struct Other {
        Calibration calibration;
        double sign = 1, zero = 0;
        bool force = false;
    };
    static Expected<std::vector<Other>> othersOf(const Layout& layout, const SampleMaker& maker);
    std::vector<Other> m_others;
    Ratio m_front; ///< of a ram or a sensor alone: N at the cell; one to one where there is none
    double m_sign = 1, m_zero = 0, m_compliance = 0;
};

} // namespace anvil::rig
