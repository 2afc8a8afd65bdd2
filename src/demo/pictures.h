// Pictures of the worked example, painted by the program, with what is measured on them.
#pragma once

#include <QByteArray>
#include <anvil/methods/picture.h>

namespace anvil::demo {

/// A picture as a PNG, with its marks.
struct Painted {
    QByteArray png;
    methods::PictureMarks marks;
};

/// A swinging hammer seen square on, at rest and at the top of its swing after the blow, rad; beside it a
/// staff of 1 m. Marked: the staff, the angle, and how high the head came.
Painted swing(double rise);

/// The face of a broken bar under a slanting lens, on a card of 20 by 14 mm: the part that tore smoothly,
/// as a share of the face. Marked: the card, the face, and the part.
Painted brokenFace(double share);

/// Three legs of a foot seen from above, by their directions, rad; marked: the angles from the first to the
/// second and from the second to the third.
Painted legsFromAbove(double first, double second, double third);

} // namespace anvil::demo
