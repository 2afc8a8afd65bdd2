// The one way in which files for others are written.
#pragma once

#include <QByteArray>
#include <QFile>
#include <anvil/tables/file.h>

namespace anvil::project {

/// tables::writeFile by a name as the window knows it.
inline Expected<void> writeFile(const QString& path, const QByteArray& bytes) {
    return tables::writeFile(QFile::encodeName(path).toStdString(),
                             {bytes.constData(), static_cast<std::size_t>(bytes.size())});
}

} // namespace anvil::project
