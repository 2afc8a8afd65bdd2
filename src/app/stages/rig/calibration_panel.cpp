#include "stages/rig/calibration_panel.h"

#include "shell/rig_desk.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QDate>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

CalibrationPanel::CalibrationPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QHBoxLayout(this);
    auto* left = new QVBoxLayout;
    m_channel = new QComboBox;
    m_channel->setObjectName("calibratedChannel");
    left->addWidget(m_channel);
    m_table = makeTable({tr("Reading"), tr("True load")}, "calibration");
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    left->addWidget(m_table, 2);
    auto* form = new QGridLayout;
    const auto line = [&](int row, QLabel* label, QLineEdit* edit) {
        form->addWidget(label, row, 0);
        form->addWidget(edit, row, 1);
    };
    line(0, plainLabel(tr("From")), m_calibrated = field("calibratedOn", tr("such as 2026-05-04")));
    line(1, plainLabel(tr("Good until")), m_expires = field("calibrationExpires", tr("such as 2027-05-04")));
    line(2, m_knownLabel = plainLabel(), m_known = field("knownWeight", tr("such as 10 kg")));
    line(3, plainLabel(tr("Within")), m_tolerance = field("checkTolerance", tr("1 %")));
    left->addLayout(form);
    auto* hangs = new QHBoxLayout;
    auto* look = new QPushButton(tr("Check it"));
    look->setObjectName("checkNow");
    setTip(look, tr("It is there now: does the sensor show it?"));
    hangs->addWidget(look);
    auto* point = new QPushButton(tr("Into the table"));
    point->setObjectName("takePoint");
    setTip(point, tr("Takes what the sensor shows now as a point of the table"));
    hangs->addWidget(point);
    left->addLayout(hangs);
    m_checks = new QListWidget;
    m_checks->setObjectName("checks");
    left->addWidget(m_checksHead = plainLabel(tr("Checks so far")));
    m_checksHead->setObjectName("section");
    left->addWidget(m_checks, 1);
    layout->addLayout(left, 1);
    auto* right = new QVBoxLayout;
    m_picture = new PictureView;
    m_picture->setObjectName("calibrationPicture");
    m_picture->setMinimumWidth(grown(200));
    right->addWidget(m_picture);
    m_sentence = wrappedLabel("calibrationSentence");
    right->addWidget(m_sentence);
    right->addStretch();
    layout->addLayout(right, 1);
    connect(m_channel, &QComboBox::activated, this, [this] { refill(); });
    connect(m_table, &QTableWidget::cellChanged, this, &CalibrationPanel::edited);
    connect(look, &QPushButton::clicked, this, &CalibrationPanel::check);
    connect(point, &QPushButton::clicked, this, &CalibrationPanel::takePoint);
    for (auto* edit : {m_calibrated, m_expires})
        whenEdited(edit, this, [this] { saveDates(); });
    connect(&session.rig(), &RigDesk::changed, this, [this] {
        if (isVisible()) refill();
    });
    follow();
}

int CalibrationPanel::channel() const { return m_channel->currentIndex() - 1; }

rig::CalibrationRecord& CalibrationPanel::recordOf(rig::Setup& setup) const {
    auto* column = channel() < 0 ? nullptr : rig::columnOf(setup, static_cast<std::size_t>(channel()));
    return column ? column->calibration : setup.calibration;
}

const quantity::Unit& CalibrationPanel::unit() const {
    const auto& setup = m_session.rig().setup();
    const auto names = rig::allChannels(setup);
    if (channel() < 0 || channel() >= static_cast<int>(names.size())) return m_session.rig().loadUnit();
    const auto known = quantity::findUnit(names[static_cast<std::size_t>(channel())].unit);
    return known ? m_session.units().of((*known)->dimension) : quantity::siUnit(quantity::Dimension::ratio);
}

