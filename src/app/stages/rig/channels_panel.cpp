#include "stages/rig/channels_panel.h"

#include "shell/rig_desk.h"
#include "widgets/column_rows.h"
#include "widgets/plain_text.h"
#include <QApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {
namespace {

/// The unit a channel is shown in: the one chosen in the menu for forces and lengths, else its own.
const quantity::Unit& shownIn(const Session& session, const std::string& si) {
    const auto unit = quantity::findUnit(si);
    return unit ? session.units().of((*unit)->dimension) : quantity::siUnit(quantity::Dimension::ratio);
}

QTableWidgetItem* fixed(const QString& text) {
    auto* item = new QTableWidgetItem(text);
    item->setFlags(item->flags() & ~Qt::ItemIsEditable);
    return item;
}

} // namespace

ChannelsPanel::ChannelsPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* sentence = wrappedLabel("faint");
    sentence->setText(
        tr("Legs of an anchor, both ends of a hauling line, a thermometer: read at the same instant as the "
           "force and kept with every pull."));
    layout->addWidget(sentence);
    m_none = wrappedLabel("noChannels");
    m_none->setText(tr("No further channel yet. Say in Connection that a column holds another reading, or "
                       "add a device below."));
    layout->addWidget(m_none);
    m_channels = makeTable({tr("Channel"), tr("Shows now"), tr("At most"), tr("Negative"), tr("Table")},
                           "moreChannels");
    m_channels->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    setTip(m_channels->horizontalHeaderItem(3), tr("Ticked: it reads negative when loaded"));
    setTip(m_channels->horizontalHeaderItem(4), tr("Its calibration: typed in Calibration, by channel"));
    layout->addWidget(m_channels, 1);
    auto* head = plainLabel(tr("Devices of their own, on one clock with the rig"));
    head->setObjectName("section");
    layout->addWidget(head);
    m_devices = makeTable({tr("Device"), tr("Reached at"), tr("Its columns"), tr("State")}, "sideDevices");
    m_devices->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    layout->addWidget(m_devices, 1);
    m_columns =
        new RowEditor({tr("Its columns, in order"), tr("Unit"), tr("Asked by")}, tr("Columns of the device"));
    m_columns->setObjectName("sideColumns");
    setTip(m_columns,
           tr("Such as: time, ms; leg B, kN; - for one that is not wanted. A device that answers is asked "
              "by a question each, such as MEAS:FORC2?"));
    layout->addWidget(m_columns);
    connect(m_columns, &RowEditor::edited, this, &ChannelsPanel::saveColumns);
    connect(m_devices, &QTableWidget::currentCellChanged, this, &ChannelsPanel::showColumns);
    auto* row = new QHBoxLayout;
    const auto button = [&](const QString& text, const char* name, void (ChannelsPanel::*what)()) {
        auto* b = new QPushButton(text);
        b->setObjectName(QString::fromLatin1(name));
        row->addWidget(b);
        connect(b, &QPushButton::clicked, this, what);
    };
    button(tr("Add a device"), "addDevice", &ChannelsPanel::add);
    button(tr("Guess its columns from what arrives"), "guessDevice", &ChannelsPanel::guess);
    button(tr("Take it away"), "removeDevice", &ChannelsPanel::takeAway);
    row->addStretch();
    layout->addLayout(row);
    m_state = wrappedLabel("faint");
    layout->addWidget(m_state);
    connect(m_channels, &QTableWidget::cellChanged, this, [this](int r) { saveChannel(r); });
    connect(m_devices, &QTableWidget::cellChanged, this, [this](int r) { saveDevice(r); });
    auto* timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, &ChannelsPanel::tick);
    timer->start(200);
    connect(&session.rig(), &RigDesk::changed, this, [this] {
        const auto* focus = QApplication::focusWidget();
        const bool typing = qobject_cast<const QLineEdit*>(focus) && isAncestorOf(focus);
        if (isVisible() && !typing) refill();
    });
    follow();
}

