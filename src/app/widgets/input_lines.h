// A line for each input of a method that may hold for every piece.
#pragma once

#include <QWidget>
#include <anvil/domain/plan.h>
#include <anvil/methods/method.h>
#include <vector>

class QGridLayout;
class QLineEdit;

namespace anvil::app {

class InputLines : public QWidget {
    Q_OBJECT
public:
    explicit InputLines(QWidget* parent = nullptr);
    /// Shows what a method asks for that is usually the same for all; lines are made anew for another method.
    void show(const methods::Method& method, const std::vector<domain::FieldText>& fields);

signals:
    void edited(const anvil::methods::Input* input, const QString& text);

private:
    struct Line {
        const methods::Input* input;
        QLineEdit* edit;
    };
    QGridLayout* m_grid;
    const methods::Method* m_method = nullptr;
    std::vector<Line> m_lines;
};

} // namespace anvil::app
