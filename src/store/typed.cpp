// Values of the domain as rows: which table, and which fields have changed.
#include "json_rows.h"

#include <anvil/store/project.h>

namespace anvil::store {
namespace {

QString tableOf(const domain::Study&) { return QStringLiteral("study"); }
QString tableOf(const domain::Option&) { return QStringLiteral("option"); }
QString tableOf(const domain::Condition&) { return QStringLiteral("condition"); }
QString tableOf(const domain::Specimen&) { return QStringLiteral("specimen"); }
QString tableOf(const domain::Pull&) { return QStringLiteral("pull"); }
QString tableOf(const domain::Attachment&) { return QStringLiteral("attachment"); }

} // namespace

template <class T> Id Writer::add(const T& value) { return insert(tableOf(value), toRow(value)); }

template <class T> void Writer::change(const T& before, const T& after) {
    const auto was = toRow(before), is = toRow(after);
    QJsonObject changed;
    for (auto it = is.begin(); it != is.end(); ++it)
        if (was.value(it.key()) != it.value()) changed.insert(it.key(), it.value());
    if (!changed.isEmpty()) update(tableOf(before), before.id, changed);
}

template <class T> void Writer::remove(const T& value) { remove(tableOf(value), value.id); }

Id Writer::addSetup(const SetupRow& setup) {
    return insert(
        QStringLiteral("setup"),
        {{"rig", setup.rig}, {"version", setup.version}, {"made_at", setup.madeAt}, {"setup", setup.json}});
}

void Writer::apply(const QJsonObject& change, bool backwards) {
    const auto table = change["table"].toString();
    const Id id = change["id"].toInteger();
    const auto from = change[backwards ? "after" : "before"], to = change[backwards ? "before" : "after"];
    if (from.isNull())
        insert(table, to.toObject());
    else if (to.isNull())
        remove(table, id);
    else
        update(table, id, to.toObject());
}

#define ANVIL_ROWS(T)                                                                                        \
    template Id Writer::add(const domain::T&);                                                               \
    template void Writer::change(const domain::T&, const domain::T&);                                        \
    template void Writer::remove(const domain::T&);
ANVIL_ROWS(Study)
ANVIL_ROWS(Option)
ANVIL_ROWS(Condition)
ANVIL_ROWS(Specimen)
ANVIL_ROWS(Pull)
ANVIL_ROWS(Attachment)
#undef ANVIL_ROWS

} // namespace anvil::store
