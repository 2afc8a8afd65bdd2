#include "stages/question/plan_board.h"

#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <anvil/plan/reach.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <utility>

namespace anvil::app {
namespace {

QStringList namesIn(QString text) {
    QStringList out;
    for (const auto& part : text.replace('\r', '\n').replace('\t', '\n').split('\n'))
        if (!part.simplified().isEmpty()) out << part.simplified();
    return out;
}

constexpr int gripWidth = 15, pixelsEach = 9; // dragging so far up or down is one replicate more or less
constexpr int countRole = Qt::UserRole;
constexpr int fewestRows = 8, around = 470; // px of the window that are not the board's

} // namespace

PlanBoard::PlanBoard(Session& session, QWidget* parent) : QTableWidget(parent), m_session(session) {
    setObjectName("planBoard");
    setAccessibleName(tr("Board: options down, conditions across, replicates in the squares"));
    horizontalHeader()->hide();
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(34);
    setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                    QAbstractItemView::EditKeyPressed);
    setSelectionMode(QAbstractItemView::ExtendedSelection);
    viewport()->setMouseTracking(true);
    setSizePolicy(QSizePolicy::Maximum,
                  QSizePolicy::Maximum); // as large as what is planned, while there is room
    connect(this, &QTableWidget::cellChanged, this, &PlanBoard::edited);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row, int column) {
        if (!m_filling && optionAt(row) && conditionAt(column))
            m_session.selectSquare(optionAt(row), conditionAt(column));
    });
    connect(&session, &Session::changed, this, &PlanBoard::refresh);
    connect(&session, &Session::unitsChanged, this, &PlanBoard::refresh);
    refresh();
}

QSize PlanBoard::sizeHint() const {
    // What counts stands beneath it, and should not have to be searched for: beyond that it scrolls.
    const int room =
        std::max(fewestRows * verticalHeader()->defaultSectionSize(), window()->height() - around);
    return {horizontalHeader()->length() + 2 * frameWidth() + 2,
            std::min(verticalHeader()->length(), room) + 2 * frameWidth()};
}

QSize PlanBoard::minimumSizeHint() const {
    const int most = fewestRows * verticalHeader()->defaultSectionSize();
    return {std::min(horizontalHeader()->length() + 2 * frameWidth() + 2, 420),
            std::min(verticalHeader()->length(), most) + 2 * frameWidth()};
}

Id PlanBoard::optionAt(int row) const {
    const auto* data = m_session.study();
    return data && row >= 1 && row <= static_cast<int>(data->options.size())
               ? data->options[static_cast<std::size_t>(row - 1)].id
               : 0;
}

Id PlanBoard::conditionAt(int column) const {
    const auto* data = m_session.study();
    return data && column >= 1 && column <= static_cast<int>(data->conditions.size())
               ? data->conditions[static_cast<std::size_t>(column - 1)].id
               : 0;
}

std::vector<std::pair<Id, Id>> PlanBoard::selectedSquares() const {
    std::vector<std::pair<Id, Id>> out;
    for (const auto& index : selectedIndexes())
        if (optionAt(index.row()) && conditionAt(index.column()))
            out.emplace_back(optionAt(index.row()), conditionAt(index.column()));
    return out;
}

/// Items are kept and told only what changed: replacing one would take the editor from under who types in it.
void PlanBoard::put(int row, int column, const Cell& cell) {
    auto* item = this->item(row, column);
    if (!item) setItem(row, column, item = new QTableWidgetItem);
    const auto flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                       (cell.editable && !m_session.readOnly() ? Qt::ItemIsEditable : Qt::NoItemFlags);
    if (item->flags() != flags) item->setFlags(flags);
    item->setText(cell.text);
    item->setForeground(cell.ink);
    auto f = font();
    f.setBold(cell.bold);
    item->setFont(f);
    setTip(item, cell.tip);
    item->setTextAlignment(cell.count.isValid() ? Qt::AlignCenter : Qt::AlignLeft | Qt::AlignVCenter);
    item->setData(countRole, cell.count);
}

