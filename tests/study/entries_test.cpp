// Results that are no curve: what follows from what was typed, by hand.
#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/study/entries.h>
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

Expected<Result> form(EntryKind kind, std::vector<FieldText> fields) { return resultOf(kind, fields, si); }

std::string refusal(const Expected<Result>& r) { return r ? "it was taken" : r.error().message; }

TEST(Entries, EveryMethodOffersAMetricAndEveryKindSurvivesItsKey) {
    for (const auto* m : methods::all()) {
        const auto metrics = metricsOf(m->key);
        ASSERT_FALSE(metrics.empty()) << m->key;
        for (const auto metric : metrics)
            EXPECT_EQ(metricFromKey(info(metric).key), metric);
    }
    for (int k = 0; k < 10; ++k)
        EXPECT_EQ(entryKindFromKey(key(static_cast<EntryKind>(k))), static_cast<EntryKind>(k));
    EXPECT_EQ(entryKindOf("no such method"), EntryKind::curve);
    EXPECT_FALSE(entryKindFromKey("jelly"));
}

TEST(Entries, SagIsADifferenceOfTwoHeights) {
    const auto r = form(EntryKind::sag, {{"unloaded", "412"}, {"loaded", "39.8 cm"}, {"after", "410"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->values[0].metric, Metric::sag);
    EXPECT_NEAR(r->values[0].value, 0.014, 1e-12);
    EXPECT_EQ(r->values[0].asTyped, "14.00 mm");
    ASSERT_EQ(r->notes.size(), 1U);
    EXPECT_EQ(r->notes[0], "2.000 mm of it stayed after unloading.");
    EXPECT_NE(refusal(form(EntryKind::sag, {{"unloaded", "398"}, {"loaded", "412"}})).find("swapped"),
              std::string::npos);
    EXPECT_NE(refusal(form(EntryKind::sag, {{"loaded", "412"}})).find("Height unloaded"), std::string::npos);
    EXPECT_FALSE(form(EntryKind::sag, {{"unloaded", "4 kN"}, {"loaded", "1 mm"}}));
}

TEST(Entries, TorquesKeepTheirDoubt) {
    const auto r = form(EntryKind::torque, {{"breakaway", ">9 N·m"}, {"running", "2.5 N·m"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->standing, Standing::atLeast);
    EXPECT_NEAR(r->values[0].value, 9, 1e-12);
    EXPECT_EQ(r->values[1].metric, Metric::running);
    EXPECT_NEAR(r->values[1].value, 2.5, 1e-12);
    const auto odd = form(EntryKind::torque, {{"breakaway", "2"}, {"running", "3"}});
    EXPECT_EQ(odd->notes.size(), 1U) << "more to keep it turning than to start it";
    const auto between = form(EntryKind::torque, {{"breakaway", "4…5 N·m"}});
    EXPECT_EQ(between->standing, Standing::between);
    EXPECT_NEAR(between->values[0].upper, 5, 1e-12);
}

TEST(Entries, WhatWasTypedIsKeptWithItsUnit) {
    const auto r = form(EntryKind::sag, {{"unloaded", "412"}, {"loaded", " 39,8 cm"}});
    EXPECT_EQ(r->fields, (std::vector<FieldText>{{"unloaded", "412 mm"}, {"loaded", "39.8 cm"}}));
    const auto words = form(EntryKind::rating, {{"rating", "3.5"}, {"why", "frayed, but whole"}});
    EXPECT_EQ(words->fields.back(), (FieldText{"why", "frayed, but whole"}));
}

TEST(Entries, AHammerNeverGainsEnergy) {
    // 2 kg from 600 to 210 mm, of which a free swing loses 20 mm: 2 · 9.80665 · (0.390 − 0.020) J.
    const auto r =
        form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "600"}, {"to", "210"}, {"free", "580"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_NEAR(r->values[0].value, 7.256921, 1e-6);
    EXPECT_NE(refusal(form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "600"}, {"to", "700"}}))
                  .find("cannot come out"),
              std::string::npos);
    EXPECT_FALSE(
        form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "600"}, {"to", "210"}, {"free", "650"}}));
    EXPECT_FALSE(form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "600"}, {"to", "210 m"}}))
        << "a thousand times too much";
    const auto stopped = form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "600"}, {"to", "0"}});
    EXPECT_EQ(stopped->standing, Standing::atLeast);
    for (double to = 0; to <= 0.6; to += 0.01) { // never more than there was
        const auto any =
            form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "600"}, {"to", std::to_string(1000 * to)}});
        ASSERT_TRUE(any);
        EXPECT_LE(any->values[0].value, 2 * 9.80665 * 0.6 + 1e-12);
        EXPECT_GE(any->values[0].value, -1e-12);
    }
}

