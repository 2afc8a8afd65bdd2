#include "layout.h"

#include "heads.h"
#include "roles.h"
#include "shape.h"
#include <anvil/columns/heading.h>
#include <anvil/columns/number.h>
#include <fmt/format.h>

namespace anvil::tables {

using namespace columns;

namespace {

/// The columns of the first row of numbers, each with what it holds and how it is written.
void beginColumns(const Head& head, const Hints& hints, Layout& layout) {
    const auto first = head.cells(layout.firstRow, layout.delimiter);
    layout.columns.resize(first.size());
    decideDecimals(head, hints, layout);
    for (std::size_t i = 0; i < first.size(); ++i) {
        auto& c = layout.columns[i];
        c.header = fmt::format("column {}", i + 1);
        c.clock = !readField(first[i], c.decimal) && clockSeconds(first[i]);
        c.words = !first[i].empty() && !isNumeric(first[i], layout.delimiter);
    }
}

/// What the person knows of units; what the file says stands.
void takeUnits(Layout& layout, const Hints& hints) {
    const auto set = [&](Role role, const quantity::Unit* unit) {
        if (const auto i = layout.find(role); i && unit && !layout.columns[*i].unit)
            layout.columns[*i].unit = unit;
    };
    set(Role::load, hints.forceUnit);
    set(Role::travel, hints.displacementUnit);
    set(Role::time, hints.timeUnit);
}

/// A heading that names a load where the rows have no column: formulas that were saved without their values.
Expected<void> refuseEmptyLoad(const Head& head, const Layout& layout, bool unnamed) {
    if (!unnamed) return {};
    for (std::size_t i = layout.firstRow; i-- > 0;) {
        if (head.isBlank(i)) continue;
        const auto cells = head.cells(i, layout.delimiter);
        if (cells.size() <= layout.columns.size() || !isBlockHeading(cells, layout)) return {};
        for (std::size_t k = layout.columns.size(); k < cells.size(); ++k)
            if (readHeading(cells[k]).load > LoadClaim::unlikely)
                return fail(
                    fmt::format("its column \"{}\" is empty: if it holds formulas, save the file again "
                                "as CSV",
                                cells[k]));
        return {};
    }
    return {};
}

} // namespace

std::optional<std::size_t> Layout::find(Role role) const {
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (columns[i].role == role) return i;
    return std::nullopt;
}

const Column* Layout::column(Role role) const {
    const auto i = find(role);
    return i ? &columns[*i] : nullptr;
}

Expected<Layout> layOut(const Sheet& sheet, const Hints& hints) {
    const Head head(sheet);
    const auto shape = shapeOf(head);
    if (shape.rows == 0) return fail("there are no rows of numbers in it");
    Layout layout;
    layout.delimiter = shape.delimiter;
    layout.firstRow = shape.firstRow;
    beginColumns(head, hints, layout);
    const auto width = layout.columns.size();
    if (auto ok = refuseSplitDecimals(head, layout, width); !ok) return tl::unexpected(ok.error());
    const auto headings = headingsAbove(head, layout, width);
    auto ok = headings.empty() ? assignByBehaviour(head, layout, hints)
                               : assignByHeadings(head, layout, headings, hints);
    if (ok) ok = assignTheRest(head, layout, headings, hints);
    if (!ok) return tl::unexpected(ok.error());
    if (ok = refuseSensorsInTurns(head, layout); !ok) return tl::unexpected(ok.error());
    if (ok = refuseEmptyLoad(head, layout, headings.empty()); !ok) return tl::unexpected(ok.error());
    takeUnits(layout, hints);
    keepChannels(head, layout);
    layout.decimal = layout.column(Role::load)->decimal;
    if (const auto t = layout.find(Role::time))
        layout.firstStamp = head.cells(layout.firstRow, layout.delimiter)[*t];
    for (const auto role : {Role::time, Role::load, Role::travel})
        if (const auto* c = layout.column(role)) layout.decimalUnsure |= c->decimalUnsure;
    return layout;
}

Expected<Layout> detect(std::string_view text, const Hints& hints) { return layOut({text, {}, 0}, hints); }

} // namespace anvil::tables
