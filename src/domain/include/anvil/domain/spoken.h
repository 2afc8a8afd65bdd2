// The unit of a number that somebody types without one.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/unit.h>

namespace anvil::domain {

/// The unit that a bare number of this dimension is in: the one typed last in this study, else the one that
/// its newest result was typed in. Null where nobody has said one: then it has to be asked for. The unit in
/// which somebody looks at results never decides what was meant.
const quantity::Unit* unitSpoken(const StudyData& data, quantity::Dimension dimension);

/// Remembers the unit as the one typed last. True where that is news.
bool speak(Plan& plan, const quantity::Unit& unit);

} // namespace anvil::domain
