// One piece after the other at the rig: which is next, what is recorded of it and what becomes of that. No
// widgets and no clock of its own.
#pragma once

#include <anvil/station/judgement.h>
#include <anvil/station/live_bench.h>
#include <anvil/station/pull_flow.h>
#include <functional>
#include <set>

namespace anvil::station {

using domain::Id;

/// The rig as it is set up now.
struct Station {
    rig::Setup setup;
    Id setupId = 0;          ///< the version kept in the project
    bool safetySeen = false; ///< its cautions were seen to lately
};

/// What else is known of a pull when it begins.
struct Circumstances {
    std::string at, operatorName;                 ///< ISO 8601; who pulls
    std::function<double(int option)> strength{}; ///< N, hidden by a virtual bench, by place on the board
};

/// The pull that a recording of this piece makes. Error: a practice rig in a study that is none, or the other
/// way round.
Expected<domain::Pull> pullFor(const domain::StudyData& study, const domain::Specimen& piece,
                               const Station& station, const Circumstances& circumstances);
/// How a rig's pulls are recorded.
rig::RecorderSettings recorderFor(const rig::Setup& setup);

/// Something that happened since the last look; in order.
struct Event {
    enum class Kind {
        nearLimit, ///< the load came near the limit of the rig
        armed,
        look,         ///< a planned pause has begun
        broke,        ///< the recording has ended
        trouble,      ///< on the wire, during the pull; `text` says what, and it is marked on the curve
        disk,         ///< nothing can be saved at the moment; `text` says why and where what is recorded lies
        onlyInMemory, ///< the same, and it lies nowhere but in memory
        saved,        ///< all of it is in the project; `text`: what stood in the way for a while
        notSaved,     ///< not all of it is; `text` says why
        ended         ///< the project holds a new pull, or more of one: read it again
    } kind;
    QString text{};
};

class PullRun {
public:
    explicit PullRun(LiveBench& bench);

    /// The study or its pieces have changed. Cautions are asked anew for another study.
    void studyChanged(const domain::StudyData& study, const Station& station, qint64 now);
    /// The link or the set-up has changed. Cautions are asked anew for another set-up.
    void rigChanged(const domain::StudyData& study, const Station& station, qint64 now);
    /// Looks at the rig.
    std::vector<Event> follow(qint64 now);

    /// A key was pressed: carries out what concerns the rig alone and gives back what is left to do: arm,
    /// accept, or nothing.
    PullAction space(const domain::StudyData& study, const Station& station, qint64 now);
    PullAction digit(int n, const domain::StudyData& study, const Station& station, qint64 now);

    /// Waits for load on the next piece and records it. Error: it cannot be recorded, or no piece is left.
    Expected<void> arm(store::Project& project, const domain::StudyData& study, const Station& station,
                       const Circumstances& circumstances);
    /// How the pull stands by what was said; `reading`: of its curve, or null.
    void propose(const domain::StudyData& study, const curve::Reading* reading);
    /// What was said of the pull.
    Judgement judgement() const;
    /// It is in the project: on to the next piece.
    void accepted(const domain::StudyData& study, const Station& station, qint64 now);

    const PullFlow& flow() const { return m_flow; }
    Id piece() const { return m_piece; } ///< the present piece, or the next one
    Id pull() const { return m_pull; }   ///< that was recorded of it; 0: none
    const std::vector<domain::Mark>& marks() const { return m_marks; }

private:
    const domain::Specimen* next(const domain::StudyData& study) const;
    void setRules(const domain::StudyData& study, const Station& station);
    PullAction carryOut(PullAction action, const domain::StudyData& study, const Station& station,
                        qint64 now);
    void end(std::vector<Event>& events, const Live& live);

    LiveBench& m_bench;
    PullFlow m_flow;
    Id m_setup = 0, m_piece = 0, m_pull = 0, m_study = 0;
    std::set<Id> m_skipped;
    std::vector<domain::Mark> m_marks;
    Live m_atStart;                ///< when the present recording began
    std::uint64_t m_nearTimes = 0; ///< how many of the rig's warnings have been told
    QString m_diskTrouble;         ///< what kept samples from being saved in this pull, perhaps for a while
    bool m_inMemory = false;       ///< and has been said to keep them from the tape too
    void watchDisk(std::vector<Event>& events, const Live& live);
};

} // namespace anvil::station
