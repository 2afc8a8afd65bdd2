#include <anvil/tables/values.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::tables;
using stats::State;

namespace {

ValueTable readOk(const std::string& text) {
    auto t = readValues(text);
    if (!t) {
        ADD_FAILURE() << t.error().message;
        return {};
    }
    return std::move(*t);
}

TEST(Values, EveryColumnByItsHeading) {
    const auto t = readOk(
        "Condition,Value,Option,State,Upper,Block,Unit,Note\nDry,4.2,Pin,,,b1,kN,fine\nDry,5,Pin,above,,b1,"
        "kN,\nWet,3,Pin,between,4,b2,kN,\nWet,2,Pin,below,,,kN,\nWet,9,Pin,aside,,,kN,jaw slipped\n");
    ASSERT_EQ(t.rows.size(), 5U);
    EXPECT_TRUE(t.problems.empty());
    EXPECT_EQ(t.rows[0].option, "Pin");
    EXPECT_EQ(t.rows[0].condition, "Dry");
    EXPECT_EQ(t.rows[0].value.value, 4.2);
    EXPECT_EQ(t.rows[0].block, "b1");
    EXPECT_EQ(t.rows[0].unit->symbol, "kN");
    EXPECT_EQ(t.rows[1].value.state, State::above);
    EXPECT_EQ(t.rows[2].value.state, State::between);
    EXPECT_EQ(t.rows[2].value.upper, 4);
    EXPECT_EQ(t.rows[3].value.state, State::below);
    EXPECT_EQ(t.rows[4].value.state, State::aside);
    EXPECT_EQ(t.rows[4].note, "jaw slipped");
}

TEST(Values, PastedFromASpreadsheetWithoutHeadings) {
    const auto two = readOk("Pin\t4.2 kN\nBolt\t>9 kN\n");
    ASSERT_EQ(two.rows.size(), 2U);
    EXPECT_EQ(two.rows[0].unit->symbol, "kN");
    EXPECT_EQ(two.rows[1].value.state, State::above);
    EXPECT_EQ(two.rows[1].value.value, 9);
    const auto five = readOk("Pin\tDry\t4,2\tkN\tat least\n");
    EXPECT_EQ(five.rows[0].value.value, 4.2);
    EXPECT_EQ(five.rows[0].value.state, State::above);
    EXPECT_EQ(five.rows[0].condition, "Dry");
}

TEST(Values, DoubtAndOwnUnits) {
    const auto t = readOk("option,value\nPin,4…5 kN\nPin,48.3 kg\nPin,<2 kN\n");
    EXPECT_EQ(t.rows[0].value.state, State::between);
    EXPECT_EQ(t.rows[0].value.upper, 5);
    EXPECT_EQ(t.rows[1].unit->symbol, "kgf");
    EXPECT_EQ(t.rows[2].value.state, State::below);
}

TEST(Values, UnitInTheHeading) {
    const auto t = readOk("option;peak force (kN)\nPin;4,2\n");
    EXPECT_EQ(t.rows[0].unit->symbol, "kN");
    EXPECT_EQ(t.rows[0].value.value, 4.2);
}

TEST(Values, BadRowsAreNamedAndTheRestGoesIn) {
    const auto t = readOk("option,value,unit,state\nPin,4,kN,\n,5,kN,\nPin,,kN,\nPin,soft,kN,\nPin,5,"
                          "furlongs,\nPin,5,kN,perhaps\nPin,6,kN,between\nPin,7,kN,\n");
    EXPECT_EQ(t.rows.size(), 2U);
    ASSERT_EQ(t.problems.size(), 6U);
    EXPECT_EQ(t.problems[0].line, 3U);
    EXPECT_EQ(t.problems[0].reason, "has no option");
    EXPECT_EQ(t.problems[1].reason, "has no value");
    EXPECT_NE(t.problems[2].reason.find("does not start with a number"), std::string::npos)
        << t.problems[2].reason;
    EXPECT_NE(t.problems[3].reason.find("\"furlongs\" is not a unit known here"), std::string::npos);
    EXPECT_EQ(t.problems[4].reason,
              "\"perhaps\" is not a standing: use exact, above, below, between or aside");
    EXPECT_EQ(t.problems[5].reason, "says between but gives no upper bound");
}

TEST(Values, WhatIsNoTableIsASentence) {
    EXPECT_EQ(readValues("hello\n").error().message,
              "no columns can be told apart in it: a table of option, condition and value is needed");
    EXPECT_EQ(readValues("option,colour\nPin,red\n").error().message,
              "the heading has no column named value");
    EXPECT_EQ(readValues("value,colour\n1,red\n").error().message, "the heading has no column named option");
    EXPECT_FALSE(readValues(""));
}

TEST(Values, UnifyConvertsToTheFirstRowsUnit) {
    auto t = readOk("option,value,unit\nPin,4,kN\nPin,500,N\nPin,100,lbf\n");
    const auto u = unify(t.rows);
    ASSERT_TRUE(u);
    EXPECT_EQ((*u)->symbol, "kN");
    EXPECT_DOUBLE_EQ(t.rows[1].value.value, 0.5);
    EXPECT_DOUBLE_EQ(t.rows[2].value.value, 0.44482216152605);
    auto mixed = readOk("option,value,unit\nPin,4,kN\nPin,5,mm\n");
    EXPECT_NE(unify(mixed.rows).error().message.find("one cannot become the other"), std::string::npos);
    auto half = readOk("option,value,unit\nPin,4,kN\nPin,5,\n");
    EXPECT_EQ(unify(half.rows).error().message,
              "line 3 has no unit although line 2 has one: give all rows a unit or none");
}

TEST(Names, WordsOfAFileName) {
    const auto p = partsOf("/logs/wedge-socket_salt-soaked_3.csv", {});
    EXPECT_EQ(p.option, "wedge socket");
    EXPECT_EQ(p.condition, "salt soaked");
    EXPECT_EQ(p.replicate, 3);
    EXPECT_EQ(partsOf("pin_rep07.log", {}).replicate, 7);
    EXPECT_EQ(partsOf("pin.csv", {}).option, "pin");
    EXPECT_EQ(partsOf("pin.csv", {}).replicate, 0);
}

TEST(Names, ACorrectionTeachesWhereTheWordsStand) {
    const auto places = learn("2026_dry_pin_3.csv", "pin");
    ASSERT_TRUE(places);
    NamePattern pattern;
    pattern.option = *places;
    pattern.condition = *learn("2026_dry_pin_3.csv", "Dry");
    const auto p = partsOf("2026_wet_bolt_4.csv", pattern);
    EXPECT_EQ(p.option, "bolt");
    EXPECT_EQ(p.condition, "wet");
    EXPECT_EQ(p.replicate, 4);
    EXPECT_FALSE(learn("2026_dry_pin_3.csv", "screw"));
}

} // namespace
