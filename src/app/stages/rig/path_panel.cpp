#include "stages/rig/path_panel.h"

#include "shell/rig_desk.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

using Kind = rig::RatioPart::Kind;

namespace {

enum Column { kindColumn, aColumn, uaColumn, bColumn, ubColumn, momentColumn, columns };

QString word(Kind kind) {
    static const QStringList words{QObject::tr("lever"), QObject::tr("line in parts"), QObject::tr("angle"),
                                   QObject::tr("factor")};
    return words[static_cast<int>(kind)];
}

/// What the first and the second number of a part are, and what one in the table is in SI.
struct Numbers {
    QString a, b;
    double scaleA = 1, scaleB = 1;
};
Numbers numbersOf(Kind kind) {
    switch (kind) {
    case Kind::lever:
        return {QObject::tr("mm from pivot to cell"), QObject::tr("mm from pivot to piece"),
                quantity::unit("mm").factor, quantity::unit("mm").factor};
    case Kind::line:
        return {QObject::tr("parts of line"), QObject::tr("efficiency of a pulley"), 1, 1};
    case Kind::angle:
        return {QObject::tr("degrees off the load"), QString(), quantity::unit("°").factor, 1};
    case Kind::plain:
        return {QObject::tr("times"), QString(), 1, 1};
    }
    return {};
}

} // namespace

PathPanel::PathPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    m_picture = new PictureView;
    m_picture->setObjectName("loadPath");
    layout->addWidget(m_picture);
    m_sentence = wrappedLabel("pathSentence");
    layout->addWidget(m_sentence);
    m_table =
        makeTable({tr("Part"), tr("First"), tr("±"), tr("Second"), tr("±"), tr("Weight (N·m)")}, "pathParts");
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setSectionResizeMode(kindColumn, QHeaderView::Stretch);
    layout->addWidget(m_table, 1);
    auto* row = new QHBoxLayout;
    row->addWidget(plainLabel(tr("Add from the cell on")));
    for (const auto& [text, part] :
         {std::pair{tr("a lever"), rig::RatioPart{Kind::lever, 1, 0.1, 0.002, 0.002, 0}},
          {tr("a line in parts"), rig::RatioPart{Kind::line, 2, 0.95, 0, 0.02, 0}},
          {tr("an angle"), rig::RatioPart{Kind::angle, 0.1, 1, 0.02, 0, 0}},
          {tr("a factor"), rig::RatioPart{Kind::plain, 2, 1, 0, 0, 0}}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QStringLiteral("add-%1").arg(static_cast<int>(part.kind)));
        connect(button, &QPushButton::clicked, this, [this, p = part] { add(p); });
        row->addWidget(button);
    }
    auto* remove = new QPushButton(tr("Take out"));
    remove->setObjectName("removePart");
    row->addWidget(remove);
    row->addStretch();
    layout->addLayout(row);
    auto* check = new QHBoxLayout;
    check->addWidget(plainLabel(tr("Pivot check: weight")));
    check->addWidget(m_weight = field("pivotWeight", tr("400 N"), 80));
    check->addWidget(plainLabel(tr("centre at")));
    check->addWidget(m_centre = field("pivotCentre", tr("1 m"), 80));
    check->addWidget(plainLabel(tr("stands at")));
    check->addWidget(m_foot = field("pivotFoot", tr("0 m"), 80));
    check->addWidget(plainLabel(tr("lifted at")));
    check->addWidget(m_lift = field("pivotLift", tr("2.5 m"), 80));
    m_pivotSays = plainLabel();
    m_pivotSays->setObjectName("pivotSays");
    check->addStretch();
    layout->addLayout(check);
    layout->addWidget(m_pivotSays);
    m_pivotSays->hide();
    for (auto* edit : {m_weight, m_centre, m_foot, m_lift})
        connect(edit, &QLineEdit::editingFinished, this, &PathPanel::pivot);
    connect(m_table, &QTableWidget::cellChanged, this, &PathPanel::edited);
    connect(remove, &QPushButton::clicked, this, [this] {
        const auto at = static_cast<std::size_t>(std::max(0, m_table->currentRow()));
        m_session.rig().edit([&](rig::Setup& s) {
            if (at < s.path.size()) s.path.erase(s.path.begin() + static_cast<std::ptrdiff_t>(at));
        });
    });
    connect(&session.rig(), &RigDesk::changed, this, [this] {
        if (isVisible()) refill();
    });
    follow();
}

