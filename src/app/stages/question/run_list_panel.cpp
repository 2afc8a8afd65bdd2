#include "stages/question/run_list_panel.h"

#include "theme/theme.h"
#include <QCheckBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <anvil/pages/paper.h>
#include <anvil/pages/sheets.h>
#include <anvil/project/plan_commands.h>

namespace anvil::app {

RunListPanel::RunListPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* row = new QHBoxLayout;
    m_order = wrappedLabel("orderSentence");
    row->addWidget(m_order, 1);
    m_group = new QCheckBox(tr("Change the set-up once a block at most"));
    m_group->setObjectName("groupConditions");
    m_seed = new QSpinBox;
    m_seed->setObjectName("seed");
    m_seed->setRange(1, 1000000);
    m_seed->setPrefix(tr("seed "));
    auto* draw = new QPushButton(tr("Draw the order"));
    draw->setObjectName("drawOrder");
    auto* print = new QPushButton(icon("printer"), tr("As PDF…"));
    for (QWidget* w : {static_cast<QWidget*>(m_group), static_cast<QWidget*>(m_seed),
                       static_cast<QWidget*>(draw), static_cast<QWidget*>(print)})
        row->addWidget(w);
    layout->addLayout(row);
    m_runs = new QListWidget;
    m_runs->setObjectName("runList");
    m_runs->setDragDropMode(QAbstractItemView::InternalMove);
    m_runs->setFlow(QListView::TopToBottom);
    m_runs->setWrapping(true);
    m_runs->setGridSize(QSize(300, 22));
    m_runs->setResizeMode(QListView::Adjust);
    layout->addWidget(m_runs, 1);
    connect(print, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the run list"),
                                                       QStringLiteral("run-list.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) write(path);
    });
    connect(draw, &QPushButton::clicked, this, [this] {
        if (m_session.study())
            m_session.tell(project::drawRunList(*m_session.project(), m_session.studyId(),
                                                static_cast<std::uint64_t>(m_seed->value()),
                                                m_group->isChecked()));
    });
    connect(m_runs->model(), &QAbstractItemModel::rowsMoved, this,
            [this](const QModelIndex&, int from, int, const QModelIndex&, int to) {
                if (!filling())
                    m_session.tell(project::moveInRunList(*m_session.project(), m_session.studyId(), from,
                                                          to > from ? to - 1 : to));
            });
    follow();
}

void RunListPanel::fill() {
    const auto* data = m_session.study();
    m_runs->clear();
    if (!data) return;
    const auto& p = data->study.plan;
    const auto pulled = [&](const domain::Specimen& s) {
        return std::any_of(data->pulls.begin(), data->pulls.end(),
                           [&](const auto& x) { return x.specimen == s.id && !x.practice; });
    };
    const auto waiting = std::count_if(data->specimens.begin(), data->specimens.end(),
                                       [&](const auto& s) { return !pulled(s); });
    m_order->setText(
        !p.runOrder.empty() ? tr("%1 pulls in random blocks, drawn from seed %2%3. Drag to change the order.")
                                  .arg(p.runOrder.size())
                                  .arg(p.seed)
                                  .arg(p.reordered ? tr(", changed by hand") : QString())
        : waiting
            ? tr("%1 pieces wait to be pulled. Draw an order, so that drift and days fall on all alike.")
                  .arg(waiting)
            : tr("No piece waits to be pulled: make the pieces in Specimens first."));
    if (!p.runOrder.empty()) m_seed->setValue(static_cast<int>(std::min<std::uint64_t>(p.seed, 1000000)));
    int n = 0;
    for (const auto& label : p.runOrder) {
        QString text = tr("%1.  %2").arg(++n).arg(qs(label));
        for (const auto& s : data->specimens)
            if (s.label == label)
                text += tr("   %1, %2")
                            .arg(qs(data->optionAt(s.option).name), qs(data->conditionAt(s.condition).name)) +
                        (pulled(s) ? QStringLiteral("  \u2713") : QString());
        m_runs->addItem(text);
    }
}

bool RunListPanel::write(const QString& path) {
    if (!m_session.study()) return false;
    if (!m_session.tell(pages::writePdf(pages::runList(*m_session.study()), path))) return false;
    m_session.say(tr("The run list is in %1.").arg(path));
    return true;
}

} // namespace anvil::app
