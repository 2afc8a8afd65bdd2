#include "parts.h"

#include <algorithm>
#include <anvil/plan/fairness.h>
#include <anvil/plan/forecasts.h>
#include <anvil/quantity/print.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/words/verdict.h>
#include <map>

namespace anvil::report {
namespace {

using quantity::Dimension;
using quantity::withUnit;

Table rankedTable(const domain::StudyData& data, const results::Verdict& verdict, domain::Id condition,
                  const quantity::Unit& unit) {
    Table t;
    t.header = {"Rank", "Option", "n", "Mean", "95 % interval", "s", "CV", "Lowest", "Ties", "Cost each"};
    t.right = {true, false, false, true, true, true, true, true, false, true};
    bool costs = false;
    for (const auto& o : data.options)
        costs = costs || o.unitCost.has_value();
    const auto shown = [&](const std::optional<double>& v) {
        return v ? text(withUnit(*v, unit)) : QStringLiteral("–");
    };
    for (const auto i : verdict.inCondition(condition)) {
        const auto& g = verdict.groups[i];
        const auto& s = g.summary;
        const auto* o = &data.optionAt(g.option);
        t.rows.push_back(
            {g.rank ? QString::number(g.rank) : QStringLiteral("–"), text(o->name), text(chart::countText(s)),
             text(chart::meanText(s, unit)), text(chart::intervalText(s, unit)), shown(s.sd),
             s.cv ? text(quantity::percent(*s.cv)) : QStringLiteral("–"), shown(s.lowest),
             text(results::sharedLetters(verdict, g)),
             o->unitCost ? text(quantity::fixed(*o->unitCost, 2) + " " + o->currency) : QStringLiteral("–")});
    }
    if (!costs) {
        t.header.removeLast();
        t.right.pop_back();
        for (auto& r : t.rows)
            r.removeLast();
    }
    return t;
}

} // namespace

const quantity::Unit& Units::of(Dimension dimension) const {
    switch (dimension) {
    case Dimension::force:
        return *force;
    case Dimension::length:
        return *length;
    case Dimension::area:
        return quantity::unit(length->symbol == "in" ? "in²" : "mm²");
    case Dimension::stiffness: {
        static const std::map<std::pair<std::string_view, std::string_view>, std::string_view> names{
            {{"N", "mm"}, "N/mm"},     {{"kN", "mm"}, "kN/mm"},  {{"kgf", "mm"}, "kgf/mm"},
            {{"lbf", "mm"}, "lbf/mm"}, {{"N", "in"}, "N/in"},    {{"kN", "in"}, "kN/in"},
            {{"kgf", "in"}, "kgf/in"}, {{"lbf", "in"}, "lbf/in"}};
        return quantity::unit(names.at({force->symbol, length->symbol}));
    }
    case Dimension::energy:
        return quantity::unit("J");
    case Dimension::stress:
        return quantity::unit("MPa");
    case Dimension::energyPerArea:
        return quantity::unit("kJ/m²");
    case Dimension::acceleration:
        return quantity::unit("g₀");
    case Dimension::angle:
        return quantity::unit("°");
    case Dimension::mass:
    case Dimension::time:
    case Dimension::torque:
    case Dimension::speed:
    case Dimension::temperature:
    case Dimension::ratio:
    case Dimension::money:
    case Dimension::bendingStiffness:
        break;
    }
    return quantity::siUnit(dimension);
}

const quantity::Unit& Units::of(const methods::Metric& metric) const {
    return !metric.unit.empty() ? quantity::unit(metric.unit) : of(metric.dimension);
}

Units unitsFrom(const std::string& force, const std::string& length) {
    const auto pick = [](const std::string& name,
                         std::initializer_list<const char*> allowed) -> const quantity::Unit* {
        for (const char* a : allowed)
            if (name == a) return &quantity::unit(a);
        return &quantity::unit(*allowed.begin());
    };
    return {pick(force, {"N", "kN", "kgf", "lbf"}), pick(length, {"mm", "in"})};
}

QStringList cautions() {
    return {"Stretched ropes, wires and springs store energy, and brittle parts fly: stand out of the line "
            "of pull, shield the specimen, protect eyes and hands.",
            "These results compare specimens tested here, in this way, once. They are no rating and no "
            "certificate, and one pull says nothing about repeated load.",
            "For lifting, life support, structures or vehicles follow local codes and the maker's "
            "instructions, and ask a licensed or competent person."};
}

chart::CurveChart overlayOf(const Source& source, domain::Id option, domain::Id condition, const Units& units,
                            std::size_t columns) {
    chart::CurveChart c;
    std::size_t n = 0;
    bool time = false;
    Dimension load = Dimension::force, travel = Dimension::length;
    double x0 = 0, x1 = 0, y1 = 0;
    for (const auto& s : source.study->specimens) {
        if (s.option != option || s.condition != condition) continue;
        for (const auto& p : source.study->pulls) {
            if (p.specimen != s.id || !p.curve || !source.curve) continue;
            const auto drawn = source.curve(p.id);
            if (!drawn) continue;
            load = drawn->reading.load;
            travel = drawn->reading.travel;
            const auto& force = units.of(load);
            time = time || drawn->cleaned.displacement.empty();
            auto x = chart::abscissa(*drawn);
            auto y = drawn->cleaned.force;
            if (!drawn->cleaned.displacement.empty())
                for (auto& v : x)
                    v = units.of(travel).fromSi(v);
            for (auto& v : y)
                v = force.fromSi(v);
            const bool out = p.standing == domain::Standing::voided || p.standing == domain::Standing::aside;
            chart::Trace t;
            const auto standing = results::standingOf(p, source.readings->find(p.id));
            t.name = s.label + (standing == domain::Standing::counts
                                    ? ""
                                    : std::string(" (") + domain::word(standing) + ")");
            t.ink = out ? chart::Ink::faint : chart::seriesInk(n);
            t.dash = out ? chart::Dash::dotted : chart::seriesDash(n);
            t.pull = p.id;
            if (p.settings.calibratedTo)
                t.calibratedTo = force.fromSi(*p.settings.calibratedTo - drawn->reading.baseline);
            const auto [low, high] = std::minmax_element(x.begin(), x.end());
            t.points = curve::Pyramid(y).draw(x, y, *low, *high + 1e-12, columns);
            x0 = n ? std::min(x0, *low) : *low;
            x1 = n ? std::max(x1, *high) : *high;
            y1 = std::max(y1, *std::max_element(y.begin(), y.end()));
            c.traces.push_back(std::move(t));
            ++n;
        }
    }
    c.x0 = x0;
    c.x1 = x1;
    c.y0 = -0.03 * y1;
    c.y1 = 1.08 * y1;
    c.xTitle = time ? "Time since the load began (s)" : chart::travelTitle(units.of(travel));
    c.yTitle = chart::loadTitle(units.of(load));
    return c;
}

namespace {

/// The sections of a report, one after the other.
class Composer {
public:
    Composer(const Source& from, const Units& in)
        : source(from), units(in), data(*from.study), metric(data.study.goal.metric),
          verdict(from.verdict(metric)), m_title(text(data.study.title)) {}
    Document done() {
        title();
        found();
        ranked();
        curves();
        pulls();
        expected();
        cautionsOfStudy();
        workedOut();
        end();
        return {m_title, std::move(m_blocks)};
    }

private:
    template <class B> void add(B block) { m_blocks.push_back(std::move(block)); }

