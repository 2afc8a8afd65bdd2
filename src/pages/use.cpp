#include "choices.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/plan/forecasts.h>
#include <anvil/words/use.h>
#include <fmt/format.h>

namespace anvil::pages {

bool hasWorkingLimit(const Source& source, const View&) {
    return results::hasWorkingLimits(source.verdict(source.study->study.goal.metric));
}

std::optional<Page> workingLimit(const Source& source, const View& view) {
    if (!hasWorkingLimit(source, view)) return {};
    const auto& data = *source.study;
    const auto metric = data.study.goal.metric;
    const auto& verdict = source.verdict(metric);
    const auto& use = data.study.telling.use;
    const auto limits = results::workingLimits(verdict, use);
    const auto& unit = methods::unitFor(*metric, view.units);
    Page page{"use", data.study.title, {}};
    page.add(Paragraph{Paragraph::Style::lead, words::ruleOfLimits(use, unit)});
    for (auto& caution : words::limitCautions())
        page.add(Paragraph{Paragraph::Style::caution, std::move(caution)});
    Choice factor{"factor",
                  "Design factor",
                  {},
                  use.designFactor >= 1 ? fmt::format("{:g}", use.designFactor) : "",
                  true};
    if (!(use.designFactor >= 1)) factor.options.push_back({"", "not chosen"});
    bool usual = false;
    for (const auto& r : results::factorReasons()) {
        factor.options.push_back({fmt::format("{:g}", r.factor), fmt::format("{:g}: {}", r.factor, r.why),
                                  ChooseFactor{r.factor, std::string(r.why)}});
        usual = usual || r.factor == use.designFactor;
    }
    if (use.designFactor >= 1 && !usual)
        factor.options.push_back(
            {fmt::format("{:g}", use.designFactor), fmt::format("{:g}: {}", use.designFactor, use.why)});
    page.add(std::move(factor));
    page.add(Offers{"use",
                    {{"Rounded down to a step, a load to be shared, a factor of your own:",
                      {{"changeUse", "Set them…", Ask::use}}}},
                    {}});
    page.add(words::limitTable(data, verdict, limits, unit));
    return page;
}

namespace {

bool hasForecasts(const domain::StudyData& data) {
    return std::any_of(data.study.plan.squares.begin(), data.study.plan.squares.end(),
                       [](const domain::PlannedSquare& s) { return !s.forecasts.empty(); });
}

} // namespace

std::optional<Page> forecasts(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = data.study.goal.metric;
    const auto& verdict = source.verdict(metric);
    const auto all = results::forecastsOf(data, verdict);
    if (all.empty()) return {};
    Page page{"forecasts", data.study.title, {}};
    const auto scores = plan::scoreForecasts(data, verdict);
    for (const auto& score : scores)
        page.add(Paragraph{Paragraph::Style::lead, plan::sentence(score)});
    page.add(words::forecastTable(data, verdict, all, methods::unitFor(*metric, view.units)));
    if (!source.studies || !source.verdictOf) return page;
    std::vector<plan::StudyVerdict> others;
    for (const auto* study : source.studies())
        if (hasForecasts(*study) && study->study.plan.practice == data.study.plan.practice && source.isRead &&
            source.isRead(study->study.id))
            others.push_back({study, &source.verdictOf(study->study.id, study->study.goal.metric)});
    if (others.size() < 2) return page;
    Bullets history{{}, "history", true};
    for (const auto& score : plan::scoreForecasts(others))
        history.items.push_back(plan::sentence(score));
    if (history.items.empty()) return page;
    page.add(section("Over all studies of this project"));
    page.add(std::move(history));
    return page;
}

} // namespace anvil::pages
