#include "forms.h"

#include "headings.h"
#include "numbers.h"
#include <algorithm>
#include <anvil/quantity/digits.h>
#include <anvil/tables/text.h>
#include <map>

namespace anvil::tables {
namespace {

using Row = std::vector<std::string>;

/// The delimiter of a line of cells, the one that makes most of them; nothing for a single cell.
char delimiterOf(std::string_view line) {
    char best = '\0';
    std::size_t most = 1;
    for (const char d : {'\t', ';', ',', '|'})
        if (const auto n = splitFields(line, d).size(); n > most) {
            most = n;
            best = d;
        }
    return best;
}

bool isNumber(std::string_view cell) {
    return readNumber(cell, '.') || readNumber(cell, ',') || readGrouped(cell, '.') || readGrouped(cell, ',');
}

/// A cell in the text that is made: what it was, quoted where it must be.
std::string cell(std::string_view text) { return csvField(text); }

std::string rowText(const Row& row) {
    std::string out;
    for (std::size_t i = 0; i < row.size(); ++i)
        out += (i ? "\t" : "") + cell(row[i]);
    return out + "\n";
}

/// The name of a column without the number of its run: "F2" → F, 2; "Force 2 (N)" → Force (N), 2.
std::optional<std::pair<std::string, int>> numbered(std::string_view heading) {
    const auto [name, unit] = nameAndUnit(heading);
    const auto digits = name.find_last_not_of("0123456789");
    if (digits == std::string::npos || digits + 1 >= name.size() || name.size() - digits > 4) return {};
    auto stem = name.substr(0, digits + 1);
    while (!stem.empty() &&
           (stem.back() == ' ' || stem.back() == '_' || stem.back() == '-' || stem.back() == '.'))
        stem.pop_back();
    if (stem.empty()) return {};
    return std::pair(unit.empty() ? stem : stem + " (" + unit + ")",
                     quantity::wholeNumber(std::string_view(name).substr(digits + 1)).value_or(0));
}

} // namespace

std::optional<std::string> fromTuples(std::string_view text) {
    std::string out;
    std::size_t rows = 0, lines = 0;
    for (const auto& whole : splitLines(text)) {
        auto line = trimmed(whole);
        if (line.empty()) continue;
        ++lines;
        while (!line.empty() && (line.back() == ',' || line.back() == ';' || line.back() == ' '))
            line.remove_suffix(1);
        const bool round = line.size() > 2 && line.front() == '(' && line.back() == ')',
                   square = line.size() > 2 && line.front() == '[' && line.back() == ']',
                   curly = line.size() > 2 && line.front() == '{' && line.back() == '}';
        if (round || square || curly) {
            ++rows;
            line = trimmed(line.substr(1, line.size() - 2));
        }
        out += line;
        out += '\n';
    }
    if (rows < 3 || 10 * rows < 9 * lines) return {};
    return out;
}

std::optional<std::string> fromLong(std::string_view text) {
    const auto lines = splitLines(text);
    std::size_t head = 0;
    while (head < lines.size() && trimmed(lines[head]).empty())
        ++head;
    if (head + 4 > lines.size()) return {};
    const char d = delimiterOf(lines[head]);
    const auto names = splitFields(lines[head], d ? d : ',');
    if (names.size() != 3) return {};
    // Which of the three names the channel: words in every row, and few different ones.
    std::size_t channel = 3;
    const auto first = splitFields(lines[head + 1], d);
    for (std::size_t i = 0; i < 3 && first.size() == 3; ++i)
        if (!isNumber(first[i]) && !clockSeconds(first[i])) channel = channel == 3 ? i : 4;
    if (channel > 2) return {};
    const std::size_t value = channel == 2 ? 1 : 2, time = 3 - channel - value;
    if (readHeading(names[time]).role != Role::time) return {};
    std::map<std::string, std::map<std::string, std::size_t>> seen; // channel → time → rows
    std::vector<std::string> channels, times;
    std::map<std::string, std::size_t> place;
    std::vector<std::map<std::string, std::string>> rows;
    for (std::size_t i = head + 1; i < lines.size(); ++i) {
        if (trimmed(lines[i]).empty()) continue;
        const auto f = splitFields(lines[i], d);
        if (f.size() != 3) return {};
        if (std::find(channels.begin(), channels.end(), f[channel]) == channels.end()) {
            if (channels.size() >= 20) return {};
            channels.push_back(f[channel]);
        }
        const auto [at, fresh] = place.try_emplace(f[time], rows.size());
        if (fresh) {
            rows.emplace_back();
            times.push_back(f[time]);
        }
        if (!rows[at->second].emplace(f[channel], f[value]).second) return {}; // twice at one time
    }
    if (channels.size() < 2) return {};
    Row heading{names[time]};
    heading.insert(heading.end(), channels.begin(), channels.end());
    std::string out = rowText(heading);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].size() != channels.size()) return {}; // clocks of their own are another matter
        Row row{times[i]};
        for (const auto& c : channels)
            row.push_back(rows[i].at(c));
        out += rowText(row);
    }
    return out;
}

