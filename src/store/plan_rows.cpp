// The plan of a study and the dimensions of a piece as JSON; members that say nothing are left out. See
// docs/file-format.md.
#include "json_fields.h"
#include "json_write.h"
#include "telling_rows.h"
#include <anvil/store/project.h>
#include <anvil/store/texts.h>

#include <QJsonDocument>

namespace anvil::store {
namespace {

QString compact(const QJsonObject& o) {
    return QString::fromUtf8(QJsonDocument(o).toJson(QJsonDocument::Compact));
}

QJsonObject forecast(const domain::Forecast& f) {
    QJsonObject o{{"value", f.value}, {"cv", f.cv}};
    put(o, "by", f.by);
    put(o, "goes_first", f.goesFirst);
    put(o, "source", f.source);
    put(o, "travel_m", f.travel);
    return o;
}

QJsonObject square(const domain::PlannedSquare& s) {
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

QJsonObject part(const domain::ChainPart& p) {
    QJsonObject o{{"name", text(p.name)}, {"strength_n", p.strength}, {"cv", p.cv}};
    if (p.specimen) o["specimen"] = true;
    put(o, "source", p.source);
    return o;
}

QJsonObject step(const domain::RecipeStep& s) {
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

QJsonArray field(const domain::FieldText& f) { return {text(f.key), text(f.text)}; }

domain::FieldText fieldFrom(const QJsonValue& v, JsonTrouble& trouble) {
    const auto pair = jsonList(v, 2, trouble);
    return {jsonText(pair[0], trouble), jsonText(pair[1], trouble)};
}

} // namespace

namespace {

/// What is wanted, without the metric and the margin, which have columns of their own.
void putGoal(QJsonObject& o, const domain::Goal& goal) {
    if (goal.control) o["control"] = goal.control;
    put(o, "part", goal.part);
    if (goal.family) o["family"] = stats::key(*goal.family);
    if (goal.sense != domain::Sense::more) o["direction"] = senseWord(goal.sense);
    if (goal.window) o["window"] = QJsonArray{goal.window->first, goal.window->second};
    put(o, "need", goal.need);
    put(o, "ceiling", goal.ceiling);
}

/// In which order things are done, and what was said of them.
void putOrder(QJsonObject& o, const domain::Plan& p) {
    o["seed"] = QString::number(p.seed); // 64 bits do not fit a JSON number
    putList(o, "run_order", p.runOrder, [](const std::string& s) { return text(s); });
    if (p.reordered) o["reordered"] = true;
    putList(o, "accepted", p.accepted, [](const domain::Acceptance& a) {
        return QJsonObject{{"rule", text(a.rule)}, {"why", text(a.why)}};
    });
    putList(o, "cautions", p.cautions, [](const std::string& s) { return text(s); });
    putList(o, "recipe", p.recipe, step);
    put(o, "recipe_started", p.recipeStarted);
    putList(o, "steps_done", p.stepsDone, [](const auto& d) {
        return QJsonArray{text(d.first), text(d.second)};
    });
}

} // namespace

QString planToJson(const domain::Study& study) {
    const auto& p = study.plan;
    QJsonObject o;
    putGoal(o, study.goal);
    putOrder(o, p);
    if (study.card != domain::ScoreCard{}) o["card"] = toJson(study.card);
    if (study.telling != domain::Telling{}) o["telling"] = toJson(study.telling);
    putNumber(o, "replicates", p.replicates, 0);
    putList(o, "squares", p.squares, square);
    put(o, "method", p.method);
    putList(o, "rating_words", p.ratingWords, [](const domain::RatingWord& w) {
        return QJsonObject{{"step", w.step}, {"words", text(w.words)}};
    });
    put(o, "connector", p.connector);
    put(o, "speed_m_per_s", p.speed);
    if (p.reused) o["reused"] = true;
    if (p.practice) o["practice"] = true;
    if (p.rigCheck) o["rig_check"] = true;
    putNumber(o, "joints", p.joints, 1);
    put(o, "apart_m", p.apart);
    putNumber(o, "minutes_each", p.minutesEach, 0);
    if (p.ladder != domain::LadderPlan{}) {
        QJsonObject ladder{{"first_n", p.ladder.first}, {"more_n", p.ladder.more}};
        put(ladder, "distance_m", p.ladder.distance);
        putNumber(ladder, "further_m", p.ladder.further, 0);
        o["ladder"] = ladder;
    }
    put(o, "gauge_every_s", p.gaugeEvery);
    put(o, "label_scheme", p.labelScheme);
    putNumber(o, "work_from", p.workFrom, 0);
    putNumber(o, "work_to", p.workTo, 1440);
    put(o, "axis", p.axis);
    put(o, "axis_unit", p.axisUnit);
    put(o, "rig", p.rig);
    putList(o, "inputs", p.inputs, field);
    putList(o, "spoken", p.spoken, field);
    put(o, "read_at", p.readAt);
    putList(o, "arrangements", p.arrangements, [](const domain::Arrangement& a) {
        return QJsonObject{{"option", a.option}, {"base", a.base}, {"factor", a.factor}};
    });
    putList(o, "reevings", p.reevings, [](const domain::OptionReeving& r) {
        QJsonObject reeving{{"option", r.option}};
        put(reeving, "redirect", r.reeving.redirect);
        putList(reeving, "devices", r.reeving.devices, [](const std::string& s) { return text(s); });
        return reeving;
    });
    putList(o, "chain", p.chain, part);
    return compact(o);
}

namespace {

domain::PlannedSquare squareFrom(const JsonFields& o) {
    domain::PlannedSquare q{
        o.id("option"),   o.id("condition"),   o.integer("replicates"),   o.flag("struck"), {},
        o.text("method"), o.text("connector"), o.number("speed_m_per_s"), o.id("other_end")};
    o.list("forecasts", [&](const QJsonValue& v) {
        const JsonFields f(v, o.trouble());
        q.forecasts.push_back({f.text("by"), f.number("value", 0), f.number("cv", 0.1), f.text("goes_first"),
                               f.text("source"), f.number("travel_m")});
    });
    return q;
}

domain::RecipeStep stepFrom(const JsonFields& s) {
    return {s.text("name"),
            s.number("minutes", 0),
            s.number("wait_minutes", 0),
            s.number("latest_minutes", 0),
            s.integer("repeat", 1),
            s.number("every_minutes", 0),
            s.text("product"),
            s.text("expires")};
}

std::uint64_t seedFrom(const JsonFields& o) {
    if (!o.has("seed")) return 1;
    bool ok = false;
    const auto seed = text(o.text("seed")).toULongLong(&ok);
    if (!ok) o.trouble().say("the seed is no number");
    return seed;
}

std::optional<stats::Family> familyFrom(const JsonFields& o) {
    const auto family = stats::familyFromKey(o.text("family"));
    if (!family) o.trouble().say(QStringLiteral("there is no family \"%1\"").arg(text(o.text("family"))));
    return family;
}

/// What is wanted, without the metric and the margin, which have columns of their own.
domain::Goal goalFrom(const JsonFields& o) {
    domain::Goal goal;
    goal.sense = senseFrom(o);
    if (o.has("window")) {
        const auto w = jsonList(o.value("window"), 2, o.trouble());
        goal.window = {jsonNumber(w[0], o.trouble()), jsonNumber(w[1], o.trouble())};
    }
    goal.need = o.number("need");
    goal.ceiling = o.number("ceiling");
    goal.control = o.id("control");
    goal.part = o.text("part");
    if (o.has("family")) goal.family = familyFrom(o);
    return goal;
}

template <class Take> void objects(const JsonFields& o, const char* key, const Take& take) {
    o.list(key, [&](const QJsonValue& v) { take(JsonFields(v, o.trouble())); });
}

void orderFrom(const JsonFields& o, domain::Plan& p) {
    const auto texts = [&](const char* key, std::vector<std::string>& to) {
        o.list(key, [&](const QJsonValue& v) { to.push_back(jsonText(v, o.trouble())); });
    };
    p.seed = seedFrom(o);
    texts("run_order", p.runOrder);
    p.reordered = o.flag("reordered");
    objects(o, "accepted", [&](const JsonFields& a) {
        p.accepted.push_back({a.text("rule"), a.text("why")});
    });
    texts("cautions", p.cautions);
    objects(o, "recipe", [&](const JsonFields& s) { p.recipe.push_back(stepFrom(s)); });
    p.recipeStarted = o.text("recipe_started");
    o.list("steps_done", [&](const QJsonValue& v) {
        const auto pair = jsonList(v, 2, o.trouble());
        p.stepsDone.emplace_back(jsonText(pair[0], o.trouble()), jsonText(pair[1], o.trouble()));
    });
}

} // namespace

Expected<StoredPlan> planFromJson(const QString& json) {
    JsonTrouble trouble;
    const JsonFields o(json, trouble);
    StoredPlan stored;
    stored.goal = goalFrom(o);
    stored.card = cardFrom(o.object("card"));
    stored.telling = tellingFrom(o.object("telling"));
    auto& p = stored.plan;
    p.replicates = o.integer("replicates", 0);
    orderFrom(o, p);
    objects(o, "squares", [&](const JsonFields& s) { p.squares.push_back(squareFrom(s)); });
    p.method = o.text("method");
    objects(o, "rating_words", [&](const JsonFields& w) {
        p.ratingWords.push_back({w.number("step", 0), w.text("words")});
    });
    p.connector = o.text("connector");
    p.speed = o.number("speed_m_per_s");
    p.reused = o.flag("reused");
    p.practice = o.flag("practice");
    p.rigCheck = o.flag("rig_check");
    p.joints = o.integer("joints", 1);
    p.apart = o.number("apart_m");
    p.minutesEach = o.number("minutes_each", 0);
    const auto ladder = o.object("ladder");
    p.ladder = {ladder.number("first_n", 0), ladder.number("more_n", 0), ladder.number("distance_m"),
                ladder.number("further_m", 0)};
    p.gaugeEvery = o.number("gauge_every_s");
    p.labelScheme = o.text("label_scheme");
    p.workFrom = o.integer("work_from", 0);
    p.workTo = o.integer("work_to", 1440);
    p.axis = o.text("axis");
    p.axisUnit = o.text("axis_unit");
    p.rig = o.text("rig");
    o.list("inputs", [&](const QJsonValue& v) { p.inputs.push_back(fieldFrom(v, trouble)); });
    p.readAt = o.text("read_at");
    o.list("spoken", [&](const QJsonValue& v) { p.spoken.push_back(fieldFrom(v, trouble)); });
    objects(o, "arrangements", [&](const JsonFields& a) {
        p.arrangements.push_back({a.id("option"), a.id("base"), a.number("factor", 1)});
    });
    objects(o, "reevings", [&](const JsonFields& r) {
        domain::OptionReeving reeving{r.id("option"), {r.text("redirect"), {}}};
        r.list("devices",
               [&](const QJsonValue& v) { reeving.reeving.devices.push_back(jsonText(v, trouble)); });
        p.reevings.push_back(std::move(reeving));
    });
    objects(o, "chain", [&](const JsonFields& c) {
        p.chain.push_back({c.text("name"), c.number("strength_n", 0), c.number("cv", 0.1), c.flag("specimen"),
                           c.text("source")});
    });
    if (auto ok = trouble.done("The plan of a study"); !ok) return tl::unexpected(ok.error());
    return stored;
}

QString pieceToJson(const PieceTexts& piece) {
    const auto& measured = piece.measured;
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
    for (const auto& f : piece.inputs)
        list.append(QJsonObject{{"input", text(f.key)}, {"text", text(f.text)}});
    return QString::fromUtf8(QJsonDocument(list).toJson(QJsonDocument::Compact));
}

Expected<PieceTexts> pieceFromJson(const QString& json) {
    JsonTrouble trouble;
    PieceTexts out;
    for (const auto& v : jsonList(json, trouble)) {
        const JsonFields o(v, trouble);
        if (o.has("input")) {
            out.inputs.push_back({o.text("input"), o.text("text")});
            continue;
        }
        domain::Measured m{o.text("name"), o.number("nominal_m"), o.number("tolerance_m"), {}};
        o.list("readings_m", [&](const QJsonValue& r) { m.readings.push_back(jsonNumber(r, trouble)); });
        out.measured.push_back(std::move(m));
    }
    if (auto ok = trouble.done("What was measured of a piece"); !ok) return tl::unexpected(ok.error());
    return out;
}

} // namespace anvil::store
