#include "stages/question/method_panel.h"

#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QSpinBox>
#include <anvil/methods/method.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/work/plan_commands.h>
#include <cmath>

namespace anvil::app {
namespace {

constexpr int pictureWidth = 150;

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
    auto* page = new QWidget;
    auto* columns = new QHBoxLayout(page);
    columns->addLayout(makeMethod(), 3);
    columns->addSpacing(16);
    columns->addLayout(makeTargets(), 2);
    columns->addSpacing(16);
    columns->addLayout(makePulled(), 2);
    auto* scroll = new QScrollArea;
    scroll->setWidget(page);
    scroll->setWidgetResizable(true);
    page->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scroll);
    follow(true);
}

QLayout* MethodPanel::makeMethod() {
    auto* column = new QVBoxLayout;
    m_method = new QComboBox;
    m_method->setObjectName("method");
    addMethods(m_method, tr("not said yet"));
    m_picture = new PictureView;
    m_picture->setMinimumWidth(pictureWidth);
    m_picture->setMaximumWidth(pictureWidth);
    m_about = wrappedLabel("methodAbout");
    column->addWidget(head(tr("Method")));
    column->addWidget(m_method);
    column->addWidget(m_picture);
    column->addWidget(m_about);
    column->addStretch();
    connect(m_method, &QComboBox::activated, this, [this] {
        if (m_session.study())
            m_session.tell(work::setMethod(*m_session.project(), m_session.studyId(),
                                           m_method->currentData().toString().toStdString()));
    });
    return column;
}

QLayout* MethodPanel::makeTargets() {
    auto* column = new QVBoxLayout;
    column->addWidget(head(tr("What is wanted")));
    m_direction = new QComboBox;
    m_direction->setObjectName("direction");
    for (const auto& text : {tr("more is better"), tr("less is better"), tr("inside a window")})
        m_direction->addItem(text);
    m_part = field("askedPart", tr("such as: the bond"));
    m_need = field("need", tr("such as 4 kN"));
    m_ceiling = field("ceiling", tr("such as 9 kN"));
    m_low = field("windowLow", tr("from"));
    m_high = field("windowHigh", tr("such as 3 kN"));
    auto* grid = new QGridLayout;
    int row = 0;
    const auto line = [&](const QString& text, QWidget* widget) {
        grid->addWidget(plainLabel(text), row, 0);
        grid->addWidget(widget, row++, 1);
    };
    line(tr("Wanted"), m_direction);
    m_to = plainLabel(tr("to"));
    auto* window = new QHBoxLayout;
    window->addWidget(m_low);
    window->addWidget(m_to);
    window->addWidget(m_high);
    grid->addLayout(window, row++, 0, 1, 2);
    line(tr("Strength of"), m_part);
    line(tr("Need"), m_need);
    line(tr("Enough is"), m_ceiling);
    setTip(m_ceiling, tr("More than anybody needs: options above it count as equally good"));
    column->addLayout(grid);
    column->addStretch();
    connect(m_direction, &QComboBox::activated, this, [this](int index) {
        if (m_session.study())
            m_session.tell(
                work::changeGoal(*m_session.project(), m_session.studyId(), m_direction->currentText(),
                                 [&](domain::Goal& g) { g.sense = static_cast<domain::Sense>(index); }));
    });
    for (auto* edit : {m_part, m_need, m_ceiling, m_low, m_high})
        connect(edit, &QLineEdit::editingFinished, this, &MethodPanel::saveTargets);
    return column;
}

QLayout* MethodPanel::makePulled() {
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
    int row = 0;
    const auto line = [&](const QString& text, QWidget* widget) {
        grid->addWidget(plainLabel(text), row, 0);
        grid->addWidget(widget, row++, 1);
    };
    line(tr("Joined by"), m_connector);
    line(tr("Speed"), m_speed);
    line(tr("Joints each"), m_joints);
    grid->addWidget(m_reused, row++, 0, 1, 2);
    m_square = wrappedLabel("section");
    grid->addWidget(m_square, row++, 0, 1, 2);
    m_squareMethod = new QComboBox;
    m_squareMethod->setObjectName("squareMethod");
    addMethods(m_squareMethod, tr("as the others"));
    m_squareConnector = field("squareConnector", tr("as the others"));
    m_squareSpeed = field("squareSpeed", tr("as the others"));
    line(tr("Method"), m_squareMethod);
    line(tr("Joined by"), m_squareConnector);
    line(tr("Speed"), m_squareSpeed);
    m_otherEnd = new QComboBox;
    m_otherEnd->setObjectName("otherEnd");
    setTip(m_otherEnd, tr("What its pieces carry at their other end: the end that fails tells its strength, "
                          "the other is at least that strong"));
    m_otherEnd->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_otherEnd->setMinimumContentsLength(14);
    m_otherEndLabel = plainLabel(tr("Other end"));
    grid->addWidget(m_otherEndLabel, row, 0);
    grid->addWidget(m_otherEnd, row++, 1);
    column->addLayout(grid);
    column->addStretch();
    for (auto* edit : {m_connector, m_speed})
        connect(edit, &QLineEdit::editingFinished, this, &MethodPanel::savePulled);
    connect(m_joints, &QSpinBox::editingFinished, this, &MethodPanel::savePulled);
    connect(m_reused, &QCheckBox::clicked, this, &MethodPanel::savePulled);
    for (auto* edit : {m_squareConnector, m_squareSpeed})
        connect(edit, &QLineEdit::editingFinished, this, &MethodPanel::saveSquare);
    connect(m_squareMethod, &QComboBox::activated, this, &MethodPanel::saveSquare);
    connect(m_otherEnd, &QComboBox::activated, this, &MethodPanel::saveSquare);
    return column;
}

