// How many of each, and what that eats.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::plan {

/// What a number of replicates buys at an expected CV.
struct Replication {
    int n = 0;
    std::optional<double> detectable; ///< smallest difference seen with 80 % power, as a share
    std::string school;               ///< what those who pull so many say they can tell, and what they cannot
};
/// The usual numbers (1, 2, 3, 5, 7, 10) and the planned one.
std::vector<Replication> schools(double cv, int planned);
/// The spread to expect of a kind of option before there are results of one's own, as a share; and why.
double defaultCv(const std::string& kind);
/// The pooled CV of the results there are; empty without two groups of two. By the root mean square, weighted
/// by n − 1.
std::optional<double> ownCv(const results::Verdict& verdict);

/// Planned replicates, pulls, and cost where every option has one.
struct PlanTotals {
    int squares = 0, replicates = 0, pulled = 0;
    std::optional<double> cost;
    std::string currency;
    double pulling = 0;     ///< s that all pulls take; 0: not known
    double preparation = 0; ///< s from the first step to the last wait, working hours left aside
};
PlanTotals totals(const domain::StudyData& data);

/// What the plan eats.
struct StockLine {
    std::string what;
    int needed = 0, made = 0;
    std::optional<double> unitCost, cost;
    std::string currency;
    std::string supply{}; ///< where it is got; empty: nobody said
};
std::vector<StockLine> stock(const domain::StudyData& data);

} // namespace anvil::plan
