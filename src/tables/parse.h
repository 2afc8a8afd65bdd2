// Rows of a sheet into columns.
#pragma once

#include "sheet.h"
#include <anvil/tables/log.h>

namespace anvil::tables {

/// As `parseColumns`, of rows that are parted already.
Columns parseRows(const std::vector<CellRow>& rows, const Layout& layout);

} // namespace anvil::tables
