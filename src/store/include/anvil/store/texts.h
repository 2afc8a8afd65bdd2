// What the project file keeps as one text each, as in docs/file-format.md: for writing it down elsewhere.
#pragma once

#include <QString>
#include <anvil/curve/reading.h>
#include <anvil/domain/model.h>
#include <anvil/methods/picture.h>
#include <anvil/quantity/error.h>

namespace anvil::store {

// What is read back is not trusted: a member of another kind, a list that is too short or a number out of
// domain::bounds is an error, never a usual value.
QString settingsToJson(const curve::ReadingSettings& settings);
Expected<curve::ReadingSettings> settingsFromJson(const QString& json);
QString outcomeToJson(const domain::Outcome& outcome);
Expected<domain::Outcome> outcomeFromJson(const QString& json);
/// What is kept beside title, question, intent, metric and margin of a study: the plan and the rest of the
/// goal, the score card and what was told.
struct StoredPlan {
    domain::Plan plan;
    domain::Goal goal;
    domain::ScoreCard card{};
    domain::Telling telling{};
    bool operator==(const StoredPlan&) const = default;
};
QString planToJson(const domain::Study& study);
Expected<StoredPlan> planFromJson(const QString& json);
/// What is kept of a piece in one text: what was measured, and inputs that are no length.
struct PieceTexts {
    std::vector<domain::Measured> measured;
    std::vector<domain::FieldText> inputs;
    bool operator==(const PieceTexts&) const = default;
};
QString pieceToJson(const PieceTexts& piece);
Expected<PieceTexts> pieceFromJson(const QString& json);

/// What was measured on a picture; of one without marks and scale an empty object.
QString marksToJson(const methods::PictureMarks& marks);
Expected<methods::PictureMarks> marksFromJson(const QString& json);

/// Describes a package of tables to programs: a datapackage.json with the fields of each table, its primary
/// references and what is in it.
struct TableText {
    QString file;
    struct Field {
        QString name, holds, refersTo; ///< "options.option"
    };
    std::vector<Field> fields;
};
QByteArray dataPackageJson(const QString& name, const std::vector<TableText>& tables,
                           const QStringList& curves);

} // namespace anvil::store
