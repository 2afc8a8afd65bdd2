#include <anvil/chart/charts.h>

#include "axis_title.h"

#include "ladder_key.h"
#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/results/verdict.h>
#include <anvil/words/values.h>
#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <map>

namespace anvil::chart {
namespace {

using results::Group;

constexpr double usualRung = 30, leastRung = 14, closeRung = 28, mostRung = 150, leastNarrow = 46,
                 headHeight = 20, gap = 6, axisHeight = 40, keyHeight = 40;

std::string unitName(const quantity::Unit& unit) { return std::string(unit.symbol); }

} // namespace

MarkShape markOf(const stats::Value& value) {
    if (value.aside) return MarkShape::cross;
    switch (value.bound) {
    case stats::Bound::exact:
        return MarkShape::disc;
    case stats::Bound::above:
        return MarkShape::arrowRight;
    case stats::Bound::below:
        return MarkShape::arrowLeft;
    case stats::Bound::between:
        return MarkShape::span;
    }
    return MarkShape::disc;
}

namespace {

/// The longest name in bytes: a measure for the column of names.
double longestName(const domain::StudyData& data) {
    std::size_t longest = 0;
    for (const auto& o : data.options)
        longest = std::max(longest, o.name.size());
    return static_cast<double>(longest);
}

/// The greatest value shown, in the unit: of single results and, within reason, of intervals.
double greatest(const results::Verdict& verdict, const quantity::Unit& unit) {
    double top = 0;
    for (const auto& g : verdict.groups)
        for (const auto& v : g.values)
            top = std::max(top, unit.fromSi(std::max(v.value.value, v.value.upper)));
    // An interval of two pulls may be longer than all results together: it is cut then, and marked so.
    const double most = top * 1.5;
    for (const auto& g : verdict.groups)
        if (g.summary.typicalInterval)
            top = std::max(top, std::min(most, unit.fromSi(g.summary.typicalInterval->second)));
    return top;
}

/// The least value shown, in the unit: of single results and of intervals.
double least(const results::Verdict& verdict, const quantity::Unit& unit) {
    double low = std::numeric_limits<double>::infinity();
    for (const auto& g : verdict.groups) {
        for (const auto& v : g.values)
            low = std::min(low, unit.fromSi(v.value.value));
        if (g.summary.typicalInterval) low = std::min(low, unit.fromSi(g.summary.typicalInterval->first));
    }
    return std::isfinite(low) ? low : 0;
}

/// A value that the rungs are read against, in the unit.
struct Reference {
    double at = 0;
    std::string text;
    Ink ink = Ink::text;
    std::optional<double> upper{}; ///< of a range
};

/// The greatest rig limit of the pulls, what is needed and what is enough, by rising value; none so far away
/// that its line would only squeeze the rungs.
std::vector<Reference> referencesOf(const domain::StudyData& data, const results::Verdict& verdict,
                                    const quantity::Unit& unit, double top) {
    std::vector<Reference> out;
    const auto add = [&](double si, const std::string& what, Ink ink, std::optional<double> upper = {}) {
        const double at = unit.fromSi(si);
        if (upper) upper = unit.fromSi(*upper);
        const auto end = upper ? " to " + quantity::significant(*upper) : std::string();
        if (at > 0 && upper.value_or(at) <= 1.25 * top)
            out.push_back({at,
                           fmt::format("{} {}{} {}", what, quantity::significant(at), end, unitName(unit)),
                           ink, upper});
    };
    double limit = 0;
    if (verdict.goal.metric->dimension == quantity::Dimension::force)
        for (const auto& pull : data.pulls)
            if (pull.settings.rigLimit) limit = std::max(limit, *pull.settings.rigLimit);
    add(limit, "rig limit", Ink::warn);
    if (verdict.goal.need) add(*verdict.goal.need, "needed", Ink::text);
    if (verdict.goal.ceiling) add(*verdict.goal.ceiling, "enough", Ink::text);
    if (verdict.goal.metric == data.study.goal.metric)
        for (const auto& r : data.study.telling.references)
            add(r.value, elided(r.name, 24), Ink::text, r.upper);
    std::sort(out.begin(), out.end(), [](const Reference& a, const Reference& b) { return a.at < b.at; });
    return out;
}

/// Draws a ladder from its top rung down.
class Drawer {
public:
    Drawer(const domain::StudyData& study, const results::Verdict& shown, const quantity::Unit& in,
           double width, domain::Id chosen, LadderLook look)
        : data(study), verdict(shown), unit(in), selected(chosen), narrow(width < narrowWidth),
          nameWidth(narrow ? width - numberWidth
                           : std::clamp(44 + 7.2 * longestName(study), 110.0, 0.34 * width)),
          left(narrow ? 30 : nameWidth + 14), right(narrow ? width - 26 : width - numberWidth - 12),
          several(study.conditions.size() > 1) {
        p.width = width;
        const double values = greatest(verdict, unit);
        references = referencesOf(data, verdict, unit, values);
        const double top = references.empty() ? values : std::max(values, references.back().at),
                     end = top > 0 ? top * 1.04 : 1;
        chooseScale(least(verdict, unit), end,
                    right - left > 420   ? 7
                    : right - left > 200 ? 4
                                         : 2,
                    look.fromZero);
        y = topMargin = references.empty() ? 6 : narrow && references.size() > 1 ? 32 : 18;
        chooseRung(look.height);
    }
    Picture done() {
        for (const auto& condition : data.conditions)
            if (const auto members = verdict.inCondition(condition.id); !members.empty())
                block(condition, members);
        const double axis = y;
        scale(axis);
        referenceLines(axis);
        p.add(Label{{(left + right) / 2, axis + 32},
                    axisTitle(verdict.goal.metric->title, unitName(unit)) +
                        (x0 > 0 ? ", from " + tickText(x0, step / 2) + ", not from zero" : ""),
                    13,
                    Align::center,
                    Ink::text});
        p.height = addKey(p, data, verdict, axis + axisHeight);
        return std::move(p);
    }

private:
    static constexpr double numberWidth = 150, narrowWidth = 520, wordsHeight = 18;

