// Where from? The way from a number back to its pulls and their curves.
#pragma once

#include "shell/session.h"
#include <QDialog>
#include <anvil/results/verdict.h>

namespace anvil::app {

/// Shows the rule behind a group's number and every pull in (or left out of) it; Enter on a pull opens its
/// curve.
class TrailDialog : public QDialog {
    Q_OBJECT
public:
    /// `column`: a key of words::rankedTable.
    TrailDialog(Session& session, domain::Metric metric, const results::Verdict& verdict, std::size_t group,
                std::string_view column, QWidget* parent = nullptr);
};

} // namespace anvil::app
