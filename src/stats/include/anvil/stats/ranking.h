// How sure a ranking is: group means drawn again and again from what the values say of them.
#pragma once

#include <anvil/stats/drawn_means.h>

namespace anvil::stats {

/// Whose spread the draws took.
enum class DrawnSpread { own, pooled };
const char* word(DrawnSpread spread); ///< "own", "pooled"

/// Where a contender comes in.
struct DrawnPlace {
    double best = 0;      ///< share of the draws in which it is first
    double expected = 0;  ///< mean place; 1 is first
    int from = 0, to = 0; ///< the least places with cumulated shares of at least 0.05 and 0.95
    bool atLeast = false; ///< all its values are bounds and were drawn as if they were exact, which can
                          ///< only place it too low
};

struct DrawnRanking {
    DrawnSpread spread = DrawnSpread::pooled;
    std::vector<DrawnPlace> places; ///< as the contenders were handed in
};

/// Draws the means of all contenders `draws` times and ranks them, the greatest first (or the least). Where
/// every one has five exact values each is drawn from the density ∝ L(μ, σ)/σ of the normal law with its own
/// spread; else on logarithms with one spread for all, σ from ∝ (1/σ)·Π∫L dμ over those with an exact value,
/// then μ from ∝ L(μ, σ) (own spreads of two or three values are badly calibrated). One of bounds only is
/// drawn at them; nobody may look better so than he is (drawnFairly). `centres`: what each is centred on, in
/// the values' unit; empty: on its own mean. `shared` is the stream of σ. Empty: nobody to rank, one that
/// cannot be drawn, no spread can be told, or a value at or below zero where logarithms are needed. 20 000
/// draws tell a share to 0.7 %.
/// Source: places by draws and their intervals, Goldstein & Spiegelhalter 1996, "League tables and their
/// limitations"; the density of (μ, σ), see density.h.
std::optional<DrawnRanking> drawRanking(std::span<const Contender> contenders, bool moreIsBetter,
                                        std::uint64_t shared, int draws = 20000,
                                        std::span<const double> centres = {});

/// Ranks whoever was drawn elsewhere, such as by blocks.
std::vector<DrawnPlace> placesOf(const Means& means, bool moreIsBetter);

} // namespace anvil::stats
