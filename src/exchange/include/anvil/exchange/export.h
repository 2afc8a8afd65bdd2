// A project written as a data package.
#pragma once

#include <QString>
#include <QStringList>
#include <anvil/quantity/error.h>
#include <anvil/store/project.h>
#include <functional>

namespace anvil::exchange {

/// Writes everything of a project into a folder, which is made if it is not there; gives the files it wrote.
/// `progress` gets 0 … 1 and ends it by false. Error: there is something in the folder already, or it cannot
/// be written.
Expected<QStringList> exportProject(const store::Project& project, const QString& folder,
                                    const std::function<bool(double)>& progress = {});

} // namespace anvil::exchange
