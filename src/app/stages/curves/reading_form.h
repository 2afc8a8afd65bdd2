// How curves are read: chosen for one, its square or its study, with what that would change.
#pragma once

#include "shell/session.h"

class QWidget;

namespace anvil::app {

/// Asks how the chosen pull's curve, its square's or its study's are to be read, and carries it out.
void askHowToRead(Session& session, QWidget* parent);

} // namespace anvil::app
