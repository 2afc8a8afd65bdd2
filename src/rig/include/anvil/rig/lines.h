// What devices say: numbers on lines, or answers to questions. Parsing is bounded in memory and never
// throws, whatever arrives.
#pragma once

#include <anvil/quantity/error.h>
#include <anvil/quantity/unit.h>
#include <anvil/rig/calibration.h>
#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::rig {

enum class Protocol {
    lines,  ///< the device sends lines of numbers by itself
    answers ///< the device answers questions (SCPI style)
};

/// What a column holds.
enum class Role { none, time, load, travel, other };
const char* key(Role role); ///< "none", "time", "force", "displacement", "other"
std::optional<Role> roleFromKey(std::string_view key);

/// Channels beside force and displacement that one device may have.
inline constexpr std::size_t mostOthers = 6;

struct LineColumn {
    std::string name;
    Role role = Role::none;
    std::string unit; ///< symbol; empty: SI
    // Of a further channel; the force has these in the set-up.
    bool flipped = false;
    std::optional<double> limit{};   ///< what its sensor can show, SI
    CalibrationRecord calibration{}; ///< reading → true, SI
    std::string question{};          ///< by which a device that answers is asked for it
    // Of a line that says what it measures, as it stands there; empty: whatever it says.
    std::string label{}, printed{}; ///< the words before the number, the unit behind it
    bool operator==(const LineColumn&) const = default;
};

/// A column as it is typed; `question`: by which a device that answers is asked for it.
struct ColumnText {
    std::string name, unit, question;
};

/// Columns as they are typed; a dash for a name is a column that is not wanted. What a column holds follows
/// from its name and unit. Error: a unit that is not known, no name, or a question for some of them only.
Expected<std::vector<LineColumn>> columnsOf(std::span<const ColumnText> typed);
/// Columns in a line, to be read: "time [ms], leg B [kN], -", "leg B [kN] = MEAS:FORC2?".
std::string columnsText(std::span<const LineColumn> columns);

/// Columns typed anew, each with what was known of the one of its name and unit: sign, limit, calibration;
/// and of the one in its place: what a line says beside it.
std::vector<LineColumn> keepingWhatIsKnown(std::vector<LineColumn> typed, std::span<const LineColumn> before);

/// How lines are cut into numbers.
struct Layout {
    char delimiter = ','; ///< ' ' stands for any run of blanks
    char decimal = '.';
    std::vector<LineColumn> columns;
    double rate = 0; ///< samples a second where no column tells the time; 0: by arrival
    /// The lines say what they measure ("Load: 71.6 kg", "ST,GS,+0012.34kg"): a column is a number in its
    /// order; a line with other words or a unit of another kind is none of these.
    bool labelled = false;
    bool operator==(const Layout&) const = default;
    std::optional<std::size_t> find(Role role) const;
};

/// What the load column measures, by its unit: force, torque or acceleration; and the travel column: length
/// or angle. Force and length where no unit tells.
quantity::Dimension loadOf(const Layout& layout);
quantity::Dimension travelOf(const Layout& layout);

/// What the simulated rig sends: time in s, force in N, travel in mm; torque in N·m and angle in degrees;
/// deceleration in g₀ and travel in mm.
Layout simulatedLayout(quantity::Dimension load = quantity::Dimension::force);

/// Cuts a stream of bytes into lines, whatever the pieces it arrives in. A line longer than `mostBytes` is
/// dropped and counted: a device cannot make it grow.
class LineCutter {
public:
    static constexpr std::size_t mostBytes = 1024;
    /// Calls `take` for every complete line, without its end (CR, LF or both) and without empty lines.
    template <class Take> void feed(std::string_view bytes, Take take) {
        for (const char c : bytes) {
            if (c == '\n' || c == '\r') {
                if (m_skipping)
                    ++m_tooLong;
                else if (!m_line.empty())
                    take(std::string_view(m_line));
                m_line.clear();
                m_skipping = false;
            } else if (!m_skipping) {
                m_line.push_back(c);
                if (m_line.size() > mostBytes) m_skipping = true;
            }
        }
    }
    std::uint64_t tooLong() const { return m_tooLong; }
    void clear() {
        m_line.clear();
        m_skipping = false;
    }

private:
    std::string m_line;
    bool m_skipping = false;
    std::uint64_t m_tooLong = 0;
};

/// The numbers of one line; nothing when the line is not one of numbers (a greeting, noise, a number that is
/// none or beyond 1e15, too few columns).
std::optional<std::vector<double>> numbersOf(std::string_view line, const Layout& layout);

/// Guesses delimiter, decimal sign and columns from lines that have arrived: the way most of them give the
/// same number of numbers. Names come from a header line if there is one. A single unnamed column is taken
/// for force; a first column that always rises evenly for time. Units are left empty where no name tells
/// them: they are asked for, never guessed. Error: none of the lines holds a number.
Expected<Layout> guessLayout(std::span<const std::string> lines);

/// One sample in SI, at the cell, as a device gave it.
struct RawSample {
    bool overload = false;        ///< the device says that it cannot show as much: the load is at least this
    std::optional<double> time;   ///< s, the device's own clock
    double load = 0;              ///< N
    std::optional<double> travel; ///< m
    std::array<double, mostOthers> others{}; ///< SI, in the order of SampleMaker::others
};
/// A further channel: its column, name and the SI unit its values come in.
struct OtherChannel {
    std::size_t column = 0;
    std::string name, unit;
    double factor = 1, offset = 0; ///< from its own unit to SI
    std::optional<double> limit{}; ///< what its sensor can show, SI
};
/// Makes samples of numbers: scales by the units of the columns. Units are looked up once.
class SampleMaker {
public:
    /// `forceNeeded`: false for a device beside the main one. Error: no force column, a unit that is not
    /// known or measures something else, more than `mostOthers` further channels, or no channel at all.
    static Expected<SampleMaker> make(const Layout& layout, bool forceNeeded = true);
    std::optional<RawSample> operator()(std::string_view line) const;
    /// The channels beside force and displacement; of a device beside the main one, all but the time.
    const std::vector<OtherChannel>& others() const { return m_others; }

private:
    Layout m_layout;
    struct Scale {
        std::size_t column = 0;
        double factor = 1;
    };
    static constexpr int unused = -1;
    std::optional<Scale> m_force, m_time, m_displacement;
    std::vector<OtherChannel> m_others;
    std::vector<int> m_uses; ///< a column: 0 force, 1 time, 2 displacement, 3 + i other i, or unused
};

/// The number in a device's answer to a question: "+1.234E+02 N" gives 123.4. Where a unit stands behind it
/// that measures the same as `unit` (a symbol), the number is converted to that: "0.5 kN" gives 500 for "N".
/// Other words are passed over. Nothing when it holds no number, or a unit that measures something else.
std::optional<double> answerOf(std::string_view line, std::string_view unit = {});

} // namespace anvil::rig
