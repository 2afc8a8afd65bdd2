#include <anvil/study/planning.h>
#include <anvil/study/timetable.h>

#include <algorithm>
#include <anvil/methods/piece_kind.h>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <numbers>
#include <set>

namespace anvil::study {
namespace {

using quantity::percent;

/// splitmix64 (Steele, Lea & Flood 2014): small, and the same everywhere.
std::uint64_t next(std::uint64_t& state) {
    state += 0x9e3779b97f4a7c15ULL;
    std::uint64_t z = state;
    z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
    z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
    return z ^ (z >> 31);
}

/// Fisher and Yates' shuffle with an unbiased draw.
template <class T> void shuffle(std::vector<T>& all, std::uint64_t& state) {
    for (std::size_t i = all.size(); i > 1; --i) {
        const std::uint64_t n = i, limit = (~std::uint64_t{0} / n) * n;
        std::uint64_t draw = next(state);
        while (draw >= limit)
            draw = next(state);
        std::swap(all[i - 1], all[static_cast<std::size_t>(draw % n)]);
    }
}

const Group* groupOf(const Verdict& v, Id option, Id condition) {
    for (const auto& g : v.groups)
        if (g.option == option && g.condition == condition) return &g;
    return nullptr;
}

double density(double z) { return std::exp(-0.5 * z * z) / std::sqrt(2 * std::numbers::pi); }
double above(double z) { return 0.5 * std::erfc(z / std::numbers::sqrt2); }

bool pulled(const StudyData& data, Id specimen) {
    return std::any_of(data.pulls.begin(), data.pulls.end(),
                       [&](const Pull& p) { return p.specimen == specimen; });
}

} // namespace

const PlannedSquare* Plan::square(Id option, Id condition) const {
    for (const auto& s : squares)
        if (s.option == option && s.condition == condition) return &s;
    return nullptr;
}

PlannedSquare& Plan::squareFor(Id option, Id condition) {
    for (auto& s : squares)
        if (s.option == option && s.condition == condition) return s;
    squares.push_back({option, condition, std::nullopt, false, {}, {}, {}, {}});
    return squares.back();
}

int Plan::replicatesOf(Id option, Id condition) const {
    const auto* s = square(option, condition);
    if (s && s->struck) return 0;
    return s && s->replicates ? *s->replicates : replicates;
}

const Acceptance* Plan::acceptance(const std::string& rule) const {
    for (const auto& a : accepted)
        if (a.rule == rule) return &a;
    return nullptr;
}

const char* word(Reach reach) {
    static constexpr const char* words[] = {"not known", "fine", "tight", "will top out",
                                            "too small for the cell"};
    return words[static_cast<int>(reach)];
}

namespace {
int toppedOutIn(const Group& g) {
    return static_cast<int>(
        std::count_if(g.values.begin(), g.values.end(), [](const GroupValue& v) { return v.toppedOut; }));
}
} // namespace

HeadRoom headRoom(const StudyData& data, const Verdict& verdict, Id option, Id condition) {
    HeadRoom h;
    const auto& plan = data.study.plan;
    const auto* g = groupOf(verdict, option, condition);
    const auto* planned = plan.square(option, condition);
    const auto* o = data.option(option);
    // What decides may be a sag or a torque: its values are no loads of the rig. A rating is always one.
    const bool loads = verdict.goal.metric->dimension == quantity::Dimension::force &&
                       data.study.goal.metric->dimension == quantity::Dimension::force;
    if (const int topped = loads && g ? toppedOutIn(*g) : 0) {
        for (const auto& v : g->values)
            h.upper = std::max(h.upper, v.value.value);
        h.expected = h.upper;
        h.from = fmt::format("its {} pulls so far", g->values.size());
        if (plan.rig.limit) h.limit = *plan.rig.limit;
        h.reach = Reach::topsOut;
        h.sentence =
            fmt::format("{} of {} topped out the rig: use a two-part line or a larger cell, engage less "
                        "of it, or take such results as \"at least\".",
                        topped, h.from);
        return h;
    }
    if (loads && g && g->summary.n >= 2 && g->summary.sd && g->summary.mean) {
        h.expected = *g->summary.mean;
        h.upper = stats::upperPrediction(h.expected, *g->summary.sd, static_cast<int>(g->summary.n));
        h.from = fmt::format("its {} pulls so far", g->summary.n);
    } else if (loads && planned && !planned->forecasts.empty()) {
        for (const auto& f : planned->forecasts) { // the boldest forecast decides
            const double upper = f.value * (1 + 1.645 * f.cv);
            if (upper <= h.upper) continue;
            h.expected = f.value;
            h.upper = upper;
            h.from = f.by.empty() ? "a forecast" : "the forecast of " + f.by;
        }
    } else if (o && o->rating) {
        h.expected = *o->rating;
        h.upper = *o->rating * (1 + 1.645 * defaultCv(o->kind));
        h.from = "its rating";
    } else if (!loads) {
        h.sentence =
            fmt::format("What decides, the {}, is no force, so it does not tell whether the rig will "
                        "reach: give a rating.",
                        data.study.goal.metric->noun);
        return h;
    } else {
        h.sentence =
            "Nothing is expected of it yet: give a forecast or a rating to see whether the rig will reach.";
        return h;
    }
    const auto& rig = plan.rig;
    if (rig.limit) h.limit = *rig.limit;
    if (rig.cell) h.limit = h.limit > 0 ? std::min(h.limit, *rig.cell * rig.ratio) : *rig.cell * rig.ratio;
    if (h.limit <= 0) {
        h.sentence = "The rig's limit is not known: give it to see whether the rig will reach.";
        return h;
    }
    const double share = h.upper / h.limit;
    if (share > 1) {
        h.reach = Reach::topsOut;
        h.sentence = fmt::format("By {}, a strong piece needs {} of what the rig can pull: use a two-part "
                                 "line or a larger cell, engage less of it, "
                                 "or accept that some results will be \"at least\".",
                                 h.from, percent(share));
    } else if (share > 0.8) {
        h.reach = Reach::tight;
        h.sentence = fmt::format("By {}, a strong piece uses {} of what the rig can pull: it is tight.",
                                 h.from, percent(share));
    } else if (rig.cell && h.expected < 0.05 * *rig.cell * rig.ratio) {
        h.reach = Reach::tooSmall;
        h.sentence = fmt::format(
            "By {}, a piece loads the cell to {} of its range: its resolution will show. Use a smaller cell.",
            h.from, percent(h.expected / (*rig.cell * rig.ratio)));
    } else {
        h.reach = Reach::fine;
        h.sentence =
            fmt::format("By {}, a strong piece uses {} of what the rig can pull.", h.from, percent(share));
    }
    return h;
}

HeadRoom travelRoom(const StudyData& data, const Readings& readings, Id option, Id condition) {
    HeadRoom h;
    const auto& plan = data.study.plan;
    std::vector<double> needed;
    for (const auto& p : data.pulls) {
        const auto* s = data.specimen(p.specimen);
        const auto r = readings.byPull.find(p.id);
        if (!s || s->option != option || s->condition != condition || r == readings.byPull.end() ||
            p.standing == Standing::voided || p.practice != plan.practice)
            continue;
        const auto& end = r->second.breakPoint ? *r->second.breakPoint : r->second.peak;
        if (end.displacement)
            needed.push_back(*end.displacement + std::max(0.0, r->second.slack.value_or(0)));
    }
    const auto* planned = plan.square(option, condition);
    if (needed.size() >= 2) {
        const auto n = static_cast<double>(needed.size());
        double mean = 0, squares = 0;
        for (const double x : needed)
            mean += x / n;
        for (const double x : needed)
            squares += (x - mean) * (x - mean);
        h.expected = mean;
        h.upper = stats::upperPrediction(mean, std::sqrt(squares / (n - 1)), static_cast<int>(needed.size()));
        h.from = fmt::format("its {} pulls so far", needed.size());
    } else if (planned) {
        for (const auto& f : planned->forecasts) {
            const double upper = f.travel.value_or(0) * (1 + 1.645 * f.cv);
            if (upper <= h.upper) continue;
            h.expected = *f.travel;
            h.upper = upper;
            h.from = f.by.empty() ? "a forecast" : "the forecast of " + f.by;
        }
    }
    if (h.upper <= 0 || !plan.rig.travel || !(*plan.rig.travel > 0)) return h;
    h.limit = *plan.rig.travel;
    const double share = h.upper / h.limit;
    h.reach = share > 1 ? Reach::topsOut : share > 0.8 ? Reach::tight : Reach::fine;
    h.sentence = share > 1 ? fmt::format("By {}, a stretchy piece needs {} of the rig's travel: take up the "
                                         "slack first, mount it shorter, or reset in mid-pull.",
                                         h.from, percent(share))
                           : fmt::format("By {}, a stretchy piece uses {} of the rig's travel{}", h.from,
                                         percent(share), share > 0.8 ? ": it is tight." : ".");
    return h;
}

Reach worse(Reach a, Reach b) {
    const auto weight = [](Reach r) {
        switch (r) {
        case Reach::topsOut:
            return 4;
        case Reach::tooSmall:
            return 3;
        case Reach::tight:
            return 2;
        case Reach::fine:
            return 1;
        default:
            return 0;
        }
    };
    return weight(b) > weight(a) ? b : a;
}

SquareRoom squareRoom(const StudyData& data, const Readings& readings, const Verdict& verdict, Id option,
                      Id condition) {
    SquareRoom r{headRoom(data, verdict, option, condition),
                 travelRoom(data, readings, option, condition),
                 {},
                 {},
                 {}};
    r.reach = worse(r.force.reach, r.travel.reach);
    r.sentence = r.force.sentence;
    if (data.study.plan.rig.travel && r.travel.reach != Reach::unknown) r.sentence += " " + r.travel.sentence;
    if (r.reach == Reach::unknown) return r;
    r.word = r.reach == r.force.reach    ? word(r.reach)
             : r.reach == Reach::topsOut ? "short of travel"
             : r.reach == Reach::tight   ? "tight in travel"
                                         : word(r.reach);
    return r;
}

std::vector<Weakest> weakestLink(std::span<const ChainPart> parts) {
    std::vector<Weakest> out;
    const auto sd = [](const ChainPart& p) { return p.strength * std::max(p.cv, 0.001); };
    for (const auto& part : parts) {
        Weakest w{part.name, 0, part.specimen};
        constexpr int steps = 4000; // Simpson's rule over ± 8 s
        const double h = 16.0 / steps;
        for (int i = 0; i <= steps; ++i) {
            const double z = -8 + i * h, x = part.strength + z * sd(part);
            double f = density(z);
            for (const auto& other : parts)
                if (&other != &part) f *= above((x - other.strength) / sd(other));
            w.probability += f * (i == 0 || i == steps ? 1 : i % 2 ? 4 : 2) * h / 3;
        }
        out.push_back(std::move(w));
    }
    return out;
}

std::string weakestSentence(std::span<const Weakest> parts) {
    const Weakest* specimen = nullptr;
    const Weakest* worst = nullptr;
    for (const auto& p : parts) {
        if (p.specimen)
            specimen = &p;
        else if (!worst || p.probability > worst->probability)
            worst = &p;
    }
    if (!specimen || !worst || specimen->probability >= 0.8) return {};
    return fmt::format("{} goes first in only {} of pulls; {} goes in {}. Use a stronger {}, or the day is "
                       "spent breaking it.",
                       specimen->name, percent(specimen->probability), worst->name,
                       percent(worst->probability), worst->name);
}

std::vector<Replication> schools(double cv, int planned) {
    static const std::map<int, const char*> words{
        {1, "a look: shows that it works and about how strong; says nothing about spread"},
        {2, "repeatability: shows whether two agree; too few to compare anything"},
        {3, "three and average: sees large differences only"},
        {5,
         "five and a floor: sees fair differences; mean − 3 s of five is a guess at a floor, not a promise"},
        {7, "seven, highest and lowest dropped: one odd pull no longer decides"},
        {10, "ten: small differences, and a floor worth quoting"}};
    std::vector<Replication> out;
    const auto add = [&](int n, const std::string& school) {
        out.push_back({n, stats::detectableDifference(n, cv), school});
    };
    for (const auto& [n, school] : words) {
        if (planned > 0 && !words.contains(planned) && planned < n && (out.empty() || out.back().n < planned))
            add(planned, "as planned");
        add(n, school);
    }
    if (planned > 10) add(planned, "as planned");
    return out;
}

double defaultCv(const std::string& kind) { return methods::pieceKind(kind).cv; }

std::optional<double> ownCv(const Verdict& verdict) {
    double sum = 0, weight = 0;
    int groups = 0;
    for (const auto& g : verdict.groups)
        if (g.summary.cv && g.summary.n >= 2) {
            const auto w = static_cast<double>(g.summary.n - 1);
            sum += w * *g.summary.cv * *g.summary.cv;
            weight += w;
            ++groups;
        }
    return groups >= 2 && weight > 0 ? std::optional(std::sqrt(sum / weight)) : std::nullopt;
}

PlanTotals totals(const StudyData& data) {
    PlanTotals t;
    double cost = 0;
    bool priced = !data.options.empty();
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            const int n = data.study.plan.replicatesOf(o.id, c.id);
            t.squares += n > 0;
            t.replicates += n;
            if (n > 0 && !o.unitCost) priced = false;
            cost += n * o.unitCost.value_or(0);
            if (!o.currency.empty()) t.currency = o.currency;
        }
    std::set<Id> done;
    for (const auto& p : data.pulls)
        done.insert(p.specimen);
    t.pulled = static_cast<int>(done.size());
    t.pulling = 60 * data.study.plan.minutesEach * t.replicates;
    if (const auto steps = timetable(data.study.plan.recipe, 0, {}, 0); steps && !steps->empty())
        t.preparation = static_cast<double>(finished(*steps, 0));
    if (priced && t.replicates > 0) t.cost = cost;
    return t;
}

