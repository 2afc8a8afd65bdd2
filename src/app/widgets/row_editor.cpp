#include "widgets/row_editor.h"

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
    verticalHeader()->setDefaultSectionSize(rowPixels);
    fit();
    free();
    connect(this, &QTableWidget::cellChanged, this, [this] {
        if (m_filling) return;
        free();
        emit edited();
    });
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
    if (rowCount() == 0 || !textOf(rowCount() - 1).join(QString()).isEmpty()) {
        setRowCount(rowCount() + 1);
        for (int k = 0; k < columnCount(); ++k)
            put(rowCount() - 1, k, {});
    }
    m_filling = false;
    setFixedHeight(std::min(rowCount(), mostRows) * rowPixels + horizontalHeader()->sizeHint().height() + 4 +
                   (columnCount() > 3 ? 14 : 0)); // the bar to scroll by
}

void RowEditor::keyPressEvent(QKeyEvent* event) {
    if (event->key() != Qt::Key_Delete || currentRow() < 0 || state() == EditingState)
        return QTableWidget::keyPressEvent(event);
    removeRow(currentRow());
    free();
    emit edited();
}

} // namespace anvil::app
