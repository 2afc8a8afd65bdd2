// One curve, or a square's replicates laid over each other; landmarks can be dragged or moved with the keys.
#pragma once

#include <QWidget>
#include <anvil/chart/charts.h>
#include <anvil/curve/pyramid.h>
#include <anvil/pages/page.h>
#include <anvil/project/open_project.h>
#include <anvil/project/pull_commands.h>
#include <memory>

namespace anvil::app {

class CurveView : public QWidget {
    Q_OBJECT
public:
    explicit CurveView(QWidget* parent = nullptr);

    /// Shows one pull's curve with its landmarks, and other force channels (N, at the same samples) beside
    /// it.
    void showCurve(std::shared_ptr<const curve::ReadCurve> curve, const quantity::Units& units,
                   const curve::ReadingSettings& settings, std::vector<curve::Channel> legs = {});
    /// How the next curve is drawn: against the time though it has a travel, and with other values of the
    /// load (SI, at the same samples) behind it, such as those that were logged.
    void setByTime(bool byTime) { m_byTime = byTime; }
    void setBehind(const QString& name, std::vector<double> load) {
        m_behind = name;
        m_logged = std::move(load);
    }
    /// Lines to see the next curve against, on the axis of its load in these units.
    void setLines(std::vector<chart::CurveChart::Line> lines) { m_lines = std::move(lines); }
    /// What is seen of the curve: times of its first and last sample in view, s.
    std::pair<double, double> timesInView() const;
    const chart::Plane& plane() const { return m_plane; }
    bool zoomed() const;
    /// Shows ready-made traces without landmarks.
    void showOverlay(chart::CurveChart chart);
    void showNothing(const QString& sentence);
    void setMovable(bool movable) { m_movable = movable; }
    /// Where a landmark is drawn; null if it is not in view.
    QPoint placeOf(project::Handle handle) const;
    void resetZoom();
    const chart::Picture& picture() const { return m_picture; }

signals:
    /// Another part of the curve is seen.
    void viewChanged();
    /// A landmark was let go at a time of the run, in s.
    void landmarkMoved(anvil::project::Handle handle, double time);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Pin {
        project::Handle handle;
        QString name;
        std::size_t index;
        bool byHand;
    };
    void rebuild();
    std::size_t sampleNear(const QPointF& at) const;
    Pin* pinAt(const QPointF& at);

    std::shared_ptr<const curve::ReadCurve> m_curve;
    std::vector<double> m_x, m_y; ///< in display units
    curve::Pyramid m_pyramid;
    struct Leg {
        std::string name;
        std::vector<double> y; ///< in display units
        curve::Pyramid pyramid;
    };
    std::vector<Leg> m_legs;
    std::vector<Pin> m_pins;
    struct Seen {
        double x0, x1, y0, y1;
    };
    void look(const Seen& at);
    void lookAt(Seen at);
    void zoomBy(double factor, double at);
    std::vector<Seen> m_before;   ///< what was seen, for going back
    std::optional<QPointF> m_box; ///< where a box was begun
    std::vector<chart::CurveChart::Line> m_lines;
    QString m_behind; ///< what they are called
    std::vector<double> m_logged, m_loggedY;
    curve::Pyramid m_loggedPyramid;
    bool m_byTime = false, m_time = false; ///< wanted; and what is shown
    double m_fullY0 = 0, m_fullY1 = 1;
    chart::CurveChart m_chart;
    chart::Plane m_plane;
    chart::Picture m_picture;
    QString m_sentence;
    bool m_movable = true;
    int m_grabbed = -1; ///< pin being dragged
    int m_chosen = -1;  ///< pin chosen by key
    bool m_panning = false;
    QPointF m_last;
    double m_fullX0 = 0, m_fullX1 = 1;
    std::optional<double> m_calibratedTo; ///< of the curve shown, in display units
};

} // namespace anvil::app
