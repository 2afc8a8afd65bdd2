// Single results of a table, taken into a study.
#include <anvil/project/import.h>

#include "import_names.h"
#include "import_squares.h"
#include <algorithm>
#include <anvil/domain/spoken.h>
#include <anvil/results/evidence.h>
#include <anvil/words/stands.h>

namespace anvil::project {

namespace {

/// The metric a table of such values is of: the first of the method, which for an unknown one is an axial
/// pull.
std::optional<domain::Metric> metricOf(quantity::Dimension dimension, const std::string& method) {
    const auto* known = methods::find(method);
    const bool ofCurves = !known || known->load; // others are told what is asked for by what is typed
    for (const auto& m : domain::metricsOf(method))
        if (m->dimension == dimension && !(ofCurves && m->asked)) return m;
    return std::nullopt;
}

} // namespace

std::vector<Placement> placesOf(const domain::StudyData& into, const tables::ValueTable& table) {
    std::vector<Homeless> all;
    for (const auto& r : table.rows)
        all.push_back({QString::fromStdString(r.option), QString::fromStdString(r.condition), 0,
                       QString::fromStdString(r.piece)});
    return placesFor(into, all);
}

std::vector<UnlikelyRow> unlikelyRows(const tables::ValueTable& table, const quantity::Unit* unit) {
    struct Told {
        const tables::ValueRow* row;
        double si;
    };
    std::map<std::pair<std::string, std::string>, std::vector<Told>> squares;
    for (const auto& row : table.rows)
        if (const auto* own = row.unit ? row.unit : unit; own && row.value.exact())
            squares[{row.option, row.condition}].push_back({&row, own->toSi(row.value.value)});
    std::vector<UnlikelyRow> out;
    for (const auto& [name, all] : squares)
        for (std::size_t i = 0; i < all.size() && all.size() > 2; ++i) {
            std::vector<double> fellows;
            for (std::size_t j = 0; j < all.size(); ++j)
                if (j != i) fellows.push_back(all[j].si);
            quantity::Entry told;
            told.si = all[i].si;
            told.unit = all[i].row->unit ? all[i].row->unit : unit;
            const auto* first = all[i == 0 ? 1 : 0].row->unit; // the others', where they agree on one
            const bool agree = std::all_of(
                all.begin(), all.end(), [&](const Told& t) { return &t == &all[i] || t.row->unit == first; });
            if (const auto odd = results::unlikelyRow(told, fellows, agree ? first : nullptr))
                out.push_back({all[i].row->line, told, *odd});
        }
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.line < b.line; });
    return out;
}

Expected<Imported> importValues(OpenProject& project, const domain::StudyData& into,
                                const tables::ValueTable& table, const quantity::Unit* unit,
                                const QString& sourceName) {
    auto rows = table.rows;
    for (auto& r : rows)
        if (!r.unit) r.unit = unit;
    const auto first = tables::unify(rows);
    if (!first) return tl::unexpected(first.error());
    if (!*first) return fail("The table names no unit: choose one first.");
    const auto dimension = (*first)->dimension;
    std::optional<domain::ReadThrough> path;
    const auto display = pathOf(project, into);
    const auto typed = results::typedMetric(into);
    const bool shown = display && display->through.shows == dimension &&
                       typed->dimension == quantity::Dimension::force && // of a gauge in front of a ram
                       into.study.plan.readAt != "piece";
    if (dimension == quantity::Dimension::force || shown) {
        const auto through = readThrough(project, into);
        if (!through) return tl::unexpected(through.error());
        path = *through;
        if (path && path->shows != dimension)
            return fail("The display of the rig shows no load, and the table holds loads: say that they are "
                        "those at the piece.");
    }
    const auto metric = shown && path ? std::optional(typed) : metricOf(dimension, into.study.plan.method);
    if (!metric)
        return fail("The values measure " + std::string(quantity::name(dimension)) +
                    ", which the method of the study does not tell: choose another in Question first.");
    Imported out;
    out.pulls = static_cast<int>(rows.size());
    out.what = QStringLiteral("Import %1 single results").arg(rows.size());
    auto entry = project.file().write(out.what, [&](store::Writer& w) {
        Squares squares(w, into);
        const auto places = placesOf(into, table);
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const auto& r = rows[k];
            const auto* said = table.rows[k].unit ? table.rows[k].unit : unit; // of the digits in the table
            domain::Pull pull;
            pull.specimen = places[k].specimen ? places[k].specimen
                                               : squares.specimen(places[k].option, places[k].condition, 0);
            pull.sourceName = sourceName.toStdString();
            pull.note = r.note;
            pull.outcome.path = path;
            pull.typed = domain::TypedValue{
                *metric, (*first)->toSi(r.value.value), (*first)->toSi(r.value.upper),
                r.asTyped + (r.asTyped.find_first_not_of("0123456789.,- ") == std::string::npos
                                 ? " " + std::string(said->symbol)
                                 : "")};
            pull.standing = domain::standingOf(r.value);
            if (pull.standing != domain::Standing::counts)
                pull.reason = r.note.empty()
                                  ? words::whyStands({pull.standing, domain::Because::markedInTable})
                                  : r.note;
            w.add(pull);
        }
    });
    if (!entry) return tl::unexpected(entry.error());
    out.journal = *entry;
    return out;
}

} // namespace anvil::project
