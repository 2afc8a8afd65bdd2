// Samples of the numbers in a device's lines.
#include "fields.h"
#include "labelled_lines.h"

#include <algorithm>
#include <anvil/columns/line.h>
#include <anvil/columns/text.h>
#include <anvil/quantity/unit.h>

namespace anvil::rig {

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
        s.overload = columns::saysOverload(line);
    } else {
        fields(line, m_layout.delimiter, [&](std::string_view f) { take(valueIn(f, m_layout)); });
    }
    if (!ok || column < m_uses.size()) return std::nullopt;
    return s;
}

std::optional<double> answerOf(std::string_view line, std::string_view unit) {
    line = columns::trimmed(line);
    auto end = std::min(line.find_first_not_of("+-0123456789.eE"), line.size());
    auto number = numberIn(line.substr(0, end), '.');
    if (!number && columns::readNumber(line.substr(0, end), '.')) return std::nullopt; // 9.9E+37
    if (!number && end < line.size() && end > 0) { // "12E" of "12Eh": the exponent was a word
        end = std::min(line.find_first_not_of("+-0123456789."), line.size());
        number = numberIn(line.substr(0, end), '.');
    }
    const auto rest = columns::trimmed(line.substr(end));
    if (!number || unit.empty() || rest.empty()) return number;
    const auto wanted = quantity::findUnit(unit);
    if (!wanted) return number;
    if (const auto said = quantity::findUnit(rest, (*wanted)->dimension))
        return (*wanted)->fromSi((*said)->toSi(*number));
    if (quantity::findUnit(rest)) return std::nullopt; // such as a late answer to the question before
    return number;
}

} // namespace anvil::rig
