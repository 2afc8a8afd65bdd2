#include "widgets/page_view.h"

#include "shell/session.h"
#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include "widgets/offer_rows.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/weight_rows.h"
#include <QComboBox>
#include <QEvent>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QStyle>
#include <QTableWidget>
#include <QVBoxLayout>

namespace anvil::app {
namespace {

constexpr int fewestRows = 6, roomyWidth = 1000, sideWidth = 270;
constexpr std::size_t mostLeads = 3, largeLetters = 220;

QListWidget* sentenceList() {
    auto* list = new QListWidget;
    list->setWordWrap(true);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored); // the least height is by its rows
    return list;
}

void fillList(QListWidget* list, const std::vector<std::string>& items) {
    const int row = std::max(0, list->currentRow());
    list->clear();
    for (const auto& item : items)
        list->addItem(qs(item));
    list->setCurrentRow(std::min(row, list->count() - 1));
    list->setMinimumHeight(grown(26) * std::clamp(list->count(), 1, fewestRows) + 8);
}

/// A choice with what each of its options does.
struct ChoiceRow : QWidget {
    std::vector<std::optional<pages::Action>> actions;
};

/// What a block becomes. A widget is made empty by `make` and filled by `fill`, which may come again.
struct Maker {
    PageView& view;

    static QLabel* label() {
        auto* l = plainLabel();
        l->setWordWrap(true);
        l->setTextInteractionFlags(Qt::TextSelectableByMouse);
        return l;
    }
    QWidget* operator()(const pages::Heading&) const {
        auto* l = label();
        l->setObjectName("section");
        return l;
    }
    QWidget* operator()(const pages::Paragraph& p) const {
        auto* l = label();
        if (p.style == pages::Paragraph::Style::lead) l->setObjectName("sentence");
        if (p.style == pages::Paragraph::Style::small) l->setObjectName("faint");
        return l;
    }
    QWidget* operator()(const pages::Bullets& b) const {
        if (b.few) return label();
        auto* list = sentenceList();
        list->setSelectionMode(QAbstractItemView::NoSelection); // to be read; there is nothing to choose
        list->setObjectName(qs(b.key));
        return list;
    }
    QWidget* operator()(const words::Table& t) const {
        auto* table = new QTableWidget;
        table->setObjectName(qs(t.key));
        table->setEditTriggers(QAbstractItemView::NoEditTriggers);
        table->verticalHeader()->hide();
        table->verticalHeader()->setDefaultSectionSize(grown(24));
        table->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);
        giveTableMenu(table);
        const auto opened = [v = &view, table](int row, int column) {
            emit v->cellOpened(table->objectName(), table->item(row, column)->data(Qt::UserRole).toLongLong(),
                               table->horizontalHeaderItem(column)->data(Qt::UserRole).toString());
        };
        QObject::connect(table, &QTableWidget::cellActivated, &view, opened);
        QObject::connect(table, &QTableWidget::cellDoubleClicked, &view, opened);
        return table;
    }
    QWidget* operator()(const pages::Figure& f) const {
        auto* picture = new PictureView;
        picture->setObjectName(qs(f.key));
        QObject::connect(picture, &PictureView::clicked, &view, &PageView::figureClicked);
        QObject::connect(picture, &PictureView::activated, &view, &PageView::figureActivated);
        return picture;
    }
    QWidget* operator()(const pages::Choice& c) const {
        auto* box = new ChoiceRow;
        auto* row = new QHBoxLayout(box);
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(plainLabel());
        auto* options = new QComboBox;
        options->setObjectName(qs(c.key));
        row->addWidget(options);
        row->addStretch();
        QObject::connect(options, &QComboBox::activated, &view, [v = &view, box](int at) {
            const auto action = static_cast<ChoiceRow*>(box)->actions.at(static_cast<std::size_t>(at));
            if (action) emit v->wanted(*action); // a copy: the box may be filled anew
        });
        return box;
    }
    QWidget* operator()(const pages::Offers& o) const {
        auto* rows = new OfferRows;
        rows->setObjectName(qs(o.key));
        QObject::connect(rows, &OfferRows::wanted, &view, &PageView::wanted);
        return rows;
    }
    QWidget* operator()(const pages::Weights& w) const {
        auto* rows = new WeightRows;
        rows->setObjectName(qs(w.key));
        auto* v = &view;
        QObject::connect(rows, &WeightRows::dragged, v, [v, rows] { emit v->dragged(rows->weights()); });
        QObject::connect(rows, &WeightRows::weighed, v, [v, rows](int which) {
            emit v->weighed(which, rows->weights()[static_cast<std::size_t>(which)]);
        });
        QObject::connect(rows, &WeightRows::removed, v, [v](int which) {
            emit v->wanted(pages::RemoveCriterion{static_cast<std::size_t>(which)});
        });
        return rows;
    }
};

struct Filler {
    QWidget* widget;

