#include "roles.h"

#include <algorithm>
#include <anvil/columns/marks.h>
#include <anvil/columns/number.h>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace anvil::tables {

using namespace columns;
using quantity::Dimension;
using quantity::Unit;

std::vector<double> sampleOf(const Head& head, const Layout& layout, std::size_t column) {
    std::vector<double> out;
    for (std::size_t i = layout.firstRow; i < head.size(); ++i) {
        const auto fields = head.cells(i, layout.delimiter);
        if (column >= fields.size()) continue;
        if (const auto v = readField(fields[column], layout.columns[column].decimal)) out.push_back(*v);
    }
    return out;
}

bool countsRows(const std::vector<double>& v) {
    for (std::size_t i = 1; i < v.size(); ++i)
        if (v[i] != v[i - 1] + 1) return false;
    return v.size() > 2;
}

namespace {

bool steadilyRising(const std::vector<double>& v) {
    if (v.size() < 3) return false;
    std::size_t up = 0;
    for (std::size_t i = 1; i < v.size(); ++i)
        up += v[i] > v[i - 1];
    return up + 1 + v.size() / 50 >= v.size();
}

Why whyOf(const Heading& h) {
    if (h.load == LoadClaim::unitOnly) return Why::unit;
    return h.unit ? Why::nameAndUnit : Why::name;
}

Role roleOf(Kind kind) {
    switch (kind) {
    case Kind::time:
        return Role::time;
    case Kind::load:
        return Role::load;
    case Kind::travel:
        return Role::travel;
    case Kind::run:
        return Role::run;
    case Kind::unknown:
    case Kind::another:
        break;
    }
    return Role::ignore;
}

std::string listed(const Layout& layout, const std::vector<std::size_t>& columns) {
    std::string out;
    for (const auto i : columns)
        out += (out.empty() ? "" : ", ") + fmt::format("\"{}\"", layout.columns[i].header);
    return out;
}

/// The step a column is written with, in SI units: its last decimal.
double writtenStep(const Head& head, const Layout& layout, std::size_t column) {
    const auto& c = layout.columns[column];
    int most = 0;
    for (std::size_t i = layout.firstRow; i < head.size(); ++i) {
        const auto fields = head.cells(i, layout.delimiter);
        if (column >= fields.size() || !readField(fields[column], c.decimal)) continue;
        const auto mark = fields[column].find(c.decimal);
        if (mark != std::string::npos)
            most = std::max(most, static_cast<int>(fields[column].size() - mark - 1));
    }
    return std::pow(10.0, -most) * c.unit->factor;
}

/// Of columns that show one load in several units the one with the finest steps; nothing where they differ by
/// more than rounding, or stand still.
std::optional<std::size_t> oneLoadInManyUnits(const Head& head, const Layout& layout,
                                              const std::vector<std::size_t>& loads) {
    struct Shown {
        std::vector<double> values;
        double step = 0;
    };
    std::vector<Shown> all;
    for (const auto i : loads) {
        if (!layout.columns[i].unit) return {};
        Shown shown{sampleOf(head, layout, i), writtenStep(head, layout, i)};
        std::set<double> distinct;
        for (auto& v : shown.values)
            distinct.insert(v = layout.columns[i].unit->toSi(v));
        if (distinct.size() < 10) return {};
        all.push_back(std::move(shown));
    }
    std::size_t finest = 0;
    for (std::size_t k = 1; k < all.size(); ++k) {
        if (all[k].values.size() != all[0].values.size()) return {};
        for (std::size_t i = 0; i < all[0].values.size(); ++i)
            if (std::abs(all[k].values[i] - all[0].values[i]) > 0.51 * (all[k].step + all[0].step)) return {};
        if (all[k].step < all[finest].step) finest = k;
    }
    return loads[finest];
}

/// Whether the stamps of a column say more than the day.
bool tellsTimeOfDay(const Head& head, const Layout& layout, std::size_t column) {
    for (std::size_t i = layout.firstRow; i < head.size(); ++i) {
        const auto fields = head.cells(i, layout.delimiter);
        if (column < fields.size() && !fields[column].empty())
            return fields[column].find(':') != std::string::npos;
    }
    return false;
}

/// What the load of this file is: what the method reads, if a column can be that, else force before torque
/// before acceleration.
Dimension loadKindOf(const Layout& layout, const std::vector<Heading>& headings, const Hints& hints) {
    for (const auto d : {hints.loadKind, Dimension::force, Dimension::torque, Dimension::acceleration})
        for (std::size_t i = 0; i < headings.size(); ++i)
            if (!layout.columns[i].words && headings[i].load > LoadClaim::unlikely &&
                headings[i].dimension == d)
                return d;
    return Dimension::force;
}

/// The columns with the best claim to be the load.
std::vector<std::size_t> loadsAmong(const Layout& layout, const std::vector<Heading>& headings,
                                    const Hints& hints) {
    const auto kind = loadKindOf(layout, headings, hints);
    auto best = LoadClaim::unlikely;
    std::vector<std::size_t> loads;
    for (std::size_t i = 0; i < headings.size(); ++i) {
        const auto& h = headings[i];
        if (layout.columns[i].words || h.dimension != kind) continue; // words say what the numbers are
        if (h.load > best) {
            best = h.load;
            loads.clear();
        }
        if (h.load == best && best > LoadClaim::unlikely) loads.push_back(i);
    }
    return loads;
}

/// Of several loads the one that is called as the load on all: the master of legs, the output of a hauling
/// system.
std::optional<std::size_t> leaderOf(const Layout& layout, const std::vector<std::size_t>& loads) {
    static constexpr std::string_view names[] = {"master", "main", "output", "total", "anchor"};
    std::optional<std::size_t> leader;
    for (const auto i : loads) {
        const auto words = wordsIn(layout.columns[i].header);
        const bool leads = std::any_of(words.begin(), words.end(), [&](const auto& w) {
            return std::find(std::begin(names), std::end(names), w) != std::end(names);
        });
        if (leads && leader) return {};
        if (leads) leader = i;
    }
    return leader;
}

/// Time, travel, and what tells the runs apart. `load`: what the load is; against a torque an angle is the
/// travel, against all else a length.
void assignOthers(const Head& head, Layout& layout, const std::vector<Heading>& headings, Dimension load) {
    const bool angles =
        load == Dimension::torque && std::any_of(headings.begin(), headings.end(), [](const Heading& h) {
            return h.kind == Kind::travel && h.dimension == Dimension::angle;
        });
    for (std::size_t i = 0; i < headings.size(); ++i) {
        const auto& h = headings[i];
        const auto role = roleOf(h.kind);
        if (role == Role::ignore || role == Role::load) continue;
        if (role == Role::travel && (h.dimension == Dimension::angle) != angles) continue;
        if (const auto taken = layout.find(role); taken && role != Role::run) {
            // Elapsed seconds beside a stamp of whole ones are the better clock; milliseconds that begin
            // anew with each of these belong to it.
            const bool better = role == Role::time && layout.columns[*taken].clock &&
                                !layout.columns[i].clock && h.unit && !headings[*taken].unit &&
                                steadilyRising(sampleOf(head, layout, i));
            if (!better) continue;
            layout.columns[*taken].role = Role::ignore;
        }
        layout.columns[i].role = role;
        layout.columns[i].why = whyOf(h);
    }
    if (!layout.find(Role::time)) // whatever it is called: "Date" that holds date and time is the clock
        for (std::size_t i = 0; i < headings.size(); ++i)
            if (auto& c = layout.columns[i];
                c.clock && c.role == Role::ignore && tellsTimeOfDay(head, layout, i)) {
                c.role = Role::time;
                c.why = Why::numbers;
                break;
            }
    for (auto& c : layout.columns) // words beside the numbers tell the runs apart
        if (c.role == Role::ignore && c.words && tellsWhat(c.header)) {
            c.role = Role::run;
            c.tells = whatItTells(c.header);
        }
}

} // namespace

