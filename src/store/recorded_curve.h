// Recorded samples as columns.
#pragma once

#include <anvil/curve/curve.h>
#include <anvil/store/tape.h>

namespace anvil::store {

/// A stretch of a stream (0: the main device). Where a curve has displacements, a sample without one keeps
/// the last, which is handed from stretch to stretch. A stream beside the main one has no force.
curve::Curve recordedCurve(std::span<const rig::Sample> samples, const RecordedChannels& channels,
                           std::size_t stream, bool hasTravel, double& displacement);

} // namespace anvil::store
