#include "value_layout.h"

#include "value_cell.h"
#include <algorithm>
#include <anvil/columns/heading.h>
#include <cctype>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace anvil::tables {

using namespace columns;

namespace {

using Row = std::vector<std::string>;
using Words = std::vector<std::string>;

constexpr std::size_t headLines = 50;
/// A table with a column an option has no more rows than people pull pieces.
constexpr std::size_t mostAcrossRows = 200;

constexpr std::string_view valueWords[] = {
    "value",   "result",   "peak",  "force",    "load",    "strength",     "reading",      "fmax",  "max",
    "maximum", "breaking", "break", "ultimate", "failure", "deceleration", "acceleration", "accel", "decel"};
constexpr std::string_view optionWords[] = {"option", "name",    "product", "kind",    "group",    "item",
                                            "type",   "article", "variant", "brand",   "fastener", "adhesive",
                                            "rope",   "glue",    "sample",  "produkt", "variante"};
constexpr std::string_view conditionWords[] = {"condition", "setting",   "treatment",    "environment",
                                               "substrate", "surface",   "conditioning", "state of",
                                               "exposure",  "untergrund"};
constexpr std::string_view countWords[] = {"rep",    "reps",  "replicate", "no",       "nr",
                                           "number", "test",  "pull",      "specimen", "id",
                                           "run",    "trial", "piece",     "versuch",  "n"};

template <std::size_t n> bool in(const std::string& word, const std::string_view (&words)[n]) {
    return std::find(std::begin(words), std::end(words), word) != std::end(words);
}

/// Cells between blanks; what stands in quotes is one.
Row quotedBlanks(std::string_view line) {
    Row out;
    for (std::size_t i = 0; i < line.size();) {
        if (line[i] == ' ' || line[i] == '\t') {
            ++i;
            continue;
        }
        const char end = line[i] == '"' ? '"' : ' ';
        const std::size_t from = end == '"' ? i + 1 : i, to = std::min(line.find(end, from), line.size());
        out.emplace_back(line.substr(from, to - from));
        i = to + (end == '"' ? 1 : 0);
    }
    return out;
}

bool isValue(const std::string& cell) {
    return !cell.empty() &&
           (quantity::parseNumber(cell) || quantity::parseEntry(cell, {}, &quantity::unit("N")) ||
            (cell.find(',') != std::string::npos &&
             cell.find_first_not_of("0123456789,.-+ ") == std::string::npos));
}

/// 0 or 1: a yes or no, where a heading asks.
bool isFlag(const std::string& cell) { return cell == "0" || cell == "1"; }

struct Name {
    std::string text, unit; ///< of a heading
    Words words;
};
Name nameOf(const std::string& heading) {
    auto [text, unit] = nameAndUnit(heading);
    return {text, unit, wordsIn(text)};
}

bool namesValue(const Name& n) {
    return !n.words.empty() &&
           std::all_of(n.words.begin(), n.words.end(), [](const auto& w) { return in(w, valueWords); });
}
bool namesOption(const Name& n) { return n.words.size() == 1 && in(n.words[0], optionWords); }
bool namesCondition(const Name& n) { return !n.words.empty() && in(n.words[0], conditionWords); }
bool is(const Name& n, std::initializer_list<std::string_view> words) {
    const auto t = lowered(n.text);
    return std::find(words.begin(), words.end(), t) != words.end();
}

/// "Test 3", "#2", "4", "Specimen 1 (kg)": the n-th result of a row.
bool namesReplicate(const Name& n) {
    auto words = n.words;
    if (words.empty()) return false;
    auto& last = words.back();
    const auto digits = last.find_last_not_of("0123456789");
    if (digits != std::string::npos && digits + 1 == last.size()) return false;
    if (last.size() > 6) return false;
    last.resize(digits == std::string::npos ? 0 : digits + 1);
    if (last.empty()) words.pop_back();
    return std::all_of(words.begin(), words.end(), [](const auto& w) {
        return in(w, countWords) || in(w, valueWords) || w == "measurement";
    });
}

/// A column that names one thing a row, in words.
bool inWords(const std::vector<Row>& rows, std::size_t column) {
    std::size_t words = 0, filled = 0;
    for (const auto& r : rows)
        if (column < r.size() && !r[column].empty()) {
            ++filled;
            words += !isValue(r[column]);
        }
    return filled > 0 && 2 * words > filled;
}

bool inValues(const std::vector<Row>& rows, std::size_t column) {
    std::size_t values = 0, others = 0;
    for (const auto& r : rows)
        if (column < r.size() && !r[column].empty() && r[column] != "-" && r[column] != "—")
            (isValue(r[column]) ? values : others)++;
    return values > 0 && values >= 4 * others;
}

/// 1, 2, 3 … or 1, 2, 3, 1, 2 …: numbers that only count the pulls.
bool counts(const std::vector<Row>& rows, std::size_t column) {
    double last = 0;
    std::size_t n = 0;
    for (const auto& r : rows) {
        if (column >= r.size()) continue;
        const auto v = quantity::parseNumber(r[column]);
        if (!v || (*v != 1 && *v != last + 1)) return false;
        last = *v;
        ++n;
    }
    return n > 2;
}

/// A column without a meaning by its heading whose cells all say how a result stands, and not all the same.
bool saysStanding(const std::string& heading, const std::vector<Row>& rows, std::size_t column) {
    std::size_t filled = 0, told = 0;
    for (const auto& r : rows) {
        if (column >= r.size() || r[column].empty()) continue;
        ++filled;
        const auto stands = standsUnder(heading, r[column]);
        if (!stands || isValue(r[column]) != isFlag(r[column])) return false;
        told += stands->isAside || stands->bound != stats::Bound::exact;
    }
    return filled > 0 && told > 0;
}

/// One row a result, columns by their headings. Whether options and values were both found.
bool layOutLong(ValueLayout& out, const std::vector<Name>& names, const Row& heading,
                const std::vector<Row>& rows) {
    std::optional<std::size_t> material;
    bool value = false;
    for (std::size_t i = 0; i < names.size(); ++i) {
        const auto& n = names[i];
        if (namesOption(n) && !out.option) {
            out.option = i;
        } else if (is(n, {"material"}) && !material) {
            material = i;
        } else if (namesCondition(n)) {
            out.conditions.push_back(i);
        } else if (!value && namesValue(n)) {
            out.values.push_back({i, "", n.unit, n.text}); // the unit of this column, never of a later one
            value = true;
        } else if (is(n, {"unit", "units", "einheit"}) && !out.unit) {
            out.unit = i;
        } else if (is(n, {"state", "standing", "status"}) && !out.state) {
            out.state = i;
            out.stateHeading = n.text;
        } else if (is(n, {"upper", "to"}) && !out.upper) {
            out.upper = i;
        } else if (is(n, {"specimen", "piece", "label", "sample id", "specimen id", "piece id"}) &&
                   !out.piece) {
            out.piece = i;
        } else if (is(n, {"block", "batch", "board", "plate"}) && !out.block) {
            out.block = i;
        } else if (is(n, {"note", "remark", "comment", "reason", "notes", "remarks"}) && !out.note) {
            out.note = i;
        } else if (!out.state && saysStanding(n.text, rows, i)) {
            out.state = i;
            out.stateHeading = n.text;
        } else if (!value && heading[i] != "n" && !counts(rows, i) &&
                   quantity::findUnit(heading[i], quantity::Dimension::force)) {
            out.values.push_back({i, "", heading[i]}); // headed by nothing but its unit
            value = true;
        } else if (!heading[i].empty()) {
            out.notUsed.push_back(heading[i]);
        }
    }
    if (material) { // what it is made of tells options apart, or what they were pulled out of
        if (out.option)
            out.conditions.push_back(*material);
        else
            out.option = material;
    }
    return out.option && value;
}

/// One row an option, its results side by side.
bool layOutWide(ValueLayout& out, const std::vector<Name>& names, const Row& heading,
                const std::vector<Row>& rows) {
    std::vector<std::size_t> replicates;
    for (std::size_t i = 0; i < names.size(); ++i)
        if (namesReplicate(names[i]) && inValues(rows, i)) replicates.push_back(i);
    if (replicates.size() < 2) return false;
    std::optional<std::size_t> option;
    std::vector<std::size_t> conditions;
    std::vector<std::string> notUsed;
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (std::find(replicates.begin(), replicates.end(), i) != replicates.end()) continue;
        if (namesCondition(names[i]) && inWords(rows, i))
            conditions.push_back(i);
        else if (!option && inWords(rows, i) && !isSummary(names[i].text))
            option = i;
        else if (is(names[i], {"unit", "units", "einheit"}))
            out.unit = i;
        else if (!heading[i].empty())
            notUsed.push_back(heading[i]);
    }
    if (!option) return false;
    out.option = option;
    out.conditions = conditions;
    out.notUsed = notUsed;
    for (const auto i : replicates)
        out.values.push_back({i, "", names[i].unit, names[i].text});
    return true;
}