std::vector<std::string> drawRunOrder(const StudyData& data, std::uint64_t seed, bool groupConditions) {
    // Pieces of each square that are still to be pulled, by replicate.
    struct Square {
        Id condition = 0;
        std::vector<std::pair<int, std::string>> pieces;
    };
    std::vector<Square> squares;
    std::size_t blocks = 0;
    for (const auto& c : data.conditions)
        for (const auto& o : data.options) {
            Square square{c.id, {}};
            for (const auto& s : data.specimens)
                if (s.option == o.id && s.condition == c.id && !pulled(data, s.id))
                    square.pieces.emplace_back(s.replicate, s.label);
            std::sort(square.pieces.begin(), square.pieces.end());
            blocks = std::max(blocks, square.pieces.size());
            if (!square.pieces.empty()) squares.push_back(std::move(square));
        }
    std::vector<std::string> order;
    std::uint64_t state = seed;
    for (std::size_t b = 0; b < blocks; ++b) {
        std::vector<const Square*> block;
        for (const auto& s : squares)
            if (b < s.pieces.size()) block.push_back(&s);
        shuffle(block, state);
        if (groupConditions) {
            std::vector<Id> conditions;
            for (const auto* s : block)
                if (std::find(conditions.begin(), conditions.end(), s->condition) == conditions.end())
                    conditions.push_back(s->condition);
            std::stable_sort(block.begin(), block.end(), [&](const Square* x, const Square* y) {
                return std::find(conditions.begin(), conditions.end(), x->condition) <
                       std::find(conditions.begin(), conditions.end(), y->condition);
            });
        }
        for (const auto* s : block)
            order.push_back(s->pieces[b].second);
    }
    return order;
}

