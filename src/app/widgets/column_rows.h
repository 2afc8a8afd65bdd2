// Columns of a device in a list that is typed cell by cell: name, unit, and the question it is asked by.
#pragma once

#include "widgets/row_editor.h"
#include <anvil/rig/lines.h>
#include <span>

namespace anvil::app {

std::vector<QStringList> columnRows(std::span<const rig::LineColumn> columns);
std::vector<rig::ColumnText> columnTexts(const RowEditor& list);

} // namespace anvil::app
