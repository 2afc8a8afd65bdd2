// A small form: a few fields, and a sentence where what is typed cannot be.
#pragma once

#include <QDialog>
#include <anvil/quantity/error.h>
#include <functional>
#include <vector>

class QFormLayout;
class QLabel;
class QLineEdit;

namespace anvil::app {

class FormDialog : public QDialog {
    Q_OBJECT
public:
    FormDialog(const QString& title, const QString& said, const QString& action, QWidget* parent);
    /// Adds a field; returns it for its text.
    QLineEdit* addField(const QString& title, const QString& text, const QString& hint = {});
    /// Shows or hides a field with its title.
    void showField(QLineEdit* field, bool visible);
    /// Adds any widget over the whole width.
    void addWide(QWidget* widget);
    /// Done when the action is pressed: an error stays on show and the form open.
    void onDone(std::function<Expected<void>()> done);

private:
    QFormLayout* m_fields;
    QLabel* m_error;
    std::function<Expected<void>()> m_done;
};

} // namespace anvil::app
