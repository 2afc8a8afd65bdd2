#include <anvil/study/entries.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/study/outcomes.h>
#include <anvil/study/rating.h>
#include <cmath>
#include <fmt/format.h>
#include <iterator>
#include <map>

namespace anvil::study {
namespace {

using quantity::Dimension;

constexpr double g0 = 9.80665; // m/s², standard gravity

constexpr const char* kindKeys[] = {"curve", "ladder", "torque", "sag",      "hammer",
                                    "drop",  "gauge",  "hold",   "attempts", "rating"};

constexpr EntryField torqueFields[] = {
    {"breakaway", "Breakaway", "4.2 N·m, >9 N·m, 4…5 N·m", Dimension::torque, true},
    {"running", "Running", "what keeps it turning", Dimension::torque, false},
};
constexpr EntryField sagFields[] = {
    {"unloaded", "Height unloaded", "such as 412 mm", Dimension::length, true},
    {"loaded", "Height loaded", "such as 398 mm", Dimension::length, true},
    {"after", "Height unloaded again", "if it was looked at", Dimension::length, false},
};
constexpr EntryField hammerFields[] = {
    {"mass", "Hammer", "its mass, such as 2 kg", Dimension::mass, true},
    {"from", "Let go at", "such as 600 mm, or 90°", Dimension::length, true},
    {"to", "Rose to", "such as 210 mm, or 40°", Dimension::length, true},
    {"free", "Rises freely to", "without a piece; empty: no loss", Dimension::length, false},
    {"arm", "Length of its arm", "then all three are angles", Dimension::length, false},
};
constexpr EntryField dropFields[] = {
    {"height", "Dropped from", "such as 1.2 m", Dimension::length, true},
    {"peak", "Peak deceleration", "such as 85 g0, >200 g0", Dimension::acceleration, true},
    {"hit", "Which hit on this spot", "1, 2, 3 …", Dimension::ratio, false},
};
constexpr EntryField holdFields[] = {
    {"moves", "Starts to move at", "such as 1.8 kN, >2 kN", Dimension::force, true},
    {"creeps", "Creeps at", "the load it creeps at", Dimension::force, false},
    {"seconds", "Held for", "such as 30 s", Dimension::time, false},
};
constexpr EntryField attemptFields[] = {
    {"successes", "It worked", "times", Dimension::ratio, true},
    {"tries", "of", "tries", Dimension::ratio, true},
};
constexpr EntryField ratingFields[] = {
    {"rating", "Rating", "0 to 10, halves too", Dimension::ratio, true},
    {"why", "What was seen", "a few words", std::nullopt, false},
};

/// A form's fields, read one by one; the first that cannot be read is kept as the error.
class Form {
public:
    Form(EntryKind kind, const std::vector<FieldText>& typed,
         const std::function<const quantity::Unit&(Dimension)>& unitOf) {
        for (const auto& field : fieldsOf(kind)) {
            const auto at = std::find_if(typed.begin(), typed.end(),
                                         [&](const FieldText& t) { return t.key == field.key; });
            if (at == typed.end() || !filled(typed, field.key)) {
                if (field.needed && m_error.message.empty())
                    m_error.message =
                        fmt::format("\"{}\" is empty: it is needed ({}).", field.title, field.hint);
                continue;
            }
            if (!field.dimension) {
                m_fields.push_back(*at);
                continue;
            }
            // A hammer on an arm of known length may be read off as angles.
            const bool angle = kind == EntryKind::hammer && field.dimension == Dimension::length &&
                               std::string_view(field.key) != "arm" && filled(typed, "arm");
            const auto dimension = angle ? Dimension::angle : *field.dimension;
            const auto entry = quantity::parseEntry(at->text, dimension, &unitOf(dimension));
            if (!entry) {
                if (m_error.message.empty()) m_error = entry.error();
                continue;
            }
            m_entries[field.key] = *entry;
            m_fields.push_back({field.key, quantity::print(*entry)});
        }
    }
    static bool filled(const std::vector<FieldText>& typed, std::string_view key) {
        return std::any_of(typed.begin(), typed.end(), [&](const FieldText& t) {
            return t.key == key && t.text.find_first_not_of(" \t") != std::string::npos;
        });
    }
    const std::vector<FieldText>& fields() const { return m_fields; }
    bool ok() const { return m_error.message.empty(); }
    const Error& error() const { return m_error; }
    bool has(const char* key) const { return m_entries.contains(key); }
    const quantity::Entry& operator[](const char* key) const { return m_entries.at(key); }
    double value(const char* key) const { return m_entries.at(key).si; }

private:
    std::map<std::string, quantity::Entry> m_entries;
    std::vector<FieldText> m_fields;
    Error m_error;
};

TypedValue valueOf(Metric metric, const quantity::Entry& e) {
    return {metric, e.si, e.upperSi, quantity::print(e)};
}

/// A value that was computed, printed in a unit.
TypedValue computed(Metric metric, double si, const char* unit) {
    return {metric, si, 0, quantity::withUnit(si, quantity::unit(unit))};
}

void stand(Result& r, const quantity::Entry& e) {
    using quantity::Doubt;
    if (e.doubt == Doubt::above) {
        r.standing = Standing::atLeast;
        r.reason = "Read as at least that.";
    } else if (e.doubt == Doubt::below) {
        r.standing = Standing::atMost;
        r.reason = "Read as at most that.";
    } else if (e.doubt == Doubt::between) {
        r.standing = Standing::between;
        r.reason = "Read as between the two.";
    }
}

std::string mm(double m) { return quantity::withUnit(m, quantity::unit("mm")); }

Expected<Result> sagOf(const Form& f) {
    const double sag = f.value("unloaded") - f.value("loaded");
    if (sag < 0)
        return fail(
            "Loaded it stood higher than unloaded: a sag below zero cannot be. Are the two heights swapped?");
    Result r{{computed(Metric::sag, sag, "mm")}, {}, {}, {}};
    if (f.has("after")) {
        const double set = f.value("unloaded") - f.value("after");
        r.notes.push_back(fmt::format("{} of it stayed after unloading.", mm(std::max(0.0, set))));
    }
    return r;
}

Expected<Result> hammerOf(const Form& f) {
    const bool angles = f.has("arm");
    if (angles && !(f.value("arm") > 0)) return fail("The arm of a hammer has a length above zero.");
    const auto height = [&](const char* key) {
        return angles ? f.value("arm") * (1 - std::cos(f.value(key))) : f.value(key);
    };
    const double mass = f.value("mass"), from = height("from"), to = height("to");
    if (!(mass > 0) || !(from > 0)) return fail("A hammer needs a mass and a height above zero.");
    const double free = f.has("free") ? height("free") : from;
    if (to > free)
        return fail(
            "The hammer rose higher than it does without a piece: energy cannot come out of one. Check the "
            "heights and their units.");
    if (free > from) return fail("A free swing cannot rise higher than it was let go.");
    const double energy = mass * g0 * (from - to) - mass * g0 * (from - free);
    Result r{{computed(Metric::impact, energy, "J")}, {}, {}, {}};
    if (to <= 0) {
        r.standing = Standing::atLeast;
        r.reason = "The hammer was stopped: it swallowed all there was.";
    }
    r.notes.push_back(
        fmt::format("Of {} that the hammer had.", quantity::withUnit(mass * g0 * from, quantity::unit("J"))));
    return r;
}

Expected<Result> attemptsOf(const Form& f) {
    const double k = f.value("successes"), n = f.value("tries");
    if (k != std::floor(k) || n != std::floor(n)) return fail("Successes and tries are whole numbers.");
    if (!(n >= 1)) return fail("At least one try is needed.");
    if (k < 0 || k > n) return fail(fmt::format("{:.0f} successes in {:.0f} tries cannot be.", k, n));
    Result r{{{Metric::successes, k / n, 0, fmt::format("{:.0f} of {:.0f}", k, n)}}, {}, {}, {}};
    if (n < 10) r.notes.emplace_back("So few tries say little: a rate from them can lie far off.");
    return r;
}

Expected<Result> ratingOf(const Form& f) {
    const double v = f.value("rating");
    if (!isRatingStep(v)) return fail("A rating is 0 to 10 in whole or half steps.");
    return Result{{{Metric::rating, v, 0, quantity::shortest(v)}}, {}, {}, {}};
}

} // namespace

const char* key(EntryKind kind) { return kindKeys[static_cast<int>(kind)]; }

std::optional<EntryKind> entryKindFromKey(const std::string& text) {
    for (std::size_t i = 0; i < std::size(kindKeys); ++i)
        if (text == kindKeys[i]) return static_cast<EntryKind>(i);
    return std::nullopt;
}

EntryKind entryKindOf(std::string_view method) {
    static const std::map<std::string_view, EntryKind> kinds{
        {"lever-bend", EntryKind::ladder}, {"step-ladder", EntryKind::ladder}, {"sag", EntryKind::sag},
        {"torque", EntryKind::torque},     {"hammer", EntryKind::hammer},      {"drop", EntryKind::drop},
        {"creep", EntryKind::gauge},       {"attempts", EntryKind::attempts},  {"holding", EntryKind::hold},
        {"by-eye", EntryKind::rating}};
    const auto at = kinds.find(method);
    return at == kinds.end() ? EntryKind::curve : at->second;
}

bool comesFromCurve(EntryKind kind, Dimension load) {
    switch (kind) {
    case EntryKind::curve:
    case EntryKind::hold:
        return load == Dimension::force;
    case EntryKind::torque:
        return load == Dimension::torque;
    case EntryKind::drop:
        return load == Dimension::acceleration;
    default:
        return false;
    }
}

std::vector<Metric> metricsOf(std::string_view method) {
    switch (entryKindOf(method)) {
    case EntryKind::ladder:
        return method == "lever-bend" ? std::vector{Metric::moment, Metric::peak}
                                      : std::vector{Metric::peak, Metric::moment};
    case EntryKind::torque:
        return {Metric::breakaway, Metric::running};
    case EntryKind::sag:
        return {Metric::sag};
    case EntryKind::hammer:
        return {Metric::impact};
    case EntryKind::drop:
        return {Metric::shock};
    case EntryKind::gauge:
        return {Metric::creep};
    case EntryKind::hold:
        return {Metric::holding, Metric::peak, Metric::firstSlip};
    case EntryKind::attempts:
        return {Metric::successes};
    case EntryKind::rating:
        return {Metric::rating};
    case EntryKind::curve:
        break;
    }
    return {std::begin(curveMetrics), std::end(curveMetrics)};
}

std::span<const EntryField> fieldsOf(EntryKind kind) {
    switch (kind) {
    case EntryKind::torque:
        return torqueFields;
    case EntryKind::sag:
        return sagFields;
    case EntryKind::hammer:
        return hammerFields;
    case EntryKind::drop:
        return dropFields;
    case EntryKind::hold:
        return holdFields;
    case EntryKind::attempts:
        return attemptFields;
    case EntryKind::rating:
        return ratingFields;
    default:
        return {};
    }
}

namespace {
Expected<Result> resultOf(EntryKind kind, const Form& f) {
    Result r;
    switch (kind) {
    case EntryKind::torque:
        r.values = {valueOf(Metric::breakaway, f["breakaway"])};
        stand(r, f["breakaway"]);
        if (f.has("running")) {
            r.values.push_back(valueOf(Metric::running, f["running"]));
            if (f.value("running") > f.value("breakaway"))
                r.notes.emplace_back("It took more to keep it turning than to start it.");
        }
        break;
    case EntryKind::sag:
        return sagOf(f);
    case EntryKind::hammer:
        return hammerOf(f);
    case EntryKind::drop:
        if (!(f.value("height") > 0)) return fail("A drop needs a height above zero.");
        r.values = {valueOf(Metric::shock, f["peak"])};
        stand(r, f["peak"]);
        r.notes.push_back(
            fmt::format("It hit at {}.",
                        quantity::withUnit(std::sqrt(2 * g0 * f.value("height")), quantity::unit("m/s"))));
        if (f.has("hit") && f.value("hit") > 1)
            r.notes.push_back(
                fmt::format("Hit number {:.0f} on this spot: it is no longer fresh.", f.value("hit")));
        break;
    case EntryKind::hold:
        r.values = {valueOf(Metric::holding, f["moves"])};
        stand(r, f["moves"]);
        if (f.has("creeps")) r.notes.push_back(fmt::format("It creeps at {}.", quantity::print(f["creeps"])));
        if (f.has("seconds")) r.notes.push_back(fmt::format("Held for {}.", quantity::print(f["seconds"])));
        break;
    case EntryKind::attempts:
        return attemptsOf(f);
    case EntryKind::rating:
        return ratingOf(f);
    default:
        return fail("This kind of result is not typed into a form.");
    }
    if (!r.values.empty() && r.values.front().value < 0) return fail("A value below zero cannot be.");
    return r;
}
} // namespace

Expected<Result> resultOf(EntryKind kind, const std::vector<FieldText>& typed,
                          const std::function<const quantity::Unit&(Dimension)>& unitOf) {
    const Form f(kind, typed, unitOf);
    if (!f.ok()) return tl::unexpected(f.error());
    auto r = resultOf(kind, f);
    if (r) r->fields = f.fields();
    return r;
}

Expected<Result> resultOf(const std::vector<LadderStep>& steps) {
    if (steps.empty()) return fail("No step has been taken yet.");
    const bool lever = steps.front().distance.has_value();
    for (const auto& s : steps)
        if (!(s.load > 0) || s.distance.has_value() != lever || (lever && !(*s.distance > 0)))
            return fail("Every step needs a load above zero, and either all of them a distance or none.");
    const auto size = [&](const LadderStep& s) { return lever ? s.load * *s.distance : s.load; };
    std::optional<double> held, failed;
    for (const auto& s : steps) {
        auto& bound = s.held ? held : failed;
        bound = !bound ? size(s) : s.held ? std::max(*bound, size(s)) : std::min(*bound, size(s));
    }
    if (held && failed && *held >= *failed)
        return fail("It held more than it failed at: one of the steps is noted wrongly.");
    const auto metric = lever ? Metric::moment : Metric::peak;
    const auto& unit = quantity::unit(lever ? "N·m" : "N");
    Result r;
    if (held && failed) {
        r.values = {
            {metric, *held, *failed,
             fmt::format("{}…{}", quantity::significant(*held, 4), quantity::withUnit(*failed, unit))}};
        r.standing = Standing::between;
        r.reason = "Held the lower, failed at the upper.";
        if (*failed - *held > 0.1 * *held)
            r.notes.push_back(
                fmt::format("The last step was {:.0f} % of what was held: smaller steps would tell more.",
                            100 * (*failed - *held) / *held));
    } else if (held) {
        r.values = {{metric, *held, 0, ">" + quantity::withUnit(*held, unit)}};
        r.standing = Standing::atLeast;
        r.reason = "It held every step.";
    } else {
        r.values = {{metric, *failed, 0, "<" + quantity::withUnit(*failed, unit)}};
        r.standing = Standing::atMost;
        r.reason = "It failed at the first step.";
    }
    return r;
}

std::optional<LadderStep> nextStep(const std::vector<LadderStep>& steps, double firstLoad, double more,
                                   std::optional<double> firstDistance, double further) {
    if (steps.empty()) return LadderStep{firstLoad, firstDistance, true};
    if (!steps.back().held) return std::nullopt;
    auto next = steps.back();
    next.load += more;
    if (next.distance) *next.distance += further;
    return next;
}

Expected<Result> resultOf(const std::vector<GaugeReading>& readings, std::optional<double> unloadedFrom) {
    std::vector<GaugeReading> loaded, after;
    for (const auto& r : readings)
        (unloadedFrom && r.at >= *unloadedFrom ? after : loaded).push_back(r);
    if (loaded.size() < 2) return fail("Creep needs at least two readings under load.");
    for (std::size_t i = 1; i < readings.size(); ++i)
        if (!(readings[i].at > readings[i - 1].at))
            return fail("Every reading must be later than the one before.");
    const double first = loaded.front().value, creep = std::abs(loaded.back().value - first);
    const double hours = (loaded.back().at - loaded.front().at) / 3600;
    Result r{{computed(Metric::creep, creep, "mm")}, {}, {}, {}};
    r.notes.push_back(fmt::format("Over {}.", hours < 48 ? fmt::format("{:.1f} hours", hours)
                                                         : fmt::format("{:.1f} days", hours / 24)));
    // Rate per decade of time: the slope of the readings against log10 of the time since loading.
    double n = 0, mx = 0, my = 0, xx = 0, xy = 0;
    for (const auto& g : loaded)
        if (g.at > loaded.front().at) {
            const double x = std::log10(g.at - loaded.front().at), y = std::abs(g.value - first);
            ++n;
            xx += x * x;
            xy += x * y;
            mx += x;
            my += y;
        }
    if (n >= 2 && n * xx > mx * mx * (1 + 1e-12))
        r.notes.push_back(
            fmt::format("{} for every tenfold time.", mm((n * xy - mx * my) / (n * xx - mx * mx))));
    if (!after.empty() && creep > 0)
        r.notes.push_back(fmt::format("{:.0f} % of the creep has come back since unloading.",
                                      100 * (creep - std::abs(after.back().value - first)) / creep));
    return r;
}

std::vector<GaugeState> gauges(const StudyData& data, double now) {
    std::vector<GaugeState> out;
    if (entryKindOf(data.study.plan.method) != EntryKind::gauge) return out;
    const double every = data.study.plan.gaugeEvery.value_or(0);
    for (const auto& s : data.specimens) {
        GaugeState g;
        g.specimen = s.id;
        bool done = false;
        for (const auto& p : data.pulls) {
            if (p.specimen != s.id) continue;
            done = done || p.standing == Standing::voided;
            g.pull = p.id;
            const auto& e = p.outcome.entered;
            if (e.gauge.empty()) continue;
            g.lastAt = e.gauge.back().at;
            g.lastValue = e.gauge.back().value;
            done = done || (e.unloadedFrom && e.gauge.back().at > *e.unloadedFrom);
        }
        if (done) continue;
        if (g.lastAt && every > 0) g.dueAt = *g.lastAt + every;
        g.due = !g.lastAt || (g.dueAt && now >= *g.dueAt);
        out.push_back(g);
    }
    std::stable_sort(out.begin(), out.end(), [](const GaugeState& a, const GaugeState& b) {
        const auto when = [](const GaugeState& g) { return g.dueAt ? *g.dueAt : g.lastAt ? HUGE_VAL : 0.0; };
        return when(a) < when(b);
    });
    return out;
}

const Specimen* nextOnLadder(const StudyData& data, const std::set<Id>& skip) {
    for (const auto& p : data.pulls) {
        const auto& steps = p.outcome.entered.steps;
        if (!steps.empty() && steps.back().held && !skip.contains(p.specimen) &&
            p.standing == Standing::atLeast && !p.outcome.limit)
            return data.specimen(p.specimen);
    }
    return nextSpecimen(data, skip);
}

} // namespace anvil::study
