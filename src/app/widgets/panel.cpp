#include "widgets/panel.h"

#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/keep_picture.h"
#include "widgets/plain_text.h"
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <anvil/quantity/entry.h>

namespace anvil::app {

void Panel::follow(bool selectionToo) {
    connect(&m_session, &Session::leaving, this, [this] { outdated(); });
    connect(&m_session, &Session::changed, this, &Panel::mark);
    connect(&m_session, &Session::unitsChanged, this, &Panel::mark);
    if (selectionToo) connect(&m_session, &Session::selectionChanged, this, &Panel::mark);
}

void Panel::mark() {
    m_stale = true;
    if (isVisible())
        refill();
    else
        outdated();
}

void Panel::showEvent(QShowEvent* event) {
    if (m_stale) refill();
    QWidget::showEvent(event);
}

bool Panel::readOptional(const QLineEdit* edit, quantity::Dimension dimension, std::optional<double>& target,
                         const QString& refusal) {
    if (!app::edited(edit)) return true;
    if (edit->text().trimmed().isEmpty()) {
        target.reset();
        return true;
    }
    const auto entry = m_session.read(edit->text(), dimension);
    if (!m_session.tell(entry)) return false;
    if (!(entry->si > 0)) {
        m_session.say(refusal, true);
        return false;
    }
    target = entry->si;
    m_session.heard(*entry);
    return true;
}

void Panel::refill() {
    if (m_filling) return;
    m_filling = true;
    m_stale = false;
    fill();
    m_filling = false;
}

QLineEdit* field(const char* name, const QString& hint, int width) {
    auto* edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setPlaceholderText(hint);
    if (width) edit->setMaximumWidth(grown(width));
    return edit;
}

QLabel* wrappedLabel(const char* name) {
    auto* label = plainLabel();
    label->setObjectName(name);
    label->setWordWrap(true);
    label->setTextFormat(Qt::PlainText);
    return label;
}

QLabel* actionLabel() {
    auto* label = plainLabel();
    label->setObjectName("spaceAction");
    label->setAlignment(Qt::AlignCenter);
    label->setMinimumHeight(grown(64));
    return label;
}

void showAction(QLabel* label, const QString& text) {
    label->setText(text);
    label->setStyleSheet(text.isEmpty() ? QString()
                                        : QStringLiteral("background: %1; color: %2; border-radius: 6px;")
                                              .arg(theme().accent.name(), theme().onAccent.name()));
}

QTableWidget* makeTable(const QStringList& heads, const char* name) {
    auto* table = new QTableWidget(0, static_cast<int>(heads.size()));
    table->setObjectName(name);
    table->setHorizontalHeaderLabels(heads);
    table->verticalHeader()->hide();
    table->verticalHeader()->setDefaultSectionSize(grown(26));
    if (!heads.isEmpty()) table->setAccessibleName(heads.join(QStringLiteral(", ")));
    giveTableMenu(table);
    return table;
}

} // namespace anvil::app
