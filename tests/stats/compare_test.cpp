#include <anvil/stats/compare.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil::stats;

namespace {

Summary group(std::initializer_list<double> values) {
    std::vector<Value> v;
    for (const double x : values)
        v.push_back({x, Bound::exact, x});
    return summarise(v);
}

void decide(std::vector<Comparison>& family, const std::vector<std::pair<Side, Side>>& sides, double margin) {
    std::vector<SidePair> pairs;
    for (const auto& [a, b] : sides)
        pairs.emplace_back(&a, &b);
    anvil::stats::decide(family, pairs, margin);
}

// Welch (1947), hand-worked: a = 20, 22, 24 (mean 22, s² 4), b = 14, 18, 16, 20 (mean 17, s² 20/3).
// t = 5/√(4/3 + 5/3) = 2.886751; df = 3² / ((4/3)²/2 + (5/3)²/3) = 9/(8/9 + 25/27) = 4.959184.
TEST(Compare, WelchHandWorked) {
    const auto c = compare(group({20, 22, 24}), group({14, 18, 16, 20}), 0.1);
    EXPECT_NEAR(*c.t, 5 / std::sqrt(3.0), 1e-12);
    EXPECT_NEAR(*c.df, 243.0 / 49, 1e-12);
    EXPECT_NEAR(*c.ratio, 22.0 / 17, 1e-12);
    EXPECT_GT(*c.p, 0.03);
    EXPECT_LT(*c.p, 0.04);
}

// The two-sided p of t = 2 at 10 df is 0.0733880 in printed tables.
TEST(Compare, PValueAgainstTables) { EXPECT_NEAR(2 * studentUpperTail(10, 2), 0.07338803, 1e-8); }

/// T and its degrees of freedom at a ratio, written out from Fieller (1954) and Welch (1947).
struct AtRatio {
    double t, df;
};
AtRatio welchAt(double rho, double ma, double va, double mb,
                double vb) { // v: variance of the mean, of five each
    const double rest = va + rho * rho * vb;
    return {(ma - rho * mb) / std::sqrt(rest), rest * rest / (va * va / 4 + std::pow(rho, 4) * vb * vb / 4)};
}

TEST(Compare, TheIntervalOfTheRatioIsWhatItsTestDoesNotReject) {
    const auto a = group({100, 104, 98, 102, 96}), b = group({80, 85, 78, 82, 75});
    const auto c = compare(a, b, 0.1);
    const double va = 10.0 / 5, vb = 14.5 / 5;
    for (const double end : {overPair(c)->first, overPair(c)->second}) {
        const auto at = welchAt(end, 100, va, 80, vb);
        EXPECT_NEAR(std::abs(at.t), studentQuantile(at.df, 0.975), 1e-7) << end;
    }
    EXPECT_LT(overPair(c)->first, 1.25);
    EXPECT_GT(overPair(c)->second, 1.25);
    const auto low = welchAt(1 / 1.1, 100, va, 80, vb), high = welchAt(1.1, 100, va, 80, vb);
    EXPECT_NEAR(*c.tostP, std::max(studentUpperTail(low.df, low.t), studentUpperTail(high.df, -high.t)),
                1e-14);
}

TEST(Compare, WordAndIntervalComeFromOneTest) { // over many pairs, single and over the family
    std::uint64_t state = 77;
    const auto uniform = [&] {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return (static_cast<double>(state >> 11) + 0.5) * 0x1.0p-53;
    };
    int apart = 0, open = 0;
    for (int round = 0; round < 3000; ++round) {
        std::vector<std::pair<Side, Side>> pairs;
        for (int k = 0; k < 4; ++k) {
            const auto values = [&](double mean, double cv) {
                std::vector<Value> out;
                const int n = 2 + static_cast<int>(uniform() * 5);
                for (int i = 0; i < n; ++i)
                    out.push_back(Value{mean * (1 + cv * (2 * uniform() - 1))});
                return summarise(out);
            };
            pairs.emplace_back(values(100, 0.9 * uniform()),
                               values(100 * (0.5 + uniform()), 0.3 * uniform()));
        }
        std::vector<Comparison> family(pairs.size());
        decide(family, pairs, 0.1);
        for (const auto& c : family) {
            if (!c.p || !overPair(c)) continue;
            const auto outside = [](const std::pair<double, double>& ends) {
                return ends.first > 1 || ends.second < 1;
            };
            EXPECT_EQ(outside(*overPair(c)), *c.p < 0.05) << *c.p;
            EXPECT_EQ(outside(*overFamily(c)), *c.pHolm < 0.05) << *c.pHolm;
            EXPECT_LE(overFamily(c)->first, overPair(c)->first);
            EXPECT_LE(overPair(c)->first, *c.ratio);
            EXPECT_GE(overPair(c)->second, *c.ratio);
            apart += outside(*overFamily(c));
            open += !(overPair(c)->first > 0) || std::isinf(overPair(c)->second);
            if (c.verdict == PairVerdict::same) {
                EXPECT_GE(ofSameness(c)->first, 1 / 1.1 - 1e-9);
                EXPECT_LE(ofSameness(c)->second, 1.1 + 1e-9);
            }
        }
    }
    EXPECT_GT(apart, 100);
    EXPECT_GT(open, 20) << "some intervals have no end";
}

TEST(Compare, TurningThePairTurnsTheRatio) {
    const auto a = group({100, 104, 98, 102, 96}), b = group({80, 85, 78, 82, 75});
    const auto x = compare(a, b, 0.1), y = compare(b, a, 0.1);
    EXPECT_NEAR(*x.ratio * *y.ratio, 1, 1e-12);
    EXPECT_NEAR(overPair(x)->first * overPair(y)->second, 1, 1e-12);
    EXPECT_NEAR(*x.p, *y.p, 1e-14);
    EXPECT_NEAR(*x.tostP, *y.tostP, 1e-12);
}

// Holm (1979): p 0.01, 0.04, 0.03 become 0.03, 0.06, 0.06. Groups are built so that the order of p is known.
TEST(Compare, HolmIsMonotoneAndMultiplies) {
    std::vector<std::pair<Side, Side>> pairs{{group({10, 11, 12}), group({20, 21, 22})},
                                             {group({10, 11, 12}), group({11, 12, 13.5})},
                                             {group({10, 11, 12}), group({13, 14, 15})}};
    std::vector<Comparison> family(3);
    decide(family, pairs, 0.1);
    EXPECT_NEAR(*family[0].pHolm, 3 * *family[0].p, 1e-15);
    EXPECT_NEAR(*family[2].pHolm, std::max(*family[0].pHolm, 2 * *family[2].p), 1e-15);
    EXPECT_NEAR(*family[1].pHolm, std::max(*family[2].pHolm, *family[1].p), 1e-15);
}

TEST(Compare, VerdictsInOrder) {
    auto bounded = group({10, 11});
    bounded.above = 1;
    std::vector<std::pair<Side, Side>> pairs{
        {group({10}), group({20, 21})},
        {group({100, 100.5, 99.5, 100}), group({101, 100.5, 101.5, 101})},
        {group({10, 11, 12}), group({20, 21, 22})},
        {group({20, 21, 22}), group({10, 11, 12})},
        {group({10, 14, 18}), group({11, 15, 20})},
        {bounded, group({20, 21})},
        {group({10, 10, 10}), group({20, 20, 20})},
    };
    std::vector<Comparison> family(pairs.size());
    decide(family, pairs, 0.1);
    EXPECT_EQ(family[0].verdict, PairVerdict::notEnough);
    EXPECT_EQ(family[1].verdict, PairVerdict::same);
    EXPECT_EQ(family[2].verdict, PairVerdict::weaker);
    EXPECT_EQ(family[3].verdict, PairVerdict::stronger);
    EXPECT_EQ(family[4].verdict, PairVerdict::tooClose);
    EXPECT_GT(*family[4].moreEach, 0);
    EXPECT_EQ(family[5].verdict, PairVerdict::notYet);
    EXPECT_FALSE(family[5].ratio) << "a ratio of bounds says nothing";
    EXPECT_EQ(family[6].verdict, PairVerdict::weaker) << "by the last digit";
    EXPECT_FALSE(family[6].p) << "no spread on either side gives no p";
}

// Two-sample sizes for 80 % power at 5 % two-sided, as printed in Cohen (1988), table 2.4.1, where the exact
// power reaches 80 %: d = 0.5 → 64, 0.8 → 26, 1.0 → 17, 1.2 → 12, and 2.0 → 6 by the exact non-central t.
TEST(Compare, SampleSizesAgainstPublishedTable) {
    for (const auto& [d, n] : {std::pair{0.5, 64}, {0.8, 26}, {1.0, 17}, {1.2, 12}, {2.0, 6}})
        EXPECT_EQ(*replicatesFor(0.1, 0.1 * d), n) << d;
    EXPECT_FALSE(replicatesFor(0, 0.1));
    EXPECT_FALSE(replicatesFor(0.1, -1));
}

TEST(Compare, PowerAgainstSimulation) {
    // 20 000 pairs of groups of 6, CV 12 %, difference 20 %: share of |t| beyond the critical value. Standard
    // error 0.35 %.
    std::uint64_t state = 42;
    const auto uniform = [&] {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return (static_cast<double>(state >> 11) + 0.5) * 0x1.0p-53;
    };
    const auto normal = [&] {
        return std::sqrt(-2 * std::log(uniform())) * std::cos(6.283185307179586 * uniform());
    };
    int hits = 0;
    constexpr int rounds = 20000, n = 6;
    const double critical = studentQuantile(2 * n - 2, 0.975);
    for (int r = 0; r < rounds; ++r) {
        double m[2] = {0, 0}, q[2] = {0, 0};
        for (int side = 0; side < 2; ++side)
            for (int i = 0; i < n; ++i) {
                const double x = (side ? 1.2 : 1.0) + 0.12 * normal();
                m[side] += x / n;
                q[side] += x * x;
            }
        const double pooled = (q[0] - n * m[0] * m[0] + q[1] - n * m[1] * m[1]) / (2 * n - 2);
        hits += std::abs(m[1] - m[0]) / std::sqrt(2 * pooled / n) > critical;
    }
    EXPECT_NEAR(static_cast<double>(hits) / rounds, powerOf(n, 0.12, 0.20), 0.012);
}

TEST(Letters, MaximalSetsOfTies) {
    using enum PairVerdict;
    // a ties b, b ties c, a beats c; d beats nobody and ties nobody.
    std::vector<std::vector<PairVerdict>> v(4, std::vector<PairVerdict>(4, stronger));
    v[0][1] = tooClose;
    v[1][2] = same;
    EXPECT_EQ(tieLetters(4, v), (std::vector<std::string>{"a", "ab", "b", "c"}));
    v[1][2] = notYet; // could not be tested: no tie
    EXPECT_EQ(tieLetters(4, v), (std::vector<std::string>{"a", "a", "b", "c"}));
    EXPECT_TRUE(tieLetters(0, {}).empty());
}

/// Each of 40 ties with its neighbours only: 39 sets, one sign each.
TEST(Letters, ManySetsHaveOneSignEach) {
    constexpr std::size_t n = 40;
    std::vector<std::vector<PairVerdict>> v(n, std::vector<PairVerdict>(n, PairVerdict::stronger));
    for (std::size_t i = 0; i + 1 < n; ++i)
        v[i][i + 1] = PairVerdict::tooClose;
    const auto letters = tieLetters(n, v);
    EXPECT_EQ(letters[0], "a");
    EXPECT_EQ(letters[26], "zA");
    EXPECT_EQ(letters[39], "M");
    for (std::size_t i = 0; i < n; ++i) {
        const auto shared = sharedLetters(letters, i);
        EXPECT_EQ(shared, letters[i]) << i;
        EXPECT_EQ(shared.size(), i == 0 || i == n - 1 ? 1U : 2U);
    }
}

/// Everybody ties with everybody but one: 2^(n/2) maximal sets, more than anybody can list.
TEST(Letters, ManyTiesEndInTimeAndNoTieIsInvented) {
    constexpr std::size_t n = 120;
    std::vector<std::vector<PairVerdict>> v(n, std::vector<PairVerdict>(n, PairVerdict::tooClose));
    for (std::size_t i = 0; i + 1 < n; i += 2)
        v[i][i + 1] = PairVerdict::stronger;
    const auto letters = tieLetters(n, v);
    const auto share = [&](std::size_t i, std::size_t j) {
        return letters[i].find_first_of(sharedLetters(letters, j)) != std::string::npos;
    };
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = i + 1; j < n; ++j)
            EXPECT_EQ(share(i, j), v[i][j] == PairVerdict::tooClose) << i << ", " << j;
}

