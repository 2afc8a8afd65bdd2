#include "stages/verdict/verdict_stage.h"

#include "stages/verdict/next_panel.h"
#include "stages/verdict/trail.h"
#include "theme/theme.h"
#include "widgets/metric_box.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QTabWidget>
#include <QTableWidget>
#include <QTimer>
#include <anvil/plan/follow_ups.h>
#include <anvil/quantity/print.h>
#include <anvil/results/verdict.h>
#include <anvil/words/verdict.h>

namespace anvil::app {

VerdictStage::VerdictStage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_choice = new QWidget;
    auto* top = new QHBoxLayout(m_choice);
    top->setContentsMargins(0, 0, 0, 0);
    top->addWidget(plainLabel(tr("Ranked by")));
    m_metric = new MetricBox;
    m_metric->setObjectName("metric");
    m_metric->offer(nullptr);
    top->addWidget(m_metric);
    top->addStretch();
    m_look = new QPushButton;
    m_look->setObjectName("needLook");
    top->addWidget(m_look);
    layout->addWidget(m_choice);
    m_first = new QWidget;
    auto* first = new QVBoxLayout(m_first);
    first->setContentsMargins(12, 40, 12, 12);
    for (const auto& step : {tr("1   Drop a folder of logger files on this window, or choose them below."),
                             tr("2   Check in one sheet which run belongs to which option."),
                             tr("3   Read here which option is strongest, and how sure that is.")}) {
        auto* label = plainLabel(step);
        label->setObjectName("sentence");
        label->setWordWrap(true);
        first->addWidget(label);
        first->addSpacing(6);
    }
    m_import = new QPushButton(icon("import", true), tr("Import logger files…"));
    m_import->setObjectName("primary");
    m_import->setMinimumHeight(38);
    first->addSpacing(10);
    first->addWidget(m_import, 0, Qt::AlignLeft);
    first->addStretch();
    m_headline = plainLabel();
    m_headline->setObjectName("sentence");
    m_headline->setWordWrap(true);
    m_headline->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(m_headline);
    layout->addWidget(m_first, 1);
    auto* split = m_split = new QSplitter(Qt::Vertical);
    m_ladder = new PictureView;
    m_ladder->setObjectName("ladder");
    m_ladder->setAccessibleName(tr("Strength ladder"));
    auto* scroll = m_ladderArea = new QScrollArea;
    scroll->setWidget(m_ladder);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    split->addWidget(scroll);
    m_tabs = new QTabWidget;
    m_sentences = new QListWidget;
    m_sentences->setObjectName("sentences");
    m_sentences->setWordWrap(true);
    m_sentences->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_table = new QTableWidget;
    m_table->setObjectName("ranking");
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(24);
    m_next = new NextPanel(session);
    m_tabs->addTab(m_sentences, tr("Sentences"));
    m_tabs->addTab(m_table, tr("Table"));
    m_tabs->addTab(m_next, tr("What next"));
    split->addWidget(m_tabs);
    split->setStretchFactor(0, 3);
    split->setStretchFactor(1, 2);
    split->setSizes({360, 260});
    layout->addWidget(split, 1);

    connect(m_metric, &QComboBox::activated, this, [this] {
        m_metricChosen = true;
        refresh();
    });
    connect(m_look, &QPushButton::clicked, &session, &Session::selectNextNeedingLook);
    connect(m_import, &QPushButton::clicked, this, &VerdictStage::importWanted);
    connect(m_ladder, &PictureView::pullClicked, &session, &Session::selectPull);
    connect(m_ladder, &PictureView::pullActivated, this, [this](long long pull) {
        m_session.selectPull(pull);
        m_session.go(Stage::curves);
    });
    connect(m_table, &QTableWidget::cellActivated, this, &VerdictStage::openTrail);
    connect(m_table, &QTableWidget::cellDoubleClicked, this, &VerdictStage::openTrail);
    const auto mark = [this] {
        m_stale = true;
        if (isVisible()) refresh();
    };
    connect(&session, &Session::changed, this, mark);
    connect(&session, &Session::selectionChanged, this, mark);
    connect(&session, &Session::unitsChanged, this, mark);
}

void VerdictStage::showEvent(QShowEvent*) {
    if (m_stale) refresh();
}

domain::Metric VerdictStage::metric() const { return m_metric->metric(); }

