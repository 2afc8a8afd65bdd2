#include "numbers.h"
#include <anvil/tables/log.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <fmt/format.h>
#include <map>

namespace anvil::tables {
namespace {

using quantity::Dimension;
using quantity::Unit;

constexpr std::size_t headLines = 400;

bool numeric(std::string_view field, char decimal) {
    const auto f = trimmed(field);
    return readNumber(f, decimal) || readGrouped(f, decimal) || clockSeconds(f);
}

struct Shape {
    char delimiter = ',', decimal = '.';
    std::size_t columns = 0, rows = 0, firstRow = 0;
    std::size_t score() const { return rows * std::min<std::size_t>(columns, 3) * 4 + columns; }
};

/// Rows of numbers under one delimiter and decimal mark; at least one field a row must be a number, the rest
/// a number or a word.
Shape tryShape(const std::vector<std::string_view>& lines, char delimiter, char decimal) {
    std::map<std::size_t, Shape> byWidth;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const auto fields = splitFields(lines[i], delimiter);
        std::size_t numbers = 0, filled = 0;
        for (const auto& f : fields) {
            filled += !f.empty();
            numbers += numeric(f, decimal);
        }
        if (numbers == 0 || numbers + 1 < filled) continue;
        auto& s = byWidth[fields.size()];
        if (s.rows++ == 0) s.firstRow = i;
        s.columns = std::max(s.columns, numbers);
    }
    Shape best;
    for (auto& [width, s] : byWidth)
        if (s.rows > best.rows) best = s;
    best.delimiter = delimiter;
    best.decimal = decimal;
    return best;
}

/// "Force (kN)", "load [kgf]", "F/N", "Weg in mm", "force_lbf", "Load, N" → name and unit.
std::pair<std::string, std::string> nameAndUnit(std::string_view header) {
    const std::string h(trimmed(header));
    for (const auto& [open, close] : {std::pair{'(', ')'}, std::pair{'[', ']'}, std::pair{'{', '}'}}) {
        const auto a = h.find(open), b = h.rfind(close);
        if (a != std::string::npos && b != std::string::npos && b > a)
            return {std::string(trimmed(h.substr(0, a))), std::string(trimmed(h.substr(a + 1, b - a - 1)))};
    }
    for (const std::string_view mark : {" in ", "/", "_", ",", " "}) {
        const auto at = h.rfind(mark);
        if (at != std::string::npos && at > 0 && at + mark.size() < h.size()) {
            const auto tail = h.substr(at + mark.size());
            if (quantity::findUnit(tail, Dimension::force) || quantity::findUnit(tail, Dimension::length) ||
                quantity::findUnit(tail, Dimension::time))
                return {std::string(trimmed(h.substr(0, at))), tail};
        }
    }
    return {h, ""};
}

bool mentions(const std::string& header, std::initializer_list<std::string_view> words) {
    std::string h = lowered(header);
    for (auto& c : h)
        if (!std::isalnum(static_cast<unsigned char>(c)) && static_cast<unsigned char>(c) < 0x80) c = ' ';
    h = " " + h + " ";
    return std::any_of(words.begin(), words.end(), [&](std::string_view w) {
        return w.size() <= 2 ? h.find(" " + std::string(w) + " ") != std::string::npos
                             : h.find(w) != std::string::npos;
    });
}

Role roleFromName(const std::string& name) {
    if (mentions(name, {"time", "zeit", "temps", "elapsed", "stamp", "clock", "uhrzeit", "seconds", "t"}))
        return Role::time;
    if (mentions(name, {"displ", "travel", "position", "extension", "stroke", "crosshead", "deflection",
                        "weg", "distance", "x", "elong", "depla"}))
        return Role::displacement;
    if (mentions(name, {"force", "load", "kraft", "weight", "pull", "cell", "tension", "f", "effort"}))
        return Role::force;
    if (mentions(name, {"run", "test", "specimen", "piece", "trial", "probe"})) return Role::run;
    return Role::ignore;
}

const Unit* unitFor(Role role, const std::string& text) {
    const auto dimension = role == Role::force          ? Dimension::force
                           : role == Role::displacement ? Dimension::length
                                                        : Dimension::time;
    if (role == Role::ignore || role == Role::run || text.empty()) return nullptr;
    const auto u = quantity::findUnit(text, dimension);
    return u ? *u : nullptr;
}

/// Sample of one column's numbers, from the head of the file.
std::vector<double> sample(const std::vector<std::string_view>& lines, const Layout& layout,
                           std::size_t column) {
    std::vector<double> out;
    for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
        const auto fields = splitFields(lines[i], layout.delimiter);
        if (column >= fields.size()) continue;
        if (const auto v = readNumber(fields[column], layout.decimal)) out.push_back(*v);
    }
    return out;
}

