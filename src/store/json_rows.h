// Rows of the domain and their JSON, as stored and journalled. Nothing of it is seen outside the store.
#pragma once

#include <QJsonObject>
#include <QString>
#include <anvil/curve/reading.h>
#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>
#include <anvil/store/texts.h>

namespace anvil::store {

// What is read back is not trusted: a member of another kind, a
// list that is too short or a number out of domain::bounds is an error, never a usual value.
QJsonObject toRow(const domain::Study& value);
QJsonObject toRow(const domain::Option& value);
QJsonObject toRow(const domain::Condition& value);
QJsonObject toRow(const domain::Specimen& value);
QJsonObject toRow(const domain::Pull& value);
QJsonObject toRow(const domain::Attachment& value);
} // namespace anvil::store
