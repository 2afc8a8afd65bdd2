#include "shell/earlier_index.h"

#include "shell/preferences.h"
#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <anvil/project/earlier_index.h>

namespace anvil::app::earlier_index {

bool isOn() { return preferences::keepsEarlier(); }

void setOn(bool on) {
    preferences::setKeepsEarlier(on);
    if (!on) QFile::remove(path());
}

QString path() { return preferences::besideSettings(QStringLiteral("earlier.tsv")); }

void remember(project::OpenProject& project) {
    if (isOn()) project::rememberResults(path(), project);
}

std::vector<results::Earlier> all(const QString& besides) {
    static struct {
        QDateTime at;
        qint64 size = -1;
        QString file, besides;
        std::vector<results::Earlier> results;
    } read; // pages ask for it at every change
    if (!isOn()) return {};
    const QFileInfo file(path());
    if (read.file != path() || read.at != file.lastModified() || read.size != file.size() ||
        read.besides != besides)
        read = {file.lastModified(), file.size(), path(), besides,
                project::rememberedResults(path(), besides)};
    return read.results;
}

} // namespace anvil::app::earlier_index
