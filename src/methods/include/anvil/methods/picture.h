// Lengths, angles, areas and shares clicked on a photograph, with the uncertainty of the clicks.
#pragma once

#include <anvil/quantity/entry.h>
#include <anvil/quantity/error.h>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::methods {

/// A place in a picture, px from its upper left corner.
struct PicturePoint {
    double x = 0, y = 0;
    bool operator==(const PicturePoint&) const = default;
};

/// What is known in the picture. Two points: the ends of a length, all else lying in its plane and seen
/// square on. Four: the corners of a rectangle going round, which also undoes the perspective of its plane.
/// None: angles and shares only.
struct PictureScale {
    std::vector<PicturePoint> points;
    double length = 0; ///< m, from the first point to the second
    double height = 0; ///< m, of a rectangle: from the second to the third
    double doubt = 0;  ///< m, standard uncertainty of the two
    bool operator==(const PictureScale&) const = default;
};

/// Two points; three with the corner in the middle; an outline; the outline of the whole that the areas are a
/// share of.
enum class MarkKind { distance, angle, area, whole };
std::string_view key(MarkKind kind); ///< as stored: "distance", "angle", "area", "whole"
std::optional<MarkKind> markKindFromKey(std::string_view key);

/// Something clicked on the picture.
struct PictureMark {
    MarkKind kind = MarkKind::distance;
    std::string name;
    std::vector<PicturePoint> points;
    bool operator==(const PictureMark&) const = default;
};

/// A picture's scale and everything marked on it.
struct PictureMarks {
    PictureScale scale;
    double click = 2; ///< px, standard uncertainty of each click along each axis
    std::vector<PictureMark> marks;
    bool operator==(const PictureMarks&) const = default;
};

/// What a mark comes to, SI, with its standard uncertainty: every click and the known lengths taken as
/// independent, first order (JCGM 100, 5.1.2).
struct PictureMeasure {
    quantity::Dimension dimension = quantity::Dimension::length;
    double value = 0, uncertainty = 0;
};

/// Error, as a sentence: no such mark, too few points for its kind, a length or an area in a picture without
/// a known length, corners that do not go round, a place beyond the horizon of the rectangle's plane, an
/// outline that crosses itself, areas that overlap or are more than the whole.
Expected<PictureMeasure> measureMark(const PictureMarks& picture, std::size_t mark);

/// As it would be typed, in this unit, with two digits of its uncertainty: "412.3 ± 1.9 mm".
quantity::Entry asEntry(const PictureMeasure& measure, const quantity::Unit& unit);

/// How many points a kind has; of outlines at least three.
std::size_t pointsOf(MarkKind kind);

/// Whether a scale is complete: its points and lengths are said.
bool isComplete(const PictureScale& scale);

} // namespace anvil::methods
