// Commands of pulls: how they stand, how their curves are read, what was seen, pictures of them.
#pragma once

#include <QByteArray>
#include <QDateTime>
#include <anvil/domain/outcomes.h>
#include <anvil/work/open_project.h>

namespace anvil::work {

/// One landmark of a reading, for moving it by hand.
enum class Handle { peak, firstSlip, breakPoint, fitFrom, fitTo };

/// What the tester said of a pull that has just been recorded, or was interrupted, as one command.
struct Judgement {
    std::string part, mode; ///< what broke and how; empty: nothing
    domain::Limit limit = domain::Limit::broke;
    domain::Proposal standing;
    std::vector<domain::Mark> marks;
    int end = 0; ///< which end failed; 0: not noted
    std::string afterwards{};
    bool whileUnloading = false;
};

/// Everything but `counts` needs a reason.
Expected<void> setStanding(OpenProject& project, Id pull, domain::Standing standing, const QString& reason);

/// How a curve is read. `what` names it for undo and journal.
Expected<void> setReadingSettings(OpenProject& project, Id pull, const curve::ReadingSettings& settings,
                                  const QString& what);

/// Moves one landmark of a curve by hand; nothing: it is found again. Error: no curve, or no line to move.
Expected<void> setLandmark(OpenProject& project, Id pull, Handle handle,
                           std::optional<curve::Override> value);

/// The limit of the rig for every curve of a study, which are read again against it; empty: none.
Expected<void> setRigLimit(OpenProject& project, Id study, std::optional<double> limit);

/// Keeps what the tester said of a pull that has just been recorded, or was interrupted, as one command.
Expected<void> judge(OpenProject& project, Id pull, const Judgement& judgement);

/// What is noted of a pull beside its number, changed by hand.
Expected<void> changeOutcome(OpenProject& project, Id pull, const domain::Outcome& outcome,
                             const QString& what);

/// Phases of a pull, as one command.
Expected<void> setPhases(OpenProject& project, Id pull, const std::vector<domain::Phase>& phases);

/// Keeps a picture or clip with a pull. `madeAt`: when it was made, to find its instant on the curve.
/// Error: too large (256 MB), empty, or no such pull.
Expected<Id> attach(OpenProject& project, Id pull, const QString& name, const QByteArray& bytes,
                    const QDateTime& madeAt);

Expected<void> removeAttachment(OpenProject& project, Id attachment);

} // namespace anvil::work
