#include <anvil/rig/lines.h>

#include "fields.h"
#include "labelled_lines.h"

#include <algorithm>
#include <anvil/columns/heading.h>
#include <anvil/columns/line.h>
#include <anvil/columns/number.h>
#include <anvil/columns/text.h>
#include <anvil/quantity/unit.h>
#include <array>
#include <cmath>
#include <map>

namespace anvil::rig {
namespace {

constexpr std::array<const char*, 5> roleKeys{"none", "time", "force", "displacement", "other"};
constexpr std::size_t mostColumns = 64;

std::vector<std::string> split(std::string_view line, char delimiter) {
    std::vector<std::string> out;
    fields(line, delimiter, [&](std::string_view f) {
        if (out.size() < mostColumns) out.emplace_back(columns::trimmed(f));
    });
    return out;
}

Role roleOf(columns::Kind kind) {
    switch (kind) {
    case columns::Kind::time:
        return Role::time;
    case columns::Kind::load:
        return Role::load;
    case columns::Kind::travel:
        return Role::travel;
    case columns::Kind::unknown:
    case columns::Kind::run:
    case columns::Kind::another:
        break;
    }
    return Role::none;
}

/// A heading's name, and its unit as it stands there where it is known.
LineColumn columnFrom(const std::string& head) {
    const auto h = columns::readHeading(head);
    LineColumn c;
    c.name = h.unit && h.name == h.unitText ? "" : h.name; // headed by its unit alone
    c.role = roleOf(h.kind);
    if (h.unit && h.factor == 1) c.unit = h.unitText;
    return c;
}

} // namespace

const char* key(Role role) { return roleKeys[static_cast<std::size_t>(role)]; }

std::optional<Role> roleFromKey(std::string_view text) {
    for (std::size_t i = 0; i < roleKeys.size(); ++i)
        if (text == roleKeys[i]) return static_cast<Role>(i);
    return std::nullopt;
}

Expected<std::vector<LineColumn>> columnsOf(std::span<const ColumnText> typed) {
    std::vector<LineColumn> out;
    for (const auto& t : typed) {
        if (t.name == "-") {
            out.push_back({});
            continue;
        }
        if (t.name.empty()) return fail("A column needs a name, or a dash where it is not wanted.");
        auto c = columnFrom(t.unit.empty() ? t.name : t.name + " [" + t.unit + "]");
        if (!t.unit.empty())
            if (const auto unit = quantity::findUnit(t.unit); !unit) return tl::unexpected(unit.error());
        c.question = t.question;
        if (c.role == Role::none) c.role = Role::other;
        out.push_back(std::move(c));
    }
    const auto asked =
        std::count_if(out.begin(), out.end(), [](const LineColumn& c) { return !c.question.empty(); });
    if (asked > 0 && asked < static_cast<std::ptrdiff_t>(out.size()))
        return fail("Some of these have a question and some none: a device either answers or sends lines.");
    return out;
}

std::string columnsText(std::span<const LineColumn> columns) {
    std::string out;
    for (const auto& c : columns) {
        if (!out.empty()) out += ", ";
        if (c.role == Role::none)
            out += '-';
        else
            out += (c.name.empty() ? std::string(key(c.role)) : c.name) +
                   (c.unit.empty() ? "" : " [" + c.unit + "]") +
                   (c.question.empty() ? "" : " = " + c.question);
    }
    return out;
}

std::vector<LineColumn> keepingWhatIsKnown(std::vector<LineColumn> typed,
                                           std::span<const LineColumn> before) {
    for (auto& c : typed)
        for (const auto& known : before)
            if (known.name == c.name && known.unit == c.unit) {
                auto question = std::move(c.question);
                const auto role = c.role;
                c = known;
                c.question = std::move(question);
                c.role = role;
            }
    for (std::size_t i = 0; typed.size() == before.size() && i < typed.size(); ++i) {
        typed[i].label = before[i].label;
        typed[i].printed = before[i].printed;
    }
    return typed;
}

std::optional<std::size_t> Layout::find(Role role) const {
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (columns[i].role == role) return i;
    return std::nullopt;
}

namespace {
quantity::Dimension dimensionOf(const Layout& layout, Role role,
                                std::initializer_list<quantity::Dimension> may) {
    const auto at = layout.find(role);
    if (at)
        for (const auto d : may)
            if (quantity::findUnit(layout.columns[*at].unit, d)) return d;
    return *may.begin();
}
} // namespace

quantity::Dimension loadOf(const Layout& layout) {
    using quantity::Dimension;
    return dimensionOf(layout, Role::load,
                       {Dimension::force, Dimension::torque, Dimension::acceleration, Dimension::stress,
                        Dimension::voltage});
}

quantity::Dimension travelOf(const Layout& layout) {
    using quantity::Dimension;
    return dimensionOf(layout, Role::travel, {Dimension::length, Dimension::angle});
}

Layout simulatedLayout(quantity::Dimension load) {
    if (load == quantity::Dimension::torque)
        return {',',
                '.',
                {{"time", Role::time, "s"}, {"torque", Role::load, "N·m"}, {"angle", Role::travel, "°"}},
                0};
    if (load == quantity::Dimension::acceleration)
        return {
            ',',
            '.',
            {{"time", Role::time, "s"}, {"deceleration", Role::load, "g₀"}, {"travel", Role::travel, "mm"}},
            0};
    return {
        ',', '.', {{"time", Role::time, "s"}, {"force", Role::load, "N"}, {"travel", Role::travel, "mm"}}, 0};
}

std::optional<std::vector<double>> numbersOf(std::string_view line, const Layout& layout) {
    std::vector<double> out;
    if (layout.labelled) {
        auto said = labelledNumbers(line, layout);
        if (!said || said->empty()) return std::nullopt;
        return said;
    }
    bool ok = true;
    fields(line, layout.delimiter, [&](std::string_view f) {
        if (!ok || out.size() >= mostColumns) {
            ok = false;
            return;
        }
        const auto value = valueIn(f, layout);
        ok = value.has_value();
        if (ok) out.push_back(*value);
    });
    if (!ok || out.empty() || out.size() < layout.columns.size()) return std::nullopt;
    return out;
}

namespace {

/// Lines that say what they measure: the roles follow from labels and units; a single number is the load, and
/// so is the first that can be none other.
Layout named(Layout l) {
    for (auto& c : l.columns) {
        auto guessed = columnFrom(c.unit.empty() ? c.name : c.name + " [" + c.unit + "]");
        guessed.name = guessed.label = c.name;
        guessed.unit = guessed.printed = c.unit;
        c = std::move(guessed);
    }
    if (!l.find(Role::load))
        for (auto& c : l.columns)
            if (c.role == Role::none && (c.unit.empty() || l.columns.size() == 1)) {
                c.role = Role::load;
                break;
            }
    bool force = false; // of two loads the first leads, the other is a leg
    for (auto& c : l.columns) {
        if (c.role == Role::load && force) c.role = Role::other;
        force = force || c.role == Role::load;
        if (c.name.empty()) c.name = c.role == Role::load ? "load" : "";
    }
    return l;
}

} // namespace

namespace {

/// "12,34" line after line is one number with a decimal comma, where the part behind is as long in every line
/// and what is before it is no clock.
bool commaIsDecimal(std::span<const std::string> lines) {
    std::optional<std::size_t> decimals;
    std::vector<double> whole;
    bool zero = false;
    for (const auto& line : lines) {
        const auto text = columns::trimmed(line);
        const auto comma = text.find(',');
        if (!numberIn(text, ',') || comma == std::string_view::npos) continue;
        const auto n = text.size() - comma - 1;
        if (decimals && *decimals != n) return false;
        decimals = n;
        zero = zero || text.substr(0, comma) == "0" || text.substr(0, comma).ends_with("-0");
        whole.push_back(numberIn(text.substr(0, comma), '.').value_or(0));
    }
    constexpr std::size_t enough = 5;
    if (whole.size() < enough || (*decimals == 3 && !zero)) return false;
    bool rises = true;
    for (std::size_t i = 1; i < whole.size(); ++i)
        rises = rises && whole[i] > whole[i - 1];
    return !rises;
}

} // namespace

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
    if (auto [labelled, count] = guessLabelled(lines); count > bestLines) return named(std::move(labelled));
    if (best.delimiter == ',' && bestColumns == 2 && commaIsDecimal(lines)) {
        best.delimiter = '\t';
        best.decimal = ',';
        bestColumns = 1;
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
    const bool named = best.find(Role::load).has_value();
    if (!named) {
        bool rises = bestColumns > 1 && rows.size() > 2;
        for (std::size_t i = 1; i < rows.size(); ++i)
            rises = rises && rows[i][0] > rows[i - 1][0];
        if (rises && !best.find(Role::time)) best.columns[0].role = Role::time;
        for (auto& c : best.columns)
            if (c.role == Role::none) {
                c.role = Role::load;
                break;
            }
    }
    return best;
}

} // namespace anvil::rig
