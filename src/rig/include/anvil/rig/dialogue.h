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
    /// the answer holds no number, or comes so late that it may be to another question: the question stays
    /// the same. `now` is when it came.
    std::optional<std::string> answer(std::string_view line, double now = 0);
    /// Begins a round anew; the answers of the one before are dropped, they would be of another instant.
    void restart();

    /// The present question was sent, at a time in seconds that never steps back.
    void asked(double now);
    /// Whether to ask, at such a time: where an answer has not come within `patience`, and then, where there
    /// is more than one question, only after nothing has come for `quiet`, since a late answer that names no
    /// unit would pass for the answer to another question. A device that never is quiet is asked all the
    /// same.
    bool due(double now);

    static constexpr double patience = 1, quiet = 0.4, longest = 1.8; ///< s; the last since the question

private:
    std::vector<LineColumn> m_columns;
    std::size_t m_next = 0;
    std::string m_line;
    std::optional<double> m_asked; ///< when the question was sent that has no answer yet
    double m_heard = 0;            ///< when the last late line came
    bool m_late = false;           ///< the answer is no longer waited for
};

} // namespace anvil::rig
