// A line each for what makes a comparison good.
#include <anvil/plan/advice.h>
#include <anvil/plan/reach.h>
#include <gtest/gtest.h>

namespace anvil::plan {

using namespace domain;
using namespace results;
namespace {

/// Two options in one condition, three of each planned.
StudyData twoByOne(int each = 3) {
    StudyData data;
    data.study.plan.replicates = each;
    data.options = {Option{}, Option{}};
    data.conditions = {Condition{}};
    data.options[0].id = 1;
    data.options[0].name = "Pin";
    data.options[1].id = 2;
    data.options[1].name = "Bolt";
    data.conditions[0].id = 3;
    data.conditions[0].name = "Dry";
    return data;
}

AdviceLine lineOf(const StudyData& data, Advice about, double cv = 0.1) {
    const Readings readings;
    const auto lines = advise(data, readings, evaluate(data, readings, data.study.goal), cv);
    EXPECT_EQ(lines.size(), static_cast<std::size_t>(adviceCount));
    EXPECT_EQ(lines.at(static_cast<std::size_t>(about)).about, about) << "in order";
    return lines.at(static_cast<std::size_t>(about));
}

TEST(Advice, AnEmptyStudyIsToldWhatIsMissing) {
    for (int i = 0; i < adviceCount; ++i) {
        const auto line = lineOf(StudyData{}, static_cast<Advice>(i));
        EXPECT_NE(line.sign, Sign::fine) << line.sentence;
        EXPECT_FALSE(line.sentence.empty());
        EXPECT_FALSE(key(line.about).empty());
        EXPECT_FALSE(title(line.about).empty());
    }
}

TEST(Advice, EnoughIsJudgedByTheMarginThatMatters) {
    auto data = twoByOne(5);
    data.study.goal.margin = 0.5;
    EXPECT_EQ(lineOf(data, Advice::enough).sign, Sign::fine);
    data.study.goal.margin = 0.05;
    // Two groups at a CV of 10 % and a difference of 5 %: 64 of each by the tables of the two-sided t-test
    // with d = 0.5, power 0.8 (Cohen 1988).
    const auto line = lineOf(data, Advice::enough);
    EXPECT_EQ(line.sign, Sign::look);
    EXPECT_NE(line.sentence.find("That takes 64 of each."), std::string::npos) << line.sentence;
    EXPECT_NE(lineOf(twoByOne(1), Advice::enough).sentence.find("One of each ranks nothing"),
              std::string::npos);
    EXPECT_EQ(lineOf(twoByOne(0), Advice::enough).sign, Sign::open);
}

TEST(Advice, TheWeakestSquareCounts) {
    auto data = twoByOne(10);
    data.study.plan.squareFor(2, 3).replicates = 1;
    EXPECT_EQ(lineOf(data, Advice::enough).sign, Sign::look) << "one of them is pulled once";
    data.study.plan.squareFor(2, 3).struck = true;
    EXPECT_NE(lineOf(data, Advice::enough).sentence.find("10 of each"), std::string::npos);
}

TEST(Advice, ReachCountsTheSquaresThatTopOut) {
    auto data = twoByOne();
    EXPECT_EQ(lineOf(data, Advice::reach).sign, Sign::open);
    data.reach.limit = 5000;
    data.study.plan.squareFor(1, 3).forecasts.push_back({"Ines", 8000, 0.1, "", "", {}});
    auto line = lineOf(data, Advice::reach);
    EXPECT_EQ(line.sign, Sign::look);
    EXPECT_EQ(line.sentence, "1 square will top out.");
    data.study.plan.squareFor(2, 3).forecasts.push_back({"Ines", 9000, 0.1, "", "", {}});
    EXPECT_EQ(lineOf(data, Advice::reach).sentence, "2 squares will top out.");
    data.reach.limit = 50000;
    EXPECT_EQ(lineOf(data, Advice::reach).sign, Sign::fine);
}

TEST(Advice, WhoForecastAndWhatGoesFirst) {
    auto data = twoByOne();
    data.study.plan.squareFor(1, 3).forecasts.push_back({"Tobin", 8000, 0.1, "", "", {}});
    data.study.plan.squareFor(1, 3).forecasts.push_back({"Ines", 8000, 0.1, "", "", {}});
    EXPECT_EQ(lineOf(data, Advice::forecasts).sentence, "Ines, Tobin.");
    EXPECT_EQ(lineOf(data, Advice::weakest).sign, Sign::open);
    data.study.plan.chain.resize(2);
    data.study.plan.chain[0].name = "Fitting";
    data.study.plan.chain[0].strength = 1000;
    data.study.plan.chain[0].specimen = true;
    data.study.plan.chain[1].name = "Wire";
    data.study.plan.chain[1].strength = 5000;
    EXPECT_EQ(lineOf(data, Advice::weakest).sentence, "Fitting goes first, 100 of 100.");
    EXPECT_EQ(lineOf(data, Advice::weakest).sign, Sign::fine);
    data.study.plan.chain[0].strength = 9000;
    EXPECT_EQ(lineOf(data, Advice::weakest).sign, Sign::look) << "the piece would not break";
}

TEST(Advice, FairnessTellsItsOneFindingOrHowMany) {
    auto data = twoByOne();
    data.study.goal.control = 1;
    EXPECT_EQ(lineOf(data, Advice::fair).sign, Sign::fine) << lineOf(data, Advice::fair).sentence;
    data.study.goal.control = 0;
    const auto line = lineOf(data, Advice::fair);
    EXPECT_EQ(line.sign, Sign::look);
    EXPECT_NE(line.sentence.find("control"), std::string::npos) << line.sentence;
}

} // namespace
} // namespace anvil::plan
