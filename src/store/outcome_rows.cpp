// What happened at a pull beside its number, as stored: see docs/file-format.md.
#include <anvil/store/project.h>

#include <QJsonDocument>
#include <anvil/quantity/entry.h>

namespace anvil::store {
namespace {

QString text(const std::string& s) { return QString::fromStdString(s); }
std::string text(const QJsonValue& v) { return v.toString().toStdString(); }

void put(QJsonObject& o, const char* key, const std::string& value) {
    if (!value.empty()) o[QLatin1String(key)] = text(value);
}
void put(QJsonObject& o, const char* key, const std::optional<double>& value) {
    if (value) o[QLatin1String(key)] = *value;
}
void put(QJsonObject& o, const char* key, const QJsonArray& values) {
    if (!values.isEmpty()) o[QLatin1String(key)] = values;
}
std::optional<double> number(const QJsonObject& o, const char* key) {
    return o[QLatin1String(key)].isDouble() ? std::optional(o[QLatin1String(key)].toDouble()) : std::nullopt;
}

QJsonObject enteredToJson(const study::Entered& e) {
    QJsonObject o{{"kind", text(e.kind)}};
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
    QJsonArray remarks;
    for (const auto& r : e.remarks)
        remarks.append(text(r));
    put(o, "remarks", remarks);
    return o;
}

QJsonObject readingToJson(const quantity::Entry& r) {
    return {{"measures", QString::fromUtf8(quantity::name(r.unit->dimension).data())},
            {"si", r.si},
            {"as_typed", text(quantity::print(r))}};
}

/// The readings of a phase. Earlier files held one force and one way only.
std::vector<quantity::Entry> readingsFrom(const QJsonObject& phase) {
    std::vector<quantity::Entry> out;
    for (const auto& [key, unit] : {std::pair{"force_n", "N"}, {"travel_m", "m"}})
        if (const auto v = number(phase, key)) out.push_back({*v, {}, 0, 0, &quantity::unit(unit), -1});
    for (const auto& v : phase["readings"].toArray()) {
        const auto o = v.toObject();
        for (const auto& unit : quantity::allUnits()) {
            if (text(o["measures"]) != quantity::name(unit.dimension)) continue;
            if (const auto entry = quantity::parseEntry(text(o["as_typed"]), unit.dimension))
                out.push_back(*entry);
            break;
        }
    }
    return out;
}

study::Entered enteredFrom(const QJsonObject& o) {
    study::Entered e;
    e.kind = text(o["kind"]);
    for (const auto& v : o["fields"].toArray())
        e.fields.push_back({text(v.toArray()[0]), text(v.toArray()[1])});
    for (const auto& v : o["steps"].toArray()) {
        const auto s = v.toObject();
        e.steps.push_back({s["load_n"].toDouble(), number(s, "distance_m"), s["held"].toBool()});
    }
    for (const auto& v : o["gauge"].toArray())
        e.gauge.push_back({v.toArray()[0].toDouble(), v.toArray()[1].toDouble()});
    e.unloadedFrom = number(o, "unloaded_from_s");
    for (const auto& r : o["remarks"].toArray())
        e.remarks.push_back(text(r));
    return e;
}

} // namespace

QString outcomeToJson(const study::Outcome& outcome) {
    QJsonObject o;
    put(o, "where", outcome.where);
    put(o, "limited_by", outcome.limitedBy);
    put(o, "afterwards", outcome.afterwards);
    if (outcome.whileUnloading) o["while_unloading"] = true;
    QJsonArray shares, marks, phases, more;
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
    for (const auto& v : outcome.more)
        more.append(QJsonObject{{"metric", study::info(v.metric).key},
                                {"value", v.value},
                                {"upper", v.upper},
                                {"as_typed", text(v.asTyped)}});
    put(o, "shares", shares);
    put(o, "marks", marks);
    put(o, "phases", phases);
    put(o, "more", more);
    if (!outcome.entered.kind.empty()) o["entered"] = enteredToJson(outcome.entered);
    return QString::fromUtf8(QJsonDocument(o).toJson(QJsonDocument::Compact));
}

study::Outcome outcomeFromJson(const QString& json) {
    const auto o = QJsonDocument::fromJson(json.toUtf8()).object();
    study::Outcome out;
    out.where = text(o["where"]);
    out.limitedBy = text(o["limited_by"]);
    out.afterwards = text(o["afterwards"]);
    out.whileUnloading = o["while_unloading"].toBool();
    for (const auto& v : o["shares"].toArray())
        out.shares.push_back({text(v.toObject()["mode"]), v.toObject()["share"].toDouble()});
    for (const auto& v : o["marks"].toArray())
        out.marks.push_back({v.toObject()["at_s"].toDouble(), text(v.toObject()["text"])});
    for (const auto& v : o["phases"].toArray()) {
        const auto p = v.toObject();
        out.phases.push_back(
            {text(p["name"]), text(p["direction"]), text(p["outcome"]), readingsFrom(p), number(p, "at_s")});
    }
    for (const auto& v : o["more"].toArray()) {
        const auto m = v.toObject();
        if (const auto metric = study::metricFromKey(text(m["metric"])))
            out.more.push_back({*metric, m["value"].toDouble(), m["upper"].toDouble(), text(m["as_typed"])});
    }
    if (o.contains("entered")) out.entered = enteredFrom(o["entered"].toObject());
    return out;
}

} // namespace anvil::store
