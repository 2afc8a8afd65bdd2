// The lists of stored fields, against what is written about them.
#include "fields.h"
#include "schema.h"
#include "seal.h"
#include <anvil/store/project.h>

#include <QFile>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <gtest/gtest.h>

namespace anvil::store {
namespace {

/// The columns that a row of the table in docs/file-format.md names, in its order.
QStringList documented(const QString& table) {
    QFile file(QStringLiteral(TEST_DATA "/../../docs/file-format.md"));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    const auto lines = QString::fromUtf8(file.readAll()).split('\n');
    for (const auto& line : lines) {
        if (!line.startsWith("| `" + table + "` |")) continue;
        auto columns = line.section('|', 2);
        // What stands in brackets says what a column holds.
        static const QRegularExpression brackets("\\([^()]*\\)");
        while (columns.contains(brackets))
            columns.remove(brackets);
        QStringList out;
        static const QRegularExpression name("`([a-z_]+)`");
        for (auto it = name.globalMatch(columns); it.hasNext();)
            out << it.next().captured(1);
        return out;
    }
    ADD_FAILURE() << "no row of " << table.toStdString();
    return {};
}

TEST(StoredFields, EveryColumnIsDocumentedInItsOrder) {
    for (const auto& table : storedTables()) {
        QStringList columns;
        for (const auto& c : table.columns)
            columns << c.name;
        EXPECT_EQ(documented(table.name).join(", ").toStdString(), columns.join(", ").toStdString())
            << "of " << table.name.toStdString();
    }
}

TEST(StoredFields, EverySealedTableIsInTheDocument) {
    for (const auto& table : sealedTables())
        for (const auto& column : table.columns.split(", "))
            EXPECT_TRUE(documented(table.table).contains(column))
                << table.table.toStdString() << ": " << column.toStdString();
}

TEST(StoredFields, TheDocumentIsOfTheVersionThatIsWritten) {
    QFile file(QStringLiteral(TEST_DATA "/../../docs/file-format.md"));
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    EXPECT_TRUE(
        file.readAll().contains("## Tables of version " + QByteArray::number(schemaVersion()) + "\n"));
}

TEST(StoredFields, WhatCameLaterFindsSomethingInOldRows) {
    for (const auto& table : storedTables())
        for (const auto& c : table.columns) {
            EXPECT_GE(c.since, 1);
            EXPECT_TRUE(c.since == 1 || !c.sql.contains("NOT NULL") || c.sql.contains("DEFAULT"))
                << c.name.toStdString();
        }
}

/// A column that has come since is added to a file of before, without a statement of its own.
TEST(StoredFields, AFileOfVersion9GetsWhatCameAfterIt) {
    QTemporaryDir dir;
    const auto path = dir.filePath("p.anvil");
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-9.anvil"), path));
    QFile(path).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    {
        const auto project = Project::open(path);
        ASSERT_TRUE(project) << project.error().message;
        const auto studies = (*project)->load();
        ASSERT_TRUE(studies) << studies.error().message;
        ASSERT_EQ(studies->size(), 2U);
        EXPECT_EQ(studies->front().pulls.size(), 5U);
        const auto before = studies->front().options.front();
        EXPECT_EQ(before.supply, "");
        auto after = before;
        after.supply = "the yard, second shelf";
        ASSERT_TRUE((*project)->write("supply", [&](Writer& w) { w.change(before, after); }));
    }
    EXPECT_TRUE(QFile::exists(dir.filePath("p.version-9.anvil"))) << "the old file is kept";
    const auto again = Project::open(path);
    ASSERT_TRUE(again) << again.error().message;
    EXPECT_EQ((*again)->load()->front().options.front().supply, "the yard, second shelf");
    EXPECT_TRUE((*again)->check().problems.isEmpty());
}

/// As the seals of files are that were written before the lists were.
TEST(StoredFields, TheOrderOfOldSealsStaysAsItWas) {
    std::map<QString, QString> was;
    for (const auto& t : sealedTablesOf(5))
        was[t.table] = t.columns;
    EXPECT_EQ(was["pull"],
              "id, specimen, curve, performed_at, source_name, standing, reason, what_broke, note, looked, "
              "metric, value, upper, as_typed, reading, operator, setup, outcome, recording, practice");
    EXPECT_EQ(was["condition"], "id, study, position, name, note, value");
    EXPECT_EQ(was["attachment"], "id, pull, at_s, name, file");
    EXPECT_EQ(was["option"],
              "id, study, position, name, kind, unit_cost, currency, weight_kg, note, rating_n, "
              "rating_basis, grade, geometry");
    for (const auto& t : sealedTablesOf(9))
        was[t.table] = t.columns;
    EXPECT_EQ(was["pull"],
              "id, specimen, curve, performed_at, source_name, standing, reason, note, looked, metric, "
              "value, upper, as_typed, reading, operator, setup, outcome, recording, practice");
    EXPECT_EQ(was["condition"], "id, study, position, name, note, value, levels");
    EXPECT_EQ(was["attachment"], "id, pull, at_s, name, file, marks");
    EXPECT_EQ(
        was["specimen"],
        "id, study, option, condition, replicate, label, note, batch, block, measured, history, x_m, y_m");
    EXPECT_EQ(was["study"], "id, position, title, question, intent, metric, margin, note, plan");
    EXPECT_EQ(was["setup"], "id, rig, version, made_at, setup");
}

} // namespace
} // namespace anvil::store
