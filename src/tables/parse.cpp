#include "parse.h"

#include "row_taker.h"
#include <algorithm>
#include <anvil/columns/number.h>
#include <cmath>
#include <cstring>
#include <fast_float/fast_float.h>
#include <memory>
#include <thread>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr std::size_t mostFastColumns = 64;

/// Parses whole lines of [begin, end). One instance a thread.
class Parser {
public:
    /// `expected`: bytes to make room for; the first parser takes in what the others find.
    Parser(const Layout& layout, const char* begin, const char* end, std::ptrdiff_t expected)
        : m_layout(layout), m_begin(begin), m_p(begin), m_end(end), m_taker(layout, columns) {
        for (const auto& c : layout.columns) {
            m_roles.push_back(c.role);
            m_options.emplace_back(fast_float::chars_format::general, c.decimal);
            m_slow = m_slow || c.role == Role::run || c.role == Role::unit || c.role == Role::standing;
        }
        m_slow = m_slow || m_roles.size() > mostFastColumns;
        const auto rows = static_cast<std::size_t>(expected) / (layout.columns.size() * 8) + 16;
        for (std::size_t i = 0; i < m_roles.size(); ++i)
            if (isNumber(i)) columns.values[i].reserve(rows);
    }

    Columns columns;

    void run() {
        while (m_p < m_end && !columns.nextBlock) {
            const char* start = m_p;
            if (m_slow || !fastRow()) {
                m_p = start;
                slowRow();
            }
            ++columns.lines;
        }
    }

private:
    bool isNumber(std::size_t i) const {
        const auto r = m_roles[i];
        return r == Role::time || r == Role::load || r == Role::travel || r == Role::other;
    }

    void skipLineEnd() {
        if (m_p < m_end && *m_p == '\r') ++m_p;
        if (m_p < m_end && *m_p == '\n') ++m_p;
    }

    /// "08:05:33.25" from `p` on, after the date of the rows before where there is one: the seconds, and `p`
    /// behind them. False for any other form of clock.
    bool plainClock(const char*& p, double& seconds) const {
        const char* c = p;
        if (!m_date.empty()) {
            if (static_cast<std::size_t>(m_end - c) < m_date.size() ||
                std::memcmp(c, m_date.data(), m_date.size()) != 0)
                return false;
            c += m_date.size();
        }
        const auto digit = [&] { return c < m_end && *c >= '0' && *c <= '9'; };
        const auto number = [&](double& out) {
            const char* from = c;
            for (out = 0; digit() && c - from < 2; ++c)
                out = out * 10 + (*c - '0');
            return c > from && c < m_end && *c == ':';
        };
        double hours = 0, minutes = 0, rest = 0;
        if (!number(hours) || !(++c, number(minutes)) || minutes > 59) return false;
        ++c;
        const char* e = c;
        while (e < m_end &&
               ((*e >= '0' && *e <= '9') || *e == '.' || (*e == ',' && m_layout.delimiter != ',')))
            ++e;
        fast_float::parse_options as(fast_float::chars_format::fixed, '.');
        if (std::memchr(c, ',', static_cast<std::size_t>(e - c))) as.decimal_point = ',';
        if (!digit()) return false;
        const auto got = fast_float::from_chars_advanced(c, e, rest, as);
        const bool ends =
            e == m_end || *e == ' ' || *e == '"' || *e == m_layout.delimiter || *e == '\n' || *e == '\r';
        if (got.ec != std::errc{} || got.ptr != e || rest >= 61 || !ends) return false;
        seconds = m_days + hours * 3600 + minutes * 60 + rest;
        p = e;
        return true;
    }

    /// Keeps the date in front of a clock for the rows to come, if it stands there as "2026-03-02 " or "…T".
    void rememberDate(std::string_view field) {
        const auto time = field.find(':');
        const auto at = time == std::string_view::npos ? time : field.find_last_of(" T", time);
        m_date.clear();
        m_days = 0;
        if (at == std::string_view::npos) return;
        const auto date = field.substr(0, at + 1);
        if (const auto days = clockSeconds(std::string(date) + "00:00:00")) {
            m_date = date;
            m_days = *days;
        }
    }

