// A score card worked out: marks of every option in every criterion, scores, and what they hang on.
#pragma once

#include <anvil/domain/score_card.h>
#include <anvil/results/verdict.h>
#include <anvil/stats/score.h>

namespace anvil::results {

/// Where the results of other studies come from. Either may give null: not there.
struct CardSources {
    std::function<const StudyData*(Id study)> study;
    std::function<const Verdict*(Id study, Metric metric)> verdict;
    std::function<const Results*(Id study)> table{}; ///< for what is offered: null where it would take long
};

/// One criterion, options in the order of the card.
struct CriterionResult {
    Criterion criterion;
    double share = 0;                          ///< of the weight
    std::vector<std::optional<double>> values; ///< SI; of a rating its steps, of cost in its currency
    std::vector<bool> atLeast;                 ///< the value is a bound
    std::string currency;                      ///< of a price
    std::string where;                         ///< "Salt-soaked", or the study it is from; empty: neither
    bool separates = false; ///< some option is told apart from another by it: by the verdicts of pairs where
                            ///< there are any, else because the values differ
    bool marked = true;     ///< false: no marks can be given, for a value is zero or less and there are no
                            ///< anchors
};

struct CardResult {
    std::string title;
    std::vector<std::string> options; ///< by name, as the card's study lists them, then others as found
    std::vector<CriterionResult> criteria;
    stats::Marks marks; ///< by option and criterion
    std::vector<stats::Score> scores;
    std::vector<stats::Turn> turns;
    std::optional<std::size_t> winner;

    /// The options with a score, best first.
    std::vector<std::size_t> order() const;
};

/// Empty: the card has no criteria. Options that no criterion knows are listed with nothing tested.
std::optional<CardResult> cardOf(const StudyData& own, const ScoreCard& card, const CardSources& sources);

/// Criteria that the card could take and does not have: every metric with values in every condition of every
/// study that shares two options with the card's, price and weight. The card's own study first.
std::vector<Criterion> offeredCriteria(const StudyData& own, const std::vector<const StudyData*>& studies,
                                       const CardSources& sources);

} // namespace anvil::results
