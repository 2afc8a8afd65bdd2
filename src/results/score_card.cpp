#include <anvil/results/score_card.h>

#include <algorithm>
#include <numeric>

namespace anvil::results {
namespace {

using Values = std::vector<std::optional<double>>;

std::size_t placeOf(std::vector<std::string>& options, const std::string& name) {
    const auto at = std::find(options.begin(), options.end(), name);
    if (at != options.end()) return static_cast<std::size_t>(at - options.begin());
    options.push_back(name);
    return options.size() - 1;
}

const StudyData* studyOf(const StudyData& own, const Criterion& c, const CardSources& sources) {
    if (!c.study || c.study == own.study.id) return &own;
    return sources.study ? sources.study(c.study) : nullptr;
}

const Verdict* verdictOf(const StudyData& of, const Criterion& c, const CardSources& sources) {
    return sources.verdict ? sources.verdict(of.study.id, c.metric) : nullptr;
}

/// The condition a criterion is of: the one it names (which may be gone), else the first that has any value.
Id conditionOf(const StudyData& of, const Verdict& verdict, const Criterion& c) {
    if (c.condition) return of.condition(c.condition) ? c.condition : 0;
    for (const auto& condition : of.conditions)
        for (const auto i : verdict.inCondition(condition.id))
            if (verdict.groups[i].summary.typical) return condition.id;
    return of.conditions.empty() ? 0 : of.conditions.front().id;
}

/// What a group says for a score: the share inside a window, the middle of ratings, else the mean.
std::optional<double> valueOf(const Group& g, const Criterion& c) {
    if (c.sense == Sense::inside) return g.inside ? std::optional(g.inside->share()) : std::nullopt;
    if (c.metric->key == "rating") return g.summary.median;
    return g.summary.typical;
}

bool toldApart(const Verdict& verdict, Id condition) {
    return std::any_of(verdict.pairs.begin(), verdict.pairs.end(), [&](const PairResult& p) {
        const auto v = p.comparison.verdict;
        return !p.acrossConditions && verdict.groups[p.a].condition == condition &&
               (v == stats::PairVerdict::stronger || v == stats::PairVerdict::weaker);
    });
}

bool tested(const Verdict& verdict, Id condition) {
    return std::any_of(verdict.pairs.begin(), verdict.pairs.end(), [&](const PairResult& p) {
        return !p.acrossConditions && verdict.groups[p.a].condition == condition &&
               p.comparison.test != stats::PairTest::none;
    });
}

bool differ(const Values& values) {
    const std::optional<double>* first = nullptr;
    for (const auto& v : values) {
        if (!v) continue;
        if (first && *v != **first) return true;
        first = first ? first : &v;
    }
    return false;
}

/// The options that a criterion has something to say of, by name; puts them on the card.
void collectOptions(const StudyData& own, const ScoreCard& card, const CardSources& sources,
                    std::vector<std::string>& options) {
    for (const auto& o : own.options)
        placeOf(options, o.name);
    for (const auto& c : card.criteria) {
        if (c.judged == Judged::byEye)
            for (const auto& r : c.ratings)
                placeOf(options, r.option);
        else if (const auto* of = studyOf(own, c, sources); of && c.judged == Judged::byResults)
            for (const auto& o : of->options)
                placeOf(options, o.name);
    }
}

void takeResults(const StudyData& own, const CardSources& sources, std::vector<std::string>& options,
                 CriterionResult& r) {
    const auto& c = r.criterion;
    const auto* of = studyOf(own, c, sources);
    const auto* verdict = of ? verdictOf(*of, c, sources) : nullptr;
    if (!verdict) return;
    const Id condition = conditionOf(*of, *verdict, c);
    for (const auto i : verdict->inCondition(condition)) {
        const auto& g = verdict->groups[i];
        const auto at = placeOf(options, of->optionAt(g.option).name);
        r.values[at] = valueOf(g, c);
        r.atLeast[at] = g.summary.bound == stats::Bound::above;
    }
    if (of != &own) r.where = of->study.title;
    if (of->conditions.size() > 1 && condition)
        r.where += (r.where.empty() ? "" : ", ") + of->conditionAt(condition).name;
    r.separates = tested(*verdict, condition) && c.sense != Sense::inside ? toldApart(*verdict, condition)
                                                                          : differ(r.values);
}

void takeFacts(const StudyData& own, std::vector<std::string>& options, CriterionResult& r) {
    for (const auto& o : own.options) {
        const bool cost = r.criterion.judged == Judged::byCost;
        if (cost && o.unitCost && r.currency.empty()) r.currency = o.currency;
        // A price in another currency says nothing beside the others.
        if (cost && o.currency != r.currency) continue;
        r.values[placeOf(options, o.name)] = cost ? o.unitCost : o.weight;
    }
    r.separates = differ(r.values);
}

void takeRatings(std::vector<std::string>& options, CriterionResult& r) {
    for (const auto& rating : r.criterion.ratings)
        r.values[placeOf(options, rating.option)] = rating.rating;
    r.separates = differ(r.values);
}

Values marksOf(const CriterionResult& r) {
    const auto& c = r.criterion;
    if (c.anchors) return stats::marksBetween(r.values, c.anchors->first, c.anchors->second);
    return stats::marksOfBest(r.values, c.sense != Sense::less);
}

bool any(const Values& values) {
    return std::any_of(values.begin(), values.end(), [](const auto& v) { return v.has_value(); });
}

bool anyValue(const Results& table, Id option, Id condition, const Metric& metric) {
    const auto& attempts = table.attempts(option, condition);
    return std::any_of(attempts.begin(), attempts.end(),
                       [&](const Attempt& a) { return table.value(a, option, metric).value.has_value(); });
}

/// Metrics of a study that have values of two options in a condition, as criteria.
void offerResults(const StudyData& own, const StudyData& of, const CardSources& sources,
                  std::vector<Criterion>& out) {
    const auto* table = sources.table ? sources.table(of.study.id) : nullptr;
    if (!table) return;
    std::vector<Id> shared;
    for (const auto& o : of.options)
        if (&of == &own || std::any_of(own.options.begin(), own.options.end(),
                                       [&](const Option& mine) { return mine.name == o.name; }))
            shared.push_back(o.id);
    if (shared.size() < 2) return;
    for (const auto& m : metricsOf(of.study.plan.method))
        for (const auto& condition : of.conditions) {
            const auto with = std::count_if(shared.begin(), shared.end(), [&](Id option) {
                return anyValue(*table, option, condition.id, m);
            });
            if (with < 2) continue;
            Criterion c;
            c.name = m->title;
            c.study = of.study.id;
            c.metric = m;
            c.condition = condition.id;
            c.sense = goalFor(of.study.goal, m).sense;
            out.push_back(std::move(c));
        }
}

void offerFact(const StudyData& own, Judged judged, const char* name, std::vector<Criterion>& out) {
    const auto with = std::count_if(own.options.begin(), own.options.end(), [&](const Option& o) {
        return judged == Judged::byCost ? o.unitCost.has_value() : o.weight.has_value();
    });
    if (with < 2) return;
    Criterion c;
    c.name = name;
    c.judged = judged;
    c.sense = Sense::less;
    out.push_back(std::move(c));
}

bool sameAs(const StudyData& own, const Criterion& a, const Criterion& b) {
    const auto study = [&](const Criterion& c) { return c.study ? c.study : own.study.id; };
    const auto condition = [&](const Criterion& c) { // the first where none is named
        if (c.condition || study(c) != own.study.id || own.conditions.empty()) return c.condition;
        return own.conditions.front().id;
    };
    return a.judged == b.judged &&
           (a.judged != Judged::byResults ||
            (study(a) == study(b) && a.metric == b.metric && condition(a) == condition(b)));
}

} // namespace

std::vector<std::size_t> CardResult::order() const {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < scores.size(); ++i)
        if (scores[i].score) out.push_back(i);
    std::stable_sort(out.begin(), out.end(),
                     [&](std::size_t a, std::size_t b) { return *scores[a].score > *scores[b].score; });
    return out;
}

