// One part of the load path with its measures typed where they belong.
#pragma once

#include "shell/session.h"
#include <QFrame>
#include <anvil/rig/ratio.h>
#include <functional>

class QGridLayout;
class QLineEdit;

namespace anvil::app {

class PartCard : public QFrame {
    Q_OBJECT
public:
    /// `place`: which part of the path it is, from the cell on.
    PartCard(Session& session, const rig::RatioPart& part, int place, QWidget* parent = nullptr);

signals:
    /// A measure was typed.
    void edited(int place, const anvil::rig::RatioPart& part);
    void takenOut(int place);

private:
    using Read = std::function<Expected<double>(const QString&)>;
    /// A measure, and how sure it is; `unit` null: a plain number.
    void add(const QString& title, const char* name, double rig::RatioPart::*value,
             double rig::RatioPart::*doubt, const quantity::Unit* unit);
    QLineEdit* measure(const QString& name, double rig::RatioPart::*member, const quantity::Unit* unit);
    Session& m_session;
    rig::RatioPart m_part;
    int m_place;
    QGridLayout* m_grid;
};

/// "lever", "line in parts" …
QString wordOf(rig::RatioPart::Kind kind);

} // namespace anvil::app