/// A column called by a summary's name whose numbers are worked out of those beside them, or that has but
/// one. One called "S" or "Mean" with numbers of its own is an option.
bool summarises(const std::vector<Name>& names, const std::vector<Row>& rows, std::size_t column) {
    if (!isSummary(names[column].text)) return false;
    std::size_t own = 0, filled = 0;
    for (const auto& r : rows) {
        const auto value = column < r.size() ? quantity::parseNumber(r[column]) : fail("");
        if (!value) continue;
        std::vector<double> beside;
        for (std::size_t i = 0; i < r.size() && i < names.size(); ++i)
            if (const auto other = quantity::parseNumber(r[i]); other && !isSummary(names[i].text))
                beside.push_back(*other);
        ++filled;
        own += !isWorkedOut(*value, beside);
    }
    return filled < 2 || 2 * own < filled;
}

/// One column an option, one row a replicate.
bool layOutAcross(ValueLayout& out, const std::vector<Name>& names, const Row& heading,
                  const std::vector<Row>& rows) {
    if (rows.size() > mostAcrossRows) return false;
    std::vector<ValueColumn> columns;
    std::vector<std::string> notUsed;
    // "P", "Q", "R", "S": options called by letters, none of which is a second or a newton.
    const bool letters =
        std::count_if(names.begin(), names.end(), [](const Name& n) { return n.text.size() == 1; }) >= 3;
    for (std::size_t i = 0; i < names.size(); ++i) {
        const bool letter = letters && heading[i].size() == 1;
        const auto kind =
            letter ? Kind::unknown : readHeading(names[i].text).kind; // "Gorse (kN)" is no load's name
        const bool counter =
            i == 0 && (heading[i].empty() || namesReplicate({names[i].text, "", names[i].words}) ||
                       (!names[i].words.empty() && in(names[i].words[0], countWords)) || counts(rows, i));
        if (counter || summarises(names, rows, i)) {
            if (!heading[i].empty()) notUsed.push_back(heading[i]);
            continue;
        }
        if (kind == Kind::time || kind == Kind::travel || kind == Kind::load || namesValue(names[i]) ||
            heading[i].empty() || !inValues(rows, i) || (!letter && quantity::findUnit(heading[i])))
            return false; // a log, or something else
        columns.push_back({i, names[i].text, names[i].unit});
    }
    if (columns.size() < 2) return false;
    out.values = columns;
    out.notUsed = notUsed;
    return true;
}

