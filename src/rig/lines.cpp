#include <anvil/rig/lines.h>

#include <algorithm>
#include <anvil/quantity/unit.h>
#include <array>
#include <charconv>
#include <cmath>
#include <map>

namespace anvil::rig {
namespace {

constexpr std::array<const char*, 5> roleKeys{"none", "time", "force", "displacement", "other"};
constexpr double tooLarge = 1e15; // no sensor shows this in any unit
constexpr std::size_t mostColumns = 64;

std::string_view trimmed(std::string_view s) {
    const auto blank = [](char c) { return c == ' ' || c == '\t'; };
    while (!s.empty() && blank(s.front()))
        s.remove_prefix(1);
    while (!s.empty() && blank(s.back()))
        s.remove_suffix(1);
    return s;
}

/// A whole field as a number, with '.' or ',' for the decimals; nothing for anything else.
std::optional<double> numberIn(std::string_view field, char decimal) {
    field = trimmed(field);
    if (!field.empty() && field.front() == '+') field.remove_prefix(1);
    if (field.empty() || field.size() > 63) return std::nullopt;
    char text[64];
    std::size_t n = 0;
    for (const char c : field) {
        if (c == '.' && decimal != '.') return std::nullopt;
        text[n++] = c == decimal ? '.' : c;
    }
    double value = 0;
    const auto [end, error] = std::from_chars(text, text + n, value);
    if (error != std::errc{} || end != text + n || !std::isfinite(value) || std::abs(value) > tooLarge)
        return std::nullopt;
    return value;
}

template <class Take> void fields(std::string_view line, char delimiter, Take take) {
    if (delimiter == ' ') {
        std::size_t at = 0;
        while (at < line.size()) {
            const auto from = line.find_first_not_of(" \t", at);
            if (from == std::string_view::npos) return;
            const auto to = std::min(line.find_first_of(" \t", from), line.size());
            take(line.substr(from, to - from));
            at = to;
        }
        return;
    }
    for (std::size_t at = 0;;) {
        const auto to = line.find(delimiter, at);
        take(line.substr(at, to == std::string_view::npos ? to : to - at));
        if (to == std::string_view::npos) return;
        at = to + 1;
    }
}

std::vector<std::string> split(std::string_view line, char delimiter) {
    std::vector<std::string> out;
    fields(line, delimiter, [&](std::string_view f) {
        if (out.size() < mostColumns) out.emplace_back(trimmed(f));
    });
    return out;
}

/// "force_N", "Force (kN)", "t [s]": the name and the unit in it.
Column columnFrom(const std::string& head) {
    Column c;
    c.name = head;
    for (const auto& [open, close] : {std::pair{'(', ')'}, std::pair{'[', ']'}}) {
        const auto a = head.find(open), b = head.rfind(close);
        if (a != std::string::npos && b != std::string::npos && b > a) {
            c.name = std::string(trimmed(std::string_view(head).substr(0, a)));
            c.unit = std::string(trimmed(std::string_view(head).substr(a + 1, b - a - 1)));
        }
    }
    if (const auto bar = head.rfind('_'); c.unit.empty() && bar != std::string::npos) {
        const auto tail = head.substr(bar + 1);
        if (quantity::findUnit(tail)) {
            c.unit = tail;
            c.name = head.substr(0, bar);
        }
    }
    std::string low = c.name;
    std::transform(low.begin(), low.end(), low.begin(),
                   [](unsigned char ch) { return static_cast<char>(std::tolower(ch)); });
    const auto holds = [&](std::initializer_list<const char*> words) {
        return std::any_of(words.begin(), words.end(),
                           [&](const char* w) { return low.find(w) != std::string::npos; });
    };
    c.role = holds({"force", "load", "kraft", "weight"}) || low == "f" ? Role::force
             : holds({"time", "zeit", "millis"}) || low == "t"         ? Role::time
             : holds({"disp", "travel", "position", "stroke", "weg"}) || low == "x" || low == "s"
                 ? Role::displacement
                 : Role::none;
    if (const auto unit = quantity::findUnit(c.unit)) {
        const auto d = (*unit)->dimension;
        if (c.role == Role::none)
            c.role = d == quantity::Dimension::force    ? Role::force
                     : d == quantity::Dimension::time   ? Role::time
                     : d == quantity::Dimension::length ? Role::displacement
                                                        : Role::none;
    } else {
        c.unit.clear();
    }
    return c;
}

} // namespace

const char* key(Role role) { return roleKeys[static_cast<std::size_t>(role)]; }

std::optional<Role> roleFromKey(std::string_view text) {
    for (std::size_t i = 0; i < roleKeys.size(); ++i)
        if (text == roleKeys[i]) return static_cast<Role>(i);
    return std::nullopt;
}

std::optional<std::size_t> Layout::find(Role role) const {
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (columns[i].role == role) return i;
    return std::nullopt;
}

Layout simulatedLayout() {
    return {',',
            '.',
            {{"time", Role::time, "s"}, {"force", Role::force, "N"}, {"travel", Role::displacement, "mm"}},
            0};
}

std::optional<std::vector<double>> numbersOf(std::string_view line, const Layout& layout) {
    std::vector<double> out;
    bool ok = true;
    fields(line, layout.delimiter, [&](std::string_view f) {
        if (!ok || out.size() >= mostColumns) {
            ok = false;
            return;
        }
        const auto value = numberIn(f, layout.decimal);
        ok = value.has_value();
        if (ok) out.push_back(*value);
    });
    if (!ok || out.empty() || out.size() < layout.columns.size()) return std::nullopt;
    return out;
}

Expected<Layout> guessLayout(std::span<const std::string> lines) {
    Layout best;
    std::size_t bestLines = 0, bestColumns = 0;
    for (const char delimiter : {'\t', ';', ',', ' '})
        for (const char decimal : {'.', ','}) {
            if (delimiter == ',' && decimal == ',') continue;
            std::map<std::size_t, std::size_t> counts; // numbers a line → lines
            for (const auto& line : lines)
                if (const auto n = numbersOf(line, {delimiter, decimal, {}, 0})) ++counts[n->size()];
            for (const auto& [columns, count] : counts)
                if (count > bestLines || (count == bestLines && columns > bestColumns)) {
                    bestLines = count;
                    bestColumns = columns;
                    best.delimiter = delimiter;
                    best.decimal = decimal;
                }
        }
    if (bestLines == 0) return fail("Nothing that arrived is a line of numbers: check speed and wiring.");
    std::vector<std::vector<double>> rows;
    best.columns.assign(bestColumns, {});
    for (const auto& line : lines) {
        const auto n = numbersOf(line, {best.delimiter, best.decimal, {}, 0});
        if (n && n->size() == bestColumns) {
            rows.push_back(*n);
            continue;
        }
        const auto heads = split(line, best.delimiter);
        if (heads.size() == bestColumns && !n)
            for (std::size_t i = 0; i < heads.size(); ++i)
                best.columns[i] = columnFrom(heads[i]);
    }
    const bool named = best.find(Role::force).has_value();
    if (!named) {
        bool rises = bestColumns > 1 && rows.size() > 2;
        for (std::size_t i = 1; i < rows.size(); ++i)
            rises = rises && rows[i][0] > rows[i - 1][0];
        if (rises && !best.find(Role::time)) best.columns[0].role = Role::time;
        for (auto& c : best.columns)
            if (c.role == Role::none) {
                c.role = Role::force;
                break;
            }
    }
    return best;
}

Expected<SampleMaker> SampleMaker::make(const Layout& layout) {
    SampleMaker m;
    m.m_layout = layout;
    const auto scale = [&](Role role, quantity::Dimension dimension) -> Expected<std::optional<Scale>> {
        const auto at = layout.find(role);
        if (!at) return std::optional<Scale>{};
        const auto& c = layout.columns[*at];
        if (c.unit.empty()) return std::optional<Scale>(Scale{*at, 1});
        const auto unit = quantity::findUnit(c.unit, dimension);
        if (!unit) return tl::unexpected(unit.error());
        return std::optional<Scale>(Scale{*at, (*unit)->factor});
    };
    const auto force = scale(Role::force, quantity::Dimension::force);
    if (!force) return tl::unexpected(force.error());
    if (!*force) return fail("No column holds the force: say which one does.");
    m.m_force = **force;
    const auto time = scale(Role::time, quantity::Dimension::time);
    if (!time) return tl::unexpected(time.error());
    const auto displacement = scale(Role::displacement, quantity::Dimension::length);
    if (!displacement) return tl::unexpected(displacement.error());
    m.m_time = *time;
    m.m_displacement = *displacement;
    return m;
}

std::optional<RawSample> SampleMaker::operator()(std::string_view line) const {
    const std::size_t needed =
        std::max({m_force.column, m_time ? m_time->column : 0, m_displacement ? m_displacement->column : 0});
    RawSample s;
    std::size_t column = 0;
    bool ok = true;
    fields(line, m_layout.delimiter, [&](std::string_view f) {
        if (ok && column <= needed) {
            const bool wanted = column == m_force.column || (m_time && column == m_time->column) ||
                                (m_displacement && column == m_displacement->column);
            if (wanted) {
                const auto value = numberIn(f, m_layout.decimal);
                if (!value)
                    ok = false;
                else if (column == m_force.column)
                    s.force = *value * m_force.factor;
                else if (m_time && column == m_time->column)
                    s.time = *value * m_time->factor;
                else
                    s.displacement = *value * m_displacement->factor;
            }
        }
        ++column;
    });
    if (!ok || column <= needed) return std::nullopt;
    return s;
}

std::optional<double> answerOf(std::string_view line) {
    line = trimmed(line);
    const auto end = line.find_first_not_of("+-0123456789.eE");
    auto number = numberIn(line.substr(0, end), '.');
    if (!number && end != std::string_view::npos && end > 0) // "12E" of "12Eh": the exponent was a word
        number = numberIn(line.substr(0, line.find_first_not_of("+-0123456789.")), '.');
    return number;
}

} // namespace anvil::rig
