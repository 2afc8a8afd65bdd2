// Rows about results that are no results: means, sums, spreads.
#include "value_layout.h"

#include <algorithm>
#include <anvil/columns/heading.h>
#include <cmath>
#include <map>

namespace anvil::tables {

using namespace columns;

bool isSummary(const std::string& name) {
    static constexpr std::string_view words[] = {
        "mean",   "average", "avg",    "max",      "min", "maximum", "minimum",    "total", "sum",
        "median", "std",     "stdev",  "sd",       "cv",  "count",   "mittelwert", "summe", "n",
        "range",  "moyenne", "mittel", "standard", "s",   "cov",     "se"};
    const auto in = wordsIn(name);
    return !in.empty() && in.size() <= 3 &&
           std::find(std::begin(words), std::end(words), in[0]) != std::end(words);
}

bool isWorkedOut(double value, const std::vector<double>& of) {
    if (of.size() < 2) return false;
    const auto n = static_cast<double>(of.size());
    auto sorted = of;
    std::sort(sorted.begin(), sorted.end());
    double sum = 0, squares = 0;
    for (const double x : of)
        sum += x;
    const double mean = sum / n;
    for (const double x : of)
        squares += (x - mean) * (x - mean);
    const double s = std::sqrt(squares / (n - 1)), all = std::sqrt(squares / n);
    const double median = 0.5 * (sorted[(of.size() - 1) / 2] + sorted[of.size() / 2]);
    const auto is = [&](double what, double within) {
        return std::abs(value - what) <= within * std::abs(what);
    };
    constexpr double digits = 2e-3, fewDigits = 0.06; // what is left of rounding
    return is(mean, digits) || is(sum, digits) || is(median, digits) || value == sorted.front() ||
           value == sorted.back() || value == n || is(s, fewDigits) || is(all, fewDigits) ||
           is(s / mean, fewDigits) || is(100 * s / mean, fewDigits) || is(s / std::sqrt(n), fewDigits) ||
           is(sorted.back() - sorted.front(), digits);
}

namespace {

/// "Oak average": the option before the word of a summary; empty where there is none.
std::string nameBefore(const std::string& name) {
    const auto words = splitFields(name, ' ');
    if (words.size() < 2 || !isSummary(words.back())) return {};
    std::string out;
    for (std::size_t i = 0; i + 1 < words.size(); ++i)
        out += (out.empty() ? "" : " ") + words[i];
    while (!out.empty() && (out.back() == ':' || out.back() == '-' || out.back() == ' '))
        out.pop_back();
    return lowered(out);
}
bool endsAsSummary(const std::string& name) { return !nameBefore(name).empty(); }

/// All results of a table by column, and those of each option.
struct ResultsBy {
    std::vector<std::vector<double>> all;
    std::map<std::string, std::vector<std::vector<double>>> options;
    std::vector<double> of(const std::string& option, std::size_t column) const {
        const auto at = options.find(option);
        return at == options.end() ? std::vector<double>{} : at->second[column];
    }
};

ResultsBy resultsBy(const std::vector<std::string_view>& lines, const ValueLayout& layout) {
    ResultsBy out;
    out.all.resize(layout.values.size());
    for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
        const auto cells = cellsOf(lines[i], layout);
        const auto at = layout.option.value_or(0);
        if (at >= cells.size() || isSummary(cells[at]) || endsAsSummary(cells[at])) continue;
        auto& own = out.options[lowered(cells[at])];
        own.resize(layout.values.size());
        for (std::size_t k = 0; k < layout.values.size(); ++k) {
            const auto place = layout.values[k].at;
            const auto number = place < cells.size() ? quantity::parseNumber(cells[place]) : fail("");
            if (!number) continue;
            out.all[k].push_back(*number);
            own[k].push_back(*number);
        }
    }
    return out;
}

} // namespace

std::vector<std::size_t> summaryRows(const std::vector<std::string_view>& lines, const ValueLayout& layout) {
    struct Named {
        std::size_t line;
        std::string name;
        std::size_t values = 0;
        bool workedOut = false;
    };
    std::vector<Named> named;
    std::map<std::string, std::size_t> values; // how many each name has
    const auto whole = resultsBy(lines, layout);
    // By column: everything above, and what stands above since the last such row.
    std::vector<std::vector<double>> above(layout.values.size()), block(layout.values.size());
    for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
        if (trimmed(lines[i]).empty()) continue;
        const auto cells = cellsOf(lines[i], layout);
        const auto at = layout.option.value_or(0);
        Named row{i + 1, at < cells.size() ? cells[at] : std::string()};
        std::vector<std::optional<double>> numbers;
        for (const auto& v : layout.values) {
            const auto number = v.at < cells.size() ? quantity::parseNumber(cells[v.at]) : fail("");
            numbers.push_back(number ? std::optional(*number) : std::nullopt);
            row.values += number.has_value();
        }
        if (!isSummary(row.name) && !endsAsSummary(row.name)) {
            for (std::size_t k = 0; k < numbers.size(); ++k)
                if (numbers[k]) above[k].push_back(*numbers[k]), block[k].push_back(*numbers[k]);
            continue;
        }
        row.workedOut = row.values > 0;
        for (std::size_t k = 0; k < numbers.size(); ++k)
            if (numbers[k])
                row.workedOut = row.workedOut &&
                                (isWorkedOut(*numbers[k], above[k]) || isWorkedOut(*numbers[k], block[k]) ||
                                 isWorkedOut(*numbers[k], whole.all[k]) ||
                                 isWorkedOut(*numbers[k], whole.of(nameBefore(row.name), k)));
        values[lowered(row.name)] += row.values;
        // The next subtotal begins anew, once a row that is none follows.
        if (i + 1 < lines.size()) {
            const auto next = cellsOf(lines[i + 1], layout);
            if (at >= next.size() || !(isSummary(next[at]) || endsAsSummary(next[at])))
                for (auto& b : block)
                    b.clear();
        }
        named.push_back(std::move(row));
    }
    std::vector<std::size_t> out;
    for (const auto& row : named)
        if (row.workedOut || (isSummary(row.name) && values[lowered(row.name)] < 2)) out.push_back(row.line);
    return out;
}

} // namespace anvil::tables
