// What is worth pulling next.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

/// What is to be done about it.
enum class Remedy { moreOfEach, moreReach, strongerPart, pullOn, test };
/// The word used by scripts: "more_of_each", "more_reach", "stronger_part", "pull_on", "test".
const char* word(Remedy remedy);

/// Something worth pulling next: why, which squares, how many more of each.
struct FollowUp {
    Remedy remedy = Remedy::moreOfEach;
    std::string sentence;
    std::vector<std::pair<Id, Id>> squares; ///< option, condition
    int more = 3;
};

/// What the results leave open, most telling first: too close to call, topped out, another part broke, not
/// tested.
std::vector<FollowUp> followUps(const StudyData& data, const Verdict& verdict);

} // namespace anvil::plan
