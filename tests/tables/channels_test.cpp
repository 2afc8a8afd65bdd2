// Every channel of a file, each heading where it stands, and what of a row is no reading.
#include <algorithm>
#include <anvil/tables/log.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::tables;
using quantity::Dimension;

namespace {

constexpr int count = 120;

double load(int i) { return i < 20 ? 0 : i < 100 ? (i - 20) * 25.0 : 40; }

/// A heading and a row for each sample.
std::string text(const std::string& head, const std::function<std::string(int)>& row) {
    std::string out = head + "\n";
    for (int i = 0; i < count; ++i)
        out += row(i) + "\n";
    return out;
}

Log readOk(const std::string& bytes, const Hints& hints = {}) {
    auto log = readLog(bytes, hints);
    EXPECT_TRUE(log) << (log ? "" : log.error().message) << "\n" << bytes.substr(0, 120);
    return log ? std::move(*log) : Log{};
}

double top(const Run& run) { return *std::max_element(run.curve.load.begin(), run.curve.load.end()); }

TEST(Channels, EveryColumnOfNumbersIsKeptWithItsUnit) {
    const auto log = readOk(text("Time (s),Load (kN),Travel (mm),Temp (°C),Bridge (mV/V),Valve", [](int i) {
        return fmt::format("{:.1f},{:.3f},{:.2f},{},{:.4f},{}", i * 0.1, load(i) / 1000, i * 0.5, 20 + i % 3,
                           load(i) / 1e4, i % 2 ? "" : "7");
    }));
    ASSERT_EQ(log.runs.size(), 1U);
    const auto& c = log.runs[0].curve;
    ASSERT_EQ(c.others.size(), 3U);
    EXPECT_EQ(c.others[0].name, "Temp");
    EXPECT_EQ(c.others[0].unit, "K");
    EXPECT_NEAR(c.others[0].values[1], 294.15, 1e-9);
    EXPECT_EQ(c.others[1].name, "Bridge (mV/V)") << "a unit that nobody here knows stays in its name";
    EXPECT_EQ(c.others[1].unit, "");
    EXPECT_NEAR(c.others[1].values[50], load(50) / 1e4, 1e-9);
    EXPECT_EQ(c.others[2].values[0], 7);
    EXPECT_TRUE(std::isnan(c.others[2].values[1])) << "nothing is not nought";
    EXPECT_NEAR(top(log.runs[0]), load(99), 1e-9);
}

TEST(Channels, RowNumbersAndSecondClocksAreNone) {
    const auto log = readOk(text("No,Time (s),t (ms),Load (N)", [](int i) {
        return fmt::format("{},{:.1f},{},{:.1f}", i + 1, i * 0.1, i * 100, load(i));
    }));
    EXPECT_TRUE(log.runs.at(0).curve.others.empty());
}

TEST(Channels, TheMethodSaysWhichIsTheLoad) {
    const auto file =
        text("Time (s),Axial force (N),Torque (N·m),Angle (°),Travel (mm),Accel (g)", [](int i) {
            return fmt::format("{:.1f},{:.1f},{:.3f},{},{},{}", i * 0.1, load(i), load(i) / 100, 2 * i,
                               i * 0.01, i % 5);
        });
    const auto plain = readOk(file);
    EXPECT_EQ(plain.runs.at(0).curve.loadKind, Dimension::force);
    EXPECT_EQ(plain.runs.at(0).curve.travelKind, Dimension::length);
    Hints hints;
    hints.loadKind = Dimension::torque;
    const auto twist = readOk(file, hints);
    const auto& c = twist.runs.at(0).curve;
    EXPECT_EQ(c.loadKind, Dimension::torque);
    EXPECT_EQ(c.travelKind, Dimension::angle);
    EXPECT_NEAR(top(twist.runs[0]), load(99) / 100, 1e-9);
    EXPECT_NEAR(c.travel[45], 3.14159265358979 / 2, 1e-9);
    EXPECT_EQ(c.others.size(), 3U) << "force, travel and acceleration beside it";
    hints.loadKind = Dimension::acceleration;
    const auto drop = readOk(file, hints);
    EXPECT_EQ(drop.runs.at(0).curve.loadKind, Dimension::acceleration);
    EXPECT_NEAR(top(drop.runs[0]), 4 * 9.80665, 1e-9);
    hints.loadKind = Dimension::acceleration;
    const auto grams = readOk(
        text("Time (s),Load (g)", [](int i) { return fmt::format("{:.1f},{}", i * 0.1, i % 9); }), hints);
    EXPECT_NEAR(top(grams.runs.at(0)), 8 * 9.80665, 1e-9) << "of a drop it is no gram";
}

TEST(Channels, ATorqueLogIsOne) {
    const auto log = readOk(
        text("angle (deg),torque (lbf·in)", [](int i) { return fmt::format("{},{:.2f}", i, load(i) / 10); }));
    EXPECT_EQ(log.runs.at(0).curve.loadKind, Dimension::torque);
    EXPECT_NEAR(top(log.runs[0]), load(99) / 10 * 4.4482216152605 * 0.0254, 1e-9);
}

TEST(Blocks, EveryHeadingIsLaidOutAnew) {
    const auto a =
        text("Time (s),Load (N)", [](int i) { return fmt::format("{:.2f},{:.1f}", i * 0.05, load(i)); });
    const auto ms =
        text("Time (ms),Load (N)", [](int i) { return fmt::format("{},{:.1f}", i * 50, load(i)); });
    const auto turned = text("Load (kN),Travel (mm),Time (s)", [](int i) {
        return fmt::format("{:.4f},{:.2f},{:.2f}", load(i) / 1000, i * 0.1, i * 0.05);
    });
    const auto log = readOk(a + ms + "\n" + turned);
    ASSERT_EQ(log.runs.size(), 3U);
    for (const auto& run : log.runs) {
        EXPECT_EQ(run.curve.load.size(), static_cast<std::size_t>(count));
        EXPECT_NEAR(top(run), load(99), 1e-9) << run.label;
        EXPECT_NEAR(run.curve.time.back() - run.curve.time.front(), 5.95, 1e-9) << run.label;
    }
    EXPECT_NEAR(log.runs[2].curve.travel.back(), 0.0119, 1e-12);
    EXPECT_EQ(log.runs[1].label, "2");
}

TEST(Blocks, UnitsBelowAHeadingThatIsMetAgainCount) {
    const auto body = [](double factor) {
        std::string out;
        for (int i = 0; i < count; ++i)
            out += fmt::format("{:.2f},{:.5f}\n", i * 0.05, load(i) / factor);
        return out;
    };
    const auto log = readOk("Time,Load\ns,N\n" + body(1) + "Time,Load\ns,N\n" + body(1) +
                            "Time,Load\ns,kN\n" + body(1000));
    ASSERT_EQ(log.runs.size(), 3U);
    EXPECT_EQ(log.rowsLeftOut, 0U) << "a row of units is no reading that was lost";
    for (const auto& run : log.runs)
        EXPECT_NEAR(top(run), load(99), 1e-6) << run.label;
}

TEST(Blocks, RemarksBetweenTheRowsAreNoHeadings) {
    for (const char* remark : {"event: load drop, time 12", "load drop, time 12 s",
                               "Load fell, then time went on", "operator took a break, load held"}) {
        auto file =
            text("Time (s),Load (N)", [](int i) { return fmt::format("{:.2f},{:.1f}", i * 0.05, load(i)); });
        file.insert(file.find("3.00,"), std::string(remark) + "\n");
        const auto log = readOk(file);
        ASSERT_EQ(log.runs.size(), 1U) << remark;
        EXPECT_EQ(log.rowsLeftOut, 1U) << remark;
        EXPECT_EQ(log.runs[0].curve.load.size(), static_cast<std::size_t>(count)) << remark;
        EXPECT_NEAR(top(log.runs[0]), load(99), 1e-9) << remark;
    }
}

TEST(Clocks, ARunOfAMinuteIsNoCounterThatTurned) {
    std::string file = "Time (ms),Load (N)\n";
    for (int run = 0; run < 2; ++run)
        for (int i = 0; i < count; ++i)
            file += fmt::format("{},{:.1f}\n", i * 500, load(i));
    const auto log = readOk(file);
    EXPECT_EQ(log.runs.size(), 2U) << "59.5 s each";
}

TEST(Blocks, AResultBelowTheCurveIsNoCurve) {
    const auto log = readOk(
        text("Time (s),Load (N)", [](int i) { return fmt::format("{:.2f},{:.1f}", i * 0.05, load(i)); }) +
        "\nPeak load (N),Time to break (s)\n1975.0,4.95\n");
    ASSERT_EQ(log.runs.size(), 1U);
    EXPECT_EQ(log.runs[0].curve.load.size(), static_cast<std::size_t>(count));
}

TEST(Marked, RowsThatAColumnCallsNoReadingsAreOutAndSaid) {
    struct Case {
        const char *head, *good, *bad;
    };
    for (const auto& [head, good, bad] : {Case{"Valid", "1", "0"},
                                          {"Valid", "TRUE", "FALSE"},
                                          {"Status", "ok", "error"},
                                          {"Status", "OK", "timeout"},
                                          {"Error", "0", "3"},
                                          {"Fault", "", "sensor"}}) {
        const auto log =
            readOk(text(fmt::format("Time (s),Load (N),{}", head), [&, g = good, b = bad](int i) {
                const bool wrong = i > 50 && i < 57;
                return fmt::format("{:.2f},{:.1f},{}", i * 0.05, wrong ? 9000 : load(i), wrong ? b : g);
            }));
        ASSERT_EQ(log.runs.size(), 1U) << head << bad;
        EXPECT_EQ(log.runs[0].curve.load.size(), static_cast<std::size_t>(count - 6)) << head << bad;
        EXPECT_NEAR(top(log.runs[0]), load(99), 1e-9) << head << bad;
        EXPECT_EQ(log.rowsMarked, 6U);
        EXPECT_EQ(log.rowsLeftOut, 0U);
        EXPECT_FALSE(log.runs[0].overload);
        EXPECT_EQ(
            std::count_if(log.notes.begin(), log.notes.end(),
                          [](const auto& n) { return n.find("6 rows are marked") != std::string::npos; }),
            1);
    }
}

TEST(Marked, WhatADisplayShowsOverRangeIsABound) {
    for (const char* over : {"OL", "0L", "----", ">1900", "1.", "9.9E+37", "HI", "9999", "inf"}) {
        const auto log = readOk(text("Time (s);Load (N)", [&](int i) {
            return fmt::format("{:.2f};{}", i * 0.05, load(i) > 1900 ? over : fmt::format("{:.1f}", load(i)));
        }));
        ASSERT_EQ(log.runs.size(), 1U) << over;
        EXPECT_TRUE(log.runs[0].overload) << over;
        EXPECT_EQ(top(log.runs[0]), 1900) << over;
    }
    const auto glitch = readOk(text("Time (s),Load (N)", [](int i) {
        return fmt::format("{:.2f},{:.1f}", i * 0.05, i > 30 && i < 36 ? 99999.0 : load(i));
    }));
    EXPECT_FALSE(glitch.runs.at(0).overload) << "far below the peak it was no overload of this pull";
    EXPECT_NEAR(top(glitch.runs[0]), load(99), 1e-9);
    const auto honest = readOk(text("Time (s),Load (N)", [](int i) {
        return fmt::format("{:.2f},{:.1f}", i * 0.05, i > 98 && i < 101 ? 9999.0 : i * 99.0);
    }));
    EXPECT_EQ(top(honest.runs.at(0)), 119 * 99.0) << "a plateau among its like is a load";
}

TEST(Clocks, UnitsFactorsWrapsAndHours) {
    const auto lasts = [](const std::string& file) {
        const auto log = readOk(file);
        return log.runs.empty() ? -1 : log.runs[0].curve.time.back() - log.runs[0].curve.time.front();
    };
    EXPECT_NEAR(
        lasts(text("Time [0.1 s],Load (N)", [](int i) { return fmt::format("{},{:.1f}", i, load(i)); })),
        11.9, 1e-9);
    EXPECT_NEAR(
        lasts(text("Time (ms),Load (N)",
                   [](int i) { return fmt::format("{},{:.1f}", (65000 + i * 50) % 65536, load(i)); })),
        5.95, 1e-9)
        << "16 bits";
    EXPECT_NEAR(lasts(text("Time,Load (N)",
                           [](int i) {
                               return fmt::format(
                                   "{},{:.1f}", 140530 + i + (i > 29 ? 40 : 0) + (i > 89 ? 40 : 0), load(i));
                           })),
                119, 1e-9)
        << "hhmmss";
    EXPECT_NEAR(lasts(text("Time,ms,Load (N)",
                           [](int i) {
                               return fmt::format("14:05:{:02},{},{:.1f}", 33 + i / 20, i % 20 * 50, load(i));
                           })),
                5.95, 1e-6);
    EXPECT_NEAR(lasts(text("Time,Load (N)",
                           [](int i) {
                               const int s = i + (i >= 60 ? 3600 : 0);
                               return fmt::format("2026-03-29 {:02}:{:02}:{:02},{:.1f}",
                                                  1 + (3540 + s) / 3600, (3540 + s) / 60 % 60, s % 60,
                                                  load(i));
                           })),
                119, 1e-6)
        << "clocks go forward an hour on the last Sunday of March";
    EXPECT_NEAR(lasts(text("Time,Load (N)",
                           [](int i) {
                               return fmt::format("2026-061T14:{:02}:{:02}.5,{:.1f}", i / 60, i % 60,
                                                  load(i));
                           })),
                119, 1e-6);
    const auto steps = readLog(
        text("Time,Load (N)", [](int i) { return fmt::format("{:.1f},{:.1f}", i * 50 + 0.3, load(i)); }));
    ASSERT_FALSE(steps);
    EXPECT_NE(steps.error().message.find("hardly seconds: say its unit"), std::string::npos)
        << "fifty seconds a step?";
}

TEST(Decimals, OneMarkAColumn) {
    const auto log = readOk(text("Time (s)\tLoad (N)\tTravel (mm)", [](int i) {
        auto f = fmt::format("{:.2f}", load(i));
        std::replace(f.begin(), f.end(), '.', ',');
        return fmt::format("{:.2f}\t{}\t{}", i * 0.05, f, i < 100 ? fmt::format("0.{:02}0", i) : "1,000");
    }));
    EXPECT_NEAR(top(log.runs.at(0)), load(99), 1e-9);
    EXPECT_NEAR(log.runs[0].curve.time.back(), 5.95, 1e-9);
    const auto lakh = readOk(text("Time (s);Load (N)", [](int i) {
        const int n = static_cast<int>(load(i)) + 100000;
        return fmt::format("{:.2f};{},{:02},{:03}.5", i * 0.05, n / 100000, n / 1000 % 100, n % 1000);
    }));
    EXPECT_NEAR(top(lakh.runs.at(0)), 100000.5 + load(99), 1e-6);
    const auto signs = readOk(text(
        "Time (s);Load (N)", [](int i) { return fmt::format("{:.2f};({:.1f})", i * 0.05, load(i) + 1); }));
    EXPECT_EQ(signs.runs.at(0).curve.load[99], -load(99) - 1);
}

TEST(SideBySide, PairsByWhateverTheyAreCalled) {
    for (const char* head :
         {"t1,F1,t2,F2", "Oak time (s),Oak load (N),Elm time (s),Elm load (N)", "A_t,A_F,B_t,B_F"}) {
        const auto log = readOk(text(head, [](int i) {
            return fmt::format("{0:.2f},{1:.1f},{0:.2f},{2:.1f}", i * 0.05, load(i), 2 * load(i));
        }));
        ASSERT_EQ(log.runs.size(), 2U) << head;
        EXPECT_NEAR(top(log.runs[1]), 2 * load(99), 1e-9);
    }
    const auto turns = readOk(text("Test,Time (s),Load (N)", [](int i) {
        return fmt::format("{},{:.2f},{:.1f}", i % 2 + 1, i / 2 * 0.05, (1 + i % 2) * load(i / 2 * 2));
    }));
    ASSERT_EQ(turns.runs.size(), 2U) << "rows of two tests in turns";
    EXPECT_NEAR(top(turns.runs[1]) / top(turns.runs[0]), 2, 1e-9);
    const auto sensors = readLog(text("Time (s),Channel,Load (N)", [](int i) {
        return fmt::format("{:.2f},{},{:.1f}", i / 2 * 0.05, i % 2 + 1, load(i));
    }));
    ASSERT_FALSE(sensors);
    EXPECT_NE(sensors.error().message.find("sensors"), std::string::npos) << sensors.error().message;
}

} // namespace
