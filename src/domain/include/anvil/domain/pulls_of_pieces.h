// The pulls of a study by piece.
#pragma once

#include <anvil/domain/model.h>
#include <map>
#include <vector>

namespace anvil::domain {

/// The pulls of a study by piece, in the study's order; for walks over many pieces. Refers to the study.
class PullsOfPieces {
public:
    explicit PullsOfPieces(const StudyData& data);
    /// Empty where there are none.
    const std::vector<const Pull*>& of(Id specimen) const;

private:
    std::map<Id, std::vector<const Pull*>> m_pulls;
};

} // namespace anvil::domain
