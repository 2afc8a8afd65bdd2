// What is told of a study beside its results: lines to compare with, what is to be made of it, and what was
// published already.
#pragma once

#include <anvil/stats/summary.h>
#include <optional>
#include <string>
#include <vector>

namespace anvil::domain {

using Id = long long;

/// A value that results are seen against: a body weight, a working load, a published range.
struct Reference {
    std::string name;
    double value = 0;              ///< of the metric that decides, SI
    std::optional<double> upper{}; ///< of a range
    bool operator==(const Reference&) const = default;
};

/// From strength to use.
struct Use {
    double designFactor = 0; ///< floor over working limit; 0: not chosen
    std::string why;         ///< that factor
    double step = 0;         ///< N: limits are rounded down to a multiple; 0: not rounded
    double load = 0;         ///< N that is to be held in all; 0: not said
    double uneven = 1;       ///< the most loaded one has so many times its even share; 1 or more
    bool operator==(const Use&) const = default;
};

/// What was published of one pull; a pull that gave no value then is not listed.
struct PublishedValue {
    Id pull = 0;
    double value = 0, upper = 0; ///< SI
    stats::Bound bound = stats::Bound::exact;
    bool aside = false; ///< it was set aside
    bool operator==(const PublishedValue&) const = default;
};

/// A report that left the house.
struct Publication {
    std::string at;     ///< ISO 8601
    std::string metric; ///< its key
    std::vector<PublishedValue> values;
    bool operator==(const Publication&) const = default;
};

/// Why a published value was changed.
struct Correction {
    Id pull = 0;
    std::string at, why;
    bool operator==(const Correction&) const = default;
};

/// All of it.
struct Telling {
    std::vector<Reference> references;
    Use use;
    std::vector<std::string> leftOut; ///< keys of verdict pages that the report does without
    std::vector<Publication> publications;
    std::vector<Correction> corrections;
    bool operator==(const Telling&) const = default;
};

} // namespace anvil::domain
