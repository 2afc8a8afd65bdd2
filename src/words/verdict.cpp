#include <anvil/words/verdict.h>

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/results/needs.h>
#include <anvil/results/over_time.h>
#include <anvil/stats/power.h>
#include <anvil/words/size.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {
namespace {

using quantity::significant;
using stats::PairVerdict;
using namespace domain;
using namespace results;

std::string plural(std::size_t n, const char* one) {
    return fmt::format("{} {}{}", n, one, n == 1 ? "" : "s");
}

std::string nameOf(const StudyData& data, const Group& g) { return data.optionAt(g.option).name; }

/// The ranked groups of a condition, best first.
std::vector<std::size_t> rankedIn(const Verdict& v, Id condition) {
    std::vector<std::size_t> out;
    for (const auto i : v.inCondition(condition))
        if (v.groups[i].rank > 0) out.push_back(i);
    return out;
}

/// How the leader stands to all others of its condition.
struct Lead {
    std::vector<std::string> ties;    ///< too close to call against these
    std::vector<std::string> same;    ///< within the margin that matters of these
    bool untold = false, few = false; ///< some give only bounds; some have too few pulls
    const PairResult* toSecond = nullptr;
};

Lead leadOf(const StudyData& data, const Verdict& v, const std::vector<std::size_t>& ranked) {
    Lead lead;
    for (const auto& p : v.pairs) {
        if (p.acrossConditions || !v.hasBoth(p) || (p.a != ranked[0] && p.b != ranked[0])) continue;
        const std::size_t other = p.a == ranked[0] ? p.b : p.a;
        const auto verdict = p.comparison.verdict;
        if (verdict == PairVerdict::tooClose) lead.ties.push_back(nameOf(data, v.groups[other]));
        if (verdict == PairVerdict::same) lead.same.push_back(nameOf(data, v.groups[other]));
        lead.untold = lead.untold || verdict == PairVerdict::notYet;
        lead.few = lead.few || verdict == PairVerdict::notEnough;
        if (other == ranked[1]) lead.toSecond = &p;
    }
    return lead;
}

/// ": 38 % more than the second (95 % interval …)".
std::string byHowMuch(const StudyData& data, const Verdict& v, const std::vector<std::size_t>& ranked,
                      const PairResult* toSecond) {
    if (!toSecond || !toSecond->comparison.ratio) return {};
    return fmt::format(
        ", {}", sizeText(toSecond->comparison, toSecond->b == ranked[0], nameOf(data, v.groups[ranked[1]])));
}

/// Who lies inside the window how often; the two that do so most.
std::string windowHeadline(const StudyData& data, const Verdict& v, const Condition& condition,
                           const std::vector<std::size_t>& ranked) {
    const auto share = [&](const Group& g) {
        const auto of = plural(g.inside->of, "pull");
        return g.inside->unknown
                   ? fmt::format("{} to {} of {}", g.inside->inside, g.inside->inside + g.inside->unknown, of)
                   : fmt::format("{} of {}", g.inside->inside, of);
    };
    const auto& first = v.groups[ranked[0]];
    auto text = fmt::format("{}: {} lies inside the window most often: {}", condition.name,
                            nameOf(data, first), share(first));
    if (ranked.size() > 1) {
        const auto& second = v.groups[ranked[1]];
        if (second.rank == first.rank)
            text = fmt::format("{}: {} and {} lie inside the window equally often: {}", condition.name,
                               nameOf(data, first), nameOf(data, second), share(first));
        else
            text += fmt::format("; {} in {}", nameOf(data, second), share(second));
    }
    return text + ".";
}

/// " The chance that it is the best is 97 %." Nothing where no chance is known.
std::string chanceOf(const Verdict& v, std::size_t leader, const Sureness* sure) {
    const auto* place = sure ? sure->placeOf(v, leader) : nullptr;
    if (!place) return {};
    return fmt::format(" The chance that it is the best is {}{}.", place->atLeast ? "at least " : "",
                       chanceText(place->best));
}

/// "; 2 of its 5 pulls say only "at least"" of a leader.
std::string boundsOf(const Group& g) {
    const auto& s = g.summary;
    const auto n = s.above + s.below;
    if (n == 0) return {};
    const char* only = s.below == 0 ? "\"at least\"" : s.above == 0 ? "\"at most\"" : "a bound";
    if (n == s.n) return fmt::format("; its pulls say only {}", only);
    return fmt::format("; {} of its {} pulls say only {}", n, s.n, only);
}

/// What the bounds of a condition's pulls say: "at least", "at most", or both.
const char* onlySays(const Verdict& v, const std::vector<std::size_t>& ranked) {
    bool above = false, below = false;
    for (const auto i : ranked) {
        above = above || v.groups[i].summary.above > 0;
        below = below || v.groups[i].summary.below > 0;
    }
    return above && below ? "a bound" : below ? "\"at most\"" : "\"at least\"";
}

/// " B is likelier to be the best: 62 %." where that is not who leads.
std::string likeliest(const StudyData& data, const Verdict& v, const std::vector<std::size_t>& ranked,
                      const Sureness* sure) {
    const auto* leads = sure ? sure->placeOf(v, ranked[0]) : nullptr;
    if (!leads) return {};
    double best = leads->best + 0.01; // draws tell no less
    auto who = ranked[0];
    for (const auto i : ranked)
        if (const auto* place = sure->placeOf(v, i); place && place->best > best) best = place->best, who = i;
    if (who == ranked[0]) return {};
    return fmt::format(" {} is likelier to be the best: {}.", nameOf(data, v.groups[who]), chanceText(best));
}

std::string leaderHeadline(const StudyData& data, const Verdict& v, const Condition& condition,
                           const std::vector<std::size_t>& ranked, const Sureness* sure) {
    const auto& goal = v.goal;
    const auto noun = goal.metric->noun;
    const auto leader = nameOf(data, v.groups[ranked[0]]);
    std::vector<std::string> enough;
    for (const auto i : ranked)
        if (v.groups[i].enough) enough.push_back(nameOf(data, v.groups[i]));
    if (enough.size() > 1)
        return fmt::format("{}: {} are beyond what is enough by their {}, so they count as equally good.",
                           condition.name, listed(enough), noun);
    const auto lead = leadOf(data, v, ranked);
    const auto scale = goal.metric->scale;
    const auto basis = v.groups[ranked[0]].summary.typicalBasis;
    const bool median = basis == stats::TypicalBasis::fittedMedian || scale == methods::Scale::graded;
    const std::string most = std::string(goal.sense == Sense::less ? "lowest" : "highest") +
                             (median                              ? " median"
                              : scale == methods::Scale::measured ? " mean"
                                                                  : "");
    std::vector<std::string> level; // who shares the first place
    for (const auto i : ranked)
        if (v.groups[i].rank == v.groups[ranked[0]].rank) level.push_back(nameOf(data, v.groups[i]));
    if (level.size() > 1)
        return fmt::format("{}: {} have the same {} {}: nobody leads.", condition.name, listed(level), most,
                           noun);
    if (lead.few)
        return fmt::format("{}: {} has the {} {}, but some options have too few pulls to say more.{}",
                           condition.name, leader, most, noun, chanceOf(v, ranked[0], sure));
    if (lead.untold)
        return fmt::format(
            "{}: {} leads, but {} pulls say only {}, so how far ahead it is cannot be told yet.{}",
            condition.name, leader, v.groups[ranked[0]].summary.censored() ? "some of its" : "some other",
            onlySays(v, ranked), chanceOf(v, ranked[0], sure));
    if (!lead.ties.empty() || !lead.same.empty()) {
        std::string but;
        if (!lead.ties.empty()) but = "it is too close to call against " + listed(lead.ties);
        if (!lead.same.empty())
            but += fmt::format("{}counts as the same as {} within the {} that matter",
                               but.empty() ? "" : " and ", listed(lead.same), quantity::percent(goal.margin));
        return fmt::format("{}: {} has the {} {}, but {}.{}{}", condition.name, leader, most, noun, but,
                           chanceOf(v, ranked[0], sure), likeliest(data, v, ranked, sure));
    }
    const auto is = goal.sense == Sense::less ? fmt::format("has the lowest {}", noun)
                                              : fmt::format("is the strongest by {}", noun);
    const bool strength = goal.metric->dimension == quantity::Dimension::force ||
                          goal.metric->dimension == quantity::Dimension::torque;
    return fmt::format("{}: {} {}{}{}.{}", condition.name, leader,
                       strength || goal.sense == Sense::less ? is : fmt::format("has the highest {}", noun),
                       byHowMuch(data, v, ranked, lead.toSecond), boundsOf(v.groups[ranked[0]]),
                       chanceOf(v, ranked[0], sure));
}

/// Of whom it is sure that the need is not met; empty: nobody.
std::string shortOfNeed(const StudyData& data, const Verdict& v, Id condition) {
    std::vector<std::string> names;
    for (const auto& need : needsOf(v))
        if (v.groups[need.group].condition == condition && need.verdict == NeedVerdict::notMet)
            names.push_back(nameOf(data, v.groups[need.group]));
    if (names.empty()) return {};
    return fmt::format(" {} {} not meet the need.", listed(names), names.size() == 1 ? "does" : "do");
}

/// Who has no place, for its bounds would make it look better than it may be.
std::string notRanked(const StudyData& data, const Verdict& v, Id condition) {
    std::vector<std::string> names;
    for (const auto i : v.inCondition(condition))
        if (v.groups[i].summary.typical && !rankedFairly(v.goal, v.groups[i]))
            names.push_back(nameOf(data, v.groups[i]));
    if (names.empty()) return {};
    return fmt::format(" {} cannot be placed: {} pulls say only {}.", listed(names),
                       names.size() == 1 ? "its" : "their",
                       v.goal.sense == Sense::less ? "\"at least\"" : "\"at most\"");
}

/// Whose values crowd below the rig's limit: what a stronger piece would have shown is not among them.
std::string crowded(const StudyData& data, const Verdict& v, Id condition) {
    const auto& limit = data.reach.limit;
    if (!limit || v.goal.metric->key != "peak" || v.goal.sense != Sense::more) return {};
    std::vector<std::string> names;
    for (const auto i : v.inCondition(condition)) {
        const auto& s = v.groups[i].summary;
        if (s.censored() || !s.sd || !s.mean || s.n < 2 || !s.max) continue;
        const double beyond = stats::upperPrediction(*s.mean, *s.sd, static_cast<int>(s.n));
        if (beyond > *limit && *s.max > 0.9 * *limit) names.push_back(nameOf(data, v.groups[i]));
    }
    if (names.empty()) return {};
    return fmt::format(
        " The values of {} crowd below the rig's limit: their interval promises more than it holds.",
        listed(names));
}

/// How long gauges were watched, where that differs: creep compares over the same time only.
std::string watchedApart(const StudyData& data, const Verdict& v, Id condition) {
    const auto& key = v.goal.metric->key;
    if (key != "creep" && key != "recovery" && key != "permanent_set") return {};
    double shortest = 0, longest = 0;
    for (const auto& one : creepOf(data)) {
        if (one.condition != condition || one.moved.empty()) continue;
        double watched = 0;
        for (const auto& point : one.moved)
            if (!one.unloadedAfter || point.at < *one.unloadedAfter) watched = std::max(watched, point.at);
        shortest = shortest > 0 ? std::min(shortest, watched) : watched;
        longest = std::max(longest, watched);
    }
    if (!(longest > 1.1 * shortest)) return {};
    const auto said = [](double seconds) {
        return seconds < 120         ? quantity::withUnit(seconds, quantity::unit("s"), 3)
               : seconds < 2 * 3600  ? quantity::withUnit(seconds, quantity::unit("min"), 3)
               : seconds < 2 * 86400 ? quantity::withUnit(seconds, quantity::unit("h"), 3)
                                     : quantity::withUnit(seconds, quantity::unit("d"), 3);
    };
    return fmt::format(" Its pieces were watched for {} to {}: creep compares over the same time only.",
                       said(shortest), said(longest));
}

std::string guesses(const Verdict& v, const Condition& condition) {
    const auto n = v.guessesIn(condition.id);
    if (n == 0) return {};
    return fmt::format(" {} read beyond the end of the calibration table, which makes {}.",
                       n == 1 ? "One value was" : fmt::format("{} values were", n),
                       n == 1 ? "it a guess" : "them guesses");
}

/// What is not counted because its curve cannot be read, as a sentence; empty: nothing.
std::string unreadable(const StudyData& data, const Verdict& v, const Condition& condition) {
    std::vector<std::string> labels;
    for (const auto i : v.inCondition(condition.id))
        for (const auto& l : v.groups[i].leftOut)
            if (l.unreadable) labels.push_back(data.specimenAt(l.specimen).label);
    const auto n = labels.size();
    if (n == 0) return {};
    std::string all;
    for (const auto& l : labels)
        all += (all.empty() ? "" : ", ") + l;
    return fmt::format(" {} not counted, for {} curve{} cannot be read: see {}.",
                       n == 1 ? "One pull is" : plural(n, "pull") + " are", n == 1 ? "its" : "their",
                       n == 1 ? "" : "s", all);
}

std::string moreThan(const methods::Metric& metric) {
    return metric.more.empty() ? fmt::format("has a greater {} than", metric.noun) : std::string(metric.more);
}

std::string lessThan(const methods::Metric& metric) {
    return metric.less.empty() ? fmt::format("has a smaller {} than", metric.noun) : std::string(metric.less);
}

/// " Compared over the 6 blocks that hold both; 1 block that lacks one is left out."
std::string blocksText(const stats::Comparison& c) {
    if (c.brokenBlocks == 0) return {};
    return fmt::format(" Compared over the {} that hold both; {} that {} one is left out.",
                       plural(c.blocks, "block"), plural(c.brokenBlocks, "block"),
                       c.brokenBlocks == 1 ? "lacks" : "lack");
}

std::string tooClose(const std::string& who, const stats::Comparison& c, double margin,
                     std::optional<int> seen) {
    if (c.test == stats::PairTest::ranks || c.test == stats::PairTest::counts)
        return fmt::format("{} is too close to call: {} would show more.", who,
                           c.test == stats::PairTest::counts ? "more tries" : "more ratings");
    if (c.equal) return fmt::format("{}: their averages are equal.", who);
    if (c.withinDoubt)
        return fmt::format("{} is too close to call: the difference is within what the readings are sure of.",
                           who);
    if (!c.p) return fmt::format("{} is too close to call: no spread can be seen at this resolution.", who);
    std::string more;
    if (c.moreEach)
        more = *c.moreEach > 0
                   ? fmt::format(" {} of each would settle a difference of {} four times in five.",
                                 plural(static_cast<std::size_t>(*c.moreEach), "more pull"),
                                 quantity::percent(margin))
                   : fmt::format(" A difference of {} would have shown with so many pulls.",
                                 quantity::percent(margin));
    if (seen && c.ratio)
        more += fmt::format(" {} of each would settle the difference seen, {}, four times in five.",
                            plural(static_cast<std::size_t>(*seen), "more pull"),
                            quantity::percent(std::max(*c.ratio, 1 / *c.ratio) - 1));
    if (!c.ratio) return fmt::format("{} is too close to call.{}", who, more);
    return fmt::format("{} is too close to call: {}.{}", who, sizeText(c), more);
}

} // namespace