PlanBoard::Cell PlanBoard::squareCell(const domain::StudyData& data, const results::Verdict& verdict,
                                      Id option, Id condition) const {
    const auto& t = theme();
    const auto* square = data.study.plan.square(option, condition);
    const int n = data.study.plan.replicatesOf(option, condition);
    int pulled = 0;
    for (const auto& p : data.pulls)
        if (const auto* s = data.specimen(p.specimen); s && s->option == option && s->condition == condition)
            ++pulled;
    const auto room = plan::squareRoom(data, m_session.readings(), verdict, option, condition);
    const bool struck = square && square->struck;
    const bool warns = room.reach == plan::Reach::topsOut || room.reach == plan::Reach::tooSmall;
    QString text = struck       ? tr("struck out")
                   : n > 0      ? QString::number(n)
                   : pulled > 0 ? QString::number(pulled)
                                : QString();
    if (!struck && !room.word.empty())
        text += QStringLiteral("   ") +
                (room.reach == plan::Reach::fine ? QString() : QStringLiteral("\u26a0 ")) + qs(room.word);
    return {text,
            true,
            struck  ? t.faint
            : warns ? t.warn
                    : t.text,
            n > 0,
            struck ? tr("Will not be tested. Type a number to test it after all.") : qs(room.sentence),
            n};
}

void PlanBoard::refresh() {
    m_filling = true;
    const auto* data = m_session.study();
    const int options = data ? static_cast<int>(data->options.size()) : 0,
              conditions = data ? static_cast<int>(data->conditions.size()) : 0;
    const int row = std::max(0, currentRow()), column = std::max(0, currentColumn());
    if (rowCount() != options + 2) updateGeometry();
    setRowCount(options + 2);
    setColumnCount(conditions + 2);
    const auto& t = theme();
    const int each = data ? data->study.plan.replicates : 0;
    put(0, 0,
        {each ? tr("%1 of each").arg(each) : tr("how many of each?"), true, each ? t.text : t.faint, each > 0,
         tr("Replicates of every square that says nothing of its own")});
    for (int r = 1; r <= options; ++r) {
        const auto& o = data->options[static_cast<std::size_t>(r - 1)];
        const bool control = o.id == data->study.goal.control;
        put(r, 0,
            {qs(o.name), true, t.text, true,
             control ? tr("%1, the control. Alt with the arrow keys moves it.").arg(qs(o.name))
                     : tr("%1. Alt with the arrow keys moves it.").arg(qs(o.name))});
    }
    for (int c = 1; c <= conditions; ++c) {
        const auto name = qs(data->conditions[static_cast<std::size_t>(c - 1)].name);
        put(0, c, {name, true, t.text, true, name});
    }
    put(options + 1, 0,
        {tr("+ option"), true, t.faint, false, tr("Type an option, or paste a column of names")});
    put(0, conditions + 1,
        {tr("+ condition"), true, t.faint, false, tr("Type a condition, or paste a row of names")});
    const auto& verdict = m_session.verdict(data ? data->study.goal.metric : domain::metric("peak"));
    for (int r = 1; r <= options + 1; ++r)
        for (int c = 1; c <= conditions + 1; ++c) {
            const auto option = optionAt(r), condition = conditionAt(c);
            if (!option || !condition) {
                put(r, c, {QString(), false, t.faint, false, QString()});
                continue;
            }
            put(r, c, squareCell(*data, verdict, option, condition));
        }
    resizeColumnsToContents();
    setColumnWidth(0, std::clamp(columnWidth(0) + 10, 150, 240));
    for (int c = 1; c < columnCount(); ++c)
        setColumnWidth(c, std::clamp(columnWidth(c) + 22, 84, 190));
    // Whatever keys are held down meanwhile.
    setCurrentCell(std::min(row, rowCount() - 1), std::min(column, columnCount() - 1),
                   QItemSelectionModel::ClearAndSelect);
    updateGeometry();
    m_filling = false;
}

