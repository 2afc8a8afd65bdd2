#include "curve_file.h"

#include "csv.h"
#include <algorithm>
#include <anvil/columns/heading.h>
#include <anvil/domain/bounds.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/unit.h>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace anvil::exchange {
namespace {

using quantity::Dimension;

/// Where the values of a column go, and what they are in.
struct Target {
    std::vector<double>* values = nullptr;
    const quantity::Unit* unit = nullptr;
};

Expected<const quantity::Unit*> unitOf(const std::string& name, const std::string& unit,
                                       Dimension dimension) {
    if (unit.empty()) return fail(fmt::format("the column \"{}\" names no unit, as in \"force (N)\"", name));
    return quantity::findUnit(unit, dimension);
}

Expected<std::vector<Target>> targetsOf(curve::Curve& out, const std::vector<std::string>& heads) {
    static constexpr quantity::Unit asItIs{"", Dimension::ratio, 1};
    std::vector<Target> targets;
    out.others.reserve(heads.size()); // so that what points into it stays
    for (const auto& text : heads) {
        const auto [name, unitText] = columns::bracketed(text);
        const auto* own = columns::ownColumn(name);
        if (!own) { // a further channel; one in an unknown unit is kept as it is
            const auto unit = quantity::findUnit(unitText);
            out.others.push_back(
                {name, unit ? std::string(quantity::siUnit((*unit)->dimension).symbol) : unitText, {}});
            targets.push_back({&out.others.back().values, unit ? *unit : &asItIs});
            continue;
        }
        const auto unit = unitOf(name, unitText, own->dimension);
        if (!unit) return tl::unexpected(unit.error());
        const bool load = own->kind == columns::Kind::load, travel = own->kind == columns::Kind::travel;
        auto& values = load ? out.load : travel ? out.travel : out.time;
        if (std::any_of(targets.begin(), targets.end(), [&](const Target& t) { return t.values == &values; }))
            return fail(fmt::format("the column \"{}\" is there twice", name));
        if (load) out.loadKind = own->dimension;
        if (travel) out.travelKind = own->dimension;
        targets.push_back({&values, *unit});
    }
    return targets;
}

/// A number of a curve; nothing is a sample that was not there.
Expected<double> valueOf(const std::string& cell) {
    if (cell.empty()) return std::numeric_limits<double>::quiet_NaN();
    double v = 0;
    const auto* end = cell.data() + cell.size();
    if (const auto [at, wrong] = std::from_chars(cell.data(), end, v); wrong == std::errc() && at == end)
        return v;
    return quantity::parseNumber(cell);
}

} // namespace

Expected<curve::Curve> readCurveFile(std::string_view bytes) {
    curve::Curve out;
    std::vector<Target> targets;
    const auto ok = walkCsv(
        bytes,
        [&](const std::vector<std::string>& heads) -> Expected<void> {
            if (heads.size() > static_cast<std::size_t>(domain::bounds::channels))
                return fail(fmt::format("it has {} columns, and a curve has {} at most", heads.size(),
                                        domain::bounds::channels));
            auto found = targetsOf(out, heads);
            if (!found) return tl::unexpected(found.error());
            targets = std::move(*found);
            return {};
        },
        [&](const CsvRow& row) -> Expected<void> {
            for (std::size_t i = 0; i < targets.size(); ++i) {
                const auto v = valueOf(row.cells[i]);
                if (!v) return fail(fmt::format("line {}: {}", row.line, v.error().message));
                const auto& unit =
                    *targets[i].unit; // a zero below zero stays one where nothing is to be done
                targets[i].values->push_back(unit.factor == 1 && unit.offset == 0 ? *v : unit.toSi(*v));
            }
            return {};
        });
    if (!ok) return tl::unexpected(ok.error());
    if (out.load.empty()) return fail("it has no samples of a load: a column such as \"force (N)\"");
    return out;
}

std::string curveFile(const curve::Curve& c) {
    std::vector<std::pair<std::string, const std::vector<double>*>> columns;
    const auto head = [](std::string_view word, std::string_view unit) {
        return unit.empty() ? std::string(word) : fmt::format("{} ({})", word, unit);
    };
    if (!c.time.empty()) columns.emplace_back("time (s)", &c.time);
    if (!c.load.empty())
        columns.emplace_back(
            head(columns::ownName(columns::Kind::load, c.loadKind), quantity::siUnit(c.loadKind).symbol),
            &c.load);
    if (!c.travel.empty())
        columns.emplace_back(head(columns::ownName(columns::Kind::travel, c.travelKind),
                                  quantity::siUnit(c.travelKind).symbol),
                             &c.travel);
    for (const auto& channel : c.others)
        columns.emplace_back(head(channel.name, channel.unit), &channel.values);
    std::string text;
    std::vector<std::string> cells;
    cells.reserve(columns.size());
    std::size_t rows = 0;
    for (const auto& [title, values] : columns) {
        cells.push_back(title);
        rows = std::max(rows, values->size());
    }
    addCsvRow(text, cells);
    for (std::size_t i = 0; i < rows; ++i) {
        for (std::size_t k = 0; k < columns.size(); ++k) {
            const auto& values = *columns[k].second;
            if (k) text += ',';
            if (i < values.size() && !std::isnan(values[i]))
                fmt::format_to(std::back_inserter(text), "{}", values[i]);
        }
        text += '\n';
    }
    return text;
}

} // namespace anvil::exchange
