#include "stages/specimens/specimens_stage.h"

#include "stages/specimens/pieces_panel.h"
#include "stages/specimens/preparation_panel.h"
#include "stages/specimens/sheets_panel.h"
#include "stages/specimens/shopping_panel.h"
#include <QLabel>
#include <QTabWidget>
#include <QVBoxLayout>
#include <anvil/plan/timetable.h>

namespace anvil::app {

SpecimensStage::SpecimensStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_sentence = wrappedLabel("sentence");
    layout->addWidget(m_sentence);
    m_tabs = new QTabWidget;
    m_tabs->setObjectName("specimenTabs");
    m_tabs->addTab(m_pieces = new PiecesPanel(session), tr("Pieces"));
    m_tabs->addTab(m_preparation = new PreparationPanel(session), tr("Preparation"));
    m_tabs->addTab(new SheetsPanel(session), tr("Places in the sheet"));
    m_tabs->addTab(m_shopping = new ShoppingPanel(session), tr("Shopping and cutting"));
    layout->addWidget(m_tabs, 1);
    follow();
}

void SpecimensStage::fill() {
    const auto* data = m_session.study();
    const auto pieces = data ? static_cast<int>(data->specimens.size()) : 0;
    const int missing = data ? static_cast<int>(domain::missingPieces(*data).size()) : 0;
    m_tabs->setVisible(data != nullptr);
    setEnabled(!m_session.project() || !m_session.readOnly());
    m_sentence->setText(!data ? tr("Pieces are made from the plan, or come with the logger files you import.")
                        : missing > 0 ? tr("%1 planned pieces wait to be made.").arg(missing)
                        : pieces == 0
                            ? tr("No pieces yet: plan replicates in Question, or import logger files.")
                        : pieces == 1 ? tr("One piece, with a label of its own.")
                                      : tr("%1 pieces, each with a label of its own.").arg(pieces));
    const auto steps = m_session.timetable();
    const auto due = std::count_if(steps.begin(), steps.end(), [](const auto& s) {
        return s.state == plan::StepState::due || s.state == plan::StepState::overdue;
    });
    m_tabs->setTabText(1, due ? tr("Preparation (%1 due)").arg(due) : tr("Preparation"));
}

bool SpecimensStage::writeLabels(const QString& path) { return m_pieces->writeLabels(path); }
bool SpecimensStage::writeCalendar(const QString& path) { return m_preparation->writeCalendar(path); }
bool SpecimensStage::writeStock(const QString& path) { return m_shopping->writeStock(path); }

} // namespace anvil::app