void ChannelsPanel::fill() {
    auto setup = m_session.rig().setup();
    const auto names = rig::allChannels(setup);
    m_none->setVisible(names.empty());
    m_channels->setVisible(!names.empty());
    m_channels->setRowCount(static_cast<int>(names.size()));
    for (int r = 0; r < m_channels->rowCount(); ++r) {
        const auto i = static_cast<std::size_t>(r);
        const auto* column = rig::columnOf(setup, i);
        if (!column) continue;
        m_channels->setItem(r, 0, fixed(qs(names[i].name)));
        m_channels->setItem(r, 1, fixed({}));
        m_channels->setItem(
            r, 2,
            new QTableWidgetItem(
                column->limit ? qs(quantity::withUnit(*column->limit, shownIn(m_session, names[i].unit)))
                              : QString()));
        auto* sign = fixed({});
        sign->setFlags((sign->flags() | Qt::ItemIsUserCheckable));
        sign->setCheckState(column->flipped ? Qt::Checked : Qt::Unchecked);
        m_channels->setItem(r, 3, sign);
        const auto points = column->calibration.points.size();
        m_channels->setItem(r, 4, fixed(points == 0 ? tr("none") : tr("%1 points").arg(points)));
    }
    m_devices->setRowCount(static_cast<int>(setup.sides.size()));
    m_devices->setVisible(!setup.sides.empty());
    for (int r = 0; r < m_devices->rowCount(); ++r) {
        const auto& side = setup.sides[static_cast<std::size_t>(r)];
        m_devices->setItem(r, 0, new QTableWidgetItem(qs(side.name)));
        m_devices->setItem(r, 1, new QTableWidgetItem(qs(side.address)));
        m_devices->setItem(r, 2, fixed(qs(rig::columnsText(side.layout.columns))));
        setTip(m_devices->item(r, 2), tr("Typed below"));
        m_devices->setItem(r, 3, fixed({}));
    }
    showColumns();
    tick();
}

void ChannelsPanel::tick() {
    if (!isVisible()) return;
    const auto live = m_session.rig().live();
    const QSignalBlocker quiet(m_channels), quietToo(m_devices);
    for (int r = 0; r < m_channels->rowCount() && m_channels->item(r, 1); ++r) {
        const auto i = static_cast<std::size_t>(r);
        if (i >= live.channels.size()) continue;
        const auto& c = live.channels[i];
        auto text = c.fresh ? qs(quantity::withUnit(c.value, shownIn(m_session, c.unit.toStdString())))
                            : tr("silent");
        if (!c.inside) text = "~" + text; // beyond its table: a guess
        if (c.overLimit) text = QStringLiteral("\u26a0 ") + text;
        m_channels->item(r, 1)->setText(text);
    }
    const auto& sides = m_session.rig().setup().sides;
    std::size_t channel = rig::channelsOf(m_session.rig().setup()).size();
    for (int r = 0; r < m_devices->rowCount() && m_devices->item(r, 3); ++r) {
        const auto i = static_cast<std::size_t>(r);
        if (i >= sides.size()) break;
        QString text = tr("not connected");
        if (channel < live.channels.size() && live.link != station::LinkState::none) {
            const auto& c = live.channels[channel];
            text = c.said;
            if (c.skew) text += tr("  Its clock runs %1; that is taken out.").arg(qs(rig::skewText(*c.skew)));
        } else if (live.link != station::LinkState::none) {
            const auto lines = m_session.rig().bench().sideLines(i);
            text = lines.isEmpty() ? tr("nothing arrives") : tr("sends: %1").arg(lines.back());
        }
        m_devices->item(r, 3)->setText(text);
        setTip(m_devices->item(r, 3), text);
        channel += rig::channelsOf(sides[i]).size();
    }
    m_state->setText(live.skew ? tr("The rig's own clock runs %1 against this machine's; that is taken out.")
                                     .arg(qs(rig::skewText(*live.skew)))
                               : QString());
}

