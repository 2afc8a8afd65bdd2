// What a pull says of each end of its piece.
#pragma once

#include <anvil/domain/joints.h>
#include <anvil/results/values.h>

namespace anvil::results {

/// What a pull says of one of the options its piece carries; as valueOf(), but where the ends differ the one
/// that held is a bound for what was seen at the failure (the peak, the energy) and has no more than that.
/// Where nobody noted which end failed, both are bounds: neither was seen to fail.
MetricValue valueAtEnd(const StudyData& data, const Pull& pull, const Specimen& piece, Id option,
                       const curve::Reading* reading, Metric metric);

/// The same of a value that is known of the pull.
MetricValue atEnd(const StudyData& data, const Pull& pull, const Specimen& piece, Id option,
                  const Metric& metric, MetricValue value);

/// How a pull stands for one of the options its piece carries: as it stands for the end that failed; for the
/// one that held "at least", or "not read" where not even that is known.
Standing standingAtEnd(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                       const Specimen& piece, Id option);

/// How many joints of a piece held when one of the same kind failed: each is at least as strong. They are of
/// one piece with the one that failed, and so are listed beside it instead of being counted. 0 where nothing
/// failed, or the ends differ.
int jointsThatHeld(const StudyData& data, const Pull& pull, const Specimen& piece);

} // namespace anvil::results
