#include <anvil/tables/log.h>

#include "numbers.h"
#include <algorithm>
#include <cmath>
#include <cstring>
#include <fast_float/fast_float.h>
#include <fmt/format.h>
#include <thread>

namespace anvil::tables {
namespace {

constexpr std::size_t mostProblems = 1000;
constexpr double tooLarge = 1e15; // no load cell shows this in any unit

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
            m_slow = m_slow || c.role == Role::run || c.clock;
            if (c.role != Role::ignore) m_lastNeeded = i;
        }
        m_slow = m_slow || layout.delimiter == ' ' || layout.grouped;
        const auto rows = static_cast<std::size_t>(expected) / (layout.columns.size() * 8) + 16;
        for (const auto role : m_roles)
            if (auto* column = columnFor(role)) column->reserve(rows);
    }

    Columns columns;
    std::size_t lines = 0;

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
        case Role::force:
            return &columns.force;
        case Role::displacement:
            return &columns.displacement;
        default:
            return nullptr;
        }
    }

    void skipLineEnd() {
        if (m_p < m_end && *m_p == '\r') ++m_p;
        if (m_p < m_end && *m_p == '\n') ++m_p;
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
            if (m_roles[i] == Role::ignore) {
                while (p < m_end && *p != m_layout.delimiter && *p != '\n' && *p != '\r' && *p != '"')
                    ++p;
            } else {
                const auto got = fast_float::from_chars_advanced(p, m_end, values[i], m_options);
                if (got.ec != std::errc{} || !(std::abs(values[i]) < tooLarge)) return false;
                p = got.ptr;
            }
            while (p < m_end && *p == ' ')
                ++p;
            if (i + 1 < width) {
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
        if (m_started && (columns.breaks.empty() || columns.breaks.back().row != columns.force.size()))
            columns.breaks.push_back({columns.force.size()});
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
        std::string label;
        for (std::size_t i = 0; i < m_roles.size(); ++i) {
            if (m_roles[i] == Role::ignore) continue;
            const auto& column = m_layout.columns[i];
            if (i >= fields.size())
                return problem(fmt::format("has {} field{} where {} are needed", fields.size(),
                                           fields.size() == 1 ? "" : "s", m_lastNeeded + 1));
            const auto& f = fields[i];
            if (m_roles[i] == Role::run) {
                label = f;
                continue;
            }
            std::optional<double> v = column.clock       ? clockSeconds(f)
                                      : m_layout.grouped ? readGrouped(f, m_layout.decimal)
                                                         : std::nullopt;
            if (!v) v = readNumber(f, m_layout.decimal);
            if (f.empty()) return problem(fmt::format("has nothing under {}", shortened(column.header, 60)));
            if (!v)
                return problem(fmt::format("\"{}\" under {} is not a number", trimmed(shortened(f, 40)),
                                           shortened(column.header, 60)));
            if (std::isnan(*v))
                return problem(fmt::format("\"{}\" under {} is no reading", shortened(f, 40),
                                           shortened(column.header, 60)));
            if (!(std::abs(*v) < tooLarge))
                return problem(fmt::format("\"{}\" under {} is too large to be a reading",
                                           trimmed(shortened(f, 40)), shortened(column.header, 60)));
            values[i] = *v;
        }
        if (m_layout.find(Role::run) && (!m_labelled || label != m_label)) {
            columns.breaks.push_back({columns.force.size(), label});
            m_label = label;
            m_labelled = true;
        }
        for (std::size_t i = 0; i < m_roles.size(); ++i)
            if (auto* column = columnFor(m_roles[i])) column->push_back(values[i]);
        m_started = true;
    }

    const Layout& m_layout;
    const char* m_p;
    const char* m_end;
    fast_float::parse_options m_options;
    std::vector<Role> m_roles;
    std::size_t m_lastNeeded = 0;
    bool m_slow = false, m_started = false, m_labelled = false;
    std::string m_label;
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
    for (auto& p : all.problems)
        p.line += layout.firstRow;
    for (std::size_t k = 1; k < parsers.size(); ++k) {
        auto& part = parsers[k].columns;
        const std::size_t rows = all.force.size();
        for (auto& b : part.breaks)
            all.breaks.push_back({rows + b.row, std::move(b.label)});
        for (auto& p : part.problems)
            if (all.problems.size() < mostProblems)
                all.problems.push_back({p.line + lines, std::move(p.reason)});
        all.rowsLeftOut += part.rowsLeftOut;
        const auto append = [](std::vector<double>& to, const std::vector<double>& more) {
            to.insert(to.end(), more.begin(), more.end());
        };
        append(all.time, part.time);
        append(all.force, part.force);
        append(all.displacement, part.displacement);
        lines += parsers[k].lines;
    }
    return all;
}

