// When a batch has to be primed, clamped, washed, read: a recipe laid out in time. Instants are seconds since
// 1970, UTC.
#pragma once

#include <anvil/domain/plan.h>
#include <anvil/quantity/error.h>
#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace anvil::plan {

using namespace domain; // plans are made of its values

using Instant = std::int64_t;

/// A time as the plan keeps it ("2026-05-04T09:00:00", the bench's own clock) as seconds since 1970; nothing
/// when it is none.
std::optional<Instant> instantOf(const std::string& text);

/// When somebody is there to work. The offset of local time from UTC is asked for each instant, so that
/// summer time is right.
struct WorkingHours {
    int from = 0, to = 24 * 60; ///< minutes after local midnight; 0 … 1440: always
    std::function<int(Instant)> offsetMinutes = [](Instant) { return 0; };
};

/// The first instant from `at` on that lies within working hours.
Instant nextWorking(Instant at, const WorkingHours& hours);

/// How a step stands.
enum class StepState {
    waiting, ///< what comes before is not done, or its wait is not over
    due,     ///< may be done now
    overdue, ///< its latest time has passed
    done,
    doneEarly, ///< before its wait was over
    doneLate   ///< after its latest time
};
const char* word(StepState state);

/// One line of the timetable.
struct Step {
    std::string key;  ///< "2.1": recipe step and repeat, both from 0
    std::string name; ///< "Wash, 2 of 5"
    Instant earliest = 0, finish = 0;
    Instant latest = 0; ///< 0: none
    Instant done = 0;   ///< 0: not yet
    StepState state = StepState::waiting;
};

/// Lays a recipe out from its start. A step's earliest time follows from when the one before was (or could
/// be) done and its wait; repeats follow each other by their interval from the first one. What was done moves
/// everything after it. Error: a step without a name, a negative time, a repeat below one or above 1000.
Expected<std::vector<Step>> timetable(const std::vector<RecipeStep>& recipe, Instant start,
                                      const std::map<std::string, Instant>& done, Instant now,
                                      const WorkingHours& hours = {});

/// How stored times are read, and when somebody is there: by the clock on the wall, or by the study's own.
struct Clock {
    std::function<std::optional<Instant>(const std::string&)> instantOf;
    std::function<int(Instant)> offsetMinutes = [](Instant) { return 0; };
};

/// The preparation of a study laid out in time within its working hours; empty when none was begun. Error: as
/// of timetable().
Expected<std::vector<Step>> preparationOf(const Plan& plan, Instant now, const Clock& clock);

/// Share of the whole preparation that lies behind, 0 … 1; 1 when everything is done.
double progress(const std::vector<Step>& steps, Instant start, Instant now);
/// The instant everything could be finished; the start where there are no steps.
Instant finished(const std::vector<Step>& steps, Instant start);

/// Products whose date lies before the day they are used, as sentences. Dates are yyyy-mm-dd.
std::vector<std::string> expired(const std::vector<RecipeStep>& recipe, const std::string& day);

/// The steps that are not done yet as a calendar file (iCalendar, RFC 5545), CRLF, lines folded at 75 octets.
std::string toCalendar(const std::vector<Step>& steps, const std::string& title, Instant made);

} // namespace anvil::plan
