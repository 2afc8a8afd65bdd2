#include "telling_rows.h"
#include "json_write.h"

#include <array>

namespace anvil::store {
namespace {

constexpr std::array senses{"more", "less", "window"};
static_assert(senses.size() == static_cast<std::size_t>(domain::Sense::inside) + 1);

QJsonObject criterion(const domain::Criterion& c) {
    QJsonObject o{{"name", text(c.name)}, {"judged", domain::key(c.judged)}, {"weight", c.weight}};
    if (c.study) o["study"] = c.study;
    if (c.judged == domain::Judged::byResults) o["metric"] = text(c.metric->key);
    if (c.condition) o["condition"] = c.condition;
    if (c.sense != domain::Sense::more) o["direction"] = senseWord(c.sense);
    if (c.anchors) o["anchors"] = QJsonArray{c.anchors->first, c.anchors->second};
    putList(o, "ratings", c.ratings, [](const domain::OptionRating& r) {
        return QJsonObject{{"option", text(r.option)}, {"rating", r.rating}};
    });
    return o;
}

domain::Criterion criterionFrom(const JsonFields& o) {
    domain::Criterion c;
    c.name = o.text("name");
    if (const auto judged = domain::judgedFromKey(o.text("judged")))
        c.judged = *judged;
    else
        o.trouble().say(QStringLiteral("a criterion goes by \"%1\"").arg(text(o.text("judged"))));
    c.study = o.id("study");
    c.condition = o.id("condition");
    if (c.judged == domain::Judged::byResults) {
        if (const auto metric = domain::metricFromKey(o.text("metric")))
            c.metric = *metric;
        else
            o.trouble().say(QStringLiteral("there is no metric \"%1\"").arg(text(o.text("metric"))));
    }
    c.sense = senseFrom(o);
    c.weight = o.number("weight", 1);
    if (c.weight < 0) o.trouble().say("a weight is below zero");
    if (o.has("anchors")) {
        const auto a = jsonList(o.value("anchors"), 2, o.trouble());
        c.anchors = {jsonNumber(a[0], o.trouble()), jsonNumber(a[1], o.trouble())};
    }
    o.list("ratings", [&](const QJsonValue& v) {
        const JsonFields r(v, o.trouble());
        c.ratings.push_back({r.text("option"), r.number("rating", 0)});
    });
    return c;
}

domain::Standing standingOf(const domain::PublishedValue& v) {
    return v.aside ? domain::Standing::aside : domain::Standing{domain::Taken::counts, v.bound};
}

QJsonObject publication(const domain::Publication& p) {
    QJsonObject o{{"at", text(p.at)}, {"metric", text(p.metric)}};
    putList(o, "values", p.values, [](const domain::PublishedValue& v) {
        QJsonObject value{{"pull", v.pull}, {"value", v.value}};
        if (const auto stands = standingOf(v); stands != domain::Standing::counts)
            value["standing"] = domain::key(stands);
        if (v.bound == stats::Bound::between) value["upper"] = v.upper;
        return value;
    });
    return o;
}

domain::Standing standingFrom(const JsonFields& o) {
    if (!o.has("standing")) return domain::Standing::counts;
    const auto stands = domain::standingFromKey(o.text("standing"));
    if (stands && stands->taken != domain::Taken::voided && stands->taken != domain::Taken::notRead)
        return *stands;
    o.trouble().say(QStringLiteral("nothing stands as \"%1\"").arg(text(o.text("standing"))));
    return domain::Standing::counts;
}

domain::Publication publicationFrom(const JsonFields& o) {
    domain::Publication p{o.text("at"), o.text("metric"), {}};
    o.list("values", [&](const QJsonValue& v) {
        const JsonFields f(v, o.trouble());
        const double value = f.number("value", 0);
        const auto [taken, bound] = standingFrom(f);
        const double upper = bound == stats::Bound::between ? f.number("upper", value) : value;
        p.values.push_back({f.id("pull"), value, upper, bound, taken == domain::Taken::aside});
    });
    return p;
}

} // namespace

QString senseWord(domain::Sense sense) { return senses[static_cast<std::size_t>(sense)]; }

domain::Sense senseFrom(const JsonFields& o) {
    if (!o.has("direction")) return domain::Sense::more;
    const auto word = o.text("direction");
    for (std::size_t i = 0; i < senses.size(); ++i)
        if (word == senses[i]) return static_cast<domain::Sense>(i);
    o.trouble().say(QStringLiteral("there is no direction \"%1\"").arg(text(word)));
    return domain::Sense::more;
}

QJsonObject toJson(const domain::ScoreCard& card) {
    QJsonObject o;
    put(o, "title", card.title);
    putList(o, "criteria", card.criteria, criterion);
    return o;
}

domain::ScoreCard cardFrom(const JsonFields& o) {
    domain::ScoreCard card{o.text("title"), {}};
    o.list("criteria",
           [&](const QJsonValue& v) { card.criteria.push_back(criterionFrom(JsonFields(v, o.trouble()))); });
    return card;
}

QJsonObject toJson(const domain::Telling& t) {
    QJsonObject o;
    putList(o, "references", t.references, [](const domain::Reference& r) {
        QJsonObject line{{"name", text(r.name)}, {"value", r.value}};
        put(line, "upper", r.upper);
        return line;
    });
    if (t.use != domain::Use{}) {
        QJsonObject use;
        putNumber(use, "design_factor", t.use.designFactor, 0);
        put(use, "why", t.use.why);
        putNumber(use, "step_n", t.use.step, 0);
        putNumber(use, "load_n", t.use.load, 0);
        putNumber(use, "uneven", t.use.uneven, 1);
        o["use"] = use;
    }
    putList(o, "left_out", t.leftOut, [](const std::string& key) { return text(key); });
    putList(o, "publications", t.publications, publication);
    putList(o, "corrections", t.corrections, [](const domain::Correction& c) {
        return QJsonObject{{"pull", c.pull}, {"at", text(c.at)}, {"why", text(c.why)}};
    });
    return o;
}

domain::Telling tellingFrom(const JsonFields& o) {
    domain::Telling t;
    o.list("references", [&](const QJsonValue& v) {
        const JsonFields f(v, o.trouble());
        t.references.push_back({f.text("name"), f.number("value", 0), f.number("upper")});
    });
    const auto use = o.object("use");
    t.use = {use.number("design_factor", 0), use.text("why"), use.number("step_n", 0),
             use.number("load_n", 0), use.number("uneven", 1)};
    o.list("left_out", [&](const QJsonValue& v) { t.leftOut.push_back(jsonText(v, o.trouble())); });
    o.list("publications", [&](const QJsonValue& v) {
        t.publications.push_back(publicationFrom(JsonFields(v, o.trouble())));
    });
    o.list("corrections", [&](const QJsonValue& v) {
        const JsonFields f(v, o.trouble());
        t.corrections.push_back({f.id("pull"), f.text("at"), f.text("why")});
    });
    return t;
}

} // namespace anvil::store
