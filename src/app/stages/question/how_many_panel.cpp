#include "stages/question/how_many_panel.h"

#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/keep_picture.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>
#include <anvil/plan/pieces.h>
#include <anvil/plan/replication.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

using quantity::percent;

HowManyPanel::HowManyPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QHBoxLayout(this);
    auto* left = new QVBoxLayout;
    m_spread = wrappedLabel("spread");
    left->addWidget(m_spread);
    m_schools = new QTableWidget(0, 3);
    giveTableMenu(m_schools);
    m_schools->setObjectName("schools");
    m_schools->setHorizontalHeaderLabels({tr("Of each"), tr("Sees a difference of"), tr("What it tells")});
    m_schools->verticalHeader()->hide();
    m_schools->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents); // the words wrap
    m_schools->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_schools->horizontalHeader()->setStretchLastSection(true);
    left->addWidget(m_schools, 1);
    auto* costs = new QHBoxLayout;
    costs->addWidget(plainLabel(tr("One pull takes")));
    m_minutes = field("minutesEach", tr("such as 10 min"), 130);
    setTip(m_minutes, tr("With mounting the piece and clearing up"));
    costs->addWidget(m_minutes);
    m_costs = wrappedLabel("planCosts");
    costs->addWidget(m_costs, 1);
    left->addLayout(costs);
    layout->addLayout(left, 3);
    m_power = new PictureView;
    m_power->setObjectName("power");
    layout->addWidget(m_power, 2);
    whenEdited(m_minutes, this, [this] { saveMinutes(); });
    follow();
}

void HowManyPanel::saveMinutes() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    double minutes = 0;
    if (!edited(m_minutes)) return;
    if (!m_minutes->text().trimmed().isEmpty()) {
        const auto entry = m_session.read(m_minutes->text(), quantity::Dimension::time);
        if (!m_session.tell(entry)) return;
        m_session.heard(*entry);
        if (entry->si < 0) return m_session.say(tr("A pull cannot take less than no time."), true);
        minutes = entry->si / 60;
    }
    if (minutes != data->study.plan.minutesEach)
        m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(),
                                           tr("What one pull takes"),
                                           [&](domain::Plan& p) { p.minutesEach = minutes; }));
}

void HowManyPanel::fill() {
    const auto* data = m_session.study();
    const auto spread =
        data ? m_session.project()->expectedSpread(data->study.id) : project::OpenProject::Spread{};
    const double cv = spread.cv, margin = data ? data->study.goal.margin : 0.1;
    const int planned = data ? data->study.plan.replicates : 0;
    const auto settle = stats::replicatesFor(cv, margin);
    m_spread->setText(
        tr("At a spread of %1 (%2), a difference of %3 needs %4 of each to be seen in four cases of five.")
            .arg(qs(percent(cv)), qs(spread.from), qs(percent(margin)),
                 settle ? QString::number(*settle) : tr("more than you can pull")));
    const auto rows = plan::schools(cv, planned);
    m_schools->setRowCount(static_cast<int>(rows.size()));
    for (int i = 0; i < m_schools->rowCount(); ++i) {
        const auto& r = rows[static_cast<std::size_t>(i)];
        const QStringList cells{QString::number(r.n), r.detectable ? qs(percent(*r.detectable)) : tr("none"),
                                qs(r.school)};
        for (int k = 0; k < 3; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k < 2) item->setFont(figures(13, r.n == planned));
            if (k < 2) item->setTextAlignment(Qt::AlignCenter);
            setTip(item, cells[2]);
            m_schools->setItem(i, k, item);
        }
    }
    m_schools->resizeColumnToContents(0);
    m_schools->resizeColumnToContents(1);
    const auto mine = std::find_if(rows.begin(), rows.end(), [&](const auto& r) { return r.n == planned; });
    if (mine != rows.end()) // once the rows have their heights
        QTimer::singleShot(0, m_schools, [table = m_schools, row = static_cast<int>(mine - rows.begin())] {
            table->scrollTo(table->model()->index(row, 0), QAbstractItemView::PositionAtCenter);
        });
    const auto totals = data ? plan::totals(*data) : plan::PlanTotals{};
    m_minutes->setText(data && data->study.plan.minutesEach > 0
                           ? qs(quantity::shortest(data->study.plan.minutesEach) + " min")
                           : QString());
    QStringList costs;
    if (totals.pulling > 0) costs << tr("%1 of pulling").arg(qs(plan::stretch(totals.pulling)));
    if (totals.preparation > 0) costs << tr("%1 of preparation").arg(qs(plan::stretch(totals.preparation)));
    if (totals.cost) costs << tr("%1 %2").arg(qs(quantity::fixed(*totals.cost, 2)), qs(totals.currency));
    m_costs->setText(costs.isEmpty()
                         ? tr("The plan's time and cost show here; unit costs are typed in Facts.")
                         : tr("The plan takes %1.").arg(costs.join(", ")));
    m_power->setBuild(
        [cv, planned, margin](double width) { return chart::powerCurve(cv, planned, margin, width, 210); });
}

} // namespace anvil::app
