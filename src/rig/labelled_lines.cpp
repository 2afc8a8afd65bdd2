#include "labelled_lines.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

namespace anvil::rig {
namespace {

constexpr double tooLarge = 1e15; // no sensor shows this in any unit
constexpr std::size_t longestGap = 8, longestUnit = 10, mostNumbers = 32;

/// What scales send before or behind a reading: stable, unstable, gross, net, tare …
constexpr std::string_view statusWords[] = {"st",     "us",       "gs",     "nt",   "tr", "s",    "ns",
                                            "stable", "unstable", "motion", "g",    "n",  "net",  "gross",
                                            "ok",     "sd",       "wt",     "hold", "pk", "peak", "zero"};
constexpr std::string_view overloadWords[] = {"ol",   "o.l", "o.l.",  "overload", "over",
                                              "ovld", "ovl", "oload", "err4"};

bool digit(char c) { return c >= '0' && c <= '9'; }
bool blank(char c) { return c == ' ' || c == '\t'; }
bool letter(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' ||
           static_cast<unsigned char>(c) >= 0x80;
}
bool digitAt(std::string_view s, std::size_t i) { return i < s.size() && digit(s[i]); }

std::string lowered(std::string_view text) {
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

template <std::size_t n> bool among(std::string_view word, const std::string_view (&words)[n]) {
    return std::find(std::begin(words), std::end(words), lowered(word)) != std::end(words);
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
        if (!word.empty() && !among(word, statusWords) && !among(word, overloadWords))
            out += (out.empty() ? "" : " ") + word;
        word.clear();
    };
    for (std::size_t i = 0; i < s.size(); ++i) {
        if (const auto past = word.empty() ? pastClock(s, i) : i; past > i) { // when, not what
            i = past - 1;
            continue;
        }
        if (s[i] == '[') { // who wrote the line: "logger[812]:"
            const auto close = s.find(']', i);
            if (close != std::string_view::npos) i = close;
            end();
        } else if (letter(s[i]) || digit(s[i]) || (s[i] == '.' && !word.empty())) {
            word += s[i];
        } else {
            end();
        }
    }
    end();
    return out;
}

struct Item {
    std::string label, unit;
    double value = 0;
    bool glued = false; ///< a comma and a digit follow at once
    /// Of the same thing: the unit may follow the size of the number.
    bool operator==(const Item& o) const {
        if (label != o.label) return false;
        if (unit == o.unit) return true;
        const auto mine = quantity::findUnit(unit);
        return mine && quantity::findUnit(o.unit, (*mine)->dimension).has_value();
    }
};

std::vector<Item> itemsOf(std::string_view line, char decimal) {
    std::vector<Item> items;
    std::size_t at = 0;
    while (items.size() < mostNumbers) {
        const auto n = nextNumber(line, at, decimal);
        if (!n) break;
        if (std::isnan(n->value)) return {};
        const bool glued = n->to < line.size() && line[n->to] == ',' && digitAt(line, n->to + 1);
        Item item{labelIn(line.substr(at, n->from - at)), {}, n->value, glued};
        at = unitFrom(line, n->to, &item.unit);
        items.push_back(std::move(item));
    }
    return items;
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

/// Whether `full` is `end` or ends with it as words: a stamp or a name in front may change.
bool endsWithWords(std::string_view full, std::string_view end) {
    return full.size() >= end.size() && full.substr(full.size() - end.size()) == end &&
           (full.size() == end.size() || end.empty() || full[full.size() - end.size() - 1] == ' ');
}

/// The number in the unit its column prints; nothing where it is another one.
std::optional<double> asColumn(const Item& item, const LineColumn& column) {
    double value = item.value;
    const auto was = quantity::findUnit(column.printed);
    const bool same = item.unit == column.printed;
    if (was && !same && !item.unit.empty()) {
        const auto is = quantity::findUnit(item.unit, (*was)->dimension);
        if (!is) return std::nullopt;
        value = (*was)->fromSi((*is)->toSi(value));
    }
    const bool bare = item.label.empty();
    const bool meant =
        column.label.empty() // a status word unknown here may stand before a reading
            ? column.printed.empty() || same || bare
            : bare ? same
                   : endsWithWords(item.label, column.label) || endsWithWords(column.label, item.label);
    return meant ? std::optional(value) : std::nullopt;
}

} // namespace

std::optional<std::vector<double>> labelledNumbers(std::string_view line, const Layout& layout) {
    const auto items = itemsOf(line, layout.decimal);
    if (items.size() < layout.columns.size()) return std::nullopt;
    if (items.size() > layout.columns.size()) // "1,234 kg" is neither 1 nor certainly 1234
        for (std::size_t i = 0; i < layout.columns.size(); ++i)
            if (items[i].glued) return std::nullopt;
    std::vector<double> out;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto value =
            i < layout.columns.size() ? asColumn(items[i], layout.columns[i]) : std::optional(items[i].value);
        if (!value) return std::nullopt;
        out.push_back(*value);
    }
    return out;
}

std::optional<LabelledNumber> nextNumber(std::string_view s, std::size_t at, char decimal) {
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
        if (!(digitAt(s, from) || (from < s.size() && s[from] == decimal && digitAt(s, from + 1)))) continue;
        char text[40];
        std::size_t n = 0, to = from;
        if (sign && s[i] == '-') text[n++] = '-';
        bool mark = false;
        const char group = decimal == '.' ? ',' : '.';
        const auto pastGroups = grouped(s, from, decimal);
        while (to < s.size() && n < sizeof text - 6 &&
               (digit(s[to]) || (to < pastGroups && s[to] == group) ||
                (s[to] == decimal && !mark && digitAt(s, to + 1)))) {
            mark = mark || s[to] == decimal;
            if (to >= pastGroups || s[to] != group) text[n++] = s[to] == decimal ? '.' : s[to];
            ++to;
        }
        if (to < s.size() && s[to] == '.' && digitAt(s, to + 1)) { // "1.2.3", or "1.234" where a comma is due
            while (to < s.size() && (digit(s[to]) || s[to] == '.'))
                ++to;
            return LabelledNumber{std::nan(""), i, to};
        }
        if (to < s.size() && (s[to] == 'e' || s[to] == 'E') &&
            (digitAt(s, to + 1) ||
             ((to + 1 < s.size() && (s[to + 1] == '-' || s[to + 1] == '+')) && digitAt(s, to + 2)))) {
            text[n++] = 'e';
            ++to;
            while (to < s.size() && n < sizeof text && (digit(s[to]) || s[to] == '-' || s[to] == '+')) {
                if (s[to] != '+') text[n++] = s[to];
                ++to;
            }
        }
        double value = 0;
        const auto [end, error] = std::from_chars(text, text + n, value);
        if (error != std::errc{} || end != text + n || !(std::abs(value) <= tooLarge)) return std::nullopt;
        return LabelledNumber{value, i, to};
    }
    return std::nullopt;
}

