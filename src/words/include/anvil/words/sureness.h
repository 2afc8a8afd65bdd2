// What a verdict hangs on, in sentences.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/results/sureness.h>
#include <string>
#include <vector>

namespace anvil::words {

/// What would be otherwise without a value: "Without A2-4 Wedge socket would lead in Plain."
std::string sentence(const domain::StudyData& data, const results::Verdict& verdict, const results::Odd& odd);

/// All of them; values that change the same share a sentence: "Without any one of A2-1 and A2-5 …".
std::vector<std::string> sentences(const domain::StudyData& data, const results::Verdict& verdict,
                                   const std::vector<results::Odd>& odd);

/// How sure the order of a condition is: "Chance to be the best, Plain: Pressed sleeve 97 %, Wedge socket 3
/// %."
/// Empty where nothing could be drawn.
std::string chances(const domain::StudyData& data, const results::Verdict& verdict,
                    const results::Sureness& sure, const domain::Condition& condition);

} // namespace anvil::words
