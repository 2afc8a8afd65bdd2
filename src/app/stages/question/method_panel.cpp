#include "stages/question/method_panel.h"

#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/input_lines.h"
#include "widgets/method_cards.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/square_box.h"
#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSpinBox>
#include <anvil/chart/charts.h>
#include <anvil/methods/method.h>
#include <anvil/project/input_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>

namespace anvil::app {
namespace {

void addMethods(QComboBox* box, const QString& none) {
    box->addItem(none, QString());
    for (const auto* m : methods::all())
        box->addItem(qs(std::string(m->title)), qs(std::string(m->key)));
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(14);
}

QLabel* head(const QString& text) {
    auto* label = plainLabel(text);
    label->setObjectName("section");
    return label;
}

const quantity::Unit& speedUnit() { return quantity::unit("mm/s"); }

} // namespace

MethodPanel::MethodPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    m_cards = new MethodCards;
    layout->addWidget(m_cards);
    m_about = wrappedLabel("methodAbout");
    auto* about = new QHBoxLayout;
    about->addWidget(m_about, 1);
    m_sketch = new PictureView;
    m_sketch->setAccessibleName(tr("What is measured of a piece"));
    m_sketch->setFixedSize(grown(300), grown(170));
    about->addWidget(m_sketch);
    layout->addLayout(about);
    layout->addLayout(makePulled());
    layout->addStretch();
    connect(m_cards, &MethodCards::picked, this, [this] {
        if (m_session.study())
            m_session.tell(project::setMethod(*m_session.project(), m_session.studyId(), m_cards->chosen()));
    });
    follow(true);
}

QLayout* MethodPanel::makePulled() {
    auto* columns = new QHBoxLayout;
    columns->addLayout(makeSame(), 1);
    columns->addSpacing(24);
    columns->addLayout(makeApart(), 1);
    return columns;
}

/// A row of a form: a word and its field.
void MethodPanel::addLine(QGridLayout* grid, const QString& text, QWidget* widget) {
    const int row = grid->rowCount();
    grid->addWidget(plainLabel(text), row, 0);
    grid->addWidget(widget, row, 1);
}

QLayout* MethodPanel::makeSame() {
    auto* column = new QVBoxLayout;
    column->addWidget(head(tr("The same for every piece")));
    m_connector = field("connector", tr("such as: 8 mm shackle"));
    setTip(m_connector, tr("What joins the piece to the rig"));
    m_speed = field("planSpeed", tr("such as 10 mm/min"));
    m_joints = new QSpinBox;
    m_joints->setObjectName("joints");
    m_joints->setRange(1, 20);
    setTip(m_joints, tr("Such as 2 for a rope with a splice at both ends: the one that fails is exact, "
                        "the other at least that strong"));
    m_reused = new QCheckBox(tr("Not destroyed: used again"));
    m_reused->setObjectName("reused");
    setTip(m_reused, tr("A replicate is then a deployment, and drift is checked instead of freshness"));
    auto* grid = new QGridLayout;
    addLine(grid, tr("Joined by"), m_connector);
    addLine(grid, tr("Speed"), m_speed);
    addLine(grid, tr("Joints each"), m_joints);
    grid->addWidget(m_reused, grid->rowCount(), 0, 1, 2);
    column->addLayout(grid);
    m_inputs = new InputLines;
    m_inputs->setObjectName("studyInputs");
    connect(m_inputs, &InputLines::edited, this, [this](const methods::Input* input, const QString& text) {
        if (filling() || !m_session.study()) return;
        const auto unitOf = [this](quantity::Dimension d) { return m_session.typedUnit(d); };
        if (!m_session.tell(project::tellOfStudy(*m_session.project(), m_session.studyId(), *input,
                                                 text.toStdString(), unitOf)))
            refill();
    });
    column->addWidget(m_inputs);
    column->addStretch();
    for (auto* edit : {m_connector, m_speed})
        whenEdited(edit, this, [this] { savePulled(); });
    connect(m_joints, &QSpinBox::editingFinished, this, &MethodPanel::savePulled);
    connect(m_reused, &QCheckBox::clicked, this, &MethodPanel::savePulled);
    return column;
}

