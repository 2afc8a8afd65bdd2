#include <anvil/pages/source.h>

#include <QFileInfo>
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
