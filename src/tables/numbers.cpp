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

std::optional<double> clockSeconds(std::string_view field) {
    field = trimmed(field);
    const auto number = [](std::string_view s) -> std::optional<int> {
        int v = 0;
        const auto got = std::from_chars(s.data(), s.data() + s.size(), v);
        return s.empty() || got.ec != std::errc{} || got.ptr != s.data() + s.size() ? std::nullopt
                                                                                    : std::optional(v);
    };
    double days = 0;
    if (field.size() > 11 && (field[10] == ' ' || field[10] == 'T')) {
        const auto date = field.substr(0, 10);
        const bool iso = date[4] == '-' || date[4] == '/' || date[4] == '.';
        const auto a = number(date.substr(0, iso ? 4 : 2)), b = number(date.substr(iso ? 5 : 3, 2)),
                   c = number(date.substr(iso ? 8 : 6));
        if (!a || !b || !c) return std::nullopt;
        const std::chrono::year_month_day ymd{std::chrono::year(iso ? *a : *c),
                                              std::chrono::month(static_cast<unsigned>(*b)),
                                              std::chrono::day(static_cast<unsigned>(iso ? *c : *a))};
        if (!ymd.ok()) return std::nullopt;
        days = std::chrono::sys_days(ymd).time_since_epoch().count();
        field = field.substr(11);
    }
    if (field.ends_with("Z")) field.remove_suffix(1);
    const auto one = field.find(':');
    if (one == std::string_view::npos) return std::nullopt;
    const auto two = field.find(':', one + 1);
    const auto hours = number(field.substr(0, one));
    const auto minutes = number(field.substr(one + 1, two == std::string_view::npos ? two : two - one - 1));
    if (!hours || !minutes || *hours < 0 || *minutes < 0 || *minutes > 59) return std::nullopt;
    double seconds = 0;
    if (two != std::string_view::npos) {
        std::string rest(field.substr(two + 1));
        for (auto& c : rest)
            if (c == ',' || c == ':') c = '.';
        const auto s = readNumber(rest, '.');
        if (!s || !(*s >= 0 && *s < 61)) return std::nullopt;
        seconds = *s;
    }
    return days * 86400 + *hours * 3600 + *minutes * 60 + seconds;
}

} // namespace anvil::tables