std::vector<curve::Curve> splitAtZeroLoad(const curve::Curve& c) {
    const std::size_t n = c.force.size();
    if (n < 100) return {c};
    // The level without load is the most common of the quiet ends; pulls are judged by their distance from
    // it.
    std::vector<double> head(c.force.begin(), c.force.begin() + 5);
    std::nth_element(head.begin(), head.begin() + 2, head.end());
    const double zero = head[2];
    double top = 0;
    for (std::size_t i = 0; i + 3 < n; ++i) {
        double held = std::abs(c.force[i] - zero);
        for (std::size_t k = 1; k < 4; ++k)
            held = std::min(held, std::abs(c.force[i + k] - zero));
        top = std::max(top, held);
    }
    struct Event {
        std::size_t from, to;
    };
    std::vector<Event> pulls;
    std::size_t lastHigh = 0;
    bool inside = false;
    for (std::size_t i = 0; i + 3 < n; ++i) {
        double held = std::abs(c.force[i] - zero);
        for (std::size_t k = 1; k < 4; ++k)
            held = std::min(held, std::abs(c.force[i + k] - zero));
        if (held > 0.3 * top) {
            if (!inside) {
                bool quiet = !pulls.empty();
                std::size_t low = 0;
                double since = 0;
                for (std::size_t j = lastHigh; quiet && j < i; ++j)
                    if (std::abs(c.force[j] - zero) < 0.04 * top) {
                        ++low;
                        since = since == 0 ? (c.time.empty() ? 1e9 : c.time[j]) : since;
                    }
                const double lasted = c.time.empty() ? 1e9 : c.time[i] - since;
                if (!pulls.empty() && low >= 20 && lasted >= 1)
                    pulls.push_back({i, i});
                else if (pulls.empty())
                    pulls.push_back({i, i});
                inside = true;
            }
            pulls.back().to = i + 3;
            lastHigh = i + 3;
        } else if (std::abs(c.force[i] - zero) < 0.04 * top) {
            inside = false;
        }
    }
    if (pulls.size() < 2) return {c};
    std::vector<curve::Curve> runs;
    std::size_t from = 0;
    for (std::size_t k = 0; k < pulls.size(); ++k) {
        // Cut in the middle of the quiet stretch: the next pull keeps a zero, this one its tail.
        std::size_t to = n;
        if (k + 1 < pulls.size()) {
            std::size_t lastQuiet = pulls[k + 1].from, firstQuiet = pulls[k].to;
            while (firstQuiet < lastQuiet && std::abs(c.force[firstQuiet] - zero) >= 0.04 * top)
                ++firstQuiet;
            while (lastQuiet > firstQuiet && std::abs(c.force[lastQuiet - 1] - zero) >= 0.04 * top)
                --lastQuiet;
            to = firstQuiet + (lastQuiet - firstQuiet) / 2;
        }
        const auto part = [&](const std::vector<double>& v) {
            return v.empty() ? v
                             : std::vector<double>(v.begin() + static_cast<std::ptrdiff_t>(from),
                                                   v.begin() + static_cast<std::ptrdiff_t>(to));
        };
        runs.push_back({part(c.time), part(c.force), part(c.displacement)});
        from = to;
    }
    return runs;
}

Expected<Log> readLog(std::string_view bytes, const Hints& hints, unsigned threads) {
    Text text;
    if (auto ok = decode(bytes, text); !ok) return tl::unexpected(ok.error());
    auto layout = detect(text.view, hints);
    if (!layout) return tl::unexpected(layout.error());
    Columns columns = parseColumns(text.view, *layout, threads);
    Log log;
    log.layout = *layout;
    log.encoding = text.encoding;
    log.problems = std::move(columns.problems);
    log.rowsLeftOut = columns.rowsLeftOut;
    const auto unitOf = [&](Role role) {
        return layout->find(role) ? layout->columns[*layout->find(role)].unit : nullptr;
    };
    log.forceUnitKnown = unitOf(Role::force) != nullptr;
    log.displacementUnitKnown = !layout->find(Role::displacement) || unitOf(Role::displacement) != nullptr;
    toSi(columns.force, log.forceUnitKnown ? unitOf(Role::force)->factor : 1);
    toSi(columns.displacement, unitOf(Role::displacement) ? unitOf(Role::displacement)->factor : 0.001);
    if (const auto t = layout->find(Role::time)) {
        if (layout->columns[*t].clock)
            unwrapMidnight(columns.time);
        else
            toSi(columns.time, unitOf(Role::time) ? unitOf(Role::time)->factor : 1);
    }
    const std::size_t rows = columns.force.size();
    if (rows < 3)
        return fail(fmt::format("only {} row{} of numbers: a curve needs at least three{}", rows,
                                rows == 1 ? "" : "s",
                                log.problems.empty() ? std::string()
                                                     : fmt::format(" (line {} {})", log.problems[0].line,
                                                                   log.problems[0].reason)));
    curve::Curve whole{std::move(columns.time), std::move(columns.force), std::move(columns.displacement)};
    columns.breaks.push_back({rows});
    const bool labelled = layout->find(Role::run).has_value();
    std::vector<Run> runs;
    std::size_t from = 0;
    std::string label;
    for (auto& next : columns.breaks) {
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
                part = {cut(whole.time), cut(whole.force), cut(whole.displacement)};
            }
            runs.push_back({std::move(label), std::move(part)});
        }
        from = to;
        label = std::move(next.label);
    }
    for (auto& r : runs) {
        if (labelled) {
            log.runs.push_back(std::move(r));
            continue;
        }
        auto byClock = r.curve.time.empty() || std::is_sorted(r.curve.time.begin(), r.curve.time.end())
                           ? std::vector<curve::Curve>{}
                           : curve::splitAtClockResets(r.curve);
        if (byClock.empty()) byClock.push_back(std::move(r.curve));
        for (auto& part : byClock) {
            if (byClock.size() > 1 || runs.size() > 1) {
                log.runs.push_back({"", std::move(part)});
                continue;
            }
            auto pulls = splitAtZeroLoad(part);
            if (pulls.size() == 1) {
                log.runs.push_back({"", std::move(part)});
                continue;
            }
            for (auto& pull : pulls)
                log.runs.push_back({"", std::move(pull)});
        }
    }
    std::erase_if(log.runs, [](const Run& r) { return r.curve.force.size() < 3; });
    for (std::size_t i = 0; i < log.runs.size(); ++i)
        if (log.runs[i].label.empty())
            log.runs[i].label = log.runs.size() == 1 ? "" : fmt::format("{}", i + 1);
    if (log.runs.empty()) return fail("no run in it has three rows of numbers");
    return log;
}

} // namespace anvil::tables
