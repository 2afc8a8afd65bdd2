// What earlier projects found, kept beside the settings, so that the same options come up again. One file,
// JSON; it can be switched off, and then nothing is kept or read.
#pragma once

#include <QString>
#include <anvil/results/earlier.h>
#include <vector>

namespace anvil::project {
class OpenProject;
}

namespace anvil::app::earlier_index {

bool isOn();
/// Off: what was kept goes.
void setOn(bool on);

/// Where it is kept.
QString path();
/// Keeps what a project says, for the next one; what was known of its path is replaced. Studies whose curves
/// have not been read are left as they were kept.
void remember(project::OpenProject& project);
/// Everything other projects said; that of `besides` is left out. A file that cannot be read says nothing.
std::vector<results::Earlier> all(const QString& besides);

} // namespace anvil::app::earlier_index