std::string headline(const StudyData& data, const Verdict& v, const Condition& condition,
                     const Sureness* sure) {
    const auto ranked = rankedIn(v, condition.id);
    const auto noun = v.goal.metric->noun;
    std::string text;
    if (v.goal.sense == Sense::inside && !v.goal.window)
        text = fmt::format("{}: a window is wanted, but its ends have not been said yet.", condition.name);
    else if (ranked.empty())
        text = fmt::format("{}: no pull has a {} yet.", condition.name, noun);
    else if (v.goal.sense == Sense::inside)
        text = windowHeadline(data, v, condition, ranked);
    else if (ranked.size() == 1)
        text = fmt::format("{}: only {} has a value for {}; there is nothing to compare it with yet.",
                           condition.name, nameOf(data, v.groups[ranked[0]]), noun);
    else
        text = leaderHeadline(data, v, condition, ranked, sure);
    return text + notRanked(data, v, condition.id) + shortOfNeed(data, v, condition.id) +
           crowded(data, v, condition.id) + watchedApart(data, v, condition.id) + guesses(v, condition) +
           unreadable(data, v, condition);
}

std::vector<std::string> headlines(const StudyData& data, const Verdict& v, const Sureness* sure) {
    std::vector<std::string> out;
    for (const auto& condition : data.conditions)
        if (!v.inCondition(condition.id).empty()) out.push_back(headline(data, v, condition, sure));
    return out;
}

