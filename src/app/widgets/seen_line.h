// A line from a device in coloured parts, each with what it is taken as written below it.
#pragma once

#include <QWidget>
#include <anvil/columns/line.h>
#include <anvil/rig/lines.h>

namespace anvil::app {

class SeenLine : public QWidget {
    Q_OBJECT
public:
    explicit SeenLine(QWidget* parent = nullptr);
    /// Shows the parts of a line under a layout; nothing for an empty line.
    void show(const QString& line, const rig::Layout& layout);
    /// The parts with their meanings, "Load = label | 71.61 = force | kg = unit", for those who hear the
    /// window.
    QString text() const;
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    struct Piece {
        QString text, meaning;
        columns::LinePart::Kind kind = columns::LinePart::Kind::other;
    };
    std::vector<Piece> m_pieces;
};

} // namespace anvil::app
