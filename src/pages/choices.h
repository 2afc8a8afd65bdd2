// What several pages of a verdict begin with.
#pragma once

#include <anvil/pages/page.h>

namespace anvil::pages {

/// The metric a view ranks by.
domain::Metric metricOf(const Source& source, const View& view);

/// "Ranked by …": the metrics of the study's method, and the one that decides.
Choice metricChoice(const Source& source, const View& view);

/// A heading within a page.
Heading section(std::string_view text);
/// A paragraph of fixed words.
Paragraph paragraph(Paragraph::Style style, std::string_view text);

} // namespace anvil::pages
