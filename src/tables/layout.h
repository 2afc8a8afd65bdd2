// How a sheet is laid out.
#pragma once

#include "sheet.h"
#include <anvil/tables/log.h>

namespace anvil::tables {

/// As `detect`, of lines or of parted rows. Error: no rows of numbers, no load, or more than one.
Expected<Layout> layOut(const Sheet& sheet, const Hints& hints);

} // namespace anvil::tables
