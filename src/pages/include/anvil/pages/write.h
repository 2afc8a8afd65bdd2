// Pages as files and as text.
#pragma once

#include <anvil/pages/block.h>
#include <string>

namespace anvil::pages {

/// The page as one HTML file that needs nothing else; pictures are SVG.
std::string toHtml(const Page& page);

/// The page as plain text, tables in columns; a picture is its caption.
std::string toText(const Page& page);

} // namespace anvil::pages
