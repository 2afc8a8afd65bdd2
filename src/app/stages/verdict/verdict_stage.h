// Verdict: the pages of a study, one at a time, and where each number comes from.
#pragma once

#include "stages/verdict/looks.h"
#include "widgets/panel.h"
#include <anvil/pages/page.h>

class QBoxLayout;
class QLabel;
class QPushButton;
class QTabBar;

namespace anvil::app {

class PageView;

class VerdictStage : public Panel {
    Q_OBJECT
public:
    explicit VerdictStage(Session& session, QWidget* parent = nullptr);

signals:
    void importWanted();

protected:
    void fill() override;
    void outdated() override;
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override; ///< 0: scales from zero, and back

private:
    QLayout* makeBottom();
    void followPages();
    void offerPages(const std::vector<const pages::Entry*>& offered);
    void openTrail(long long group, const QString& column);
    void act(const pages::Action& action);
    void placeTools();
    void drag(const std::vector<double>& weights);
    pages::View view() const;
    domain::Metric ranked() const;
    Looks m_looks;
    QString m_page = QStringLiteral("answer");
    Id m_shownStudy = 0;
    std::vector<double> m_weights; ///< of the score card, while one is dragged
    QPushButton *m_look, *m_import, *m_zero, *m_lines;
    QWidget* m_first;
    PageView* m_view;
    QTabBar* m_pages;
    QBoxLayout* m_bottom;
};

} // namespace anvil::app
