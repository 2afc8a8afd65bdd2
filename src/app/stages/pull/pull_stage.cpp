#include "stages/pull/pull_stage.h"

#include "theme/theme.h"
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <anvil/report/document.h>

namespace anvil::app {

PullStage::PullStage(Session&, QWidget* parent) : QWidget(parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 14);
    auto* sentence =
        new QLabel(tr("Pulled already? Bring in what your logger wrote, or the numbers you noted."));
    sentence->setObjectName("sentence");
    sentence->setWordWrap(true);
    layout->addWidget(sentence);
    const auto action = [&](const QString& iconName, const QString& text, const QString& about,
                            void (PullStage::*signal)()) {
        auto* button = new QPushButton(icon(iconName, signal == &PullStage::importFilesWanted), text);
        button->setMinimumHeight(36);
        button->setMaximumWidth(340);
        layout->addWidget(button);
        auto* label = new QLabel(about);
        label->setObjectName("faint");
        label->setWordWrap(true);
        layout->addWidget(label);
        layout->addSpacing(8);
        connect(button, &QPushButton::clicked, this, signal);
        return button;
    };
    action("import", tr("Import logger files…"),
           tr("CSV, TSV or text from any logger, many at once. You can also drop them on the window."),
           &PullStage::importFilesWanted)
        ->setObjectName("primary");
    action("list", tr("Import a table of results…"),
           tr("One row a piece: option, condition, value, unit, standing."), &PullStage::importTableWanted);
    action("clipboard-paste", tr("Paste results"), tr("The same columns, copied from a spreadsheet."),
           &PullStage::pasteWanted);
    layout->addSpacing(12);
    for (const auto& caution : report::cautions()) {
        auto* label = new QLabel(caution);
        label->setWordWrap(true);
        label->setObjectName("faint");
        layout->addWidget(label);
    }
    layout->addStretch();
}

} // namespace anvil::app
