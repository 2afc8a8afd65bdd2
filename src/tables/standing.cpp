#include "standing.h"

#include <algorithm>
#include <anvil/columns/marks.h>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace anvil::tables {

using namespace columns;

void keepRows(Columns& columns, const std::vector<char>& keep) {
    std::vector<std::size_t> moved(columns.rows + 1, 0); // a row's new place; of one left out: the next one's
    for (std::size_t i = 0; i < columns.rows; ++i)
        moved[i + 1] = moved[i] + (keep[i] != 0);
    for (auto& values : columns.values) {
        if (values.empty()) continue;
        for (std::size_t i = 0; i < columns.rows; ++i)
            if (keep[i]) values[moved[i]] = values[i];
        values.resize(moved[columns.rows]);
    }
    for (auto& b : columns.breaks)
        b.row = moved[std::min(b.row, columns.rows)];
    for (auto& row : columns.overloads)
        row = moved[std::min(row, columns.rows)];
    columns.overloads.erase(std::unique(columns.overloads.begin(), columns.overloads.end()),
                            columns.overloads.end());
    columns.standings.clear();
    columns.rows = moved[columns.rows];
}

namespace {

enum class Says { reading, invalid, overload };

/// What a word of a column of standings says, where another one is the commonest.
Says saysOf(const std::string& word, const std::string& header) {
    const auto mark = markOf(word);
    if (mark == Mark::overload) return Says::overload;
    if (mark == Mark::invalid) return Says::invalid;
    const bool no = word == "0" || word == "false" || word == "no" || word == "n";
    if (tellsWrong(header))
        return no || mark == Mark::missing || word == "ok" ? Says::reading : Says::invalid;
    return no ? Says::invalid : Says::reading;
}

/// How many rows a word marks, for the sentence.
struct Marked {
    std::string word;
    std::size_t rows = 0;
};

void sayMarked(const std::vector<Marked>& marked, const std::string& header, Log& log) {
    for (const auto& m : marked)
        if (m.rows)
            log.notes.push_back(fmt::format("{} marked \"{}\" under {} and out of the reading.",
                                            m.rows == 1 ? "1 row is" : fmt::format("{} rows are", m.rows),
                                            shortened(m.word, 40), shortened(header, 40)));
}

void byStandings(const Layout& layout, const Columns& columns, std::vector<char>& keep,
                 std::vector<std::size_t>& overloads, Log& log) {
    const auto* column = layout.column(Role::standing);
    if (!column || columns.standings.size() != columns.rows) return;
    std::vector<std::size_t> counts(columns.standingWords.size(), 0);
    for (const auto s : columns.standings)
        ++counts[s];
    if (counts.empty()) return;
    const auto good =
        static_cast<std::size_t>(std::max_element(counts.begin(), counts.end()) - counts.begin());
    std::vector<Says> says(counts.size(), Says::reading);
    for (std::size_t w = 0; w < counts.size(); ++w)
        if (w != good) says[w] = saysOf(columns.standingWords[w], column->header);
    const auto& load = columns.of(layout, Role::load);
    constexpr double smallStep = 0.1;
    std::optional<std::size_t> last; // kept
    std::vector<std::size_t> gone(counts.size(), 0);
    for (std::size_t i = 0; i < columns.rows; ++i) {
        const auto s = says[columns.standings[i]];
        if (s == Says::overload) overloads.push_back(i);
        // A load that goes on from the last one is shown, and at least as much was felt.
        const bool goesOn = last && std::abs(load[i] - load[*last]) <= smallStep * std::abs(load[*last]);
        if (s == Says::reading || (s == Says::overload && goesOn))
            last = i;
        else
            keep[i] = 0, ++gone[columns.standings[i]];
    }
    std::vector<Marked> marked;
    for (std::size_t w = 0; w < gone.size(); ++w)
        marked.push_back({columns.standingWords[w], gone[w]});
    sayMarked(marked, column->header, log);
}

/// 999 with as many nines and decimals as a display has, or the last count of a converter.
bool endsARange(double v) {
    static constexpr double counts[] = {32767,   32768,    65535,      8388607,
                                        8388608, 16777215, 2147483647, 2147483648};
    const double a = std::abs(v);
    if (std::find(std::begin(counts), std::end(counts), a) != std::end(counts)) return true;
    for (double scale = 1; scale <= 1000; scale *= 10) {
        const double n = a * scale, whole = std::round(n);
        if (std::abs(n - whole) > 1e-6 * std::max(1.0, n)) continue;
        const double next = whole + 1;
        const double power = std::round(std::log10(next));
        if (whole >= 999 && std::pow(10.0, power) == next) return true;
    }
    return false;
}

/// Values at the end of a device's range that come again and stand far above all others.
void byRangeEnds(const Layout& layout, const Columns& columns, std::vector<char>& keep,
                 std::vector<std::size_t>& overloads, Log& log) {
    constexpr double gap = 0.7; // of the end of the range: what all others stay below
    const auto& load = columns.of(layout, Role::load);
    double top = 0;
    for (std::size_t i = 0; i < load.size(); ++i)
        if (keep[i]) top = std::max(top, std::abs(load[i]));
    if (!endsARange(top)) return;
    std::size_t again = 0;
    double below = 0;
    for (std::size_t i = 0; i < load.size(); ++i) {
        if (!keep[i]) continue;
        if (std::abs(load[i]) == top)
            ++again;
        else
            below = std::max(below, std::abs(load[i]));
    }
    if (again < 2 || below > gap * top || 2 * again > load.size()) return;
    for (std::size_t i = 0; i < load.size(); ++i)
        if (keep[i] && std::abs(load[i]) == top) {
            keep[i] = 0;
            overloads.push_back(i);
        }
    log.notes.push_back(fmt::format("{} rows show {:g}, the end of a display's range, far above all others: "
                                    "they are left out as overload.",
                                    again, top));
}

} // namespace

void leaveOutMarked(const Layout& layout, Columns& columns, Log& log) {
    std::vector<char> keep(columns.rows, 1);
    std::vector<std::size_t> overloads;
    byStandings(layout, columns, keep, overloads, log);
    byRangeEnds(layout, columns, keep, overloads, log);
    const auto gone = static_cast<std::size_t>(std::count(keep.begin(), keep.end(), 0));
    if (gone == 0 && overloads.empty()) return;
    columns.rowsMarked += gone;
    if (!overloads.empty() && log.overload.empty())
        log.overload = "The file says overload beside the load: a peak there is \"at least\".";
    columns.overloads.insert(columns.overloads.end(), overloads.begin(), overloads.end());
    std::sort(columns.overloads.begin(), columns.overloads.end());
    keepRows(columns, keep);
}

void leaveOutSums(const Layout& layout, Columns& columns, Log& log) {
    constexpr std::size_t least = 5;
    const auto& force = columns.of(layout, Role::load);
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
    std::vector<char> keep(columns.rows, 1);
    keep.back() = 0;
    keepRows(columns, keep);
    ++log.rowsLeftOut;
    log.notes.push_back("Its last row is the sum of those above it and was left out.");
}

} // namespace anvil::tables
