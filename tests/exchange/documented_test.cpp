// docs/exchange.md against the tables that are read and written.
#include "columns.h"

#include <QFile>
#include <QStringList>
#include <gtest/gtest.h>

namespace anvil::exchange {
namespace {

struct Documented {
    QString name, holds, refersTo;
};

/// The rows under "## FILE": its columns.
std::vector<Documented> documented(const QString& file) {
    QFile in(QStringLiteral(TEST_DATA "/../../docs/exchange.md"));
    EXPECT_TRUE(in.open(QIODevice::ReadOnly));
    const auto section =
        QString::fromUtf8(in.readAll()).section("\n## " + file + "\n", 1).section("\n## ", 0, 0);
    std::vector<Documented> out;
    for (const auto& line : section.split('\n')) {
        if (!line.startsWith("| ") || line.startsWith("| column |")) continue;
        const auto cells = line.split('|');
        out.push_back({cells.value(1).trimmed(), cells.value(2).trimmed(), cells.value(3).trimmed()});
    }
    return out;
}

QString text(std::string_view s) { return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size())); }

TEST(DocumentedColumns, AreThoseThatAreReadAndWritten) {
    for (const auto* table : allTables) {
        const auto rows = documented(text(table->file));
        ASSERT_EQ(rows.size(), table->columns.size()) << table->file;
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const auto& column = table->columns[i];
            const auto where = std::string(table->file) + ", " + std::string(column.name);
            EXPECT_EQ(rows[i].name, text(column.name)) << where;
            EXPECT_EQ(rows[i].refersTo, text(column.refersTo)) << where;
            EXPECT_TRUE(rows[i].holds.startsWith(column.holds.empty() ? "a note" : text(column.holds)))
                << where << ": " << rows[i].holds.toStdString();
        }
    }
}

} // namespace
} // namespace anvil::exchange