std::string sentence(const std::string& a, const std::string& b, const std::string& where,
                     const stats::Comparison& c, const stats::Summary& left, const stats::Summary& right,
                     const Goal& goal) {
    const auto in = where.empty() ? std::string() : " in " + where;
    switch (c.verdict) {
    case PairVerdict::stronger:
    case PairVerdict::weaker: {
        const auto& metric = *goal.metric;
        return fmt::format("{} {} {}{}{}{}.", a,
                           c.verdict == PairVerdict::stronger ? moreThan(metric) : lessThan(metric), b, in,
                           c.ratio ? ": " + sizeText(c) : "",
                           c.test == stats::PairTest::digits ? ", to the last digit typed" : "") +
               blocksText(c);
    }
    case PairVerdict::same:
        return fmt::format("{} and {} are the same within {}{}: {}.", a, b, quantity::percent(goal.margin),
                           in, sizeText(c)) +
               blocksText(c);
    case PairVerdict::tooClose:
        return tooClose(fmt::format("{} against {}{}", a, b, in), c, goal.margin,
                        stats::moreForSeen(c, left, right, goal.margin)) +
               blocksText(c);
    case PairVerdict::notYet: {
        const auto side = [&](const std::string& name, const stats::Summary& s) {
            return fmt::format("{} of {} pulls of {}", s.above + s.below + s.between, s.n, name);
        };
        std::string who = left.censored() ? side(a, left) : "";
        if (right.censored()) who += (who.empty() ? "" : " and ") + side(b, right);
        return fmt::format("{} against {}{} cannot be told yet: {} give only a bound.", a, b, in, who);
    }
    case PairVerdict::notEnough:
        return fmt::format("{} against {}{}: not enough pulls ({} and {}; two of each is the least).", a, b,
                           in, left.n, right.n);
    }
    return {};
}

