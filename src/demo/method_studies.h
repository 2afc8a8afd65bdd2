// Studies of the worked example that show the other methods: creep, shared loads, hauling, drops, blows,
// ratings.
#pragma once

#include <anvil/project/open_project.h>

namespace anvil::demo {

Expected<void> addMethodStudies(project::OpenProject& project);

} // namespace anvil::demo
