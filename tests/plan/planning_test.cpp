#include <algorithm>
#include <anvil/plan/fairness.h>
#include <anvil/plan/follow_ups.h>
#include <anvil/plan/forecasts.h>
#include <anvil/plan/reach.h>
#include <anvil/plan/replication.h>
#include <anvil/plan/run_order.h>
#include <anvil/plan/timetable.h>
#include <anvil/plan/weakest_link.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <cmath>
#include <gtest/gtest.h>
#include <map>
#include <set>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;
using namespace anvil::plan;

namespace {

/// Two options in two conditions, `each` planned and made, nothing pulled.
StudyData small(int each = 3, int options = 2, int conditions = 2) {
    StudyData d;
    d.study.id = 1;
    d.study.plan.replicates = each;
    for (int i = 1; i <= options; ++i) {
        Option o;
        o.id = i;
        o.name = std::string(1, static_cast<char>('A' + i - 1));
        d.options.push_back(o);
    }
    for (int i = 1; i <= conditions; ++i) {
        Condition c;
        c.id = 10 + i;
        c.name = i == 1 ? "Dry" : "Wet" + std::to_string(i);
        d.conditions.push_back(c);
    }
    d.study.goal.control = 1;
    for (auto& s : missingPieces(d)) {
        s.id = 100 + static_cast<Id>(d.specimens.size());
        s.batch = "one";
        d.specimens.push_back(s);
    }
    return d;
}

Pull& pullOf(StudyData& d, std::size_t specimen, double value, const char* when = "2026-05-04T09:00:00") {
    Pull p;
    p.id = 500 + static_cast<Id>(d.pulls.size());
    p.specimen = d.specimens[specimen].id;
    p.typed = TypedValue{metric("peak"), value, value, ""};
    p.performedAt = when;
    d.pulls.push_back(p);
    return d.pulls.back();
}

std::map<std::string, std::string> sentences(const StudyData& d, const Readings& r = {}) {
    std::map<std::string, std::string> out;
    for (const auto& f : fairness(d, r))
        out[f.rule] = f.sentence;
    return out;
}

TEST(Plan, ReplicatesOfASquare) {
    Plan p;
    p.replicates = 5;
    EXPECT_EQ(p.replicatesOf(1, 11), 5);
    p.squareFor(1, 11).replicates = 7;
    EXPECT_EQ(p.replicatesOf(1, 11), 7);
    p.squareFor(1, 11).struck = true;
    EXPECT_EQ(p.replicatesOf(1, 11), 0);
    EXPECT_EQ(p.replicatesOf(2, 11), 5);
}

TEST(Pieces, AreMadeFromThePlanWithLabelsThatAreNeverReused) {
    auto d = small();
    EXPECT_EQ(d.specimens.size(), 12U);
    std::set<std::string> labels;
    for (const auto& s : d.specimens)
        labels.insert(s.label);
    EXPECT_EQ(labels.size(), 12U);
    EXPECT_TRUE(labels.contains("B2-3"));
    EXPECT_TRUE(missingPieces(d).empty());
    d.study.plan.squareFor(1, 11).replicates = 5;
    ASSERT_EQ(missingPieces(d).size(), 2U);
    EXPECT_EQ(missingPieces(d)[0].label, "A1-4");
    d.specimens[0].option = 2; // a piece moved to another square keeps its label, so A1-1 is taken
    const auto more = missingPieces(d);
    EXPECT_EQ(more[0].replicate, 1);
    EXPECT_EQ(more[0].label, "A1-1a");
}

TEST(Reach, FromResultsForecastsAndRatings) {
    auto d = small();
    d.reach.limit = 1000;
    const auto none = headRoom(d, evaluate(d, {}, {}), 1, 11);
    EXPECT_EQ(none.reach, Reach::unknown);
    EXPECT_NE(none.sentence.find("give a forecast or a rating"), std::string::npos);
    d.options[0].rating = 400;
    d.options[0].kind = "rivet";
    auto h = headRoom(d, {}, 1, 11);
    EXPECT_EQ(h.reach, Reach::fine);
    EXPECT_NEAR(h.upper, 400 * (1 + 1.645 * 0.07), 1e-9);
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 700, 0.1, "", ""}, {"Tobin", 780, 0.1, "", ""}};
    h = headRoom(d, {}, 1, 11);
    EXPECT_EQ(h.reach, Reach::tight);
    EXPECT_EQ(h.from, "the forecast of Tobin") << "the boldest decides";
    EXPECT_NEAR(h.upper, 780 * 1.1645, 1e-9);
    for (std::size_t i = 0; i < 3; ++i)
        pullOf(d, i, 900 + 50.0 * static_cast<double>(i)); // mean 950, s 50, n 3
    h = headRoom(d, evaluate(d, {}, {}), 1, 11);
    EXPECT_NEAR(h.upper, 950 + 2.919986 * 50 * std::sqrt(4.0 / 3), 1e-3) << "t(0.95; 2) = 2.919986";
    EXPECT_EQ(h.reach, Reach::topsOut);
    EXPECT_NE(h.sentence.find("two-part line"), std::string::npos);
    d.reach = {std::nullopt, 500, 2, std::nullopt};
    EXPECT_EQ(headRoom(d, evaluate(d, {}, {}), 1, 11).limit, 1000) << "cell limit × ratio";
    d.reach = {std::nullopt, 50000, 1, std::nullopt};
    EXPECT_EQ(headRoom(d, evaluate(d, {}, {}), 1, 11).reach, Reach::tooSmall);
    d.reach = {};
    EXPECT_EQ(headRoom(d, evaluate(d, {}, {}), 1, 11).reach, Reach::unknown);
}

