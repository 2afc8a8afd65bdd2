#include "stages/question/method_panel.h"

#include "theme/theme.h"
#include "widgets/picture_view.h"
#include <QComboBox>
#include <QEvent>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QVBoxLayout>
#include <anvil/methods/method.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::app {

MethodPanel::MethodPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QHBoxLayout(this);
    auto* left = new QGridLayout;
    m_method = new QComboBox;
    m_method->setObjectName("method");
    m_method->addItem(tr("not said yet"), QString());
    for (const auto& m : methods::all())
        m_method->addItem(qs(std::string(m.title)), qs(std::string(m.key)));
    m_picture = new PictureView;
    m_picture->setMinimumWidth(150);
    m_picture->setMaximumWidth(150);
    m_about = new QLabel;
    m_about->setWordWrap(true);
    m_about->setObjectName("methodAbout");
    m_direction = new QComboBox;
    m_direction->setObjectName("direction");
    m_direction->addItem(tr("more is better"));
    m_direction->addItem(tr("less is better"));
    const auto field = [](QLineEdit*& edit, const char* name, const QString& hint) {
        edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
    };
    field(m_part, "askedPart", tr("such as: the bond"));
    field(m_need, "need", tr("such as 4 kN"));
    field(m_ceiling, "ceiling", tr("such as 9 kN"));
    int row = 0;
    const auto line = [&](const QString& text, QWidget* widget) {
        left->addWidget(new QLabel(text), row, 0);
        left->addWidget(widget, row++, 1);
    };
    line(tr("Method"), m_method);
    left->addWidget(m_picture, row, 0, 1, 1, Qt::AlignTop);
    left->addWidget(m_about, row++, 1, Qt::AlignTop);
    line(tr("Wanted"), m_direction);
    line(tr("Strength of"), m_part);
    line(tr("Need to be met"), m_need);
    line(tr("More than anybody needs"), m_ceiling);
    left->setRowStretch(row, 1);
    left->setColumnStretch(1, 1);
    layout->addLayout(left, 1);
    auto* right = new QWidget;
    auto* side = new QVBoxLayout(right);
    side->setContentsMargins(8, 0, 0, 0);
    auto* head = new QLabel(tr("Safety card"));
    head->setObjectName("section");
    side->addWidget(head);
    m_card = new QLabel;
    m_card->setWordWrap(true);
    m_card->setObjectName("safetyCard");
    side->addWidget(m_card);
    auto* own = new QLabel(tr("Your own cautions, pinned to this study, one a line"));
    own->setObjectName("section");
    side->addWidget(own);
    m_cautions = new QPlainTextEdit;
    m_cautions->setObjectName("ownCautions");
    m_cautions->setTabChangesFocus(true);
    m_cautions->setFixedHeight(54);
    m_cautions->installEventFilter(this);
    side->addWidget(m_cautions);
    side->addStretch();
    auto* scroll = new QScrollArea;
    scroll->setWidget(right);
    scroll->setWidgetResizable(true);
    right->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    layout->addWidget(scroll, 1);
    connect(m_method, &QComboBox::activated, this, [this] {
        const auto key = m_method->currentData().toString().toStdString();
        if (m_session.study())
            m_session.tell(m_session.project()->changePlan(m_session.studyId(),
                                                           tr("Method: %1").arg(m_method->currentText()),
                                                           [&](study::Plan& p) { p.method = key; }));
    });
    connect(m_direction, &QComboBox::activated, this, [this](int index) {
        if (m_session.study())
            m_session.tell(m_session.project()->changePlan(
                m_session.studyId(), m_direction->currentText(),
                [&](study::Plan& p) { p.direction = static_cast<study::Direction>(index); }));
    });
    for (auto* edit : {m_part, m_need, m_ceiling})
        connect(edit, &QLineEdit::editingFinished, this, &MethodPanel::saveTargets);
    connect(&session, &Session::changed, this, &MethodPanel::refresh);
    connect(&session, &Session::unitsChanged, this, &MethodPanel::refresh);
    refresh();
}

bool MethodPanel::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_cautions && event->type() == QEvent::FocusOut) saveCautions();
    return QWidget::eventFilter(watched, event);
}

void MethodPanel::saveCautions() {
    const auto* data = m_session.study();
    if (m_filling || !data) return;
    std::vector<std::string> lines;
    for (const auto& l : m_cautions->toPlainText().split('\n', Qt::SkipEmptyParts))
        if (!l.simplified().isEmpty()) lines.push_back(l.simplified().toStdString());
    if (lines != data->study.plan.cautions)
        m_session.tell(m_session.project()->changePlan(m_session.studyId(), tr("Own cautions"),
                                                       [&](study::Plan& p) { p.cautions = lines; }));
}

void MethodPanel::saveTargets() {
    const auto* data = m_session.study();
    if (m_filling || !data) return;
    auto plan = data->study.plan;
    plan.part = m_part->text().simplified().toStdString();
    const auto dimension = study::info(data->study.metric).dimension;
    for (const auto& [edit, target] : {std::pair{m_need, &plan.need}, std::pair{m_ceiling, &plan.ceiling}}) {
        if (edit->text().trimmed().isEmpty()) {
            target->reset();
            continue;
        }
        const auto entry =
            quantity::parseEntry(edit->text().toStdString(), dimension, &m_session.units().of(dimension));
        if (!m_session.tell(entry)) return;
        if (!*target || std::abs(**target - entry->si) > 5e-5 * std::abs(entry->si))
            *target = entry->si; // what only looks rounded stays as it was
    }
    if (plan.need && plan.ceiling && *plan.ceiling < *plan.need)
        return m_session.say(tr("More than anybody needs cannot be less than the need."), true);
    if (plan == data->study.plan) return;
    m_session.tell(m_session.project()->changePlan(m_session.studyId(), tr("What is needed"),
                                                   [&](study::Plan& p) { p = plan; }));
}

void MethodPanel::refresh() {
    m_filling = true;
    const auto* data = m_session.study();
    const auto plan = data ? data->study.plan : study::Plan{};
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
    QStringList card;
    for (const auto& c : methods::cautions(method, data && !data->options.empty() ? data->options.front().kind
                                                                                  : std::string()))
        card << QStringLiteral("\u26a0 ") + qs(c);
    m_card->setText(card.join("\n"));
    if (!m_cautions->hasFocus()) {
        QStringList own;
        for (const auto& c : plan.cautions)
            own << qs(c);
        m_cautions->setPlainText(own.join("\n"));
    }
    m_direction->setCurrentIndex(plan.direction == study::Direction::less ? 1 : 0);
    m_part->setText(qs(plan.part));
    const auto& unit =
        m_session.units().of(study::info(data ? data->study.metric : study::Metric::peak).dimension);
    m_need->setText(plan.need ? qs(quantity::withUnit(*plan.need, unit)) : QString());
    m_ceiling->setText(plan.ceiling ? qs(quantity::withUnit(*plan.ceiling, unit)) : QString());
    m_filling = false;
}

} // namespace anvil::app
