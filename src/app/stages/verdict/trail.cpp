#include "stages/verdict/trail.h"

#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <anvil/chart/charts.h>
#include <anvil/domain/joints.h>
#include <anvil/results/ends.h>
#include <anvil/results/verdict.h>

namespace anvil::app {
namespace {

QString rule(const QString& what, const stats::Summary& s) {
    if (what == QObject::tr("Mean"))
        return s.basis == stats::MeanBasis::bound
                   ? QObject::tr("Sum of the values over their number, bounds counted at their limit: the "
                                 "true mean is at least this.")
                   : QObject::tr("Sum of the values over their number.");
    if (what == QObject::tr("95 % interval"))
        return QObject::tr("Mean ± t × s / √n, t from Student's distribution with n − 1 degrees of freedom.");
    if (what == QObject::tr("s")) return QObject::tr("Standard deviation with n − 1.");
    if (what == QObject::tr("CV")) return QObject::tr("s over the mean.");
    if (what == QObject::tr("Lowest")) return QObject::tr("The least value recorded.");
    if (what == QObject::tr("Mean − 3 s"))
        return QObject::tr("Mean less three standard deviations. From five pulls it promises with 65 % "
                           "confidence that 99 % exceed it.");
    if (what == QObject::tr("Without high and low"))
        return QObject::tr("Mean without one greatest and one least value; from four values on.");
    return QObject::tr("From the pulls below.");
}

} // namespace

TrailDialog::TrailDialog(Session& session, domain::Metric metric, const results::Group& group,
                         const QString& what, const QString& value, QWidget* parent)
    : QDialog(parent) {
    setWindowTitle(tr("Where from?"));
    setObjectName("trail");
    resize(620, 420);
    const auto* data = session.study();
    const auto& unit = session.units().of(*metric);
    auto* layout = new QVBoxLayout(this);
    auto* head = plainLabel(tr("%1 of %2: %3").arg(what, QString::fromUtf8(metric->noun), value));
    head->setObjectName("big");
    head->setWordWrap(true);
    layout->addWidget(head);
    auto* place =
        plainLabel(tr("%1, %2. %3")
                       .arg(qs(data->optionAt(group.option).name),
                            qs(data->conditionAt(group.condition).name), rule(what, group.summary)));
    place->setWordWrap(true);
    layout->addWidget(place);
    auto* tree = new QTreeWidget;
    tree->setColumnCount(3);
    tree->setHeaderLabels({tr("Pull"), tr("Value"), tr("From")});
    tree->setRootIsDecorated(false);
    const auto add = [&](Id pull, Id specimen, const QString& text, const QString& from) {
        auto* item = new QTreeWidgetItem(tree, {qs(data->specimenAt(specimen).label), text, from});
        item->setFont(1, figures(13));
        item->setData(0, Qt::UserRole, pull);
    };
    for (const auto& v : group.values) {
        QString from = tr("typed in");
        if (const auto r = session.readings().byPull.find(v.pull); r != session.readings().byPull.end())
            from = tr("its curve of %1 samples").arg(r->second.samples);
        if (v.value.state == stats::State::aside) continue;
        if (v.guess) from += tr("; beyond the calibration table: a guess");
        if (const auto* pull = data->pull(v.pull))
            if (const int held = results::jointsThatHeld(*data, *pull, *data->specimen(v.specimen)); held > 0)
                from += held == 1 ? tr("; its other end held at least that")
                                  : tr("; its other %1 joints held at least that").arg(held);
        add(v.pull, v.specimen, qs(chart::valueText(v.value, unit, v.guess)), from);
    }
    for (const auto& l : group.leftOut)
        add(l.pull, l.specimen, tr("left out"), qs(l.why));
    tree->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
    tree->setCurrentItem(tree->topLevelItem(0));
    layout->addWidget(tree, 1);
    auto* buttons = new QDialogButtonBox;
    auto* show = buttons->addButton(tr("Show the curve"), QDialogButtonBox::AcceptRole);
    buttons->addButton(QDialogButtonBox::Close);
    layout->addWidget(buttons);
    const auto go = [this, tree, &session] {
        if (auto* item = tree->currentItem()) {
            session.selectPull(item->data(0, Qt::UserRole).toLongLong());
            session.go(Stage::curves);
            accept();
        }
    };
    connect(tree, &QTreeWidget::itemActivated, this, go);
    connect(show, &QPushButton::clicked, this, go);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    tree->setFocus();
}

} // namespace anvil::app