Expected<void> assignByHeadings(const Head& head, Layout& layout, const std::vector<Heading>& headings,
                                const Hints& hints) {
    for (std::size_t i = 0; i < headings.size(); ++i) {
        auto& c = layout.columns[i];
        const auto& h = headings[i];
        if (!h.name.empty()) c.header = h.name;
        c.written = h.written;
        c.factor = h.factor;
        c.dimension = h.dimension;
        if (h.unit) c.unit = h.unit;
        const auto letters = lowered(h.unitText);
        if (hints.loadKind == Dimension::acceleration && h.load > LoadClaim::unlikely &&
            (letters == "g" || letters == "gs")) { // of a drop it is no gram
            c.unit = &quantity::unit("g₀");
            c.dimension = Dimension::acceleration;
        }
    }
    auto loads = loadsAmong(layout, headings, hints);
    assignOthers(head, layout, headings, loads.empty() ? Dimension::force : *headings[loads[0]].dimension);
    if (!hints.load.empty()) return {}; // the person says which
    if (loads.size() > 1)
        if (const auto finest = oneLoadInManyUnits(head, layout, loads)) {
            for (const auto i : loads)
                if (i != *finest)
                    layout.notes.push_back(fmt::format("\"{} ({})\" shows the same load in another unit.",
                                                       layout.columns[i].header,
                                                       layout.columns[i].unit->symbol));
            loads = {*finest};
        }
    if (const auto leads = loads.size() > 1 ? leaderOf(layout, loads) : std::nullopt) {
        layout.notes.push_back(fmt::format(
            "\"{}\" is taken as the load, as its name says; {} kept beside it.",
            layout.columns[*leads].header, loads.size() == 2 ? "the other is" : "the others are"));
        loads = {*leads};
    }
    if (loads.size() > 1)
        return fail(fmt::format("more than one column could be the load ({}): {}", listed(layout, loads),
                                asksForColumns),
                    Wants::columns);
    if (loads.empty()) return {};
    const auto& h = headings[loads[0]];
    if (h.unknownUnit)
        return fail(fmt::format("nobody here knows the unit \"{}\" of \"{}\": write one such as N, kN, kgf "
                                "or lbf into the heading",
                                h.unitText, h.name));
    layout.columns[loads[0]].role = Role::load;
    layout.columns[loads[0]].why = whyOf(h);
    return {};
}

