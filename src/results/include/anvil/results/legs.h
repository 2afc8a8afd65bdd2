// How the legs of each square shared their load, as measured and as their directions would have it.
#pragma once

#include <anvil/methods/load_plan.h>
#include <anvil/results/results.h>
#include <optional>
#include <span>

namespace anvil::results {

/// The legs of one square: means over its pulls that count.
struct SquareLegs {
    Id option = 0, condition = 0;
    std::size_t pulls = 0;
    std::vector<double> loads, shares;          ///< N, and of their sum
    std::vector<methods::Direction> directions; ///< empty: nobody said them
    std::vector<double> predicted;              ///< shares; empty where they cannot be
    std::vector<std::optional<std::vector<double>>>
        without; ///< N in each leg after each is lost; empty: it falls
};

/// Of a study of shared loads, squares in board order; those without a pull that tells it are left out.
std::vector<SquareLegs> legsOf(const Results& results);

/// The legs of a piece while it is pulled: loads as they are shown, N; directions and stiffnesses as said of
/// the piece or its study. Empty for fewer than two legs, or where nothing pulls.
std::optional<SquareLegs> legsNow(const StudyData& data, const Specimen& piece,
                                  std::span<const double> loads);

} // namespace anvil::results
