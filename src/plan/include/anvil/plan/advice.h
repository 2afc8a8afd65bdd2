// What to know of a plan before anything breaks: a line each for fair, enough, reach, and so on.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

/// How a line of advice stands: nothing to say yet, in order, or worth a look.
enum class Sign { open, fine, look };

/// What a line is about, in the order they are read.
enum class Advice { fair, enough, reach, weakest, forecasts, order, facts, safety };
inline constexpr int adviceCount = 8;
/// "fair", "enough" …; for files and scripts.
std::string_view key(Advice about);
/// "Fair", "Enough" …
std::string_view title(Advice about);

struct AdviceLine {
    Advice about = Advice::fair;
    Sign sign = Sign::open;
    std::string sentence;
};

/// A line for each, in order. `cv`: the spread to expect, as a share; `verdict` on the metric that decides.
std::vector<AdviceLine> advise(const domain::StudyData& data, const results::Readings& readings,
                               const results::Verdict& verdict, double cv);

} // namespace anvil::plan
