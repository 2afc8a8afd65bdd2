#include "value_cell.h"

#include <algorithm>
#include <anvil/columns/heading.h>
#include <anvil/quantity/print.h>
#include <cctype>
#include <fmt/format.h>

namespace anvil::tables {

using namespace columns;

namespace {

using stats::Bound;

bool digitAt(std::string_view s, std::size_t i) {
    return i < s.size() && std::isdigit(static_cast<unsigned char>(s[i]));
}

/// The first number of a cell with the marks in it.
std::string_view numberIn(std::string_view cell) {
    const auto from = cell.find_first_of("0123456789");
    if (from == std::string_view::npos) return {};
    std::size_t to = from;
    while (to < cell.size() &&
           (digitAt(cell, to) || ((cell[to] == ',' || cell[to] == '.') && digitAt(cell, to + 1))))
        ++to;
    return cell.substr(from, to - from);
}

std::string withPoints(const std::string& text, Comma comma) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool between = i > 0 && digitAt(text, i - 1) && digitAt(text, i + 1);
        const bool mark = text[i] == ',' && between;
        if (mark && comma == Comma::grouping) continue;
        if (text[i] == '.' && between && comma == Comma::decimal && text.find(',', i) != std::string::npos)
            continue; // 1.250,5
        out += mark && comma == Comma::decimal ? '.' : text[i];
    }
    return out;
}

/// Words before or behind a number that make it a bound, or take it out.
struct Said {
    std::string rest;
    std::optional<Stands> stands{};
};

Said saidIn(const std::string& text) {
    static constexpr std::pair<std::string_view, Bound> before[] = {
        {"at least", Bound::above},  {"more than", Bound::above},    {"over", Bound::above},
        {"above", Bound::above},     {"min.", Bound::above},         {"min", Bound::above},
        {"mind.", Bound::above},     {"greater than", Bound::above}, {"at most", Bound::below},
        {"less than", Bound::below}, {"under", Bound::below},        {"below", Bound::below}};
    static constexpr std::pair<std::string_view, Stands> behind[] = {
        {"+", Bound::above},          {"(off scale)", Bound::above}, {"off scale", Bound::above},
        {"(min)", Bound::above},      {"overload", Bound::above},    {"(held)", Bound::above},
        {"(no break)", Bound::above}, {"no break", Bound::above},    {"or more", Bound::above},
        {"(void)", Stands::aside()},  {"void", Stands::aside()},     {"(invalid)", Stands::aside()}};
    const auto low = lowered(text);
    for (const auto& [word, bound] : before)
        if (low.starts_with(word))
            return {std::string(trimmed(std::string_view(text).substr(word.size()))), Stands{bound}};
    for (const auto& [word, stands] : behind)
        if (low.ends_with(word) && digitAt(text, text.find_first_of("0123456789")))
            return {std::string(trimmed(std::string_view(text).substr(0, text.size() - word.size()))),
                    stands};
    return {text, {}};
}

} // namespace

std::optional<Stands> standsFrom(const std::string& text) {
    const auto t = lowered(text);
    const auto is = [&](std::initializer_list<const char*> words) {
        return std::any_of(words.begin(), words.end(), [&](const char* w) { return t == w; });
    };
    if (t.empty() ||
        is({"exact", "counts", "=", "ok", "broke", "broken", "failed", "fail", "break", "valid", "—", "-"}))
        return Stands{};
    if (is({"above",         "at least",     "at_least",   ">",          "≥",      ">=",       "+",
            "off scale",     "off_scale",    "overload",   "topped out", "held",   "no break", "not broken",
            "did not break", "did not fail", "no failure", "survived",   "runout", "run-out",  "run out",
            "unbroken",      "intact"}))
        return Stands{Bound::above};
    if (is({"below", "at most", "at_most", "<", "≤", "<="})) return Stands{Bound::below};
    if (t == "between") return Stands{Bound::between};
    if (is({"aside", "set aside", "set_aside", "void", "invalid", "excluded", "discard", "discarded",
            "rejected"}))
        return Stands::aside();
    return std::nullopt;
}

