#include "stages/pull/pull_stage.h"

#include "shell/rig_desk.h"
#include "stages/pull/bench_view.h"
#include "stages/pull/entry_panel.h"
#include "stages/pull/gauge_panel.h"
#include "stages/pull/ladder_panel.h"
#include "stages/pull/typed_page.h"
#include "theme/theme.h"
#include "widgets/flow_layout.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <anvil/pages/page.h>
#include <anvil/plan/next.h>
#include <anvil/project/plan_commands.h>
#include <anvil/results/evidence.h>

namespace anvil::app {

PullStage::PullStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(16, 14, 16, 14);
    m_bench = new BenchView(session);
    outer->addWidget(m_bench, 1);
    m_entries = new QStackedWidget;
    m_entries->hide();
    m_entries->addWidget(m_none = makeNone());
    outer->addWidget(m_entries, 1);
    m_number = new TypedPage(session);
    outer->addWidget(m_number, 1);
    m_ways = new QWidget;
    outer->addWidget(m_ways);
    auto* layout = new QVBoxLayout(m_ways);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(12);
    addOtherWays(layout);
    auto* cautions = wrappedLabel("faint");
    QStringList all;
    for (const auto& caution : pages::cautions())
        all << qs(caution);
    cautions->setText(all.join(' '));
    layout->addWidget(cautions);
    connect(&session.rig(), &RigDesk::changed, this, &PullStage::mark);
    follow();
}

/// What else may lead to results: files, a table, a rig.
void PullStage::addOtherWays(QVBoxLayout* layout) {
    auto* row = new FlowLayout;
    row->addWidget(plainLabel(tr("Or:")));
    const auto way = [&](const QString& iconName, const QString& text, const QString& tip) {
        auto* button = iconName.isEmpty() ? new QPushButton(text) : new QPushButton(icon(iconName), text);
        setTip(button, tip);
        row->addWidget(button);
        return button;
    };
    connect(way("import", tr("Import logger files…"),
                tr("CSV, TSV or text from any logger, many at once. You can also drop them on the window.")),
            &QPushButton::clicked, this, &PullStage::importFilesWanted);
    connect(
        way("list", tr("Import a table…"), tr("One row a piece: option, condition, value, unit, standing.")),
        &QPushButton::clicked, this, &PullStage::importTableWanted);
    connect(way("clipboard-paste", tr("Paste results"), tr("The same columns, copied from a spreadsheet.")),
            &QPushButton::clicked, this, &PullStage::pasteWanted);
    connect(way({}, tr("Set up a rig"), tr("Results come live from a load cell or a logger")),
            &QPushButton::clicked, this, [this] { m_session.go(Stage::rig); });
    auto* practise =
        way({}, tr("Practise on the virtual bench"), tr("Three unknown pins on a rig that is not there"));
    practise->setObjectName("practise");
    connect(practise, &QPushButton::clicked, this, [this] {
        if (m_session.rig().practise()) refill();
    });
    layout->addLayout(row);
}

QWidget* PullStage::makeNone() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    layout->setContentsMargins(0, 0, 0, 0);
    m_noneSays = wrappedLabel("nextPiece");
    layout->addWidget(m_noneSays);
    m_make = new QPushButton;
    m_make->setObjectName("primary");
    layout->addWidget(m_make, 0, Qt::AlignLeft);
    layout->addStretch();
    connect(m_make, &QPushButton::clicked, this, [this] {
        m_session.tell(project::makePieces(*m_session.project(), m_session.studyId(), QString()));
    });
    return page;
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
    const bool curve = rig && method.load == rig::recordedLoad(m_session.rig().setup());
    const auto missing = data && data->specimens.empty() ? domain::missingPieces(*data).size() : 0;
    const bool entry = data && !data->study.plan.practice && form != methods::EntryForm::number &&
                       (!data->specimens.empty() || missing > 0) && !curve;
    const bool bench = rig && !entry;
    if (entry) m_entries->setCurrentWidget(missing > 0 ? m_none : entryFor(form));
    m_noneSays->setText(tr("%1 pieces are planned, and none is made yet.").arg(missing));
    m_make->setText(tr("Make %1 pieces").arg(missing));
    m_make->setEnabled(!m_session.readOnly());
    m_entries->setVisible(entry);
    m_number->setVisible(!bench && !entry);
    m_ways->setVisible(!bench);
    if (bench == m_bench->isVisibleTo(this)) return;
    m_bench->setVisible(bench);
    if (bench) m_bench->setFocus();
}

} // namespace anvil::app
