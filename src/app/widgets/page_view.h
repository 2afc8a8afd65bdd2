// A page in the window: its blocks as widgets, one below the other.
#pragma once

#include <QScrollArea>
#include <anvil/pages/block.h>
#include <vector>

class QBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace anvil::app {

class PageView : public QScrollArea {
    Q_OBJECT
public:
    explicit PageView(QWidget* parent = nullptr);
    /// Where a page's choices stand, outside of it.
    void setCorner(QBoxLayout* corner) { m_corner = corner; }
    /// Shows a page. Widgets stay where the same kinds of blocks come again, so that focus and place are
    /// kept.
    void show(const pages::Page& page);
    /// Keeps what is seen but draws nothing anew: what the figures are made from may be gone.
    void freeze();

signals:
    void wanted(const pages::Action& action); ///< a choice, or a button of an offer
    void figureClicked(const chart::HitOf& of);
    void figureActivated(const chart::HitOf& of); ///< clicked twice
    /// A cell was opened: the row tells of `of`, the column has this key.
    void cellOpened(const QString& table, long long of, const QString& column);
    /// Weights are being dragged: all of them as they stand.
    void dragged(const std::vector<double>& weights);
    /// One has come to rest.
    void weighed(int which, double weight);

private:
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void giveRoom();
    void build(const pages::Page& page);
    void placeSide();
    void sizeLeads(const pages::Page& page);
    QVBoxLayout* m_layout;
    QBoxLayout* m_corner = nullptr;
    QPushButton* m_more = nullptr;
    QBoxLayout* m_row = nullptr; ///< the figure with what stands beside it; none where nothing does
    bool m_unfolded = false;
    struct Shown {
        std::size_t kind;
        QWidget* widget;
        bool beside;
        QBoxLayout* row; ///< of choices that stand in the page
    };
    std::vector<Shown> m_shown;
};

} // namespace anvil::app