const quantity::Unit& CalibrationPanel::readUnit() const {
    auto setup = m_session.rig().setup();
    if (channel() >= 0) {
        const auto* column = rig::columnOf(setup, static_cast<std::size_t>(channel()));
        const auto known =
            column ? quantity::findUnit(column->unit, unit().dimension) : tl::unexpected(Error{});
        return known ? **known : quantity::siUnit(unit().dimension);
    }
    const auto layout = rig::heardLayout(setup);
    if (const auto at = layout.find(rig::Role::load))
        if (const auto known = quantity::findUnit(layout.columns[*at].unit, rig::loadOf(layout)))
            return **known;
    if (setup.shows == quantity::Dimension::stress) return quantity::unit("bar");
    return quantity::siUnit(setup.shows == quantity::Dimension::force ? rig::recordedLoad(setup)
                                                                      : setup.shows);
}

std::optional<CalibrationPanel::Shown> CalibrationPanel::shown() const {
    const auto live = m_session.rig().live();
    const auto at = static_cast<std::size_t>(std::max(0, channel()));
    if (channel() < 0 && live.fresh) return Shown{live.rawLevel, live.level};
    if (channel() >= 0 && at < live.channels.size() && live.channels[at].fresh)
        return Shown{live.channels[at].raw, live.channels[at].value};
    m_session.say(tr("Nothing arrives from it: connect it first."), true);
    return std::nullopt;
}

void CalibrationPanel::fill() {
    auto s = m_session.rig().setup();
    const auto names = rig::allChannels(s);
    const int chosen = channel();
    m_channel->clear();
    m_channel->addItem(tr("The load"));
    for (const auto& n : names)
        m_channel->addItem(qs(n.name));
    m_channel->setCurrentIndex(chosen >= 0 && chosen + 1 < m_channel->count() ? chosen + 1 : 0);
    m_channel->setVisible(!names.empty());
    const bool weight = this->unit().dimension == quantity::Dimension::force;
    m_knownLabel->setText(weight ? tr("Known weight") : tr("Known value"));
    m_known->setPlaceholderText(weight ? tr("such as 10 kg")
                                       : tr("in %1").arg(QString::fromUtf8(this->unit().symbol.data())));
    const auto& unit = this->unit();
    const auto& shownIn = readUnit();
    const auto head = [](const QString& what, const quantity::Unit& in) {
        return in.symbol.empty() ? what : tr("%1 (%2)").arg(what, qs(in.symbol));
    };
    m_table->setHorizontalHeaderLabels(
        {head(tr("Reading"), shownIn), head(weight ? tr("True load") : tr("True value"), unit)});
    const auto record = recordOf(s);
    const auto& points = record.points;
    m_table->setRowCount(static_cast<int>(points.size()) + 1);
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const bool row = r < static_cast<int>(points.size());
        const auto p = row ? points[static_cast<std::size_t>(r)] : rig::CalibrationPoint{};
        m_table->setItem(r, 0,
                         new QTableWidgetItem(row ? qs(quantity::asEntered(p.reading, shownIn)) : QString()));
        m_table->setItem(r, 1, new QTableWidgetItem(row ? qs(quantity::withUnit(p.truth, unit)) : QString()));
    }
    m_calibrated->setText(qs(record.from));
    m_expires->setText(qs(record.until));
    m_checks->clear();
    for (const auto& check : record.checks)
        m_checks->insertItem(0, (check.passed() ? QStringLiteral("\u2713 ") : QStringLiteral("\u2717 ")) +
                                    qs(check.at).left(16).replace('T', ' ') + "  " +
                                    qs(rig::sentence(check, unit)));
    for (QWidget* w : {static_cast<QWidget*>(m_checks), static_cast<QWidget*>(m_checksHead)})
        w->setVisible(m_checks->count() > 0);
    const auto calibration = rig::Calibration::make(points);
    m_picture->setVisible(calibration && !calibration->empty());
    if (calibration)
        m_picture->setBuild([this, c = *calibration, &unit, &shownIn](double width) {
            return chart::calibrationPicture(c, shownIn, unit, width, height() < 380 ? 180 : 260);
        });
    const auto line = calibration ? calibration->line() : tl::unexpected(Error{});
    m_sentence->setText(
        !calibration ? qs(calibration.error().message)
        : calibration->empty()
            ? tr("No table: what the device says is taken as it is. Type readings and true loads, "
                 "or hang known weights on it.")
        : line ? tr("The points lie up to %1 off a straight line. Beyond the table's ends readings are "
                    "guesses: they are dashed here and marked ~ at the rig.")
                     .arg(qs(quantity::withUnit(line->worst, unit)))
               : QString());
}