/// Pulls that topped out say more of the rig than any expectation.
TEST(Reach, PullsThatToppedOutAreNotForgotten) {
    auto d = small();
    d.reach.limit = 1000;
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 300, 0.1, "", ""}};
    for (std::size_t i = 0; i < 3; ++i)
        pullOf(d, i, 600);
    d.pulls[0].typed->value = 1000;
    d.pulls[0].outcome.limit = Limit::toppedOut;
    const auto h = headRoom(d, evaluate(d, {}, {}), 1, 11);
    EXPECT_EQ(h.reach, Reach::topsOut);
    EXPECT_TRUE(h.sentence.starts_with("1 of its 3 pulls so far topped out the rig")) << h.sentence;
    EXPECT_EQ(h.upper, 1000);
}

/// Millimetres are not compared with newtons.
TEST(Reach, WhatIsNoForceDoesNotTellTheReach) {
    auto d = small();
    d.reach.limit = 1000;
    decideBy(d.study.goal, metric("sag"));
    for (std::size_t i = 0; i < 3; ++i) {
        pullOf(d, i, 0.9 + 0.05 * static_cast<double>(i));
        d.pulls.back().typed->metric = metric("sag");
    }
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 0.014, 0.1, "", ""}};
    auto h = headRoom(d, evaluate(d, {}, d.study.goal), 1, 11);
    EXPECT_EQ(h.reach, Reach::unknown);
    EXPECT_TRUE(h.sentence.starts_with("What decides, the sag, is no force")) << h.sentence;
    d.options[0].rating = 400;
    h = headRoom(d, evaluate(d, {}, d.study.goal), 1, 11);
    EXPECT_EQ(h.reach, Reach::fine) << "a rating is a load";
    EXPECT_EQ(h.from, "its rating");
}

// Two normal strengths: P(first is the weaker) = Φ((m₂ − m₁)/√(s₁² + s₂²)), closed form.
TEST(WeakestLink, AgainstTheClosedFormForTwo) {
    for (const auto& [m1, c1, m2, c2] : {std::tuple{4000.0, 0.05, 5000.0, 0.05},
                                         {4000.0, 0.1, 4200.0, 0.02},
                                         {1000.0, 0.2, 1000.0, 0.2},
                                         {9000.0, 0.03, 5000.0, 0.08}}) {
        const std::vector<ChainPart> parts{{"Piece", m1, c1, true, ""}, {"Shackle", m2, c2, false, ""}};
        const auto p = weakestLink(parts);
        const double z = (m2 - m1) / std::hypot(m1 * c1, m2 * c2);
        EXPECT_NEAR(p[0].probability, 0.5 * std::erfc(-z / std::sqrt(2.0)), 1e-6);
        EXPECT_NEAR(p[0].probability + p[1].probability, 1, 1e-6);
    }
}

