#include <anvil/tables/log.h>

#include "documents.h"
#include "forms.h"
#include "headings.h"
#include "labelled.h"
#include "numbers.h"
#include <algorithm>
#include <cmath>
#include <cstring>
#include <fast_float/fast_float.h>
#include <fmt/format.h>
#include <limits>
#include <thread>

namespace anvil::tables {
namespace {

constexpr std::size_t mostProblems = 1000;
constexpr double tooLarge = 1e15; // no load cell shows this in any unit
constexpr double tooLate = 1e19;  // nor any clock this, were it in nanoseconds

/// What a logger writes beside a row that is none, or that its cell could not show.
constexpr std::string_view invalidWords[] = {"invalid", "bad", "error",    "err",    "fault",
                                             "void",    "nok", "rejected", "discard"};
constexpr std::string_view overloadWords[] = {"overload", "overrange", "over range", "ol",
                                              "over",     "saturated", "clipped"};

template <std::size_t n> bool isMarked(const std::string& cell, const std::string_view (&words)[n]) {
    return std::find(std::begin(words), std::end(words), lowered(cell)) != std::end(words);
}

/// Parses whole lines of [begin, end). One instance a thread.
class Parser {
public:
    /// `expected`: bytes to make room for; the first parser takes in what the others find.
    Parser(const Layout& layout, const char* begin, const char* end, std::ptrdiff_t expected)
        : m_layout(layout), m_p(begin), m_end(end),
          m_options(fast_float::chars_format::general, layout.decimal) {
        for (std::size_t i = 0; i < layout.columns.size(); ++i) {
            const auto& c = layout.columns[i];
            m_roles.push_back(c.role);
            m_slow = m_slow || c.role == Role::run || c.role == Role::unit || c.role == Role::standing;
            if (c.role != Role::ignore) m_lastNeeded = i;
        }
        m_slow = m_slow || layout.grouped;
        const auto rows = static_cast<std::size_t>(expected) / (layout.columns.size() * 8) + 16;
        for (const auto role : m_roles)
            if (auto* column = columnFor(role)) column->reserve(rows);
    }

    Columns columns;
    std::size_t lines = 0;
    std::string unit;       ///< the first that stands beside the load, and its line
    std::size_t unitAt = 0; ///< 0: none does

