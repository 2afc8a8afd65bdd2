// A photograph on which places are clicked, dragged and nudged.
#pragma once

#include "widgets/photo.h"
#include <QWidget>
#include <anvil/methods/picture.h>
#include <optional>

namespace anvil::app {

class MarkedPicture : public QWidget {
    Q_OBJECT
public:
    /// What a click begins or goes on with: the known length, the known rectangle, or a mark.
    enum class Tool { length, rectangle, distance, angle, area, whole };

    MarkedPicture(const Photo& picture, methods::PictureMarks marks, QWidget* parent = nullptr);

    const methods::PictureMarks& marks() const { return m_marks; }
    /// Changes what is not clicked: known lengths, names, what a click is good to.
    void setMarks(methods::PictureMarks marks);
    void setTool(Tool tool);
    Tool tool() const { return m_tool; }
    /// How many places of what the tool begins are clicked already; 0: nothing was begun.
    std::size_t begun() const { return m_begun.size(); }
    void removeMark(std::size_t mark);
    /// The mark drawn strongest; none: no mark.
    void select(std::optional<std::size_t> mark);
    /// Where a place of the picture is drawn, and the other way round.
    QPointF shownAt(const methods::PicturePoint& place) const;
    methods::PicturePoint placeAt(const QPointF& shown) const;

signals:
    void changed();
    void toolFinished(); ///< what was begun is complete
    void markPicked(int mark);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QSize sizeHint() const override { return {760, 560}; }
    QSize minimumSizeHint() const override { return {320, 240}; }

private:
    /// A place that can be moved: of the scale (mark −1), of what was begun (−2) or of a mark.
    struct Grip {
        int mark = -1;
        std::size_t point = 0;
    };
    static constexpr int ofScale = -1, ofBegun = -2;
    std::vector<methods::PicturePoint>& pointsOf(int mark);
    /// A place as it is kept, in pixels of the picture as it is turned, and back; `keptWithin` the nearest on
    /// it.
    QPointF onPicture(const methods::PicturePoint& place) const;
    methods::PicturePoint kept(const QPointF& on) const;
    methods::PicturePoint keptWithin(const QPointF& on) const;
    std::optional<Grip> gripAt(const QPointF& at);
    void add(const methods::PicturePoint& place);
    void finish();
    void zoomBy(double factor, const QPointF& about);
    double fit() const;
    QPixmap m_picture;
    QTransform m_turn; ///< from places as they are kept to pixels of the picture
    methods::PictureMarks m_marks;
    std::vector<methods::PicturePoint> m_begun;
    Tool m_tool = Tool::length;
    std::optional<std::size_t> m_selected;
    std::optional<Grip> m_grip;
    bool m_dragging = false, m_panning = false;
    QPointF m_last;
    double m_zoom = 1;
    QPointF m_shift; ///< of the picture's middle from the widget's, px on screen
};

} // namespace anvil::app
