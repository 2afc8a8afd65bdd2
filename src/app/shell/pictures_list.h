// Pictures and clips kept with the selected pull: dropped here or chosen, shown small, opened and taken away.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QLabel;
class QListWidget;

namespace anvil::app {

class PicturesList : public QWidget {
    Q_OBJECT
public:
    explicit PicturesList(Session& session, QWidget* parent = nullptr);
    void refresh();
    /// Keeps these files with the selected pull; what cannot be kept is said.
    void add(const QStringList& paths);
    /// Whether a file is a picture or clip by its name.
    static bool isPicture(const QString& path);

private:
    void choose();
    void save();
    void measure();
    void remove();
    Session& m_session;
    QListWidget* m_list;
    QWidget* m_buttons;
    std::vector<domain::Attachment> m_shown;
};

} // namespace anvil::app
