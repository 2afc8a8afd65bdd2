#include <anvil/results/evidence.h>

#include <algorithm>
#include <anvil/domain/rating.h>
#include <anvil/methods/phase_metric.h>
#include <anvil/quantity/print.h>
#include <fmt/format.h>

namespace anvil::results {
namespace {

using quantity::Dimension;
using stats::Bound;

void addMeasures(methods::Evidence& e, const methods::Method& method, const Specimen& piece) {
    for (const auto& m : piece.measured) {
        const auto mean = m.mean();
        if (!mean) continue;
        if (const auto* input = methods::inputMeasured(method, m.name))
            e.inputs[std::string(input->key)] = {*mean, {}, {}, 0, 0, &quantity::unit("m"), -1};
    }
}

/// A load that was read off a display in front of a lever, a doubled line or a ram: what the piece felt.
quantity::Entry feltEntry(const ReadThrough& path, quantity::Entry entry, bool& guess) {
    const auto felt = path.felt(entry.si);
    guess = guess || !felt.inside;
    entry.plusMinusSi = path.feltDoubt(entry.si, entry.plusMinusSi);
    entry.upperSi = entry.upperSi != 0 ? path.felt(entry.upperSi).value : 0;
    entry.si = felt.value;
    if (path.shows != Dimension::force) entry.unit = &quantity::siUnit(Dimension::force);
    return entry;
}

/// Inputs as they were typed; those of another method, which was chosen when they were, say nothing.
Expected<void> addFields(methods::Evidence& e, const methods::Method& method,
                         const std::vector<FieldText>& fields, const std::optional<ReadThrough>& path = {}) {
    for (const auto& field : fields) {
        const auto* input = methods::inputNamed(method, field.key);
        if (!input) continue;
        if (path && readOffDisplay(*input)) {
            const auto entry = quantity::parseEntry(field.text, typedAs(*input, path));
            if (!entry) return tl::unexpected(entry.error());
            e.inputs[field.key] = feltEntry(*path, *entry, e.guessed);
        } else if (auto ok = methods::enter(e, method, field.key, field.text); !ok) {
            return ok;
        }
    }
    return {};
}

/// What the words for the state afterwards are on the scale of the study.
std::optional<double> gradeOf(const std::string& words, const Plan& plan) {
    for (const auto& step : plan.ratingWords)
        if (!words.empty() && methods::sameName(step.words, words)) return step.step;
    return std::nullopt;
}

void addSeries(methods::Evidence& e, const methods::Method& method, const Outcome& outcome) {
    const auto& entered = outcome.entered;
    const auto felt = [&](double load) {
        const auto at = outcome.path ? outcome.path->felt(load) : quantity::Calibrated{load, true};
        e.guessed = e.guessed || !at.inside;
        return at.value;
    };
    for (const auto& input : method.inputs) {
        if (input.form == methods::Form::steps && !entered.steps.empty())
            for (const auto& s : entered.steps)
                e.steps[std::string(input.key)].push_back({felt(s.load), s.distance, s.held});
        if (input.form != methods::Form::series || entered.gauge.empty()) continue;
        for (const auto& g : entered.gauge)
            e.series[std::string(input.key)].push_back({g.at, g.value});
        if (entered.unloadedFrom && method.input("unloaded_at"))
            e.inputs["unloaded_at"] = {*entered.unloadedFrom, {}, {}, 0, 0, &quantity::unit("s"), -1};
    }
}

/// A number that was typed stands under the input that takes it, so that what follows from it does.
void addTyped(methods::Evidence& e, const methods::Method& method, const Pull& pull) {
    if (!pull.typed) return;
    const auto* input = methods::inputFor(method, *pull.typed->metric);
    if (!input) return;
    const bool between = pull.standing == Standing::between;
    const auto felt = [&](double read) {
        const auto& path = pull.outcome.path;
        if (!path || input->dimension != Dimension::force || read == 0) return read;
        const auto at = path->felt(read);
        e.guessed = e.guessed || !at.inside;
        return at.value;
    };
    e.inputs[std::string(input->key)] = {felt(pull.typed->value),
                                         between ? Bound::between : Bound::exact,
                                         quantity::Precision::stated,
                                         felt(pull.typed->upper),
                                         0,
                                         &quantity::siUnit(input->dimension),
                                         -1};
}

/// What was entered as a bound is listed as the number it names, where the pull is set aside.
void forgetBounds(methods::Evidence& e) {
    for (auto& [key, entry] : e.inputs)
        entry.bound = Bound::exact;
}

/// Whether a pull is a bound only because one of its entries is: the others are as exact as they were typed,
/// whichever of them decides. `e`: what is known of it.
bool boundByEntry(const methods::Method& method, const Pull& pull, methods::Evidence e) {
    if (pull.outcome.standingSaid || pull.outcome.entered.fields.empty() || !pull.standing.isBound())
        return false;
    e.bound = Bound::exact;
    const auto all = methods::measure(method, e);
    return all && std::any_of(all->numbers.begin(), all->numbers.end(), [&](const methods::Number& n) {
               return n.value && n.value->bound == pull.standing.bound;
           });
}

std::string missing(const methods::Method& method, const methods::Evidence& e,
                    const methods::Numbers& measured) {
    for (const auto& i : method.inputs)
        if (i.needed && i.of == methods::Of::pull && i.form == methods::Form::one && !e.has(i.key))
            return fmt::format("\"{}\" is empty: it is needed ({}).", i.title, i.hint);
    const auto& why = measured.numbers.front().whyNot;
    return fmt::format("Nothing follows from that yet: {}.", why);
}

/// Why a number is a bound: by its method, else because it was read so.
domain::Because whyOf(const methods::Number& number) {
    switch (number.boundBy) {
    case methods::BoundBy::heldAndFailed:
        return domain::Because::heldAndFailed;
    case methods::BoundBy::everyStepHeld:
        return domain::Because::everyStepHeld;
    case methods::BoundBy::firstStepFailed:
        return domain::Because::firstStepFailed;
    case methods::BoundBy::hammerStopped:
        return domain::Because::hammerStopped;
    case methods::BoundBy::shearedFirst:
        return domain::Because::shearedFirst;
    case methods::BoundBy::nothing:
        break;
    }
    switch (number.value->bound) {
    case Bound::above:
        return domain::Because::readAbove;
    case Bound::below:
        return domain::Because::readBelow;
    case Bound::between:
        return domain::Because::readBetween;
    case Bound::exact:
        break;
    }
    return domain::Because::nothing;
}

/// What the phases of a pull were read at; of several readings of one kind in a phase the greatest.
void addPhases(methods::Numbers& all, const Pull& pull, Bound bound) {
    for (const auto& phase : pull.outcome.phases)
        for (const auto& reading : phase.readings) {
            const auto& metric = methods::phaseMetric(phase.name, reading.unit->dimension);
            const auto value = methods::phaseValue(reading, bound);
            const auto same = std::find_if(all.numbers.begin(), all.numbers.end(),
                                           [&](const methods::Number& n) { return n.metric == &metric; });
            if (same == all.numbers.end())
                all.numbers.push_back({&metric, value, false, {}});
            else if (value.value > same->value->value)
                same->value = value;
        }
}

} // namespace

const methods::Method& methodOf(const Plan& plan) {
    const auto* m = methods::find(plan.method);
    return m ? *m : *methods::find("axial-pull");
}

const methods::Method& methodOf(const StudyData& data, const Specimen& piece) {
    const auto* square = data.study.plan.square(piece.option, piece.condition);
    const auto* own = square ? methods::find(square->method) : nullptr;
    return own ? *own : methodOf(data.study.plan);
}

Expected<methods::Evidence> evidenceOf(const StudyData& data, const Pull& pull,
                                       const curve::Reading* reading) {
    const auto& piece = data.specimenAt(pull.specimen);
    const auto& method = methodOf(data, piece);
    methods::Evidence e;
    if (auto ok = addFields(e, method, data.study.plan.inputs); !ok) return tl::unexpected(ok.error());
    addMeasures(e, method, piece);
    if (auto ok = addFields(e, method, piece.inputs); !ok) return tl::unexpected(ok.error());
    if (auto ok = addFields(e, method, pull.outcome.entered.fields, pull.outcome.path); !ok)
        return tl::unexpected(ok.error());
    addSeries(e, method, pull.outcome);
    addTyped(e, method, pull);
    e.reading = reading;
    e.failureTold = !pull.outcome.mode.empty();
    e.failure = methods::failureOf(pull.outcome.mode);
    // Where it broke says how, where nothing else does.
    if (const auto where = methods::failureOf(pull.outcome.where);
        where == methods::Failure::outsideGauge && e.failure != methods::Failure::brokeAtEnd)
        e.failure = where;
    e.afterwards = pull.outcome.afterwards;
    e.grade = gradeOf(e.afterwards, data.study.plan);
    e.calibratedTo = pull.settings.calibratedTo.value_or(0);
    const auto stands = standingOf(data, pull, reading);
    if (stands.taken == domain::Taken::aside) forgetBounds(e);
    e.bound = stands.bound;
    if (boundByEntry(method, pull, e)) {
        auto plain = pull; // how it stands by what broke and what ended it alone
        plain.standing = Standing::counts;
        e.bound = standingOf(data, plain, reading).bound;
    }
    return e;
}

Expected<methods::Numbers> measured(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    const auto e = evidenceOf(data, pull, reading);
    if (!e) return tl::unexpected(e.error());
    auto all = methods::measure(methodOf(data, data.specimenAt(pull.specimen)), *e);
    for (std::size_t i = 0; all && e->guessed && i < all->numbers.size(); ++i)
        all->numbers[i].guess = all->numbers[i].value.has_value();
    if (!all) return all;
    addPhases(*all, pull, e->bound);
    if (standingOf(data, pull, reading).taken == domain::Taken::aside)
        for (auto& n : all->numbers)
            if (n.value) n.value = stats::Value{n.value->value, Bound::exact, n.value->upper, true};
    return all;
}

std::vector<Metric> phaseMetricsOf(const StudyData& data) {
    std::vector<Metric> out;
    for (const auto& pull : data.pulls)
        for (const auto& phase : pull.outcome.phases)
            for (const auto& reading : phase.readings) {
                const Metric metric = methods::phaseMetric(phase.name, reading.unit->dimension);
                if (std::find(out.begin(), out.end(), metric) == out.end()) out.push_back(metric);
            }
    return out;
}

std::vector<Metric> metricsOf(const StudyData& data) {
    auto out = domain::metricsOf(data.study.plan.method);
    for (const auto& metric : phaseMetricsOf(data))
        out.push_back(metric);
    if (std::find(out.begin(), out.end(), data.study.goal.metric) == out.end())
        out.push_back(data.study.goal.metric);
    return out;
}

bool readOffDisplay(const methods::Input& input) {
    return input.of == methods::Of::pull && input.form == methods::Form::one &&
           input.dimension == Dimension::force;
}

Dimension typedAs(const methods::Input& input, const std::optional<ReadThrough>& path) {
    return path && readOffDisplay(input) ? path->shows : input.dimension;
}

Metric typedMetric(const StudyData& data) {
    const auto& method = methodOf(data.study.plan);
    const auto wanted = data.study.goal.metric;
    if (methods::inputFor(method, *wanted) || !method.metric(wanted->key)) return wanted;
    for (const auto& m : method.metrics)
        if (methods::inputFor(method, m)) return m;
    return wanted;
}

Expected<Entered> enteredFrom(const methods::Method& method, const std::vector<FieldText>& typed,
                              const std::function<const quantity::Unit*(Dimension)>& unitOf,
                              const std::optional<ReadThrough>& path) {
    Entered out;
    std::map<Dimension, const quantity::Unit*> spoken; // in this form
    const auto filled = [&](std::string_view key) {
        return std::any_of(typed.begin(), typed.end(), [&](const FieldText& f) {
            return f.key == key && f.text.find_first_not_of(" \t") != std::string::npos;
        });
    };
    for (const auto& field : typed) {
        if (!filled(field.key)) continue;
        const auto* input = methods::inputNamed(method, field.key);
        if (!input) return fail(fmt::format("{} does not ask for \"{}\".", method.title, field.key));
        const bool other = input->orElse && filled(input->orElseBy);
        const bool display = path && readOffDisplay(*input);
        const auto dimension = other ? *input->orElse : typedAs(*input, path);
        const auto before = spoken.find(dimension);
        const auto* unit = before != spoken.end() ? before->second : unitOf(dimension);
        const auto entry = display && path->shows != Dimension::force
                               ? quantity::parseEntry(field.text, path->shows, unit)
                               : methods::entryOf(*input, field.text, unit);
        if (!entry) return tl::unexpected(entry.error());
        if (entry->unit) spoken[entry->unit->dimension] = entry->unit;
        out.fields.push_back({field.key, quantity::print(*entry)});
    }
    return out;
}

Expected<Told> told(const StudyData& data, const Pull& pull) {
    const auto& method = methodOf(data, data.specimenAt(pull.specimen));
    auto fresh = pull; // how it stands follows from what was entered
    fresh.standing = Standing::counts;
    fresh.outcome.standingSaid = true; // and not from what broke: that is worked out whenever it is asked for
    const auto e = evidenceOf(data, fresh, nullptr);
    if (!e) return tl::unexpected(e.error());
    const auto all = methods::measure(method, *e);
    if (!all) return tl::unexpected(all.error());
    const auto* number = all->find(data.study.goal.metric->key);
    if (!number || !number->value) {
        const auto first = std::find_if(all->numbers.begin(), all->numbers.end(),
                                        [](const methods::Number& n) { return n.value.has_value(); });
        if (first == all->numbers.end()) return fail(missing(method, *e, *all));
        number = &*first;
    }
    return Told{*number, {{domain::Taken::counts, number->value->bound}, whyOf(*number)}, all->notes};
}

std::vector<std::string> notesOf(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    std::vector<std::string> out;
    if (pull.outcome.entered == Entered{} && !pull.typed && !reading) return out;
    const auto all = measured(data, pull, reading);
    if (!all) return {all.error().message};
    const auto* rating = all->find("rating");
    if (rating && rating->value)
        if (auto means = meaningOf(rating->value->value, data.study.plan.ratingWords); !means.empty())
            out.push_back(std::move(means));
    out.insert(out.end(), all->notes.begin(), all->notes.end());
    return out;
}

} // namespace anvil::results
