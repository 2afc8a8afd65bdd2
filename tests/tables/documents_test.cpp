// Spreadsheets of several writers, web pages and packed files: the same pull read out of each.
#include "../../src/tables/documents.h"

#include <algorithm>
#include <anvil/tables/file.h>
#include <anvil/tables/log.h>
#include <anvil/tables/values.h>
#include <fmt/format.h>
#include <fstream>
#include <gtest/gtest.h>
#include <zip.h>

using namespace anvil;
using namespace anvil::tables;

namespace {

/// What this process has in memory.
double residentBytes() {
    std::ifstream in("/proc/self/statm");
    double all = 0, resident = 0;
    in >> all >> resident;
    return resident * 4096;
}

std::string sample(const std::string& name) {
    auto bytes = readFile(std::string(TEST_DATA) + "/sheets/" + name);
    EXPECT_TRUE(bytes) << name;
    return bytes ? std::string(bytes->begin(), bytes->end()) : std::string();
}

class Spreadsheets : public testing::TestWithParam<const char*> {};

/// 40 samples at 20 Hz: ten at nothing, then 62.5 N more each 0.02 mm, gone after the 36th.
TEST_P(Spreadsheets, HoldTheSamePull) {
    const auto log = readLog(sample(GetParam()));
    ASSERT_TRUE(log) << log.error().message;
    ASSERT_EQ(log->runs.size(), 1U);
    const auto& c = log->runs[0].curve;
    ASSERT_EQ(c.load.size(), 40U);
    ASSERT_EQ(c.time.size(), 40U);
    ASSERT_EQ(c.travel.size(), 40U);
    EXPECT_TRUE(log->forceUnitKnown && log->displacementUnitKnown);
    EXPECT_EQ(log->rowsLeftOut, 0U);
    for (int i = 0; i < 40; ++i) {
        const auto k = static_cast<std::size_t>(i);
        EXPECT_NEAR(c.load[k], i < 10 || i > 35 ? 0 : (i - 9) * 62.5, 1e-12) << i;
        EXPECT_NEAR(c.travel[k], std::max(0, i - 9) * 2e-5, 1e-15) << i;
        EXPECT_NEAR(c.time[k] - c.time[0], i * 0.05, 2e-6) << i;
    }
}

INSTANTIATE_TEST_SUITE_P(Writers, Spreadsheets,
                         testing::Values("stamps.xlsx", "formulas.xlsx", "plain.xlsx", "stamps.xls",
                                         "plain.xls", "stamps.ods", "plain.ods", "plain.html", "plain.csv.gz",
                                         "plain-3.ods", "plain-3.xls", "stamps-3.ods", "stamps-3.xls"),
                         [](const auto& info) {
                             std::string n = info.param;
                             std::replace_if(
                                 n.begin(), n.end(), [](char c) { return c == '.' || c == '-'; }, '_');
                             return n;
                         });

// A workbook of a few megabytes may have its cells anywhere: what lies between them takes no room, and a text
// that would be larger than any log is refused.
TEST(Documents, CellsFarApartTakeNoRoom) {
    Cells far;
    const auto before = residentBytes();
    for (std::size_t row = 0; row < 60'000; ++row)
        far.set(row, Cells::mostColumns - 1, "1");
    EXPECT_FALSE(far.tooLarge());
    EXPECT_LT(residentBytes() - before, 100e6) << "3.8 GB with a string for every cell left empty";
    const auto text = far.text();
    EXPECT_EQ(text.size(), 60'000 * (Cells::mostColumns + 1));
    for (std::size_t row = 0; row < Cells::mostRows && !far.tooLarge(); ++row)
        far.set(row, Cells::mostColumns - 2, "1");
    EXPECT_TRUE(far.tooLarge());
    EXPECT_LT(residentBytes() - before, 400e6);
}

TEST(Documents, CellsComeInAnyOrderAndTheLastOneCounts) {
    Cells cells;
    cells.set(1, 2, "c");
    cells.set(1, 0, "a");
    cells.set(0, 1, "b");
    cells.set(1, 2, "d");
    cells.set(3, 0, 2.5);
    cells.fillDown(3, 0, 1);
    EXPECT_EQ(cells.text(), "\tb\na\t\td\n\n2.5\n2.5\n");
}

TEST(Documents, AlikeSheetsAreRunsOfTheirOwnAndOneCanBeChosen) {
    const auto bytes = sample("inline.xlsx");
    const auto log = readLog(bytes);
    ASSERT_TRUE(log) << log.error().message;
    ASSERT_EQ(log->runs.size(), 2U);
    EXPECT_EQ(log->runs[0].label, "Gorse 1");
    EXPECT_EQ(log->runs[1].label, "Gorse 2");
    EXPECT_EQ(log->runs[1].curve.load[20], 2 * log->runs[0].curve.load[20]);
    ASSERT_EQ(log->notes.size(), 1U);
    EXPECT_EQ(log->notes[0], "Its sheets \"Gorse 1\", \"Gorse 2\" are runs of their own.");
    for (const char* sheet : {"gorse 2", "2"}) {
        Hints hints;
        hints.sheet = sheet;
        const auto one = readLog(bytes, hints);
        ASSERT_TRUE(one);
        ASSERT_EQ(one->runs.size(), 1U);
        EXPECT_EQ(one->sheet, "Gorse 2");
        EXPECT_EQ(one->runs[0].curve.load[20], log->runs[1].curve.load[20]);
    }
    Hints hints;
    hints.sheet = "Gorse 3";
    EXPECT_EQ(readLog(bytes, hints).error().message,
              "there is no sheet \"Gorse 3\"; the sheets are \"Gorse 1\", \"Gorse 2\"");
}

TEST(Documents, SheetsWithoutACurveAreNamed) {
    const auto log = readLog(sample("stamps.xlsx"));
    ASSERT_TRUE(log);
    EXPECT_EQ(log->sheet, "Pull 1");
    EXPECT_EQ(log->encoding, "Excel workbook (xlsx)");
    EXPECT_TRUE(std::any_of(log->notes.begin(), log->notes.end(),
                            [](const auto& n) { return n == "Nothing was read from \"Notes\"."; }));
}

TEST(Documents, ANameMergedOverRowsStandsForAllOfThem) {
    for (const char* file : {"merged.xlsx", "merged.html", "merged.xls", "merged-3.xls", "merged-3.ods"}) {
        const auto table = readValues(sample(file));
        ASSERT_TRUE(table) << file << ": " << table.error().message;
        ASSERT_EQ(table->rows.size(), 12U) << file;
        for (std::size_t i = 0; i < 12; ++i) {
            EXPECT_EQ(table->rows[i].option, i < 6 ? "Gorse hook" : "Alder clip") << file << i;
            EXPECT_EQ(table->rows[i].condition, i % 6 < 3 ? "dry" : "wet") << file << i;
            EXPECT_DOUBLE_EQ(table->rows[i].value.value, 1.125 + 0.125 * static_cast<double>(i)) << file;
            EXPECT_EQ(table->rows[i].unit->symbol, "kN") << file;
        }
    }
}

TEST(Documents, EveryKindOfCellIsThere) {
    const auto doc = openDocument(sample("types.ods"));
    ASSERT_TRUE(doc && *doc);
    EXPECT_EQ((*doc)->sheets.at(0).text, "00:00:05.250\t0.5\t3.5\tTRUE\tx\n1.5\t7\t7\t7\n");
}

TEST(Documents, DatesOfSpreadsheets) {
    EXPECT_EQ(dateText(46083.587187500, false, false), "2026-03-02 14:05:33");
    EXPECT_EQ(dateText(0.5, true, false), "12:00:00");
    EXPECT_EQ(dateText(1.25, true, false), "30:00:00") << "an elapsed time of more than a day";
    EXPECT_EQ(dateText(46083.5, true, false), "2026-03-02 12:00:00") << "a date shown as a time of day";
    EXPECT_EQ(dateText(44621.5, false, true), "2026-03-02 12:00:00") << "days since 1904";
    EXPECT_EQ(dateText(5.25 / 86400, true, false), "00:00:05.250");
}

/// An archive as a broken or hostile writer would make it.
std::string archive(const std::vector<std::pair<std::string, std::string>>& parts) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* out = zip_source_buffer_create(nullptr, 0, 0, &error);
    zip_source_keep(out);
    zip_t* z = zip_open_from_source(out, ZIP_TRUNCATE, &error);
    for (const auto& [name, text] : parts)
        zip_file_add(z, name.c_str(), zip_source_buffer(z, text.data(), text.size(), 0), ZIP_FL_OVERWRITE);
    zip_close(z);
    zip_source_open(out);
    zip_source_seek(out, 0, SEEK_END);
    std::string bytes(static_cast<std::size_t>(zip_source_tell(out)), '\0');
    zip_source_seek(out, 0, SEEK_SET);
    zip_source_read(out, bytes.data(), bytes.size());
    zip_source_close(out);
    zip_source_free(out);
    zip_error_fini(&error);
    return bytes;
}

const std::string book = "<workbook xmlns:r=\"r\"><sheets><sheet name=\"S\" r:id=\"a\"/></sheets></workbook>";
const std::string links =
    "<Relationships><Relationship Id=\"a\" Target=\"worksheets/s.xml\"/></Relationships>";

std::string workbook(const std::string& sheet) {
    return archive(
        {{"xl/workbook.xml", book}, {"xl/_rels/workbook.xml.rels", links}, {"xl/worksheets/s.xml", sheet}});
}

TEST(Documents, BrokenAndHostileOnesGetASentence) {
    const auto says = [](const std::string& bytes, const char* words) {
        const auto got = readLog(bytes);
        ASSERT_FALSE(got) << words;
        EXPECT_NE(got.error().message.find(words), std::string::npos) << got.error().message;
    };
    says(sample("formulas-3.xls"), "say which column is the load"); // its headings are results of formulas
    says(std::string("PK\x03\x04 nothing more"), "broken");
    says(archive({{"readme.txt", "hello"}}), "no workbook");
    says(archive({{"xl/workbook.xml", book}}), "is missing");
    says(workbook("<worksheet><sheetData><row><c><v>1</v>"), "broken");
    says(workbook("<worksheet><sheetData/></worksheet>"), "has no table in it");
    says(std::string("\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1") + std::string(600, 'x'), "is broken");
    says(std::string("\x1f\x8b\x08 nothing"), "broken off");
    says("<html><body>no table at all</body></html>", "has no table in it");
    auto half = sample("plain.xlsx");
    half.resize(half.size() / 2);
    says(half, "broken");
    half = sample("stamps.xls");
    half.resize(1500);
    says(half, "broken");
    half = sample("plain.csv.gz");
    half.resize(half.size() - 12);
    says(half, "broken off");
}

TEST(Documents, CellsFarOutAreRefusedNotMadeRoomFor) {
    for (const char* place : {"A99999999", "ZZZ1", "XFD1048576", "A18446744073709551615"}) {
        const auto got = readLog(workbook(fmt::format(
            "<worksheet><sheetData><row r=\"1\"><c r=\"{}\"><v>1</v></c></row></sheetData></worksheet>",
            place)));
        ASSERT_FALSE(got) << place;
        EXPECT_NE(got.error().message.find("larger than any table"), std::string::npos)
            << got.error().message;
    }
}

TEST(Documents, AZipBombIsNotUnpacked) {
    std::string sheet = "<worksheet><sheetData>";
    const auto bomb = archive({{"xl/workbook.xml", book},
                               {"xl/_rels/workbook.xml.rels", links},
                               {"xl/worksheets/s.xml", sheet + std::string(std::size_t{410} << 20, ' ')}});
    EXPECT_LT(bomb.size(), std::size_t{1} << 20);
    const auto got = readLog(bomb);
    ASSERT_FALSE(got);
    EXPECT_NE(got.error().message.find("unpacked it is larger than"), std::string::npos)
        << got.error().message;
}

TEST(Documents, AnyBytesGiveAnAnswer) {
    unsigned state = 7;
    const auto next = [&] { return state = state * 1664525 + 1013904223; };
    for (const char* file : {"plain.xlsx", "plain.ods", "stamps.xls", "plain.html", "plain.csv.gz"}) {
        const auto whole = sample(file);
        for (int round = 0; round < 200; ++round) {
            auto bytes = whole;
            for (unsigned k = next() % 20 + 1; k > 0; --k)
                bytes[next() / 65536 % bytes.size()] = static_cast<char>(next() >> 24);
            const auto got = openDocument(bytes);
            if (!got) {
                EXPECT_FALSE(got.error().message.empty());
            }
        }
    }
}

} // namespace
