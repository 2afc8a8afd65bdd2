#include <anvil/station/pull_flow.h>
#include <anvil/words/stands.h>

#include <cmath>
#include <utility>

namespace anvil::station {
namespace {
constexpr int firstAfterwards = 6; ///< the digit of the first of domain::afterwardsOffered
}

void PullFlow::go(PullStep step, qint64 now) {
    if (step == m_step) return;
    m_step = step;
    m_since = now;
}

PullStep PullFlow::afterSafety() const {
    return !m_pieceLeft ? PullStep::finished : !m_zeroed || m_off ? PullStep::zero : PullStep::ready;
}

void PullFlow::restart(const QStringList& cautions, bool safe, qint64 now) {
    m_cautions = cautions;
    m_seen = safe ? cautions.size() : 0;
    m_zeroed = false;
    go(!m_connected ? PullStep::noRig : safetyDone() ? afterSafety() : PullStep::safety, now);
}

void PullFlow::setPieces(const std::vector<std::string>& parts, const std::vector<std::string>& modes,
                         bool pieceLeft, qint64 now) {
    m_parts = parts;
    m_modes = modes;
    m_pieceLeft = pieceLeft;
    if (m_step == PullStep::ready && !pieceLeft) go(PullStep::finished, now);
    if (m_step == PullStep::finished && pieceLeft) go(afterSafety(), now);
}

void PullFlow::setRules(std::vector<std::string> ends, double lookEvery) {
    m_ends = std::move(ends);
    m_lookEvery = lookEvery;
}

void PullFlow::begin() {
    m_part.clear();
    m_how.clear();
    m_end = 0;
    m_afterwards.clear();
    m_unloading = false;
    m_nextLook = m_lookEvery;
}

void PullFlow::broken(qint64 now) { go(m_ends.size() > 1 ? PullStep::end : PullStep::accept, now); }

/// A short pull may be armed, begin and end between two looks.
void PullFlow::take(const Live& live, qint64 now) {
    switch (live.recorder) {
    case rig::RecorderState::armed:
        return go(PullStep::armed, now);
    case rig::RecorderState::loading:
        begin();
        return go(PullStep::loading, now);
    case rig::RecorderState::done:
        begin();
        return go(PullStep::saving, now);
    case rig::RecorderState::idle:
        return go(m_connected ? PullStep::ready : PullStep::noRig, now);
    }
}

namespace {
/// Its link was closed by hand in mid-pull: what was recorded is in the project, to be judged there.
bool lostRig(const Live& live) {
    return live.link == LinkState::none && live.recorder == rig::RecorderState::idle;
}
} // namespace

void PullFlow::follow(const Live& live, qint64 now) {
    const bool armedSince = live.armings != std::exchange(m_armings, live.armings);
    m_connected = live.link == LinkState::connected;
    m_zeroed = m_zeroed || live.zeroedAt >= 0;
    m_off = live.offZero;
    switch (m_step) {
    case PullStep::noRig:
        if (m_connected) go(safetyDone() ? afterSafety() : PullStep::safety, now);
        return;
    case PullStep::safety:
    case PullStep::finished:
        if (!m_connected) go(PullStep::noRig, now);
        return;
    case PullStep::zero:
        if (!m_connected)
            go(PullStep::noRig, now);
        else if (m_zeroed && !m_off)
            go(afterSafety(), now);
        return;
    case PullStep::ready:
        if (!m_connected)
            go(PullStep::noRig, now);
        else if (armedSince || live.recorder == rig::RecorderState::armed)
            take(live, now);
        return;
    case PullStep::armed:
        return take(live, now);
    case PullStep::loading:
        if (lostRig(live)) return go(PullStep::noRig, now);
        if (live.recorder == rig::RecorderState::done) {
            go(PullStep::saving, now);
        } else if (m_lookEvery > 0 && live.load >= m_nextLook) {
            m_nextLook = (std::floor(live.load / m_lookEvery) + 1) * m_lookEvery;
            go(PullStep::look, now);
        }
        return;
    case PullStep::look:
        if (lostRig(live)) return go(PullStep::noRig, now);
        if (live.recorder == rig::RecorderState::done) go(PullStep::saving, now);
        return;
    case PullStep::saving:
        if (lostRig(live)) return go(PullStep::noRig, now);
        // What cannot be saved at the moment is tried again for a while.
        if (!live.saved && (live.trouble.isEmpty() || now - m_since < savePatienceMs)) return;
        m_limit = live.overload ? domain::Limit::toppedOut
                  : live.ending == rig::Ending::linkLost || live.ending == rig::Ending::cannotSave
                      ? domain::Limit::linkLost
                  : live.ending == rig::Ending::stopped || live.ending == rig::Ending::held
                      ? domain::Limit::stopped
                      : domain::Limit::broke;
        go(PullStep::part, now);
        return;
    case PullStep::part:
    case PullStep::how:
    case PullStep::limit:
    case PullStep::end:
    case PullStep::accept:
        break; // judging goes on whatever the rig does
    }
}

PullAction PullFlow::space(qint64 now) {
    if (now - m_since < guardMs) return PullAction::nothing;
    switch (m_step) {
    case PullStep::safety:
        ++m_seen;
        m_since = now; // every caution takes its time
        if (safetyDone()) go(afterSafety(), now);
        return PullAction::nothing;
    case PullStep::zero:
        m_since = now;
        return PullAction::zero;
    case PullStep::ready:
        return PullAction::arm;
    case PullStep::armed:
    case PullStep::loading:
        m_since = now;
        return PullAction::stop;
    case PullStep::look:
        go(PullStep::loading, now);
        return PullAction::resume;
    case PullStep::limit:
    case PullStep::end:
        return digit(1, now);
    case PullStep::part: // the likeliest
        return digit(m_limit == domain::Limit::broke ? 1 : 9, now);
    case PullStep::how:
        return digit(1, now);
    case PullStep::accept:
        return PullAction::accept;
    case PullStep::noRig:
    case PullStep::saving:
    case PullStep::finished:
        break;
    }
    return PullAction::nothing;
}

PullAction PullFlow::digit(int n, qint64 now) {
    // At any instant: the guard is for decisions.
    if (m_step == PullStep::loading || (m_step == PullStep::look && n != 9)) return PullAction::mark;
    if (now - m_since < guardMs) return PullAction::nothing;
    const auto at = static_cast<std::size_t>(n - 1);
    switch (m_step) {
    case PullStep::ready:
        return n == 9 ? PullAction::anotherPiece : PullAction::nothing;
    case PullStep::part:
        if (n == 9) {
            m_part.clear();
            m_how.clear();
            go(m_limit == domain::Limit::linkLost ? PullStep::accept : PullStep::limit, now);
        } else if (n >= 1 && at < m_parts.size()) {
            m_part = m_parts[at];
            go(PullStep::how, now);
        }
        return PullAction::nothing;
    case PullStep::how:
        if (n == 0) go(PullStep::part, now);
        if (n >= 1 && at < m_modes.size()) {
            m_how = m_modes[at];
            if (m_limit != domain::Limit::linkLost) m_limit = domain::Limit::broke;
            broken(now);
        }
        return PullAction::nothing;
    case PullStep::look:
        if (n == 9) {
            go(PullStep::loading, now);
            return PullAction::stop;
        }
        return PullAction::nothing;
    case PullStep::limit:
        if (n == 0) go(PullStep::part, now);
        if (n >= 1 && at < domain::limitsWithoutBreak().size()) {
            m_limit = domain::limitsWithoutBreak()[at];
            go(PullStep::accept, now);
        }
        return PullAction::nothing;
    case PullStep::end:
        if (n == 0) go(PullStep::part, now);
        if (n >= 1 && at < m_ends.size()) {
            m_end = n;
            go(PullStep::accept, now);
        }
        return PullAction::nothing;
    case PullStep::accept:
        if (n == 0) go(PullStep::part, now);
        judge(n);
        return PullAction::nothing;
    case PullStep::noRig:
    case PullStep::safety:
    case PullStep::zero:
    case PullStep::armed:
    case PullStep::loading:
    case PullStep::saving:
    case PullStep::finished:
        break;
    }
    return PullAction::nothing;
}

void PullFlow::judge(int n) {
    if (n == 1) m_proposal = {domain::Standing::counts, {}};
    if (n == 2) m_proposal = {domain::Standing::atLeast, domain::Because::judgedBound};
    if (n == 3) m_proposal = {domain::Standing::voided, domain::Because::setUpWrongly};
    if (n == 4) m_proposal = {domain::Standing::notRead, domain::Because::numberLost};
    if (n == 5) m_unloading = !m_unloading;
    if (n >= firstAfterwards && n < firstAfterwards + std::ssize(domain::afterwardsOffered)) {
        const auto word = domain::afterwardsOffered[static_cast<std::size_t>(n - firstAfterwards)];
        m_afterwards = m_afterwards == word ? std::string_view() : word;
    }
}

void PullFlow::accepted(qint64 now) { go(!m_connected ? PullStep::noRig : afterSafety(), now); }

QString PullFlow::action() const {
    switch (m_step) {
    case PullStep::safety:
        return QObject::tr("Seen to it");
    case PullStep::zero:
        return QObject::tr("Zero");
    case PullStep::ready:
        return QObject::tr("Arm");
    case PullStep::armed:
        return QObject::tr("Stop waiting");
    case PullStep::loading:
        return QObject::tr("Stop");
    case PullStep::look:
        return QObject::tr("Go on");
    case PullStep::limit:
        return QObject::tr(domain::word(domain::limitsWithoutBreak().front()));
    case PullStep::end:
        return m_ends.empty() ? QString() : QString::fromStdString(m_ends.front());
    case PullStep::part:
        return m_limit == domain::Limit::broke && !m_parts.empty() ? QString::fromStdString(m_parts.front())
                                                                   : QObject::tr("nothing broke");
    case PullStep::how:
        return m_modes.empty() ? QString() : QString::fromStdString(m_modes.front());
    case PullStep::accept:
        return QObject::tr("Accept");
    case PullStep::noRig:
    case PullStep::saving:
    case PullStep::finished:
        break;
    }
    return {};
}

QString PullFlow::sentence() const {
    switch (m_step) {
    case PullStep::noRig:
        return QObject::tr("No rig is connected.");
    case PullStep::safety:
        return m_cautions.value(m_seen);
    case PullStep::zero:
        return m_zeroed ? QObject::tr("The unloaded reading is off zero. Take the load off, then zero.")
                        : QObject::tr("Take the load off, then zero.");
    case PullStep::ready:
        return QObject::tr("Mount the piece, take up the slack, step back.");
    case PullStep::armed:
        return QObject::tr("Armed: pull. Recording begins with the load.");
    case PullStep::loading:
        return QObject::tr("Recording. Any digit marks this instant.");
    case PullStep::look:
        return QObject::tr(
            "Stop pulling and look at the piece. Recording goes on; any digit but 9 marks this instant.");
    case PullStep::limit:
        return QObject::tr("What ended it?");
    case PullStep::end:
        return QObject::tr("Which end failed?");
    case PullStep::saving:
        return QObject::tr("Saving the last samples …");
    case PullStep::part:
        return QObject::tr("What broke?");
    case PullStep::how:
        return QObject::tr("How did %1 fail?").arg(QString::fromStdString(m_part));
    case PullStep::accept:
        return m_proposal.why == domain::Because::nothing
                   ? QObject::tr("It %1.").arg(QString::fromUtf8(domain::word(m_proposal.standing)))
                   : QObject::tr("It stands as \"%1\": %2")
                         .arg(QString::fromUtf8(domain::word(m_proposal.standing)),
                              QString::fromStdString(words::whyStands(m_proposal)));
    case PullStep::finished:
        return QObject::tr("Every piece has been pulled. See the verdict.");
    }
    return {};
}

std::vector<Choice> PullFlow::choices() const {
    std::vector<Choice> out;
    const auto all = [&](const std::vector<std::string>& texts) {
        for (std::size_t i = 0; i < texts.size() && i < 8; ++i)
            out.push_back({static_cast<int>(i) + 1, QString::fromStdString(texts[i])});
    };
    switch (m_step) {
    case PullStep::ready:
        return {{9, QObject::tr("another piece")}};
    case PullStep::part:
        all(m_parts);
        out.push_back({9, QObject::tr("nothing broke")});
        return out;
    case PullStep::how:
        all(m_modes);
        out.push_back({0, QObject::tr("back")});
        return out;
    case PullStep::look:
        return {{9, QObject::tr("stop here")}};
    case PullStep::limit: {
        int n = 0;
        for (const auto limit : domain::limitsWithoutBreak())
            out.push_back({++n, QObject::tr(domain::word(limit))});
        out.push_back({0, QObject::tr("back")});
        return out;
    }
    case PullStep::end:
        all(m_ends);
        out.push_back({0, QObject::tr("back")});
        return out;
    case PullStep::accept: {
        const auto ticked = [](bool on, const QString& text) {
            return on ? QStringLiteral("\u2713 ") + text : text;
        };
        const auto isNow = [&](std::size_t k) { return m_afterwards == domain::afterwardsOffered[k]; };
        return {{1, QObject::tr("counts")},
                {2, QObject::tr("at least")},
                {3, QObject::tr("void: set up wrongly")},
                {4, QObject::tr("number lost")},
                {5, ticked(m_unloading, QObject::tr("broke while unloading"))},
                {firstAfterwards, ticked(isNow(0), QObject::tr("bent now"))},
                {firstAfterwards + 1, ticked(isNow(1), QObject::tr("stuck now"))},
                {firstAfterwards + 2, ticked(isNow(2), QObject::tr("still works"))},
                {0, QObject::tr("back")}};
    }
    case PullStep::noRig:
    case PullStep::safety:
    case PullStep::zero:
    case PullStep::armed:
    case PullStep::loading:
    case PullStep::saving:
    case PullStep::finished:
        break;
    }
    return out;
}

} // namespace anvil::station