std::vector<StockLine> stock(const StudyData& data) {
    std::vector<StockLine> out;
    for (const auto& o : data.options) {
        StockLine line{o.name, 0, 0, o.unitCost, std::nullopt, o.currency};
        for (const auto& c : data.conditions)
            line.needed += data.study.plan.replicatesOf(o.id, c.id);
        for (const auto& s : data.specimens)
            line.made += s.option == o.id;
        if (o.unitCost) line.cost = *o.unitCost * line.needed;
        if (line.needed > 0) out.push_back(std::move(line));
    }
    std::map<std::string, int> products;
    for (const auto& step : data.study.plan.recipe)
        if (!step.product.empty())
            products[step.product] += totals(data).replicates * std::max(1, step.repeat);
    for (const auto& [product, n] : products)
        out.push_back({product + " (doses)", n, 0, std::nullopt, std::nullopt, {}});
    return out;
}

std::vector<FollowUp> followUps(const StudyData& data, const Verdict& verdict) {
    std::vector<FollowUp> out;
    const auto name = [&](const Group& g) {
        return data.optionAt(g.option).name +
               (data.conditions.size() > 1 ? " in " + data.conditionAt(g.condition).name : std::string());
    };
    for (const auto& p : verdict.pairs) {
        if (!p.open) continue;
        const auto &a = verdict.groups[p.a], &b = verdict.groups[p.b];
        out.push_back({fmt::format("{} and {} are too close to call: {} more of each would settle it.",
                                   name(a), data.optionAt(b.option).name, *p.comparison.moreEach),
                       {{a.option, a.condition}, {b.option, b.condition}},
                       *p.comparison.moreEach});
    }
    for (const auto& g : verdict.groups) {
        int topped = 0, other = 0, ended = 0;
        for (const auto& v : g.values) {
            if (v.value.state != stats::State::above) continue;
            const auto* pull = data.pull(v.pull);
            const bool part = pull && !pull->outcome.part.empty();
            (v.toppedOut ? topped : part ? other : ended) += 1;
        }
        if (topped)
            out.push_back({fmt::format("{} of {} topped out the rig: pull them again with more reach.",
                                       topped, name(g)),
                           {{g.option, g.condition}},
                           topped});
        if (other)
            out.push_back(
                {fmt::format("In {} of {} another part broke: pull them again with that part stronger.",
                             other, name(g)),
                 {{g.option, g.condition}},
                 other});
        if (ended)
            out.push_back({fmt::format("{} of {} ended before anything broke: pull them again until it does.",
                                       ended, name(g)),
                           {{g.option, g.condition}},
                           ended});
    }
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            const auto* square = data.study.plan.square(o.id, c.id);
            const auto* g = groupOf(verdict, o.id, c.id);
            if ((square && square->struck) || (g && g->summary.n > 0) || data.pulls.empty()) continue;
            out.push_back({fmt::format("{} in {} has not been tested.", o.name, c.name),
                           {{o.id, c.id}},
                           std::max(3, data.study.plan.replicates)});
        }
    return out;
}

} // namespace anvil::study
