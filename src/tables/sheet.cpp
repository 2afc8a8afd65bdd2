#include "sheet.h"

#include <algorithm>

namespace anvil::tables {

using namespace columns;

bool isRule(std::string_view line) {
    return line.find_first_not_of("+-=|: \t") == std::string_view::npos &&
           line.find_first_of("+|") != std::string_view::npos &&
           line.find_first_of("-=") != std::string_view::npos;
}

Head::Head(const Sheet& sheet) : m_sheet(sheet), m_rows(std::min(sheet.rows.size(), most)) {
    if (sheet.isParted()) return;
    m_lines = splitLines(sheet.text.substr(0, std::size_t{1} << 17), most);
    if (m_lines.size() == most)
        m_rest = sheet.text.substr(
            static_cast<std::size_t>(m_lines.back().data() + m_lines.back().size() - sheet.text.data()));
}

bool Head::isBlank(std::size_t i) const {
    if (!isParted()) return trimmed(m_lines[i]).empty() || isRule(trimmed(m_lines[i]));
    const auto& cells = m_sheet.rows[i].cells;
    return std::all_of(cells.begin(), cells.end(), [](const auto& c) { return trimmed(c).empty(); });
}

std::vector<std::string> Head::cells(std::size_t i, char delimiter) const {
    return isParted() ? m_sheet.rows[i].cells : splitFields(m_lines[i], delimiter);
}

} // namespace anvil::tables
