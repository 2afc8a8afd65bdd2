// The table pull × metric of a study: what every analysis starts from.
#pragma once

#include <anvil/results/ends.h>
#include <map>
#include <utility>
#include <vector>

namespace anvil::results {

/// A pull of a piece that carries an option.
struct Attempt {
    const Pull* pull = nullptr;
    const Specimen* piece = nullptr;
};

/// What the pulls of a study say, looked up by square and by metric. It refers to the study and the readings,
/// which must outlive it unchanged; what the formulas of the methods give is computed once a pull.
class Results {
public:
    Results(const StudyData& data, const Readings& readings);

    /// What the table is of.
    const StudyData& data() const { return *m_data; }
    const Readings& readings() const { return *m_readings; }

    /// The pulls of a square in the order they were made: of its own pieces, and of those that carry the
    /// option at their other end.
    const std::vector<Attempt>& attempts(Id option, Id condition) const;

    /// What a pull says of an option it carries; as valueAtEnd(), and nothing where it was pulled for
    /// practice in a study that is none, or the other way round.
    MetricValue value(const Attempt& attempt, Id option, const Metric& metric) const;

private:
    const StudyData* m_data;
    const Readings* m_readings;
    std::map<std::pair<Id, Id>, std::vector<Attempt>> m_squares;
    mutable std::map<Id, Expected<methods::Numbers>> m_measured; // by pull
};

} // namespace anvil::results
