#include "stages/rig/link_panel.h"

#include "shell/rig_desk.h"
#include "theme/theme.h"
#include "widgets/column_rows.h"
#include "widgets/edited.h"
#include "widgets/flow_layout.h"
#include "widgets/plain_text.h"
#include "widgets/seen_line.h"
#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <algorithm>
#include <anvil/link/device.h>
#include <anvil/link/speed_finder.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

LinkPanel::LinkPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* row = new FlowLayout;
    row->addWidget(plainLabel(tr("Rig")));
    row->addWidget(m_name = field("rigName", tr("such as: shed winch"), 160));
    row->addWidget(plainLabel(tr("reached at")));
    row->addWidget(m_address = field("rigAddress", tr("serial:/dev/ttyUSB0@115200 or tcp:127.0.0.1:4711")));
    m_address->setMinimumWidth(grown(360));
    m_find = new QPushButton(tr("Find…"));
    m_find->setObjectName("findPort");
    setTip(m_find, tr("Serial ports of this machine, and the speed a device speaks at"));
    row->addWidget(m_find);
    m_connect = new QPushButton(tr("Connect"));
    m_connect->setObjectName("primary");
    row->addWidget(m_connect);
    layout->addLayout(row);
    makeQuestions(layout);
    m_state = wrappedLabel("linkState");
    layout->addWidget(m_state);
    auto* columns = new QHBoxLayout;
    makeLines(columns);
    makeColumns(columns);
    layout->addLayout(columns, 1);
    connectAll();
    follow();
}

void LinkPanel::makeQuestions(QVBoxLayout* layout) {
    m_protocol = new QComboBox;
    m_protocol->setObjectName("rigProtocol");
    m_protocol->setAccessibleName(tr("How the rig sends"));
    m_protocol->addItem(tr("sends lines"));
    m_protocol->addItem(tr("answers questions"));
    m_protocol->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
    auto* questions = new QHBoxLayout;
    questions->addWidget(m_protocol);
    m_queries = plainLabel(tr("Force by"));
    questions->addWidget(m_queries);
    questions->addWidget(m_forceQuery = field("forceQuery", tr("such as MEAS:FORC?"), 180));
    questions->addWidget(m_travelQuery = field("travelQuery", tr("travel by, if any"), 180));
    questions->addStretch();
    layout->addLayout(questions);
    auto* further = new QHBoxLayout;
    m_further = plainLabel(tr("Further readings"));
    further->addWidget(m_further);
    m_moreQueries = new RowEditor({tr("Reading"), tr("Unit"), tr("Asked by")}, tr("Further readings"));
    m_moreQueries->setObjectName("moreQueries");
    setTip(m_moreQueries, tr("Such as: leg B, N, MEAS:FORC2?"));
    further->addWidget(m_moreQueries, 1);
    layout->addLayout(further);
}

void LinkPanel::makeLines(QHBoxLayout* columns) {
    auto* left = new QVBoxLayout;
    auto* head = plainLabel(tr("What arrives"));
    head->setObjectName("section");
    left->addWidget(head);
    m_lines = new QPlainTextEdit;
    m_lines->setAccessibleName(tr("What arrives"));
    m_lines->setObjectName("rawLines");
    m_lines->setReadOnly(true);
    m_lines->setFont(figures(13));
    m_lines->setMaximumBlockCount(60);
    left->addWidget(m_lines, 1);
    m_seen = new SeenLine;
    left->addWidget(m_seen);
    m_seen->hide();
    columns->addLayout(left, 1);
}

void LinkPanel::makeColumns(QHBoxLayout* columns) {
    auto* right = new QVBoxLayout;
    m_meaning = plainLabel();
    m_meaning->setObjectName("section");
    right->addWidget(m_meaning);
    m_columns = makeTable({tr("Column"), tr("Holds"), tr("Unit")}, "columns");
    m_columns->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    right->addWidget(m_columns, 1);
    right->addStretch(); // while there are no columns to show
    auto* below = new QHBoxLayout;
    m_guess = new QPushButton(tr("Guess from what arrives"));
    m_guess->setObjectName("guessColumns");
    below->addWidget(m_guess);
    below->addWidget(m_rate = field("sampleRate", tr("per second"), 90));
    setTip(m_rate, tr("Only where no column tells the time; empty: by arrival"));
    m_value = plainLabel();
    m_value->setObjectName("benchLoad");
    below->addStretch();
    below->addWidget(m_value);
    right->addLayout(below);
    columns->addLayout(right, 1);
}

