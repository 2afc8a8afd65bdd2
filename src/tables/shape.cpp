#include "shape.h"

#include <algorithm>
#include <anvil/columns/number.h>
#include <fmt/format.h>
#include <map>

namespace anvil::tables {

using namespace columns;

bool isNumeric(std::string_view cell, char delimiter) {
    const auto f = trimmed(cell);
    if (readField(f, '.') || clockSeconds(f)) return true;
    return delimiter != ',' && readField(f, ',');
}

namespace {

/// The next line that holds something.
std::size_t after(const Head& head, std::size_t i) {
    for (++i; i < head.size() && head.isBlank(i);)
        ++i;
    return i;
}

/// Where the table begins: the first of enough rows one after another, else the first of all.
std::size_t beginOf(const Head& head, const std::vector<std::size_t>& rows) {
    constexpr std::size_t enough = 5;
    std::size_t begin = 0, longest = 0, best = 0;
    for (std::size_t k = 0; k < rows.size(); ++k) {
        if (k > 0 && rows[k] > after(head, rows[k - 1])) begin = k;
        if (k - begin + 1 <= longest) continue;
        longest = k - begin + 1;
        best = begin;
        if (longest == enough) break;
    }
    return rows[best];
}

/// Rows of numbers under one delimiter; at least one field a row must be a number, the rest a number or a
/// word.
Shape tryShape(const Head& head, char delimiter) {
    struct Width {
        std::size_t columns = 0;
        std::vector<std::size_t> rows;
    };
    std::map<std::size_t, Width> byWidth;
    for (std::size_t i = 0; i < head.size(); ++i) {
        const auto fields = head.cells(i, delimiter);
        std::size_t numbers = 0, filled = 0;
        for (const auto& f : fields) {
            filled += !f.empty();
            numbers += isNumeric(f, delimiter);
        }
        // One word a row, or between cells that are clearly parted as many words as numbers.
        const bool wordy = delimiter != ' ' && numbers >= 2 && 2 * numbers >= filled;
        if (numbers == 0 || (numbers + 1 < filled && !wordy)) continue;
        auto& w = byWidth[fields.size()];
        w.rows.push_back(i);
        w.columns = std::max(w.columns, numbers);
    }
    Shape best;
    best.delimiter = delimiter;
    for (const auto& [width, w] : byWidth)
        if (w.rows.size() > best.rows) {
            best.rows = w.rows.size();
            best.columns = w.columns;
            best.firstRow = beginOf(head, w.rows);
        }
    return best;
}

/// What the commas and points of a column say.
struct Marks {
    bool comma = false;        ///< there are commas in its numbers
    bool decimal = false;      ///< one is not followed by exactly three digits, or leads with a zero: 0,012
    bool grouping = false;     ///< one stands before a point (1,250.5) or another comma (1,250,000)
    bool point = false;        ///< there are points, and
    bool pointDecimal = false; ///< one of them can only be a decimal mark
    bool settled() const { return !comma || decimal || grouping; }
};

void weigh(Marks& seen, const std::string& field, char delimiter) {
    if (!isNumeric(field, delimiter) || field.find(':') != std::string::npos) return;
    const auto point = field.find('.'), at = field.find(',');
    if (point != std::string::npos) {
        seen.point = true;
        const auto rest = field.size() - point - 1;
        const bool leads = field[0] == '0' || field.starts_with("-0") || field.starts_with("+0");
        seen.pointDecimal =
            seen.pointDecimal || (at == std::string::npos && (rest != 3 || leads || point > 4));
    }
    if (at == std::string::npos) return;
    seen.comma = true;
    if (delimiter == ',') { // quoted between commas that part the columns
        seen.grouping = true;
        return;
    }
    const auto rest = std::string_view(field).substr(at + 1);
    if (rest.find_first_of(".,") != std::string_view::npos) {
        seen.grouping = true;
        return;
    }
    const bool leadingZero = field[0] == '0' || field.starts_with("-0") || field.starts_with("+0");
    seen.decimal = seen.decimal || rest.size() != 3 || leadingZero || at > 4 || (point < at);
}

} // namespace

Shape shapeOf(const Head& head) {
    if (head.isParted()) return tryShape(head, '\t');
    Shape best;
    for (const char delimiter : {'\t', ';', ',', '|', '^', ' '}) {
        const auto s = tryShape(head, delimiter);
        if (s.score() > best.score()) best = s;
    }
    return best;
}

void decideDecimals(const Head& head, const Hints& hints, Layout& layout) {
    const char d = layout.delimiter;
    std::vector<Marks> seen(layout.columns.size());
    const auto weighRow = [&](const std::vector<std::string>& cells) {
        for (std::size_t i = 0; i < std::min(cells.size(), seen.size()); ++i)
            weigh(seen[i], cells[i], d);
    };
    for (std::size_t i = layout.firstRow; i < head.size(); ++i)
        weighRow(head.cells(i, d));
    const auto settled = [&] {
        return std::all_of(seen.begin(), seen.end(), [](const Marks& m) { return m.settled(); });
    };
    if (!settled())
        head.beyond(d, [&](const std::vector<std::string>& cells) {
            weighRow(cells);
            return !settled();
        });
    const bool commaFile = std::any_of(seen.begin(), seen.end(), [](const Marks& m) { return m.decimal; });
    for (std::size_t i = 0; i < seen.size(); ++i) {
        auto& c = layout.columns[i];
        const auto& m = seen[i];
        c.fractions = m.decimal || m.point;
        if (m.decimal) {
            c.decimal = ',';
        } else if (m.grouping) {
            c.grouped = true;
        } else if (m.comma) { // 1,250 line after line
            const bool known = commaFile || hints.decimal == ',';
            c.decimal = hints.decimal == '.' && !commaFile ? '.' : ',';
            c.grouped = c.decimal == '.';
            c.decimalUnsure = !(known || hints.decimal);
        } else if (commaFile && m.point && !m.pointDecimal && d != ',') { // 1.250 beside 0,05
            c.decimal = ',';
            c.grouped = true;
        }
    }
}

Expected<void> refuseSplitDecimals(const Head& head, const Layout& layout, std::size_t width) {
    if (head.isParted() || layout.firstRow == 0 || layout.delimiter != ',') return {};
    const auto names = head.cells(layout.firstRow - 1, ',');
    const bool words = names.size() > 1 && std::none_of(names.begin(), names.end(), [](const auto& n) {
                           return n.empty() || readNumber(n, '.');
                       });
    if (!words || width <= names.size() || width > 2 * names.size() || width == names.size() + 1) return {};
    return fail(fmt::format("its rows have {} fields where the heading names {}: decimal commas "
                            "cannot be told from the commas between columns",
                            width, names.size()));
}

} // namespace anvil::tables
