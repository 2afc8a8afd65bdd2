// Whose turn it is at a page where results are entered: one rule for all of them.
#pragma once

#include <anvil/results/values.h>
#include <set>

namespace anvil::plan {

/// Remembers who was passed over and who was asked for. A piece that has a pull is done, whatever became of
/// its number; of the others comes first: one whose ladder has begun, one that was asked for, then by the run
/// list, else as they were made. Who was passed over comes once all others are done.
class Turn {
public:
    /// The piece whose turn it is; nullptr: none is left.
    const domain::Specimen* of(const domain::StudyData& data);
    /// Another piece first.
    void passOver(domain::Id piece);
    /// This one next, such as one that was only just added.
    void wish(domain::Id piece) { m_wished = piece; }
    /// Nobody is passed over any more.
    void round() { m_skipped.clear(); }

private:
    std::set<domain::Id> m_skipped;
    domain::Id m_wished = 0, m_study = 0;
};

} // namespace anvil::plan