    double at(double shown) const { return left + (shown - x0) / (x1 - x0) * (right - left); }
    double px(double si) const { return at(unit.fromSi(si)); }

    /// From zero, or from above it where the lower part would be empty: differences can be seen then.
    void chooseScale(double low, double end, int steps, bool fromZero) {
        constexpr double emptyShare = 0.4, margin = 0.2;
        step = niceStep(0, end, steps);
        if (!fromZero && low > emptyShare * end) {
            const double from = low - margin * (end - low);
            step = niceStep(from, end, steps);
            x0 = std::floor(from / (step / 2)) * step / 2;
            if (x0 < 0.2 * end) x0 = 0; // a short way is better shown
        }
        x1 = std::ceil(end / step) * step;
    }
    void chooseRung(double height) {
        std::size_t rungs = 0, heads = 0;
        for (const auto& condition : data.conditions)
            if (const auto n = verdict.inCondition(condition.id).size(); n > 0) {
                rungs += n;
                ++heads;
            }
        if (narrow) rungHeight = leastNarrow;
        if (rungs == 0 || height <= 0) return;
        const double rest = height - topMargin - axisHeight - keyHeight -
                            static_cast<double>(heads) * (gap + (several ? headHeight : 0));
        rungHeight = std::clamp(rest / static_cast<double>(rungs), leastRung, mostRung);
        if (narrow) rungHeight = std::max(rungHeight, leastNarrow);
    }
    /// A letter that stands at one rung alone ties nothing.
    std::string shared(const Group& g) const { return results::sharedLetters(verdict, g); }

