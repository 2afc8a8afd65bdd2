// The domain: a study, its options and conditions, specimens and pulls. Plain values, SI units.
#pragma once

#include <anvil/curve/reading.h>
#include <anvil/domain/goal.h>
#include <anvil/domain/plan.h>
#include <anvil/domain/read_through.h>
#include <anvil/domain/score_card.h>
#include <anvil/domain/telling.h>
#include <anvil/methods/picture.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/unit.h>
#include <anvil/stats/summary.h>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

namespace anvil::domain {

/// How fairness is judged: all else equal; think of the next one as you go; deliberately worn or crooked.
enum class Intent { controlled, exploratory, asUsed };

/// What becomes of a pull's number: it is counted, listed but not counted, means nothing, or is not there.
enum class Taken { counts, aside, voided, notRead };

/// How a pull stands: how its number is taken and what it says of the true value. Only one that counts can be
/// a bound.
struct Standing {
    Taken taken = Taken::counts;
    quantity::Bound bound = quantity::Bound::exact;

    static const Standing counts, atLeast, atMost, between, aside, voided, notRead;
    constexpr bool operator==(const Standing&) const = default;
    /// It counts, and is a bound.
    bool isBound() const { return bound != quantity::Bound::exact; }
};
inline constexpr Standing Standing::counts{};
inline constexpr Standing Standing::atLeast{Taken::counts, quantity::Bound::above};
inline constexpr Standing Standing::atMost{Taken::counts, quantity::Bound::below};
inline constexpr Standing Standing::between{Taken::counts, quantity::Bound::between};
inline constexpr Standing Standing::aside{Taken::aside};
inline constexpr Standing Standing::voided{Taken::voided};
inline constexpr Standing Standing::notRead{Taken::notRead};
/// All there are, in the order of their words.
inline constexpr Standing standings[] = {Standing::counts,  Standing::atLeast, Standing::atMost,
                                         Standing::between, Standing::aside,   Standing::voided,
                                         Standing::notRead};

/// Words for a standing: "counts", "at least" …
const char* word(Standing standing);
const char* key(Standing standing);
std::optional<Standing> standingFromKey(const std::string& key);
/// How a pull stands whose value is this one.
inline Standing standingOf(const stats::Value& value) {
    return value.aside ? Standing::aside : Standing{Taken::counts, value.bound};
}
const char* word(Intent intent);
const char* key(Intent intent);
std::optional<Intent> intentFromKey(const std::string& key);

struct Study {
    Id id = 0;
    int position = 0;
    std::string title, question, note;
    Intent intent = Intent::controlled;
    Goal goal{};
    Plan plan{};
    ScoreCard card{}; ///< without criteria: none
    Telling telling{};
    bool operator==(const Study&) const = default;
};

/// What is ranked.
struct Option {
    Id id = 0, study = 0;
    int position = 0;
    std::string name, kind, currency, note;
    std::optional<double> unitCost; ///< in `currency`
    std::optional<double> weight;   ///< kg
    std::optional<double> rating{}; ///< N, the maker's promise
    std::string ratingBasis{};      ///< what the promise says: breaking load, working load …
    std::string grade{};            ///< of its material
    std::string geometry{};         ///< what it looks like, in the tester's words and measures
    std::string supply{};           ///< where it is got: a shop and its shelf, a maker's page
    bool operator==(const Option&) const = default;
};

/// A named setting the options are crossed with.
struct Condition {
    Id id = 0, study = 0;
    int position = 0;
    std::string name, note;
    std::optional<double> value{}; ///< on a numeric axis, SI
    /// What it sets, a level of each factor: "salt-soaked", "cold". Fewer than two: it sets one thing.
    std::vector<std::string> levels{};
    bool operator==(const Condition&) const = default;
};

/// The levels that a name spells out, parted by commas, plus signs, slashes or semicolons: "salt-soaked,
/// cold". For a name that is being typed; what was made of it is the condition's own from then on. One alone
/// is none.
std::vector<std::string> levelsIn(const std::string& name);
/// Names an option or a condition that is made: what its name spells out is what it sets.
inline void giveName(Condition& condition, const std::string& name) {
    condition.name = name;
    condition.levels = levelsIn(name);
}
inline void giveName(Option& option, const std::string& name) { option.name = name; }

/// A measured length against what was wanted.
enum class Fit { fits, tooSmall, tooLarge };

/// A length of a piece, measured once or more; m.
struct Measured {
    std::string name;
    std::optional<double> nominal, tolerance;
    std::vector<double> readings;
    bool operator==(const Measured&) const = default;

