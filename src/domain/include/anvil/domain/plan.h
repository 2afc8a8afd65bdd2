// The plan of a study: what is to be pulled, with what expectations, on which rig, in which order. Plain
// values, SI units.
#pragma once

#include <anvil/domain/goal.h>
#include <anvil/methods/devices.h>
#include <cstdint>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace anvil::domain {

/// A field of a form, as typed.
struct FieldText {
    std::string key, text;
    bool operator==(const FieldText&) const = default;
};

/// How the line of an option of a hauling system is led.
struct OptionReeving {
    Id option = 0;
    methods::Reeving reeving;
    bool operator==(const OptionReeving&) const = default;
};

/// An option that is another one in an arrangement, such as doubled or bent round a pin, which is said to
/// hold so many times as much.
struct Arrangement {
    Id option = 0, base = 0; ///< base: the plain one
    double factor = 1;
    bool operator==(const Arrangement&) const = default;
};

/// What somebody expects of a square before it is pulled.
struct Forecast {
    std::string by;                 ///< who
    double value = 0;               ///< of the deciding metric, SI
    double cv = 0.1;                ///< spread as a share
    std::string goesFirst;          ///< which part
    std::string source;             ///< an earlier study, a rating, gut feeling
    std::optional<double> travel{}; ///< m the rig has to move until it breaks
    bool operator==(const Forecast&) const = default;
};

/// A square where the plan says something of its own.
struct PlannedSquare {
    Id option = 0, condition = 0;
    std::optional<int> replicates; ///< empty: as the study says
    bool struck = false;           ///< will not be tested
    std::vector<Forecast> forecasts;
    std::string method{};          ///< where it differs from the study's
    std::string connector{};       ///< likewise: what joins the piece to the rig
    std::optional<double> speed{}; ///< likewise: m/s
    Id otherEnd = 0;               ///< the option at the other end of its pieces; 0: the same at both
    bool operator==(const PlannedSquare&) const = default;
};

/// A part in the load path.
struct ChainPart {
    std::string name;
    double strength = 0;   ///< N, mean (or the rating)
    double cv = 0.1;       ///< spread as a share
    bool specimen = false; ///< the part whose strength is asked for
    std::string source;
    bool operator==(const ChainPart&) const = default;
};

/// How a ladder goes up: the first load and what each step adds; with a lever the distance too.
struct LadderPlan {
    double first = 0, more = 0;       ///< N; 0: not said yet
    std::optional<double> distance{}; ///< m, of the first step
    double further = 0;               ///< m that each step moves out
    /// It says what it begins with and what each step adds.
    bool complete() const { return first > 0 && (more > 0 || further > 0); }
    bool operator==(const LadderPlan&) const = default;
};

/// What a step of a rating by eye means.
struct RatingWord {
    double step = 0; ///< 0 to 10, whole or half
    std::string words;
    bool operator==(const RatingWord&) const = default;
};

/// What the rig can do.
struct RigReach {
    std::optional<double> limit;  ///< N at the specimen that the rig can pull
    std::optional<double> cell;   ///< N at the load cell
    double ratio = 1;             ///< N at the specimen for each N at the cell
    std::optional<double> travel; ///< m
    bool operator==(const RigReach&) const = default;
};

/// A fairness finding that was accepted, with the reason that goes into the report.
struct Acceptance {
    std::string rule, why;
    bool operator==(const Acceptance&) const = default;
};

/// A waiting or working step of the preparation of a batch.
struct RecipeStep {
    std::string name;
    double minutes = 0;       ///< how long the step itself takes
    double waitMinutes = 0;   ///< least wait after it before the next
    double latestMinutes = 0; ///< the next must begin within this after it, 0: any time
    int repeat = 1;           ///< so many times …
    double everyMinutes = 0;  ///< … one every so often
    std::string product;      ///< what it uses up
    std::string expires;      ///< the product's date, yyyy-mm-dd
    bool operator==(const RecipeStep&) const = default;
};

/// Everything planned.
struct Plan {
    int replicates = 0; ///< of every square unless it says otherwise; 0: not planned
    std::vector<PlannedSquare> squares;
    std::string method;
    std::string connector{};       ///< what joins every piece to the rig
    std::optional<double> speed{}; ///< m/s that every piece is pulled at
    bool reused = false;           ///< articles are not destroyed: a replicate is a deployment
    bool practice = false;         ///< on a virtual bench: only practice pulls count, and elsewhere none does
    bool rigCheck = false;         ///< rigid bars are pulled, to learn how much the rig gives way
    int joints = 1;                ///< joints that one piece carries, such as both ends of a rope
    std::optional<double> apart{}; ///< least distance between places in one sheet, m
    double minutesEach = 0;        ///< what one pull takes, with mounting; 0: not known
    LadderPlan ladder{};
    std::optional<double> gaugeEvery{};    ///< s: a gauge is read again after so long
    std::vector<RatingWord> ratingWords{}; ///< by step
    std::string labelScheme{};             ///< of new pieces; empty: the usual one, see freshLabel
    int workFrom = 0, workTo = 1440;       ///< minutes after local midnight when somebody is there
    std::string axis, axisUnit;            ///< what the conditions vary
    std::vector<FieldText> inputs{};       ///< inputs of the method that hold for the whole study
    std::vector<FieldText> spoken{};       ///< units typed last, by dimension: those of bare numbers
    std::string readAt{}; ///< where typed loads are read: "display" or "piece"; empty: nobody said
    std::vector<OptionReeving> reevings{};
    std::vector<Arrangement> arrangements{};
    std::string rig{}; ///< the rig it is to be pulled on, by name; empty: not said
    std::vector<ChainPart> chain;
    std::uint64_t seed = 1;
    std::vector<std::string> runOrder; ///< specimen labels; empty: not drawn yet
    bool reordered = false;            ///< changed by hand since it was drawn
    std::vector<Acceptance> accepted;
    std::vector<std::string> cautions;
    std::vector<RecipeStep> recipe;
    std::string recipeStarted;                                  ///< ISO 8601; empty: not begun
    std::vector<std::pair<std::string, std::string>> stepsDone; ///< step key, ISO 8601
    bool operator==(const Plan&) const = default;

    const PlannedSquare* square(Id option, Id condition) const;
    PlannedSquare& squareFor(Id option, Id condition); ///< made when missing
    /// Replicates planned in a square; 0 when it is struck out.
    int replicatesOf(Id option, Id condition) const;
    const Acceptance* acceptance(const std::string& rule) const;
};

} // namespace anvil::domain
