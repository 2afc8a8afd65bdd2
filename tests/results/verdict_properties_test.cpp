// What must hold of any verdict, whatever was pulled: tried on studies drawn at random.
#include <algorithm>
#include <anvil/results/verdict.h>
#include <cmath>
#include <gtest/gtest.h>
#include <optional>
#include <random>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;

namespace {

constexpr Id condition = 50;

/// Two to four options with two to six pulls each, now and then one that is only a bound or set aside.
StudyData drawn(std::uint64_t seed) {
    std::mt19937_64 engine(seed);
    const auto uniform = [&](double from, double to) {
        return std::uniform_real_distribution<double>(from, to)(engine);
    };
    StudyData d;
    d.study.id = 1;
    d.conditions.push_back({});
    d.conditions.back().id = condition;
    d.conditions.back().name = "Dry";
    const int options = 2 + static_cast<int>(uniform(0, 3));
    Id next = 100;
    for (int o = 1; o <= options; ++o) {
        d.options.push_back({});
        d.options.back().id = o;
        d.options.back().name = "Option " + std::to_string(o);
        const double middle = uniform(800, 1600), spread = uniform(0.01, 0.2);
        for (int n = 2 + static_cast<int>(uniform(0, 5)); n > 0; --n) {
            Specimen s;
            s.id = next++;
            s.option = o;
            s.condition = condition;
            d.specimens.push_back(s);
            Pull p;
            p.id = next++;
            p.specimen = s.id;
            const double value = middle * (1 + spread * uniform(-1.7, 1.7));
            p.typed = TypedValue{metric("peak"), value, value, ""};
            const double luck = uniform(0, 1);
            p.standing = luck < 0.05 ? Standing::atLeast : luck < 0.08 ? Standing::aside : Standing::counts;
            d.pulls.push_back(p);
        }
    }
    return d;
}

Verdict judged(const StudyData& d) { return evaluate(d, {}, {}); }

const Group& groupOf(const Verdict& v, Id option) {
    return *std::find_if(v.groups.begin(), v.groups.end(),
                         [&](const Group& g) { return g.option == option; });
}

/// The pair of two options, as the first one sees it.
std::optional<stats::Comparison> between(const Verdict& v, Id a, Id b) {
    for (const auto& p : v.pairs) {
        if (v.groups[p.a].option == a && v.groups[p.b].option == b) return p.comparison;
        if (v.groups[p.a].option != b || v.groups[p.b].option != a) continue;
        auto turned = p.comparison;
        if (turned.ratio) turned.ratio = 1 / *turned.ratio;
        if (turned.verdict == stats::PairVerdict::stronger)
            turned.verdict = stats::PairVerdict::weaker;
        else if (turned.verdict == stats::PairVerdict::weaker)
            turned.verdict = stats::PairVerdict::stronger;
        return turned;
    }
    return std::nullopt;
}

void expectSame(const StudyData& d, const Verdict& x, const Verdict& y, double scale, std::uint64_t seed) {
    ASSERT_EQ(x.groups.size(), y.groups.size()) << seed;
    for (const auto& o : d.options) {
        const auto &a = groupOf(x, o.id), &b = groupOf(y, o.id);
        EXPECT_EQ(a.rank, b.rank) << seed;
        EXPECT_EQ(a.summary.n, b.summary.n) << seed;
        ASSERT_EQ(a.summary.mean.has_value(), b.summary.mean.has_value()) << seed;
        if (a.summary.mean) {
            EXPECT_NEAR(*a.summary.mean * scale / *b.summary.mean, 1, 1e-12) << seed;
        }
        if (a.summary.cv) {
            EXPECT_NEAR(*a.summary.cv, *b.summary.cv, 1e-12) << seed;
        }
        for (const auto& other : d.options) {
            if (other.id == o.id) continue;
            const auto p = between(x, o.id, other.id), q = between(y, o.id, other.id);
            ASSERT_TRUE(p && q) << seed;
            if (a.summary.n == 0 || groupOf(x, other.id).summary.n == 0) {
                EXPECT_EQ(p->verdict, stats::PairVerdict::notEnough) << seed;
            }
            EXPECT_EQ(p->verdict, q->verdict) << seed;
            ASSERT_EQ(p->pHolm.has_value(), q->pHolm.has_value()) << seed;
            if (p->pHolm) {
                EXPECT_NEAR(*p->pHolm, *q->pHolm, 1e-10) << seed;
            }
            if (p->ratio) {
                const bool drawn = p->test == stats::PairTest::censored; // searched for, to rounding
                EXPECT_NEAR(*p->ratio, *q->ratio, (drawn ? 1e-9 : 1e-12) * *p->ratio) << seed;
            }
        }
    }
}

TEST(VerdictProperties, TheUnitDoesNotMatter) {
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        const auto d = drawn(seed);
        auto scaled = d;
        for (auto& p : scaled.pulls)
            p.typed = TypedValue{metric("peak"), p.typed->value * 4.4482216152605, 0, ""};
        expectSame(d, judged(d), judged(scaled), 4.4482216152605, seed);
    }
}

TEST(VerdictProperties, NeitherDoesTheOrderOfPullsNorOfOptions) {
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        const auto d = drawn(seed);
        auto turned = d;
        std::reverse(turned.pulls.begin(), turned.pulls.end());
        std::reverse(turned.options.begin(), turned.options.end());
        std::rotate(turned.specimens.begin(), turned.specimens.begin() + 1, turned.specimens.end());
        expectSame(d, judged(d), judged(turned), 1, seed);
    }
}

TEST(VerdictProperties, WhatIsVoidOrNotReadChangesNothingButIsListed) {
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        const auto d = drawn(seed);
        auto more = d;
        for (const auto standing : {Standing::voided, Standing::notRead}) {
            auto p = more.pulls.front();
            p.id = 900 + static_cast<Id>(standing.taken);
            p.typed->value *= 100;
            p.standing = standing;
            more.pulls.push_back(p);
        }
        const auto v = judged(d), w = judged(more);
        expectSame(d, v, w, 1, seed);
        const auto first = d.specimen(d.pulls.front().specimen)->option;
        EXPECT_EQ(groupOf(w, first).leftOut.size(), groupOf(v, first).leftOut.size() + 2) << seed;
    }
}

TEST(VerdictProperties, SentencesAndRanksAgree) {
    int decided = 0;
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        const auto d = drawn(seed);
        const auto v = judged(d);
        for (const auto& p : v.pairs) {
            const auto &a = v.groups[p.a], &b = v.groups[p.b];
            const auto verdict = p.comparison.verdict;
            const bool wins =
                verdict == stats::PairVerdict::stronger || verdict == stats::PairVerdict::weaker;
            decided += wins;
            if (!wins) continue;
            EXPECT_EQ(verdict == stats::PairVerdict::stronger, *a.summary.mean > *b.summary.mean) << seed;
            EXPECT_EQ(verdict == stats::PairVerdict::stronger, a.rank < b.rank) << seed;
            EXPECT_TRUE(a.letters.find_first_of(b.letters) == std::string::npos)
                << seed << ": who is stronger shares no letter";
            const auto& weaker = verdict == stats::PairVerdict::weaker ? a : b;
            EXPECT_LT(weaker.summary.above, weaker.summary.n) << seed << ": bounds alone are never weaker";
        }
    }
    EXPECT_GT(decided, 100) << "else nothing was tried";
}

} // namespace
