#include <anvil/columns/line.h>

#include <algorithm>
#include <anvil/columns/heading.h>
#include <anvil/columns/marks.h>
#include <anvil/columns/number.h>
#include <anvil/columns/text.h>
#include <anvil/quantity/unit.h>
#include <cctype>
#include <charconv>
#include <cmath>
#include <tuple>

namespace anvil::columns {
namespace {

constexpr double tooLarge = 1e15; // no sensor shows this in any unit
constexpr std::size_t longestGap = 8, longestUnit = 10, mostNumbers = 32, longestStamp = 40;

/// What scales send before or behind a reading: stable, unstable, gross, net, tare …
constexpr std::string_view statusWords[] = {"st",     "us",       "gs",     "nt", "tr",  "s",   "ns",
                                            "stable", "unstable", "motion", "g",  "n",   "net", "gross",
                                            "ok",     "wt",       "t",      "pt", "zero"};
/// Overload words that say other things as well.
constexpr std::string_view weakWords[] = {"or", "hi", "high", "over", "sat", "inf", "na", "-", "--", "none"};

bool digit(char c) { return c >= '0' && c <= '9'; }
bool blank(char c) { return c == ' ' || c == '\t'; }
bool letter(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' ||
           static_cast<unsigned char>(c) >= 0x80;
}
bool digitAt(std::string_view s, std::size_t i) { return i < s.size() && digit(s[i]); }

template <std::size_t n> bool among(std::string_view word, const std::string_view (&words)[n]) {
    return std::find(std::begin(words), std::end(words), lowered(word)) != std::end(words);
}
/// A letter of a status is a capital: "t: 12 ms" is a label.
bool isSmallLetter(std::string_view word) { return word.size() == 1 && word[0] >= 'a' && word[0] <= 'z'; }

bool saysStatus(std::string_view word) {
    if (isSmallLetter(word)) return false;
    return among(word, statusWords) || (markOf(word) == Mark::overload && !among(word, weakWords));
}

/// The end of a time of day or a date that begins at `at`; `at` itself where none does.
std::size_t pastClock(std::string_view s, std::size_t at) {
    std::size_t i = at;
    while (digitAt(s, i))
        ++i;
    const std::size_t first = i - at;
    if (first == 0 || i + 1 >= s.size() || !digit(s[i + 1])) return at;
    const bool dotted = s[i] == '.' && first <= 2 && s.size() - i > 5 &&
                        std::count(s.begin() + static_cast<std::ptrdiff_t>(i),
                                   s.begin() + static_cast<std::ptrdiff_t>(i) + 4, '.') == 2;
    const bool time = s[i] == ':' && first <= 2,
               date = (s[i] == '-' || s[i] == '/') && (first == 4 || first <= 2);
    if (!time && !date && !dotted) return at;
    while (i < s.size() && (digit(s[i]) || s[i] == ':' || s[i] == '-' || s[i] == '/' ||
                            ((s[i] == '.' || s[i] == ',') && digitAt(s, i + 1))))
        ++i;
    return i;
}

/// The end of a stamp with a time of day that begins at `at`, its date and all; `at` where none does.
std::size_t pastStamp(std::string_view s, std::size_t at) {
    if (at > 0 && (letter(s[at - 1]) || digit(s[at - 1]) || s[at - 1] == '.')) return at;
    if (!digit(s[at]) && !letter(s[at])) return at;
    std::size_t best = at, i = at;
    for (int words = 0; words < 4 && i < s.size() && i - at < longestStamp; ++words) {
        while (i < s.size() && blank(s[i]))
            ++i;
        while (i < s.size() && !blank(s[i]) && s[i] != ';' && !(s[i] == ',' && !digitAt(s, i + 1)))
            ++i;
        auto end = i;
        while (end > at && (s[end - 1] == ':' || s[end - 1] == ',' || s[end - 1] == '>'))
            --end;
        const auto text = s.substr(at, end - at);
        if (text.find(':') != std::string_view::npos && clockSeconds(text)) best = end;
    }
    return best;
}

/// A unit behind a number: the letters up to the next mark, if they are a unit known here.
std::size_t unitFrom(std::string_view s, std::size_t at, std::string* unit) {
    std::size_t from = at;
    while (from < s.size() && blank(s[from]) && from - at < 3)
        ++from;
    std::size_t to = from;
    while (to < s.size() && (letter(s[to]) || s[to] == '/' || s[to] == '%' || (to > from && digit(s[to]))) &&
           to - from < longestUnit)
        ++to;
    const bool label = to < s.size() && (s[to] == ':' || s[to] == '=');
    if (to == from || label) return at;
    const auto text = s.substr(from, to - from);
    for (const auto d : {quantity::Dimension::force, quantity::Dimension::length, quantity::Dimension::time})
        if (const auto u = quantity::findUnit(text, d)) {
            *unit = std::string((*u)->symbol);
            return to;
        }
    if (const auto u = quantity::findUnit(text)) {
        *unit = std::string((*u)->symbol);
        return to;
    }
    return at;
}

/// The words between two numbers without status words: the label of the second.
std::string labelIn(std::string_view s) {
    std::string out, word;
    const auto end = [&] {
        if (!word.empty() && !saysStatus(word)) out += (out.empty() ? "" : " ") + word;
        word.clear();
    };
    for (std::size_t i = 0; i < s.size(); ++i) {
        if (const auto past = word.empty() ? pastClock(s, i) : i; past > i) { // when, not what
            i = past - 1;
            continue;
        }
        if (s[i] == '[') { // who wrote the line: "logger[812]:"
            const auto close = s.find(']', i);
            const bool process =
                close != std::string_view::npos && close > i + 1 &&
                s.substr(i + 1, close - i - 1).find_first_not_of("0123456789") == std::string_view::npos;
            if (close != std::string_view::npos) i = close;
            end();
            if (process) out.clear();
        } else if (letter(s[i]) || digit(s[i]) || (s[i] == '.' && !word.empty())) {
            word += s[i];
        } else {
            end();
        }
    }
    end();
    return out;
}

/// The end of thousands set apart by marks ("1,234.5"); `from` where there are none, or where the mark may as
/// well be the decimal one ("0,250 kg", "1,250 kg").
std::size_t grouped(std::string_view s, std::size_t from, char decimal) {
    const char group = decimal == '.' ? ',' : '.';
    std::size_t to = from;
    while (digitAt(s, to))
        ++to;
    if (to == from || to - from > 3 || s[from] == '0') return from;
    const auto first = to;
    while (to < s.size() && s[to] == group && digitAt(s, to + 1) && digitAt(s, to + 2) &&
           digitAt(s, to + 3) && !digitAt(s, to + 4))
        to += 4;
    if (to == first) return from;
    return to < s.size() && s[to] == decimal && digitAt(s, to + 1) ? to : from;
}

/// What a scale says of the load that follows, in the words before it, and the word itself.
std::pair<Weighing, std::string> weighingIn(std::string_view s) {
    std::pair<Weighing, std::string> found{Weighing::untold, {}};
    std::string word;
    for (std::size_t i = 0; i <= s.size(); ++i) {
        if (i < s.size() && letter(s[i])) {
            word += s[i];
            continue;
        }
        if (const auto w = weighingOf(word); w != Weighing::untold) found = {w, word};
        word.clear();
    }
    return found;
}

} // namespace

Weighing weighingOf(std::string_view word) {
    static constexpr std::pair<std::string_view, Weighing> words[] = {
        {"gs", Weighing::gross},     {"g", Weighing::gross},   {"gross", Weighing::gross},
        {"brutto", Weighing::gross}, {"nt", Weighing::net},    {"n", Weighing::net},
        {"net", Weighing::net},      {"netto", Weighing::net}, {"t", Weighing::tare},
        {"tr", Weighing::tare},      {"tare", Weighing::tare}, {"pt", Weighing::tare},
        {"tara", Weighing::tare}};
    if (isSmallLetter(word)) return Weighing::untold;
    const auto w = lowered(word);
    for (const auto& [known, which] : words)
        if (w == known) return which;
    return Weighing::untold;
}

bool tellsDerived(std::string_view label) {
    static constexpr std::string_view words[] = {"peak",    "pk",   "max", "min",   "mean",  "avg",
                                                 "average", "hold", "sd",  "limit", "total", "maximum"};
    const auto in = wordsIn(label);
    return std::any_of(in.begin(), in.end(), [&](const auto& w) { return among(w, words); });
}

bool LineItem::sameKind(const LineItem& o) const {
    if (label != o.label || clock != o.clock) return false;
    if (unit == o.unit) return true;
    const auto mine = quantity::findUnit(unit);
    return mine && quantity::findUnit(o.unit, (*mine)->dimension).has_value();
}

void sayWeighing(std::vector<LineItem>& items) {
    for (auto& item : items)
        if (item.weighing != Weighing::untold)
            item.label = item.says + (item.label.empty() ? "" : " " + item.label);
}

std::vector<LineItem> itemsOf(std::string_view line, char decimal, bool clocks) {
    std::vector<LineItem> items;
    std::size_t at = 0;
    while (items.size() < mostNumbers) {
        const auto n = nextNumber(line, at, decimal);
        const auto until = n ? n->from : line.size();
        std::size_t stamp = until, end = until;
        for (std::size_t i = at; clocks && i < until && stamp == until; ++i)
            if (end = pastStamp(line, i); end > i) stamp = i;
        if (stamp < until || (clocks && n && (end = pastStamp(line, until)) > until)) {
            const auto text = line.substr(stamp, end - stamp);
            LineItem item{"Time", {}, clockSeconds(text).value_or(0), true};
            item.from = stamp;
            item.to = at = end;
            items.push_back(std::move(item));
            continue;
        }
        if (!n) break;
        if (std::isnan(n->value)) return {};
        const auto before = line.substr(at, n->from - at);
        LineItem item{labelIn(before), {}, n->value, false};
        item.glued = n->to < line.size() && line[n->to] == ',' && digitAt(line, n->to + 1);
        std::tie(item.weighing, item.says) = weighingIn(before);
        item.from = n->from;
        item.to = n->to;
        at = unitFrom(line, n->to, &item.unit);
        items.push_back(std::move(item));
    }
    return items;
}

namespace {

/// Digits as a number is written with them, for std::from_chars.
struct Digits {
    char text[40];
    std::size_t size = 0;
    void add(char c) {
        if (size < sizeof text) text[size++] = c;
    }
    bool full() const { return size + 6 >= sizeof text; }
};

std::size_t pastHexadecimal(std::string_view s, std::size_t from) {
    if (s[from] != '0' || from + 2 >= s.size() || (s[from + 1] != 'x' && s[from + 1] != 'X')) return from;
    auto to = from + 2;
    while (to < s.size() && std::isxdigit(static_cast<unsigned char>(s[to])))
        ++to;
    return to > from + 2 ? to : from;
}

/// Whole and decimal digits from `from` on, thousands taken together; the place behind them.
std::size_t takeDigits(std::string_view s, std::size_t from, char decimal, Digits& out) {
    const char group = decimal == '.' ? ',' : '.';
    const auto pastGroups = grouped(s, from, decimal);
    bool mark = false;
    std::size_t to = from;
    while (to < s.size() && !out.full() &&
           (digit(s[to]) || (to < pastGroups && s[to] == group) ||
            (s[to] == decimal && !mark && digitAt(s, to + 1)))) {
        mark = mark || s[to] == decimal;
        if (to >= pastGroups || s[to] != group) out.add(s[to] == decimal ? '.' : s[to]);
        ++to;
    }
    return to;
}

std::size_t takeExponent(std::string_view s, std::size_t to, Digits& out) {
    const auto signAt = [&](std::size_t i) { return i < s.size() && (s[i] == '-' || s[i] == '+'); };
    if (to >= s.size() || (s[to] != 'e' && s[to] != 'E') ||
        !(digitAt(s, to + 1) || (signAt(to + 1) && digitAt(s, to + 2))))
        return to;
    out.add('e');
    for (++to; to < s.size() && (digit(s[to]) || signAt(to)); ++to)
        if (s[to] != '+') out.add(s[to]);
    return to;
}

/// A sign behind a number: "12.3-", but no range, rule or arrow.
bool minusBehind(std::string_view s, std::size_t to) {
    if (to >= s.size() || s[to] != '-' || digitAt(s, to + 1)) return false;
    return to + 1 == s.size() || (s[to + 1] != '-' && s[to + 1] != '>');
}

/// The number whose digits begin at `from`, its sign at `i`; NaN where its marks cannot be those of one.
LineNumber numberAt(std::string_view s, std::size_t i, std::size_t from, bool signedBefore, char decimal) {
    if (const auto past = pastHexadecimal(s, from); past > from) return {std::nan(""), i, past};
    Digits digits;
    if (signedBefore && s[i] == '-') digits.add('-');
    auto to = takeDigits(s, from, decimal, digits);
    if (to < s.size() && s[to] == '.' && digitAt(s, to + 1)) { // "1.2.3", or "1.234" where a comma is due
        while (to < s.size() && (digit(s[to]) || s[to] == '.'))
            ++to;
        return {std::nan(""), i, to};
    }
    to = takeExponent(s, to, digits);
    double value = 0;
    const auto* const last = digits.text + digits.size;
    const auto [end, error] = std::from_chars(digits.text, last, value);
    if (error != std::errc{} || end != last || !(std::abs(value) <= tooLarge)) return {std::nan(""), i, to};
    return !signedBefore && minusBehind(s, to) ? LineNumber{-value, i, to + 1} : LineNumber{value, i, to};
}

} // namespace

std::optional<LineNumber> nextNumber(std::string_view s, std::size_t at, char decimal) {
    for (std::size_t i = at; i < s.size(); ++i) {
        const bool glued = i > 0 && (letter(s[i - 1]) || digit(s[i - 1]) || s[i - 1] == '.' ||
                                     s[i - 1] == '[' || s[i - 1] == '#');
        if (digit(s[i]) && glued) { // "M8", "HX711", "logger[812]"
            while (i + 1 < s.size() && (digit(s[i + 1]) || letter(s[i + 1])))
                ++i;
            continue;
        }
        if (const auto past = pastClock(s, i); past > i) {
            i = past - 1;
            continue;
        }
        std::size_t from = i;
        const bool sign = (s[i] == '+' || s[i] == '-') && !glued;
        if (sign) {
            while (from + 1 < s.size() && blank(s[from + 1]) && from - i < longestGap) // "+  12.34"
                ++from;
            ++from;
        }
        if (digitAt(s, from) || (from < s.size() && s[from] == decimal && digitAt(s, from + 1)))
            return numberAt(s, i, from, sign, decimal);
    }
    return std::nullopt;
}

bool saysOverload(std::string_view line) {
    constexpr std::size_t shortLine = 3;
    const bool hasNumber = nextNumber(line, 0, '.').has_value();
    bool strong = false, weak = false;
    std::size_t words = 0;
    std::string word;
    for (std::size_t i = 0; i <= line.size(); ++i) {
        const char c = i < line.size() ? line[i] : ' ';
        if (!blank(c) && std::string_view(",;=:()[]").find(c) == std::string_view::npos) {
            word += c;
            continue;
        }
        words += !word.empty();
        if (!word.empty() && markOf(word) == Mark::overload) (among(word, weakWords) ? weak : strong) = true;
        word.clear();
    }
    return strong || (weak && !hasNumber && words <= shortLine) ||
           line.find("----") != std::string_view::npos || line.find("####") != std::string_view::npos;
}

std::vector<LinePart> partsOf(std::string_view line, char decimal) {
    using Kind = LinePart::Kind;
    std::vector<LinePart> out;
    const auto words = [&](std::size_t from, std::size_t to) {
        for (std::size_t i = from; i < to;) {
            if (const auto past = pastClock(line, i); past > i && (i == 0 || !letter(line[i - 1]))) {
                out.push_back({Kind::clock, i, std::min(past, to), -1});
                i = past;
                continue;
            }
            std::size_t k = i;
            while (k < to && (letter(line[k]) || digit(line[k])))
                ++k;
            if (k > i) {
                const auto word = line.substr(i, k - i);
                out.push_back({saysStatus(word) ? Kind::status : Kind::label, i, k, -1});
                i = k;
            } else {
                ++i;
            }
        }
    };
    std::size_t at = 0;
    for (int column = 0; static_cast<std::size_t>(column) < mostNumbers; ++column) {
        const auto n = nextNumber(line, at, decimal);
        if (!n) break;
        words(at, n->from);
        out.push_back({Kind::number, n->from, n->to, column});
        std::string unit;
        at = unitFrom(line, n->to, &unit);
        if (at > n->to) out.push_back({Kind::unit, n->to, at, column});
    }
    words(at, line.size());
    return out;
}

} // namespace anvil::columns