void LinkPanel::connectAll() {
    connect(m_connect, &QPushButton::clicked, this, [this] {
        save();
        m_session.rig().use(m_session.rig().setup());
    });
    connect(m_guess, &QPushButton::clicked, this, &LinkPanel::guess);
    connect(m_find, &QPushButton::clicked, this, &LinkPanel::showPorts);
    for (auto* edit : {m_name, m_address, m_rate, m_forceQuery, m_travelQuery})
        whenEdited(edit, this, [this] { save(); });
    connect(m_moreQueries, &RowEditor::edited, this, &LinkPanel::saveQueries);
    connect(m_protocol, &QComboBox::activated, this, &LinkPanel::save);
    connect(m_columns, &QTableWidget::cellChanged, this, &LinkPanel::saveColumns);
    auto* timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, &LinkPanel::tick);
    timer->start(100);
    connect(&m_session.rig(), &RigDesk::changed, this, [this] {
        if (isVisible() && !m_address->hasFocus() && !m_name->hasFocus()) refill();
    });
}

void LinkPanel::fill() {
    const auto& s = m_session.rig().setup();
    m_name->setText(qs(s.name));
    m_address->setText(qs(s.address));
    const bool answers = s.protocol == rig::Protocol::answers;
    m_protocol->setCurrentIndex(answers ? 1 : 0);
    for (QWidget* w : {static_cast<QWidget*>(m_queries), static_cast<QWidget*>(m_forceQuery),
                       static_cast<QWidget*>(m_travelQuery), static_cast<QWidget*>(m_further),
                       static_cast<QWidget*>(m_moreQueries)})
        w->setVisible(answers);
    m_columns->setVisible(!answers);
    m_meaning->setText(answers ? tr("Every answer is read by its question above.")
                               : tr("What its columns mean"));
    m_guess->setVisible(!answers);
    const auto& known = s.layout.columns;
    m_rate->setVisible(
        !answers && !known.empty() &&
        std::none_of(known.begin(), known.end(), [](const auto& c) { return c.role == rig::Role::time; }));
    m_moreQueries->setRows(columnRows(s.asked));
    m_forceQuery->setText(qs(s.forceQuery));
    m_travelQuery->setText(qs(s.displacementQuery));
    m_rate->setText(s.layout.rate > 0 ? qs(quantity::shortest(s.layout.rate)) : QString());
    m_columns->setRowCount(static_cast<int>(s.layout.columns.size()));
    for (int r = 0; r < m_columns->rowCount(); ++r) {
        const auto& c = s.layout.columns[static_cast<std::size_t>(r)];
        m_columns->setItem(r, 0,
                           new QTableWidgetItem(c.name.empty() ? tr("column %1").arg(r + 1) : qs(c.name)));
        m_columns->setItem(r, 2, new QTableWidgetItem(qs(c.unit)));
        auto* role = new QComboBox;
        role->setObjectName(QStringLiteral("role-%1").arg(r));
        for (const auto& [text, key] : {std::pair{tr("nothing wanted"), rig::Role::none},
                                        {tr("time"), rig::Role::time},
                                        {tr("force"), rig::Role::load},
                                        {tr("travel"), rig::Role::travel},
                                        {tr("another reading"), rig::Role::other}})
            role->addItem(text, static_cast<int>(key));
        role->setCurrentIndex(std::max(0, role->findData(static_cast<int>(c.role))));
        connect(role, &QComboBox::activated, this, &LinkPanel::saveColumns);
        m_columns->setCellWidget(r, 1, role);
    }
}