TEST(Entries, AHammerMayBeReadOffAsAngles) {
    // An arm of 800 mm let go at 90 degrees falls 800 mm; at 60 degrees it has risen 400 mm.
    const auto r =
        form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}, {"arm", "800 mm"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_NEAR(r->values[0].value, 2 * 9.80665 * 0.4, 1e-9);
    EXPECT_FALSE(form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}}))
        << "an angle is no height";
    EXPECT_FALSE(
        form(EntryKind::hammer, {{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}, {"arm", "0 mm"}}));
}

TEST(Entries, ADropTellsItsSpeed) {
    const auto r = form(EntryKind::drop, {{"height", "1.2 m"}, {"peak", "85 g0"}, {"hit", "2"}});
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->values[0].metric, Metric::shock);
    EXPECT_NEAR(r->values[0].value, 85 * 9.80665, 1e-9);
    ASSERT_EQ(r->notes.size(), 2U);
    EXPECT_EQ(r->notes[0], "It hit at 4.851 m/s.") << "√(2 · 9.80665 · 1.2)";
    EXPECT_FALSE(form(EntryKind::drop, {{"height", "0"}, {"peak", "85 g0"}}));
}

TEST(Entries, AttemptsAreCounted) {
    const auto r = form(EntryKind::attempts, {{"successes", "7"}, {"tries", "10"}});
    EXPECT_NEAR(r->values[0].value, 0.7, 1e-12);
    EXPECT_EQ(r->values[0].asTyped, "7 of 10");
    EXPECT_TRUE(r->notes.empty());
    EXPECT_FALSE(form(EntryKind::attempts, {{"successes", "3"}, {"tries", "4"}})->notes.empty());
    for (const auto& [k, n] : {std::pair{"11", "10"}, {"2.5", "10"}, {"0", "0"}, {"-1", "10"}})
        EXPECT_FALSE(form(EntryKind::attempts, {{"successes", k}, {"tries", n}})) << k << " of " << n;
}

TEST(Entries, RatingsAreWholeOrHalfSteps) {
    EXPECT_NEAR(form(EntryKind::rating, {{"rating", "3.5"}})->values[0].value, 3.5, 1e-12);
    for (const char* bad : {"3.2", "11", "-1", ""})
        EXPECT_FALSE(form(EntryKind::rating, {{"rating", bad}})) << bad;
}

TEST(Entries, HoldingLoads) {
    const auto r = form(EntryKind::hold, {{"moves", "1.8 kN"}, {"creeps", "1.5 kN"}, {"seconds", "30 s"}});
    ASSERT_TRUE(r);
    EXPECT_NEAR(r->values[0].value, 1800, 1e-9);
    EXPECT_EQ(r->notes.size(), 2U);
}

TEST(Ladder, LiesBetweenTheLastHeldAndTheFirstFailed) {
    const auto r = resultOf(std::vector<LadderStep>{{100, {}, true}, {150, {}, true}, {200, {}, false}});
    ASSERT_TRUE(r);
    EXPECT_EQ(r->standing, Standing::between);
    EXPECT_EQ(r->values[0].metric, Metric::peak);
    EXPECT_EQ(r->values[0].value, 150);
    EXPECT_EQ(r->values[0].upper, 200);
    EXPECT_EQ(r->notes.size(), 1U) << "a third is a coarse step";
    EXPECT_TRUE(resultOf(std::vector<LadderStep>{{100, {}, true}, {105, {}, false}})->notes.empty());
    EXPECT_EQ(resultOf(std::vector<LadderStep>{{100, {}, true}})->standing, Standing::atLeast);
    EXPECT_EQ(resultOf(std::vector<LadderStep>{{100, {}, false}})->standing, Standing::atMost);
}

