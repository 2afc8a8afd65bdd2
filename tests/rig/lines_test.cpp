// Lines that a device sends, and what their columns hold.
#include "typed_columns.h"

#include <anvil/rig/dialogue.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <gtest/gtest.h>
#include <numbers>

using namespace anvil;
using namespace anvil::rig;

namespace {

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
    EXPECT_FALSE(numbersOf("1", {',', '.', {{"t", Role::time, "s"}, {"F", Role::load, "N"}}, 0}))
        << "too few columns";
}

TEST(Lines, LayoutsAreGuessedFromWhatArrives) {
    const auto a = *guessLayout(std::vector<std::string>{"rig ready", "t [ms],force [kN],travel [mm]",
                                                         "0,0.01,0", "10,0.02,0.1", "20,0.02,0.2"});
    EXPECT_EQ(a.delimiter, ',');
    ASSERT_EQ(a.columns.size(), 3U);
    EXPECT_EQ(a.columns[0], (LineColumn{"t", Role::time, "ms"}));
    EXPECT_EQ(a.columns[1], (LineColumn{"force", Role::load, "kN"}));
    EXPECT_EQ(a.columns[2], (LineColumn{"travel", Role::travel, "mm"}));
    const auto b = *guessLayout(std::vector<std::string>{"0,0;12,5", "0,1;12,7", "0,2;13,0"});
    EXPECT_EQ(b.delimiter, ';');
    EXPECT_EQ(b.decimal, ',');
    EXPECT_EQ(b.columns[0].role, Role::time);
    EXPECT_EQ(b.columns[1].role, Role::load);
    EXPECT_TRUE(b.columns[1].unit.empty()) << "a unit is asked for, never guessed";
    const auto c = *guessLayout(std::vector<std::string>{"12.5", "12.6"});
    EXPECT_EQ(c.columns[0].role, Role::load);
    EXPECT_FALSE(guessLayout(std::vector<std::string>{"\x81\x92", "ready"}));
    EXPECT_FALSE(guessLayout({}));
}

TEST(Lines, SamplesAreInSi) {
    const Layout l{
        ',', '.', {{"t", Role::time, "ms"}, {"F", Role::load, "kN"}, {"x", Role::travel, "mm"}}, 0};
    const auto make = *SampleMaker::make(l);
    const auto s = *make("1500,2.5,12");
    EXPECT_NEAR(*s.time, 1.5, 1e-12);
    EXPECT_NEAR(s.load, 2500, 1e-9);
    EXPECT_NEAR(*s.travel, 0.012, 1e-12);
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
              {"F", Role::load, "N"},
              {"leg", Role::load, "kg"},
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
        SampleMaker::make({',', '.', {{"t", Role::time, "s"}, {"F", Role::load, "N"}}, 0}, false);
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
    EXPECT_NEAR(s->load, 12.5, 1e-12);
    EXPECT_NEAR(*s->travel, 3.14159265358979, 1e-12);
    const auto drop = simulatedLayout(Dimension::acceleration);
    EXPECT_EQ(loadOf(drop), Dimension::acceleration);
    EXPECT_NEAR((*SampleMaker::make(drop))("0,2,1")->load, 2 * 9.80665, 1e-9);
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
    EXPECT_EQ((*all)[1].role, Role::load);
    EXPECT_EQ((*all)[1].unit, "kN");
    EXPECT_EQ((*all)[2].role, Role::none);
    EXPECT_EQ((*all)[3].role, Role::other);
    EXPECT_EQ((*all)[4].role, Role::other) << "a plain number";
    EXPECT_EQ(*columnsFrom(columnsText(*all)), *all);
    EXPECT_NE(columnsFrom("air [zork]").error().message.find("zork"), std::string::npos);
    EXPECT_TRUE(columnsOf({})->empty());
    EXPECT_FALSE(columnsOf(std::vector<ColumnText>{{"", "N", ""}})) << "a column without a name";
    EXPECT_EQ((*columnsOf(std::vector<ColumnText>{{"leg, left = west", "N", ""}}))[0].name,
              "leg, left = west")
        << "no sign is an end of a name";
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

} // namespace
