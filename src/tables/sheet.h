// A sheet before it is laid out: lines of text, or rows whose cells another form has parted already.
#pragma once

#include <anvil/tables/text.h>
#include <cstddef>

namespace anvil::tables {

/// A row of cells, and the line of the file it stands in (from 1; 0 for one that was made of several).
struct CellRow {
    std::size_t line = 0;
    std::vector<std::string> cells;
};

struct Sheet {
    std::string_view text{};     ///< its lines, where nothing has parted them
    std::vector<CellRow> rows{}; ///< its rows, where something has; the headings first
    std::size_t linesBefore = 0; ///< lines of the file before `text`
    bool isParted() const { return !rows.empty(); }
};

/// Whether a line only rules off the rows of a table: "+------+", "|----|----|".
bool isRule(std::string_view line);

/// The first lines of a sheet, by which it is laid out.
class Head {
public:
    static constexpr std::size_t most = 400;

    explicit Head(const Sheet& sheet);
    std::size_t size() const { return m_sheet.isParted() ? m_rows : m_lines.size(); }
    bool isParted() const { return m_sheet.isParted(); }
    /// A line as it stands there; empty for parted rows, whose cells are all there is.
    std::string_view line(std::size_t i) const { return isParted() ? std::string_view() : m_lines[i]; }
    bool isBlank(std::size_t i) const; ///< or only rules off
    /// The cells of a line; a parted row has its own, whatever the delimiter.
    std::vector<std::string> cells(std::size_t i, char delimiter) const;
    /// Calls `take` with the cells of every line behind the head until it returns false.
    template <class Take> void beyond(char delimiter, Take take) const {
        if (isParted()) {
            for (std::size_t i = m_rows; i < m_sheet.rows.size(); ++i)
                if (!take(m_sheet.rows[i].cells)) return;
            return;
        }
        for (auto rest = m_rest; !rest.empty();) {
            const auto end = std::min(rest.find_first_of("\r\n"), rest.size());
            if (end > 0 && !take(columns::splitFields(rest.substr(0, end), delimiter))) return;
            rest.remove_prefix(std::min(end + 1, rest.size()));
        }
    }

private:
    const Sheet& m_sheet;
    std::vector<std::string_view> m_lines;
    std::size_t m_rows = 0;
    std::string_view m_rest;
};

} // namespace anvil::tables
