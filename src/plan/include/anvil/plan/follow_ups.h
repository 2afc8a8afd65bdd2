// What is worth pulling next.
#pragma once

#include <anvil/results/sureness.h>

namespace anvil::plan {

/// What is to be done about it.
enum class Remedy { moreOfEach, moreReach, strongerPart, pullOn, test, repeatOdd };
/// The word used by scripts: "more_of_each", "more_reach", "stronger_part", "pull_on", "test", "repeat".
const char* word(Remedy remedy);

/// Something worth pulling next: why, which squares, how many more of each.
struct FollowUp {
    Remedy remedy = Remedy::moreOfEach;
    std::string sentence;
    std::vector<std::pair<domain::Id, domain::Id>> squares; ///< option, condition
    int more = 3;
    int pulls = 0;                ///< in all
    double minutes = 0;           ///< in all; 0: nobody said how long one takes
    std::optional<double> cost{}; ///< of the pieces, in `currency`; empty: a price is not known
    std::string currency{};
};

/// What the results leave open, most telling first: too close to call, a value that the order hangs on,
/// topped out, another part broke, not tested. `sure` says what hangs on a single value; null: nobody asked.
std::vector<FollowUp> followUps(const domain::StudyData& data, const results::Verdict& verdict,
                                const results::Sureness* sure = nullptr);

/// What it takes: "6 pulls, about 36 min, 4.20 EUR".
std::string effortText(const FollowUp& followUp);

} // namespace anvil::plan
