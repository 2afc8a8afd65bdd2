#include <anvil/rig/dialogue.h>

#include <fmt/format.h>

namespace anvil::rig {

const std::string& Dialogue::question() const {
    static const std::string none;
    return m_next < m_columns.size() ? m_columns[m_next].question : none;
}

std::optional<std::string> Dialogue::answer(std::string_view line, double now) {
    if (m_next >= m_columns.size()) return std::nullopt;
    if (m_late) {
        m_heard = now;
        return std::nullopt;
    }
    const auto value = answerOf(line, m_columns[m_next].unit);
    if (!value) return std::nullopt;
    m_asked.reset();
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
    m_asked.reset();
    m_late = false;
}

void Dialogue::asked(double now) { m_asked = m_heard = now; }

bool Dialogue::due(double now) {
    if (!m_asked || now - *m_asked <= patience) return false;
    if (m_columns.size() > 1) {
        if (!m_late) m_heard = now;
        m_late = true;
        if (now - m_heard < quiet && now - *m_asked < longest) return false;
    }
    restart();
    return true;
}

} // namespace anvil::rig