    /// Mean of the readings; empty without any.
    std::optional<double> mean() const;
    /// How the mean lies to nominal ± tolerance; `fits` where nothing says otherwise.
    Fit fit() const;
    bool fits() const { return fit() == Fit::fits; }
};

/// One physical piece, made for one square (option × condition).
struct Specimen {
    Id id = 0, study = 0, option = 0, condition = 0;
    int replicate = 0; ///< 1, 2, 3 … within the square
    std::string label, note;
    std::string batch{}, block{}; ///< the lot it comes from; the sheet or piece it was made in
    std::vector<Measured> measured{};
    std::string history{};          ///< prior loads, heat, ageing, re-use, design version
    std::optional<double> x{}, y{}; ///< m from the lower left corner of the sheet or piece it was made in
    std::vector<FieldText>
        inputs{}; ///< inputs of the method that are no measured length: areas, angles, masses
    bool operator==(const Specimen&) const = default;
};

/// A number typed or pasted instead of a curve, SI.
struct TypedValue {
    Metric metric{};
    double value = 0, upper = 0; ///< `upper` for `between`
    std::string asTyped;
    bool operator==(const TypedValue&) const = default;
};

/// A share of a mixed failure, by area.
struct ModeShare {
    std::string mode;
    double share = 0; ///< 0 … 1
    bool operator==(const ModeShare&) const = default;
};

/// Something that was noticed in mid-pull, at an instant of the curve.
struct Mark {
    double at = 0;    ///< s on the curve's own clock
    std::string text; ///< empty: only the instant was marked
    bool operator==(const Mark&) const = default;
};

/// One step of a ladder: a load, at a distance where there is a lever, and whether it was held.
struct LadderStep {
    double load = 0;                  ///< N
    std::optional<double> distance{}; ///< m
    bool held = true;
    bool operator==(const LadderStep&) const = default;
};

/// A gauge read at a time.
struct GaugeReading {
    double at = 0;    ///< s since 1970
    double value = 0; ///< m
    bool operator==(const GaugeReading&) const = default;
};

/// A part of a pull with a direction, readings and an outcome of its own: set, turned, pulled straight,
/// reset.
struct Phase {
    std::string name, direction, outcome;
    std::vector<quantity::Entry> readings{}; ///< forces, ways, torques, angles, times, speeds as typed
    std::optional<double> at{};              ///< s on the curve's own clock when it began
    bool operator==(const Phase&) const = default;
};

/// What was entered where there is no curve, or beside it: inputs of the method. What follows from them is
/// computed.
struct Entered {
    std::vector<FieldText> fields;
    std::vector<LadderStep> steps;
    std::vector<GaugeReading> gauge;
    std::optional<double> unloadedFrom{}; ///< s since 1970: from then on a gauge tells the recovery
    bool operator==(const Entered&) const = default;
};

/// What ended a pull.
enum class Limit {
    broke,
    toppedOut,
    stopped,
    linkLost,
    wrongSetup,
    lost,
    outOfTravel,
    slipped,
    tipped,
    powerGone
};
const char* word(Limit limit);
const char* key(Limit limit); ///< as stored: "broke", "topped_out" …
std::optional<Limit> limitFromKey(const std::string& key);

/// What happened beside the number.
struct Outcome {
    std::string part;              ///< what broke: a part of the load path; empty: nothing, or not said
    std::string mode;              ///< how it failed; of a mixed failure the shares tell more
    std::vector<ModeShare> shares; ///< of a mixed failure
    int end = 0;                   ///< which end of the piece failed, from 1; 0: not noted
    std::string where;             ///< on the piece, in words
    std::optional<Limit> limit{};  ///< what ended the pull; empty: nobody said
    std::string afterwards;        ///< bent, stuck, still works
    bool whileUnloading = false;   ///< broke while being unloaded or handled: the greatest load before counts
    std::vector<Mark> marks;
    Entered entered{};
    std::vector<Phase> phases{};
    std::string elsewhere{};   ///< whose result it is, where it was not made here
    bool standingSaid = false; ///< the tester said how it stands, whatever follows from the rest
    std::optional<ReadThrough>
        path{}; ///< of loads that were read off a display; none: they are those at the piece
    bool operator==(const Outcome&) const = default;
};

/// How far the recording of a pull has come.
enum class Recording { done, running, interrupted };
const char* key(Recording recording); ///< as stored: "", "running", "interrupted"
std::optional<Recording> recordingFromKey(const std::string& key);

/// One attempt on one specimen.
struct Pull {
    Id id = 0, specimen = 0;
    Id curve = 0; ///< its samples; 0 when the result was typed
    std::string performedAt, sourceName, note, reason;
    Standing standing = Standing::counts;
    std::optional<TypedValue> typed;
    curve::ReadingSettings settings; ///< how its curve is read, with what was moved by hand
    bool looked = false;             ///< somebody has looked at the remarks on its curve
    std::string operatorName{};
    Id setup = 0; ///< the rig as it was set up; 0: unknown
    Outcome outcome{};
    Recording recording = Recording::done;
    bool practice = false; ///< on a virtual bench; never counted with real ones
    bool operator==(const Pull&) const = default;
};

/// A picture or clip that belongs to a pull.
struct Attachment {
    Id id = 0, pull = 0, file = 0;
    std::optional<double> at; ///< s on the curve's own clock; empty: before, after, or nobody knows
    std::string name;
    methods::PictureMarks marks{}; ///< what was measured on it
    bool operator==(const Attachment&) const = default;
};

/// A study with everything in it, as the core sees it.
/// Where rows stood when they were last counted, by id: a hint that is looked at before it is believed, so it
/// may be old.
class Places {
public:
    template <class T> void count(const std::vector<T>& all) {
        m_at.clear();
        m_at.reserve(all.size());
        for (std::size_t i = 0; i < all.size(); ++i)
            m_at.emplace(all[i].id, i);
    }
    /// Null where nothing has this id.
    template <class T> const T* find(const std::vector<T>& all, Id id) const {
        if (const auto at = m_at.find(id);
            at != m_at.end() && at->second < all.size() && all[at->second].id == id)
            return &all[at->second];
        for (const auto& x : all)
            if (x.id == id) return &x;
        return nullptr;
    }

private:
    std::unordered_map<Id, std::size_t> m_at;
};

struct StudyData {
    Study study;
    std::vector<Option> options;
    std::vector<Condition> conditions;
    std::vector<Specimen> specimens;
    std::vector<Pull> pulls;
    std::vector<Attachment> attachments{};
    RigReach reach{}; ///< what the planned rig can do; not stored with the study but with the rig
    /// Whether the same is stored of both.
    bool operator==(const StudyData& o) const {
        return study == o.study && options == o.options && conditions == o.conditions &&
               specimens == o.specimens && pulls == o.pulls && attachments == o.attachments;
    }
    /// Makes looking for pieces and pulls quick, until they change.
    void count() {
        m_specimens.count(specimens);
        m_pulls.count(pulls);
    }

    // Null where the study has none with this id.
    const Option* option(Id id) const;
    const Condition* condition(Id id) const;
    const Specimen* specimen(Id id) const;
    const Pull* pull(Id id) const;

    /// How many of its pieces have been pulled, once or more.
    std::size_t pulledPieces() const;

    // For ids that `validate` has seen to: of a piece, a pull, or a group of a verdict. Always there; for any
    // other id one that is called so.
    const Option& optionAt(Id id) const;
    const Condition& conditionAt(Id id) const;
    const Specimen& specimenAt(Id id) const;

private:
    Places m_specimens, m_pulls;
};

/// A label for a new piece that no piece of the study carries. The plan's scheme may hold {A} or {a} (the
/// option's letter), {1} (the condition's number), {option}, {condition} (their names) and {n} (the
/// replicate); empty: "{A}{1}-{n}", as in "B2-3". A letter is added where the label is taken.
std::string freshLabel(const StudyData& data, Id option, Id condition, int replicate);

/// The pieces that are planned but not made yet, labelled; ids are 0.
std::vector<Specimen> missingPieces(const StudyData& data);

} // namespace anvil::domain
