// Pieces with two ends: what the end that failed tells, and what the one that held does.
#include <anvil/domain/joints.h>
#include <anvil/results/ends.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;
using stats::Bound;

namespace {

/// Ropes with a knot (1) at one end and a splice (2) at the other, one condition, three pieces.
struct TwoEnds : testing::Test {
    TwoEnds() {
        d.study.plan.joints = 2;
        d.options = {{1, 1, 0, "Knot", "rope", "", "", {}, {}}, {2, 1, 1, "Splice", "rope", "", "", {}, {}}};
        d.conditions = {{7, 1, 0, "dry", "", {}}};
        d.study.plan.squareFor(1, 7).otherEnd = 2;
        for (int i = 1; i <= 3; ++i)
            d.specimens.push_back({i, 1, 1, 7, i, "A1-" + std::to_string(i), ""});
    }
    Pull& pull(Id specimen, double value, int end, Standing standing = Standing::counts) {
        Pull p;
        p.id = static_cast<Id>(d.pulls.size()) + 1;
        p.specimen = specimen;
        p.typed = TypedValue{metric("peak"), value, 0, ""};
        p.standing = standing;
        p.outcome.end = end;
        return d.pulls.emplace_back(p);
    }
    MetricValue at(Id option, Metric metric = Metric()) {
        return valueAtEnd(d, d.pulls.back(), *d.specimen(d.pulls.back().specimen), option, nullptr, metric);
    }
    StudyData d;
};

TEST_F(TwoEnds, TheOneThatFailsIsExactTheOtherAtLeast) {
    EXPECT_EQ(otherEndOf(d, d.specimens[0]), 2);
    EXPECT_EQ(endNames(d, d.specimens.data()), (std::vector<std::string>{"end 1: Knot", "end 2: Splice"}));
    pull(1, 4000, 1);
    EXPECT_EQ(at(1).value->bound, Bound::exact);
    EXPECT_EQ(at(2).value->bound, Bound::above);
    EXPECT_EQ(at(2).value->value, 4000);
    pull(2, 5000, 2);
    EXPECT_EQ(at(1).value->bound, Bound::above);
    EXPECT_EQ(at(2).value->bound, Bound::exact);
    EXPECT_EQ(standingAtEnd(d, d.pulls[0], nullptr, d.specimens[0], 1), Standing::counts);
    EXPECT_EQ(standingAtEnd(d, d.pulls[0], nullptr, d.specimens[0], 2), Standing::atLeast);
    EXPECT_EQ(standingAtEnd(d, d.pulls[1], nullptr, d.specimens[1], 1), Standing::atLeast);
    EXPECT_EQ(standingAtEnd(d, d.pulls[1], nullptr, d.specimens[1], 2), Standing::counts);
    const auto v = evaluate(d, {}, {});
    ASSERT_EQ(v.groups.size(), 2U) << "no piece was made for the splice alone";
    for (const auto& g : v.groups) {
        EXPECT_EQ(g.summary.n, 2U);
        EXPECT_EQ(g.summary.above, 1U);
        EXPECT_EQ(g.values.size(), 2U);
    }
    EXPECT_EQ(v.groups[0].summary.basis, stats::MeanBasis::lognormal);
    EXPECT_GT(*v.groups[0].summary.mean, 4500) << "the bound may hold more";
    EXPECT_EQ(v.pairs.front().comparison.verdict, stats::PairVerdict::notYet)
        << "results that share their pieces are not compared as if they were independent";
}

TEST_F(TwoEnds, WithoutTheEndBothAreBounds) {
    pull(1, 4000, 0);
    EXPECT_EQ(at(1).value->bound, Bound::above);
    EXPECT_EQ(at(2).value->bound, Bound::above);
    pull(2, 4000, 7);
    EXPECT_EQ(at(1).value->bound, Bound::above) << "no such end";
}

TEST_F(TwoEnds, BoundsVoidsAndWhatWasSetAside) {
    pull(1, 4000, 1, Standing::atLeast);
    EXPECT_EQ(at(1).value->bound, Bound::above);
    EXPECT_EQ(at(2).value->bound, Bound::above);
    pull(1, 4000, 1, Standing::voided);
    EXPECT_FALSE(at(2).value);
    pull(1, 4000, 1, Standing::aside);
    EXPECT_TRUE(at(2).value->aside);
    pull(1, 4000, 1, Standing::atMost);
    EXPECT_EQ(at(1).value->bound, Bound::below);
    EXPECT_FALSE(at(2).value) << "how much the other end held is not known";
    pull(1, 4000, 1, Standing::between).typed->upper = 4400;
    EXPECT_EQ(at(2).value->bound, Bound::above);
    EXPECT_EQ(at(2).value->value, 4000) << "this much both ends held";
    auto& p = pull(1, 4000, 1);
    p.typed->metric = metric("stiffness");
    EXPECT_TRUE(at(1, metric("stiffness")).value);
    EXPECT_FALSE(at(2, metric("stiffness")).value) << "how stiff the other end is was not seen";
}

TEST_F(TwoEnds, AStandingNeverSaysMoreThanTheValue) {
    for (const auto standing : {Standing::counts, Standing::atLeast, Standing::atMost, Standing::between,
                                Standing::aside, Standing::voided, Standing::notRead})
        for (const int end : {1, 2, 0})
            for (const Id option : {1, 2}) {
                pull(1, 4000, end, standing).typed->upper = 4400;
                const auto value = at(option).value;
                const auto stands = standingAtEnd(d, d.pulls.back(), nullptr, d.specimens[0], option);
                const auto told = std::string(word(standing)) + ", end " + std::to_string(end) + ", option " +
                                  std::to_string(option);
                EXPECT_EQ(value.has_value(), stands != Standing::voided && stands != Standing::notRead)
                    << told;
                if (value) {
                    EXPECT_EQ(value->exact(), stands == Standing::counts) << told;
                    EXPECT_EQ(value->bound == Bound::above, stands == Standing::atLeast) << told;
                    EXPECT_EQ(value->bound == Bound::between, stands == Standing::between) << told;
                }
            }
}

TEST_F(TwoEnds, BothEndsAlikeAreCountedOnce) {
    d.study.plan.squareFor(1, 7).otherEnd = 0;
    EXPECT_EQ(otherEndOf(d, d.specimens[0]), 0);
    EXPECT_EQ(endNames(d, d.specimens.data()), (std::vector<std::string>{"end 1", "end 2"}));
    pull(1, 4000, 2);
    EXPECT_EQ(at(1).value->bound, Bound::exact);
    EXPECT_EQ(standingAtEnd(d, d.pulls[0], nullptr, d.specimens[0], 1), Standing::counts);
    EXPECT_EQ(jointsThatHeld(d, d.pulls[0], d.specimens[0]), 1);
    EXPECT_EQ(jointsThatHeld(d, pull(2, 1, 0), d.specimens[1]), 0) << "nothing tells that one failed";
    EXPECT_EQ(jointsThatHeld(d, pull(3, 1, 1, Standing::atLeast), d.specimens[2]), 0);
    d.study.plan.squareFor(1, 7).otherEnd = 1;
    EXPECT_EQ(otherEndOf(d, d.specimens[0]), 0) << "the same at both ends";
    d.study.plan.squareFor(1, 7).otherEnd = 99;
    EXPECT_EQ(otherEndOf(d, d.specimens[0]), 0) << "an option that is gone";
    d.study.plan.squareFor(1, 7).otherEnd = 2;
    d.study.plan.joints = 1;
    EXPECT_EQ(otherEndOf(d, d.specimens[0]), 0) << "there is no other end";
    EXPECT_EQ(endNames(d, nullptr), std::vector<std::string>{"end 1"});
}

} // namespace
