// A button that is a drawing with words: a card that is pressed.
#pragma once

#include <QAbstractButton>
#include <anvil/chart/picture.h>

namespace anvil::app {

class PictureButton : public QAbstractButton {
    Q_OBJECT
public:
    /// The drawing above, its title beneath, then what it is for; without one the card is as high as its
    /// title.
    PictureButton(chart::Picture picture, const QString& title, const QString& text = {},
                  QWidget* parent = nullptr);
    /// Another drawing and title.
    void show(chart::Picture picture, const QString& title);
    using QAbstractButton::show;
    /// The drawing so many times as large.
    void setScale(double scale);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void enterEvent(QEnterEvent* event) override;
    void leaveEvent(QEvent* event) override;

private:
    QFont titleFont() const;
    /// How large the drawing is on a button of a width: never wider than that.
    QSize drawn(int width) const;
    QRect textRect(int width, const QFont& font, const QString& text) const;
    chart::Picture m_picture;
    QString m_text;
    double m_scale = 1;
};

} // namespace anvil::app
