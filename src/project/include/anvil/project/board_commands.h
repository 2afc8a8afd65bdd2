// Commands of the board: options, conditions and where pieces stand. Each is one transaction, and one undo.
#pragma once

#include <QStringList>
#include <anvil/project/open_project.h>

namespace anvil::project {

/// A study of this value. Error: it cannot be written.
Expected<Id> addStudy(OpenProject& project, const domain::Study& value);

/// An option, or a condition, at the end of the board. Error: no name, or one that is there already.
Expected<Id> addOption(OpenProject& project, Id study, const QString& name);

Expected<Id> addCondition(OpenProject& project, Id study, const QString& name);

/// Several names as one command; all or none. Error: empty, or there already.
Expected<void> addOptions(OpenProject& project, Id study, const QStringList& names);

Expected<void> addConditions(OpenProject& project, Id study, const QStringList& names);

/// Moves an option (or condition) to a place on the board.
Expected<void> moveOption(OpenProject& project, Id option, int place);

Expected<void> moveCondition(OpenProject& project, Id condition, int place);

/// Only an option (or condition) without specimens can be taken away.
Expected<void> removeOption(OpenProject& project, Id option);

Expected<void> removeCondition(OpenProject& project, Id condition);

/// What the conditions vary, and the unit of its values; with one their names are read as values.
Expected<void> setAxis(OpenProject& project, Id study, const std::string& axis, const std::string& unit);

/// Moves a specimen to another square (a mislabelled piece).
Expected<void> moveSpecimen(OpenProject& project, Id specimen, Id option, Id condition);

/// A piece nobody planned, in one step: option and condition are made when they are new. Returns the
/// specimen.
Expected<Id> addUnplanned(OpenProject& project, Id study, const QString& option, const QString& condition);

} // namespace anvil::project
