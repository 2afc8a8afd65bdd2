// What a study is after, and its score card.
#include "file_words.h"
#include "read_package.h"

#include <algorithm>
#include <anvil/methods/phase_metric.h>
#include <anvil/store/texts.h>
#include <fmt/format.h>

namespace anvil::exchange {
namespace {

template <class T> std::string titles(const std::vector<T>& all) {
    std::string out;
    for (const auto& x : all)
        out += (out.empty() ? "" : ", ") + x.name;
    return out;
}

} // namespace

void PackageReader::goal(const Row& row, domain::StudyData& data) {
    auto& s = data.study;
    if (row.has("plan")) {
        auto stored = store::planFromJson(QString::fromStdString(row.text("plan")));
        if (!stored) return row.wrong("plan", stored.error().message);
        s.plan = std::move(stored->plan);
        s.goal = std::move(stored->goal);
        s.card = std::move(stored->card);
        s.telling = std::move(stored->telling);
    }
    s.question = row.text("question");
    s.note = row.text("note");
    auto& p = s.plan;
    auto& g = s.goal;
    p.method = row.text("method");
    metric(row, s);
    wanted(row, g);
    const auto dimension = g.metric->dimension;
    g.need = row.quantity("need", dimension);
    g.ceiling = row.quantity("ceiling", dimension);
    if (const auto margin = row.percent("margin")) g.margin = *margin;
    g.part = row.text("part");
    if (row.has("control")) g.control = option(row, data, "control");
    if (row.has("intent")) {
        const auto intent = intentFrom(row.text("intent"));
        if (!intent)
            return row.wrong("intent", fmt::format("\"{}\" is none of controlled, exploratory and as used",
                                                   row.text("intent")));
        s.intent = *intent;
    }
    p.axis = row.text("axis");
    p.axisUnit = row.text("axis_unit");
    p.replicates = row.whole("replicates").value_or(0);
    if (const auto limit = row.quantity("rig_limit", quantity::Dimension::force)) {
        if (!(*limit > 0)) return row.wrong("rig_limit", "it must be more than zero");
        rig::Setup told;
        told.name = "Rig of " + s.title;
        told.rigLimit = limit;
        p.rig = told.name;
        m_out.told[s.id] = std::move(told);
    }
}

void PackageReader::metric(const Row& row, domain::Study& s) {
    const auto& key = s.plan.method;
    const auto* method = methods::find(key);
    if (!key.empty() && !method) return row.wrong("method", fmt::format("there is no method \"{}\"", key));
    s.goal.metric = domain::metricsOf(key).front();
    if (!row.has("metric")) return;
    const auto metric = domain::metricFromKey(row.text("metric"), key);
    const bool ofMethod =
        !method || method->metric(row.text("metric")) || methods::phaseMetricOf(row.text("metric"));
    if (metric && ofMethod) {
        s.goal.metric = *metric;
        return;
    }
    std::string has;
    for (const auto& m : domain::metricsOf(key))
        has += (has.empty() ? "" : ", ") + std::string(m->key);
    row.wrong("metric", fmt::format("{} has no metric \"{}\"; it has {}",
                                    method ? method->title : "an axial pull", row.text("metric"), has));
}

/// In which direction, or inside which range.
void PackageReader::wanted(const Row& row, domain::Goal& g) {
    g.sense = g.metric->sense;
    if (row.has("sense")) {
        const auto sense = methods::senseFromKey(row.text("sense"));
        if (!sense)
            return row.wrong("sense",
                             fmt::format("\"{}\" is none of more, less and inside", row.text("sense")));
        g.sense = *sense;
    }
    if (const auto window = row.entry("window", g.metric->dimension)) {
        if (window->bound != quantity::Bound::between)
            return row.wrong("window", "a range is needed, such as 3…5 N·m");
        if (window->upperSi < window->si) return row.wrong("window", "the range ends below where it begins");
        g.window = {window->si, window->upperSi};
    }
    if (g.sense == domain::Sense::inside && !g.window)
        row.wrong("window", "what is wanted inside a range needs the range");
}

/// What a new criterion is judged by; nothing where the row is wrong.
std::optional<domain::Criterion> PackageReader::criterion(const Row& row, const domain::StudyData& owner) {
    domain::Criterion c;
    c.name = row.text("criterion");
    const auto* of = row.has("study") ? studyOf(row) : nullptr;
    if (of) c.study = of->study.id;
    const auto& metric = row.text("metric");
    const bool judgement = row.has("option") || row.has("rating");
    c.judged = judgement || metric == "eye" ? domain::Judged::byEye
               : metric == "cost"           ? domain::Judged::byCost
               : metric == "weight"         ? domain::Judged::byWeight
                                            : domain::Judged::byResults;
    auto dimension = quantity::Dimension::ratio;
    if (c.judged == domain::Judged::byResults) {
        const auto* from = row.has("study") ? of : &owner;
        if (!from) return std::nullopt;
        const auto known = metric.empty() ? std::optional(from->study.goal.metric)
                                          : domain::metricFromKey(metric, from->study.plan.method);
        if (!known) {
            row.wrong("metric", fmt::format("there is no metric \"{}\"", metric));
            return std::nullopt;
        }
        c.metric = *known;
        c.sense = (*known)->sense;
        dimension = (*known)->dimension;
        if (row.has("condition")) c.condition = conditionOf(row, *from);
    } else if (c.judged != domain::Judged::byEye) {
        c.sense = domain::Sense::less; // dearer and heavier is worse
    }
    if (row.has("sense")) {
        const auto sense = methods::senseFromKey(row.text("sense"));
        if (!sense || *sense == domain::Sense::inside) row.wrong("sense", "it is more or less");
        c.sense = sense.value_or(c.sense);
    }
    const auto none = row.quantity("none", dimension), full = row.quantity("full", dimension);
    if (none && full) c.anchors = {*none, *full};
    if (none.has_value() != full.has_value()) row.wrong("none", "none and full go together");
    c.weight = row.number("weight").value_or(1);
    if (c.weight < 0) row.wrong("weight", "it cannot be below zero");
    return c;
}

domain::Id PackageReader::conditionOf(const Row& row, const domain::StudyData& of) {
    const auto there =
        std::find_if(of.conditions.begin(), of.conditions.end(),
                     [&](const domain::Condition& k) { return k.name == row.text("condition"); });
    if (there != of.conditions.end()) return there->id;
    row.wrong("condition", fmt::format("there is no condition \"{}\"; there is {}", row.text("condition"),
                                       titles(of.conditions)));
    return 0;
}

/// A row is a criterion, or one judgement of it: rows of one card and criterion go together.
void PackageReader::criteria() {
    Table(m_folder, criteriaTable, m_trouble).each([&](const Row& row) {
        auto* owner = row.has("owner") ? studyOf(row, "owner") : nullptr;
        if (!owner && row.has("owner")) return;
        for (auto& data : m_out.studies)
            if (!owner && !data.study.card.criteria.empty() && data.study.card.title == row.text("card"))
                owner = &data;
        if (!owner) owner = studyOf(row);
        if (!owner) return;
        auto& card = owner->study.card;
        if (!card.criteria.empty() && card.title != row.text("card"))
            return row.wrong("card", fmt::format("\"{}\" has a score card already", owner->study.title));
        card.title = row.text("card");
        const auto name = row.text("criterion");
        if (name.empty()) return row.wrong("criterion", "a criterion needs a name");
        auto at = std::find_if(card.criteria.begin(), card.criteria.end(),
                               [&](const domain::Criterion& c) { return c.name == name; });
        const bool judgement = row.has("option") || row.has("rating");
        if (at == card.criteria.end()) {
            auto made = criterion(row, *owner);
            if (!made) return;
            card.criteria.push_back(std::move(*made));
            at = card.criteria.end() - 1;
        }
        if (!judgement) return;
        const auto rating = row.number("rating");
        if (!rating) return row.wrong("rating", "a judgement needs a rating");
        if (row.text("option").empty()) return row.wrong("option", "a judgement needs its option");
        at->ratings.push_back({row.text("option"), *rating});
    });
}

} // namespace anvil::exchange
