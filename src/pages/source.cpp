#include <anvil/pages/source.h>

#include <QFileInfo>
#include <anvil/project/score_commands.h>
#include <anvil/project/wall_clock.h>
#include <anvil/words/score_card.h>

namespace anvil::pages {

Source sourceOf(project::OpenProject& project, domain::Id study) {
    Source s;
    s.study = project.study(study);
    s.readings = &project.readings(study);
    s.verdict = [&project, study](domain::Metric m) -> const results::Verdict& {
        return project.verdict(study, m);
    };
    s.sureness = [&project, study](domain::Metric m) -> const results::Sureness& {
        return project.sureness(study, m);
    };
    s.card = [&project, study](const std::vector<double>& weights) {
        return project::cardOf(project, study, weights);
    };
    s.hasCard = [&project, study] { return project::cardStudyOf(project, study) != nullptr; };
    s.offered = [&project, study] {
        std::vector<OfferedCriterion> out;
        const auto* kept = project::cardStudyOf(project, study);
        const auto* own = kept ? kept : project.study(study);
        for (const auto& c : project::offeredCriteria(project, study))
            out.push_back({c, words::offeredTitle(c, *own, project.study(c.study))});
        return out;
    };
    s.studies = [&project] {
        std::vector<const domain::StudyData*> all;
        for (const auto& one : project.studies())
            all.push_back(&one);
        return all;
    };
    s.verdictOf = [&project](domain::Id other, domain::Metric m) -> const results::Verdict& {
        return project.verdict(other, m);
    };
    s.isRead = [&project](domain::Id other) { return project::quicklyRead(project, other); };
    s.table = [&project, study] { return project.table(study); };
    s.curve = [&project](domain::Id pull) { return project.readCurve(pull).value_or(nullptr); };
    s.steady = [&project](domain::Id pull) { return project.steadyAtMarks(pull); };
    s.timing = [data = s.study](const domain::Pull& pull) { return project::wallTiming(*data, pull); };
    if (s.study)
        for (const auto& p : s.study->pulls)
            if (p.setup && !s.setups.contains(p.setup))
                if (auto setup = project.setupOf(p.setup)) s.setups.emplace(p.setup, std::move(*setup));
    s.project = QFileInfo(project.file().path()).completeBaseName().toStdString();
    if (const auto at = project.file().lastChange(); !at.isEmpty())
        s.date = "as of " + at.left(10).toStdString();
    return s;
}

} // namespace anvil::pages
