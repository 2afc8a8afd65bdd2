// Rows of the domain and their JSON, as stored and journalled. Nothing of it is seen outside the store.
#pragma once

#include <QJsonObject>
#include <QString>
#include <anvil/curve/reading.h>
#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>

namespace anvil::store {

// What is read back is not trusted: a member of another kind, a
// list that is too short or a number out of domain::bounds is an error, never a usual value.
QJsonObject toRow(const domain::Study& value);
QJsonObject toRow(const domain::Option& value);
QJsonObject toRow(const domain::Condition& value);
QJsonObject toRow(const domain::Specimen& value);
QJsonObject toRow(const domain::Pull& value);
QJsonObject toRow(const domain::Attachment& value);
QString settingsToJson(const curve::ReadingSettings& settings);
Expected<curve::ReadingSettings> settingsFromJson(const QString& json);
QString outcomeToJson(const domain::Outcome& outcome);
Expected<domain::Outcome> outcomeFromJson(const QString& json);
/// What the column `plan` of a study holds: the plan, and the goal but for metric and margin.
struct StoredPlan {
    domain::Plan plan;
    domain::Goal goal;
    domain::ScoreCard card{};
    domain::Telling telling{};
    bool operator==(const StoredPlan&) const = default;
};
QString planToJson(const domain::Study& study);
Expected<StoredPlan> planFromJson(const QString& json);
QString measuredToJson(const std::vector<domain::Measured>& measured);
Expected<std::vector<domain::Measured>> measuredFromJson(const QString& json);

} // namespace anvil::store
