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

    explicit PictureView(QWidget* parent = nullptr);
    void setBuild(Build build);
    void rebuild();
    /// Keeps the picture and builds no other, whatever the width.
    void freeze() { m_build = nullptr; }
    const chart::Picture& picture() const { return m_picture; }
    QSize sizeHint() const override;
    /// Where a pull's mark is, for tests and keyboard users; null if it is not shown.
    QPoint placeOf(long long pull) const;

signals:
    void pullClicked(long long pull);
    void pullActivated(long long pull); ///< double click

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

private:
    const chart::Hit* hitAt(const QPointF& at) const;
    Build m_build;
    chart::Picture m_picture;
};

} // namespace anvil::app
