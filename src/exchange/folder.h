// The files of a package: a folder or a zip archive of one.
#pragma once

#include <QString>
#include <anvil/quantity/error.h>
#include <memory>
#include <string>
#include <vector>

namespace anvil::exchange {

class Folder {
public:
    /// Error: neither a folder nor an archive, or studies.csv is not in it.
    static Expected<Folder> open(const QString& path);
    bool has(const std::string& name) const;
    /// What lies in it at the top, files and folders alike, without those of hidden names.
    std::vector<std::string> names() const;
    /// The bytes of a file. Error, with the name: a name that leads out of the package, not there, too large.
    Expected<std::string> read(const std::string& name) const;

private:
    struct Archive;
    QString m_folder;                   ///< canonical; empty: an archive
    std::shared_ptr<Archive> m_archive; ///< with its bytes
};

/// Whether a name stays within a package: relative, forward slashes, no part that is empty, "." or "..".
bool staysInside(const std::string& name);

} // namespace anvil::exchange
