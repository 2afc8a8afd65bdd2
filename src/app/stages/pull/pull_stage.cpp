#include "stages/pull/pull_stage.h"

#include "shell/rig_desk.h"
#include "stages/pull/bench_view.h"
#include "stages/pull/entry_panel.h"
#include "stages/pull/gauge_panel.h"
#include "stages/pull/ladder_panel.h"
#include "stages/pull/typed_row.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <anvil/pages/page.h>
#include <anvil/plan/next.h>
#include <anvil/results/evidence.h>
#include <anvil/work/board_commands.h>

namespace anvil::app {

PullStage::PullStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(16, 14, 16, 14);
    m_bench = new BenchView(session);
    outer->addWidget(m_bench, 1);
    m_entries = new QStackedWidget;
    m_entries->hide();
    outer->addWidget(m_entries, 1);
    m_ways = new QWidget;
    outer->addWidget(m_ways, 1);
    auto* layout = new QVBoxLayout(m_ways);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* sentence =
        plainLabel(tr("Pulled already? Bring in what your logger wrote, or the numbers you noted."));
    sentence->setObjectName("sentence");
    sentence->setWordWrap(true);
    layout->addWidget(sentence);
    const auto action = [&](const QString& iconName, const QString& text, const QString& about,
                            void (PullStage::*signal)()) {
        auto* button = new QPushButton(icon(iconName, signal == &PullStage::importFilesWanted), text);
        button->setMinimumHeight(36);
        button->setMaximumWidth(340);
        layout->addWidget(button);
        auto* label = plainLabel(about);
        label->setObjectName("faint");
        label->setWordWrap(true);
        layout->addWidget(label);
        layout->addSpacing(8);
        connect(button, &QPushButton::clicked, this, signal);
        return button;
    };
    auto* live = new QHBoxLayout;
    auto* practise = new QPushButton(tr("Practise on the virtual bench"));
    practise->setObjectName("practise");
    auto* setUp = new QPushButton(tr("Set up a rig"));
    setUp->setObjectName("setUpRig");
    live->addWidget(plainLabel(tr("At the rig now?")));
    live->addWidget(setUp);
    live->addWidget(practise);
    live->addStretch();
    connect(practise, &QPushButton::clicked, this, [this] {
        if (m_session.rig().practise()) refill();
    });
    connect(setUp, &QPushButton::clicked, this, [this] { m_session.go(Stage::rig); });
    action("import", tr("Import logger files…"),
           tr("CSV, TSV or text from any logger, many at once. You can also drop them on the window."),
           &PullStage::importFilesWanted)
        ->setObjectName("primary");
    action("list", tr("Import a table of results…"),
           tr("One row a piece: option, condition, value, unit, standing."), &PullStage::importTableWanted);
    action("clipboard-paste", tr("Paste results"), tr("The same columns, copied from a spreadsheet."),
           &PullStage::pasteWanted);
    layout->addLayout(live);
    layout->addSpacing(8);
    auto* head = plainLabel(tr("Read off a display? One piece after the other:"));
    head->setObjectName("section");
    layout->addWidget(head);
    layout->addWidget(new TypedRow(session));
    layout->addSpacing(8);
    addUnplanned(layout);
    layout->addSpacing(12);
    for (const auto& caution : pages::cautions()) {
        auto* label = plainLabel(qs(caution));
        label->setWordWrap(true);
        label->setObjectName("faint");
        layout->addWidget(label);
    }
    layout->addStretch();
    connect(&session.rig(), &RigDesk::changed, this, &PullStage::mark);
    follow();
}

void PullStage::addUnplanned(QVBoxLayout* layout) {
    auto* unplanned = new QHBoxLayout;
    auto* option = new QLineEdit;
    option->setObjectName("unplannedOption");
    option->setPlaceholderText(tr("what it is"));
    auto* condition = new QLineEdit;
    condition->setObjectName("unplannedCondition");
    condition->setPlaceholderText(tr("how it is pulled"));
    auto* add = new QPushButton(icon("plus"), tr("Add an unplanned piece"));
    add->setObjectName("unplannedAdd");
    unplanned->addWidget(option);
    unplanned->addWidget(condition);
    unplanned->addWidget(add);
    unplanned->addStretch();
    layout->addLayout(unplanned);
    auto* why = plainLabel(
        tr("Thought of something after the last one broke? It makes its own square on the board."));
    why->setObjectName("faint");
    layout->addWidget(why);
    const auto make = [&session = m_session, option, condition] {
        if (!session.study()) return session.say(tr("There is no study yet: start one in Question."), true);
        const auto made =
            work::addUnplanned(*session.project(), session.studyId(), option->text(), condition->text());
        if (!session.tell(made)) return;
        session.say(tr("%1 waits to be pulled.").arg(qs(session.study()->specimenAt(*made).label)));
        option->clear();
    };
    connect(add, &QPushButton::clicked, this, make);
    connect(condition, &QLineEdit::returnPressed, this, make);
}

QWidget* PullStage::entryFor(methods::EntryForm form) {
    using methods::EntryForm;
    if (form == EntryForm::steps) {
        if (!m_ladder) m_entries->addWidget(m_ladder = new LadderPanel(m_session));
        return m_ladder;
    }
    if (form == EntryForm::series) {
        if (!m_gauge) m_entries->addWidget(m_gauge = new GaugePanel(m_session));
        return m_gauge;
    }
    if (!m_form) m_entries->addWidget(m_form = new EntryPanel(m_session));
    return m_form;
}

void PullStage::fill() {
    const auto* data = m_session.study();
    const auto* next = data ? plan::nextSpecimen(*data) : nullptr;
    const auto& method =
        next ? results::methodOf(*data, *next) : results::methodOf(data ? data->study.plan : domain::Plan{});
    const auto form = methods::entryForm(method);
    const bool rig = m_session.rig().inUse() && data;
    const bool curve = rig && method.load == rig::loadOf(rig::heardLayout(m_session.rig().setup()));
    const bool entry = data && !data->study.plan.practice && form != methods::EntryForm::number &&
                       !data->specimens.empty() && !curve;
    const bool bench = rig && !entry;
    if (entry) m_entries->setCurrentWidget(entryFor(form));
    m_entries->setVisible(entry);
    m_ways->setVisible(!bench && !entry);
    if (bench == m_bench->isVisibleTo(this)) return;
    m_bench->setVisible(bench);
    if (bench) m_bench->setFocus();
}

} // namespace anvil::app
