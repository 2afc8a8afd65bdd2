#include "numbers.h"

#include <anvil/tables/text.h>
#include <cctype>
#include <charconv>
#include <chrono>
#include <fast_float/fast_float.h>
#include <string>

namespace anvil::tables {

std::optional<double> readNumber(std::string_view field, char decimal) {
    field = trimmed(field);
    if (field.starts_with("+")) field.remove_prefix(1);
    if (field.empty()) return std::nullopt;
    double value = 0;
    const auto got = fast_float::from_chars_advanced(
        field.data(), field.data() + field.size(), value,
        fast_float::parse_options(fast_float::chars_format::general, decimal));
    if (got.ptr != field.data() + field.size() || got.ec == std::errc::invalid_argument) return std::nullopt;
    return value;
}

std::optional<double> readGrouped(std::string_view field, char decimal) {
    field = trimmed(field);
    const char group = decimal == '.' ? ',' : '.';
    std::string plain;
    std::size_t sinceGroup = 0;
    bool grouped = false, past = false;
    for (std::size_t i = 0; i < field.size(); ++i) {
        const char c = field[i];
        if ((c == group || c == ' ') && !past) {
            if (plain.empty() || (grouped ? sinceGroup != 3 : sinceGroup > 3 || sinceGroup == 0))
                return std::nullopt;
            grouped = true;
            sinceGroup = 0;
            continue;
        }
        if (c == decimal) {
            if (grouped && sinceGroup != 3) return std::nullopt;
            past = true;
        } else if (std::isdigit(static_cast<unsigned char>(c))) {
            sinceGroup += !past;
        } else if (!(i == 0 && (c == '-' || c == '+'))) {
            return std::nullopt;
        }
        plain += c;
    }
    if (!grouped || (!past && sinceGroup != 3)) return std::nullopt;
    return readNumber(plain, decimal);
}

namespace {

constexpr int mostHours = 100'000; ///< of an elapsed time

std::optional<int> whole(std::string_view s) {
    int v = 0;
    const auto got = std::from_chars(s.data(), s.data() + s.size(), v);
    return s.empty() || got.ec != std::errc{} || got.ptr != s.data() + s.size() ? std::nullopt
                                                                                : std::optional(v);
}

/// Days since 1970 of 2026-03-02, 2026/3/2, 2.3.2026, 2/3/2026 or, where `monthFirst`, 3/2/2026.
std::optional<double> daysOf(std::string_view date, bool monthFirst) {
    const auto one = date.find_first_of("-/.");
    if (one == std::string_view::npos) return std::nullopt;
    const auto two = date.find(date[one], one + 1);
    if (two == std::string_view::npos) return std::nullopt;
    auto a = whole(date.substr(0, one)), b = whole(date.substr(one + 1, two - one - 1)),
         c = whole(date.substr(two + 1));
    if (!a || !b || !c) return std::nullopt;
    const bool yearFirst = one == 4;
    if (!yearFirst && date.size() - two - 1 != 4) return std::nullopt;
    int year = yearFirst ? *a : *c, month = *b, day = yearFirst ? *c : *a;
    if (!yearFirst && (monthFirst || month > 12)) std::swap(month, day);
    if (month < 1 || day < 1 || year < 1900 || year > 2200) return std::nullopt;
    const std::chrono::year_month_day ymd{std::chrono::year(year),
                                          std::chrono::month(static_cast<unsigned>(month)),
                                          std::chrono::day(static_cast<unsigned>(day))};
    if (!ymd.ok()) return std::nullopt;
    return std::chrono::sys_days(ymd).time_since_epoch().count();
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

} // namespace

std::optional<double> clockSeconds(std::string_view field) {
    field = trimmed(field);
    if (field.find(':') == std::string_view::npos) return std::nullopt;
    dropZone(field);
    const auto half = takeHalfDay(field);
    double days = 0;
    if (const auto gap = field.find_first_of(" T"); gap != std::string_view::npos && gap >= 6) {
        const auto date = daysOf(field.substr(0, gap), half.has_value());
        if (!date) return std::nullopt;
        days = *date;
        field = trimmed(field.substr(gap + 1));
    }
    const auto one = field.find(':');
    if (one == std::string_view::npos) return std::nullopt;
    const auto two = field.find(':', one + 1);
    auto hours = whole(field.substr(0, one));
    if (half && hours) { // 12 AM is midnight
        if (*hours < 1 || *hours > 12) return std::nullopt;
        hours = *hours % 12 + *half;
    }
    const auto secondsOf = [](std::string_view text) -> std::optional<double> {
        std::string rest(text);
        for (auto& c : rest)
            if (c == ',' || c == ':') c = '.';
        const auto s = readNumber(rest, '.');
        return s && *s >= 0 && *s < 61 ? s : std::nullopt;
    };
    const auto middle = field.substr(one + 1, two == std::string_view::npos ? two : two - one - 1);
    if (two == std::string_view::npos && middle.find_first_of(".,") != std::string_view::npos) { // 01:02.5
        const auto s = secondsOf(middle);
        return hours && s && *hours >= 0 && *hours <= mostHours
                   ? std::optional(days * 86400 + *hours * 60 + *s)
                   : std::nullopt;
    }
    const auto minutes = whole(middle);
    if (!hours || !minutes || *hours < 0 || *hours > mostHours || *minutes < 0 || *minutes > 59)
        return std::nullopt;
    double seconds = 0;
    if (two != std::string_view::npos) {
        const auto s = secondsOf(field.substr(two + 1));
        if (!s) return std::nullopt;
        seconds = *s;
    }
    return days * 86400 + *hours * 3600 + *minutes * 60 + seconds;
}

} // namespace anvil::tables
