// A project written as a data package.
#pragma once

#include <QString>
#include <QStringList>
#include <anvil/quantity/error.h>
#include <anvil/store/project.h>
#include <functional>

namespace anvil::exchange {

/// What an export wrote, and what it could not.
struct Exported {
    QStringList files;
    QStringList leftOut; ///< a sentence for each curve or file that is damaged in the project
};

/// Writes everything of a project into a folder, which is made if it is not there. A curve or file that is
/// damaged in the project is left out, so that the rest can be rescued; the pull of such a curve says so and
/// does not count. `progress` gets 0 … 1 and ends it by false. Error: there is something in the folder
/// already, or it cannot be written.
Expected<Exported> exportProject(const store::Project& project, const QString& folder,
                                 const std::function<bool(double)>& progress = {});

} // namespace anvil::exchange