TEST(Letters, AllTied) {
    for (const std::size_t n : {1U, 30U, 64U, 65U, 500U}) {
        const std::vector<std::vector<PairVerdict>> v(n, std::vector<PairVerdict>(n, PairVerdict::same));
        EXPECT_EQ(tieLetters(n, v), std::vector<std::string>(n, "a")) << n;
    }
}

/// More sets than signs: what has no sign left is marked, and the mark ties nothing.
TEST(Letters, BeyondTheSignsNothingIsTied) {
    constexpr std::size_t n = 80;
    std::vector<std::vector<PairVerdict>> v(n, std::vector<PairVerdict>(n, PairVerdict::stronger));
    for (std::size_t i = 0; i + 1 < n; ++i)
        v[i][i + 1] = PairVerdict::tooClose;
    const auto letters = tieLetters(n, v);
    EXPECT_EQ(letters[61], "89");
    EXPECT_EQ(letters[62], "9*");
    EXPECT_EQ(letters[70], "*");
    EXPECT_EQ(sharedLetters(letters, 62), "9");
    EXPECT_EQ(sharedLetters(letters, 70), "");
}

TEST(Letters, SharedAreThoseOfSomebodyElseToo) {
    const std::vector<std::string> letters{"a", "ab", "bc", "d"};
    EXPECT_EQ(sharedLetters(letters, 0), "a");
    EXPECT_EQ(sharedLetters(letters, 1), "ab");
    EXPECT_EQ(sharedLetters(letters, 2), "b") << "nobody else has c";
    EXPECT_EQ(sharedLetters(letters, 3), "");
    EXPECT_EQ(sharedLetters({"a"}, 0), "") << "nobody to share with";
}

