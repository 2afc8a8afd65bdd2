// A page that scrolls where there is no room for it.
#pragma once

#include <QScrollArea>

namespace anvil::app {

/// Puts a panel where it can be as high as it needs: what does not fit scrolls. On the paper behind it.
QScrollArea* scrolled(QWidget* panel);

} // namespace anvil::app
