#include <anvil/plan/reach.h>

#include <algorithm>
#include <anvil/plan/replication.h>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

using quantity::percent;

const char* word(Reach reach) {
    static constexpr const char* words[] = {"not known", "fine", "tight", "will top out",
                                            "too small for the cell"};
    static_assert(std::size(words) == static_cast<std::size_t>(Reach::tooSmall) + 1);
    return words[static_cast<int>(reach)];
}

namespace {
int toppedOutIn(const Group& g) {
    return static_cast<int>(
        std::count_if(g.values.begin(), g.values.end(), [](const GroupValue& v) { return v.toppedOut; }));
}
} // namespace

namespace {

/// Of a square some of whose pulls topped out.
HeadRoom beyondReach(const StudyData& data, const Group& g, int topped) {
    HeadRoom h;
    for (const auto& v : g.values)
        h.upper = std::max(h.upper, v.value.value);
    h.expected = h.upper;
    h.from = fmt::format("its {} pulls so far", g.values.size());
    if (data.reach.limit) h.limit = *data.reach.limit;
    h.reach = Reach::topsOut;
    h.sentence = fmt::format("{} of {} topped out the rig: use a two-part line or a larger cell, engage less "
                             "of it, or take such results as \"at least\".",
                             topped, h.from);
    return h;
}

/// What a strong piece is expected to need; a sentence where nothing is.
HeadRoom expectedOf(const StudyData& data, const Group* g, bool loads, Id option, Id condition) {
    HeadRoom h;
    const auto& plan = data.study.plan;
    const auto* planned = plan.square(option, condition);
    const auto* o = data.option(option);
    // The spread of a fit to bounds is no sample's: it would promise too much head-room.
    if (loads && g && !g->summary.censored() && g->summary.n >= 2 && g->summary.sd && g->summary.typical) {
        h.expected = *g->summary.typical;
        // All that are still to come shall be reached, not one: 95 % for the greatest of them.
        const int planned_n =
            data.study.plan.replicatesOf(option, condition) - static_cast<int>(g->summary.n);
        h.upper = stats::upperPrediction(h.expected, *g->summary.sd, static_cast<int>(g->summary.n),
                                         std::max(1, planned_n));
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
    } else {
        h.sentence =
            "Nothing is expected of it yet: give a forecast or a rating to see whether the rig will reach.";
    }
    return h;
}

} // namespace

HeadRoom headRoom(const StudyData& data, const Verdict& verdict, Id option, Id condition) {
    const auto* g = verdict.group(option, condition);
    // What decides may be a sag or a torque: its values are no loads of the rig. A rating is always one.
    const bool loads = verdict.goal.metric->dimension == quantity::Dimension::force &&
                       data.study.goal.metric->dimension == quantity::Dimension::force;
    if (const int topped = loads && g ? toppedOutIn(*g) : 0) return beyondReach(data, *g, topped);
    auto h = expectedOf(data, g, loads, option, condition);
    if (!h.sentence.empty()) return h;
    const auto& rig = data.reach;
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
        if (end.travel) needed.push_back(*end.travel + std::max(0.0, r->second.slack.value_or(0)));
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
    if (h.upper <= 0 || !data.reach.travel || !(*data.reach.travel > 0)) return h;
    h.limit = *data.reach.travel;
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
        case Reach::unknown:
            break;
        }
        return 0;
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
    r.reach = worse(r.load.reach, r.travel.reach);
    r.sentence = r.load.sentence;
    if (data.reach.travel && r.travel.reach != Reach::unknown) r.sentence += " " + r.travel.sentence;
    if (r.reach == Reach::unknown) return r;
    r.word = r.reach == r.load.reach     ? word(r.reach)
             : r.reach == Reach::topsOut ? "short of travel"
             : r.reach == Reach::tight   ? "tight in travel"
                                         : word(r.reach);
    return r;
}

} // namespace anvil::plan