Side blocked(const std::vector<std::pair<std::string, double>>& values) {
    std::vector<Value> plain;
    for (const auto& [block, value] : values)
        plain.push_back({value});
    Side side(summarise(plain));
    side.blocked = values;
    return side;
}

/// Five boards, a piece of each option in every board: what the boards differ by falls out. By hand:
/// differences 10, 12, 8, 11, 9: mean 10, s = 1.5811, t = 10/(1.5811/√5) = 14.142, df 4.
TEST(Paired, WhereEveryBlockHoldsBoth) {
    const auto a = blocked({{"1", 110}, {"2", 212}, {"3", 158}, {"4", 261}, {"5", 309}}),
               b = blocked({{"5", 300}, {"4", 250}, {"3", 150}, {"2", 200}, {"1", 100}});
    const auto c = compare(a, b, 0.1);
    EXPECT_EQ(c.test, PairTest::paired);
    EXPECT_NEAR(*c.t, 14.1421356, 1e-6);
    EXPECT_EQ(*c.df, 4);
    EXPECT_NEAR(*c.p, 0.000145, 2e-6);
    EXPECT_NEAR(*c.ratio, 210.0 / 200, 1e-12);
    // t of a − ρ·b with var_a 6277.5, var_b 6250, cov 6262.5 of (110, 100) …; t(0.975; 4) = 2.7764451.
    for (const double rho : {overPair(c)->first, overPair(c)->second})
        EXPECT_NEAR(std::abs(210 - rho * 200) / std::sqrt((6277.5 + rho * rho * 6250 - 2 * rho * 6262.5) / 5),
                    2.7764451, 1e-6);
    EXPECT_EQ(compare(a.summary, b.summary, 0.1).test, PairTest::welch) << "without their blocks";
    EXPECT_GT(*compare(a.summary, b.summary, 0.1).p, 0.5) << "the boards hide it";
    auto mixed = b;
    mixed.blocked[0].first = "6";
    const auto whole = compare(a, mixed, 0.1);
    EXPECT_EQ(whole.test, PairTest::paired)
        << "one block holds only one of them: the whole ones are compared";
    EXPECT_EQ(whole.blocks, 4U);
    EXPECT_EQ(whole.brokenBlocks, 2U);
    EXPECT_EQ(*whole.df, 3);
    EXPECT_NEAR(*whole.ratio, (110.0 + 212 + 158 + 261) / (100 + 200 + 150 + 250), 1e-12);
    mixed.blocked[0].first = "4";
    EXPECT_EQ(compare(a, mixed, 0.1).test, PairTest::welch) << "one block holds two";
}

