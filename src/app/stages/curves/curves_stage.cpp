#include "stages/curves/curves_stage.h"

#include "stages/curves/reading_form.h"
#include "theme/theme.h"
#include "widgets/curve_view.h"
#include "widgets/flow_layout.h"
#include "widgets/keep_picture.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/curve/as_logged.h>
#include <anvil/pages/curve_lines.h>
#include <anvil/project/pull_commands.h>
#include <anvil/results/values.h>
#include <anvil/words/beside.h>
#include <anvil/words/pull.h>

namespace anvil::app {

CurvesStage::CurvesStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    layout->addLayout(makeTop());
    m_remark = wrappedLabel("remarkLine");
    layout->addWidget(m_remark);
    m_view = new CurveView;
    layout->addWidget(m_view, 1);
    m_many = new PictureView;
    m_many->setAccessibleName(tr("The curves of every option"));
    layout->addWidget(m_many, 1);
    m_rate = new PictureView;
    m_rate->setObjectName("rateStrip");
    m_rate->setAccessibleName(tr("How fast it was pulled"));
    setTip(m_rate, tr("How fast it was pulled; dotted those of its square that went at another rate"));
    layout->addWidget(m_rate);
    m_numbers = new QTableWidget(0, 4);
    giveTableMenu(m_numbers);
    m_numbers->setAccessibleName(tr("What was read from the curve"));
    m_numbers->setObjectName("numbers");
    m_numbers->verticalHeader()->hide();
    m_numbers->verticalHeader()->setDefaultSectionSize(grown(23));
    m_numbers->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_numbers->setFixedHeight(grown(218));
    m_numbers->horizontalHeader()->setFixedHeight(grown(26));
    layout->addWidget(m_numbers);
    layout->addLayout(makeBottom());
    connect(m_view, &CurveView::landmarkMoved, this, [this](project::Handle handle, double time) {
        if (!m_session.tell(project::setLandmark(*m_session.project(), m_session.pull(), handle,
                                                 curve::Override{time, false})))
            refill();
    });
    connect(m_view, &CurveView::viewChanged, this, &CurvesStage::drawRate);
    connect(m_many, &PictureView::clicked, this, [this](const chart::HitOf& of) {
        const auto* data = m_session.study();
        const auto* chart = std::get_if<chart::OfChart>(&of);
        if (!data || !chart || chart->at >= data->options.size()) return;
        m_shows = Shows::square;
        m_session.selectSquare(data->options[chart->at].id, m_session.condition());
        refill();
    });
    follow(true);
}

QLayout* CurvesStage::makeTop() {
    auto* top = new QHBoxLayout;
    m_title = plainLabel();
    m_title->setObjectName("sentence");
    m_title->setWordWrap(true);
    top->addWidget(m_title, 1);
    m_along = new QComboBox;
    m_along->setObjectName("along");
    m_along->setAccessibleName(tr("Along what the curves are drawn"));
    for (const auto& text : {tr("by displacement"), tr("by time"), tr("between landmarks")})
        m_along->addItem(text);
    m_against = new QComboBox;
    m_against->setObjectName("against");
    m_against->setAccessibleName(tr("The option whose average is set against this one"));
    m_logged = new QPushButton(tr("As logged"));
    m_logged->setObjectName("asLogged");
    m_logged->setCheckable(true);
    setTip(m_logged, tr("Shows the samples as they were logged, spikes and all, behind those that are read"));
    for (QWidget* w : std::initializer_list<QWidget*>{m_against, m_along, m_logged})
        top->addWidget(w);
    m_views = new QButtonGroup(this);
    const std::pair<QString, QString> views[] = {
        {tr("This pull"), tr("One curve with its landmarks")},
        {tr("Square"), tr("All replicates of this square laid over each other")},
        {tr("Average"), tr("The averaged curve of this square and what its curves lie in")},
        {tr("Options"), tr("Every option in this condition beside the others")}};
    static constexpr const char* names[] = {"onePull", "overlay", "average", "byOption"};
    for (int i = 0; i < 4; ++i) {
        auto* button = new QPushButton(views[i].first);
        button->setObjectName(names[i]);
        button->setCheckable(true);
        setTip(button, views[i].second);
        m_views->addButton(button, i);
        top->addWidget(button);
    }
    connect(m_views, &QButtonGroup::idClicked, this, [this](int id) {
        m_shows = static_cast<Shows>(id);
        refill();
    });
    connect(m_along, &QComboBox::activated, this, &CurvesStage::refill);
    connect(m_against, &QComboBox::activated, this, &CurvesStage::refill);
    connect(m_logged, &QPushButton::clicked, this, &CurvesStage::refill);
    return top;
}

