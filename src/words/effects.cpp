#include <anvil/words/effects.h>

#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <fmt/format.h>

namespace anvil::words {

using namespace results;
using quantity::significant;

namespace {

std::string ratioText(double ratio, const std::optional<std::pair<double, double>>& interval) {
    stats::Comparison c;
    c.ratio = ratio;
    c.ratioInterval = interval;
    return sizeText(c);
}

std::string axisName(const domain::StudyData& data) {
    return data.study.plan.axis.empty() ? std::string("the axis") : data.study.plan.axis;
}

/// A change over the whole axis, as a share of the mean.
std::string overAll(const TrendResult& t, double slope) {
    const double share = slope * (t.to - t.from) / std::abs(t.mean);
    return fmt::format("{} {}", quantity::percent(std::abs(share)), share < 0 ? "less" : "more");
}

} // namespace

std::vector<std::string> sentences(const domain::StudyData& data, const Verdict& verdict,
                                   const TreatmentResult& t) {
    const auto noun = verdict.goal.metric->noun;
    const auto treated = data.conditionAt(t.treated).name, control = data.conditionAt(t.control).name;
    std::vector<std::string> out;
    const auto& pooled = t.pooled;
    out.push_back(fmt::format("{} against {}, over {} options: the {} is {}{}.", treated, control,
                              pooled.options, noun, ratioText(pooled.ratio, pooled.ratioInterval),
                              !pooled.p          ? ", and nothing to say how sure that is"
                              : *pooled.p < 0.05 ? ""
                                                 : ", which may be no effect at all"));
    constexpr double differs = 0.05;
    if (!pooled.interactionP)
        out.push_back(
            "Whether it does the same to every option cannot be told: that needs two pulls a square.");
    else if (*pooled.interactionP < differs)
        out.push_back(
            "It does not do the same to every option: look at each, not at the one number for all.");
    else
        out.push_back("No option stands out in what it does to it.");
    return out;
}

std::vector<EffectRow> forestRows(const domain::StudyData& data, const TreatmentResult& t) {
    std::vector<EffectRow> out;
    out.reserve(t.options.size() + 1);
    for (const auto& o : t.options)
        out.push_back({data.optionAt(o.option).name, o.ratio, o.interval, false});
    out.push_back({"All together", t.pooled.ratio, t.pooled.ratioInterval, true});
    return out;
}

Table treatmentTable(const domain::StudyData& data, const TreatmentResult& t) {
    Table table{
        "treatment",
        {{"option", "Option"},
         {"ratio", data.conditionAt(t.treated).name + " over " + data.conditionAt(t.control).name, true},
         {"interval", "95 % interval", true}},
        {}};
    for (const auto& row : forestRows(data, t))
        table.rows.push_back({{row.name, significant(row.ratio, 3),
                               row.interval ? significant(row.interval->first, 3) + " to " +
                                                  significant(row.interval->second, 3)
                                            : std::string("–")},
                              0});
    return table;
}

std::string sentence(const domain::StudyData& data, const Verdict& verdict, const TrendResult& t) {
    const auto name = data.optionAt(t.option).name, axis = axisName(data);
    const auto noun = verdict.goal.metric->noun;
    std::string sure;
    if (t.slopeInterval)
        sure = fmt::format(" (95 % interval {} to {})", overAll(t, t.slopeInterval->first),
                           overAll(t, t.slopeInterval->second));
    switch (t.verdict) {
    case TrendVerdict::flat:
        return fmt::format("{}: flat. Over all of {} the {} does not change by more than {}{}.", name, axis,
                           noun, quantity::percent(verdict.goal.margin), sure);
    case TrendVerdict::rising:
    case TrendVerdict::falling:
        return fmt::format("{}: the {} {} with {}, over all of it by {}{}.", name, noun,
                           t.verdict == TrendVerdict::rising ? "rises" : "falls", axis,
                           overAll(t, t.line.slope), sure);
    case TrendVerdict::cannotTell:
        break;
    }
    return fmt::format("{}: whether the {} changes with {} cannot be told{}.", name, noun, axis, sure);
}

Table trendTable(const domain::StudyData& data, std::span<const TrendResult> trends,
                 const quantity::Unit& unit) {
    const auto per =
        results::axisUnit(data).empty() ? std::string("step of the axis") : results::axisUnit(data);
    Table t{"trend",
            {{"option", "Option"},
             {"points", "Pulls", true},
             {"slope", fmt::format("Slope ({} per {})", unit.symbol, per), true},
             {"interval", "95 % interval", true},
             {"median_slope", "Median slope", true},
             {"verdict", "It is"}},
            {}};
    const double step = axisStep(data);
    for (const auto& r : trends) {
        const auto shown = [&](double slope) { return significant(unit.fromSi(slope * step), 3); };
        const char* what = r.verdict == TrendVerdict::cannotTell ? "cannot tell" : word(r.verdict);
        t.rows.push_back(
            {{data.optionAt(r.option).name, fmt::format("{}", r.points), shown(r.line.slope),
              r.slopeInterval ? shown(r.slopeInterval->first) + " to " + shown(r.slopeInterval->second)
                              : std::string("–"),
              r.medianSlope ? shown(*r.medianSlope) : std::string("–"), what},
             r.option});
    }
    return t;
}

} // namespace anvil::words
