// Values of the domain as rows: which table, and which fields have changed.
#include "fields.h"

#include <anvil/store/project.h>

namespace anvil::store {

template <class T> Id Writer::add(const T& value) { return insert(tableOf<T>(), toRow(value)); }

template <class T> void Writer::change(const T& before, const T& after) {
    const auto was = toRow(before), is = toRow(after);
    QJsonObject changed;
    for (auto it = is.begin(); it != is.end(); ++it)
        if (was.value(it.key()) != it.value()) changed.insert(it.key(), it.value());
    if (!changed.isEmpty()) update(tableOf<T>(), before.id, changed);
}

template <class T> void Writer::remove(const T& value) { remove(tableOf<T>(), value.id); }

Id Writer::addSetup(const SetupRow& setup) {
    auto row = toRow(setup);
    row.remove("id"); // always a new one
    return insert(tableOf<SetupRow>(), row);
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