TEST(WeakestLink, EqualPartsShareAndTheWarningNamesTheCulprit) {
    const std::vector<ChainPart> equal(4, {"Part", 100, 0.1, false, ""});
    for (const auto& w : weakestLink(equal))
        EXPECT_NEAR(w.probability, 0.25, 1e-6);
    const std::vector<ChainPart> parts{
        {"Knot", 4000, 0.05, true, ""}, {"Sling", 3900, 0.05, false, ""}, {"Shackle", 9000, 0.05, false, ""}};
    const auto sentence = weakestSentence(weakestLink(parts));
    EXPECT_NE(sentence.find("Sling goes in"), std::string::npos) << sentence;
    const std::vector<ChainPart> good{{"Knot", 4000, 0.05, true, ""}, {"Sling", 9000, 0.05, false, ""}};
    EXPECT_TRUE(weakestSentence(weakestLink(good)).empty());
    EXPECT_TRUE(weakestLink({}).empty());
}

TEST(RunList, IsCompleteBalancedAndReproducible) {
    const auto d = small(4, 3, 2);
    const auto order = drawRunOrder(d, 7);
    ASSERT_EQ(order.size(), 24U);
    EXPECT_EQ(std::set<std::string>(order.begin(), order.end()).size(), 24U);
    for (std::size_t block = 0; block < 4; ++block) { // every square once a block
        std::set<std::string> squares;
        for (std::size_t i = 0; i < 6; ++i)
            squares.insert(order[block * 6 + i].substr(0, 2));
        EXPECT_EQ(squares.size(), 6U);
    }
    EXPECT_EQ(order, drawRunOrder(d, 7));
    EXPECT_NE(order, drawRunOrder(d, 8));
    std::map<std::string, int> first; // over many seeds every square comes first about as often
    for (std::uint64_t seed = 0; seed < 6000; ++seed)
        ++first[drawRunOrder(d, seed)[0].substr(0, 2)];
    for (const auto& [square, n] : first)
        EXPECT_NEAR(n, 1000, 130) << square; // 4.5 standard deviations
}

TEST(RunList, GroupsConditionsAndLeavesOutWhatWasPulled) {
    auto d = small(3, 3, 2);
    const auto grouped = drawRunOrder(d, 3, true);
    for (std::size_t block = 0; block < 3; ++block) {
        int changes = 0;
        for (std::size_t i = 1; i < 6; ++i)
            changes += grouped[block * 6 + i][1] != grouped[block * 6 + i - 1][1];
        EXPECT_EQ(changes, 1) << "one change of set-up a block";
    }
    pullOf(d, 0, 100);
    EXPECT_EQ(drawRunOrder(d, 3).size(), 17U);
}

TEST(HowMany, SchoolsAndSpreads) {
    const auto rows = schools(0.1, 6);
    ASSERT_EQ(rows.size(), 7U);
    EXPECT_FALSE(rows[0].detectable) << "one pull compares nothing";
    EXPECT_EQ(rows[4].n, 6);
    for (std::size_t i = 2; i < rows.size(); ++i)
        EXPECT_LT(*rows[i].detectable, *rows[i - 1].detectable);
    EXPECT_NEAR(*stats::detectableDifference(5, 0.1), *rows[3].detectable, 1e-12);
    EXPECT_GT(defaultCv("bonded hook, adhesive"), defaultCv("steel bolt"));
    auto d = small(2, 2, 1);
    pullOf(d, 0, 90);
    pullOf(d, 1, 110); // CV √2·10/100
    pullOf(d, 2, 200);
    pullOf(d, 3, 200);
    EXPECT_NEAR(*ownCv(evaluate(d, {}, {})), std::sqrt(0.02 / 2), 1e-12);
    EXPECT_FALSE(ownCv({}));
}

