// Pieces as things: where they lie in the sheet they were made in, what area carries the load, whether they
// were pulled in time.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/plan/timetable.h>
#include <functional>

namespace anvil::plan {

/// The area that carries the load, worked out from measured lengths.
struct DerivedArea {
    double value = 0; ///< m²
    std::string how;  ///< "breadth × depth"
};
/// From what was measured, by name: "outer diameter" and "wall": a tube, π(D − w)w; "diameter": a round,
/// πd²/4; "overlap" and "width" (or "breadth"): a lap; two of width or breadth, and depth, thickness or
/// height: a rectangle. Empty when the names fit none of these or a length is missing.
std::optional<DerivedArea> derivedArea(const std::vector<domain::Measured>& measured);

/// Two places in one sheet that lie closer than was wanted.
struct ClosePair {
    domain::Id a = 0, b = 0;
    double distance = 0; ///< m, centre to centre
};
/// Pairs of pieces of one sheet closer than `apart` (m), nearest first.
std::vector<ClosePair> closePairs(const domain::StudyData& data, double apart);

/// The names of the sheets pieces were made in, in order of first use.
std::vector<std::string> sheets(const domain::StudyData& data);

/// What is to be said of the day a piece was pulled against its preparation: "pulled 3 h before the
/// preparation was over", "pulled 2 d after the latest time"; empty when it was in time or nothing was
/// prepared. `instant` turns a time as stored into seconds; by default the bench's own clock.
std::string timingOf(const domain::StudyData& data, const domain::Pull& pull,
                     const std::function<std::optional<Instant>(const std::string&)>& instant = instantOf);

/// A stretch of time in the largest unit that keeps it above one: "3 h", "2 d", "20 min".
std::string stretch(double seconds);

} // namespace anvil::plan
