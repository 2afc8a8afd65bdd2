#include <anvil/results/verdict.h>
#include <anvil/words/pull.h>
#include <anvil/words/ranked.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::words;

namespace {

/// Two options in one condition, pulled by typed numbers (kN): 4, 5, 6 and 3 (at least).
domain::StudyData typed() {
    domain::StudyData data;
    data.conditions.push_back({});
    data.conditions.back().id = 11;
    data.conditions.back().name = "Dry";
    for (const int o : {1, 2}) {
        domain::Option option;
        option.id = o;
        option.name = o == 1 ? "Wedge" : "Clamp";
        data.options.push_back(option);
    }
    const auto add = [&](domain::Id option, double newtons, domain::Standing standing) {
        domain::Specimen s;
        s.id = 100 + static_cast<domain::Id>(data.specimens.size());
        s.option = option;
        s.condition = 11;
        s.label = "P" + std::to_string(s.id);
        data.specimens.push_back(s);
        domain::Pull p;
        p.id = 1000 + s.id;
        p.specimen = s.id;
        p.standing = standing;
        p.typed = domain::TypedValue{domain::metric("peak"), newtons, 0, std::to_string(newtons) + " N"};
        data.pulls.push_back(p);
    };
    for (const double n : {4000.0, 5000.0, 6000.0})
        add(1, n, domain::Standing::counts);
    add(2, 3000, domain::Standing::atLeast);
    return data;
}

TEST(Ranked, ARowForEachGroupFoundByItsKey) {
    auto data = typed();
    const auto verdict = results::evaluate(data, {}, data.study.goal);
    const auto t = rankedTable(data, verdict, quantity::unit("kN"));
    ASSERT_EQ(t.rows.size(), 2U);
    const auto cell = [&](std::size_t row, const char* key) { return t.rows[row].cells.at(t.at(key)); };
    EXPECT_EQ(cell(0, "option"), "Wedge");
    EXPECT_EQ(cell(0, "mean"), "about 4.932 kN") << "(4·5·6)^⅓: the other one is a bound, so all are medians";
    EXPECT_EQ(cell(0, "sd"), "1.000 kN");
    EXPECT_EQ(cell(0, "cv"), "20 %");
    EXPECT_EQ(cell(0, "lowest"), "4.000 kN");
    EXPECT_EQ(cell(0, "mean_minus_3sd"), "2.000 kN");
    EXPECT_EQ(cell(1, "mean_minus_3sd"), "none from so few");
    EXPECT_EQ(cell(1, "n"), "0 + 1 at least");
    EXPECT_EQ(cell(1, "mean"), "at least 3.000 kN");
    EXPECT_EQ(verdict.groups[static_cast<std::size_t>(t.rows[1].of)].option, 2);
    EXPECT_EQ(t.at("cost"), t.columns.size()) << "nobody knows a price";
    EXPECT_EQ(t.at("condition"), t.columns.size()) << "there is one only";
    data.options[0].unitCost = 1.5;
    data.options[0].currency = "EUR";
    const auto priced = rankedTable(data, verdict, quantity::unit("kN")).without({"mean", "no such column"});
    EXPECT_EQ(priced.rows[0].cells.at(priced.at("cost")), "1.50 EUR");
    EXPECT_EQ(priced.rows[1].cells.at(priced.at("cost")), "–");
    EXPECT_EQ(priced.columns.size(), t.columns.size());
    EXPECT_TRUE(rankedTable(data, verdict, quantity::unit("kN"), 12).rows.empty()) << "no such condition";
    for (const auto& row : priced.rows)
        EXPECT_EQ(row.cells.size(), priced.columns.size());
}

/// Every column of numbers says how they were made; a bound says that it is one.
TEST(Ranked, EveryNumberHasItsRule) {
    stats::Summary exact, bound;
    exact.basis = stats::MeanBasis::sample;
    bound.basis = stats::MeanBasis::bound;
    EXPECT_NE(ruleOf("mean", exact), ruleOf("mean", bound));
    std::set<std::string> rules;
    for (const char* key : {"mean", "interval", "sd", "cv", "lowest", "mean_minus_3sd", "drop_high_low"})
        rules.insert(ruleOf(key, exact));
    EXPECT_EQ(rules.size(), 7U);
}

TEST(PullWords, WhatWasReadFollowsWhatTheCurveMeasures) {
    const auto units = quantity::unitsFrom("kN", "mm");
    curve::Reading r;
    r.peak.load = 4200;
    r.peak.time = 2;
    r.peak.travel = 0.012;
    r.stiffness = curve::Stiffness{};
    r.stiffness->value = 5e5;
    r.stiffness->from = 500;
    r.stiffness->to = 2500;
    domain::Pull pull;
    auto t = readingTable({}, r, pull, units);
    EXPECT_EQ(t.columns[1].title, "Force");
    EXPECT_EQ(t.rows[0].cells,
              (std::vector<std::string>{"Peak", "4.200 kN", "12.00 mm", "greatest sample that is no spike"}));
    const auto has = [&](const char* what) {
        return std::any_of(t.rows.begin(), t.rows.end(),
                           [&](const Row& row) { return row.cells[0] == what; });
    };
    EXPECT_TRUE(has("Stiffness"));
    EXPECT_FALSE(has("Breakaway"));
    pull.standing = domain::Standing::atLeast;
    t = readingTable({}, r, pull, units);
    EXPECT_EQ(t.rows[0].cells[1], "at least 4.200 kN");
    r.loadKind = quantity::Dimension::torque;
    r.travelKind = quantity::Dimension::angle;
    r.peak.travel = 1;
    pull.standing = domain::Standing::counts;
    t = readingTable({}, r, pull, units);
    EXPECT_EQ(t.columns[1].title, "Torque");
    EXPECT_EQ(t.rows[0].cells,
              (std::vector<std::string>{"Peak", "4200 N·m", "57.30 °", "greatest sample that is no spike"}));
    EXPECT_TRUE(has("Breakaway"));
    EXPECT_FALSE(has("Stiffness")) << "a torque against an angle has none in N/mm";
}

TEST(PullWords, FactsSayWhereANumberComesFrom) {
    auto data = typed();
    auto& pull = data.pulls[0];
    pull.performedAt = "2026-05-04T10:14:00";
    pull.operatorName = "Ines";
    const auto units = quantity::unitsFrom("N", "mm");
    const auto facts = factsOf(data, pull, data.specimens[0], {}, units,
                               [](const domain::Pull&) { return std::string("pulled a day late"); });
    EXPECT_EQ(facts[0], "Typed: " + pull.typed->asTyped);
    EXPECT_NE(std::find(facts.begin(), facts.end(), "When: 2026-05-04 10:14"), facts.end());
    EXPECT_NE(std::find(facts.begin(), facts.end(), "⚠ pulled a day late"), facts.end());
    EXPECT_NE(std::find(facts.begin(), facts.end(), "By: Ines"), facts.end());
    EXPECT_EQ(metricText(data, data.pulls[3], data.specimens[3], {}, domain::metric("peak"), units),
              "at least 3000 N");
    EXPECT_EQ(metricText(data, pull, data.specimens[0], {}, domain::metric("stiffness"), units), "–");
}

} // namespace
