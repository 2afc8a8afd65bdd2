#include "fields.h"

#include "json_fields.h"
#include "json_write.h"
#include <QJsonDocument>
#include <anvil/store/texts.h>

namespace anvil::store {
namespace {

template <class M> struct Member;
template <class T, class V> struct Member<V T::*> {
    using Owner = T;
    using Value = V;
};
template <auto M> using Of = Field<typename Member<decltype(M)>::Owner>;
template <auto M> using Owner = typename Member<decltype(M)>::Owner;

constexpr const char* mustSay = "TEXT NOT NULL";
constexpr const char* emptyAtFirst = "TEXT NOT NULL DEFAULT ''";
constexpr const char* number = "INTEGER NOT NULL";
constexpr const char* real = "REAL";

template <auto M> constexpr Of<M> key() {
    return {"id", "INTEGER PRIMARY KEY AUTOINCREMENT", [](const Owner<M>& t) { return QJsonValue(t.*M); },
            [](Owner<M>& t, const Cell& c) { t.*M = c.id(); }};
}
/// The row of another table; 0 is none, where there may be none.
template <auto M> constexpr Of<M> reference(const char* column, const char* sql, int since = 1) {
    return {column, sql, [](const Owner<M>& t) { return QJsonValue(t.*M); },
            [](Owner<M>& t, const Cell& c) { t.*M = c.id(); }, since};
}
template <auto M> constexpr Of<M> maybe(const char* column, const char* sql, int since = 1) {
    return {column, sql,
            [](const Owner<M>& t) { return t.*M ? QJsonValue(t.*M) : QJsonValue(QJsonValue::Null); },
            [](Owner<M>& t, const Cell& c) { t.*M = c.id(); }, since};
}
template <auto M> constexpr Of<M> integer(const char* column) {
    return {column, number, [](const Owner<M>& t) { return QJsonValue(t.*M); },
            [](Owner<M>& t, const Cell& c) { t.*M = c.integer(); }};
}
template <auto M> constexpr Of<M> flag(const char* column, const char* sql = number, int since = 1) {
    return {column, sql, [](const Owner<M>& t) { return QJsonValue(t.*M ? 1 : 0); },
            [](Owner<M>& t, const Cell& c) { t.*M = c.integer() != 0; }, since};
}
template <auto M> constexpr Of<M> words(const char* column, const char* sql = mustSay, int since = 1) {
    if constexpr (std::is_same_v<typename Member<decltype(M)>::Value, QString>)
        return {column, sql, [](const Owner<M>& t) { return QJsonValue(t.*M); },
                [](Owner<M>& t, const Cell& c) { t.*M = c.string(); }, since};
    else
        return {column, sql, [](const Owner<M>& t) { return QJsonValue(text(t.*M)); },
                [](Owner<M>& t, const Cell& c) { t.*M = c.text(); }, since};
}
/// SI, or nothing.
template <auto M> constexpr Of<M> quantity(const char* column, int since = 1) {
    return {column, real,
            [](const Owner<M>& t) { return t.*M ? QJsonValue(*(t.*M)) : QJsonValue(QJsonValue::Null); },
            [](Owner<M>& t, const Cell& c) { t.*M = c.number(); }, since};
}

constexpr const char* ofStudy = "INTEGER NOT NULL REFERENCES study DEFERRABLE INITIALLY DEFERRED";
constexpr const char* ofOption = "INTEGER NOT NULL REFERENCES option DEFERRABLE INITIALLY DEFERRED";
constexpr const char* ofCondition = "INTEGER NOT NULL REFERENCES condition DEFERRABLE INITIALLY DEFERRED";
constexpr const char* ofSpecimen = "INTEGER NOT NULL REFERENCES specimen DEFERRABLE INITIALLY DEFERRED";
constexpr const char* ofPull = "INTEGER NOT NULL REFERENCES pull DEFERRABLE INITIALLY DEFERRED";
constexpr const char* ofFile = "INTEGER NOT NULL REFERENCES file DEFERRABLE INITIALLY DEFERRED";
constexpr const char* aCurve = "INTEGER REFERENCES curve DEFERRABLE INITIALLY DEFERRED";
constexpr const char* aSetup = "INTEGER REFERENCES setup DEFERRABLE INITIALLY DEFERRED";

using domain::Study;
constexpr Field<Study> studyFields[] = {
    key<&Study::id>(),
    integer<&Study::position>("position"),
    words<&Study::title>("title"),
    words<&Study::question>("question"),
    {"intent", mustSay, [](const Study& s) { return QJsonValue(domain::key(s.intent)); },
     [](Study& s, const Cell& c) { s.intent = c.meant(domain::intentFromKey(c.text()), "intent"); }},
    {"metric", mustSay, [](const Study& s) { return QJsonValue(text(s.goal.metric->key)); },
     [](Study& s, const Cell& c) {
         s.goal.metric = c.meant(domain::metricFromKey(c.text(), s.plan.method), "metric");
     },
     1, true},
    {"margin", "REAL NOT NULL", [](const Study& s) { return QJsonValue(s.goal.margin); },
     [](Study& s, const Cell& c) { s.goal.margin = c.number().value_or(0); }, 1, true},
    words<&Study::note>("note"),
    {"plan", "TEXT NOT NULL DEFAULT '{}'", [](const Study& s) { return QJsonValue(planToJson(s)); },
     [](Study& s, const Cell& c) {
         auto stored = c.taken(planFromJson(c.string()));
         s.goal = std::move(stored.goal);
         s.plan = std::move(stored.plan);
         s.card = std::move(stored.card);
         s.telling = std::move(stored.telling);
     }},
};

using domain::Option;
constexpr Field<Option> optionFields[] = {
    key<&Option::id>(),
    reference<&Option::study>("study", ofStudy),
    integer<&Option::position>("position"),
    words<&Option::name>("name"),
    words<&Option::kind>("kind"),
    quantity<&Option::unitCost>("unit_cost"),
    words<&Option::currency>("currency"),
    quantity<&Option::weight>("weight_kg"),
    words<&Option::note>("note"),
    quantity<&Option::rating>("rating_n"),
    words<&Option::ratingBasis>("rating_basis", emptyAtFirst),
    words<&Option::grade>("grade", emptyAtFirst),
    words<&Option::geometry>("geometry", emptyAtFirst, 2),
    words<&Option::supply>("supply", emptyAtFirst, 10),
};

QJsonValue levelsOf(const domain::Condition& c) {
    QJsonArray levels;
    for (const auto& level : c.levels)
        levels.append(text(level));
    return QString::fromUtf8(QJsonDocument(levels).toJson(QJsonDocument::Compact));
}

void readLevels(domain::Condition& condition, const Cell& c) {
    JsonTrouble trouble;
    for (const auto& v : jsonList(c.string(), trouble))
        if (auto level = QString::fromStdString(jsonText(v, trouble)).trimmed(); !level.isEmpty())
            condition.levels.push_back(level.toStdString());
    if (auto ok = trouble.done("A condition"); !ok) c.fail(ok.error().message);
}

using domain::Condition;
constexpr Field<Condition> conditionFields[] = {
    key<&Condition::id>(),
    reference<&Condition::study>("study", ofStudy),
    integer<&Condition::position>("position"),
    words<&Condition::name>("name"),
    words<&Condition::note>("note"),
    quantity<&Condition::value>("value"),
    {"levels", "TEXT NOT NULL DEFAULT '[]'", levelsOf, readLevels, 8},
};

using domain::Specimen;
constexpr Field<Specimen> specimenFields[] = {
    key<&Specimen::id>(),
    reference<&Specimen::study>("study", ofStudy),
    reference<&Specimen::option>("option", ofOption),
    reference<&Specimen::condition>("condition", ofCondition),
    integer<&Specimen::replicate>("replicate"),
    words<&Specimen::label>("label"),
    words<&Specimen::note>("note"),
    words<&Specimen::batch>("batch", emptyAtFirst),
    words<&Specimen::block>("block", emptyAtFirst),
    {"measured", "TEXT NOT NULL DEFAULT '[]'",
     [](const Specimen& s) {
         return QJsonValue(pieceToJson({s.measured, s.inputs}));
     },
     [](Specimen& s, const Cell& c) {
         auto piece = c.taken(pieceFromJson(c.string()));
         s.measured = std::move(piece.measured);
         s.inputs = std::move(piece.inputs);
     }},
    words<&Specimen::history>("history", emptyAtFirst),
    quantity<&Specimen::x>("x_m", 2),
    quantity<&Specimen::y>("y_m", 2),
};

/// Of a number that was typed; null where there is none.
QJsonValue typed(const domain::Pull& p, QJsonValue (*of)(const domain::TypedValue&)) {
    return p.typed ? of(*p.typed) : QJsonValue(QJsonValue::Null);
}

using domain::Pull;
constexpr Field<Pull> pullFields[] = {
    key<&Pull::id>(),
    reference<&Pull::specimen>("specimen", ofSpecimen),
    maybe<&Pull::curve>("curve", aCurve),
    words<&Pull::performedAt>("performed_at"),
    words<&Pull::sourceName>("source_name"),
    {"standing", mustSay, [](const Pull& p) { return QJsonValue(domain::key(p.standing)); },
     [](Pull& p, const Cell& c) { p.standing = c.meant(domain::standingFromKey(c.text()), "standing"); }},
    words<&Pull::reason>("reason"),
    words<&Pull::note>("note"),
    flag<&Pull::looked>("looked"),
    {"metric", "TEXT",
     [](const Pull& p) {
         return typed(p, [](const domain::TypedValue& v) { return QJsonValue(text(v.metric->key)); });
     },
     [](Pull& p, const Cell& c) {
         if (p.typed) p.typed->metric = c.meant(domain::metricFromKey(c.text()), "metric");
     },
     1, true},
    {"value", real,
     [](const Pull& p) { return typed(p, [](const domain::TypedValue& v) { return QJsonValue(v.value); }); },
     [](Pull& p, const Cell& c) {
         if (!c.null()) p.typed.emplace().value = c.number().value_or(0); // a result was typed
     }},
    {"upper", real,
     [](const Pull& p) { return typed(p, [](const domain::TypedValue& v) { return QJsonValue(v.upper); }); },
     [](Pull& p, const Cell& c) {
         if (p.typed) p.typed->upper = c.number().value_or(0);
     },
     1, true},
    {"as_typed", "TEXT",
     [](const Pull& p) {
         return typed(p, [](const domain::TypedValue& v) { return QJsonValue(text(v.asTyped)); });
     },
     [](Pull& p, const Cell& c) {
         if (p.typed) p.typed->asTyped = c.text();
     },
     1, true},
    {"reading", mustSay, [](const Pull& p) { return QJsonValue(settingsToJson(p.settings)); },
     [](Pull& p, const Cell& c) { p.settings = c.taken(settingsFromJson(c.string())); }},
    words<&Pull::operatorName>("operator", emptyAtFirst, 2),
    maybe<&Pull::setup>("setup", aSetup, 2),
    {"outcome", "TEXT NOT NULL DEFAULT '{}'",
     [](const Pull& p) { return QJsonValue(outcomeToJson(p.outcome)); },
     [](Pull& p, const Cell& c) { p.outcome = c.taken(outcomeFromJson(c.string())); }, 2},
    {"recording", emptyAtFirst, [](const Pull& p) { return QJsonValue(domain::key(p.recording)); },
     [](Pull& p, const Cell& c) {
         p.recording = c.meant(domain::recordingFromKey(c.text()), "state of a recording");
     },
     2},
    flag<&Pull::practice>("practice", "INTEGER NOT NULL DEFAULT 0", 2),
};

constexpr Field<SetupRow> setupFields[] = {
    key<&SetupRow::id>(),
    words<&SetupRow::rig>("rig"),
    integer<&SetupRow::version>("version"),
    words<&SetupRow::madeAt>("made_at"),
    words<&SetupRow::json>("setup"),
};

using domain::Attachment;
constexpr Field<Attachment> attachmentFields[] = {
    key<&Attachment::id>(),
    reference<&Attachment::pull>("pull", ofPull),
    quantity<&Attachment::at>("at_s"),
    words<&Attachment::name>("name"),
    reference<&Attachment::file>("file", ofFile),
    {"marks", "TEXT NOT NULL DEFAULT '{}'",
     [](const Attachment& a) { return QJsonValue(marksToJson(a.marks)); },
     [](Attachment& a, const Cell& c) { a.marks = c.taken(marksFromJson(c.string())); }, 9},
};

template <class T> StoredTable table() {
    StoredTable out{tableOf<T>(), {}};
    for (const auto& f : fieldsOf<T>())
        out.columns.push_back({f.column, f.sql, f.since});
    return out;
}

} // namespace

#define ANVIL_KEPT(T, NAME)                                                                                  \
    template <> std::span<const Field<T>> fieldsOf() { return NAME##Fields; }                                \
    template <> const char* tableOf<T>() { return #NAME; }                                                   \
    template <> QJsonObject toRow(const T& value) {                                                          \
        QJsonObject row;                                                                                     \
        for (const auto& f : fieldsOf<T>())                                                                  \
            row[QLatin1String(f.column)] = f.write(value);                                                   \
        return row;                                                                                          \
    }
ANVIL_KEPT(domain::Study, study)
ANVIL_KEPT(domain::Option, option)
ANVIL_KEPT(domain::Condition, condition)
ANVIL_KEPT(domain::Specimen, specimen)
ANVIL_KEPT(domain::Pull, pull)
ANVIL_KEPT(domain::Attachment, attachment)
ANVIL_KEPT(SetupRow, setup)
#undef ANVIL_KEPT

const std::vector<StoredTable>& storedTables() {
    static const std::vector<StoredTable> all{table<Study>(),     table<Option>(), table<Condition>(),
                                              table<Specimen>(),  table<Pull>(),   table<SetupRow>(),
                                              table<Attachment>()};
    return all;
}

} // namespace anvil::store
