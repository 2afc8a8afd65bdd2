#include <anvil/study/verdict.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/study/joints.h>
#include <fmt/format.h>
#include <numeric>

namespace anvil::study {
namespace {

using quantity::significant;
using stats::PairVerdict;

std::string ratioText(const stats::Comparison& c) {
    if (!c.ratio) return {};
    std::string text = significant(*c.ratio, 3) + " times";
    if (c.ratioInterval)
        text += fmt::format(" (95 % interval {} to {})", significant(c.ratioInterval->first, 3),
                            significant(c.ratioInterval->second, 3));
    return text;
}

/// The group as a side of a pair: by the blocks of its pieces where each value has one.
stats::Side sideOf(const StudyData& data, const Group& g) {
    stats::Side side(g.summary);
    for (const auto& v : g.values) {
        if (v.value.state == stats::State::aside) continue;
        const auto* s = data.specimen(v.specimen);
        if (v.value.state != stats::State::exact || !s || s->block.empty()) return {g.summary};
        side.blocked.emplace_back(s->block, v.value.value);
    }
    return side;
}

std::string plural(std::size_t n, const char* one) {
    return fmt::format("{} {}{}", n, one, n == 1 ? "" : "s");
}

void rank(Verdict& v, const std::vector<std::size_t>& members) {
    // Pairs of this condition must be complete; members are already best first.
    std::vector<std::vector<PairVerdict>> table(
        members.size(), std::vector<PairVerdict>(members.size(), PairVerdict::notEnough));
    for (const auto& p : v.pairs) {
        if (p.acrossConditions) continue;
        const auto i = std::find(members.begin(), members.end(), p.a),
                   j = std::find(members.begin(), members.end(), p.b);
        if (i == members.end() || j == members.end()) continue;
        const auto x = static_cast<std::size_t>(i - members.begin()),
                   y = static_cast<std::size_t>(j - members.begin());
        table[std::min(x, y)][std::max(x, y)] = p.comparison.verdict; // letters ask only whether a side wins
    }
    const auto letters = stats::tieLetters(members.size(), table);
    int place = 0;
    for (std::size_t k = 0; k < members.size(); ++k) {
        auto& g = v.groups[members[k]];
        g.rank = g.summary.mean ? ++place : 0;
        g.letters = g.rank ? letters[k] : std::string();
    }
}

std::string headline(const StudyData& data, const Verdict& v, const Condition& condition) {
    const auto members = v.inCondition(condition.id);
    std::vector<std::size_t> ranked;
    std::copy_if(members.begin(), members.end(), std::back_inserter(ranked),
                 [&](auto i) { return v.groups[i].rank > 0; });
    const char* noun = info(v.metric).noun;
    if (ranked.empty()) return fmt::format("{}: no pull has a {} yet.", condition.name, noun);
    const auto& first = v.groups[ranked[0]];
    const auto name = [&](std::size_t i) { return data.optionAt(v.groups[i].option).name; };
    if (ranked.size() == 1)
        return fmt::format("{}: only {} has been pulled; there is nothing to compare it with yet.",
                           condition.name, name(ranked[0]));
    std::vector<std::string> ties;
    bool untold = false, few = false;
    const PairResult* toSecond = nullptr;
    for (const auto& p : v.pairs) {
        if (p.acrossConditions || (p.a != ranked[0] && p.b != ranked[0])) continue;
        const std::size_t other = p.a == ranked[0] ? p.b : p.a;
        const auto verdict = p.comparison.verdict;
        if (verdict == PairVerdict::tooClose || verdict == PairVerdict::same) ties.push_back(name(other));
        untold = untold || verdict == PairVerdict::notYet;
        few = few || verdict == PairVerdict::notEnough;
        if (other == ranked[1]) toSecond = &p;
    }
    const std::string leader = name(ranked[0]);
    if (few)
        return fmt::format("{}: {} has the highest mean {}, but some options have too few pulls to say more.",
                           condition.name, leader, noun);
    if (untold)
        return fmt::format(
            "{}: {} leads, but {} pulls say only \"at least\", so how far ahead it is cannot be told yet.",
            condition.name, leader, first.summary.censored() ? "some of its" : "some other");
    if (!ties.empty()) {
        std::string list;
        for (std::size_t i = 0; i < ties.size(); ++i)
            list += (i == 0 ? "" : i + 1 == ties.size() ? " and " : ", ") + ties[i];
        return fmt::format("{}: {} has the highest mean {}, but it is too close to call against {}.",
                           condition.name, leader, noun, list);
    }
    std::string by;
    if (toSecond && toSecond->comparison.ratio) {
        const auto& c = toSecond->comparison;
        const bool turned = toSecond->b == ranked[0];
        const double r = turned ? 1 / *c.ratio : *c.ratio;
        by = fmt::format(", {} times {}", significant(r, 3), name(ranked[1]));
        if (c.ratioInterval) {
            const auto [low, high] = *c.ratioInterval;
            by += fmt::format(" (95 % interval {} to {})", significant(turned ? 1 / high : low, 3),
                              significant(turned ? 1 / low : high, 3));
        }
    }
    return fmt::format("{}: {} is the strongest by {}{}.", condition.name, leader, noun, by);
}

} // namespace

std::string sentence(const std::string& a, const std::string& b, const std::string& where,
                     const stats::Comparison& c, const stats::Summary& left, const stats::Summary& right,
                     double margin) {
    const auto in = where.empty() ? std::string() : " in " + where;
    const auto p = c.pHolm ? (*c.pHolm < 0.001 ? std::string("p < 0.001") : "p = " + significant(*c.pHolm, 2))
                           : std::string();
    switch (c.verdict) {
    case PairVerdict::stronger:
    case PairVerdict::weaker: {
        const char* word = c.verdict == PairVerdict::stronger ? "stronger" : "weaker";
        return fmt::format("{} is {} than {}{}{} ({} after Holm).", a, word, b, in,
                           c.ratio ? ": " + ratioText(c) : "", p);
    }
    case PairVerdict::same:
        return fmt::format("{} and {} are the same within {}{}: {}.", a, b, quantity::percent(margin), in,
                           ratioText(c));
    case PairVerdict::tooClose: {
        if (!c.p)
            return fmt::format(
                "{} against {}{} is too close to call: no spread can be seen at this resolution.", a, b, in);
        std::string more;
        if (c.moreEach)
            more = *c.moreEach > 0 ? fmt::format(" {} of each would settle a difference of {}.",
                                                 plural(static_cast<std::size_t>(*c.moreEach), "more pull"),
                                                 quantity::percent(margin))
                                   : fmt::format(" A difference of {} would have shown with so many pulls.",
                                                 quantity::percent(margin));
        return fmt::format("{} against {}{} is too close to call: {}.{}", a, b, in,
                           c.ratio ? ratioText(c) : p, more);
    }
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

std::string sharedLetters(const Verdict& verdict, const Group& group) {
    std::vector<std::string> letters{group.letters};
    for (const auto& other : verdict.groups)
        if (other.condition == group.condition && other.option != group.option)
            letters.push_back(other.letters);
    return stats::sharedLetters(letters, 0);
}

std::vector<std::size_t> Verdict::inCondition(Id condition) const {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < groups.size(); ++i)
        if (groups[i].condition == condition) out.push_back(i);
    return out;
}

std::size_t Verdict::guessesIn(Id condition) const {
    std::size_t n = 0;
    for (const auto i : inCondition(condition))
        n += static_cast<std::size_t>(
            std::count_if(groups[i].values.begin(), groups[i].values.end(), [](const GroupValue& value) {
                return value.guess && value.value.state != stats::State::aside;
            }));
    return n;
}

bool Verdict::empty() const {
    return std::none_of(groups.begin(), groups.end(), [](const Group& g) { return g.summary.n > 0; });
}

/// What is not counted because its curve cannot be read, as a sentence; empty: nothing.
std::string unreadableIn(const StudyData& data, const Verdict& v, const Condition& condition) {
    std::string labels;
    std::size_t n = 0;
    for (const auto i : v.inCondition(condition.id))
        for (const auto& l : v.groups[i].leftOut) {
            if (!l.unreadable) continue;
            labels += (labels.empty() ? "" : ", ") + data.specimenAt(l.specimen).label;
            ++n;
        }
    if (n == 0) return {};
    return fmt::format(" {} not counted, for {} curve{} cannot be read: see {}.",
                       n == 1 ? "One pull is" : plural(n, "pull") + " are", n == 1 ? "its" : "their",
                       n == 1 ? "" : "s", labels);
}

Verdict evaluate(const StudyData& data, const Readings& readings, Metric metric, double margin) {
    Verdict v;
    v.metric = metric;
    v.margin = margin;
    for (const auto& condition : data.conditions) {
        std::vector<Group> groups;
        for (const auto& option : data.options) {
            Group g;
            g.option = option.id;
            g.condition = condition.id;
            std::vector<stats::Value> values;
            for (const auto& pull : data.pulls) {
                const auto* s = data.specimen(pull.specimen);
                if (!s || s->condition != condition.id) continue;
                if (s->option != option.id && otherEndOf(data, *s) != option.id) continue;
                const auto reading = readings.byPull.find(pull.id);
                auto got = valueAtEnd(data, pull, *s, option.id,
                                      reading == readings.byPull.end() ? nullptr : &reading->second, metric);
                if (pull.practice != data.study.plan.practice)
                    got = {std::nullopt, pull.practice ? "pulled for practice" : "not pulled for practice",
                           false};
                const auto bad = readings.unreadable.find(pull.id);
                if (!got.value) {
                    const bool damaged = bad != readings.unreadable.end();
                    g.leftOut.push_back({pull.id, s->id, damaged ? bad->second : got.whyNot, damaged});
                    continue;
                }
                if (got.value->state == stats::State::aside)
                    g.leftOut.push_back({pull.id, s->id, "set aside: " + pull.reason, false});
                g.values.push_back({pull.id, s->id, *got.value, got.guess});
                values.push_back(*got.value);
            }
            if (g.values.empty() && g.leftOut.empty()) continue;
            g.summary = stats::summarise(values);
            groups.push_back(std::move(g));
        }
        std::stable_sort(groups.begin(), groups.end(), [](const Group& a, const Group& b) {
            return a.summary.mean.has_value() != b.summary.mean.has_value() ? a.summary.mean.has_value()
                                                                            : a.summary.mean > b.summary.mean;
        });
        v.groups.insert(v.groups.end(), std::make_move_iterator(groups.begin()),
                        std::make_move_iterator(groups.end()));
    }
    const auto position = [&](Id option) {
        return std::find_if(data.options.begin(), data.options.end(),
                            [&](const Option& o) { return o.id == option; }) -
               data.options.begin();
    };
    const auto place = [&](Id condition) {
        return std::find_if(data.conditions.begin(), data.conditions.end(),
                            [&](const Condition& c) { return c.id == condition; }) -
               data.conditions.begin();
    };
    // A family is all pairs of options in one condition, or all pairs of conditions of one option, in board
    // order.
    const auto addFamily = [&](std::vector<std::size_t> members, bool across) {
        std::sort(members.begin(), members.end(), [&](auto i, auto j) {
            return across ? place(v.groups[i].condition) < place(v.groups[j].condition)
                          : position(v.groups[i].option) < position(v.groups[j].option);
        });
        std::vector<PairResult> family;
        std::vector<std::pair<stats::Side, stats::Side>> sides;
        for (std::size_t i = 0; i < members.size(); ++i)
            for (std::size_t j = i + 1; j < members.size(); ++j) {
                const auto &a = v.groups[members[i]], &b = v.groups[members[j]];
                if (a.summary.n == 0 || b.summary.n == 0) continue;
                family.push_back({members[i], members[j], across, {}, {}});
                sides.emplace_back(sideOf(data, a), sideOf(data, b));
            }
        std::vector<stats::Comparison> results(family.size());
        stats::decide(results, sides, margin);
        for (std::size_t k = 0; k < family.size(); ++k) {
            auto& p = family[k];
            p.comparison = results[k];
            const auto &a = v.groups[p.a], &b = v.groups[p.b];
            const auto optionA = data.optionAt(a.option).name;
            p.sentence =
                across ? sentence(optionA + " " + data.conditionAt(a.condition).name,
                                  data.conditionAt(b.condition).name, "", p.comparison, a.summary, b.summary,
                                  margin)
                       : sentence(optionA, data.optionAt(b.option).name, data.conditionAt(a.condition).name,
                                  p.comparison, a.summary, b.summary, margin);
            v.pairs.push_back(std::move(p));
        }
    };
    for (const auto& condition : data.conditions) {
        addFamily(v.inCondition(condition.id), false);
        rank(v, v.inCondition(condition.id));
    }
    for (const auto& option : data.options) {
        std::vector<std::size_t> members;
        for (std::size_t i = 0; i < v.groups.size(); ++i)
            if (v.groups[i].option == option.id) members.push_back(i);
        addFamily(std::move(members), true);
    }
    for (const auto& condition : data.conditions)
        if (!v.inCondition(condition.id).empty()) {
            v.headlines.push_back(headline(data, v, condition));
            if (const auto n = v.guessesIn(condition.id); n > 0)
                v.headlines.back() +=
                    fmt::format(" {} read beyond the end of the calibration table, which makes {}.",
                                n == 1 ? "One value was" : fmt::format("{} values were", n),
                                n == 1 ? "it a guess" : "them guesses");
            v.headlines.back() += unreadableIn(data, v, condition);
        }
    for (const auto& p : v.pairs) {
        if (p.acrossConditions) continue;
        const auto& c = p.comparison;
        const auto &a = v.groups[p.a], &b = v.groups[p.b];
        if (c.verdict == PairVerdict::tooClose && c.moreEach.value_or(0) > 0)
            v.next.push_back(fmt::format("{} and {} in {}: {} of each.", data.optionAt(a.option).name,
                                         data.optionAt(b.option).name, data.conditionAt(a.condition).name,
                                         plural(static_cast<std::size_t>(*c.moreEach), "more pull")));
    }
    for (const auto& g : v.groups)
        if (g.summary.n > 0 && g.summary.n < 3)
            v.next.push_back(fmt::format("{} in {} has {}: three is the least for a comparison worth having.",
                                         data.optionAt(g.option).name, data.conditionAt(g.condition).name,
                                         plural(g.summary.n, "pull")));
    return v;
}

} // namespace anvil::study