bool PlanBoard::ensureStudy() {
    if (m_session.study()) return true;
    if (!m_session.project()) return false;
    domain::Study s;
    s.title = "New study";
    const auto id = project::addStudy(*m_session.project(), s);
    if (!m_session.tell(id)) return false;
    m_session.showStudy(*id);
    return true;
}

void PlanBoard::moveOn(int row, int column) {
    if (state() == QAbstractItemView::EditingState)
        m_next = {row, column}; // leaving the cell now would close its editor while it is just handing in
    else
        setCurrentCell(row, column);
}

void PlanBoard::closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) {
    const auto next = std::exchange(m_next, std::nullopt);
    QTableWidget::closeEditor(editor, next ? QAbstractItemDelegate::NoHint : hint);
    if (next) setCurrentCell(next->first, next->second);
}

void PlanBoard::edited(int row, int column) {
    if (m_filling) return;
    const auto text = item(row, column)->text().simplified();
    if (text == tr("+ option") || text == tr("+ condition") || !ensureStudy()) return refresh();
    auto& project = *m_session.project();
    const auto id = m_session.studyId();
    const auto option = optionAt(row), condition = conditionAt(column);
    bool ok = true;
    if (row == 0 && column == 0) {
        bool number = false;
        const int n = text.section(' ', 0, 0).toInt(&number);
        if (!number)
            m_session.say(
                tr("\"%1\" is not a number of replicates: type a whole number, such as 5.").arg(text), true);
        ok = number && m_session.tell(project::planReplicates(project, id, n));
    } else if (column == 0 && option) {
        ok = m_session.tell(project.changeOption(option, tr("Option \"%1\"").arg(text),
                                                 [&](domain::Option& o) { o.name = text.toStdString(); }));
    } else if (row == 0 && condition) {
        ok = m_session.tell(
            project.changeCondition(condition, tr("Condition \"%1\"").arg(text),
                                    [&](domain::Condition& c) { c.name = text.toStdString(); }));
    } else if (column == 0) {
        ok = text.isEmpty() || m_session.tell(project::addOptions(project, id, {text}));
        if (ok && !text.isEmpty()) moveOn(rowCount() - 1, 0);
    } else if (row == 0) {
        ok = text.isEmpty() || m_session.tell(project::addConditions(project, id, {text}));
        if (ok && !text.isEmpty()) moveOn(0, columnCount() - 1);
    } else if (option && condition) {
        bool number = false;
        const int n = text.section(' ', 0, 0).toInt(&number);
        if (text.compare("x", Qt::CaseInsensitive) == 0)
            ok = m_session.tell(project::strikeSquares(project, id, {{option, condition}}, true));
        else if (text.isEmpty())
            ok = m_session.tell(project::planSquares(project, id, {{option, condition}}, std::nullopt));
        else if (!number) {
            m_session.say(tr("\"%1\" is not a number of replicates: type a whole number, or X to strike the "
                             "square out.")
                              .arg(text),
                          true);
            ok = false;
        } else if (m_session.study()->study.plan.replicates == 0 &&
                   m_session.study()->study.plan.squares.empty())
            ok = m_session.tell(
                project::planReplicates(project, id, n)); // the first number typed is meant for all
        else {
            auto squares = selectedSquares();
            if (std::find(squares.begin(), squares.end(), std::pair(option, condition)) == squares.end())
                squares = {{option, condition}};
            ok = m_session.tell(project::planSquares(project, id, squares, n));
        }
    }
    if (!ok || !m_filling) refresh();
}

void PlanBoard::paste() {
    const auto names = namesIn(QApplication::clipboard()->text());
    if (names.isEmpty() || !ensureStudy()) return;
    const bool conditions = currentRow() == 0 && currentColumn() > 0;
    auto& project = *m_session.project();
    if (m_session.tell(conditions ? project::addConditions(project, m_session.studyId(), names)
                                  : project::addOptions(project, m_session.studyId(), names)))
        focusNext();
}