std::pair<Layout, std::size_t> guessLabelled(std::span<const std::string> lines) {
    std::pair<Layout, std::size_t> best;
    for (const char decimal : {'.', ','}) {
        std::vector<std::vector<Item>> all;
        for (const auto& line : lines)
            if (auto items = itemsOf(line, decimal); !items.empty()) all.push_back(std::move(items));
        for (const auto& kind : all) {
            const auto alike = static_cast<std::size_t>(std::count(all.begin(), all.end(), kind));
            const bool says = std::any_of(kind.begin(), kind.end(),
                                          [](const Item& i) { return !i.label.empty() || !i.unit.empty(); });
            const bool better =
                alike > best.second || (alike == best.second && kind.size() < best.first.columns.size());
            if (!says || !better) continue; // "3,25" is one number before it is two
            Layout l;
            l.labelled = true;
            l.decimal = decimal;
            for (const auto& item : kind) {
                LineColumn c;
                c.name = item.label;
                c.unit = item.unit;
                l.columns.push_back(std::move(c));
            }
            best = {std::move(l), alike};
        }
    }
    return best;
}

bool saysOverload(std::string_view line) {
    std::string word;
    std::size_t dashes = 0;
    for (std::size_t i = 0; i <= line.size(); ++i) {
        const char c = i < line.size() ? line[i] : ' ';
        dashes = c == '-' ? dashes + 1 : 0;
        if (dashes >= 4) return true;
        if (letter(c) || digit(c) || c == '.') {
            word += c;
            continue;
        }
        if (among(word, overloadWords)) return true;
        word.clear();
    }
    return false;
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
                out.push_back(
                    {among(word, statusWords) || among(word, overloadWords) ? Kind::status : Kind::label, i,
                     k, -1});
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

} // namespace anvil::rig
