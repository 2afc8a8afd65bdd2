// A checksum for every row that is not samples, so that no damaged number is shown as if nothing were.
#pragma once

#include "query.h"
#include "statements.h"
#include <QStringList>
#include <vector>

namespace anvil::store {

/// A table whose rows are sealed; samples and kept files have checksums of their own.
struct SealedTable {
    const char* table;
    const char* key;     ///< an integer of its own for every row, in SQL
    const char* find;    ///< how a row is found by it; every ? is the key
    const char* columns; ///< what the checksum covers, in this order
};

inline constexpr SealedTable sealedTables[] = {
    {"study", "id", "id = ?", "id, position, title, question, intent, metric, margin, note, plan"},
    {"option", "id", "id = ?",
     "id, study, position, name, kind, unit_cost, currency, weight_kg, note, rating_n, rating_basis, grade, "
     "geometry"},
    {"condition", "id", "id = ?", "id, study, position, name, note, value, levels"},
    {"specimen", "id", "id = ?",
     "id, study, option, condition, replicate, label, note, batch, block, measured, history, x_m, y_m"},
    {"pull", "id", "id = ?",
     "id, specimen, curve, performed_at, source_name, standing, reason, note, looked, metric, "
     "value, upper, as_typed, reading, operator, setup, outcome, recording, practice"},
    {"setup", "id", "id = ?", "id, rig, version, made_at, setup"},
    {"attachment", "id", "id = ?", "id, pull, at_s, name, file, marks"},
    {"curve", "id", "id = ?", "id, samples, digest, beside"},
    {"channel", "curve * 256 + number", "curve = ? / 256 AND number = ? % 256",
     "curve, number, kind, unit, name"},
    {"file", "id", "id = ?", "id, name, digest, bytes"}, // its data answer to its digest
    {"journal", "id", "id = ?", "id, at, who, what, undoes, changes"},
};
const SealedTable& sealedTable(const QString& table);

/// The tables that a file of this version has sealed, as they were then; none before version 4.
std::vector<SealedTable> sealedTablesOf(int version);

/// Checksum (XXH3, 64 bits) of the columns of the current row from `first` on: a byte for each one's type,
/// then its value; text and blobs with their length before them.
qint64 sealOf(const QSqlQuery& row, int first, int columns);

/// Seals a row as it stands in the file now, or takes away the seal of one that is gone. Error: the database
/// does not take it.
Expected<void> seal(Statements& statements, const SealedTable& table, Id key);
/// Seals everything, for a file of a version that had no seals.
Expected<void> sealAll(const QSqlDatabase& db);

/// What is wrong with the rows of a table, in sentences: not as they were written, missing, or not ours.
QStringList brokenSeals(const QSqlDatabase& db, const SealedTable& table);

} // namespace anvil::store
