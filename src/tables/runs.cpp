#include "runs.h"

#include "clock.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <numeric>

namespace anvil::tables {

using quantity::Dimension;

void dropRegularBreaks(Columns& columns) {
    const auto bare = static_cast<std::size_t>(std::count_if(columns.breaks.begin(), columns.breaks.end(),
                                                             [](const auto& b) { return b.label.empty(); }));
    if (bare * 3 < columns.rows || bare < 5) return;
    std::erase_if(columns.breaks, [](const auto& b) { return b.label.empty(); });
}

void sortByLabel(const Layout& layout, Columns& columns) {
    constexpr std::size_t mostLabels = 64, fewRows = 4;
    if (!layout.find(Role::run)) return;
    std::map<std::string, std::size_t> places; // of a label, in the order in which they are met
    std::vector<Columns::Break> firsts;
    for (const auto& b : columns.breaks)
        if (places.try_emplace(b.label, places.size()).second) firsts.push_back(b);
    if (places.size() > mostLabels || places.size() < 2 || columns.breaks.size() < 3 * places.size() ||
        columns.rows > fewRows * columns.breaks.size())
        return;
    std::vector<std::size_t> label(columns.rows, 0), order(columns.rows);
    for (std::size_t k = 0; k < columns.breaks.size(); ++k) {
        const auto end = k + 1 < columns.breaks.size() ? columns.breaks[k + 1].row : columns.rows;
        std::fill(label.begin() + static_cast<std::ptrdiff_t>(columns.breaks[k].row),
                  label.begin() + static_cast<std::ptrdiff_t>(end), places.at(columns.breaks[k].label));
    }
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](auto a, auto b) { return label[a] < label[b]; });
    for (auto& values : columns.values) {
        if (values.empty()) continue;
        auto sorted = values;
        for (std::size_t i = 0; i < order.size(); ++i)
            sorted[i] = values[order[i]];
        values = std::move(sorted);
    }
    for (std::size_t k = 0; k < firsts.size(); ++k)
        firsts[k].row = static_cast<std::size_t>(
            std::count_if(label.begin(), label.end(), [&](auto l) { return l < k; }));
    columns.breaks = std::move(firsts);
    columns.overloads.clear(); // they spoke of rows in turns
}

void fillBlankTravel(const Layout& layout, Columns& columns, Log& log) {
    const auto at = layout.find(Role::travel);
    if (!at) return;
    auto& x = columns.values[*at];
    const auto blanks =
        static_cast<std::size_t>(std::count_if(x.begin(), x.end(), [](double v) { return std::isnan(v); }));
    if (blanks == 0) return;
    if (blanks + 2 > x.size()) {
        x.clear();
        log.notes.emplace_back("The column of the way is empty and is left out.");
        return;
    }
    std::size_t last = x.size();
    for (std::size_t i = 0; i < x.size(); ++i) {
        if (std::isnan(x[i])) continue;
        for (std::size_t k = last == x.size() ? 0 : last + 1; k < i; ++k)
            x[k] = last == x.size() ? x[i]
                                    : x[last] + (x[i] - x[last]) * static_cast<double>(k - last) /
                                                    static_cast<double>(i - last);
        last = i;
    }
    for (std::size_t k = last + 1; k < x.size(); ++k)
        x[k] = x[last];
    log.notes.push_back(fmt::format("{} no way of {} own; it is taken from the rows around.",
                                    blanks == 1 ? "1 row has" : fmt::format("{} rows have", blanks),
                                    blanks == 1 ? "its" : "their"));
}

Expected<void> refuseCutsUnderLoad(const Layout& layout, const Columns& columns) {
    const auto& f = columns.of(layout, Role::load);
    if (layout.find(Role::run) || f.size() < 10) return {};
    std::vector<double> head(f.begin(), f.begin() + 5);
    std::nth_element(head.begin(), head.begin() + 2, head.end());
    double top = 0;
    for (const double v : f)
        top = std::max(top, std::abs(v - head[2]));
    const auto goesOn = [&](std::size_t i) {
        const double a = f[i - 1] - head[2], b = f[i] - head[2];
        return std::abs(a) > 0.2 * top && std::abs(b) > 0.2 * top && std::abs(a - b) < 0.1 * top;
    };
    for (const auto& b : columns.breaks)
        if (b.row > 0 && b.row < f.size() && goesOn(b.row))
            return fail(fmt::format(
                "after {} rows it begins anew while the load goes on: the logger was set back in mid-pull, "
                "and what it missed cannot be told",
                b.row));
    const auto& t = columns.of(layout, Role::time);
    const double step = medianStep(t);
    for (std::size_t i = 1; i < t.size(); ++i)
        if (t[i] < t[i - 1] - 10 * step && goesOn(i))
            return fail(
                fmt::format("its clock was set back in mid-pull, after {} rows: correct the stamps", i));
    return {};
}

