// Set-ups of rigs: problems, conversion, what is kept.
#include "typed_columns.h"

#include <anvil/rig/dialogue.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::rig;

namespace {

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

TEST(Setup, FurtherChannelsHaveTheirOwnTableSignAndZero) {
    rig::Setup s;
    s.name = "Three legs";
    s.layout = simulatedLayout();
    s.layout.columns.push_back(
        {"leg", Role::load, "N", true, 500.0, {{{0, 0}, {100, 110}}, "2026-05-04", "", {}}, ""});
    s.layout.columns.push_back({"air", Role::other, "K"});
    s.sides.push_back(
        {"Cell B", "tcp:127.0.0.1:9", {',', '.', {{"F", Role::load, "kN", false, {}, {}, ""}}, 0}});
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
    s.layout.columns.push_back({"leg", Role::load, "N"});
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

TEST(Setup, SurvivesJsonAndTellsItsProblems) {
    rig::Setup s;
    s.name = "Winch";
    s.address = "tcp:127.0.0.1:4711";
    s.layout = {',', '.', {{"t", Role::time, "s"}, {"F", Role::load, "N"}}, 50};
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

TEST(Setup, VoltsAndPressuresBecomeLoadsBeforeTheLever) {
    rig::Setup s;
    s.name = "Bench";
    s.address = "tcp:127.0.0.1:4711";
    s.layout.columns = {{"time", Role::time, "s"}, {"bridge", Role::load, "mV"}};
    EXPECT_NE(displayTrouble(s).find("in volts"), std::string::npos) << displayTrouble(s);
    EXPECT_FALSE(Conversion::make(s)) << "never newtons";
    s.shows = quantity::Dimension::voltage;
    EXPECT_NE(displayTrouble(s).find("one volt"), std::string::npos) << displayTrouble(s);
    s.path = {{RatioPart::Kind::sensor, 2000, 0.1, 10, 0, 0}, {RatioPart::Kind::lever, 1, 0.25, 0, 0, 5}};
    EXPECT_EQ(displayTrouble(s), "");
    EXPECT_EQ(recordedLoad(s), quantity::Dimension::force);
    auto c = *Conversion::make(s);
    // 350 mV are (0.35 − 0.1) V · 2000 N/V · 4, and the arm's 5 N·m over 0.25 m.
    const auto maker = *SampleMaker::make(s.layout);
    const auto sample = maker("1.0,350");
    ASSERT_TRUE(sample);
    EXPECT_NEAR(c.force(sample->load).value, 0.25 * 2000 * 4 + 20, 1e-9);
    c.zero(0.12); // it shows 120 mV of nothing today
    EXPECT_NEAR(c.force(0.35).value, 0.23 * 2000 * 4 + 20, 1e-9);
    EXPECT_NEAR(c.ratio().uncertainty / c.ratio().value, 10.0 / 2000, 1e-12);
    s.cellLimit = 1000; // N at the cell: 4000 N at the piece and the arm
    EXPECT_NEAR(*limitOf(s), 4020, 1e-9);
    EXPECT_NEAR(c.cellEnd(1000), 4 * (1000 - 0.12 * 2000 + 0.1 * 2000) + 20, 1e-9);
    EXPECT_EQ(*setupFromJson(toJson(s)), s);
    s.calibration.points = {{0, 0}, {1, 2100}};
    EXPECT_NE(displayTrouble(s).find("take one of them out"), std::string::npos) << displayTrouble(s);
    s.path.erase(s.path.begin());
    EXPECT_NEAR(Conversion::make(s)->force(0.5).value, 4 * 1050 + 20, 1e-9) << "the table alone";
    s.path.push_back({RatioPart::Kind::ram, 1e-3, 0, 0, 0, 0});
    EXPECT_NE(ratioOf(s.path).error().message.find("comes first"), std::string::npos);
}

TEST(Setup, AColumnWithoutAUnitIsNeverNewtons) {
    rig::Setup s;
    s.address = "tcp:127.0.0.1:4711";
    s.layout.columns = {{"force", Role::load, ""}, {"travel", Role::travel, "mm"}};
    EXPECT_NE(armingTrouble(s).find("unit the load arrives"), std::string::npos) << armingTrouble(s);
    EXPECT_TRUE(Conversion::make(s)) << "it is listened to, so that one can look";
    s.layout.columns[0].unit = "kgf";
    EXPECT_EQ(armingTrouble(s), "");
    s.layout.columns[1].unit.clear();
    EXPECT_NE(armingTrouble(s).find("travel"), std::string::npos);
}

TEST(Setup, DivisionsOfADialAreNoLoads) {
    rig::Setup s;
    s.shows = quantity::Dimension::ratio;
    EXPECT_NE(displayTrouble(s).find("table"), std::string::npos) << displayTrouble(s);
    s.calibration.points = {{0, 0}, {50, 5000}};
    EXPECT_EQ(displayTrouble(s), "");
    s.address = "tcp:127.0.0.1:4711";
    s.layout.columns = {{"dial", Role::load, "lbf"}};
    EXPECT_NE(displayTrouble(s).find("in lbf"), std::string::npos) << displayTrouble(s);
    EXPECT_NEAR(areaOfBore(0.04), 12.566370614e-4, 1e-12);
}

TEST(Setup, ComplianceAddsUpFromARigidBar) {
    rig::Setup s;
    EXPECT_NEAR(*complianceFrom(s, 2e6), 5e-7, 1e-18);
    s.compliance = 5e-7;
    EXPECT_NEAR(*complianceFrom(s, 1e7), 6e-7, 1e-18) << "what was left over after the first look";
    EXPECT_FALSE(complianceFrom(s, 0));
}

} // namespace
