// The pages a study has to show, and what each is made from.
#pragma once

#include <anvil/chart/charts.h>
#include <anvil/curve/steady.h>
#include <anvil/pages/block.h>
#include <anvil/quantity/units.h>
#include <anvil/results/earlier.h>
#include <anvil/results/score_card.h>
#include <anvil/results/sureness.h>
#include <anvil/results/values.h>
#include <anvil/rig/setup.h>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <span>

namespace anvil::pages {

/// A criterion that a score card could take, and what it is called.
struct OfferedCriterion {
    domain::Criterion criterion;
    std::string title;
};

/// Everything a page is made from. What it refers to must outlive the page's figures.
struct Source {
    const domain::StudyData* study = nullptr;
    const results::Readings* readings = nullptr;
    std::function<const results::Verdict&(domain::Metric)> verdict;
    std::function<std::shared_ptr<const curve::ReadCurve>(domain::Id pull)> curve; ///< may give nothing
    std::string project, date;
    std::function<std::vector<curve::Steady>(domain::Id pull)> steady{}; ///< at its marks; may be missing
    std::map<domain::Id, rig::Setup> setups{};                           ///< what was pulled on, by id
    std::function<std::string(const domain::Pull&)>
        timing{}; ///< what is said of when it was pulled; or missing
    std::function<const results::Sureness&(domain::Metric)> sureness{}; ///< or missing
    /// The score card that weighs the study; `weights` instead of those it has, where there are as many.
    std::function<std::optional<results::CardResult>(const std::vector<double>& weights)>
        card{};                                               ///< or missing
    std::function<bool()> hasCard{};                          ///< whether there is one; or missing
    std::function<std::vector<OfferedCriterion>()> offered{}; ///< what it could take too; or missing
    /// Every study of the project, and what another one says; or missing.
    std::function<std::vector<const domain::StudyData*>()> studies{};
    std::function<const results::Verdict&(domain::Id study, domain::Metric)> verdictOf{};
    std::function<bool(domain::Id study)> isRead{};   ///< whether its curves are read already; or missing
    std::function<const results::Results*()> table{}; ///< what the pulls say; or missing
    std::function<std::vector<results::Earlier>()> earlier{}; ///< of other projects; or missing
};

/// How somebody looks at it.
struct View {
    quantity::Units units;
    std::optional<domain::Metric> metric{}; ///< to rank by; nothing: the one that decides
    domain::Id selected = 0;                ///< a pull to point out
    bool fromZero = false;                  ///< scales begin at zero, whatever is shown
    std::vector<double> weights{};          ///< of the score card, while they are dragged
    std::string scale{};                    ///< of the ladder: a key of results::RatioBase; empty: as it is
    std::optional<std::pair<std::size_t, std::size_t>> two{}; ///< groups chosen to be compared
    std::optional<std::size_t> plotOf{}; ///< the group of the probability plot; nothing: the first
    bool logTime = false;                ///< of what moves over days
};

/// A kind of page. `make` gives nothing where it has nothing to say.
struct Entry {
    std::string_view key;
    std::string_view title;
    std::optional<Page> (*make)(const Source& source, const View& view);
    /// Whether it gives anything, where that is told much sooner than the page is made; null: it is not.
    bool (*quick)(const Source& source, const View& view) = nullptr;

