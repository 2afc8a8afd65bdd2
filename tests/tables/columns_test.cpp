// What each column of a log is taken as: by its unit before its words, never by a guess.
#include <anvil/tables/log.h>
#include <anvil/tables/values.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::tables;

namespace {

/// Rows of 60 samples: `cell(i)` gives what stands in each column.
std::string rows(const std::string& head, const std::function<std::vector<std::string>(int)>& cell,
                 char by = ',') {
    std::string out = head.empty() ? head : head + "\n";
    for (int i = 0; i < 60; ++i) {
        std::string line;
        for (const auto& c : cell(i))
            line += (line.empty() ? "" : std::string(1, by)) + c;
        out += line + "\n";
    }
    return out;
}
double load(int i) { return i < 10 ? 0 : i < 50 ? (i - 10) * 50 : 20; }
std::string f(double v) { return fmt::format("{:.3f}", v); }

double peakOf(const std::string& text, const Hints& hints = {}) {
    const auto log = readLog(text, hints);
    if (!log) {
        ADD_FAILURE() << log.error().message << "\n" << text.substr(0, 80);
        return 0;
    }
    double top = 0;
    for (const double v : log->runs.at(0).curve.load)
        top = std::max(top, v);
    return top;
}
std::string refusal(const std::string& text) {
    const auto log = readLog(text);
    return log ? std::string("it was read") : log.error().message;
}

/// The load is taken whatever stands beside it.
TEST(Columns, TheUnitDecidesBeforeTheWords) {
    for (const auto& [heading, other] : {std::pair{"Load rate (N/s)", 900.0},
                                         {"Load cell (mV/V)", 3.0},
                                         {"Load temperature (°C)", 99.0},
                                         {"Load (%)", 5000.0},
                                         {"Pulley angle (deg)", 7000.0},
                                         {"Load raw", 9e6},
                                         {"Force setpoint (N)", 8000.0},
                                         {"Max load (N)", 8000.0},
                                         {"Multimeter (V)", 7.0},
                                         {"Load limit [N]", 9000.0},
                                         {"Load_V", 6.0}}) {
        const auto text = rows(fmt::format("Time (s),{},Load (N)", heading), [&](int i) {
            return std::vector<std::string>{f(i * 0.1), f(other + i), f(load(i))};
        });
        EXPECT_NEAR(peakOf(text), load(49), 1e-9) << heading;
    }
}

TEST(Columns, WhatIsNoLoadIsRefused) {
    for (const char* heading :
         {"Load cell (mV/V)", "Load (%)", "Load rate (N/s)", "Force raw", "Display (V)"}) {
        const auto text = rows(fmt::format("Time (s),{}", heading), [&](int i) {
            return std::vector<std::string>{f(i * 0.1), f(load(i))};
        });
        EXPECT_NE(refusal(text).find("no column looks like a force"), std::string::npos)
            << heading << ": " << refusal(text);
    }
    EXPECT_NE(refusal(rows("Time (s),Load (furlong)",
                           [](int i) {
                               return std::vector<std::string>{f(i), f(load(i))};
                           }))
                  .find("nobody here knows the unit"),
              std::string::npos);
}

TEST(Columns, MoreThanOneLoadIsAskedAbout) {
    const auto text = rows("Time (s),Load A (N),Load B (N)", [](int i) {
        return std::vector<std::string>{f(i * 0.1), f(load(i)), f(2 * load(i))};
    });
    EXPECT_NE(refusal(text).find("more than one column could be the load (\"Load A\", \"Load B\")"),
              std::string::npos)
        << refusal(text);
    Hints hints;
    hints.load = "Load B";
    EXPECT_NEAR(peakOf(text, hints), 2 * load(49), 1e-9);
}

/// Words match whole words only.
TEST(Columns, WordsAreWhole) {
    const auto text = rows("Multimeter,Verlängerung (mm),Zeit (s),Prüfkraft (kN)", [](int i) {
        return std::vector<std::string>{f(7), f(i * 0.01), f(i * 0.1), f(load(i) / 1000)};
    });
    const auto log = readLog(text);
    ASSERT_TRUE(log) << log.error().message;
    ASSERT_EQ(log->runs.size(), 1U) << "no run column";
    EXPECT_NEAR(log->runs[0].curve.time[10], 1, 1e-9);
    EXPECT_NEAR(log->runs[0].curve.travel[10], 1e-4, 1e-12);
    EXPECT_NEAR(peakOf(text), load(49), 1e-9);
}

TEST(Columns, WithoutAHeadingOnlyWhatIsPlainIsTaken) {
    EXPECT_NEAR(peakOf(rows("",
                            [](int i) {
                                return std::vector<std::string>{f(load(i)), f(i * 0.1)};
                            })),
                load(49), 1e-9)
        << "the load first";
    EXPECT_NEAR(peakOf(rows("",
                            [](int i) {
                                return std::vector<std::string>{f(i * 0.1), f(load(i)), f(i * 0.02)};
                            })),
                load(49), 1e-9);
    for (const auto& text :
         {rows("",
               [](int i) {
                   return std::vector<std::string>{fmt::format("{}", i), f(i * 0.1), f(load(i))};
               }),
          rows("",
               [](int i) {
                   return std::vector<std::string>{f(i * 0.1), f(i * 0.02), f(load(i))};
               }),
          rows("", [](int i) {
              return std::vector<std::string>{f(i * 0.1), f(load(i)), f(load(i) / 2)};
          })})
        EXPECT_NE(refusal(text).find("cannot be told: say which column"), std::string::npos)
            << text.substr(0, 40);
}

TEST(Columns, RowNumbersAndSeveralLinesOfHeading) {
    EXPECT_NEAR(peakOf(rows(
                    "    Time (s) Force (kN) Travel (mm)",
                    [](int i) {
                        return std::vector<std::string>{fmt::format("{}", i + 1), f(i * 0.1),
                                                        f(load(i) / 1000), f(i * 0.02)};
                    },
                    ' ')),
                load(49), 1e-9);
    EXPECT_NEAR(peakOf(rows("time,load,travel\ns,kN,mm\nof the logger,of the cell,of the wire",
                            [](int i) {
                                return std::vector<std::string>{f(i * 0.1), f(load(i) / 1000), f(i * 0.02)};
                            })),
                load(49), 1e-9);
}

TEST(Clocks, AreReadAsPeopleWriteThem) {
    const auto span = [](const std::string& head, const std::function<std::string(int)>& stamp) {
        const auto log = readLog(rows(head, [&](int i) {
            return std::vector<std::string>{stamp(i), f(load(i))};
        }));
        if (!log) return log.error().message;
        const auto& t = log->runs.at(0).curve.time;
        return fmt::format("{:.3f}", t[59] - t[0]);
    };
    EXPECT_EQ(span("Time,Force (N)", [](int i) { return fmt::format("3/2/2026 2:05:{:02} PM", i); }),
              "59.000");
    EXPECT_EQ(span("Time,Force (N)", [](int i) { return fmt::format("2026-03-02T14:05:{:02}.5+01:00", i); }),
              "59.000");
    EXPECT_EQ(span("Time,Force (N)", [](int i) { return fmt::format("{:02}:{:02}", i / 60, i % 60); }),
              "59.000");
    EXPECT_EQ(span("Time,Force (N)", [](int i) { return fmt::format("02:{:02}.5", i); }), "59.000");
    EXPECT_EQ(span("timestamp,Force (N)", [](int i) { return fmt::format("{}", 1772460333000LL + 50 * i); }),
              "2.950");
    EXPECT_EQ(
        span("timestamp,Force (N)", [](int i) { return fmt::format("{}", 1772460333000000LL + 50000 * i); }),
        "2.950");
    EXPECT_EQ(span("Time,Force (N)", [](int i) { return fmt::format("{:.9f}", 46083.5 + i / 864000.0); }),
              "5.900");
    EXPECT_NE(span("Time,Force (N)", [](int i) { return fmt::format("{}", 50 * i); }).find("hardly seconds"),
              std::string::npos);
    EXPECT_NE(
        span("Time,Force (N)", [](int i) { return fmt::format("14:{:02}", i); }).find("hours and minutes or"),
        std::string::npos);
    EXPECT_EQ(span("Time (ms),Force (N)", [](int i) { return fmt::format("{}", 50 * i); }), "2.950");
}

TEST(Rows, TurnedRoundFilledAndRefused) {
    const auto newest = rows("Time (s),Force (N)", [](int i) {
        return std::vector<std::string>{f((59 - i) * 0.1), f(load(59 - i))};
    });
    const auto turned = readLog(newest);
    ASSERT_TRUE(turned);
    EXPECT_EQ(turned->runs[0].curve.load[49], load(49));
    EXPECT_EQ(turned->notes.size(), 1U);
    const auto slow = readLog(rows("Time (s),Force (N),Travel (mm)", [](int i) {
        return std::vector<std::string>{f(i * 0.1), f(load(i)), i % 10 ? "" : f(i * 0.02)};
    }));
    ASSERT_TRUE(slow) << slow.error().message;
    ASSERT_EQ(slow->runs[0].curve.travel.size(), 60U);
    EXPECT_NEAR(slow->runs[0].curve.travel[25], 0.5e-3, 1e-12);
    EXPECT_EQ(slow->rowsLeftOut, 0U);
    auto reset = rows("Time (s),Force (N)", [](int i) {
        return std::vector<std::string>{f(i * 0.1), f(load(i))};
    });
    const auto middle = reset.find("3.000,");
    reset.insert(middle, "Time (s),Force (N)\n");
    EXPECT_NE(refusal(reset).find("set back in mid-pull"), std::string::npos) << refusal(reset);
    const auto once = rows("Time (s),Force (N)", [](int i) {
        return std::vector<std::string>{f(i * 0.1), f(load(i))};
    });
    const auto twice = readLog(once + rows("Time (s),Force (kN)", [](int i) {
                                   return std::vector<std::string>{f(i * 0.1), f(load(i) / 1000)};
                               }));
    ASSERT_TRUE(twice) << twice.error().message;
    ASSERT_EQ(twice->runs.size(), 2U) << "below a heading in another unit stands another run, in that unit";
    for (std::size_t i = 0; i < 60; ++i)
        EXPECT_NEAR(twice->runs[1].curve.load[i], twice->runs[0].curve.load[i], 0.51) << i;
    EXPECT_NE(std::find(twice->notes.begin(), twice->notes.end(), "From line 62 on its load is in kN."),
              twice->notes.end());
    EXPECT_NEAR(peakOf(rows(
                    "Zeit [s];Kraft [N]",
                    [](int i) {
                        const double v = load(i);
                        return std::vector<std::string>{fmt::format("{},{:02}", i / 10, i % 10 * 10),
                                                        v < 1000 ? fmt::format("{},00", static_cast<int>(v))
                                                                 : fmt::format("{}.{:03},50",
                                                                               static_cast<int>(v) / 1000,
                                                                               static_cast<int>(v) % 1000)};
                    },
                    ';')),
                load(49) + 0.5, 1e-9)
        << "1.950,50";
}

/// Lines that say what they measure.
TEST(Labelled, LinesAreColumns) {
    const auto peak = [](const std::function<std::string(int)>& line) {
        std::string text;
        for (int i = 0; i < 60; ++i)
            text += line(i) + "\n";
        return peakOf(text);
    };
    const double kg = 9.80665;
    EXPECT_NEAR(peak([](int i) { return "Load: " + f(load(i)) + " kg"; }), load(49) * kg, 1e-6);
    EXPECT_NEAR(peak([](int i) { return "Reading: " + f(load(i)) + "lbs calibration_factor: -7050.00"; }),
                load(49) * 4.4482216152605, 1e-6);
    EXPECT_NEAR(peak([](int i) { return fmt::format("2026-03-02 14:05:{:02}.5 {:.3f} kg", i, load(i)); }),
                load(49) * kg, 1e-6);
    EXPECT_NEAR(peak([](int i) { return fmt::format("{:.6f} {:.3f} kg", i * 0.01, load(i)); }), load(49) * kg,
                1e-6);
    EXPECT_NEAR(peak([](int i) { return fmt::format("14:05:{:02} -> {:.3f}", i, load(i)); }), load(49), 1e-6);
    EXPECT_NEAR(peak([](int i) {
                    return fmt::format("2026-03-02T14:05:{:02}.5 bench logger[812]: {:.3f} N", i, load(i));
                }),
                load(49), 1e-6);
    EXPECT_NEAR(peak([](int i) { return fmt::format("t={} F={:.3f} x={:.2f}", i * 0.1, load(i), i * 0.02); }),
                load(49), 1e-6);
    for (const char* no :
         {"Setpoint: {:.3f} N", "Voltage: {:.3f} V", "Temp: {:.3f} C", "Load rate: {:.3f} N/s"}) {
        std::string text;
        for (int i = 0; i < 60; ++i)
            text += fmt::format(fmt::runtime(no), load(i)) + "\n";
        EXPECT_NE(refusal(text).find("say which column is the load"), std::string::npos)
            << no << refusal(text);
    }
    const auto once = readLog("Load: 1 kg\nLoad: 2 kg\nLoad: 3 kg\nLoad: 3 kg\nLoad: 4 kg\nLoad: 5 kg\nLoad: "
                              "6 kg\nLoad: 6 kg\nLoad: 7 kg\nthe end\n");
    ASSERT_TRUE(once) << once.error().message;
    ASSERT_EQ(once->problems.size(), 1U);
    EXPECT_EQ(once->problems[0].line, 10U) << "as in the file";
}

/// The same curve in another layout, unit, decimal mark or order of columns is the same curve.
TEST(Layouts, NoneChangesANumber) {
    const auto plain = readLog(rows("Time (s),Force (N),Travel (mm)", [](int i) {
        return std::vector<std::string>{f(i * 0.1), f(load(i)), f(i * 0.02)};
    }));
    ASSERT_TRUE(plain);
    const auto comma = [](std::string s) {
        std::replace(s.begin(), s.end(), '.', ',');
        return s;
    };
    for (const auto& text :
         {rows("Travel (mm),Force (N),Time (s)",
               [](int i) {
                   return std::vector<std::string>{f(i * 0.02), f(load(i)), f(i * 0.1)};
               }),
          rows(
              "Zeit [ms];Weg [cm];Kraft [kN]",
              [&](int i) {
                  return std::vector<std::string>{comma(f(i * 100.0)),
                                                  comma(fmt::format("{:.6f}", i * 0.002)),
                                                  comma(fmt::format("{:.6f}", load(i) / 1000))};
              },
              ';'),
          rows("no,note,F/N,t/s,x/mm", [](int i) {
              return std::vector<std::string>{fmt::format("{}", i), "", f(load(i)), f(i * 0.1), f(i * 0.02)};
          })}) {
        const auto log = readLog(text);
        ASSERT_TRUE(log) << log.error().message << text.substr(0, 60);
        ASSERT_EQ(log->runs.size(), 1U);
        const auto &a = plain->runs[0].curve, &b = log->runs[0].curve;
        ASSERT_EQ(a.load.size(), b.load.size()) << text.substr(0, 60);
        for (std::size_t i = 0; i < a.load.size(); ++i) {
            EXPECT_NEAR(a.load[i], b.load[i], 1e-9) << text.substr(0, 30) << i;
            EXPECT_NEAR(a.time[i], b.time[i], 1e-9);
            EXPECT_NEAR(a.travel[i], b.travel[i], 1e-12);
        }
    }
}

TEST(Tables, SummariesMergedCellsSpellingsAndUnits) {
    const auto read = [](const std::string& text) {
        const auto t = readValues(text);
        std::string out;
        if (!t) return t.error().message;
        for (const auto& r : t->rows)
            out +=
                fmt::format("{}={}{} ", r.option, r.value.value, r.unit ? std::string(r.unit->symbol) : "");
        return out + fmt::format("({} left out)", t->problems.size());
    };
    EXPECT_EQ(read("Option,Peak (kg)\nOak,4\nPine,5\n\nAverage,4.5\nMax,5\nTotal,9\n"),
              "Oak=4kgf Pine=5kgf (3 left out)");
    EXPECT_EQ(read("Option,Peak (kg)\nOak,4\n,5\n,6\nPine,7\n,8\n"),
              "Oak=4kgf Oak=5kgf Oak=6kgf Pine=7kgf Pine=8kgf (0 left out)");
    EXPECT_EQ(read("Option,Peak (kg)\nOak,4\n oak ,5\nOAK,6\n"), "Oak=4kgf Oak=5kgf Oak=6kgf (0 left out)");
    EXPECT_EQ(read("Oak,1,4\nOak,2,5\nPine,1,6\n"), "Oak=4 Oak=5 Pine=6 (0 left out)");
    EXPECT_EQ(read("Sample,lbs\nOak,4\n"), "Oak=4lbf (0 left out)");
    EXPECT_EQ(read("# tests\noption,load_kg\nOak,4\n"), "Oak=4kgf (0 left out)");
    EXPECT_EQ(read("Option;Fmax/kg;Span (mm)\nOak;4;300\n"), "Oak=4kgf (0 left out)");
    EXPECT_EQ(
        readValues("Option,Peak (kg),State\nOak,4,broke\nOak,5,off scale\nOak,6,void\n")->rows[1].value.bound,
        stats::Bound::above);
}

} // namespace
