// Times of a plan by the clock on the wall here, summer time included.
#pragma once

#include <anvil/study/model.h>
#include <anvil/study/timetable.h>

namespace anvil::work {

/// A time as the plan keeps it ("2026-05-04T09:00:00", local) as seconds since 1970; nothing when it is none.
std::optional<study::Instant> wallInstant(const std::string& text);

/// The preparation of a study laid out in time, within its working hours; empty when none was begun.
/// Error: a recipe that cannot be.
Expected<std::vector<study::Step>> wallTimetable(const study::StudyData& data, study::Instant now);

/// What is to be said of the time a piece was pulled at; see study::timingOf.
std::string wallTiming(const study::StudyData& data, const study::Pull& pull);

} // namespace anvil::work
