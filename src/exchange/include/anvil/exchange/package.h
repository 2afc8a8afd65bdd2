// Data packages: studies as a folder of tables that people and programs can write. What each column holds is
// in docs/exchange.md.
#pragma once

#include <QString>
#include <QStringList>
#include <anvil/curve/curve.h>
#include <anvil/domain/model.h>
#include <anvil/rig/setup.h>
#include <anvil/store/project.h>
#include <map>
#include <vector>

namespace anvil::exchange {

using domain::Id;

/// A file that was kept, with its bytes.
struct KeptFile {
    QString name;
    QByteArray bytes;
};

/// A curve of a device that was read beside another.
struct Beside {
    Id pull = 0;
    curve::Curve samples;
};

/// What a package says: studies whose ids count from 1 in each table of the package, and what they point to.
struct Package {
    std::vector<domain::StudyData> studies;
    std::map<Id, curve::Curve> curves; ///< by pull
    std::vector<Beside> beside;
    std::vector<store::SetupRow> setups; ///< `Pull::setup` points to their ids
    std::map<Id, rig::Setup> told;       ///< by study: a rig of which only its limit was told
    std::vector<KeptFile> files;         ///< `Attachment::file` counts them from 1
    std::vector<std::string> unknown; ///< files and folders in it that nothing names: they are not taken in
};

/// Whether this folder or archive is a package: it holds studies.csv.
bool isPackage(const QString& path);

/// Reads a folder or a zip archive of one. Error: a sentence that names file and line; what is unknown is
/// refused, and nothing outside of the folder is looked at.
Expected<Package> readPackage(const QString& path);

/// Puts a package into a project as one transaction. Error: a study of one of its titles is there already, or
/// it cannot be written; then nothing is changed.
struct TakenIn {
    Id journal = 0;
    QString what; ///< for undo
    int studies = 0, pulls = 0;
};
Expected<TakenIn> takeIn(store::Project& project, const Package& package);

} // namespace anvil::exchange
