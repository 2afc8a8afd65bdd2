#include "stages/rig/path_panel.h"

#include "shell/rig_desk.h"
#include "stages/rig/part_card.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/flow_layout.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <anvil/chart/charts.h>
#include <anvil/chart/pivot.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <numbers>

namespace anvil::app {

using Kind = rig::RatioPart::Kind;
constexpr double degree = std::numbers::pi / 180; // rad

PathPanel::PathPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    m_picture = new PictureView;
    m_picture->setObjectName("loadPath");
    m_pivotPicture = new PictureView;
    m_pivotPicture->setObjectName("pivotPicture");
    m_pivotPicture->setFixedWidth(grown(480));
    m_pivotPicture->hide();
    auto* pictures = new QHBoxLayout; // what the load goes through; what still stands while it is lifted
    pictures->addWidget(m_picture, 1, Qt::AlignTop);
    pictures->addWidget(m_pivotPicture, 0, Qt::AlignTop);
    layout->addLayout(pictures);
    layout->addLayout(makeDisplay());
    m_sentence = wrappedLabel("pathSentence");
    layout->addWidget(m_sentence);
    m_cards = new FlowLayout;
    m_cards->setSpacing(8);
    layout->addLayout(m_cards);
    layout->addLayout(makeParts());
    layout->addLayout(makeCheck());
    m_pivotSays = plainLabel();
    m_pivotSays->setObjectName("pivotSays");
    layout->addWidget(m_pivotSays);
    m_pivotSays->hide();
    layout->addStretch();
    for (auto* edit : {m_weight, m_centre, m_foot, m_lift})
        whenEdited(edit, this, [this] { pivot(); });
    connect(&session.rig(), &RigDesk::changed, this, [this] {
        if (isVisible()) refill();
    });
    follow();
}

/// What the device's own display shows.
QLayout* PathPanel::makeDisplay() {
    auto* display = new QHBoxLayout;
    display->addWidget(plainLabel(tr("Its display shows")));
    m_shows = new QComboBox;
    m_shows->setObjectName("displayShows");
    m_shows->setAccessibleName(tr("What its display shows"));
    using quantity::Dimension;
    for (const auto& [text, shows] : {std::pair{tr("a load"), Dimension::force},
                                      {tr("the pressure in a ram"), Dimension::stress},
                                      {tr("volts of a sensor"), Dimension::voltage},
                                      {tr("divisions of a dial"), Dimension::ratio}})
        m_shows->addItem(text, static_cast<int>(shows));
    connect(m_shows, &QComboBox::activated, this,
            [this] { showAs(static_cast<Dimension>(m_shows->currentData().toInt())); });
    display->addWidget(m_shows);
    display->addStretch();
    return display;
}

QLayout* PathPanel::makeParts() {
    auto* row = new QHBoxLayout;
    row->addWidget(plainLabel(tr("Add from the cell on")));
    for (const auto& [text, part] :
         {std::pair{tr("a lever"), rig::RatioPart{Kind::lever, 1, 0.1, 0.002, 0.002, 0}},
          {tr("a line in parts"), rig::RatioPart{Kind::line, 2, 0.95, 0, 0.02, 0}},
          {tr("an angle"), rig::RatioPart{Kind::angle, 5 * degree, 1, degree, 0, 0}},
          {tr("a factor"), rig::RatioPart{Kind::plain, 2, 1, 0, 0, 0}}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QStringLiteral("add-%1").arg(static_cast<int>(part.kind)));
        connect(button, &QPushButton::clicked, this, [this, p = part] { add(p); });
        row->addWidget(button);
    }
    row->addStretch();
    return row;
}

QLayout* PathPanel::makeCheck() {
    auto* check = new QHBoxLayout;
    check->addWidget(plainLabel(tr("Pivot check: weight")));
    check->addWidget(m_weight = field("pivotWeight", tr("400 N"), 80));
    check->addWidget(plainLabel(tr("centre at")));
    check->addWidget(m_centre = field("pivotCentre", tr("1 m"), 80));
    check->addWidget(plainLabel(tr("stands at")));
    check->addWidget(m_foot = field("pivotFoot", tr("0 m"), 80));
    check->addWidget(plainLabel(tr("lifted at")));
    check->addWidget(m_lift = field("pivotLift", tr("2.5 m"), 80));
    check->addStretch();
    return check;
}

void PathPanel::add(rig::RatioPart part) {
    m_session.rig().edit([&](rig::Setup& s) { s.path.push_back(part); });
}

