// From an open project to what a report is made from.
#pragma once

#include <anvil/report/document.h>
#include <anvil/work/open_project.h>

namespace anvil::report {

/// Refers to the project, which must outlive it. `study` is of that project.
Source sourceOf(work::OpenProject& project, domain::Id study);

} // namespace anvil::report
