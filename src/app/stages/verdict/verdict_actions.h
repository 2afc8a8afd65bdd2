// What is done to a study from the pages of its verdict.
#pragma once

#include "shell/session.h"
#include <anvil/pages/action.h>

namespace anvil::app {

/// Does it for the study on show, asking in a form where one is needed. What only says how something is shown
/// is no business of it.
void doToStudy(Session& session, const pages::Action& action, QWidget* parent);

} // namespace anvil::app
