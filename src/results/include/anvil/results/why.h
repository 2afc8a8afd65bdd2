// Two groups side by side: what broke, what else differed, and what setting values aside does.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// How often a part broke on each side; an empty part: it was not said.
struct BrokeCount {
    std::string part;
    std::size_t a = 0, b = 0;
};

/// What differed beside what is compared.
struct Differed {
    enum class What { batch, day, operatorName, rig, speed } what = What::batch;
    std::string a, b;  ///< as lists; of speeds empty
    double factor = 1; ///< of speeds: the median of a over that of b
};

/// Everything that is known of a pair.
struct Why {
    std::size_t a = 0, b = 0; ///< indices of the verdict's groups
    bool acrossConditions = false;
    stats::Comparison comparison;
    std::vector<BrokeCount> broke;
    std::vector<Differed> differed;
    std::size_t asideA = 0, asideB = 0;
    std::optional<stats::Comparison> withAside; ///< as if nothing were set aside, this pair alone; where
                                                ///< anything is and no value is a bound
};

/// The pair as it was compared. Empty: the two were never compared (they share neither option nor condition).
/// Batches, operators and rigs differ where no piece of one side has one of the other's; days likewise;
/// speeds where the medians differ by a quarter or more.
std::optional<Why> whyOf(const Results& results, const Verdict& verdict, std::size_t a, std::size_t b);

/// What differed between all pulls of two groups.
std::vector<Differed> differedOf(const Results& results, const Group& a, const Group& b);

} // namespace anvil::results
