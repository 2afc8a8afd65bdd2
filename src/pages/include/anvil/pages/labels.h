// A sheet of labels for pieces: text and a code that any scanner reads.
#pragma once

#include <QString>
#include <anvil/chart/picture.h>
#include <anvil/quantity/error.h>
#include <vector>

namespace anvil::pages {

struct PieceLabel {
    QString label, line1, line2;
};

enum class Code {
    bars, ///< Code 128
    qr
};

/// A text as bars that fill the box, or as a square QR code as wide as the lesser side; the text itself is
/// not drawn. Error: it cannot be coded.
Expected<chart::Picture> codePicture(const QString& text, Code code, double width, double height);

/// Writes the labels, three by eight on A4. Error: nothing to write, or the file cannot be written.
Expected<void> writeLabels(const std::vector<PieceLabel>& labels, const QString& path,
                           Code code = Code::bars);

} // namespace anvil::pages
