#include "stages/specimens/sheets_panel.h"

#include "widgets/edited.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/unit_tail.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <anvil/plan/pieces.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

SheetsPanel::SheetsPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* row = new QHBoxLayout;
    row->addWidget(plainLabel(tr("Sheet")));
    m_sheet = new QComboBox;
    m_sheet->setObjectName("sheet");
    m_sheet->setMinimumContentsLength(18);
    row->addWidget(m_sheet);
    row->addWidget(plainLabel(tr("places lie at least")));
    m_apart = field("apart", tr("such as 50 mm"), 120);
    row->addWidget(m_apart);
    row->addWidget(plainLabel(tr("apart")));
    row->addStretch();
    layout->addLayout(row);
    m_sentence = wrappedLabel("sheetSentence");
    layout->addWidget(m_sentence);
    m_map = new PictureView;
    m_map->setObjectName("sheetMap");
    auto* scroll = new QScrollArea;
    scroll->setWidget(m_map);
    scroll->setWidgetResizable(true);
    layout->addWidget(scroll, 1);
    connect(m_sheet, &QComboBox::activated, this, [this] { refill(); });
    new UnitTail(m_apart, m_session, quantity::Dimension::length);
    whenEdited(m_apart, this, [this] { saveApart(); });
    connect(m_map, &PictureView::clicked, this, [this](const chart::HitOf& of) {
        const auto* data = m_session.study();
        const auto* hit = std::get_if<chart::OfPiece>(&of);
        if (const auto* s = data && hit ? data->specimen(hit->piece) : nullptr)
            m_session.selectSquare(s->option, s->condition);
    });
    follow();
}

void SheetsPanel::saveApart() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto apart = data->study.plan.apart;
    if (!readOptional(m_apart, quantity::Dimension::length, apart,
                      tr("A distance of zero or less cannot be.")))
        return;
    if (apart != data->study.plan.apart)
        m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(),
                                           tr("Distance between places"),
                                           [&](domain::Plan& p) { p.apart = apart; }));
}

void SheetsPanel::fill() {
    const auto* data = m_session.study();
    const auto chosen = m_sheet->currentText();
    m_sheet->clear();
    if (!data) return;
    for (const auto& s : plan::sheets(*data))
        m_sheet->addItem(qs(s));
    m_sheet->setCurrentIndex(std::max(0, m_sheet->findText(chosen)));
    const auto& length = *m_session.units().length;
    m_apart->setText(data->study.plan.apart ? qs(quantity::withUnit(*data->study.plan.apart, length))
                                            : QString());
    const auto sheet = m_sheet->currentText().toStdString();
    m_map->setVisible(m_sheet->count() > 0);
    if (m_sheet->count() == 0)
        return m_sentence->setText(tr("Type in Pieces which sheet or board each piece is made in and where, "
                                      "counted from its lower left corner; it is drawn here."));
    m_map->setBuild([this, sheet](double width) {
        const auto* now = m_session.study();
        return now ? chart::sheetMap(*now, sheet, *m_session.units().length, width) : chart::Picture{};
    });
    int placed = 0, waiting = 0;
    for (const auto& s : data->specimens)
        if (s.block == sheet) ++(s.x && s.y ? placed : waiting);
    QString text = tr("%1 pieces have their place").arg(placed);
    if (waiting) text += tr(", %1 have none yet: type it in Pieces").arg(waiting);
    text += ".";
    for (const auto& pair : plan::closePairs(*data, data->study.plan.apart.value_or(0)))
        if (data->specimenAt(pair.a).block == sheet)
            text += tr("\n\u26a0 %1 and %2 are only %3 apart.")
                        .arg(qs(data->specimenAt(pair.a).label), qs(data->specimenAt(pair.b).label),
                             qs(quantity::withUnit(pair.distance, length, 3)));
    m_sentence->setText(text);
}

} // namespace anvil::app
