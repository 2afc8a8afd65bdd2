#include <anvil/project/rig_commands.h>

#include "done.h"
#include <algorithm>
#include <anvil/project/plan_commands.h>
#include <anvil/project/told_rig.h>

namespace anvil::project {
domain::Id keepSetup(store::Writer& writer, const std::vector<store::SetupRow>& kept,
                     const rig::Setup& setup) {
    const auto name = QString::fromStdString(setup.name);
    const auto json = QString::fromStdString(rig::toJson(setup));
    int version = 0;
    for (const auto& row : kept)
        if (row.rig == name) {
            version = row.version;
            if (row.json == json) return row.id;
        }
    return writer.addSetup({0, name, version + 1, QDateTime::currentDateTime().toString(Qt::ISODate), json});
}

namespace {

/// The newest set-up of a rig, or one that has only its name.
rig::Setup newest(const OpenProject& project, const std::string& name) {
    for (const auto& [id, setup] : project.rigs())
        if (setup.name == name) return setup;
    rig::Setup fresh;
    fresh.name = name;
    return fresh;
}

} // namespace

Expected<Id> saveRig(OpenProject& project, const rig::Setup& setup) {
    if (setup.name.empty()) return fail("A rig needs a name.");
    const auto kept = project.file().setups();
    if (!kept) return tl::unexpected(kept.error());
    Id made = 0;
    auto entry = project.run(OpenProject::tr("Rig \"%1\"").arg(QString::fromStdString(setup.name)),
                             [&](store::Writer& w) { made = keepSetup(w, *kept, setup); });
    if (!entry) return entry;
    return made;
}

domain::RigReach reachOf(const rig::Setup& setup) {
    const auto ratio = rig::ratioFromCell(setup);
    return {setup.rigLimit, setup.cellLimit, ratio ? ratio->value : 1, setup.travel};
}

Expected<void> planRig(OpenProject& project, Id study, const std::string& rig) {
    const auto all = project.rigs();
    if (!rig.empty() &&
        std::none_of(all.begin(), all.end(), [&](const auto& r) { return r.second.name == rig; }))
        return fail("There is no rig \"" + rig + "\" in this project.");
    return changePlan(project, study, OpenProject::tr("The rig to pull on"),
                      [&](domain::Plan& p) { p.rig = rig; });
}

Expected<void> tellReach(OpenProject& project, Id studyId, const domain::RigReach& reach) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    auto name = data->study.plan.rig;
    for (int n = 1; name.empty(); ++n) { // nobody's yet
        const auto free = n == 1 ? std::string("Rig") : "Rig " + std::to_string(n);
        const auto all = project.rigs();
        if (std::none_of(all.begin(), all.end(), [&](const auto& r) { return r.second.name == free; }))
            name = free;
    }
    auto setup = newest(project, name);
    if (!setup.address.empty())
        return fail("What \"" + name + "\" can do is set with its connection, in Rig.");
    setup.rigLimit = reach.limit;
    setup.cellLimit = reach.cell;
    setup.travel = reach.travel;
    if (reach.ratio != reachOf(setup).ratio)
        setup.path = {{rig::RatioPart::Kind::plain, reach.ratio, 1, 0, 0, 0}};
    const auto kept = project.file().setups();
    if (!kept) return tl::unexpected(kept.error());
    return done(project.run(OpenProject::tr("What the rig can do"), [&](store::Writer& w) {
        (void)keepSetup(w, *kept, setup);
        auto after = data->study;
        after.plan.rig = name;
        w.change(data->study, after);
    }));
}

bool onlyTold(const OpenProject& project, const rig::Setup& setup) {
    if (!setup.address.empty()) return false;
    const auto& all = project.studies();
    return setup.name == rigOfLogs ||
           std::any_of(all.begin(), all.end(), [&](const auto& s) { return s.study.plan.rig == setup.name; });
}

bool recordedHere(const OpenProject& project, const domain::Pull& pull) {
    if (!pull.curve || !pull.setup) return false;
    const auto setup = project.setupOf(pull.setup);
    return setup && !setup->address.empty();
}

Expected<void> setImportedLimit(OpenProject& project, Id studyId, std::optional<double> limit) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto kept = project.file().setups();
    if (!kept) return tl::unexpected(kept.error());
    return done(project.run(OpenProject::tr("Rig limit of the imported curves"), [&](store::Writer& w) {
        Id setup = 0;
        if (limit) {
            auto told = newest(project, rigOfLogs);
            told.rigLimit = limit;
            setup = keepSetup(w, *kept, told);
        }
        for (const auto& p : data->pulls) {
            if (!p.curve || recordedHere(project, p)) continue;
            auto changed = p;
            changed.settings.rigLimit = limit;
            changed.setup = setup;
            w.change(p, changed);
        }
    }));
}

Expected<void> correctLimit(OpenProject& project, Id studyId, Id setup, std::optional<double> limit) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    if (!setup || std::none_of(data->pulls.begin(), data->pulls.end(),
                               [&](const auto& p) { return p.setup == setup && p.curve; }))
        return fail("No pull of this study was recorded on that set-up.");
    return done(project.run(OpenProject::tr("Rig limit corrected"), [&](store::Writer& w) {
        for (const auto& p : data->pulls) {
            if (p.setup != setup || !p.curve) continue;
            auto changed = p;
            changed.settings.rigLimit = limit;
            w.change(p, changed);
        }
    }));
}

} // namespace anvil::project