/// Without headings: option, value; option, condition, value; then unit and standing.
void layOutBare(ValueLayout& out, const std::vector<Row>& rows) {
    const std::size_t width = rows.empty() ? 0 : rows[0].size();
    out.option = 0;
    out.values.push_back({width == 2 ? 1U : 2U, "", ""});
    if (width >= 3 && !counts(rows, 1)) out.conditions.push_back(1);
    if (width >= 4) out.unit = 3;
    if (width >= 5) out.state = 4;
}

char delimiterOf(const std::vector<std::string_view>& lines) {
    char best = '\0';
    std::size_t most = 0;
    for (const char d : {'\t', ';', ',', '|'}) {
        std::size_t count = 0;
        for (std::size_t i = 0; i < std::min(lines.size(), headLines); ++i)
            count += splitFields(lines[i], d).size() >= 2;
        if (count > most) {
            most = count;
            best = d;
        }
    }
    if (best) return best;
    for (std::size_t i = 0; i < std::min(lines.size(), headLines); ++i)
        if (quotedBlanks(lines[i]).size() >= 2) return ' ';
    return '\0';
}

bool remark(std::string_view line) {
    const auto bare = trimmed(line);
    return bare.empty() || bare.starts_with("#") || bare.starts_with("//") || bare.starts_with("sep=");
}

} // namespace

