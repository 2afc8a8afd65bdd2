// Every sentence and table about many random studies, as kept.
#include "pins.h"
#include "rich_study.h"

#include <anvil/results/arrangement.h>
#include <anvil/results/corrections.h>
#include <anvil/results/earlier.h>
#include <anvil/results/forecasts.h>
#include <anvil/results/needs.h>
#include <anvil/results/one_group.h>
#include <anvil/results/parts.h>
#include <anvil/results/ratios.h>
#include <anvil/results/score_card.h>
#include <anvil/results/sureness.h>
#include <anvil/results/treatment.h>
#include <anvil/results/trends.h>
#include <anvil/results/use.h>
#include <anvil/results/why.h>
#include <anvil/results/worth.h>
#include <anvil/words/arrangement.h>
#include <anvil/words/corrections.h>
#include <anvil/words/earlier.h>
#include <anvil/words/effects.h>
#include <anvil/words/floors.h>
#include <anvil/words/needs.h>
#include <anvil/words/parts.h>
#include <anvil/words/pull.h>
#include <anvil/words/ranked.h>
#include <anvil/words/scales.h>
#include <anvil/words/score_card.h>
#include <anvil/words/side_by_side.h>
#include <anvil/words/size.h>
#include <anvil/words/sureness.h>
#include <anvil/words/use.h>
#include <anvil/words/values.h>
#include <anvil/words/verdict.h>
#include <anvil/words/why.h>

namespace anvil::words {
namespace {

using namespace results;
using pins::Pin;

/// All that is said of one study.
class Sayer {
public:
    Sayer(Pin& pin, const Maker& m, const char* force)
        : m_pin(pin), m_data(m.data), m_readings(m.readings), m_units(quantity::unitsFrom(force, "mm")),
          m_table(m.data, m.readings), m_verdict(evaluate(m_table, m.data.study.goal)),
          m_sure(surenessOf(m_table, m_verdict)), m_unit(m_units.of(quantity::Dimension::force)) {}

