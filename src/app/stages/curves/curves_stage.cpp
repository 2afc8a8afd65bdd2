#include "stages/curves/curves_stage.h"

#include "theme/theme.h"
#include "widgets/curve_view.h"
#include "widgets/keep_picture.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/pages/page.h>
#include <anvil/results/values.h>
#include <anvil/words/pull.h>
#include <anvil/work/pull_commands.h>

namespace anvil::app {

CurvesStage::CurvesStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    auto* top = new QHBoxLayout;
    m_title = plainLabel();
    m_title->setObjectName("sentence");
    m_one = new QPushButton(tr("This pull"));
    m_all = new QPushButton(tr("All of the square"));
    m_all->setObjectName("overlay");
    for (auto* b : {m_one, m_all})
        b->setCheckable(true);
    setTip(m_one, tr("One curve with its landmarks"));
    setTip(m_all, tr("All replicates of this square laid over each other"));
    top->addWidget(m_title, 1);
    top->addWidget(m_one);
    top->addWidget(m_all);
    layout->addLayout(top);
    m_remark = plainLabel();
    m_remark->setWordWrap(true);
    m_remark->setObjectName("remarkLine");
    layout->addWidget(m_remark);
    m_view = new CurveView;
    layout->addWidget(m_view, 1);
    m_numbers = new QTableWidget(0, 3);
    giveTableMenu(m_numbers);
    m_numbers->setAccessibleName(tr("What was read from the curve"));
    m_numbers->setObjectName("numbers");
    m_numbers->verticalHeader()->hide();
    m_numbers->verticalHeader()->setDefaultSectionSize(grown(23));
    m_numbers->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_numbers->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    m_numbers->setFixedHeight(grown(218));
    m_numbers->horizontalHeader()->setFixedHeight(grown(26));
    layout->addWidget(m_numbers);
    auto* bottom = new QHBoxLayout;
    m_clear = new QPushButton(icon("rotate-ccw"), tr("Find landmarks again"));
    setTip(m_clear, tr("Forgets what was moved by hand on this curve"));
    m_noSlip = new QPushButton(tr("No first slip"));
    setTip(m_noSlip, tr("Says that what was taken for a first slip is none"));
    m_next = new QPushButton(tr("Next that needs a look (F8)"));
    m_next->setObjectName("primary");
    m_import = new QPushButton(icon("import"), tr("Import logger files…"));
    m_hint = plainLabel(tr("Drag a landmark to move it, wheel to zoom. L and the arrow keys do the same."));
    m_hint->setObjectName("faint");
    m_hint->setWordWrap(true);
    bottom->addWidget(m_clear);
    bottom->addWidget(m_noSlip);
    bottom->addWidget(m_hint, 1);
    bottom->addStretch();
    bottom->addWidget(m_import);
    bottom->addWidget(m_next);
    layout->addLayout(bottom);
    connect(m_one, &QPushButton::clicked, this, [this] {
        m_overlay = false;
        refill();
    });
    connect(m_all, &QPushButton::clicked, this, [this] {
        m_overlay = true;
        refill();
    });
    connect(m_next, &QPushButton::clicked, &session, &Session::selectNextNeedingLook);
    connect(m_import, &QPushButton::clicked, this, &CurvesStage::importWanted);
    connect(m_view, &CurveView::landmarkMoved, this, [this](work::Handle handle, double time) {
        if (!m_session.tell(work::setLandmark(*m_session.project(), m_session.pull(), handle,
                                              curve::Override{time, false})))
            refill();
    });
    connect(m_clear, &QPushButton::clicked, this, [this] {
        const auto* data = m_session.study();
        const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
        if (!pull) return;
        m_session.tell(work::setReadingSettings(
            *m_session.project(), pull->id, pull->settings.withoutHand(),
            tr("%1: find landmarks again").arg(qs(data->specimenAt(pull->specimen).label))));
    });
    connect(m_noSlip, &QPushButton::clicked, this, [this] {
        m_session.tell(work::setLandmark(*m_session.project(), m_session.pull(), work::Handle::firstSlip,
                                         curve::Override{0, true}));
    });
    follow(true);
}

