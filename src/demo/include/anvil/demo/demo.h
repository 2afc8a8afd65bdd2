// The demo project: an invented co-operative, every number from the simulator and fixed seeds.
#pragma once

#include <QDateTime>
#include <QString>
#include <anvil/project/open_project.h>
#include <anvil/sim/specimen.h>

namespace anvil::demo {

/// Fills an empty project with the demo's studies.
Expected<void> addStudies(project::OpenProject& project);

/// The day on which the demo plays: the fourth of May, nine in the morning.
QDateTime now();

/// Writes the eight logger files to try the import on.
Expected<void> writeLogs(const QString& folder);

/// One run of the wire end fittings: option 0 … 3, condition 0 … 1, replicate 1 … 5.
sim::Run fittingRun(int option, int condition, int replicate);

extern const char* const fittingNames[4];
extern const char* const fittingConditions[2];

} // namespace anvil::demo
