// What is worth pulling next.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

/// Something worth pulling next: why, which squares, how many more of each.
struct FollowUp {
    std::string sentence;
    std::vector<std::pair<Id, Id>> squares; ///< option, condition
    int more = 3;
};

/// What the results leave open, most telling first: too close to call, topped out, another part broke, not
/// tested.
std::vector<FollowUp> followUps(const StudyData& data, const Verdict& verdict);

} // namespace anvil::plan
