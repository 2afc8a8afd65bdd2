// Commands of what a method asks for, where it is not of one pull: of the whole study, or of a piece.
#pragma once

#include <anvil/methods/method.h>
#include <anvil/project/open_project.h>

namespace anvil::project {

using UnitOf = std::function<const quantity::Unit*(quantity::Dimension)>;

/// What holds for every piece of a study unless the piece says otherwise; an empty text takes it away. Error:
/// no quantity of the input, or a study that is gone.
Expected<void> tellOfStudy(OpenProject& project, Id study, const methods::Input& input,
                           const std::string& text, const UnitOf& unitOf);

/// Likewise of one piece.
Expected<void> tellOfPiece(OpenProject& project, Id specimen, const methods::Input& input,
                           const std::string& text, const UnitOf& unitOf);

} // namespace anvil::project
