// Damaged files: told, never shown as if nothing were.
#include "fields.h"
#include <QFile>
#include <QFileInfo>
#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <anvil/domain/bounds.h>
#include <anvil/store/project.h>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <random>

using namespace anvil;
using namespace anvil::store;

namespace {

/// A project with enough pulls for tables of many pages.
struct DamagedFile : testing::Test {
    QTemporaryDir dir;
    QString path = dir.filePath("p.anvil");
    std::vector<domain::StudyData> whole;
    std::map<Id, curve::Curve> curves;

    void SetUp() override {
        auto p = std::move(*Project::create(path));
        const auto ok = p->write("Fill", [&](Writer& w) {
            domain::Study s;
            s.title = "Pins";
            s.id = w.insert("study", toRow(s));
            std::vector<Id> options, conditions;
            for (int i = 0; i < 3; ++i) {
                domain::Option o{0, s.id, i, "Pin " + std::to_string(i), "peg", "", "", 1.5, 0.2};
                domain::Condition c{0, s.id, i, "Soil " + std::to_string(i), ""};
                options.push_back(w.insert("option", toRow(o)));
                conditions.push_back(w.insert("condition", toRow(c)));
            }
            for (int i = 0; i < 300; ++i) {
                domain::Specimen piece{0,
                                       s.id,
                                       options[i % 3],
                                       conditions[i / 3 % 3],
                                       i / 9 + 1,
                                       "P" + std::to_string(i),
                                       std::string(40, 'x')};
                domain::Pull pull;
                pull.specimen = w.insert("specimen", toRow(piece));
                pull.note = std::string(60, 'n');
                if (i % 10 == 0) {
                    curve::Curve c;
                    for (int k = 0; k < 500; ++k) {
                        c.time.push_back(k * 0.01);
                        c.load.push_back(k * (1 + 0.01 * i));
                    }
                    pull.curve = w.addCurve(c);
                } else {
                    pull.typed = domain::TypedValue{domain::metric("peak"), 1000.0 + i, 0, "x"};
                }
                w.insert("pull", toRow(pull));
            }
            w.addFile(ImportedFile::pack("log.csv", QByteArray(5000, 'q')));
        });
        ASSERT_TRUE(ok) << ok.error().message;
        whole = p->load().value();
        for (const auto& pull : whole[0].pulls)
            if (pull.curve) curves[pull.id] = p->curve(pull.curve).value();
    }

