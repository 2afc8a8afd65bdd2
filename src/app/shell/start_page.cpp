#include "shell/start_page.h"

#include "theme/theme.h"
#include "widgets/picture_button.h"
#include "widgets/plain_text.h"
#include <QBoxLayout>
#include <QFileInfo>
#include <QLabel>
#include <QLocale>
#include <QPainter>
#include <QPushButton>
#include <anvil/chart/painter.h>

namespace anvil::app {
namespace {

constexpr int widest = 1080, ladderWidth = 130;
int rowHeight() { return grown(46); }

/// A project opened lately: its question, how far it is, who leads, and the ladder it ended with.
class RecentRow : public QAbstractButton {
public:
    explicit RecentRow(preferences::Recent recent) : m_recent(std::move(recent)) {
        setFocusPolicy(Qt::StrongFocus);
        setCursor(Qt::PointingHandCursor);
        setFixedHeight(rowHeight());
        setText(m_recent.question.isEmpty() ? QFileInfo(m_recent.path).completeBaseName()
                                            : m_recent.question);
        setAccessibleName(text());
        setAccessibleDescription(m_recent.progress + ". " + m_recent.leads);
        setTip(this, m_recent.path);
    }

protected:
    void enterEvent(QEnterEvent*) override { update(); }
    void leaveEvent(QEvent*) override { update(); }
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const auto& t = theme();
        if (underMouse() || hasFocus()) {
            painter.setPen(QPen(t.accent, hasFocus() ? 2 : 1));
            painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
        }
        const int date = grown(88), words = width() - ladderWidth - date - 60;
        const auto line = [&](const QString& text, int y, bool bold, const QColor& ink) {
            auto f = font();
            f.setBold(bold);
            painter.setFont(f);
            painter.setPen(ink);
            painter.drawText(QRect(10, grown(y), words, grown(18)), Qt::AlignVCenter,
                             painter.fontMetrics().elidedText(text, Qt::ElideRight, words));
        };
        line(text(), 5, true, t.text);
        line(m_recent.leads.isEmpty() ? m_recent.progress : m_recent.progress + "  \u00b7  " + m_recent.leads,
             23, false, t.faint);
        painter.save();
        painter.translate(width() - date - ladderWidth - 28, 7);
        chart::paint(painter, chart::smallLadder(m_recent.rungs, ladderWidth, rowHeight() - 14), t.charts(),
                     false);
        painter.restore();
        painter.setPen(t.faint);
        painter.setFont(font());
        painter.drawText(QRect(width() - date - 8, 0, date, height()), Qt::AlignRight | Qt::AlignVCenter,
                         QLocale().toString(m_recent.on, QStringLiteral("d MMM yyyy")));
    }

private:
    preferences::Recent m_recent;
};

} // namespace

StartPage::StartPage(QWidget* parent) : QScrollArea(parent) {
    auto* page = new QWidget;
    setWidget(page);
    setWidgetResizable(true);
    setFocusPolicy(Qt::NoFocus); // what is in it has the focus
    viewport()->setAutoFillBackground(false);
    page->setAutoFillBackground(false);
    auto* outer = new QHBoxLayout(page);
    auto* middle = new QWidget;
    middle->setMaximumWidth(grown(widest));
    outer->addStretch();
    outer->addWidget(middle, 100);
    outer->addStretch();
    auto* layout = new QVBoxLayout(middle);
    layout->setSpacing(12);
    layout->addSpacing(16);
    auto* head = plainLabel(tr("What do you want to do?"));
    head->setObjectName("pageHead");
    layout->addWidget(head);
    layout->addLayout(makeDoors());
    layout->addLayout(makeOthers());
    m_recent = new QWidget;
    m_rows = new QVBoxLayout(m_recent);
    m_rows->setContentsMargins(0, 8, 0, 0);
    m_rows->setSpacing(2);
    layout->addWidget(m_recent);
    layout->addStretch();
}

QLayout* StartPage::makeDoors() {
    using chart::FirstStep;
    auto* row = new QHBoxLayout;
    row->setSpacing(12);
    const auto door = [&](FirstStep step, const QString& title, const QString& text) {
        auto* button = new PictureButton(chart::startPicture(step), title, text);
        connect(button, &QAbstractButton::clicked, this, [this, step] { emit wanted(step); });
        row->addWidget(button, 1, Qt::AlignTop);
        return button;
    };
    door(FirstStep::plan, tr("Plan a test"),
         tr("Before anything breaks: what you compare, how many of each, and what that can tell."));
    door(FirstStep::logs, tr("I have logs or a table"),
         tr("Files of a logger or a sheet of results: choose them, or drop them anywhere on this window."));
    door(FirstStep::practise, tr("Practise"),
         tr("On a bench that is not there: zero, pull and judge three unknown pins, and hear how you did."));
    door(FirstStep::example, tr("Look at a worked example"),
         tr("A copy of finished studies of a made-up co-operative, to look around in and to change."));
    return row;
}

QLayout* StartPage::makeOthers() {
    auto* row = new QHBoxLayout;
    const auto link = [&](const QString& text, auto signal) {
        auto* button = new QPushButton(text);
        connect(button, &QPushButton::clicked, this, signal);
        row->addWidget(button);
    };
    link(tr("Open a project…"), &StartPage::openWanted);
    link(tr("A table of results…"), &StartPage::tableWanted);
    link(tr("Paste results"), &StartPage::pasteWanted);
    row->addStretch();
    return row;
}

void StartPage::showEvent(QShowEvent* event) {
    refresh();
    QScrollArea::showEvent(event);
}

void StartPage::refresh() {
    while (auto* item = m_rows->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    for (const auto& recent : preferences::recent()) {
        if (!QFileInfo::exists(recent.path)) continue;
        if (m_rows->count() == 0) {
            auto* head = plainLabel(tr("Lately"));
            head->setObjectName("section");
            m_rows->addWidget(head);
        }
        auto* row = new RecentRow(recent);
        // Once the row has done with its click: opening may rebuild this list.
        connect(
            row, &QAbstractButton::clicked, this, [this, path = recent.path] { emit projectWanted(path); },
            Qt::QueuedConnection);
        m_rows->addWidget(row);
    }
    m_recent->setVisible(m_rows->count() > 0);
}

} // namespace anvil::app