void CurvesStage::fill() {
    m_one->setChecked(!m_overlay);
    m_all->setChecked(m_overlay);
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    const auto waiting = m_session.needingLook().size();
    m_next->setVisible(waiting > 0);
    m_import->setVisible(!pull);
    m_view->setMovable(!m_session.readOnly());
    for (QWidget* w : std::initializer_list<QWidget*>{m_clear, m_noSlip, m_numbers, m_remark, m_hint})
        w->setVisible(pull && !m_overlay);
    if (!pull) {
        m_title->setText(tr("No curve to show"));
        m_view->showNothing(tr("This square has no pull yet. Import logger files to see their curves here."));
        return;
    }
    const auto* s = &data->specimenAt(pull->specimen);
    if (m_overlay) {
        m_title->setText(
            tr("%1, %2: all replicates")
                .arg(qs(data->optionAt(s->option).name), qs(data->conditionAt(s->condition).name)));
        auto chart = pages::overlayOf(m_session.source(), s->option, s->condition, m_session.units(),
                                      static_cast<std::size_t>(std::max(200, m_view->width() - 80)));
        for (auto& t : chart.traces)
            if (t.pull == pull->id) t.width = 2.8;
        if (chart.traces.empty())
            m_view->showNothing(tr("The results of this square were typed in: there are no curves."));
        else
            m_view->showOverlay(std::move(chart));
        return;
    }
    m_title->setText(
        tr("%1: %2, %3")
            .arg(qs(s->label), qs(data->optionAt(s->option).name), qs(data->conditionAt(s->condition).name)));
    const auto curve = m_session.project()->readCurve(pull->id);
    auto remarks = results::needsLook(*pull, m_session.readings());
    m_remark->setText(remarks.empty() ? QString()
                                      : tr("Needs a look: %1").arg(qs(remarks.front())) +
                                            (remarks.size() > 1
                                                 ? tr(" (and %1 more, at the right)").arg(remarks.size() - 1)
                                                 : QString()));
    m_remark->setVisible(!remarks.empty());
    if (!curve) {
        m_numbers->hide();
        m_clear->hide();
        m_noSlip->hide();
        m_view->showNothing(
            pull->typed ? tr("This result was typed in as %1: it has no curve.").arg(qs(pull->typed->asTyped))
                        : qs(curve.error().message));
        return;
    }
    m_noSlip->setVisible((*curve)->reading.firstSlip.has_value());
    const auto& set = pull->settings;
    m_clear->setVisible(set.peak || set.firstSlip || set.breakPoint || set.fitFrom);
    m_view->showCurve(*curve, m_session.units(), pull->settings, m_session.project()->legs(pull->id));
    fillNumbers(**curve, *pull);
}

void CurvesStage::fillNumbers(const curve::ReadCurve& c, const domain::Pull& pull) {
    const auto table = words::readingTable(c.reading, pull, m_session.units());
    m_numbers->setRowCount(static_cast<int>(table.rows.size()));
    for (int k = 0; k < static_cast<int>(table.columns.size()); ++k) {
        const auto& column = table.columns[static_cast<std::size_t>(k)];
        m_numbers->setHorizontalHeaderItem(k, new QTableWidgetItem(qs(column.title)));
        for (int i = 0; i < m_numbers->rowCount(); ++i) {
            auto* item = new QTableWidgetItem(
                qs(table.rows[static_cast<std::size_t>(i)].cells[static_cast<std::size_t>(k)]));
            if (column.number) {
                item->setFont(figures(13, k == 1));
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            }
            m_numbers->setItem(i, k, item);
        }
    }
}

} // namespace anvil::app
