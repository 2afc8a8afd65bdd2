// Files and results brought into the window: chosen, pasted, dropped.
#include "shell/main_window.h"

#include "shell/documents.h"

#include "shell/import_sheet.h"
#include "shell/ledger.h"
#include "shell/pictures_list.h"
#include "shell/preferences.h"
#include "stages/curves/curves_stage.h"
#include "stages/verdict/verdict_stage.h"
#include <QApplication>
#include <QClipboard>
#include <QDir>
#include <QDragEnterEvent>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QFutureWatcher>
#include <QMimeData>
#include <QProgressDialog>
#include <QtConcurrent>
#include <anvil/exchange/export.h>
#include <anvil/exchange/package.h>
#include <anvil/tables/file.h>

namespace anvil::app {

void MainWindow::chooseFiles() {
    const auto paths = QFileDialog::getOpenFileNames(this, tr("Import logger files"),
                                                     preferences::folder(preferences::Folder::import),
                                                     tr("Logs and spreadsheets (*.csv *.tsv *.txt *.log "
                                                        "*.dat *.asc *.xlsx *.xls *.ods *.html *.htm *.json "
                                                        "*.jsonl *.gz);;All files (*)"));
    if (paths.isEmpty()) return;
    preferences::setFolder(preferences::Folder::import, QFileInfo(paths.first()).absolutePath());
    importFiles(paths);
}

bool MainWindow::ensureProject(const QString& folder) {
    if (m_session.project()) return true;
    // Dropped on an empty window: the project is kept where planned ones are, called after the files' folder.
    const auto path = freeProjectPath(QDir(folder).dirName());
    keepRecent();
    if (!m_session.create(path)) return false;
    keepRecent();
    return true;
}

ImportSheet* MainWindow::importFiles(const QStringList& paths) {
    if (!ensureProject(QFileInfo(paths.value(0)).absolutePath())) return nullptr;
    if (m_session.readOnly()) {
        m_session.say(m_session.project()->file().readOnlyReason(), true);
        return nullptr;
    }
    auto* sheet = new ImportSheet(m_session, paths, this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->setModal(true);
    connect(sheet, &QDialog::accepted, this, [this, sheet] {
        // The last study touched is the one imported into; a new one stands at the end.
        const auto& studies = m_session.project()->studies();
        if (!m_session.study() || m_session.study()->pulls.empty())
            m_session.showStudy(studies.back().study.id);
        const auto look = m_session.needingLook().size();
        goTo(Stage::verdict);
        m_session.say(look == 0
                          ? (sheet->importedPulls() == 1
                                 ? tr("1 run imported. One undo (Ctrl+Z) takes it back.")
                                 : tr("%1 runs imported. One undo (Ctrl+Z) takes them all back.")
                                       .arg(sheet->importedPulls()))
                          : tr("%1 runs imported; %2 curves need a look (F8). One undo takes them all back.")
                                .arg(sheet->importedPulls())
                                .arg(look));
    });
    sheet->show();
    return sheet;
}

void MainWindow::importPackage(const QString& path) {
    const auto package = exchange::readPackage(path); // before a project is made for it
    if (!package) return m_session.say(qs(package.error().message), true);
    if (!ensureProject(QFileInfo(path).absolutePath())) return;
    if (m_session.readOnly()) return m_session.say(m_session.project()->file().readOnlyReason(), true);
    const auto taken = exchange::takeIn(m_session.project()->file(), *package);
    if (!m_session.tell(taken)) return;
    if (!m_session.tell(m_session.project()->adopt(taken->journal, taken->what))) return;
    const auto& studies = m_session.project()->studies();
    m_session.showStudy(studies[studies.size() - static_cast<std::size_t>(taken->studies)].study.id);
    goTo(Stage::verdict);
    QStringList unknown;
    for (const auto& name : package->unknown)
        unknown << qs(name);
    auto text = tr("%1 studies with %2 pulls imported. One undo (Ctrl+Z) takes them all back.")
                    .arg(taken->studies)
                    .arg(taken->pulls);
    if (!unknown.isEmpty())
        text += tr(" No table names these, so they were left out: %1.").arg(unknown.join(", "));
    m_session.say(text, !unknown.isEmpty());
}

void MainWindow::exportPackage() {
    if (!m_session.project()) return m_session.say(tr("There is no project open to export."), true);
    const auto proposed = QFileInfo(m_session.project()->file().path());
    const auto folder =
        QFileDialog::getSaveFileName(this, tr("A folder for the data package"),
                                     proposed.absolutePath() + '/' + proposed.completeBaseName() + "-data",
                                     tr("Folders (*)"), nullptr, QFileDialog::DontConfirmOverwrite);
    if (!folder.isEmpty()) exportPackageTo(folder);
}

void MainWindow::exportPackageTo(const QString& folder) {
    QProgressDialog progress(tr("Writing the data package"), tr("Cancel"), 0, 1000, this);
    progress.setWindowModality(Qt::WindowModal);
    const auto written = exchange::exportProject(m_session.project()->file(), folder, [&](double done) {
        progress.setValue(static_cast<int>(1000 * done));
        return !progress.wasCanceled();
    });
    progress.reset();
    if (m_session.tell(written))
        m_session.say((QStringList{tr("%1 files written to %2.").arg(written->files.size()).arg(folder)} +
                       written->leftOut)
                          .join(' '),
                      !written->leftOut.isEmpty());
}

void MainWindow::importTable(const QString& given) {
    const auto path = given.isEmpty()
                          ? QFileDialog::getOpenFileName(this, tr("Import a table of results"),
                                                         preferences::folder(preferences::Folder::import),
                                                         tr("Tables (*.csv *.tsv *.txt);;All files (*)"))
                          : given;
    if (path.isEmpty()) return;
    const auto bytes = tables::readFile(QFile::encodeName(path).toStdString());
    if (!bytes) return m_session.say(tr("%1: %2.").arg(path, qs(bytes.error().message)), true);
    if (!ensureProject(QFileInfo(path).absolutePath())) return;
    auto* sheet =
        new ValuesSheet(m_session, QByteArray::fromStdString(*bytes), QFileInfo(path).fileName(), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(sheet, &QDialog::accepted, this, [this, sheet] {
        goTo(Stage::verdict);
        m_session.say(tr("%1 results imported.").arg(sheet->importedPulls()));
    });
    sheet->open();
}

void MainWindow::pasteTable() {
    const auto bytes = QApplication::clipboard()->text().toUtf8();
    // What cannot be read is explained by the sheet; a project is only made for what can.
    if (tables::readValues(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size()))) &&
        !ensureProject(QDir::homePath()))
        return;
    auto* sheet = new ValuesSheet(m_session, bytes, tr("pasted"), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(sheet, &QDialog::accepted, this, [this, sheet] {
        goTo(Stage::verdict);
        m_session.say(tr("%1 results imported.").arg(sheet->importedPulls()));
    });
    sheet->open();
}

/// Folders are gone through beside the window, for nobody knows how much lies in them.
void MainWindow::importFolders(const QStringList& given) {
    using Found = Expected<QStringList>;
    auto stop = std::make_shared<std::atomic<bool>>(false);
    auto* progress = new QProgressDialog(tr("Looking for logger files…"), tr("Cancel"), 0, 0, this);
    progress->setObjectName("folderWalk");
    progress->setWindowModality(Qt::WindowModal);
    progress->setAttribute(Qt::WA_DeleteOnClose);
    auto* watcher = new QFutureWatcher<Found>(progress);
    connect(progress, &QObject::destroyed, [stop] { *stop = true; });
    connect(progress, &QProgressDialog::canceled, watcher, [stop] { *stop = true; });
    connect(watcher, &QFutureWatcher<Found>::finished, this, [this, progress, watcher, stop] {
        const auto found = watcher->result();
        const bool cancelled = *stop;
        progress->close();
        if (cancelled || !m_session.tell(found)) return;
        if (found->isEmpty())
            m_session.say(tr("There is no logger file among what was dropped."), true);
        else
            importFiles(*found);
    });
    watcher->setFuture(QtConcurrent::run([given, stop] { return project::filesIn(given, stop.get()); }));
    progress->show();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList logs, pictures;
    bool folders = false;
    for (const auto& url : event->mimeData()->urls()) {
        const QFileInfo info(url.toLocalFile());
        if (info.isDir() ? exchange::isPackage(info.absoluteFilePath())
                         : info.suffix() == "zip" && exchange::isPackage(info.absoluteFilePath())) {
            event->acceptProposedAction();
            return importPackage(info.absoluteFilePath());
        }
        folders = folders || info.isDir();
        if (info.isDir())
            logs << info.absoluteFilePath();
        else if (info.suffix() == "anvil")
            return void(openPath(info.absoluteFilePath()));
        else if (info.isFile())
            (PicturesList::isPicture(info.fileName()) ? pictures : logs) << info.absoluteFilePath();
    }
    event->acceptProposedAction();
    if (!pictures.isEmpty()) m_ledger->pictures()->add(pictures);
    if (logs.isEmpty() && !pictures.isEmpty()) return;
    if (folders)
        importFolders(logs);
    else if (logs.isEmpty())
        m_session.say(tr("There is no logger file among what was dropped."), true);
    else
        importFiles(logs);
}

} // namespace anvil::app
