// How many pulls: what a number of replicates can show, and how many a floor needs.
#pragma once

#include <optional>

namespace anvil::stats {

/// Smallest n per group with at least `power` for a two-sided t-test at the level `alpha` of a difference
/// (share of the mean) at CV (share); non-central t with 2n − 2 df. Empty above 200 000 or when an argument
/// is not positive.
std::optional<int> replicatesFor(double cv, double difference, double power = 0.8, double alpha = 0.05);

/// Power of that test with n ≥ 2 per group.
double powerOf(int n, double cv, double difference, double alpha = 0.05);

/// Smallest difference (share of the mean) that n per group show with `power`; the inverse of replicatesFor.
/// Empty for n < 2 or a CV that is not positive. Accurate to 1e-9.
std::optional<double> detectableDifference(int n, double cv, double power = 0.8);

/// One-sided normal tolerance factor k: with confidence c, a share p of all pieces exceeds mean − k·s of n.
/// k = t'(c; n − 1, z_p √n) / √n, non-central t (Owen 1968). n ≥ 2; p and c between 0 and 1.
double toleranceFactor(int n, double p, double confidence);

/// Smallest n whose floor lies within `share` of the mean: k(n)·CV ≤ share. Empty if no n up to 10 000 does.
std::optional<int> replicatesForFloor(double cv, double share, double p = 0.9, double confidence = 0.95);

/// The confidence with which a share p exceeds mean − k·s of n pieces; what a rule of thumb such as k = 3
/// promises.
double confidenceOfFloor(int n, double k, double p);

/// Upper 95 % prediction limit of the greatest of so many further values: mean + t(1 − 0.05/further; n −
/// 1)·s·√(1 + 1/n) (Bonferroni; exact for one). n ≥ 2, further ≥ 1.
double upperPrediction(double mean, double sd, int n, int further = 1);

} // namespace anvil::stats
