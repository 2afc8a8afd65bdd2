// The board: options down, conditions across, one mark a replicate. Map, navigator and progress bar of the
// study.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/domain/pulls_of_pieces.h>

class QPainter;

namespace anvil::app {

class Board : public QWidget {
    Q_OBJECT
public:
    explicit Board(Session& session, QWidget* parent = nullptr);
    QSize sizeHint() const override;
    /// Folded to a rail: short names, and where marks do not fit, how many.
    void setRail(bool rail);
    bool rail() const { return m_rail; }
    /// As wide as what it shows.
    int wantedWidth() const;
    /// Where a pull's mark is; null if it is not drawn.
    QPoint placeOf(Id pull) const;
    QRect squareOf(Id option, Id condition) const;
    /// What pointing at a place says; for tips and tests.
    QString tipAt(const QPoint& at) const;

signals:
    void importWanted();
    void chosen(); ///< a mark or a square was clicked, or walked to

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    enum class State { toMake, preparing, ready, counts, atLeast, atMost, between, aside, voided, notRead };
    struct MarkAt {
        QRect rect;
        Id pull = 0, specimen = 0;
        State state = State::toMake;
        bool look = false;
        bool otherEnd = false; ///< at the other end of another option's piece
    };
    struct Square {
        QRect rect;
        Id option = 0, condition = 0; ///< condition 0: all of them in one, in a narrow rail
        bool struck = false;          ///< will not be tested
        QString count;                ///< "5 of 7" where marks do not fit
        bool stacked = false;         ///< the count stands above the marks
    };
    struct Head {
        QRect rect;
        QString name, shown;
        bool condition = false;
    };
    void relayout();
    /// The width of a square that shows all its marks, and of the names.
    int wantedColumn(const domain::StudyData& data) const;
    int wantedNames(const domain::StudyData& data) const;
    /// All conditions of an option in one square: more than a rail has room for.
    bool gathered(const domain::StudyData& data) const;
    void paintHead(QPainter& painter, const Head& head) const;
    std::vector<MarkAt> marksOf(const domain::StudyData& data, const domain::PullsOfPieces& pulls, Id option,
                                Id condition) const;
    /// Gives the marks their places within the square; where there are too many, those that stand out.
    void place(Square& square, std::vector<MarkAt>& marks) const;
    static State stateOf(domain::Standing standing);
    void paintState(QPainter& painter, const QRectF& b, State state) const;
    void paintMark(QPainter& painter, const QRect& rect, State state, bool selected, bool look) const;
    void paintLegend(QPainter& painter) const;
    void paintOtherEnd(QPainter& painter, const QRect& mark) const;
    static QString word(State state);

    Session& m_session;
    std::vector<MarkAt> m_marks;
    std::vector<Square> m_squares;
    std::vector<Head> m_heads;
    bool m_rail = false;
    int m_bottom = 0;
    double m_prepared = 1; ///< share of the preparation that lies behind
    bool m_overdue = false;
};

} // namespace anvil::app