QLayout* MethodPanel::makeApart() {
    auto* apart = new QVBoxLayout;
    apart->addWidget(head(tr("Where one square differs")));
    auto* grid = new QGridLayout;
    apart->addLayout(grid);
    apart->addStretch();
    m_squareMethod = new QComboBox;
    m_squareMethod->setObjectName("squareMethod");
    addMethods(m_squareMethod, tr("as the others"));
    m_squareConnector = field("squareConnector", tr("as the others"));
    m_squareSpeed = field("squareSpeed", tr("as the others"));
    addLine(grid, tr("Only"), m_square = new SquareBox(m_session));
    addLine(grid, tr("Method"), m_squareMethod);
    addLine(grid, tr("Joined by"), m_squareConnector);
    addLine(grid, tr("Speed"), m_squareSpeed);
    m_otherEnd = new QComboBox;
    m_otherEnd->setObjectName("otherEnd");
    setTip(m_otherEnd, tr("What its pieces carry at their other end: the end that fails tells its strength, "
                          "the other is at least that strong"));
    m_otherEnd->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_otherEnd->setMinimumContentsLength(14);
    m_otherEndLabel = plainLabel(tr("Other end"));
    const int row = grid->rowCount();
    grid->addWidget(m_otherEndLabel, row, 0);
    grid->addWidget(m_otherEnd, row, 1);
    for (auto* edit : {m_squareConnector, m_squareSpeed})
        whenEdited(edit, this, [this] { saveSquare(); });
    connect(m_squareMethod, &QComboBox::activated, this, &MethodPanel::saveSquare);
    connect(m_otherEnd, &QComboBox::activated, this, &MethodPanel::saveSquare);
    return apart;
}

bool MethodPanel::speedFrom(QLineEdit* edit, std::optional<double>& target) {
    return readOptional(edit, quantity::Dimension::speed, target, tr("A speed of zero or less cannot be."));
}

QString MethodPanel::speedText(const std::optional<double>& value) const {
    return value ? qs(quantity::withUnit(*value, speedUnit())) : QString();
}

void MethodPanel::savePulled() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto plan = data->study.plan;
    plan.connector = m_connector->text().simplified().toStdString();
    plan.joints = m_joints->value();
    plan.reused = m_reused->isChecked();
    if (!speedFrom(m_speed, plan.speed) || plan == data->study.plan) return;
    m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(),
                                       tr("How every piece is pulled"), [&](domain::Plan& p) { p = plan; }));
}

void MethodPanel::saveSquare() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    if (!m_session.option() || !m_session.condition())
        return m_session.say(tr("Choose the square that differs."), true);
    const auto* known = data->study.plan.square(m_session.option(), m_session.condition());
    auto square = known ? *known : domain::PlannedSquare{};
    square.option = m_session.option();
    square.condition = m_session.condition();
    const auto before = square;
    square.method = m_squareMethod->currentData().toString().toStdString();
    square.connector = m_squareConnector->text().simplified().toStdString();
    square.otherEnd = m_otherEnd->currentData().toLongLong();
    if (!speedFrom(m_squareSpeed, square.speed) || square == before) return;
    m_session.tell(project::changePlan(
        *m_session.project(), m_session.studyId(), tr("How %1 is pulled").arg(m_square->currentText()),
        [&](domain::Plan& p) { p.squareFor(m_session.option(), m_session.condition()) = square; }));
}

void MethodPanel::fill() {
    const auto* data = m_session.study();
    const auto plan = data ? data->study.plan : domain::Plan{};
    const auto* method = methods::find(plan.method);
    m_cards->choose(plan.method);
    m_about->setText(
        method ? tr("%1. %2 It needs: %3").arg(qs(method->title), qs(method->measures), qs(method->needs))
               : tr("Choose how the pieces are tested, to see what it tells and what it needs."));
    m_sketch->setVisible(method);
    if (method) {
        std::map<std::string, std::string, std::less<>> known;
        for (const auto& f : plan.inputs)
            known[f.key] = f.text;
        m_sketch->setBuild([method, known](double) { return chart::methodSketch(*method, known); });
    }
    m_inputs->show(results::methodOf(plan), plan.inputs);
    m_connector->setText(qs(plan.connector));
    m_speed->setText(speedText(plan.speed));
    m_joints->setValue(plan.joints);
    m_reused->setChecked(plan.reused);
    const auto* option = data ? data->option(m_session.option()) : nullptr;
    const auto* condition = data ? data->condition(m_session.condition()) : nullptr;
    const auto* square = option && condition ? plan.square(option->id, condition->id) : nullptr;
    m_squareMethod->setCurrentIndex(square ? std::max(0, m_squareMethod->findData(qs(square->method))) : 0);
    m_squareConnector->setText(square ? qs(square->connector) : QString());
    m_squareSpeed->setText(square ? speedText(square->speed) : QString());
    m_otherEnd->clear();
    m_otherEnd->addItem(tr("the same"), 0);
    if (data && option)
        for (const auto& o : data->options)
            if (o.id != option->id) m_otherEnd->addItem(qs(o.name), o.id);
    m_otherEnd->setCurrentIndex(square ? std::max(0, m_otherEnd->findData(square->otherEnd)) : 0);
    for (QWidget* w : {static_cast<QWidget*>(m_otherEndLabel), static_cast<QWidget*>(m_otherEnd)})
        w->setVisible(plan.joints > 1);
}

} // namespace anvil::app
