// Random studies with something of everything in them: prices, ratings, forecasts, parts that broke, days and
// batches, bounds of all kinds, what was set aside, treatments, an axis with numbers, needs and windows.
#pragma once

#include "study_maker.h"

#include <anvil/results/corrections.h>
#include <cmath>
#include <cstdint>

namespace anvil::results {

/// Draws that are the same on every machine, which the standard's distributions are not.
class Dice {
public:
    explicit Dice(std::uint64_t seed) : m_state(seed * 2654435761U + 88172645463325252U) {}
    /// From 0 to n − 1.
    int below(int n) { return static_cast<int>(next() % static_cast<std::uint64_t>(n)); }
    bool oneIn(int n) { return below(n) == 0; }
    double share() { return static_cast<double>(next() >> 11) / 9007199254740992.0; }
    /// About normal: twelve shares, less six.
    double normal() {
        double sum = -6;
        for (int i = 0; i < 12; ++i)
            sum += share();
        return sum;
    }

private:
    std::uint64_t next() {
        m_state ^= m_state << 13;
        m_state ^= m_state >> 7;
        m_state ^= m_state << 17;
        return m_state;
    }
    std::uint64_t m_state;
};

inline void richGoal(Study& study, Dice& dice) {
    auto& goal = study.goal;
    goal.margin = dice.oneIn(2) ? 0.1 : 0.05;
    if (dice.oneIn(3)) goal.need = 900;
    if (dice.oneIn(5)) goal.ceiling = 1200;
    if (dice.oneIn(3)) goal.control = 2;
    if (dice.oneIn(5)) goal.sense = Sense::less;
    if (dice.oneIn(8)) goal.sense = Sense::inside, goal.window = {800, 1100};
    if (dice.oneIn(4)) goal.part = "the pin";
    if (dice.oneIn(4)) goal.family = dice.oneIn(2) ? stats::Family::weibull : stats::Family::normal;
    if (dice.oneIn(3)) study.telling.references = {{"body weight", 785, {}}, {"published", 900, 1000}};
    if (dice.oneIn(2)) study.telling.use = {dice.oneIn(2) ? 4.0 : 10.0, "people under it", 50, 3000, 1.25};
    study.plan.method = "axial-pull";
    if (dice.oneIn(4)) study.plan.arrangements = {{2, 1, 2.0}};
}

inline Option richOption(int k, Dice& dice) {
    static constexpr const char* names[] = {"Ash", "Birch", "Cedar", "Durmast", "Elm"};
    Option o;
    o.id = k + 1;
    o.position = k;
    o.name = names[k];
    o.kind = dice.oneIn(2) ? "rope" : "";
    if (!dice.oneIn(4)) o.unitCost = 1 + dice.below(40) / 4.0, o.currency = "EUR";
    if (dice.oneIn(2)) o.weight = 0.02 + dice.below(20) / 200.0;
    if (dice.oneIn(3)) o.rating = 700 + 100.0 * dice.below(6), o.ratingBasis = "breaking load";
    return o;
}

inline void richPull(Maker& m, Id option, Id condition, double value, Dice& dice, double limit) {
    auto standing = value > limit ? Standing::atLeast : Standing::counts;
    if (dice.oneIn(14)) standing = standings[dice.below(7)];
    auto& p = m.pull(option, condition, std::min(value, limit), standing);
    auto& piece = m.data.specimens.back();
    piece.replicate = static_cast<int>(m.data.specimens.size());
    piece.batch = dice.oneIn(3) ? "second box" : "first box";
    piece.block = "board " + std::to_string(1 + dice.below(3));
    if (p.standing == Standing::between) p.typed->upper = p.typed->value * 1.1;
    if (dice.oneIn(4)) p.typed->asTyped = fmt::format("{:.0f} ± 5 N", p.typed->value);
    p.performedAt = fmt::format("2026-05-0{}T09:{}0:00", 1 + dice.below(3), dice.below(6));
    p.operatorName = dice.oneIn(3) ? "Tobin" : "Ines";
    if (dice.oneIn(2)) p.outcome.part = dice.oneIn(3) ? "the wire" : "the pin";
    if (!p.outcome.part.empty() && dice.oneIn(2)) p.outcome.mode = "pulled out";
    if (dice.oneIn(12)) p.outcome.limit = dice.oneIn(2) ? Limit::toppedOut : Limit::stopped;
    if (dice.oneIn(10)) p.outcome.afterwards = "bent";
    if (dice.oneIn(10)) p.note = "a knot in the wood";
}

inline Maker richStudy(std::uint64_t seed) {
    Dice dice(seed);
    Maker m;
    m.data.study.title = "Study " + std::to_string(seed);
    richGoal(m.data.study, dice);
    const bool axis = dice.oneIn(3);
    const int options = 2 + dice.below(4), conditions = axis ? 3 + dice.below(2) : 1 + dice.below(3);
    if (axis) m.data.study.plan.axis = "cure", m.data.study.plan.axisUnit = "d";
    for (int k = 0; k < options; ++k)
        m.data.options.push_back(richOption(k, dice));
    static constexpr const char* names[] = {"Dry", "Wet", "Frozen", "Hot"};
    for (int c = 0; c < conditions; ++c) {
        m.condition(axis ? (std::to_string(2 * c + 1) + " d").c_str() : names[c]);
        if (axis) m.data.conditions.back().value = 86400.0 * (2 * c + 1);
    }
    m.data.study.plan.chain = {{"the pin", 1000, 0.1, true, "guess"}, {"the wire", 1300, 0.05, false, "tag"}};
    const double spread = 0.01 + 0.3 * dice.share() * dice.share();
    const double limit = dice.oneIn(3) ? 1150 : 1e9;
    const int each = 1 + dice.below(7);
    for (int k = 0; k < options; ++k)
        for (int c = 0; c < conditions; ++c) {
            const double mean = 1000 * std::exp(0.12 * (dice.below(7) - 3) - 0.05 * c);
            auto& square = m.data.study.plan.squareFor(k + 1, 11 + c);
            square.replicates = each;
            if (dice.oneIn(3))
                square.forecasts = {{"Ines", mean * 1.1, 0.1, "the pin", "gut feeling", {}},
                                    {"Tobin", mean * 0.7, 0.15, "the wire", "", {}}};
            for (int i = dice.oneIn(5) ? dice.below(each + 1) : each; i > 0; --i)
                richPull(m, k + 1, 11 + c, mean * std::exp(spread * dice.normal()), dice, limit);
        }
    return m;
}

/// The same study after a report: some values and standings are others now, and one change has its reason.
inline StudyData afterAReport(const StudyData& data) {
    auto told = data;
    told.study.telling.publications = {
        publicationOf(Results(data, {}), data.study.goal.metric, "2026-06-01T00:00:00")};
    for (std::size_t i = 0; i < told.pulls.size(); ++i) {
        if (i % 5 == 0) told.pulls[i].typed->value *= 1.1;
        if (i % 7 == 0) told.pulls[i].standing = Standing::aside;
    }
    told.study.telling.corrections = {{told.pulls.front().id, "2026-06-02T00:00:00", "the scale was off"}};
    return told;
}

} // namespace anvil::results
