#include <anvil/tables/values.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::tables;
using stats::Bound;

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
    EXPECT_EQ(t.rows[1].value.bound, Bound::above);
    EXPECT_EQ(t.rows[2].value.bound, Bound::between);
    EXPECT_EQ(t.rows[2].value.upper, 4);
    EXPECT_EQ(t.rows[3].value.bound, Bound::below);
    EXPECT_TRUE(t.rows[4].value.aside);
    EXPECT_EQ(t.rows[4].note, "jaw slipped");
}

TEST(Values, PastedFromASpreadsheetWithoutHeadings) {
    const auto two = readOk("Pin\t4.2 kN\nBolt\t>9 kN\n");
    ASSERT_EQ(two.rows.size(), 2U);
    EXPECT_EQ(two.rows[0].unit->symbol, "kN");
    EXPECT_EQ(two.rows[1].value.bound, Bound::above);
    EXPECT_EQ(two.rows[1].value.value, 9);
    const auto five = readOk("Pin\tDry\t4,2\tkN\tat least\n");
    EXPECT_EQ(five.rows[0].value.value, 4.2);
    EXPECT_EQ(five.rows[0].value.bound, Bound::above);
    EXPECT_EQ(five.rows[0].condition, "Dry");
}

TEST(Values, DoubtAndOwnUnits) {
    const auto t = readOk("option,value\nPin,4…5 kN\nPin,48.3 kg\nPin,<2 kN\n");
    EXPECT_EQ(t.rows[0].value.bound, Bound::between);
    EXPECT_EQ(t.rows[0].value.upper, 5);
    EXPECT_EQ(t.rows[1].unit->symbol, "kgf");
    EXPECT_EQ(t.rows[2].value.bound, Bound::below);
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
    EXPECT_NE(t.problems[2].reason.find("\"soft\" is no value"), std::string::npos) << t.problems[2].reason;
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

std::string told(const std::string& text) {
    const auto t = readValues(text);
    if (!t) return t.error().message;
    std::string out;
    for (const auto& r : t->rows)
        out += fmt::format("{}{}{}={}{}{} ", r.option, r.condition.empty() ? "" : "|", r.condition,
                           r.value.bound == Bound::above   ? ">"
                           : r.value.bound == Bound::below ? "<"
                           : r.value.aside                 ? "!"
                                                           : "",
                           r.value.value, r.unit ? std::string(r.unit->symbol) : "");
    return out + fmt::format("({} lost)", t->lost);
}

TEST(Values, ReplicatesSideBySide) {
    EXPECT_EQ(told("Option,Test 1 (kg),Test 2 (kg),Mean (kg)\nGorse,4,5,4.5\nAlder,6,,6\n"),
              "Gorse=4kgf Gorse=5kgf Alder=6kgf (0 lost)");
    EXPECT_EQ(told("Option,Condition,Rep 1,Rep 2\nGorse,dry,4 kN,>5 kN\nGorse,wet,2 kN,3 kN\n"),
              "Gorse|dry=4kN Gorse|dry=>5kN Gorse|wet=2kN Gorse|wet=3kN (0 lost)");
    EXPECT_EQ(told("Option,1,2,3,Average\nGorse,4,5,6,5\nAlder,6,7,8,7\n"),
              "Gorse=4 Gorse=5 Gorse=6 Alder=6 Alder=7 Alder=8 (0 lost)");
}

TEST(Values, OptionsSideBySide) {
    EXPECT_EQ(told("Rep,Gorse,Alder\n1,4,6\n2,5,7\nMean,4.5,6.5\n"),
              "Gorse=4 Alder=6 Gorse=5 Alder=7 (0 lost)");
    EXPECT_EQ(told("Gorse (kN);Alder (kN)\n4,5;6\n5;7\n"),
              "Gorse=4.5kN Alder=6kN Gorse=5kN Alder=7kN (0 lost)");
    EXPECT_FALSE(readValues("Time (s),Force (N)\n0,1\n1,2\n2,3\n")) << "a log is no table of results";
}

TEST(Values, AsAStatisticsProgramPrintsThem) {
    EXPECT_EQ(told("\"Option\" \"Peak (kg)\"\n\"1\" \"Gorse hook\" 4\n\"2\" \"Alder clip\" 5\n"),
              "Gorse hook=4kgf Alder clip=5kgf (0 lost)");
}

TEST(Values, TheWholeColumnDecidesAboutTheComma) {
    EXPECT_EQ(told("option;peak (N)\nGorse;1,250\nGorse;980\n"), "Gorse=1250N Gorse=980N (0 lost)");
    EXPECT_EQ(told("option;peak (kN)\nGorse;1,250\nGorse;1,25\n"), "Gorse=1.25kN Gorse=1.25kN (0 lost)");
    EXPECT_EQ(told("option;peak (N)\nGorse;1.250,5\nGorse;1.300,25\n"),
              "Gorse=1250.5N Gorse=1300.25N (0 lost)");
    EXPECT_EQ(told("option,peak (N)\nGorse,\"1,250.5\"\nGorse,\"1,300\"\n"),
              "Gorse=1250.5N Gorse=1300N (0 lost)");
    EXPECT_NE(told("option;peak (N)\nGorse;1,250\nGorse;2,500\n").find("can be 1.25 or 1250"),
              std::string::npos);
}

TEST(Values, BoundsInWordsAndSigns) {
    EXPECT_EQ(
        told("option,peak (N)\nA,> 1300\nA,1300+\nA,at least 1300\nA,1300 (off scale)\nA,≥1300\nA,< 20\nA,at "
             "most 20\nA,1300 (void)\n"),
        "A=>1300N A=>1300N A=>1300N A=>1300N A=>1300N A=<20N A=<20N A=!1300N (0 lost)");
    const auto t = readOk("option,peak (N)\nA,1300\nA,void\nA,—\nA,off scale\n");
    EXPECT_EQ(t.rows.size(), 1U);
    ASSERT_EQ(t.problems.size(), 3U);
    EXPECT_EQ(t.problems[0].reason, "is set aside (\"void\") and gives no value");
    EXPECT_EQ(t.lost, 1U) << "only \"off scale\" without a number is a result that is missing";
}

TEST(Values, WhatItWasPulledOutOfIsACondition) {
    EXPECT_EQ(told("Option,Substrate,Peak (N)\nGorse,larch,5\nGorse,slate,4\n"),
              "Gorse|larch=5N Gorse|slate=4N (0 lost)");
    EXPECT_EQ(told("Product,Material,Condition,Peak (N)\nGorse,larch,wet,5\n"),
              "Gorse|wet larch=5N (0 lost)");
    EXPECT_EQ(told("Material,Peak (N)\nlarch,5\n"), "larch=5N (0 lost)");
}

TEST(Values, UnitsMixedInCells) {
    auto t = readOk("option,value\nA,1 kN\nA,500 N\n");
    ASSERT_TRUE(unify(t.rows));
    EXPECT_DOUBLE_EQ(t.rows[1].value.value, 0.5);
    auto mixed = readOk("option,value\nA,1 kN\nA,500 mm\n");
    EXPECT_FALSE(unify(mixed.rows));
}

} // namespace
