// Commands for results that are no curve, and for pictures kept with pulls.
#include <anvil/work/open_project.h>

#include <algorithm>
#include <anvil/domain/outcomes.h>
#include <anvil/results/evidence.h>

namespace anvil::work {
namespace {

constexpr qint64 mostBytes = 256LL << 20;

/// How the pull stands by what follows from its entry.
void apply(domain::Pull& pull, const results::Told& told) {
    // What the tester set aside or voided stays so, whatever is added to it.
    if (pull.id && (pull.standing == domain::Standing::aside || pull.standing == domain::Standing::voided))
        return;
    pull.standing = told.standing;
    pull.reason = told.reason;
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

} // namespace

const domain::StudyData* OpenProject::studyOfSpecimen(Id specimen) const {
    for (const auto& s : m_studies)
        if (s.specimen(specimen)) return &s;
    return nullptr;
}

Expected<Id> OpenProject::keepEntered(const domain::Pull& pull, const QString& what) {
    Id id = pull.id;
    const auto* data = id ? studyOfPull(id) : nullptr;
    const auto* before = data ? data->pull(id) : nullptr;
    if (id && !before) return fail("There is no such pull any more.");
    auto done = run(what, [&](store::Writer& w) {
        if (before)
            w.change(*before, pull);
        else
            id = w.add(pull);
    });
    if (!done) return done;
    return id;
}

Expected<Id> OpenProject::addEntry(const Entry& entry) {
    const auto* data = studyOfSpecimen(entry.specimen);
    if (!data) return fail("There is no piece that this result could belong to.");
    const auto entered = results::enteredFrom(results::methodOf(*data, data->specimenAt(entry.specimen)),
                                              entry.fields, entry.unitOf);
    if (!entered) return tl::unexpected(entered.error());
    domain::Pull pull;
    if (entry.pull) {
        const auto* known = data->pull(entry.pull);
        if (!known) return fail("There is no such pull any more.");
        pull = *known;
    }
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
    if (pull.standing == domain::Standing::counts && !entry.part.empty()) {
        const auto proposal = domain::proposeStanding(*data, nullptr, entry.part, domain::Limit::broke);
        pull.standing = proposal.standing;
        pull.reason = proposal.reason;
    }
    return keepEntered(pull, tr("%1: %2").arg(QString::fromStdString(data->specimenAt(entry.specimen).label),
                                              lineOf(pull.outcome.entered)));
}

Expected<Id> OpenProject::addLadderStep(Id specimen, const domain::LadderStep& step,
                                        const std::string& performedAt, const std::string& operatorName) {
    const auto* data = studyOfSpecimen(specimen);
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
    steps.push_back(step);
    pull.specimen = specimen;
    const auto told = results::told(*data, pull);
    if (!told) return tl::unexpected(told.error());
    if (!pull.id) pull.performedAt = performedAt;
    pull.operatorName = operatorName;
    pull.sourceName = "step by step";
    pull.practice = data->study.plan.practice;
    apply(pull, *told);
    return keepEntered(pull, tr("%1: step %2 %3")
                                 .arg(QString::fromStdString(data->specimenAt(specimen).label))
                                 .arg(steps.size())
                                 .arg(step.held ? tr("held") : tr("let go")));
}

Expected<void> OpenProject::ladderBroke(Id id, const std::string& part) {
    const auto* data = studyOfPull(id);
    const auto* known = data ? data->pull(id) : nullptr;
    if (!known) return fail("There is no such pull any more.");
    auto pull = *known;
    pull.outcome.part = part;
    const auto proposal = domain::proposeStanding(*data, nullptr, part, domain::Limit::broke);
    if (proposal.standing != domain::Standing::counts) {
        const bool held =
            pull.standing == domain::Standing::between || pull.standing == domain::Standing::atLeast;
        pull.standing = held ? proposal.standing : domain::Standing::aside;
        pull.reason = held ? proposal.reason : proposal.reason + " Nothing had been held.";
    }
    const auto done =
        keepEntered(pull, tr("%1: %2 let go")
                              .arg(QString::fromStdString(data->specimenAt(pull.specimen).label),
                                   QString::fromStdString(part)));
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

Expected<void> OpenProject::takeBackLadderStep(Id id) {
    const auto* data = studyOfPull(id);
    const auto* known = data ? data->pull(id) : nullptr;
    if (!known || known->outcome.entered.steps.empty()) return fail("There is no step to take back.");
    auto pull = *known;
    const auto what =
        tr("%1: last step taken back").arg(QString::fromStdString(data->specimenAt(pull.specimen).label));
    pull.outcome.entered.steps.pop_back();
    Expected<Id> done = Id{0};
    if (pull.outcome.entered.steps.empty()) {
        done = run(what, [&](store::Writer& w) { w.remove(pull); });
    } else {
        const auto told = results::told(*data, pull);
        if (!told) return tl::unexpected(told.error());
        apply(pull, *told);
        done = keepEntered(pull, what);
    }
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

Expected<Id> OpenProject::addGaugeReading(Id specimen, const domain::GaugeReading& reading, bool unloaded,
                                          const std::string& operatorName) {
    const auto* data = studyOfSpecimen(specimen);
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
        pull.standing = domain::Standing::notRead;
        pull.reason = "One gauge reading so far.";
    }
    return keepEntered(pull,
                       tr("%1: gauge read").arg(QString::fromStdString(data->specimenAt(specimen).label)));
}

Expected<void> OpenProject::setPhases(Id id, const std::vector<domain::Phase>& phases) {
    const auto* data = studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull) return fail("There is no such pull any more.");
    for (const auto& p : phases)
        if (p.name.empty()) return fail("A phase needs a name, such as set, turned, pulled or reset.");
    return changePull(id,
                      tr("%1: phases").arg(QString::fromStdString(data->specimenAt(pull->specimen).label)),
                      [&](domain::Pull& p) { p.outcome.phases = phases; });
}

Expected<Id> OpenProject::attach(Id id, const QString& name, const QByteArray& bytes,
                                 const QDateTime& madeAt) {
    const auto* data = studyOfPull(id);
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
    if (const auto drawn = pull->curve ? readCurve(id) : tl::unexpected(Error{});
        drawn && began.isValid() && madeAt.isValid() && !(*drawn)->cleaned.time.empty()) {
        const auto& time = (*drawn)->cleaned.time;
        const double at = time.front() + 0.001 * static_cast<double>(began.msecsTo(madeAt));
        if (at >= time.front() && at <= time.back()) a.at = at;
    }
    const auto file = store::ImportedFile::pack(QString::fromStdString(a.name), bytes);
    Id made = 0;
    auto done = run(tr("%1: picture %2")
                        .arg(QString::fromStdString(data->specimenAt(pull->specimen).label),
                             QString::fromStdString(a.name)),
                    [&](store::Writer& w) {
                        a.file = w.addFile(file);
                        made = w.add(a);
                    });
    if (!done) return done;
    return made;
}

Expected<void> OpenProject::removeAttachment(Id id) {
    domain::Attachment gone;
    gone.id = id;
    auto done = run(tr("Picture taken away"), [&](store::Writer& w) { w.remove(gone); });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

std::vector<curve::Channel> OpenProject::legs(Id id) {
    const auto* data = studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull || !pull->curve || !m_file->hasMoreChannels(pull->curve).value_or(false)) return {};
    const auto raw = m_file->curve(pull->curve);
    const auto drawn = readCurve(id);
    if (!raw || !drawn) return {};
    std::vector<curve::Channel> out;
    for (const auto& o : raw->others)
        if (o.unit == "N")
            out.push_back({o.name, o.unit, curve::resampled(raw->time, o.values, (*drawn)->cleaned.time)});
    return out;
}

std::vector<curve::Steady> OpenProject::steadyAtMarks(Id id) {
    std::vector<curve::Steady> out;
    const auto* data = studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull || !pull->curve || pull->outcome.marks.empty() ||
        !m_file->hasMoreChannels(pull->curve).value_or(false))
        return out;
    if (m_steady.pull == id && m_steady.marks == pull->outcome.marks) return m_steady.values;
    const auto curve = m_file->curve(pull->curve);
    if (!curve) return out;
    for (const auto& m : pull->outcome.marks)
        if (auto steady = curve::steadyAt(*curve, m.at)) out.push_back(std::move(*steady));
    m_steady = {id, pull->outcome.marks, out};
    return out;
}

} // namespace anvil::work
