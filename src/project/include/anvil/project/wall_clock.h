// Times of a plan by the clock on the wall here, summer time included.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/plan/pieces.h>
#include <anvil/plan/timetable.h>

namespace anvil::project {

/// A time as the plan keeps it ("2026-05-04T09:00:00", local) as seconds since 1970; nothing when it is none.
std::optional<plan::Instant> wallInstant(const std::string& text);

/// The preparation of a study laid out in time, within its working hours; empty when none was begun.
/// Error: a recipe that cannot be.
Expected<std::vector<plan::Step>> wallTimetable(const domain::StudyData& data, plan::Instant now);

/// What is to be said of the time a piece was pulled at; see plan::timingOf.
std::string wallTiming(const domain::StudyData& data, const domain::Pull& pull);

} // namespace anvil::project
