// What broke: every part of the load path has a strength of its own, of which a pull shows the least.
#pragma once

#include <anvil/results/verdict.h>
#include <anvil/stats/fit.h>

namespace anvil::results {

/// One part in one square.
struct PartStrength {
    std::string part;              ///< empty: what broke was not said
    std::size_t failed = 0;        ///< in so many pulls it was this part
    std::optional<stats::Fit> fit; ///< log-normal: exact where it failed, else "at least" what the pull held
    std::optional<double> goesFirst; ///< chance that it fails before the others that did
};

/// The parts that failed in a square, the most frequent first.
struct SquareParts {
    std::size_t group = 0; ///< index of the verdict's
    std::size_t pulls = 0;
    std::vector<PartStrength> parts;
};

/// Every square with a value. In the pulls in which a part failed its strength is exact, in all others at
/// least their load (competing risks, taken to be independent; Crowder 2001). The chances need a fit for
/// every part that failed. Nothing where no pull of the study says of more than one part that it failed.
std::vector<SquareParts> partsOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