QLayout* CurvesStage::makeBottom() {
    auto* bottom = new QHBoxLayout;
    m_how = new QPushButton(tr("How it is read…"));
    m_how->setObjectName("howRead");
    setTip(m_how,
           tr("What a break, a stiffness, a yield … are, for this curve, its square or the whole study"));
    m_hold = new QPushButton(tr("Held here"));
    m_hold->setObjectName("heldHere");
    setTip(m_hold,
           tr("Takes what is on show as the window in which the load was held: mean, spread, relaxation"));
    m_clear = new QPushButton(icon("rotate-ccw"), tr("Find landmarks again"));
    setTip(m_clear, tr("Forgets what was moved by hand on this curve"));
    m_noSlip = new QPushButton(tr("No first slip"));
    setTip(m_noSlip, tr("Says that what was taken for a first slip is none"));
    m_next = new QPushButton(tr("Next that needs a look (F8)"));
    m_next->setObjectName("primary");
    m_import = new QPushButton(icon("import"), tr("Import logger files…"));
    m_hint = plainLabel();
    m_hint->setObjectName("faint");
    m_hint->setWordWrap(true);
    for (QWidget* w : std::initializer_list<QWidget*>{m_how, m_hold, m_clear, m_noSlip})
        bottom->addWidget(w);
    bottom->addWidget(m_hint, 1);
    bottom->addWidget(m_import);
    bottom->addWidget(m_next);
    connect(m_next, &QPushButton::clicked, &m_session, &Session::selectNextNeedingLook);
    connect(m_import, &QPushButton::clicked, this, &CurvesStage::importWanted);
    connect(m_how, &QPushButton::clicked, this, [this] { askHowToRead(m_session, this); });
    connect(m_hold, &QPushButton::clicked, this, &CurvesStage::holdHere);
    connect(m_clear, &QPushButton::clicked, this, [this] {
        const auto* data = m_session.study();
        const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
        if (!pull) return;
        m_session.tell(project::setReadingSettings(
            *m_session.project(), pull->id, pull->settings.withoutHand(),
            tr("%1: find landmarks again").arg(qs(data->specimenAt(pull->specimen).label))));
    });
    connect(m_noSlip, &QPushButton::clicked, this, [this] {
        m_session.tell(project::setLandmark(*m_session.project(), m_session.pull(),
                                            project::Handle::firstSlip, curve::Override{0, true}));
    });
    return bottom;
}

void CurvesStage::holdHere() {
    const auto [from, to] = m_view->timesInView();
    m_session.tell(project::setHold(*m_session.project(), m_session.pull(), from, to));
}

void CurvesStage::showRemark(const QString& text) {
    m_remark->setText(text);
    m_remark->setVisible(!text.isEmpty());
}

