// Every number that follows from many random studies, as kept.
#include "pins.h"
#include "rich_study.h"

#include <anvil/results/arrangement.h>
#include <anvil/results/corrections.h>
#include <anvil/results/earlier.h>
#include <anvil/results/forecasts.h>
#include <anvil/results/needs.h>
#include <anvil/results/one_group.h>
#include <anvil/results/parts.h>
#include <anvil/results/probability.h>
#include <anvil/results/ratios.h>
#include <anvil/results/score_card.h>
#include <anvil/results/second_tests.h>
#include <anvil/results/sureness.h>
#include <anvil/results/treatment.h>
#include <anvil/results/trends.h>
#include <anvil/results/use.h>
#include <anvil/results/why.h>
#include <anvil/results/worth.h>

namespace anvil::results {
namespace {

using pins::num;
using pins::nums;
using pins::Pin;

std::string bits(std::initializer_list<bool> all) {
    std::string out;
    for (const bool b : all)
        out += b ? '1' : '0';
    return out;
}
std::string num(const std::optional<bool>& b) { return b ? *b ? "yes" : "no" : "-"; }
std::string num(const std::optional<int>& n) { return n ? std::to_string(*n) : "-"; }

std::string valueOf(const stats::Value& v) {
    return std::string(v.word()) + " " + num(v.value) +
           (v.bound == stats::Bound::between ? " " + num(v.upper) : "");
}

std::string of(const stats::Comparison& c) {
    return fmt::format("ratio {} {} drawn {} {} family {} {} blocks {} {} {} diff {} test {} t {} df {} p {} "
                       "holm {} tost {} {} more {}",
                       num(c.ratio), num(c.ratioInterval), num(c.drawnFamily), num(c.drawnSame),
                       num(c.familyLevel), c.family, c.blocks, c.brokenBlocks,
                       bits({c.withinDoubt, c.equal, c.atLeast, c.atMost}), num(c.difference),
                       static_cast<int>(c.test), num(c.t), num(c.df), num(c.p), num(c.pHolm), num(c.tostP),
                       static_cast<int>(c.verdict), num(c.moreEach));
}

std::string of(const stats::Summary& s) {
    return fmt::format(
        "n {} {} {} {} {} mean {} {} sd {} cv {} median {} {} {} int {} drop {} low {} m3 {} typ {} {} "
        "{} {} doubt {} {}",
        s.n, s.above, s.below, s.between, s.aside, num(s.mean), static_cast<int>(s.basis), num(s.sd),
        num(s.cv), num(s.median), num(s.min), num(s.max), num(s.meanInterval), num(s.dropHighLowMean),
        num(s.lowest), num(s.meanMinus3Sd), num(s.typical), num(s.typicalInterval),
        static_cast<int>(s.typicalBasis), quantity::word(s.bound), num(s.doubt), num(s.resolution));
}

std::string of(const std::optional<stats::Fit>& f) {
    return f ? fmt::format("{} {} {} {}", static_cast<int>(f->family), num(f->location), num(f->scale),
                           num(f->logLikelihood))
             : "-";
}

class Teller {
public:
    Teller(Pin& pin, const Maker& m)
        : m_pin(pin), m_data(m.data), m_table(m.data, m.readings),
          m_verdict(evaluate(m_table, m.data.study.goal)), m_sure(surenessOf(m_table, m_verdict)) {}

