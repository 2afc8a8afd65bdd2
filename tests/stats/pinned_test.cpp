// Every statistic of many random groups, as kept.
#include "pins.h"

#include <anvil/stats/censored_line.h>
#include <anvil/stats/compare.h>
#include <anvil/stats/counts.h>
#include <anvil/stats/density.h>
#include <anvil/stats/drawn_pair.h>
#include <anvil/stats/draws.h>
#include <anvil/stats/fieller.h>
#include <anvil/stats/fit.h>
#include <anvil/stats/floors.h>
#include <anvil/stats/kaplan_meier.h>
#include <anvil/stats/outliers.h>
#include <anvil/stats/pooled.h>
#include <anvil/stats/power.h>
#include <anvil/stats/rank_sum.h>
#include <anvil/stats/ranking.h>
#include <anvil/stats/score.h>
#include <anvil/stats/treatment.h>
#include <anvil/stats/trend.h>

namespace anvil::stats {
namespace {

using pins::num;
using pins::Pin;

std::string num(const std::optional<int>& n) { return n ? std::to_string(*n) : "-"; }

/// Of 2 to 9 values, some of them bounds where `bounds`.
std::vector<Value> group(Draws& random, double mean, double spread, bool bounds) {
    std::vector<Value> out;
    for (auto n = 2 + random.below(8); n > 0; --n) {
        Value v{mean * std::exp(spread * random.normal())};
        v.upper = v.value;
        if (bounds && random.below(4) == 0) v.bound = static_cast<Bound>(1 + random.below(3));
        if (v.bound == Bound::between) v.upper = v.value * 1.2;
        if (random.below(15) == 0) v = {v.value, Bound::exact, v.value, true};
        out.push_back(v);
    }
    return out;
}

std::vector<double> exactOf(const std::vector<Value>& all) {
    std::vector<double> out;
    for (const auto& v : all)
        if (v.exact()) out.push_back(v.value);
    return out;
}

void sayGroup(Pin& pin, const std::vector<Value>& values) {
    auto s = summarise(values);
    pin.say("n {} {} {} {} {} {} {} {} {} {} {} {} {} {} {}", s.n, s.above, s.below, s.between, s.aside,
            num(s.mean), word(s.basis), num(s.sd), num(s.cv), num(s.median), num(s.meanInterval),
            num(s.dropHighLowMean), num(s.meanMinus3Sd), num(s.typical), quantity::word(s.bound));
    tellDoubt(s, 12, 4);
    pin.say("doubt {} {}", num(s.typicalInterval), s.rounded());
    for (const auto family : {Family::normal, Family::lognormal, Family::weibull}) {
        const auto f = fit(family, values);
        if (f)
            pin.say("fit {} {} {} {} mean {} sd {} q {} aic {}", key(family), num(f->location), num(f->scale),
                    num(f->logLikelihood), num(f->mean()), num(f->sd()), num(f->quantile(0.9)),
                    num(f->aic()));
        const auto d = Density::of(family, values);
        if (d)
            pin.say("density {} {} {} {} {} {} {}", num(d->meanAtLeast(950)), num(d->nextAtLeast(950)),
                    num(d->meanExceeded(0.975)), num(d->meanExceeded(0.025)), num(d->scaleExceeded(0.5)),
                    num(d->floor(0.9, 0.95)), num(d->exceeded(-1, 0.9)));
        pin.line("floor " + num(floorOf(family, values, 0.95, 0.9)));
    }
    const auto floors = floorsOf(values);
    pin.say("floors {} {} {} {} {} {} {}", num(floors.lowest), num(floors.meanMinus3Sd),
            num(floors.normal90_95), num(floors.normal95_95), num(floors.normal99_95),
            num(floors.lognormal90_95), num(floors.weibull90_95));
    std::string steps;
    const auto survival = kaplanMeier(values);
    for (const auto& k : survival)
        steps += num(k.value) + ":" + num(k.share) + " ";
    pin.say("survival {} median {}", steps, num(medianOf(survival)));
    if (const auto odd = outliers(values))
        for (const auto& o : *odd)
            pin.say("odd {} {} {}", o.index, num(o.value), num(o.p));
}

void sayPair(Pin& pin, const Comparison& c) {
    pin.say("pair {} {} {} {} {} t {} {} p {} holm {} tost {} {} {} more {} pair {} family {} same {}",
            num(c.ratio), num(c.ratioInterval), num(c.difference), word(c.test), c.withinDoubt || c.equal,
            num(c.t), num(c.df), num(c.p), num(c.pHolm), num(c.tostP), word(c.verdict), c.blocks,
            num(c.moreEach), num(overPair(c)), num(overFamily(c)), num(ofSameness(c)));
}

TEST(Pinned, GroupsAndPairs) {
    Pin pin;
    Draws random(7);
    for (int set = 0; set < 26; ++set) {
        const double spread = 0.02 + 0.01 * set;
        std::vector<std::vector<Value>> groups;
        for (int k = 0; k < 3; ++k)
            groups.push_back(group(random, 1000 * (1 + 0.15 * k), spread, set % 2 == 1));
        pin.say("== {}", set);
        std::vector<Side> sides;
        std::vector<std::optional<LogGroup>> logs;
        for (const auto& g : groups) {
            sayGroup(pin, g);
            sides.emplace_back(summarise(g));
            if (set % 3 == 0)
                for (std::size_t i = 0; i < exactOf(g).size() && i < 3; ++i)
                    sides.back().blocked.emplace_back("b" + std::to_string(i), exactOf(g)[i]);
            logs.push_back(logGroup(exactOf(g)));
        }
        std::vector<Comparison> family{compare(sides[0], sides[1], 0.1), compare(sides[0], sides[2], 0.1),
                                       compare(sides[1], sides[2], 0.05)};
        const SidePair of[] = {{&sides[0], &sides[1]}, {&sides[0], &sides[2]}, {&sides[1], &sides[2]}};
        judge(family, of, 0.1);
        for (const auto& c : family) {
            sayPair(pin, c);
            pin.line("more for seen " + num(moreForSeen(c, sides[0].summary, sides[1].summary, 0.1)));
        }
        pin.line("fieller " + num(fiellerInterval(sides[0].summary, sides[1].summary)));
        pin.line("ranks " + num(mannWhitneyP(exactOf(groups[0]), exactOf(groups[2]))));
        if (const auto pooled = pooledSpread(logs)) {
            pin.say("pooled {} {}", num(pooled->variance), num(pooled->df));
            if (logs[0] && logs[1]) {
                pin.line(num(pooledP(*logs[0], *logs[1], *pooled)));
                std::vector<Comparison> one{comparePooled(*logs[0], *logs[1], *pooled, 0.1)};
                judge(one, std::span(of).first(1), 0.1);
                sayPair(pin, one[0]);
            }
            const TreatedPair pairs[] = {{logs[0], logs[1]}, {logs[1], logs[2]}};
            if (const auto t = treatmentOf(pairs))
                pin.say("treatment {} {} {} {} {} {}", num(t->ratio), num(t->ratioInterval), num(t->p),
                        num(t->interactionP), t->options, num(t->df));
        }
        std::vector<Contender> contenders;
        for (std::size_t k = 0; k < groups.size(); ++k)
            contenders.push_back({groups[k], streamOf(3, "option" + std::to_string(k), "dry")});
        if (const auto r = drawRanking(contenders, set % 4 != 0, 11, 2000)) {
            std::string text = word(r->spread);
            for (const auto& p : r->places)
                text +=
                    fmt::format(" {} {} {} {} {};", num(p.best), num(p.expected), p.from, p.to, p.atLeast);
            pin.line(text);
        }
        if (const auto means = drawLogMeans(contenders, 5, 400)) {
            sayPair(pin, compareDrawn({means->at(0), onlyBounds(groups[0])},
                                      {means->at(1), onlyBounds(groups[1])}, 0.1));
            pin.line(num(drawnInterval({means->at(0), Bound::exact}, {means->at(2), Bound::exact}, 0.1)));
        }
        std::vector<ModelRow> rows;
        std::vector<double> x, y;
        for (std::size_t k = 0; k < groups.size(); ++k)
            for (const auto& v : groups[k]) {
                rows.push_back({{1, static_cast<double>(k)}, v});
                if (v.exact()) x.push_back(static_cast<double>(k)), y.push_back(v.value);
            }
        if (const auto m = fitModel(rows))
            pin.say("model {} {} {} {} {} {}", pins::nums(m->coefficients), pins::nums(m->errors),
                    num(m->sigma), num(m->df), num(m->interval(1)), num(m->p(1)));
        if (const auto t = linearTrend(x, y))
            pin.say("trend {} {} {} {} {}", num(t->intercept), num(t->slope), num(t->slopeError), num(t->p),
                    num(medianSlope(x, y)));
    }
    pin.check("stats");
}

TEST(Pinned, CountsPowerAndScores) {
    Pin pin;
    for (const auto& [a, b] :
         {std::pair{Tally{7, 10}, Tally{3, 10}}, {{0, 5}, {5, 5}}, {{4, 4}, {9, 12}}, {{1, 30}, {6, 31}}}) {
        pin.say("{} {} {} {} {}", num(exactInterval(a)), num(exactInterval(b, 0.9)),
                num(asManySuccesses(a, 0.4)), num(asFewSuccesses(b, 0.6)), num(fisherExact(a, b)));
        pin.line(num(ratioInterval(a, b)));
        std::vector<Comparison> one{compareCounted(a, b)};
        sayPair(pin, one[0]);
    }
    const std::vector<double> low{1, 2, 2, 3, 5}, high{3, 4, 4, 6};
    sayPair(pin, compareGraded(low, high));
    for (const double cv : {0.03, 0.12, 0.3})
        for (const double d : {0.05, 0.1, 0.4}) {
            std::string text = fmt::format("{} {}: {} {}", cv, d, num(replicatesFor(cv, d)),
                                           num(replicatesForFloor(cv, 1 - d)));
            for (const int n : {2, 3, 5, 10})
                text +=
                    fmt::format(" {} {} {} {} {}", num(powerOf(n, cv, d)), num(detectableDifference(n, cv)),
                                num(toleranceFactor(n, 0.9, 0.95)), num(confidenceOfFloor(n, 2, 0.9)),
                                num(upperPrediction(1000, 1000 * cv, n, 3)));
            pin.line(text);
        }
    const std::vector<std::vector<std::optional<double>>> tables[] = {
        {{1.0, 0.5, 0.2}, {0.7, 1.0, {}}, {0.4, 0.6, 1.0}}, {{1.0, {}}, {{}, 1.0}}, {{0.9, 0.9}, {0.9, 0.9}}};
    for (const auto& marks : tables) {
        const std::vector<double> weights =
            marks[0].size() == 3 ? std::vector{3.0, 2.0, 1.0} : std::vector{1.0, 2.0};
        for (const auto& s : scores(marks, weights, 1, 4000))
            pin.say("score {} {} {} {} {}", num(s.score), num(s.tested), num(s.wins), num(s.worst),
                    num(s.best));
        const auto first = winner(scores(marks, weights, 1, 4000));
        pin.say("winner {}", first ? static_cast<int>(*first) : -1);
        for (const auto& t : turns(marks, weights))
            pin.say("turn {} {} {} {}", t.criterion, num(t.share), t.above, t.now);
    }
    for (const bool more : {true, false}) {
        std::string text;
        for (const auto& m : marksOfBest({3.0, {}, 5.0, 4.0}, more))
            text += num(m) + " ";
        for (const auto& m : marksBetween({3.0, {}, 5.0, 9.0}, more ? 2 : 8, more ? 8 : 2))
            text += num(m) + " ";
        pin.line(text);
    }
    Draws random(3);
    std::string drawn;
    for (int i = 0; i < 6; ++i)
        drawn += fmt::format(" {} {} {} {} {}", random.below(10), num(random.uniform()), num(random.normal()),
                             num(random.student(3)), num(random.chiSquared(i + 1)));
    pin.line(drawn);
    const std::vector<std::vector<PairVerdict>> verdicts = {
        {PairVerdict::same, PairVerdict::tooClose, PairVerdict::stronger},
        {PairVerdict::tooClose, PairVerdict::same, PairVerdict::tooClose},
        {PairVerdict::weaker, PairVerdict::tooClose, PairVerdict::same}};
    const auto letters = tieLetters(3, verdicts);
    for (std::size_t i = 0; i < letters.size(); ++i)
        pin.line(letters[i] + " " + sharedLetters(letters, i));
    pin.check("counts");
}

} // namespace
} // namespace anvil::stats