std::optional<CardResult> cardOf(const StudyData& own, const ScoreCard& card, const CardSources& sources) {
    if (card.criteria.empty()) return {};
    CardResult out;
    out.title = card.title.empty() ? own.study.title : card.title;
    collectOptions(own, card, sources, out.options);
    const auto n = out.options.size();
    out.marks.assign(n, Values(card.criteria.size()));
    std::vector<double> weights;
    weights.reserve(card.criteria.size());
    for (const auto& c : card.criteria)
        weights.push_back(std::max(0.0, c.weight));
    const double all = std::accumulate(weights.begin(), weights.end(), 0.0);
    for (std::size_t k = 0; k < card.criteria.size(); ++k) {
        CriterionResult r;
        r.criterion = card.criteria[k];
        r.share = all > 0 ? weights[k] / all : 0;
        r.values.resize(n);
        r.atLeast.resize(n);
        switch (r.criterion.judged) {
        case Judged::byResults:
            takeResults(own, sources, out.options, r);
            break;
        case Judged::byEye:
            takeRatings(out.options, r);
            break;
        case Judged::byCost:
        case Judged::byWeight:
            takeFacts(own, out.options, r);
            break;
        }
        const auto marks = marksOf(r);
        r.marked = any(marks) || !any(r.values);
        for (std::size_t i = 0; i < n; ++i)
            out.marks[i][k] = marks[i];
        out.criteria.push_back(std::move(r));
    }
    out.scores = stats::scores(out.marks, weights);
    out.turns = stats::turns(out.marks, weights);
    out.winner = stats::winner(out.scores);
    return out;
}

std::vector<Criterion> offeredCriteria(const StudyData& own, const std::vector<const StudyData*>& studies,
                                       const CardSources& sources) {
    std::vector<Criterion> out;
    offerResults(own, own, sources, out);
    offerFact(own, Judged::byCost, "Price", out);
    offerFact(own, Judged::byWeight, "Weight", out);
    for (const auto* of : studies)
        if (of && of->study.id != own.study.id) offerResults(own, *of, sources, out);
    std::erase_if(out, [&](const Criterion& c) {
        const auto& has = own.study.card.criteria;
        return std::any_of(has.begin(), has.end(), [&](const Criterion& h) { return sameAs(own, h, c); });
    });
    return out;
}

} // namespace anvil::results