std::optional<Stands> standsUnder(const std::string& heading, const std::string& cell) {
    const auto words = wordsIn(heading);
    const auto says = [&](std::initializer_list<std::string_view> of) {
        return std::any_of(words.begin(), words.end(),
                           [&](const auto& w) { return std::find(of.begin(), of.end(), w) != of.end(); });
    };
    const auto t = lowered(cell);
    const auto is = [&](std::initializer_list<std::string_view> of) {
        return std::find(of.begin(), of.end(), t) != of.end();
    };
    const bool yes = is({"y", "yes", "true", "1", "x", "ja", "j"}),
               no = is({"n", "no", "false", "0", "nein"});
    if (says({"use", "used", "include", "included", "valid", "ok", "good", "keep"}) && (yes || no))
        return no ? Stands::aside() : Stands{};
    if (says({"exclude", "excluded", "void", "discard", "discarded", "invalid", "outlier", "rejected"}) &&
        (yes || no || t.empty()))
        return yes ? Stands::aside() : Stands{};
    if (says({"fail", "pass"}) && is({"pass", "passed"})) return Stands{};
    return standsFrom(cell);
}

Comma commasIn(const std::vector<std::string>& cells) {
    bool any = false, decimal = false, grouping = false, hundreds = false;
    for (const auto& cell : cells) {
        const auto number = numberIn(cell);
        const auto comma = number.find(',');
        if (comma == std::string_view::npos) {
            hundreds = hundreds || (number.size() == 3 && number.find('.') == std::string_view::npos);
            continue;
        }
        any = true;
        const auto rest = number.substr(comma + 1);
        if (rest.find_first_of(",.") != std::string_view::npos || number.find('.') < comma) {
            const bool pointFirst = number.find('.') < comma; // 1.250,5
            (pointFirst ? decimal : grouping) = true;
        } else if (rest.size() != 3 || comma > 3 || number[0] == '0') {
            decimal = true;
        }
    }
    if (!any) return Comma::none;
    if (decimal != grouping) return decimal ? Comma::decimal : Comma::grouping;
    if (!decimal && hundreds) return Comma::grouping; // 980, 1,250: nobody means one and a quarter
    return Comma::unsure;
}

Expected<Cell> readCell(const std::string& text, const quantity::Unit* unit, Comma comma) {
    const auto said = saidIn(text);
    const auto typed = withPoints(said.rest, comma);
    if (std::none_of(typed.begin(), typed.end(), [](unsigned char c) { return std::isdigit(c); })) {
        if (const auto stands = standsFrom(lowered(text)); stands && stands->isAside)
            return fail(fmt::format("is set aside (\"{}\") and gives no value", shortened(text, 40)));
        return fail(fmt::format("\"{}\" is no value", shortened(text, 40)));
    }
    Cell out{{}, unit};
    if (const auto plain = quantity::parseNumber(typed)) {
        out.value.value = *plain;
    } else {
        auto entry = quantity::parseEntry(typed, unit ? std::optional(unit->dimension) : std::nullopt,
                                          unit ? unit : &quantity::unit("N"));
        if (entry && entry->unit->dimension == quantity::Dimension::mass) // a load given in kg
            entry = quantity::parseEntry(typed, quantity::Dimension::force, unit);
        if (!entry) return tl::unexpected(entry.error());
        const bool named = entry->unit->symbol != "N" || typed.find('N') != std::string::npos;
        if (!unit && named) out.unit = entry->unit;
        const auto shown = [&](double si) {
            if (out.unit) return out.unit->fromSi(si);
            return si;
        };
        out.value.value = quantity::tidy(shown(entry->si));
        out.value.upper = quantity::tidy(shown(entry->upperSi));
        out.value.bound = entry->bound;
    }
    if (said.stands) said.stands->mark(out.value);
    return out;
}

} // namespace anvil::tables
