// Is the difference real? Pairs of groups: ratio with interval, Welch's test, equivalence, Holm, verdict,
// letters.
#pragma once

#include <anvil/stats/counts.h>
#include <anvil/stats/pooled.h>
#include <anvil/stats/power.h>
#include <anvil/stats/ratio_test.h>
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
    welch,    ///< Welch (1947): each group by its own spread
    paired,   ///< Student (1908) on the differences within blocks that hold both
    ranks,    ///< Mann and Whitney (1947): steps of a scale
    counts,   ///< Fisher (1935): successes of tries
    censored, ///< by draws of both means, where a side holds bounds: see drawn_pair.h
    pooled,   ///< two of each: Student's t on logarithms with the spread their condition shares
    digits    ///< no spread on either side: by the last digit that was typed, without a p
};
/// The word used by scripts: "welch", "paired_t", "ranks", "fisher", "censored", "pooled_t", "digits"; empty
/// for none.
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
    std::optional<double>
        ratio; ///< of the typical values, a to b; of the pooled test that of geometric means
    /// 95 %, of draws and counts; the others' follows from ratioTest: see overPair
    std::optional<std::pair<double, double>> ratioInterval;
    std::optional<std::pair<double, double>> drawnFamily, drawnSame; ///< of draws: see overFamily, ofSameness
    std::optional<RatioTest> ratioTest; ///< what these follow from; none of draws and counts
    double familyLevel = 0.05;          ///< of the pair's step of Holm
    std::size_t family = 1;             ///< pairs tested with it
    std::size_t blocks = 0,
                brokenBlocks = 0; ///< whole blocks that were compared; those left out for one is missing
    bool withinDoubt = false;     ///< the test sees a difference, but the readings are not sure of so much
    bool equal = false;           ///< the typical values are the same to 1e-9
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
/// %, > 0. Where values have blocks, none holds two of a side and at least half of each side's are whole, the
/// pair is tested on the differences within whole blocks: paired t, the others are left out. Averages of two
/// groups without a spread (at the level of rounding, or below the resolution) are told apart by the last
/// digit.
Comparison compare(const Side& a, const Side& b, double margin);

/// Two groups by the spread that their condition shares, on logarithms; for groups of two, whose own spreads
/// say next to nothing. Empty but for the ratio without a spread.
Comparison comparePooled(const LogGroup& a, const LogGroup& b, const PooledSpread& spread, double margin);

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

/// The 95 % interval of the ratio: the ratios that the pair's own test does not reject; an open end is 0 or
/// infinity. Worked out when it is asked for, as those below: a large family has many.
std::optional<std::pair<double, double>> overPair(const Comparison& comparison);
/// The interval that agrees with the word: at the level of the pair's step of Holm, 95 % over all pairs of
/// the family. Of a pair that was judged; of counts the single one.
std::optional<std::pair<double, double>> overFamily(const Comparison& comparison);
/// The 90 % interval, which is what "the same" promises.
std::optional<std::pair<double, double>> ofSameness(const Comparison& comparison);

/// Further pulls a side that would settle the difference seen, four times in five, where that is greater than
/// the margin; of a pair that was decided. Empty: it is not, or no spread is known.
std::optional<int> moreForSeen(const Comparison& comparison, const Summary& a, const Summary& b,
                               double margin);

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
