// One cell of a table of results: a number, its doubt in signs or words, its unit.
#pragma once

#include <anvil/tables/values.h>

namespace anvil::tables {

/// What commas in a column of results are.
enum class Comma { none, decimal, grouping, unsure };
/// The whole column decides: a comma that is not followed by exactly three digits, or leads with a zero, is a
/// decimal mark; one beside a point or a second comma, or beside whole numbers of three digits, is a grouping
/// mark.
Comma commasIn(const std::vector<std::string>& cells);

/// What a word says of a value.
struct Stands {
    stats::Bound bound = stats::Bound::exact;
    bool isAside = false;
    static constexpr Stands aside() { return {stats::Bound::exact, true}; }
    constexpr Stands() = default;
    constexpr Stands(stats::Bound b, bool a = false) : bound(b), isAside(a) {}
    void mark(stats::Value& value) const {
        value.bound = bound;
        value.aside = isAside;
    }
};
/// What a word of a standing column, or of a cell, speaks of; nothing for another word.
std::optional<Stands> standsFrom(const std::string& text);
/// The same of a cell under a heading, where yes and no say it: "Use? N", "Excluded x".
std::optional<Stands> standsUnder(const std::string& heading, const std::string& cell);

/// Reads a cell. `unit`: of its column, or none; it stays none where the cell names none either. Error: a
/// sentence that goes on from "line 3".
struct Cell {
    stats::Value value;
    const quantity::Unit* unit = nullptr;
};
Expected<Cell> readCell(const std::string& text, const quantity::Unit* unit, Comma comma);

} // namespace anvil::tables