void VerdictStage::refresh() {
    m_stale = false;
    const auto* data = m_session.study();
    if (m_shownStudy != m_session.studyId()) {
        m_shownStudy = m_session.studyId();
        m_metricChosen = false;
    }
    m_metric->offer(data);
    if (data && !m_metricChosen) m_metric->choose(data->study.goal.metric);
    const auto waiting = static_cast<int>(m_session.needingLook().size());
    m_look->setText(waiting == 1 ? tr("1 curve needs a look (F8)")
                                 : tr("%1 curves need a look (F8)").arg(waiting));
    m_look->setVisible(waiting > 0);
    const auto& v = m_session.verdict(metric());
    const bool nothing = !data || data->pulls.empty();
    m_first->setVisible(nothing);
    m_choice->setVisible(!nothing);
    m_split->setVisible(!nothing);
    if (nothing) {
        m_headline->setText(tr("Nothing has been pulled yet."));
        return;
    }
    QStringList lines;
    for (const auto& h : words::headlines(*data, v))
        lines << qs(h);
    m_headline->setText(lines.join("\n"));
    const auto& unit = m_session.units().of(*metric());
    m_ladder->setBuild([this](double width) { // asks anew: the study may have changed since
        const auto* now = m_session.study();
        return now ? chart::ladder(*now, m_session.verdict(metric()), m_session.units().of(*metric()), width,
                                   m_session.pull())
                   : chart::Picture{};
    });
    QTimer::singleShot(0, this, &VerdictStage::fitLadder); // once the headline has its height
    m_sentences->clear();
    for (const auto& p : v.pairs)
        if (v.hasBoth(p)) m_sentences->addItem(qs(words::sentence(*data, v, p)));
    m_next->show(plan::followUps(*data, v));

    const QStringList heads{tr("Rank"),
                            tr("Option"),
                            tr("Condition"),
                            tr("n"),
                            tr("Mean"),
                            tr("95 % interval"),
                            tr("s"),
                            tr("CV"),
                            tr("Lowest"),
                            tr("Mean − 3 s"),
                            tr("Without high and low"),
                            tr("Ties"),
                            tr("Cost each")};
    m_table->setColumnCount(static_cast<int>(heads.size()));
    m_table->setHorizontalHeaderLabels(heads);
    m_table->setRowCount(static_cast<int>(v.groups.size()));
    const auto shown = [&](const std::optional<double>& x) {
        return x ? qs(quantity::withUnit(*x, unit)) : QStringLiteral("–");
    };
    for (int i = 0; i < static_cast<int>(v.groups.size()); ++i) {
        const auto& g = v.groups[static_cast<std::size_t>(i)];
        const auto& s = g.summary;
        const auto* o = &data->optionAt(g.option);
        const QStringList cells{g.rank ? QString::number(g.rank) : QStringLiteral("–"),
                                qs(o->name),
                                qs(data->conditionAt(g.condition).name),
                                qs(chart::countText(s)),
                                qs(chart::meanText(s, unit)),
                                qs(chart::intervalText(s, unit)),
                                shown(s.sd),
                                s.cv ? qs(quantity::percent(*s.cv)) : QStringLiteral("–"),
                                shown(s.lowest),
                                s.meanMinus3Sd ? shown(s.meanMinus3Sd) : tr("none from so few"),
                                shown(s.dropHighLowMean),
                                qs(results::sharedLetters(v, g)),
                                o->unitCost ? qs(quantity::fixed(*o->unitCost, 2) + " " + o->currency)
                                            : QStringLiteral("–")};
        for (int k = 0; k < heads.size(); ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k == 0 || k >= 4) item->setFont(figures(13, k == 4));
            if (k == 0 || k >= 4) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            setTip(item, tr("Enter: where this number comes from"));
            m_table->setItem(i, k, item);
        }
    }
    m_table->setColumnHidden(2, data->conditions.size() < 2);
    m_table->resizeColumnsToContents();
}

void VerdictStage::resizeEvent(QResizeEvent*) { fitLadder(); }

void VerdictStage::fitLadder() { // whole where there is room for it beside a few lines of the tabs
    const int tabs = std::max(130, m_tabs->minimumSizeHint().height());
    const int room = std::max(120, m_split->height() - m_split->handleWidth() - tabs);
    const int wanted = std::min(static_cast<int>(m_ladder->picture().height) + 4, room);
    m_ladderArea->setMinimumHeight(wanted);
    if (m_fittedStudy == m_shownStudy || m_split->height() < 200) return;
    m_fittedStudy = m_shownStudy; // the ladder gets what it needs, the tabs the rest; after that the splitter
                                  // is the user's
    m_split->setSizes({wanted, m_split->height() - wanted});
}

void VerdictStage::openTrail(int row, int column) {
    const auto& v = m_session.verdict(metric());
    if (row < 0 || row >= static_cast<int>(v.groups.size())) return;
    const int number = column < 3 ? 4 : column;
    TrailDialog dialog(m_session, metric(), v.groups[static_cast<std::size_t>(row)],
                       m_table->horizontalHeaderItem(number)->text(), m_table->item(row, number)->text(),
                       this);
    dialog.exec();
}

} // namespace anvil::app
