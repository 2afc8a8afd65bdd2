// The same curve in other clothes: no layout, unit, decimal mark or order of columns changes a number by more
// than the rounding it was written with.
#include <algorithm>
#include <anvil/quantity/unit.h>
#include <anvil/tables/log.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::tables;

namespace {

constexpr std::size_t rows = 160;

double timeAt(std::size_t i) { return static_cast<double>(i) * 0.05; }
double loadAt(std::size_t i) {
    const double t = timeAt(i), wobble = 0.25 * static_cast<double>((i * 7) % 5) - 0.5;
    return t < 2 ? wobble : t < 7 ? (t - 2) * 317.5 + wobble : wobble;
}
double wayAt(std::size_t i) { return std::max(0.0, timeAt(i) - 2) * 0.4e-3; }

struct Clothes {
    char delimiter = ',', decimal = '.';
    const char* forceUnit = "N";
    const char* wayUnit = "mm";
    const char* timeUnit = "s";
    int order = 0;   ///< which of the six orders of columns
    int heading = 0; ///< how name and unit stand together
    int line = 0;    ///< ends of lines
    bool grouped = false, quoted = false, preamble = false;
};

std::string number(double v, int decimals, const Clothes& c) {
    auto text = fmt::format("{:.{}f}", v, decimals);
    if (c.grouped) {
        const auto point = text.find('.');
        for (auto at = static_cast<std::ptrdiff_t>(point) - 3; at > (text[0] == '-' ? 1 : 0); at -= 3)
            text.insert(static_cast<std::size_t>(at), 1, '\'');
    }
    std::replace(text.begin(), text.end(), '.', c.decimal);
    return c.quoted ? "\"" + text + "\"" : text;
}

std::string heading(const char* name, const char* unit, const Clothes& c) {
    constexpr const char* forms[] = {"{} ({})", "{} [{}]", "{}/{}", "{}_{}", "{} in {}"};
    return fmt::format(fmt::runtime(forms[c.heading % 5]), name, unit);
}

std::string written(const Clothes& c) {
    constexpr int orders[6][3] = {{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}};
    constexpr const char* ends[] = {"\n", "\r\n", "\r", "\r\r\n"};
    const auto& force = quantity::unit(c.forceUnit);
    const auto& way = quantity::unit(c.wayUnit);
    const auto& time = quantity::unit(c.timeUnit);
    const std::string mark = c.delimiter == ' ' ? "  " : std::string(1, c.delimiter);
    const auto row = [&](const std::string(&cells)[3]) {
        const auto& o = orders[c.order % 6];
        return cells[o[0]] + mark + cells[o[1]] + mark + cells[o[2]] + ends[c.line % 4];
    };
    std::string out =
        c.preamble ? std::string("Made by nobody") + ends[c.line % 4] + "Rate 20 Hz" + ends[c.line % 4] : "";
    out += row(
        {heading("Time", c.timeUnit, c), heading("Force", c.forceUnit, c), heading("Travel", c.wayUnit, c)});
    for (std::size_t i = 0; i < rows; ++i)
        out += row({number(time.fromSi(timeAt(i)), 6, c), number(force.fromSi(loadAt(i)), 8, c),
                    number(way.fromSi(wayAt(i)), 7, c)});
    return out;
}

TEST(Layouts, NoneChangesANumber) {
    constexpr const char* forces[] = {"N", "kN", "kgf", "lbf", "daN", "tf"};
    constexpr const char* ways[] = {"mm", "cm", "in", "m"};
    constexpr const char* times[] = {"s", "ms", "min"};
    std::size_t read = 0;
    unsigned state = 20260302;
    const auto pick = [&](std::size_t n) {
        return (state = state * 1664525 + 1013904223) / 65536 % static_cast<unsigned>(n);
    };
    for (int round = 0; round < 400; ++round) {
        Clothes c;
        constexpr char delimiters[] = {',', ';', '\t', '|', ' '};
        c.delimiter = delimiters[pick(5)];
        c.decimal = c.delimiter == ',' || pick(2) ? '.' : ',';
        c.forceUnit = forces[pick(6)];
        c.wayUnit = ways[pick(4)];
        c.timeUnit = times[pick(3)];
        c.order = static_cast<int>(pick(6));
        c.heading =
            c.delimiter == ' ' ? 3 : static_cast<int>(pick(5)); // a blank would part the name from its unit
        c.line = static_cast<int>(pick(4));
        c.grouped = pick(4) == 0;
        c.quoted = c.delimiter != ' ' && pick(4) == 0;
        c.preamble = pick(3) == 0;
        const auto text = written(c);
        const auto log = readLog(text);
        ASSERT_TRUE(log) << log.error().message << "\n" << text.substr(0, 200);
        ASSERT_EQ(log->runs.size(), 1U) << text.substr(0, 200);
        const auto& curve = log->runs[0].curve;
        ASSERT_EQ(curve.load.size(), rows) << text.substr(0, 200);
        ASSERT_EQ(curve.time.size(), rows) << text.substr(0, 200);
        ASSERT_EQ(curve.travel.size(), rows) << text.substr(0, 200);
        const double forceStep = quantity::unit(c.forceUnit).factor * 0.51e-8,
                     wayStep = quantity::unit(c.wayUnit).factor * 0.51e-7,
                     timeStep = quantity::unit(c.timeUnit).factor * 0.51e-6;
        for (std::size_t i = 0; i < rows; ++i) {
            ASSERT_NEAR(curve.load[i], loadAt(i), forceStep + 1e-10) << i << "\n" << text.substr(0, 200);
            ASSERT_NEAR(curve.travel[i], wayAt(i), wayStep + 1e-15) << i << "\n" << text.substr(0, 200);
            ASSERT_NEAR(curve.time[i], timeAt(i), timeStep + 1e-12) << i << "\n" << text.substr(0, 200);
        }
        ++read;
    }
    EXPECT_EQ(read, 400U);
}

/// Causes by which columns were taken wrongly or refused, each with what it must come to.
TEST(Layouts, WhatLoggersWrite) {
    const auto peakOf = [](const std::string& heading, const std::function<std::string(std::size_t)>& row,
                           const Hints& hints = {}) -> double {
        std::string text = heading;
        for (std::size_t i = 0; i < rows; ++i)
            text += row(i);
        const auto log = readLog(text, hints);
        if (!log) {
            ADD_FAILURE() << heading << log.error().message;
            return 0;
        }
        EXPECT_EQ(log->runs.size(), 1U) << heading;
        const auto& f = log->runs[0].curve.load;
        return *std::max_element(f.begin(), f.end());
    };
    const double peak = loadAt(139);
    const auto two = [](double a, double b) { return fmt::format("{:.2f},{:.4f}\n", a, b); };
    EXPECT_NEAR(
        peakOf("Time (s),Gauge length (mm),Force (N)\n",
               [&](std::size_t i) { return fmt::format("{:.2f},50,{:.4f}\n", timeAt(i), loadAt(i)); }),
        peak, 1e-3);
    EXPECT_NEAR(
        peakOf("Time (s),Force (N)\n\n", [&](std::size_t i) { return two(timeAt(i), loadAt(i)) + "\n"; }),
        peak, 1e-3)
        << "a blank line behind each row";
    EXPECT_NEAR(
        peakOf("",
               [&](std::size_t i) { return fmt::format("t:{:.2f}\tload:{:.4f}\n", timeAt(i), loadAt(i)); }),
        peak, 1e-3);
    EXPECT_NEAR(peakOf("micros,Force (N)\n",
                       [&](std::size_t i) {
                           return fmt::format("{},{:.4f}\n", (4294000000ULL + i * 50000) % 4294967296ULL,
                                              loadAt(i));
                       }),
                peak, 1e-3)
        << "a counter that wraps";
    EXPECT_NEAR(
        peakOf("", [&](std::size_t i) { return fmt::format("({:.2f}, {:.4f})\n", timeAt(i), loadAt(i)); }),
        peak, 1e-3);
    EXPECT_NEAR(peakOf("Time (s);Force (N)\n", [&](std::size_t i) { return two(timeAt(i), loadAt(i)); }),
                peak, 1e-3)
        << "a heading with another mark";
    EXPECT_NEAR(peakOf("Time (s),channel,value\n",
                       [&](std::size_t i) {
                           return fmt::format("{0:.2f},Force (N),{1:.4f}\n{0:.2f},Travel (mm),{2:.4f}\n",
                                              timeAt(i), loadAt(i), wayAt(i) * 1000);
                       }),
                peak, 1e-3);
    EXPECT_NEAR(peakOf("",
                       [&](std::size_t i) {
                           return fmt::format(
                               "{{\"t\":{:.2f},\"load\":{{\"value\":{:.4f},\"unit\":\"N\"}}}}\n", timeAt(i),
                               loadAt(i));
                       }),
                peak, 1e-3);
    EXPECT_NEAR(peakOf("No.,Date,Time,Weight,Unit\n",
                       [&](std::size_t i) {
                           return fmt::format("{},2026-03-02,14:05:{:06.3f},{:.4f},kg\n", i + 1,
                                              33 + timeAt(i), loadAt(i));
                       }),
                peak * 9.80665, 1e-2)
        << "a unit in a column of its own";
    EXPECT_NEAR(peakOf("time [s],force [kN],force [t]\n",
                       [&](std::size_t i) {
                           return fmt::format("{:.2f},{:.5f},{:.5f}\n", timeAt(i), loadAt(i) / 1000,
                                              loadAt(i) / 9806.65);
                       }),
                peak, 0.01)
        << "one load in two units";
    EXPECT_NEAR(peakOf("Stamp,Force (N)\n",
                       [&](std::size_t i) {
                           return fmt::format("Mon Mar  2 14:05:{:06.3f} 2026,{:.4f}\n", 33 + timeAt(i),
                                              loadAt(i));
                       }),
                peak, 1e-3);
}

TEST(Layouts, SideBySideAndAcross) {
    std::string pairs = "t1,F1,t2,F2\n", across = "Time (s)", force = "Force (N)";
    for (std::size_t i = 0; i < rows; ++i) {
        pairs += fmt::format("{0:.2f},{1:.4f},{0:.2f},{2:.4f}\n", timeAt(i), loadAt(i), 2 * loadAt(i));
        across += fmt::format(",{:.2f}", timeAt(i));
        force += fmt::format(",{:.4f}", loadAt(i));
    }
    const auto two = readLog(pairs);
    ASSERT_TRUE(two) << two.error().message;
    ASSERT_EQ(two->runs.size(), 2U);
    EXPECT_NEAR(two->runs[1].curve.load[100], 2 * two->runs[0].curve.load[100], 1e-3);
    const auto one = readLog(across + "\n" + force + "\n");
    ASSERT_TRUE(one) << one.error().message;
    EXPECT_EQ(one->runs[0].curve.load.size(), rows);
    EXPECT_TRUE(one->forceUnitKnown);
}

TEST(Layouts, RowsThatSayOfThemselvesThatTheyAreNone) {
    std::string text = "Time (s),Force (N),Status\n";
    for (std::size_t i = 0; i < rows; ++i)
        text += fmt::format("{:.2f},{:.4f},{}\n", timeAt(i), i == 50 ? 9999.0 : loadAt(i),
                            i == 50              ? "invalid"
                            : i > 130 && i < 140 ? "overload"
                                                 : "ok");
    const auto log = readLog(text);
    ASSERT_TRUE(log) << log.error().message;
    EXPECT_EQ(log->rowsLeftOut, 0U) << "nobody lost them";
    EXPECT_EQ(log->rowsMarked, 1U) << "a load that goes on under overload is at least as much";
    EXPECT_EQ(log->runs.at(0).curve.load.size(), rows - 1);
    const auto& said = log->notes;
    EXPECT_EQ(std::count(said.begin(), said.end(),
                         "1 row is marked \"invalid\" under Status and out of the reading."),
              1);
    EXPECT_EQ(log->overload, "The file says overload beside the load: a peak there is \"at least\".");
    EXPECT_TRUE(log->runs.at(0).overload);
}

/// Clocks and columns set apart by blanks are read the same whether a row is plain or needs the long way.
TEST(Layouts, PlainRowsAndAwkwardOnesGiveTheSameClock) {
    struct Written {
        const char *head, *row;
    };
    for (const auto& [head, row] : {Written{"Time,Force (N)", "08:{:02d}:{:06.3f},{:.4f}\n"},
                                    {"Time,Force (N)", "2026-03-02 08:{:02d}:{:06.3f},{:.4f}\n"},
                                    {"Time,Force (N)", "2026-03-02T08:{:02d}:{:06.3f},{:.4f}\n"},
                                    {"Time;Force (N)", "02.03.2026 08:{:02d}:{:06.3f};{:.4f}\n"},
                                    {"Time Force_N", "08:{:02d}:{:06.3f}   {:.4f}\n"}}) {
        std::string plain = std::string(head) + "\n", awkward = plain;
        for (std::size_t i = 0; i < rows; ++i) {
            const auto ms = static_cast<int>(i) * 330;
            const auto line = fmt::format(fmt::runtime(row), ms / 60000, ms % 60000 / 1000.0, loadAt(i));
            plain += line;
            awkward += i % 2 && line.find(' ') == std::string::npos // quoted, or with blanks at its end
                           ? "\"" + line.substr(0, line.find_first_of(",;")) + "\"" +
                                 line.substr(line.find_first_of(",;"))
                           : line.substr(0, line.size() - 1) + "  \n";
        }
        const auto a = readLog(plain), b = readLog(awkward);
        ASSERT_TRUE(a && b) << row;
        EXPECT_EQ(a->runs.at(0).curve.time, b->runs.at(0).curve.time) << row;
        EXPECT_EQ(a->runs.at(0).curve.load, b->runs.at(0).curve.load) << row;
        EXPECT_NEAR(a->runs.at(0).curve.time.back() - a->runs.at(0).curve.time.front(),
                    0.33 * static_cast<double>(rows - 1), 1e-6);
    }
    // Over midnight, with the date in front.
    std::string text = "Time,Force (N)\n";
    for (int i = 0; i < 60; ++i)
        text += fmt::format("2026-03-0{} {:02d}:{:02d}:{:02d},{}\n", i < 30 ? 2 : 3, i < 30 ? 23 : 0,
                            i < 30 ? 59 : 0, i % 30 + (i < 30 ? 30 : 0), i < 50 ? i : 0);
    const auto log = readLog(text);
    ASSERT_TRUE(log) << log.error().message;
    EXPECT_EQ(log->runs.at(0).curve.time.back() - log->runs.at(0).curve.time.front(), 59);
}

TEST(Layouts, OnlyTheRunThatSaysOverloadIsABound) {
    // Three pulls one after another, oldest or newest first; the second has no numbers at its top.
    std::vector<std::string> lines;
    for (std::size_t k = 0; k < 3; ++k)
        for (std::size_t i = 0; i < rows; ++i)
            lines.push_back(fmt::format("{:.2f},{}\n", timeAt(k * rows + i),
                                        k == 1 && (i == 140 || i == 141) ? std::string("OL")
                                                                         : fmt::format("{:.4f}", loadAt(i))));
    const auto bounds = [](const std::vector<std::string>& all) {
        std::string text = "Time (s),Force (N)\n";
        for (const auto& l : all)
            text += l;
        const auto log = readLog(text);
        std::vector<bool> out;
        if (log)
            for (const auto& run : log->runs)
                out.push_back(run.overload);
        EXPECT_EQ(log ? log->problems.at(0).reason : "", "says \"OL\" instead of a number");
        return out;
    };
    const std::vector<bool> second{false, true, false};
    EXPECT_EQ(bounds(lines), second);
    std::reverse(lines.begin(), lines.end());
    EXPECT_EQ(bounds(lines), second);
}

} // namespace