TEST(Totals, CostsAndStock) {
    auto d = small(3, 2, 2);
    EXPECT_FALSE(totals(d).cost);
    d.options[0].unitCost = 1.5;
    d.options[1].unitCost = 2;
    d.options[0].currency = "EUR";
    d.study.plan.squareFor(2, 12).struck = true;
    const auto t = totals(d);
    EXPECT_EQ(t.replicates, 9);
    EXPECT_EQ(t.squares, 3);
    EXPECT_NEAR(*t.cost, 6 * 1.5 + 3 * 2, 1e-12);
    d.study.plan.recipe = {{"Prime", 5, 10, 0, 1, 0, "primer", ""}};
    const auto lines = stock(d);
    ASSERT_EQ(lines.size(), 3U);
    EXPECT_EQ(lines[0].needed, 6);
    EXPECT_EQ(lines[0].made, 6);
    EXPECT_NEAR(*lines[0].cost, 9, 1e-12);
    EXPECT_EQ(lines[2].what, "primer (doses)");
    EXPECT_EQ(lines[2].needed, 9);
}

// Fairness: one study that passes each rule and one that fails it, with the exact sentence.
TEST(Fairness, AFairPlanHasNothingSaidAboutIt) { EXPECT_TRUE(sentences(small()).empty()); }

TEST(Fairness, Replicates) {
    auto d = small(2);
    EXPECT_EQ(sentences(d)["replicates"],
              "A in Dry, A in Wet2, B in Dry and 1 more have only 2 replicates: two show repeatability, no "
              "more. Three is the least for a comparison.");
    d = small(3);
    d.study.plan.squareFor(2, 11).replicates = 1;
    EXPECT_EQ(sentences(d)["replicates"], "B in Dry has only 1 replicate: one pull says nothing about "
                                          "spread. Three is the least for a comparison.");
    d.study.intent = Intent::exploratory;
    EXPECT_FALSE(sentences(d).contains("replicates"));
}

TEST(Fairness, Control) {
    auto d = small();
    d.study.goal.control = 0;
    const auto all = fairness(d, {});
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].sentence,
              "No option is named as the control, so nothing says what the others are compared with.");
    EXPECT_EQ(all[0].remedy, "Take A as the control");
    d.study.plan.accepted = {{"control", "all are new"}};
    EXPECT_TRUE(fairness(d, {})[0].accepted);
    EXPECT_EQ(fairness(d, {})[0].why, "all are new");
}

TEST(Fairness, Batches) {
    auto d = small();
    for (auto& s : d.specimens)
        if (s.option == 2) s.batch.clear();
    EXPECT_EQ(sentences(d)["batch"],
              "The batch of B is not recorded: pieces of two lots can differ more than two options.");
    for (auto& s : d.specimens)
        if (s.option == 2) s.batch = s.replicate == 1 ? "one" : "two";
    EXPECT_EQ(sentences(d)["mixed batch"], "B has pieces of more than one batch.");
    d.study.intent = Intent::asUsed;
    EXPECT_TRUE(sentences(d).empty()) << "as-used pieces come from anywhere";
}

TEST(Fairness, Grades) {
    auto d = small();
    d.options[0].kind = d.options[1].kind = "bolt";
    d.options[0].grade = "8.8";
    EXPECT_FALSE(sentences(d).contains("grade"));
    d.options[1].grade = "10.9";
    EXPECT_EQ(sentences(d)["grade"], "Options of one kind (bolt) are of different grades: 10.9 and 8.8.");
}

TEST(Fairness, Blocks) {
    auto d = small();
    for (auto& s : d.specimens)
        s.block = s.replicate == 1 ? "plank 1" : "plank 2";
    EXPECT_FALSE(sentences(d).contains("block"));
    for (auto& s : d.specimens)
        if (s.option == 1) s.block = "plank 3";
    EXPECT_EQ(sentences(d)["block"], "Only one option was made in plank 1, plank 2 and plank 3: the piece it "
                                     "was made in cannot be told from the option.");
}

TEST(Fairness, ReUse) {
    auto d = small();
    pullOf(d, 0, 100);
    EXPECT_FALSE(sentences(d).contains("re-use"));
    pullOf(d, 0, 90);
    EXPECT_EQ(sentences(d)["re-use"],
              "A1-1 was pulled more than once: what it carried before may have weakened it.");
}

TEST(Fairness, Speeds) {
    auto d = small(3, 2, 1);
    Readings r;
    for (std::size_t i = 0; i < 6; ++i) {
        curve::Reading reading;
        reading.travelRate = d.specimens[i].option == 1 ? 0.001 : 0.0012;
        r.byPull[pullOf(d, i, 100).id] = reading;
    }
    EXPECT_FALSE(sentences(d, r).contains("speed"));
    for (std::size_t i = 3; i < 6; ++i)
        r.byPull[d.pulls[i].id].travelRate = 0.003;
    EXPECT_EQ(sentences(d, r)["speed"], "B in Dry was pulled 3.0 times as fast as A in Dry: the shape of the "
                                        "curve, and often its peak, changes with speed.");
}

