// Before anything is broken: will the rig reach, will the right part break, how many pulls, in which order,
// what does it eat.
#pragma once

#include <anvil/study/verdict.h>
#include <span>

namespace anvil::study {

/// Whether a square's pulls will fit the rig.
enum class Reach {
    unknown, ///< nothing is expected of the square, or the rig has no limit
    fine,
    tight,   ///< the strongest expected pull uses more than 80 % of the rig
    topsOut, ///< more than the rig can pull
    tooSmall ///< the expected pull is less than 5 % of the cell: its resolution will show
};
const char* word(Reach reach);

/// The predicted range of a square against what the rig can do; N at the specimen.
struct HeadRoom {
    Reach reach = Reach::unknown;
    double expected = 0, upper = 0; ///< mean, and upper 95 % prediction of the next pull
    double limit = 0;               ///< the lesser of rig limit and cell limit × ratio; 0: none
    std::string from;               ///< what the prediction stands on
    std::string sentence;           ///< with a remedy where one is needed; free of units
};

/// Head-room of a square from its own results (mean + t·s·√(1 + 1/n)), else its forecasts or the option's
/// rating (value · (1 + 1.645 CV)). For metrics that are forces.
HeadRoom headRoom(const StudyData& data, const Verdict& verdict, Id option, Id condition);

/// The same for travel, in m: how far the rig has to move until the piece breaks, against what it can. From
/// what the square's own pulls needed (first displacement to the break, else to the peak), else its
/// forecasts.
HeadRoom travelRoom(const StudyData& data, const Readings& readings, Id option, Id condition);
/// The worse of two, as a square shows it: topping out before too small before tight before fine.
Reach worse(Reach a, Reach b);

/// Both for one square: the worse of the two, in a word and a sentence. The word says when it is the travel
/// that is short; empty when nothing is known.
struct SquareRoom {
    HeadRoom force, travel;
    Reach reach = Reach::unknown;
    std::string word, sentence;
};
SquareRoom squareRoom(const StudyData& data, const Readings& readings, const Verdict& verdict, Id option,
                      Id condition);

/// Chance that a part goes first.
struct Weakest {
    std::string name;
    double probability = 0;
    bool specimen = false;
};
/// Which part of a load path goes first: independent normal strengths (mean, CV), P(part i is the least) by
/// quadrature ∫ f_i Π (1 − F_j) over ± 8 s; error below 1e-6. Parts without spread are given 0.1 %.
std::vector<Weakest> weakestLink(std::span<const ChainPart> parts);
/// What to say of it; empty when the specimen goes first with at least 80 %, or nothing is known.
std::string weakestSentence(std::span<const Weakest> parts);

/// What a number of replicates buys at an expected CV.
struct Replication {
    int n = 0;
    std::optional<double> detectable; ///< smallest difference seen with 80 % power, as a share
    std::string school;               ///< what those who pull so many say they can tell, and what they cannot
};
/// The usual numbers (1, 2, 3, 5, 7, 10) and the planned one.
std::vector<Replication> schools(double cv, int planned);
/// The spread to expect of a kind of option before there are results of one's own, as a share; and why.
double defaultCv(const std::string& kind);
/// The pooled CV of the results there are; empty without two groups of two. By the root mean square, weighted
/// by n − 1.
std::optional<double> ownCv(const Verdict& verdict);

/// Planned replicates, pulls, and cost where every option has one.
struct PlanTotals {
    int squares = 0, replicates = 0, pulled = 0;
    std::optional<double> cost;
    std::string currency;
    double pulling = 0;     ///< s that all pulls take; 0: not known
    double preparation = 0; ///< s from the first step to the last wait, working hours left aside
};
PlanTotals totals(const StudyData& data);

/// Randomised complete blocks: every square appears once in each block while it has replicates left, in an
/// order drawn from the seed. Returns specimen labels of pieces not pulled yet. Same seed, same order on
/// every machine. With `groupConditions` the set-up is changed once a block at most: conditions are drawn
/// first, options within them.
std::vector<std::string> drawRunOrder(const StudyData& data, std::uint64_t seed,
                                      bool groupConditions = false);

/// What the plan eats.
struct StockLine {
    std::string what;
    int needed = 0, made = 0;
    std::optional<double> unitCost, cost;
    std::string currency;
};
std::vector<StockLine> stock(const StudyData& data);

/// One piece of advice about fairness.
struct Finding {
    std::string rule;     ///< key, for accepting
    std::string sentence; ///< what is wrong, for a tester
    std::string remedy;   ///< what the button does; empty: only accepting is possible
    bool accepted = false;
    std::string why; ///< the reason it was accepted
};

/// What is not fair about the study as it stands, by its intent. As-used studies are not asked for equal
/// batches or speeds, exploratory ones not for replicates or a control.
std::vector<Finding> fairness(const StudyData& data, const Readings& readings);

/// Something worth pulling next: why, which squares, how many more of each.
struct FollowUp {
    std::string sentence;
    std::vector<std::pair<Id, Id>> squares; ///< option, condition
    int more = 3;
};

/// What the results leave open, most telling first: too close to call, topped out, another part broke, not
/// tested.
std::vector<FollowUp> followUps(const StudyData& data, const Verdict& verdict);

} // namespace anvil::study