void CurvesStage::fill() {
    m_views->button(static_cast<int>(m_shows))->setChecked(true);
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    const bool one = m_shows == Shows::pull;
    m_next->setVisible(!m_session.needingLook().empty());
    m_import->setVisible(!pull);
    m_view->setMovable(!m_session.readOnly());
    m_view->setVisible(m_shows != Shows::options);
    m_many->setVisible(m_shows == Shows::options);
    m_against->setVisible(m_shows == Shows::average && data && data->options.size() > 1);
    m_along->setVisible(m_shows == Shows::pull || m_shows == Shows::square);
    for (QWidget* w :
         std::initializer_list<QWidget*>{m_clear, m_noSlip, m_numbers, m_rate, m_logged, m_hold, m_how})
        w->setVisible(pull && one);
    for (auto* b : m_views->buttons())
        b->setVisible(pull);
    m_hint->setText(
        !one || !pull ? QString()
                      : tr("Drag a landmark; wheel or + and − zoom, Shift-drag a box, Backspace goes back."));
    showRemark({});
    if (!pull) {
        m_along->hide();
        m_title->setText(tr("No curve to show"));
        m_many->hide();
        m_view->show();
        m_view->showNothing(tr("This square has no pull yet. Import logger files to see their curves here."));
        return;
    }
    fillChoices(*data, data->specimenAt(pull->specimen));
    switch (m_shows) {
    case Shows::pull:
        return fillPull(*data, *pull);
    case Shows::square:
        return fillSquare(*data, *pull);
    case Shows::average:
        return fillAverage(*data, *pull);
    case Shows::options:
        return fillOptions(*data, *pull);
    }
}

void CurvesStage::fillChoices(const domain::StudyData& data, const domain::Specimen& piece) {
    const auto chosen = m_against->currentData().toLongLong();
    m_against->clear();
    m_against->addItem(tr("by itself"), 0);
    for (const auto& o : data.options)
        if (o.id != piece.option) m_against->addItem(tr("against %1").arg(qs(o.name)), o.id);
    m_against->setCurrentIndex(std::max(0, m_against->findData(chosen)));
    if (m_shows == Shows::pull && m_along->currentIndex() == 2) m_along->setCurrentIndex(0);
}

void CurvesStage::fillSquare(const domain::StudyData& data, const domain::Pull& pull) {
    const auto& s = data.specimenAt(pull.specimen);
    m_title->setText(tr("%1, %2: all replicates")
                         .arg(qs(data.optionAt(s.option).name), qs(data.conditionAt(s.condition).name)));
    auto chart = pages::overlayOf(m_session.source(), s.option, s.condition, m_session.units(),
                                  static_cast<std::size_t>(std::max(200, m_view->width() - 80)),
                                  static_cast<pages::Along>(m_along->currentIndex()));
    for (auto& t : chart.traces)
        if (t.pull == pull.id) t.width = 2.8;
    if (chart.traces.empty())
        m_view->showNothing(tr("The results of this square were typed in: there are no curves."));
    else
        m_view->showOverlay(std::move(chart));
}

void CurvesStage::fillAverage(const domain::StudyData& data, const domain::Pull& pull) {
    const auto& s = data.specimenAt(pull.specimen);
    m_title->setText(
        tr("%1, %2: averaged").arg(qs(data.optionAt(s.option).name), qs(data.conditionAt(s.condition).name)));
    auto view = pages::averageView(m_session.source(), s.option, s.condition,
                                   m_against->currentData().toLongLong(), m_session.units());
    QStringList said;
    for (const auto& sentence : view.said)
        said << qs(sentence);
    if (view.chart.traces.empty()) return m_view->showNothing(said.join(' '));
    showRemark(said.join(' '));
    m_view->showOverlay(std::move(view.chart));
}

void CurvesStage::fillOptions(const domain::StudyData& data, const domain::Pull& pull) {
    const auto condition = data.specimenAt(pull.specimen).condition;
    m_title->setText(tr("Every option, %1").arg(qs(data.conditionAt(condition).name)));
    m_many->setBuild(
        [charts = pages::chartsByOption(m_session.source(), condition, m_session.units())](
            double width, double height) { return chart::smallMultiples(charts, width, height); });
    showRemark(tr("All on one scale. Click one for its square."));
}

