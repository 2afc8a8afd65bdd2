#include "widgets/unit_tail.h"

#include "widgets/plain_text.h"
#include <QEvent>
#include <QLabel>
#include <anvil/quantity/entry.h>

namespace anvil::app {
namespace {

constexpr int gap = 6; // between the unit and the end of the field

} // namespace

UnitTail::UnitTail(QLineEdit* field, Session& session, DimensionOf dimension,
                   std::function<const quantity::Unit*()> unit)
    : QObject(field), m_field(field), m_session(session), m_dimension(std::move(dimension)),
      m_unit(std::move(unit)) {
    m_label = plainLabel();
    m_label->setParent(field);
    m_label->setObjectName("faint");
    m_label->setAttribute(Qt::WA_TransparentForMouseEvents);
    m_label->hide();
    field->installEventFilter(this);
    connect(field, &QLineEdit::textChanged, this, &UnitTail::update);
    connect(&session, &Session::changed, this, &UnitTail::update);
    connect(&session, &Session::projectChanged, this, &UnitTail::update);
    update();
}

UnitTail::UnitTail(QLineEdit* field, Session& session, quantity::Dimension dimension)
    : UnitTail(field, session, [dimension] { return std::optional(dimension); }) {}

bool UnitTail::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Show || event->type() == QEvent::FocusIn) update();
    if (event->type() == QEvent::Resize) place();
    return QObject::eventFilter(watched, event);
}

void UnitTail::update() {
    const auto dimension = m_dimension();
    const auto* unit = m_unit ? m_unit() : nullptr;
    if (!unit && dimension) unit = m_session.typedUnit(*dimension);
    const auto text = m_field->text().trimmed().toStdString();
    const bool bare = text.empty() || (unit && !quantity::parseEntry(text, dimension) &&
                                       quantity::parseEntry(text, dimension, unit));
    const auto shown = unit && bare ? qs(unit->symbol) : QString();
    m_label->setText(shown);
    m_label->setVisible(!shown.isEmpty());
    m_field->setTextMargins(0, 0, shown.isEmpty() ? 0 : m_label->sizeHint().width() + gap, 0);
    m_field->updateGeometry();
    place();
}

void UnitTail::place() {
    const auto size = m_label->sizeHint();
    m_label->setGeometry(m_field->width() - size.width() - gap, (m_field->height() - size.height()) / 2,
                         size.width(), size.height());
}

} // namespace anvil::app
