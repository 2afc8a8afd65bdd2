// What a report is made from, out of an open project.
#include <QFileInfo>
#include <anvil/report/source.h>
#include <anvil/results/verdict.h>

namespace anvil::report {

Source sourceOf(work::OpenProject& project, domain::Id study) {
    Source s;
    s.study = project.study(study);
    s.readings = &project.readings(study);
    s.verdict = [&project, study](domain::Metric m) -> const results::Verdict& {
        return project.verdict(study, m);
    };
    s.curve = [&project](domain::Id pull) { return project.readCurve(pull).value_or(nullptr); };
    s.steady = [&project](domain::Id pull) { return project.steadyAtMarks(pull); };
    if (s.study)
        for (const auto& p : s.study->pulls)
            if (p.setup && !s.setups.contains(p.setup))
                if (auto setup = project.setupOf(p.setup)) s.setups.emplace(p.setup, std::move(*setup));
    s.project = QFileInfo(project.file().path()).completeBaseName();
    const auto journal = project.file().journal(1);
    if (journal && !journal->empty()) s.date = QStringLiteral("as of %1").arg(journal->front().at.left(10));
    return s;
}

} // namespace anvil::report
