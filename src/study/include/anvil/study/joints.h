// Pieces with more than one joint, such as both ends of a rope: the end that fails tells how strong it is,
// the one that holds only that it is at least as strong.
#pragma once

#include <anvil/study/model.h>
#include <string>
#include <vector>

namespace anvil::study {

/// The option at the other end of a piece; 0 where the piece has one joint, or the same at every end.
Id otherEndOf(const StudyData& data, const Specimen& piece);

/// What the ends of a piece are called at the rig, as many as it has joints: "end 1", or "end 1: bowline"
/// where the ends differ.
std::vector<std::string> endNames(const StudyData& data, const Specimen* piece);

/// What a pull says of one of the options its piece carries; as valueOf(), but where the ends differ the one
/// that held is a bound for what was seen at the failure (the peak, the energy) and has no more than that.
/// Where nobody noted which end failed, both are bounds: neither was seen to fail.
MetricValue valueAtEnd(const StudyData& data, const Pull& pull, const Specimen& piece, Id option,
                       const curve::Reading* reading, Metric metric);

/// How a pull stands for one of the options its piece carries: as it stands for the end that failed; for the
/// one that held "at least", or "not read" where not even that is known.
Standing standingAtEnd(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                       const Specimen& piece, Id option);

/// How many joints of a piece held when one of the same kind failed: each is at least as strong. They are of
/// one piece with the one that failed, and so are listed beside it instead of being counted. 0 where nothing
/// failed, or the ends differ.
int jointsThatHeld(const StudyData& data, const Pull& pull, const Specimen& piece);

} // namespace anvil::study