    void run() {
        while (m_p < m_end) {
            const char* start = m_p;
            if (m_slow || !fastRow()) {
                m_p = start;
                slowRow();
            }
            ++lines;
        }
    }

private:
    std::vector<double>* columnFor(Role role) {
        switch (role) {
        case Role::time:
            return &columns.time;
        case Role::load:
            return &columns.load;
        case Role::travel:
            return &columns.travel;
        case Role::ignore:
        case Role::run:
        case Role::unit:
        case Role::standing:
            break;
        }
        return nullptr;
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

    /// A well-formed row of plain numbers; anything else is left to slowRow.
    bool fastRow() {
        double values[64];
        const std::size_t width = m_roles.size();
        if (width > 64) return false;
        const char* p = m_p;
        for (std::size_t i = 0; i < width; ++i) {
            while (p < m_end && *p == ' ')
                ++p;
            const bool quoted = m_roles[i] != Role::ignore && p < m_end && *p == '"';
            p += quoted;
            if (m_roles[i] == Role::ignore) {
                while (p < m_end && *p != m_layout.delimiter && *p != '\n' && *p != '\r' && *p != '"')
                    ++p;
            } else if (m_layout.columns[i].clock) {
                if (!plainClock(p, values[i])) return false;
            } else {
                const auto got = fast_float::from_chars_advanced(p, m_end, values[i], m_options);
                if (got.ec != std::errc{} ||
                    !(std::abs(values[i]) < (m_roles[i] == Role::time ? tooLate : tooLarge)))
                    return false;
                p = got.ptr;
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
            if (auto* column = columnFor(m_roles[i])) column->push_back(values[i]);
        m_p = p;
        skipLineEnd();
        m_started = true;
        return true;
    }

    void problem(std::string reason) {
        ++columns.rowsLeftOut;
        if (columns.problems.size() < mostProblems)
            columns.problems.push_back({lines + 1, std::move(reason)});
    }

    void breakHere() {
        if (m_layout.find(Role::run)) return; // blank lines and repeated headings are decoration there
        if (m_started && (columns.breaks.empty() || columns.breaks.back().row != columns.load.size()))
            columns.breaks.push_back({columns.load.size()});
    }

    /// A heading in mid-file: another run begins, unless it names another unit.
    bool isHeading(const std::vector<std::string>& fields) {
        const auto load = m_layout.find(Role::load);
        if (!load || *load >= fields.size()) return false;
        const auto heading = readHeading(fields[*load]);
        const auto& column = m_layout.columns[*load];
        if (heading.name.empty() || lowered(heading.name) != lowered(column.header)) return false;
        m_started = true;
        breakHere();
        if (heading.unit && column.unit && heading.unit->dimension == column.unit->dimension &&
            !columns.breaks.empty() && columns.breaks.back().row == columns.load.size())
            columns.breaks.back().unit = heading.unit;
        return true;
    }

    void slowRow() {
        const char* e = m_p;
        while (e < m_end && *e != '\n' && *e != '\r')
            ++e;
        const std::string_view line(m_p, static_cast<std::size_t>(e - m_p));
        m_p = e;
        skipLineEnd();
        const auto bare = trimmed(line);
        // A chunk may begin inside the file: a blank first line there is a break too, so count it when
        // merging.
        if (bare.empty() || std::all_of(bare.begin(), bare.end(),
                                        [&](char c) { return c == m_layout.delimiter || c == ' '; })) {
            m_started = true;
            breakHere();
            return;
        }
        if (!m_layout.headerLine.empty() && bare == m_layout.headerLine) {
            m_started = true;
            breakHere();
            return;
        }
        const auto fields = splitFields(line, m_layout.delimiter);
        std::vector<double> values(m_roles.size(), 0);
        std::string label, option, condition;
        for (std::size_t i = 0; i < m_roles.size(); ++i) {
            if (m_roles[i] == Role::ignore) continue;
            const auto& column = m_layout.columns[i];
            if (i >= fields.size())
                return problem(fmt::format("has {} field{} where {} are needed", fields.size(),
                                           fields.size() == 1 ? "" : "s", m_lastNeeded + 1));
            const auto& f = fields[i];
            if (m_roles[i] == Role::standing) {
                if (isMarked(f, invalidWords))
                    return problem(fmt::format("is marked \"{}\"", shortened(f, 40)));
                if (isMarked(f, overloadWords)) saysOverload();
                continue;
            }
            if (m_roles[i] == Role::unit) {
                if (unit.empty()) {
                    unit = f;
                    unitAt = lines + 1;
                }
                if (f != unit && columns.otherUnitAt == 0) columns.otherUnitAt = lines + 1;
                continue;
            }
            if (m_roles[i] == Role::run) {
                const auto add = [&f](std::string& to) { to += (to.empty() || f.empty() ? "" : " ") + f; };
                add(label);
                if (column.tells == Tells::option) add(option);
                if (column.tells == Tells::condition) add(condition);
                continue;
            }
            std::optional<double> v = column.clock       ? clockSeconds(f)
                                      : m_layout.grouped ? readGrouped(f, m_layout.decimal)
                                                         : std::nullopt;
            if (!v) v = readNumber(f, m_layout.decimal);
            if (!v && !column.clock) v = readGrouped(f, m_layout.decimal);
            if (f.empty() && m_roles[i] == Role::travel) { // a slow sensor beside a fast one
                ++columns.blankWays;
                values[i] = std::numeric_limits<double>::quiet_NaN();
                continue;
            }
            if (!v && isHeading(fields)) return;
            if (!v && m_roles[i] == Role::load && isMarked(f, overloadWords)) {
                saysOverload();
                return problem(fmt::format("says \"{}\" instead of a number", shortened(f, 40)));
            }
            if (f.empty()) return problem(fmt::format("has nothing under {}", shortened(column.header, 60)));
            if (!v)
                return problem(fmt::format("\"{}\" under {} is not a number", trimmed(shortened(f, 40)),
                                           shortened(column.header, 60)));
            if (std::isnan(*v))
                return problem(fmt::format("\"{}\" under {} is no reading", shortened(f, 40),
                                           shortened(column.header, 60)));
            if (!(std::abs(*v) < (m_roles[i] == Role::time ? tooLate : tooLarge)))
                return problem(fmt::format("\"{}\" under {} is too large to be a reading",
                                           trimmed(shortened(f, 40)), shortened(column.header, 60)));
            values[i] = *v;
            if (column.clock) rememberDate(f);
        }
        if (m_layout.find(Role::run) && (!m_labelled || label != m_label)) {
            columns.breaks.push_back({columns.load.size(), label, option, condition});
            m_label = label;
            m_labelled = true;
        }
        for (std::size_t i = 0; i < m_roles.size(); ++i)
            if (auto* column = columnFor(m_roles[i])) column->push_back(values[i]);
        m_started = true;
    }

    void saysOverload() {
        if (columns.overloadAt == 0) columns.overloadAt = lines + 1;
        const auto row = columns.load.size();
        if (columns.overloads.empty() || columns.overloads.back() != row) columns.overloads.push_back(row);
    }

    const Layout& m_layout;
    const char* m_p;
    const char* m_end;
    fast_float::parse_options m_options;
    std::vector<Role> m_roles;
    std::size_t m_lastNeeded = 0;
    bool m_slow = false, m_started = false, m_labelled = false;
    std::string m_label;
    std::string m_date; ///< in front of the clock, with its blank; its days in seconds:
    double m_days = 0;
};

void toSi(std::vector<double>& values, double factor) {
    if (factor != 1)
        for (auto& v : values)
            v *= factor;
}

/// Clock stamps run on past midnight.
void unwrapMidnight(std::vector<double>& time) {
    double add = 0, last = time.empty() ? 0 : time[0];
    for (auto& t : time) {
        if (t < last - 43200) add += 86400;
        last = t;
        t += add;
    }
}

/// What stands below a heading that names another unit of the load is in that one.
void inTheirUnits(Columns& columns, const quantity::Unit& first, Log& log) {
    const auto* unit = &first;
    for (std::size_t k = 0; k < columns.breaks.size(); ++k) {
        const auto& b = columns.breaks[k];
        if (b.unit && b.unit != unit)
            log.notes.push_back(fmt::format("From row {} on its load is in {}.", b.row + 1, b.unit->symbol));
        if (b.unit) unit = b.unit;
        const auto end = k + 1 < columns.breaks.size() ? columns.breaks[k + 1].row : columns.load.size();
        for (std::size_t i = b.row; i < end && unit != &first; ++i)
            columns.load[i] *= unit->factor / first.factor;
    }
}

bool labelled(const Layout& layout) { return layout.find(Role::run).has_value(); }

double medianStep(const std::vector<double>& t) {
    std::vector<double> steps;
    for (std::size_t i = 1; i < t.size(); ++i)
        if (t[i] != t[i - 1]) steps.push_back(std::abs(t[i] - t[i - 1]));
    if (steps.empty()) return 0;
    std::nth_element(steps.begin(), steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2),
                     steps.end());
    return steps[steps.size() / 2];
}

/// A log that shows its newest row first is turned round, and that is said.
void turnNewestFirst(Columns& columns, Log& log) {
    const auto& t = columns.time;
    if (t.size() < 3 || !columns.breaks.empty()) return;
    std::size_t down = 0;
    for (std::size_t i = 1; i < t.size(); ++i)
        down += t[i] < t[i - 1];
    if (down + 1 + t.size() / 50 < t.size()) return;
    for (auto* v : {&columns.time, &columns.load, &columns.travel})
        std::reverse(v->begin(), v->end());
    for (auto& row : columns.overloads)
        row = t.size() - std::min(row + 1, t.size());
    std::reverse(columns.overloads.begin(), columns.overloads.end());
    log.notes.emplace_back("The newest row stands first in the file; it was turned round.");
}

/// Marks the runs, cut in order from `force`, in or at the end of which a row says overload.
void markOverloads(std::vector<Run>& runs, const std::vector<double>& force,
                   const std::vector<std::size_t>& overloads) {
    auto from = force.begin();
    for (auto& run : runs) {
        const auto& part = run.curve.load;
        const auto at = std::search(from, force.end(), part.begin(), part.end());
        if (at == force.end()) { // put together anew: any of its rows may be meant
            run.overload = true;
            continue;
        }
        const auto first = static_cast<std::size_t>(at - force.begin());
        run.overload = std::any_of(overloads.begin(), overloads.end(), [&](std::size_t row) {
            return row >= first && row <= first + part.size();
        });
        from = at + static_cast<std::ptrdiff_t>(part.size());
    }
}

/// "00:59" of a clock with two parts: an elapsed time of minutes and seconds where it begins at nothing.
Expected<void> minutesOrHours(std::string_view text, const Layout& layout, std::vector<double>& time,
                              Log& log) {
    const auto lines = splitLines(text, layout.firstRow + 1);
    const auto fields = splitFields(lines[layout.firstRow], layout.delimiter);
    const auto& stamp = fields[*layout.find(Role::time)];
    if (time.empty() || std::count(stamp.begin(), stamp.end(), ':') != 1 ||
        stamp.find_first_of("-/T ") != std::string::npos || stamp.find_first_of(".,") != std::string::npos)
        return {};
    if (time.front() != 0)
        return fail(fmt::format(
            "\"{}\" could be hours and minutes or minutes and seconds: write the stamps with all three parts",
            stamp));
    for (auto& v : time)
        v /= 60;
    log.notes.emplace_back("Its time is taken as minutes and seconds.");
    return {};
}

/// A counter of 32 bits that went past its end goes on.
void unwrapCounter(std::vector<double>& time, Log& log) {
    constexpr double turn = 4294967296.0;
    double add = 0;
    bool wrapped = false;
    for (std::size_t i = 0; i < time.size(); ++i) {
        if (time[i] != std::floor(time[i]) || time[i] < 0 || time[i] >= turn) break;
        const double before = i > 0 ? time[i - 1] - add : 0;
        if (i > 0 && before > 0.9 * turn && time[i] < 0.1 * turn) {
            add += turn;
            wrapped = true;
        }
        time[i] += add;
    }
    if (wrapped) log.notes.emplace_back("The clock's counter went past its end; it goes on from there.");
}

/// Blank lines behind every row, or nearly, are how the file is written, not where runs begin.
void dropRegularBreaks(Columns& columns) {
    const auto bare =
        static_cast<std::size_t>(std::count_if(columns.breaks.begin(), columns.breaks.end(),
                                               [](const auto& b) { return b.label.empty() && !b.unit; }));
    if (bare * 3 < columns.load.size() || bare < 5) return;
    std::erase_if(columns.breaks, [](const auto& b) { return b.label.empty() && !b.unit; });
}

/// The unit of a time column that names none, by what it counts. Error: it cannot be seconds, and nobody
/// knows.
Expected<void> guessTimeUnit(std::vector<double>& time, const std::string& header, Log& log) {
    if (time.size() < 3) return {};
    const double at = std::abs(time.front()), step = medianStep(time);
    const auto take = [&](double factor, const char* what) {
        toSi(time, factor);
        log.notes.push_back(fmt::format("\"{}\" is taken as {}.", header, what));
    };
    const auto name = lowered(header);
    if (name.find("micros") != std::string::npos) return take(1e-6, "microseconds"), Expected<void>();
    if (name.find("millis") != std::string::npos) return take(1e-3, "milliseconds"), Expected<void>();
    const auto since1970 = [&](double unit) { return at > 1e9 * unit && at < 4e9 * unit; }; // 2001 to 2096
    if (since1970(1e9))
        take(1e-9, "nanoseconds since 1970");
    else if (since1970(1e6))
        take(1e-6, "microseconds since 1970");
    else if (since1970(1e3))
        take(1e-3, "milliseconds since 1970");
    else if (!since1970(1) && at > 20000 && at < 80000 && step > 0 && step < 0.01 &&
             time.back() - time.front() < 30)
        take(86400, "days, as spreadsheets count them");
    else if (step >= 5 && std::all_of(time.begin(), time.end(), [](double t) { return t == std::floor(t); }))
        return fail(fmt::format(
            "the steps of \"{}\" are {}, which are hardly seconds: say its unit, --time-unit ms or s", header,
            step));
    return {};
}

/// Ways between the rows that have one lie on a straight line between these.
void fillBlankWays(Columns& columns, Log& log) {
    if (columns.blankWays == 0) return;
    auto& x = columns.travel;
    if (columns.blankWays + 2 > x.size()) {
        x.clear();
        log.notes.emplace_back("The column of the way is empty and is left out.");
        return;
    }
    std::size_t last = x.size();
    for (std::size_t i = 0; i < x.size(); ++i) {
        if (std::isnan(x[i])) continue;
        for (std::size_t k = last == x.size() ? 0 : last + 1; k < i; ++k)
            x[k] = last == x.size() ? x[i]
                                    : x[last] + (x[i] - x[last]) * static_cast<double>(k - last) /
                                                    static_cast<double>(i - last);
        last = i;
    }
    for (std::size_t k = last + 1; k < x.size(); ++k)
        x[k] = x[last];
    log.notes.push_back(
        fmt::format("{} no way of {} own; it is taken from the rows around.",
                    columns.blankWays == 1 ? "1 row has" : fmt::format("{} rows have", columns.blankWays),
                    columns.blankWays == 1 ? "its" : "their"));
}

/// Where a file is cut, or its clock jumps back, while the load goes on, what comes after is no other run:
/// nobody knows how much is missing.
Expected<void> refuseCutsUnderLoad(const Columns& columns, bool hasLabels) {
    const auto& f = columns.load;
    if (hasLabels || f.size() < 10) return {};
    std::vector<double> head(f.begin(), f.begin() + 5);
    std::nth_element(head.begin(), head.begin() + 2, head.end());
    double top = 0;
    for (const double v : f)
        top = std::max(top, std::abs(v - head[2]));
    const auto goesOn = [&](std::size_t i) {
        const double a = f[i - 1] - head[2], b = f[i] - head[2];
        return std::abs(a) > 0.2 * top && std::abs(b) > 0.2 * top && std::abs(a - b) < 0.1 * top;
    };
    for (const auto& b : columns.breaks)
        if (b.row > 0 && b.row < f.size() && goesOn(b.row))
            return fail(fmt::format(
                "after {} rows it begins anew while the load goes on: the logger was set back in mid-pull, "
                "and what it missed cannot be told",
                b.row));
    const auto& t = columns.time;
    const double step = medianStep(t);
    for (std::size_t i = 1; i < t.size(); ++i)
        if (t[i] < t[i - 1] - 10 * step && goesOn(i))
            return fail(
                fmt::format("its clock was set back in mid-pull, after {} rows: correct the stamps", i));
    return {};
}

} // namespace

Columns parseColumns(std::string_view text, const Layout& layout, unsigned threads) {
    const char* begin = text.data();
    const char* const end = text.data() + text.size();
    for (std::size_t line = 0; line < layout.firstRow && begin < end; ++line) {
        const std::string_view rest(begin, static_cast<std::size_t>(end - begin));
        const auto at = rest.find_first_of("\r\n");
        if (at == std::string_view::npos) break;
        begin += at + (rest[at] == '\r' && at + 1 < rest.size() && rest[at + 1] == '\n' ? 2 : 1);
    }
    constexpr std::ptrdiff_t worthSplitting = 1 << 20;
    if (end - begin < worthSplitting || layout.find(Role::run)) threads = 1;
    std::vector<Parser> parsers;
    const char* from = begin;
    for (unsigned k = 0; k < threads; ++k) {
        const char* to = k + 1 == threads ? end : begin + (end - begin) / threads * (k + 1);
        if (to < end) {
            const void* newline = std::memchr(to, '\n', static_cast<std::size_t>(end - to));
            to = newline ? static_cast<const char*>(newline) + 1 : end;
        }
        parsers.emplace_back(layout, from, to, k == 0 ? end - begin : to - from);
        from = to;
    }
    std::vector<std::thread> workers;
    for (std::size_t k = 1; k < parsers.size(); ++k)
        workers.emplace_back([&parser = parsers[k]] { parser.run(); });
    parsers[0].run();
    for (auto& w : workers)
        w.join();

    Columns all = std::move(parsers[0].columns);
    std::size_t lines = layout.firstRow + parsers[0].lines;
    std::string unit = parsers[0].unit;
    for (auto& p : all.problems)
        p.line += layout.firstRow;
    if (all.otherUnitAt) all.otherUnitAt += layout.firstRow;
    if (all.overloadAt) all.overloadAt += layout.firstRow;
    for (std::size_t k = 1; k < parsers.size(); ++k) {
        auto& part = parsers[k].columns;
        const std::size_t rows = all.load.size();
        for (auto& b : part.breaks)
            all.breaks.push_back(std::move(b)), all.breaks.back().row += rows;
        for (auto& p : part.problems)
            if (all.problems.size() < mostProblems)
                all.problems.push_back({p.line + lines, std::move(p.reason)});
        all.rowsLeftOut += part.rowsLeftOut;
        all.blankWays += part.blankWays;
        const bool another = !unit.empty() && !parsers[k].unit.empty() && unit != parsers[k].unit;
        if (another && !all.otherUnitAt) all.otherUnitAt = parsers[k].unitAt + lines;
        if (unit.empty()) unit = parsers[k].unit;
        if (part.otherUnitAt && !all.otherUnitAt) all.otherUnitAt = part.otherUnitAt + lines;
        if (part.overloadAt && !all.overloadAt) all.overloadAt = part.overloadAt + lines;
        for (const auto row : part.overloads)
            all.overloads.push_back(row + rows);
        const auto append = [](std::vector<double>& to, const std::vector<double>& more) {
            to.insert(to.end(), more.begin(), more.end());
        };
        append(all.time, part.time);
        append(all.load, part.load);
        append(all.travel, part.travel);
        lines += parsers[k].lines;
    }
    return all;
}

namespace {

/// What a text says once it is laid out in columns, and how many lines of it are not the file's own.
struct Laid {
    Expected<Layout> layout = fail("");
    Columns columns{};
    bool enough() const { return layout && columns.load.size() >= 3; }
};

Laid lay(std::string_view text, const Hints& hints, unsigned threads) {
    Laid out;
    out.layout = detect(text, hints);
    if (out.layout) out.columns = parseColumns(text, *out.layout, threads);
    return out;
}

/// The text as it is or, where nothing can be read so, in the form in which it can; `text` is what was read.
Laid layInAnyForm(Text& text, const Hints& hints, unsigned threads) {
    auto plain = lay(text.view, hints, threads);
    if (plain.enough()) return plain;
    using Form = std::optional<std::string> (*)(std::string_view);
    bool recognised = false;
    for (const Form form :
         {&fromJson, &fromTuples, &fromOtherHeading, &fromLong, &fromTransposed, &fromPairs, &fromLabelled}) {
        auto made = form(text.view);
        if (!made) continue;
        auto laid = lay(*made, hints, threads);
        if (!laid.enough()) {
            if (!recognised && !plain.layout) plain.layout = std::move(laid.layout);
            recognised = true;
            continue;
        }
        if (form == &fromLabelled) // its heading is ours
            for (auto& p : laid.columns.problems)
                --p.line;
        text.storage = std::move(*made);
        text.view = text.storage;
        return laid;
    }
    return plain;
}

/// Times in seconds that never step back within a run. Error: a clock or a unit that cannot be told.
Expected<void> readClock(const Text& text, const Layout& layout, Columns& columns, Log& log) {
    const auto t = layout.find(Role::time);
    if (!t) return {};
    const auto& column = layout.columns[*t];
    if (!column.clock) unwrapCounter(columns.time, log);
    turnNewestFirst(columns, log);
    if (column.clock) {
        if (auto ok = minutesOrHours(text.view, layout, columns.time, log); !ok) return ok;
        unwrapMidnight(columns.time);
    } else if (column.unit) {
        toSi(columns.time, column.unit->factor);
    } else {
        return guessTimeUnit(columns.time, column.header, log);
    }
    return {};
}

/// The rows between breaks, each a run with what its break said of it.
std::vector<Run> cutAtBreaks(curve::Curve whole, std::vector<Columns::Break>& breaks) {
    const std::size_t rows = whole.load.size();
    std::vector<Run> runs;
    std::size_t from = 0;
    Columns::Break begun;
    for (auto& next : breaks) {
        const auto to = next.row;
        if (to > from) {
            curve::Curve part;
            if (from == 0 && to == rows) {
                part = std::exchange(whole, {});
            } else {
                const auto cut = [&](const std::vector<double>& v) {
                    return v.empty() ? v
                                     : std::vector<double>(v.begin() + static_cast<std::ptrdiff_t>(from),
                                                           v.begin() + static_cast<std::ptrdiff_t>(to));
                };
                part = {cut(whole.time), cut(whole.load), cut(whole.travel)};
            }
            runs.push_back({std::move(begun.label), std::move(begun.option), std::move(begun.condition),
                            std::move(part)});
        }
        from = to;
        begun = std::move(next);
    }
    return runs;
}

/// Runs that nothing tells apart are cut where the clock begins anew; a single one where it holds several
/// pulls.
void splitFurther(std::vector<Run>& runs, Log& log) {
    for (auto& r : runs) {
        auto byClock = r.curve.time.empty() || std::is_sorted(r.curve.time.begin(), r.curve.time.end())
                           ? std::vector<curve::Curve>{}
                           : curve::splitAtClockResets(r.curve);
        if (byClock.empty()) byClock.push_back(std::move(r.curve));
        for (auto& part : byClock) {
            if (byClock.size() > 1 || runs.size() > 1) {
                log.runs.push_back({r.label, r.option, r.condition, std::move(part)});
                continue;
            }
            auto pulls = curve::splitAtPulls(part);
            if (pulls.empty()) {
                log.runs.push_back({r.label, r.option, r.condition, std::move(part)});
                continue;
            }
            for (auto& pull : pulls)
                log.runs.push_back({r.label, r.option, r.condition, std::move(pull)});
        }
    }
}

/// A last row that holds the sum of those above it is no reading, and never the peak.
void leaveOutSums(Columns& columns, Log& log) {
    constexpr std::size_t least = 5;
    const auto& force = columns.load;
    if (force.size() < least + 1) return;
    double sum = 0, all = 0, most = 0;
    for (std::size_t i = 0; i + 1 < force.size(); ++i) {
        sum += force[i];
        all += std::abs(force[i]);
        most = std::max(most, std::abs(force[i]));
    }
    const double last = force.back();
    if (!(std::abs(last) > 2 * most) || std::abs(last - sum) > 1e-4 * all)
        return; // rounded where it was summed
    for (auto* column : {&columns.time, &columns.load, &columns.travel})
        if (!column->empty()) column->pop_back();
    std::erase_if(columns.overloads, [&](std::size_t row) { return row >= columns.load.size(); });
    std::erase_if(columns.breaks, [&](const Columns::Break& b) { return b.row >= columns.load.size(); });
    ++log.rowsLeftOut;
    log.notes.push_back("Its last row is the sum of those above it and was left out.");
}

Expected<Log> readText(Text& text, const Hints& hints, unsigned threads) {
    auto [layout, columns] = layInAnyForm(text, hints, threads);
    if (!layout) return tl::unexpected(layout.error());
    Log log;
    log.layout = *layout;
    log.notes = layout->notes;
    log.encoding = text.encoding;
    log.problems = std::move(columns.problems);
    log.rowsLeftOut = columns.rowsLeftOut;
    const auto unitOf = [&](Role role) {
        return layout->find(role) ? layout->columns[*layout->find(role)].unit : nullptr;
    };
    log.forceUnitKnown = unitOf(Role::load) != nullptr;
    log.displacementUnitKnown = !layout->find(Role::travel) || unitOf(Role::travel) != nullptr;
    dropRegularBreaks(columns);
    if (columns.overloadAt)
        log.overload = fmt::format("From line {} on it says overload: a peak there is \"at least\".",
                                   columns.overloadAt);
    if (columns.otherUnitAt)
        return fail(fmt::format("another unit stands beside the load from line {} on: cut the file there",
                                columns.otherUnitAt));
    toSi(columns.load, log.forceUnitKnown ? unitOf(Role::load)->factor : 1);
    if (log.forceUnitKnown) inTheirUnits(columns, *unitOf(Role::load), log);
    toSi(columns.travel, unitOf(Role::travel) ? unitOf(Role::travel)->factor : 0.001);
    if (auto ok = readClock(text, *layout, columns, log); !ok) return tl::unexpected(ok.error());
    leaveOutSums(columns, log);
    const std::size_t rows = columns.load.size();
    if (rows < 3)
        return fail(fmt::format("only {} row{} of numbers: a curve needs at least three{}", rows,
                                rows == 1 ? "" : "s",
                                log.problems.empty() ? std::string()
                                                     : fmt::format(" (line {} {})", log.problems[0].line,
                                                                   log.problems[0].reason)));
    fillBlankWays(columns, log);
    if (auto ok = refuseCutsUnderLoad(columns, labelled(*layout)); !ok) return tl::unexpected(ok.error());
    const auto marked = columns.overloads.empty() ? std::vector<double>{} : columns.load;
    curve::Curve whole{std::move(columns.time), std::move(columns.load), std::move(columns.travel)};
    columns.breaks.push_back({rows});
    const bool hasLabels = labelled(*layout);
    auto runs = cutAtBreaks(std::move(whole), columns.breaks);
    if (hasLabels)
        log.runs = std::move(runs);
    else
        splitFurther(runs, log);
    std::erase_if(log.runs, [](const Run& r) { return r.curve.load.size() < 3; });
    for (std::size_t i = 0; i < log.runs.size(); ++i)
        if (log.runs[i].label.empty())
            log.runs[i].label = log.runs.size() == 1 ? "" : fmt::format("{}", i + 1);
    if (log.runs.empty()) return fail("no run in it has three rows of numbers");
    if (!marked.empty()) markOverloads(log.runs, marked, columns.overloads);
    if (const auto* unit = unitOf(Role::load); unit && unit->dimension != quantity::Dimension::force)
        for (auto& run : log.runs)
            run.curve.loadKind = unit->dimension;
    return log;
}

std::string names(const std::vector<Sheet>& sheets) {
    std::string out;
    for (const auto& s : sheets)
        out += (out.empty() ? "" : ", ") + fmt::format("\"{}\"", shortened(s.name, 60));
    return out;
}

Expected<Log> readSheet(const Sheet& sheet, const std::string& kind, const Hints& hints, unsigned threads) {
    Text text;
    text.view = sheet.text;
    text.encoding = kind;
    auto log = readText(text, hints, threads);
    if (log) log->sheet = sheet.name;
    return log;
}

/// Whether two logs have the same columns for the same things.
bool sameColumns(const Layout& a, const Layout& b) {
    return std::equal(a.columns.begin(), a.columns.end(), b.columns.begin(), b.columns.end(),
                      [](const Column& x, const Column& y) {
                          return x.header == y.header && x.role == y.role && x.unit == y.unit;
                      });
}

/// The sheet that is asked for, the only one that holds a curve, or all of them where they are alike: a run
/// each.
Expected<Log> readDocument(const Document& doc, const Hints& hints, unsigned threads) {
    if (!hints.sheet.empty()) {
        for (std::size_t i = 0; i < doc.sheets.size(); ++i)
            if (lowered(doc.sheets[i].name) == lowered(hints.sheet) ||
                fmt::format("{}", i + 1) == hints.sheet)
                return readSheet(doc.sheets[i], doc.kind, hints, threads);
        return fail(
            fmt::format("there is no sheet \"{}\"; the sheets are {}", hints.sheet, names(doc.sheets)));
    }
    std::vector<Log> read;
    std::vector<Sheet> with, without;
    Expected<Log> first = fail("");
    for (const auto& sheet : doc.sheets) {
        auto log = readSheet(sheet, doc.kind, hints, threads);
        if (&sheet == &doc.sheets.front()) first = log;
        (log ? with : without).push_back({sheet.name, ""});
        if (log) read.push_back(std::move(*log));
    }
    if (read.empty()) return first;
    auto& all = read.front();
    if (read.size() > 1) {
        for (const auto& other : read)
            if (!sameColumns(all.layout, other.layout))
                return fail(
                    fmt::format("several of its sheets could be meant ({}): {}", names(with), asksForSheet),
                    Wants::sheet);
        all.sheet.clear();
        for (std::size_t k = 0; k < read.size(); ++k) {
            for (auto& run : read[k].runs) {
                run.label = with[k].name + (run.label.empty() ? "" : " " + run.label);
                if (k > 0) all.runs.push_back(std::move(run));
            }
            if (k == 0) continue;
            all.rowsLeftOut += read[k].rowsLeftOut;
            for (auto& p : read[k].problems)
                if (all.problems.size() < mostProblems) all.problems.push_back(std::move(p));
        }
        all.notes.push_back(fmt::format("Its sheets {} are runs of their own.", names(with)));
    }
    if (!without.empty()) all.notes.push_back(fmt::format("Nothing was read from {}.", names(without)));
    return std::move(all);
}

} // namespace

Expected<Log> readLog(std::string_view bytes, const Hints& hints, unsigned threads) {
    const auto loose = unpacked(bytes);
    if (!loose) return tl::unexpected(loose.error());
    if (*loose) bytes = **loose;
    const auto document = openDocument(bytes);
    if (!document) return tl::unexpected(document.error());
    if (*document) return readDocument(**document, hints, threads);
    Text text;
    if (auto ok = decode(bytes, text); !ok) return tl::unexpected(ok.error());
    return readText(text, hints, threads);
}

} // namespace anvil::tables