    /// A number or clock of column `i` at `p`; false for whatever needs a closer look.
    bool fastValue(std::size_t i, const char*& p, double& value) const {
        if (m_layout.columns[i].clock) return plainClock(p, value);
        const auto got = fast_float::from_chars_advanced(p, m_end, value, m_options[i]);
        if (got.ec != std::errc{} || !(std::abs(value) < (m_roles[i] == Role::time ? tooLate : tooLarge)))
            return false;
        p = got.ptr;
        return p[-1] != '.' || !m_layout.columns[i].fractions; // "1." may say over range
    }

    /// A well-formed row of plain numbers; anything else is left to slowRow.
    bool fastRow() {
        double values[mostFastColumns];
        const std::size_t width = m_roles.size();
        const char* p = m_p;
        for (std::size_t i = 0; i < width; ++i) {
            while (p < m_end && *p == ' ')
                ++p;
            const bool quoted = m_roles[i] != Role::ignore && p < m_end && *p == '"';
            p += quoted;
            if (m_roles[i] == Role::ignore) {
                while (p < m_end && *p != m_layout.delimiter && *p != '\n' && *p != '\r' && *p != '"')
                    ++p;
            } else if (!fastValue(i, p, values[i])) {
                return false;
            }
            if (quoted && (p == m_end || *p++ != '"')) return false;
            const char* after = p;
            while (p < m_end && *p == ' ')
                ++p;
            if (i + 1 < width && m_layout.delimiter == ' ') {
                if (p == after) return false;
            } else if (i + 1 < width) {
                if (p == m_end || *p != m_layout.delimiter) return false;
                ++p;
            }
        }
        if (p < m_end && *p != '\n' && *p != '\r') return false;
        for (std::size_t i = 0; i < width; ++i)
            if (isNumber(i)) columns.values[i].push_back(values[i]);
        ++columns.rows;
        m_p = p;
        skipLineEnd();
        return true;
    }

    void slowRow() {
        const char* start = m_p;
        const char* e = m_p;
        while (e < m_end && *e != '\n' && *e != '\r')
            ++e;
        const std::string_view line(m_p, static_cast<std::size_t>(e - m_p));
        m_p = e;
        skipLineEnd();
        const auto bare = trimmed(line);
        if (isRule(bare)) return;
        if (bare.empty() || std::all_of(bare.begin(), bare.end(),
                                        [&](char c) { return c == m_layout.delimiter || c == ' '; }))
            return m_taker.breakHere();
        if (!m_layout.headerLine.empty() && bare == m_layout.headerLine) {
            m_heading = start;
            return m_taker.headingAgain();
        }
        const auto fields = splitFields(line, m_layout.delimiter);
        if (const auto units = m_taker.unitsBelow(bare, fields)) {
            if (*units == RowTaker::Took::block) blockAt(m_heading);
            return;
        }
        switch (m_taker.take(fields, columns.lines + 1)) {
        case RowTaker::Took::row:
            if (const auto t = m_layout.find(Role::time); t && m_layout.columns[*t].clock)
                rememberDate(fields[*t]);
            break;
        case RowTaker::Took::notOne:
            break;
        case RowTaker::Took::heading:
            m_heading = start;
            m_taker.headingAgain();
            break;
        case RowTaker::Took::block:
            blockAt(start);
            break;
        }
    }

    void blockAt(const char* line) { columns.nextBlock = static_cast<std::size_t>(line - m_begin); }

    const Layout& m_layout;
    const char* m_begin;
    const char* m_p;
    const char* m_end;
    const char* m_heading = nullptr;
    RowTaker m_taker;
    std::vector<fast_float::parse_options> m_options;
    std::vector<Role> m_roles;
    bool m_slow = false;
    std::string m_date; ///< in front of the clock, with its blank; its days in seconds:
    double m_days = 0;
};

