// How large the parts of a board are, px.
#pragma once

#include "theme/theme.h"

namespace anvil::app::board_sizes {

inline int head() { return grown(30); }
inline int rowHeight() { return grown(44); }
inline int markSize() { return grown(13); }
inline int pitch() { return grown(15); }
inline int leastColumn() { return grown(50); }
inline int railWidth() { return grown(128); }
inline int railNames() { return grown(34); }
inline int mostNames() { return grown(170); }

} // namespace anvil::app::board_sizes