std::vector<std::string> cellsOf(std::string_view line, const ValueLayout& layout) {
    auto cells = layout.delimiter == ' ' ? quotedBlanks(line) : splitFields(line, layout.delimiter);
    if (layout.rowNames && !cells.empty()) cells.erase(cells.begin());
    return cells;
}

Expected<ValueLayout> layOutValues(const std::vector<std::string_view>& lines) {
    ValueLayout out;
    out.delimiter = delimiterOf(lines);
    if (!out.delimiter)
        return fail("no columns can be told apart in it: a table of option, condition and value is needed");
    std::size_t head = 0; // titles above the table fill one cell
    const auto filled = [&](std::string_view line) {
        const auto cells = cellsOf(line, out);
        return static_cast<std::size_t>(
            std::count_if(cells.begin(), cells.end(), [](const auto& c) { return !c.empty(); }));
    };
    while (head < lines.size() && (remark(lines[head]) || filled(lines[head]) < 2))
        ++head;
    if (head == lines.size()) return fail("there are no rows of results in it");
    auto heading = cellsOf(lines[head], out);
    std::vector<Row> rows;
    for (std::size_t i = head + 1; i < lines.size() && rows.size() < 1000; ++i)
        if (!remark(lines[i])) rows.push_back(cellsOf(lines[i], out));
    if (!rows.empty() && rows[0].size() == heading.size() + 1 && out.delimiter == ' ') {
        out.rowNames = true;
        for (auto& r : rows)
            if (!r.empty()) r.erase(r.begin());
    }
    std::vector<Name> names;
    names.reserve(heading.size());
    for (const auto& h : heading)
        names.push_back(nameOf(h));
    const bool words = std::none_of(heading.begin(), heading.end(), [](const auto& c) { return isValue(c); });
    bool numbered = heading.size() > 2 && (heading[0].empty() || namesOption(names[0]));
    for (std::size_t i = 1; i < heading.size() && numbered; ++i) // Option, 1, 2, 3, mean
        numbered = heading[i] == fmt::format("{}", i) || (i > 2 && !isValue(heading[i]));
    if (!words && !numbered) {
        out.firstRow = head;
        rows.insert(rows.begin(), heading);
        layOutBare(out, rows);
        return out;
    }
    out.firstRow = head + 1;
    const ValueLayout bare = out;
    for (const auto layOut : {+[](ValueLayout&o, const std::vector<Name>&n, const Row&h,
                                  const std::vector<Row>&r) { return layOutWide(o, n, h, r); },
                              +[](ValueLayout&o, const std::vector<Name>&n, const Row&h,
                                  const std::vector<Row>&r) { return layOutLong(o, n, h, r); },
                              +[](ValueLayout&o, const std::vector<Name>&n, const Row&h,
                                  const std::vector<Row>&r) { return layOutAcross(o, n, h, r); }}) {
        out = bare;
        if (layOut(out, names, heading, rows)) return out;
    }
    ValueLayout seen = bare;
    layOutLong(seen, names, heading, rows);
    if (seen.option || !seen.values.empty())
        return fail(fmt::format("the heading has no column named {}", seen.option ? "value" : "option"));
    out = bare; // a first row of words without a heading's: option, condition, value with a doubt in words
    out.firstRow = head;
    rows.insert(rows.begin(), heading);
    layOutBare(out, rows);
    return out;
}

} // namespace anvil::tables
