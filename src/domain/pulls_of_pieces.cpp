#include <anvil/domain/pulls_of_pieces.h>

namespace anvil::domain {

PullsOfPieces::PullsOfPieces(const StudyData& data) {
    for (const auto& p : data.pulls)
        m_pulls[p.specimen].push_back(&p);
}

const std::vector<const Pull*>& PullsOfPieces::of(Id specimen) const {
    static const std::vector<const Pull*> none;
    const auto at = m_pulls.find(specimen);
    return at == m_pulls.end() ? none : at->second;
}

} // namespace anvil::domain