void CalibrationPanel::edited() {
    if (filling() || !m_session.project()) return;
    auto setupNow = m_session.rig().setup();
    const auto before = recordOf(setupNow).points;
    std::vector<rig::CalibrationPoint> points;
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const auto text = [&](int column) {
            return m_table->item(r, column)->text().trimmed().toStdString();
        };
        if (text(0).empty() || text(1).empty()) {
            if (r + 1 < m_table->rowCount() && text(0).empty() && text(1).empty()) continue; // taken out
            if (r + 1 == m_table->rowCount()) continue; // still being typed
        }
        const auto reading = quantity::parseEntry(text(0), readUnit().dimension, &readUnit());
        const auto truth = quantity::parseEntry(text(1), unit().dimension, &unit());
        if (!m_session.tell(reading) || !m_session.tell(truth)) return refill();
        // Displayed digits never come back as data.
        const auto* known =
            static_cast<std::size_t>(r) < before.size() ? &before[static_cast<std::size_t>(r)] : nullptr;
        const bool read = known && text(0) == quantity::asEntered(known->reading, readUnit()),
                   true_ = known && text(1) == quantity::withUnit(known->truth, unit());
        points.push_back({read ? known->reading : reading->si, true_ ? known->truth : truth->si});
    }
    if (points.size() > 1)
        if (const auto made = rig::Calibration::make(points); !m_session.tell(made)) return refill();
    auto setup = m_session.rig().setup();
    if (points == recordOf(setup).points) return;
    m_session.rig().edit([&](rig::Setup& s) { recordOf(s).points = points; });
}

void CalibrationPanel::takePoint() {
    const auto entry = quantity::parseEntry(m_known->text().toStdString(), unit().dimension, &unit());
    if (!m_session.tell(entry)) return;
    const auto now = shown();
    if (!now) return;
    auto setup = m_session.rig().setup();
    auto points = recordOf(setup).points;
    points.push_back({now->raw, entry->si});
    if (points.size() > 1)
        if (const auto made = rig::Calibration::make(points); !m_session.tell(made)) return;
    m_session.rig().edit([&](rig::Setup& s) { recordOf(s).points = points; });
}

void CalibrationPanel::check() {
    const auto entry = quantity::parseEntry(m_known->text().toStdString(), unit().dimension, &unit());
    if (!m_session.tell(entry)) return;
    if (!(entry->si > 0)) return m_session.say(tr("A check needs something known above zero."), true);
    double tolerance = 0.01;
    if (!m_tolerance->text().trimmed().isEmpty()) {
        const auto number = quantity::parseNumber(m_tolerance->text().remove('%').trimmed().toStdString());
        if (!m_session.tell(number)) return;
        if (!(*number > 0)) return m_session.say(tr("A tolerance of zero or less cannot be."), true);
        tolerance = *number / 100;
    }
    const auto now = shown();
    if (!now) return;
    const rig::Check made{m_session.now().toString(Qt::ISODate).toStdString(), entry->si, now->value,
                          tolerance, std::string(quantity::siUnit(unit().dimension).symbol)};
    if (m_session.rig().edit([&](rig::Setup& s) { recordOf(s).checks.push_back(made); }))
        m_session.say(qs(rig::sentence(made, unit())), !made.passed());
}

void CalibrationPanel::saveDates() {
    if (filling() || !m_session.project()) return;
    for (auto* edit : {m_calibrated, m_expires})
        if (!edit->text().trimmed().isEmpty() &&
            !QDate::fromString(edit->text().trimmed(), Qt::ISODate).isValid())
            return m_session.say(tr("\"%1\" is not a date: write it as 2026-05-31.").arg(edit->text()), true);
    m_session.rig().edit([&](rig::Setup& s) {
        recordOf(s).from = m_calibrated->text().trimmed().toStdString();
        recordOf(s).until = m_expires->text().trimmed().toStdString();
    });
}

} // namespace anvil::app
