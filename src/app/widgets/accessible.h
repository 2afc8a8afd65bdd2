// Names for those who hear the window instead of seeing it.
#pragma once

class QWidget;

namespace anvil::app {

/// Gives every input that has no name of its own the label that stands before it, else its hint; and what a
/// table or a list is called. Whatever the tree holds now; what comes later is named when it is shown again.
void nameByLabels(QWidget* root);

} // namespace anvil::app