void PlanBoard::focusNext() {
    const auto* data = m_session.study();
    const auto at = !data || data->options.empty() ? std::pair(rowCount() - 1, 0)
                    : data->conditions.empty()     ? std::pair(0, columnCount() - 1)
                                                   : std::pair(1, 1);
    setCurrentCell(at.first, at.second, QItemSelectionModel::ClearAndSelect);
}

void PlanBoard::keyPressEvent(QKeyEvent* event) {
    const auto squares = selectedSquares();
    const auto* data = m_session.study();
    if (event->matches(QKeySequence::Paste)) return paste();
    if ((event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) && data &&
        !m_session.readOnly()) {
        if (!squares.empty()) {
            const auto* first = data->study.plan.square(squares.front().first, squares.front().second);
            m_session.tell(project::strikeSquares(*m_session.project(), m_session.studyId(), squares,
                                                  !(first && first->struck)));
        } else if (currentColumn() == 0 && optionAt(currentRow())) {
            m_session.tell(project::removeOption(*m_session.project(), optionAt(currentRow())));
        } else if (currentRow() == 0 && conditionAt(currentColumn())) {
            m_session.tell(project::removeCondition(*m_session.project(), conditionAt(currentColumn())));
        }
        return;
    }
    if (event->key() == Qt::Key_Return ||
        event->key() == Qt::Key_Enter) { // on from a margin that has got its names
        if (state() != QAbstractItemView::EditingState) {
            if (currentColumn() == 0 && !optionAt(currentRow()) && currentRow() > 0)
                return setCurrentCell(0, data && !data->conditions.empty() ? 1 : columnCount() - 1);
            if (currentRow() == 0 && !conditionAt(currentColumn()) && currentColumn() > 0)
                return setCurrentCell(1, 1);
        }
    }
    if (event->modifiers() & Qt::AltModifier && data) {
        const int step = event->key() == Qt::Key_Up || event->key() == Qt::Key_Left      ? -1
                         : event->key() == Qt::Key_Down || event->key() == Qt::Key_Right ? 1
                                                                                         : 0;
        const bool vertical = event->key() == Qt::Key_Up || event->key() == Qt::Key_Down;
        const int row = currentRow(), column = currentColumn();
        if (step && vertical && optionAt(row)) {
            if (m_session.tell(project::moveOption(*m_session.project(), optionAt(row), row - 1 + step)))
                setCurrentCell(std::clamp(row + step, 1, rowCount() - 2), column);
            return;
        }
        if (step && !vertical && conditionAt(column)) {
            if (m_session.tell(
                    project::moveCondition(*m_session.project(), conditionAt(column), column - 1 + step)))
                setCurrentCell(row, std::clamp(column + step, 1, columnCount() - 2));
            return;
        }
    }
    QTableWidget::keyPressEvent(event);
}

bool PlanBoard::onGrip(const QPoint& at) const {
    const auto index = indexAt(at);
    return !m_session.readOnly() && optionAt(index.row()) && conditionAt(index.column()) &&
           at.x() > visualRect(index).right() - gripWidth;
}

int PlanBoard::draggedCount(int y) const {
    return std::clamp(m_gripCount + (m_gripFrom - y) / pixelsEach, 0, 200);
}

void PlanBoard::mousePressEvent(QMouseEvent* event) {
    const auto place = event->position().toPoint();
    const auto at = indexAt(place);
    if (event->button() == Qt::LeftButton && onGrip(place)) {
        if (!selectionModel()->isSelected(at)) setCurrentCell(at.row(), at.column());
        m_gripped = at;
        m_gripFrom = place.y();
        m_gripCount = at.data(countRole).toInt();
        return;
    }
    m_dragRow = at.column() == 0 && optionAt(at.row()) ? at.row() : -1;
    m_dragColumn = at.row() == 0 && conditionAt(at.column()) ? at.column() : -1;
    QTableWidget::mousePressEvent(event);
}

