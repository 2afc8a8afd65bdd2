// What a method's formulas may look at, and what they give back.
#pragma once

#include <anvil/curve/reading.h>
#include <anvil/methods/piece_kind.h>
#include <anvil/quantity/entry.h>
#include <anvil/stats/counts.h>
#include <anvil/stats/summary.h>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::methods {

/// A reading at a time, SI; the time counts from anywhere, in s.
struct SeriesPoint {
    double at = 0, value = 0;
};

/// One step of a ladder: a load (N, or a count), at a distance (m) where there is a lever, held or not.
struct Step {
    double load = 0;
    std::optional<double> distance{};
    bool held = true;
};

/// Everything known of one pull: what was entered of the study, the piece and the pull, by key, and what its
/// curve says.
struct Evidence {
    std::map<std::string, quantity::Entry, std::less<>> inputs;
    std::map<std::string, std::vector<SeriesPoint>, std::less<>> series;
    std::map<std::string, std::vector<Step>, std::less<>> steps;
    std::map<std::string, std::vector<quantity::Entry>, std::less<>> legs; ///< in the order of the legs
    const curve::Reading* reading = nullptr;                               ///< null: no curve
    double calibratedTo = 0;          ///< N where the calibration table of the rig ends; 0: no table
    bool guessed = false;             ///< a load that was typed lies beyond the table of its display
    bool failureTold = false;         ///< the tester said how it failed
    std::optional<Failure> failure{}; ///< how, where those words name it
    std::string afterwards;           ///< what it is like now, in the tester's words
    std::optional<double> grade{};    ///< what that is on the study's scale, 0 to 10; empty: not graded
    /// What was seen at its end: exact, above where the rig topped out or another part broke.
    stats::Bound bound = stats::Bound::exact;

    /// Whether an input was entered once, as a quantity.
    bool has(std::string_view key) const { return inputs.contains(key); }
    /// The SI value of an input; empty where it was not entered.
    std::optional<double> value(std::string_view key) const;
    /// An input with its doubt as a value of statistics: ">9 kN" is above. A pull that only gives a bound
    /// makes an exact entry one. Empty where it was not entered.
    std::optional<stats::Value> doubted(std::string_view key) const;
};

struct Metric;

/// What makes a number a bound by its method, beside what was entered and how its pull stands.
enum class BoundBy {
    nothing,
    heldAndFailed,   ///< a ladder held the lower and failed at the upper
    everyStepHeld,   ///< a ladder
    firstStepFailed, ///< a ladder
    hammerStopped,   ///< it swallowed all there was
    shearedFirst     ///< sheared along before it failed in bending
};

/// What a pull says of one metric, or why it says nothing.
struct Number {
    const Metric* metric = nullptr;
    std::optional<stats::Value> value; ///< SI
    bool guess = false;                ///< read beyond the end of the calibration table
    std::string whyNot;
    std::optional<stats::Tally> tally{}; ///< of a count, what it is a rate of
    BoundBy boundBy = BoundBy::nothing;
};

/// What a pull says: a number for each metric of its method, in their order, and what somebody should know.
struct Numbers {
    std::vector<Number> numbers;
    std::vector<std::string> notes;
    const Number* find(std::string_view metric) const; ///< null where the method has none of this key
};

} // namespace anvil::methods
