// Asks, in place, whether another unit was meant by a number that is far off its fellows.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/results/unlikely.h>

class QLabel;
class QPushButton;

namespace anvil::app {

class UnitQuestion : public QWidget {
    Q_OBJECT
public:
    explicit UnitQuestion(Session& session, QWidget* parent = nullptr);
    /// Shows the question about what was typed: "44 kN is 10.1 times …". `keep` is called with the text to
    /// keep: as it was typed, or in the unit that was meant. True where there is something to ask.
    bool ask(const quantity::Entry& typed, const std::vector<double>& fellows,
             std::function<void(const QString& text)> keep);

private:
    Session& m_session;
    QLabel* m_text;
    QPushButton *m_asTyped, *m_meant;
    std::function<void(const QString&)> m_keep;
    QString m_typedText, m_meantText;
};

} // namespace anvil::app
