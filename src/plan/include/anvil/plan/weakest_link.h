// Which part of a load path goes first.
#pragma once

#include <anvil/domain/plan.h>
#include <span>
#include <string>
#include <vector>

namespace anvil::plan {

using namespace domain;

/// Chance that a part goes first.
struct Weakest {
    std::string name;
    double probability = 0;
    bool specimen = false;
};
/// Which part of a load path goes first: independent normal strengths (mean, CV), P(part i is the least) by
/// quadrature ∫ f_i Π (1 − F_j) over ± 8 s; error below 1e-6. Parts without spread are given 0.1 %.
std::vector<Weakest> weakestLink(std::span<const ChainPart> parts);
/// What to say of it; empty when the specimen goes first with at least 80 %, or nothing is known.
std::string weakestSentence(std::span<const Weakest> parts);

} // namespace anvil::plan