    /// Changes the file behind the program's back.
    void sql(const char* statement) const {
        {
            auto db = QSqlDatabase::addDatabase("QSQLITE", "behind");
            db.setDatabaseName(path);
            ASSERT_TRUE(db.open());
            QSqlQuery q(db);
            ASSERT_TRUE(q.exec(statement)) << statement << q.lastError().text().toStdString();
        }
        QSqlDatabase::removeDatabase("behind");
    }
    static std::string loadError(const QString& file) {
        const auto p = Project::open(file);
        if (!p) return p.error().message;
        const auto all = (*p)->load();
        return all ? std::string() : all.error().message;
    }
    QStringList problems() const {
        const auto p = Project::open(path, Project::Access::readOnly);
        return p ? (*p)->check().problems : QStringList{QString::fromStdString(p.error().message)};
    }
    /// It is told, or everything is right.
    void expectToldOrRight(const QString& file, const std::string& how) const {
        const auto p = Project::open(file);
        if (!p) return;
        const auto all = (*p)->load();
        if (!all) {
            EXPECT_TRUE((*p)->readOnly()) << how;
            EXPECT_FALSE((*p)->check().problems.isEmpty()) << how;
            return;
        }
        EXPECT_TRUE(*all == whole) << how;
        for (const auto& [pull, curve] : curves)
            if (const auto got = (*p)->curve((*all)[0].pull(pull)->curve)) {
                EXPECT_TRUE(*got == curve) << how;
            }
    }
};

/// Names that no database can hold letter by letter do not make a curve look damaged.
TEST_F(DamagedFile, ACurveWithAnOddNameIsNotDamaged) {
    Id id = 0;
    curve::Curve c;
    for (int k = 0; k < 50; ++k) {
        c.time.push_back(k);
        c.load.push_back(k);
    }
    c.others = {{"\xEF\xBB\xBFtime", "s", c.time},
                {"Gr\xF6\xDF"
                 "e",
                 "N", c.load},
                {"", "", c.load}};
    const auto p = std::move(*Project::open(path));
    ASSERT_TRUE(p->write("Odd", [&](Writer& w) { id = w.addCurve(c); }));
    const auto back = p->curve(id);
    ASSERT_TRUE(back) << back.error().message;
    EXPECT_EQ(back->load, c.load);
    EXPECT_TRUE(p->check().problems.isEmpty());
}

TEST_F(DamagedFile, AChangedNumberIsTold) {
    for (const char* change :
         {"UPDATE pull SET value = value + 1 WHERE id = 7", "UPDATE study SET margin = 0.2",
          "UPDATE option SET name = 'Pin 9' WHERE position = 2", "DELETE FROM pull WHERE id = 9",
          "UPDATE specimen SET option = 1 WHERE id = 12", "UPDATE channel SET unit = 'N·m' WHERE number = 1",
          "UPDATE curve SET samples = 499 WHERE id = 1", "UPDATE pull SET curve = NULL WHERE id = 1",
          "INSERT INTO condition (study, position, name, note) VALUES (1, 3, 'New', '')",
          "DELETE FROM seal WHERE of = 'pull' AND row = 3"}) {
        const auto copy = dir.filePath("copy");
        QFile::remove(copy);
        QFile::copy(path, copy);
        sql(change);
        EXPECT_NE(loadError(path).find("damaged"), std::string::npos) << change;
        EXPECT_FALSE(problems().isEmpty()) << change;
        QFile::remove(path);
        QFile::rename(copy, path);
    }
    EXPECT_EQ(loadError(path), "");
    EXPECT_TRUE(problems().isEmpty()) << problems().join(" ").toStdString();
}

TEST_F(DamagedFile, NothingIsWrittenToIt) {
    sql("UPDATE pull SET value = value + 1 WHERE id = 7");
    QFile before(path);
    ASSERT_TRUE(before.open(QIODevice::ReadOnly));
    const auto bytes = before.readAll();
    {
        auto p = Project::open(path);
        ASSERT_TRUE(p);
        EXPECT_TRUE((*p)->readOnly());
        EXPECT_FALSE((*p)->write("no", [](Writer& w) { w.update("study", 1, {{"title", "x"}}); }));
    }
    before.seek(0);
    EXPECT_EQ(before.readAll(), bytes);
    EXPECT_FALSE(QFileInfo::exists(path + "-wal"));
}

TEST_F(DamagedFile, AFileWithoutTablesIsTold) {
    sql("DROP TABLE attachment");
    EXPECT_NE(loadError(path).find("attachment"), std::string::npos) << loadError(path);
    EXPECT_FALSE(problems().isEmpty());
}

TEST_F(DamagedFile, AnythingThatActsByItselfIsTold) {
    sql("CREATE TRIGGER t AFTER UPDATE ON study BEGIN UPDATE pull SET value = 0; END");
    EXPECT_NE(loadError(path).find("trigger"), std::string::npos) << loadError(path);
}

TEST_F(DamagedFile, AVersionThatCannotBeIsLeftAlone) {
    for (const char* version : {"PRAGMA user_version = 0", "PRAGMA user_version = -3"}) {
        sql(version);
        EXPECT_NE(loadError(path).find("no file version"), std::string::npos) << loadError(path);
    }
}

/// A migration that fails leaves the file as it was and no copy of it, however often it is tried.
TEST_F(DamagedFile, AFailedMigrationLeavesNoCopies) {
    sql("PRAGMA user_version = 2"); // its tables are of version 4, so that none can be added
    for (int i = 0; i < 3; ++i)
        EXPECT_NE(loadError(path).find("unchanged"), std::string::npos) << loadError(path);
    EXPECT_EQ(QDir(dir.path()).entryList(QDir::Files), QStringList{"p.anvil"});
}

/// An old file that is damaged is not sealed as if it were sound.
TEST_F(DamagedFile, ADamagedOldFileIsNotBroughtUpToDate) {
    sql("DROP TABLE seal");
    sql("PRAGMA user_version = 3");
    sql("PRAGMA foreign_keys = OFF");
    sql("DELETE FROM specimen WHERE id = 5");
    EXPECT_NE(loadError(path).find("left as it is"), std::string::npos) << loadError(path);
    EXPECT_EQ(QDir(dir.path()).entryList(QDir::Files), QStringList{"p.anvil"});
}

/// Neither is one whose seals tell that a row was changed.
TEST_F(DamagedFile, AnOldFileWithABrokenSealIsNotSealedAnew) {
    const auto old = dir.filePath("old.anvil");
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-5.anvil"), old));
    QFile(old).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "break");
        db.setDatabaseName(old);
        ASSERT_TRUE(db.open());
        EXPECT_TRUE(QSqlQuery(db).exec("UPDATE pull SET value = value + 1 WHERE id = 3"));
    }
    QSqlDatabase::removeDatabase("break");
    EXPECT_NE(loadError(old).find("In pull, row 3 is not as it was written"), std::string::npos)
        << loadError(old);
}

