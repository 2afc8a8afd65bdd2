#include <anvil/project/score_commands.h>

#include <algorithm>
#include <cmath>

namespace anvil::project {
namespace {

results::CardSources sourcesOf(OpenProject& project) {
    return {[&project](Id study) { return project.study(study); },
            [&project](Id study, domain::Metric metric) { return &project.verdict(study, metric); },
            [&project](Id study) { return quicklyRead(project, study) ? project.table(study) : nullptr; }};
}

/// The study that keeps the card; this one where none does yet.
Id keeperOf(const OpenProject& project, Id study) {
    const auto* kept = cardStudyOf(project, study);
    return kept ? kept->study.id : study;
}

Expected<void> changeCard(OpenProject& project, Id study, const QString& what,
                          const std::function<void(domain::ScoreCard&)>& change) {
    return project.changeStudy(study, what, [&](domain::Study& s) { change(s.card); });
}

Expected<void> exists(const OpenProject& project, Id keeper, std::size_t which) {
    const auto* data = project.study(keeper);
    if (!data || which >= data->study.card.criteria.size())
        return fail("There is no such criterion on the card any more.");
    return {};
}

} // namespace

bool quicklyRead(const OpenProject& project, Id study) {
    constexpr std::size_t few = 100; // about a tenth of a second
    return project.unread(study).size() <= few;
}

const domain::StudyData* cardStudyOf(const OpenProject& project, Id study) {
    const auto* own = project.study(study);
    if (own && !own->study.card.criteria.empty()) return own;
    for (const auto& s : project.studies())
        if (std::any_of(s.study.card.criteria.begin(), s.study.card.criteria.end(),
                        [&](const domain::Criterion& c) { return c.study == study; }))
            return &s;
    return nullptr;
}

std::optional<results::CardResult> cardOf(OpenProject& project, Id study,
                                          const std::vector<double>& weights) {
    const auto* kept = cardStudyOf(project, study);
    if (!kept) return {};
    auto card = kept->study.card;
    if (weights.size() == card.criteria.size())
        for (std::size_t k = 0; k < weights.size(); ++k)
            card.criteria[k].weight = weights[k];
    return results::cardOf(*kept, card, sourcesOf(project));
}

std::vector<domain::Criterion> offeredCriteria(OpenProject& project, Id study) {
    const auto* kept = project.study(keeperOf(project, study));
    if (!kept) return {};
    std::vector<const domain::StudyData*> all;
    for (const auto& s : project.studies())
        if (s.study.plan.practice == kept->study.plan.practice && !s.study.plan.rigCheck) all.push_back(&s);
    return results::offeredCriteria(*kept, all, sourcesOf(project));
}

Expected<void> addCriterion(OpenProject& project, Id study, const domain::Criterion& criterion) {
    if (criterion.name.find_first_not_of(" \t") == std::string::npos)
        return fail("A criterion needs a name.");
    if (criterion.judged == domain::Judged::byEye && criterion.ratings.size() < 2)
        return fail("A judgement by eye needs a rating of two options or more.");
    if (!(criterion.weight >= 0) || !std::isfinite(criterion.weight)) return fail("A weight is 0 or more.");
    return changeCard(project, keeperOf(project, study),
                      OpenProject::tr("\"%1\" on the score card").arg(QString::fromStdString(criterion.name)),
                      [&](domain::ScoreCard& card) {
                          card.criteria.push_back(criterion);
                          if (card.criteria.size() == 1) return;
                          // As much as the others have on average.
                          double sum = 0;
                          for (std::size_t k = 0; k + 1 < card.criteria.size(); ++k)
                              sum += card.criteria[k].weight;
                          if (sum > 0)
                              card.criteria.back().weight =
                                  sum / static_cast<double>(card.criteria.size() - 1);
                      });
}

Expected<void> removeCriterion(OpenProject& project, Id study, std::size_t which) {
    const Id keeper = keeperOf(project, study);
    if (auto ok = exists(project, keeper, which); !ok) return ok;
    return changeCard(project, keeper, OpenProject::tr("Take a criterion off the score card"),
                      [&](domain::ScoreCard& card) {
                          card.criteria.erase(card.criteria.begin() + static_cast<std::ptrdiff_t>(which));
                      });
}

Expected<void> weighCriterion(OpenProject& project, Id study, std::size_t which, double weight) {
    if (!(weight >= 0) || !std::isfinite(weight)) return fail("A weight is 0 or more.");
    const Id keeper = keeperOf(project, study);
    if (auto ok = exists(project, keeper, which); !ok) return ok;
    return changeCard(project, keeper, OpenProject::tr("Weigh a criterion"),
                      [&](domain::ScoreCard& card) { card.criteria[which].weight = weight; });
}

} // namespace anvil::project
