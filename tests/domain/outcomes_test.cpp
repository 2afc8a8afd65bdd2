// What may break, how a pull stands, and what was noted of it.
#include "three_pieces.h"
#include <anvil/domain/outcomes.h>
#include <anvil/domain/phases.h>
#include <anvil/domain/rating.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;

namespace {

TEST(Outcomes, PartsAskedForComeFirstAndOnlyOnce) {
    const auto parts = breakableParts(threePieces());
    EXPECT_EQ(parts, (std::vector<std::string>{"the fitting", "Net wire", "8 mm shackle", "the grip",
                                               "what it was fixed to"}));
    EXPECT_EQ(breakableParts({}).front(), "the piece");
    auto many = threePieces();
    for (int i = 0; i < 20; ++i)
        many.study.plan.chain.push_back({"Link " + std::to_string(i), 1, 0.1, false, ""});
    EXPECT_EQ(breakableParts(many).size(), 8U) << "one digit each";
}

TEST(Outcomes, CautionsComeFromAllOptionsAndMethods) {
    auto d = threePieces();
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
    const auto d = threePieces();
    curve::Reading on, off;
    off.offScale = true;
    EXPECT_EQ(proposeStanding(d, &on, "Fitting", Limit::broke), Proposal{});
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::broke), Proposal{});
    EXPECT_EQ(proposeStanding(d, &off, "the fitting", Limit::broke),
              (Proposal{Standing::atLeast, Because::toppedOut, {}, {}, {}, true}))
        << "it follows from the curve";
    EXPECT_TRUE(proposeStanding(d, &on, "", Limit::toppedOut).derived);
    EXPECT_FALSE(proposeStanding(d, &off, "", Limit::stopped).derived) << "nothing broke, whatever the limit";
    EXPECT_FALSE(proposeStanding(d, &off, "Net wire", Limit::broke).derived)
        << "holds whatever becomes of the limit";
    EXPECT_EQ(proposeStanding(d, &on, "Net wire", Limit::broke),
              (Proposal{Standing::atLeast, Because::otherPart, {}, "the fitting", "Net wire"}));
    EXPECT_EQ(proposeStanding(d, &on, "", Limit::stopped), (Proposal{Standing::atLeast, Because::stopped}));
    EXPECT_EQ(proposeStanding(d, nullptr, "", Limit::linkLost).standing, Standing::atLeast);
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::wrongSetup).standing, Standing::voided);
    EXPECT_EQ(proposeStanding(d, nullptr, "", Limit::lost).standing, Standing::notRead);
    EXPECT_EQ(proposeStanding(d, &on, "the fitting", Limit::stopped), Proposal{})
        << "stopped after it had failed";
}

TEST(Outcomes, KeysOfWhatEndsAPullRoundTrip) {
    for (int i = 0; i <= static_cast<int>(Limit::powerGone); ++i)
        EXPECT_EQ(limitFromKey(key(static_cast<Limit>(i))), static_cast<Limit>(i));
    EXPECT_FALSE(limitFromKey("rig topped out"));
}

using Typed = std::vector<std::pair<std::string, std::string>>;

TEST(Outcomes, SharesOfAMixedFailure) {
    const auto shares = *sharesOf(Typed{{"let go", "60 %"}, {"tore, within the glue", "40"}});
    ASSERT_EQ(shares.size(), 2U);
    EXPECT_EQ(shares[1], (ModeShare{"tore, within the glue", 0.4})) << "a comma is no end of a word";
    EXPECT_EQ(sharesText(shares), "60 % let go, 40 % tore, within the glue");
    EXPECT_TRUE(sharesOf(Typed{})->empty());
    EXPECT_EQ(sharesOf(Typed{{"a", "60"}, {"b", "30"}}).error().message,
              "The shares come to 90 % together, not 100 %.");
    EXPECT_TRUE(sharesOf(Typed{{"a", "33.3"}, {"b", "33.3"}, {"c", "33.3"}})) << "within one per cent";
    for (const auto& bad : {Typed{{"tore", "half"}}, Typed{{"", "100"}}, Typed{{"a", "-20"}, {"b", "120"}},
                            Typed{{"a", ""}}, Typed{{"a", "0"}, {"b", "100"}}})
        EXPECT_FALSE(sharesOf(bad)) << bad[0].first;
}

