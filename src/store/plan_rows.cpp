// The plan of a study and the dimensions of a piece as JSON; members that say nothing are left out. See
// docs/file-format.md.
#include <anvil/store/project.h>

#include <QJsonDocument>

namespace anvil::store {
namespace {

QString text(const std::string& s) { return QString::fromStdString(s); }
std::string text(const QJsonValue& v) { return v.toString().toStdString(); }
QString compact(const QJsonObject& o) {
    return QString::fromUtf8(QJsonDocument(o).toJson(QJsonDocument::Compact));
}

void put(QJsonObject& o, const char* key, const std::string& value) {
    if (!value.empty()) o[QLatin1String(key)] = text(value);
}
void put(QJsonObject& o, const char* key, const std::optional<double>& value) {
    if (value) o[QLatin1String(key)] = *value;
}
void putNumber(QJsonObject& o, const char* key, double value, double usual) {
    if (value != usual) o[QLatin1String(key)] = value;
}
std::optional<double> number(const QJsonValue& v) {
    return v.isDouble() ? std::optional(v.toDouble()) : std::nullopt;
}

template <class T, class Write>
void putList(QJsonObject& o, const char* key, const std::vector<T>& all, Write write) {
    if (all.empty()) return;
    QJsonArray list;
    for (const auto& x : all)
        list.append(write(x));
    o[QLatin1String(key)] = list;
}

QJsonObject forecast(const study::Forecast& f) {
    QJsonObject o{{"value", f.value}, {"cv", f.cv}};
    put(o, "by", f.by);
    put(o, "goes_first", f.goesFirst);
    put(o, "source", f.source);
    put(o, "travel_m", f.travel);
    return o;
}

QJsonObject square(const study::PlannedSquare& s) {
    QJsonObject o{{"option", s.option}, {"condition", s.condition}};
    if (s.replicates) o["replicates"] = *s.replicates;
    if (s.struck) o["struck"] = true;
    putList(o, "forecasts", s.forecasts, forecast);
    put(o, "method", s.method);
    put(o, "connector", s.connector);
    put(o, "speed_m_per_s", s.speed);
    if (s.otherEnd) o["other_end"] = s.otherEnd;
    return o;
}

QJsonObject part(const study::ChainPart& p) {
    QJsonObject o{{"name", text(p.name)}, {"strength_n", p.strength}, {"cv", p.cv}};
    if (p.specimen) o["specimen"] = true;
    put(o, "source", p.source);
    return o;
}

QJsonObject step(const study::RecipeStep& s) {
    QJsonObject o{{"name", text(s.name)}};
    putNumber(o, "minutes", s.minutes, 0);
    putNumber(o, "wait_minutes", s.waitMinutes, 0);
    putNumber(o, "latest_minutes", s.latestMinutes, 0);
    putNumber(o, "repeat", s.repeat, 1);
    putNumber(o, "every_minutes", s.everyMinutes, 0);
    put(o, "product", s.product);
    put(o, "expires", s.expires);
    return o;
}

constexpr const char* directions[] = {"more", "less", "window"};

} // namespace

QString planToJson(const study::Plan& p) {
    QJsonObject o;
    putNumber(o, "replicates", p.replicates, 0);
    putList(o, "squares", p.squares, square);
    if (p.control) o["control"] = p.control;
    put(o, "method", p.method);
    putList(o, "rating_words", p.ratingWords, [](const study::RatingWord& w) {
        return QJsonObject{{"step", w.step}, {"words", text(w.words)}};
    });
    put(o, "part", p.part);
    put(o, "connector", p.connector);
    put(o, "speed_m_per_s", p.speed);
    if (p.reused) o["reused"] = true;
    if (p.practice) o["practice"] = true;
    if (p.rigCheck) o["rig_check"] = true;
    putNumber(o, "joints", p.joints, 1);
    put(o, "apart_m", p.apart);
    putNumber(o, "minutes_each", p.minutesEach, 0);
    if (p.ladder != study::LadderPlan{}) {
        QJsonObject ladder{{"first_n", p.ladder.first}, {"more_n", p.ladder.more}};
        put(ladder, "distance_m", p.ladder.distance);
        putNumber(ladder, "further_m", p.ladder.further, 0);
        o["ladder"] = ladder;
    }
    put(o, "gauge_every_s", p.gaugeEvery);
    put(o, "label_scheme", p.labelScheme);
    putNumber(o, "work_from", p.workFrom, 0);
    putNumber(o, "work_to", p.workTo, 1440);
    if (p.direction != study::Direction::more) o["direction"] = directions[static_cast<int>(p.direction)];
    if (p.window) o["window"] = QJsonArray{p.window->first, p.window->second};
    put(o, "need", p.need);
    put(o, "ceiling", p.ceiling);
    put(o, "axis", p.axis);
    put(o, "axis_unit", p.axisUnit);
    put(o, "rig_limit_n", p.rig.limit);
    put(o, "cell_limit_n", p.rig.cell);
    putNumber(o, "ratio", p.rig.ratio, 1);
    put(o, "travel_m", p.rig.travel);
    putList(o, "chain", p.chain, part);
    o["seed"] = QString::number(p.seed); // 64 bits do not fit a JSON number
    putList(o, "run_order", p.runOrder, [](const std::string& s) { return text(s); });
    if (p.reordered) o["reordered"] = true;
    putList(o, "accepted", p.accepted, [](const study::Acceptance& a) {
        return QJsonObject{{"rule", text(a.rule)}, {"why", text(a.why)}};
    });
    putList(o, "cautions", p.cautions, [](const std::string& s) { return text(s); });
    putList(o, "recipe", p.recipe, step);
    put(o, "recipe_started", p.recipeStarted);
    putList(o, "steps_done", p.stepsDone, [](const auto& d) {
        return QJsonArray{text(d.first), text(d.second)};
    });
    return compact(o);
}

study::Plan planFromJson(const QString& json) {
    const auto o = QJsonDocument::fromJson(json.toUtf8()).object();
    study::Plan p;
    p.replicates = o["replicates"].toInt();
    for (const auto& v : o["squares"].toArray()) {
        const auto s = v.toObject();
        study::PlannedSquare q{s["option"].toInteger(),
                               s["condition"].toInteger(),
                               std::nullopt,
                               s["struck"].toBool(),
                               {},
                               text(s["method"]),
                               text(s["connector"]),
                               number(s["speed_m_per_s"]),
                               s["other_end"].toInteger()};
        if (s["replicates"].isDouble()) q.replicates = s["replicates"].toInt();
        for (const auto& w : s["forecasts"].toArray()) {
            const auto f = w.toObject();
            q.forecasts.push_back({text(f["by"]), f["value"].toDouble(), f["cv"].toDouble(0.1),
                                   text(f["goes_first"]), text(f["source"]), number(f["travel_m"])});
        }
        p.squares.push_back(std::move(q));
    }
    p.control = o["control"].toInteger();
    p.method = text(o["method"]);
    for (const auto& w : o["rating_words"].toArray())
        p.ratingWords.push_back({w.toObject()["step"].toDouble(), text(w.toObject()["words"])});
    p.part = text(o["part"]);
    p.connector = text(o["connector"]);
    p.speed = number(o["speed_m_per_s"]);
    p.reused = o["reused"].toBool();
    p.practice = o["practice"].toBool();
    p.rigCheck = o["rig_check"].toBool();
    p.joints = o["joints"].toInt(1);
    p.apart = number(o["apart_m"]);
    p.minutesEach = o["minutes_each"].toDouble();
    const auto ladder = o["ladder"].toObject();
    p.ladder = {ladder["first_n"].toDouble(), ladder["more_n"].toDouble(), number(ladder["distance_m"]),
                ladder["further_m"].toDouble()};
    p.gaugeEvery = number(o["gauge_every_s"]);
    p.labelScheme = text(o["label_scheme"]);
    p.workFrom = o["work_from"].toInt(0);
    p.workTo = o["work_to"].toInt(1440);
    for (int i = 0; i < 3; ++i)
        if (o["direction"].toString() == directions[i]) p.direction = static_cast<study::Direction>(i);
    if (const auto w = o["window"].toArray(); w.size() == 2) p.window = {w[0].toDouble(), w[1].toDouble()};
    p.need = number(o["need"]);
    p.ceiling = number(o["ceiling"]);
    p.axis = text(o["axis"]);
    p.axisUnit = text(o["axis_unit"]);
    p.rig = {number(o["rig_limit_n"]), number(o["cell_limit_n"]), o["ratio"].toDouble(1),
             number(o["travel_m"])};
    for (const auto& v : o["chain"].toArray()) {
        const auto c = v.toObject();
        p.chain.push_back({text(c["name"]), c["strength_n"].toDouble(), c["cv"].toDouble(0.1),
                           c["specimen"].toBool(), text(c["source"])});
    }
    p.seed = o["seed"].isString() ? o["seed"].toString().toULongLong() : 1;
    for (const auto& v : o["run_order"].toArray())
        p.runOrder.push_back(text(v));
    p.reordered = o["reordered"].toBool();
    for (const auto& v : o["accepted"].toArray())
        p.accepted.push_back({text(v.toObject()["rule"]), text(v.toObject()["why"])});
    for (const auto& v : o["cautions"].toArray())
        p.cautions.push_back(text(v));
    for (const auto& v : o["recipe"].toArray()) {
        const auto s = v.toObject();
        p.recipe.push_back({text(s["name"]), s["minutes"].toDouble(), s["wait_minutes"].toDouble(),
                            s["latest_minutes"].toDouble(), s["repeat"].toInt(1),
                            s["every_minutes"].toDouble(), text(s["product"]), text(s["expires"])});
    }
    p.recipeStarted = text(o["recipe_started"]);
    for (const auto& v : o["steps_done"].toArray())
        p.stepsDone.emplace_back(text(v.toArray()[0]), text(v.toArray()[1]));
    return p;
}

QString measuredToJson(const std::vector<study::Measured>& measured) {
    QJsonArray list;
    for (const auto& m : measured) {
        QJsonObject o{{"name", text(m.name)}};
        put(o, "nominal_m", m.nominal);
        put(o, "tolerance_m", m.tolerance);
        QJsonArray readings;
        for (const double r : m.readings)
            readings.append(r);
        o["readings_m"] = readings;
        list.append(o);
    }
    return QString::fromUtf8(QJsonDocument(list).toJson(QJsonDocument::Compact));
}

std::vector<study::Measured> measuredFromJson(const QString& json) {
    std::vector<study::Measured> out;
    for (const auto& v : QJsonDocument::fromJson(json.toUtf8()).array()) {
        const auto o = v.toObject();
        study::Measured m{text(o["name"]), number(o["nominal_m"]), number(o["tolerance_m"]), {}};
        for (const auto& r : o["readings_m"].toArray())
            m.readings.push_back(r.toDouble());
        out.push_back(std::move(m));
    }
    return out;
}

} // namespace anvil::store
