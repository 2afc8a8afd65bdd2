#include "widgets/square_box.h"

#include <QSignalBlocker>

namespace anvil::app {

SquareBox::SquareBox(Session& session, QWidget* parent) : QComboBox(parent), m_session(session) {
    setAccessibleName(tr("The square: an option in a condition"));
    setSizeAdjustPolicy(QComboBox::AdjustToContents);
    connect(this, &QComboBox::activated, this, [this] {
        const auto at = currentData().toPoint();
        const auto* data = m_session.study();
        if (!data || at.x() >= static_cast<int>(data->options.size()) ||
            at.y() >= static_cast<int>(data->conditions.size()))
            return;
        m_session.selectSquare(data->options[static_cast<std::size_t>(at.x())].id,
                               data->conditions[static_cast<std::size_t>(at.y())].id);
    });
    connect(&session, &Session::changed, this, &SquareBox::fill);
    connect(&session, &Session::selectionChanged, this, &SquareBox::fill);
    fill();
}

void SquareBox::fill() {
    const QSignalBlocker quiet(this);
    clear();
    setPlaceholderText(tr("choose a square"));
    setCurrentIndex(-1);
    const auto* data = m_session.study();
    if (!data) return;
    for (std::size_t o = 0; o < data->options.size(); ++o)
        for (std::size_t c = 0; c < data->conditions.size(); ++c) {
            addItem(tr("%1, %2").arg(qs(data->options[o].name), qs(data->conditions[c].name)),
                    QPoint(static_cast<int>(o), static_cast<int>(c)));
            if (data->options[o].id == m_session.option() && data->conditions[c].id == m_session.condition())
                setCurrentIndex(count() - 1);
        }
}

} // namespace anvil::app
