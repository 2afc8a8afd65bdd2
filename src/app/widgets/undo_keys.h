// Who takes Ctrl+Z: the field somebody is typing in, or the project.
#pragma once

#include <QObject>

namespace anvil::app {

/// Installed on the application: a field that is empty, or holds only what the program put there, leaves the
/// keys for undo and redo to the window. What was just kept is taken back then, not the text of the last
/// piece.
class UndoKeys : public QObject {
    Q_OBJECT
public:
    explicit UndoKeys(QObject* parent);

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
};

} // namespace anvil::app
