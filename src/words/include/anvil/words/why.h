// Two groups side by side, in sentences and tables.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/why.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// How sure that is, and what would settle it: the test used, its p after Holm, pulls that would do.
std::vector<std::string> support(const domain::StudyData& data, const results::Verdict& verdict,
                                 const results::Why& why);

/// What differed beside what is compared.
std::string sentence(const domain::StudyData& data, const results::Verdict& verdict, const results::Why& why,
                     const results::Differed& differed);

/// What setting values aside does to the pair; empty: nothing is.
std::string asideSentence(const domain::StudyData& data, const results::Verdict& verdict,
                          const results::Why& why);

/// What every reader has to know of the results beside their numbers: groups of a single pull, and results
/// that were not made here.
std::vector<std::string> limitsOfResults(const domain::StudyData& data, const results::Verdict& verdict);

/// How often which part broke.
Table brokeTable(const domain::StudyData& data, const results::Verdict& verdict, const results::Why& why);

/// One sign for what is said of the first against the second: "＞" "＜" "＝" "≈" "?"; with what it says.
struct Sign {
    const char* sign;
    const char* says;
};
Sign signOf(stats::PairVerdict verdict);

} // namespace anvil::words