void ChannelsPanel::saveChannel(int r) {
    if (filling() || !m_session.project()) return;
    auto setup = m_session.rig().setup();
    auto* column = rig::columnOf(setup, static_cast<std::size_t>(r));
    if (!column) return;
    const auto names = rig::allChannels(setup);
    const auto& unit = shownIn(m_session, names[static_cast<std::size_t>(r)].unit);
    const auto limit = m_channels->item(r, 2)->text().trimmed().toStdString();
    column->limit.reset();
    if (!limit.empty()) {
        const auto entry = quantity::parseEntry(limit, unit.dimension, &unit);
        if (!m_session.tell(entry)) return refill();
        if (!(entry->si > 0)) {
            m_session.say(tr("A limit of zero or less cannot be."), true);
            return refill();
        }
        column->limit = entry->si;
    }
    column->flipped = m_channels->item(r, 3)->checkState() == Qt::Checked;
    m_session.rig().edit([&](rig::Setup& s) { s = setup; });
}

void ChannelsPanel::saveDevice(int r) {
    if (filling() || !m_session.project()) return;
    auto setup = m_session.rig().setup();
    auto& side = setup.sides[static_cast<std::size_t>(r)];
    side.name = m_devices->item(r, 0)->text().simplified().toStdString();
    side.address = m_devices->item(r, 1)->text().trimmed().toStdString();
    m_session.rig().edit([&](rig::Setup& s) { s = setup; });
}

int ChannelsPanel::device() const {
    const int sides = static_cast<int>(m_session.rig().setup().sides.size());
    return sides == 0                    ? -1
           : m_devices->currentRow() < 0 ? sides - 1
                                         : std::min(m_devices->currentRow(), sides - 1);
}

void ChannelsPanel::showColumns() {
    const int r = device();
    m_columns->setVisible(r >= 0);
    if (r >= 0)
        m_columns->setRows(
            columnRows(m_session.rig().setup().sides[static_cast<std::size_t>(r)].layout.columns));
}

void ChannelsPanel::saveColumns() {
    const int r = device();
    if (filling() || !m_session.project() || r < 0) return;
    const auto typed = columnTexts(*m_columns);
    for (const auto& t : typed)
        if (t.name.empty()) return; // its name is still to come
    const auto columns = rig::columnsOf(typed);
    if (!m_session.tell(columns)) return;
    auto setup = m_session.rig().setup();
    auto& side = setup.sides[static_cast<std::size_t>(r)];
    if (rig::columnsText(*columns) == rig::columnsText(side.layout.columns)) return;
    side.layout.columns = rig::keepingWhatIsKnown(*columns, side.layout.columns);
    if (side.answers()) side.layout = {',', '.', side.layout.columns, 0}; // as its answers are joined
    m_session.rig().edit([&](rig::Setup& s) { s = setup; });
}

void ChannelsPanel::add() {
    const auto number = m_session.rig().setup().sides.size() + 1;
    const bool kept = m_session.rig().edit([&](rig::Setup& s) {
        s.sides.push_back({tr("Device %1").arg(number + 1).toStdString(), {}, {}});
    });
    if (kept) m_session.say(tr("Say where it is reached, such as serial:/dev/ttyUSB1@115200, then connect."));
    refill();
}

void ChannelsPanel::takeAway() {
    auto setup = m_session.rig().setup();
    if (setup.sides.empty()) return m_session.say(tr("There is no device beside the rig."), true);
    const int row = m_devices->currentRow() < 0 ? m_devices->rowCount() - 1 : m_devices->currentRow();
    setup.sides.erase(setup.sides.begin() + row);
    m_session.rig().edit([&](rig::Setup& s) { s = setup; });
    refill();
}

void ChannelsPanel::guess() {
    auto setup = m_session.rig().setup();
    if (setup.sides.empty()) return m_session.say(tr("Add a device first."), true);
    const int row = m_devices->currentRow() < 0 ? m_devices->rowCount() - 1 : m_devices->currentRow();
    std::vector<std::string> lines;
    for (const auto& l : m_session.rig().bench().sideLines(static_cast<std::size_t>(row)))
        lines.push_back(l.toStdString());
    auto layout = rig::guessLayout(lines);
    if (!m_session.tell(layout)) return;
    auto& known = setup.sides[static_cast<std::size_t>(row)].layout;
    layout->columns = rig::keepingWhatIsKnown(std::move(layout->columns), known.columns);
    known = *layout;
    m_session.rig().edit([&](rig::Setup& s) { s = setup; });
    refill();
}

} // namespace anvil::app
