// Commands of rigs.
#pragma once

#include <anvil/rig/setup.h>
#include <anvil/work/open_project.h>

namespace anvil::work {

/// Keeps a set-up as a new version of its rig, unless it is the newest one already; returns its id. What
/// was pulled on older versions stays as it is. Error: no name.
Expected<Id> saveRig(OpenProject& project, const rig::Setup& setup);

} // namespace anvil::work
