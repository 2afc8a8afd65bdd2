// Commands of what is measured on pictures.
#pragma once

#include <anvil/methods/picture.h>
#include <anvil/project/open_project.h>
#include <anvil/quantity/units.h>

namespace anvil::project {

/// A field of a pull, or of its piece, that a measured number may go to.
struct MeasuredField {
    std::string key, title; ///< key: of the input, "leg.2" of a leg; "mode": the share of how it failed
    quantity::Dimension dimension = quantity::Dimension::length;
};

/// The fields of a piece's method that take a length, an angle or an area. `pull`: with those of the
/// pull itself and, where it says how it failed, the share of that; null: of a form that is being filled in,
/// whose fields alone are told.
std::vector<MeasuredField> measuredFields(const domain::StudyData& data, const domain::Specimen& piece,
                                          const domain::Pull* pull);

/// Keeps what is marked on a picture. Error: no such picture any more.
Expected<void> setMarks(OpenProject& project, Id attachment, const methods::PictureMarks& marks);

/// Puts a measured number, as it would be typed, into a field of a pull or of its piece. Error: no such
/// field, no quantity of it, or what then cannot be.
Expected<void> enterMeasured(OpenProject& project, Id pull, const std::string& key, const std::string& text);

} // namespace anvil::project
