// From an open project to what a page is made from.
#pragma once

#include <anvil/pages/page.h>
#include <anvil/project/open_project.h>

namespace anvil::pages {

/// Refers to the project, which must outlive it. `study` is of that project.
Source sourceOf(project::OpenProject& project, domain::Id study);

} // namespace anvil::pages
