// Last time: the same options in other studies.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// What another study said of an option.
struct Earlier {
    std::string project, study, at; ///< where and when (ISO 8601 date) it was
    std::string method, metric;     ///< keys
    std::string option, condition, intent, rig;
    std::size_t n = 0;
    std::optional<double> mean, sd; ///< SI
    bool atLeast = false;           ///< the mean is a bound
    std::vector<std::string> batches{};
};

/// What a study says of its options, for the index of earlier ones: every group with a mean of the metric
/// that decides. Rig checks and practice say nothing.
std::vector<Earlier> earlierOf(const std::string& project, const StudyData& data, const Verdict& verdict);

/// An option then and now.
struct ThenAndNow {
    std::size_t group = 0; ///< index of the verdict's
    Earlier then;
    std::optional<stats::Comparison> comparison; ///< now over then, by both spreads; where both have one and
                                                 ///< neither is a bound
    bool otherCondition = false, otherIntent = false, otherRig = false, otherBatch = false;
};

/// Every group beside what was found of an option of that name in a study of the same method and metric; its
/// own condition first, then the newest.
std::vector<ThenAndNow> lastTimes(const StudyData& data, const Verdict& verdict,
                                  const std::vector<Earlier>& earlier);

} // namespace anvil::results
