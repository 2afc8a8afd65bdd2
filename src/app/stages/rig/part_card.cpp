#include "stages/rig/part_card.h"

#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

using Kind = rig::RatioPart::Kind;

namespace {

constexpr int cardWidth = 320;

QString textOf(double si, const quantity::Unit* unit) {
    return unit ? qs(quantity::asEntered(si, *unit)) : qs(quantity::shortest(si));
}

Expected<double> valueOf(const QString& text, const quantity::Unit* unit) {
    if (!unit) return quantity::parseNumber(text.toStdString());
    const auto entry = quantity::parseEntry(text.toStdString(), unit->dimension, unit);
    if (entry) return entry->si;
    if (unit->dimension == quantity::Dimension::area) // a ram is known by its bore
        if (const auto bore = quantity::parseEntry(text.toStdString(), quantity::Dimension::length))
            return rig::areaOfBore(bore->si);
    return tl::unexpected(entry.error());
}

} // namespace

QString wordOf(Kind kind) {
    static const QStringList words{QObject::tr("lever"), QObject::tr("line in parts"),
                                   QObject::tr("angle"), QObject::tr("factor"),
                                   QObject::tr("ram"),   QObject::tr("sensor in volts")};
    return words[static_cast<int>(kind)];
}

PartCard::PartCard(Session& session, const rig::RatioPart& part, int place, QWidget* parent)
    : QFrame(parent), m_session(session), m_part(part), m_place(place) {
    setObjectName("card");
    setFixedWidth(grown(cardWidth));
    m_grid = new QGridLayout(this);
    m_grid->setContentsMargins(10, 8, 10, 8);
    auto* title = plainLabel(tr("%1  %2").arg(place + 1).arg(wordOf(part.kind)));
    title->setObjectName("section");
    m_grid->addWidget(title, 0, 0, 1, 3);
    auto* out = new QPushButton(tr("Take out"));
    out->setObjectName("quiet");
    m_grid->addWidget(out, 0, 3, Qt::AlignRight);
    connect(out, &QPushButton::clicked, this, [this] { emit takenOut(m_place); });
    const auto& mm = quantity::unit("mm");
    switch (part.kind) {
    case Kind::lever:
        add(tr("Pivot to cell"), "a", &rig::RatioPart::a, &rig::RatioPart::ua, &mm);
        add(tr("Pivot to piece"), "b", &rig::RatioPart::b, &rig::RatioPart::ub, &mm);
        add(tr("Own weight"), "moment", &rig::RatioPart::moment, nullptr, &quantity::unit("N·m"));
        break;
    case Kind::line:
        add(tr("Parts of line"), "a", &rig::RatioPart::a, &rig::RatioPart::ua, nullptr);
        add(tr("Of each pulley comes through"), "b", &rig::RatioPart::b, &rig::RatioPart::ub, nullptr);
        break;
    case Kind::angle:
        add(tr("Off the load"), "a", &rig::RatioPart::a, &rig::RatioPart::ua, &quantity::unit("°"));
        break;
    case Kind::plain:
        add(tr("Times"), "a", &rig::RatioPart::a, &rig::RatioPart::ua, nullptr);
        break;
    case Kind::ram:
        add(tr("Area or bore"), "a", &rig::RatioPart::a, &rig::RatioPart::ua, &quantity::unit("cm²"));
        break;
    case Kind::sensor:
        add(tr("Load for one volt"), "a", &rig::RatioPart::a, &rig::RatioPart::ua, &quantity::unit("N"));
        add(tr("Shows of nothing"), "b", &rig::RatioPart::b, nullptr, &quantity::unit("V"));
        break;
    }
}

void PartCard::add(const QString& title, const char* name, double rig::RatioPart::*value,
                   double rig::RatioPart::*doubt, const quantity::Unit* unit) {
    const int row = m_grid->rowCount();
    auto* label = plainLabel(title);
    label->setWordWrap(true);
    m_grid->addWidget(label, row, 0);
    auto* edit = measure(QLatin1String(name), value, unit);
    edit->setAccessibleName(title);
    m_grid->addWidget(edit, row, 1);
    if (!doubt) return;
    m_grid->addWidget(plainLabel(tr("±")), row, 2);
    auto* sure = measure(QStringLiteral("u%1").arg(QLatin1String(name)), doubt, unit);
    sure->setAccessibleName(tr("%1: its uncertainty").arg(title));
    m_grid->addWidget(sure, row, 3);
}

QLineEdit* PartCard::measure(const QString& name, double rig::RatioPart::*member,
                             const quantity::Unit* unit) {
    auto* edit = field("", {}, 96);
    edit->setObjectName(QStringLiteral("part%1-%2").arg(m_place).arg(name));
    edit->setText(textOf(m_part.*member, unit));
    whenEdited(edit, this, [this, edit, member, unit] {
        const auto text = edit->text().trimmed();
        if (text == textOf(m_part.*member, unit)) return; // untouched, to the last digit
        const auto typed = valueOf(text, unit);
        if (!m_session.tell(typed)) return edit->setText(textOf(m_part.*member, unit));
        auto part = m_part;
        part.*member = *typed;
        emit edited(m_place, part);
    });
    return edit;
}

} // namespace anvil::app
