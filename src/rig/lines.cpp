#include <anvil/rig/lines.h>

#include "labelled_lines.h"

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

/// "force_N", "Force (kN)", "t [s]": the name and the unit in it; `typed` receives the unit as it stands
/// there, known or not.
LineColumn columnFrom(const std::string& head, std::string* typed = nullptr) {
    LineColumn c;
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
    if (typed) *typed = c.unit;
    std::string low = c.name;
    std::transform(low.begin(), low.end(), low.begin(),
                   [](unsigned char ch) { return static_cast<char>(std::tolower(ch)); });
    const auto holds = [&](std::initializer_list<const char*> words) {
        return std::any_of(words.begin(), words.end(),
                           [&](const char* w) { return low.find(w) != std::string::npos; });
    };
    c.role = holds({"force", "load", "kraft", "weight", "torque", "moment", "accel", "decel"}) || low == "f"
                 ? Role::load
             : holds({"time", "zeit", "millis"}) || low == "t" ? Role::time
             : holds({"disp", "travel", "position", "stroke", "weg", "angle"}) || low == "x" || low == "s"
                 ? Role::travel
                 : Role::none;
    if (const auto unit = quantity::findUnit(c.unit)) {
        const auto d = (*unit)->dimension;
        if (c.role == Role::none)
            c.role = d == quantity::Dimension::force || d == quantity::Dimension::torque ||
                             d == quantity::Dimension::acceleration
                         ? Role::load
                     : d == quantity::Dimension::time                                      ? Role::time
                     : d == quantity::Dimension::length || d == quantity::Dimension::angle ? Role::travel
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
        const auto value = numberIn(f, layout.decimal);
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

namespace {

/// What a further column becomes: its name, the SI unit of its values, how they are reached.
Expected<OtherChannel> otherOf(std::size_t i, const LineColumn& c, const std::vector<OtherChannel>& known) {
    using quantity::Dimension;
    OtherChannel o{i, c.name.empty() ? "channel " + std::to_string(i + 1) : c.name, c.unit};
    if (!c.unit.empty()) { // "kg" of a force is kgf
        const auto unit =
            quantity::findUnit(c.unit, c.role == Role::load     ? std::optional(Dimension::force)
                                       : c.role == Role::travel ? std::optional(Dimension::length)
                                                                : std::nullopt);
        if (!unit) return tl::unexpected(unit.error());
        const auto& si = quantity::siUnit((*unit)->dimension);
        o.unit = std::string(si.symbol);
        o.factor = (*unit)->factor;
        o.offset = (*unit)->offset;
    } else if (c.role == Role::load) {
        o.unit = "N";
    } else if (c.role == Role::travel) {
        o.unit = "m";
    }
    o.limit = c.limit;
    const auto plain = o.name; // two of one name could not be told apart afterwards
    const auto taken = [&](const std::string& n) {
        return std::any_of(known.begin(), known.end(), [&](const auto& x) { return x.name == n; });
    };
    for (int n = 2; taken(o.name); ++n)
        o.name = plain + " " + std::to_string(n);
    return o;
}

} // namespace

Expected<SampleMaker> SampleMaker::make(const Layout& layout, bool forceNeeded) {
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
    const auto time = scale(Role::time, quantity::Dimension::time);
    if (!time) return tl::unexpected(time.error());
    m.m_time = *time;
    if (forceNeeded) {
        const auto force = scale(Role::load, loadOf(layout));
        if (!force) return tl::unexpected(force.error());
        if (!*force) return fail("No column holds the force: say which one does.");
        const auto displacement = scale(Role::travel, travelOf(layout));
        if (!displacement) return tl::unexpected(displacement.error());
        m.m_force = *force;
        m.m_displacement = *displacement;
    }
    m.m_uses.assign(layout.columns.size(), unused);
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        const auto& c = layout.columns[i];
        if (m.m_force && i == m.m_force->column)
            m.m_uses[i] = 0;
        else if (m.m_time && i == m.m_time->column)
            m.m_uses[i] = 1;
        else if (m.m_displacement && i == m.m_displacement->column)
            m.m_uses[i] = 2;
        else if (c.role == Role::none || c.role == Role::time)
            continue;
        else if (m.m_others.size() == mostOthers)
            return fail("A device can have " + std::to_string(mostOthers) +
                        " channels beside force and travel; take some of its columns out.");
        else {
            auto o = otherOf(i, c, m.m_others);
            if (!o) return tl::unexpected(o.error());
            m.m_uses[i] = 3 + static_cast<int>(m.m_others.size());
            m.m_others.push_back(std::move(*o));
        }
    }
    if (!m.m_force && m.m_others.empty())
        return fail("No column holds a reading: say what one of them shows.");
    while (!m.m_uses.empty() && m.m_uses.back() == unused)
        m.m_uses.pop_back();
    return m;
}

std::optional<RawSample> SampleMaker::operator()(std::string_view line) const {
    RawSample s;
    std::size_t column = 0;
    bool ok = true;
    const auto take = [&](const std::optional<double>& value) {
        if (ok && column < m_uses.size() && m_uses[column] != unused) {
            const auto use = m_uses[column];
            if (!value)
                ok = false;
            else if (use == 0)
                s.load = *value * m_force->factor;
            else if (use == 1)
                s.time = *value * m_time->factor;
            else if (use == 2)
                s.travel = *value * m_displacement->factor;
            else
                s.others[static_cast<std::size_t>(use - 3)] =
                    *value * m_others[static_cast<std::size_t>(use - 3)].factor +
                    m_others[static_cast<std::size_t>(use - 3)].offset;
        }
        ++column;
    };
    if (m_layout.labelled) {
        const auto said = labelledNumbers(line, m_layout);
        if (!said) return std::nullopt;
        for (const double v : *said)
            take(v);
        s.overload = saysOverload(line);
    } else {
        fields(line, m_layout.delimiter, [&](std::string_view f) { take(numberIn(f, m_layout.decimal)); });
    }
    if (!ok || column < m_uses.size()) return std::nullopt;
    return s;
}

std::optional<double> answerOf(std::string_view line, std::string_view unit) {
    line = trimmed(line);
    auto end = std::min(line.find_first_not_of("+-0123456789.eE"), line.size());
    auto number = numberIn(line.substr(0, end), '.');
    if (!number && end < line.size() && end > 0) { // "12E" of "12Eh": the exponent was a word
        end = std::min(line.find_first_not_of("+-0123456789."), line.size());
        number = numberIn(line.substr(0, end), '.');
    }
    const auto rest = trimmed(line.substr(end));
    if (!number || unit.empty() || rest.empty()) return number;
    const auto wanted = quantity::findUnit(unit);
    if (!wanted) return number;
    if (const auto said = quantity::findUnit(rest, (*wanted)->dimension))
        return (*wanted)->fromSi((*said)->toSi(*number));
    if (quantity::findUnit(rest)) return std::nullopt; // such as a late answer to the question before
    return number;
}

} // namespace anvil::rig
