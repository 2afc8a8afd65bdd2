// The unit at the end of a field, while it is empty and while a number without one stands in it.
#pragma once

#include "shell/session.h"
#include <QLineEdit>

class QLabel;

namespace anvil::app {

/// Shows in `field` which unit a bare number will be taken in: the one spoken last in the study. Nothing is
/// shown where a unit was typed, or has to be. A child of the field.
class UnitTail : public QObject {
    Q_OBJECT
public:
    using DimensionOf = std::function<std::optional<quantity::Dimension>()>;
    /// `unit`: where something else than the study decides, such as the field before in a form.
    UnitTail(QLineEdit* field, Session& session, DimensionOf dimension,
             std::function<const quantity::Unit*()> unit = {});
    void update();
    UnitTail(QLineEdit* field, Session& session, quantity::Dimension dimension);

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void place();
    QLineEdit* m_field;
    Session& m_session;
    DimensionOf m_dimension;
    std::function<const quantity::Unit*()> m_unit;
    QLabel* m_label;
};

} // namespace anvil::app
