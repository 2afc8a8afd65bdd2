#include "number.h"

#include <array>
#include <charconv>
#include <fmt/format.h>

namespace anvil::quantity {
namespace {

bool digit(char c) { return c >= '0' && c <= '9'; }

using Change = std::pair<std::string_view, std::string_view>;

/// Longer spellings before shorter ones; fractions stand apart from the whole before them.
constexpr Change changes[] = {
    {"\u00a0", " "},  {"\u202f", " "}, {"\u2009", " "},  {"\u2007", " "},  {"\u2008", " "},  {"\u200a", " "},
    {"\u2002", " "},  {"\u2003", " "}, {"\u2004", " "},  {"\u2005", " "},  {"\u2006", " "},  {"\u205f", " "},
    {"\u3000", " "},  {"\u200b", ""},  {"\ufeff", ""},   {"\u2212", "-"},  {"\u2010", "-"},  {"\u2011", "-"},
    {"\ufe63", "-"},  {"\uff0d", "-"}, {"\u2013", "…"},  {"\u2014", "…"},  {"....", "…"},    {"...", "…"},
    {"..", "…"},      {">=", ">"},     {"=>", ">"},      {"≥", ">"},       {"⩾", ">"},       {"<=", "<"},
    {"=<", "<"},      {"≤", "<"},      {"⩽", "<"},       {"≈", "~"},       {"+/-", "±"},     {"+-", "±"},
    {"''", "\""},     {"\u2018", "'"}, {"\u2019", "'"},  {"\u201b", "'"},  {"\u2032", "'"},  {"\u02b9", "'"},
    {"\u00b4", "'"},  {"`", "'"},      {"\u201c", "\""}, {"\u201d", "\""}, {"\u201f", "\""}, {"\u2033", "\""},
    {"\u02ba", "\""}, {"½", " 1/2"},   {"⅓", " 1/3"},    {"⅔", " 2/3"},    {"¼", " 1/4"},    {"¾", " 3/4"},
    {"⅕", " 1/5"},    {"⅖", " 2/5"},   {"⅗", " 3/5"},    {"⅘", " 4/5"},    {"⅙", " 1/6"},    {"⅚", " 5/6"},
    {"⅐", " 1/7"},    {"⅛", " 1/8"},   {"⅜", " 3/8"},    {"⅝", " 5/8"},    {"⅞", " 7/8"},    {"⅑", " 1/9"},
    {"⅒", " 1/10"},   {"\u2044", "/"}, {"\u2215", "/"},  {"\u22c5", "·"},  {"\u2219", "·"},  {"\u2022", "·"},
    {"\u2027", "·"},  {"\u30fb", "·"},
};

/// Whether the digits before the decimal mark stand alone, or in groups of three with one kind of mark.
bool wellGrouped(std::string_view whole) {
    const auto first = whole.find_first_not_of("0123456789");
    if (first == std::string_view::npos) return true;
    if (first == 0 || first > 3 || (whole.size() - first) % 4 != 0) return false;
    for (auto at = first; at < whole.size(); at += 4)
        if (whole[at] != whole[first] || !digit(whole[at + 1]) || !digit(whole[at + 2]) ||
            !digit(whole[at + 3]))
            return false;
    return true;
}

/// Whether `mark` and exactly three digits stand at `at`: one more group of a number ("1 250", "1'250").
bool groupAt(std::string_view s, std::size_t at, char mark) {
    if (at + 3 >= s.size() || s[at] != mark || !digit(s[at + 1]) || !digit(s[at + 2]) || !digit(s[at + 3]))
        return false;
    return at + 4 == s.size() || (!digit(s[at + 4]) && s[at + 4] != '/');
}

/// "1,250" can be one and a quarter as well as a thousand.
tl::unexpected<Error> readBothWays(std::string_view body, std::size_t before) {
    const std::string head(body.substr(0, before)), tail(body.substr(before + 1));
    std::string fraction = tail;
    while (!fraction.empty() && fraction.back() == '0')
        fraction.pop_back();
    return fail(
        fmt::format("{} or {}? \"{}\" can be read both ways: write it with a point or without the comma.",
                    head + (fraction.empty() ? "" : "." + fraction), head + tail, body));
}

struct Marks {
    int dots = 0, commas = 0;
    std::size_t last = 0, end = 0;
    bool primes = false;
};

/// How far the digits and marks of a number reach from `first`.
Marks marksFrom(std::string_view s, std::size_t first) {
    Marks m;
    std::size_t i = first;
    while (i < s.size()) {
        if (digit(s[i])) {
            ++i;
        } else if ((s[i] == '.' || s[i] == ',') && i + 1 < s.size() && digit(s[i + 1])) {
            (s[i] == '.' ? m.dots : m.commas)++;
            m.last = i++;
        } else if ((s[i] == ' ' || s[i] == '\'') && i > first && i - first <= 3 && m.dots + m.commas == 0 &&
                   groupAt(s, i, s[i])) {
            m.primes = s[i] == '\'';
            for (const char mark = s[i]; groupAt(s, i, mark);)
                i += 4;
        } else {
            break;
        }
    }
    m.end = i;
    return m;
}

/// Digits with optional grouping and decimal mark, from `s[0]`. Does not read fractions.
Expected<Number> decimal(std::string_view s) {
    std::string digits;
    std::size_t first = 0;
    if (!s.empty() && (s[0] == '-' || s[0] == '+')) digits += s[0] == '-' ? "-" : "", ++first;
    const auto [dots, commas, lastMark, end, primes] = marksFrom(s, first);
    std::size_t i = end;
    const auto body = s.substr(first, i - first);
    if (body.empty() || !(digit(body[0]) || ((body[0] == '.' || body[0] == ',') && body.size() > 1)))
        return fail("This is no number.", Wants::number);
    const char lastChar = dots + commas ? s[lastMark] : '\0';
    const std::size_t after = lastChar ? i - lastMark - 1 : 0, before = lastChar ? lastMark - first : 0;
    if (commas == 1 && dots == 0 && after == 3 && before <= 3 && before > 0 && body[0] != '0')
        return readBothWays(body, before);
    const bool onlyGroups = (commas > 1 && dots == 0) || (dots > 1 && commas == 0); // 1,250,000
    const bool markIsDecimal = lastChar != '\0' && !onlyGroups;
    if (!wellGrouped(s.substr(first, (markIsDecimal ? lastMark : i) - first)))
        return fail(fmt::format("\"{}\" has a grouping mark in the wrong place.", body));
    if (dots > 0 && commas > 0 && (lastChar == '.' ? dots : commas) > 1)
        return fail(fmt::format("\"{}\" has more than one decimal mark.", body));
    for (std::size_t k = first; k < i; ++k) {
        if (digit(s[k]))
            digits += s[k];
        else if (markIsDecimal && k == lastMark)
            digits += '.';
    }
    Number out;
    out.primes = primes;
    out.decimals = markIsDecimal ? static_cast<int>(after) : 0;
    if (i < s.size() && (s[i] == 'e' || s[i] == 'E')) { // exponent
        std::size_t j = i + 1;
        if (j < s.size() && (s[j] == '-' || s[j] == '+')) ++j;
        if (j < s.size() && digit(s[j])) {
            while (j < s.size() && digit(s[j]))
                ++j;
            auto power = std::string(s.substr(i, j - i));
            std::erase(power, '+');
            digits += power;
            out.decimals = -1;
            i = j;
        }
    }
    const auto got = std::from_chars(digits.data(), digits.data() + digits.size(), out.value);
    if (got.ec == std::errc::result_out_of_range)
        return fail(
            fmt::format("\"{}\" is too large or too small to be a measurement.", trimmed(s.substr(0, i))));
    if (got.ec != std::errc{}) return fail("This is no number.", Wants::number);
    out.end = i;
    return out;
}

/// "1/4" at `at`: whole digits over whole digits.
Expected<Number> fractionAt(std::string_view s, std::size_t at) {
    std::size_t j = at;
    while (j < s.size() && digit(s[j]))
        ++j;
    if (j == at || j >= s.size() || s[j] != '/' || j + 1 >= s.size() || !digit(s[j + 1]))
        return fail("This is no fraction.", Wants::number);
    auto top = decimal(s.substr(at, j - at)), bottom = decimal(s.substr(j + 1));
    if (!top || !bottom || bottom->decimals != 0) return fail("This is no fraction.", Wants::number);
    if (bottom->value == 0)
        return fail(fmt::format("\"{}\" divides by zero.", s.substr(at, j + 1 + bottom->end - at)));
    return Number{top->value / bottom->value, -1, j + 1 + bottom->end};
}

} // namespace

std::string_view trimmed(std::string_view s) {
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; };
    while (!s.empty() && blank(s.front()))
        s.remove_prefix(1);
    while (!s.empty() && blank(s.back()))
        s.remove_suffix(1);
    return s;
}

