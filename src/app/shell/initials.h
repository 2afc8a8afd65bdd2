// Short names for a place too narrow for whole ones.
#pragma once

#include <QStringList>

namespace anvil::app {

/// A name of at most three letters for each name, no two alike: the first letters of its words, or more of
/// one word; numbered where letters do not tell them apart.
QStringList initials(const QStringList& names);

} // namespace anvil::app
