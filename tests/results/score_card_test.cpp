#include "study_maker.h"

#include <anvil/results/score_card.h>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Criterion byPeak(Id study, Id condition, double weight) {
    Criterion c;
    c.name = "Peak force";
    c.study = study;
    c.condition = condition;
    c.weight = weight;
    return c;
}

/// A and B in two conditions, C in the first only; A dear, B cheap, C without a price.
struct Card : testing::Test {
    Maker m;
    Verdict verdict;
    CardSources sources;

    Card() {
        m.option("A").option("B").option("C").condition("Dry").condition("Wet");
        m.square(1, 11, {100, 102, 98, 101}).square(2, 11, {80, 81, 79, 80}).square(3, 11, {50, 51, 50, 49});
        m.square(1, 12, {60, 61, 62, 61}).square(2, 12, {61, 60, 62, 61});
        m.data.options[0].unitCost = 4;
        m.data.options[1].unitCost = 2;
        verdict = m.verdict();
        sources.study = [this](Id id) { return id == 1 ? &m.data : nullptr; };
        sources.verdict = [this](Id id, Metric) { return id == 1 ? &verdict : nullptr; };
    }
};

TEST_F(Card, MarksAndScoresByHand) {
    Criterion price;
    price.name = "Price";
    price.judged = Judged::byCost;
    price.sense = Sense::less;
    price.weight = 1;
    const auto card = cardOf(m.data, {"All", {byPeak(1, 11, 3), price}}, sources);
    ASSERT_TRUE(card);
    EXPECT_EQ(card->options, (std::vector<std::string>{"A", "B", "C"}));
    const double mean = (100 + 102 + 98 + 101) / 4.0;
    EXPECT_DOUBLE_EQ(card->marks[0][0].value(), 1);
    EXPECT_DOUBLE_EQ(card->marks[1][0].value(), 80 / mean);
    EXPECT_DOUBLE_EQ(card->marks[0][1].value(), 0.5);
    EXPECT_DOUBLE_EQ(card->marks[1][1].value(), 1);
    EXPECT_FALSE(card->marks[2][1]);
    EXPECT_DOUBLE_EQ(card->scores[0].score.value(), 0.75 + 0.125);
    EXPECT_DOUBLE_EQ(card->scores[1].score.value(), 0.75 * 80 / mean + 0.25);
    EXPECT_DOUBLE_EQ(card->scores[2].tested, 0.75);
    EXPECT_DOUBLE_EQ(card->scores[2].worst.value(), 0.75 * 50 / mean + 0.125);
    EXPECT_DOUBLE_EQ(card->scores[2].best.value(), 0.75 * 50 / mean + 0.25);
    EXPECT_EQ(card->winner, 0u) << "0.875 against 0.848";
    EXPECT_TRUE(card->criteria[0].separates);
    EXPECT_EQ(card->criteria[0].where, "Dry");
    ASSERT_FALSE(card->turns.empty());
    EXPECT_EQ(card->turns[0].now, 1u) << "with less weight on strength the cheap one wins";
}

TEST_F(Card, ACriterionThatTellsNobodyApartIsFound) {
    const auto card = cardOf(m.data, {"", {byPeak(1, 12, 1)}}, sources);
    ASSERT_TRUE(card);
    EXPECT_FALSE(card->criteria[0].separates);
    EXPECT_FALSE(card->scores[2].score) << "C was never tested wet";
    EXPECT_EQ(card->title, m.data.study.title) << "without a title of its own";
}

TEST_F(Card, WhatIsGoneOrCannotBeMarkedIsBlank) {
    auto gone = byPeak(1, 99, 1), away = byPeak(7, 0, 1);
    Criterion eye;
    eye.name = "Looks";
    eye.judged = Judged::byEye;
    eye.ratings = {{"A", 0}, {"Z", 3}};
    const auto card = cardOf(m.data, {"", {gone, away, eye}}, sources);
    ASSERT_TRUE(card);
    EXPECT_EQ(card->options.back(), "Z") << "judged, though no option of the study";
    for (const auto& option : card->marks) {
        EXPECT_FALSE(option[0]);
        EXPECT_FALSE(option[1]);
    }
    EXPECT_TRUE(card->criteria[2].marked) << "a rating of 0 is one";
    EXPECT_EQ(card->marks.front()[2], std::optional(0.0));
    EXPECT_EQ(card->marks.back()[2], std::optional(1.0));
    auto anchored = eye;
    anchored.anchors = {0, 4};
    const auto again = cardOf(m.data, {"", {anchored}}, sources);
    EXPECT_DOUBLE_EQ(again->marks[3][0].value(), 0.75);
    EXPECT_FALSE(cardOf(m.data, {}, sources)) << "no criteria, no card";
}

TEST_F(Card, OffersWhatIsKnownAndNotOnItYet) {
    const Results table(m.data, m.readings);
    sources.table = [&](Id id) { return id == 1 ? &table : nullptr; };
    auto offered = offeredCriteria(m.data, {&m.data}, sources);
    ASSERT_EQ(offered.size(), 3u); // peak dry, peak wet, price: nobody weighs anything, nor has any curve
    EXPECT_EQ(offered[0].condition, 11);
    EXPECT_EQ(offered[2].judged, Judged::byCost);
    EXPECT_EQ(offered[2].sense, Sense::less);
    m.data.study.card.criteria = {offered[1]};
    offered = offeredCriteria(m.data, {&m.data}, sources);
    EXPECT_EQ(offered.size(), 2u);
}

} // namespace
} // namespace anvil::results
