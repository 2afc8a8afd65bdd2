#include "widgets/row_editor.h"

#include "theme/theme.h"
#include "widgets/paste.h"
#include <QHeaderView>
#include <QKeyEvent>
#include <algorithm>

namespace anvil::app {
namespace {
constexpr int rowPixels = 24, mostRows = 8;
}

RowEditor::RowEditor(const QStringList& heads, const QString& about, QWidget* parent)
    : QTableWidget(0, static_cast<int>(heads.size()), parent) {
    setHorizontalHeaderLabels(heads);
    setAccessibleName(about);
    verticalHeader()->hide();
    horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    verticalHeader()->setDefaultSectionSize(grown(rowPixels));
    fit();
    free();
    connect(this, &QTableWidget::cellChanged, this, [this] {
        if (m_filling) return;
        free();
        emit edited();
    });
}

void RowEditor::setLeastRows(int rows) {
    m_least = std::max(1, rows);
    free();
}

QStringList RowEditor::textOf(int row) const {
    QStringList out;
    for (int k = 0; k < columnCount(); ++k)
        out << (item(row, k) ? item(row, k)->text().simplified() : QString());
    return out;
}

void RowEditor::setHeads(const QStringList& heads) {
    if (heads.size() == columnCount()) return setHorizontalHeaderLabels(heads);
    m_filling = true;
    setRowCount(0);
    setColumnCount(static_cast<int>(heads.size()));
    setHorizontalHeaderLabels(heads);
    m_filling = false;
    fit();
    free();
}

/// Few columns share the width; many keep what they need, and scroll.
void RowEditor::fit() {
    const bool few = columnCount() <= 3;
    horizontalHeader()->setMinimumSectionSize(few ? 40 : 72);
    horizontalHeader()->setSectionResizeMode(few ? QHeaderView::Stretch : QHeaderView::ResizeToContents);
    setHorizontalScrollBarPolicy(few ? Qt::ScrollBarAlwaysOff : Qt::ScrollBarAlwaysOn);
}

void RowEditor::setRows(const std::vector<QStringList>& all) {
    if (all == rows()) return; // whoever types in it keeps the place
    m_filling = true;
    setRowCount(static_cast<int>(all.size()));
    for (int r = 0; r < rowCount(); ++r)
        for (int k = 0; k < columnCount(); ++k)
            put(r, k, all[static_cast<std::size_t>(r)].value(k));
    m_filling = false;
    free();
}

/// Items stay: one that is replaced would go from under whoever has just typed in it.
void RowEditor::put(int row, int column, const QString& text) {
    if (auto* known = item(row, column))
        known->setText(text);
    else
        setItem(row, column, new QTableWidgetItem(text));
}

std::vector<QStringList> RowEditor::rows() const {
    std::vector<QStringList> out;
    for (int r = 0; r < rowCount(); ++r)
        if (auto texts = textOf(r); !texts.join(QString()).isEmpty()) out.push_back(std::move(texts));
    return out;
}

void RowEditor::free() {
    m_filling = true;
    while (rowCount() < m_least || !textOf(rowCount() - 1).join(QString()).isEmpty()) {
        setRowCount(rowCount() + 1);
        for (int k = 0; k < columnCount(); ++k)
            put(rowCount() - 1, k, {});
    }
    m_filling = false;
    setFixedHeight(std::min(rowCount(), mostRows) * grown(rowPixels) +
                   horizontalHeader()->sizeHint().height() + 4 +
                   (columnCount() > 3 ? 14 : 0)); // the bar to scroll by
}

void RowEditor::keyPressEvent(QKeyEvent* event) {
    if (event->matches(QKeySequence::Paste) && state() != EditingState) return paste();
    if (event->key() != Qt::Key_Delete || currentRow() < 0 || state() == EditingState)
        return QTableWidget::keyPressEvent(event);
    removeRow(currentRow());
    free();
    emit edited();
}

void RowEditor::paste() {
    const auto cells = copiedCells();
    if (cells.empty()) return;
    const int top = std::max(0, currentRow()), left = std::max(0, currentColumn());
    m_filling = true;
    for (int r = 0; r < static_cast<int>(cells.size()); ++r) {
        if (top + r >= rowCount()) setRowCount(top + r + 1);
        for (int k = 0; k < columnCount(); ++k) {
            const auto& row = cells[static_cast<std::size_t>(r)];
            if (k >= left && k - left < row.size())
                put(top + r, k, row[k - left].simplified());
            else if (!item(top + r, k))
                put(top + r, k, {});
        }
    }
    m_filling = false;
    free();
    emit edited();
}

void RowEditor::closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) {
    const bool more = hint == QAbstractItemDelegate::SubmitModelCache && currentRow() + 1 < rowCount();
    QTableWidget::closeEditor(editor, hint);
    if (more) setCurrentCell(currentRow() + 1, 0);
}

/// Where nobody types nothing is marked.
void RowEditor::focusOutEvent(QFocusEvent* event) {
    QTableWidget::focusOutEvent(event);
    if (state() != EditingState && event->reason() != Qt::PopupFocusReason) clearSelection();
}

} // namespace anvil::app
