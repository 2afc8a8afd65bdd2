#include <anvil/rig/dialogue.h>

#include <fmt/format.h>

namespace anvil::rig {

const std::string& Dialogue::question() const {
    static const std::string none;
    return m_next < m_columns.size() ? m_columns[m_next].question : none;
}

std::optional<std::string> Dialogue::answer(std::string_view line) {
    if (m_next >= m_columns.size()) return std::nullopt;
    const auto value = answerOf(line, m_columns[m_next].unit);
    if (!value) return std::nullopt;
    if (m_next > 0) m_line += ',';
    m_line += fmt::format("{}", *value); // shortest text that reads back to the same number
    if (++m_next < m_columns.size()) return std::string();
    auto whole = std::move(m_line);
    restart();
    return whole;
}

void Dialogue::restart() {
    m_next = 0;
    m_line.clear();
}

} // namespace anvil::rig
