#include <anvil/tables/log.h>
#include <cmath>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::tables;

namespace {

Log readOk(const std::string& text, const Hints& hints = {}) {
    auto log = readLog(text, hints);
    if (!log) {
        ADD_FAILURE() << log.error().message << "\n" << text.substr(0, 200);
        return {};
    }
    return std::move(*log);
}

/// `rows` rows of time (s), force and displacement with a format for each.
std::string rowsOf(int rows, const std::string& sep, char decimal, double scale = 1,
                   const std::string& end = "\n") {
    std::string out;
    for (int i = 0; i < rows; ++i) {
        auto text = fmt::format("{:.2f}@{:.3f}@{:.3f}", i * 0.1, std::max(0, i - 5) * 12.5 * scale, i * 0.02);
        for (auto& c : text)
            c = c == '.' ? decimal : c;
        for (std::size_t at; (at = text.find('@')) != std::string::npos;)
            text.replace(at, 1, sep);
        out += text + end;
    }
    return out;
}

void expectRamp(const Log& log, double forceUnit, const char* what) {
    ASSERT_EQ(log.runs.size(), 1U) << what;
    const auto& c = log.runs[0].curve;
    ASSERT_EQ(c.load.size(), 40U) << what;
    ASSERT_EQ(c.time.size(), 40U) << what;
    ASSERT_EQ(c.travel.size(), 40U) << what;
    EXPECT_NEAR(c.time[39], 3.9, 1e-9) << what;
    EXPECT_NEAR(c.load[39], 34 * 12.5 * forceUnit, 1e-6) << what;
    EXPECT_NEAR(c.travel[39], 0.78e-3, 1e-12) << what;
    EXPECT_TRUE(log.problems.empty())
        << what << ": line " << log.problems[0].line << " " << log.problems[0].reason;
}

/// Blank lines and repeated headings between the runs of a log that numbers them are decoration.
TEST(Log, ARunColumnDecidesWhateverStandsBetween) {
    const std::string head = "Run,Time (s),Force (N)\n";
    for (const std::string between : {"\n", "\n\n", "Run,Time (s),Force (N)\n", "\nRun,Time (s),Force (N)\n"})
        for (const bool inside : {false, true}) {
            std::string text = head;
            for (int run = 1; run <= 4; ++run) {
                for (int i = 0; i < 20; ++i) {
                    text +=
                        std::to_string(run) + "," + std::to_string(i) + "," + std::to_string(run * i) + "\n";
                    if (inside && i == 9) text += between;
                }
                text += between;
            }
            const auto log = readOk(text);
            ASSERT_EQ(log.runs.size(), 4U) << between;
            for (std::size_t k = 0; k < 4; ++k) {
                EXPECT_EQ(log.runs[k].label, std::to_string(k + 1));
                ASSERT_EQ(log.runs[k].curve.load.size(), 20U);
                EXPECT_EQ(log.runs[k].curve.load.back(), 19.0 * static_cast<double>(k + 1));
            }
        }
}

TEST(Log, DelimitersAndDecimalMarks) {
    expectRamp(readOk("Time (s),Force (N),Travel (mm)\n" + rowsOf(40, ",", '.')), 1, "commas");
    expectRamp(readOk("Time (s);Force (N);Travel (mm)\n" + rowsOf(40, ";", ',')), 1,
               "semicolons, decimal comma");
    expectRamp(readOk("Time (s)\tForce (N)\tTravel (mm)\n" + rowsOf(40, "\t", '.')), 1, "tabs");
    expectRamp(readOk("Time (s)\tForce (N)\tTravel (mm)\n" + rowsOf(40, "\t", ',')), 1,
               "tabs, decimal comma");
    expectRamp(readOk("Time_s Force_N Travel_mm\n" + rowsOf(40, "   ", '.')), 1, "blanks");
    expectRamp(readOk("Time (s)|Force (N)|Travel (mm)\n" + rowsOf(40, "|", '.')), 1, "bars");
    expectRamp(readOk("Time (s),Force (N),Travel (mm)\r\n" + rowsOf(40, ",", '.', 1, "\r\n")), 1, "CRLF");
    expectRamp(readOk("Time (s),Force (N),Travel (mm)\r" + rowsOf(40, ",", '.', 1, "\r")), 1, "CR");
    expectRamp(readOk("\"Time (s)\",\"Force (N)\",\"Travel (mm)\"\n" + rowsOf(40, ",", '.')), 1,
               "quoted heads");
}

TEST(Log, ForceUnitsInHeadersRowsAndNames) {
    struct Case {
        const char* head;
        double unit;
    };
    for (const auto& [head, unit] : {Case{"t (s),F (kN),x (mm)", 1000},
                                     {"time,load [kg],travel [mm]", 9.80665},
                                     {"time in s,pull in lbf,travel in mm", 4.4482216152605},
                                     {"elapsed,load,travel\ns,kgf,mm", 9.80665},
                                     {"elapsed,load,travel\n(s),(daN),(mm)", 10},
                                     {"# Time s,Kraft kN,Weg mm", 1000},
                                     {"Time/s,Force/lb,Travel/mm", 4.4482216152605}})
        expectRamp(readOk(std::string(head) + "\n" + rowsOf(40, ",", '.')), unit, head);
}

TEST(Log, PreambleLinesAreSteppedOver) {
    const auto log =
        readOk("Logger v3\nserial 0042\n\nRemark: none, really\nTime (s),Force (N),Travel (mm)\n" +
               rowsOf(40, ",", '.'));
    expectRamp(log, 1, "preamble");
    EXPECT_EQ(log.layout.firstRow, 5U);
}

TEST(Log, EncodingsAndMarks) {
    const std::string plain = "Zeit (s);Kraft (N);Weg (mm);Bemerkung\u00fc\n";
    std::string body;
    for (int i = 0; i < 30; ++i)
        body += std::to_string(i) + ";" + std::to_string(10 * i) + ";" + std::to_string(i) + ";\u00e4\n";
    const std::string utf8 = plain + body;
    EXPECT_EQ(readOk("\xef\xbb\xbf" + utf8).runs[0].curve.load.size(), 30U);
    std::string latin, wide = "\xff\xfe", big = "\xfe\xff";
    for (std::size_t i = 0; i < utf8.size(); ++i) {
        auto c = static_cast<unsigned char>(utf8[i]);
        if (c == 0xc3) c = static_cast<unsigned char>(static_cast<unsigned char>(utf8[++i]) + 0x40);
        latin += static_cast<char>(c);
        wide += static_cast<char>(c);
        wide += '\0';
        big += '\0';
        big += static_cast<char>(c);
    }
    for (const auto& [bytes, encoding] :
         {std::pair{latin, "Latin-1"}, {wide, "UTF-16"}, {big, "UTF-16"}, {wide.substr(2), "UTF-16"}}) {
        const auto log = readOk(bytes);
        ASSERT_EQ(log.runs.size(), 1U) << encoding;
        EXPECT_EQ(log.encoding, encoding);
        EXPECT_EQ(log.runs[0].curve.load.size(), 30U) << encoding;
        EXPECT_EQ(log.runs[0].curve.load[29], 290) << encoding;
    }
}

TEST(Log, TimeInMillisecondsAndAsClockStamps) {
    std::string ms = "ms,N\n", clock = "time,Force (N)\n", dated = "stamp;Force (N)\n";
    for (int i = 0; i < 30; ++i) {
        ms += std::to_string(1000 + 50 * i) + "," + std::to_string(5 * i) + "\n";
        clock += fmt::format("{:02}:{:02}:{:06.3f},{}\n", i < 10 ? 23 : 0, i < 10 ? 59 : 0,
                             i < 10 ? 59.5 + i * 0.05 : (i - 10) * 0.05, 5 * i);
        dated += fmt::format("2026-04-13 10:00:{:06.3f};{}\n", i * 0.05, 5 * i);
    }
    for (const auto* text : {&ms, &clock, &dated}) {
        const auto log = readOk(*text);
        ASSERT_EQ(log.runs.size(), 1U) << text->substr(0, 40);
        const auto& t = log.runs[0].curve.time;
        ASSERT_EQ(t.size(), 30U);
        EXPECT_NEAR(t.back() - t.front(), 29 * 0.05, 1e-6) << text->substr(0, 40) << ": also past midnight";
    }
}

TEST(Log, GroupedNumbers) {
    std::string text = "Time (s);Force (N)\n";
    for (int i = 0; i < 30; ++i)
        text += std::to_string(i) + ";1," + std::to_string(200 + i) + ".5\n";
    const auto log = readOk(text);
    EXPECT_EQ(log.runs[0].curve.load[3], 1203.5);
}

TEST(Log, EveryCommaFollowedByThreeDigitsIsFlagged) {
    std::string text = "Time (s);Force (N)\n";
    for (int i = 0; i < 30; ++i)
        text += std::to_string(i) + ";1," + std::to_string(200 + i) + "\n";
    EXPECT_TRUE(readOk(text).layout.decimalUnsure);
    EXPECT_EQ(readOk(text).runs[0].curve.load[0], 1.2);
    Hints asked;
    asked.decimal = '.';
    EXPECT_EQ(readOk(text, asked).runs[0].curve.load[0], 1200);
    asked.decimal = ',';
    EXPECT_EQ(readOk(text, asked).runs[0].curve.load[0], 1.2);
    EXPECT_FALSE(readOk(text, asked).layout.decimalUnsure);
    std::string longer = text; // decided by a row far below the head of the file
    for (int i = 30; i < 2000; ++i)
        longer += std::to_string(i) + ";1," + std::to_string(100 + i % 800) + "\n";
    EXPECT_TRUE(readOk(longer).layout.decimalUnsure);
    EXPECT_FALSE(readOk(longer + "2000;0,125\n").layout.decimalUnsure);
    EXPECT_EQ(readOk(longer + "2000;1,125,000\n").runs[0].curve.load[0], 1200);
    text += "30;1,25\n"; // one row with two digits settles the column
    EXPECT_FALSE(readOk(text).layout.decimalUnsure);
}

TEST(Log, SeveralRunsInOneFile) {
    const auto one = rowsOf(40, ",", '.');
    const std::string head = "Time (s),Force (N),Travel (mm)\n";
    EXPECT_EQ(readOk(head + one + "\n" + one + "\n\n" + one).runs.size(), 3U) << "blank lines";
    EXPECT_EQ(readOk(head + one + head + one).runs.size(), 2U) << "heading again";
    EXPECT_EQ(readOk(head + one + one).runs.size(), 2U) << "clock set back";
    std::string column = "run,Time (s),Force (N)\n";
    for (const char* run : {"A", "B", "C"})
        for (int i = 0; i < 20; ++i)
            column += std::string(run) + "," + std::to_string(i) + "," + std::to_string(3 * i) + "\n";
    const auto log = readOk(column);
    ASSERT_EQ(log.runs.size(), 3U);
    EXPECT_EQ(log.runs[1].label, "B");
    EXPECT_EQ(log.runs[2].curve.load.size(), 20U);
}

TEST(Log, ZeroLoadGapsPartPullsButADipDoesNot) {
    std::string text = "Time (s),Force (N)\n";
    int row = 0;
    const auto add = [&](double f) { text += fmt::format("{:.6f},{:.6f}\n", row++ * 0.1, f); };
    for (int pull = 0; pull < 3; ++pull) {
        for (int i = 0; i < 40; ++i)
            add(0.2 * (i % 3));
        for (int i = 0; i < 60; ++i)
            add(i * 20);
    }
    for (int i = 0; i < 20; ++i)
        add(0);
    const auto log = readOk(text);
    ASSERT_EQ(log.runs.size(), 3U);
    std::size_t rows = 0;
    for (const auto& r : log.runs) {
        rows += r.curve.load.size();
        EXPECT_NEAR(*std::max_element(r.curve.load.begin(), r.curve.load.end()), 59 * 20, 1e-9);
    }
    EXPECT_EQ(rows, 320U) << "not a sample is lost in cutting";
    text = "Time (s),Force (N)\n";
    row = 0;
    for (int i = 0; i < 40; ++i)
        add(0);
    for (int i = 0; i < 60; ++i)
        add(i * 20);
    for (int i = 0; i < 5; ++i) // slipped right off and caught again within half a second
        add(0);
    for (int i = 0; i < 60; ++i)
        add(i * 20);
    EXPECT_EQ(readOk(text).runs.size(), 1U);
}

TEST(Log, HintsNameColumnsAndUnits) {
    const std::string text = "a,b,c\n" + rowsOf(40, ",", '.');
    EXPECT_EQ(readLog(text).error().message,
              "no column looks like a force (the columns are a, b, c): say which column is the load");
    Hints hints;
    hints.time = "a";
    hints.load = "B";
    hints.travel = "3";
    hints.forceUnit = &quantity::unit("kN");
    expectRamp(readOk(text, hints), 1000, "hints");
    hints.load = "d";
    EXPECT_EQ(readLog(text, hints).error().message, "there is no column \"d\"; the columns are a, b, c");
}

TEST(Log, UnitsThatAreNotNamedAreFlaggedNotGuessed) {
    const auto log = readOk("time,force,travel\n" + rowsOf(40, ",", '.'));
    EXPECT_FALSE(log.forceUnitKnown);
    EXPECT_FALSE(log.displacementUnitKnown);
    EXPECT_TRUE(readOk("time,force (N)\n0,1\n1,2\n2,3\n3,4\n").displacementUnitKnown)
        << "nothing to ask about a column that is not there";
}

TEST(Log, NegativeForcesComeThroughAsLogged) {
    EXPECT_EQ(readOk("s,N\n0,-1\n1,-20\n2,-300\n").runs[0].curve.load[2], -300);
}

// Two threads give what one gives, bad rows and their line numbers included.
TEST(Log, ThreadsDoNotChangeTheAnswer) {
    std::string text = "Time (s),Force (N),Travel (mm)\n";
    for (int i = 0; i < 120000; ++i)
        text += i % 30011 == 30010 ? "oops,row,here\n"
                                   : std::to_string(i) + "," + std::to_string(i % 977) + ",0." +
                                         std::to_string(i % 10) + "\n";
    ASSERT_GT(text.size(), 1U << 20);
    const auto one = readLog(text, {}, 1), two = readLog(text, {}, 2), three = readLog(text, {}, 3);
    ASSERT_TRUE(one && two && three);
    for (const auto* other : {&*two, &*three}) {
        ASSERT_EQ(one->runs.size(), other->runs.size());
        for (std::size_t i = 0; i < one->runs.size(); ++i)
            EXPECT_EQ(one->runs[i].curve, other->runs[i].curve);
        ASSERT_EQ(one->problems.size(), 3U);
        ASSERT_EQ(other->problems.size(), 3U);
        for (std::size_t i = 0; i < 3; ++i) {
            EXPECT_EQ(one->problems[i].line, 2 + 30011 * (i + 1) - 1);
            EXPECT_EQ(one->problems[i].line, other->problems[i].line);
            EXPECT_EQ(one->problems[i].reason, other->problems[i].reason);
        }
    }
}

// A column of units that changes just where another thread goes on is another unit all the same.
TEST(Log, AnotherUnitIsSeenBetweenThreadsToo) {
    const std::string head = "Time (s),Force,Unit\n";
    const auto row = [](const char* unit) { return std::string("0000001.000,00000200.00,") + unit + "\n"; };
    const std::size_t each = row("lbf").size(), half = (std::size_t{1} << 20) / each;
    std::string text = head;
    for (std::size_t i = 0; i < 2 * half; ++i)
        text += row(i <= half ? "lbf" : "kgf");
    Hints hints;
    const auto layout = detect(text, hints);
    ASSERT_TRUE(layout);
    const auto one = parseColumns(text, *layout, 1), two = parseColumns(text, *layout, 2);
    EXPECT_EQ(one.otherUnitAt, half + 3);
    EXPECT_EQ(two.otherUnitAt, half + 3);
}

// Each program it went through may have put a mark of byte order before it.
TEST(Log, MarksOfByteOrderAreNoLetters) {
    const auto log = readOk("\xEF\xBB\xBF\xEF\xBB\xBFTime (s),Force (N)\n0,1\n1,20\n2,300\n3,4\n");
    ASSERT_EQ(log.runs.size(), 1U);
    EXPECT_EQ(log.runs[0].curve.time.size(), 4U);
}

// A stranger's file: any bytes give a log or a sentence, never a crash.
TEST(Log, AnyBytesGiveAnAnswer) {
    unsigned state = 7;
    const auto random = [&] { return state = state * 1664525 + 1013904223; };
    const std::string alphabet = "0123456789.,;\t| -+eE\n\r\"'abcN()[]:#/%\xc3\xa4\xff";
    for (int round = 0; round < 3000; ++round) {
        std::string text;
        for (unsigned n = random() % 400; n > 0; --n)
            text += alphabet[random() / 65536 % alphabet.size()];
        const auto log = readLog(text);
        if (!log) {
            EXPECT_FALSE(log.error().message.empty());
            continue;
        }
        for (const auto& r : log->runs)
            for (const double f : r.curve.load)
                EXPECT_TRUE(std::isfinite(f)) << text;
    }
}

} // namespace
