// Means of groups drawn again and again from what their values say.
#pragma once

#include <anvil/stats/summary.h>
#include <cstdint>
#include <string_view>
#include <vector>

namespace anvil::stats {

/// A group whose mean is drawn beside others of its condition.
struct Contender {
    std::span<const Value> values;
    std::uint64_t stream = 0; ///< of its draws, from streamOf()
};

/// A stream of draws of its own for every option of every condition: FNV-1a over seed and names. The same on
/// every machine.
std::uint64_t streamOf(std::uint64_t seed, std::string_view option, std::string_view condition);

/// Of values that are nothing but bounds of one kind: above for "at least", below for "at most"; else exact.
/// Such a group is drawn at its bounds, and can only lie beyond them.
Bound onlyBounds(std::span<const Value> values);
/// Whether the mean of such values can be drawn: some are exact or between two bounds, or all are bounds of
/// one kind.
bool canBeDrawn(std::span<const Value> values);
/// Whether drawing it makes it look no better than it is: where more is wanted "at most" alone would, where
/// less is wanted "at least" alone.
bool drawnFairly(std::span<const Value> values, bool moreIsBetter);
/// Moves draws so that their median is at this value.
void centre(std::vector<double>& draws, double at);
/// Whether there are so many exact values that a group's own spread is drawn with: five.
bool drawnByOwnSpread(std::span<const Value> values);

/// The draws of every group, one after the other.
using Means = std::vector<std::vector<double>>;

/// In the values' unit, each from the density ∝ L(μ, σ)/σ of the normal law with its own spread. Empty: one
/// has too few exact values.
std::optional<Means> drawMeans(std::span<const Contender> all, int draws);
/// Their logarithms, likewise with a group's own spread. Empty: too few exact values, or one that is not
/// positive.
std::optional<std::vector<double>> drawLogMean(const Contender& one, int draws);
/// Their logarithms with one spread for all: σ from ∝ (1/σ)·Π∫L dμ over those with an exact value, then μ
/// from ∝ L(μ, σ). One of bounds only is drawn at them. `shared` is the stream of σ. Empty: no
/// spread can be told, or a value is not positive.
std::optional<Means> drawLogMeans(std::span<const Contender> all, std::uint64_t shared, int draws);

} // namespace anvil::stats
