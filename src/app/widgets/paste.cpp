#include "widgets/paste.h"

#include <QApplication>
#include <QClipboard>
#include <QTableWidget>
#include <algorithm>

namespace anvil::app {

std::vector<QStringList> copiedCells() {
    std::vector<QStringList> out;
    for (const auto& line : QApplication::clipboard()->text().split('\n', Qt::SkipEmptyParts))
        out.push_back(line.split('\t'));
    return out;
}

int pasteInto(QTableWidget& table) {
    const auto lines = copiedCells();
    const int top = std::max(0, table.currentRow()), left = std::max(0, table.currentColumn());
    int taken = 0;
    for (int r = 0; r < static_cast<int>(lines.size()); ++r) {
        const auto& cells = lines[static_cast<std::size_t>(r)];
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