/// A pressure goes through a ram and volts through a sensor, whose numbers are still to be given.
void PathPanel::showAs(quantity::Dimension shows) {
    m_session.rig().edit([&](rig::Setup& s) {
        s.shows = shows;
        std::erase_if(s.path, [](const auto& p) { return p.kind == Kind::ram || p.kind == Kind::sensor; });
        const bool table = !s.calibration.points.empty();
        if (shows == quantity::Dimension::stress && !table)
            s.path.insert(s.path.begin(), {Kind::ram, 0, 0, 0, 0, 0});
        if (shows == quantity::Dimension::voltage && !table)
            s.path.insert(s.path.begin(), {Kind::sensor, 0, 0, 0, 0, 0});
    });
}

void PathPanel::fill() {
    const auto& path = m_session.rig().setup().path;
    m_picture->setBuild(
        [this](double width) { return chart::loadPath(m_session.rig().setup().path, width); });
    const auto& setup = m_session.rig().setup();
    m_shows->setCurrentIndex(std::max(0, m_shows->findData(static_cast<int>(setup.shows))));
    const auto trouble = rig::displayTrouble(setup);
    const auto ratio = rig::ratioOf(path);
    m_sentence->setText(!trouble.empty() ? QStringLiteral("\u26a0 ") + qs(trouble)
                        : path.empty() && setup.shows == quantity::Dimension::force
                            ? tr("Nothing lies between the cell and the piece: what is read is the load.")
                        : path.empty() ? tr("The table in Calibration says what it comes to.")
                        : ratio        ? qs(rig::sentence(*ratio))
                                       : QString());
    showCards(path);
}

void PathPanel::showCards(const std::vector<rig::RatioPart>& path) {
    if (path == m_shown && m_cards->count() > 0) return; // whoever types in one keeps the place
    m_shown = path;
    while (auto* item = m_cards->takeAt(0)) {
        if (item->widget()) { // it may be what has just been typed in
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    for (std::size_t i = 0; i < path.size(); ++i) {
        auto* card = new PartCard(m_session, path[i], static_cast<int>(i));
        connect(card, &PartCard::edited, this, &PathPanel::edited);
        connect(card, &PartCard::takenOut, this, [this](int place) {
            m_session.rig().edit([&](rig::Setup& s) {
                if (place < static_cast<int>(s.path.size())) s.path.erase(s.path.begin() + place);
            });
        });
        m_cards->addWidget(card);
    }
}

void PathPanel::edited(int place, const rig::RatioPart& part) {
    auto path = m_session.rig().setup().path;
    if (place >= static_cast<int>(path.size())) return;
    path[static_cast<std::size_t>(place)] = part;
    if (const auto ratio = rig::ratioOf(path); !m_session.tell(ratio)) {
        m_shown.clear(); // what was typed gives way to what stands
        return refill();
    }
    m_session.rig().edit([&](rig::Setup& s) { s.path = path; });
}

void PathPanel::pivot() {
    if (m_weight->text().isEmpty() || m_centre->text().isEmpty() || m_lift->text().isEmpty()) return;
    const auto weight = m_session.read(m_weight->text(), quantity::Dimension::force);
    const auto length = [&](QLineEdit* edit) {
        return m_session.read(edit->text().isEmpty() ? QStringLiteral("0 m") : edit->text(),
                              quantity::Dimension::length);
    };
    const auto centre = length(m_centre), foot = length(m_foot), lift = length(m_lift);
    if (!m_session.tell(weight) || !m_session.tell(centre) || !m_session.tell(foot) || !m_session.tell(lift))
        return;
    m_session.heard(*weight);
    m_session.heard(*lift);
    const auto shown = rig::pivotLift(weight->si, centre->si, foot->si, lift->si);
    m_pivotSays->setVisible(shown.has_value());
    m_pivotPicture->setVisible(shown.has_value());
    if (!m_session.tell(shown)) return;
    const chart::PivotCheck check{weight->si, centre->si, foot->si, lift->si, *shown};
    m_pivotPicture->setBuild(
        [check, force = m_session.units().force, length = m_session.units().length](double width) {
            return chart::pivotPicture(check, *force, *length, width);
        });
    m_pivotSays->setText(tr("A scale there reads %1 of the true %2.")
                             .arg(m_session.force(*shown), m_session.force(weight->si)));
}

} // namespace anvil::app