void CurvesStage::fillPull(const domain::StudyData& data, const domain::Pull& pull) {
    const auto& s = data.specimenAt(pull.specimen);
    m_title->setText(
        tr("%1: %2, %3")
            .arg(qs(s.label), qs(data.optionAt(s.option).name), qs(data.conditionAt(s.condition).name)));
    const auto curve = m_session.project()->readCurve(pull.id);
    const auto remarks = results::needsLook(pull, m_session.readings());
    if (!remarks.empty())
        showRemark(
            tr("Needs a look: %1").arg(qs(remarks.front())) +
            (remarks.size() > 1 ? tr(" (and %1 more, at the right)").arg(remarks.size() - 1) : QString()));
    if (!curve) {
        for (QWidget* w :
             std::initializer_list<QWidget*>{m_numbers, m_clear, m_noSlip, m_rate, m_logged, m_hold, m_how})
            w->hide();
        m_hint->clear();
        m_along->hide();
        m_view->showNothing(
            pull.typed ? tr("This result was typed in as %1: it has no curve.").arg(qs(pull.typed->asTyped))
                       : qs(curve.error().message));
        return;
    }
    const auto& set = pull.settings;
    m_noSlip->setVisible((*curve)->reading.firstSlip.has_value());
    m_clear->setVisible(set != set.withoutHand());
    m_view->setByTime(m_along->currentIndex() == 1);
    const auto& burst = (*curve)->reading.burst;
    std::vector<double> logged;
    if (m_logged->isChecked())
        if (const auto raw = m_session.project()->file().curve(pull.curve))
            logged = curve::asLogged(*raw, **curve, set.preload);
    if (burst && burst->lowPass > 0 && logged.empty())
        m_view->setBehind(tr("filtered"), curve::filtered(**curve));
    else
        m_view->setBehind(tr("as logged"), std::move(logged));
    m_along->setVisible(!(*curve)->cleaned.travel.empty());
    m_strip = m_along->currentIndex() == 0
                  ? pages::rateOf(m_session.source(), pull, **curve, m_session.units())
                  : chart::RateStrip{};
    m_rate->setVisible(!m_strip.rate.empty());
    m_view->setLines(pages::linesOver(data, (*curve)->reading, m_session.units()));
    const auto beside = m_session.project()->beside(pull.id);
    auto legs = beside; // drawn with the load are those that are loads
    std::erase_if(legs, [](const curve::Channel& c) { return c.unit != "N"; });
    m_view->showCurve(*curve, m_session.units(), pull.settings, std::move(legs));
    fillNumbers(**curve, pull, beside);
}

/// The strip follows what is seen of the curve above it.
void CurvesStage::drawRate() {
    if (!m_rate || m_rate->isHidden()) return;
    const auto plane = m_view->plane();
    m_strip.x0 = plane.x0;
    m_strip.x1 = plane.x1;
    m_rate->setBuild(
        [strip = m_strip, plane](double width) { return chart::rateStrip(strip, width, 52, plane); });
}

void CurvesStage::fillNumbers(const curve::ReadCurve& c, const domain::Pull& pull,
                              const std::vector<curve::Channel>& beside) {
    auto table = words::readingTable(*m_session.study(), c.reading, pull, m_session.units());
    words::addBeside(table, beside, c.reading.peak.index, m_session.units());
    m_numbers->setRowCount(static_cast<int>(table.rows.size()));
    for (int k = 0; k < static_cast<int>(table.columns.size()); ++k) {
        const auto& column = table.columns[static_cast<std::size_t>(k)];
        m_numbers->setHorizontalHeaderItem(k, new QTableWidgetItem(qs(column.title)));
        for (int i = 0; i < m_numbers->rowCount(); ++i) {
            const auto text = qs(table.rows[static_cast<std::size_t>(i)].cells[static_cast<std::size_t>(k)]);
            auto* item = new QTableWidgetItem(text);
            if (column.number) {
                item->setFont(figures(13, k == 1));
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            }
            if (k == 3) setTip(item, text);
            m_numbers->setItem(i, k, item);
        }
    }
    for (int k = 0; k < 3; ++k)
        m_numbers->horizontalHeader()->setSectionResizeMode(k, QHeaderView::ResizeToContents);
    m_numbers->horizontalHeader()->setSectionResizeMode(3, QHeaderView::Stretch);
}

} // namespace anvil::app
