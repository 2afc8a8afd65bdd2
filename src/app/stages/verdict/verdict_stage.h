// Verdict: the pages of a study, one at a time, and where each number comes from.
#pragma once

#include "widgets/panel.h"
#include <anvil/pages/page.h>

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
    void keyPressEvent(QKeyEvent* event) override; ///< 0: scales from zero, and back

private:
    void offerPages(const std::vector<const pages::Entry*>& offered);
    void openTrail(long long group, const QString& column);
    void act(const QString& action, int which);
    pages::View view() const;
    domain::Metric metric() const;
    std::optional<domain::Metric> m_metric; ///< chosen here; nothing: the one that decides
    QString m_page = QStringLiteral("answer");
    Id m_shownStudy = 0;
    QPushButton *m_look, *m_import, *m_zero;
    QWidget* m_first;
    PageView* m_view;
    QTabBar* m_pages;
};

} // namespace anvil::app