    void block(const domain::Condition& condition, const std::vector<std::size_t>& members) {
        if (several) {
            p.add(Label{{8, y + 14}, elided(condition.name, 40), 13, Align::left, Ink::faint, true});
            y += headHeight;
        }
        const double top = y;
        for (const auto i : members) {
            rung(verdict.groups[i]);
            y += rungHeight;
        }
        blocks.emplace_back(top, y);
        brackets(members, top);
        y += gap;
    }
    void rung(const Group& g) {
        // Where there is no room beside the rung its words stand above it.
        const double mid = narrow ? y + (rungHeight + wordsHeight) / 2 : y + rungHeight / 2;
        name(g, narrow ? y + wordsHeight / 2 : mid);
        p.add(Line{{left, mid}, {right, mid}, Ink::grid, 5});
        if (x0 > 0) breakIn(mid);
        const auto& s = g.summary;
        if (s.typicalInterval) {
            const double a = std::max(left, px(s.typicalInterval->first)),
                         b = std::min(right, px(s.typicalInterval->second));
            const double half = close() ? 5 : 7;
            p.add(Area{{{a, mid - half}, {b, mid - half}, {b, mid + half}, {a, mid + half}}, Ink::band, 1});
            if (px(s.typicalInterval->second) > right + 0.5)
                p.add(Mark{{right - 5, mid}, MarkShape::arrowRight, 8, Ink::faint});
            if (px(s.typicalInterval->first) < left - 0.5)
                p.add(Mark{{left + 5, mid}, MarkShape::arrowLeft, 8, Ink::faint});
        }
        if (s.lowest && s.n > 1 && !close())
            p.add(Mark{{px(*s.lowest), mid + 12}, MarkShape::triangleUp, 7, Ink::faint});
        singles(g, mid);
        promised(g, mid);
        if (s.typical) {
            const double x = px(*s.typical);
            const double arm = close() ? 6 : 13;
            p.add(Line{{x, mid - arm}, {x, mid + arm}, Ink::accent, 2.5});
            if (s.bound != stats::Bound::exact) { // it lies anywhere beyond
                const bool up = s.bound == stats::Bound::above;
                p.add(Line{{x, mid - arm}, {up ? x + 14 : x - 14, mid - arm}, Ink::accent, 2});
                p.add(Mark{{up ? x + 17 : x - 17, mid - arm},
                           up ? MarkShape::arrowRight : MarkShape::arrowLeft,
                           8,
                           Ink::accent});
            }
        }
        if (close()) {
            p.add(
                Label{{p.width - 44, mid + 4}, words::meanText(s, unit), 11, Align::right, Ink::text, true});
            p.add(Label{{p.width - 6, mid + 4}, fmt::format("n {}", s.n), 11, Align::right, Ink::faint});
            return;
        }
        if (narrow) {
            p.add(Label{{p.width - 10, y + 13},
                        fmt::format("{}, n = {}", words::meanText(s, unit), s.n),
                        11,
                        Align::right,
                        Ink::text,
                        true});
            return;
        }
        p.add(Label{{p.width - 10, mid - 1}, words::meanText(s, unit), 13, Align::right, Ink::text, true});
        p.add(Label{{p.width - 10, mid + 13},
                    "n = " + words::countText(s) + (shared(g).empty() ? "" : ", ties: " + shared(g)),
                    11,
                    Align::right,
                    Ink::faint});
    }
    /// The rungs are so near to each other that a line of words is all there is room for.
    bool close() const { return rungHeight < closeRung; }
    /// Two strokes across the rung, and paper between them: the scale does not begin at zero.
    void breakIn(double mid) {
        const double x = left + 8;
        p.add(Area{{{x - 3, mid + 6}, {x + 1, mid - 6}, {x + 6, mid - 6}, {x + 2, mid + 6}}, Ink::paper, 1});
        for (const double shift : {0.0, 5.0})
            p.add(Line{{x - 3 + shift, mid + 6}, {x + 1 + shift, mid - 6}, Ink::faint, 1.4});
    }
    void name(const Group& g, double mid) {
        const auto& option = data.optionAt(g.option);
        if (g.rank > 0)
            p.add(Label{{8, mid + 5},
                        fmt::format("{}", g.rank),
                        close() ? 11.0 : 15.0,
                        Align::left,
                        g.rank == 1 ? Ink::accent : Ink::faint,
                        true});
        p.add(Label{{30, mid + 4},
                    elided(option.name, static_cast<std::size_t>((nameWidth - 30) / 7.0)),
                    13,
                    Align::left,
                    Ink::text,
                    g.rank == 1});
        const auto letters = shared(g);
        std::string tip = option.name;
        if (!letters.empty()) tip += "\nTied with all that share a letter: " + letters;
        p.hits.push_back({0, y, nameWidth, rungHeight, std::move(tip)});
    }
    /// What the maker promises of the option, and what was expected of the square, where it is on the scale.
    void promised(const Group& g, double mid) {
        const auto mark = [&](double si, MarkShape shape, const std::string& what) {
            const double x = px(si);
            if (unit.fromSi(si) < x0 || x < left || x > right) return;
            p.add(Mark{{x, mid}, shape, close() ? 7.0 : 10.0, Ink::text});
            p.add(Mark{{x, mid}, shape, close() ? 4.0 : 6.0, Ink::paper});
            p.hits.push_back({x - 6, mid - 6, 12, 12, what + " " + quantity::withUnit(si, unit)});
        };
        if (const auto& rating = data.optionAt(g.option).rating;
            rating && verdict.goal.metric->dimension == quantity::Dimension::force)
            mark(*rating, MarkShape::diamond, "rating");
        if (verdict.goal.metric == data.study.goal.metric)
            if (const auto* square = data.study.plan.square(g.option, g.condition))
                for (const auto& f : square->forecasts)
                    mark(f.value, MarkShape::square, (f.by.empty() ? "somebody" : f.by) + " expected");
    }
    /// Single results; those that would hide each other are stacked around the rung.
    void singles(const Group& g, double mid) {
        std::vector<std::pair<double, double>> placed;
        for (const auto& v : g.values) {
            const double x = v.value.bound == stats::Bound::between
                                 ? px(0.5 * (v.value.value + v.value.upper))
                                 : px(v.value.value);
            double shift = 0;
            for (const double full : {0.0, -5.5, 5.5, -10.0, 10.0}) {
                const double candidate = close() ? full * 0.3 : full;
                shift = candidate;
                if (std::none_of(placed.begin(), placed.end(), [&](const auto& q) {
                        return std::abs(q.first - x) < 8 && std::abs(q.second - candidate) < 5;
                    }))
                    break;
            }
            placed.emplace_back(x, shift);
            const bool aside = v.value.aside, chosen = v.pull == selected;
            p.add(Mark{{x, mid + shift},
                       markOf(v.value),
                       chosen    ? 13.0
                       : close() ? 7.0
                                 : 8.5,
                       chosen  ? Ink::accent
                       : aside ? Ink::faint
                               : Ink::series0});
            if (v.guess) // hollow
                p.add(Mark{{x, mid + shift}, markOf(v.value), chosen ? 6.5 : 4.2, Ink::paper});
            const auto* specimen = data.specimen(v.specimen);
            std::string tip = specimen ? specimen->label + ": " : std::string();
            tip += words::valueText(v.value, unit, v.guess);
            if (aside) tip += ", set aside";
            if (const auto* pull = data.pull(v.pull); pull && !pull->outcome.elsewhere.empty()) {
                p.add(Mark{{x, mid + shift}, MarkShape::ring, close() ? 11.0 : 14.0, Ink::faint});
                tip += ", from " + pull->outcome.elsewhere;
            }
            p.hits.push_back({x - 7, mid + shift - 7, 14, 14, std::move(tip), OfPull{v.pull}});
        }
    }
    /// One upright line for each letter that two or more rungs share.
    void brackets(const std::vector<std::size_t>& members, double top) {
        std::map<char, std::pair<double, double>> ties;
        double from = top;
        for (const auto i : members) {
            for (const char letter : shared(verdict.groups[i]))
                if (auto [it, fresh] = ties.try_emplace(letter, from, from); !fresh) it->second.second = from;
            from += rungHeight;
        }
        double x = right + 7;
        for (const auto& [letter, span] : ties) {
            if (!(span.second > span.first)) continue;
            const double a = span.first + 8, b = span.second + rungHeight - 8;
            p.add(Polyline{{{x - 4, a}, {x, a}, {x, b}, {x - 4, b}}, Ink::faint, 1.4});
            Hit tied{x - 5, a, 8, b - a, {}}; // GCC 12 warns of a long text in the braces
            tied.tip = "These are too close to call or the same within the margin.";
            p.hits.push_back(std::move(tied));
            x += 6;
        }
    }
    /// The two stiles of the ladder and the scale beneath, behind everything else.
    void scale(double axis) {
        for (const auto& [a, b] : blocks) {
            p.shapes.insert(p.shapes.begin(), Line{{left, a}, {left, b}, Ink::faint, 1.5});
            p.shapes.insert(p.shapes.begin(), Line{{right, a}, {right, b}, Ink::grid, 1.5});
        }
        for (const double v : ticks(x0, x1 + step / 2, step)) {
            const double x = at(v);
            p.shapes.insert(p.shapes.begin(),
                            Line{{x, topMargin + (several ? headHeight : 0)}, {x, axis}, Ink::grid, 0.7});
            p.add(Label{{x, axis + 14}, tickText(v, step), 11, Align::center, Ink::faint, false});
        }
    }
    /// Each with its words to the right of it, or to the left where the next line or the end is near.
    void referenceLines(double axis) {
        for (std::size_t k = 0; k < references.size(); ++k) {
            const auto& r = references[k];
            if (r.at < x0) continue;
            const double x = at(r.at), wide = 6.2 * static_cast<double>(r.text.size()) + 8;
            const double next = k + 1 < references.size() ? at(references[k + 1].at) : p.width;
            // Where there is little room the words of neighbours stand one above the other.
            const bool toLeft = x + wide > (narrow ? p.width : next) && x - wide > left;
            if (r.upper) {
                const double end = std::min(at(*r.upper), right);
                p.add(Area{{{x, 16}, {end, 16}, {end, axis}, {x, axis}}, Ink::band, 0.45});
                std::rotate(p.shapes.begin(), p.shapes.end() - 1, p.shapes.end()); // behind all else
                p.add(Line{{end, 16}, {end, axis}, r.ink, 1.4, Dash::dotted});
            }
            p.add(Line{{x, 4}, {x, axis}, r.ink, 1.4, r.ink == Ink::warn ? Dash::dashed : Dash::dotted});
            p.add(Label{{toLeft ? x - 4 : x + 4, narrow && k % 2 ? 25.0 : 12.0},
                        r.text,
                        11,
                        toLeft ? Align::right : Align::left,
                        r.ink});
        }
    }

    const domain::StudyData& data;
    const results::Verdict& verdict;
    const quantity::Unit& unit;
    domain::Id selected;
    bool narrow;
    double nameWidth, left, right;
    bool several;
    std::vector<Reference> references;
    double step = 1, x0 = 0, x1 = 1, topMargin = 6, y = 6, rungHeight = usualRung;
    std::vector<std::pair<double, double>> blocks;
    Picture p;
};

} // namespace

Picture ladder(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
               double width, domain::Id selected, LadderLook look) {
    return Drawer(data, verdict, unit, width, selected, look).done();
}

} // namespace anvil::chart
