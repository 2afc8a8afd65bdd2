// Rows of cells into columns of numbers.
#pragma once

#include <anvil/tables/log.h>
#include <optional>

namespace anvil::tables {

/// Takes one row after another under a layout; what is no row is told apart from what cannot be read.
class RowTaker {
public:
    RowTaker(const Layout& layout, Columns& into);

    enum class Took { row, notOne, heading, block }; ///< block: a heading that names other columns
    /// `line`: of the file, for what is said of it.
    Took take(const std::vector<std::string>& fields, std::size_t line);
    /// A run ends here, if one has begun and no column tells the runs apart.
    void breakHere();
    /// A heading met again; a row of other units below it begins another block.
    void headingAgain();
    /// Whether a row below a heading that was met again is that of its units; nothing where none is due.
    std::optional<Took> unitsBelow(std::string_view line, const std::vector<std::string>& fields);

private:
    enum class Cell { number, blank, overload, invalid, unreadable };
    Cell readCell(std::size_t i, const std::string& field, double& value, std::string& reason) const;
    Took notANumber(Cell cell, const std::vector<std::string>& fields, std::size_t line, std::string reason);
    void takeLabel(std::size_t i, const std::string& field);
    void takeUnit(const std::string& field, std::size_t line);
    void takeStanding(const std::string& field);
    Took headingOf(const std::vector<std::string>& fields);
    void problem(std::size_t line, std::string reason);
    void overload(std::size_t line);

    const Layout& m_layout;
    Columns& m_into;
    std::size_t m_lastNeeded = 0;
    bool m_hasRuns = false, m_labelled = false, m_unitsDue = false;
    std::string m_label;
    std::size_t m_noHeadings = 0; ///< lines that were looked at and named nothing
    Columns::Break m_next;        ///< what the run columns say of the row that is being taken
    std::string m_unit;
    std::vector<double> m_values;
};

/// Largest load and latest time that a device can mean.
inline constexpr double tooLarge = 1e15, tooLate = 1e19;
inline constexpr std::size_t mostProblems = 1000;

} // namespace anvil::tables
