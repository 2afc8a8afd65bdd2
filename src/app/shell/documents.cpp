#include "shell/documents.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QRegularExpression>
#include <QStandardPaths>
#include <anvil/project/open_project.h>

namespace anvil::app {

namespace {

constexpr qsizetype mostLetters = 60;

} // namespace

QString fileNameFrom(const QString& question) {
    QString name;
    for (const auto c : question) // a slash, a colon and the like are no part of a name on some disks
        name +=
            c.isLetterOrNumber() || c.isMark() || c.isSurrogate() || QStringLiteral("-+.,'()%").contains(c)
                ? c
                : u' ';
    name = name.simplified();
    if (name.size() > mostLetters) {
        const auto cut = name.lastIndexOf(' ', mostLetters);
        name = name.left(cut > mostLetters / 2 ? cut : mostLetters - 1);
        if (name.back().isHighSurrogate()) name.chop(1);
    }
    static const QRegularExpression ends(QStringLiteral("^[ .]+|[ .,]+$"));
    name.remove(ends);
    return name.isEmpty() ? QStringLiteral("Study") : name;
}

QString freeProjectPath(const QString& question) {
    auto folder = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    if (folder.isEmpty() || !QDir().mkpath(folder)) folder = QDir::homePath();
    const auto name = fileNameFrom(question);
    auto path = QDir(folder).filePath(name + ".anvil");
    for (int n = 2; QFileInfo::exists(path) || QFileInfo::exists(path + "-wal"); ++n)
        path = QDir(folder).filePath(QStringLiteral("%1 %2.anvil").arg(name).arg(n));
    return path;
}

Expected<void> moveProject(const QString& from, const QString& to) {
    if (QFileInfo::exists(to)) return fail(to.toStdString() + " is there already; nothing was moved.");
    const auto beside = project::companionsOf(from); // before the name is gone
    QFile file(from);
    if (!file.rename(to))
        return fail("The project could not be moved: " + file.errorString().toStdString() + ".");
    for (const auto& companion : beside)
        if (const auto there = to + companion.mid(from.size()); !QFile::rename(companion, there)) {
            QFile::rename(to, from); // all of it, or nothing
            return fail("The project could not be moved: " + companion.toStdString() + " stays behind.");
        }
    return {};
}

} // namespace anvil::app