/// Ports of this machine with what the system knows of them; the chosen one is listened to at one speed after
/// another.
void LinkPanel::showPorts() {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName("portMenu");
    const auto ports = link::serialPorts();
    for (const auto& p : ports)
        menu->addAction(p.about.isEmpty() ? p.address : p.address + QStringLiteral("  ") + p.about, this,
                        [this, address = p.address] { findSpeed(address, {}); });
    if (ports.isEmpty()) menu->addAction(tr("This machine knows of no serial port"))->setEnabled(false);
    const auto typed = link::addressFrom(m_address->text(), true);
    if (typed && typed->kind == link::Address::Kind::serial) {
        menu->addSeparator();
        menu->addAction(tr("Listen at %1").arg(typed->host), this,
                        [this, host = typed->host] { findSpeed(host, {}); });
        menu->addAction(tr("Ask the device at %1 the usual questions").arg(typed->host), this,
                        [this, host = typed->host] { findSpeed(host, link::usualQuestions()); });
    }
    menu->popup(m_find->mapToGlobal(QPoint(0, m_find->height())));
}

void LinkPanel::findSpeed(const QString& port, const QList<QByteArray>& questions) {
    m_session.rig().disconnectRig(); // only one can have the port open
    m_finder = std::make_unique<link::SpeedFinder>(port, questions);
    m_finding = tr("Looking for %1…").arg(port);
    m_find->setEnabled(false);
    connect(m_finder.get(), &link::SpeedFinder::trying, this,
            [this, port](int speed) { m_finding = tr("Listening to %1 at %2…").arg(port).arg(speed); });
    connect(m_finder.get(), &link::SpeedFinder::found, this,
            [this, port](int speed, const QByteArray& question, const QString& line) {
                doneFinding();
                m_address->setText(QStringLiteral("serial:%1@%2").arg(port).arg(speed));
                if (!question.isEmpty()) {
                    m_protocol->setCurrentIndex(1);
                    m_forceQuery->setText(QString::fromLatin1(question).trimmed());
                }
                save();
                m_session.say(question.isEmpty()
                                  ? tr("It speaks at %1: \"%2\". Connect, then guess from what arrives.")
                                        .arg(speed)
                                        .arg(line)
                                  : tr("It answers %1 at %2: \"%3\".")
                                        .arg(QString::fromLatin1(question).trimmed())
                                        .arg(speed)
                                        .arg(line));
                refill();
            });
    connect(m_finder.get(), &link::SpeedFinder::notFound, this,
            [this, port, asked = !questions.isEmpty()](const QString& why) {
                doneFinding();
                m_address->setText(
                    QStringLiteral("serial:%1@%2").arg(port).arg(link::SpeedFinder::speeds().front()));
                m_session.say(
                    asked ? why : why + " " + tr("Under Find… you can have it asked the usual questions."),
                    true);
            });
    m_finder->start();
}

void LinkPanel::doneFinding() {
    m_find->setEnabled(true);
    m_finding.clear();
    m_finder.release()->deleteLater(); // it is the one that is telling us
}

void LinkPanel::tick() {
    if (!isVisible()) return;
    if (!m_finding.isEmpty()) return m_state->setText(m_finding);
    const auto live = m_session.rig().live();
    const auto lines = m_session.rig().bench().lines();
    if (live.link != station::LinkState::none)
        m_lines->setPlainText(lines.mid(std::max<qsizetype>(0, lines.size() - 12)).join('\n'));
    const auto& layout = m_session.rig().setup().layout;
    m_seen->show(layout.labelled && live.link == station::LinkState::connected ? lines.value(lines.size() - 1)
                                                                               : QString(),
                 layout);
    QString text = live.link == station::LinkState::none ? tr("Not connected.") : live.said;
    if (live.link == station::LinkState::connected) {
        text += tr("  %1 samples a second.").arg(qRound(live.perSecond));
        if (live.noise > 0)
            text += live.noise == 1 ? tr("  1 line held no numbers.")
                                    : tr("  %1 lines held no numbers.").arg(live.noise);
        if (live.clockJumps > 0) text += tr("  The rig's clock jumped %1 times.").arg(live.clockJumps);
        if (live.perSecond == 0 && !lines.isEmpty())
            text += tr("  Lines arrive, but not as the columns say: guess anew.");
    }
    m_state->setText(text);
    m_value->setText(live.link == station::LinkState::connected && live.fresh
                         ? qs(quantity::withUnit(live.load, *m_session.units().force))
                         : QString());
}