Expected<void> assignByBehaviour(const Head& head, Layout& layout, const Hints& hints) {
    auto& columns = layout.columns;
    if (columns.size() == 1) {
        columns[0].role = Role::load;
        columns[0].why = Why::onlyOne;
        return {};
    }
    if (!hints.load.empty() || !hints.time.empty()) return {};
    std::vector<std::size_t> rising, others;
    for (std::size_t i = 0; i < columns.size(); ++i)
        (columns[i].clock || steadilyRising(sampleOf(head, layout, i)) ? rising : others).push_back(i);
    const bool counter =
        !rising.empty() && !columns[rising[0]].clock && countsRows(sampleOf(head, layout, rising[0]));
    if (columns.size() == 2 && rising.size() == 1) {
        columns[rising[0]].role = Role::time;
        columns[others[0]].role = Role::load;
        columns[0].why = columns[1].why = Why::numbers;
        return {};
    }
    if (columns.size() == 3 && !rising.empty() && rising[0] == 0 && !counter) {
        columns[0].role = Role::time;
        columns[1].role = Role::load;
        columns[2].role = Role::travel;
        for (auto& c : columns)
            c.why = Why::numbers;
        const auto falls = [&](std::size_t i) { // goes back by more than a tenth of its range
            const auto v = sampleOf(head, layout, i);
            double top = v.empty() ? 0 : v[0], low = top, back = 0;
            for (const double x : v) {
                top = std::max(top, x);
                low = std::min(low, x);
                back = std::max(back, top - x);
            }
            return back > 0.1 * (top - low);
        };
        if (falls(1) == falls(2) || falls(2)) // the way only grows, the load lets go
            return fail(
                fmt::format("there is no heading, and which of its columns is the load cannot be told: {}",
                            asksForColumns),
                Wants::columns);
        return {};
    }
    return fail(fmt::format("there is no heading, and which of its {} columns is the load cannot be told: {}",
                            columns.size(), asksForColumns),
                Wants::columns);
}

} // namespace anvil::tables