    void all() {
        m_pin.line("== " + m_data.study.title);
        ranked();
        pairs();
        groups();
        across();
        card();
        pulls();
    }

private:
    void table(const Table& t) {
        std::string head = "[" + std::string(t.key) + "]";
        for (const auto& c : t.columns)
            head += " | " + std::string(c.key) + (c.number ? "#" : "") + " " + c.title;
        m_pin.line(head);
        for (const auto& row : t.rows) {
            std::string text = std::to_string(row.of);
            for (const auto& cell : row.cells)
                text += " | " + cell;
            m_pin.line(text);
        }
    }
    void lines(const char* what, const std::vector<std::string>& all) {
        for (const auto& l : all)
            m_pin.line(std::string(what) + ": " + l);
    }
    void ranked() {
        lines("headline", headlines(m_data, m_verdict, &m_sure));
        lines("headline", headlines(m_data, m_verdict));
        table(rankedTable(m_data, m_verdict, m_unit));
        for (const auto& c : m_data.conditions) {
            if (m_verdict.inCondition(c.id).empty()) continue;
            m_pin.line("chances: " + chances(m_data, m_verdict, m_sure, c));
            table(rankedTable(m_data, m_verdict, m_unit, c.id));
        }
        for (const auto& g : m_verdict.groups)
            for (const char* column : {"mean", "lowest", "sd", "cv", "floor"})
                m_pin.line("rule: " + ruleOf(column, g.summary));
        lines("odd", words::sentences(m_data, m_verdict, m_sure.odd));
        lines("next", next(m_data, m_verdict));
        lines("limits", limitsOfResults(m_data, m_verdict));
        table(winnersByCondition(m_data, m_verdict, &m_sure));
        table(winnersByCondition(m_data, m_verdict, nullptr));
    }
    void pairs() {
        for (const auto& p : m_verdict.pairs) {
            m_pin.line("pair: " + words::sentence(m_data, m_verdict, p));
            if (!m_verdict.hasBoth(p)) continue;
            m_pin.say("size: {} / {} {}", sizeText(p.comparison), sizeText(p.comparison, true, "the other"),
                      signOf(p.comparison.verdict).says);
            const auto why = whyOf(m_table, m_verdict, p.a, p.b);
            if (!why) continue;
            lines("support", support(m_data, m_verdict, *why));
            for (const auto& d : why->differed)
                m_pin.line("differed: " + words::sentence(m_data, m_verdict, *why, d));
            m_pin.line("aside: " + asideSentence(m_data, m_verdict, *why));
            table(brokeTable(m_data, m_verdict, *why));
        }
    }
    void groups() {
        std::vector<OneGroup> analysed;
        for (const auto& g : m_verdict.groups) {
            analysed.push_back(analyse(g));
            m_pin.say("group: {}, {}, {}, {}", groupName(m_data, g), meanText(g.summary, m_unit),
                      intervalText(g.summary, m_unit), countText(g.summary));
            for (const auto& v : g.values)
                m_pin.line("value: " + valueText(v.value, m_unit, v.guess));
        }
        table(floorTable(m_data, m_verdict, analysed, m_unit));
        for (const auto& a : apartOf(m_verdict.groups))
            m_pin.line("apart: " + standingApart(m_data, m_verdict, a, m_unit));
        const auto needs = needsOf(m_verdict);
        table(needTable(m_data, m_verdict, needs, m_unit));
        for (const auto& n : needs)
            m_pin.line("need: " + words::sentence(m_data, m_verdict, n, m_unit));
        const auto parts = partsOf(m_data, m_verdict);
        table(partTable(m_data, m_verdict, parts, m_unit));
        lines("parts", words::sentences(m_data, m_verdict, std::span<const SquareParts>(parts)));
        const auto worth = worthOf(m_data, m_verdict);
        table(worthTable(m_data, m_verdict, worth, m_unit));
        lines("worth", words::sentences(m_data, m_verdict, std::span<const Worth>(worth)));
        const auto& use = m_data.study.telling.use;
        m_pin.line("use: " + ruleOfLimits(use, m_unit));
        table(limitTable(m_data, m_verdict, workingLimits(m_verdict, use), m_unit));
        table(forecastTable(m_data, m_verdict, forecastsOf(m_data, m_verdict), m_unit));
    }
    void across() {
        for (const auto& t : treatmentsOf(m_data, m_verdict)) {
            lines("treatment", words::sentences(m_data, m_verdict, t));
            table(treatmentTable(m_data, t));
            for (const auto& r : forestRows(m_data, t))
                m_pin.say("forest: {} {} {} {}", r.name, pins::num(r.ratio), pins::num(r.interval), r.pooled);
        }
        const auto trends = trendsOf(m_data, m_verdict);
        for (const auto& t : trends)
            m_pin.line("trend: " + words::sentence(m_data, m_verdict, t));
        table(trendTable(m_data, trends, m_unit));
        for (const auto base : ratioBases(m_data, m_verdict)) {
            m_pin.say("scale: {} / {}", scaleName(m_data, m_verdict, base),
                      scaleTitle(m_data, m_verdict, base, m_unit));
            for (const auto& r : ratiosOf(m_data, m_verdict, base))
                m_pin.line("rung: " + rungText(r, base, m_data, m_unit));
        }
        lines("baselines", words::sentences(m_data, m_verdict, baselinesOf(m_data, m_verdict)));
        const auto arranged = arrangedOf(m_data, m_verdict);
        lines("arranged", arrangementSentences(m_data, arranged));
        table(arrangementTable(m_data, arranged, m_unit));
        const auto stiff =
            evaluate(m_data, m_readings, goalFor(m_data.study.goal, domain::metric("stiffness")));
        const Verdict* both[] = {&m_verdict, &stiff};
        table(sideBySideTable(m_data, both, m_units));
        lines("beside", sideBySideSentences(m_data, both));
        const auto then = lastTimes(m_data, m_verdict, earlierOf("Last year", earlier(), m_verdict));
        table(earlierTable(m_data, m_verdict, then, m_unit));
    }
    /// The same study, of another intent.
    domain::StudyData earlier() const {
        auto before = m_data;
        before.study.title = "Before";
        before.study.intent = domain::Intent::asUsed;
        return before;
    }
    void card() {
        const CardSources sources{[this](Id) { return &m_data; }, [this](Id, Metric) { return &m_verdict; },
                                  [this](Id) { return &m_table; }};
        ScoreCard card;
        card.title = "What counts";
        card.criteria = offeredCriteria(m_data, {&m_data}, sources);
        for (const auto& c : card.criteria)
            m_pin.line("offered: " + offeredTitle(c, m_data, &m_data));
        const auto result = cardOf(m_data, card, sources);
        if (!result) return;
        m_pin.line("winner: " + winnerSentence(*result));
        lines("card", cardNotes(*result));
        table(cardTable(*result));
        table(cardValues(*result, m_units));
        for (const auto& c : result->criteria)
            m_pin.say("criterion: {} {}", criterionTitle(c), shareText(c.share));
    }
    void pulls() {
        const Metric metrics[] = {m_data.study.goal.metric, domain::metric("stiffness")};
        table(pullTable(m_data, m_readings, metrics, m_units, {}));
        for (const auto& p : m_data.pulls)
            lines("fact", factsOf(m_data, p, m_data.specimenAt(p.specimen), m_readings, m_units,
                                  [](const domain::Pull& q) { return "at " + q.performedAt; }));
        const auto told = afterAReport(m_data);
        for (const auto& c : correctionsOf(Results(told, m_readings), told.study.goal.metric))
            m_pin.line("correction: " + words::sentence(told, c, m_unit));
    }

    Pin& m_pin;
    const domain::StudyData& m_data;
    const Readings& m_readings;
    quantity::Units m_units;
    Results m_table;
    Verdict m_verdict;
    Sureness m_sure;
    const quantity::Unit& m_unit;
};

TEST(Pinned, WhatIsSaidOfRandomStudies) {
    Pin pin;
    for (std::uint64_t seed = 1; seed <= 7; ++seed) {
        auto m = richStudy(seed);
        m.data.count();
        Sayer(pin, m, seed % 3 == 0 ? "lbf" : seed % 3 == 1 ? "N" : "kN").all();
    }
    for (const auto& l : floorPromises())
        pin.line(l);
    for (const auto& l : limitCautions())
        pin.line(l);
    pin.check("words");
}

} // namespace
} // namespace anvil::words
