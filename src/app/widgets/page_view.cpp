#include "widgets/page_view.h"

#include "shell/session.h"
#include "theme/theme.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace anvil::app {
namespace {

constexpr int fewestRows = 6;

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
    list->setMinimumHeight(26 * std::clamp(list->count(), 1, fewestRows) + 8);
}

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
        table->verticalHeader()->setDefaultSectionSize(24);
        table->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);
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
        QObject::connect(picture, &PictureView::pullClicked, &view, &PageView::pullClicked);
        QObject::connect(picture, &PictureView::pullActivated, &view, &PageView::pullActivated);
        return picture;
    }
    QWidget* operator()(const pages::Choice& c) const {
        auto* box = new QWidget;
        auto* row = new QHBoxLayout(box);
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(plainLabel());
        auto* options = new QComboBox;
        options->setObjectName(qs(c.key));
        row->addWidget(options);
        row->addStretch();
        QObject::connect(options, &QComboBox::activated, &view, [v = &view, options] {
            emit v->chosen(options->objectName(), options->currentData().toString());
        });
        return box;
    }
    QWidget* operator()(const pages::Offers& o) const {
        auto* box = new QWidget;
        auto* layout = new QHBoxLayout(box);
        layout->setContentsMargins(0, 0, 0, 0);
        auto* list = sentenceList();
        list->setObjectName(qs(o.key));
        layout->addWidget(list, 1);
        auto* row = new QVBoxLayout; // beside it: height is what a page is short of
        for (const auto& [key, title] : o.actions) {
            auto* button = new QPushButton(qs(title));
            button->setObjectName(qs(key));
            const auto act = [v = &view, list, key = qs(key)] {
                emit v->acted(list->objectName(), key, std::max(0, list->currentRow()));
            };
            QObject::connect(button, &QPushButton::clicked, &view, act);
            if (row->count() == 0) QObject::connect(list, &QListWidget::itemActivated, &view, act);
            row->addWidget(button);
        }
        row->addStretch();
        layout->addLayout(row);
        return box;
    }
};

struct Filler {
    QWidget* widget;

    void operator()(const pages::Heading& h) const { static_cast<QLabel*>(widget)->setText(qs(h.text)); }
    void operator()(const pages::Paragraph& p) const { static_cast<QLabel*>(widget)->setText(qs(p.text)); }
    void operator()(const pages::Bullets& b) const { fillList(static_cast<QListWidget*>(widget), b.items); }
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
        table->setMinimumHeight(24 * (std::min(table->rowCount(), fewestRows) + 1) + 10);
    }
    void operator()(const pages::Figure& f) const {
        auto* picture = static_cast<PictureView*>(widget);
        picture->setAccessibleName(qs(f.caption));
        picture->setBuild(f.draw);
    }
    void operator()(const pages::Choice& c) const {
        widget->findChild<QLabel*>()->setText(qs(c.title));
        auto* options = widget->findChild<QComboBox*>();
        options->setAccessibleName(qs(c.title));
        options->clear();
        for (const auto& [key, title] : c.options)
            options->addItem(qs(title), qs(key));
        options->setCurrentIndex(options->findData(qs(c.chosen)));
    }
    void operator()(const pages::Offers& o) const {
        auto* list = widget->findChild<QListWidget*>();
        fillList(list, o.sentences.empty() ? std::vector{o.none} : o.sentences);
        for (auto* button : widget->findChildren<QPushButton*>())
            button->setVisible(!o.sentences.empty());
    }
};

/// Lists and tables take the room that is left.
bool grows(const pages::Block& block) {
    return std::holds_alternative<pages::Bullets>(block) || std::holds_alternative<words::Table>(block) ||
           std::holds_alternative<pages::Offers>(block);
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
}

void PageView::show(const pages::Page& page) {
    bool same = m_shown.size() == page.blocks.size();
    for (std::size_t i = 0; same && i < m_shown.size(); ++i)
        same = m_shown[i].kind == page.blocks[i].index();
    if (!same) {
        while (auto* item = m_layout->takeAt(0)) {
            if (item->widget()) { // it may be what has just been clicked
                item->widget()->hide();
                item->widget()->setParent(nullptr);
                item->widget()->deleteLater();
            }
            delete item;
        }
        m_shown.clear();
        bool filled = false;
        for (const auto& block : page.blocks) {
            auto* widget = std::visit(Maker{*this}, block);
            m_layout->addWidget(widget, grows(block) ? 1 : 0);
            filled = filled || grows(block);
            m_shown.push_back({block.index(), widget});
        }
        if (!filled) m_layout->addStretch();
    }
    for (std::size_t i = 0; i < m_shown.size(); ++i)
        std::visit(Filler{m_shown[i].widget}, page.blocks[i]);
}

void PageView::freeze() {
    for (auto* picture : findChildren<PictureView*>())
        picture->freeze();
}

} // namespace anvil::app