TEST(Paired, EveryDifferenceTheSameIsNoTest) {
    const auto a = blocked({{"1", 110}, {"2", 210}, {"3", 310}}),
               b = blocked({{"1", 100}, {"2", 200}, {"3", 300}});
    EXPECT_FALSE(compare(a, b, 0.1).p);
    EXPECT_EQ(compare(a, b, 0.1).test, PairTest::digits);
}

TEST(Pairs, RoundingDustIsNoSpread) {
    const auto same = [](double v) {
        return summarise(std::vector<Value>{{v}, {v * (1 + 2e-16)}, {v * (1 - 2e-16)}});
    };
    const auto c = compare(same(1e3), same(1e3 * 1.001), 0.1);
    EXPECT_FALSE(c.p) << "0.1 % with no spread at all is no certainty";
    EXPECT_FALSE(overPair(c));
}

/// With so many more pulls a difference of the margin shows in four families of five, after Holm: what is
/// promised is what happens. 1500 families of four options, one of them stronger by the margin.
TEST(Pairs, MoreEachHoldsAfterHolm) {
    constexpr double cv = 0.08, margin = 0.1;
    constexpr int options = 4, families = 1500;
    constexpr double pairs = options * (options - 1) / 2;
    const auto n = replicatesFor(cv, margin, 0.8, 0.05 / pairs);
    ASSERT_TRUE(n);
    EXPECT_GT(*n, *replicatesFor(cv, margin)) << "more than for one pair alone";
    std::uint64_t state = 20260302;
    const auto uniform = [&] {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return (static_cast<double>(state >> 11) + 0.5) * 0x1.0p-53;
    };
    const auto normal = [&] {
        return std::sqrt(-2 * std::log(uniform())) * std::cos(6.283185307179586 * uniform());
    };
    int found = 0;
    for (int family = 0; family < families; ++family) {
        std::vector<Summary> groups;
        for (int option = 0; option < options; ++option) {
            const double mean = option == 0 ? 1 + margin : 1;
            std::vector<Value> values;
            for (int i = 0; i < *n; ++i)
                values.push_back({mean + cv * normal()});
            groups.push_back(summarise(values));
        }
        std::vector<std::pair<Side, Side>> sides;
        for (int i = 0; i < options; ++i)
            for (int j = i + 1; j < options; ++j)
                sides.emplace_back(groups[static_cast<std::size_t>(i)], groups[static_cast<std::size_t>(j)]);
        std::vector<Comparison> results(sides.size());
        decide(results, sides, margin);
        found += results[0].pHolm && *results[0].pHolm < 0.05;
    }
    const double share = static_cast<double>(found) / families;
    EXPECT_GT(share, 0.80 - 3 * std::sqrt(0.8 * 0.2 / families))
        << "the first against the second, after Holm";
    // And what is told is that number: from two pieces each, so many more.
    std::vector<std::pair<Side, Side>> few;
    const auto pair = [&](double m) {
        return summarise(std::vector<Value>{{m * 0.9434}, {m * 1.0566}});
    }; // CV 8 %
    for (int k = 0; k < static_cast<int>(pairs); ++k)
        few.emplace_back(pair(1), pair(1.02));
    std::vector<Comparison> told(few.size());
    decide(told, few, margin);
    ASSERT_TRUE(told[0].moreEach);
    EXPECT_EQ(*told[0].moreEach, *n - 2);
}