    void operator()(const pages::Heading& h) const { static_cast<QLabel*>(widget)->setText(qs(h.text)); }
    void operator()(const pages::Paragraph& p) const { static_cast<QLabel*>(widget)->setText(qs(p.text)); }
    void operator()(const pages::Bullets& b) const {
        auto* label = qobject_cast<QLabel*>(widget); // few, or beside a figure
        if (!label) return fillList(static_cast<QListWidget*>(widget), b.items);
        QStringList items;
        for (const auto& item : b.items)
            items << qs(item);
        label->setText(items.join(b.few ? "\n" : "\n\n"));
    }
    void operator()(const words::Table& t) const {
        auto* table = static_cast<QTableWidget*>(widget);
        table->setColumnCount(static_cast<int>(t.columns.size()));
        table->setRowCount(static_cast<int>(t.rows.size()));
        for (int k = 0; k < table->columnCount(); ++k) {
            const auto& column = t.columns[static_cast<std::size_t>(k)];
            auto* head = new QTableWidgetItem(qs(column.title));
            head->setData(Qt::UserRole, qs(column.key));
            table->setHorizontalHeaderItem(k, head);
            for (int i = 0; i < table->rowCount(); ++i) {
                const auto& row = t.rows[static_cast<std::size_t>(i)];
                auto* item = new QTableWidgetItem(qs(row.cells[static_cast<std::size_t>(k)]));
                item->setData(Qt::UserRole, row.of);
                if (column.number) {
                    item->setFont(figures(13, column.key == "mean"));
                    item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                }
                setTip(item, QObject::tr("Enter: where this number comes from"));
                table->setItem(i, k, item);
            }
        }
        table->resizeColumnsToContents();
        table->setMinimumHeight(grown(24) * (std::min(table->rowCount(), fewestRows) + 1) + 10);
    }
    void operator()(const pages::Figure& f) const {
        auto* picture = static_cast<PictureView*>(widget);
        picture->setAccessibleName(qs(f.caption));
        picture->setFocusPolicy(Qt::StrongFocus); // to be copied by key
        picture->setBuild(f.draw);
    }
    void operator()(const pages::Choice& c) const {
        widget->findChild<QLabel*>()->setText(qs(c.title));
        auto* options = widget->findChild<QComboBox*>();
        options->setAccessibleName(qs(c.title));
        options->clear();
        auto& actions = static_cast<ChoiceRow*>(widget)->actions;
        actions.clear();
        for (const auto& option : c.options) {
            options->addItem(qs(option.title), qs(option.key));
            actions.push_back(option.action);
        }
        options->setCurrentIndex(options->findData(qs(c.chosen)));
    }
    void operator()(const pages::Offers& o) const { static_cast<OfferRows*>(widget)->show(o); }
    void operator()(const pages::Weights& w) const { static_cast<WeightRows*>(widget)->show(w); }
};

/// Figures, lists and tables take the room that is left.
bool grows(const pages::Block& block) {
    if (const auto* bullets = std::get_if<pages::Bullets>(&block)) return !bullets->few;
    return std::holds_alternative<words::Table>(block) || std::holds_alternative<pages::Figure>(block);
}

bool isBeside(const pages::Page& page, std::size_t block) {
    return std::find(page.beside.begin(), page.beside.end(), block) != page.beside.end();
}

} // namespace

PageView::PageView(QWidget* parent) : QScrollArea(parent) {
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::NoFocus);              // what is in it has the focus
    viewport()->setAutoFillBackground(false); // the panel shows through
    auto* inside = new QWidget;
    m_layout = new QVBoxLayout(inside);
    m_layout->setContentsMargins(0, 0, 0, 0);
    setWidget(inside);
    inside->setAutoFillBackground(false); // setWidget turns it on
    inside->installEventFilter(this);
}

void PageView::show(const pages::Page& page) {
    bool same = m_shown.size() == page.blocks.size();
    for (std::size_t i = 0; same && i < m_shown.size(); ++i)
        same = m_shown[i].kind == page.blocks[i].index() && m_shown[i].beside == isBeside(page, i);
    if (!same) {
        for (auto* layout : {static_cast<QLayout*>(m_layout), static_cast<QLayout*>(m_corner)})
            while (auto* item = layout ? layout->takeAt(0) : nullptr) {
                if (item->widget()) { // it may be what has just been clicked
                    item->widget()->hide();
                    item->widget()->setParent(nullptr);
                    item->widget()->deleteLater();
                    if (item->widget() == m_more) m_more = nullptr;
                }
                delete item;
            }
        m_shown.clear();
        build(page);
    }
    for (std::size_t i = 0; i < m_shown.size(); ++i)
        std::visit(Filler{m_shown[i].widget}, page.blocks[i]);
    sizeLeads(page);
}

