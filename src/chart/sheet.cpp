#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/plan/pieces.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::chart {

Picture sheetMap(const domain::StudyData& data, const std::string& sheet, const quantity::Unit& unit,
                 double width) {
    std::vector<const domain::Specimen*> placed;
    double right = 0, top = 0;
    const double apart = unit.fromSi(data.study.plan.apart.value_or(0));
    for (const auto& s : data.specimens)
        if (s.block == sheet && s.x && s.y) {
            placed.push_back(&s);
            right = std::max(right, unit.fromSi(*s.x));
            top = std::max(top, unit.fromSi(*s.y));
        }
    Picture p;
    p.width = width;
    if (placed.empty()) {
        p.height = 40;
        return p;
    }
    const double edge = std::max({0.12 * std::max(right, top), apart / 2, unit.fromSi(0.005)});
    right += edge; // the sheet ends somewhere beyond the outermost place
    top += edge;
    const double left = 56, above = 12;
    const double scale = std::min((width - left - 24) / right, 420 / top);
    const double bottom = above + top * scale;
    const auto px = [&](double x) { return left + x * scale; };
    const auto py = [&](double y) { return bottom - y * scale; };
    for (const auto& [a, b] : {std::pair{Point{px(0), py(0)}, Point{px(right), py(0)}},
                               {Point{px(0), py(0)}, Point{px(0), py(top)}},
                               {Point{px(right), py(0)}, Point{px(right), py(top)}},
                               {Point{px(0), py(top)}, Point{px(right), py(top)}}})
        p.add(Line{a, b, Ink::faint, 1});
    const double step = std::max(niceStep(0, right, 6), niceStep(0, top, 4));
    for (const double x : ticks(0, right, step)) {
        p.add(Line{{px(x), py(0)}, {px(x), py(top)}, Ink::grid, 1});
        p.add(Label{{px(x), bottom + 16}, tickText(x, step), 11, Align::center, Ink::faint, false});
    }
    for (const double y : ticks(0, top, step)) {
        p.add(Line{{px(0), py(y)}, {px(right), py(y)}, Ink::grid, 1});
        p.add(Label{{left - 8, py(y) + 4}, tickText(y, step), 11, Align::right, Ink::faint, false});
    }
    const auto at = [&](const domain::Specimen& s) {
        return Point{px(unit.fromSi(*s.x)), py(unit.fromSi(*s.y))};
    };
    for (const auto& pair : plan::closePairs(data, data.study.plan.apart.value_or(0))) {
        const auto *a = data.specimen(pair.a), *b = data.specimen(pair.b);
        if (a->block != sheet) continue;
        p.add(Line{at(*a), at(*b), Ink::warn, 3});
    }
    for (const auto* s : placed) {
        const auto option = std::find_if(data.options.begin(), data.options.end(),
                                         [&](const auto& o) { return o.id == s->option; }) -
                            data.options.begin();
        const auto ink = seriesInk(static_cast<std::size_t>(option));
        if (apart > 0) p.add(Mark{at(*s), MarkShape::ring, apart * scale, Ink::faint});
        p.add(Mark{at(*s), MarkShape::disc, 10, ink});
        p.add(Label{{at(*s).x + 8, at(*s).y - 6}, s->label, 13, Align::left, Ink::text, true});
        const auto* o = data.option(s->option);
        p.hits.push_back({at(*s).x - 9, at(*s).y - 9, 18, 18,
                          s->label + (o ? ", " + o->name : std::string()) + ": " +
                              quantity::withUnit(*s->x, unit, 4) + " from the left, " +
                              quantity::withUnit(*s->y, unit, 4) + " from below",
                          OfPiece{s->id}});
    }
    p.add(Label{{px(right), bottom + 32},
                "from the lower left corner (" + std::string(unit.symbol) + ")",
                11,
                Align::right,
                Ink::faint});
    p.height = bottom + 40;
    return p;
}

} // namespace anvil::chart
