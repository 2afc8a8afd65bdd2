// The practice bench: a study whose truth is hidden, and how the tester did.
#pragma once

#include <anvil/project/open_project.h>
#include <cstdint>

namespace anvil::project {

/// A study of three unknown pins on the virtual bench, pieces made and in order. The seed hides their
/// strengths; see practiceStrength.
Expected<Id> addPracticeStudy(OpenProject& project, std::uint64_t seed);

/// The hidden mean strength of an option of a practice study, N: 1500 to 2500, no two within 6 %.
double practiceStrength(std::uint64_t seed, int option);

/// How a practice study was run, as sentences that begin with ✓ or ✗: zeroed, slack taken up, even rate, what
/// broke, replicates, verdict.
std::vector<std::string> practiceScore(const domain::StudyData& data, const results::Readings& readings,
                                       const results::Verdict& verdict);

} // namespace anvil::project