void PageView::build(const pages::Page& page) {
    m_row = nullptr;
    QBoxLayout* side = nullptr;
    if (!page.beside.empty()) { // the figure, and what stands beside it
        auto* both = new QWidget;
        m_row = new QBoxLayout(QBoxLayout::LeftToRight, both);
        m_row->setContentsMargins(0, 0, 0, 0);
        m_row->setSpacing(12);
        auto* column = new QWidget;
        side = new QVBoxLayout(column);
        side->setContentsMargins(0, 0, 0, 0);
        m_row->addWidget(column);
    }
    bool filled = false;
    for (std::size_t i = 0; i < page.blocks.size(); ++i) {
        const auto& block = page.blocks[i];
        const bool beside = isBeside(page, i);
        const bool listed = beside && std::holds_alternative<pages::Bullets>(block);
        auto* widget = listed ? Maker::label() : std::visit(Maker{*this}, block);
        m_shown.push_back({block.index(), widget, beside, nullptr});
        if (beside) {
            side->addWidget(widget);
        } else if (m_row && std::holds_alternative<pages::Figure>(block)) {
            m_row->insertWidget(0, widget, 1);
            m_layout->addWidget(m_row->parentWidget(), 1);
        } else {
            const auto* choice = std::get_if<pages::Choice>(&block);
            if (choice && choice->inPage && i > 0 && m_shown[i - 1].row) { // beside the one before it
                m_shown[i].row = m_shown[i - 1].row;
                m_shown[i].row->insertWidget(m_shown[i].row->count() - 1, widget);
            } else if (choice && choice->inPage) {
                auto* row = new QWidget;
                m_shown[i].row = new QHBoxLayout(row);
                m_shown[i].row->setContentsMargins(0, 0, 0, 0);
                m_shown[i].row->addWidget(widget);
                m_shown[i].row->addStretch();
                m_layout->addWidget(row);
            } else {
                auto* place = m_corner && choice ? m_corner : m_layout;
                place->addWidget(widget, grows(block) ? 1 : 0);
            }
        }
        filled = filled || (grows(block) && !beside);
    }
    if (side) side->addStretch();
    if (!filled) m_layout->addStretch();
    placeSide();
}

/// Beside the figure where there is room for both, below it where there is not.
void PageView::placeSide() {
    if (!m_row) return;
    const bool roomy = width() >= grown(roomyWidth);
    m_row->setDirection(roomy ? QBoxLayout::LeftToRight : QBoxLayout::TopToBottom);
    if (auto* column = m_row->itemAt(1)->widget()) {
        column->setMinimumWidth(roomy ? grown(sideWidth) : 0);
        column->setMaximumWidth(roomy ? grown(sideWidth) : QWIDGETSIZE_MAX);
    }
}

void PageView::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    placeSide();
    giveRoom();
}

/// A scroll area does not ask how high wrapped text is at this width, and would squeeze what is between it.
void PageView::giveRoom() {
    const int wide = viewport()->width();
    if (wide > 0) widget()->setMinimumHeight(std::max(0, m_layout->minimumHeightForWidth(wide)));
}

bool PageView::eventFilter(QObject* watched, QEvent* event) {
    if (watched == widget() && event->type() == QEvent::LayoutRequest) giveRoom();
    return QScrollArea::eventFilter(watched, event);
}

/// One or two sentences are the answer, and are large; of many the first few stand there, the rest unfolds.
void PageView::sizeLeads(const pages::Page& page) {
    std::vector<QLabel*> leads;
    for (std::size_t i = 0; i < m_shown.size(); ++i)
        if (const auto* p = std::get_if<pages::Paragraph>(&page.blocks[i]);
            p && p->style == pages::Paragraph::Style::lead)
            leads.push_back(static_cast<QLabel*>(m_shown[i].widget));
    std::size_t letters = 0;
    for (const auto* label : leads)
        letters += static_cast<std::size_t>(label->text().size());
    for (std::size_t i = 0; i < leads.size(); ++i) {
        const auto name = letters <= largeLetters ? QStringLiteral("answer") : QStringLiteral("sentence");
        if (leads[i]->objectName() != name) {
            leads[i]->setObjectName(name);
            leads[i]->style()->polish(leads[i]); // the sheet goes by names
        }
        leads[i]->setVisible(m_unfolded || i < mostLeads);
    }
    const auto more = leads.size() > mostLeads ? leads.size() - mostLeads : 0;
    if (!m_more) {
        m_more = new QPushButton(widget());
        connect(m_more, &QPushButton::clicked, this, [this] {
            m_unfolded = true;
            m_more->hide();
            for (auto* label : widget()->findChildren<QLabel*>(QStringLiteral("sentence")))
                label->show();
        });
    }
    m_layout->removeWidget(m_more);
    if (more) m_layout->insertWidget(m_layout->indexOf(leads.back()) + 1, m_more, 0, Qt::AlignLeft);
    m_more->setText(tr("%1 more").arg(more));
    m_more->setVisible(more > 0 && !m_unfolded);
}

void PageView::freeze() {
    for (auto* picture : findChildren<PictureView*>())
        picture->freeze();
}

} // namespace anvil::app
