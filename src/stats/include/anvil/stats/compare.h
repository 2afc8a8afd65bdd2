// Is the difference real? Pairs of groups: ratio with interval, Welch's test, equivalence, Holm, verdict,
// letters.
#pragma once

#include <anvil/stats/counts.h>
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
    notYet     ///< a side holds bounds that leave it open
};

/// The word used by scripts: "stronger", "too_close" …
const char* word(PairVerdict verdict);

/// What a pair was tested by.
enum class PairTest {
    none,
    welch,   ///< Welch (1947): each group by its own spread
    paired,  ///< Student (1908) on the differences within blocks that hold both
    ranks,   ///< Mann and Whitney (1947): steps of a scale
    counts,  ///< Fisher (1935): successes of tries
    censored ///< by draws of both means, where a side holds bounds: see drawn_pair.h
};
/// The word used by scripts: "welch", "paired_t", "ranks", "fisher", "censored"; empty for none.
const char* word(PairTest test);

/// A group as one side of a pair: what was found, and each value with the block it was pulled in.
struct Side {
    Summary summary;
    std::vector<std::pair<std::string, double>>
        blocked; ///< empty where any value has no block, or is a bound
    Side() = default;
    Side(Summary s) : summary(std::move(s)) {} // NOLINT: a summary is a side without blocks
};

/// One pair. Optional members are empty where they cannot be computed.
struct Comparison {
    std::optional<double> ratio;                            ///< mean a / mean b
    std::optional<std::pair<double, double>> ratioInterval; ///< 95 %, delta method on logs, Welch df
    bool atLeast = false, atMost = false; ///< the ratio is only that: a, or b, holds nothing but "at least"
    /// mean a − mean b; of ranks the share of pairs in which a is the higher, less the share in which b is
    std::optional<double> difference;
    PairTest test = PairTest::none;
    std::optional<double> t, df, p; ///< of that test, two-sided
    std::optional<double> pHolm;    ///< Holm (1979) within its family
    std::optional<double> tostP;    ///< two one-sided tests against 1/(1+m) … (1+m), Schuirmann (1987)
    PairVerdict verdict = PairVerdict::notEnough;
    std::optional<int> moreEach; ///< further pulls a side that would settle a difference of the margin
};

/// Everything but pHolm, verdict and moreEach, which need the whole family. `margin` is a share, 0.1
/// for 10
/// %, > 0. Where every block holds one value of each side the pair is tested on the differences within
/// blocks: paired t; ratio with se² = A + B − 2·cov/(n·m_a·m_b), df n − 1.
Comparison compare(const Side& a, const Side& b, double margin);

/// Steps of a scale against each other: by their ranks, without a ratio.
Comparison compareGraded(std::span<const double> a, std::span<const double> b);
/// Successes against each other: the ratio of their rates with an interval from their exact ones, Fisher's p.
Comparison compareCounted(Tally a, Tally b);

/// Two sides that are compared; neither is null. A family of a thousand groups has half a million pairs of
/// them.
using SidePair = std::pair<const Side*, const Side*>;

/// What may be said of a pair whose pHolm is known, at 5 %.
PairVerdict verdictOf(const Comparison& comparison, const Summary& a, const Summary& b);

/// Compares every pair that was not compared already, fills pHolm over those that have a p, then gives every
/// pair its verdict.
void judge(std::span<Comparison> family, std::span<const SidePair> groups, double margin);

/// The same, and `moreEach`, which is counted so that the difference of the margin shows after Holm: at 5 %
/// over the pairs that were tested.
void decide(std::span<Comparison> family, std::span<const SidePair> groups, double margin);

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
