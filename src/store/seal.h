// A checksum for every row that is not samples, so that no damaged number is shown as if nothing were.
#pragma once

#include "query.h"
#include "statements.h"
#include <QStringList>
#include <vector>

namespace anvil::store {

/// A table whose rows are sealed; samples and kept files have checksums of their own.
struct SealedTable {
    QString table;
    QString key;     ///< an integer of its own for every row, in SQL
    QString find;    ///< how a row is found by it; every ? is the key
    QString columns; ///< what the checksum covers, in this order
};

/// The tables of fields (store/fields.h), and those of curves, kept files and the journal.
const std::vector<SealedTable>& sealedTables();
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
