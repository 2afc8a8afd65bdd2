// Writing JSON that is to be stored: a member that says nothing is left out.
#pragma once

#include <QJsonArray>
#include <QJsonObject>
#include <QString>
#include <optional>
#include <string>
#include <vector>

namespace anvil::store {

inline QString text(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

inline void put(QJsonObject& o, const char* key, const std::string& value) {
    if (!value.empty()) o[QLatin1String(key)] = text(value);
}
inline void put(QJsonObject& o, const char* key, const std::optional<double>& value) {
    if (value) o[QLatin1String(key)] = *value;
}
inline void put(QJsonObject& o, const char* key, const QJsonArray& values) {
    if (!values.isEmpty()) o[QLatin1String(key)] = values;
}
/// Left out where it is the usual one.
inline void putNumber(QJsonObject& o, const char* key, double value, double usual) {
    if (value != usual) o[QLatin1String(key)] = value;
}
/// A list of what `write` makes of each.
template <class T, class Write>
void putList(QJsonObject& o, const char* key, const std::vector<T>& all, Write write) {
    QJsonArray list;
    for (const auto& x : all)
        list.append(write(x));
    put(o, key, list);
}

} // namespace anvil::store
