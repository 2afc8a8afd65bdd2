#include "widgets/path_question.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <anvil/project/entry_commands.h>
#include <anvil/words/read_off.h>

namespace anvil::app {

PathQuestion::PathQuestion(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(m_text = wrappedLabel("pathQuestion"));
    auto* row = new QHBoxLayout;
    auto* display = new QPushButton(tr("Off the display"));
    display->setObjectName("readAtDisplay");
    auto* piece = new QPushButton(tr("At the piece"));
    piece->setObjectName("readAtPiece");
    row->addWidget(m_display = display);
    row->addWidget(m_piece = piece);
    row->addStretch();
    column->addLayout(row);
    connect(display, &QPushButton::clicked, this, [this] { answer("display"); });
    connect(piece, &QPushButton::clicked, this, [this] { answer("piece"); });
    // It shows itself, so it cannot wait until it is shown; and not before it has a place in the window.
    hide();
    connect(&session, &Session::changed, this, [this] { fill(); });
    connect(&session, &Session::projectChanged, this, [this] { fill(); });
    QTimer::singleShot(0, this, [this] { fill(); });
}

void PathQuestion::answer(const char* where) {
    if (m_session.project() && m_session.study())
        if (m_session.tell(project::setReadAt(*m_session.project(), m_session.studyId(), where)))
            emit answered();
}

void PathQuestion::fill() {
    const auto* data = m_session.study();
    const auto path = data ? project::pathOf(*m_session.project(), *data) : std::nullopt;
    setVisible(path.has_value());
    if (!path) return;
    const auto& where = data->study.plan.readAt;
    auto text = qs(words::displaySentence(path->through, path->rig, where));
    if (where == "display" && !path->trouble.empty()) text += QStringLiteral(" \u26a0 ") + qs(path->trouble);
    m_text->setText(text);
    m_display->setVisible(where != "display");
    m_piece->setVisible(where != "piece");
}

} // namespace anvil::app
