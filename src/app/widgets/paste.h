// Pasting a block copied in a spreadsheet into a table, cell by cell from the current one.
#pragma once

#include <QStringList>
#include <vector>

class QTableWidget;

namespace anvil::app {

/// What is on the clipboard as rows of cells; none where there is no text.
std::vector<QStringList> copiedCells();

/// Sets the editable cells from the current one on as the clipboard says; returns how many changed. Each
/// change is a command of its own.
int pasteInto(QTableWidget& table);

} // namespace anvil::app