void LinkPanel::guess() {
    std::vector<std::string> lines;
    for (const auto& l : m_session.rig().bench().lines())
        lines.push_back(l.toStdString());
    const auto layout = rig::guessLayout(lines);
    if (!m_session.tell(layout)) return;
    if (!m_session.rig().edit([&](rig::Setup& s) {
            auto guessed = *layout;
            guessed.columns = rig::keepingWhatIsKnown(std::move(guessed.columns), s.layout.columns);
            guessed.rate = s.layout.rate;
            s.layout = std::move(guessed);
        }))
        return;
    const auto& columns = m_session.rig().setup().layout.columns;
    const bool asked = std::any_of(columns.begin(), columns.end(),
                                   [](const auto& c) { return c.role != rig::Role::none && c.unit.empty(); });
    m_session.say(asked ? tr("%1 columns found. Type the units: they are never guessed.").arg(columns.size())
                        : tr("%1 columns found, with their units.").arg(columns.size()),
                  asked);
    refill();
}

std::string LinkPanel::freeName() const {
    const auto all = m_session.project()->rigs();
    for (int n = 1;; ++n) {
        const auto name = (n == 1 ? tr("Rig") : tr("Rig %1").arg(n)).toStdString();
        if (std::none_of(all.begin(), all.end(), [&](const auto& r) { return r.second.name == name; }))
            return name;
    }
}

void LinkPanel::save() {
    if (filling() || !m_session.project()) return;
    double rate = edited(m_rate) ? 0 : m_session.rig().setup().layout.rate;
    if (edited(m_rate) && !m_rate->text().trimmed().isEmpty()) {
        const auto number = quantity::parseNumber(m_rate->text().toStdString());
        if (!m_session.tell(number)) return;
        if (!(*number > 0)) return m_session.say(tr("A rate of zero or less cannot be."), true);
        rate = *number;
    }
    const bool answers = m_protocol->currentIndex() == 1;
    m_session.rig().edit([&](rig::Setup& s) {
        if (!m_name->text().trimmed().isEmpty()) s.name = m_name->text().simplified().toStdString();
        if (s.name.empty()) s.name = freeName(); // an address alone is kept too
        s.address = m_address->text().trimmed().toStdString();
        s.protocol = answers ? rig::Protocol::answers : rig::Protocol::lines;
        s.forceQuery = m_forceQuery->text().trimmed().toStdString();
        s.displacementQuery = m_travelQuery->text().trimmed().toStdString();
        s.layout.rate = rate;
    });
}

void LinkPanel::saveQueries() {
    if (filling() || !m_session.project()) return;
    const auto typed = columnTexts(*m_moreQueries);
    for (const auto& t : typed)
        if (t.name.empty() || t.question.empty())
            return m_session.say(tr("A further reading needs a name and its question, such as MEAS:FORC2?"),
                                 true);
    const auto more = rig::columnsOf(typed);
    if (!m_session.tell(more)) return;
    m_session.rig().edit([&](rig::Setup& s) { s.asked = rig::keepingWhatIsKnown(*more, s.asked); });
}

void LinkPanel::saveColumns() {
    if (filling()) return;
    auto layout = m_session.rig().setup().layout;
    for (int r = 0; r < m_columns->rowCount() && r < static_cast<int>(layout.columns.size()); ++r) {
        auto& c = layout.columns[static_cast<std::size_t>(r)];
        if (const auto* role = qobject_cast<QComboBox*>(m_columns->cellWidget(r, 1)))
            c.role = static_cast<rig::Role>(role->currentData().toInt());
        c.name = m_columns->item(r, 0)->text().simplified().toStdString();
        c.unit = m_columns->item(r, 2)->text().simplified().toStdString();
    }
    if (const auto made = rig::SampleMaker::make(layout); !m_session.tell(made)) return refill();
    m_session.rig().edit([&](rig::Setup& s) { s.layout = layout; });
}

} // namespace anvil::app
