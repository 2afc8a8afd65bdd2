#include "row_taker.h"

#include "heads.h"
#include <algorithm>
#include <anvil/columns/marks.h>
#include <anvil/columns/number.h>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr double nothing = std::numeric_limits<double>::quiet_NaN();

bool isNumberRole(Role role) { return role == Role::time || role == Role::load || role == Role::travel; }

/// "1." among numbers with decimals, as a multimeter shows over range; ">1900", as a display does.
bool showsOverRange(const std::string& field, const Column& c) {
    const auto f = trimmed(field);
    if (c.fractions && (f == "1." || f == "-1." || f == "1 ." || f == "1.  ")) return true;
    return f.size() > 1 && (f.front() == '>' || f.starts_with("≥")) &&
           readField(f.substr(f.front() == '>' ? 1 : 3), c.decimal);
}

} // namespace

RowTaker::RowTaker(const Layout& layout, Columns& into)
    : m_layout(layout), m_into(into), m_hasRuns(layout.find(Role::run).has_value()) {
    for (std::size_t i = 0; i < layout.columns.size(); ++i)
        if (layout.columns[i].role != Role::ignore && layout.columns[i].role != Role::other) m_lastNeeded = i;
    m_into.values.resize(layout.columns.size());
    m_values.resize(layout.columns.size());
}

RowTaker::Cell RowTaker::readCell(std::size_t i, const std::string& f, double& value,
                                  std::string& reason) const {
    const auto& c = m_layout.columns[i];
    const bool isLoad = c.role == Role::load;
    if (isLoad && (markOf(f) == Mark::overload || showsOverRange(f, c))) {
        reason = fmt::format("says \"{}\" instead of a number", shortened(f, 40));
        return Cell::overload;
    }
    const auto v = c.clock ? clockSeconds(f) : readField(f, c.decimal);
    const auto number = v || !c.clock ? v : readNumber(f, c.decimal);
    if (!number) {
        if (trimmed(f).empty()) {
            reason = fmt::format("has nothing under {}", shortened(c.header, 60));
            return Cell::blank;
        }
        reason = fmt::format("\"{}\" under {} is not a number", trimmed(shortened(f, 40)),
                             shortened(c.header, 60));
        return isLoad && markOf(f) == Mark::invalid ? Cell::invalid : Cell::unreadable;
    }
    if (std::isnan(*number)) {
        reason = fmt::format("\"{}\" under {} is no reading", shortened(f, 40), shortened(c.header, 60));
        return Cell::unreadable;
    }
    if (!(std::abs(*number) < (c.role == Role::time ? tooLate : tooLarge))) {
        reason = fmt::format("\"{}\" under {} is too large to be a reading", trimmed(shortened(f, 40)),
                             shortened(c.header, 60));
        return Cell::unreadable;
    }
    value = *number;
    return Cell::number;
}

RowTaker::Took RowTaker::notANumber(Cell cell, const std::vector<std::string>& fields, std::size_t line,
                                    std::string reason) {
    if (cell == Cell::overload || cell == Cell::invalid) {
        if (cell == Cell::overload) overload(line);
        ++m_into.rowsMarked; // nobody lost it: the file says that there is none
        if (m_into.problems.size() < mostProblems) m_into.problems.push_back({line, std::move(reason)});
        return Took::notOne;
    }
    if (const auto took = headingOf(fields); took != Took::notOne) return took;
    problem(line, std::move(reason));
    return Took::notOne;
}

void RowTaker::takeLabel(std::size_t i, const std::string& f) {
    const auto add = [&f](std::string& to) { to += (to.empty() || f.empty() ? "" : " ") + f; };
    const auto tells = m_layout.columns[i].tells;
    add(m_next.label);
    if (tells == Tells::option) add(m_next.option);
    if (tells == Tells::condition) add(m_next.condition);
}

void RowTaker::takeUnit(const std::string& f, std::size_t line) {
    if (m_unit.empty()) m_unit = f;
    if (f != m_unit && m_into.otherUnitAt == 0) m_into.otherUnitAt = line;
}

void RowTaker::takeStanding(const std::string& f) {
    auto& words = m_into.standingWords;
    const auto word = lowered(f);
    auto at = std::find(words.begin(), words.end(), word);
    if (at == words.end()) {
        constexpr std::size_t mostWords = 250; // a column of remarks is none of standings
        if (words.size() < mostWords) words.push_back(word);
        at = words.end() - 1;
    }
    m_into.standings.push_back(static_cast<unsigned char>(at - words.begin()));
}

