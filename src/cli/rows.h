// Results as rows of the contract, for every command that tells them.
#pragma once

#include "output.h"
#include <anvil/domain/model.h>
#include <anvil/results/second_tests.h>
#include <anvil/results/verdict.h>
#include <anvil/stats/ranking.h>

namespace anvil::cli {

/// A name; null where there is none.
Json named(const std::string& text);
/// Both ends, or null.
/// Likewise of a ratio; an open end is null.
Json ratioInterval(const std::optional<std::pair<double, double>>& v);
Json interval(const std::optional<std::pair<double, double>>& v);
/// A group with its floors, fits and values that stand apart, in the unit of its values.
Json groupRow(const domain::StudyData& data, const results::Group& g);
/// A pair of a verdict.
Json pairRow(const domain::StudyData& data, const results::Verdict& verdict, const results::PairResult& p,
             const results::SecondTests& second);
/// A group's place; `place` may be null where nothing was drawn.
Json rankRow(const domain::StudyData& data, const results::Group& g, const stats::DrawnPlace* place);

} // namespace anvil::cli
