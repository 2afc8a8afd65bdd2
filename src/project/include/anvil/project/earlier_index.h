// What earlier projects found, in one file, so that the same options come up again.
#pragma once

#include <anvil/project/open_project.h>
#include <anvil/results/earlier.h>

namespace anvil::project {

/// Keeps what a project says in the file at `path`; what was known of the project is replaced. Studies whose
/// curves have not been read are left as they were kept. Where it cannot be written nothing is: it only helps
/// to remember.
void rememberResults(const QString& path, OpenProject& project);
/// Everything projects said, but for the one at `besides`. A file that cannot be read says nothing.
std::vector<results::Earlier> rememberedResults(const QString& path, const QString& besides);

} // namespace anvil::project
