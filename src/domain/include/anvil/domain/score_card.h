// A score card: several criteria, from any study of the project, weighed against each other.
#pragma once

#include <anvil/domain/metric.h>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace anvil::domain {

using Id = long long;

/// What a criterion goes by.
enum class Judged {
    byResults, ///< the means of a metric in a condition of a study
    byEye,     ///< ratings that somebody gave
    byCost,    ///< what the option costs
    byWeight   ///< what the option weighs
};
const char* key(Judged judged); ///< as stored: "results", "eye", "cost", "weight"
std::optional<Judged> judgedFromKey(std::string_view key);

/// What somebody thinks of an option.
struct OptionRating {
    std::string option; ///< its name, by which options of several studies are one
    double rating = 0;
    bool operator==(const OptionRating&) const = default;
};

struct Criterion {
    std::string name;
    Judged judged = Judged::byResults;
    Id study = 0;     ///< of results; 0: the card's own
    Metric metric{};  ///< likewise
    Id condition = 0; ///< likewise; 0: the first that has any
    Sense sense = Sense::more;
    double weight = 1;                                  ///< against the others; 0: not counted
    std::optional<std::pair<double, double>> anchors{}; ///< the values of 0 and of 100 marks, SI; nothing:
                                                        ///< the best has 100
    std::vector<OptionRating> ratings{};                ///< by eye
    bool operator==(const Criterion&) const = default;
};

struct ScoreCard {
    std::string title;
    std::vector<Criterion> criteria;
    bool operator==(const ScoreCard&) const = default;
};

} // namespace anvil::domain
