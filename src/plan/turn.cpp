#include <anvil/plan/turn.h>

#include <algorithm>
#include <anvil/plan/next.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

const domain::Specimen* Turn::of(const domain::StudyData& data) {
    if (m_study != data.study.id) {
        m_skipped.clear();
        m_study = data.study.id;
    }
    if (m_wished) {
        const auto* piece = data.specimen(m_wished);
        const bool pulled = std::any_of(data.pulls.begin(), data.pulls.end(), [&](const domain::Pull& p) {
            return p.specimen == m_wished && p.practice == data.study.plan.practice;
        });
        // Taken back, it is asked for no longer; a ladder that has begun is gone on with.
        if (piece && !pulled && !m_skipped.contains(m_wished)) return piece;
        if (!piece) m_wished = 0;
    }
    if (const auto* next = nextOnLadder(data, m_skipped)) return next;
    if (m_skipped.empty()) return nullptr;
    m_skipped.clear();
    return nextOnLadder(data);
}

void Turn::passOver(domain::Id piece) {
    if (piece) m_skipped.insert(piece);
    if (piece == m_wished) m_wished = 0;
}

} // namespace anvil::plan
