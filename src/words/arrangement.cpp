#include <anvil/words/arrangement.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {
namespace {

std::string share(const results::AgainstPromise& p) {
    auto text = fmt::format("{:.0f} %", 100 * p.share);
    if (p.interval)
        text += fmt::format(" ({:.0f} to {:.0f} %)", 100 * p.interval->first, 100 * p.interval->second);
    return text;
}

std::string nameOf(const domain::StudyData& data, const results::Arranged& a) {
    auto name = data.optionAt(a.said.option).name;
    return data.conditions.size() > 1 ? name + ", " + data.conditionAt(a.condition).name : name;
}

} // namespace

Table arrangementTable(const domain::StudyData& data, const std::vector<results::Arranged>& all,
                       const quantity::Unit& unit) {
    Table t{"arrangement",
            {{"option", "Arrangement"},
             {"condition", "Condition"},
             {"base", "Plain"},
             {"factor", "Factor", true},
             {"mean", "Measured", true},
             {"by_rating", "Factor × rating", true},
             {"of_rating", "Held of that", true},
             {"by_measured", "Factor × measured plain", true},
             {"of_measured", "Held of that", true}},
            {}};
    for (const auto& a : all) {
        const auto* base = data.option(a.said.base);
        const auto predicted = [&](const auto& p) {
            return p ? quantity::withUnit(p->predicted, unit) : "–";
        };
        const auto held = [&](const auto& p) { return p ? share(*p) : std::string("–"); };
        t.rows.push_back(
            {{data.optionAt(a.said.option).name, data.conditionAt(a.condition).name, base ? base->name : "–",
              quantity::shortest(a.said.factor), quantity::withUnit(a.mean, unit), predicted(a.byRating),
              held(a.byRating), predicted(a.byMeasured), held(a.byMeasured)},
             0});
    }
    return data.conditions.size() > 1 ? t : t.without({"condition"});
}

std::vector<std::string> arrangementSentences(const domain::StudyData& data,
                                              const std::vector<results::Arranged>& all) {
    std::vector<std::string> turned, plain;
    for (const auto& a : all) {
        if (a.turnsRound)
            turned.push_back(
                fmt::format("{} holds {:.0f} % of what the maker's rating promises it, and {:.0f} % of what "
                            "the plain one as "
                            "measured does: the rating as a baseline turns the conclusion round.",
                            nameOf(data, a), 100 * a.byRating->share, 100 * a.byMeasured->share));
        else if (a.byMeasured)
            plain.push_back(fmt::format("{} holds {} of its factor times the plain one as measured.",
                                        nameOf(data, a), share(*a.byMeasured)));
        else if (a.byRating)
            plain.push_back(
                fmt::format("{} holds {} of its factor times the maker's rating; the plain one was not "
                            "measured, so this tells of the rating as much as of the arrangement.",
                            nameOf(data, a), share(*a.byRating)));
    }
    turned.insert(turned.end(), plain.begin(), plain.end());
    return turned;
}

} // namespace anvil::words
