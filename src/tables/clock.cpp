#include "clock.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <fmt/format.h>

namespace anvil::tables {

using namespace columns;

double medianStep(const std::vector<double>& t) {
    std::vector<double> steps;
    for (std::size_t i = 1; i < t.size(); ++i)
        if (t[i] != t[i - 1]) steps.push_back(std::abs(t[i] - t[i - 1]));
    if (steps.empty()) return 0;
    std::nth_element(steps.begin(), steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2),
                     steps.end());
    return steps[steps.size() / 2];
}

namespace {

void scale(std::vector<double>& values, double factor) {
    if (factor != 1)
        for (auto& v : values)
            v *= factor;
}

/// Clock stamps run on past midnight.
void unwrapMidnight(std::vector<double>& time) {
    double add = 0, last = time.empty() ? 0 : time[0];
    for (auto& t : time) {
        if (t < last - 43200) add += 86400;
        last = t;
        t += add;
    }
}

/// A log that shows its newest row first is turned round, and that is said.
void turnNewestFirst(const std::vector<double>& t, Columns& columns, Log& log) {
    if (t.size() < 3 || !columns.breaks.empty()) return;
    std::size_t down = 0;
    for (std::size_t i = 1; i < t.size(); ++i)
        down += t[i] < t[i - 1];
    if (down + 1 + t.size() / 50 < t.size()) return;
    for (auto& values : columns.values)
        std::reverse(values.begin(), values.end());
    for (auto& row : columns.overloads)
        row = columns.rows - std::min(row, columns.rows);
    std::reverse(columns.overloads.begin(), columns.overloads.end());
    log.notes.emplace_back("The newest row stands first in the file; it was turned round.");
}

/// "00:59" of a clock with two parts: an elapsed time of minutes and seconds where it begins at nothing.
Expected<void> minutesOrHours(const std::string& stamp, std::vector<double>& time, Log& log) {
    if (time.empty() || std::count(stamp.begin(), stamp.end(), ':') != 1 ||
        stamp.find_first_of("-/T ") != std::string::npos || stamp.find_first_of(".,") != std::string::npos)
        return {};
    if (time.front() != 0)
        return fail(fmt::format(
            "\"{}\" could be hours and minutes or minutes and seconds: write the stamps with all three parts",
            stamp));
    scale(time, 1.0 / 60);
    log.notes.emplace_back("Its time is taken as minutes and seconds.");
    return {};
}

/// A counter of 16 or 32 bits that went past its end goes on. Of 16 bits only where the next count comes in
/// time: a run of a minute in milliseconds ends near there as well.
void unwrapCounter(std::vector<double>& time, Log& log) {
    constexpr double shortTurn = 65536.0;
    if (std::is_sorted(time.begin(), time.end())) return;
    const double step = medianStep(time);
    for (const double turn : {shortTurn, 4294967296.0}) {
        double add = 0;
        bool whole = true;
        auto unwrapped = time;
        for (std::size_t i = 0; i < time.size() && whole; ++i) {
            whole = time[i] == std::floor(time[i]) && time[i] >= 0 && time[i] < turn;
            const bool turns = i > 0 && time[i - 1] > 0.9 * turn && time[i] < 0.1 * turn;
            whole = whole && !(turns && turn == shortTurn && time[i] + turn - time[i - 1] > 2 * step);
            if (turns) add += turn;
            unwrapped[i] += add;
        }
        if (!whole || add == 0) continue;
        time = std::move(unwrapped);
        log.notes.emplace_back("The clock's counter went past its end; it goes on from there.");
        return;
    }
}

/// 140559 → 140600 is a second: hours, minutes and seconds written as one number.
void readPackedClock(std::vector<double>& time, const std::string& header, Log& log) {
    bool turns = false;
    for (std::size_t i = 0; i < time.size(); ++i) {
        const double v = time[i], whole = std::floor(v);
        const double seconds = std::fmod(whole, 100), minutes = std::fmod(std::floor(whole / 100), 100);
        if (!(v >= 0) || whole >= 240000 || seconds > 59 || minutes > 59) return;
        const double before = i > 0 ? time[i - 1] : v;
        turns = turns || (std::floor(before / 100) + 1 == std::floor(whole / 100) && v - before > 40 &&
                          v - before < 42 && std::fmod(before, 100) >= 59);
    }
    if (!turns) return;
    for (auto& v : time) {
        const double whole = std::floor(v / 100);
        v = std::floor(whole / 100) * 3600 + std::fmod(whole, 100) * 60 + std::fmod(v, 100);
    }
    log.notes.push_back(fmt::format("\"{}\" is taken as hours, minutes and seconds.", header));
}

/// Whether clocks go forward or back in the night or early morning of this day somewhere: the last Sunday of
/// March or October, the second of March, the first of November or April.
bool clocksChange(double seconds) {
    using namespace std::chrono;
    const auto day = sys_days(days(static_cast<int>(std::floor(seconds / 86400))));
    const double hour = std::fmod(seconds, 86400) / 3600;
    if (weekday(day) != Sunday || hour > 4) return false;
    const year_month_day ymd(day);
    const auto month = static_cast<unsigned>(ymd.month()), date = static_cast<unsigned>(ymd.day());
    const bool last = year_month_day(day + days(7)).month() != ymd.month();
    return ((month == 3 || month == 10) && last) || (month == 3 && date > 7 && date < 15) ||
           ((month == 11 || month == 4 || month == 10) && date < 8);
}

/// An hour that a dated clock jumps when clocks are changed is no time that went by.
void takeBackSummerTime(std::vector<double>& time, double step, Log& log) {
    double add = 0;
    if (time.empty() || time.front() < 86400 * 365.0) return; // no date
    for (std::size_t i = 1; i < time.size(); ++i) {
        const double jump = time[i] + add - time[i - 1];
        for (const double hour : {3600.0, -3600.0})
            if (std::abs(jump - hour) <= 2 * step + 0.5 && step < 600 && clocksChange(time[i])) {
                add -= hour;
                log.notes.push_back(
                    fmt::format("The clock was {} an hour at row {}, on a day when clocks are "
                                "changed; it goes on as it was.",
                                hour > 0 ? "put forward" : "put back", i + 1));
                break;
            }
        time[i] += add;
    }
}

/// Milliseconds in a column of their own, beside a clock of whole seconds, belong to it.
void addMilliseconds(const Layout& layout, std::size_t clock, Columns& columns, Log& log) {
    auto& time = columns.values[clock];
    if (std::any_of(time.begin(), time.end(), [](double t) { return t != std::floor(t); })) return;
    for (std::size_t k = 0; k < layout.columns.size(); ++k) {
        const auto& c = layout.columns[k];
        const bool fraction = c.role == Role::other && c.unit &&
                              c.unit->dimension == quantity::Dimension::time && c.unit->factor < 1;
        auto& part = columns.values[k];
        if (!fraction || part.size() != time.size() || part.empty() ||
            !std::all_of(part.begin(), part.end(),
                         [&](double v) { return v >= 0 && v * c.unit->factor < 1; }))
            continue;
        for (std::size_t i = 0; i < time.size(); ++i)
            time[i] += part[i] * c.unit->factor;
        part.clear();
        log.notes.push_back(fmt::format("\"{}\" is the part of a second of its clock.", c.header));
        return;
    }
}

/// The unit of a time column that names none, by what it counts. Error: it cannot be seconds, and nobody
/// knows.
Expected<void> guessTimeUnit(std::vector<double>& time, const std::string& header, Log& log) {
    if (time.size() < 3) return {};
    const double at = std::abs(time.front()), step = medianStep(time);
    const auto take = [&](double factor, const char* what) {
        scale(time, factor);
        log.notes.push_back(fmt::format("\"{}\" is taken as {}.", header, what));
    };
    const auto name = lowered(header);
    if (name.find("micros") != std::string::npos) return take(1e-6, "microseconds"), Expected<void>();
    if (name.find("millis") != std::string::npos) return take(1e-3, "milliseconds"), Expected<void>();
    const auto since1970 = [&](double unit) { return at > 1e9 * unit && at < 4e9 * unit; }; // 2001 to 2096
    if (since1970(1e9))
        take(1e-9, "nanoseconds since 1970");
    else if (since1970(1e6))
        take(1e-6, "microseconds since 1970");
    else if (since1970(1e3))
        take(1e-3, "milliseconds since 1970");
    else if (!since1970(1) && at > 20000 && at < 80000 && step > 0 && step < 0.01 &&
             time.back() - time.front() < 30)
        take(86400, "days, as spreadsheets count them");
    else if (step >= 5)
        return fail(
            fmt::format("the steps of \"{}\" are {}, which are hardly seconds: say its unit", header, step),
            Wants::timeUnit);
    return {};
}

} // namespace

Expected<void> readClock(const Layout& layout, Columns& columns, Log& log) {
    const auto t = layout.find(Role::time);
    if (!t) return {};
    const auto& column = layout.columns[*t];
    auto& time = columns.values[*t];
    if (!column.clock) unwrapCounter(time, log);
    if (column.clock) addMilliseconds(layout, *t, columns, log);
    turnNewestFirst(time, columns, log);
    if (column.clock) {
        if (auto ok = minutesOrHours(layout.firstStamp, time, log); !ok) return ok;
        unwrapMidnight(time);
        takeBackSummerTime(time, medianStep(time), log);
        return {};
    }
    if (column.unit) {
        scale(time, column.unit->factor * column.factor);
        return {};
    }
    readPackedClock(time, column.header, log);
    return guessTimeUnit(time, column.header, log);
}

} // namespace anvil::tables