TEST(Fairness, Days) {
    auto d = small(1, 2, 2);
    d.study.plan.replicates = 3;
    for (std::size_t i = 0; i < 4; ++i)
        pullOf(d, i, 100, d.specimens[i].condition == 11 ? "2026-05-04T09:00:00" : "2026-05-05T09:00:00");
    EXPECT_EQ(sentences(d)["day"], "Every condition was pulled on days of its own, so what the condition did "
                                   "cannot be told from what the day did.");
    d.pulls[0].performedAt = "2026-05-05T12:00:00";
    EXPECT_FALSE(sentences(d).contains("day"));
}

TEST(Fairness, BatchesAndOperatorsTangledWithTheCondition) {
    auto d = small();
    for (auto& s : d.specimens)
        s.batch = s.condition == 11 ? "May" : "June";
    EXPECT_EQ(
        sentences(d)["tangled batch"],
        "Every condition has pieces of a batch of its own, so what the condition did cannot be told from "
        "the batch.");
    d = small();
    for (std::size_t i = 0; i < d.specimens.size(); ++i)
        pullOf(d, i, 100).operatorName = d.specimens[i].condition == 11 ? "Ines" : "Tobin";
    EXPECT_EQ(sentences(d)["operator"],
              "Every condition was pulled by somebody else, so what the condition did "
              "cannot be told from who pulled.");
    d.pulls[0].operatorName = "Tobin";
    EXPECT_FALSE(sentences(d).contains("operator"));
}

TEST(Fairness, OneDifferenceAtATime) {
    auto d = small();
    domain::giveName(d.conditions[0], "dry, warm");
    domain::giveName(d.conditions[1], "wet, cold");
    EXPECT_EQ(sentences(d)["one difference"],
              "\"dry, warm\" and \"wet, cold\" differ in two things at once: which of them made the "
              "difference cannot be told. Add a condition between them.");
    d.conditions[1].levels = {"Dry", "cold"};
    EXPECT_FALSE(sentences(d).contains("one difference")) << "what it sets is said, whatever it is called";
    domain::giveName(d.conditions[1], "Wet, warm");
    EXPECT_FALSE(sentences(d).contains("one difference"));
    domain::giveName(d.conditions[0], "20 °C");
    domain::giveName(d.conditions[1], "40 °C");
    EXPECT_FALSE(sentences(d).contains("one difference")) << "one axis, one difference";
}

TEST(Fairness, MethodConnectorAndSpeedAreAlike) {
    auto d = small();
    d.study.plan.connector = "M8 shackle";
    d.study.plan.speed = 0.0005;
    d.study.plan.squareFor(1, 11).connector = "M8 shackle";
    EXPECT_TRUE(sentences(d).empty()) << "said again, but the same";
    auto& square = d.study.plan.squareFor(2, 12);
    square.connector = "carabiner";
    square.method = "shear";
    square.speed = 0.002;
    EXPECT_EQ(sentences(d)["connector"], "B in Wet2 (carabiner) will hang on other connecting parts than the "
                                         "rest: the part in between may decide.");
    EXPECT_EQ(sentences(d)["method"], "B in Wet2 (shear) will be tested by another method than the rest: its "
                                      "numbers do not compare.");
    EXPECT_EQ(sentences(d)["planned speed"],
              "B in Wet2 (120 mm/min) will be pulled at another speed than the rest.");
    square.struck = true;
    EXPECT_TRUE(sentences(d).empty()) << "what is struck out is not compared";
}

TEST(Fairness, ArticlesThatAreNotDestroyedAreCheckedForDrift) {
    auto d = small(1, 1, 1);
    d.study.plan.replicates = 6;
    d.study.plan.reused = true;
    pullOf(d, 0, 100);
    pullOf(d, 0, 101);
    EXPECT_EQ(sentences(d)["drift check"],
              "A has fewer than four deployments: too few to see whether it wears.");
    EXPECT_FALSE(sentences(d).contains("re-use"));
    for (const double v : {99.0, 100.0, 101.0, 100.0})
        pullOf(d, 0, v);
    EXPECT_TRUE(sentences(d).empty()) << "steady";
    for (std::size_t i = 0; i < d.pulls.size(); ++i)
        d.pulls[i].typed->value -= 5.0 * static_cast<double>(i);
    EXPECT_EQ(sentences(d)["drift"],
              "A (−5.0 % a deployment) changes from deployment to deployment: it wears, "
              "so late ones do not compare with early ones.");
}

