// Against tables made by an independent package; see tables.R.
#include "conformance/tables.h"

#include <anvil/stats/compare.h>
#include <anvil/stats/fit.h>
#include <anvil/stats/pooled.h>
#include <anvil/stats/rank_sum.h>
#include <anvil/stats/summary.h>
#include <gtest/gtest.h>

namespace anvil::conformance {
namespace {

using namespace stats;

/// Relative, or absolute below one.
void expectClose(double ours, double theirs, double tolerance, const std::string& what) {
    EXPECT_NEAR(ours, theirs, tolerance * std::max(1.0, std::abs(theirs))) << what;
}

std::vector<Value> valuesOf(const std::vector<Known>& all) {
    std::vector<Value> out;
    for (const auto& k : all) {
        const Bound bound = std::isnan(k.low)    ? Bound::below
                            : std::isnan(k.high) ? Bound::above
                            : k.low == k.high    ? Bound::exact
                                                 : Bound::between;
        const double value = std::isnan(k.low) ? k.high : k.low;
        out.push_back({value, bound, std::isnan(k.high) ? value : k.high});
    }
    return out;
}

Summary summaryOf(const std::vector<double>& all) {
    std::vector<Value> values;
    for (const double v : all)
        values.push_back({v, Bound::exact, v});
    return summarise(values);
}

TEST(Tables, ToleranceFactorsFromTwoToFifty) {
    ASSERT_EQ(tolerance.size(), 49u);
    for (const auto& row : tolerance) {
        expectClose(toleranceFactor(row.n, 0.90, 0.95), row.k9095, 1e-8, std::to_string(row.n));
        expectClose(toleranceFactor(row.n, 0.95, 0.95), row.k9595, 1e-8, std::to_string(row.n));
        expectClose(toleranceFactor(row.n, 0.99, 0.95), row.k9995, 1e-8, std::to_string(row.n));
    }
}

TEST(Tables, FitsOfPublishedData) {
    for (const auto& row : fits) {
        const auto values = valuesOf(row.values);
        const auto agrees = [&](Family family, const double(&theirs)[3]) {
            const auto fit = stats::fit(family, values);
            ASSERT_TRUE(fit) << row.name << " " << key(family);
            expectClose(fit->location, theirs[0], 1e-6, row.name);
            expectClose(fit->scale, theirs[1], 1e-6, row.name);
            expectClose(fit->logLikelihood, theirs[2], 1e-8, row.name);
        };
        agrees(Family::normal, row.normal);
        agrees(Family::lognormal, row.lognormal);
        agrees(Family::weibull, row.weibull);
    }
}

TEST(Tables, Pairs) {
    for (const auto& row : pairs) {
        const auto a = summaryOf(row.a), b = summaryOf(row.b);
        const auto c = compare(a, b, 0.1);
        ASSERT_TRUE(c.t && c.df && c.p && c.tostP);
        expectClose(*c.t, row.t, 1e-9, "t");
        expectClose(*c.df, row.df, 1e-9, "df");
        expectClose(*c.p, row.p, 1e-9, "p");
        expectClose(*c.tostP, row.tost, 1e-9, "tost");
        expectClose(overPair(c)->first, row.low, 1e-9, "low");
        expectClose(overPair(c)->second, row.high, 1e-9, "high");
        expectClose(mannWhitneyP(row.a, row.b).value(), row.mannWhitney, 1e-9, "ranks");
        const auto left = logGroup(row.a), right = logGroup(row.b);
        const std::optional<LogGroup> both[] = {left, right};
        expectClose(pooledP(*left, *right, *pooledSpread(both)).value(), row.pooledP, 1e-9, "pooled");
    }
}

TEST(Tables, Holm) {
    for (const auto& row : holm) {
        std::vector<Comparison> family(row.p.size());
        const auto some = summaryOf({1, 2, 3});
        const Side side(some);
        std::vector<SidePair> sides(row.p.size(), {&side, &side});
        for (std::size_t i = 0; i < row.p.size(); ++i) {
            family[i].test = PairTest::welch;
            family[i].p = row.p[i];
        }
        judge(family, sides, 0.1);
        for (std::size_t i = 0; i < row.p.size(); ++i)
            expectClose(family[i].pHolm.value(), row.holm[i], 1e-12, std::to_string(i));
    }
}

TEST(Tables, Sizes) {
    for (const auto& row : sizes)
        EXPECT_EQ(replicatesFor(row.cv, row.difference, row.power), row.n)
            << row.cv << " " << row.difference << " " << row.power;
}

} // namespace
} // namespace anvil::conformance
