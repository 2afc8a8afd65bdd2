// Rows of a table of a package, cell by cell, with sentences that say where something is wrong.
#pragma once

#include "column.h"
#include "csv.h"
#include "folder.h"
#include <anvil/quantity/entry.h>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace anvil::exchange {

/// The first thing that is wrong; after it the rest is read for nothing.
class Trouble {
public:
    void say(const std::string& sentence) {
        if (m_what.empty()) m_what = sentence;
    }
    bool any() const { return !m_what.empty(); }
    Expected<void> done() const { return m_what.empty() ? Expected<void>{} : fail(m_what); }

private:
    std::string m_what;
};

/// A row of a table.
class Row {
public:
    Row(const TableKind& kind, const std::map<std::string_view, std::size_t>& places, const CsvRow& row,
        Trouble& trouble)
        : m_kind(&kind), m_places(&places), m_row(&row), m_trouble(&trouble) {}

    /// A cell; empty where the table has no such column.
    const std::string& text(std::string_view column) const;
    bool has(std::string_view column) const { return !text(column).empty(); }
    /// A quantity in SI; empty where nothing is said. A number without a unit is of `fallback`, if there is
    /// one.
    std::optional<double> quantity(std::string_view column, quantity::Dimension dimension,
                                   const quantity::Unit* fallback = nullptr) const;
    /// The same with its doubt.
    std::optional<quantity::Entry> entry(std::string_view column, quantity::Dimension dimension,
                                         const quantity::Unit* fallback = nullptr) const;
    /// A share: "10" and "10 %" are a tenth.
    std::optional<double> percent(std::string_view column) const;
    std::optional<double> number(std::string_view column) const;
    std::optional<int> whole(std::string_view column) const;
    /// "yes" or nothing.
    bool yes(std::string_view column) const;
    /// Says what is wrong with a cell: "pulls.csv, line 4, standing: …".
    void wrong(std::string_view column, const std::string& why) const;
    Trouble& trouble() const { return *m_trouble; }

private:
    const TableKind* m_kind;
    const std::map<std::string_view, std::size_t>* m_places;
    const CsvRow* m_row;
    Trouble* m_trouble;
};

/// A table of a package; without rows where its file is not there.
class Table {
public:
    /// Trouble: a column that nobody knows, one that is there twice.
    Table(const Folder& folder, const TableKind& kind, Trouble& trouble);
    template <class Take> void each(Take take) const {
        for (const auto& row : m_table.rows)
            if (!m_trouble->any()) take(Row(*m_kind, m_places, row, *m_trouble));
    }
    bool empty() const { return m_table.rows.empty(); }

private:
    void load(const Folder& folder, const TableKind& kind, Trouble& trouble);
    const TableKind* m_kind;
    Trouble* m_trouble;
    CsvTable m_table;
    std::map<std::string_view, std::size_t> m_places;
};

/// A quantity as it is written in a cell: with as many digits as tell it from any other.
std::string exactText(double si, quantity::Dimension dimension);

/// A hundredth of a plain number, with all of its digits; empty where it is none.
std::optional<double> shareFrom(std::string_view percent);

/// What stands between the semicolons of a cell, without blanks; nothing for an empty one.
std::vector<std::string> partsOf(const std::string& text);

} // namespace anvil::exchange
