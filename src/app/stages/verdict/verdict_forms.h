// The small forms of the verdict: reference lines, working limits, a judgement by eye, setting a value aside.
#pragma once

#include "shell/session.h"

class QWidget;

namespace anvil::app {

void askReferences(Session& session, QWidget* parent);
void askUse(Session& session, QWidget* parent);
/// A criterion of the score card that is judged by eye.
void askRatings(Session& session, QWidget* parent);
/// Over which devices the line of each option runs.
void askReevings(Session& session, QWidget* parent);
/// Which option is which other one in an arrangement, and by what factor.
void askArrangements(Session& session, QWidget* parent);
/// The physical reason for setting a pull aside.
void askAside(Session& session, Id pull, QWidget* parent);

} // namespace anvil::app
