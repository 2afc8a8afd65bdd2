// The quadrature against what is known in closed form.
#include "exact_values.h"
#include <anvil/stats/density.h>
#include <anvil/stats/power.h>
#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <boost/math/special_functions/gamma.hpp>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil::stats;

namespace {

TEST(Density, CompleteNormalDataGiveStudentAndTheToleranceFactor) {
    for (const auto& values : {exact({412, 455, 430}), exact({412, 455, 430, 448, 390}),
                               exact({41, 45, 43, 44, 39, 47, 42, 46, 40, 45, 44, 41})}) {
        const auto s = summarise(values);
        const auto d = Density::of(Family::normal, values);
        ASSERT_TRUE(d);
        const int n = static_cast<int>(s.n);
        EXPECT_NEAR(d->exceeded(0, 0.975), s.meanInterval->first, 1e-5 * *s.sd) << n;
        EXPECT_NEAR(d->exceeded(0, 0.025), s.meanInterval->second, 1e-5 * *s.sd) << n;
        for (const double share : {0.9, 0.99})
            EXPECT_NEAR(d->floor(share, 0.95), *s.mean - toleranceFactor(n, share, 0.95) * *s.sd,
                        2e-5 * *s.sd)
                << n;
        // (n − 1)s²/σ² has the χ² law.
        const auto fine = Density::of(Family::normal, values, Density::Grid::fine);
        const boost::math::chi_squared chi(n - 1);
        for (const double p : {0.025, 0.5, 0.975})
            EXPECT_NEAR(fine->scaleExceeded(p) / (*s.sd * std::sqrt((n - 1) / boost::math::quantile(chi, p))),
                        1, 1e-4)
                << n << " " << p;
    }
}

/// P(y_p ≥ q) of a Weibull sample of exact and above values: the integral over σ that is left when the
/// location is integrated in closed form (Lawless 2003, 5.4).
double weibullAtLeast(const std::vector<Value>& values, double share, double q) {
    double r = 0, sumExact = 0;
    for (const auto& v : values)
        if (v.bound == Bound::exact) {
            ++r;
            sumExact += std::log(v.value);
        }
    const auto sum = [&](double s, double from) {
        double all = 0;
        for (const auto& v : values)
            all += std::exp((std::log(v.value) - from) / s);
        return all;
    };
    const double middle = sumExact / r; // keeps the exponents small
    const auto h = [&](double s) {
        return std::exp(-r * std::log(s) + (sumExact - r * middle) / s - r * std::log(sum(s, middle)) +
                        3 * r);
    };
    using Rule = boost::math::quadrature::gauss_kronrod<double, 61>;
    const auto over = [&](const auto& f) {
        double all = 0;
        for (double a = 1e-3; a < 40; a *= 1.5)
            all += Rule::integrate(f, a, a * 1.5, 5, 1e-12);
        return all;
    };
    return over([&](double s) { return boost::math::gamma_p(r, -std::log(share) * sum(s, q)) * h(s); }) /
           over(h);
}

TEST(Density, WeibullFloorsAgreeWithTheClosedForm) {
    std::vector<Value> censored = exact({410, 455, 432, 470, 401});
    censored.push_back({500, Bound::above, 500});
    censored.push_back({500, Bound::above, 500});
    for (const auto& values : {exact({410, 455, 432}), exact({410, 455, 432, 470, 401}), censored}) {
        const auto d = Density::of(Family::weibull, values);
        ASSERT_TRUE(d);
        for (const double share : {0.9, 0.99}) {
            const double floor = d->floor(share, 0.95);
            EXPECT_NEAR(weibullAtLeast(values, share, std::log(floor)), 0.95, 1e-5) << values.size();
        }
    }
}

/// "At most a million" says nothing, and takes the quadrature over both instead of the closed form.
TEST(Density, TheGridAgreesWithTheClosedForm) {
    auto values = exact({410, 455, 432, 470, 401});
    values.push_back({500, Bound::above, 500});
    const auto closed = Density::of(Family::weibull, values, Density::Grid::fine);
    values.push_back({1e6, Bound::below, 1e6});
    const auto grid = Density::of(Family::weibull, values, Density::Grid::fine);
    ASSERT_TRUE(closed && grid);
    EXPECT_NEAR(grid->floor(0.9, 0.95) / closed->floor(0.9, 0.95), 1, 1e-5);
    EXPECT_NEAR(grid->scaleExceeded(0.025) / closed->scaleExceeded(0.025), 1, 1e-4);
}

/// The draws of μ have the quantiles of its density.
TEST(Density, DrawsFollowTheDensity) {
    auto values = exact({410, 455, 432, 440});
    values.push_back({450, Bound::above, 450});
    const auto d = Density::of(Family::lognormal, values);
    ASSERT_TRUE(d);
    Draws random(11);
    auto drawn = d->drawn(random, 200000);
    std::sort(drawn.begin(), drawn.end());
    for (const double share : {0.01, 0.1, 0.5, 0.9, 0.99})
        EXPECT_NEAR(1 - d->atLeast(0, drawn[static_cast<std::size_t>(share * 200000)]), share,
                    4 * std::sqrt(share * (1 - share) / 200000))
            << share;
}

TEST(Draws, StudentHasItsQuantiles) {
    for (const double df : {2.0, 4.0, 9.0}) {
        Draws random(3);
        int beyond = 0;
        constexpr int draws = 200000;
        for (int k = 0; k < draws; ++k)
            beyond += std::abs(random.student(df)) > studentQuantile(df, 0.975);
        EXPECT_NEAR(beyond, 0.05 * draws, 4 * std::sqrt(0.05 * 0.95 * draws)) << df;
    }
}

TEST(Density, BoundsOnlyOrTooFewGiveNone) {
    EXPECT_FALSE(Density::of(Family::normal, exact({5, 6})));
    EXPECT_FALSE(Density::of(Family::normal, exact({5, 5, 5})));
    EXPECT_FALSE(Density::of(Family::normal, std::vector<Value>{{5, Bound::above, 5}, {6, Bound::above, 6}}));
}

/// A bound in the middle of what it bounds says something: the floor with it lies above the floor without.
TEST(Density, AnAtLeastIsKnowledge) {
    auto values = exact({410, 455, 432});
    const double without = Density::of(Family::normal, values)->floor(0.9, 0.95);
    values.push_back({440, Bound::above, 440});
    EXPECT_GT(Density::of(Family::normal, values)->floor(0.9, 0.95), without);
}

} // namespace
