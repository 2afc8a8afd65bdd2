#include "ladder_key.h"

#include <anvil/results/verdict.h>
#include <set>

namespace anvil::chart {

namespace {

/// What is to be seen on a ladder, and so has to be explained.
struct Seen {
    bool mean = false, interval = false, lowest = false, bound = false, guess = false;
    bool fitted = false, averaged = false, atMost = false;
    bool rating = false, expected = false, elsewhere = false;
    std::set<std::pair<bool, stats::Bound>> kinds; // set aside, and what else says of it

    Seen(const domain::StudyData& data, const results::Verdict& verdict) {
        for (const auto& g : verdict.groups)
            see(data, verdict, g);
    }
    void see(const domain::StudyData& data, const results::Verdict& verdict, const results::Group& g) {
        mean = mean || g.summary.typical;
        interval = interval || g.summary.typicalInterval;
        lowest = lowest || (g.summary.lowest && g.summary.n > 1);
        bound = bound || (g.summary.typical && g.summary.bound != stats::Bound::exact);
        atMost = atMost || (g.summary.typical && g.summary.bound == stats::Bound::below);
        const bool ofFit = g.summary.typicalBasis == stats::TypicalBasis::fittedMedian;
        fitted = fitted || (g.summary.typical && ofFit);
        averaged = averaged || (g.summary.typical && !ofFit);
        rating = rating || (data.optionAt(g.option).rating &&
                            verdict.goal.metric->dimension == quantity::Dimension::force);
        const auto* square = data.study.plan.square(g.option, g.condition);
        expected = expected ||
                   (square && !square->forecasts.empty() && verdict.goal.metric == data.study.goal.metric);
        for (const auto& v : g.values) {
            kinds.insert({v.value.aside, v.value.bound});
            guess = guess || v.guess;
            const auto* pull = data.pull(v.pull);
            elsewhere = elsewhere || (pull && !pull->outcome.elsewhere.empty());
        }
    }
};

/// Puts one sign and its words after the other.
class Rows {
public:
    Rows(Picture& picture, double top) : p(picture), m_top(top), m_y(top + 1) {}
    template <class Draw> void item(bool wanted, const std::string& text, const Draw& draw) {
        if (!wanted) return;
        const double need = sign + letter * static_cast<double>(text.size()) + space;
        if (m_x > 8 && m_x + need > p.width) {
            m_x = 8;
            m_y += row;
        }
        draw(m_x + 6, m_y);
        p.add(Label{{m_x + sign, m_y + 4}, text, 11, Align::left, Ink::faint});
        m_x += need;
    }
    double bottom() const { return m_x > 8 ? m_y + row / 2 : m_top; }

private:
    static constexpr double row = 18, sign = 20, letter = 6.1, space = 16;
    Picture& p;
    double m_top, m_x = 8, m_y;
};

/// What the mean is called.
const char* middleOf(const Seen& seen, methods::Scale scale) {
    if (scale == methods::Scale::graded) return "median";
    if (scale == methods::Scale::counted) return "rate of all tries";
    if (!seen.fitted) return "mean";
    return seen.averaged ? "mean, or median of the fit (about)" : "median of the fit (about)";
}

} // namespace

double addKey(Picture& p, const domain::StudyData& data, const results::Verdict& verdict, double top) {
    const Seen seen(data, verdict);
    Rows rows(p, top);
    const auto mark = [&](MarkShape shape, Ink ink) {
        return [&p, shape, ink](double at, double mid) { p.add(Mark{{at, mid}, shape, 8, ink}); };
    };
    rows.item(seen.mean, middleOf(seen, verdict.goal.metric->scale), [&](double at, double mid) {
        p.add(Line{{at, mid - 7}, {at, mid + 7}, Ink::accent, 2.5});
    });
    rows.item(seen.bound, seen.atMost ? "only a bound" : "mean, at least", [&](double at, double mid) {
        p.add(Line{{at - 4, mid + 7}, {at - 4, mid - 5}, Ink::accent, 2.5});
        p.add(Line{{at - 4, mid - 5}, {at + 2, mid - 5}, Ink::accent, 2});
        p.add(Mark{{at + 4, mid - 5}, MarkShape::arrowRight, 7, Ink::accent});
    });
    rows.item(seen.interval, "95 % interval", [&](double at, double mid) {
        p.add(
            Area{{{at - 6, mid - 6}, {at + 8, mid - 6}, {at + 8, mid + 6}, {at - 6, mid + 6}}, Ink::band, 1});
    });
    rows.item(seen.lowest, "lowest", mark(MarkShape::triangleUp, Ink::faint));
    using enum stats::Bound;
    for (const auto& [bound, text] :
         {std::pair{exact, "one pull"}, {above, "at least"}, {below, "at most"}, {between, "between"}})
        rows.item(seen.kinds.contains({false, bound}), text, mark(markOf({0, bound}), Ink::series0));
    rows.item(seen.kinds.contains({true, exact}), "set aside", mark(markOf({0, exact, 0, true}), Ink::faint));
    const auto hollow = [&p](MarkShape shape) {
        return [&p, shape](double at, double mid) {
            p.add(Mark{{at, mid}, shape, 9, Ink::text});
            p.add(Mark{{at, mid}, shape, 5.4, Ink::paper});
        };
    };
    rows.item(seen.rating, "rating", hollow(MarkShape::diamond));
    rows.item(seen.expected, "expected", hollow(MarkShape::square));
    rows.item(seen.elsewhere, "in a ring: made elsewhere", [&](double at, double mid) {
        p.add(Mark{{at, mid}, MarkShape::disc, 7, Ink::series0});
        p.add(Mark{{at, mid}, MarkShape::ring, 13, Ink::faint});
    });
    rows.item(seen.guess, "hollow: a guess, beyond the calibration table", [&](double at, double mid) {
        p.add(Mark{{at, mid}, MarkShape::disc, 8.5, Ink::series0});
        p.add(Mark{{at, mid}, MarkShape::disc, 4.2, Ink::paper});
    });
    return rows.bottom();
}

} // namespace anvil::chart
