// The score card of a study, and what is told beside its results, as JSON.
#pragma once

#include "json_fields.h"
#include <anvil/domain/model.h>

namespace anvil::store {

/// As in the file: "window" is what is called inside elsewhere.
QString senseWord(domain::Sense sense);
/// The member "direction"; more where there is none.
domain::Sense senseFrom(const JsonFields& fields);

QJsonObject toJson(const domain::ScoreCard& card);
domain::ScoreCard cardFrom(const JsonFields& fields);

QJsonObject toJson(const domain::Telling& telling);
domain::Telling tellingFrom(const JsonFields& fields);

} // namespace anvil::store
