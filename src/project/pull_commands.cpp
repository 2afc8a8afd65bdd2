#include <anvil/project/pull_commands.h>
#include <anvil/words/stands.h>

#include "done.h"

namespace anvil::project {
namespace {

constexpr qint64 mostBytes = 256LL << 20;

const char* word(Handle handle) {
    static constexpr const char* words[] = {"peak",
                                            "first slip",
                                            "break",
                                            "start of the stiffness line",
                                            "end of the stiffness line",
                                            "start of the hold",
                                            "end of the hold"};
    static_assert(std::size(words) == static_cast<std::size_t>(Handle::holdTo) + 1);
    return words[static_cast<int>(handle)];
}

} // namespace

Expected<void> setStanding(OpenProject& project, Id pullId, domain::Standing standing,
                           const QString& reason) {
    const auto* data = project.studyOfPull(pullId);
    if (!data) return fail("There is no such pull any more.");
    if (standing != domain::Standing::counts && reason.trimmed().isEmpty())
        return fail(
            "Say why: a pull is only set apart for a reason that lies in the test, never for its number.");
    const auto* specimen = data->specimen(data->pull(pullId)->specimen);
    return project.changePull(pullId,
                              OpenProject::tr("%1: %2").arg(QString::fromStdString(specimen->label),
                                                            QString::fromUtf8(domain::word(standing))),
                              [&](domain::Pull& p) {
                                  p.standing = standing;
                                  p.outcome.standingSaid = true;
                                  p.reason = standing == domain::Standing::counts
                                                 ? std::string()
                                                 : reason.trimmed().toStdString();
                              });
}

Expected<void> setReadingSettings(OpenProject& project, Id pullId, const curve::ReadingSettings& settings,
                                  const QString& what) {
    return project.changePull(pullId, what, [&](domain::Pull& p) { p.settings = settings; });
}

Expected<void> setLandmark(OpenProject& project, Id pullId, Handle handle,
                           std::optional<curve::Override> value) {
    const auto* data = project.studyOfPull(pullId);
    const auto* pull = data ? data->pull(pullId) : nullptr;
    if (!pull || !pull->curve) return fail("There is no curve to move a landmark on.");
    auto settings = pull->settings;
    switch (handle) {
    case Handle::peak:
        settings.peak = value;
        break;
    case Handle::firstSlip:
        settings.firstSlip = value;
        break;
    case Handle::breakPoint:
        settings.breakPoint = value;
        break;
    case Handle::fitFrom:
    case Handle::fitTo: {
        if (!value) { // the line is found anew as a whole
            settings.fitFrom.reset();
            settings.fitTo.reset();
            break;
        }
        const auto curve = project.readCurve(pullId);
        if (!curve || !(*curve)->reading.stiffness) return fail("There is no stiffness line to move.");
        const auto& reading = (*curve)->reading;
        const auto& t = (*curve)->cleaned.time;
        if (!settings.fitFrom) settings.fitFrom = curve::Override{t[reading.stiffness->fromIndex], false};
        if (!settings.fitTo) settings.fitTo = curve::Override{t[reading.stiffness->toIndex], false};
        (handle == Handle::fitFrom ? settings.fitFrom : settings.fitTo) = value;
        break;
    }
    case Handle::holdFrom:
    case Handle::holdTo:
        if (!value) { // a window has two ends
            settings.holdFrom.reset();
            settings.holdTo.reset();
            break;
        }
        if (!settings.holdFrom || !settings.holdTo) return fail("There is no window to move.");
        (handle == Handle::holdFrom ? settings.holdFrom : settings.holdTo) = value;
        break;
    }
    const auto label = QString::fromStdString(data->specimenAt(pull->specimen).label);
    return setReadingSettings(
        project, pullId, settings,
        value ? OpenProject::tr("%1: move %2").arg(label, QString::fromUtf8(word(handle)))
              : OpenProject::tr("%1: find %2 again").arg(label, QString::fromUtf8(word(handle))));
}

Expected<void> setHold(OpenProject& project, Id pullId, double from, double to) {
    const auto* data = project.studyOfPull(pullId);
    const auto* pull = data ? data->pull(pullId) : nullptr;
    if (!pull || !pull->curve) return fail("There is no curve on which a load was held.");
    if (!(to > from)) return fail("The window in which it was held is empty.");
    auto settings = pull->settings;
    settings.holdFrom = curve::Override{from, false};
    settings.holdTo = curve::Override{to, false};
    return setReadingSettings(project, pullId, settings,
                              OpenProject::tr("%1: where it was held")
                                  .arg(QString::fromStdString(data->specimenAt(pull->specimen).label)));
}

Expected<void> judge(OpenProject& project, Id pullId, const station::Judgement& j) {
    const auto* data = project.studyOfPull(pullId);
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
    const auto follows = domain::standingFollows(*data, outcome);
    const bool same = follows.standing == j.standing.standing && follows.why == j.standing.why &&
                      follows.broke == j.standing.broke;
    const auto set =
        j.standing.derived || same ? domain::Proposal{} : j.standing; // what follows is not frozen
    // The tester said that it counts although something else follows.
    outcome.standingSaid = !j.standing.derived && j.standing.standing == domain::Standing::counts &&
                           follows.standing != domain::Standing::counts;
    return project.changePull(
        pullId, OpenProject::tr("%1: %2").arg(label, QString::fromUtf8(domain::word(j.standing.standing))),
        [&](domain::Pull& p) {
            p.standing = set.standing;
            p.reason = words::whyStands(set);
            p.outcome = outcome;
            p.recording = domain::Recording::done;
        });
}

Expected<void> changeOutcome(OpenProject& project, Id pull, const domain::Outcome& outcome,
                             const QString& what) {
    return project.changePull(pull, what, [&](domain::Pull& p) { p.outcome = outcome; });
}

Expected<void> setPhases(OpenProject& project, Id id, const std::vector<domain::Phase>& phases) {
    const auto* data = project.studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull) return fail("There is no such pull any more.");
    for (const auto& p : phases)
        if (p.name.empty()) return fail("A phase needs a name, such as set, turned, pulled or reset.");
    return project.changePull(
        id, OpenProject::tr("%1: phases").arg(QString::fromStdString(data->specimenAt(pull->specimen).label)),
        [&](domain::Pull& p) { p.outcome.phases = phases; });
}

