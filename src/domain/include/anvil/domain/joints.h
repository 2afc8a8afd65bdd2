// Pieces with more than one joint, such as both ends of a rope: the end that fails tells how strong it is,
// the one that holds only that it is at least as strong.
#pragma once

#include <anvil/domain/model.h>
#include <string>
#include <vector>

namespace anvil::domain {

/// The option at the other end of a piece; 0 where the piece has one joint, or the same at every end.
Id otherEndOf(const StudyData& data, const Specimen& piece);

/// What the ends of a piece are called at the rig, as many as it has joints: "end 1", or "end 1: bowline"
/// where the ends differ.
std::vector<std::string> endNames(const StudyData& data, const Specimen* piece);

} // namespace anvil::domain
