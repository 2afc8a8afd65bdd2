// What is known of a pull, put before the formulas of its method.
#pragma once

#include <anvil/quantity/error.h>
#include <anvil/results/values.h>
#include <functional>
#include <string_view>

namespace anvil::results {

/// The method a piece is tested by: that of its square, else that of the study; an axial pull where neither
/// is known.
const methods::Method& methodOf(const StudyData& data, const Specimen& piece);
/// That of the study alone.
const methods::Method& methodOf(const Plan& plan);

/// Everything known of a pull: what its piece measures (a measure named like an input, by key or title), what
/// was typed or entered, its curve. Error: something entered is no quantity of its input.
Expected<methods::Evidence> evidenceOf(const StudyData& data, const Pull& pull,
                                       const curve::Reading* reading);

/// What follows from that by the pull's method, whatever its number may be used for.
Expected<methods::Numbers> measured(const StudyData& data, const Pull& pull, const curve::Reading* reading);

/// The metrics that phases of its pulls were read at, in the order they come up.
std::vector<Metric> phaseMetricsOf(const StudyData& data);

/// Everything a study can be ranked by: what its method tells, its phases, and what decides it.
std::vector<Metric> metricsOf(const StudyData& data);

/// The metric of a number that is typed for a pull: the one that decides where it can be entered itself, else
/// the one that the method's formulas start from, such as the peak of a bending test.
Metric typedMetric(const StudyData& data);

/// Whether an input of a pull is a load that may have been read off a display in front of levers or a ram.
bool readOffDisplay(const methods::Input& input);
/// What such an input is typed in: what the display shows, or a load where nothing stands between.
quantity::Dimension typedAs(const methods::Input& input, const std::optional<ReadThrough>& path);

/// Fields as typed into the form of a method, each with its unit, so that they can be kept. Numbers without
/// a unit are in the one of the field before them in this form, else in `unitOf(dimension)`; null: it has to
/// be typed. Loads are typed in what the display behind `path` shows. Error: a field the method does not ask
/// for, or a text that is no quantity of its dimension.
Expected<Entered> enteredFrom(const methods::Method& method, const std::vector<FieldText>& typed,
                              const std::function<const quantity::Unit*(quantity::Dimension)>& unitOf,
                              const std::optional<ReadThrough>& path = {});

/// What an entry comes to at the bench.
struct Told {
    methods::Number number;  ///< of the metric that decides, or the first that has a value
    domain::Proposal stands; ///< and why
    std::vector<std::string> notes;
};

/// What was entered for a pull, and how that stands. Error: nothing follows from it yet, naming what is
/// missing; or it cannot be.
Expected<Told> told(const StudyData& data, const Pull& pull);

/// What somebody should know of the entry beside its number; what its rating means comes first.
/// `reading`: of its curve; null: it has none.
std::vector<std::string> notesOf(const StudyData& data, const Pull& pull,
                                 const curve::Reading* reading = nullptr);

} // namespace anvil::results
