#include <anvil/columns/number.h>

#include <algorithm>
#include <anvil/columns/text.h>
#include <cctype>
#include <charconv>
#include <chrono>
#include <fast_float/fast_float.h>
#include <string>
#include <vector>

namespace anvil::columns {

namespace {

/// Signs and blanks of other keyboards as the plain ones: "−1 250" with a thin blank, "1’250".
std::string plainMarks(std::string_view field) {
    static constexpr std::pair<std::string_view, char> marks[] = {
        {"\u2212", '-'},  {"\u2013", '-'},  {"\ufe63", '-'}, {"\uff0d", '-'},
        {"\u00a0", ' '},  {"\u202f", ' '},  {"\u2009", ' '}, {"\u2007", ' '},
        {"\u2019", '\''}, {"\u02bc", '\''}, {"\uff0e", '.'}, {"\uff0c", ','}};
    std::string out;
    for (std::size_t i = 0; i < field.size();) {
        const auto* mark = static_cast<unsigned char>(field[i]) < 0x80
                               ? std::end(marks)
                               : std::find_if(std::begin(marks), std::end(marks), [&](const auto& m) {
                                     return field.substr(i).starts_with(m.first);
                                 });
        if (mark != std::end(marks)) {
            out += mark->second;
            i += mark->first.size();
        } else {
            out += field[i++];
        }
    }
    return out;
}

bool plainAscii(std::string_view s) {
    return std::none_of(s.begin(), s.end(), [](char c) { return static_cast<unsigned char>(c) >= 0x80; });
}

} // namespace

std::optional<double> readNumber(std::string_view field, char decimal) {
    field = trimmed(field);
    if (!plainAscii(field)) {
        const auto plain = plainMarks(field);
        return plainAscii(plain) ? readNumber(plain, decimal) : std::nullopt;
    }
    if (field.starts_with("+")) field.remove_prefix(1);
    if (field.empty()) return std::nullopt;
    double value = 0;
    const auto got = fast_float::from_chars_advanced(
        field.data(), field.data() + field.size(), value,
        fast_float::parse_options(fast_float::chars_format::general, decimal));
    if (got.ptr != field.data() + field.size() || got.ec == std::errc::invalid_argument) return std::nullopt;
    return value;
}

namespace {

/// Whether digits before, between and behind grouping marks are as people write them: groups of three, or of
/// two but for the last (2,34,567).
bool wellGrouped(const std::vector<std::size_t>& groups) {
    const auto all = [&](std::size_t size, std::size_t last) {
        if (groups.front() == 0 || groups.front() > size || groups.back() != last) return false;
        return std::all_of(groups.begin() + 1, groups.end() - 1, [&](std::size_t n) { return n == size; });
    };
    return groups.size() > 1 && (all(3, 3) || all(2, 3));
}

} // namespace

std::optional<double> readGrouped(std::string_view field, char decimal) {
    field = trimmed(field);
    if (!plainAscii(field)) {
        const auto text = plainMarks(field);
        return plainAscii(text) ? readGrouped(text, decimal) : std::nullopt;
    }
    const char group = decimal == '.' ? ',' : '.';
    std::string plain;
    std::vector<std::size_t> groups(1, 0);
    char mark = '\0';
    bool past = false;
    for (std::size_t i = 0; i < field.size(); ++i) {
        const char c = field[i];
        if ((c == group || c == ' ' || c == '\'') && !past) {
            if (mark && c != mark) return std::nullopt;
            mark = c;
            groups.push_back(0);
            continue;
        }
        if (c == decimal)
            past = true;
        else if (std::isdigit(static_cast<unsigned char>(c)))
            groups.back() += !past;
        else if (!(i == 0 && (c == '-' || c == '+')))
            return std::nullopt;
        plain += c;
    }
    return mark && wellGrouped(groups) ? readNumber(plain, decimal) : std::nullopt;
}

std::optional<double> readField(std::string_view field, char decimal) {
    field = trimmed(field);
    if (const auto v = readNumber(field, decimal)) return v;
    if (const auto v = readGrouped(field, decimal)) return v;
    const auto minus = [&](std::string_view inside) -> std::optional<double> {
        if (inside.empty() || !std::isdigit(static_cast<unsigned char>(inside.front()))) return std::nullopt;
        auto v = readNumber(inside, decimal);
        if (!v) v = readGrouped(inside, decimal);
        return v ? std::optional(-*v) : std::nullopt;
    };
    if (field.size() > 2 && field.front() == '(' && field.back() == ')')
        return minus(field.substr(1, field.size() - 2));
    return field.size() > 1 && field.back() == '-' ? minus(field.substr(0, field.size() - 1)) : std::nullopt;
}

namespace {

constexpr int mostHours = 100'000; ///< of an elapsed time

std::optional<int> whole(std::string_view s) {
    int v = 0;
    const auto got = std::from_chars(s.data(), s.data() + s.size(), v);
    return s.empty() || got.ec != std::errc{} || got.ptr != s.data() + s.size() ? std::nullopt
                                                                                : std::optional(v);
}

/// Days since 1970; nothing where there is no such day.
std::optional<double> daysOf(int year, int month, int day) {
    if (month < 1 || day < 1 || year < 1900 || year > 2200) return std::nullopt;
    const std::chrono::year_month_day ymd{std::chrono::year(year),
                                          std::chrono::month(static_cast<unsigned>(month)),
                                          std::chrono::day(static_cast<unsigned>(day))};
    if (!ymd.ok()) return std::nullopt;
    return std::chrono::sys_days(ymd).time_since_epoch().count();
}

/// 1 for "Mar", "März", "march" …; months of the languages loggers speak.
std::optional<int> monthOf(std::string_view word) {
    static constexpr std::pair<std::string_view, int> months[] = {
        {"jan", 1},  {"ene", 1},  {"gen", 1},  {"feb", 2},  {"fév", 2},  {"mar", 3},  {"mär", 3},
        {"mrz", 3},  {"apr", 4},  {"avr", 4},  {"abr", 4},  {"may", 5},  {"mai", 5},  {"mag", 5},
        {"jun", 6},  {"juin", 6}, {"giu", 6},  {"jul", 7},  {"juil", 7}, {"lug", 7},  {"aug", 8},
        {"aoû", 8},  {"ago", 8},  {"sep", 9},  {"set", 9},  {"oct", 10}, {"okt", 10}, {"ott", 10},
        {"nov", 11}, {"dec", 12}, {"dez", 12}, {"déc", 12}, {"dic", 12}};
    const auto w = lowered(word);
    for (const auto& [stem, month] : months)
        if (w.starts_with(stem) && w.size() <= 11) return month;
    return std::nullopt;
}

/// 2026-03-02, 2026-061, 2026/3/2, 2.3.2026, 02.03.26, 26-03-02, 2/3/2026 or, where `monthFirst`, 3/2/2026;
/// 2-Mar-2026.
std::optional<double> dayOf(std::string_view date, bool monthFirst) {
    while (date.ends_with(".") || date.ends_with(","))
        date.remove_suffix(1);
    const auto one = date.find_first_of("-/.");
    if (one == std::string_view::npos) return std::nullopt;
    const auto two = date.find(date[one], one + 1);
    if (two == std::string_view::npos) { // 2026-061: the day of the year
        const auto year = whole(date.substr(0, one)), day = whole(date.substr(one + 1));
        if (one != 4 || date.size() != 8 || date[4] != '-' || !year || !day || *day < 1 || *day > 366)
            return std::nullopt;
        const auto first = daysOf(*year, 1, 1);
        return first ? std::optional(*first + *day - 1) : std::nullopt;
    }
    const auto middle = date.substr(one + 1, two - one - 1);
    auto a = whole(date.substr(0, one)), b = whole(middle), c = whole(date.substr(two + 1));
    const auto named = b ? std::nullopt : monthOf(middle);
    if (named) b = named;
    if (!a || !b || !c) return std::nullopt;
    const std::size_t lastDigits = date.size() - two - 1;
    // Two digits are a year last, but for 26-03-02, which is written as ISO is.
    const bool yearFirst = one == 4 || (one == 2 && lastDigits == 2 && date[one] == '-' && !named);
    if (!yearFirst && lastDigits != 4 && lastDigits != 2) return std::nullopt;
    int year = yearFirst ? *a : *c, month = *b, day = yearFirst ? *c : *a;
    if (year < 100) year += 2000;
    if (!yearFirst && !named && (monthFirst || month > 12)) std::swap(month, day);
    return daysOf(year, month, day);
}

bool zoneOrWeekday(std::string_view word) {
    static constexpr std::string_view days[] = {"mon", "tue", "wed", "thu", "fri", "sat", "sun",
                                                "mo",  "di",  "mi",  "do",  "fr",  "sa",  "so"};
    const auto w = lowered(word);
    if (std::any_of(std::begin(days), std::end(days), [&](auto d) {
            return w == d || (d.size() == 3 && w.starts_with(d) && w.ends_with("day"));
        }))
        return true;
    return word.size() >= 2 && word.size() <= 5 &&
           std::all_of(word.begin(), word.end(), [](unsigned char c) { return std::isupper(c); });
}

/// The date in the words beside a time of day: one as above, or a month by name, a day and perhaps a year.
/// Names of days and zones say nothing more. Without a year a leap year stands in.
std::optional<double> dayOf(const std::vector<std::string>& words, bool monthFirst) {
    std::optional<int> month, day, year;
    std::optional<double> date;
    for (const auto& w : words) {
        if (const auto asOne = dayOf(w, monthFirst); asOne && !date) {
            date = asOne;
            continue;
        }
        auto bare = w;
        while (bare.size() > 1 && (bare.back() == '.' || bare.back() == ','))
            bare.pop_back();
        if (const auto n = whole(bare); n && !date)
            (bare.size() == 4 ? year : day) = *n;
        else if (const auto m = monthOf(bare); m && !month && !date)
            month = m;
        else if (!zoneOrWeekday(bare))
            return std::nullopt;
    }
    if (date) return date;
    if (!month && !day && !year) return 0; // a zone alone: 14:05 UTC
    if (!month || !day) return std::nullopt;
    return daysOf(year.value_or(2000), *month, *day);
}

/// Takes "Z", "+01:00", "-0500" off the end: the zone is the same for a whole log.
void dropZone(std::string_view& field) {
    if (field.ends_with("Z")) return field.remove_suffix(1);
    const auto sign = field.find_last_of("+-");
    if (sign == std::string_view::npos || sign < 5 || field.find(':') > sign) return;
    const auto zone = field.substr(sign + 1);
    if ((zone.size() == 5 && zone[2] == ':') || zone.size() == 4 || zone.size() == 2)
        field = field.substr(0, sign);
}

/// Hours that " PM" or " AM" at the end adds; nothing where there is neither.
std::optional<int> takeHalfDay(std::string_view& field) {
    if (field.size() < 4) return std::nullopt;
    const auto tail = lowered(field.substr(field.size() - 2));
    if (tail != "am" && tail != "pm") return std::nullopt;
    field = trimmed(field.substr(0, field.size() - 2));
    return tail == "pm" ? 12 : 0;
}

/// Takes the date off a stamp: its seconds since 1970, or 0 where it has none. Nothing where what stands
/// beside the time of day is no date.
std::optional<double> takeDate(std::string_view& field, std::string& time, bool monthFirst) {
    const auto t = field.find('T');
    if (t != std::string_view::npos && t >= 6 && t + 1 < field.size() &&
        std::isdigit(static_cast<unsigned char>(field[t - 1])) &&
        std::isdigit(static_cast<unsigned char>(field[t + 1]))) {
        const auto date = dayOf(field.substr(0, t), false);
        field = field.substr(t + 1);
        return date;
    }
    if (field.find(' ') == std::string_view::npos) return 0;
    constexpr std::size_t mostWords = 5;
    std::vector<std::string> beside;
    for (auto& w : splitFields(field, ' ')) {
        if (w.find(':') == std::string::npos)
            beside.push_back(std::move(w));
        else if (time.empty())
            time = std::move(w);
        else
            return std::nullopt;
    }
    if (beside.size() > mostWords) return std::nullopt;
    field = time;
    return dayOf(beside, monthFirst);
}

std::optional<double> secondsIn(std::string_view text) {
    std::string rest(text);
    for (auto& c : rest)
        if (c == ',' || c == ':') c = '.';
    const auto s = readNumber(rest, '.');
    return s && *s >= 0 && *s < 61 ? s : std::nullopt;
}

/// "14:05:33.05", "14:05", "01:02.5" (minutes); `half`: hours that AM or PM adds.
std::optional<double> timeOfDay(std::string_view field, std::optional<int> half) {
    const auto one = field.find(':');
    if (one == std::string_view::npos) return std::nullopt;
    const auto two = field.find(':', one + 1);
    auto hours = whole(field.substr(0, one));
    if (half && hours) { // 12 AM is midnight
        if (*hours < 1 || *hours > 12) return std::nullopt;
        hours = *hours % 12 + *half;
    }
    if (!hours || *hours < 0 || *hours > mostHours) return std::nullopt;
    const auto middle = field.substr(one + 1, two == std::string_view::npos ? two : two - one - 1);
    if (two == std::string_view::npos && middle.find_first_of(".,") != std::string_view::npos) {
        const auto s = secondsIn(middle);
        return s ? std::optional(*hours * 60 + *s) : std::nullopt;
    }
    const auto minutes = whole(middle);
    if (!minutes || *minutes < 0 || *minutes > 59) return std::nullopt;
    const auto seconds =
        two == std::string_view::npos ? std::optional(0.0) : secondsIn(field.substr(two + 1));
    return seconds ? std::optional(*hours * 3600 + *minutes * 60 + *seconds) : std::nullopt;
}

} // namespace

std::optional<double> clockSeconds(std::string_view field) {
    field = trimmed(field);
    if (field.find(':') == std::string_view::npos) return std::nullopt;
    dropZone(field);
    const auto half = takeHalfDay(field);
    std::string time;
    const auto date = takeDate(field, time, half.has_value());
    const auto seconds = date ? timeOfDay(field, half) : std::nullopt;
    return seconds ? std::optional(*date * 86400 + *seconds) : std::nullopt;
}

} // namespace anvil::columns
