#include "schema.h"

#include "fields.h"
#include <anvil/store/project.h>

namespace anvil::store {

QStringList schema() {
    QStringList all;
    for (const auto& table : storedTables()) {
        QStringList columns;
        for (const auto& c : table.columns)
            columns << c.name + ' ' + c.sql;
        // Of a rig no version is there twice.
        if (table.name == "setup") columns << "UNIQUE (rig, version)";
        all << QStringLiteral("CREATE TABLE %1 (%2)").arg(table.name, columns.join(", "));
    }
    for (const char* sql : tablesOfSamples)
        all << sql;
    return all;
}

int schemaVersion() {
    static const int newest = [] {
        auto at = static_cast<int>(std::size(migrations)) + 1; // what was told by statements
        for (const auto& table : storedTables())
            for (const auto& c : table.columns)
                at = std::max(at, c.since);
        return at;
    }();
    return newest;
}

QStringList migrationFrom(int version) {
    QStringList all;
    const auto at = static_cast<std::size_t>(version) - 1;
    if (at < std::size(migrations)) {
        for (const char* sql : migrations[at])
            all << sql;
        return all;
    }
    for (const auto& table : storedTables())
        for (const auto& c : table.columns)
            if (c.since == version + 1)
                all << QStringLiteral("ALTER TABLE %1 ADD COLUMN %2 %3").arg(table.name, c.name, c.sql);
    return all;
}

} // namespace anvil::store
