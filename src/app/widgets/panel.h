// A part of a stage: filled from the session when it is seen, and quiet while it is being filled.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/quantity/unit.h>

class QHBoxLayout;
class QLabel;
class QLineEdit;
class QTableWidget;

namespace anvil::app {

class Panel : public QWidget {
    Q_OBJECT
public:
    explicit Panel(Session& session, QWidget* parent = nullptr) : QWidget(parent), m_session(session) {}

protected:
    /// Shows what the session holds. Runs when something changed, but only once the panel is visible.
    virtual void fill() = 0;
    /// Something changed while the panel is not seen, or the project is about to go: what it shows must not
    /// be asked for anew.
    virtual void outdated() {}
    /// To be called at the end of a constructor: from then on the panel follows the session.
    void follow(bool selectionToo = false);
    void showEvent(QShowEvent* event) override;
    bool filling() const { return m_filling; }
    /// Reads an optional quantity above zero into `target`; an empty field takes it away, and what only looks
    /// rounded is left as it was. False and a message when it cannot be.
    /// A bare number is in the unit spoken last in the study.
    bool readOptional(const QLineEdit* edit, quantity::Dimension dimension, std::optional<double>& target,
                      const QString& refusal);
    /// Fills again at once, such as after a refused entry.
    void refill();
    /// Something that is shown has changed: fills again, now or once it is seen.
    void mark();

    Session& m_session;

private:
    bool m_filling = false, m_stale = true;
};

/// A line edit with an object name, a hint, and a greatest width (0: none).
QLineEdit* field(const char* name, const QString& hint, int width = 0);
/// A label that wraps and does not take text for markup.
QLabel* wrappedLabel(const char* name);
/// The large label at the rig that says what the space bar does; showAction() fills it, empty: nothing.
QLabel* actionLabel();
void showAction(QLabel* label, const QString& text);
/// A table with these column heads and no row numbers.
QTableWidget* makeTable(const QStringList& heads, const char* name);

} // namespace anvil::app