    void title() {
        add(Heading{1, m_title});
        if (!data.study.question.empty()) add(Paragraph{Paragraph::Style::lead, text(data.study.question)});
        add(Paragraph{Paragraph::Style::small,
                      QStringLiteral("%1, %2. %3 pulls on %4 options in %5 condition%6.")
                          .arg(source.project, source.date)
                          .arg(data.pulls.size())
                          .arg(data.options.size())
                          .arg(data.conditions.size())
                          .arg(data.conditions.size() == 1 ? "" : "s")});
    }
    void found() {
        add(Heading{2, "What was found"});
        const auto headlines = words::headlines(data, verdict);
        if (headlines.empty()) {
            add(Paragraph{Paragraph::Style::plain,
                          "No pull has been recorded yet, so there is nothing to rank."});
        } else {
            QStringList lines;
            for (const auto& h : headlines)
                lines << text(h);
            add(Bullets{lines});
            if (!verdict.empty())
                add(Figure{chart::ladder(data, verdict, units.of(*metric), 690),
                           QStringLiteral("Strength ladder: %1.").arg(text(metric->noun))});
        }
    }
    /// What every metric gives that any pull tells.
    void ranked() {
        auto metrics = domain::metricsOf(data.study.plan.method);
        if (std::find(metrics.begin(), metrics.end(), metric) == metrics.end()) metrics.push_back(metric);
        for (const auto& m : metrics) {
            const auto& v = source.verdict(m);
            if (v.empty()) continue;
            const auto& u = units.of(*m);
            add(Heading{2, text(m->title)});
            for (const auto& c : data.conditions) {
                if (v.inCondition(c.id).empty()) continue;
                if (data.conditions.size() > 1) add(Heading{3, text(c.name)});
                add(rankedTable(data, v, c.id, u));
            }
            if (m == metric) pairs();
        }
    }
    /// Pairs of the deciding metric, and what would settle more.
    void pairs() {
        QStringList options, conditions;
        for (const auto& p : verdict.pairs)
            if (verdict.hasBoth(p))
                (p.acrossConditions ? conditions : options) << text(words::sentence(data, verdict, p));
        if (!options.isEmpty()) {
            add(Heading{3, "Option against option"});
            add(Bullets{options});
        }
        if (!conditions.isEmpty()) {
            add(Heading{3, "Condition against condition"});
            add(Bullets{conditions});
        }
        const auto settling = words::next(data, verdict);
        if (!settling.empty()) {
            QStringList next;
            for (const auto& n : settling)
                next << text(n);
            add(Heading{3, "What would settle more"});
            add(Bullets{next});
        }
    }
    void curves() {
        bool headed = false;
        for (const auto& o : data.options)
            for (const auto& c : data.conditions) {
                auto chart = overlayOf(source, o.id, c.id, units, 300);
                if (chart.traces.empty()) continue;
                if (!headed) add(Heading{2, "Curves"});
                headed = true;
                chart.legend = true;
                add(Figure{chart::curves(chart, 690, 250), text(o.name + ", " + c.name)});
            }
    }
    void pulls() {
        if (const auto how = testedHow(source, units); !how.isEmpty()) {
            add(Heading{2, "How it was tested"});
            add(Bullets{how});
        }
        add(Heading{2, "Every pull"});
        add(pullTable(source, units));
        if (auto steady = steadyTable(source, units); !steady.rows.empty()) {
            add(Heading{2, "Every channel at the marked instants"});
            add(Paragraph{Paragraph::Style::small,
                          "Each over the second before its mark; s is the spread within it, the share "
                          "is of what the force channels beside the rig's own carry together."});
            add(std::move(steady));
        }
    }
    /// Forecasts, and how fair it was.
    void expected() {
        QStringList forecasts;
        for (const auto& score : plan::scoreForecasts(data, verdict))
            forecasts << text(plan::sentence(score));
        if (!forecasts.isEmpty()) {
            add(Heading{2, "What was expected"});
            add(Bullets{forecasts});
        }
        QStringList fair;
        for (const auto& f : plan::fairness(data, *source.readings))
            fair << text(f.sentence) + (f.accepted ? QStringLiteral(" Accepted, because %1.").arg(text(f.why))
                                                   : QStringLiteral(" Open."));
        if (!fair.isEmpty()) {
            add(Heading{2, "How fair it was"});
            add(Bullets{fair});
        }
    }
    void cautionsOfStudy() {
        if (!data.study.plan.cautions.empty()) {
            add(Heading{2, "Cautions of this study"});
            for (const auto& c : data.study.plan.cautions)
                add(Paragraph{Paragraph::Style::caution, text(c)});
        }
    }
    void workedOut() {
        add(Heading{2, "How it was worked out"});
        add(Bullets{
            {"Every curve is read by the same rule: zero from the unloaded start, spikes of up to three "
             "samples bridged, the peak is the greatest sample. Raw samples are kept unchanged.",
             "s is the standard deviation with n − 1; the interval is Student's t at 95 %. A group that "
             "holds an \"at least\" has a mean of \"at least\" and no interval.",
             QStringLiteral("Pairs are compared by Welch's t-test, or by the paired t-test where every block "
                            "holds one piece of each; p-values by Holm within a condition. "
                            "\"The same\" means within %1, by two one-sided tests.")
                 .arg(text(quantity::percent(data.study.goal.margin))),
             "Void pulls and those set aside are listed with their reason and are in no mean."}});
    }
    void end() {
        if (!data.study.note.empty()) add(Paragraph{Paragraph::Style::plain, text(data.study.note)});
        add(Heading{2, "Cautions"});
        for (const auto& c : cautions())
            add(Paragraph{Paragraph::Style::caution, c});
    }

    const Source& source;
    const Units& units;
    const domain::StudyData& data;
    domain::Metric metric;
    const results::Verdict& verdict;
    QString m_title;
    std::vector<Block> m_blocks;
};

} // namespace

Document compose(const Source& source, const Units& units) { return Composer(source, units).done(); }

} // namespace anvil::report
