// Options and conditions of files that are imported together, by their names.
#pragma once

#include <anvil/project/import.h>

namespace anvil::project {

QString sentenceCase(QString text);
/// The folder below which all files lie; empty for none.
QString commonFolder(const QStringList& paths);
/// What each file's option and condition are read from: its path below the folder that all have in common, or
/// from that folder on where the files are but numbered.
std::vector<std::string> namesOf(const QStringList& paths);
/// Option, condition and replicate of a row: what its own columns say, else its name under the pattern.
void assignNames(ImportRow& row, const tables::NamePattern& pattern);

} // namespace anvil::project
