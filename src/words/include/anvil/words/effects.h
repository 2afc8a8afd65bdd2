// What a treatment or an axis does, in words.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/treatment.h>
#include <anvil/results/trends.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// "Salt-soaked against Plain, over 4 options: 12 % less (95 % interval …)", and whether it does the same to
/// all.
std::vector<std::string> sentences(const domain::StudyData& data, const results::Verdict& verdict,
                                   const results::TreatmentResult& treatment);
/// What a forest shows of it: a row for each option, the pooled one last.
struct EffectRow {
    std::string name;
    double ratio = 1;
    std::optional<std::pair<double, double>> interval;
    bool pooled = false;
};
std::vector<EffectRow> forestRows(const domain::StudyData& data, const results::TreatmentResult& treatment);

/// A row for each option that has both conditions, the pooled one last. Columns: option, ratio, interval.
Table treatmentTable(const domain::StudyData& data, const results::TreatmentResult& treatment);

/// "Glue A: rises by 4 % over the whole axis (95 % interval …)", or flat, or that it cannot be told.
std::string sentence(const domain::StudyData& data, const results::Verdict& verdict,
                     const results::TrendResult& trend);
/// A row for each: option, points, slope, interval, median_slope, verdict.
Table trendTable(const domain::StudyData& data, std::span<const results::TrendResult> trends,
                 const quantity::Unit& unit);

} // namespace anvil::words
