#include <anvil/plan/forecasts.h>
#include <anvil/plan/timetable.h>
#include <anvil/results/evidence.h>
#include <anvil/results/verdict.h>

#include <cmath>
#include <gtest/gtest.h>

namespace anvil::plan {

using namespace domain;
using namespace results;
namespace {

/// One condition, two options with two pulls each: means 100 and 200.
StudyData pulledStudy() {
    StudyData d;
    Condition c;
    c.id = 11;
    c.name = "Dry";
    d.conditions.push_back(c);
    for (int o = 1; o <= 2; ++o) {
        Option option;
        option.id = o;
        option.name = o == 1 ? "A" : "B";
        d.options.push_back(option);
        for (int k = 0; k < 2; ++k) {
            Specimen s;
            s.id = 10 * o + k;
            s.option = o;
            s.condition = 11;
            d.specimens.push_back(s);
            Pull p;
            p.id = 100 + s.id;
            p.specimen = s.id;
            const double value = 100 * o + (k ? 5 : -5);
            p.typed = TypedValue{metric("peak"), value, value, ""};
            p.outcome.part = o == 1 ? "glue" : "hook";
            d.pulls.push_back(p);
        }
    }
    return d;
}

TEST(Forecasts, AreScoredByDistanceBandAndPart) {
    auto d = pulledStudy();
    d.study.goal.part = "the glue";
    d.study.plan.chain = {{"Hook", 300, 0.1, false, ""}};
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 90, 0.2, "glue", ""},
                                               {"Tobin", 1000, 0.2, "hook", ""}};
    d.study.plan.squareFor(2, 11).forecasts = {{"Ines", 160, 0.2, "glue", ""}};
    for (auto& p : d.pulls)
        p.outcome.standingSaid = true; // whatever broke
    const auto scores = scoreForecasts(d, evaluate(d, {}, {}));
    ASSERT_EQ(scores.size(), 2U);
    EXPECT_EQ(scores[0].by, "Ines") << "nearest first";
    EXPECT_EQ(scores[0].squares, 2);
    EXPECT_EQ(scores[0].inside, 1) << "100/90 is inside ± 20 %, 200/160 is not";
    EXPECT_NEAR(scores[0].ratio, std::sqrt(100.0 / 90 * 200.0 / 160), 1e-12);
    EXPECT_NEAR(scores[0].worst, 1.25, 1e-12);
    EXPECT_EQ(scores[0].partsRight, 1);
    EXPECT_NEAR(scores[1].ratio, 0.1, 1e-12) << "wrong by a factor of ten";
    EXPECT_NEAR(scores[1].worst, 10, 1e-9);
    EXPECT_EQ(sentence(scores[0]),
              "Ines: 1 of 2 inside the stated band, measured 1.18 times the expected, 1 of 2 parts right.");
    EXPECT_EQ(sentence(scores[1]),
              "Tobin: 0 of 1 inside the stated band, measured 0.100 times the expected, 0 of 1 parts right.");
}

TEST(Forecasts, AtLeastIsNoMeasureOfAForecast) {
    auto d = pulledStudy();
    d.study.goal.part = "glue";
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 100, 0.2, "the glue", ""}};
    d.pulls[0].standing = Standing::atLeast;
    d.pulls[0].outcome.part = "Glue";
    d.pulls[0].outcome.mode = "tore";
    d.pulls[1].outcome.part = "no idea"; // names no part, so it tells nothing
    const auto scores = scoreForecasts(d, evaluate(d, {}, {}));
    ASSERT_EQ(scores.size(), 1U);
    EXPECT_EQ(scores[0].squares, 0);
    EXPECT_EQ(scores[0].parts, 1);
    EXPECT_EQ(scores[0].partsRight, 1);
    EXPECT_EQ(sentence(scores[0]), "Ines: 1 of 1 parts right.");
}

TEST(Forecasts, WithoutResultsThereIsNothingToScore) {
    auto d = pulledStudy();
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 90, 0.2, "", ""}};
    d.pulls.clear();
    EXPECT_TRUE(scoreForecasts(d, evaluate(d, {}, {})).empty());
    EXPECT_TRUE(scoreForecasts({}, {}).empty());
}

} // namespace
} // namespace anvil::plan
