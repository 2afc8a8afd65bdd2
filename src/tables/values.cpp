#include <anvil/tables/values.h>

#include "documents.h"
#include "value_cell.h"
#include "value_layout.h"
#include <algorithm>
#include <anvil/columns/heading.h>
#include <fmt/format.h>
#include <map>

namespace anvil::tables {

using namespace columns;

namespace {

/// One spelling for names that differ in case and blanks only: the first one met.
std::string sameSpelling(const std::string& name, std::map<std::string, std::string>& known) {
    std::string folded, clean;
    for (const auto& w : splitFields(composed(name), ' ')) {
        folded += (folded.empty() ? "" : " ") + lowered(w);
        clean += (clean.empty() ? "" : " ") + w;
    }
    return known.try_emplace(folded, clean).first->second;
}

/// Goes through the rows of a table under a layout.
class Rows {
public:
    Rows(const ValueLayout& layout, const std::vector<std::string_view>& lines) : m_layout(layout) {
        std::vector<std::string> values;
        std::size_t rows = 0, blank = 0;
        for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
            if (trimmed(lines[i]).empty()) continue;
            const auto cells = cellsOf(lines[i], layout);
            for (const auto& v : layout.values)
                if (v.at < cells.size()) values.push_back(cells[v.at]);
            if (!layout.option || *layout.option >= cells.size()) continue;
            ++rows;
            blank += cells[*layout.option].empty();
        }
        m_comma = commasIn(values);
        m_summaries = summaryRows(lines, layout);
        m_merged = 2 * blank + 1 >= rows && blank > 0;
    }

    bool commaUnsure() const { return m_comma == Comma::unsure; }
    ValueTable table;

    void add(std::size_t line, const std::vector<std::string>& cells) {
        const auto at = [&](const std::optional<std::size_t>& place) {
            return place && *place < cells.size() ? cells[*place] : std::string();
        };
        std::string option = at(m_layout.option), condition;
        for (const auto place : m_layout.conditions)
            if (const auto c = at(place); !c.empty()) condition += (condition.empty() ? "" : " ") + c;
        const auto& first = m_layout.option ? option : cells.empty() ? option : cells[0];
        if (std::binary_search(m_summaries.begin(), m_summaries.end(), line)) {
            bad(line, fmt::format("is a summary (\"{}\"), not a result", shortened(first, 40)), false);
            return;
        }
        if (m_layout.option && option.empty() && m_merged) { // written in the first row of its group only
            option = m_lastOption;
            if (condition.empty()) condition = m_lastCondition;
        }
        m_lastOption = option;
        m_lastCondition = condition;
        bool any = false;
        for (const auto& column : m_layout.values) {
            const auto text = at(column.at);
            if (text.empty() && m_layout.values.size() > 1) continue; // fewer pulls of this option
            any = true;
            addValue(line, column.option.empty() ? option : column.option, condition, column, text, at);
        }
        if (!any) bad(line, "has no value", false);
    }

private:
    void bad(std::size_t line, std::string why, bool mayHideAResult = true) {
        if (mayHideAResult && table.lost++ == 0) table.firstLost = table.problems.size();
        table.problems.push_back({line, std::move(why)});
    }

    template <class At>
    void addValue(std::size_t line, const std::string& option, const std::string& condition,
                  const ValueColumn& column, const std::string& text, const At& at) {
        if (option.empty()) return bad(line, "has no option");
        if (text.empty() || text == "-" || text == "—" || text == "–" || lowered(text) == "n/a")
            return bad(line, "has no value", false);
        ValueRow row;
        row.line = line;
        row.option = sameSpelling(option, m_options);
        row.condition = sameSpelling(condition, m_conditions);
        row.block = at(m_layout.block);
        row.note = at(m_layout.note);
        row.piece = at(m_layout.piece);
        row.asTyped = text;
        auto unitText = at(m_layout.unit);
        if (unitText.empty()) unitText = column.unitText;
        const quantity::Unit* unit = nullptr;
        if (!unitText.empty()) {
            auto u = quantity::findUnit(unitText, quantity::Dimension::force);
            if (!u) u = quantity::findUnit(unitText);
            if (!u) return bad(line, u.error().message);
            const auto* byName = unitByName(column.name, unitText);
            unit = byName ? byName : *u;
        }
        const auto stands = standsUnder(m_layout.stateHeading, at(m_layout.state));
        if (!stands)
            return bad(line,
                       fmt::format("\"{}\" is not a standing: use exact, above, below, between or aside",
                                   at(m_layout.state)));
        auto cell = readCell(text, unit, m_comma);
        if (!cell) return bad(line, cell.error().message, !(standsFrom(text) && standsFrom(text)->isAside));
        row.unit = cell->unit;
        row.value = cell->value;
        if (stands->isAside || stands->bound != stats::Bound::exact) stands->mark(row.value);
        if (row.value.bound == stats::Bound::between && !at(m_layout.upper).empty()) {
            const auto upper = quantity::parseNumber(at(m_layout.upper));
            if (!upper || *upper < row.value.value)
                return bad(line,
                           fmt::format("\"{}\" cannot be the upper bound of {}", at(m_layout.upper), text));
            row.value.upper = *upper;
        } else if (row.value.bound == stats::Bound::between && row.value.upper < row.value.value) {
            return bad(line, "says between but gives no upper bound");
        }
        table.hasConditions = table.hasConditions || !row.condition.empty();
        table.rows.push_back(std::move(row));
    }

