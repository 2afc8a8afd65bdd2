// The board at its largest: options and conditions are typed in its margins, replicates in its squares.
#pragma once

#include "shell/session.h"
#include <QTableWidget>
#include <optional>

namespace anvil::app {

/// First row and column are the margins; the last row and column wait for another name. A number typed in a
/// square plans it, its grip drags it up or down, X or Delete strikes it out. Alt with arrows or dragging in
/// a margin reorders. A pasted column fills the margin it is pasted in.
class PlanBoard : public QTableWidget {
    Q_OBJECT
public:
    explicit PlanBoard(Session& session, QWidget* parent = nullptr);
    /// The squares selected, as option and condition.
    std::vector<std::pair<Id, Id>> selectedSquares() const;
    /// Puts the cursor where the next thing is missing: an option, a condition, or the number of replicates.
    void focusNext();
    /// As large as its rows and columns, while the window has room.
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override; ///< the head and its rows stay in view

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) override;
    void scrollTo(const QModelIndex& index, ScrollHint hint = EnsureVisible) override;

private:
    struct Cell {
        QString text;
        bool editable = false;
        QColor ink;
        bool bold = false;
        QString tip;
        QVariant count{}; ///< of a square
    };
    void put(int row, int column, const Cell& cell);
    Cell squareCell(const domain::StudyData& data, const results::Verdict& verdict, Id option,
                    Id condition) const;
    void paintHead(QPainter& painter) const;
    void refresh();
    void edited(int row, int column);
    void moveOn(int row, int column);
    void paste();
    Id optionAt(int row) const;
    Id conditionAt(int column) const;
    bool ensureStudy();
    bool onGrip(const QPoint& at) const;
    int draggedCount(int y) const;

    Session& m_session;
    bool m_filling = false;
    std::optional<std::pair<int, int>> m_next; ///< where the cursor goes when the editor is gone
    int m_dragRow = -1, m_dragColumn = -1;
    QPersistentModelIndex m_gripped; ///< the square whose number is being dragged
    int m_gripFrom = 0, m_gripCount = 0;
};

} // namespace anvil::app
