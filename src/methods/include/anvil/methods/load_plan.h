// How legs share a load: statics of small movements, legs that only pull, points that hang on other points.
#pragma once

#include <anvil/quantity/error.h>
#include <array>
#include <cstddef>
#include <optional>
#include <vector>

namespace anvil::methods {

using Direction = std::array<double, 3>; ///< of any length above zero

/// A leg, or a link between two points.
struct Leg {
    Direction towards{};  ///< from the point it pulls at to where it goes
    double stiffness = 1; ///< N/m, or in proportion: shares are the same
    int at = 0;           ///< the point it pulls at
    int to = -1;          ///< the point where it ends; −1: something that does not move
    int strand = -1;      ///< two legs of one number are one line that slides through their point; −1: none
};

/// Points that legs hold, and what pulls at each.
struct LoadPlan {
    std::vector<std::array<double, 3>> loads; ///< N, at each point; its size is the number of points
    std::vector<Leg> legs;
    /// How much more one side of a sliding line may carry than the other before it slides: 1 is without
    /// friction, e^(μθ) over a round edge (Euler and Eytelwein).
    double grip = 1;
};

/// What each leg carries.
struct LegLoads {
    std::vector<double> load; ///< N; 0 where a leg is slack
    std::vector<bool> slack;
};

/// The loads by small displacements: each leg a spring along its direction, K·d = F with K = Σ k·u·uᵀ
/// (McGuire, Gallagher and Ziemian 2000, ch. 2). Legs that would push are slack: the one that pushes most is
/// dropped and the rest solved again; one that would be stretched all the same comes back. The two sides of a
/// sliding line stretch together; they carry the same, or as much unlike as the friction holds. Error: a
/// number that cannot be, or legs that cannot carry this load however they are stretched.
Expected<LegLoads> legLoads(const LoadPlan& plan);

/// The same after leg `cut` is gone.
Expected<LegLoads> withoutLeg(const LoadPlan& plan, std::size_t cut);

/// Legs from one point that carry `load` N along `pull`; directions and stiffnesses by leg.
LoadPlan onePoint(const std::vector<Direction>& legs, const std::vector<double>& stiffness,
                  const Direction& pull, double load);

/// A load told by difference: its size along the leg, N, and how far it lies off the leg, as a share.
struct ByDifference {
    double load = 0, across = 0;
};
/// What a leg without a sensor carries, from what the others carry and the load on all: the length of what is
/// missing, N; and how far that lies off the leg's direction, as a share of it. Error: the other legs carry
/// it all.
Expected<ByDifference> byDifference(const std::vector<Direction>& legs, const std::vector<double>& loads,
                                    std::size_t unknown, const Direction& pull, double load);

struct Evidence;

/// What one pull tells of its legs.
struct SharedLoad {
    std::vector<double> loads;         ///< N, one told by difference among them
    std::vector<Direction> directions; ///< empty: nobody said them
    double load = 0;                   ///< N on all; 0 without directions
    std::vector<double> predicted; ///< N in each leg as directions and stiffnesses would have it; or empty
    /// N in each leg after each is lost; empty: the rest would not hold.
    std::vector<std::optional<std::vector<double>>> without;
};
/// As the method "load-share" sees it. Error: what it refuses.
Expected<SharedLoad> sharedLoad(const Evidence& evidence);

} // namespace anvil::methods