bool steadilyRising(const std::vector<double>& v) {
    if (v.size() < 3) return false;
    std::size_t up = 0;
    for (std::size_t i = 1; i < v.size(); ++i)
        up += v[i] > v[i - 1];
    return up + 1 + v.size() / 50 >= v.size();
}

/// What the commas of a file say about its decimal mark.
struct Commas {
    bool any = false;      ///< there are commas in numbers
    bool decimal = false;  ///< one is not followed by exactly three digits, or leads with a zero: 0,012
    bool grouping = false; ///< one stands with a point (1,250.5) or with another comma (1,250,000)
    bool settled() const { return decimal || grouping; }
};

void weigh(Commas& seen, const std::string& field) {
    const auto at = field.find(',');
    if (at == std::string::npos || !(numeric(field, ',') || numeric(field, '.'))) return;
    seen.any = true;
    const auto rest = std::string_view(field).substr(at + 1);
    if (rest.find_first_of(".,") != std::string_view::npos) {
        seen.grouping = true;
        return;
    }
    const bool leadingZero = field[0] == '0' || field.starts_with("-0") || field.starts_with("+0");
    seen.decimal = seen.decimal || rest.size() != 3 || leadingZero || at > 4;
}

/// The head of the file decides; where it leaves the question open, the rest does.
void decideDecimal(std::string_view text, const std::vector<std::string_view>& head, const Hints& hints,
                   Layout& layout) {
    if (layout.delimiter == ',') return;
    Commas seen;
    for (std::size_t i = layout.firstRow; i < head.size(); ++i)
        for (const auto& f : splitFields(head[i], layout.delimiter))
            weigh(seen, f);
    if (seen.any && !seen.settled() && head.size() == headLines) {
        auto rest =
            text.substr(static_cast<std::size_t>(head.back().data() + head.back().size() - text.data()));
        while (!rest.empty() && !seen.settled()) {
            const auto end = std::min(rest.find_first_of("\r\n"), rest.size());
            if (end > 0)
                for (const auto& f : splitFields(rest.substr(0, end), layout.delimiter))
                    weigh(seen, f);
            rest.remove_prefix(std::min(end + 1, rest.size()));
        }
    }
    if (!seen.any) return;
    layout.grouped = seen.grouping && !seen.decimal;
    layout.decimalUnsure = !seen.settled() && !hints.decimal;
    layout.decimal = layout.grouped ? '.' : ',';
    if (!seen.settled() && hints.decimal == '.') { // the person said: 1,250 is twelve hundred and fifty
        layout.decimal = '.';
        layout.grouped = true;
    }
}

Expected<void> applyHint(Layout& layout, const std::string& hint, Role role) {
    if (hint.empty()) return {};
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        auto& c = layout.columns[i];
        if (lowered(c.header) != lowered(hint) && fmt::format("{}", i + 1) != hint) continue;
        if (const auto old = layout.find(role); old && *old != i) layout.columns[*old].role = Role::ignore;
        c.role = role;
        return {};
    }
    std::string names;
    for (const auto& c : layout.columns)
        names += (names.empty() ? "" : ", ") + c.header;
    return fail(fmt::format("there is no column \"{}\"; the columns are {}", hint, names));
}

} // namespace

std::optional<std::size_t> Layout::find(Role role) const {
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (columns[i].role == role) return i;
    return std::nullopt;
}

