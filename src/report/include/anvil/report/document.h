// A report as a value: blocks in order. HTML and pages are made from the same document, so they cannot
// disagree.
#pragma once

#include <QString>
#include <QStringList>
#include <anvil/chart/charts.h>
#include <anvil/curve/steady.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/rig/setup.h>
#include <functional>
#include <map>
#include <variant>
#include <vector>

namespace anvil::report {

struct Heading {
    int level = 1; ///< 1 title, 2 section, 3 subsection
    QString text;
};
struct Paragraph {
    enum class Style { plain, lead, small, caution } style = Style::plain;
    QString text;
};
struct Bullets {
    QStringList items;
};
struct Table {
    QStringList header;
    std::vector<QStringList> rows;
    std::vector<bool> right; ///< right-aligned columns (numbers)
};
struct Figure {
    chart::Picture picture;
    QString caption;
};
using Block = std::variant<Heading, Paragraph, Bullets, Table, Figure>;

struct Document {
    QString title;
    std::vector<Block> blocks;
};

/// The units a person has chosen to see.
struct Units {
    const quantity::Unit* force = nullptr;
    const quantity::Unit* length = nullptr;

    /// The unit in which values of a dimension are shown: stiffness is force per length; energy is J.
    const quantity::Unit& of(quantity::Dimension dimension) const;
    /// The unit a metric is shown in.
    const quantity::Unit& of(const methods::Metric& metric) const;
};
/// Newtons (or another force unit) and millimetres (or inches).
Units unitsFrom(const std::string& force, const std::string& length);

/// Everything a report is made from.
struct Source {
    const domain::StudyData* study = nullptr;
    const results::Readings* readings = nullptr;
    std::function<const results::Verdict&(domain::Metric)> verdict;
    std::function<std::shared_ptr<const curve::ReadCurve>(domain::Id pull)> curve; ///< may give nothing
    QString project, date;
    std::function<std::vector<curve::Steady>(domain::Id pull)> steady{}; ///< at its marks; may be missing
    std::map<domain::Id, rig::Setup> setups{};                           ///< what was pulled on, by id
};

/// Composes the report of a study in the given units.
Document compose(const Source& source, const Units& units);

/// The order of pulls to take to the rig: a row for each piece with room to write on.
Document runListDocument(const domain::StudyData& study);

/// What the plan eats, for the shop and the saw.
Document stockDocument(const domain::StudyData& study);
/// The same for a spreadsheet: CSV with a heading.
std::string stockCsv(const domain::StudyData& study);

/// The report as one HTML file that needs nothing else; charts are SVG.
QString toHtml(const Document& document);

/// The cautions shown wherever a strength is told.
QStringList cautions();

/// An overlay of the curves of one square, in the given units.
chart::CurveChart overlayOf(const Source& source, domain::Id option, domain::Id condition, const Units& units,
                            std::size_t columns = 400);

} // namespace anvil::report