RowTaker::Took RowTaker::headingOf(const std::vector<std::string>& fields) {
    const auto load = m_layout.find(Role::load);
    const auto same = [&](std::size_t i) {
        const auto h = readHeading(fields[i]);
        const auto& c = m_layout.columns[i];
        return !h.name.empty() && lowered(h.name) == lowered(c.header) &&
               !(h.unit && c.unit && (h.unit != c.unit || h.factor != c.factor));
    };
    if (load && *load < fields.size()) {
        const auto h = readHeading(fields[*load]);
        if (!h.name.empty() && lowered(h.name) == lowered(m_layout.columns[*load].header)) {
            for (std::size_t i = 0; i < fields.size() && i < m_layout.columns.size(); ++i)
                if (isNumberRole(m_layout.columns[i].role) && !same(i)) return Took::block;
            return Took::heading;
        }
    }
    constexpr std::size_t enough = 20'000; // of a file where nothing is a heading
    if (m_noHeadings > enough) return Took::notOne;
    if (isBlockHeading(fields, m_layout)) return Took::block;
    ++m_noHeadings;
    return Took::notOne;
}

RowTaker::Took RowTaker::take(const std::vector<std::string>& fields, std::size_t line) {
    m_next = {m_into.rows};
    std::string reason;
    const std::string* standing = nullptr;
    for (std::size_t i = 0; i < m_layout.columns.size(); ++i) {
        const auto& c = m_layout.columns[i];
        m_values[i] = nothing;
        if (c.role == Role::ignore) continue;
        if (i >= fields.size()) {
            if (c.role == Role::other) continue;
            if (const auto took = headingOf(fields); took != Took::notOne) return took;
            problem(line, fmt::format("has {} field{} where {} are needed", fields.size(),
                                      fields.size() == 1 ? "" : "s", m_lastNeeded + 1));
            return Took::notOne;
        }
        const auto& f = fields[i];
        if (c.role == Role::run) {
            takeLabel(i, f);
        } else if (c.role == Role::unit) {
            takeUnit(f, line);
        } else if (c.role == Role::standing) {
            standing = &f;
        } else if (c.role == Role::other) {
            if (const auto v = readField(f, c.decimal); v && std::abs(*v) < tooLarge) m_values[i] = *v;
        } else if (const auto cell = readCell(i, f, m_values[i], reason); cell != Cell::number) {
            if (cell == Cell::blank && c.role == Role::travel) continue; // a slow sensor beside a fast one
            return notANumber(cell, fields, line, std::move(reason));
        }
    }
    if (standing) takeStanding(*standing);
    if (m_hasRuns && (!m_labelled || m_next.label != m_label)) {
        m_label = m_next.label;
        m_labelled = true;
        m_into.breaks.push_back(m_next);
    }
    for (std::size_t i = 0; i < m_values.size(); ++i)
        if (isNumberRole(m_layout.columns[i].role) || m_layout.columns[i].role == Role::other)
            m_into.values[i].push_back(m_values[i]);
    ++m_into.rows;
    return Took::row;
}

void RowTaker::breakHere() {
    if (m_hasRuns) return; // blank lines and repeated headings are decoration there
    if (m_into.breaks.empty() || m_into.breaks.back().row != m_into.rows)
        m_into.breaks.push_back({m_into.rows});
}

void RowTaker::headingAgain() {
    breakHere();
    m_unitsDue = !m_layout.unitsLine.empty();
}

std::optional<RowTaker::Took> RowTaker::unitsBelow(std::string_view line,
                                                   const std::vector<std::string>& fields) {
    if (!m_unitsDue) return std::nullopt;
    m_unitsDue = false;
    if (line == m_layout.unitsLine) return Took::heading;
    return isUnitsRow(fields) ? std::optional(Took::block) : std::nullopt;
}

void RowTaker::problem(std::size_t line, std::string reason) {
    ++m_into.rowsLeftOut;
    if (m_into.problems.size() < mostProblems) m_into.problems.push_back({line, std::move(reason)});
}

void RowTaker::overload(std::size_t line) {
    if (m_into.overloadAt == 0) m_into.overloadAt = line;
    if (m_into.overloads.empty() || m_into.overloads.back() != m_into.rows)
        m_into.overloads.push_back(m_into.rows);
}

} // namespace anvil::tables
