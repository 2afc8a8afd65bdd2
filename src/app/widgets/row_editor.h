// A short list that is typed cell by cell: a row a thing, the last row always free.
#pragma once

#include <QStringList>
#include <QTableWidget>
#include <vector>

namespace anvil::app {

class RowEditor : public QTableWidget {
    Q_OBJECT
public:
    /// Column heads, and the name that says what the list is.
    RowEditor(const QStringList& heads, const QString& about, QWidget* parent = nullptr);
    /// So many rows stand there from the start.
    void setLeastRows(int rows);
    /// Other columns; what is typed goes.
    void setHeads(const QStringList& heads);
    void setRows(const std::vector<QStringList>& rows);
    /// What is typed, row by row; rows of nothing are left out.
    std::vector<QStringList> rows() const;

signals:
    void edited();

protected:
    /// Delete takes a row away; what was copied from a spreadsheet goes in as rows.
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

protected slots:
    /// Return goes on to the next row.
    void closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) override;

private:
    QStringList textOf(int row) const;
    void put(int row, int column, const QString& text);
    void fit();
    void paste();
    void free(); ///< sees to the free row, and to the height
    bool m_filling = false;
    int m_least = 1;
};

} // namespace anvil::app
