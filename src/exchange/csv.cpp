#include "csv.h"

#include <anvil/columns/text.h>
#include <anvil/tables/text.h>
#include <fmt/format.h>

namespace anvil::exchange {
namespace {

constexpr std::size_t mostCell = 1'000'000; // bytes; more is no cell of a table

/// Whether a text would lose its first ' when it is read: one stands before what looks like a formula.
bool isGuarded(std::string_view text) {
    if (!text.starts_with('\'')) return false;
    const auto next = text.find_first_not_of(" \t\r\n", 1);
    return next != std::string_view::npos &&
           std::string_view("=+-@'").find(text[next]) != std::string_view::npos;
}

/// A cell without the mark that made it harmless.
std::string asMeant(std::string cell) {
    if (isGuarded(cell)) cell.erase(0, 1);
    return cell;
}

/// Reads one row after another.
class Reader {
public:
    Reader(std::string_view text, char delimiter) : m_text(text), m_delimiter(delimiter) {}
    bool atEnd() const { return m_at >= m_text.size(); }
    Expected<CsvRow> row() {
        CsvRow out{{}, m_line};
        for (;;) {
            auto cell = m_at < m_text.size() && m_text[m_at] == '"' ? quoted() : plain();
            if (!cell) return tl::unexpected(cell.error());
            if (cell->size() > mostCell)
                return fail(fmt::format("line {} has a cell that is too long", out.line));
            out.cells.push_back(std::move(*cell));
            if (m_at < m_text.size() && m_text[m_at] == m_delimiter) {
                ++m_at;
                continue;
            }
            endOfLine();
            return out;
        }
    }

private:
    std::string plain() {
        const auto from = m_at;
        while (m_at < m_text.size() && m_text[m_at] != m_delimiter && m_text[m_at] != '\n' &&
               m_text[m_at] != '\r')
            ++m_at;
        return asMeant(std::string(columns::trimmed(m_text.substr(from, m_at - from))));
    }
    Expected<std::string> quoted() {
        std::string cell;
        const auto line = m_line;
        for (++m_at; m_at < m_text.size(); ++m_at) {
            if (m_text[m_at] == '\n') ++m_line;
            if (m_text[m_at] != '"') {
                cell += m_text[m_at];
            } else if (m_at + 1 < m_text.size() && m_text[m_at + 1] == '"') {
                cell += m_text[++m_at];
            } else {
                ++m_at;
                if (!plain().empty())
                    return fail(fmt::format("line {} goes on after a closing quote", m_line));
                return asMeant(std::move(cell));
            }
        }
        return fail(fmt::format("the quote that opens in line {} is never closed", line));
    }
    void endOfLine() {
        if (m_at < m_text.size() && m_text[m_at] == '\r') ++m_at;
        if (m_at < m_text.size() && m_text[m_at] == '\n') ++m_at;
        ++m_line;
    }

    std::string_view m_text;
    char m_delimiter;
    std::size_t m_at = 0, m_line = 1;
};

bool saysNothing(const CsvRow& row) {
    for (const auto& c : row.cells)
        if (!c.empty()) return false;
    return true;
}

} // namespace

Expected<void> walkCsv(std::string_view bytes,
                       const std::function<Expected<void>(const std::vector<std::string>&)>& head,
                       const std::function<Expected<void>(const CsvRow&)>& take) {
    tables::Text text;
    if (auto ok = tables::decode(bytes, text); !ok) return ok;
    const auto first = text.view.substr(0, text.view.find_first_of("\r\n"));
    const bool semicolons =
        first.find(',') == std::string_view::npos && first.find(';') != std::string_view::npos;
    Reader reader(text.view, semicolons ? ';' : ',');
    std::size_t columns = 0;
    while (!reader.atEnd()) {
        auto row = reader.row();
        if (!row) return tl::unexpected(row.error());
        if (columns > 1 && row->cells.size() == 1 && saysNothing(*row)) continue;
        if (columns == 0) {
            if (saysNothing(*row)) continue;
            columns = row->cells.size();
            if (auto ok = head(row->cells); !ok) return ok;
            continue;
        }
        if (row->cells.size() > columns)
            return fail(
                fmt::format("line {} has {} cells and the head has {}: a cell with a comma in it needs "
                            "quotes",
                            row->line, row->cells.size(), columns));
        row->cells.resize(columns);
        if (auto ok = take(*row); !ok) return ok;
    }
    if (columns == 0) return fail("it has no head");
    return {};
}

Expected<CsvTable> readCsv(std::string_view bytes) {
    CsvTable out;
    const auto ok = walkCsv(
        bytes,
        [&](const std::vector<std::string>& head) -> Expected<void> {
            out.head = head;
            return {};
        },
        [&](const CsvRow& row) -> Expected<void> {
            if (!saysNothing(row)) out.rows.push_back(row);
            return {};
        });
    if (!ok) return tl::unexpected(ok.error());
    return out;
}

void addCsvRow(std::string& text, const std::vector<std::string>& cells) {
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (i) text += ',';
        const auto& c = cells[i];
        auto cell = tables::csvField(isGuarded(c) ? '\'' + c : c);
        const bool blanks =
            !c.empty() && (c.front() == ' ' || c.back() == ' ' || c.front() == '\f' || c.back() == '\f');
        if (blanks && !cell.starts_with('"')) cell = '"' + cell + '"';
        text += cell;
    }
    text += '\n';
}

} // namespace anvil::exchange
