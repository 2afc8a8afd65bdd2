#include "folder.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <algorithm>
#include <anvil/tables/file.h>
#include <anvil/tables/zip_parts.h>

namespace anvil::exchange {

struct Folder::Archive {
    std::string bytes;
    std::optional<tables::ZipParts> parts;
    std::string folder; ///< "package/" where the archive holds a folder
};

bool staysInside(const std::string& name) {
    if (name.empty() || name.find('\\') != std::string::npos || name.find('\0') != std::string::npos ||
        name.find(':') != std::string::npos)
        return false;
    std::size_t from = 0;
    while (from <= name.size()) {
        const auto to = std::min(name.find('/', from), name.size());
        const auto part = name.substr(from, to - from);
        if (part.empty() || part == "." || part == "..") return false;
        from = to + 1;
    }
    return true;
}

Expected<Folder> Folder::open(const QString& path) {
    const QFileInfo info(path);
    Folder out;
    if (info.isDir()) {
        out.m_folder = info.canonicalFilePath();
        if (!out.has("studies.csv")) return fail(path.toStdString() + ": there is no studies.csv in it");
        return out;
    }
    auto bytes = tables::readFile(QFile::encodeName(path).toStdString());
    if (!bytes) return fail(path.toStdString() + ": " + bytes.error().message);
    out.m_archive = std::make_shared<Archive>();
    out.m_archive->bytes = std::move(*bytes);
    auto parts = tables::ZipParts::open(out.m_archive->bytes);
    if (!parts) return fail(path.toStdString() + ": it is neither a folder nor an archive of one");
    out.m_archive->parts.emplace(std::move(*parts));
    const auto names = out.m_archive->parts->names();
    for (const auto& name : names)
        if (!staysInside(name.ends_with('/') ? name.substr(0, name.size() - 1) : name))
            return fail(path.toStdString() + ": the archive names a file outside of it (\"" + name + "\")");
    const auto tables = std::find_if(names.begin(), names.end(), [](const std::string& name) {
        return name == "studies.csv" ||
               (name.ends_with("/studies.csv") && std::count(name.begin(), name.end(), '/') == 1);
    });
    if (tables == names.end()) return fail(path.toStdString() + ": there is no studies.csv in it");
    out.m_archive->folder = tables->substr(0, tables->size() - std::string_view("studies.csv").size());
    return out;
}

bool Folder::has(const std::string& name) const {
    if (m_archive) return m_archive->parts->has(m_archive->folder + name);
    return QFileInfo(m_folder + '/' + QString::fromStdString(name)).isFile();
}

std::vector<std::string> Folder::names() const {
    std::vector<std::string> out;
    if (!m_archive) {
        for (const auto& name :
             QDir(m_folder).entryList(QDir::AllEntries | QDir::System | QDir::NoDotAndDotDot))
            out.push_back(name.toStdString());
        return out;
    }
    for (const auto& part : m_archive->parts->names())
        if (part.starts_with(m_archive->folder)) {
            const auto name = part.substr(m_archive->folder.size());
            if (!name.empty() && name.find('/') == std::string::npos) out.push_back(name);
        }
    return out;
}

Expected<std::string> Folder::read(const std::string& name) const {
    if (!staysInside(name)) return fail(name + ": it is no file of this package");
    auto bytes = [&]() -> Expected<std::string> {
        if (m_archive) return m_archive->parts->read(m_archive->folder + name);
        const auto path = QFileInfo(m_folder + '/' + QString::fromStdString(name)).canonicalFilePath();
        if (path.isEmpty()) return fail("it is not there");
        if (!path.startsWith(m_folder + '/')) return fail("it leads out of the package");
        return tables::readFile(QFile::encodeName(path).toStdString(), tables::mostPictureBytes);
    }();
    if (!bytes) return fail(name + ": " + bytes.error().message);
    return bytes;
}

} // namespace anvil::exchange
