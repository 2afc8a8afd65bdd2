#include <anvil/results/results.h>

#include <anvil/results/evidence.h>

namespace anvil::results {

Results::Results(const StudyData& data, const Readings& readings) : m_data(&data), m_readings(&readings) {
    std::map<Id, const Specimen*> pieces;
    for (const auto& s : data.specimens)
        pieces[s.id] = &s;
    for (const auto& pull : data.pulls) {
        const auto at = pieces.find(pull.specimen);
        if (at == pieces.end()) continue;
        const auto& piece = *at->second;
        m_squares[{piece.option, piece.condition}].push_back({&pull, &piece});
        if (const auto other = otherEndOf(data, piece))
            m_squares[{other, piece.condition}].push_back({&pull, &piece});
    }
}

const std::vector<Attempt>& Results::attempts(Id option, Id condition) const {
    static const std::vector<Attempt> none;
    const auto at = m_squares.find({option, condition});
    return at == m_squares.end() ? none : at->second;
}

MetricValue Results::value(const Attempt& attempt, Id option, const Metric& metric) const {
    const auto& pull = *attempt.pull;
    const auto* reading = m_readings->find(pull.id);
    if (pull.practice != m_data->study.plan.practice)
        return {std::nullopt, pull.practice ? "pulled for practice" : "not pulled for practice", false};
    const auto follows = [&]() -> const Expected<methods::Numbers>& {
        auto at = m_measured.find(pull.id);
        if (at == m_measured.end()) at = m_measured.emplace(pull.id, measured(*m_data, pull, reading)).first;
        return at->second;
    };
    return atEnd(*m_data, pull, *attempt.piece, option, metric,
                 valueFrom(*m_data, pull, reading, metric, follows));
}

} // namespace anvil::results
