// Which piece of a study a result is of: the one it names, the next that waits, or a new one.
#pragma once

#include <QString>
#include <anvil/domain/model.h>
#include <vector>

namespace anvil::project {

/// Whether two names of options or conditions mean the same: whatever their case, their blanks and hyphens,
/// and the order of their words where none of them holds a digit ("salt-soaked", "Soaked salt").
bool sameThing(const QString& a, const QString& b);

/// A result that looks for its piece.
struct Homeless {
    QString option, condition;
    int replicate = 0;  ///< 0: not told
    QString naming{};   ///< what may hold a piece's label: a file's name with its folders, a cell
    bool isNew = false; ///< somebody said that it is of a new piece
};

/// Where a result goes. Without `specimen` a new piece is made; option and condition are in the study's
/// spelling where it knows them.
struct Placement {
    domain::Id specimen = 0;
    QString label{}; ///< of that piece
    QString option{}, condition{};
    int replicate = 0;
};

/// A placement for each, in their order: (a) the waiting piece whose label its naming holds, (b) else the one
/// that waits in its square, of its replicate if that waits, else the first, (c) else a new piece. An empty
/// condition means the study's only one. No piece is given twice; one with a pull does not wait.
std::vector<Placement> placesFor(const domain::StudyData& study, const std::vector<Homeless>& results);

} // namespace anvil::project
