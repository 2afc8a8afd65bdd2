// Pull: at a connected rig one piece after the other; until then results come in as logger files or typed
// numbers.
#pragma once

#include "widgets/panel.h"
#include <anvil/methods/method.h>

class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace anvil::app {

class BenchView;

class PullStage : public Panel {
    Q_OBJECT
public:
    explicit PullStage(Session& session, QWidget* parent = nullptr);

    BenchView* bench() const { return m_bench; }

signals:
    void importFilesWanted();
    void importTableWanted();
    void pasteWanted();

private:
    void fill() override;
    void addOtherWays(QVBoxLayout* layout);
    QWidget* entryFor(methods::EntryForm form); ///< built when first wanted
    QWidget* makeNone();
    BenchView* m_bench;
    QStackedWidget* m_entries;
    QWidget* m_none; ///< where a form has no piece yet
    QLabel* m_noneSays;
    QPushButton* m_make;
    QWidget *m_number, *m_ways; ///< one number to type; what else leads to results
    QWidget *m_form = nullptr, *m_ladder = nullptr, *m_gauge = nullptr;
};

} // namespace anvil::app
