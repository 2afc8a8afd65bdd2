// What columns are by what stands beside the numbers, by what the person said, and all that are left.
#include "roles.h"

#include <algorithm>
#include <anvil/columns/marks.h>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace anvil::tables {

using namespace columns;
using quantity::Dimension;

namespace {

bool canBe(Role role, Dimension d) {
    if (role == Role::time) return d == Dimension::time;
    if (role == Role::travel) return d == Dimension::length || d == Dimension::angle;
    return d == Dimension::force || d == Dimension::torque || d == Dimension::acceleration ||
           d == Dimension::stress || d == Dimension::voltage;
}

Expected<void> applyHint(Layout& layout, const std::string& hint, Role role) {
    if (hint.empty()) return {};
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        auto& c = layout.columns[i];
        if (lowered(c.header) != lowered(hint) && lowered(c.written) != lowered(hint) &&
            fmt::format("{}", i + 1) != hint)
            continue;
        if (const auto old = layout.find(role); old && *old != i) layout.columns[*old].role = Role::ignore;
        c.role = role;
        c.why = Why::person;
        if (c.unit && !canBe(role, c.unit->dimension)) c.unit = nullptr; // the person knows better what it is
        return {};
    }
    std::string names;
    for (const auto& c : layout.columns)
        names += (names.empty() ? "" : ", ") + c.header;
    return fail(fmt::format("there is no column \"{}\"; the columns are {}", hint, names));
}

/// A column of units beside the numbers: it is the load's, where the load names none itself.
void assignUnits(const Head& head, Layout& layout) {
    const auto force = layout.find(Role::load);
    if (!force || layout.columns[*force].unit) return;
    const auto first = head.cells(layout.firstRow, layout.delimiter);
    for (std::size_t i = *force + 1; i < layout.columns.size() && i < first.size(); ++i) {
        auto& c = layout.columns[i];
        const auto u = quantity::findUnit(first[i], Dimension::force);
        if (!c.words || c.role != Role::ignore || first[i].empty() || !u) continue;
        c.role = Role::unit;
        layout.columns[*force].unit = *u;
        return;
    }
}

/// What says of each row whether it is one: a column of words called status, quality, valid …, or of a few
/// whole numbers without a unit.
void assignStanding(const Head& head, Layout& layout) {
    constexpr std::size_t fewCodes = 4;
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        auto& c = layout.columns[i];
        if (c.role != Role::ignore || c.unit || !tellsStanding(c.header)) continue;
        if (!c.words) {
            std::set<double> codes;
            for (const double v : sampleOf(head, layout, i))
                codes.insert(v);
            const bool onlyWhenWrong = codes.empty() && tellsWrong(c.header); // blank where all is well
            if ((codes.empty() && !onlyWhenWrong) || codes.size() > fewCodes ||
                std::any_of(codes.begin(), codes.end(), [](double v) { return v != std::floor(v); }))
                continue;
        }
        c.role = Role::standing;
        return;
    }
}

/// Where the rig reads a pressure or volts, the only column in a unit of that is the load's.
void takeDisplay(Layout& layout, const Hints& hints) {
    if (hints.loadKind != Dimension::stress && hints.loadKind != Dimension::voltage) return;
    std::optional<std::size_t> only;
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        const auto* unit = layout.columns[i].unit;
        if (!unit || unit->dimension != hints.loadKind || layout.columns[i].role != Role::ignore) continue;
        if (only) return;
        only = i;
    }
    if (!only) return;
    layout.columns[*only].role = Role::load;
    layout.columns[*only].why = Why::unit;
}

/// A clock without a name is the time; the only column with a name that says nothing ("value", "field1") the
/// load.
void takeNeutral(Layout& layout, const std::vector<Heading>& headings) {
    std::optional<std::size_t> only;
    for (std::size_t i = 0; i < headings.size(); ++i) {
        auto& c = layout.columns[i];
        if (c.words) return; // it may say of each row what that shows
        if (c.role != Role::ignore) continue;
        if (c.clock) {
            if (!layout.find(Role::time)) {
                c.role = Role::time;
                c.why = Why::numbers;
            }
            continue;
        }
        if (headings[i].against) continue;
        if (!saysNothing(c.header) || headings[i].unit || headings[i].unknownUnit || only) return;
        only = i;
    }
    if (!only) return;
    layout.columns[*only].role = Role::load;
    layout.columns[*only].why = Why::onlyOne;
    layout.notes.push_back(
        fmt::format("\"{}\" is taken as the load: nothing else can be it.", layout.columns[*only].header));
}

} // namespace

Expected<void> assignTheRest(const Head& head, Layout& layout, const std::vector<Heading>& headings,
                             const Hints& hints) {
    assignUnits(head, layout);
    assignStanding(head, layout);
    if (auto ok = applyHint(layout, hints.time, Role::time); !ok) return ok;
    if (auto ok = applyHint(layout, hints.travel, Role::travel); !ok) return ok;
    if (auto ok = applyHint(layout, hints.load, Role::load); !ok) return ok;
    if (!layout.find(Role::load)) takeDisplay(layout, hints);
    if (!layout.find(Role::load)) takeNeutral(layout, headings);
    if (layout.find(Role::load)) return {};
    auto& first = layout.columns[0];
    if (layout.columns.size() == 1 && (headings.empty() || !(headings[0].against || headings[0].unit))) {
        first.role = Role::load;
        first.why = Why::onlyOne;
        return {};
    }
    std::string list;
    for (const auto& c : layout.columns)
        list += (list.empty() ? "" : ", ") + c.header;
    return fail(fmt::format("no column looks like a force (the columns are {}): {}", list, asksForColumns),
                Wants::columns);
}

Expected<void> refuseSensorsInTurns(const Head& head, const Layout& layout) {
    static constexpr std::string_view names[] = {"channel", "sensor", "chan", "kanal", "canal", "ch"};
    constexpr std::size_t mostSensors = 20;
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        const auto& c = layout.columns[i];
        if (std::find(std::begin(names), std::end(names), lowered(c.header)) == std::end(names)) continue;
        std::set<std::string> said;
        std::size_t rows = 0, turns = 0;
        std::string last;
        for (std::size_t k = layout.firstRow; k < head.size(); ++k) {
            const auto cells = head.cells(k, layout.delimiter);
            if (i >= cells.size() || cells[i].empty()) continue;
            turns += rows++ > 0 && cells[i] != last;
            last = cells[i];
            said.insert(cells[i]);
        }
        if (said.size() > 1 && said.size() <= mostSensors && 3 * turns > rows)
            return fail(
                fmt::format("\"{}\" says which of {} sensors each row is of: keep one of them a file, or "
                            "give each a column",
                            c.header, said.size()));
    }
    return {};
}

void keepChannels(const Head& head, Layout& layout) {
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        auto& c = layout.columns[i];
        if (c.role != Role::ignore || c.words || c.clock) continue;
        const auto values = sampleOf(head, layout, i);
        if (!values.empty() && !countsRows(values)) c.role = Role::other;
    }
}

} // namespace anvil::tables