/// What a later part of the text holds, behind what the parts before it hold.
void append(Columns& all, Columns&& part, std::size_t linesBefore) {
    for (auto& b : part.breaks)
        all.breaks.push_back(std::move(b)), all.breaks.back().row += all.rows;
    for (auto& p : part.problems)
        if (all.problems.size() < mostProblems)
            all.problems.push_back({p.line + linesBefore, std::move(p.reason)});
    all.rowsLeftOut += part.rowsLeftOut;
    all.rowsMarked += part.rowsMarked;
    if (part.otherUnitAt && !all.otherUnitAt) all.otherUnitAt = part.otherUnitAt + linesBefore;
    if (part.overloadAt && !all.overloadAt) all.overloadAt = part.overloadAt + linesBefore;
    for (const auto row : part.overloads)
        all.overloads.push_back(row + all.rows);
    for (std::size_t i = 0; i < all.values.size(); ++i)
        all.values[i].insert(all.values[i].end(), part.values[i].begin(), part.values[i].end());
    all.rows += part.rows;
    all.lines = linesBefore + part.lines;
}

const char* lineAt(std::string_view text, std::size_t line) {
    const char* at = text.data();
    const char* const end = text.data() + text.size();
    for (; line > 0 && at < end; --line) {
        const std::string_view rest(at, static_cast<std::size_t>(end - at));
        const auto next = rest.find_first_of("\r\n");
        if (next == std::string_view::npos) break;
        at += next + (rest[next] == '\r' && next + 1 < rest.size() && rest[next + 1] == '\n' ? 2 : 1);
    }
    return at;
}

} // namespace

const std::vector<double>& Columns::of(const Layout& layout, Role role) const {
    static const std::vector<double> none;
    const auto i = layout.find(role);
    return i && *i < values.size() ? values[*i] : none;
}

Columns parseColumns(std::string_view text, const Layout& layout, unsigned threads) {
    const char* const begin = lineAt(text, layout.firstRow);
    const char* const end = text.data() + text.size();
    constexpr std::ptrdiff_t worthSplitting = 1 << 20;
    if (end - begin < worthSplitting || layout.find(Role::run) || layout.find(Role::standing) ||
        layout.find(Role::unit))
        threads = 1;
    std::vector<std::unique_ptr<Parser>> parsers;
    std::vector<const char*> starts;
    const char* from = begin;
    for (unsigned k = 0; k < threads; ++k) {
        const char* to = k + 1 == threads ? end : begin + (end - begin) / threads * (k + 1);
        if (to < end) {
            const void* newline = std::memchr(to, '\n', static_cast<std::size_t>(end - to));
            to = newline ? static_cast<const char*>(newline) + 1 : end;
        }
        parsers.push_back(std::make_unique<Parser>(layout, from, to, k == 0 ? end - begin : to - from));
        starts.push_back(from);
        from = to;
    }
    std::vector<std::thread> workers;
    for (std::size_t k = 1; k < parsers.size(); ++k)
        workers.emplace_back([&parser = *parsers[k]] { parser.run(); });
    parsers[0]->run();
    for (auto& w : workers)
        w.join();
    Columns all = std::move(parsers[0]->columns);
    for (auto& p : all.problems)
        p.line += layout.firstRow;
    if (all.otherUnitAt) all.otherUnitAt += layout.firstRow;
    if (all.overloadAt) all.overloadAt += layout.firstRow;
    all.lines += layout.firstRow;
    std::size_t block = 0;
    for (std::size_t k = 1; k < parsers.size() && !all.nextBlock; ++k) {
        auto& part = parsers[k]->columns;
        const auto next = part.nextBlock;
        append(all, std::move(part), all.lines);
        if (next) {
            all.nextBlock = next;
            block = k;
        }
    }
    if (all.nextBlock) *all.nextBlock += static_cast<std::size_t>(starts[block] - text.data());
    return all;
}

Columns parseRows(const std::vector<CellRow>& rows, const Layout& layout) {
    Columns out;
    RowTaker taker(layout, out);
    for (std::size_t i = layout.firstRow; i < rows.size(); ++i) {
        const auto& cells = rows[i].cells;
        if (std::all_of(cells.begin(), cells.end(), [](const auto& c) { return trimmed(c).empty(); })) {
            taker.breakHere();
            continue;
        }
        const auto took = taker.take(cells, rows[i].line);
        if (took == RowTaker::Took::heading) taker.headingAgain();
        if (took == RowTaker::Took::block) {
            out.nextBlock = i;
            break;
        }
        ++out.lines;
    }
    return out;
}

} // namespace anvil::tables
