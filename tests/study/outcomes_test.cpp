#include <anvil/study/outcomes.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::study;

namespace {

StudyData plain() {
    StudyData d;
    d.study.goal.part = "the fitting";
    d.study.plan.chain = {{"Fitting", 4000, 0.1, true, ""}, {"Net wire", 5000, 0.1, false, ""}};
    d.study.plan.connector = "8 mm shackle";
    for (int i = 1; i <= 3; ++i) {
        Specimen s;
        s.id = i;
        s.label = "A1-" + std::to_string(i);
        d.specimens.push_back(s);
    }
    return d;
}

TEST(Outcomes, PartsAskedForComeFirstAndOnlyOnce) {
    const auto parts = breakableParts(plain());
    EXPECT_EQ(parts, (std::vector<std::string>{"the fitting", "Net wire", "8 mm shackle", "the grip",
                                               "what it was fixed to"}));
    EXPECT_EQ(breakableParts({}).front(), "the piece");
    auto many = plain();
    for (int i = 0; i < 20; ++i)
        many.study.plan.chain.push_back({"Link " + std::to_string(i), 1, 0.1, false, ""});
    EXPECT_EQ(breakableParts(many).size(), 8U) << "one digit each";
}

TEST(Outcomes, ModesFollowTheKind) {
    EXPECT_EQ(failureModes("adhesive bond").front(), "let go from the base");
    EXPECT_EQ(failureModes("Blind rivet")[1], "sheared off");
    for (const char* kind : {"", "rope", "glue", "rivet", "plastic slat", "thing"}) {
        EXPECT_FALSE(failureModes(kind).empty()) << kind;
        EXPECT_LE(failureModes(kind).size(), 8U) << kind;
    }
}

TEST(Outcomes, StandingsAreProposedWithTheirReason) {
    const auto d = plain();
    curve::Reading on, off;
    off.offScale = true;
    EXPECT_EQ(proposeStanding(d, &on, "Fitting", Limit::broke), Proposal{});
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::broke), Proposal{});
    EXPECT_EQ(proposeStanding(d, &off, "the fitting", Limit::broke),
              (Proposal{Standing::atLeast, "The rig topped out."}));
    EXPECT_EQ(proposeStanding(d, &on, "Net wire", Limit::broke),
              (Proposal{Standing::atLeast, "Not the fitting but Net wire failed."}));
    EXPECT_EQ(proposeStanding(d, &on, "", Limit::stopped),
              (Proposal{Standing::atLeast, "Stopped before it broke."}));
    EXPECT_EQ(proposeStanding(d, nullptr, "", Limit::linkLost).standing, Standing::atLeast);
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::wrongSetup).standing, Standing::voided);
    EXPECT_EQ(proposeStanding(d, nullptr, "", Limit::lost).standing, Standing::notRead);
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::stopped), Proposal{})
        << "stopped after it had failed";
}

TEST(Outcomes, NextFollowsTheRunList) {
    auto d = plain();
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1");
    d.study.plan.runOrder = {"A1-3", "gone", "A1-1", "A1-2"};
    EXPECT_EQ(nextSpecimen(d)->label, "A1-3");
    EXPECT_EQ(nextSpecimen(d, {3})->label, "A1-1") << "another one first";
    Pull p;
    p.specimen = 3;
    d.pulls = {p};
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1");
    d.pulls[0].practice = true;
    EXPECT_EQ(nextSpecimen(d)->label, "A1-3") << "practice is no pull";
    d.study.plan.practice = true;
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1") << "in a practice study it is one";
    d.study.plan.practice = false;
    d.pulls[0].practice = false;
    d.pulls[0].standing = Standing::notRead;
    EXPECT_EQ(nextSpecimen(d)->label, "A1-3") << "its number was lost; it may still be there";
    EXPECT_EQ(nextSpecimen(d, {1, 2, 3}), nullptr);
}

TEST(Outcomes, SharesOfAMixedFailure) {
    const auto shares = *sharesFrom("60 % let go, 40% tore within the glue");
    ASSERT_EQ(shares.size(), 2U);
    EXPECT_EQ(shares[1], (ModeShare{"tore within the glue", 0.4}));
    EXPECT_EQ(sharesText(shares), "60 % let go, 40 % tore within the glue");
    EXPECT_EQ(*sharesFrom(sharesText(shares)), shares);
    EXPECT_TRUE(sharesFrom("")->empty());
    EXPECT_EQ(sharesFrom("60 % a, 30 % b").error().message, "The shares come to 90 % together, not 100 %.");
    for (const char* bad : {"half tore", "100 %", "-20 % a, 120 % b", "% a"})
        EXPECT_FALSE(sharesFrom(bad)) << bad;
}

} // namespace