void PathPanel::add(rig::RatioPart part) {
    m_session.rig().edit([&](rig::Setup& s) { s.path.push_back(part); });
}

void PathPanel::fill() {
    const auto& path = m_session.rig().setup().path;
    m_picture->setBuild(
        [this](double width) { return chart::loadPath(m_session.rig().setup().path, width); });
    const auto ratio = rig::ratioOf(path);
    m_sentence->setText(path.empty()
                            ? tr("Nothing lies between the cell and the piece: what is read is the load.")
                        : ratio ? qs(rig::sentence(*ratio))
                                : QStringLiteral("\u26a0 ") + qs(ratio.error().message));
    m_table->setRowCount(static_cast<int>(path.size()));
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const auto& p = path[static_cast<std::size_t>(r)];
        const auto n = numbersOf(p.kind);
        const QStringList cells{word(p.kind),
                                qs(quantity::shortest(p.a / n.scaleA)),
                                qs(quantity::shortest(p.ua / n.scaleA)),
                                n.b.isEmpty() ? QString() : qs(quantity::shortest(p.b / n.scaleB)),
                                n.b.isEmpty() ? QString() : qs(quantity::shortest(p.ub / n.scaleB)),
                                p.kind == Kind::lever ? qs(quantity::shortest(p.moment)) : QString()};
        for (int k = 0; k < columns; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            const bool second = k == bColumn || k == ubColumn;
            if (k == kindColumn || (second && n.b.isEmpty()) || (k == momentColumn && p.kind != Kind::lever))
                item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
            setTip(item, k == aColumn || k == uaColumn ? n.a : second ? n.b : QString());
            if (k == kindColumn)
                item->setText(tr("%1: %2%3").arg(word(p.kind), n.a, n.b.isEmpty() ? QString() : ", " + n.b));
            m_table->setItem(r, k, item);
        }
    }
}

void PathPanel::edited() {
    if (filling()) return;
    auto path = m_session.rig().setup().path;
    for (int r = 0; r < m_table->rowCount() && r < static_cast<int>(path.size()); ++r) {
        auto& p = path[static_cast<std::size_t>(r)];
        const auto n = numbersOf(p.kind);
        const auto read = [&](int column, double& target, double scale) {
            const auto text = m_table->item(r, column)->text().trimmed();
            if (text.isEmpty()) return true;
            const auto number = quantity::parseNumber(text.toStdString());
            if (m_session.tell(number)) target = *number * scale;
            return number.has_value();
        };
        if (!read(aColumn, p.a, n.scaleA) || !read(uaColumn, p.ua, n.scaleA) ||
            !read(bColumn, p.b, n.scaleB) || !read(ubColumn, p.ub, n.scaleB) ||
            !read(momentColumn, p.moment, 1))
            return refill();
    }
    if (const auto ratio = rig::ratioOf(path); !m_session.tell(ratio)) return refill();
    m_session.rig().edit([&](rig::Setup& s) { s.path = path; });
}

void PathPanel::pivot() {
    if (m_weight->text().isEmpty() || m_centre->text().isEmpty() || m_lift->text().isEmpty()) return;
    const auto weight = quantity::parseEntry(m_weight->text().toStdString(), quantity::Dimension::force,
                                             m_session.units().force);
    const auto length = [&](QLineEdit* edit) {
        return quantity::parseEntry(edit->text().isEmpty() ? "0 m" : edit->text().toStdString(),
                                    quantity::Dimension::length, m_session.units().length);
    };
    const auto centre = length(m_centre), foot = length(m_foot), lift = length(m_lift);
    if (!m_session.tell(weight) || !m_session.tell(centre) || !m_session.tell(foot) || !m_session.tell(lift))
        return;
    const auto shown = rig::pivotLift(weight->si, centre->si, foot->si, lift->si);
    m_pivotSays->setVisible(shown.has_value());
    if (!m_session.tell(shown)) return;
    m_pivotSays->setText(tr("A scale there reads %1 of the true %2.")
                             .arg(m_session.force(*shown), m_session.force(weight->si)));
}

} // namespace anvil::app
