// Text that is wrapped in narrow places.
#pragma once

#include <QString>

namespace anvil::app {

/// The text, to be wrapped between words and never between a number and its unit.
QString keptTogether(QString text);

} // namespace anvil::app
