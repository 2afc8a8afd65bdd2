// Counts of successes: exact intervals of a rate, and two rates compared exactly.
#pragma once

#include <utility>

namespace anvil::stats {

/// So many successes in so many tries; 0 ≤ successes ≤ tries.
struct Tally {
    int successes = 0, tries = 0;
    bool operator==(const Tally&) const = default;
};

/// The exact interval of a rate, both ends at (1 − confidence)/2 (Clopper and Pearson 1934). [0, 1] for no
/// tries.
std::pair<double, double> exactInterval(Tally tally, double confidence = 0.95);

/// The chance of as many successes or more, and of as few or fewer, where each try succeeds with this chance.
double asManySuccesses(Tally tally, double rate);
double asFewSuccesses(Tally tally, double rate);

/// The two-sided p of two rates being one: the chance, with all margins as they are, of a table that is no
/// likelier than this one (Fisher's exact test; Fisher 1935). 1 where either was never tried.
double fisherExact(Tally a, Tally b);

/// The interval of the ratio of two rates a/b at the given confidence, from the joint of their exact
/// intervals at √confidence each (conservative); an end may be 0 or infinite.
std::pair<double, double> ratioInterval(Tally a, Tally b, double confidence = 0.95);

} // namespace anvil::stats