    /// Whether it has anything to say.
    bool offered(const Source& source, const View& view) const {
        return quick ? quick(source, view) : make(source, view).has_value();
    }
};

/// Every page of the verdict, in the order they are offered; the answer first.
std::span<const Entry> registry();
/// By key; nullptr where there is none.
const Entry* find(std::string_view key);

// A file each, listed in registry.cpp:
/// Who leads, the strength ladder, and what would settle more.
std::optional<Page> answer(const Source& source, const View& view);
bool hasAnswer(const Source& source, const View& view);
/// Every pair in a sentence.
std::optional<Page> pairs(const Source& source, const View& view);
bool hasPairs(const Source& source, const View& view);
/// What each group can be trusted to hold, and values that stand apart.
std::optional<Page> floors(const Source& source, const View& view);
bool hasFloors(const Source& source, const View& view);
/// Every group against the need.
std::optional<Page> needs(const Source& source, const View& view);
/// What a condition does to all options at once.
std::optional<Page> treatment(const Source& source, const View& view);
/// What an axis of numbers does to each option.
std::optional<Page> trend(const Source& source, const View& view);
/// Which part of the load path broke how often, and what each holds.
std::optional<Page> parts(const Source& source, const View& view);
/// Every metric beside the one that decides: what each group gives by all of them.
std::optional<Page> otherMetrics(const Source& source, const View& view);
bool hasOtherMetrics(const Source& source, const View& view);
/// How held loads moved on, over linear or logarithmic time.
std::optional<Page> creep(const Source& source, const View& view);
bool hasCreep(const Source& source, const View& view);
/// How blows grow harder from hit to hit on one spot.
std::optional<Page> hits(const Source& source, const View& view);
bool hasHits(const Source& source, const View& view);
/// What an arrangement was said to hold against what it held, by the maker's rating and by what was measured.
std::optional<Page> arrangement(const Source& source, const View& view);
bool hasArrangement(const Source& source, const View& view);
/// What the options cost against what they hold.
std::optional<Page> worth(const Source& source, const View& view);
/// Several criteria weighed against each other.
std::optional<Page> score(const Source& source, const View& view);
bool hasScore(const Source& source, const View& view);
/// What was expected, and who was right.
std::optional<Page> forecasts(const Source& source, const View& view);
/// The same options in other studies.
std::optional<Page> lastTime(const Source& source, const View& view);
/// From strength to use.
std::optional<Page> workingLimit(const Source& source, const View& view);
bool hasWorkingLimit(const Source& source, const View& view);
/// How legs shared their load, and what is left where one is lost.
std::optional<Page> legs(const Source& source, const View& view);
bool hasLegs(const Source& source, const View& view);
/// What the devices of hauling systems pass on, and where the best belongs.
std::optional<Page> devices(const Source& source, const View& view);
bool hasDevices(const Source& source, const View& view);
/// Every group's numbers.
std::optional<Page> rankedTable(const Source& source, const View& view);

/// The whole report of a study: what was found, every pull, how it was worked out.
Page report(const Source& source, const View& view);

/// Whether a page of the verdict can be ticked for the report: answer, pairs and table always stand in it.
bool reportOffers(std::string_view page);

/// The cautions shown wherever a strength is told.
std::vector<std::string> cautions();

/// What curves are laid over each other by: their travel where they have one, the time since the load began,
/// or their places between landmarks (toe 0, peak 1, break 2).
enum class Along { travel, time, landmarks };

/// An overlay of the curves of one square.
chart::CurveChart overlayOf(const Source& source, domain::Id option, domain::Id condition,
                            const quantity::Units& units, std::size_t columns = 400,
                            Along along = Along::travel);

/// The averaged curve of a square with what its curves lie in, registered on their landmarks; the plain mean
/// with what that costs; and against it the averaged one of another option, with the difference of the two.
struct AverageView {
    chart::CurveChart chart; ///< without traces where there is nothing to average
    std::vector<std::string> said;
};
AverageView averageView(const Source& source, domain::Id option, domain::Id condition, domain::Id against,
                        const quantity::Units& units);

/// The curves of every option in one condition, each in a chart of its own.
std::vector<std::pair<std::string, chart::CurveChart>>
chartsByOption(const Source& source, domain::Id condition, const quantity::Units& units);

/// How fast a pull went, beside those of its square that went at another rate (by more than a quarter).
chart::RateStrip rateOf(const Source& source, const domain::Pull& pull, const curve::ReadCurve& curve,
                        const quantity::Units& units);

} // namespace anvil::pages
