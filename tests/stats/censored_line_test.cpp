// Lines through values some of which are only bounds.
#include <anvil/stats/censored_line.h>
#include <anvil/stats/draws.h>
#include <anvil/stats/trend.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::stats {
namespace {

TEST(CensoredLine, WithoutBoundsItIsLeastSquares) {
    const std::vector<double> x{1, 2, 3, 4, 5, 6}, y{2.1, 3.9, 6.2, 7.8, 10.3, 11.7};
    std::vector<ModelRow> rows;
    for (std::size_t i = 0; i < x.size(); ++i)
        rows.push_back({{1, x[i]}, {y[i]}});
    const auto fit = fitModel(rows);
    const auto line = linearTrend(x, y);
    ASSERT_TRUE(fit && line);
    EXPECT_NEAR(fit->coefficients[1], line->slope, 1e-9);
    EXPECT_NEAR(fit->errors[1], line->slopeError, 1e-7);
    EXPECT_EQ(fit->df, 4);
}

// R: survreg(Surv(y, d) ~ x, dist = "gaussian") of x = 0..7, y = 1, 2.2, 2.9, 4.1, 5+, 5+, 5+, 5+ (+: at
// least).
TEST(CensoredLine, AgreesWithAnIndependentFit) {
    std::vector<ModelRow> rows;
    const double y[] = {1, 2.2, 2.9, 4.1, 5, 5, 5, 5};
    for (int i = 0; i < 8; ++i)
        rows.push_back({{1, static_cast<double>(i)}, {y[i], i < 4 ? Bound::exact : Bound::above, y[i]}});
    const auto fit = fitModel(rows);
    ASSERT_TRUE(fit);
    EXPECT_NEAR(fit->coefficients[0], 1.032692816, 1e-5);
    EXPECT_NEAR(fit->coefficients[1], 1.017307184, 1e-5);
    EXPECT_NEAR(fit->sigma / std::sqrt(4.0 / 2), 0.109851356, 1e-5);
}

TEST(CensoredLine, BoundsAreNotDroppedInSilence) { // 100, >200, >200 rises, whatever the exact ones say
    Draws random(7);
    int covered = 0, told = 0, rising = 0;
    constexpr int sets = 600;
    for (int set = 0; set < sets; ++set) {
        std::vector<ModelRow> rows;
        for (int place = 0; place < 4; ++place)
            for (int k = 0; k < 4; ++k) {
                const double v = 10 + 2.0 * place + random.normal();
                const bool off = v > 15;
                rows.push_back({{1, static_cast<double>(place)},
                                {off ? 15.0 : v, off ? Bound::above : Bound::exact, 15}});
            }
        const auto fit = fitModel(rows);
        if (!fit) continue;
        const auto ends = fit->interval(1);
        ASSERT_TRUE(ends);
        ++told;
        covered += ends->first <= 2 && 2 <= ends->second;
        rising += ends->first > 0;
    }
    EXPECT_GT(told, sets * 0.95);
    EXPECT_GE(covered, told * 0.92);
    EXPECT_GE(rising, told * 0.95);
}

TEST(CensoredLine, RefusesWhatCannotBeTold) {
    std::vector<ModelRow> rows{{{1, 0}, {1}}, {{1, 1}, {2, Bound::above, 2}}, {{1, 2}, {2, Bound::above, 2}}};
    EXPECT_FALSE(fitModel(rows)) << "one exact value for two columns";
    rows = {{{1, 1}, {1}}, {{1, 1}, {2}}, {{1, 1}, {3}}, {{1, 1}, {4}}};
    EXPECT_FALSE(fitModel(rows)) << "columns that say the same";
    rows = {{{1, 0}, {1}}, {{1, 0}, {2}}, {{1, 0}, {3}}, {{1, 1}, {5, Bound::above, 5}}};
    EXPECT_FALSE(fitModel(rows)) << "an effect of which there are only bounds has no end";
}

} // namespace
} // namespace anvil::stats
