// What a project keeps of each thing: a row a field, with its column, what SQL says of it, and how it is
// written and read. The tables, their seals, what is written and what is read all follow from these lists.
#pragma once

#include "query.h"
#include <QJsonValue>
#include <QStringList>
#include <anvil/domain/model.h>
#include <anvil/store/project.h>
#include <span>

namespace anvil::store {

/// One cell of a row that is read, and where it is said that it cannot be.
struct Cell {
    const Query& row;
    int column;
    std::string& wrong; ///< the first thing that cannot be, a sentence

    bool null() const { return row.null(column); }
    Id id() const { return row.id(column); }
    int integer() const { return row.integer(column); }
    QString string() const { return row.string(column); }
    std::string text() const { return row.text(column); }
    std::optional<double> number() const { return row.number(column); }
    void fail(const std::string& sentence) const {
        if (wrong.empty()) wrong = sentence;
    }
    template <class V> V taken(Expected<V> value) const {
        if (value) return std::move(*value);
        fail(value.error().message);
        return {};
    }
    /// What a word in the file stands for.
    template <class V> V meant(const std::optional<V>& value, const char* what) const {
        if (!value) fail("The project is damaged: there is no " + std::string(what) + " \"" + text() + "\".");
        return value.value_or(V{});
    }
};

/// A column of a table of T.
template <class T> struct Field {
    const char* column;
    const char* sql; ///< its type, and what holds of it
    QJsonValue (*write)(const T&);
    void (*read)(T&, const Cell&);
    int since = 1;     ///< the version of the file that had it first
    bool late = false; ///< read after the others: what it means rests on one of them
};

/// The fields of a study, an option, a condition, a piece, a pull, a picture or a set-up, in the order of the
/// table and of its seal.
template <class T> std::span<const Field<T>> fieldsOf();
/// The table they are kept in.
template <class T> const char* tableOf();

/// A row as it is written and journalled.
template <class T> QJsonObject toRow(const T& value);

/// Calls `take(T)` for every row of the table. Error: a sentence about the first cell that cannot be, or the
/// database's.
template <class T, class Take> Expected<void> readAll(const QSqlDatabase& db, const char* order, Take take) {
    const auto fields = fieldsOf<T>();
    QStringList columns;
    for (const auto& f : fields)
        columns << QString::fromLatin1(f.column);
    std::string wrong;
    const auto walked =
        each(db, "SELECT " + columns.join(", ") + " FROM \"" + tableOf<T>() + "\" ORDER BY " + order, {},
             [&](const Query& q) {
                 T value;
                 for (const bool late : {false, true})
                     for (std::size_t i = 0; i < fields.size(); ++i)
                         if (fields[i].late == late) fields[i].read(value, {q, static_cast<int>(i), wrong});
                 take(std::move(value));
             });
    if (!walked) return walked;
    if (!wrong.empty()) return fail(wrong);
    return {};
}

/// A column as it stands in a file.
struct StoredColumn {
    QString name, sql;
    int since = 1;
};
/// A table whose columns are fields.
struct StoredTable {
    QString name;
    std::vector<StoredColumn> columns;
};
const std::vector<StoredTable>& storedTables();

} // namespace anvil::store
