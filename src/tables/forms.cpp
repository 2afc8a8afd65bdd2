#include "forms.h"

#include "shape.h"
#include <algorithm>
#include <anvil/columns/heading.h>
#include <anvil/columns/number.h>
#include <map>

namespace anvil::tables {

using namespace columns;

namespace {

bool isNumber(std::string_view cell) { return readField(cell, '.') || readField(cell, ','); }

std::vector<std::string> cellsOf(std::string_view inside) {
    const char d = delimiterOf(inside);
    return splitFields(inside, d ? d : ' ');
}

} // namespace

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

std::optional<Rows> fromTuples(std::string_view text) {
    Rows rows;
    std::size_t outside = 0, line = 1, numbers = 0;
    std::optional<std::size_t> open;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        line += c == '\n';
        if (c == '(' || c == '[' || c == '{') {
            open = i; // the innermost counts
        } else if ((c == ')' || c == ']' || c == '}') && open) {
            auto cells = cellsOf(text.substr(*open + 1, i - *open - 1));
            if (cells.size() > 1) {
                numbers += isNumber(cells.front()) && isNumber(cells.back());
                rows.push_back({line, std::move(cells)});
            } else {
                outside += i - *open;
            }
            open.reset();
        } else if (!open) {
            outside += c > ' ' && c != ',' && c != ';';
        }
        if (line > 200 && numbers < 3) return {};
    }
    if (numbers < 3 || 10 * numbers < 9 * rows.size() || 5 * outside > text.size()) return {};
    return rows;
}

std::optional<Rows> fromTypeset(std::string_view text) {
    Rows rows;
    std::size_t line = 0, others = 0;
    for (const auto& whole : splitLines(text)) {
        ++line;
        const auto bare = trimmed(whole);
        const auto end = bare.find("\\\\");
        if (bare.find('&') == std::string_view::npos || end == std::string_view::npos) {
            others += !bare.empty();
            continue;
        }
        rows.push_back({line, splitFields(bare.substr(0, end), '&')});
    }
    if (rows.size() < 3 || others > rows.size()) return {};
    return rows;
}

namespace {

/// Which of three columns names the channel: words in every row. 3: none, 4: several.
std::size_t channelOf(const std::vector<std::string>& first) {
    std::size_t channel = 3;
    for (std::size_t i = 0; i < 3 && first.size() == 3; ++i)
        if (!isNumber(first[i]) && !clockSeconds(first[i])) channel = channel == 3 ? i : 4;
    return channel;
}

} // namespace

std::optional<Rows> fromLong(std::string_view text) {
    const auto lines = splitLines(text);
    std::size_t head = 0;
    while (head < lines.size() && trimmed(lines[head]).empty())
        ++head;
    if (head + 4 > lines.size()) return {};
    const char d = delimiterOf(lines[head]);
    const auto names = splitFields(lines[head], d ? d : ',');
    if (names.size() != 3) return {};
    const auto channel = channelOf(splitFields(lines[head + 1], d));
    if (channel > 2) return {};
    const std::size_t value = channel == 2 ? 1 : 2, time = 3 - channel - value;
    if (readHeading(names[time]).kind != Kind::time) return {};
    constexpr std::size_t mostChannels = 20;
    std::vector<std::string> channels, times;
    std::map<std::string, std::size_t> place;
    std::vector<std::map<std::string, std::string>> rows;
    for (std::size_t i = head + 1; i < lines.size(); ++i) {
        if (trimmed(lines[i]).empty()) continue;
        const auto f = splitFields(lines[i], d);
        if (f.size() != 3) return {};
        if (std::find(channels.begin(), channels.end(), f[channel]) == channels.end()) {
            if (channels.size() >= mostChannels) return {};
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
    Rows out{{head + 1, {names[time]}}};
    out[0].cells.insert(out[0].cells.end(), channels.begin(), channels.end());
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].size() != channels.size()) return {}; // clocks of their own are another matter
        CellRow row{0, {times[i]}};
        for (const auto& c : channels)
            row.cells.push_back(rows[i].at(c));
        out.push_back(std::move(row));
    }
    return out;
}

std::optional<Rows> fromTransposed(std::string_view text) {
    constexpr std::size_t leastNumbers = 10, mostColumns = 20;
    std::vector<std::vector<std::string>> columns;
    for (const auto& line : splitLines(text)) {
        if (trimmed(line).empty()) continue;
        const char d = delimiterOf(line);
        if (!d || columns.size() > mostColumns) return {};
        auto cells = splitFields(line, d);
        while (!cells.empty() && cells.back().empty())
            cells.pop_back();
        if (cells.size() <= leastNumbers || isNumber(cells[0])) return {};
        if (!std::all_of(cells.begin() + 1, cells.end(), [](const auto& c) { return isNumber(c); }))
            return {};
        if (!columns.empty() && cells.size() != columns[0].size()) return {};
        columns.push_back(std::move(cells));
    }
    if (columns.size() < 2) return {};
    Rows out(columns[0].size());
    for (std::size_t i = 0; i < out.size(); ++i)
        for (const auto& c : columns)
            out[i].cells.push_back(c[i]);
    return out;
}

std::optional<Rows> fromOtherHeading(std::string_view text) {
    const auto lines = splitLines(text);
    std::size_t second = 1;
    while (second < lines.size() && trimmed(lines[second]).empty())
        ++second;
    if (second >= lines.size()) return {};
    const char a = delimiterOf(lines[0]), b = delimiterOf(lines[second]);
    if (!a || !b || a == b) return {};
    const auto names = splitFields(lines[0], a), cells = splitFields(lines[second], b);
    if (names.size() != cells.size()) return {};
    for (std::size_t i = 0; i < names.size(); ++i)
        if (isNumber(names[i]) || !isNumber(cells[i])) return {};
    Rows out{{1, names}};
    for (std::size_t i = second; i < lines.size(); ++i)
        out.push_back({i + 1, splitFields(lines[i], b)});
    return out;
}

} // namespace anvil::tables
