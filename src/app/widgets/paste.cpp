#include "widgets/paste.h"

#include <QApplication>
#include <QClipboard>
#include <QTableWidget>
#include <algorithm>

namespace anvil::app {

int pasteInto(QTableWidget& table) {
    const auto lines = QApplication::clipboard()->text().split('\n', Qt::SkipEmptyParts);
    const int top = std::max(0, table.currentRow()), left = std::max(0, table.currentColumn());
    int taken = 0;
    for (int r = 0; r < lines.size(); ++r) {
        const auto cells = lines[r].split('\t');
        for (int c = 0; c < cells.size(); ++c) {
            auto* item =
                table.item(top + r, left + c); // asked anew each time: a change may rebuild the table
            const auto text = cells[c].simplified();
            if (!item || !(item->flags() & Qt::ItemIsEditable) || item->text() == text) continue;
            item->setText(text);
            ++taken;
        }
    }
    return taken;
}

} // namespace anvil::app
