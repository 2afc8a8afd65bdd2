// One line of the ledger's card: a fact and, where it stands, the small form that edits it. What nobody has
// said is one quiet "add …".
#pragma once

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace anvil::app {

class LedgerLine : public QWidget {
    Q_OBJECT
public:
    /// `add`: what is said where there is no fact, such as "add a note". The form is shown below when asked
    /// for.
    LedgerLine(const QString& add, QWidget* form, QWidget* parent = nullptr);
    /// Empty: there is none.
    void setFact(const QString& fact);
    /// Something before the fact, such as a small picture.
    void setSign(QWidget* sign);
    void open(bool open = true);
    bool isOpen() const;

private:
    void refresh();
    QString m_add;
    QLabel* m_fact;
    QPushButton* m_edit;
    QWidget* m_form;
    QHBoxLayout* m_row;
};

} // namespace anvil::app
