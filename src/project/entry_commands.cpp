#include <anvil/project/entry_commands.h>

#include "done.h"
#include "hear.h"
#include <algorithm>
#include <anvil/domain/outcomes.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/rig/ratio.h>
#include <anvil/words/stands.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::project {
namespace {

void set(domain::Pull& pull, const domain::Proposal& stands) {
    pull.standing = stands.standing;
    pull.reason = words::whyStands(stands);
}

/// How a pull stands whose number was typed with this bound; how an exact one does follows from what broke.
domain::Proposal asRead(quantity::Bound bound) {
    switch (bound) {
    case quantity::Bound::above:
        return {domain::Standing::atLeast, domain::Because::readAbove};
    case quantity::Bound::below:
        return {domain::Standing::atMost, domain::Because::readBelow};
    case quantity::Bound::between:
        return {domain::Standing::between, domain::Because::heldAndFailed};
    case quantity::Bound::exact:
        break;
    }
    return {};
}

/// How the pull stands by what follows from its entry.
void apply(domain::Pull& pull, const results::Told& told) {
    // What the tester set aside or voided stays so, whatever is added to it.
    if (pull.id && (pull.standing == domain::Standing::aside || pull.standing == domain::Standing::voided))
        return;
    set(pull, told.stands);
}

/// The fields of an entry in a line: "4.2 N·m, 1.1 N·m".
QString lineOf(const domain::Entered& entered) {
    QStringList all;
    for (const auto& f : entered.fields)
        all << QString::fromStdString(f.text);
    return all.join(QStringLiteral(", "));
}

const domain::Pull* pullOf(const domain::StudyData& data, Id specimen) {
    const auto at = std::find_if(data.pulls.begin(), data.pulls.end(),
                                 [&](const domain::Pull& p) { return p.specimen == specimen; });
    return at == data.pulls.end() ? nullptr : &*at;
}

Expected<Id> keepEntered(OpenProject& project, const domain::Pull& pull, const QString& what) {
    Id id = pull.id;
    const auto* data = id ? project.studyOfPull(id) : nullptr;
    const auto* before = data ? data->pull(id) : nullptr;
    if (id && !before) return fail("There is no such pull any more.");
    auto done = project.run(what, [&](store::Writer& w) {
        if (before)
            w.change(*before, pull);
        else
            id = w.add(pull);
    });
    if (!done) return done;
    return id;
}

bool hasLoad(const methods::Method& method, const std::vector<domain::FieldText>& fields) {
    return std::any_of(fields.begin(), fields.end(), [&](const domain::FieldText& f) {
        const auto* input = methods::inputNamed(method, f.key);
        return input && results::readOffDisplay(*input) &&
               f.text.find_first_not_of(" \t") != std::string::npos;
    });
}

} // namespace

std::optional<DisplayPath> pathOf(const OpenProject& project, const domain::StudyData& data) {
    const auto all = project.rigs(); // the one set up last stands last
    const auto& named = data.study.plan.rig;
    const auto at = std::find_if(all.rbegin(), all.rend(),
                                 [&](const auto& r) { return named.empty() || r.second.name == named; });
    if (at == all.rend()) return std::nullopt;
    const auto& setup = at->second;
    const auto ratio = rig::ratioOf(setup.path);
    const bool load = setup.shows == quantity::Dimension::force;
    if (!ratio ||
        (load && std::abs(ratio->value - 1) < 1e-9 && ratio->offset == 0 && setup.calibration.points.empty()))
        return std::nullopt;
    return DisplayPath{
        setup.name,
        {ratio->value, ratio->offset, ratio->uncertainty, setup.shows, setup.calibration.points},
        rig::displayTrouble(setup),
        at->first};
}

std::string nobodySaid(const DisplayPath& path) {
    return fmt::format("The rig \"{}\" stands between: {}. Say first whether loads are read off the display "
                       "or are those at the piece.",
                       path.rig, domain::standsBetween(path.through));
}

Expected<std::optional<domain::ReadThrough>> readThrough(const OpenProject& project,
                                                         const domain::StudyData& data) {
    const auto path = pathOf(project, data);
    if (!path || data.study.plan.readAt == "piece") return std::optional<domain::ReadThrough>{};
    if (data.study.plan.readAt != "display") return fail(nobodySaid(*path));
    if (!path->trouble.empty()) return fail(fmt::format("The rig \"{}\": {}", path->rig, path->trouble));
    return std::optional(path->through);
}