/// What is not computed for each pair is what it would have been.
TEST(Decide, MoreEachOfManyPairsIsThatOfEach) {
    std::vector<Summary> groups;
    unsigned state = 3;
    const auto next = [&] {
        return static_cast<double>((state = state * 1664525 + 1013904223) >> 8) / (1 << 24);
    };
    for (int i = 0; i < 40; ++i) {
        const double spread = i % 5 ? 0.3 * next() : 30 * next(); // some far too wide to settle anything
        groups.push_back(
            summarise(std::vector<Value>{{1 + spread * next()}, {1 - spread * next()}, {1 + 0.01 * next()}}));
    }
    std::vector<std::pair<Side, Side>> sides;
    for (std::size_t i = 0; i < groups.size(); ++i)
        for (std::size_t j = i + 1; j < groups.size(); ++j)
            sides.emplace_back(groups[i], groups[j]);
    std::vector<Comparison> family(sides.size());
    decide(family, sides, 0.1);
    const auto tested = static_cast<double>(
        std::count_if(family.begin(), family.end(), [](const auto& c) { return c.p.has_value(); }));
    std::size_t told = 0;
    for (std::size_t k = 0; k < family.size(); ++k) {
        if (family[k].verdict != PairVerdict::tooClose || !family[k].tostP) continue;
        const double cv =
            std::hypot(*sides[k].first.summary.cv, *sides[k].second.summary.cv) / std::sqrt(2.0);
        const auto n = replicatesFor(cv, 0.1, 0.8, 0.05 / tested);
        EXPECT_EQ(family[k].moreEach, n ? std::optional(std::max(0, *n - 3)) : std::nullopt) << cv;
        told += n.has_value();
    }
    EXPECT_GT(told, 100U);
}

} // namespace
