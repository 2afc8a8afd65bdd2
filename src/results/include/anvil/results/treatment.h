// A treatment over all squares: the first condition against each other one.
#pragma once

#include <anvil/results/verdict.h>
#include <anvil/stats/treatment.h>

namespace anvil::results {

/// What a condition does to all options, against the first.
struct TreatmentResult {
    Id control = 0, treated = 0; ///< conditions
    stats::Treatment pooled;
    /// Of each option that has both, in board order: its own ratio of means with its interval, where a pair
    /// across conditions was compared.
    struct Of {
        Id option = 0;
        double ratio = 1;
        std::optional<std::pair<double, double>> interval;
    };
    std::vector<Of> options;
};

/// One for each condition but the first that shares an option with it. Squares with bounds count by the
/// log-normal fitted to them; those of bounds only do not count.
/// Nothing for fewer than two options that have both: one option's is a pair.
std::vector<TreatmentResult> treatmentsOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
