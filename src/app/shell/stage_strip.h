// The stages in the order of work, each with its progress and what needs attention.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <array>

namespace anvil::app {

class StageStrip : public QWidget {
    Q_OBJECT
public:
    explicit StageStrip(QWidget* parent = nullptr);
    void setCurrent(Stage stage);
    Stage current() const { return m_current; }
    void setNotes(const std::array<QString, stageCount>& progress, const std::array<int, stageCount>& alerts);
    const std::array<QString, stageCount>& progress() const { return m_progress; }
    QRect placeOf(Stage stage) const;
    QSize sizeHint() const override { return {700, 50}; }
    static QString name(Stage stage);

signals:
    void chosen(anvil::app::Stage stage);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    Stage m_current = Stage::verdict;
    std::array<QString, stageCount> m_progress;
    std::array<int, stageCount> m_alerts{};
};

} // namespace anvil::app
