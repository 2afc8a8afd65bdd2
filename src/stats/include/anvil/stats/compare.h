// Is the difference real? Pairs of groups: ratio with interval, Welch's test, equivalence, Holm, verdict,
// letters.
#pragma once

#include <anvil/stats/power.h>
#include <anvil/stats/summary.h>
#include <span>
#include <string>
#include <utility>
#include <vector>

namespace anvil::stats {

/// What may be said of group a against group b.
enum class PairVerdict {
    stronger,
    weaker,
    same,      ///< within the margin that matters
    tooClose,  ///< too close to call
    notEnough, ///< fewer than two pulls on a side
    notYet     ///< a side holds bounds: cannot be told yet
};

/// The word used by scripts: "stronger", "too_close" …
const char* word(PairVerdict verdict);

/// One pair. Optional members are empty where they cannot be computed.
struct Comparison {
    std::optional<double> ratio;                            ///< mean a / mean b
    std::optional<std::pair<double, double>> ratioInterval; ///< 95 %, delta method on logs, Welch df
    std::optional<double> difference;                       ///< mean a − mean b
    std::optional<double> t, df, p;                         ///< Welch (1947), two-sided
    std::optional<double> pHolm;                            ///< Holm (1979) within its family
    std::optional<double> tostP; ///< two one-sided tests against 1/(1+m) … (1+m), Schuirmann (1987)
    PairVerdict verdict = PairVerdict::notEnough;
    std::optional<int> moreEach; ///< further pulls a side that would settle a difference of the margin
};

/// Everything but pHolm, verdict and moreEach, which need the whole family. `margin` is a share, 0.1 for 10
/// %, > 0.
Comparison compare(const Summary& a, const Summary& b, double margin);

/// Fills pHolm over the pairs that have a p, then gives every pair its verdict at 5 %.
void decide(std::span<Comparison> family, std::span<const std::pair<Summary, Summary>> groups, double margin);

/// Tie letters for groups listed best first: maximal sets in which no pair is called stronger or weaker (a
/// pair that could not be tested is no tie) share a letter. verdict(i, j) is that of group i against group j,
/// i < j. All maximal sets are found (Bron and Kerbosch 1973 with the pivot of Tomita et al. 2006) while
/// there are no more than signs for them, 62; there can be 3^(n/3). Beyond that only so many that every tied
/// pair shares one, and "*" stands for all sets that no sign is left for.
std::vector<std::string> tieLetters(std::size_t groups, const std::vector<std::vector<PairVerdict>>& verdict);
/// The letters of one group that another one carries too: what it ties with; "*" is never among
/// them. `letters`: as from tieLetters.
std::string sharedLetters(const std::vector<std::string>& letters, std::size_t group);

} // namespace anvil::stats
