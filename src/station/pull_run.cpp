#include <anvil/station/pull_run.h>

#include <anvil/domain/joints.h>
#include <anvil/domain/outcomes.h>
#include <anvil/plan/next.h>
#include <anvil/quantity/unit.h>

namespace anvil::station {
namespace {

using domain::Specimen;
using domain::StudyData;

/// Of the method, its kinds of piece and the study's own.
QStringList cautionLines(const StudyData& study) {
    QStringList out;
    for (const auto& c : domain::cautionsOf(study))
        out << QString::fromStdString(c);
    for (const auto& c : study.study.plan.cautions)
        out << QString::fromStdString(c);
    return out;
}

/// The kind of the piece that is due; of the first option where none is.
std::string kindOf(const StudyData& study, const Specimen* piece) {
    const auto* option = piece ? study.option(piece->option) : nullptr;
    return option ? option->kind : study.options.empty() ? std::string() : study.options.front().kind;
}

} // namespace

Expected<domain::Pull> pullFor(const StudyData& study, const Specimen& piece, const Station& station,
                               const Circumstances& circumstances) {
    if (station.setup.practice != study.study.plan.practice)
        return fail(station.setup.practice
                        ? "This is the virtual bench: it pulls in the practice study only."
                        : "This is the practice study: it is pulled on the virtual bench only.");
    domain::Pull pull;
    pull.specimen = piece.id;
    pull.setup = station.setupId;
    pull.practice = station.setup.practice;
    pull.performedAt = circumstances.at;
    pull.sourceName = station.setup.name;
    pull.operatorName = circumstances.operatorName;
    pull.settings.rigLimit = rig::limitOf(station.setup);
    return pull;
}

rig::RecorderSettings recorderFor(const rig::Setup& setup) {
    rig::RecorderSettings settings;
    settings.limit = rig::limitOf(setup);
    settings.holdSeconds = setup.holdSeconds;
    if (rig::recordedLoad(setup) == quantity::Dimension::torque) settings.leastStart = 0.02; // N·m
    return settings;
}

PullRun::PullRun(LiveBench& bench) : m_bench(bench), m_nearTimes(bench.live().nearLimitTimes) {}

const Specimen* PullRun::next(const StudyData& study) const { return plan::nextSpecimen(study, m_skipped); }

void PullRun::setRules(const StudyData& study, const Station& station) {
    m_flow.setRules(domain::endNames(study, study.specimen(m_piece)), station.setup.lookEvery);
}

void PullRun::studyChanged(const StudyData& study, const Station& station, qint64 now) {
    if (m_study != study.study.id) {
        m_study = study.study.id;
        m_skipped.clear();
        m_setup = 0; // another study has its own cautions
    }
    const auto* piece = next(study);
    setRules(study, station);
    m_flow.setPieces(domain::breakableParts(study),
                     domain::failureModes(kindOf(study, m_pull ? study.specimen(m_piece) : piece)),
                     piece != nullptr, now);
    const auto step = m_flow.step();
    if (piece && (step == PullStep::ready || step == PullStep::zero || step == PullStep::noRig ||
                  step == PullStep::safety || m_piece == 0))
        m_piece = piece->id;
    rigChanged(study, station, now);
}

void PullRun::rigChanged(const StudyData& study, const Station& station, qint64 now) {
    if (m_setup == station.setupId) return;
    m_setup = station.setupId;
    m_flow.restart(cautionLines(study), station.safetySeen, now);
    setRules(study, station);
}

void PullRun::end(std::vector<Event>& events, const Live& live) {
    for (const auto& trouble : troublesBetween(m_atStart, live)) {
        m_marks.push_back({live.time, trouble.toStdString()});
        events.push_back({Event::Kind::trouble, trouble});
    }
    m_bench.reset();
    const auto after = m_bench.live(); // only now is it known what became of it
    m_pull = after.pull;
    if (after.saved) {
        events.push_back({Event::Kind::saved, m_diskTrouble});
    } else {
        const auto why = after.trouble.isEmpty() ? m_diskTrouble : after.trouble;
        const auto held = after.pull ? QObject::tr("Not all of this pull is in the project")
                                     : QObject::tr("This pull is not in the project");
        events.push_back(
            {Event::Kind::notSaved,
             after.taped
                 ? QObject::tr("%1 (%2). What was recorded lies beside it and is brought in when the "
                               "project is opened again.")
                       .arg(held, why)
                 : QObject::tr("%1 (%2), and nothing could be written beside it either: %3 of %4 samples "
                               "are saved, the others are lost.")
                       .arg(held, why)
                       .arg(after.committed)
                       .arg(after.recorded)});
    }
    m_diskTrouble.clear();
    m_inMemory = false;
    events.push_back({Event::Kind::ended});
}

void PullRun::watchDisk(std::vector<Event>& events, const Live& live) {
    if (live.trouble.isEmpty() || live.saved) return;
    const bool memory = !live.tapeTrouble.isEmpty();
    if (!m_diskTrouble.isEmpty() && (m_inMemory || !memory)) return; // said
    m_diskTrouble = live.trouble;
    m_inMemory = memory;
    if (memory)
        events.push_back(
            {Event::Kind::onlyInMemory,
             QObject::tr("Neither the project nor the folder beside it takes anything (%1). What is "
                         "recorded is only in memory: make room on the disk now.")
                 .arg(live.trouble)});
    else
        events.push_back(
            {Event::Kind::disk,
             QObject::tr("The project takes nothing at the moment (%1). What is recorded lies beside "
                         "it meanwhile, and it is tried again.")
                 .arg(live.trouble)});
}

std::vector<Event> PullRun::follow(qint64 now) {
    std::vector<Event> events;
    const auto live = m_bench.live();
    const auto before = m_flow.step();
    if (live.nearLimitTimes > m_nearTimes) events.push_back({Event::Kind::nearLimit});
    m_nearTimes = std::max(m_nearTimes, live.nearLimitTimes);
    m_flow.follow(live, now);
    const auto after = m_flow.step();
    watchDisk(events, live);
    if (before == after) return events;
    if (before == PullStep::ready || before == PullStep::armed) m_atStart = live;
    if (before == PullStep::saving && after == PullStep::part) end(events, live);
    const bool underWay =
        before == PullStep::loading || before == PullStep::look || before == PullStep::saving;
    if (underWay && after == PullStep::noRig) {
        m_diskTrouble.clear();
        events.push_back({Event::Kind::ended});
    }
    if (after == PullStep::look) m_bench.pause(true);
    // Also where nobody saw anything of the waiting for load.
    if (before == PullStep::ready &&
        (after == PullStep::armed || after == PullStep::loading || after == PullStep::saving))
        events.push_back({Event::Kind::armed});
    if (after == PullStep::look) events.push_back({Event::Kind::look});
    if (after == PullStep::saving) events.push_back({Event::Kind::broke});
    return events;
}

PullAction PullRun::space(const StudyData& study, const Station& station, qint64 now) {
    return carryOut(m_flow.space(now), study, station, now);
}

PullAction PullRun::digit(int n, const StudyData& study, const Station& station, qint64 now) {
    return carryOut(m_flow.digit(n, now), study, station, now);
}

PullAction PullRun::carryOut(PullAction action, const StudyData& study, const Station& station, qint64 now) {
    switch (action) {
    case PullAction::zero:
        m_bench.zero();
        break;
    case PullAction::stop:
        m_bench.stop();
        break;
    case PullAction::resume:
        m_bench.pause(false);
        break;
    case PullAction::mark:
        m_marks.push_back({m_bench.live().time, {}});
        break;
    case PullAction::anotherPiece:
        if (const auto* piece = next(study)) m_skipped.insert(piece->id);
        if (!next(study)) m_skipped.clear(); // round again
        studyChanged(study, station, now);
        break;
    case PullAction::arm:
    case PullAction::accept:
    case PullAction::nothing:
        return action;
    }
    return PullAction::nothing;
}

Expected<void> PullRun::arm(store::Project& project, const StudyData& study, const Station& station,
                            const Circumstances& circumstances) {
    const auto* piece = next(study);
    if (!piece) return fail("No piece is left to be pulled.");
    if (auto trouble = rig::armingTrouble(station.setup); !trouble.empty()) return fail(std::move(trouble));
    m_marks.clear();
    m_diskTrouble.clear();
    m_inMemory = false;
    m_pull = 0;
    m_piece = piece->id;
    setRules(study, station);
    const auto pull = pullFor(study, *piece, station, circumstances);
    if (!pull) return tl::unexpected(pull.error());
    if (const auto* option = study.option(piece->option); option && circumstances.strength)
        m_bench.send(QStringLiteral("!strength %1").arg(circumstances.strength(option->position)));
    m_bench.arm(project, *pull, recorderFor(station.setup));
    return {};
}

void PullRun::propose(const StudyData& study, const curve::Reading* reading) {
    m_flow.propose(domain::proposeStanding(study, reading, m_flow.part(), m_flow.limit()));
}

Judgement PullRun::judgement() const {
    Judgement j;
    j.part = m_flow.part();
    j.mode = m_flow.how();
    j.limit = m_flow.limit();
    j.standing = m_flow.proposal();
    j.marks = m_marks;
    j.end = m_flow.end();
    j.afterwards = m_flow.afterwards();
    j.whileUnloading = m_flow.whileUnloading();
    return j;
}

void PullRun::accepted(const StudyData& study, const Station& station, qint64 now) {
    m_skipped.clear();
    m_pull = 0;
    m_marks.clear();
    m_flow.accepted(now);
    studyChanged(study, station, now);
}

} // namespace anvil::station
