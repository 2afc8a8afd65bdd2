#include "heads.h"

#include "shape.h"
#include <algorithm>
#include <anvil/columns/line.h>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr std::size_t linesAbove = 4, mostBlanks = 3;

/// Names of several words are one heading where blanks part the columns: "Time (s) Force (N)".
std::vector<std::string> joinedByBrackets(std::vector<std::string> cells) {
    std::vector<std::string> joined;
    for (auto& c : cells)
        if (!joined.empty() && (c.front() == '(' || c.front() == '['))
            joined.back() += " " + c;
        else
            joined.push_back(std::move(c));
    for (auto& c : joined) // quoted names of several words are beyond blanks
        std::erase(c, '"');
    return joined;
}

std::vector<std::string> fitted(std::vector<std::string> cells, std::size_t width, bool endsBlank,
                                char delimiter) {
    while (cells.size() > width && cells.back().empty())
        cells.pop_back();
    if (cells.size() + 1 == width) cells.insert(endsBlank ? cells.end() : cells.begin(), std::string());
    if (cells.size() != width) return {};
    const bool numbers =
        std::any_of(cells.begin(), cells.end(), [&](const auto& c) { return isNumeric(c, delimiter); });
    return numbers ? std::vector<std::string>{} : cells;
}

bool isKnown(const Heading& h) {
    return h.kind == Kind::time || h.kind == Kind::load || h.kind == Kind::travel || h.kind == Kind::run;
}

/// A line above the numbers, and where it stands.
struct Above {
    std::size_t at = 0;
    bool gap = false; ///< a blank line stands between it and the numbers
    std::vector<std::string> cells;
};

/// The lines above the numbers that are laid out as these are, nearest first; blank ones are passed over.
std::vector<Above> linesAboveOf(const Head& head, const Layout& layout, std::size_t width) {
    const bool endsBlank = head.cells(layout.firstRow, layout.delimiter).back().empty();
    std::vector<Above> out;
    std::size_t blanks = 0;
    for (std::size_t i = layout.firstRow; i-- > 0 && out.size() < linesAbove;) {
        if (head.isBlank(i)) {
            if (++blanks > mostBlanks) break;
            continue;
        }
        auto cells = head.isParted() ? fitted(head.cells(i, layout.delimiter), width, endsBlank, '\t')
                                     : headingCells(head.line(i), layout, width, endsBlank);
        if (cells.empty()) break;
        out.push_back({i, blanks > 0, std::move(cells)});
    }
    return out;
}

} // namespace

std::vector<std::string> headingCells(std::string_view line, const Layout& layout, std::size_t width,
                                      bool endsBlank) {
    auto bare = trimmed(line);
    for (const std::string_view mark : {"#", "//", ";", "%"})
        if (bare.starts_with(mark) && !(mark == ";" && layout.delimiter == ';'))
            bare = trimmed(bare.substr(mark.size()));
    if (layout.delimiter == '\t' && bare.size() < line.size()) { // an empty first column is a column
        const auto lead = std::min(line.find_first_not_of(" \r"), line.size());
        if (lead < line.size() && line[lead] == '\t') bare = line;
    }
    auto cells = splitFields(bare, layout.delimiter);
    if (layout.delimiter == ' ') cells = joinedByBrackets(std::move(cells));
    return fitted(std::move(cells), width, endsBlank, layout.delimiter);
}

bool isUnitsRow(const std::vector<std::string>& cells) {
    std::size_t units = 0, filled = 0;
    for (std::size_t i = 0; i < cells.size(); ++i) {
        std::string_view cell = cells[i];
        if (cell.size() > 2 && (cell.front() == '(' || cell.front() == '['))
            cell = cell.substr(1, cell.size() - 2);
        const auto word = lowered(cell);
        if (cell.empty() || (i == 0 && (word == "unit" || word == "units" || word == "einheit"))) continue;
        ++filled;
        units += looksLikeUnit(cell) || word == "hh:mm:ss";
    }
    return filled > 0 && units == filled;
}

std::vector<Heading> headingsAbove(const Head& head, Layout& layout, std::size_t width) {
    const auto above = linesAboveOf(head, layout, width);
    std::size_t best = 0, bestScore = 0;
    std::vector<Heading> out;
    for (std::size_t k = 0; k < above.size(); ++k) {
        const bool unitsBelow = k > 0 && isUnitsRow(above[k - 1].cells);
        std::vector<Heading> headings;
        std::size_t score = 1, bonus = unitsBelow ? 1 : 0; // names above their units, not these alone
        for (std::size_t i = 0; i < width; ++i) {
            headings.push_back(
                readHeading(above[k].cells[i], unitsBelow ? above[k - 1].cells[i] : std::string()));
            score += 4 * isKnown(headings.back()) + 2 * (headings.back().unit != nullptr);
        }
        if (above[k].gap && score == 1) continue; // a title
        score += bonus;
        if (score > bestScore) {
            bestScore = score;
            best = k;
            out = std::move(headings);
            layout.unitsLine = unitsBelow ? std::string(trimmed(head.line(above[k - 1].at))) : std::string();
        }
    }
    if (!out.empty()) layout.headerLine = std::string(trimmed(head.line(above[best].at)));
    return out;
}

bool isBlockHeading(const std::vector<std::string>& cells, const Layout& layout) {
    constexpr std::size_t longest = 60;
    bool load = false, unit = false, namesOfOld = true;
    std::size_t known = 0;
    for (const auto& cell : cells) {
        if (cell.empty()) continue;
        if (cell.size() > longest || cell.find(':') != std::string::npos || isNumeric(cell, ';'))
            return false;
        for (const auto& item : itemsOf(cell, '.'))
            if (!item.unit.empty()) return false; // "load drop at 12 s" is a remark
        const auto h = readHeading(cell);
        if (!isKnown(h)) continue;
        ++known;
        load = load || h.load > LoadClaim::unlikely;
        unit = unit || h.unit;
        namesOfOld =
            namesOfOld && std::any_of(layout.columns.begin(), layout.columns.end(),
                                      [&](const Column& c) { return lowered(c.header) == lowered(h.name); });
    }
    return load && known >= 2 && (unit || namesOfOld);
}

} // namespace anvil::tables
