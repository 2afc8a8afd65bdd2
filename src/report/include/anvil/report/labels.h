// A sheet of labels for pieces: text and a Code 128 bar code that any scanner reads.
#pragma once

#include <QString>
#include <anvil/chart/picture.h>
#include <anvil/quantity/error.h>
#include <vector>

namespace anvil::report {

struct PieceLabel {
    QString label, line1, line2;
};

/// The bars of a text in Code 128, as a picture of the given size; the text itself is not drawn. Error: it
/// cannot be coded.
Expected<chart::Picture> barCode(const QString& text, double width, double height);

/// Writes the labels, three by eight on A4. Error: nothing to write, or the file cannot be written.
Expected<void> writeLabels(const std::vector<PieceLabel>& labels, const QString& path);

} // namespace anvil::report
