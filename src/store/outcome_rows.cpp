// What happened at a pull beside its number, as stored: see docs/file-format.md.
#include "json_fields.h"
#include "json_write.h"
#include <anvil/store/project.h>
#include <anvil/store/texts.h>

#include <QJsonDocument>
#include <anvil/quantity/entry.h>

namespace anvil::store {
namespace {

QJsonObject enteredToJson(const domain::Entered& e) {
    QJsonObject o;
    QJsonArray fields, steps, gauge;
    for (const auto& f : e.fields)
        fields.append(QJsonArray{text(f.key), text(f.text)});
    for (const auto& s : e.steps) {
        QJsonObject step{{"load_n", s.load}, {"held", s.held}};
        put(step, "distance_m", s.distance);
        steps.append(step);
    }
    for (const auto& g : e.gauge)
        gauge.append(QJsonArray{g.at, g.value});
    put(o, "fields", fields);
    put(o, "steps", steps);
    put(o, "gauge", gauge);
    put(o, "unloaded_from_s", e.unloadedFrom);
    return o;
}

QJsonObject readingToJson(const quantity::Entry& r) {
    return {{"measures", QString::fromUtf8(quantity::name(r.unit->dimension).data())},
            {"si", r.si},
            {"as_typed", text(quantity::print(r))}};
}

/// A reading of a phase as it was typed, of the dimension it says it measures.
std::optional<quantity::Entry> readingFrom(const JsonFields& o) {
    const auto measures = o.text("measures"), typed = o.text("as_typed");
    for (const auto& unit : quantity::allUnits())
        if (measures == quantity::name(unit.dimension)) {
            const auto entry = quantity::parseEntry(typed, unit.dimension);
            if (!entry) o.trouble().say(text(entry.error().message));
            return entry ? std::optional(*entry) : std::nullopt;
        }
    o.trouble().say(QStringLiteral("nothing measures \"%1\"").arg(text(measures)));
    return std::nullopt;
}

/// The readings of a phase. Earlier files held one force and one way only.
std::vector<quantity::Entry> readingsFrom(const JsonFields& phase) {
    std::vector<quantity::Entry> out;
    for (const auto& [key, unit] : {std::pair{"force_n", "N"}, {"travel_m", "m"}})
        if (const auto v = phase.number(key)) out.push_back({*v, {}, {}, 0, 0, &quantity::unit(unit), -1});
    phase.list("readings", [&](const QJsonValue& v) {
        if (auto entry = readingFrom(JsonFields(v, phase.trouble()))) out.push_back(*entry);
    });
    return out;
}

domain::Entered enteredFrom(const JsonFields& o) {
    auto& trouble = o.trouble();
    domain::Entered e;
    o.list("fields", [&](const QJsonValue& v) {
        const auto pair = jsonList(v, 2, trouble);
        e.fields.push_back({jsonText(pair[0], trouble), jsonText(pair[1], trouble)});
    });
    o.list("steps", [&](const QJsonValue& v) {
        const JsonFields s(v, trouble);
        e.steps.push_back({s.number("load_n", 0), s.number("distance_m"), s.flag("held")});
    });
    o.list("gauge", [&](const QJsonValue& v) {
        const auto pair = jsonList(v, 2, trouble);
        e.gauge.push_back({jsonNumber(pair[0], trouble), jsonNumber(pair[1], trouble)});
    });
    e.unloadedFrom = o.number("unloaded_from_s");
    return e;
}

QJsonObject pathToJson(const domain::ReadThrough& path) {
    QJsonObject o{{"factor", path.factor}, {"offset_n", path.offset}, {"doubt", path.doubt}};
    if (path.shows != quantity::Dimension::force)
        o["shows"] = QString::fromUtf8(quantity::name(path.shows).data());
    QJsonArray table;
    for (const auto& p : path.table)
        table.append(QJsonArray{p.reading, p.truth});
    put(o, "table", table);
    return o;
}

domain::ReadThrough pathFrom(const JsonFields& o) {
    auto& trouble = o.trouble();
    domain::ReadThrough path;
    path.factor = o.number("factor", 1);
    path.offset = o.number("offset_n", 0);
    path.doubt = o.number("doubt", 0);
    if (!(path.factor > 0)) trouble.say(QStringLiteral("a load path has a factor above zero"));
    if (o.has("shows")) {
        const auto shows = quantity::dimensionNamed(o.text("shows"));
        if (!shows) trouble.say(QStringLiteral("no display shows \"%1\"").arg(text(o.text("shows"))));
        path.shows = shows.value_or(path.shows);
    }
    o.list("table", [&](const QJsonValue& v) {
        const auto pair = jsonList(v, 2, trouble);
        path.table.push_back({jsonNumber(pair[0], trouble), jsonNumber(pair[1], trouble)});
    });
    if (const auto made = quantity::Calibration::make(path.table); !made)
        trouble.say(QString::fromStdString(made.error().message));
    return path;
}

} // namespace

QString outcomeToJson(const domain::Outcome& outcome) {
    QJsonObject o;
    put(o, "part", outcome.part);
    put(o, "mode", outcome.mode);
    if (outcome.end) o["end"] = outcome.end;
    put(o, "where", outcome.where);
    if (outcome.limit) o["limited_by"] = domain::key(*outcome.limit);
    put(o, "afterwards", outcome.afterwards);
    if (outcome.whileUnloading) o["while_unloading"] = true;
    put(o, "elsewhere", outcome.elsewhere);
    if (outcome.standingSaid) o["standing_said"] = true;
    if (outcome.path) o["path"] = pathToJson(*outcome.path);
    QJsonArray shares, marks, phases;
    for (const auto& s : outcome.shares)
        shares.append(QJsonObject{{"mode", text(s.mode)}, {"share", s.share}});
    for (const auto& m : outcome.marks)
        marks.append(QJsonObject{{"at_s", m.at}, {"text", text(m.text)}});
    for (const auto& p : outcome.phases) {
        QJsonObject phase{{"name", text(p.name)}};
        put(phase, "direction", p.direction);
        put(phase, "outcome", p.outcome);
        QJsonArray readings;
        for (const auto& r : p.readings)
            readings.append(readingToJson(r));
        put(phase, "readings", readings);
        put(phase, "at_s", p.at);
        phases.append(phase);
    }
    put(o, "shares", shares);
    put(o, "marks", marks);
    put(o, "phases", phases);
    if (outcome.entered != domain::Entered{}) o["entered"] = enteredToJson(outcome.entered);
    return QString::fromUtf8(QJsonDocument(o).toJson(QJsonDocument::Compact));
}

Expected<domain::Outcome> outcomeFromJson(const QString& json) {
    JsonTrouble trouble;
    const JsonFields o(json, trouble);
    const auto objects = [&](const char* key, const auto& take) {
        o.list(key, [&](const QJsonValue& v) { take(JsonFields(v, trouble)); });
    };
    domain::Outcome out;
    out.part = o.text("part");
    out.mode = o.text("mode");
    out.end = o.integer("end", 0);
    if (out.end < 0) trouble.say(QStringLiteral("there is no end %1").arg(out.end));
    out.where = o.text("where");
    if (o.has("limited_by")) {
        out.limit = domain::limitFromKey(o.text("limited_by"));
        if (!out.limit)
            trouble.say(QStringLiteral("nothing ends a pull as \"%1\"").arg(text(o.text("limited_by"))));
    }
    out.afterwards = o.text("afterwards");
    out.whileUnloading = o.flag("while_unloading");
    out.elsewhere = o.text("elsewhere");
    out.standingSaid = o.flag("standing_said");
    if (o.has("path")) {
        out.path = pathFrom(o.object("path"));
    }
    objects("shares", [&](const JsonFields& s) {
        out.shares.push_back({s.text("mode"), s.number("share", 0)});
    });
    objects("marks", [&](const JsonFields& m) {
        out.marks.push_back({m.number("at_s", 0), m.text("text")});
    });
    objects("phases", [&](const JsonFields& p) {
        out.phases.push_back(
            {p.text("name"), p.text("direction"), p.text("outcome"), readingsFrom(p), p.number("at_s")});
    });
    if (o.has("entered")) out.entered = enteredFrom(o.object("entered"));
    if (auto ok = trouble.done("The outcome of a pull"); !ok) return tl::unexpected(ok.error());
    return out;
}

} // namespace anvil::store
