// Over hundreds of random studies no sentence claims more than its analysis.
#include "study_maker.h"

#include <anvil/results/needs.h>
#include <anvil/results/sureness.h>
#include <anvil/results/treatment.h>
#include <anvil/words/effects.h>
#include <anvil/words/needs.h>
#include <anvil/words/sureness.h>
#include <anvil/words/verdict.h>
#include <cmath>
#include <gtest/gtest.h>
#include <random>

namespace anvil::words {
namespace {

using namespace results;
using stats::PairVerdict;

/// Two to five options in one or two conditions; values exact, "at least", set aside; sometimes a need, a
/// ceiling or a control; spreads from next to nothing to a third.
Maker randomStudy(std::mt19937_64& random) {
    const auto one = [&](int from, int to) { return std::uniform_int_distribution<int>(from, to)(random); };
    std::normal_distribution<double> normal;
    Maker m;
    const int options = one(2, 5), conditions = one(1, 2);
    for (int c = 0; c < conditions; ++c)
        m.condition(c ? "Wet" : "Dry");
    const double spread = std::pow(10, -0.5 - 0.5 * one(0, 4));
    const double limit = one(0, 2) ? 1e9 : 110;
    for (int k = 0; k < options; ++k) {
        static constexpr const char* names[] = {"Ash", "Birch", "Cedar", "Durmast", "Elm"};
        m.option(names[k]);
        for (int c = 0; c < conditions; ++c) {
            const double mean = 100 * std::exp(0.15 * one(-2, 2) * spread * 3);
            for (int i = one(0, 6); i > 0; --i) {
                const double v = mean * std::exp(spread * normal(random));
                const auto standing = v > limit         ? Standing::atLeast
                                      : one(0, 20) == 0 ? Standing::aside
                                                        : Standing::counts;
                m.pull(k + 1, 11 + c, std::min(v, limit), standing);
            }
        }
    }
    if (one(0, 3) == 0) m.data.study.goal.need = 95;
    if (one(0, 4) == 0) m.data.study.goal.control = 1;
    if (one(0, 6) == 0) m.data.study.goal.ceiling = 105;
    if (one(0, 5) == 0) m.data.study.goal.sense = Sense::less;
    m.data.study.goal.margin = one(0, 1) ? 0.1 : 0.05;
    return m;
}

bool has(const std::string& text, const char* part) { return text.find(part) != std::string::npos; }

/// What no sentence may say.
void expectHonest(const std::string& text) {
    for (const char* never : {"nan", "inf ", "-inf", "safe", "unsafe", "p =", "p <", "significant", "  "})
        EXPECT_FALSE(has(text, never)) << never << " in: " << text;
    EXPECT_FALSE(text.empty());
    EXPECT_EQ(text.back(), '.') << text;
}

void checkPair(const Maker& m, const Verdict& v, const PairResult& pair) {
    const auto text = sentence(m.data, v, pair);
    expectHonest(text);
    const auto& c = pair.comparison;
    const bool ahead = has(text, "stronger than"), behind = has(text, "weaker than");
    const bool enough = v.groups[pair.a].enough && v.groups[pair.b].enough && !pair.acrossConditions;
    if (ahead) {
        EXPECT_EQ(c.verdict, PairVerdict::stronger) << text;
    }
    if (behind) {
        EXPECT_EQ(c.verdict, PairVerdict::weaker) << text;
    }
    if (ahead || behind) {
        EXPECT_TRUE(c.pHolm && *c.pHolm < 0.05) << text;
    }
    if (has(text, "the same within")) {
        EXPECT_TRUE(c.tostP && *c.tostP < 0.05) << text;
    }
    if (has(text, "equally good")) {
        EXPECT_TRUE(enough) << text;
    }
    if (has(text, "would settle a difference of") && has(text, "says no more")) {
        EXPECT_EQ(c.verdict, PairVerdict::notEnough) << text;
    } else if (has(text, "would settle")) {
        EXPECT_TRUE(c.moreEach && *c.moreEach > 0) << text;
    }
    if (has(text, "would have shown")) {
        EXPECT_TRUE(c.moreEach && *c.moreEach == 0) << text;
    }
    if (has(text, "%") && has(text, "interval")) {
        EXPECT_TRUE(stats::overPair(c).has_value()) << text;
    }
}

/// A leader is called one only where every other of its condition was told to lie behind.
void checkHeadline(const Maker& m, const Verdict& v, const Sureness& sure, const Condition& condition) {
    const auto text = headline(m.data, v, condition, &sure);
    expectHonest(text);
    const bool strongest = has(text, "is the strongest"),
               lowest = has(text, "has the lowest peak") && !has(text, "has the lowest mean");
    if (strongest || lowest) {
        const auto members = v.inCondition(condition.id);
        for (const auto& p : v.pairs) {
            if (p.acrossConditions || (p.a != members[0] && p.b != members[0]) || !v.hasBoth(p)) continue;
            const auto wanted = (p.a == members[0]) != (v.goal.sense == Sense::less) ? PairVerdict::stronger
                                                                                     : PairVerdict::weaker;
            EXPECT_EQ(p.comparison.verdict, wanted) << text;
        }
    }
    if (has(text, "best")) {
        const auto members = v.inCondition(condition.id);
        const auto* place = sure.placeOf(v, members[0]);
        ASSERT_TRUE(place) << text;
        EXPECT_TRUE(has(text, "chance")) << text;
    }
    if (has(text, "does not meet")) {
        EXPECT_TRUE(v.goal.need.has_value()) << text;
    }
}

TEST(RandomStudies, NoSentenceClaimsMoreThanItsAnalysis) {
    std::mt19937_64 random(2026);
    std::size_t sentences = 0, told = 0;
    for (int set = 0; set < 500; ++set) {
        const auto m = randomStudy(random);
        const Results table(m.data, m.readings);
        const auto v = evaluate(table, m.data.study.goal);
        const auto sure = surenessOf(table, v);
        SCOPED_TRACE(set);
        for (const auto& pair : v.pairs) {
            if (!v.hasBoth(pair)) continue;
            checkPair(m, v, pair);
            ++sentences;
            told += pair.comparison.verdict == PairVerdict::stronger ||
                    pair.comparison.verdict == PairVerdict::weaker ||
                    pair.comparison.verdict == PairVerdict::same;
        }
        for (const auto& condition : m.data.conditions)
            if (!v.inCondition(condition.id).empty()) checkHeadline(m, v, sure, condition);
        for (const auto& line : words::sentences(m.data, v, sure.odd))
            expectHonest(line);
        for (const auto& need : needsOf(v)) {
            const auto line = words::sentence(m.data, v, need, quantity::siUnit(quantity::Dimension::force));
            expectHonest(line);
            if (has(line, " met:") || has(line, "meets")) {
                EXPECT_NE(need.verdict, NeedVerdict::cannotTell) << line;
            }
        }
        for (const auto& t : treatmentsOf(m.data, v))
            for (const auto& line : words::sentences(m.data, v, t))
                expectHonest(line);
    }
    EXPECT_GT(sentences, 2000u); // there was something to say
    EXPECT_GT(told, 300u);
    EXPECT_LT(told, sentences);
}

} // namespace
} // namespace anvil::words
