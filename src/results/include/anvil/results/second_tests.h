// Each pair by two more tests, for those who want to see them beside the first.
#pragma once

#include <anvil/results/verdict.h>
#include <vector>

namespace anvil::results {

/// Empty where a side holds a bound or has no value that counts.
struct SecondTests {
    std::optional<double> mannWhitneyP; ///< by ranks, without a family
    std::optional<double> pooledP; ///< on logarithms, with the spread all groups of the pair's family share
};

/// Of every pair of the verdict, in its order; empty for those that are not wanted (`wanted` empty: all are).
/// The family is the condition of two options, or the option of two conditions.
std::vector<SecondTests> secondTests(const Verdict& verdict, const std::vector<bool>& wanted = {});

} // namespace anvil::results
