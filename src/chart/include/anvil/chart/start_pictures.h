// Drawings of the start page.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/results/verdict.h>
#include <span>

namespace anvil::chart {

/// What somebody who opens the program may want to do first.
enum class FirstStep { plan, logs, practise, example };
Picture startPicture(FirstStep step);

/// A rung of a ladder that is too small for a scale: shares of the greatest end of an interval, 0 to 1.
struct SmallRung {
    double low = 0, mean = 0, high = 0;
};
/// The rungs of the first condition of a verdict, best first; options without a mean above zero are left out.
std::vector<SmallRung> smallRungs(const results::Verdict& verdict);
/// At most five of them, the first in the accent.
Picture smallLadder(std::span<const SmallRung> rungs, double width, double height);

} // namespace anvil::chart
