// What an option costs and weighs, against what it holds.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// An option with a price in one condition.
struct Worth {
    std::size_t group = 0;                    ///< index of the verdict's
    double cost = 0;                          ///< each, in the option's currency
    std::optional<double> perCost, perWeight; ///< typical value over it; per kg
    bool atLeast = false;                     ///< both are only that: the values are bounds
    std::optional<std::pair<double, double>> perCostInterval, perWeightInterval; ///< 95 %
    std::optional<double> floor; ///< the load that 90 % exceed with 95 % confidence
    bool unbeaten = false;       ///< no other option of the condition is as cheap and holds as much, one of
                                 ///< them better; by floors where all have one, else by typical values
};

/// Every group of an option with a price, in the verdict's order. Nothing where fewer than two options of a
/// condition have one in the same currency, or where more is not what is wanted.
std::vector<Worth> worthOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