    void all() {
        m_pin.line("== " + m_data.study.title);
        for (std::size_t i = 0; i < m_verdict.groups.size(); ++i)
            group(i);
        pairs();
        sureness();
        squares();
        across();
        scales();
        card();
        corrections();
    }

private:
    void group(std::size_t i) {
        const auto& g = m_verdict.groups[i];
        m_pin.say("group {} {} rank {} {} enough {} meets {} law {}: {}", g.option, g.condition, g.rank,
                  g.letters, g.enough, num(g.meetsNeed), static_cast<int>(stats::Family(floorLaw(m_verdict))),
                  of(g.summary));
        if (g.inside)
            m_pin.say("inside {} of {} unknown {}", g.inside->inside, g.inside->of, g.inside->unknown);
        std::string values;
        for (const auto& v : g.values)
            values += valueOf(v.value) + " " + bits({v.guess, v.toppedOut}) + " " + num(v.doubt) + "; ";
        m_pin.line(values);
        for (const auto& l : g.leftOut)
            m_pin.say("left out {} {} {}", l.pull, l.why, l.unreadable);
        const auto one = analyse(g);
        m_pin.say("fits {} / {} / {}; floors {} {} {} {} {} {} {}", of(one.fits[0]), of(one.fits[1]),
                  of(one.fits[2]), num(one.floors.lowest), num(one.floors.meanMinus3Sd),
                  num(one.floors.normal90_95), num(one.floors.normal95_95), num(one.floors.normal99_95),
                  num(one.floors.lognormal90_95), num(one.floors.weibull90_95));
        if (one.weibull) m_pin.say("weibull {} {}", num(one.weibull->shape), num(one.weibull->scale));
        if (const auto plot = probabilityPlot(g)) {
            std::string points;
            for (const auto& p : plot->points)
                points += num(p.value) + "@" + num(p.below) + " ";
            for (const auto& p : plot->bounds)
                points += ">" + num(p.value) + "@" + num(p.below) + " ";
            for (const auto& l : plot->lines)
                points +=
                    fmt::format("| {} {} {} {} ", static_cast<int>(l.family), l.best,
                                num(l.line.front().value), l.low.empty() ? "-" : num(l.low.back().value));
            m_pin.line("plot " + points);
        }
    }
    void pairs() {
        const auto second = secondTests(m_verdict);
        for (std::size_t i = 0; i < m_verdict.pairs.size(); ++i) {
            const auto& p = m_verdict.pairs[i];
            m_pin.say("pair {} {} {} {}", p.a, p.b, bits({p.acrossConditions, p.open}), of(p.comparison));
            m_pin.say("second {} {}", num(second[i].mannWhitneyP), num(second[i].pooledP));
            if (const auto s = singlePulls(m_verdict, p))
                m_pin.say("single {} {} {} {}", num(s->ratio), num(s->chance), num(s->difference),
                          num(s->each));
            if (const auto why = whyOf(m_table, m_verdict, p.a, p.b)) {
                std::string text;
                for (const auto& b : why->broke)
                    text += fmt::format("{} {} {}; ", b.part, b.a, b.b);
                for (const auto& d : why->differed)
                    text += fmt::format("{} {} {} {}; ", static_cast<int>(d.what), d.a, d.b, num(d.factor));
                m_pin.say("why {} {} {}{}", why->asideA, why->asideB, text,
                          why->withAside ? of(*why->withAside) : "");
            }
        }
        m_pin.say("usual {} {}", num(m_verdict.usual.cv), m_verdict.usual.df);
    }
    void sureness() {
        for (const auto& [condition, ranking] : m_sure.rankings) {
            std::string text;
            for (std::size_t i = 0; i < ranking.groups.size(); ++i) {
                const auto& p = ranking.places[i];
                text += fmt::format("{}: {} {} {} {} {}; ", ranking.groups[i], num(p.best), num(p.expected),
                                    p.from, p.to, p.atLeast);
            }
            m_pin.say("ranking {} {} {}", condition, stats::word(ranking.spread), text);
        }
        for (const auto& o : m_sure.odd) {
            std::string text;
            for (const auto& t : o.pairs)
                text += fmt::format("{} {}; ", t.pair, static_cast<int>(t.now));
            m_pin.say("odd {} {} {} {}", o.pull, o.condition, o.leader ? std::to_string(*o.leader) : "-",
                      text);
        }
    }
    void squares() {
        for (const auto& n : needsOf(m_verdict))
            m_pin.say("need {} {} {} {} {} {}", n.group, word(n.verdict), num(n.meanMeets), num(n.nextMeets),
                      num(n.floorMeets), n.allHeld);
        for (const auto& s : partsOf(m_data, m_verdict))
            for (const auto& p : s.parts)
                m_pin.say("part {} {} {} {} {} {}", s.group, s.pulls, p.part, p.failed, of(p.fit),
                          num(p.goesFirst));
        for (const auto& w : worthOf(m_data, m_verdict))
            m_pin.say("worth {} {} {} {} {} {} {} {}", w.group, num(w.cost), num(w.perCost), num(w.perWeight),
                      num(w.perCostInterval), num(w.perWeightInterval), num(w.floor),
                      bits({w.atLeast, w.unbeaten}));
        m_pin.say("has limits {}", hasWorkingLimits(m_verdict));
        for (const auto& l : workingLimits(m_verdict, m_data.study.telling.use))
            m_pin.say("limit {} {} {} {} {}", l.group, num(l.floor), num(l.limit), num(l.needed), l.why);
        for (const auto& f : forecastsOf(m_data, m_verdict))
            m_pin.say("forecast {} {} {} {} {} {}", f.group, f.forecast->by, num(f.ratio), f.atLeast,
                      num(f.inside), f.broke);
        for (const auto& a : apartOf(m_verdict.groups))
            m_pin.say("apart {} {} {}", a.group, a.value, num(a.p));
    }
    void across() {
        for (const auto& t : treatmentsOf(m_data, m_verdict)) {
            m_pin.say("treatment {} {}: {} {} p {} interaction {} {} {}", t.control, t.treated,
                      num(t.pooled.ratio), num(t.pooled.ratioInterval), num(t.pooled.p),
                      num(t.pooled.interactionP), t.pooled.options, num(t.pooled.df));
            for (const auto& o : t.options)
                m_pin.say("of {} {} {}", o.option, num(o.ratio), num(o.interval));
        }
        for (const auto& t : trendsOf(m_data, m_verdict))
            m_pin.say("trend {} {} {} {}: {} {} {} {} {} {} {} {}", t.option, t.points, num(t.from),
                      num(t.to), num(t.line.intercept), num(t.line.slope), num(t.line.slopeError),
                      num(t.line.p), num(t.slopeInterval), num(t.medianSlope), num(t.mean), word(t.verdict));
        for (const auto& a : arrangedOf(m_data, m_verdict))
            m_pin.say("arranged {} {} {} {} {}", a.said.option, a.condition, num(a.mean),
                      a.byRating ? num(a.byRating->share) + " " + num(a.byRating->interval) : "-",
                      (a.byMeasured ? num(a.byMeasured->share) + " " + num(a.byMeasured->interval) : "-") +
                          bits({a.turnsRound}));
        auto before = m_data;
        before.study.intent = domain::Intent::asUsed;
        for (auto& p : before.pulls)
            p.typed->value *= 1.05;
        const auto then = evaluate(before, {}, before.study.goal);
        for (const auto& t : lastTimes(m_data, m_verdict, earlierOf("Before", before, then)))
            m_pin.say("then {} {} {} {} {} {}: {}", t.group, t.then.n, num(t.then.mean), num(t.then.sd),
                      t.then.atLeast, bits({t.otherCondition, t.otherIntent, t.otherRig, t.otherBatch}),
                      t.comparison ? of(*t.comparison) : "-");
    }
    void scales() {
        for (const auto base : ratioBases(m_data, m_verdict))
            for (const auto& r : ratiosOf(m_data, m_verdict, base))
                m_pin.say("{} {} {} {} {}", key(base), r.group, num(r.ratio), num(r.interval),
                          bits({r.atLeast, r.atMost, r.itself}));
        for (const auto& b : baselinesOf(m_data, m_verdict)) {
            std::string still;
            for (const auto s : b.stillRated)
                still += " " + std::to_string(s);
            m_pin.say("baselines {} {} {} {} {}{}", b.condition, b.byRating, b.byUntreated, num(b.ofRating),
                      num(b.ofUntreated), still);
        }
    }
    void card() {
        const CardSources sources{[this](Id) { return &m_data; }, [this](Id, Metric) { return &m_verdict; },
                                  [this](Id) { return &m_table; }};
        ScoreCard card;
        card.title = "Card";
        card.criteria = offeredCriteria(m_data, {&m_data}, sources);
        for (std::size_t i = 0; i < card.criteria.size(); ++i)
            card.criteria[i].weight = static_cast<double>(i + 1);
        const auto result = cardOf(m_data, card, sources);
        if (!result) return;
        for (const auto& c : result->criteria) {
            std::string values;
            for (std::size_t i = 0; i < c.values.size(); ++i)
                values += num(c.values[i]) + (c.atLeast[i] ? "+ " : " ");
            m_pin.say("criterion {} {} {} {} {}", c.criterion.name, num(c.share), c.where, values,
                      bits({c.separates, c.marked}));
        }
        for (const auto& s : result->scores)
            m_pin.say("score {} {} {} {} {}", num(s.score), num(s.tested), num(s.wins), num(s.worst),
                      num(s.best));
        m_pin.say("winner {} turns {}", result->winner ? std::to_string(*result->winner) : "-",
                  result->turns.size());
    }
    void corrections() {
        const auto told = afterAReport(m_data);
        for (const auto& c : correctionsOf(Results(told, {}), told.study.goal.metric))
            m_pin.say("corrected {} {} -> {} {}", c.pull, c.was ? valueOf(*c.was) : "-",
                      c.now ? valueOf(*c.now) : "-", c.why);
    }

    Pin& m_pin;
    const StudyData& m_data;
    Results m_table;
    Verdict m_verdict;
    Sureness m_sure;
};

TEST(Pinned, WhatFollowsFromRandomStudies) {
    Pin pin;
    for (std::uint64_t seed = 1; seed <= 12; ++seed) {
        auto m = richStudy(seed);
        m.data.count();
        Teller(pin, m).all();
    }
    pin.check("results");
}

} // namespace
} // namespace anvil::results