bool MethodPanel::speedFrom(QLineEdit* edit, std::optional<double>& target) {
    return readOptional(edit, quantity::Dimension::speed, speedUnit(), target,
                        tr("A speed of zero or less cannot be."));
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
    m_session.tell(work::changePlan(*m_session.project(), m_session.studyId(),
                                    tr("How every piece is pulled"), [&](domain::Plan& p) { p = plan; }));
}

void MethodPanel::saveSquare() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    if (!m_session.option() || !m_session.condition())
        return m_session.say(tr("Select the square on the board that differs."), true);
    const auto* known = data->study.plan.square(m_session.option(), m_session.condition());
    auto square = known ? *known : domain::PlannedSquare{};
    square.option = m_session.option();
    square.condition = m_session.condition();
    const auto before = square;
    square.method = m_squareMethod->currentData().toString().toStdString();
    square.connector = m_squareConnector->text().simplified().toStdString();
    square.otherEnd = m_otherEnd->currentData().toLongLong();
    if (!speedFrom(m_squareSpeed, square.speed) || square == before) return;
    m_session.tell(work::changePlan(
        *m_session.project(), m_session.studyId(), tr("How %1 is pulled").arg(m_square->text()),
        [&](domain::Plan& p) { p.squareFor(m_session.option(), m_session.condition()) = square; }));
}

void MethodPanel::saveTargets() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto goal = data->study.goal;
    goal.part = m_part->text().simplified().toStdString();
    const auto& metric = *data->study.goal.metric;
    std::optional<double> low, high;
    if (goal.window) low = goal.window->first, high = goal.window->second;
    for (const auto& [edit, target] : {std::pair{m_need, &goal.need}, std::pair{m_ceiling, &goal.ceiling},
                                       std::pair{m_low, &low}, std::pair{m_high, &high}}) {
        if (edit->text().trimmed().isEmpty()) {
            target->reset();
            continue;
        }
        const auto entry = quantity::parseEntry(edit->text().toStdString(), metric.dimension,
                                                &methods::unitFor(metric, m_session.units()));
        if (!m_session.tell(entry)) return;
        if (!*target || std::abs(**target - entry->si) > 5e-5 * std::abs(entry->si))
            *target = entry->si; // what only looks rounded stays as it was
    }
    if (goal.ceiling && domain::meetsNeed(goal, *goal.ceiling) == std::optional(false))
        return m_session.say(tr("What is enough must meet the need."), true);
    if (low && high && !(*low < *high))
        return m_session.say(tr("The window must end above where it begins."), true);
    goal.window = low && high ? std::optional(std::pair(*low, *high)) : std::nullopt;
    if (goal == data->study.goal) return;
    m_session.tell(work::changeGoal(*m_session.project(), m_session.studyId(), tr("What is needed"),
                                    [&](domain::Goal& g) { g = goal; }));
}

void MethodPanel::fill() {
    const auto* data = m_session.study();
    const auto plan = data ? data->study.plan : domain::Plan{};
    const auto goal = data ? data->study.goal : domain::Goal{};
    const auto* method = methods::find(plan.method);
    m_method->setCurrentIndex(std::max(0, m_method->findData(qs(plan.method))));
    m_about->setText(method
                         ? tr("It tells: %1\nIt needs: %2")
                               .arg(qs(std::string(method->measures)), qs(std::string(method->needs)))
                         : tr("Choose how the pieces are tested, to see what it tells and what it needs."));
    m_picture->setVisible(method != nullptr);
    if (method) {
        const auto action = method->action;
        m_picture->setBuild([action](double) { return chart::methodPicture(action); });
    }
    m_direction->setCurrentIndex(static_cast<int>(goal.sense));
    m_part->setText(qs(goal.part));
    const auto& unit = methods::unitFor(*goal.metric, m_session.units());
    const auto shown = [&](const std::optional<double>& v) {
        return v ? qs(quantity::withUnit(*v, unit)) : QString();
    };
    m_need->setText(shown(goal.need));
    m_ceiling->setText(shown(goal.ceiling));
    const bool window = goal.sense == domain::Sense::inside;
    for (QWidget* w :
         {static_cast<QWidget*>(m_low), static_cast<QWidget*>(m_to), static_cast<QWidget*>(m_high)})
        w->setVisible(window);
    if (goal.window || !window) { // half a window that is being typed stays
        m_low->setText(goal.window ? shown(goal.window->first) : QString());
        m_high->setText(goal.window ? shown(goal.window->second) : QString());
    }
    m_connector->setText(qs(plan.connector));
    m_speed->setText(speedText(plan.speed));
    m_joints->setValue(plan.joints);
    m_reused->setChecked(plan.reused);
    const auto* option = data ? data->option(m_session.option()) : nullptr;
    const auto* condition = data ? data->condition(m_session.condition()) : nullptr;
    m_square->setText(option && condition ? tr("Only %1, %2").arg(qs(option->name), qs(condition->name))
                                          : tr("Only one square: select it on the board"));
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
