#include <anvil/methods/method.h>

#include <algorithm>
#include <anvil/methods/phase_metric.h>
#include <iterator>

namespace anvil::methods {

extern const Method axialPull, tensionCoupon, compression, pinShear, lapShear, threePointBend, leverBend, sag,
    torsion, torque, hammer, drop, creep, attempts, loadShare, advantage, holding, stepLadder, byEye;

namespace {

const Method* const registry[] = {
    &axialPull, &tensionCoupon, &compression, &pinShear,   &lapShear, &threePointBend, &leverBend,
    &sag,       &torsion,       &torque,      &hammer,     &drop,     &creep,          &attempts,
    &loadShare, &advantage,     &holding,     &stepLadder, &byEye,
};

constexpr std::string_view ofKeys[] = {"specimen", "pull"};
static_assert(std::size(ofKeys) == static_cast<std::size_t>(Of::pull) + 1);
constexpr std::string_view formKeys[] = {"one", "repeated", "series", "steps", "per_leg"};
static_assert(std::size(formKeys) == static_cast<std::size_t>(Form::perLeg) + 1);
constexpr std::string_view senseKeys[] = {"more", "less", "inside"};
static_assert(std::size(senseKeys) == static_cast<std::size_t>(Sense::inside) + 1);

template <class T> const T* byKey(std::span<const T> all, std::string_view key) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.key == key; });
    return found == all.end() ? nullptr : &*found;
}

void add(std::vector<std::string>& all, std::string text) {
    if (std::find(all.begin(), all.end(), text) == all.end()) all.push_back(std::move(text));
}

} // namespace

std::optional<Sense> senseFromKey(std::string_view key) {
    const auto* at = std::find(std::begin(senseKeys), std::end(senseKeys), key);
    if (at == std::end(senseKeys)) return std::nullopt;
    return static_cast<Sense>(at - std::begin(senseKeys));
}

std::string_view key(Of of) { return ofKeys[static_cast<std::size_t>(of)]; }
std::string_view key(Form form) { return formKeys[static_cast<std::size_t>(form)]; }
std::string_view key(Sense sense) { return senseKeys[static_cast<std::size_t>(sense)]; }

const Input* Method::input(std::string_view key) const { return byKey(inputs, key); }
const Metric* Method::metric(std::string_view key) const { return byKey(metrics, key); }

std::span<const Method* const> all() { return registry; }

const Method* find(std::string_view key) {
    const auto* found = std::find_if(std::begin(registry), std::end(registry),
                                     [&](const Method* m) { return m->key == key; });
    return found == std::end(registry) ? nullptr : *found;
}

const quantity::Unit& unitFor(const Metric& metric, const quantity::Units& units) {
    return metric.unit.empty() ? units.of(metric.dimension) : quantity::unit(metric.unit);
}

const Metric* findMetric(std::string_view key, const Method* method) {
    if (const auto* own = method ? method->metric(key) : nullptr) return own;
    for (const auto* m : registry)
        if (const auto* row = m->metric(key)) return row;
    return phaseMetricOf(key);
}

const Input* inputFor(const Method& method, const Metric& metric) {
    const auto once = [](const Input& i) { return i.of == Of::pull && i.form == Form::one; };
    if (const auto* own = method.input(metric.key); own && once(*own)) return own;
    const auto first = std::find_if(method.metrics.begin(), method.metrics.end(),
                                    [&](const Metric& m) { return m.dimension == metric.dimension; });
    if (first == method.metrics.end() || first->key != metric.key) return nullptr;
    const auto input = std::find_if(method.inputs.begin(), method.inputs.end(), [&](const Input& i) {
        return once(i) && i.mayBeBound && i.dimension == metric.dimension;
    });
    return input == method.inputs.end() ? nullptr : &*input;
}

EntryForm entryForm(const Method& method) {
    int lines = 0;
    bool needed = false;
    for (const auto& i : method.inputs) {
        if (i.of != Of::pull) continue;
        if (i.needed && i.form == Form::steps) return EntryForm::steps;
        if (i.needed && i.form == Form::series) return EntryForm::series;
        ++lines;
        needed = needed || i.needed;
    }
    return needed || lines > 1 ? EntryForm::form : EntryForm::number;
}

std::vector<std::string> cautions(std::span<const Method* const> methods, std::span<const PieceKind> kinds) {
    std::vector<std::string> out;
    const auto does = [&](std::initializer_list<Action> actions) {
        const auto any = [&](const Method* m) {
            return std::find(actions.begin(), actions.end(), m ? m->action : Action::pull) != actions.end();
        };
        return methods.empty() ? any(nullptr) : std::any_of(methods.begin(), methods.end(), any);
    };
    const auto is = [&](bool PieceKind::*what) {
        return std::any_of(kinds.begin(), kinds.end(), [&](const PieceKind& k) { return k.*what; });
    };
    add(out, "Eye protection and gloves on, for everybody in the room.");
    if (does({Action::pull, Action::hold, Action::step, Action::share}) || is(&PieceKind::rope))
        add(out, "Stretched ropes, wires and rods store energy: nobody stands in the line of pull; a tail "
                 "line or a weighted cover catches the ends.");
    if (does({Action::press, Action::bend, Action::swing, Action::shear}) || is(&PieceKind::section) ||
        is(&PieceKind::fastener))
        add(out,
            "Brittle and hardened parts fly in pieces: shield the piece and keep faces and cameras back.");
    if (does({Action::hang, Action::drop, Action::step, Action::bend}))
        add(out, "What hangs can fall: feet and hands out from under it, and something below to catch it.");
    if (does({Action::swing, Action::twist}))
        add(out, "Moving arms trap hands: nobody reaches in until it is still.");
    if (is(&PieceKind::adhesive))
        add(out,
            "Adhesives, primers and solvents: open the doors, gloves on, no flame, and read their sheets.");
    add(out, "Check every part of the load path before each pull, and stop and look when something sounds or "
             "looks wrong.");
    add(out, "A result compares; it certifies nothing. For lifting, life support, structures and vehicles "
             "follow local codes and ask a licensed or competent person.");
    return out;
}

} // namespace anvil::methods
