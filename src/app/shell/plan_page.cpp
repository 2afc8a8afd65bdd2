#include "shell/plan_page.h"

#include "theme/theme.h"
#include "widgets/method_cards.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include "widgets/row_editor.h"
#include <QGridLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QSpinBox>
#include <QVBoxLayout>
#include <anvil/methods/method.h>
#include <anvil/plan/replication.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

namespace {

constexpr int usualReplicates = 5, mostReplicates = 200;

QLabel* step(const QString& text) {
    auto* label = plainLabel(text);
    label->setObjectName("step");
    return label;
}

QStringList firstCells(const RowEditor* list) {
    QStringList out;
    for (const auto& row : list->rows())
        out << row.value(0);
    return out;
}

} // namespace

PlanPage::PlanPage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 4, 12, 4);
    m_question = field("planQuestion",
                       tr("What do you want to know? Such as: which glue keeps a hook on the glazing?"));
    m_question->setAccessibleName(tr("The question"));
    layout->addWidget(m_question);
    auto* area = new QScrollArea;
    area->setFocusPolicy(Qt::NoFocus); // what is in it has the focus
    area->setWidget(makeSteps());
    area->setWidgetResizable(true);
    area->widget()->setAutoFillBackground(false);
    area->viewport()->setAutoFillBackground(false);
    layout->addWidget(area, 1);
    layout->addLayout(makeEnd());
    connect(m_methods, &MethodCards::picked, this, &PlanPage::tell);
    connect(m_options, &RowEditor::edited, this, &PlanPage::tell);
    connect(m_conditions, &RowEditor::edited, this, &PlanPage::tell);
    connect(m_each, &QSpinBox::valueChanged, this, &PlanPage::tell);
    clear();
}

QWidget* PlanPage::makeSteps() {
    auto* steps = new QWidget;
    auto* layout = new QVBoxLayout(steps);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    layout->addWidget(step(tr("1  What do you do to it?")));
    layout->addWidget(m_methods = new MethodCards);
    m_methods->setFolding(true); // the next step needs the room
    m_about = wrappedLabel("faint");
    layout->addWidget(m_about);
    layout->addWidget(step(tr("2  What do you compare?")));
    auto* lists = new QHBoxLayout;
    lists->setSpacing(12);
    m_options = new RowEditor({tr("Options, such as: Pressed sleeve")}, tr("The options compared"));
    m_options->setObjectName("planOptions");
    m_conditions =
        new RowEditor({tr("Conditions, if more than one, such as: Salt-soaked")}, tr("The conditions"));
    m_conditions->setObjectName("planConditions");
    m_options->setLeastRows(4);
    m_conditions->setLeastRows(4);
    lists->addWidget(m_options, 1, Qt::AlignTop);
    lists->addWidget(m_conditions, 1, Qt::AlignTop);
    layout->addLayout(lists);
    auto* row = new QHBoxLayout;
    row->addWidget(step(tr("3  How many of each?")));
    m_each = new QSpinBox;
    m_each->setObjectName("planEach");
    m_each->setAccessibleName(tr("How many of each"));
    m_each->setRange(1, mostReplicates);
    row->addWidget(m_each);
    row->addStretch();
    layout->addLayout(row);
    layout->addStretch();
    return steps;
}

QLayout* PlanPage::makeEnd() {
    auto* row = new QHBoxLayout;
    m_sentence = wrappedLabel("sentence");
    m_make = new QPushButton(tr("Make the study"));
    m_make->setObjectName("primary");
    m_make->setMinimumHeight(grown(36));
    auto* back = new QPushButton(tr("Back"));
    row->addWidget(m_sentence, 1);
    row->addWidget(back);
    row->addWidget(m_make);
    connect(back, &QPushButton::clicked, this, &PlanPage::left);
    connect(m_make, &QPushButton::clicked, this, [this] {
        const auto wanted = study();
        if (m_session.tell(project::studyFrom(wanted))) emit made(wanted);
    });
    return row;
}

void PlanPage::clear() {
    m_question->clear();
    m_methods->search()->clear();
    m_methods->choose({});
    m_options->setRows({});
    m_conditions->setRows({});
    m_each->setValue(usualReplicates);
    tell();
    m_question->setFocus();
}

project::NewStudy PlanPage::study() const {
    return {m_question->text(), {}, m_methods->chosen(), firstCells(m_options), firstCells(m_conditions),
            m_each->value()};
}

void PlanPage::tell() {
    const auto* method = methods::find(m_methods->chosen());
    m_about->setText(
        method ? tr("%1. %2 It needs: %3").arg(qs(method->title), qs(method->measures), qs(method->needs)) +
                     (m_methods->folded() ? tr(" Click it again to see the others.") : QString())
               : tr("Choose the nearest; it can be changed later."));
    const auto data = project::studyFrom(study());
    if (!data) return m_sentence->setText(qs(data.error().message));
    if (data->options.size() < 2) return m_sentence->setText(tr("Type at least two options to compare."));
    const auto totals = plan::totals(*data);
    const double cv = plan::defaultCv({});
    const int each = m_each->value();
    const auto schools = plan::schools(cv, each);
    const auto mine =
        std::find_if(schools.begin(), schools.end(), [&](const auto& s) { return s.n == each; });
    const auto pieces = tr("%1 pieces in %2 squares.").arg(totals.replicates).arg(totals.squares);
    m_sentence->setText(
        mine == schools.end() || !mine->detectable
            ? tr("%1 One of each ranks nothing: there is no spread to judge a difference by.").arg(pieces)
            : tr("%1 At a usual spread of %2, %3 of each show a difference of %4 or more in four cases of "
                 "five.")
                  .arg(pieces, qs(quantity::percent(cv)))
                  .arg(each)
                  .arg(qs(quantity::percent(*mine->detectable))));
}

} // namespace anvil::app