std::string plainCharacters(std::string_view text) {
    std::string out(text);
    for (const auto& [from, to] : changes)
        for (std::size_t at = 0; (at = out.find(from, at)) != std::string::npos; at += to.size())
            out.replace(at, from.size(), to);
    // A dash in front of everything is a minus, not the middle of a range.
    constexpr std::string_view range = "…";
    const auto start = out.find_first_not_of(" \t<>~");
    if (start != std::string::npos && out.compare(start, range.size(), range) == 0)
        out.replace(start, range.size(), "-");
    return out;
}

Expected<Number> numberAt(std::string_view s) {
    auto whole = decimal(s);
    if (!whole) return whole;
    const bool negative = s.front() == '-';
    if (whole->end < s.size() && s[whole->end] == '/' && whole->decimals == 0) { // 1/4
        const std::size_t start = s.front() == '-' || s.front() == '+' ? 1 : 0;
        auto f = fractionAt(s, start);
        if (f && negative) f->value = -f->value;
        if (f || f.error().wants != Wants::number) return f;
    } else if (whole->end + 1 < s.size() && (s[whole->end] == ' ' || s[whole->end] == '-') &&
               whole->decimals == 0) {
        std::size_t at = whole->end + 1;
        while (at < s.size() && s[at] == ' ')
            ++at;
        auto f = fractionAt(s, at);
        if (f) return Number{whole->value + (negative ? -f->value : f->value), -1, f->end, whole->primes};
        if (f.error().wants != Wants::number) return f;
    }
    return whole;
}

} // namespace anvil::quantity