    const ValueLayout& m_layout;
    Comma m_comma = Comma::none;
    bool m_merged = false;
    std::vector<std::size_t> m_summaries; ///< lines, counted from 1
    std::string m_lastOption, m_lastCondition;
    std::map<std::string, std::string> m_options, m_conditions; ///< as first spelled
};

Expected<ValueTable> valuesIn(const Text& text) {
    const auto lines = splitLines(text.view);
    const auto layout = layOutValues(lines);
    if (!layout) return tl::unexpected(layout.error());
    Rows rows(*layout, lines);
    if (rows.commaUnsure())
        return fail(
            "every comma in its values is followed by three digits, and 1,250 can be 1.25 or 1250: write "
            "them with points, or without grouping marks");
    for (std::size_t i = layout->firstRow; i < lines.size(); ++i) {
        const auto bare = trimmed(lines[i]);
        if (bare.empty() || bare.starts_with("#") || bare.starts_with("//")) continue; // a remark
        rows.add(i + 1, cellsOf(lines[i], *layout));
    }
    auto& table = rows.table;
    table.notUsed = layout->notUsed;
    if (table.rows.empty())
        return fail(table.problems.empty() ? std::string("there are no rows of results in it")
                                           : fmt::format("no row can be used: line {} {}",
                                                         table.problems[0].line, table.problems[0].reason));
    return std::move(table);
}

} // namespace

std::string ValueTable::lossText() const {
    if (lost == 0) return {};
    const auto& p = problems[firstLost];
    return fmt::format("{} of its {} results would be left out (line {} {})", lost, rows.size() + lost,
                       p.line, p.reason);
}

Expected<ValueTable> readValues(std::string_view bytes, const std::string& sheet) {
    const auto loose = unpacked(bytes);
    if (!loose) return tl::unexpected(loose.error());
    if (*loose) bytes = **loose;
    const auto document = openDocument(bytes);
    if (!document) return tl::unexpected(document.error());
    Text text;
    if (!*document) {
        if (auto ok = decode(bytes, text); !ok) return tl::unexpected(ok.error());
        return valuesIn(text);
    }
    std::vector<std::string> with;
    Expected<ValueTable> found = fail(""), first = fail("");
    for (std::size_t i = 0; i < (*document)->sheets.size(); ++i) {
        const auto& s = (*document)->sheets[i];
        const bool named = lowered(s.name) == lowered(sheet) || fmt::format("{}", i + 1) == sheet;
        if ((!sheet.empty() && !named) || (sheet.empty() && s.hidden && (*document)->sheets.size() > 1))
            continue;
        text.view = s.text;
        auto table = valuesIn(text);
        if (with.empty() && !first) first = table;
        if (!table) continue;
        if (with.empty()) found = std::move(table);
        with.push_back(s.name);
    }
    if (with.size() > 1)
        return fail(fmt::format("several of its sheets hold results (\"{}\" and \"{}\"): {}", with[0],
                                with[1], asksForSheet),
                    Wants::sheet);
    if (with.size() == 1) return found;
    if (!first && first.error().message.empty()) return fail(fmt::format("there is no sheet \"{}\"", sheet));
    return first;
}

Expected<const quantity::Unit*> unify(std::vector<ValueRow>& rows) {
    const auto* first = rows.empty() ? nullptr : rows.front().unit;
    for (auto& r : rows) {
        if (!r.unit != !first)
            return fail(
                fmt::format("line {} has {} unit although line {} has {}: give all rows a unit or none",
                            r.line, r.unit ? "a" : "no", rows.front().line, first ? "one" : "none"));
        if (!first || r.unit == first) continue;
        const auto value = quantity::convert(r.value.value, *r.unit, *first),
                   upper = quantity::convert(r.value.upper, *r.unit, *first);
        if (!value) return fail(fmt::format("line {}: {}", r.line, value.error().message));
        r.value.value = *value;
        r.value.upper = *upper;
        r.unit = first;
    }
    return first;
}

} // namespace anvil::tables