TEST(Fairness, TwoJointsOfOnePieceAreNotIndependent) {
    auto d = small();
    d.study.plan.joints = 2;
    pullOf(d, 0, 100);
    pullOf(d, 0, 110).standing = Standing::atLeast;
    EXPECT_TRUE(sentences(d).empty()) << "the one that failed counts, the other held at least that";
    d.pulls[1].standing = Standing::counts;
    EXPECT_EQ(sentences(d)["joints"],
              "A1-1: both results of one piece count as if they were independent. The "
              "joint that failed counts, the others held at least that.");
}

TEST(Fairness, PlacesInOneSheetKeepTheirDistance) {
    auto d = small();
    d.study.plan.apart = 0.05;
    for (std::size_t i = 0; i < d.specimens.size(); ++i) {
        d.specimens[i].block = "sheet";
        d.specimens[i].x = 0.05 * static_cast<double>(i);
        d.specimens[i].y = 0.0;
    }
    EXPECT_TRUE(sentences(d).empty());
    d.specimens[1].x = 0.018;
    EXPECT_EQ(sentences(d)["apart"],
              "A1-1 and A1-2 in sheet lie 18.0 mm apart, 50.0 mm were wanted: the first "
              "pull may weaken the second.");
    d.specimens[2].x = 0.03;
    EXPECT_NE(sentences(d)["apart"].find("A1-2 and A1-3"), std::string::npos) << "the nearest is named";
    EXPECT_NE(sentences(d)["apart"].find("(2 more pairs)"), std::string::npos);
}

TEST(Reach, InTravel) {
    auto d = small();
    d.reach.travel = 0.1;
    EXPECT_EQ(travelRoom(d, {}, 1, 11).reach, Reach::unknown);
    d.study.plan.squareFor(1, 11).forecasts = {{"Ines", 700, 0.1, "", "", 0.09}};
    auto h = travelRoom(d, {}, 1, 11);
    EXPECT_NEAR(h.upper, 0.09 * 1.1645, 1e-12);
    EXPECT_EQ(h.reach, Reach::topsOut);
    EXPECT_NE(h.sentence.find("of the rig's travel"), std::string::npos);
    Readings r;
    for (std::size_t i = 0; i < 3; ++i) { // mean 30 mm, s 1 mm, with 5 mm of slack
        curve::Reading reading;
        reading.peak.travel = 0.020;
        reading.breakPoint = curve::Landmark{};
        reading.breakPoint->travel = 0.024 + 0.001 * static_cast<double>(i);
        reading.slack = 0.005;
        r.byPull[pullOf(d, i, 100).id] = reading;
    }
    h = travelRoom(d, r, 1, 11);
    EXPECT_NEAR(h.expected, 0.030, 1e-12);
    EXPECT_NEAR(h.upper, 0.030 + 2.919986 * 0.001 * std::sqrt(4.0 / 3), 1e-8);
    EXPECT_EQ(h.reach, Reach::fine);
    EXPECT_EQ(worse(Reach::fine, Reach::topsOut), Reach::topsOut);
    EXPECT_EQ(worse(Reach::tight, Reach::unknown), Reach::tight);
}

TEST(Totals, TimeOfThePlan) {
    auto d = small(3, 2, 2);
    EXPECT_EQ(totals(d).pulling, 0);
    d.study.plan.minutesEach = 6;
    d.study.plan.recipe = {{"Glue", 10, 600, 0, 1, 0, "", ""}};
    EXPECT_EQ(totals(d).pulling, 12 * 6 * 60);
    EXPECT_EQ(totals(d).preparation, 610 * 60);
}

