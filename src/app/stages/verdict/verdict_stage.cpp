#include "stages/verdict/verdict_stage.h"

#include "stages/verdict/trail.h"
#include "stages/verdict/verdict_actions.h"
#include "stages/verdict/verdict_forms.h"
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
#include <algorithm>
#include <anvil/project/score_commands.h>
#include <anvil/results/ratios.h>
#include <anvil/results/verdict.h>

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
    layout->addLayout(makeBottom());
    connect(m_import, &QPushButton::clicked, this, &VerdictStage::importWanted);
    followPages();
    follow(true);
}

/// The names of the pages, and the tools of the one on show.
QLayout* VerdictStage::makeBottom() {
    auto* bottom = new QHBoxLayout;
    m_pages = new QTabBar;
    m_pages->setObjectName("pages");
    m_pages->setAccessibleName(tr("Pages of the verdict"));
    m_pages->setShape(QTabBar::RoundedSouth);
    m_pages->setExpanding(false);
    m_pages->setDrawBase(false);
    m_pages->setUsesScrollButtons(true);
    bottom->addStretch(1);
    m_zero = new QPushButton(tr("From zero"));
    m_zero->setCheckable(true);
    setTip(m_zero, tr("0: the scale begins at zero"));
    bottom->addWidget(m_zero);
    m_lines = new QPushButton(tr("Lines…"));
    setTip(m_lines, tr("Lines and bands to see results against: body weight, working load, published range"));
    bottom->addWidget(m_lines);
    connect(m_lines, &QPushButton::clicked, this, [this] { askReferences(m_session, this); });
    auto* corner = new QHBoxLayout;
    bottom->addLayout(corner);
    m_view->setCorner(corner);
    connect(m_zero, &QPushButton::toggled, this, [this] { refill(); });
    m_look = new QPushButton;
    m_look->setObjectName("needLook");
    bottom->addWidget(m_look);
    m_bottom = new QBoxLayout(QBoxLayout::TopToBottom);
    m_bottom->addLayout(bottom);
    m_bottom->addWidget(m_pages);
    connect(m_pages, &QTabBar::currentChanged, this, [this](int at) {
        m_page = m_pages->tabData(at).toString();
        refill();
    });
    connect(m_look, &QPushButton::clicked, &m_session, &Session::selectNextNeedingLook);
    return m_bottom;
}

void VerdictStage::followPages() {
    connect(m_view, &PageView::wanted, this, &VerdictStage::act);
    connect(m_view, &PageView::figureClicked, this, [this](const chart::HitOf& of) {
        if (const auto* one = std::get_if<chart::OfPull>(&of)) m_session.selectPull(one->pull);
        if (const auto* pair = std::get_if<chart::OfPair>(&of)) act(pages::CompareTwo{pair->a, pair->b});
    });
    connect(m_view, &PageView::figureActivated, this, [this](const chart::HitOf& of) {
        const auto* one = std::get_if<chart::OfPull>(&of);
        if (!one) return;
        m_session.selectPull(one->pull);
        m_session.go(Stage::curves);
    });
    connect(m_view, &PageView::cellOpened, this,
            [this](const QString&, long long group, const QString& column) { openTrail(group, column); });
    connect(m_view, &PageView::dragged, this, &VerdictStage::drag);
    connect(m_view, &PageView::weighed, this, [this](int which, double weight) {
        m_weights.clear();
        m_session.tell(project::weighCriterion(*m_session.project(), m_session.studyId(),
                                               static_cast<std::size_t>(which), weight));
    });
}

domain::Metric VerdictStage::ranked() const {
    return m_looks.metric.value_or(m_session.study() ? m_session.study()->study.goal.metric
                                                     : domain::Metric());
}

pages::View VerdictStage::view() const {
    return {m_session.units(), ranked(),    m_session.pull(), m_zero->isChecked(), m_weights,
            m_looks.scale,     m_looks.two, m_looks.plotOf,   m_looks.logTime};
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
        m_looks = {};
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
            if (entry.offered(source, view())) offered.push_back(&entry);
        const auto at = std::find_if(offered.begin(), offered.end(),
                                     [&](const auto* entry) { return m_page == qs(entry->key); });
        if (!offered.empty()) shown = (at != offered.end() ? *at : offered.front())->make(source, view());
    }
    m_first->setVisible(!shown);
    m_view->setVisible(shown.has_value());
    m_zero->setVisible(shown && shown->key == "answer" && !results::ratioBaseFromKey(m_looks.scale));
    m_lines->setVisible(shown && shown->key == "answer" && !results::ratioBaseFromKey(m_looks.scale) &&
                        !m_session.readOnly());
    offerPages(offered);
    if (shown)
        m_view->show(*shown);
    else
        m_view->freeze();
    // Once it is known how wide what has come and gone makes them.
    QMetaObject::invokeMethod(
        this, [this] { placeTools(); }, Qt::QueuedConnection);
}

/// The names of the pages and their tools stand in one row where both fit.
void VerdictStage::placeTools() {
    auto* tools = m_bottom->itemAt(m_bottom->indexOf(m_pages) == 0 ? 1 : 0);
    const bool fits = m_pages->sizeHint().width() + tools->sizeHint().width() + 24 <= width();
    const auto direction = fits ? QBoxLayout::RightToLeft : QBoxLayout::TopToBottom;
    if (m_bottom->direction() != direction) m_bottom->setDirection(direction);
}

void VerdictStage::resizeEvent(QResizeEvent* event) {
    Panel::resizeEvent(event);
    placeTools();
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

void VerdictStage::act(const pages::Action& action) {
    if (!m_session.study()) return;
    if (m_looks.take(action)) return refill();
    doToStudy(m_session, action, this);
}

/// Only the page on show is made anew: a slider is held.
void VerdictStage::drag(const std::vector<double>& weights) {
    m_weights = weights;
    const auto* entry = pages::find(m_page.toStdString());
    if (!entry || !m_session.study()) return;
    if (const auto page = entry->make(m_session.source(), view())) m_view->show(*page);
}

void VerdictStage::openTrail(long long group, const QString& column) {
    const auto& v = m_session.verdict(ranked());
    if (group < 0 || group >= static_cast<long long>(v.groups.size())) return;
    TrailDialog dialog(m_session, ranked(), v, static_cast<std::size_t>(group), column.toStdString(), this);
    dialog.exec();
}

} // namespace anvil::app