quantity::Dimension typedIn(const OpenProject& project, const domain::StudyData& data) {
    const auto dimension = results::typedMetric(data)->dimension;
    const auto through = readThrough(project, data);
    const bool display = dimension == quantity::Dimension::force && through && *through;
    return display ? (*through)->shows : dimension;
}

quantity::Dimension typedIn(const OpenProject& project, const domain::StudyData& data,
                            const methods::Input& input) {
    const auto through = readThrough(project, data);
    return results::typedAs(input, through ? *through : std::nullopt);
}

Expected<void> setReadAt(OpenProject& project, Id study, const std::string& where) {
    if (where != "display" && where != "piece")
        return fail("Loads are read off the display, or are those at the piece.");
    return project.changeStudy(study,
                               where == "display" ? OpenProject::tr("Loads are read off the display")
                                                  : OpenProject::tr("Loads are those at the piece"),
                               [&](domain::Study& s) { s.plan.readAt = where; });
}

Expected<Id> addTypedPull(OpenProject& project, const TypedPull& typed) {
    const domain::StudyData* data = nullptr;
    for (const auto& s : project.studies())
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
        set(p, {domain::Standing::notRead, domain::Because::numberLost});
    } else {
        if (metric->dimension == quantity::Dimension::force) {
            const auto path = readThrough(project, *data);
            if (!path) return tl::unexpected(path.error());
            p.outcome.path = *path;
        }
        const auto entry = quantity::parseEntry(
            typed.text, p.outcome.path ? p.outcome.path->shows : metric->dimension, typed.fallback);
        if (!entry) return tl::unexpected(entry.error());
        if (entry->si < 0) return fail("A strength below zero cannot be.");
        project.heard(data->study.id, *entry->unit);
        p.typed = domain::TypedValue{metric, entry->si, entry->upperSi, quantity::print(*entry)};
        set(p, asRead(entry->bound));
    }
    const auto label = QString::fromStdString(data->specimenAt(typed.specimen).label);
    Id made = 0;
    const auto what = p.typed ? QString::fromStdString(p.typed->asTyped) : OpenProject::tr("number lost");
    auto entry =
        project.run(OpenProject::tr("%1: %2").arg(label, what), [&](store::Writer& w) { made = w.add(p); });
    if (!entry) return entry;
    return made;
}

Expected<Id> addEntry(OpenProject& project, const FilledForm& entry) {
    const auto* data = project.studyOfSpecimen(entry.specimen);
    if (!data) return fail("There is no piece that this result could belong to.");
    const auto& method = results::methodOf(*data, data->specimenAt(entry.specimen));
    domain::Pull pull;
    if (entry.pull) {
        const auto* known = data->pull(entry.pull);
        if (!known) return fail("There is no such pull any more.");
        pull = *known;
    }
    if (!pull.outcome.path && hasLoad(method, entry.fields)) {
        const auto path = readThrough(project, *data);
        if (!path) return tl::unexpected(path.error());
        pull.outcome.path = *path;
    }
    const auto entered = results::enteredFrom(method, entry.fields, entry.unitOf, pull.outcome.path);
    if (!entered) return tl::unexpected(entered.error());
    hear(project, data->study.id, method, entered->fields);
    pull.specimen = entry.specimen;
    pull.performedAt = entry.performedAt;
    pull.operatorName = entry.operatorName;
    pull.sourceName = "entered at the bench";
    pull.outcome.part = entry.part;
    pull.practice = data->study.plan.practice;
    pull.outcome.entered = *entered;
    if (!entry.note.empty()) pull.note = entry.note;
    const auto told = results::told(*data, pull);
    if (!told) return tl::unexpected(told.error());
    apply(pull, *told);
    return keepEntered(
        project, pull,
        OpenProject::tr("%1: %2").arg(QString::fromStdString(data->specimenAt(entry.specimen).label),
                                      lineOf(pull.outcome.entered)));
}