namespace {

/// Further channels, each under a name of its own, in SI units where its unit is known.
void addChannels(const Layout& layout, Columns& columns, curve::Curve& whole) {
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        const auto& c = layout.columns[i];
        auto& values = columns.values[i];
        if (c.role != Role::other || values.empty()) continue;
        if (c.dimension == Dimension::time) continue; // a second clock measures nothing
        auto name = c.unit || c.written.empty() ? c.header : c.written;
        const auto plain = name;
        const auto taken = [&](const std::string& n) {
            return std::any_of(whole.others.begin(), whole.others.end(),
                               [&](const auto& o) { return o.name == n; });
        };
        for (int n = 2; taken(name); ++n)
            name = fmt::format("{} {}", plain, n);
        if (c.unit)
            for (auto& v : values)
                v = c.unit->toSi(v * c.factor);
        whole.others.push_back(
            {std::move(name),
             c.unit ? std::string(quantity::siUnit(c.unit->dimension).symbol) : std::string(),
             std::move(values)});
    }
}

curve::Curve wholeOf(const Layout& layout, Columns& columns) {
    const auto take = [&](Role role) {
        const auto i = layout.find(role);
        return i ? std::move(columns.values[*i]) : std::vector<double>{};
    };
    curve::Curve whole{take(Role::time), take(Role::load), take(Role::travel)};
    const auto kindOf = [&](Role role, Dimension otherwise) {
        const auto* c = layout.column(role);
        return !c ? otherwise : c->unit ? c->unit->dimension : c->dimension.value_or(otherwise);
    };
    whole.loadKind = kindOf(Role::load, Dimension::force);
    whole.travelKind = kindOf(Role::travel, Dimension::length);
    addChannels(layout, columns, whole);
    return whole;
}

/// The rows between breaks, and what the break before them says.
struct Part {
    curve::Rows rows;
    Columns::Break begun;
};

std::vector<Part> partsBetween(std::vector<Columns::Break> breaks, std::size_t rows) {
    std::vector<Part> parts;
    std::size_t from = 0;
    Columns::Break begun;
    breaks.push_back({rows});
    for (auto& next : breaks) {
        if (next.row > from) parts.push_back({{from, next.row}, std::move(begun)});
        from = next.row;
        begun = std::move(next);
    }
    return parts;
}

/// Whether a row that shows overload, or stands where one did, lies near the top of these rows; one that
/// does not is a glitch, and said to be one.
bool toppedOut(const curve::Curve& run, curve::Rows rows, const std::vector<std::size_t>& overloads,
               Log& log) {
    constexpr double nearTop = 0.5;
    const auto& f = run.load;
    std::vector<double> head(f.begin(),
                             f.begin() + static_cast<std::ptrdiff_t>(std::min<std::size_t>(5, f.size())));
    std::nth_element(head.begin(), head.begin() + static_cast<std::ptrdiff_t>(head.size() / 2), head.end());
    const double zero = head[head.size() / 2];
    double top = 0;
    for (const double v : f)
        top = std::max(top, std::abs(v - zero));
    bool bound = false;
    std::size_t glitches = 0;
    for (const auto row : overloads) {
        if (row < rows.from || row > rows.to || (row == rows.from && row > 0)) continue;
        const auto i = row - rows.from;
        const double before = i > 0 ? std::abs(f[i - 1] - zero) : 0,
                     after = i < f.size() ? std::abs(f[i] - zero) : 0;
        const bool near = std::max(before, after) >= nearTop * top;
        bound = bound || near;
        glitches += !near;
    }
    if (glitches && !bound)
        log.notes.push_back(fmt::format("It says overload far below the peak ({}): left out as no readings.",
                                        glitches == 1 ? "once" : fmt::format("{} times", glitches)));
    return bound;
}

} // namespace

std::vector<Run> runsOf(const Layout& layout, Columns&& columns, bool only, Log& log) {
    const bool hasLabels = layout.find(Role::run).has_value();
    const auto overloads = std::move(columns.overloads);
    const auto rows = columns.rows;
    auto whole = wholeOf(layout, columns);
    const auto parts = partsBetween(std::move(columns.breaks), rows);
    std::vector<Run> runs;
    const auto add = [&](const Part& part, curve::Rows of, curve::Curve&& curve) {
        if (curve.load.size() < 3) return;
        Run run{part.begun.label, part.begun.option, part.begun.condition, std::move(curve)};
        run.overload = !overloads.empty() && toppedOut(run.curve, of, overloads, log);
        runs.push_back(std::move(run));
    };
    for (const auto& part : parts) {
        auto c = parts.size() == 1 && part.rows.from == 0 && part.rows.to == rows
                     ? std::move(whole)
                     : curve::part(whole, part.rows.from, part.rows.to);
        std::vector<curve::Rows> cuts;
        if (!hasLabels && !c.time.empty() && !std::is_sorted(c.time.begin(), c.time.end()))
            cuts = curve::runsByClock(c);
        if (!hasLabels && only && cuts.size() < 2 && parts.size() == 1) cuts = curve::pullsIn(c);
        if (cuts.size() < 2) {
            add(part, part.rows, std::move(c));
            continue;
        }
        for (const auto& cut : cuts)
            add(part, {part.rows.from + cut.from, part.rows.from + cut.to}, curve::part(c, cut.from, cut.to));
    }
    return runs;
}

} // namespace anvil::tables
