#include <anvil/rig/dialogue.h>
#include <anvil/rig/live_trace.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <numbers>

using namespace anvil;
using namespace anvil::rig;

namespace {

TEST(Calibration, StraightTableGivesItsLine) {
    const auto c = *Calibration::make({{0, 0}, {10, 100}, {20, 200}, {30, 300}});
    EXPECT_NEAR(c(12.5).value, 125, 1e-9);
    EXPECT_TRUE(c(12.5).inside);
    EXPECT_NEAR(c(40).value, 400, 1e-9) << "the last chord goes on";
    EXPECT_FALSE(c(40).inside);
    EXPECT_FALSE(c(-1).inside);
    const auto line = *c.line();
    EXPECT_NEAR(line.slope, 10, 1e-12);
    EXPECT_NEAR(line.worst, 0, 1e-9);
}

TEST(Calibration, CurvedScaleStaysMonotoneAndMeetsItsPoints) {
    // A tension meter: hand-worked points of y = x² + x.
    const auto c = *Calibration::make({{1, 2}, {2, 6}, {3, 12}, {5, 30}, {8, 72}});
    for (const auto& p : c.points())
        EXPECT_NEAR(c(p.reading).value, p.truth, 1e-9);
    double last = -1e9;
    for (double x = 0; x < 12; x += 0.01) {
        EXPECT_GT(c(x).value, last);
        last = c(x).value;
    }
    EXPECT_NEAR(c(4).value, 20, 0.6) << "PCHIP through the neighbours of the true 20";
    // Residuals off the least-squares line, by hand: x̄ = 3.8, ȳ = 24.4, Sxx = 30.8, Sxy = 312.4.
    const auto line = *c.line();
    EXPECT_NEAR(line.slope, 312.4 / 30.8, 1e-9);
    EXPECT_NEAR(line.residuals[0], 2 - (24.4 + 312.4 / 30.8 * (1 - 3.8)), 1e-9);
}

TEST(Calibration, BadTablesAreExplained) {
    EXPECT_TRUE(Calibration::make({})->empty());
    EXPECT_NE(Calibration::make({{1, 1}}).error().message.find("at least two"), std::string::npos);
    EXPECT_NE(Calibration::make({{1, 1}, {1, 2}}).error().message.find("stands twice"), std::string::npos);
    EXPECT_NE(Calibration::make({{1, 1}, {2, 3}, {3, 2}}).error().message.find("turns round"),
              std::string::npos);
    EXPECT_FALSE(Calibration::make({{0, 0}, {1, NAN}}));
    EXPECT_FALSE(Calibration().line());
    const auto falling = Calibration::make({{0, 10}, {1, 5}, {2, 1}});
    ASSERT_TRUE(falling) << "a scale may run the other way";
    EXPECT_NEAR((*falling)(1.5).value, 3, 1e-12);
}

TEST(Check, PassesWithinItsTolerance) {
    const Check good{"2026-05-04", 98.1, 98.6, 0.01};
    EXPECT_TRUE(good.passed());
    EXPECT_EQ(sentence(good, quantity::unit("N")), "Shown 98.60 N for 98.10 N: 0.5 % off, within 1.0 %.");
    EXPECT_FALSE((Check{"", 98.1, 100, 0.01}.passed()));
    EXPECT_FALSE((Check{"", 0, 0, 0.01}.passed()));
}

TEST(Ratio, LeverLineAngleByHand) {
    using K = RatioPart::Kind;
    // A lever 1.52 m to the cell and 0.10 m to the piece: 15.2; u by (0.005/1.52, 0.002/0.10) → 2.03 %.
    const auto lever = *ratioOf(std::vector<RatioPart>{{K::lever, 1.52, 0.10, 0.005, 0.002, 0}});
    EXPECT_NEAR(lever.value, 15.2, 1e-9);
    EXPECT_NEAR(lever.uncertainty, 15.2 * std::hypot(0.005 / 1.52, 0.002 / 0.10), 1e-9);
    EXPECT_EQ(sentence(lever), "Reads 1, the specimen feels 15.2 ± 0.3.");
    const auto line = *ratioOf(std::vector<RatioPart>{{K::line, 2, 0.95, 0, 0.02, 0}});
    EXPECT_NEAR(line.value, 1.95, 1e-12) << "1 + e";
    EXPECT_NEAR(line.uncertainty, 0.02, 1e-12) << "d(1 + e)/de = 1";
    const auto three = *ratioOf(std::vector<RatioPart>{{K::line, 3, 0.9, 0, 0.02, 0}});
    EXPECT_NEAR(three.value, 1 + 0.9 + 0.81, 1e-12);
    EXPECT_NEAR(three.uncertainty, (1 + 2 * 0.9) * 0.02, 1e-12);
    const auto angle = *ratioOf(std::vector<RatioPart>{{K::angle, std::numbers::pi / 3, 1, 0, 0, 0}});
    EXPECT_NEAR(angle.value, 0.5, 1e-12);
    const auto both = *ratioOf(std::vector<RatioPart>{{K::lever, 2, 1, 0, 0, 30}, {K::line, 2, 1, 0, 0, 0}});
    EXPECT_NEAR(both.value, 4, 1e-12);
    EXPECT_NEAR(both.offset, 60, 1e-12) << "the lever's 30 N at its end, doubled by the line";
    EXPECT_NEAR(both.specimen(100), 460, 1e-9);
    EXPECT_EQ(ratioOf({})->value, 1);
}

TEST(Ratio, ImpossiblePartsAreExplained) {
    using K = RatioPart::Kind;
    for (const auto& p : {RatioPart{K::lever, 0, 1, 0, 0, 0}, RatioPart{K::line, 2.5, 1, 0, 0, 0},
                          RatioPart{K::line, 2, 1.2, 0, 0, 0}, RatioPart{K::angle, 1.6, 1, 0, 0, 0},
                          RatioPart{K::plain, 0, 1, 0, 0, 0}})
        EXPECT_FALSE(ratioOf(std::vector<RatioPart>{p}));
}

TEST(Ratio, PivotCheckByHand) {
    // 400 N, centre 1.0 m from the foot, lifted 2.5 m from it: 160 N.
    EXPECT_NEAR(*pivotLift(400, 1.0, 0, 2.5), 160, 1e-12);
    EXPECT_NEAR(*pivotLift(400, 2.5, 0, 2.5), 400, 1e-12) << "lifted at its centre";
    EXPECT_FALSE(pivotLift(400, 1, 0, 0));
    EXPECT_FALSE(pivotLift(400, -1, 0, 2));
    EXPECT_FALSE(pivotLift(0, 1, 0, 2));
}

TEST(Lines, ComeWholeHoweverTheBytesArrive) {
    const std::string stream = "hello\r\n1,2\n\n3,4\r5,6\n7";
    for (std::size_t piece = 1; piece < stream.size(); ++piece) {
        LineCutter cutter;
        std::vector<std::string> lines;
        for (std::size_t at = 0; at < stream.size(); at += piece)
            cutter.feed(std::string_view(stream).substr(at, piece),
                        [&](std::string_view l) { lines.emplace_back(l); });
        EXPECT_EQ(lines, (std::vector<std::string>{"hello", "1,2", "3,4", "5,6"})) << piece;
    }
}

TEST(Lines, AnEndlessLineIsDroppedAndCounted) {
    LineCutter cutter;
    int lines = 0;
    const std::string flood(100000, 'x');
    cutter.feed(flood, [&](std::string_view) { ++lines; });
    cutter.feed("\n1,2\n", [&](std::string_view l) {
        ++lines;
        EXPECT_EQ(l, "1,2");
    });
    EXPECT_EQ(lines, 1);
    EXPECT_EQ(cutter.tooLong(), 1U);
}

TEST(Lines, OnlyNumbersAreTaken) {
    const Layout comma{',', '.', {}, 0}, semi{';', ',', {}, 0}, blank{' ', '.', {}, 0};
    EXPECT_EQ(*numbersOf("1.5, -2e2,+3", comma), (std::vector<double>{1.5, -200, 3}));
    EXPECT_EQ(*numbersOf("1,5;2", semi), (std::vector<double>{1.5, 2}));
    EXPECT_EQ(*numbersOf("  1   2\t3 ", blank), (std::vector<double>{1, 2, 3}));
    for (const char* bad : {"", "load", "1.5,", "1,2,x", "1e400", "nan", "inf,1", "1e16", "0x12", "1.2.3",
                            "\x80\xff\x01", "1,,2", "--1"})
        EXPECT_FALSE(numbersOf(bad, comma)) << bad;
    EXPECT_FALSE(numbersOf("1.234,5", semi)) << "a point where commas are decimals";
    EXPECT_FALSE(numbersOf("1", {',', '.', {{"t", Role::time, "s"}, {"F", Role::force, "N"}}, 0}))
        << "too few columns";
}

TEST(Lines, LayoutsAreGuessedFromWhatArrives) {
    const auto a = *guessLayout(std::vector<std::string>{"rig ready", "t [ms],force [kN],travel [mm]",
                                                         "0,0.01,0", "10,0.02,0.1", "20,0.02,0.2"});
    EXPECT_EQ(a.delimiter, ',');
    ASSERT_EQ(a.columns.size(), 3U);
    EXPECT_EQ(a.columns[0], (Column{"t", Role::time, "ms"}));
    EXPECT_EQ(a.columns[1], (Column{"force", Role::force, "kN"}));
    EXPECT_EQ(a.columns[2], (Column{"travel", Role::displacement, "mm"}));
    const auto b = *guessLayout(std::vector<std::string>{"0,0;12,5", "0,1;12,7", "0,2;13,0"});
    EXPECT_EQ(b.delimiter, ';');
    EXPECT_EQ(b.decimal, ',');
    EXPECT_EQ(b.columns[0].role, Role::time);
    EXPECT_EQ(b.columns[1].role, Role::force);
    EXPECT_TRUE(b.columns[1].unit.empty()) << "a unit is asked for, never guessed";
    const auto c = *guessLayout(std::vector<std::string>{"12.5", "12.6"});
    EXPECT_EQ(c.columns[0].role, Role::force);
    EXPECT_FALSE(guessLayout(std::vector<std::string>{"\x81\x92", "ready"}));
    EXPECT_FALSE(guessLayout({}));
}

TEST(Lines, SamplesAreInSi) {
    const Layout l{
        ',', '.', {{"t", Role::time, "ms"}, {"F", Role::force, "kN"}, {"x", Role::displacement, "mm"}}, 0};
    const auto make = *SampleMaker::make(l);
    const auto s = *make("1500,2.5,12");
    EXPECT_NEAR(*s.time, 1.5, 1e-12);
    EXPECT_NEAR(s.force, 2500, 1e-9);
    EXPECT_NEAR(*s.displacement, 0.012, 1e-12);
    EXPECT_FALSE(make("1500,2.5"));
    EXPECT_FALSE(make("1500,heavy,12"));
    EXPECT_TRUE(make("1500,2.5,12,trailing words")) << "columns behind the last one wanted do not matter";
    auto wrong = l;
    wrong.columns[1].unit = "mm";
    EXPECT_FALSE(SampleMaker::make(wrong));
    wrong.columns[1].role = Role::none;
    EXPECT_NE(SampleMaker::make(wrong).error().message.find("No column holds the force"), std::string::npos);
}

TEST(Lines, FurtherChannelsComeInTheirSiUnits) {
    Layout l{',',
             '.',
             {{"t", Role::time, "s"},
              {"F", Role::force, "N"},
              {"leg", Role::force, "kg"},
              {"nothing", Role::none, ""},
              {"air", Role::other, "°C"},
              {"leg", Role::other, "kN"}},
             0};
    const auto make = SampleMaker::make(l);
    ASSERT_TRUE(make) << make.error().message;
    ASSERT_EQ(make->others().size(), 3u);
    EXPECT_EQ(make->others()[0].name, "leg");
    EXPECT_EQ(make->others()[0].unit, "N") << "kilograms of a force are kgf";
    EXPECT_EQ(make->others()[1].unit, "K");
    EXPECT_EQ(make->others()[2].name, "leg 2") << "names can be told apart";
    const auto s = (*make)("0.1,5,10,words,20,1.5");
    ASSERT_TRUE(s);
    EXPECT_NEAR(s->others[0], 98.0665, 1e-9);
    EXPECT_NEAR(s->others[1], 293.15, 1e-9);
    EXPECT_NEAR(s->others[2], 1500, 1e-9);
    EXPECT_FALSE((*make)("0.1,5,10,words,20")) << "a line that lacks a channel is none";
    for (int i = 0; i < 4; ++i)
        l.columns.push_back({"more", Role::other, "N"});
    EXPECT_FALSE(SampleMaker::make(l)) << "seven are too many";
    EXPECT_FALSE(SampleMaker::make({',', '.', {{"t", Role::time, "s"}}, 0}, false));
    const auto side =
        SampleMaker::make({',', '.', {{"t", Role::time, "s"}, {"F", Role::force, "N"}}, 0}, false);
    ASSERT_TRUE(side);
    EXPECT_EQ(side->others().size(), 1u) << "beside the main device every column is a channel";
    EXPECT_NEAR((*side)("1,7")->others[0], 7, 0);
}

TEST(Lines, ATorqueOrADecelerationMayBeTheLoad) {
    using quantity::Dimension;
    const auto torque = simulatedLayout(Dimension::torque);
    EXPECT_EQ(loadOf(torque), Dimension::torque);
    EXPECT_EQ(travelOf(torque), Dimension::angle);
    const auto s = (*SampleMaker::make(torque))("0.5,12.5,180");
    ASSERT_TRUE(s);
    EXPECT_NEAR(s->force, 12.5, 1e-12);
    EXPECT_NEAR(*s->displacement, 3.14159265358979, 1e-12);
    const auto drop = simulatedLayout(Dimension::acceleration);
    EXPECT_EQ(loadOf(drop), Dimension::acceleration);
    EXPECT_NEAR((*SampleMaker::make(drop))("0,2,1")->force, 2 * 9.80665, 1e-9);
    EXPECT_EQ(loadOf(simulatedLayout()), Dimension::force);
    EXPECT_EQ(loadOf({}), Dimension::force);
    const auto guessed =
        guessLayout(std::vector<std::string>{"time [s],torque [N·m],angle [°]", "0,1,2", "1,2,3"});
    ASSERT_TRUE(guessed);
    EXPECT_EQ(*guessed, torque);
}

TEST(Lines, ColumnsAsTyped) {
    const auto all = columnsFrom("time [ms], leg B [kN], -, air [°C], count");
    ASSERT_TRUE(all) << all.error().message;
    ASSERT_EQ(all->size(), 5U);
    EXPECT_EQ((*all)[0].role, Role::time);
    EXPECT_EQ((*all)[1].role, Role::force);
    EXPECT_EQ((*all)[1].unit, "kN");
    EXPECT_EQ((*all)[2].role, Role::none);
    EXPECT_EQ((*all)[3].role, Role::other);
    EXPECT_EQ((*all)[4].role, Role::other) << "a plain number";
    EXPECT_EQ(*columnsFrom(columnsText(*all)), *all);
    EXPECT_NE(columnsFrom("air [zork]").error().message.find("zork"), std::string::npos);
    EXPECT_TRUE(columnsFrom("")->empty());
    const auto asked = columnsFrom("leg B [kN] = MEAS:FORC2?, air [°C] = MEAS:TEMP?");
    ASSERT_TRUE(asked) << asked.error().message;
    EXPECT_EQ((*asked)[0].name, "leg B");
    EXPECT_EQ((*asked)[0].question, "MEAS:FORC2?");
    EXPECT_EQ(*columnsFrom(columnsText(*asked)), *asked);
    EXPECT_FALSE(columnsFrom("leg B [kN] = MEAS:FORC2?, leg C [kN]")) << "one has no question";
}

TEST(Lines, WhatIsKnownOfAColumnOutlivesTypingItAgain) {
    auto before = *columnsFrom("leg B [kN], air [°C]");
    before[0].flipped = true;
    before[0].limit = 500;
    before[0].calibration.points = {{0, 0}, {1, 2}};
    const auto after = keepingWhatIsKnown(*columnsFrom("time [ms], leg B [kN] , air [K]"), before);
    ASSERT_EQ(after.size(), 3U);
    EXPECT_EQ(after[1], before[0]);
    EXPECT_EQ(after[2].unit, "K") << "another unit is another column";
}

TEST(Calibration, TablesAsTyped) {
    const auto points = pointsFrom(" 0 = 0; 512 = 98,1 ;");
    ASSERT_TRUE(points) << points.error().message;
    EXPECT_EQ(*points, (std::vector<CalibrationPoint>{{0, 0}, {512, 98.1}}));
    EXPECT_EQ(pointsText(*points), "0 = 0; 512 = 98.1");
    EXPECT_TRUE(pointsFrom("")->empty());
    for (const char* bad : {"5", "a = 1", "1 = b", "1 = 2 = 3"})
        EXPECT_FALSE(pointsFrom(bad)) << bad;
}

TEST(Setup, FurtherChannelsHaveTheirOwnTableSignAndZero) {
    rig::Setup s;
    s.name = "Three legs";
    s.layout = simulatedLayout();
    s.layout.columns.push_back(
        {"leg", Role::force, "N", true, 500.0, {{{0, 0}, {100, 110}}, "2026-05-04", "", {}}, ""});
    s.layout.columns.push_back({"air", Role::other, "K"});
    s.sides.push_back(
        {"Cell B", "tcp:127.0.0.1:9", {',', '.', {{"F", Role::force, "kN", false, {}, {}, ""}}, 0}});
    s.holdSeconds = 30;
    s.lookEvery = 500;
    EXPECT_EQ(*setupFromJson(toJson(s)), s);
    auto c = *Conversion::make(s);
    EXPECT_NEAR(c.other(0, 50).value, -55, 1e-9) << "110 for 100, the other way round";
    c.zeroOthers({10, 293});
    EXPECT_NEAR(c.other(0, 10).value, 0, 1e-12);
    EXPECT_NEAR(c.other(1, 293).value, 293, 1e-12) << "a temperature is not zeroed";
    EXPECT_TRUE(c.other(0, 99).inside);
    EXPECT_FALSE(c.other(0, 101).inside) << "beyond its own table: a guess";
    EXPECT_TRUE(c.other(1, 1e6).inside) << "without a table nothing is beyond it";
    const auto names = channelsOf(s);
    ASSERT_EQ(names.size(), 2u);
    EXPECT_EQ(*names[0].limit, 500);
    EXPECT_EQ(channelsOf(s.sides[0]), (std::vector<ChannelName>{{"Cell B", "N"}}));
    s.layout.columns[3].calibration.points = {{1, 5}, {1, 6}};
    EXPECT_FALSE(Conversion::make(s)) << "two equal readings";
    EXPECT_FALSE(problems(s, "2026-01-01").empty());
}

TEST(Setup, EveryChannelsCalibrationRunsOutByItself) {
    rig::Setup s;
    s.name = "Three legs";
    s.layout = simulatedLayout();
    s.layout.columns.push_back({"leg", Role::force, "N"});
    s.sides.push_back({"Oven", "tcp:127.0.0.1:9", {',', '.', {{"air", Role::other, "K"}}, 0}});
    auto& leg = s.layout.columns.back().calibration;
    auto& air = s.sides[0].layout.columns[0].calibration;
    leg = {{{0, 0}, {100, 102}}, "2026-01-01", "2026-06-30", {}};
    air.checks = {{"2026-05-04T08:00:00", 273.15, 273.2, 0.01, "K"}};
    EXPECT_TRUE(problems(s, "2026-06-30").empty()) << "good on its last day";
    EXPECT_EQ(*setupFromJson(toJson(s)), s);
    const auto late = problems(s, "2026-07-01");
    ASSERT_EQ(late.size(), 1U);
    EXPECT_EQ(late[0], "leg: The calibration ran out on 2026-06-30.");
    air.checks.back().shown = 280;
    const auto both = problems(s, "2026-07-01");
    ASSERT_EQ(both.size(), 2U);
    EXPECT_EQ(both[1],
              "Oven, air: The last look at a known weight did not pass: 2.5 % off, more than 1.0 %.");
    EXPECT_EQ(*setupFromJson(toJson(s)), s);
}

TEST(Setup, ARigThatAnswersHasFurtherReadingsToo) {
    rig::Setup s;
    s.name = "Press";
    s.protocol = Protocol::answers;
    s.asked = *columnsFrom("leg B [kN] = MEAS:FORC2?, air [°C] = MEAS:TEMP?");
    EXPECT_FALSE(Conversion::make(s)) << "the force has no question yet: a leg must not pass for it";
    s.forceQuery = "MEAS:FORC?";
    s.displacementQuery = "MEAS:DISP?";
    const auto heard = heardLayout(s);
    ASSERT_EQ(heard.columns.size(), 4U);
    EXPECT_EQ(loadOf(heard), quantity::Dimension::force);
    const auto names = channelsOf(s);
    ASSERT_EQ(names.size(), 2U);
    EXPECT_EQ(names[0].name, "leg B");
    EXPECT_EQ(names[1].unit, "K");
    EXPECT_EQ(columnOf(s, 0), s.asked.data());
    EXPECT_EQ(columnOf(s, 1), &s.asked[1]);
    EXPECT_EQ(columnOf(s, 2), nullptr);
    columnOf(s, 0)->calibration.points = {{0, 0}, {1000, 1010}};
    EXPECT_NEAR(Conversion::make(s)->other(0, 500).value, 505, 1e-9);
    EXPECT_EQ(*setupFromJson(toJson(s)), s);
    s.displacementQuery.clear();
    EXPECT_EQ(columnOf(s, 1), &s.asked[1]) << "whatever else is asked for";
}

TEST(Dialogue, ARoundOfAnswersMakesASample) {
    rig::Setup s;
    s.protocol = Protocol::answers;
    s.forceQuery = "F?";
    s.displacementQuery = "X?";
    s.asked = *columnsFrom("leg [kN] = L?");
    const auto layout = heardLayout(s);
    const auto maker = SampleMaker::make(layout);
    ASSERT_TRUE(maker) << maker.error().message;
    Dialogue talk(layout);
    EXPECT_EQ(talk.question(), "F?");
    EXPECT_EQ(*talk.answer("+1.5E+02 N"), "");
    EXPECT_EQ(talk.question(), "X?");
    EXPECT_FALSE(talk.answer("ERROR -113")) << "no number: asked again";
    EXPECT_EQ(talk.question(), "X?");
    EXPECT_EQ(*talk.answer("12 mm"), "") << "said in millimetres, kept in metres";
    EXPECT_EQ(talk.question(), "L?");
    const auto line = talk.answer("750 N");
    ASSERT_TRUE(line);
    const auto sample = (*maker)(*line);
    ASSERT_TRUE(sample) << *line;
    EXPECT_NEAR(sample->force, 150, 1e-9);
    EXPECT_NEAR(*sample->displacement, 0.012, 1e-12);
    EXPECT_NEAR(sample->others[0], 750, 1e-9);
    EXPECT_EQ(talk.question(), "F?") << "the next round";
    (void)talk.answer("1");
    talk.restart();
    EXPECT_EQ(talk.question(), "F?") << "half a round is of another instant";
    for (const char* a : {"-1e-12", "3", "4e14"})
        (void)talk.answer(a);
    Dialogue nothing{Layout{}};
    EXPECT_EQ(nothing.question(), "");
    EXPECT_FALSE(nothing.answer("1"));
}

TEST(Dialogue, ALateAnswerIsNotTakenForAnothers) {
    Dialogue talk(Layout{',', '.', *columnsFrom("leg [N] = L?, other [N] = K?"), 0});
    EXPECT_FALSE(talk.due(100)) << "nothing was asked yet";
    talk.asked(0);
    EXPECT_EQ(*talk.answer("5", 0.1), "");
    EXPECT_FALSE(talk.due(50)) << "what is answered is not waited for";
    talk.asked(0.1);
    EXPECT_FALSE(talk.due(1.0));
    EXPECT_FALSE(talk.due(1.15)) << "given up, but the answer may still be on its way";
    EXPECT_FALSE(talk.answer("700", 1.3)) << "the second one's, late";
    EXPECT_FALSE(talk.due(1.6));
    EXPECT_TRUE(talk.due(1.75)) << "quiet again";
    EXPECT_EQ(talk.question(), "L?") << "a new round";
    talk.asked(1.75);
    EXPECT_EQ(*talk.answer("6", 1.8), "");
    talk.asked(1.8);
    EXPECT_EQ(*talk.answer("701", 1.9), "6,701");

    talk.asked(2); // lost on the way, and nothing comes late
    EXPECT_FALSE(talk.due(3.05));
    EXPECT_TRUE(talk.due(3.46));
    talk.asked(3.5); // a device that never is quiet
    double t = 4.55;
    for (; !talk.due(t) && t < 10; t += 0.05)
        EXPECT_FALSE(talk.answer("9", t));
    EXPECT_LT(t - 3.5, 2) << "before the device would pass for a silent one";
}

TEST(Dialogue, ALateAnswerToTheOnlyQuestionIsAnAnswer) {
    Dialogue talk(Layout{',', '.', *columnsFrom("leg [N] = L?"), 0});
    talk.asked(0);
    EXPECT_TRUE(talk.due(1.01));
    talk.asked(1.01);
    EXPECT_EQ(*talk.answer("5", 1.2), "5");
    EXPECT_FALSE(talk.due(9));
}

TEST(Dialogue, NumbersPassUnchangedFromAnswerToSample) {
    Layout layout{',', '.', *columnsFrom("leg [N] = L?"), 0};
    const auto maker = *SampleMaker::make(layout, false);
    for (const double v : {0.0, -0.1, 1.0 / 3, 6.02214076e14, -4.9e-324, 1e-300, 123456789.123456789}) {
        Dialogue talk(layout);
        const auto line = talk.answer(fmt::format("{}", v));
        ASSERT_TRUE(line);
        ASSERT_TRUE(maker(*line)) << *line;
        EXPECT_EQ(maker(*line)->others[0], v);
    }
}

TEST(Lines, AnswersGiveTheirNumber) {
    EXPECT_NEAR(*answerOf("+1.234E+02 N"), 123.4, 1e-9);
    EXPECT_EQ(*answerOf("12"), 12);
    EXPECT_EQ(*answerOf("-3.5kN"), -3.5);
    EXPECT_FALSE(answerOf("ERR"));
    EXPECT_FALSE(answerOf(""));
    EXPECT_FALSE(answerOf("1e400"));
    EXPECT_NEAR(*answerOf("-3.5kN", "N"), -3500, 1e-9) << "the unit that is said is the one that counts";
    EXPECT_NEAR(*answerOf("2 kg", "N"), 19.6133, 1e-9);
    EXPECT_EQ(*answerOf("12 OK", "N"), 12) << "what is no unit is passed over";
    EXPECT_FALSE(answerOf("12 mm", "N")) << "a late answer to the question for the travel is no force";
    EXPECT_EQ(*answerOf("12", "zork"), 12);
}

TEST(Setup, SurvivesJsonAndTellsItsProblems) {
    rig::Setup s;
    s.name = "Winch";
    s.address = "tcp:127.0.0.1:4711";
    s.layout = {',', '.', {{"t", Role::time, "s"}, {"F", Role::force, "N"}}, 50};
    s.cellLimit = 1000;
    s.rigLimit = 5000;
    s.path = {{RatioPart::Kind::line, 2, 0.95, 0, 0.02, 0}};
    s.calibration = {{{0, 0}, {500, 505}, {1000, 1012}}, "", "", {{"2026-05-04", 98.1, 98.6, 0.01}}};
    s.onArm = "!pull";
    s.practice = true;
    EXPECT_EQ(*setupFromJson(toJson(s)), s);
    EXPECT_TRUE(problems(s, "2026-05-04").empty());
    EXPECT_NEAR(*limitOf(s), 1950, 1e-9) << "the cell ends first";
    s.calibration.until = "2026-05-01";
    s.rigLimit = 0;
    s.calibration.checks.back().shown = 120;
    const auto p = problems(s, "2026-05-04");
    ASSERT_EQ(p.size(), 3U);
    EXPECT_EQ(p[0], "A rig limit of zero or less cannot be: give what it can show.");
    EXPECT_FALSE(setupFromJson("{"));
    EXPECT_FALSE(setupFromJson("{\"name\":3}"));
}

TEST(Setup, ConversionTakesZeroSignRatioAndStretch) {
    rig::Setup s;
    s.flipped = true;
    s.path = {{RatioPart::Kind::plain, 2, 1, 0, 0, 0}};
    s.compliance = 1e-6;
    auto c = *Conversion::make(s);
    c.zero(-10);
    EXPECT_NEAR(c.force(-60).value, 100, 1e-9);
    EXPECT_NEAR(c.displacement(0.01, 2000), 0.008, 1e-12);
    s.path[0].a = 0;
    EXPECT_FALSE(Conversion::make(s));
}

TEST(Setup, WhereTheTableEndsAtTheSpecimen) {
    rig::Setup s;
    EXPECT_FALSE(Conversion::make(s)->calibratedTo()) << "no table";
    s.path = {{RatioPart::Kind::plain, 2, 1, 0, 0, 0}};
    s.calibration.points = {{0, 0}, {500, 510}, {1000, 1030}};
    auto c = *Conversion::make(s);
    EXPECT_NEAR(*c.calibratedTo(), 2060, 1e-9);
    c.zero(500);
    EXPECT_NEAR(*c.calibratedTo(), 2 * (1030 - 510), 1e-9) << "the zero has used up half of it";
    s.flipped = true;
    s.calibration.points = {{-1000, -1030}, {0, 0}, {100, 101}};
    EXPECT_NEAR(*Conversion::make(s)->calibratedTo(), 2060, 1e-9) << "pulling reads negative";
}

struct Kept : SampleSink {
    int begun = 0, ended = 0;
    std::vector<Sample> samples;
    std::optional<Ending> ending;
    void begin() override { ++begun; }
    void append(std::span<const Sample> more) override {
        samples.insert(samples.end(), more.begin(), more.end());
    }
    void end(Ending e) override {
        ++ended;
        ending = e;
    }
};

/// A second and a half of unloaded rig.
double idle(Recorder& r, double t, double level = 0) {
    for (int i = 0; i < 150; ++i, t += 0.01)
        r.feed({t, level + (i % 2 ? 0.5 : -0.5), std::nullopt, true});
    return t;
}

TEST(Recorder, RecordsOneWholePullOfEveryModel) {
    for (const auto model : sim::allModels) {
        Kept kept;
        Recorder r(kept);
        sim::Logger logger;
        logger.noise = 2;
        logger.before = 2;
        logger.after = 0.02;
        sim::Specimen specimen;
        specimen.model = model;
        specimen.residual = 0.2;
        const auto run = sim::pull(specimen, logger, 4);
        std::size_t i = 0;
        for (; i < 150; ++i)
            r.feed({run.curve.time[i], run.curve.force[i], run.curve.displacement[i], true});
        r.arm({});
        for (; i < run.curve.time.size() && r.state() != RecorderState::done; ++i)
            r.feed({run.curve.time[i], run.curve.force[i], run.curve.displacement[i], true});
        if (r.state() != RecorderState::done) r.stop();
        EXPECT_EQ(kept.begun, 1) << sim::name(model);
        EXPECT_EQ(kept.ended, 1) << sim::name(model);
        const bool lasts = model == sim::Model::slippingGrip || model == sim::Model::smoothFriction;
        EXPECT_EQ(*kept.ending, lasts ? Ending::stopped : Ending::broke) << sim::name(model);
        double peak = 0;
        for (std::size_t k = 1; k < kept.samples.size(); ++k) {
            EXPECT_GE(kept.samples[k].time, kept.samples[k - 1].time);
            peak = std::max(peak, kept.samples[k].force);
        }
        EXPECT_NEAR(peak, run.truth.peak, 1e-9) << sim::name(model);
        EXPECT_LT(kept.samples.front().force, 20) << "the unloaded start is there";
    }
}

/// What a home-made bench does to a run.
struct Fault {
    const char* name;
    void (*spoil)(sim::Logger&);
    void (*disturb)(curve::Curve&);
};
const Fault faults[] = {
    {"none", [](sim::Logger&) {}, nullptr},
    {"spikes", [](sim::Logger& g) { g.spikes = 5; }, nullptr},
    {"drift", [](sim::Logger& g) { g.drift = 3; }, nullptr},
    {"re-zero",
     [](sim::Logger& g) {
         g.zeroOffset = 60;
         g.rezeroAt = 4;
     },
     nullptr},
    {"saturation", [](sim::Logger& g) { g.limit = 1500; }, nullptr},
    {"coarse", [](sim::Logger& g) { g.resolution = 10; }, nullptr},
    {"noise", [](sim::Logger& g) { g.noise = 20; }, nullptr},
    {"drop-out", [](sim::Logger&) {},
     [](curve::Curve& c) { // a second in mid-rise that never arrives
         const auto cut = [](std::vector<double>& v) { v.erase(v.begin() + 350, v.begin() + 450); };
         cut(c.time);
         cut(c.force);
         cut(c.displacement);
     }},
    {"numbers that are none", [](sim::Logger&) {},
     [](curve::Curve& c) {
         c.force[360] = std::nan("");
         c.force[361] = HUGE_VAL;
     }},
};

TEST(Recorder, KeepsEveryPullWholeWhateverTheBenchDoes) {
    for (const auto model : sim::allModels)
        for (const auto& fault : faults) {
            SCOPED_TRACE(std::string(sim::name(model)) + ", " + fault.name);
            Kept kept;
            Recorder r(kept);
            sim::Logger logger;
            logger.noise = 2;
            logger.before = 2;
            logger.after = 0.03;
            fault.spoil(logger);
            sim::Specimen specimen;
            specimen.model = model;
            specimen.residual = 0.2;
            auto run = sim::pull(specimen, logger, 11);
            if (fault.disturb) fault.disturb(run.curve);
            const auto& c = run.curve;
            RecorderSettings settings;
            settings.limit = logger.limit;
            settings.startForce = 100;
            std::size_t begun = 0, i = 0;
            for (; i < c.time.size() && r.state() != RecorderState::done; ++i) {
                if (i == 150) r.arm(settings);
                r.feed({c.time[i], c.force[i], c.displacement[i], true});
                if (!begun && r.state() == RecorderState::loading) begun = i;
            }
            if (r.state() != RecorderState::done) r.stop();
            EXPECT_EQ(kept.begun, 1);
            EXPECT_EQ(kept.ended, 1);
            ASSERT_TRUE(kept.ending);
            const bool lasts = model == sim::Model::slippingGrip || model == sim::Model::smoothFriction;
            EXPECT_EQ(*kept.ending, lasts ? Ending::stopped : Ending::broke);
            // Every finite sample from the first one kept to the last one fed is there once, in order,
            // unchanged.
            ASSERT_FALSE(kept.samples.empty());
            std::size_t at = 0;
            while (c.time[at] < kept.samples.front().time)
                ++at;
            for (const auto& s : kept.samples) {
                while (!std::isfinite(c.force[at]))
                    ++at;
                ASSERT_EQ(s.time, c.time[at]);
                ASSERT_EQ(s.force, c.force[at]);
                ++at;
            }
            EXPECT_EQ(at, i);
            EXPECT_LE(kept.samples.front().time, c.time[begun] - 1.4) << "the unloaded start is kept too";
        }
}

TEST(Recorder, SpikesStartNothingAndStopFromArmedKeepsNothing) {
    Kept kept;
    Recorder r(kept);
    double t = idle(r, 0);
    r.arm({});
    r.feed({t += 0.01, 900, std::nullopt, true});
    r.feed({t += 0.01, 0, std::nullopt, true});
    EXPECT_EQ(r.state(), RecorderState::armed);
    r.stop();
    EXPECT_EQ(r.state(), RecorderState::idle);
    EXPECT_EQ(kept.begun, 0);
}

/// A spike just before the arming is no noise, and one in mid-rise is no peak that the load fell from.
TEST(Recorder, SpikesNeitherHideAPullNorEndIt) {
    Kept kept;
    Recorder r(kept);
    double t = idle(r, 0);
    const auto feed = [&](double force) { r.feed({t += 0.01, force, std::nullopt, true}); };
    feed(5000);
    for (int i = 0; i < 20; ++i)
        feed(i % 2 ? 0.5 : -0.5);
    r.arm({});
    for (int i = 1; i <= 100; ++i) { // up to 1000 N
        feed(10.0 * i);
        if (i == 20) { // of the bench's electricity, at 200 N
            feed(4000);
            feed(-3000);
            feed(4000);
        }
        if (i == 60) {
            EXPECT_NEAR(r.peak(), 590, 11) << "up to the last sample but one";
            feed(9000);
            feed(9000);
        }
    }
    EXPECT_EQ(r.state(), RecorderState::loading);
    for (int i = 0; i < 31; ++i) {
        EXPECT_EQ(r.state(), RecorderState::loading);
        feed(i == 15 ? 3000 : 50);
    }
    for (int i = 0; i < 3; ++i)
        feed(50);
    EXPECT_EQ(r.state(), RecorderState::done) << "nor does one after the break keep it going";
    EXPECT_EQ(*kept.ending, Ending::broke);
    EXPECT_EQ(kept.samples.back().force, 50);
}

/// Whatever the seed, model and spikes: the greatest sample that is no spike has been recorded.
TEST(Recorder, HasThePeakOfEveryPullWithSpikes) {
    for (const auto model : sim::allModels)
        for (std::uint64_t seed = 1; seed <= 200; ++seed) {
            Kept kept;
            Recorder r(kept);
            sim::Logger logger;
            logger.noise = 2;
            logger.before = 2;
            logger.after = 0.03;
            logger.spikes = 12;
            sim::Specimen specimen;
            specimen.model = model;
            specimen.residual = 0.2;
            const auto run = sim::pull(specimen, logger, seed);
            const auto& c = run.curve;
            const std::size_t armed = static_cast<std::size_t>(1.5 * logger.rate);
            for (std::size_t i = 0; i < c.time.size() && r.state() != RecorderState::done; ++i) {
                if (i == armed) r.arm({});
                r.feed({c.time[i], c.force[i], c.displacement[i], true});
            }
            const auto has = std::any_of(kept.samples.begin(), kept.samples.end(), [&](const Sample& s) {
                return std::abs(s.force - logger.zeroOffset - run.truth.peak) < 1e-9;
            });
            ASSERT_TRUE(has) << sim::name(model) << ", seed " << seed;
        }
}

TEST(Recorder, LearnsTheNoiseOfACoarseResolution) {
    Kept kept;
    Recorder r(kept);
    double t = 0;
    for (int i = 0; i < 150; ++i) // one step of 10 N now and then
        r.feed({t += 0.01, i % 12 == 0 ? 10.0 : 0.0, std::nullopt, true});
    EXPECT_TRUE(r.offZero() || r.level() < 3 * r.noise());
    r.arm({});
    for (int i = 0; i < 5; ++i)
        r.feed({t += 0.01, 10, std::nullopt, true});
    EXPECT_EQ(r.state(), RecorderState::armed) << "a step of the display is no load";
    for (int i = 0; i < 3; ++i)
        r.feed({t += 0.01, 60, std::nullopt, true});
    EXPECT_EQ(r.state(), RecorderState::loading);
}

TEST(Recorder, EndsByHandByHoldAndByALostLink) {
    for (const auto ending : {Ending::stopped, Ending::held, Ending::linkLost, Ending::cannotSave}) {
        Kept kept;
        Recorder r(kept);
        double t = idle(r, 0);
        RecorderSettings settings;
        settings.holdSeconds = ending == Ending::held ? 1 : 0;
        settings.limit = 1000;
        r.arm(settings);
        for (int i = 0; i < 100; ++i)
            r.feed({t += 0.01, 9.5 * i, std::nullopt, true});
        EXPECT_EQ(r.state(), RecorderState::loading);
        EXPECT_TRUE(r.nearLimit());
        EXPECT_NEAR(*r.forceRate(), 950, 40);
        for (int i = 0; i < 150 && r.state() == RecorderState::loading; ++i)
            r.feed({t += 0.01, 940, std::nullopt, true});
        if (ending == Ending::stopped) r.stop();
        if (ending == Ending::linkLost) r.linkLost();
        if (ending == Ending::cannotSave) r.cannotSave();
        ASSERT_TRUE(kept.ending);
        EXPECT_EQ(*kept.ending, ending);
        EXPECT_EQ(kept.samples.size(), r.recorded());
        EXPECT_STRNE(sentence(ending), "");
        r.feed({t += 0.01, 0, std::nullopt, true});
        EXPECT_EQ(kept.ended, 1) << "nothing after the end";
        r.reset();
        EXPECT_EQ(r.state(), RecorderState::idle);
    }
}

TEST(Recorder, CountsHowOftenTheLoadCameNearTheLimit) {
    Kept kept;
    Recorder r(kept);
    double t = idle(r, 0);
    RecorderSettings settings;
    settings.limit = 1000;
    const auto feed = [&](std::initializer_list<double> forces) {
        for (const double f : forces)
            r.feed({t += 0.01, f, std::nullopt, true});
    };
    r.arm(settings);
    feed({300, 500, 700, 880});
    EXPECT_EQ(r.nearLimitTimes(), 0U);
    feed({990, 880});
    EXPECT_EQ(r.nearLimitTimes(), 0U) << "a single spike is no load";
    feed({910, 920, 930, 950, 890});
    EXPECT_EQ(r.nearLimitTimes(), 1U) << "however short it was, and once for each time";
    EXPECT_FALSE(r.nearLimit()) << "by now it is over";
    feed({905, 910, 20, 10, 5});
    EXPECT_EQ(r.nearLimitTimes(), 2U);
    r.stop();
    feed({950, 950, 950});
    EXPECT_EQ(r.nearLimitTimes(), 2U) << "nothing is being pulled";
    r.arm(settings);
    EXPECT_EQ(r.nearLimitTimes(), 2U) << "it goes on over the pulls, so that whoever looks late hears of all";
}

TEST(Recorder, AsksForZeroingWhenOff) {
    Kept kept;
    Recorder r(kept);
    idle(r, 0, 0);
    EXPECT_FALSE(r.offZero());
    Recorder off(kept);
    idle(off, 0, 8);
    EXPECT_TRUE(off.offZero());
    EXPECT_NEAR(off.level(), 8, 0.2);
}

TEST(Timeline, NeverStepsBackAndSaysWhatTheDeviceClockDid) {
    Timeline device;
    EXPECT_NEAR(device.stamp(100.0, 5.0), 5.0, 1e-12);
    EXPECT_NEAR(device.stamp(100.5, 5.51), 5.5, 1e-12) << "the device's own differences";
    EXPECT_EQ(device.jumps(), 0);
    const double after = device.stamp(0.0, 6.0); // the device started anew
    EXPECT_GE(after, 5.5);
    EXPECT_EQ(device.jumps(), 1);
    EXPECT_GE(device.stamp(0.1, 6.1), after);
    EXPECT_EQ(device.stamp(5000.0, 6.2) < 20, true) << "a leap is no five thousand seconds of pull";
    EXPECT_EQ(device.jumps(), 2);
    Timeline fast;
    for (int i = 0; i <= 200; ++i)
        fast.stamp(i * 0.1 * 1.001, i * 0.1);
    EXPECT_NEAR(*fast.skew(), 0.001, 1e-6);
    // A clock that runs 300 parts in a million fast, its lines late by 5 to 25 ms: after half an hour the
    // stamps are still this machine's, and none has stepped back.
    Timeline steered;
    double last = -1, worst = 0;
    for (int i = 0; i < 1800 * 20; ++i) {
        const double truth = i * 0.05;
        const double stamp =
            steered.stamp(77 + truth * 1.0003, 3 + truth + 0.005 + 0.020 * ((i * 7919) % 101) / 101);
        EXPECT_GE(stamp, last);
        last = stamp;
        worst = std::max(worst, std::abs(stamp - 3 - truth - 0.015));
    }
    EXPECT_LT(worst, 0.02) << "unsteered it would be 0.54 s off";
    EXPECT_EQ(skewText(0.00012), "120 parts in a million fast");
    EXPECT_EQ(skewText(-0.01), "10000 parts in a million slow");
    Timeline rate(50);
    EXPECT_NEAR(rate.stamp({}, 1.0), 1.0, 1e-12);
    EXPECT_NEAR(rate.stamp({}, 1.2), 1.02, 1e-12) << "arrived in one packet, sampled evenly";
    EXPECT_NEAR(rate.stamp({}, 9.0), 9.0, 1e-12) << "lost samples leave their gap";
    Timeline arrival;
    arrival.stamp({}, 2.0);
    EXPECT_EQ(arrival.stamp({}, 1.5), 2.0);
}

TEST(LiveTrace, KeepsEveryExtremeInBoundedRoom) {
    LiveTrace trace;
    for (int i = 0; i < 3'000'000; ++i)
        trace.add(i * 1e-3, i == 1'234'567 ? 900 : i == 77 ? -5 : std::sin(i * 0.001));
    EXPECT_LE(trace.stretches().size(), LiveTrace::most);
    for (const std::size_t most : {10UL, 300UL, 5000UL}) {
        const auto thin = thinned(trace.stretches(), most);
        EXPECT_LE(thin.size(), std::max(most, std::size_t{1}));
        double low = 0, high = 0;
        for (std::size_t k = 0; k < thin.size(); ++k) {
            low = std::min(low, thin[k].low);
            high = std::max(high, thin[k].high);
            if (k) {
                EXPECT_GT(thin[k].time, thin[k - 1].time);
            }
        }
        EXPECT_EQ(low, -5);
        EXPECT_EQ(high, 900);
    }
    trace.clear();
    EXPECT_TRUE(trace.stretches().empty());
}

TEST(Setup, ALeversOwnWeightIsNoReasonToZeroAgain) {
    rig::Setup s;
    s.path = {{RatioPart::Kind::lever, 1, 0.1, 0, 0, 5}}; // 5 N·m over 0.1 m: 50 N on the piece
    auto c = *Conversion::make(s);
    c.zero(12);
    EXPECT_NEAR(c.force(12).value, 50, 1e-9) << "the cell feels nothing, the piece the lever";
    EXPECT_NEAR(c.cellEnd(1000), 10 * (1000 - 12) + 50, 1e-9) << "the zero has taken a part of the range";
    Kept kept;
    Recorder r(kept);
    r.setUnloaded(c.ratio().offset);
    idle(r, 0, 50);
    EXPECT_FALSE(r.offZero());
    Recorder other(kept);
    other.setUnloaded(c.ratio().offset);
    idle(other, 0, 0);
    EXPECT_TRUE(other.offZero());
}

TEST(Setup, ComplianceAddsUpFromARigidBar) {
    rig::Setup s;
    EXPECT_NEAR(*complianceFrom(s, 2e6), 5e-7, 1e-18);
    s.compliance = 5e-7;
    EXPECT_NEAR(*complianceFrom(s, 1e7), 6e-7, 1e-18) << "what was left over after the first look";
    EXPECT_FALSE(complianceFrom(s, 0));
}

} // namespace
