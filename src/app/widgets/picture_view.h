// Shows a chart picture that is rebuilt for the widget's width; answers to pointing and clicking.
#pragma once

#include <QWidget>
#include <anvil/chart/picture.h>
#include <functional>

namespace anvil::app {

class PictureView : public QWidget {
    Q_OBJECT
public:
    using Build = std::function<chart::Picture(double width)>;
    /// For pictures that may fill a height; 0: as high as they have to be.
    using BuildToFill = std::function<chart::Picture(double width, double height)>;

    explicit PictureView(QWidget* parent = nullptr);
    void setBuild(Build build);
    void setBuild(BuildToFill build);
    void rebuild();
    /// Keeps the picture and builds no other, whatever the width.
    void freeze() {
        m_build = nullptr;
        m_fill = nullptr;
    }
    const chart::Picture& picture() const { return m_picture; }
    /// Drawn anew at another width; 0: as it is on show.
    chart::Picture drawn(double width) const;
    QSize sizeHint() const override;
    /// Where a pull's mark is, for tests and keyboard users; null if it is not shown.
    QPoint placeOf(long long pull) const { return placeOf(chart::HitOf(chart::OfPull{pull})); }
    QPoint placeOf(const chart::HitOf& of) const;

signals:
    void clicked(const chart::HitOf& of);   ///< never of nothing
    void activated(const chart::HitOf& of); ///< double click

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

private:
    const chart::Hit* hitAt(const QPointF& at) const;
    Build m_build;
    BuildToFill m_fill;
    chart::Picture m_picture;
};

} // namespace anvil::app
