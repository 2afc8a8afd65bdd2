// What the window shows before there is a project: what do you want to do, and what was done lately.
#pragma once

#include "shell/preferences.h"
#include <QScrollArea>
#include <anvil/chart/start_pictures.h>

class QLabel;
class QVBoxLayout;

namespace anvil::app {

class StartPage : public QScrollArea {
    Q_OBJECT
public:
    explicit StartPage(QWidget* parent = nullptr);
    /// Shows the projects opened lately that are still where they were.
    void refresh();

signals:
    void wanted(anvil::chart::FirstStep step);
    void tableWanted();
    void pasteWanted();
    void openWanted(); ///< a project from a file dialog
    void projectWanted(const QString& path);

protected:
    void showEvent(QShowEvent* event) override;

private:
    QLayout* makeDoors();
    QLayout* makeOthers();
    QWidget* m_recent = nullptr;
    QVBoxLayout* m_rows = nullptr;
};

} // namespace anvil::app
