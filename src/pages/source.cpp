#include <anvil/pages/source.h>

#include <QFileInfo>
#include <anvil/words/score_card.h>
#include <anvil/work/score_commands.h>
#include <anvil/work/wall_clock.h>

namespace anvil::pages {

Source sourceOf(work::OpenProject& project, domain::Id study) {
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
        return work::cardOf(project, study, weights);
    };
    s.hasCard = [&project, study] { return work::cardStudyOf(project, study) != nullptr; };
    s.offered = [&project, study] {
        std::vector<std::string> titles;
        const auto* kept = work::cardStudyOf(project, study);
        const auto* own = kept ? kept : project.study(study);
        for (const auto& c : work::offeredCriteria(project, study))
            titles.push_back(words::offeredTitle(c, *own, project.study(c.study)));
        return titles;
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
    s.isRead = [&project](domain::Id other) { return work::quicklyRead(project, other); };
    s.table = [&project, study] { return project.table(study); };
    s.curve = [&project](domain::Id pull) { return project.readCurve(pull).value_or(nullptr); };
    s.steady = [&project](domain::Id pull) { return project.steadyAtMarks(pull); };
    s.timing = [data = s.study](const domain::Pull& pull) { return work::wallTiming(*data, pull); };
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
