// What a pull says, in words: its numbers, what was read from its curve, what is to be known of it.
#pragma once

#include <anvil/curve/reading.h>
#include <anvil/curve/steady.h>
#include <anvil/domain/model.h>
#include <anvil/quantity/units.h>
#include <anvil/results/values.h>
#include <anvil/words/table.h>
#include <functional>
#include <span>

namespace anvil::words {

/// What is said of the time a pull was made at; empty: nothing. The clock on the wall is not known here.
using Timing = std::function<std::string(const domain::Pull&)>;

/// A pull's number for a metric, as it counts for its piece: "at least 4.02 kN"; a dash where it has none.
/// What a void pull showed is told though it is in no mean.
std::string metricText(const domain::StudyData& data, const domain::Pull& pull,
                       const domain::Specimen& specimen, const results::Readings& readings,
                       domain::Metric metric, const quantity::Units& units);

/// What was read from a curve: columns what, load, where; a row for each landmark and number.
Table readingTable(const domain::StudyData& data, const curve::Reading& reading, const domain::Pull& pull,
                   const quantity::Units& units);

/// What broke, why it stands as it does, and what was remarked, each a phrase without its full stop.
std::vector<std::string> remarksOn(const domain::StudyData& data, const domain::Pull& pull,
                                   const domain::Specimen& specimen, const results::Readings& readings,
                                   const quantity::Units& units, const Timing& timing);

/// How a pull stands, in a word or two: "counts", "at least"; "waits for a decision" where its recording was
/// interrupted.
std::string standsText(const results::Pull& pull, results::Standing standing);

/// Every pull of a study, piece by piece; `of` is the pull. Columns: specimen, option, condition, the metrics
/// by their keys, standing, remarks.
Table pullTable(const domain::StudyData& data, const results::Readings& readings,
                std::span<const domain::Metric> metrics, const quantity::Units& units, const Timing& timing);

/// The facts of a pull in lines: where it came from, what was entered and what follows, when, by whom, what
/// it was measured with.
std::vector<std::string> factsOf(const domain::StudyData& data, const domain::Pull& pull,
                                 const domain::Specimen& specimen, const results::Readings& readings,
                                 const quantity::Units& units, const Timing& timing);

/// What every channel showed over windows of a pull. Columns: specimen, at, channel, mean, sd, share, still.
Table steadyTable(const std::string& label, std::span<const curve::Steady> windows,
                  const quantity::Units& units);

} // namespace anvil::words