std::optional<std::string> fromTransposed(std::string_view text) {
    std::vector<Row> columns;
    for (const auto& line : splitLines(text)) {
        if (trimmed(line).empty()) continue;
        const char d = delimiterOf(line);
        if (!d || columns.size() > 20) return {};
        auto cells = splitFields(line, d);
        while (!cells.empty() && cells.back().empty())
            cells.pop_back();
        if (cells.size() < 11 || isNumber(cells[0])) return {};
        if (std::count_if(cells.begin() + 1, cells.end(), [](const auto& c) { return isNumber(c); }) !=
            static_cast<std::ptrdiff_t>(cells.size() - 1))
            return {};
        if (!columns.empty() && cells.size() != columns[0].size()) return {};
        columns.push_back(std::move(cells));
    }
    if (columns.size() < 2) return {};
    std::string out;
    for (std::size_t i = 0; i < columns[0].size(); ++i) {
        Row row;
        for (const auto& c : columns)
            row.push_back(c[i]);
        out += rowText(row);
    }
    return out;
}

std::optional<std::string> fromPairs(std::string_view text) {
    const auto lines = splitLines(text);
    for (std::size_t head = 0; head < std::min<std::size_t>(lines.size(), 20); ++head) {
        const char d = delimiterOf(lines[head]);
        if (!d) continue;
        const auto names = splitFields(lines[head], d);
        std::vector<int> order;
        std::map<int, std::vector<std::pair<std::string, std::size_t>>> runs; // number → names and places
        for (std::size_t i = 0; i < names.size(); ++i) {
            const auto n = numbered(names[i]);
            if (!n) break;
            if (!runs.contains(n->second)) order.push_back(n->second);
            runs[n->second].emplace_back(n->first, i);
        }
        if (runs.size() < 2 || runs.begin()->second.size() < 2) continue;
        const auto& model = runs.begin()->second;
        std::size_t used = 0;
        const bool alike = std::all_of(runs.begin(), runs.end(), [&](const auto& run) {
            used += run.second.size();
            return run.second.size() == model.size() &&
                   std::equal(model.begin(), model.end(), run.second.begin(),
                              [](const auto& a, const auto& b) { return a.first == b.first; });
        });
        const bool timed = std::any_of(model.begin(), model.end(), [](const auto& column) {
            return readHeading(column.first).role == Role::time;
        });
        if (!alike || !timed || used != names.size()) continue;
        Row heading{"Run"};
        for (const auto& column : model)
            heading.push_back(column.first);
        std::string out = rowText(heading);
        for (const int number : order)
            for (std::size_t i = head + 1; i < lines.size(); ++i) {
                if (trimmed(lines[i]).empty()) continue;
                const auto f = splitFields(lines[i], d);
                Row row{std::to_string(number)};
                bool any = false;
                for (const auto& column : runs[number]) {
                    row.push_back(column.second < f.size() ? f[column.second] : "");
                    any = any || !row.back().empty();
                }
                if (any) out += rowText(row); // the shorter runs end before the longest
            }
        return out;
    }
    return {};
}

std::optional<std::string> fromOtherHeading(std::string_view text) {
    const auto end = text.find_first_of("\r\n");
    if (end == std::string_view::npos) return {};
    const auto head = text.substr(0, end);
    const auto body = text.substr(end);
    const auto next = body.find_first_not_of("\r\n");
    if (next == std::string_view::npos) return {};
    const auto second = body.substr(next, body.find_first_of("\r\n", next) - next);
    const char a = delimiterOf(head), b = delimiterOf(second);
    if (!a || !b || a == b) return {};
    const auto names = splitFields(head, a), cells = splitFields(second, b);
    if (names.size() != cells.size()) return {};
    for (std::size_t i = 0; i < names.size(); ++i)
        if (isNumber(names[i]) || !isNumber(cells[i])) return {};
    std::string out;
    for (std::size_t i = 0; i < names.size(); ++i)
        out += (i ? std::string(1, b) : "") + cell(names[i]);
    return out.append(body);
}

} // namespace anvil::tables
