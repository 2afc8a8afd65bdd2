// Studies of the worked example whose results were read off a display and typed in.
#pragma once

#include <anvil/project/open_project.h>

namespace anvil::demo {

/// Slats (a treatment, and a score card that depends on its weights), clamp screws (a tie), pegs (a winner
/// that hangs on one pull), days of curing (a trend). Error: the project cannot be written.
Expected<void> addTypedStudies(project::OpenProject& project);

} // namespace anvil::demo
