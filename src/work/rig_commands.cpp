// Commands of rigs and of what was pulled on them.
#include <anvil/quantity/entry.h>
#include <anvil/results/evidence.h>
#include <anvil/work/open_project.h>

#include <algorithm>

namespace anvil::work {

Expected<std::vector<OpenProject::KeptSetup>> OpenProject::readSetups() const {
    const auto rows = m_file->setups();
    if (!rows) return tl::unexpected(rows.error());
    std::vector<KeptSetup> out;
    for (const auto& row : *rows) {
        auto setup = rig::setupFromJson(row.json.toStdString());
        if (!setup) return fail("Rig \"" + row.rig.toStdString() + "\": " + setup.error().message);
        out.push_back({row, std::move(*setup)});
    }
    return out;
}

std::vector<std::pair<Id, rig::Setup>> OpenProject::rigs() const {
    std::map<QString, const KeptSetup*> newest;
    for (const auto& kept : m_setups)
        newest[kept.row.rig] = &kept;
    std::vector<std::pair<Id, rig::Setup>> out;
    out.reserve(newest.size());
    for (const auto& [name, kept] : newest)
        out.emplace_back(kept->row.id, kept->setup);
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    return out;
}

Expected<rig::Setup> OpenProject::setupOf(Id id) const {
    for (const auto& kept : m_setups)
        if (kept.row.id == id) return kept.setup;
    return fail("The set-up this was pulled on is not in the project.");
}

Expected<Id> OpenProject::saveRig(const rig::Setup& setup) {
    if (setup.name.empty()) return fail("A rig needs a name.");
    const auto name = QString::fromStdString(setup.name);
    const auto json = QString::fromStdString(rig::toJson(setup));
    int version = 0;
    for (const auto& [row, made] : m_setups)
        if (row.rig == name) {
            version = row.version;
            if (row.json == json) return row.id;
        }
    Id made = 0;
    auto entry = run(tr("Rig \"%1\", version %2").arg(name).arg(version + 1), [&](store::Writer& w) {
        made = w.addSetup({0, name, version + 1, QDateTime::currentDateTime().toString(Qt::ISODate), json});
    });
    if (!entry) return entry;
    return made;
}

Expected<Id> OpenProject::addRigCheckPiece(const std::string& rig) {
    Id study = 0;
    for (const auto& s : m_studies)
        if (s.study.plan.rigCheck) study = s.study.id;
    if (!study) {
        domain::Study s;
        s.title = tr("Rig checks").toStdString();
        s.question = tr("How much does the rig itself give way?").toStdString();
        s.goal.metric = domain::metric("stiffness");
        s.position = static_cast<int>(m_studies.size());
        s.plan.rigCheck = true;
        s.plan.reused = true;
        auto made = addStudy(s);
        if (!made) return made;
        study = *made;
    }
    return addUnplanned(study, tr("Rigid bar"), QString::fromStdString(rig));
}

Expected<Id> OpenProject::addTypedPull(const TypedPull& typed) {
    const domain::StudyData* data = nullptr;
    for (const auto& s : m_studies)
        if (s.specimen(typed.specimen)) data = &s;
    if (!data) return fail("There is no piece left that the number could belong to.");
    const auto metric = results::typedMetric(*data);
    domain::Pull p;
    p.specimen = typed.specimen;
    p.performedAt = typed.performedAt;
    p.operatorName = typed.operatorName;
    p.sourceName = "read off a display";
    p.outcome.part = typed.part;
    p.practice = data->study.plan.practice;
    if (typed.text.empty()) {
        p.standing = domain::Standing::notRead;
        p.reason = "The number was lost.";
    } else {
        const auto entry = quantity::parseEntry(typed.text, metric->dimension, typed.fallback);
        if (!entry) return tl::unexpected(entry.error());
        if (entry->si < 0) return fail("A strength below zero cannot be.");
        p.typed = domain::TypedValue{metric, entry->si, entry->upperSi, quantity::print(*entry)};
        using quantity::Doubt;
        switch (entry->doubt) {
        case Doubt::above:
            p.standing = domain::Standing::atLeast;
            p.reason = "Read as at least that.";
            break;
        case Doubt::below:
            p.standing = domain::Standing::atMost;
            p.reason = "Read as at most that.";
            break;
        case Doubt::between:
            p.standing = domain::Standing::between;
            p.reason = "Held the lower, failed at the upper.";
            break;
        case Doubt::exact:
        case Doubt::about:
        case Doubt::plusMinus:
            if (!typed.part.empty()) {
                const auto proposal =
                    domain::proposeStanding(*data, nullptr, typed.part, domain::Limit::broke);
                p.standing = proposal.standing;
                p.reason = proposal.reason;
            }
        }
    }
    const auto label = QString::fromStdString(data->specimenAt(typed.specimen).label);
    Id made = 0;
    auto entry = run(
        tr("%1: %2").arg(label, typed.text.empty() ? tr("number lost") : QString::fromStdString(typed.text)),
        [&](store::Writer& w) { made = w.add(p); });
    if (!entry) return entry;
    return made;
}

Expected<void> OpenProject::judge(Id pullId, const Judgement& j) {
    const auto* data = studyOfPull(pullId);
    if (!data) return fail("There is no such pull any more.");
    const auto* pull = data->pull(pullId);
    auto outcome = pull->outcome;
    outcome.part = j.part;
    outcome.mode = j.mode;
    outcome.limit = j.limit;
    outcome.marks.insert(outcome.marks.end(), j.marks.begin(), j.marks.end());
    if (j.end) outcome.end = j.end;
    if (!j.afterwards.empty()) outcome.afterwards = j.afterwards;
    outcome.whileUnloading = outcome.whileUnloading || j.whileUnloading;
    const auto label = QString::fromStdString(data->specimenAt(pull->specimen).label);
    const auto set = j.standing.derived ? domain::Proposal{} : j.standing; // what follows is not frozen
    return changePull(pullId, tr("%1: %2").arg(label, QString::fromUtf8(domain::word(j.standing.standing))),
                      [&](domain::Pull& p) {
                          p.standing = set.standing;
                          p.reason = set.reason;
                          p.outcome = outcome;
                          p.recording = domain::Recording::done;
                      });
}

Expected<void> OpenProject::changeOutcome(Id pull, const domain::Outcome& outcome, const QString& what) {
    return changePull(pull, what, [&](domain::Pull& p) { p.outcome = outcome; });
}

} // namespace anvil::work
