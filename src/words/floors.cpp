#include <anvil/words/floors.h>

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {
namespace {

using quantity::withUnit;

/// A kind of floor: its key, its title, where it stands, what it promises.
struct Kind {
    std::string_view key;
    const char* title;
    std::optional<double> stats::Floors::*value;
    const char* promise;
};

constexpr Kind kinds[] = {
    {"lowest", "Lowest", &stats::Floors::lowest,
     "Lowest: what the weakest piece held. The next one may hold less; of five pieces it is below the "
     "lowest one time in six."},
    {"mean_minus_3sd", "Mean − 3 s", &stats::Floors::meanMinus3Sd,
     "Mean − 3 s: from five pieces it promises with 65 % confidence that 99 % hold more, and with 92 % that "
     "90 % do."},
    {"normal_90_95", "90/95", &stats::Floors::normal90_95,
     "90/95, on the normal distribution: with 95 % confidence 90 % of all such pieces hold more. 95/95 and "
     "99/95: 95 % and 99 % of "
     "them."},
    {"normal_95_95", "95/95", &stats::Floors::normal95_95, nullptr},
    {"normal_99_95", "99/95", &stats::Floors::normal99_95, nullptr},
    {"lognormal_90_95", "Log-normal 90/95", &stats::Floors::lognormal90_95,
     "Log-normal and Weibull: the same promise if strengths are spread like that; a few pieces "
     "cannot "
     "say which, so compare them."},
    {"weibull_90_95", "Weibull 90/95", &stats::Floors::weibull90_95, nullptr},
};

/// The family of the least Akaike measure; a dash where none could be fitted.
std::string bestFamily(const results::OneGroup& one) {
    const stats::Fit* best = nullptr;
    for (const auto& fit : one.fits)
        if (fit && (!best || fit->aic() < best->aic())) best = &*fit;
    return best ? familyName(best->family) : "–";
}

} // namespace

Table floorTable(const domain::StudyData& data, const results::Verdict& verdict,
                 std::span<const results::OneGroup> groups, const quantity::Unit& unit) {
    const bool several = data.conditions.size() > 1;
    Table t{"floors", {{"option", "Option"}}, {}};
    if (several) t.columns.push_back({"condition", "Condition"});
    t.columns.push_back({"n", "n", true});
    for (const auto& kind : kinds)
        t.columns.push_back({kind.key, kind.title, true});
    t.columns.push_back({"family", "Fits best"});
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto& g = verdict.groups[i];
        if (g.summary.n == 0) continue;
        Row row{{data.optionAt(g.option).name}, static_cast<long long>(i)};
        if (several) row.cells.push_back(data.conditionAt(g.condition).name);
        row.cells.push_back(countText(g.summary));
        for (const auto& kind : kinds) {
            const auto& v = groups[i].floors.*kind.value;
            row.cells.push_back(v ? withUnit(*v, unit) : "none");
        }
        row.cells.push_back(bestFamily(groups[i]));
        t.rows.push_back(std::move(row));
    }
    return t;
}

std::vector<std::string> floorPromises() {
    std::vector<std::string> out;
    for (const auto& kind : kinds)
        if (kind.promise) out.emplace_back(kind.promise);
    out.emplace_back("None: there are fewer than three exact values, or the floor would not lie above zero.");
    out.emplace_back(
        "From fewer than five values with a spread of more than 20 % most floors come out at nothing; those "
        "that do not are the lucky ones, and promise less than they say.");
    return out;
}

std::string standingApart(const domain::StudyData& data, const results::Verdict& verdict,
                          const results::Apart& apart, const quantity::Unit& unit) {
    const auto& g = verdict.groups[apart.group];
    const auto& odd = g.values[apart.value];
    std::vector<stats::Value> rest;
    for (std::size_t k = 0; k < g.values.size(); ++k)
        if (k != apart.value) rest.push_back(g.values[k].value);
    return fmt::format("{} of {} ({}) stands apart from the others (chance of that in a like "
                       "group: {}). The mean is {} with it and {} without it. Set it aside only for "
                       "a physical reason.",
                       data.specimenAt(odd.specimen).label, groupName(data, g),
                       withUnit(odd.value.value, unit), quantity::percent(apart.p), meanText(g.summary, unit),
                       meanText(stats::summarise(rest), unit));
}

} // namespace anvil::words
