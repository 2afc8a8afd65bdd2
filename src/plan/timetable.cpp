#include <anvil/plan/timetable.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>
#include <fmt/format.h>

namespace anvil::plan {

using namespace domain;
namespace {

Instant seconds(double minutes) { return static_cast<Instant>(std::llround(minutes * 60)); }

std::string stamp(Instant at) {
    using namespace std::chrono;
    const sys_seconds time{std::chrono::seconds(at)};
    const auto day = floor<days>(time);
    const year_month_day ymd(day);
    const hh_mm_ss clock(time - day);
    return fmt::format("{:04}{:02}{:02}T{:02}{:02}{:02}Z", static_cast<int>(ymd.year()),
                       static_cast<unsigned>(ymd.month()), static_cast<unsigned>(ymd.day()),
                       clock.hours().count(), clock.minutes().count(), clock.seconds().count());
}

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == ',' || c == ';' || c == '\\') out += '\\';
        if (c == '\n')
            out += "\\n";
        else
            out += c;
    }
    return out;
}

/// Folds at 75 octets without cutting a character.
std::string folded(const std::string& line) {
    std::string out;
    std::size_t width = 0;
    for (std::size_t i = 0; i < line.size();) {
        std::size_t n = 1;
        while (i + n < line.size() && (static_cast<unsigned char>(line[i + n]) & 0xC0) == 0x80)
            ++n;
        if (width + n > 74) {
            out += "\r\n ";
            width = 1;
        }
        out.append(line, i, n);
        width += n;
        i += n;
    }
    return out + "\r\n";
}

} // namespace

std::optional<Instant> instantOf(const std::string& text) {
    constexpr std::string_view marks = "--T::"; // 2026-03-01T10:30[:15]
    std::array<int, 6> part{};
    std::size_t got = 0;
    for (const char *at = text.data(), *const end = at + text.size(); got < part.size(); ++at) {
        const auto [rest, error] = std::from_chars(at, end, part[got]);
        if (error != std::errc{}) break;
        at = rest;
        if (got++ == marks.size() || at == end || *at != marks[got - 1]) break;
    }
    const auto [y, mo, d, h, mi, s] = part;
    const std::chrono::year_month_day day{std::chrono::year(y), std::chrono::month(static_cast<unsigned>(mo)),
                                          std::chrono::day(static_cast<unsigned>(d))};
    if (got < 5 || !day.ok() || h < 0 || h > 23 || mi < 0 || mi > 59 || s < 0 || s > 60) return std::nullopt;
    return std::chrono::sys_days(day).time_since_epoch().count() * Instant{86400} + h * 3600 + mi * 60 + s;
}

Expected<std::vector<Step>> preparationOf(const Plan& plan, Instant now, const Clock& clock) {
    const auto start = clock.instantOf(plan.recipeStarted);
    if (!start) return std::vector<Step>{};
    std::map<std::string, Instant> done;
    for (const auto& [key, at] : plan.stepsDone)
        if (const auto instant = clock.instantOf(at)) done[key] = *instant;
    return timetable(plan.recipe, *start, done, now, {plan.workFrom, plan.workTo, clock.offsetMinutes});
}

const char* word(StepState state) {
    static constexpr const char* words[] = {"waiting", "due", "overdue", "done", "done early", "done late"};
    static_assert(std::size(words) == static_cast<std::size_t>(StepState::doneLate) + 1);
    return words[static_cast<int>(state)];
}

Instant nextWorking(Instant at, const WorkingHours& hours) {
    if (hours.from <= 0 && hours.to >= 24 * 60) return at;
    for (int tries = 0; tries < 4; ++tries) { // a jump over a change of summer time is looked at again
        const Instant local = at + 60 * hours.offsetMinutes(at);
        const Instant midnight = local - ((local % 86400) + 86400) % 86400;
        const Instant open = midnight + 60 * hours.from, close = midnight + 60 * hours.to;
        if (local >= open && local < close) return at;
        const Instant want = local < open ? open : open + 86400;
        at = want - 60 * hours.offsetMinutes(want - 60 * hours.offsetMinutes(at));
    }
    return at;
}