Expected<Id> addLadderStep(OpenProject& project, Id specimen, const domain::LadderStep& step,
                           const std::string& performedAt, const std::string& operatorName) {
    const auto* data = project.studyOfSpecimen(specimen);
    if (!data) return fail("There is no piece to hang it on.");
    domain::Pull pull;
    if (const auto* known = pullOf(*data, specimen)) {
        if (known->outcome.entered.steps.empty())
            return fail("This piece has a result of another kind already.");
        pull = *known;
    }
    auto& steps = pull.outcome.entered.steps;
    if (!steps.empty() && !steps.back().held)
        return fail("This piece has let go already: take the next one.");
    if (steps.empty() && !step.distance) { // on a lever of its own it says where it hangs
        const auto path = readThrough(project, *data);
        if (!path) return tl::unexpected(path.error());
        if (*path && (*path)->shows != quantity::Dimension::force)
            return fail("Steps are told as loads, and the display shows none: say that they are those at the "
                        "piece.");
        pull.outcome.path = *path;
    }
    steps.push_back(step);
    pull.specimen = specimen;
    const auto told = results::told(*data, pull);
    if (!told) return tl::unexpected(told.error());
    if (!pull.id) pull.performedAt = performedAt;
    pull.operatorName = operatorName;
    pull.sourceName = "step by step";
    pull.practice = data->study.plan.practice;
    apply(pull, *told);
    return keepEntered(project, pull,
                       OpenProject::tr("%1: step %2 %3")
                           .arg(QString::fromStdString(data->specimenAt(specimen).label))
                           .arg(steps.size())
                           .arg(step.held ? OpenProject::tr("held") : OpenProject::tr("let go")));
}

Expected<void> takeBackLadderStep(OpenProject& project, Id id) {
    const auto* data = project.studyOfPull(id);
    const auto* known = data ? data->pull(id) : nullptr;
    if (!known || known->outcome.entered.steps.empty()) return fail("There is no step to take back.");
    auto pull = *known;
    const auto what = OpenProject::tr("%1: last step taken back")
                          .arg(QString::fromStdString(data->specimenAt(pull.specimen).label));
    pull.outcome.entered.steps.pop_back();
    Expected<Id> done = Id{0};
    if (pull.outcome.entered.steps.empty()) {
        done = project.run(what, [&](store::Writer& w) { w.remove(pull); });
    } else {
        const auto told = results::told(*data, pull);
        if (!told) return tl::unexpected(told.error());
        apply(pull, *told);
        done = keepEntered(project, pull, what);
    }
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

Expected<void> ladderBroke(OpenProject& project, Id id, const std::string& part) {
    const auto* data = project.studyOfPull(id);
    const auto* known = data ? data->pull(id) : nullptr;
    if (!known) return fail("There is no such pull any more.");
    auto pull = *known;
    pull.outcome.part = part;
    auto proposal = domain::proposeStanding(*data, nullptr, part, domain::Limit::broke);
    if (proposal.standing != domain::Standing::counts) {
        const bool held =
            pull.standing == domain::Standing::between || pull.standing == domain::Standing::atLeast;
        if (!held)
            proposal.standing = domain::Standing::aside, proposal.why = domain::Because::otherPartAtOnce;
        set(pull, proposal);
    }
    const auto done = keepEntered(project, pull,
                                  OpenProject::tr("%1: %2 let go")
                                      .arg(QString::fromStdString(data->specimenAt(pull.specimen).label),
                                           QString::fromStdString(part)));
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

Expected<Id> addGaugeReading(OpenProject& project, Id specimen, const domain::GaugeReading& reading,
                             bool unloaded, const std::string& operatorName) {
    const auto* data = project.studyOfSpecimen(specimen);
    if (!data) return fail("There is no piece whose gauge this is.");
    domain::Pull pull;
    if (const auto* known = pullOf(*data, specimen)) {
        if (known->outcome.entered.gauge.empty())
            return fail("This piece has a result of another kind already.");
        pull = *known;
    }
    auto& e = pull.outcome.entered;
    if (!e.gauge.empty() && !(reading.at > e.gauge.back().at))
        return fail("Every reading must be later than the one before.");
    if (unloaded && e.gauge.size() < 2)
        return fail("Creep needs at least two readings under load before it is unloaded.");
    e.gauge.push_back(reading);
    if (unloaded && !e.unloadedFrom) e.unloadedFrom = reading.at;
    const auto when = QDateTime::fromSecsSinceEpoch(static_cast<qint64>(reading.at)).toString(Qt::ISODate);
    pull.specimen = specimen;
    if (!pull.id) pull.performedAt = when.toStdString();
    pull.operatorName = operatorName;
    pull.sourceName = "gauge";
    pull.practice = data->study.plan.practice;
    if (const auto told = results::told(*data, pull)) {
        apply(pull, *told);
    } else if (!pull.id) {
        set(pull, {domain::Standing::notRead, domain::Because::oneGaugeReading});
    }
    return keepEntered(
        project, pull,
        OpenProject::tr("%1: gauge read").arg(QString::fromStdString(data->specimenAt(specimen).label)));
}

} // namespace anvil::project
