// Reading stored JSON without trusting it.
#pragma once

#include <QJsonArray>
#include <QJsonObject>
#include <QString>
#include <anvil/quantity/error.h>
#include <optional>
#include <string>

namespace anvil::store {

/// What went wrong first while some JSON was read, if anything.
struct JsonTrouble {
    QString what;
    void say(const QString& text) {
        if (what.isEmpty()) what = text;
    }
    /// Error: "… is damaged: …".
    Expected<void> done(const char* whose) const;
};

/// The members of a stored object. A member that is not there has its usual value; one that is there and is
/// of another kind or out of bounds is trouble.
class JsonFields {
public:
    /// The object in `json`; empty text is an empty object.
    JsonFields(const QString& json, JsonTrouble& trouble);
    /// A member or element that must be an object.
    JsonFields(const QJsonValue& value, JsonTrouble& trouble);

    bool has(const char* key) const { return m_object.contains(QLatin1String(key)); }
    std::string text(const char* key) const;
    bool flag(const char* key) const;
    /// Finite and at most domain::bounds::value.
    std::optional<double> number(const char* key) const;
    double number(const char* key, double usual) const { return number(key).value_or(usual); }
    int integer(const char* key, int usual) const;
    std::optional<int> integer(const char* key) const;
    /// An id; 0 when missing.
    qint64 id(const char* key) const;
    JsonFields object(const char* key) const;
    /// Calls `element(QJsonValue)` for each of a list.
    template <class Element> void list(const char* key, Element element) const {
        for (const auto& v : array(key))
            element(v);
    }
    QJsonArray array(const char* key) const;

    QJsonValue value(const char* key) const { return m_object.value(QLatin1String(key)); }
    JsonTrouble& trouble() const { return m_trouble; }

private:
    QJsonObject m_object;
    JsonTrouble& m_trouble;
};

/// An element that must be a text, a number, or a list of exactly `size`.
std::string jsonText(const QJsonValue& v, JsonTrouble& trouble);
double jsonNumber(const QJsonValue& v, JsonTrouble& trouble);
QJsonArray jsonList(const QJsonValue& v, qsizetype size, JsonTrouble& trouble);
/// The list in `json`; empty text is an empty list.
QJsonArray jsonList(const QString& json, JsonTrouble& trouble);

} // namespace anvil::store
