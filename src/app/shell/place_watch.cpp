#include "shell/place_watch.h"

#include <QFileDialog>
#include <QMessageBox>
#include <QPushButton>

namespace anvil::app {

PlaceWatch::PlaceWatch(Session& session, QWidget* window, std::function<bool(const QString&)> open)
    : QObject(window), m_session(session), m_window(window), m_open(std::move(open)) {
    connect(&m_timer, &QTimer::timeout, this, &PlaceWatch::look);
    connect(&session, &Session::projectChanged, this, [this] { m_told.clear(); });
    m_timer.start(everyMs);
}

bool PlaceWatch::look() {
    if (!m_session.project() || m_session.readOnly()) return true;
    const auto& file = m_session.project()->file();
    const auto why = file.whyNotInPlace();
    if (why.isEmpty() || m_told == file.path()) return true;
    m_told = file.path(); // before the dialog: the timer goes on
    return offer(why);
}

bool PlaceWatch::offer(const QString& why) {
    QMessageBox box(m_window);
    box.setObjectName("fileNotInPlace");
    box.setIcon(QMessageBox::Warning);
    box.setWindowTitle(tr("The project's file has gone"));
    box.setText(why);
    box.setInformativeText(
        tr("Everything up to now is still here, but nothing more can be saved at that place."));
    auto* keep = box.addButton(tr("Save under another name\u2026"), QMessageBox::AcceptRole);
    auto* later = box.addButton(tr("Later"), QMessageBox::RejectRole);
    box.setEscapeButton(later);
    box.exec();
    if (box.clickedButton() != keep || !m_session.project()) return false;
    const auto path = QFileDialog::getSaveFileName(m_window, tr("Save under another name"), QString(),
                                                   tr("Projects (*.anvil)"));
    if (path.isEmpty() || !m_session.tell(m_session.project()->file().saveCopy(path))) return false;
    return m_open(path);
}

} // namespace anvil::app