/// One flipped bit, one page wiped, cut off or exchanged for another: it is told, or every number is right.
/// ANVIL_DAMAGES: how many projects.
TEST_F(DamagedFile, OneDamagedPageIsToldOrHarmless) {
    QFile file(path);
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    const auto bytes = file.readAll();
    constexpr qsizetype page = 16384;
    const auto pages = bytes.size() / page;
    std::mt19937_64 random(7);
    const auto upTo = [&](qsizetype n) {
        return static_cast<qsizetype>(random() % static_cast<std::uint64_t>(n));
    };
    const auto other = dir.filePath("other.anvil");
    const int count = std::max(1, qEnvironmentVariable("ANVIL_DAMAGES", "160").toInt());
    int told = 0;
    for (int i = 0; i < count; ++i) {
        auto damaged = bytes;
        const auto at = upTo(bytes.size()), of = at / page;
        std::string how = "page " + std::to_string(of);
        switch (i % 8) {
        case 5:
            damaged.replace(of * page, page, QByteArray(page, '\0'));
            how += " wiped";
            break;
        case 6:
            damaged.truncate(of * page);
            how += " and what follows cut off";
            break;
        case 7:
            damaged.replace(of * page, page, bytes.mid(upTo(pages) * page, page));
            how += " exchanged";
            break;
        default:
            damaged[at] = static_cast<char>(damaged[at] ^ (1 << upTo(8)));
            how += ", bit of byte " + std::to_string(at % page);
        }
        QFile out(other);
        ASSERT_TRUE(out.open(QIODevice::WriteOnly | QIODevice::Truncate));
        out.write(damaged);
        out.close();
        expectToldOrRight(other, how);
        const auto p = Project::open(other, Project::Access::readOnly);
        told += !p || !(*p)->check().problems.isEmpty();
        EXPECT_TRUE(told > 0 || i < 20) << "some of it must be found";
    }
    fmt::print("[ measured ] {} damaged projects: {} told by the check, the others without a wrong number\n",
               count, told);
}

TEST_F(DamagedFile, WhatCannotBeOpenedAgainIsNotWritten) {
    auto p = std::move(*Project::open(path));
    const auto refused = [&](const char* table, Id id, const QJsonObject& fields) {
        const auto done = p->write("no", [&](Writer& w) { w.update(table, id, fields); });
        EXPECT_FALSE(done) << table;
        return done ? std::string() : done.error().message;
    };
    EXPECT_NE(refused("study", 1, {{"margin", -0.1}}).find("margin"), std::string::npos);
    EXPECT_NE(refused("study", 1, {{"plan", "{\"replicates\": 2147483647}"}}).find("replicates"),
              std::string::npos);
    refused("study", 1, {{"plan", "{\"joints\": 2147483647}"}});
    refused("study", 1, {{"plan", "{\"recipe\": [{\"name\": \"wait\", \"minutes\": 1e300}]}"}});
    refused("study", 1, {{"metric", "beauty"}});
    refused("specimen", 1, {{"option", 77}});
    refused("pull", 2, {{"value", 1e200}});
    refused("pull", 2, {{"odd\" column", 1}});
    EXPECT_TRUE(p->load().value() == whole);
}

} // namespace
