// What a reader can ask for on a page: how it is shown, or something done to the study. A window does it;
// paper has no use for it.
#pragma once

#include <anvil/domain/metric.h>
#include <anvil/domain/model.h>
#include <anvil/domain/score_card.h>
#include <anvil/stats/fit.h>
#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace anvil::pages {

// How it is shown.
struct RankBy {
    domain::Metric metric;
};
/// The ladder in another scale: a key of results::RatioBase, sideBySide, or empty: as it is.
struct ShowScale {
    std::string scale;
};
struct ShowTime {
    bool logarithmic = false;
};
/// The probability plot of this group of the verdict.
struct PlotGroup {
    std::size_t group = 0;
};
/// Two groups of the verdict to be looked at together.
struct CompareTwo {
    std::size_t first = 0, second = 0;
};

// What is done to the study.
struct ChooseFactor {
    double factor = 0;
    std::string why;
};
struct ChooseFamily {
    stats::Family family = stats::Family::normal;
};
/// More pieces of these squares, here or in a study of its own.
struct PlanMore {
    std::vector<std::pair<domain::Id, domain::Id>> squares; ///< option, condition
    int more = 0;
    bool apart = false;
};
struct AddCriterion {
    domain::Criterion criterion;
};
struct RemoveCriterion {
    std::size_t at = 0; ///< its place on the card
};
struct SetAside {
    domain::Id pull = 0;
};
/// Something is asked in a form of its own.
enum class Ask { ratings, use, reevings, arrangements };

using Action = std::variant<RankBy, ShowScale, ShowTime, PlotGroup, CompareTwo, ChooseFactor, ChooseFamily,
                            PlanMore, AddCriterion, RemoveCriterion, SetAside, Ask>;

} // namespace anvil::pages
