#include <anvil/words/score_card.h>

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::words {

using namespace domain;
using namespace results;

namespace {

std::string marksText(double share) { return fmt::format("{:.0f}", 100 * share); }

void addTurns(const CardResult& card, std::vector<std::string>& out) {
    for (const auto& t : card.turns)
        out.push_back(fmt::format("With {} than {} of the weight on {} (now {}) {} would come first.",
                                  t.above ? "more" : "less", shareText(t.share),
                                  criterionTitle(card.criteria[t.criterion]),
                                  shareText(card.criteria[t.criterion].share), card.options[t.now]));
}

void addBlanks(const CardResult& card, std::vector<std::string>& out) {
    for (std::size_t i = 0; i < card.options.size(); ++i) {
        const auto& s = card.scores[i];
        if (s.tested >= 1 - 1e-9) continue;
        if (!s.score) {
            out.push_back(fmt::format("{}: nothing that counts here is tested yet.", card.options[i]));
            continue;
        }
        std::string text =
            fmt::format("{}: only {} of the weight is tested", card.options[i], shareText(s.tested));
        if (s.worst && s.best)
            text +=
                fmt::format("; with the least marks seen in its blanks it would have {}, with the greatest "
                            "{}",
                            marksText(*s.worst), marksText(*s.best));
        out.push_back(text + ".");
    }
}

void addCriteria(const CardResult& card, std::vector<std::string>& out) {
    for (const auto& c : card.criteria) {
        const auto name = criterionTitle(c);
        if (!c.marked)
            out.push_back(
                fmt::format("{}: a value of zero or less has no share of the best; say which values "
                            "have 0 and 100 marks.",
                            name));
        else if (std::none_of(c.values.begin(), c.values.end(), [](const auto& v) { return v.has_value(); }))
            out.push_back(fmt::format("{}: nobody has a value yet.", name));
        else if (!c.separates)
            out.push_back(
                fmt::format("{} tells nobody apart: what its marks differ by may be chance.", name));
        for (std::size_t i = 0; i < c.values.size(); ++i)
            if (c.values[i] && c.atLeast[i])
                out.push_back(fmt::format("{} has at least its mark in {}: its pulls say only \"at least\".",
                                          card.options[i], name));
    }
}

const quantity::Unit& unitOf(const Criterion& c, const quantity::Units& units) {
    return methods::unitFor(*c.metric, units);
}

std::string valueText(const CriterionResult& r, std::size_t option, const quantity::Units& units) {
    const auto& v = r.values[option];
    if (!v) return "–";
    const auto& c = r.criterion;
    const std::string least = r.atLeast[option] ? "at least " : "";
    switch (c.judged) {
    case Judged::byResults:
        if (c.sense == Sense::inside) return quantity::percent(*v) + " inside";
        return least + quantity::withUnit(*v, unitOf(c, units));
    case Judged::byEye:
        return quantity::shortest(*v);
    case Judged::byCost:
        return quantity::fixed(*v, 2) + (r.currency.empty() ? "" : " " + r.currency);
    case Judged::byWeight:
        return quantity::briefly(*v, quantity::siUnit(quantity::Dimension::mass));
    }
    return {};
}

} // namespace

std::string shareText(double share) { return fmt::format("{:.0f} %", 100 * share); }

std::string criterionTitle(const CriterionResult& criterion) {
    return criterion.where.empty() ? criterion.criterion.name
                                   : criterion.criterion.name + ", " + criterion.where;
}

std::string offeredTitle(const Criterion& c, const StudyData& own, const StudyData* of) {
    std::string text = c.name;
    if (c.judged != Judged::byResults || !of) return text;
    if (of->study.id != own.study.id) text += ", " + of->study.title;
    if (of->conditions.size() > 1 && of->condition(c.condition))
        text += ", " + of->conditionAt(c.condition).name;
    return text;
}

std::string winnerSentence(const CardResult& card) {
    const auto order = card.order();
    if (order.empty()) return "Nothing that counts here is tested yet.";
    const auto& first = card.scores[order[0]];
    const auto name = [&](std::size_t k) { return card.options[order[k]]; };
    if (order.size() == 1) return fmt::format("Only {} is tested in anything that counts here.", name(0));
    const auto& second = card.scores[order[1]];
    const auto a = marksText(*first.score), b = marksText(*second.score);
    const auto wins =
        fmt::format("Over all weights {} comes first in {} of them", name(0), chanceText(first.wins));
    if (a == b)
        return fmt::format("{} and {} have the same score, {} of 100. {}, {} in {}.", name(0), name(1), a,
                           wins, name(1), chanceText(second.wins));
    return fmt::format("With these weights {} comes first, {} of 100, before {} with {}. {}.", name(0), a,
                       name(1), b, wins);
}

std::vector<std::string> cardNotes(const CardResult& card) {
    std::vector<std::string> out;
    addTurns(card, out);
    addBlanks(card, out);
    addCriteria(card, out);
    return out;
}

Table cardTable(const CardResult& card) {
    Table t{"card",
            {{"option", "Option"},
             {"score", "Score of 100", true},
             {"wins", "First over all weights", true},
             {"tested", "Weight tested", true},
             {"filled", "Blanks filled", true}},
            {}};
    for (const auto& c : card.criteria)
        t.columns.push_back({"mark", criterionTitle(c), true});
    auto order = card.order();
    for (std::size_t i = 0; i < card.options.size(); ++i)
        if (!card.scores[i].score) order.push_back(i);
    for (const auto i : order) {
        const auto& s = card.scores[i];
        const bool blanks = s.score && s.tested < 1 - 1e-9 && s.worst && s.best;
        Row row{{card.options[i], s.score ? marksText(*s.score) : "–", s.score ? chanceText(s.wins) : "–",
                 shareText(s.tested),
                 blanks ? marksText(*s.worst) + " to " + marksText(*s.best) : std::string("–")},
                static_cast<long long>(i)};
        for (std::size_t k = 0; k < card.criteria.size(); ++k)
            row.cells.push_back(card.marks[i][k] ? marksText(*card.marks[i][k]) : "not tested");
        t.rows.push_back(std::move(row));
    }
    return t;
}

Table cardValues(const CardResult& card, const quantity::Units& units) {
    Table t{"cardValues", {{"criterion", "Criterion"}, {"weight", "Weight", true}, {"wanted", "Wanted"}}, {}};
    for (const auto& name : card.options)
        t.columns.push_back({"value", name, true});
    for (std::size_t k = 0; k < card.criteria.size(); ++k) {
        const auto& c = card.criteria[k];
        const auto sense = c.criterion.sense;
        Row row{{criterionTitle(c), shareText(c.share),
                 sense == Sense::less     ? "less"
                 : sense == Sense::inside ? "inside"
                                          : "more"},
                static_cast<long long>(k)};
        for (std::size_t i = 0; i < card.options.size(); ++i)
            row.cells.push_back(valueText(c, i, units));
        t.rows.push_back(std::move(row));
    }
    return t;
}

Table winnersByCondition(const StudyData& data, const Verdict& verdict, const Sureness* sure) {
    Table t{"winners",
            {{"condition", "Condition"}, {"option", "First"}, {"chance", "Chance to be best", true}},
            {}};
    for (const auto& condition : data.conditions)
        for (const auto i : verdict.inCondition(condition.id)) {
            const auto& g = verdict.groups[i];
            if (g.rank != 1) continue;
            const auto* place = sure ? sure->placeOf(verdict, i) : nullptr;
            t.rows.push_back({{condition.name, data.optionAt(g.option).name,
                               place ? (place->atLeast ? "at least " : "") + chanceText(place->best) : "–"},
                              static_cast<long long>(i)});
        }
    if (data.conditions.size() < 2) t.rows.clear();
    return t;
}

} // namespace anvil::words
