#include "choices.h"

#include <anvil/chart/legs.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <fmt/format.h>

namespace anvil::pages {
namespace {

/// A row a leg of each square: load, share, predicted share, and the loads after each leg is lost.
words::Table legTable(const domain::StudyData& data, const std::vector<results::SquareLegs>& squares,
                      const quantity::Unit& unit) {
    words::Table t{"legs",
                   {{"option", "Option"},
                    {"condition", "Condition"},
                    {"leg", "Leg", true},
                    {"load", "Load", true},
                    {"share", "Share", true},
                    {"predicted", "Predicted", true}},
                   {}};
    std::size_t most = 0;
    for (const auto& s : squares)
        most = std::max(most, s.without.size());
    for (std::size_t i = 0; i < most; ++i)
        t.columns.push_back({"without", fmt::format("Without leg {}", i + 1), true});
    for (const auto& s : squares)
        for (std::size_t leg = 0; leg < s.loads.size(); ++leg) {
            words::Row row{{data.optionAt(s.option).name, data.conditionAt(s.condition).name,
                            fmt::format("{}", leg + 1), quantity::withUnit(s.loads[leg], unit),
                            fmt::format("{:.1f} %", 100 * s.shares[leg]),
                            leg < s.predicted.size() ? fmt::format("{:.1f} %", 100 * s.predicted[leg]) : "–"},
                           0};
            for (std::size_t cut = 0; cut < most; ++cut)
                row.cells.push_back(cut >= s.without.size() ? "–"
                                    : cut == leg            ? "lost"
                                    : !s.without[cut]       ? "falls"
                                                      : quantity::withUnit((*s.without[cut])[leg], unit));
            t.rows.push_back(std::move(row));
        }
    return t;
}

} // namespace

bool hasLegs(const Source& source, const View&) {
    return source.table && source.table() && !results::legsOf(*source.table()).empty();
}

std::optional<Page> legs(const Source& source, const View& view) {
    if (!source.table || !source.table()) return {};
    const auto squares = results::legsOf(*source.table());
    if (squares.empty()) return {};
    const auto& data = *source.study;
    Page page{"legs", data.study.title, {}};
    std::vector<std::string> names;
    names.reserve(squares.size());
    for (const auto& s : squares)
        names.push_back(data.optionAt(s.option).name + ", " + data.conditionAt(s.condition).name);
    page.add(Figure{
        "legs", [squares, names](double width, double) { return chart::legPlans(squares, names, width); },
        "Legs seen from above, arrows by share; rings where directions and stiffness would have them"});
    page.add(legTable(data, squares, *view.units.force));
    page.add(paragraph(
        Paragraph::Style::small,
        "Means of the pulls that count. Without a leg: what the others would carry by small displacements, "
        "legs only pulling; \"falls\" where they could not hold the load."));
    for (auto& caution : cautions())
        page.add(Paragraph{Paragraph::Style::caution, std::move(caution)});
    return page;
}

} // namespace anvil::pages
