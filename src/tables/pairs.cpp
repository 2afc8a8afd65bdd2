// Runs side by side, each with a clock of its own.
#include "forms.h"

#include <algorithm>
#include <anvil/columns/heading.h>
#include <cctype>

namespace anvil::tables {

using namespace columns;

namespace {

/// A run's columns: what its names share, and what is left of each with its unit.
struct Side {
    std::string label;
    std::vector<std::string> names;
    std::vector<std::size_t> at;
};

/// The words of a name one by one, with the number at the end of a word apart: "Oak load2" → Oak, load, 2.
std::vector<std::string> parts(std::string_view name) {
    std::vector<std::string> out(1);
    for (std::size_t i = 0; i < name.size(); ++i) {
        const auto kind = [](char c) {
            return c >= '0' && c <= '9'                                           ? 1
                   : std::string_view(" _-.:,").find(c) != std::string_view::npos ? 2
                                                                                  : 0;
        };
        if (i > 0 && kind(name[i]) != kind(name[i - 1]) && !out.back().empty()) out.emplace_back();
        if (kind(name[i]) != 2) out.back() += name[i];
    }
    if (out.back().empty()) out.pop_back();
    return out;
}

/// A heading's name and unit; a letter behind a line ("A_t") is the name of a quantity and no unit.
std::pair<std::string, std::string> nameApart(const std::string& heading) {
    auto apart = nameAndUnit(heading);
    const bool letter = apart.second.size() == 1 && heading.find_first_of("([{/") == std::string::npos;
    return letter ? std::pair(heading, std::string()) : apart;
}

/// What all names of a side share, and what is left of each: "Oak time", "Oak load" → Oak; time, load.
std::optional<Side> sideOf(const std::vector<std::string>& names, std::size_t from, std::size_t width) {
    Side side;
    std::vector<std::vector<std::string>> words;
    std::vector<std::string> units;
    for (std::size_t i = from; i < from + width; ++i) {
        const auto [name, unit] = nameApart(names[i]);
        words.push_back(parts(name));
        units.push_back(unit);
        side.at.push_back(i);
    }
    for (const auto& w : words.front())
        if (std::all_of(words.begin(), words.end(),
                        [&](const auto& all) { return std::find(all.begin(), all.end(), w) != all.end(); }))
            side.label += (side.label.empty() ? "" : " ") + w;
    if (side.label.empty()) return {};
    const auto shared = parts(side.label);
    for (std::size_t k = 0; k < words.size(); ++k) {
        std::string left;
        for (const auto& w : words[k])
            if (std::find(shared.begin(), shared.end(), w) == shared.end())
                left += (left.empty() ? "" : " ") + w;
        side.names.push_back(units[k].empty() ? left : left + " (" + units[k] + ")");
    }
    return side;
}

/// Of "t1" and "A_t" as of "t".
Kind kindOf(const std::string& heading) {
    const auto [name, unit] = nameApart(heading);
    if (unit.empty()) {
        auto words = parts(name);
        while (words.size() > 1 && std::isdigit(static_cast<unsigned char>(words.back()[0])))
            words.pop_back();
        if (!words.empty() && words.back().size() == 1) return readHeading(words.back()).kind;
    }
    return readHeading(heading).kind;
}

/// The sides of a line of names: as many columns each, of the same kinds in the same order, a time first or
/// among them, and a load.
std::vector<Side> sidesOf(std::vector<std::string> names) {
    while (!names.empty() && names.back().empty())
        names.pop_back();
    std::vector<Kind> kinds;
    for (const auto& n : names)
        kinds.push_back(kindOf(n));
    const auto times = static_cast<std::size_t>(std::count(kinds.begin(), kinds.end(), Kind::time));
    if (times < 2 || names.size() % times != 0) return {};
    const std::size_t width = names.size() / times;
    if (width < 2) return {};
    std::vector<Side> sides;
    for (std::size_t from = 0; from < names.size(); from += width) {
        auto side = sideOf(names, from, width);
        if (!side || !std::equal(kinds.begin(), kinds.begin() + static_cast<std::ptrdiff_t>(width),
                                 kinds.begin() + static_cast<std::ptrdiff_t>(from)))
            return {};
        if (!sides.empty() && side->names != sides.front().names) return {};
        sides.push_back(std::move(*side));
    }
    const bool load = std::find(kinds.begin(), kinds.begin() + static_cast<std::ptrdiff_t>(width),
                                Kind::load) != kinds.begin() + static_cast<std::ptrdiff_t>(width);
    return load ? sides : std::vector<Side>{};
}

} // namespace

std::optional<Rows> fromPairs(std::string_view text) {
    constexpr std::size_t headLines = 20;
    const auto lines = splitLines(text);
    for (std::size_t head = 0; head < std::min(lines.size(), headLines); ++head) {
        const char d = delimiterOf(lines[head]);
        if (!d) continue;
        const auto sides = sidesOf(splitFields(lines[head], d));
        if (sides.size() < 2) continue;
        Rows out{{head + 1, {"Run"}}};
        out[0].cells.insert(out[0].cells.end(), sides.front().names.begin(), sides.front().names.end());
        for (const auto& side : sides)
            for (std::size_t i = head + 1; i < lines.size(); ++i) {
                const auto f = splitFields(lines[i], d);
                CellRow row{i + 1, {side.label}};
                bool any = false;
                for (const auto at : side.at) {
                    row.cells.push_back(at < f.size() ? f[at] : "");
                    any = any || !row.cells.back().empty();
                }
                if (any) out.push_back(std::move(row)); // the shorter runs end before the longest
            }
        return out;
    }
    return {};
}

} // namespace anvil::tables
