#include <anvil/words/size.h>

#include <gtest/gtest.h>
#include <limits>

namespace anvil::words {
namespace {

constexpr double open = std::numeric_limits<double>::infinity();

stats::Comparison of(double ratio, std::optional<std::pair<double, double>> ends = {},
                     std::size_t family = 1) {
    stats::Comparison c;
    c.ratio = ratio;
    c.drawnFamily = ends;
    c.family = family;
    c.verdict = stats::PairVerdict::stronger;
    return c;
}

TEST(Size, IsToldInPerCentFromHalfToTwice) {
    EXPECT_EQ(sizeText(of(1.25)), "25 % more");
    EXPECT_EQ(sizeText(of(0.8)), "20 % less");
    EXPECT_EQ(sizeText(of(1.25), true), "20 % less") << "from the other side";
    EXPECT_EQ(sizeText(of(1.25), false, "Hook"), "25 % more than Hook");
    EXPECT_EQ(sizeText(of(3), false, "Hook"), "3.00 times Hook");
    EXPECT_EQ(sizeText(of(0.25), true), "4.00 times");
    EXPECT_EQ(sizeText(of(2)), "2.00 times") << "twice is no per cent any more";
    EXPECT_EQ(sizeText(of(0.5)), "0.500 times");
    EXPECT_EQ(sizeText(stats::Comparison{}), "");
}

TEST(Size, HasTheIntervalOfItsTest) {
    EXPECT_EQ(sizeText(of(1.25, std::pair(1.1, 1.4))), "25 % more (95 % interval 10 % to 40 %)");
    EXPECT_EQ(sizeText(of(1.25, std::pair(1.1, 1.4), 3)),
              "25 % more (95 % interval over all pairs 10 % to 40 %)");
    EXPECT_EQ(sizeText(of(0.8, std::pair(0.7, 0.9))), "20 % less (95 % interval 10 % to 30 %)")
        << "the lesser first";
    EXPECT_EQ(sizeText(of(0.8, std::pair(0.625, 0.9)), true), "25 % more (95 % interval 11 % to 60 %)");
    EXPECT_EQ(sizeText(of(1.1, std::pair(0.9, 1.3))), "10 % more (95 % interval 10 % less to 30 % more)");
    EXPECT_EQ(sizeText(of(3, std::pair(2, 4.5))), "3.00 times (95 % interval 2.00 to 4.50)");
}

TEST(Size, EndsMayBeOpen) {
    EXPECT_EQ(sizeText(of(1.25, std::pair(1.1, open))), "25 % more (95 % interval from 10 % more up)");
    EXPECT_EQ(sizeText(of(1.25, std::pair(0.0, 1.4))), "25 % more (95 % interval up to 40 % more)");
    EXPECT_EQ(sizeText(of(1.25, std::pair(0.0, open))), "25 % more (95 % interval open at both ends)");
    EXPECT_EQ(sizeText(of(3, std::pair(2, open))), "3.00 times (95 % interval from 2.00 up)");
}

/// "At least 0.7 times" is "at most 30 % less".
TEST(Size, OfABoundSaysWhichWay) {
    auto c = of(1.25);
    c.atLeast = true;
    EXPECT_EQ(sizeText(c), "at least 25 % more");
    EXPECT_EQ(sizeText(c, true), "at least 20 % less");
    c.atLeast = false;
    c.atMost = true;
    EXPECT_EQ(sizeText(c), "at most 25 % more");
    EXPECT_EQ(sizeText(c, true), "at most 20 % less");
    auto far = of(3);
    far.atLeast = true;
    EXPECT_EQ(sizeText(far), "at least 3.00 times");
    EXPECT_EQ(sizeText(far, true), "at most 0.333 times");
}

TEST(Size, SamenessPromisesNinetyPerCent) {
    auto c = of(1.02, std::pair(0.9, 1.2));
    c.drawnSame = std::pair(0.95, 1.08);
    c.tostP = 0.01;
    EXPECT_EQ(sizeText(c), "2.0 % more (95 % interval 10 % less to 20 % more)");
    c.verdict = stats::PairVerdict::same;
    EXPECT_EQ(sizeText(c), "2.0 % more (90 % interval 5.0 % less to 8.0 % more)");
}

TEST(Chances, AreWholePerCent) {
    EXPECT_EQ(chanceText(0.995), "over 99 %");
    EXPECT_EQ(chanceText(0.99), "99 %");
    EXPECT_EQ(chanceText(0.5), "50 %");
    EXPECT_EQ(chanceText(0.01), "1 %");
    EXPECT_EQ(chanceText(0.009), "under 1 %");
}

} // namespace
} // namespace anvil::words
