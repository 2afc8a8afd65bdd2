// Waiting for many curves to be read, in view and with a way out.
#pragma once

#include <QWidget>
#include <anvil/project/open_project.h>

namespace anvil::app {

/// Reads what a study needs beside the window and shows how far it is, where it takes longer than a moment.
/// False: somebody would rather not wait.
bool waitForReadings(QWidget* parent, project::OpenProject& project, domain::Id study);

} // namespace anvil::app