namespace {

/// "P against Q in Dry: 1.27 times, from one pull of each. …"
std::string sentence(const std::string& who, const SinglePulls& one, const stats::Summary& left,
                     const stats::Summary& right, const UsualSpread& usual) {
    const char* from =
        left.n == 1 && right.n == 1 ? "one pull of each says no more" : "one pull on a side says no more";
    auto text = fmt::format(
        "{}: {} times; {}. Two pieces of one kind differ as much with a chance of {}, at a spread "
        "of {} ({}).",
        who, significant(one.ratio, 3), from, chanceText(one.chance), quantity::percent(usual.cv),
        usual.df ? fmt::format("by {} pulls of your own earlier studies", usual.df)
                 : std::string("a usual guess"));
    if (one.each)
        text += fmt::format(" {} of each would settle a difference of {} four times in five.", *one.each,
                            quantity::percent(one.difference));
    return text;
}

} // namespace

std::string sentence(const StudyData& data, const Verdict& v, const PairResult& pair) {
    const auto &left = v.groups[pair.a], &right = v.groups[pair.b];
    const auto& c = pair.comparison;
    const auto where = data.conditionAt(left.condition).name;
    if (c.verdict == PairVerdict::notEnough)
        if (const auto one = singlePulls(v, pair))
            return sentence(pair.acrossConditions ? nameOf(data, left) + " " + where + " against " +
                                                        data.conditionAt(right.condition).name
                                                  : nameOf(data, left) + " against " + nameOf(data, right) +
                                                        (where.empty() ? "" : " in " + where),
                            *one, left.summary, right.summary, v.usual);
    if (pair.acrossConditions)
        return sentence(nameOf(data, left) + " " + where, data.conditionAt(right.condition).name, "", c,
                        left.summary, right.summary, v.goal);
    if (left.enough && right.enough)
        return fmt::format("{} and {} are both beyond what is enough in {}, so they count as equally good{}.",
                           nameOf(data, left), nameOf(data, right), where, c.ratio ? ": " + sizeText(c) : "");
    return sentence(nameOf(data, left), nameOf(data, right), where, c, left.summary, right.summary, v.goal);
}

std::vector<std::string> next(const StudyData& data, const Verdict& v) {
    std::vector<std::string> out;
    for (const auto& p : v.pairs) {
        const auto &a = v.groups[p.a], &b = v.groups[p.b];
        if (p.open)
            out.push_back(fmt::format("{} and {} in {}: {} of each.", nameOf(data, a), nameOf(data, b),
                                      data.conditionAt(a.condition).name,
                                      plural(static_cast<std::size_t>(*p.comparison.moreEach), "more pull")));
    }
    for (const auto& g : v.groups)
        if (g.summary.n > 0 && g.summary.n < 3)
            out.push_back(fmt::format("{} in {} has {}: three is the least for a comparison worth having.",
                                      nameOf(data, g), data.conditionAt(g.condition).name,
                                      plural(g.summary.n, "pull")));
    return out;
}

} // namespace anvil::words