TEST(Phases, AsTyped) {
    const std::vector<PhaseText> typed{{"set", "down", {"400 N", "120 mm", ""}, "held"},
                                       {"turned", "", {}, ""},
                                       {"pulled", "straight up", {"1.2 kN"}, "came out, bent"}};
    const auto all = phasesOf(typed);
    ASSERT_TRUE(all) << all.error().message;
    ASSERT_EQ(all->size(), 3U);
    EXPECT_EQ((*all)[0].direction, "down");
    ASSERT_EQ((*all)[0].readings.size(), 2U);
    EXPECT_NEAR((*all)[0].readings[0].si, 400, 1e-9);
    EXPECT_NEAR((*all)[0].readings[1].si, 0.12, 1e-9);
    EXPECT_EQ((*all)[0].outcome, "held");
    EXPECT_EQ((*all)[1].name, "turned");
    EXPECT_EQ((*all)[2].outcome, "came out, bent");
    const auto unitOf = [](quantity::Dimension d) -> const quantity::Unit& {
        return d == quantity::Dimension::force    ? quantity::unit("N")
               : d == quantity::Dimension::length ? quantity::unit("mm")
                                                  : quantity::siUnit(d);
    };
    EXPECT_EQ(phasesText(*all, unitOf), "set: down, 400 N, 120 mm, held\nturned\n"
                                        "pulled: straight up, 1200 N, came out, bent");
    const auto turned = phasesOf(std::vector<PhaseText>{
        {"turned", "clockwise", {">12 N·m", "90°", "2 kN", "~3 kN", "30 s", "5 mm/s"}, "2 turns loose"}});
    ASSERT_TRUE(turned);
    using quantity::Dimension;
    const auto& r = turned->front().readings;
    ASSERT_EQ(r.size(), 6U);
    const Dimension measures[] = {Dimension::torque, Dimension::angle, Dimension::force,
                                  Dimension::force,  Dimension::time,  Dimension::speed};
    for (std::size_t i = 0; i < r.size(); ++i)
        EXPECT_EQ(r[i].unit->dimension, measures[i]) << i;
    EXPECT_EQ(r[0].bound, quantity::Bound::above) << "the doubt is kept";
    EXPECT_EQ(turned->front().direction, "clockwise");
    EXPECT_EQ(turned->front().outcome, "2 turns loose") << "words with a number in them stay words";
    EXPECT_NE(phasesText(*turned, unitOf).find("~3000 N"), std::string::npos) << phasesText(*turned, unitOf);
    EXPECT_FALSE(phasesOf(std::vector<PhaseText>{{"", "down", {}, ""}}));
    EXPECT_TRUE(phasesOf({})->empty());
    EXPECT_EQ(phasesOf(std::vector<PhaseText>{{"set", "", {"12"}, ""}}).error().message,
              "\"12\" in \"set\" is no force, length, torque, angle, time or speed: type it with its unit.");
}

TEST(Ratings, WhatTheStepsMean) {
    const auto words = ratingWordsOf(
        Typed{{"5", "needs a hammer"}, {"0", "falls out by hand"}, {"2,5", "wobbles; creaks = a little"}});
    ASSERT_TRUE(words) << words.error().message;
    EXPECT_EQ(ratingWordsText(*words),
              "0 = falls out by hand; 2.5 = wobbles; creaks = a little; 5 = needs a hammer");
    EXPECT_EQ(meaningOf(2.5, *words), "wobbles; creaks = a little");
    EXPECT_EQ(meaningOf(3, *words), "between \"wobbles; creaks = a little\" and \"needs a hammer\"");
    EXPECT_EQ(meaningOf(7, *words), "") << "beyond the last word nothing is said";
    EXPECT_EQ(meaningOf(7, {}), "");
    EXPECT_TRUE(ratingWordsOf(Typed{})->empty());
    for (const auto& bad :
         {Typed{{"x", "wobbles"}}, Typed{{"3", ""}}, Typed{{"11", "too far"}}, Typed{{"-1", "below"}},
          Typed{{"2.3", "no half step"}}, Typed{{"3", "a"}, {"3", "b"}}, Typed{{"", "no step"}}})
        EXPECT_FALSE(ratingWordsOf(bad)) << bad[0].first;
    for (const double v : {0.0, 0.5, 10.0})
        EXPECT_TRUE(isRatingStep(v)) << v;
    for (const double v : {-0.5, 10.5, 0.25})
        EXPECT_FALSE(isRatingStep(v)) << v;
}

TEST(Outcomes, WhatWasNotedInWords) {
    Outcome o;
    EXPECT_TRUE(remarksOf(o).empty());
    o.where = "at the second tuck";
    o.limit = Limit::broke;
    o.shares = {{"let go", 0.6}, {"tore", 0.4}};
    o.whileUnloading = true;
    o.afterwards = "bent";
    o.marks = {{1.25, ""}, {2.5, "creak"}};
    EXPECT_EQ(markName(o.marks, 0), "mark 1");
    EXPECT_EQ(markName(o.marks, 1), "creak");
    EXPECT_EQ(brokeText(o), "");
    o.mode = "tore";
    EXPECT_EQ(brokeText(o), "tore");
    o.part = "the cord";
    EXPECT_EQ(brokeText(o), "the cord, tore");
    o.end = 2;
    EXPECT_EQ(remarksOf(o), (std::vector<std::string>{"end 2", "at the second tuck", "60 % let go, 40 % tore",
                                                      "broke while being unloaded or handled",
                                                      "bent afterwards", "at 2.50 s: creak"}));
    o = {};
    o.limit = Limit::tipped;
    EXPECT_EQ(remarksOf(o), std::vector<std::string>{"it tipped"});
    o.limit = Limit::toppedOut;
    EXPECT_TRUE(remarksOf(o).empty()) << "it is said once, as the reason of its standing";
}

TEST(Outcomes, WhatEndedAPullWithoutABreak) {
    StudyData data;
    for (const auto limit : limitsWithoutBreak()) {
        const auto p = proposeStanding(data, nullptr, "", limit);
        const bool shown = limit == Limit::slipped || limit == Limit::tipped;
        EXPECT_EQ(p.standing, shown ? Standing::counts : Standing::atLeast) << word(limit);
        EXPECT_EQ(p.why == Because::nothing, shown) << word(limit);
    }
}

TEST(Levels, AreSpelledOutByANameOfSeveralParts) {
    EXPECT_EQ(levelsIn("salt-soaked, cold"), (std::vector<std::string>{"salt-soaked", "cold"}));
    EXPECT_EQ(levelsIn(" wet + 40 °C /cured; "), (std::vector<std::string>{"wet", "40 °C", "cured"}));
    EXPECT_TRUE(levelsIn("Plain").empty()) << "one thing is no difference of several";
    EXPECT_TRUE(levelsIn("").empty());
    EXPECT_TRUE(levelsIn(",;/").empty());
    Condition c;
    giveName(c, "dry, warm");
    EXPECT_EQ(c.levels.size(), 2U);
}

} // namespace
