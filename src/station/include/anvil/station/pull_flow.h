// The order of things at the rig, for gloves: one action at a time for the space bar, digits for choices. No
// widgets and no clocks: it is told what happened and when.
#pragma once

#include <QString>
#include <QStringList>
#include <anvil/domain/outcomes.h>
#include <anvil/station/live_bench.h>

namespace anvil::station {

enum class PullStep {
    noRig,   ///< nothing is connected
    safety,  ///< cautions to be seen to
    zero,    ///< the unloaded reading is to be taken as nothing
    ready,   ///< the next piece is to be mounted
    armed,   ///< waits for load
    loading, ///< records
    look,    ///< a planned pause: look at the piece, then go on
    saving,  ///< the last samples are being saved
    part,    ///< what broke?
    how,     ///< how?
    limit,   ///< nothing broke: what ended it?
    end,     ///< which end of a piece with two joints?
    accept,  ///< may it count?
    finished ///< no piece is left
};

/// One thing a digit does.
struct Choice {
    int digit = 0;
    QString text;
};

/// What the window is asked to carry out.
enum class PullAction { nothing, zero, arm, stop, accept, anotherPiece, mark, resume };

class PullFlow {
public:
    /// Keys are ignored so long after a step has changed.
    static constexpr qint64 guardMs = 600;
    /// How long the end of a pull waits for a disk that takes nothing before it goes on without.
    static constexpr qint64 savePatienceMs = 10000;

    /// Another study, rig or set-up: cautions are asked again unless `safe`.
    void restart(const QStringList& cautions, bool safe, qint64 now);
    /// Parts and ways to break, and whether a piece is left.
    void setPieces(const std::vector<std::string>& parts, const std::vector<std::string>& modes,
                   bool pieceLeft, qint64 now);
    /// What the ends of a piece are called, one name a joint, and the load at whose every step the pull
    /// pauses to be looked at, N; 0: never.
    void setRules(std::vector<std::string> ends, double lookEvery);
    /// The rig's present state.
    void follow(const Live& live, qint64 now);
    /// What is proposed once something broke.
    void propose(const domain::Proposal& proposal) { m_proposal = proposal; }

    PullAction space(qint64 now);
    PullAction digit(int n, qint64 now);
    /// The window has carried out `accept`: on to the next piece.
    void accepted(qint64 now);

    PullStep step() const { return m_step; }
    QString action() const;   ///< what space does, in a word or two; empty: nothing
    QString sentence() const; ///< what is going on
    std::vector<Choice> choices() const;
    const std::string& part() const { return m_part; } ///< empty: nothing broke
    const std::string& how() const { return m_how; }
    domain::Limit limit() const { return m_limit; }
    const domain::Proposal& proposal() const { return m_proposal; }
    /// Which end failed, what it is like now: "end 1", "bent"; empty: nothing said.
    int end() const { return m_end; }
    const std::string& afterwards() const { return m_afterwards; }
    bool whileUnloading() const { return m_unloading; }
    bool safetyDone() const { return m_seen >= m_cautions.size(); }

private:
    void go(PullStep step, qint64 now);
    PullStep afterSafety() const;
    PullStep m_step = PullStep::noRig;
    qint64 m_since = -guardMs;
    QStringList m_cautions;
    qsizetype m_seen = 0;
    bool m_zeroed = false, m_off = false, m_pieceLeft = true, m_connected = false;
    std::vector<std::string> m_parts, m_modes;
    void take(const Live& live, qint64 now); ///< what has become of the arming
    void begin();                            ///< a new pull: nothing is known of how it will end
    void broken(qint64 now);
    void judge(int n); ///< a digit while it is asked whether it may count
    std::string m_part, m_how, m_afterwards;
    int m_end = 0;
    bool m_unloading = false;
    std::uint64_t m_armings = 0; ///< at the last look
    std::vector<std::string> m_ends;
    double m_lookEvery = 0, m_nextLook = 0;
    domain::Limit m_limit = domain::Limit::broke;
    domain::Proposal m_proposal;
};

} // namespace anvil::station