TEST(Ladder, OnALeverMomentsAreCompared) {
    // Further out at the same weight, then more weight: 20, 30, 45 N·m.
    const auto r = resultOf(std::vector<LadderStep>{{100, 0.2, true}, {100, 0.3, true}, {150, 0.3, false}});
    ASSERT_TRUE(r);
    EXPECT_EQ(r->values[0].metric, Metric::moment);
    EXPECT_NEAR(r->values[0].value, 30, 1e-12);
    EXPECT_NEAR(r->values[0].upper, 45, 1e-12);
    const auto next = nextStep({{100, 0.2, true}}, 100, 50, 0.2, 0.1);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->load, 150);
    EXPECT_NEAR(*next->distance, 0.3, 1e-12);
    EXPECT_EQ(nextStep({}, 100, 50, {}, 0)->load, 100);
    EXPECT_FALSE(nextStep({{100, {}, false}}, 100, 50, {}, 0)) << "it has failed";
}

TEST(Ladder, WhatCannotBeIsRefused) {
    EXPECT_FALSE(resultOf(std::vector<LadderStep>{}));
    EXPECT_FALSE(resultOf(std::vector<LadderStep>{{100, {}, false}, {150, {}, true}}))
        << "it held more than it failed at";
    EXPECT_FALSE(resultOf(std::vector<LadderStep>{{0, {}, true}}));
    EXPECT_FALSE(resultOf(std::vector<LadderStep>{{100, 0.2, true}, {100, {}, true}}));
}

TEST(Gauge, CreepRateAndRecovery) {
    // 0.5 mm more for every tenfold time: at 100 s 1 mm, at 1000 s 1.5 mm, at 10 000 s 2 mm.
    std::vector<GaugeReading> all{{0, 0.010}, {100, 0.011}, {1000, 0.0115}, {10000, 0.012}};
    auto r = resultOf(all);
    ASSERT_TRUE(r);
    EXPECT_NEAR(r->values[0].value, 0.002, 1e-12);
    EXPECT_NE(std::find(r->notes.begin(), r->notes.end(), "0.5000 mm for every tenfold time."),
              r->notes.end());
    all.push_back({20000, 0.0105});
    r = resultOf(all, 20000);
    EXPECT_NEAR(r->values[0].value, 0.002, 1e-12) << "the last one under load decides";
    EXPECT_NE(std::find(r->notes.begin(), r->notes.end(), "75 % of the creep has come back since unloading."),
              r->notes.end());
    EXPECT_FALSE(resultOf(std::vector<GaugeReading>{{0, 0.01}}));
    EXPECT_FALSE(resultOf(std::vector<GaugeReading>{{5, 0.01}, {5, 0.02}}));
    EXPECT_FALSE(resultOf(std::vector<GaugeReading>{{5, 0.01}, {4, 0.02}}));
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
        p.outcome.entered.kind = "gauge";
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

TEST(Metrics, TypedValuesOfSeveralMetricsAreFound) {
    Pull p;
    p.typed = TypedValue{Metric::breakaway, 4, 0, "4 N·m"};
    p.outcome.more = {{Metric::running, 1.5, 0, "1.5 N·m"}};
    p.standing = Standing::atLeast;
    EXPECT_EQ(valueOf(p, nullptr, Metric::breakaway).value->state, stats::State::above);
    EXPECT_EQ(valueOf(p, nullptr, Metric::running).value->value, 1.5);
    EXPECT_EQ(valueOf(p, nullptr, Metric::running).value->state, stats::State::exact) << "it was read itself";
    EXPECT_EQ(valueOf(p, nullptr, Metric::peak).whyNot, "only its breakaway torque was recorded");
}

TEST(Metrics, WhereAThingStartsToMoveIsItsFirstSlip) {
    curve::Reading r;
    r.peak.force = 900;
    EXPECT_FALSE(valueOf({}, &r, Metric::holding).value) << "its peak is not put in the place";
    r.firstSlip = curve::Landmark{};
    r.firstSlip->force = 700;
    EXPECT_EQ(valueOf({}, &r, Metric::holding).value->value, 700);
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
