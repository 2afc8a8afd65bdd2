#include "stages/verdict/verdict_stage.h"

#include "stages/verdict/trail.h"
#include "theme/theme.h"
#include "widgets/page_view.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTabBar>
#include <QVBoxLayout>
#include <anvil/plan/follow_ups.h>
#include <anvil/results/verdict.h>
#include <anvil/work/study_commands.h>

namespace anvil::app {
namespace {

/// What to do first, where nothing has been pulled.
QWidget* firstSteps(QPushButton* import) {
    auto* box = new QWidget;
    auto* layout = new QVBoxLayout(box);
    layout->setContentsMargins(12, 40, 12, 12);
    for (const auto& step :
         {QObject::tr("Nothing has been pulled yet."),
          QObject::tr("1   Drop a folder of logger files on this window, or choose them below."),
          QObject::tr("2   Check in one sheet which run belongs to which option."),
          QObject::tr("3   Read here which option is strongest, and how sure that is.")}) {
        auto* label = plainLabel(step);
        label->setObjectName("sentence");
        label->setWordWrap(true);
        layout->addWidget(label);
        layout->addSpacing(6);
    }
    import->setObjectName("primary");
    import->setMinimumHeight(grown(38));
    layout->addSpacing(10);
    layout->addWidget(import, 0, Qt::AlignLeft);
    layout->addStretch();
    return box;
}

} // namespace

VerdictStage::VerdictStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_import = new QPushButton(icon("import", true), tr("Import logger files…"));
    m_first = firstSteps(m_import);
    layout->addWidget(m_first, 1);
    m_view = new PageView;
    layout->addWidget(m_view, 1);
    auto* bottom = new QHBoxLayout;
    m_pages = new QTabBar;
    m_pages->setObjectName("pages");
    m_pages->setAccessibleName(tr("Pages of the verdict"));
    m_pages->setShape(QTabBar::RoundedSouth);
    m_pages->setExpanding(false);
    m_pages->setDrawBase(false);
    bottom->addWidget(m_pages, 1);
    m_zero = new QPushButton(tr("From zero"));
    m_zero->setCheckable(true);
    setTip(m_zero, tr("0: the scale begins at zero"));
    bottom->addWidget(m_zero);
    auto* corner = new QHBoxLayout;
    bottom->addLayout(corner);
    m_view->setCorner(corner);
    connect(m_zero, &QPushButton::toggled, this, [this] { refill(); });
    m_look = new QPushButton;
    m_look->setObjectName("needLook");
    bottom->addWidget(m_look);
    layout->addLayout(bottom);

    connect(m_pages, &QTabBar::currentChanged, this, [this](int at) {
        m_page = m_pages->tabData(at).toString();
        refill();
    });
    connect(m_look, &QPushButton::clicked, &session, &Session::selectNextNeedingLook);
    connect(m_import, &QPushButton::clicked, this, &VerdictStage::importWanted);
    connect(m_view, &PageView::chosen, this, [this](const QString&, const QString& key) {
        if (const auto* data = m_session.study())
            if (const auto metric = domain::metricFromKey(key.toStdString(), data->study.plan.method))
                m_metric = *metric;
        refill();
    });
    connect(m_view, &PageView::pullClicked, &session, &Session::selectPull);
    connect(m_view, &PageView::pullActivated, this, [this](long long pull) {
        m_session.selectPull(pull);
        m_session.go(Stage::curves);
    });
    connect(m_view, &PageView::cellOpened, this,
            [this](const QString&, long long group, const QString& column) { openTrail(group, column); });
    connect(m_view, &PageView::acted, this,
            [this](const QString&, const QString& action, int which) { act(action, which); });
    follow(true);
}

domain::Metric VerdictStage::metric() const {
    return m_metric.value_or(m_session.study() ? m_session.study()->study.goal.metric : domain::Metric());
}

pages::View VerdictStage::view() const {
    return {m_session.units(), metric(), m_session.pull(), m_zero->isChecked()};
}

void VerdictStage::keyPressEvent(QKeyEvent* event) {
    if (event->key() != Qt::Key_0 || event->modifiers() != Qt::NoModifier) return Panel::keyPressEvent(event);
    m_zero->toggle();
}

void VerdictStage::outdated() { m_view->freeze(); }

void VerdictStage::fill() {
    const auto* data = m_session.study();
    if (m_shownStudy != m_session.studyId()) {
        m_shownStudy = m_session.studyId();
        m_metric.reset();
    }
    const auto waiting = static_cast<int>(m_session.needingLook().size());
    m_look->setText(waiting == 1 ? tr("1 curve needs a look (F8)")
                                 : tr("%1 curves need a look (F8)").arg(waiting));
    m_look->setVisible(waiting > 0);
    std::vector<const pages::Entry*> offered;
    std::optional<pages::Page> shown;
    if (data) {
        const auto source = m_session.source();
        for (const auto& entry : pages::registry())
            if (auto page = entry.make(source, view())) {
                if (offered.empty() || m_page == qs(entry.key)) shown = std::move(page);
                offered.push_back(&entry);
            }
    }
    m_first->setVisible(!shown);
    m_view->setVisible(shown.has_value());
    m_zero->setVisible(shown && shown->key == "answer");
    offerPages(offered);
    if (shown) m_view->show(*shown);
}

void VerdictStage::offerPages(const std::vector<const pages::Entry*>& offered) {
    const QSignalBlocker quiet(m_pages);
    bool same = m_pages->count() == static_cast<int>(offered.size());
    for (int i = 0; same && i < m_pages->count(); ++i)
        same = m_pages->tabData(i) == qs(offered[static_cast<std::size_t>(i)]->key);
    if (!same) {
        while (m_pages->count())
            m_pages->removeTab(0);
        for (const auto* entry : offered)
            m_pages->setTabData(m_pages->addTab(qs(entry->title)), qs(entry->key));
    }
    for (int i = 0; i < m_pages->count(); ++i)
        if (m_pages->tabData(i) == m_page) m_pages->setCurrentIndex(i);
    m_pages->setVisible(m_pages->count() > 1);
}

void VerdictStage::act(const QString& action, int which) {
    const auto* data = m_session.study();
    if (!data) return;
    const auto followUps = plan::followUps(*data, m_session.verdict(metric()));
    if (which >= static_cast<int>(followUps.size())) return;
    const auto& f = followUps[static_cast<std::size_t>(which)];
    if (action == "planHere") {
        if (!m_session.tell(work::planMore(*m_session.project(), m_session.studyId(), f.squares, f.more)))
            return;
        m_session.say(tr("Planned. Make the pieces in Specimens."));
        m_session.go(Stage::specimens);
        return;
    }
    const auto made =
        work::followUpStudy(*m_session.project(), m_session.studyId(),
                            tr("Follow-up of %1").arg(qs(data->study.title)), f.squares, f.more);
    if (!m_session.tell(made)) return;
    m_session.showStudy(*made);
    m_session.say(tr("A study of its own. Check the plan, then make the pieces in Specimens."));
    m_session.go(Stage::question);
}

void VerdictStage::openTrail(long long group, const QString& column) {
    const auto& v = m_session.verdict(metric());
    if (group < 0 || group >= static_cast<long long>(v.groups.size())) return;
    TrailDialog dialog(m_session, metric(), v, static_cast<std::size_t>(group), column.toStdString(), this);
    dialog.exec();
}

} // namespace anvil::app
