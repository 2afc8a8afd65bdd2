// Commands of pulls: how they stand, how their curves are read, what was seen, pictures of them.
#pragma once

#include <QByteArray>
#include <QDateTime>
#include <anvil/project/open_project.h>
#include <anvil/station/judgement.h>

namespace anvil::project {

/// One landmark of a reading, for moving it by hand.
enum class Handle { peak, firstSlip, breakPoint, fitFrom, fitTo, holdFrom, holdTo };

/// Everything but `counts` needs a reason.
Expected<void> setStanding(OpenProject& project, Id pull, domain::Standing standing, const QString& reason);

/// How a curve is read. `what` names it for undo and journal.
Expected<void> setReadingSettings(OpenProject& project, Id pull, const curve::ReadingSettings& settings,
                                  const QString& what);

/// Moves one landmark of a curve by hand; nothing: it is found again. Error: no curve, or no line to move.
Expected<void> setLandmark(OpenProject& project, Id pull, Handle handle,
                           std::optional<curve::Override> value);

/// Keeps what the tester said of a pull that has just been recorded, or was interrupted, as one command.
Expected<void> judge(OpenProject& project, Id pull, const station::Judgement& judgement);

/// The window over which a load was held, in s on the curve's own clock. Error: no curve, or a window that is
/// empty.
Expected<void> setHold(OpenProject& project, Id pull, double from, double to);

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

} // namespace anvil::project
