// What was published and has been changed since.
#pragma once

#include <anvil/results/results.h>

namespace anvil::results {

/// A pull whose value is another than the one that was published last.
struct Corrected {
    Id pull = 0;
    std::string published;                ///< when
    std::optional<stats::Value> was, now; ///< empty: it gave none
    std::string why, at;                  ///< as somebody said; empty: nobody has yet
};

/// In the order of the pulls. A change of less than 1e-9 of the value is none.
std::vector<Corrected> correctionsOf(const Results& results, const Metric& metric);

/// What would be published now: every value of the metric that decides.
Publication publicationOf(const Results& results, const Metric& metric, std::string at);

} // namespace anvil::results
