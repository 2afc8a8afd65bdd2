#include "forms.h"

#include <algorithm>
#include <anvil/columns/line.h>
#include <anvil/quantity/unit.h>
#include <fmt/format.h>
#include <set>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr std::size_t headLines = 60, leastLines = 5;

using Items = std::vector<LineItem>;

bool alike(const Items& a, const Items& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](const auto& x, const auto& y) { return x.sameKind(y); });
}

/// What most lines of a text say.
struct LineKind {
    Items items;
    char decimal = '.';
    bool weighings = false; ///< a scale shows several loads, and says at each which it is
    std::size_t alike = 0, of = 0;
};

LineKind kindBy(const std::vector<std::string_view>& lines, char decimal) {
    LineKind kind;
    kind.decimal = decimal;
    std::vector<Items> head;
    std::set<Weighing> shown;
    for (const auto& line : lines)
        if (auto items = itemsOf(line, decimal, true); !items.empty()) {
            for (const auto& i : items)
                shown.insert(i.weighing);
            head.push_back(std::move(items));
        }
    shown.erase(Weighing::untold);
    kind.weighings = shown.size() > 1;
    if (kind.weighings)
        for (auto& items : head)
            sayWeighing(items);
    const auto shows = [](const Items& items, Weighing w) {
        return std::any_of(items.begin(), items.end(), [&](const LineItem& i) { return i.weighing == w; });
    };
    if (shown.contains(Weighing::net)) // of lines in turns those with the net load are the readings
        std::erase_if(head, [&](const Items& items) {
            return !shows(items, Weighing::net) &&
                   (shows(items, Weighing::gross) || shows(items, Weighing::tare));
        });
    kind.of = head.size();
    for (const auto& items : head) {
        const auto n = static_cast<std::size_t>(
            std::count_if(head.begin(), head.end(), [&](const auto& other) { return alike(items, other); }));
        if (n > kind.alike) {
            kind.alike = n;
            kind.items = items;
        }
    }
    return kind;
}

/// A label, a unit or a stamp must say more than plain columns would.
bool saysMore(const LineKind& kind) {
    const bool says = std::any_of(kind.items.begin(), kind.items.end(), [](const LineItem& i) {
        return i.clock || !i.label.empty() || !i.unit.empty();
    });
    return says && kind.of >= leastLines && 10 * kind.alike >= 9 * kind.of &&
           std::any_of(kind.items.begin(), kind.items.end(), [](const LineItem& i) { return !i.clock; });
}

/// Names for the columns: the labels with their units; a bare number behind a stamp is the load, the first of
/// several is a time.
CellRow namesOf(const Items& items) {
    const auto numbers =
        std::count_if(items.begin(), items.end(), [](const LineItem& i) { return !i.clock; });
    CellRow row;
    for (const auto& i : items) {
        auto name = i.label;
        if (name.empty())
            name = numbers == 1 ? "Load" : &i == &items.front() && i.unit.empty() ? "Time" : "Reading";
        row.cells.push_back(i.unit.empty() ? name : name + " (" + i.unit + ")");
    }
    return row;
}

/// A number in the unit of its column.
std::string cellOf(const LineItem& item, const LineItem& column, std::string_view line) {
    if (item.clock) return std::string(line.substr(item.from, item.to - item.from));
    if (item.unit == column.unit || item.unit.empty() || column.unit.empty())
        return fmt::format("{}", item.value);
    const auto to = quantity::findUnit(column.unit);
    const auto from = quantity::findUnit(item.unit, (*to)->dimension);
    return fmt::format("{}", (*to)->fromSi((*from)->toSi(item.value)));
}

} // namespace

std::optional<Rows> fromLabelled(std::string_view text) {
    const auto head = splitLines(text.substr(0, std::size_t{1} << 14), headLines);
    auto kind = kindBy(head, '.');
    if (auto comma = kindBy(head, ','); comma.alike > kind.alike && saysMore(comma)) kind = std::move(comma);
    if (!saysMore(kind)) return std::nullopt;
    Rows out{namesOf(kind.items)};
    std::size_t number = 0;
    for (const auto& line : splitLines(text)) {
        ++number;
        auto items = itemsOf(line, kind.decimal, true);
        if (kind.weighings) sayWeighing(items);
        CellRow row{number, {}};
        if (alike(items, kind.items))
            for (std::size_t i = 0; i < items.size(); ++i)
                row.cells.push_back(cellOf(items[i], kind.items[i], line));
        else
            row.cells.emplace_back(line);
        out.push_back(std::move(row));
    }
    return out;
}

} // namespace anvil::tables