Expected<Layout> detect(std::string_view text, const Hints& hints) {
    const auto lines = splitLines(text.substr(0, std::size_t{1} << 17), headLines);
    Shape best;
    for (const auto& [delimiter, decimal] : std::array<std::pair<char, char>, 9>{{{'\t', '.'},
                                                                                  {'\t', ','},
                                                                                  {';', '.'},
                                                                                  {';', ','},
                                                                                  {',', '.'},
                                                                                  {'|', '.'},
                                                                                  {'|', ','},
                                                                                  {' ', '.'},
                                                                                  {' ', ','}}}) {
        const auto s = tryShape(lines, delimiter, decimal);
        if (s.score() > best.score()) best = s;
    }
    if (best.rows == 0) return fail("there are no rows of numbers in it");
    Layout layout;
    layout.delimiter = best.delimiter;
    layout.decimal = best.decimal;
    layout.firstRow = best.firstRow;
    decideDecimal(text, lines, hints, layout);

    const auto first = splitFields(lines[layout.firstRow], layout.delimiter);
    layout.columns.resize(first.size());
    for (std::size_t i = 0; i < first.size(); ++i) {
        layout.columns[i].header = fmt::format("column {}", i + 1);
        layout.columns[i].clock = !readNumber(first[i], layout.decimal) && clockSeconds(first[i]);
    }
    if (layout.firstRow > 0 &&
        layout.delimiter == ',') { // 0,5,12,3 under two names: decimal commas between commas
        const auto names = splitFields(lines[layout.firstRow - 1], ',');
        const bool words = names.size() > 1 && std::none_of(names.begin(), names.end(), [](const auto& n) {
                               return n.empty() || readNumber(n, '.');
                           });
        if (words && first.size() > names.size() && first.size() <= 2 * names.size())
            return fail(fmt::format("its rows have {} fields where the heading names {}: decimal commas "
                                    "cannot be told from the commas between columns",
                                    first.size(), names.size()));
    }
    // Up to two lines of words just above the numbers: names, then perhaps units.
    std::vector<std::vector<std::string>> above;
    for (std::size_t i = layout.firstRow; i-- > 0 && above.size() < 2;) {
        auto fields = splitFields(lines[i], layout.delimiter);
        if (!fields.empty() && fields[0].starts_with("#")) {
            fields[0] = std::string(trimmed(std::string_view(fields[0]).substr(1)));
            if (fields[0].empty()) fields.erase(fields.begin());
        }
        if (fields.size() != first.size()) break;
        above.push_back(std::move(fields));
        layout.headerLine = std::string(trimmed(lines[i]));
    }
    const auto isUnits = [&](const std::vector<std::string>& row) {
        std::size_t units = 0, filled = 0;
        for (const auto& f : row) {
            const auto inner = nameAndUnit(f).second.empty() ? f : nameAndUnit(f).second;
            filled += !f.empty();
            units += !f.empty() && (quantity::findUnit(inner).has_value() || lowered(inner) == "hh:mm:ss") &&
                     roleFromName(f) != Role::run;
        }
        return filled > 0 && units == filled && !row.empty();
    };
    std::vector<std::string> names(first.size()), units(first.size());
    if (!above.empty()) {
        const bool unitRow = above.size() == 2 && isUnits(above[0]);
        const auto& nameRow = unitRow ? above[1] : above[0];
        if (!unitRow) layout.headerLine = std::string(trimmed(lines[layout.firstRow - 1]));
        for (std::size_t i = 0; i < first.size(); ++i) {
            auto [n, u] = nameAndUnit(nameRow[i]);
            if (u.empty() && !unitRow && roleFromName(n) == Role::ignore &&
                quantity::findUnit(n)) // headed by nothing but its unit
                u = n;
            names[i] = n.empty() ? nameRow[i] : n;
            units[i] = unitRow ? std::string(trimmed(above[0][i])) : u;
            if (unitRow && units[i].size() > 2 && (units[i].front() == '(' || units[i].front() == '['))
                units[i] = units[i].substr(1, units[i].size() - 2);
        }
    }
    for (std::size_t i = 0; i < names.size(); ++i) {
        auto& c = layout.columns[i];
        if (!names[i].empty()) c.header = names[i];
        Role role = roleFromName(names[i]);
        if (role == Role::ignore && !units[i].empty()) {
            if (quantity::findUnit(units[i], Dimension::force))
                role = Role::force;
            else if (quantity::findUnit(units[i], Dimension::length))
                role = Role::displacement;
            else if (quantity::findUnit(units[i], Dimension::time))
                role = Role::time;
        }
        if (role == Role::run && layout.find(Role::run)) role = Role::ignore;
        if (role != Role::ignore && !layout.find(role)) c.role = role;
        c.unit = unitFor(c.role, units[i]);
    }
    if (above.empty()) { // no header: order and behaviour decide
        for (std::size_t i = 0; i < first.size(); ++i) {
            auto& c = layout.columns[i];
            if (!layout.find(Role::time) && first.size() > 1 && i == 0 &&
                (c.clock || steadilyRising(sample(lines, layout, i))))
                c.role = Role::time;
            else if (!layout.find(Role::force))
                c.role = Role::force;
            else if (!layout.find(Role::displacement))
                c.role = Role::displacement;
        }
    }
    if (auto ok = applyHint(layout, hints.time, Role::time); !ok) return tl::unexpected(ok.error());
    if (auto ok = applyHint(layout, hints.displacement, Role::displacement); !ok)
        return tl::unexpected(ok.error());
    if (auto ok = applyHint(layout, hints.force, Role::force); !ok) return tl::unexpected(ok.error());
    if (!layout.find(Role::force)) {
        std::string list;
        for (const auto& c : layout.columns)
            list += (list.empty() ? "" : ", ") + c.header;
        if (layout.columns.size() == 1) {
            layout.columns[0].role = Role::force;
        } else {
            return fail(fmt::format(
                "no column looks like a force (the columns are {}): name the force column", list));
        }
    }
    const auto setUnit = [&](Role role, const Unit* u) {
        if (const auto i = layout.find(role); i && u) layout.columns[*i].unit = u;
    };
    setUnit(Role::force, hints.forceUnit);
    setUnit(Role::displacement, hints.displacementUnit);
    setUnit(Role::time, hints.timeUnit);
    return layout;
}

} // namespace anvil::tables
