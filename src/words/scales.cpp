#include <anvil/words/scales.h>

#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {

using namespace domain;
using namespace results;

namespace {

bool isShare(RatioBase base) { return base != RatioBase::cost && base != RatioBase::weight; }

std::string currencyOf(const StudyData& data) {
    for (const auto& o : data.options)
        if (o.unitCost && !o.currency.empty()) return o.currency;
    return "unit of cost";
}

} // namespace

std::string scaleName(const StudyData& data, const Verdict& verdict, RatioBase base) {
    switch (base) {
    case RatioBase::control:
        return "Against " + (data.option(verdict.goal.control) ? data.optionAt(verdict.goal.control).name
                                                               : std::string("the control"));
    case RatioBase::untreated:
        return "Against " +
               (data.conditions.empty() ? std::string("untreated") : data.conditions.front().name);
    case RatioBase::rating:
        return "Against the rating";
    case RatioBase::expected:
        return "Against what was expected";
    case RatioBase::cost:
        return "For its price";
    case RatioBase::weight:
        return "For its weight";
    }
    return {};
}

std::string scaleTitle(const StudyData& data, const Verdict& verdict, RatioBase base,
                       const quantity::Unit& unit) {
    const std::string noun(verdict.goal.metric->noun);
    switch (base) {
    case RatioBase::control:
        return fmt::format("Mean {} as a share of that of {} (%)", noun,
                           data.option(verdict.goal.control) ? data.optionAt(verdict.goal.control).name
                                                             : std::string("the control"));
    case RatioBase::untreated:
        return fmt::format("Mean {} as a share of the same in {} (%)", noun,
                           data.conditions.empty() ? std::string("the first condition")
                                                   : data.conditions.front().name);
    case RatioBase::rating:
        return fmt::format("Mean {} as a share of the rating (%)", noun);
    case RatioBase::expected:
        return fmt::format("Mean {} as a share of what was expected (%)", noun);
    case RatioBase::cost:
        return fmt::format("Mean {} per {} ({} per {})", noun, currencyOf(data), unit.symbol,
                           currencyOf(data));
    case RatioBase::weight:
        return fmt::format("Mean {} per kg ({} per kg)", noun, unit.symbol);
    }
    return {};
}

double scaleFactor(RatioBase base, const quantity::Unit& unit) {
    return isShare(base) ? 100 : unit.fromSi(1) - unit.fromSi(0);
}

std::string rungText(const RatioRung& r, RatioBase base, const StudyData& data, const quantity::Unit& unit) {
    if (r.itself) return "100 %, by itself";
    const double f = scaleFactor(base, unit);
    const std::string symbol = isShare(base) ? std::string("%")
                               : base == RatioBase::cost
                                   ? fmt::format("{} per {}", unit.symbol, currencyOf(data))
                                   : fmt::format("{} per kg", unit.symbol);
    std::string text = fmt::format("{}{} {}",
                                   r.atLeast  ? "at least "
                                   : r.atMost ? "at most "
                                              : "",
                                   quantity::significant(f * r.ratio, 3), symbol);
    if (r.interval && !r.atLeast && !r.atMost)
        text += fmt::format(" ({} to {})", quantity::significant(f * r.interval->first, 3),
                            quantity::significant(f * r.interval->second, 3));
    return text;
}

std::vector<std::string> sentences(const StudyData& data, const Verdict& verdict,
                                   const std::vector<Baselines>& baselines) {
    std::vector<std::string> out;
    const auto name = [&](std::size_t g) { return data.optionAt(verdict.groups[g].option).name; };
    for (const auto& b : baselines) {
        const auto& condition = data.conditionAt(b.condition).name;
        const auto& first = data.conditions.front().name;
        if (b.byRating != b.byUntreated)
            out.push_back(
                fmt::format("{}: {} keeps most of its rating ({}), but {} keeps most of what it held in "
                            "{} ({}): the two baselines tell two stories.",
                            condition, name(b.byRating), quantity::percent(b.ofRating), name(b.byUntreated),
                            first, quantity::percent(b.ofUntreated)));
        if (b.stillRated.empty()) continue;
        std::vector<std::string> names;
        names.reserve(b.stillRated.size());
        for (const auto g : b.stillRated)
            names.push_back(name(g));
        out.push_back(fmt::format("{}: {} still {} the rating by the mean, but {} less than in {}.",
                                  condition, listed(names), names.size() == 1 ? "holds" : "hold",
                                  names.size() == 1 ? "holds" : "hold", first));
    }
    return out;
}

} // namespace anvil::words