Expected<Id> attach(OpenProject& project, Id id, const QString& name, const QByteArray& bytes,
                    const QDateTime& madeAt) {
    const auto* data = project.studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull) return fail("Select the pull that the picture belongs to.");
    if (bytes.isEmpty()) return fail(name.toStdString() + " is empty.");
    if (bytes.size() > mostBytes)
        return fail(name.toStdString() +
                    " is larger than 256 MB: shorten the clip, or keep it beside the project.");
    domain::Attachment a;
    a.pull = id;
    // Only a plain name is kept: a path in it could point anywhere when it is saved again.
    a.name = name.section('/', -1).section('\\', -1).toStdString();
    const auto began = QDateTime::fromString(QString::fromStdString(pull->performedAt), Qt::ISODate);
    if (const auto drawn = pull->curve ? project.readCurve(id) : tl::unexpected(Error{});
        drawn && began.isValid() && madeAt.isValid() && !(*drawn)->cleaned.time.empty()) {
        const auto& time = (*drawn)->cleaned.time;
        const double at = time.front() + 0.001 * static_cast<double>(began.msecsTo(madeAt));
        if (at >= time.front() && at <= time.back()) a.at = at;
    }
    const auto file = store::ImportedFile::pack(QString::fromStdString(a.name), bytes);
    Id made = 0;
    auto done = project.run(OpenProject::tr("%1: picture %2")
                                .arg(QString::fromStdString(data->specimenAt(pull->specimen).label),
                                     QString::fromStdString(a.name)),
                            [&](store::Writer& w) {
                                a.file = w.addFile(file);
                                made = w.add(a);
                            });
    if (!done) return done;
    return made;
}

Expected<void> removeAttachment(OpenProject& project, Id id) {
    domain::Attachment gone;
    gone.id = id;
    auto done = project.run(OpenProject::tr("Picture taken away"), [&](store::Writer& w) { w.remove(gone); });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

} // namespace anvil::project
