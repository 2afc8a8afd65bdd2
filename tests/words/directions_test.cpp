// Words that depend on the direction, on single pulls, and on averages that are equal.
#include "study_maker.h"
#include <anvil/words/size.h>
#include <anvil/words/unlikely.h>
#include <anvil/words/verdict.h>
#include <gtest/gtest.h>

namespace anvil::words {
namespace {

results::Maker two() {
    results::Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    return m;
}

TEST(Words, SinglePullsHaveWordsOfTheirOwn) {
    auto m = two();
    m.square(1, 11, {127}).square(2, 11, {100});
    const auto v = m.verdict();
    const auto text = sentence(m.data, v, v.pairs[0]);
    EXPECT_EQ(text, "Pin against Bolt in Dry: 1.27 times; one pull of each says no more. Two pieces of one "
                    "kind differ as "
                    "much with a chance of 16 %, at a spread of 12 % (a usual guess). 5 of each would settle "
                    "a difference "
                    "of 27 % four times in five.");
}

TEST(Words, EqualIsSaidAsEqual) {
    auto m = two();
    m.square(1, 11, {100, 110, 120}).square(2, 11, {105, 110, 115});
    const auto v = m.verdict();
    EXPECT_EQ(headline(m.data, v, m.data.conditions[0]),
              "Dry: Pin and Bolt have the same highest mean peak force: nobody leads.");
    EXPECT_EQ(sentence(m.data, v, v.pairs[0]), "Pin against Bolt in Dry: their averages are equal.");
}

TEST(Words, WhoCannotBePlacedIsSaid) {
    auto m = two();
    for (int k = 0; k < 3; ++k)
        m.pull(1, 11, 200, domain::Standing::atLeast);
    m.square(2, 11, {212, 220, 215});
    m.data.study.goal.sense = domain::Sense::less;
    const auto text = headline(m.data, m.verdict(), m.data.conditions[0]);
    EXPECT_NE(text.find("Pin cannot be placed: its pulls say only \"at least\"."), std::string::npos) << text;
}

TEST(Words, ABoundOnARatioBelowOneIsToldTheRightWayRound) {
    stats::Comparison c;
    c.ratio = 0.71;
    c.atLeast = true; // at least 0.71 times is at most 29 % less
    EXPECT_EQ(sizeText(c), "at most 29 % less");
    c.atLeast = false;
    c.atMost = true;
    EXPECT_EQ(sizeText(c), "at least 29 % less");
    c.ratio = 1.4;
    EXPECT_EQ(sizeText(c), "at most 40 % more");
}

TEST(Words, TheSameShowsTheIntervalThatItPromises) {
    auto m = two();
    m.square(1, 11, {100, 101, 99, 100.5, 99.5}).square(2, 11, {101, 102, 100, 101.5, 100.5});
    const auto v = m.verdict();
    ASSERT_EQ(v.pairs[0].comparison.verdict, stats::PairVerdict::same);
    EXPECT_NE(sentence(m.data, v, v.pairs[0]).find("(90 % interval "), std::string::npos);
}

TEST(Words, AnUnlikelyNumberIsAskedAboutByItsUnit) {
    const auto typed = *quantity::parseEntry("410 N", quantity::Dimension::force);
    const auto odd = results::unlikely(typed, {1779.3, 1823.8});
    ASSERT_TRUE(odd);
    EXPECT_EQ(sentence(*odd, typed),
              "The others of this square (1800 N) are 4.39 times 410 N. Was 410 lbf meant?");
}

} // namespace
} // namespace anvil::words
