// Results that are no curve: what follows from what was typed, by hand.
#include <algorithm>
#include <anvil/domain/outcomes.h>
#include <anvil/domain/phases.h>
#include <anvil/domain/rating.h>
#include <anvil/methods/method.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;
using quantity::Dimension;

namespace {

const quantity::Unit* si(Dimension d) {
    return d == Dimension::length ? &quantity::unit("mm") : &quantity::siUnit(d);
}

/// One piece at the bench, tested by a method.
struct Bench {
    StudyData data;
    Pull pull;

    explicit Bench(const char* method) {
        data.study.plan.method = method;
        data.study.goal.metric = metricsOf(method).front();
        data.specimens.push_back({});
        data.specimens[0].id = pull.specimen = 1;
    }
    Expected<Told> form(const std::vector<FieldText>& fields) {
        auto entered = enteredFrom(methodOf(data.study.plan), fields, si);
        if (!entered) return tl::unexpected(entered.error());
        pull.outcome.entered = *entered;
        return told(data, pull);
    }
    Expected<Told> ladder(std::vector<LadderStep> steps) {
        pull.outcome.entered.steps = std::move(steps);
        return told(data, pull);
    }
    Expected<Told> gauge(std::vector<GaugeReading> readings, std::optional<double> unloaded = {}) {
        pull.outcome.entered.gauge = std::move(readings);
        pull.outcome.entered.unloadedFrom = unloaded;
        return told(data, pull);
    }
    MetricValue value(const char* key) const { return valueOf(data, pull, nullptr, metric(key)); }
};

std::string refusal(const Expected<Told>& r) { return r ? "it was taken" : r.error().message; }
double valueIn(const Expected<Told>& r) { return r ? r->number.value->value : NAN; }
double upperIn(const Expected<Told>& r) { return r ? r->number.value->upper : NAN; }

TEST(Entries, EveryMethodOffersMetricsThatAreFoundByKey) {
    for (const auto* m : methods::all()) {
        const auto metrics = metricsOf(m->key);
        ASSERT_FALSE(metrics.empty()) << m->key;
        for (const auto& own : metrics) {
            EXPECT_EQ(metricFromKey(own->key), own);
            EXPECT_EQ(metricFromKey(own->key, m->key)->operator->(), own.operator->()) << "in its own words";
            EXPECT_EQ(metricFromKey(own->key).value()->dimension, own->dimension)
                << own->key << " of " << m->key << " means something else elsewhere";
        }
    }
    EXPECT_EQ(metricsOf("no such method").front(), metric("peak"));
    EXPECT_FALSE(metricFromKey("hope"));
    EXPECT_THROW((void)metric("hope"), std::logic_error);
}

TEST(Entries, SagIsADifferenceOfTwoHeights) {
    Bench b("sag");
    const auto r = b.form({{"unloaded", "412"}, {"loaded", "39.8 cm"}, {"after", "41"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->number.metric->key, "sag");
    EXPECT_NEAR(valueIn(r), 0.014, 1e-12);
    EXPECT_EQ(r->stands.standing, Standing::counts);
    EXPECT_NEAR(b.value("permanent_set").value->value, 0.002, 1e-12) << "41 after 39.8 cm is no 41 mm";
    EXPECT_NE(refusal(b.form({{"unloaded", "398"}, {"loaded", "412"}})).find("swapped"), std::string::npos);
    EXPECT_EQ(refusal(b.form({{"loaded", "412"}})), "\"Weight\" is empty: it is needed (such as 5 kg).");
    EXPECT_EQ(refusal(b.form({{"weight", "5 kg"}, {"loaded", "412"}})),
              "\"Height unloaded\" is empty: it is needed (such as 412 mm).");
    EXPECT_FALSE(b.form({{"unloaded", "4 kN"}, {"loaded", "1 mm"}}));
    EXPECT_FALSE(b.form({{"height", "4 mm"}})) << "no field of this form";
}

TEST(Entries, WhatThePieceMeasuresGoesIntoTheFormulas) {
    Bench b("sag");
    b.data.specimens[0].measured = {{"Span", {}, {}, {0.99, 1.01}}};
    ASSERT_TRUE(b.form({{"weight", "50 N"}, {"unloaded", "412"}, {"loaded", "402"}}));
    EXPECT_NEAR(b.value("stiffness").value->value, 5000, 1e-6);
    EXPECT_NEAR(b.value("bending_stiffness").value->value, 50 * 1.0 / (48 * 0.01), 1e-9) << "WL³/48δ";
    b.data.specimens[0].measured[0].readings.clear();
    EXPECT_EQ(b.value("bending_stiffness").whyNot, "it needs the weight and the span");
}

TEST(Entries, TorquesKeepTheirDoubt) {
    Bench b("torque");
    const auto r = b.form({{"breakaway", ">9 N·m"}, {"running", "2.5 N·m"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->stands.standing, Standing::atLeast);
    EXPECT_EQ(r->stands.why, domain::Because::readAbove);
    EXPECT_NEAR(valueIn(r), 9, 1e-12);
    b.pull.standing = r->stands.standing;
    EXPECT_EQ(b.value("breakaway").value->bound, stats::Bound::above);
    EXPECT_NEAR(b.value("running").value->value, 2.5, 1e-12);
    const auto odd = b.form({{"breakaway", "2"}, {"running", "3"}});
    EXPECT_EQ(odd->notes.size(), 1U) << "more to keep it turning than to start it";
    const auto between = b.form({{"breakaway", "4…5 N·m"}});
    EXPECT_EQ(between->stands.standing, Standing::between);
    EXPECT_NEAR(upperIn(between), 5, 1e-12);
    EXPECT_NEAR(valueIn(b.form({{"force", "20 N"}, {"arm", "250"}})), 5, 1e-12) << "a force on an arm";
}

TEST(Entries, WhatWasTypedIsKeptWithItsUnit) {
    Bench b("sag");
    ASSERT_TRUE(b.form({{"unloaded", "412"}, {"loaded", " 39,8 cm"}, {"after", " "}}));
    EXPECT_EQ(b.pull.outcome.entered.fields,
              (std::vector<FieldText>{{"unloaded", "412 mm"}, {"loaded", "39.8 cm"}}));
}

TEST(Entries, AHammerNeverGainsEnergy) {
    // 2 kg from 600 to 210 mm, of which a free swing loses 20 mm: 2 · 9.80665 · (0.390 − 0.020) J.
    Bench b("hammer");
    EXPECT_NEAR(valueIn(b.form({{"mass", "2 kg"}, {"from", "600"}, {"to", "210"}, {"free", "580"}})),
                7.256921, 1e-6);
    EXPECT_NE(refusal(b.form({{"mass", "2 kg"}, {"from", "600"}, {"to", "700"}})).find("cannot come out"),
              std::string::npos);
    EXPECT_FALSE(b.form({{"mass", "2 kg"}, {"from", "600"}, {"to", "210"}, {"free", "650"}}));
    EXPECT_FALSE(b.form({{"mass", "2 kg"}, {"from", "600"}, {"to", "210 m"}})) << "a thousand times too much";
    const auto stopped = b.form({{"mass", "2 kg"}, {"from", "600"}, {"to", "0"}});
    EXPECT_EQ(stopped->stands.standing, Standing::atLeast);
    EXPECT_EQ(stopped->stands.why, domain::Because::hammerStopped);
    for (double to = 0; to <= 0.6; to += 0.01) { // never more than there was
        const auto any = b.form({{"mass", "2 kg"}, {"from", "600"}, {"to", std::to_string(1000 * to)}});
        ASSERT_TRUE(any);
        EXPECT_LE(valueIn(any), 2 * 9.80665 * 0.6 + 1e-12);
        EXPECT_GE(valueIn(any), -1e-12);
    }
}

TEST(Entries, AHammerMayBeReadOffAsAngles) {
    // An arm of 800 mm let go at 90 degrees falls 800 mm; at 60 degrees it has risen 400 mm.
    Bench b("hammer");
    EXPECT_NEAR(valueIn(b.form({{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}, {"arm", "800 mm"}})),
                2 * 9.80665 * 0.4, 1e-9);
    EXPECT_FALSE(b.form({{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}})) << "an angle is no height";
    EXPECT_FALSE(b.form({{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}, {"arm", "0 mm"}}));
    const auto degrees = [](Dimension d) { return d == Dimension::angle ? &quantity::unit("°") : si(d); };
    const auto plain =
        enteredFrom(*methods::find("hammer"), {{"from", "90"}, {"to", "60"}, {"arm", "800"}}, degrees);
    ASSERT_TRUE(plain);
    EXPECT_EQ(plain->fields[0].text, "90 °") << "with the arm's length they are angles";
    EXPECT_EQ(plain->fields[2].text, "800 mm");
}

TEST(Entries, ADropTellsItsSpeed) {
    Bench b("drop");
    const auto r = b.form({{"height", "1.2 m"}, {"peak", "85 g0"}, {"hit", "2"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->number.metric->key, "peak_deceleration");
    EXPECT_NEAR(valueIn(r), 85 * 9.80665, 1e-9);
    ASSERT_EQ(r->notes.size(), 2U);
    EXPECT_EQ(r->notes[0], "It hit at 4.851 m/s.") << "√(2 · 9.80665 · 1.2)";
    EXPECT_FALSE(b.form({{"height", "0"}, {"peak", "85 g0"}}));
}

TEST(Entries, AttemptsAreCounted) {
    Bench b("attempts");
    const auto r = b.form({{"successes", "7"}, {"tries", "10"}});
    EXPECT_NEAR(valueIn(r), 0.7, 1e-12);
    EXPECT_EQ(r->notes,
              std::vector<std::string>{"From 7 of 10 tries it lies between 34.8 and 93.3 % (95 %)."});
    EXPECT_EQ(b.form({{"successes", "3"}, {"tries", "4"}})->notes.size(), 2U) << "and that so few say little";
    for (const auto& [k, n] : {std::pair{"11", "10"}, {"2.5", "10"}, {"0", "0"}, {"-1", "10"}})
        EXPECT_FALSE(b.form({{"successes", k}, {"tries", n}})) << k << " of " << n;
}

TEST(Entries, RatingsAreWholeOrHalfStepsWithWords) {
    Bench b("by-eye");
    b.data.study.plan.ratingWords = {{3.5, "wobbles"}};
    EXPECT_NEAR(valueIn(b.form({{"rating", "3.5"}})), 3.5, 1e-12);
    EXPECT_EQ(notesOf(b.data, b.pull), std::vector<std::string>{"wobbles"});
    for (const char* bad : {"3.2", "11", "-1", ""})
        EXPECT_FALSE(b.form({{"rating", bad}})) << bad;
}

TEST(Entries, HoldingLoads) {
    Bench b("holding");
    const auto r = b.form({{"moves", "1.8 kN"}, {"creeps", "1.5 kN"}, {"seconds", "30 s"}});
    ASSERT_TRUE(r);
    EXPECT_NEAR(valueIn(r), 1800, 1e-9);
    EXPECT_EQ(r->notes.size(), 2U);
    EXPECT_NEAR(b.value("creeping").value->value, 1500, 1e-9);
}

TEST(Entries, AnotherMethodLeavesWhatWasEnteredAlone) {
    Bench b("torque");
    ASSERT_TRUE(b.form({{"breakaway", "4 N·m"}}));
    b.data.study.plan.method = "sag";
    EXPECT_EQ(b.value("sag").whyNot, "it needs the height unloaded and loaded");
    EXPECT_EQ(b.value("breakaway").whyNot,
              "the method \"Sag under a dead weight\" tells no breakaway torque");
    b.data.study.plan.method = "torque";
    EXPECT_NEAR(b.value("breakaway").value->value, 4, 1e-12) << "nothing was lost";
    b.pull.outcome.entered.fields[0].text = "four";
    EXPECT_NE(b.value("breakaway").whyNot.find("Breakaway"), std::string::npos);
}

TEST(Ladder, LiesBetweenTheLastHeldAndTheFirstFailed) {
    Bench b("step-ladder");
    const auto r = b.ladder({{100, {}, true}, {150, {}, true}, {200, {}, false}});
    ASSERT_TRUE(r);
    EXPECT_EQ(r->stands.standing, Standing::between);
    EXPECT_EQ(r->stands.why, domain::Because::heldAndFailed);
    EXPECT_EQ(r->number.metric->key, "holding");
    EXPECT_EQ(valueIn(r), 150);
    EXPECT_EQ(upperIn(r), 200);
    EXPECT_EQ(r->notes.size(), 1U) << "a third is a coarse step";
    b.pull.standing = Standing::atLeast; // another part let go
    EXPECT_EQ(b.value("holding").value->bound, stats::Bound::above);
    EXPECT_EQ(b.value("holding").value->value, 150) << "what it failed at is none of the part asked for";
    b.pull.standing = Standing::aside;
    EXPECT_TRUE(b.value("holding").value->aside);
    EXPECT_TRUE(b.ladder({{100, {}, true}, {105, {}, false}})->notes.empty());
    EXPECT_EQ(b.ladder({{100, {}, true}})->stands.standing, Standing::atLeast);
    EXPECT_EQ(b.ladder({{100, {}, false}})->stands.standing, Standing::atMost);
}

TEST(Ladder, OnALeverMomentsAreCompared) {
    // Further out at the same weight, then more weight: 20, 30, 45 N·m.
    for (const char* method : {"lever-bend", "step-ladder"}) {
        Bench b(method);
        const auto r = b.ladder({{100, 0.2, true}, {100, 0.3, true}, {150, 0.3, false}});
        ASSERT_TRUE(r);
        EXPECT_EQ(r->number.metric->key, "moment");
        EXPECT_NEAR(valueIn(r), 30, 1e-12);
        EXPECT_NEAR(upperIn(r), 45, 1e-12);
        EXPECT_FALSE(b.ladder({{100, 0.2, true}, {100, {}, true}}));
    }
}

TEST(Ladder, WhatCannotBeIsRefused) {
    Bench b("step-ladder");
    EXPECT_FALSE(b.ladder({}));
    EXPECT_FALSE(b.ladder({{100, {}, false}, {150, {}, true}})) << "it held more than it failed at";
    EXPECT_FALSE(b.ladder({{0, {}, true}}));
}

TEST(Gauge, CreepRateAndRecovery) {
    // 0.5 mm more for every tenfold time: at 100 s 1 mm, at 1000 s 1.5 mm, at 10 000 s 2 mm.
    Bench b("creep");
    std::vector<GaugeReading> all{{0, 0.010}, {100, 0.011}, {1000, 0.0115}, {10000, 0.012}};
    EXPECT_NEAR(valueIn(b.gauge(all)), 0.002, 1e-12);
    EXPECT_NEAR(b.value("rate_per_decade").value->value, 0.0005, 1e-12);
    all.push_back({20000, 0.0105});
    EXPECT_NEAR(valueIn(b.gauge(all, 20000)), 0.002, 1e-12) << "the last one under load decides";
    EXPECT_NEAR(b.value("recovery").value->value, 0.75, 1e-12);
    EXPECT_FALSE(b.gauge({{0, 0.01}}));
    EXPECT_FALSE(b.gauge({{5, 0.01}, {5, 0.02}}));
    EXPECT_FALSE(b.gauge({{5, 0.01}, {4, 0.02}}));
}

/// Also those that are bounds of their own, such as the time to a limit that nobody saw being passed.
TEST(Metrics, WhatIsSetAsideCountsInNoNumber) {
    Bench b("creep");
    b.data.study.plan.inputs = {{"limit", "1.2 mm"}};
    ASSERT_TRUE(b.gauge({{0, 0.010}, {100, 0.0105}, {1000, 0.0115}, {10000, 0.012}}));
    const auto counted = b.value("time_to_limit").value;
    ASSERT_TRUE(counted);
    EXPECT_EQ(counted->bound, stats::Bound::between) << "between the readings";
    EXPECT_FALSE(counted->aside);
    b.pull.standing = Standing::aside;
    for (const auto& m : metricsOf("creep"))
        if (const auto v = valueOf(b.data, b.pull, nullptr, m).value) {
            EXPECT_TRUE(v->aside) << m->key;
            EXPECT_FALSE(v->exact()) << m->key;
        }
    EXPECT_TRUE(b.value("time_to_limit").value->aside);
}

TEST(Metrics, ATypedNumberIsWhereTheFormulasStart) {
    Bench b("three-point-bend");
    b.data.specimens[0].measured = {
        {"span", {}, {}, {0.2}}, {"Breadth", {}, {}, {0.02}}, {"depth", {}, {}, {0.01}}};
    b.data.study.goal.metric = *metricFromKey("bending_strength", "three-point-bend");
    EXPECT_EQ(typedMetric(b.data), metric("peak")) << "nobody reads a strength off a display";
    b.pull.typed = TypedValue{metric("peak"), 600, 0, "600 N"};
    EXPECT_NEAR(b.value("bending_strength").value->value, 3 * 600 * 0.2 / (2 * 0.02 * 1e-4), 1e-3);
    b.pull.standing = Standing::atLeast;
    EXPECT_EQ(b.value("bending_strength").value->bound, stats::Bound::above);
    EXPECT_EQ(b.value("peak").value->bound, stats::Bound::above);
    b.pull.standing = Standing::between;
    b.pull.typed->upper = 800;
    EXPECT_NEAR(b.value("bending_strength").value->upper, 3 * 800 * 0.2 / (2 * 0.02 * 1e-4), 1e-3);
    EXPECT_EQ(b.value("bending_strength").value->bound, stats::Bound::between);
    b.pull.typed->metric = metric("moment");
    EXPECT_EQ(b.value("bending_strength").whyNot, "only its moment at failure was recorded");
}

TEST(Metrics, ATorqueCurveRanksATorsionTest) {
    Bench b("torsion");
    b.data.specimens[0].measured = {{"Diameter", {}, {}, {0.008}}};
    b.pull.curve = 1;
    curve::Reading r;
    r.loadKind = Dimension::torque;
    r.travelKind = Dimension::angle;
    r.peak.load = 12;
    r.peak.travel = 3;
    const auto value = [&](const char* key) { return valueOf(b.data, b.pull, &r, metric(key)).value->value; };
    EXPECT_EQ(value("peak_torque"), 12);
    EXPECT_NEAR(value("shear_stress"), 16 * 12 / (M_PI * std::pow(0.008, 3)), 1e-3);
    EXPECT_EQ(value("greatest_angle"), 3);
    EXPECT_EQ(typedMetric(b.data), metric("peak_torque"));
}

/// Whatever somebody says of a curve, its peak is never exact but where it counts.
TEST(Metrics, AStandingIsNeverLost) {
    Bench b("axial-pull");
    b.pull.curve = 1;
    curve::Reading r;
    r.peak.load = 900;
    for (const auto standing :
         {Standing::counts, Standing::atLeast, Standing::atMost, Standing::between, Standing::aside}) {
        b.pull.standing = standing;
        const auto v = valueOf(b.data, b.pull, &r, metric("peak")).value;
        ASSERT_TRUE(v) << word(standing);
        EXPECT_EQ(v->bound, standing.bound) << word(standing);
        EXPECT_EQ(v->aside, standing == Standing::aside);
        EXPECT_EQ(v->value, 900) << word(standing);
    }
    for (const auto standing : {Standing::voided, Standing::notRead}) {
        b.pull.standing = standing;
        EXPECT_FALSE(valueOf(b.data, b.pull, &r, metric("peak")).value) << word(standing);
    }
    Bench sag("sag");
    ASSERT_TRUE(sag.form({{"weight", "5 kg"}, {"unloaded", "412"}, {"loaded", "400"}}));
    for (const auto standing :
         {Standing::counts, Standing::atLeast, Standing::atMost, Standing::between, Standing::aside}) {
        sag.pull.standing = standing;
        EXPECT_EQ(sag.value("sag").value->word(),
                  std::string(standing == Standing::aside ? "aside" : quantity::word(standing.bound)));
    }
}

TEST(Metrics, WhereAThingStartsToMoveIsItsFirstSlip) {
    Bench b("holding");
    curve::Reading r;
    r.peak.load = 900;
    EXPECT_FALSE(valueOf(b.data, b.pull, &r, metric("holding")).value) << "its peak is not put in the place";
    r.firstSlip = curve::Landmark{};
    r.firstSlip->load = 700;
    EXPECT_EQ(valueOf(b.data, b.pull, &r, metric("holding")).value->value, 700);
}

TEST(Outcomes, OffScaleFollowsFromTheCurveUnlessSomebodySaysOtherwise) {
    const StudyData d;
    Pull p;
    curve::Reading on, off;
    on.peak.load = off.peak.load = 500;
    off.offScale = true;
    EXPECT_EQ(standingOf(d, p, &on), Standing::counts);
    EXPECT_EQ(standingOf(d, p, &off), Standing::atLeast);
    EXPECT_EQ(standsAs(d, p, &off).why, domain::Because::toppedOut);
    EXPECT_EQ(valueOf({}, p, &off, metric("peak")).value->bound, stats::Bound::above);
    EXPECT_EQ(valueOf({}, p, &on, metric("peak")).value->bound, stats::Bound::exact)
        << "the limit was corrected";
    p.outcome.limit = Limit::toppedOut;
    EXPECT_EQ(standingOf(d, p, &on), Standing::atLeast) << "somebody said so";
    p.outcome.limit = Limit::broke;
    p.standing = Standing::aside;
    p.reason = "Mislabelled.";
    EXPECT_EQ(standingOf(d, p, &off), Standing::aside);
    EXPECT_EQ(standsAs(d, p, &off).text, "Mislabelled.");
    EXPECT_EQ(standingOf(d, p, nullptr), Standing::aside);
}

} // namespace
