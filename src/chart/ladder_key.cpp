#include "ladder_key.h"

#include <anvil/results/verdict.h>
#include <set>

namespace anvil::chart {

double addKey(Picture& p, const domain::StudyData& data, const results::Verdict& verdict, double top) {
    constexpr double row = 18, sign = 20, letter = 6.1, space = 16;
    bool mean = false, interval = false, lowest = false, bound = false, guess = false;
    bool fitted = false, averaged = false, atMost = false;
    bool rating = false, expected = false, elsewhere = false;
    std::set<stats::State> states;
    for (const auto& g : verdict.groups) {
        mean = mean || g.summary.typical;
        interval = interval || g.summary.typicalInterval;
        lowest = lowest || (g.summary.lowest && g.summary.n > 1);
        bound = bound || (g.summary.typical && g.summary.bound != stats::State::exact);
        atMost = atMost || (g.summary.typical && g.summary.bound == stats::State::below);
        const bool ofFit = g.summary.typicalBasis == stats::TypicalBasis::fittedMedian;
        fitted = fitted || (g.summary.typical && ofFit);
        averaged = averaged || (g.summary.typical && !ofFit);
        rating = rating || (data.optionAt(g.option).rating &&
                            verdict.goal.metric->dimension == quantity::Dimension::force);
        const auto* square = data.study.plan.square(g.option, g.condition);
        expected = expected ||
                   (square && !square->forecasts.empty() && verdict.goal.metric == data.study.goal.metric);
        for (const auto& v : g.values) {
            states.insert(v.value.state);
            guess = guess || v.guess;
            const auto* pull = data.pull(v.pull);
            elsewhere = elsewhere || (pull && !pull->outcome.elsewhere.empty());
        }
    }
    double x = 8, y = top + 1;
    const auto item = [&](bool wanted, const std::string& text, const auto& draw) {
        if (!wanted) return;
        const double need = sign + letter * static_cast<double>(text.size()) + space;
        if (x > 8 && x + need > p.width) {
            x = 8;
            y += row;
        }
        draw(x + 6, y);
        p.add(Label{{x + sign, y + 4}, text, 11, Align::left, Ink::faint});
        x += need;
    };
    const auto mark = [&](MarkShape shape, Ink ink) {
        return [&p, shape, ink](double at, double mid) { p.add(Mark{{at, mid}, shape, 8, ink}); };
    };
    const auto scale = verdict.goal.metric->scale;
    const char* middle = scale == methods::Scale::graded    ? "median"
                         : scale == methods::Scale::counted ? "rate of all tries"
                         : !fitted                          ? "mean"
                         : averaged                         ? "mean, or median of the fit (about)"
                                                            : "median of the fit (about)";
    item(mean, middle, [&](double at, double mid) {
        p.add(Line{{at, mid - 7}, {at, mid + 7}, Ink::accent, 2.5});
    });
    item(bound, atMost ? "only a bound" : "mean, at least", [&](double at, double mid) {
        p.add(Line{{at - 4, mid + 7}, {at - 4, mid - 5}, Ink::accent, 2.5});
        p.add(Line{{at - 4, mid - 5}, {at + 2, mid - 5}, Ink::accent, 2});
        p.add(Mark{{at + 4, mid - 5}, MarkShape::arrowRight, 7, Ink::accent});
    });
    item(interval, "95 % interval", [&](double at, double mid) {
        p.add(
            Area{{{at - 6, mid - 6}, {at + 8, mid - 6}, {at + 8, mid + 6}, {at - 6, mid + 6}}, Ink::band, 1});
    });
    item(lowest, "lowest", mark(MarkShape::triangleUp, Ink::faint));
    using enum stats::State;
    for (const auto& [state, text] : {std::pair{exact, "one pull"},
                                      {above, "at least"},
                                      {below, "at most"},
                                      {between, "between"},
                                      {aside, "set aside"}})
        item(states.contains(state), text, mark(markOf(state), state == aside ? Ink::faint : Ink::series0));
    const auto hollow = [&p](MarkShape shape) {
        return [&p, shape](double at, double mid) {
            p.add(Mark{{at, mid}, shape, 9, Ink::text});
            p.add(Mark{{at, mid}, shape, 5.4, Ink::paper});
        };
    };
    item(rating, "rating", hollow(MarkShape::diamond));
    item(expected, "expected", hollow(MarkShape::square));
    item(elsewhere, "in a ring: made elsewhere", [&](double at, double mid) {
        p.add(Mark{{at, mid}, MarkShape::disc, 7, Ink::series0});
        p.add(Mark{{at, mid}, MarkShape::ring, 13, Ink::faint});
    });
    item(guess, "hollow: a guess, beyond the calibration table", [&](double at, double mid) {
        p.add(Mark{{at, mid}, MarkShape::disc, 8.5, Ink::series0});
        p.add(Mark{{at, mid}, MarkShape::disc, 4.2, Ink::paper});
    });
    return x > 8 ? y + row / 2 : top;
}

} // namespace anvil::chart
