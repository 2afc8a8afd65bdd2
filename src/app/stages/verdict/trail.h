// Where from? The way from a number back to its pulls and their curves.
#pragma once

#include "shell/session.h"
#include <QDialog>

namespace anvil::app {

/// Shows the rule behind a group's number and every pull in (or left out of) it; Enter on a pull opens its
/// curve.
class TrailDialog : public QDialog {
    Q_OBJECT
public:
    TrailDialog(Session& session, study::Metric metric, const study::Group& group, const QString& what,
                const QString& value, QWidget* parent = nullptr);
};

} // namespace anvil::app
