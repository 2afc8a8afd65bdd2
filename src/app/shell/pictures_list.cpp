#include "shell/pictures_list.h"

#include "shell/picture_dialog.h"
#include "shell/preferences.h"
#include "theme/theme.h"
#include "widgets/flow_layout.h"
#include "widgets/photo.h"
#include "widgets/plain_text.h"
#include <QDateTime>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QListWidget>
#include <QPixmap>
#include <QPushButton>
#include <QVBoxLayout>
#include <anvil/project/picture_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/write_file.h>
#include <anvil/quantity/print.h>
#include <anvil/tables/file.h>

namespace anvil::app {
namespace {

constexpr int thumb = 72;
const QStringList clips{"mp4", "mov", "mkv", "webm", "avi"};

} // namespace

bool PicturesList::isPicture(const QString& path) {
    const auto suffix = QFileInfo(path).suffix().toLower();
    return pictureEndings().contains(suffix) || clips.contains(suffix);
}

PicturesList::PicturesList(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    m_list = new QListWidget;
    m_list->setObjectName("pictures");
    m_list->setIconSize(QSize(thumb, thumb * 3 / 4));
    m_list->setMaximumHeight(grown(150));
    layout->addWidget(m_list);
    m_buttons = new QWidget;
    auto* row = new FlowLayout(m_buttons);
    const auto button = [&](const QString& text, const char* name, void (PicturesList::*what)()) {
        auto* b = new QPushButton(text);
        b->setObjectName(QString::fromLatin1(name));
        row->addWidget(b);
        connect(b, &QPushButton::clicked, this, what);
    };
    button(tr("Add a picture\u2026"), "addPicture", &PicturesList::choose);
    button(tr("Measure\u2026"), "measurePicture", &PicturesList::measure);
    button(tr("Save as\u2026"), "savePicture", &PicturesList::save);
    button(tr("Take away"), "removePicture", &PicturesList::remove);
    layout->addWidget(m_buttons);
}

void PicturesList::refresh() {
    std::vector<domain::Attachment> now;
    if (const auto* data = m_session.study())
        for (const auto& a : data->attachments)
            if (a.pull == m_session.pull()) now.push_back(a);
    m_list->setVisible(!now.empty());
    for (const char* name : {"savePicture", "removePicture", "measurePicture"})
        findChild<QPushButton*>(name)->setVisible(!now.empty());
    if (now == m_shown) return;
    m_shown = now;
    m_list->clear();
    for (const auto& a : m_shown) {
        auto* item = new QListWidgetItem(
            a.at ? tr("%1\nat %2 s").arg(qs(a.name), qs(quantity::significant(*a.at, 4))) : qs(a.name));
        setTip(item, qs(a.name));
        if (pictureEndings().contains(QFileInfo(qs(a.name)).suffix().toLower()))
            if (const auto file = m_session.project()->file().importedFile(a.file))
                if (const auto bytes = file->unpack())
                    if (const auto small = smallPhoto(*bytes, 2 * thumb); !small.isNull())
                        item->setIcon(small);
        m_list->addItem(item);
    }
}

void PicturesList::add(const QStringList& paths) {
    if (!m_session.project()) return;
    if (!m_session.pull())
        return m_session.say(tr("Select the pull that the picture belongs to, then drop it again."), true);
    int kept = 0;
    m_session.project()->together([&] {
        for (const auto& path : paths) {
            const auto bytes =
                tables::readFile(QFile::encodeName(path).toStdString(), tables::mostPictureBytes);
            if (!bytes) {
                m_session.say(tr("%1: %2.").arg(path, qs(bytes.error().message)), true);
                continue;
            }
            kept += m_session.tell(
                project::attach(*m_session.project(), m_session.pull(), QFileInfo(path).fileName(),
                                QByteArray::fromStdString(*bytes), QFileInfo(path).lastModified()));
        }
    });
    if (kept == paths.size())
        m_session.say(kept == 1 ? tr("The picture is kept with the pull.")
                                : tr("%1 pictures are kept with the pull.").arg(kept));
}

void PicturesList::choose() {
    QStringList all;
    for (const auto& s : pictureEndings() + clips)
        all << "*." + s;
    add(QFileDialog::getOpenFileNames(this, tr("Pictures and clips"),
                                      preferences::folder(preferences::Folder::pictures),
                                      tr("Pictures and clips (%1)").arg(all.join(' '))));
}

void PicturesList::save() {
    const int row = std::max(0, m_list->currentRow());
    if (row >= static_cast<int>(m_shown.size())) return;
    const auto& a = m_shown[static_cast<std::size_t>(row)];
    const auto path = QFileDialog::getSaveFileName(this, tr("Save as"), qs(a.name));
    if (path.isEmpty()) return;
    const auto file = m_session.project()->file().importedFile(a.file);
    if (!m_session.tell(file)) return;
    const auto bytes = file->unpack();
    if (!m_session.tell(bytes)) return;
    if (m_session.tell(project::writeFile(path, *bytes))) m_session.say(tr("Saved as %1.").arg(path));
}

void PicturesList::measure() {
    const auto row = static_cast<std::size_t>(std::max(0, m_list->currentRow()));
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    if (row >= m_shown.size() || !pull) return;
    const auto a = m_shown[row];
    const auto file = m_session.project()->file().importedFile(a.file);
    if (!m_session.tell(file)) return;
    const auto bytes = file->unpack();
    if (!m_session.tell(bytes)) return;
    const auto picture = photoFrom(*bytes);
    if (!picture) return m_session.say(tr("%1: %2.").arg(qs(a.name), qs(picture.error().message)), true);
    const auto id = pull->id; // the pull itself may lie elsewhere once the dialog is closed
    PictureDialog dialog(
        *picture, qs(a.name), a.marks,
        pictureTargets(project::measuredFields(*data, data->specimenAt(pull->specimen), pull)), {},
        m_session.units(), this);
    if (dialog.exec() != QDialog::Accepted || m_session.readOnly()) return;
    m_session.project()->together([&] {
        if (!(dialog.marks() == a.marks))
            m_session.tell(project::setMarks(*m_session.project(), a.id, dialog.marks()));
        for (const auto& [key, text] : dialog.given())
            m_session.tell(
                project::enterMeasured(*m_session.project(), id, key.toStdString(), text.toStdString()));
    });
}

void PicturesList::remove() {
    const int row = std::max(0, m_list->currentRow());
    if (row < static_cast<int>(m_shown.size()))
        m_session.tell(
            project::removeAttachment(*m_session.project(), m_shown[static_cast<std::size_t>(row)].id));
}

} // namespace anvil::app
