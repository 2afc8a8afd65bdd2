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

TEST(Outcomes, CautionsComeFromAllOptionsAndMethods) {
    auto d = plain();
    d.study.plan.method = "sag";
    d.options = {{1, 1, 0, "Slat", "plastic slat", "", "", {}, {}},
                 {2, 1, 1, "Hook", "Adhesive bond", "", "", {}, {}}};
    d.study.plan.squareFor(1, 7).method = "torque";
    const auto all = cautionsOf(d);
    const auto says = [&](const char* words) {
        return std::any_of(all.begin(), all.end(),
                           [&](const auto& c) { return c.find(words) != std::string::npos; });
    };
    EXPECT_TRUE(says("solvents")) << "of the second option";
    EXPECT_TRUE(says("fly in pieces")) << "of the first";
    EXPECT_TRUE(says("trap hands")) << "of the method of one square";
    EXPECT_EQ(failureModes("rope").front(), "pulled out");
}

TEST(Outcomes, StandingsAreProposedWithTheirReason) {
    const auto d = plain();
    curve::Reading on, off;
    off.offScale = true;
    EXPECT_EQ(proposeStanding(d, &on, "Fitting", Limit::broke), Proposal{});
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::broke), Proposal{});
    EXPECT_EQ(proposeStanding(d, &off, "the fitting", Limit::broke),
              (Proposal{Standing::atLeast, "The rig topped out.", true}))
        << "it follows from the curve";
    EXPECT_TRUE(proposeStanding(d, &on, "", Limit::toppedOut).derived);
    EXPECT_FALSE(proposeStanding(d, &off, "", Limit::stopped).derived) << "nothing broke, whatever the limit";
    EXPECT_FALSE(proposeStanding(d, &off, "Net wire", Limit::broke).derived)
        << "holds whatever becomes of the limit";
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

TEST(Outcomes, OffScaleFollowsFromTheCurveUnlessSomebodySaysOtherwise) {
    Pull p;
    curve::Reading on, off;
    on.peak.force = off.peak.force = 500;
    off.offScale = true;
    EXPECT_EQ(standingOf(p, &on), Standing::counts);
    EXPECT_EQ(standingOf(p, &off), Standing::atLeast);
    EXPECT_EQ(reasonOf(p, &off), "The rig topped out.");
    EXPECT_EQ(valueOf({}, p, &off, metric("peak")).value->state, stats::State::above);
    EXPECT_EQ(valueOf({}, p, &on, metric("peak")).value->state, stats::State::exact)
        << "the limit was corrected";
    p.outcome.limit = Limit::toppedOut;
    EXPECT_EQ(standingOf(p, &on), Standing::atLeast) << "somebody said so";
    p.outcome.limit = Limit::broke;
    p.standing = Standing::aside;
    p.reason = "Mislabelled.";
    EXPECT_EQ(standingOf(p, &off), Standing::aside);
    EXPECT_EQ(reasonOf(p, &off), "Mislabelled.");
    EXPECT_EQ(standingOf(p, nullptr), Standing::aside);
}

TEST(Outcomes, KeysOfWhatEndsAPullRoundTrip) {
    for (int i = 0; i <= static_cast<int>(Limit::powerGone); ++i)
        EXPECT_EQ(limitFromKey(key(static_cast<Limit>(i))), static_cast<Limit>(i));
    EXPECT_FALSE(limitFromKey("rig topped out"));
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
