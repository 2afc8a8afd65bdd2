// Results that are no force curve: what is typed for each kind of reading, and the number that follows from
// it.
#pragma once

#include <anvil/quantity/error.h>
#include <anvil/study/model.h>
#include <functional>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::study {

/// How a method's result comes about at the bench.
enum class EntryKind {
    curve,    ///< a logged curve, or its peak read off a display
    ladder,   ///< a bit more until it lets go
    torque,   ///< breakaway and running torque
    sag,      ///< heights unloaded and loaded
    hammer,   ///< heights of a swinging hammer
    drop,     ///< peak deceleration of a drop
    gauge,    ///< a gauge read again over hours and days
    hold,     ///< the load at which it starts to move, and the one it creeps at
    attempts, ///< so many successes in so many tries
    rating    ///< a judgement by eye
};
const char* key(EntryKind kind);
std::optional<EntryKind> entryKindFromKey(const std::string& key);
/// Of a method by its key; an unknown one gives a curve.
EntryKind entryKindOf(std::string_view method);

/// Whether a rig that measures this load shows the result by a curve, so that nothing has to be typed: a
/// torque against angle, the deceleration of a drop, the load at which a thing starts to move.
bool comesFromCurve(EntryKind kind, quantity::Dimension load);

/// The metrics a method offers to the verdict, the usual one first.
std::vector<Metric> metricsOf(std::string_view method);

/// A field of a kind's form.
struct EntryField {
    const char* key;
    const char* title;
    const char* hint;
    std::optional<quantity::Dimension> dimension; ///< empty: words
    bool needed;
};
std::span<const EntryField> fieldsOf(EntryKind kind);

/// What follows from an entry: a value for each metric it speaks of (the first one decides how it stands),
/// how it stands, and what somebody should know.
struct Result {
    std::vector<TypedValue> values;
    Standing standing = Standing::counts;
    std::string reason;
    std::vector<std::string> notes;
    std::vector<FieldText> fields{}; ///< of a form: as typed, each quantity with its unit
};

/// The result of a form. `typed` holds pairs of field key and text as typed; numbers without a unit are in
/// `unitOf(dimension)`. Formulas: sag = unloaded − loaded height; energy of a hammer = m·g·(h₀ − h₁) less
/// what a free swing loses, m·g·(h₀ − h_free); drop: v = √(2gh) told beside the peak; torque = force × arm
/// where an arm is given. Error: a needed field is empty, a text that is no quantity, or a result that cannot
/// be (a rise instead of a sag, a hammer that gains energy, more successes than tries, a rating off the half
/// steps).
Expected<Result> resultOf(EntryKind kind, const std::vector<FieldText>& typed,
                          const std::function<const quantity::Unit&(quantity::Dimension)>& unitOf);

/// The result of a step ladder: it lies between the last load held and the first that failed; with a lever
/// the moments weight × distance are compared. All held: at least the greatest. Failed at once: at most that.
/// Notes a step of more than 10 % of the result. Error: no step, or a load held that is greater than one that
/// failed before it.
Expected<Result> resultOf(const std::vector<LadderStep>& steps);
/// The load of the step after these: the last one plus `more`; after a failure nothing.
std::optional<LadderStep> nextStep(const std::vector<LadderStep>& steps, double firstLoad, double more,
                                   std::optional<double> firstDistance, double further);

/// The result of a gauge read again and again: creep since the first reading, m. The last reading decides;
/// with `unloadedFrom` (s) the readings from then on tell the recovery. Notes the rate per decade of time.
/// Error: fewer than two readings, or times that do not rise.
Expected<Result> resultOf(const std::vector<GaugeReading>& readings, std::optional<double> unloadedFrom = {});

/// A piece whose gauge is read again and again.
struct GaugeState {
    Id specimen = 0, pull = 0;                      ///< pull 0: not read yet
    std::optional<double> lastAt, lastValue, dueAt; ///< s since 1970, m, s since 1970
    bool due = false;
};
/// Every piece of a study whose method is a gauge, in the order to read them: what is due first. A piece that
/// was unloaded and read once more is done and left out. `now`: s since 1970.
std::vector<GaugeState> gauges(const StudyData& data, double now);

/// The piece whose turn it is at the bench: one whose ladder has begun and not failed comes before the next
/// fresh one.
const Specimen* nextOnLadder(const StudyData& data, const std::set<Id>& skip = {});

} // namespace anvil::study
