// A conversation with a device that answers questions (SCPI style): what to ask next, and what its answers
// come to.
#pragma once

#include <anvil/rig/lines.h>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::rig {

/// Asks the columns of a layout that have a question, one after the other; a round of answers makes a line.
class Dialogue {
public:
    /// Every column of the layout has a question.
    explicit Dialogue(const Layout& layout) : m_columns(layout.columns) {}

    /// What to ask next; empty when there is nothing to ask at all.
    const std::string& question() const;
    /// Takes the answer to the present question and goes on to the next. After the last one of a round:
    /// the round as a line that SampleMaker reads with the layout; before that an empty line. Nothing when
    /// the answer holds no number: the question stays the same.
    std::optional<std::string> answer(std::string_view line);
    /// Begins a round anew; the answers of the one before are dropped, they would be of another instant.
    void restart();

private:
    std::vector<Column> m_columns;
    std::size_t m_next = 0;
    std::string m_line;
};

} // namespace anvil::rig
