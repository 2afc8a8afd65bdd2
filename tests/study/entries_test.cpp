// Results that are no curve: what follows from what was typed, by hand.
#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/study/entries.h>
#include <anvil/study/evidence.h>
#include <anvil/study/outcomes.h>
#include <anvil/study/phases.h>
#include <anvil/study/rating.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::study;
using quantity::Dimension;

namespace {

const quantity::Unit& si(Dimension d) {
    return d == Dimension::length ? quantity::unit("mm") : quantity::siUnit(d);
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
    const auto r = b.form({{"unloaded", "412"}, {"loaded", "39.8 cm"}, {"after", "410"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->number.metric->key, "sag");
    EXPECT_NEAR(valueIn(r), 0.014, 1e-12);
    EXPECT_EQ(r->standing, Standing::counts);
    EXPECT_NEAR(b.value("permanent_set").value->value, 0.002, 1e-12);
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
    EXPECT_EQ(r->standing, Standing::atLeast);
    EXPECT_EQ(r->reason, "Read as at least that.");
    EXPECT_NEAR(valueIn(r), 9, 1e-12);
    b.pull.standing = r->standing;
    EXPECT_EQ(b.value("breakaway").value->state, stats::State::above);
    EXPECT_NEAR(b.value("running").value->value, 2.5, 1e-12);
    const auto odd = b.form({{"breakaway", "2"}, {"running", "3"}});
    EXPECT_EQ(odd->notes.size(), 1U) << "more to keep it turning than to start it";
    const auto between = b.form({{"breakaway", "4…5 N·m"}});
    EXPECT_EQ(between->standing, Standing::between);
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
    EXPECT_EQ(stopped->standing, Standing::atLeast);
    EXPECT_EQ(stopped->reason, "The hammer was stopped: it swallowed all there was.");
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
    const auto degrees = [](Dimension d) -> const quantity::Unit& {
        return d == Dimension::angle ? quantity::unit("°") : si(d);
    };
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
    EXPECT_TRUE(r->notes.empty());
    EXPECT_FALSE(b.form({{"successes", "3"}, {"tries", "4"}})->notes.empty());
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
    EXPECT_EQ(r->standing, Standing::between);
    EXPECT_EQ(r->reason, "Held the lower, failed at the upper.");
    EXPECT_EQ(r->number.metric->key, "holding");
    EXPECT_EQ(valueIn(r), 150);
    EXPECT_EQ(upperIn(r), 200);
    EXPECT_EQ(r->notes.size(), 1U) << "a third is a coarse step";
    b.pull.standing = Standing::atLeast; // another part let go
    EXPECT_EQ(b.value("holding").value->state, stats::State::above);
    EXPECT_EQ(b.value("holding").value->value, 150) << "what it failed at is none of the part asked for";
    b.pull.standing = Standing::aside;
    EXPECT_EQ(b.value("holding").value->state, stats::State::aside);
    EXPECT_TRUE(b.ladder({{100, {}, true}, {105, {}, false}})->notes.empty());
    EXPECT_EQ(b.ladder({{100, {}, true}})->standing, Standing::atLeast);
    EXPECT_EQ(b.ladder({{100, {}, false}})->standing, Standing::atMost);
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
    const auto next = nextStep({{100, 0.2, true}}, 100, 50, 0.2, 0.1);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->load, 150);
    EXPECT_NEAR(*next->distance, 0.3, 1e-12);
    EXPECT_EQ(nextStep({}, 100, 50, {}, 0)->load, 100);
    EXPECT_FALSE(nextStep({{100, {}, false}}, 100, 50, {}, 0)) << "it has failed";
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

TEST(Gauge, TheOnesDueComeFirst) {
    StudyData data;
    data.study.plan.method = "creep";
    data.study.plan.gaugeEvery = 3600;
    for (Id id = 1; id <= 4; ++id) {
        Specimen s;
        s.id = id;
        data.specimens.push_back(s);
    }
    const auto read = [&](Id specimen, std::vector<GaugeReading> gauge, std::optional<double> unloaded = {}) {
        Pull p;
        p.id = specimen + 100;
        p.specimen = specimen;
        p.outcome.entered.gauge = std::move(gauge);
        p.outcome.entered.unloadedFrom = unloaded;
        data.pulls.push_back(p);
    };
    read(1, {{0, 1}, {9000, 2}});
    read(2, {{0, 1}, {1000, 2}});
    read(3, {{0, 1}, {1000, 2}, {2000, 1}, {3000, 1}}, 2000);
    const auto all = gauges(data, 10000);
    ASSERT_EQ(all.size(), 3U) << "the third has been unloaded and looked at";
    EXPECT_EQ(all[0].specimen, 4);
    EXPECT_TRUE(all[0].due) << "never read";
    EXPECT_EQ(all[1].specimen, 2);
    EXPECT_TRUE(all[1].due);
    EXPECT_EQ(*all[1].dueAt, 4600);
    EXPECT_EQ(all[2].specimen, 1);
    EXPECT_FALSE(all[2].due);
    data.pulls[1].standing = Standing::voided;
    EXPECT_EQ(gauges(data, 10000).size(), 2U) << "a voided piece is not asked for again";
    data.study.plan.method = "axial-pull";
    EXPECT_TRUE(gauges(data, 10000).empty());
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
    EXPECT_EQ(b.value("bending_strength").value->state, stats::State::above);
    EXPECT_EQ(b.value("peak").value->state, stats::State::above);
    b.pull.standing = Standing::between;
    b.pull.typed->upper = 800;
    EXPECT_NEAR(b.value("bending_strength").value->upper, 3 * 800 * 0.2 / (2 * 0.02 * 1e-4), 1e-3);
    EXPECT_EQ(b.value("bending_strength").value->state, stats::State::between);
    b.pull.typed->metric = metric("moment");
    EXPECT_EQ(b.value("bending_strength").whyNot, "only its moment at failure was recorded");
}

TEST(Metrics, ATorqueCurveRanksATorsionTest) {
    Bench b("torsion");
    b.data.specimens[0].measured = {{"Diameter", {}, {}, {0.008}}};
    b.pull.curve = 1;
    curve::Reading r;
    r.load = Dimension::torque;
    r.travel = Dimension::angle;
    r.peak.force = 12;
    r.peak.displacement = 3;
    const auto value = [&](const char* key) { return valueOf(b.data, b.pull, &r, metric(key)).value->value; };
    EXPECT_EQ(value("peak_torque"), 12);
    EXPECT_NEAR(value("shear_stress"), 16 * 12 / (M_PI * std::pow(0.008, 3)), 1e-3);
    EXPECT_EQ(value("greatest_angle"), 3);
    EXPECT_EQ(typedMetric(b.data), metric("peak_torque"));
}

TEST(Metrics, WhereAThingStartsToMoveIsItsFirstSlip) {
    Bench b("holding");
    curve::Reading r;
    r.peak.force = 900;
    EXPECT_FALSE(valueOf(b.data, b.pull, &r, metric("holding")).value) << "its peak is not put in the place";
    r.firstSlip = curve::Landmark{};
    r.firstSlip->force = 700;
    EXPECT_EQ(valueOf(b.data, b.pull, &r, metric("holding")).value->value, 700);
}

TEST(Phases, AsTyped) {
    const auto all =
        phasesFrom("set: down, 400 N, 120 mm, held\nturned\npulled: straight up, 1.2 kN, came out, bent");
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
    const auto turned =
        phasesFrom("turned: >12 N·m, 90°, 2 kN, ~3 kN, 30 s, 5 mm/s, clockwise, 2 turns loose");
    ASSERT_TRUE(turned);
    using quantity::Dimension;
    const auto& r = turned->front().readings;
    ASSERT_EQ(r.size(), 6U);
    const Dimension measures[] = {Dimension::torque, Dimension::angle, Dimension::force,
                                  Dimension::force,  Dimension::time,  Dimension::speed};
    for (std::size_t i = 0; i < r.size(); ++i)
        EXPECT_EQ(r[i].unit->dimension, measures[i]) << i;
    EXPECT_EQ(r[0].doubt, quantity::Doubt::above) << "the doubt is kept";
    EXPECT_EQ(turned->front().direction, "clockwise");
    EXPECT_EQ(turned->front().outcome, "2 turns loose") << "words with a number in them stay words";
    EXPECT_NE(phasesText(*turned, unitOf).find("~3000 N"), std::string::npos) << phasesText(*turned, unitOf);
    EXPECT_FALSE(phasesFrom(": down"));
    EXPECT_TRUE(phasesFrom("")->empty());
}

TEST(Ratings, WhatTheStepsMean) {
    const auto words = ratingWordsFrom(" 5 = needs a hammer; 0 = falls out by hand ; 2,5 = wobbles");
    ASSERT_TRUE(words) << words.error().message;
    EXPECT_EQ(ratingWordsText(*words), "0 = falls out by hand; 2.5 = wobbles; 5 = needs a hammer");
    EXPECT_EQ(*ratingWordsFrom(ratingWordsText(*words)), *words);
    EXPECT_EQ(meaningOf(2.5, *words), "wobbles");
    EXPECT_EQ(meaningOf(3, *words), "between \"wobbles\" and \"needs a hammer\"");
    EXPECT_EQ(meaningOf(7, *words), "") << "beyond the last word nothing is said";
    EXPECT_EQ(meaningOf(7, {}), "");
    EXPECT_TRUE(ratingWordsFrom("")->empty());
    for (const char* bad : {"wobbles", "x = wobbles", "3 =", "11 = too far", "-1 = below",
                            "2.3 = no half step", "3 = a; 3 = b"})
        EXPECT_FALSE(ratingWordsFrom(bad)) << bad;
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
        EXPECT_EQ(p.reason.empty(), shown) << word(limit);
    }
}

} // namespace