TEST(Practice, NeverCounts) {
    auto d = small();
    pullOf(d, 0, 100).practice = true;
    const auto real = evaluate(d, {}, {});
    ASSERT_EQ(real.groups.size(), 1U);
    EXPECT_TRUE(real.groups[0].values.empty());
    EXPECT_EQ(real.groups[0].leftOut[0].why, "pulled for practice");
    d.study.plan.practice = true;
    EXPECT_EQ(evaluate(d, {}, {}).groups[0].values.size(), 1U) << "but it does in a practice study";
    d.pulls[0].practice = false;
    EXPECT_TRUE(evaluate(d, {}, {}).groups[0].values.empty()) << "and there a real one does not";
    d.pulls[0].recording = Recording::interrupted;
    EXPECT_FALSE(valueOf(d, d.pulls[0], nullptr, metric("peak")).value);
}

TEST(Fairness, Preparation) {
    auto d = small();
    d.study.plan.recipe = {{"Prime", 5, 20, 60, 1, 0, "primer", "2026-04-30"},
                           {"Glue", 10, 600, 0, 1, 0, "", ""}};
    EXPECT_TRUE(sentences(d).empty()) << "nothing has been begun";
    d.study.plan.recipe[0].expires = "2026-06-30";
    d.study.plan.recipeStarted = "2026-05-04T09:00:00";
    d.study.plan.stepsDone = {{"0.0", "2026-05-04T09:00:00"}, {"1.0", "2026-05-04T09:30:00"}};
    EXPECT_TRUE(sentences(d).empty()) << "all in order";
    d.study.plan.recipe[0].expires = "2026-04-30";
    EXPECT_EQ(sentences(d)["product"],
              "primer is past its date (2026-04-30): it may cure badly and spoil the square.");
    d.study.plan.stepsDone[1].second = "2026-05-04T09:10:00";
    EXPECT_EQ(sentences(d)["early"], "Glue was done before the wait was over.");
    d.study.plan.stepsDone[1].second = "2026-05-04T11:00:00";
    EXPECT_EQ(sentences(d)["late"], "Glue was done after the latest time.");
    pullOf(d, 0, 100, "2026-05-04T18:00:00");
    EXPECT_EQ(sentences(d)["cure"], "A1-1 was pulled before the preparation was over.");
    d.pulls[0].performedAt = "2026-05-04T21:11:00";
    EXPECT_FALSE(sentences(d).contains("cure"));
}

TEST(FollowUps, NameWhatTheResultsLeaveOpen) {
    auto d = small(3, 3, 1);
    for (std::size_t i = 0; i < 3; ++i)
        pullOf(d, i, 100 + 20.0 * static_cast<double>(i));
    for (std::size_t i = 3; i < 6; ++i)
        pullOf(d, i, 110 + 20.0 * static_cast<double>(i - 3));
    auto all = followUps(d, evaluate(d, {}, {}));
    ASSERT_EQ(all.size(), 2U);
    EXPECT_NE(all[0].sentence.find("A and B are too close to call"), std::string::npos) << all[0].sentence;
    EXPECT_EQ(all[0].squares.size(), 2U);
    EXPECT_EQ(all[1].sentence, "C in Dry has not been tested.");
    d.pulls[0].standing = d.pulls[1].standing = Standing::atLeast;
    d.pulls[0].outcome.limit = Limit::toppedOut;
    d.pulls[1].outcome.part = "the shackle";
    d.pulls[2].standing = Standing::atLeast;
    all = followUps(d, evaluate(d, {}, {}));
    EXPECT_EQ(all[0].sentence, "1 of A topped out the rig: pull them again with more reach.");
    EXPECT_EQ(all[1].sentence, "In 1 of A another part broke: pull them again with that part stronger.");
    EXPECT_EQ(all[2].sentence, "1 of A ended before anything broke: pull them again until it does.");
    EXPECT_TRUE(followUps(small(), {}).empty()) << "nothing pulled leaves nothing open";
}

TEST(Measured, MeanAndTolerance) {
    Measured m{"depth", 0.010, 0.0002, {}};
    EXPECT_FALSE(m.mean());
    EXPECT_TRUE(m.fits());
    m.readings = {0.0101, 0.0103};
    EXPECT_NEAR(*m.mean(), 0.0102, 1e-12);
    EXPECT_TRUE(m.fits());
    m.readings.push_back(0.0105);
    EXPECT_FALSE(m.fits());
}

} // namespace
