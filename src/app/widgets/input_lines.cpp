#include "widgets/input_lines.h"

#include "theme/theme.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include <QGridLayout>
#include <QLineEdit>
#include <anvil/results/inputs.h>

namespace anvil::app {
namespace {

/// Measures of a piece, and what is set once for all pulls.
bool mayHoldForAll(const methods::Input& i) {
    const bool line = i.form == methods::Form::one || i.form == methods::Form::repeated ||
                      (i.form == methods::Form::perLeg && i.of == methods::Of::specimen);
    return line && (i.of == methods::Of::specimen || i.stays);
}

} // namespace

InputLines::InputLines(QWidget* parent) : QWidget(parent) {
    m_grid = new QGridLayout(this);
    m_grid->setContentsMargins(0, 0, 0, 0);
}

void InputLines::show(const methods::Method& method, const std::vector<domain::FieldText>& fields) {
    if (m_method != &method) {
        m_method = &method;
        m_lines.clear();
        while (auto* item = m_grid->takeAt(0)) {
            if (auto* w = item->widget()) w->deleteLater();
            delete item;
        }
        int row = 0;
        for (const auto& input : method.inputs) {
            if (!mayHoldForAll(input)) continue;
            const bool legs = input.form == methods::Form::perLeg;
            auto* edit = field("", legs ? tr("leg by leg, such as 0°; 120°; 240°") : qs(input.hint), 220);
            edit->setObjectName("study-" + qs(input.key));
            edit->setAccessibleName(qs(input.title));
            setTip(edit, tr("%1: %2. Holds for every piece that says nothing of its own.")
                             .arg(qs(input.title), qs(input.hint)));
            auto* label = plainLabel(qs(input.title));
            label->setBuddy(edit);
            m_grid->addWidget(label, row, 0);
            m_grid->addWidget(edit, row++, 1);
            m_lines.push_back({&input, edit});
            connect(edit, &QLineEdit::editingFinished, this, [this, edit, in = &input] {
                if (edit->isModified()) emit edited(in, edit->text().simplified());
                edit->setModified(false);
            });
        }
    }
    for (const auto& line : m_lines)
        line.edit->setText(qs(results::textOf(fields, *line.input)));
}

} // namespace anvil::app
