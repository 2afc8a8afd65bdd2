#include "stages/verdict/verdict_stage.h"

#include "stages/verdict/trail.h"
#include "stages/verdict/verdict_forms.h"
#include "theme/theme.h"
#include "widgets/page_view.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTabBar>
#include <QVBoxLayout>
#include <algorithm>
#include <anvil/plan/follow_ups.h>
#include <anvil/results/one_group.h>
#include <anvil/results/ratios.h>
#include <anvil/results/use.h>
#include <anvil/results/verdict.h>
#include <anvil/work/score_commands.h>
#include <anvil/work/study_commands.h>
#include <anvil/work/telling_commands.h>

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
    layout->addLayout(m_bottom);

    connect(m_pages, &QTabBar::currentChanged, this, [this](int at) {
        m_page = m_pages->tabData(at).toString();
        refill();
    });
    connect(m_look, &QPushButton::clicked, &session, &Session::selectNextNeedingLook);
    connect(m_import, &QPushButton::clicked, this, &VerdictStage::importWanted);
    connect(m_view, &PageView::chosen, this, &VerdictStage::choose);
    connect(m_view, &PageView::figureClicked, this, [this](const QString& figure, long long of) {
        if (figure != "triangle") return m_session.selectPull(of);
        const auto& pairs = m_session.verdict(ranked()).pairs;
        const auto at = static_cast<std::size_t>(of - 1);
        if (of > 0 && at < pairs.size()) chooseTwo(pairs[at].a, pairs[at].b);
    });
    connect(m_view, &PageView::pullActivated, this, [this](long long pull) {
        m_session.selectPull(pull);
        m_session.go(Stage::curves);
    });
    connect(m_view, &PageView::cellOpened, this,
            [this](const QString&, long long group, const QString& column) { openTrail(group, column); });
    connect(m_view, &PageView::acted, this,
            [this](const QString& offers, const QString& action, int which) { act(offers, action, which); });
    connect(m_view, &PageView::dragged, this, &VerdictStage::drag);
    connect(m_view, &PageView::weighed, this, [this](int which, double weight) {
        m_weights.clear();
        m_session.tell(work::weighCriterion(*m_session.project(), m_session.studyId(),
                                            static_cast<std::size_t>(which), weight));
    });
    follow(true);
}

domain::Metric VerdictStage::ranked() const {
    return m_metric.value_or(m_session.study() ? m_session.study()->study.goal.metric : domain::Metric());
}

pages::View VerdictStage::view() const {
    return {m_session.units(), ranked(), m_session.pull(), m_zero->isChecked(), m_weights, m_scale, m_two,
            m_plotOf,          m_logTime};
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
        m_two.reset();
        m_scale.clear();
        m_plotOf.clear();
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
    m_zero->setVisible(shown && shown->key == "answer" && !results::ratioBaseFromKey(m_scale));
    m_lines->setVisible(shown && shown->key == "answer" && !results::ratioBaseFromKey(m_scale) &&
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

void VerdictStage::choose(const QString& choice, const QString& option) {
    const auto* data = m_session.study();
    if (!data) return;
    const auto group = [&] { return static_cast<std::size_t>(option.toULongLong()); };
    if (choice == "metric") {
        if (const auto metric = domain::metricFromKey(option.toStdString(), data->study.plan.method))
            m_metric = *metric;
        m_two.reset();
    } else if (choice == "time") {
        m_logTime = option == "log";
    } else if (choice == "scale") {
        m_scale = option.toStdString();
    } else if (choice == "plotOf") {
        m_plotOf = option.toStdString();
    } else if (choice == "factor") {
        for (const auto& reason : results::factorReasons())
            if (reason.factor == option.toDouble())
                m_session.tell(work::setDesignFactor(*m_session.project(), m_session.studyId(), reason.factor,
                                                     reason.why));
    } else if (choice == "family") {
        if (const auto family = stats::familyFromKey(option.toStdString()))
            m_session.tell(work::setFamily(*m_session.project(), m_session.studyId(), *family));
    } else if (choice == "first") {
        return chooseTwo(group(), {});
    } else if (choice == "second") {
        return chooseTwo({}, group());
    }
    refill();
}

/// The one that is not given stays as it is on show.
void VerdictStage::chooseTwo(std::optional<std::size_t> first, std::optional<std::size_t> second) {
    const auto shown = [&](const char* choice) {
        const auto* box = m_view->findChild<QComboBox*>(choice);
        return box ? static_cast<std::size_t>(box->currentData().toString().toULongLong()) : 0;
    };
    m_two = {first.value_or(shown("first")), second.value_or(shown("second"))};
    refill();
}

void VerdictStage::setAside(int which) {
    const auto& verdict = m_session.verdict(ranked());
    const auto apart = results::apartOf(verdict.groups);
    const auto at = static_cast<std::size_t>(which);
    if (at < apart.size())
        askAside(m_session, verdict.groups[apart[at].group].values[apart[at].value].pull, this);
}

/// Only the page on show is made anew: a slider is held.
void VerdictStage::drag(const std::vector<double>& weights) {
    m_weights = weights;
    const auto* entry = pages::find(m_page.toStdString());
    if (!entry || !m_session.study()) return;
    if (const auto page = entry->make(m_session.source(), view())) m_view->show(*page);
}

void VerdictStage::act(const QString& offers, const QString& action, int which) {
    if (!m_session.study()) return;
    if (offers == "followUps") return followUp(action, which);
    if (offers == "criteria" || offers == "weights") return changeCard(action, which);
    if (offers == "byEye") return askRatings(m_session, this);
    if (offers == "use") return askUse(m_session, this);
    if (offers == "reevings") return askReevings(m_session, this);
    if (offers == "arrangements") return askArrangements(m_session, this);
    if (offers == "apart") return setAside(which);
}

void VerdictStage::changeCard(const QString& action, int which) {
    auto& project = *m_session.project();
    const auto at = static_cast<std::size_t>(which);
    if (action == "remove") {
        m_session.tell(work::removeCriterion(project, m_session.studyId(), at));
        return;
    }
    const auto offered = work::offeredCriteria(project, m_session.studyId());
    if (at < offered.size()) m_session.tell(work::addCriterion(project, m_session.studyId(), offered[at]));
}

void VerdictStage::followUp(const QString& action, int which) {
    const auto* data = m_session.study();
    const auto followUps = plan::followUps(*data, m_session.verdict(ranked()),
                                           &m_session.project()->sureness(m_session.studyId(), ranked()));
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
    const auto& v = m_session.verdict(ranked());
    if (group < 0 || group >= static_cast<long long>(v.groups.size())) return;
    TrailDialog dialog(m_session, ranked(), v, static_cast<std::size_t>(group), column.toStdString(), this);
    dialog.exec();
}

} // namespace anvil::app