Expected<std::vector<Step>> timetable(const std::vector<RecipeStep>& recipe, Instant start,
                                      const std::map<std::string, Instant>& done, Instant now,
                                      const WorkingHours& hours) {
    std::vector<Step> out;
    Instant ready = start, latest = 0;
    bool before = true; // everything so far is done
    for (std::size_t i = 0; i < recipe.size(); ++i) {
        const auto& r = recipe[i];
        if (r.name.empty()) return fail(fmt::format("Step {} has no name.", i + 1));
        if (r.minutes < 0 || r.waitMinutes < 0 || r.latestMinutes < 0 || r.everyMinutes < 0)
            return fail(fmt::format("\"{}\" has a time below zero.", r.name));
        if (r.repeat < 1 || r.repeat > 1000)
            return fail(fmt::format("\"{}\" is repeated {} times: give 1 to 1000.", r.name, r.repeat));
        if (r.latestMinutes > 0 && r.latestMinutes < r.waitMinutes)
            return fail(fmt::format("After \"{}\" one must wait longer than one may: the latest time lies "
                                    "before the wait is over.",
                                    r.name));
        Instant first = 0,
                last = 0; // when the first repeat began; when the one before was finished, if it was
        const bool reached = before; // everything before this step is done
        bool firstDone = false;
        std::optional<Instant> putOff; // when the repeat before begins, if the hours moved it
        for (int k = 0; k < r.repeat; ++k) {
            Step s;
            s.key = fmt::format("{}.{}", i, k);
            s.name = r.repeat > 1 ? fmt::format("{}, {} of {}", r.name, k + 1, r.repeat) : r.name;
            // Repeats keep their schedule: one that was missed does not hold up the next.
            const bool scheduled = k > 0 && r.everyMinutes > 0;
            const bool open = scheduled ? reached && firstDone : before;
            Instant want = scheduled ? std::max(last, first + k * seconds(r.everyMinutes)) : ready;
            // What was put off to the next morning puts off what follows: nobody washes twice at seven.
            if (scheduled && putOff) want = std::max(want, *putOff + seconds(r.everyMinutes));
            s.earliest = nextWorking(want, hours);
            putOff = s.earliest > want || putOff ? std::optional(s.earliest) : std::nullopt;
            s.latest = k == 0 ? latest : 0;
            if (const auto at = done.find(s.key); at != done.end()) {
                s.done = at->second;
                // Whoever works after hours is not early: the wait is what counts.
                s.state = s.done < want                   ? StepState::doneEarly
                          : s.latest && s.done > s.latest ? StepState::doneLate
                                                          : StepState::done;
            } else {
                s.state = !open || now < s.earliest    ? StepState::waiting
                          : s.latest && now > s.latest ? StepState::overdue
                                                       : StepState::due;
                // A repeat that its successor would already be due for is late too.
                if (s.state == StepState::due && r.repeat > 1 && r.everyMinutes > 0 &&
                    now > s.earliest + seconds(r.everyMinutes))
                    s.state = StepState::overdue;
                before = false;
            }
            const Instant began =
                s.done ? s.done : std::max(s.earliest, s.state == StepState::waiting ? s.earliest : now);
            s.finish = began + seconds(r.minutes);
            if (k == 0) {
                first = began;
                firstDone = s.done != 0;
            }
            last = s.done ? s.finish : last;
            ready = std::max(ready, s.finish);
            out.push_back(std::move(s));
        }
        latest = r.latestMinutes > 0 ? ready + seconds(r.latestMinutes) : 0;
        ready += seconds(r.waitMinutes);
    }
    if (!out.empty()) out.back().finish = ready; // the last wait (a cure) belongs to the preparation
    return out;
}

Instant finished(const std::vector<Step>& steps, Instant start) {
    return steps.empty() ? start : steps.back().finish;
}

double progress(const std::vector<Step>& steps, Instant start, Instant now) {
    const Instant end = finished(steps, start);
    const bool all = std::all_of(steps.begin(), steps.end(), [](const Step& s) { return s.done != 0; });
    if (all && now >= end) return 1;
    if (end <= start) return all ? 1 : 0;
    return std::clamp(static_cast<double>(now - start) / static_cast<double>(end - start), 0.0, 0.999);
}

std::vector<std::string> expired(const std::vector<RecipeStep>& recipe, const std::string& day) {
    std::vector<std::string> out;
    for (const auto& r : recipe)
        if (r.expires.size() == 10 && r.expires < day) // dates written this way sort as text
            out.push_back(fmt::format("{} is past its date ({}): it may cure badly and spoil the square.",
                                      r.product.empty() ? r.name : r.product, r.expires));
    return out;
}

std::string toCalendar(const std::vector<Step>& steps, const std::string& title, Instant made) {
    std::string out = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Jaunty Anvil//Timetable//EN\r\n";
    for (const auto& s : steps) {
        if (s.done) continue;
        out += "BEGIN:VEVENT\r\n";
        out += folded(fmt::format("UID:{}-{}@jaunty-anvil", s.key, s.earliest));
        out += folded("DTSTAMP:" + stamp(made));
        out += folded("DTSTART:" + stamp(s.earliest));
        out += folded("DTEND:" + stamp(std::max(s.finish, s.earliest + 60)));
        out += folded("SUMMARY:" + escaped(s.name + " (" + title + ")"));
        if (s.latest) out += folded("DESCRIPTION:" + escaped("At the latest " + stamp(s.latest)));
        out += "BEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:PT0S\r\nDESCRIPTION:Due "
               "now\r\nEND:VALARM\r\nEND:VEVENT\r\n";
    }
    return out + "END:VCALENDAR\r\n";
}

} // namespace anvil::plan
