#include "json_fields.h"

#include <QJsonDocument>
#include <anvil/domain/bounds.h>
#include <cmath>
#include <limits>

namespace anvil::store {
namespace {

QJsonDocument document(const QString& json, JsonTrouble& trouble) {
    QJsonParseError error;
    auto out = QJsonDocument::fromJson(json.toUtf8(), &error);
    if (error.error != QJsonParseError::NoError) trouble.say(error.errorString());
    return out;
}

QString quoted(const char* key) { return QStringLiteral("\"%1\"").arg(QLatin1String(key)); }

bool fine(double v) { return std::abs(v) <= domain::bounds::value; } // not NaN either

} // namespace

Expected<void> JsonTrouble::done(const char* whose) const {
    if (what.isEmpty()) return {};
    return fail(std::string(whose) + " is damaged: " + what.toStdString() + ".");
}

JsonFields::JsonFields(const QString& json, JsonTrouble& trouble) : m_trouble(trouble) {
    if (json.isEmpty()) return;
    const auto all = document(json, trouble);
    if (!all.isObject()) trouble.say("it is no object");
    m_object = all.object();
}

JsonFields::JsonFields(const QJsonValue& value, JsonTrouble& trouble)
    : m_object(value.toObject()), m_trouble(trouble) {
    if (!value.isObject() && !value.isUndefined()) trouble.say("a member is no object");
}

std::string JsonFields::text(const char* key) const {
    const auto v = value(key);
    if (!v.isString() && !v.isUndefined()) m_trouble.say(quoted(key) + " is no text");
    return v.toString().toStdString();
}

bool JsonFields::flag(const char* key) const {
    const auto v = value(key);
    if (!v.isBool() && !v.isUndefined()) m_trouble.say(quoted(key) + " is neither true nor false");
    return v.toBool();
}

std::optional<double> JsonFields::number(const char* key) const {
    const auto v = value(key);
    if (v.isUndefined() || v.isNull()) return std::nullopt;
    if (!v.isDouble() || !fine(v.toDouble())) {
        m_trouble.say(quoted(key) + " is no number that can be");
        return std::nullopt;
    }
    return v.toDouble();
}

std::optional<int> JsonFields::integer(const char* key) const {
    const auto v = number(key);
    if (!v) return std::nullopt;
    if (*v != std::floor(*v) || std::abs(*v) > std::numeric_limits<int>::max()) {
        m_trouble.say(quoted(key) + " is no whole number that can be");
        return std::nullopt;
    }
    return static_cast<int>(*v);
}

int JsonFields::integer(const char* key, int usual) const { return integer(key).value_or(usual); }

qint64 JsonFields::id(const char* key) const {
    const auto v = value(key);
    if (v.isUndefined() || v.isNull()) return 0;
    const auto id = v.toInteger(-1);
    if (id < 0) m_trouble.say(quoted(key) + " is no number of a row");
    return std::max<qint64>(id, 0);
}

JsonFields JsonFields::object(const char* key) const { return {value(key), m_trouble}; }

QJsonArray JsonFields::array(const char* key) const {
    const auto v = value(key);
    if (!v.isArray() && !v.isUndefined()) m_trouble.say(quoted(key) + " is no list");
    return v.toArray();
}

std::string jsonText(const QJsonValue& v, JsonTrouble& trouble) {
    if (!v.isString()) trouble.say("an element is no text");
    return v.toString().toStdString();
}

double jsonNumber(const QJsonValue& v, JsonTrouble& trouble) {
    if (!v.isDouble() || !fine(v.toDouble())) trouble.say("an element is no number that can be");
    return v.toDouble();
}

QJsonArray jsonList(const QJsonValue& v, qsizetype size, JsonTrouble& trouble) {
    auto list = v.toArray();
    if (list.size() == size) return list;
    trouble.say(QStringLiteral("a list of %1 has %2").arg(size).arg(list.size()));
    QJsonArray out; // of the right length, so that whoever reads on finds something
    for (qsizetype i = 0; i < size; ++i)
        out.append(QJsonValue());
    return out;
}

QJsonArray jsonList(const QString& json, JsonTrouble& trouble) {
    if (json.isEmpty()) return {};
    const auto all = document(json, trouble);
    if (!all.isArray()) trouble.say("it is no list");
    return all.array();
}

} // namespace anvil::store
