#include "labelled_lines.h"

#include <algorithm>
#include <anvil/columns/line.h>
#include <cmath>
#include <set>

namespace anvil::rig {
namespace {

using columns::LineItem;
using columns::Weighing;

/// Whether `full` is `end` or ends with it as words: a stamp or a name in front may change.
bool endsWithWords(std::string_view full, std::string_view end) {
    return full.size() >= end.size() && full.substr(full.size() - end.size()) == end &&
           (full.size() == end.size() || end.empty() || full[full.size() - end.size() - 1] == ' ');
}

/// The number in the unit its column prints; nothing where it is another one.
std::optional<double> asColumn(const LineItem& item, const LineColumn& column) {
    double value = item.value;
    const auto was = quantity::findUnit(column.printed);
    const bool same = item.unit == column.printed;
    if (was && !same && !item.unit.empty()) {
        const auto is = quantity::findUnit(item.unit, (*was)->dimension);
        if (!is) return std::nullopt;
        value = (*was)->fromSi((*is)->toSi(value));
    }
    const bool bare = item.label.empty();
    if (columns::tellsDerived(item.label) != columns::tellsDerived(column.label)) return std::nullopt;
    const bool meant =
        column.label.empty() // a status word unknown here may stand before a reading
            ? column.printed.empty() || same || bare
            : bare ? same
                   : endsWithWords(item.label, column.label) || endsWithWords(column.label, item.label);
    return meant ? std::optional(value) : std::nullopt;
}

bool saysWeighing(const LineColumn& column) {
    return columns::weighingOf(column.label.substr(0, column.label.find(' '))) != Weighing::untold;
}

/// "1 234.5" is one number where the line would hold one too many.
void joinGroups(std::vector<LineItem>& items, std::string_view line, std::size_t wanted) {
    for (std::size_t k = 0; items.size() > wanted && k + 1 < items.size();) {
        auto& a = items[k];
        const auto& b = items[k + 1];
        const auto head = line.substr(a.from, a.to - a.from), tail = line.substr(b.from, b.to - b.from);
        const auto digits = std::min(tail.find_first_not_of("0123456789"), tail.size());
        const bool first = head.find_first_of(".,") == std::string_view::npos && std::abs(a.value) >= 1 &&
                           std::abs(a.value) < 1000;
        if (!first || digits != 3 || b.from != a.to + 1 || line[a.to] != ' ' || !b.label.empty() ||
            !a.unit.empty()) {
            ++k;
            continue;
        }
        a.value = a.value * 1000 + std::copysign(b.value, a.value);
        a.to = b.to;
        a.unit = b.unit;
        a.glued = b.glued;
        items.erase(items.begin() + static_cast<std::ptrdiff_t>(k) + 1);
    }
}

/// How many of the lines are of this kind, and what speaks for it beside that: the net load is the piece's.
struct Votes {
    std::size_t lines = 0, score = 0;
};

Votes votesFor(const std::vector<LineItem>& kind, const std::vector<std::vector<LineItem>>& all) {
    const auto same = [&](const std::vector<LineItem>& other) {
        return std::equal(kind.begin(), kind.end(), other.begin(), other.end(),
                          [](const auto& a, const auto& b) { return a.sameKind(b); });
    };
    const auto alike = static_cast<std::size_t>(std::count_if(all.begin(), all.end(), same));
    const bool net = std::any_of(kind.begin(), kind.end(), [](const LineItem& i) {
        return i.weighing == Weighing::net && i.label.starts_with(i.says);
    });
    return {alike, net ? 2 * alike : alike};
}

/// The items of each line that has some; of scales that show several loads with what each is.
std::vector<std::vector<LineItem>> itemsOfAll(std::span<const std::string> lines, char decimal) {
    std::vector<std::vector<LineItem>> all;
    std::set<Weighing> shown;
    for (const auto& line : lines)
        if (auto items = columns::itemsOf(line, decimal); !items.empty()) {
            for (const auto& item : items)
                shown.insert(item.weighing);
            all.push_back(std::move(items));
        }
    shown.erase(Weighing::untold);
    if (shown.size() > 1)
        for (auto& items : all)
            columns::sayWeighing(items);
    return all;
}

} // namespace

std::optional<std::vector<double>> labelledNumbers(std::string_view line, const Layout& layout) {
    auto items = columns::itemsOf(line, layout.decimal);
    if (std::any_of(layout.columns.begin(), layout.columns.end(), saysWeighing)) columns::sayWeighing(items);
    joinGroups(items, line, layout.columns.size());
    if (items.size() < layout.columns.size()) return std::nullopt;
    if (items.size() > layout.columns.size()) // "1,234 kg" is neither 1 nor certainly 1234
        for (std::size_t i = 0; i < layout.columns.size(); ++i)
            if (items[i].glued ||
                (!layout.columns[i].printed.empty() && items[i].unit.empty() && items[i + 1].label.empty()))
                return std::nullopt;
    std::vector<double> out;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto value =
            i < layout.columns.size() ? asColumn(items[i], layout.columns[i]) : std::optional(items[i].value);
        if (!value) return std::nullopt;
        out.push_back(*value);
    }
    return out;
}

std::pair<Layout, std::size_t> guessLabelled(std::span<const std::string> lines) {
    std::pair<Layout, std::size_t> best;
    std::size_t bestScore = 0;
    for (const char decimal : {'.', ','}) {
        const auto all = itemsOfAll(lines, decimal);
        for (const auto& kind : all) {
            const auto votes = votesFor(kind, all);
            const bool says = std::any_of(kind.begin(), kind.end(), [](const LineItem& i) {
                return !i.label.empty() || !i.unit.empty();
            });
            const bool better = votes.score > bestScore ||
                                (votes.score == bestScore && kind.size() < best.first.columns.size());
            if (!says || !better) continue; // "3,25" is one number before it is two
            Layout l;
            l.labelled = true;
            l.decimal = decimal;
            for (const auto& item : kind) {
                LineColumn c;
                c.name = item.label;
                c.unit = item.unit;
                l.columns.push_back(std::move(c));
            }
            best = {std::move(l), votes.lines};
            bestScore = votes.score;
        }
    }
    return best;
}

} // namespace anvil::rig