void PlanBoard::mouseMoveEvent(QMouseEvent* event) {
    const auto place = event->position().toPoint();
    if (m_gripped.isValid()) {
        const bool filling = std::exchange(m_filling, true); // only shown until the button is let go
        item(m_gripped.row(), m_gripped.column())->setText(QString::number(draggedCount(place.y())));
        m_filling = filling;
        return;
    }
    viewport()->setCursor(onGrip(place) ? Qt::SizeVerCursor : Qt::ArrowCursor);
    QTableWidget::mouseMoveEvent(event);
}

void PlanBoard::mouseReleaseEvent(QMouseEvent* event) {
    const auto place = event->position().toPoint();
    if (m_gripped.isValid()) {
        const int n = draggedCount(place.y());
        const auto square = std::pair(optionAt(m_gripped.row()), conditionAt(m_gripped.column()));
        m_gripped = QPersistentModelIndex();
        auto squares = selectedSquares();
        if (std::find(squares.begin(), squares.end(), square) == squares.end()) squares = {square};
        if (n == m_gripCount ||
            !m_session.tell(project::planSquares(*m_session.project(), m_session.studyId(), squares, n)))
            refresh();
        return;
    }
    QTableWidget::mouseReleaseEvent(event);
    const auto at = indexAt(place);
    if (m_dragRow > 0 && optionAt(at.row()) && at.row() != m_dragRow)
        m_session.tell(project::moveOption(*m_session.project(), optionAt(m_dragRow), at.row() - 1));
    if (m_dragColumn > 0 && conditionAt(at.column()) && at.column() != m_dragColumn)
        m_session.tell(
            project::moveCondition(*m_session.project(), conditionAt(m_dragColumn), at.column() - 1));
    m_dragRow = m_dragColumn = -1;
}

void PlanBoard::paintEvent(QPaintEvent* event) {
    QTableWidget::paintEvent(event);
    QPainter painter(viewport());
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    for (int r = 1; optionAt(r); ++r)
        for (int c = 1; conditionAt(c); ++c) { // the grip: two small wedges, up and down
            const auto cell = visualRect(model()->index(r, c));
            if (!cell.intersects(event->rect())) continue;
            const double x = cell.right() - 7, y = cell.center().y() + 0.5;
            painter.setBrush(item(r, c)->isSelected() ? palette().color(QPalette::HighlightedText)
                                                      : theme().faint);
            painter.drawPolygon(QPolygonF{{x - 3, y - 2}, {x + 3, y - 2}, {x, y - 6}});
            painter.drawPolygon(QPolygonF{{x - 3, y + 2}, {x + 3, y + 2}, {x, y + 6}});
        }
    if (rowViewportPosition(0) < 0) paintHead(painter);
}

/// Where its row has been scrolled away the head stays in view.
void PlanBoard::paintHead(QPainter& painter) const {
    const auto& t = theme();
    const int height = rowHeight(0);
    painter.fillRect(QRect(0, 0, viewport()->width(), height), palette().base());
    painter.setPen(t.line);
    painter.drawLine(0, height, viewport()->width(), height);
    for (int c = 0; c < columnCount(); ++c) {
        const auto* head = item(0, c);
        if (!head) continue;
        painter.setFont(head->font());
        painter.setPen(head->foreground().color());
        const QRect cell(columnViewportPosition(c) + 4, 0, columnWidth(c) - 8, height);
        painter.drawText(cell, Qt::AlignLeft | Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(head->text(), Qt::ElideRight, cell.width()));
    }
}

/// A cell that is gone to must not come to lie under the head.
void PlanBoard::scrollTo(const QModelIndex& index, ScrollHint hint) {
    QTableWidget::scrollTo(index, hint);
    if (rowViewportPosition(0) < 0 && index.row() > 0 && rowViewportPosition(index.row()) < rowHeight(0))
        verticalScrollBar()->setValue(verticalScrollBar()->value() - 1);
}

} // namespace anvil::app
