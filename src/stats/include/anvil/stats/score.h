// Several criteria weighed against each other: scores, blanks, and how often each wins whatever the weights.
#pragma once

#include <cstdint>
#include <optional>
#include <vector>

namespace anvil::stats {

/// Marks from 0 to 1, by option and criterion; empty: not tested.
using Marks = std::vector<std::vector<std::optional<double>>>;

/// What one option comes to. Shares from 0 to 1.
struct Score {
    std::optional<double> score; ///< weighed mean of its marks; empty where nothing that counts is tested
    double tested = 0;           ///< share of the weight that is tested
    double wins = 0;             ///< share of all weights under which it comes first
    std::optional<double> worst, best; ///< with its blanks filled by the least and the greatest mark that
                                       ///< anybody has there; empty where nobody has one
};

/// Marks on the rule "the best has 1": v over the greatest where more is wanted, the least over v where less
/// is. Empty for options without a value, and for all where a value is not positive: shares of it mean
/// nothing, so such a criterion needs anchors.
std::vector<std::optional<double>> marksOfBest(const std::vector<std::optional<double>>& values,
                                               bool moreIsBetter);
/// Marks between two fixed values: 0 at `worst`, 1 at `best`, straight between and no further.
std::vector<std::optional<double>> marksBetween(const std::vector<std::optional<double>>& values,
                                                double worst, double best);

/// Scores of all options. Only criteria with a weight above zero count. Wins: weights drawn uniformly from
/// the simplex (normed exponentials; Devroye 1986, ch. V), `draws` times; a draw that several win is shared.
/// What has a blank is scored by the rest of its marks. weights.size() = criteria of every option.
std::vector<Score> scores(const Marks& marks, const std::vector<double>& weights, std::uint64_t seed = 1,
                          int draws = 20000);

/// The option with the greatest score; the first of equals. Empty: nobody has one.
std::optional<std::size_t> winner(const std::vector<Score>& all);

/// A share of the weight of one criterion, the others keeping their proportions, at which another wins.
struct Turn {
    std::size_t criterion = 0;
    double share = 0;    ///< from here on, going away from what it is now
    bool above = true;   ///< with more than this share; else with less
    std::size_t now = 0; ///< who wins then
};

/// The nearest turn of each criterion that has one, by criterion; to 0.1 %. Needs two criteria that count.
std::vector<Turn> turns(const Marks& marks, const std::vector<double>& weights);

} // namespace anvil::stats
