// The test methods: what each measures, what has to be entered, what follows from it, and what can hurt. A
// method is one file of its own and one line in registry.cpp.
#pragma once

#include <anvil/methods/easel.h>
#include <anvil/methods/evidence.h>
#include <anvil/methods/piece_kind.h>
#include <anvil/quantity/error.h>
#include <anvil/quantity/unit.h>
#include <anvil/quantity/units.h>
#include <anvil/stats/fit.h>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace anvil::methods {

/// What is done to the piece; picks the drawing and the cautions.
enum class Action { pull, press, shear, bend, twist, swing, drop, hang, hold, share, step, look };

/// What an input belongs to; whatever is the same for all may be entered once, of the study.
enum class Of { specimen, pull };
/// How often it is entered: once, as readings to be averaged, against time, step by step, or for every leg.
enum class Form { one, repeated, series, steps, perLeg };
std::string_view key(Of of);     ///< "specimen", "pull"
std::string_view key(Form form); ///< "one", "repeated", "series", "steps", "per_leg"

/// Something that is entered.
struct Input {
    std::string_view key, title, hint;
    quantity::Dimension dimension = quantity::Dimension::length;
    Of of = Of::pull;
    Form form = Form::one;
    bool needed = false;
    bool mayBeBound = false; ///< ">9 kN" says something of it
    bool mayBeZero = false;  ///< zero, or on the other side of it, can be
    std::optional<quantity::Dimension>
        orElse{};                   ///< what may be entered instead, such as an angle for a height
    bool stays = false;             ///< is usually the same for the next piece
    std::string_view orElseBy = {}; ///< the input beside which a number without a unit is of `orElse`
};

/// Which values of a metric are usually wanted.
enum class Sense { more, less, inside };
std::string_view key(Sense sense); ///< "more", "less", "inside"
std::optional<Sense> senseFromKey(std::string_view key);

/// What kind of number a metric is: measured; a step of a scale, which has an order and no distances; a count
/// of successes.
enum class Scale { measured, graded, counted };

/// A number offered to the verdict.
struct Metric {
    std::string_view key;   ///< for files and scripts
    std::string_view title; ///< "Peak force"
    std::string_view noun;  ///< "peak force", inside a sentence
    quantity::Dimension dimension = quantity::Dimension::force;
    Sense sense = Sense::more;
    std::string_view unit = {}; ///< it is shown in, whatever the menu says; empty: by dimension
    /// Decided by what ended the pull: where the rig topped out, or something else failed first, it is at
    /// least that. What is not was seen before the end.
    bool atEnd = false;
    std::string_view more = {}, less = {}; ///< "is stronger than", "is weaker than"; empty: greater, smaller
    Scale scale = Scale::measured;
    bool asked = false; ///< of methods with a curve: told only by one that was asked for it
};

/// What is measured of a piece, and what is done to it.
struct Drawings {
    Draws sketch = nullptr, card = nullptr;
};

struct Method {
    std::string_view key;      ///< for files and scripts
    std::string_view title;    ///< "Axial pull"
    std::string_view measures; ///< what it tells
    std::string_view needs;    ///< what has to be there
    Action action = Action::pull;
    Drawings drawings{};
    std::span<const Input> inputs;
    std::span<const Metric> metrics; ///< the usual one first
    /// The numbers, from evidence that has been looked at. Error: what was entered cannot be.
    Expected<Numbers> (*formulas)(const Method& method, const Evidence& evidence) = nullptr;
    /// What the load of a curve is that this method reads; empty: it has none.
    std::optional<quantity::Dimension> load{};
    std::string_view entryHint{}; ///< what somebody who fills in its form should know
    std::string_view words{};     ///< what people say who want it, for searching: "glue hook bond"
    /// How its values are spread where nothing else is known: strengths are positive and spread by factors.
    stats::Family family = stats::Family::lognormal;

    const Input* input(std::string_view key) const;   ///< null where there is none
    const Metric* metric(std::string_view key) const; ///< null where there is none
};

/// Every method known, in the order they are offered.
std::span<const Method* const> all();

/// By key; nullptr when unknown or empty.
const Method* find(std::string_view key);

/// The methods that a search finds, best first: every word of the text begins a word of the method's title,
/// of its words, of its metrics or of what it measures; whatever the case. An empty text finds all, in the
/// order they are offered.
std::vector<const Method*> search(std::string_view text);

/// A metric by its key: the method's own row, else that of the first method which offers it, else that of a
/// phase (phase_metric.h); nullptr where none does. Rows of one key may differ in words, never in dimension.
const Metric* findMetric(std::string_view key, const Method* method = nullptr);

/// The unit a metric is shown in: its own where it has one, else the reader's for its dimension.
const quantity::Unit& unitFor(const Metric& metric, const quantity::Units& units);

/// The input under which a metric's own number is entered, such as "moves" for the holding load; nullptr
/// where it follows from others only.
const Input* inputFor(const Method& method, const Metric& metric);

/// How results come in where no rig gives them: as one number, by a form, step by step, or again and again.
enum class EntryForm { number, form, steps, series };
EntryForm entryForm(const Method& method);

/// What a pull says by this method. Every metric has a number or the reason why not. Error, as a sentence: an
/// input the method does not have, of another dimension, below zero, or a bound where only a number will do;
/// and what the formulas refuse, such as a hammer that gains energy.
Expected<Numbers> measure(const Method& method, const Evidence& evidence);

/// A text under an input, of its dimension or of what may be entered instead: the text's own unit tells. A
/// number without one is in `fallback`; null: it needs one. Error: no quantity of either.
Expected<quantity::Entry> entryOf(const Input& input, std::string_view text,
                                  const quantity::Unit* fallback = nullptr);

/// Whether two names are one, whatever the case and with blanks for underscores: "Gauge length",
/// "gauge_length".
bool sameName(std::string_view a, std::string_view b);

/// Whether an input is one length of a piece or pull, so that it can be measured before it is entered.
bool isLength(const Input& input);
/// The input that a length measured under this name is of, by its key or its title; null: none. The one rule
/// that binds what was measured of a piece to what its method asks for.
const Input* inputMeasured(const Method& method, std::string_view name);

/// The input a key means, "leg.2" being one of "leg"; null: none.
const Input* inputNamed(const Method& method, std::string_view key);

/// Adds an input to what is known, by its key ("leg.2" of a leg) and as it is typed. Error: a text that is no
/// quantity of the input's dimension, or a key the method does not have.
Expected<void> enter(Evidence& evidence, const Method& method, std::string_view key, std::string_view text);

/// The evidence in words, as typed: key and text ("412 mm", ">9 kN"); of a series "0 s: 12 mm; 3600 s: 12.4
/// mm", of steps "10 N held; 12 N failed" or "25 lb at 14 in held", of legs a key for each ("leg.1",
/// "leg.2"). Error: a text that is no quantity of the input's dimension, or a key the method does not have.
Expected<Evidence> evidenceFrom(const Method& method,
                                std::span<const std::pair<std::string, std::string>> typed);

/// The cautions of these methods and kinds of piece together, most pressing first, each once. No method, or
/// null: what holds for a pull.
std::vector<std::string> cautions(std::span<const Method* const> methods, std::span<const PieceKind> kinds);

} // namespace anvil::methods
