#include "json_write.h"
#include <QJsonDocument>
#include <anvil/store/texts.h>

namespace anvil::store {

QByteArray dataPackageJson(const QString& name, const std::vector<TableText>& tables,
                           const QStringList& curves) {
    QJsonArray resources;
    for (const auto& table : tables) {
        QJsonArray fields, keys;
        for (const auto& f : table.fields) {
            fields.append(QJsonObject{{"name", f.name}, {"type", "string"}, {"description", f.holds}});
            if (f.refersTo.isEmpty() || f.refersTo.section('.', 0, 0) + ".csv" == table.file) continue;
            keys.append(QJsonObject{{"fields", f.name},
                                    {"reference", QJsonObject{{"resource", f.refersTo.section('.', 0, 0)},
                                                              {"fields", f.refersTo.section('.', 1)}}}});
        }
        QJsonObject schema{{"fields", fields}, {"missingValues", QJsonArray{""}}};
        if (!keys.isEmpty()) schema["foreignKeys"] = keys;
        resources.append(QJsonObject{{"name", table.file.section('.', 0, 0)},
                                     {"path", table.file},
                                     {"mediatype", "text/csv"},
                                     {"encoding", "utf-8"},
                                     {"schema", schema}});
    }
    for (const auto& curve : curves) {
        auto plain = curve.section('/', -1).section('.', 0, 0).toLower();
        resources.append(QJsonObject{
            {"name", "curve-" + plain}, {"path", curve}, {"mediatype", "text/csv"}, {"encoding", "utf-8"}});
    }
    QString safe;
    for (const auto c : name.toLower())
        safe += c.isLetterOrNumber() && c.unicode() < 128 ? c : QChar('-');
    return QJsonDocument(QJsonObject{{"name", safe.isEmpty() ? QStringLiteral("project") : safe},
                                     {"title", name},
                                     {"profile", "data-package"},
                                     {"resources", resources}})
        .toJson();
}

} // namespace anvil::store
