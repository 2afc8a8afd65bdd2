// Where projects are kept that nobody has named a place for.
#pragma once

#include <QString>
#include <anvil/quantity/error.h>

namespace anvil::app {

/// A file name made of what a study asks: without what a file system may refuse, at most 60 letters, never
/// empty.
QString fileNameFrom(const QString& question);

/// A path in the user's documents that nothing has yet: named so, with a number where that is taken. The
/// folder is made.
QString freeProjectPath(const QString& question);

/// Gives a closed project another name or place; nothing is ever written over. The error says what is in the
/// way.
Expected<void> moveProject(const QString& from, const QString& to);

} // namespace anvil::app
