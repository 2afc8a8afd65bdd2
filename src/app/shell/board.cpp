#include "shell/board.h"

#include "shell/board_sizes.h"
#include "shell/initials.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <anvil/domain/joints.h>
#include <anvil/plan/timetable.h>
#include <anvil/results/ends.h>
#include <anvil/results/values.h>
#include <set>

namespace anvil::app {

using namespace board_sizes;
namespace {

constexpr int mostMarks = 7;

QStringList namesOf(const std::vector<domain::Option>& all) {
    QStringList out;
    for (const auto& one : all)
        out << qs(one.name);
    return out;
}
QStringList namesOf(const std::vector<domain::Condition>& all) {
    QStringList out;
    for (const auto& one : all)
        out << qs(one.name);
    return out;
}

} // namespace

Board::Board(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Board of options and conditions"));
    setMinimumWidth(railWidth());
    connect(&session, &Session::changed, this, &Board::relayout);
    connect(&session, &Session::selectionChanged, this, QOverload<>::of(&Board::update));
}

QSize Board::sizeHint() const { return {wantedWidth(), m_bottom + grown(130)}; }

void Board::setRail(bool rail) {
    if (rail == m_rail) return;
    m_rail = rail;
    relayout();
}

bool Board::gathered(const domain::StudyData& data) const { return m_rail && data.conditions.size() > 2; }

int Board::wantedNames(const domain::StudyData& data) const {
    if (m_rail) return railNames();
    int out = grown(60);
    for (const auto& name : namesOf(data.options))
        out = std::max(out, fontMetrics().horizontalAdvance(name) + 18);
    return std::min(out, mostNames());
}

int Board::wantedColumn(const domain::StudyData& data) const {
    std::size_t marks = 2;
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            const auto made = std::count_if(data.specimens.begin(), data.specimens.end(), [&](const auto& s) {
                return s.option == o.id && s.condition == c.id;
            });
            marks = std::max({marks, static_cast<std::size_t>(made),
                              static_cast<std::size_t>(data.study.plan.replicatesOf(o.id, c.id))});
        }
    int out = static_cast<int>(std::min<std::size_t>(marks, mostMarks)) * pitch() + 10;
    auto bold = font();
    bold.setBold(true);
    for (const auto& name : namesOf(data.conditions))
        out = std::max(out,
                       std::min(QFontMetrics(bold).horizontalAdvance(name) + 10, mostMarks * pitch() + 10));
    return std::max(out, leastColumn());
}

int Board::wantedWidth() const {
    const auto* data = m_session.study();
    if (m_rail) return railWidth();
    if (!data || data->options.empty()) return grown(240);
    return wantedNames(*data) +
           static_cast<int>(std::max<std::size_t>(1, data->conditions.size())) * wantedColumn(*data) + 4;
}

Board::State Board::stateOf(domain::Standing standing) {
    static constexpr State states[] = {State::counts, State::atLeast, State::atMost, State::between,
                                       State::aside,  State::voided,  State::notRead};
    static_assert(std::size(states) == std::size(domain::standings));
    return states[std::find(std::begin(domain::standings), std::end(domain::standings), standing) -
                  std::begin(domain::standings)];
}

std::vector<Board::MarkAt> Board::marksOf(const domain::StudyData& data, const domain::PullsOfPieces& pulls,
                                          Id option, Id condition) const {
    std::vector<MarkAt> marks;
    int own = 0;
    for (const auto& s : data.specimens) {
        if (s.condition != condition) continue;
        const bool otherEnd = s.option != option;
        if (otherEnd && domain::otherEndOf(data, s) != option) continue;
        own += !otherEnd;
        MarkAt mark;
        mark.otherEnd = otherEnd;
        mark.specimen = s.id;
        mark.state = m_prepared < 1 ? State::preparing : State::ready;
        mark.look = m_prepared < 1 && m_overdue;
        for (const auto* p : pulls.of(s.id)) {
            mark.pull = p->id;
            mark.look = !results::needsLook(*p, m_session.readings()).empty();
            mark.state =
                stateOf(results::standingAtEnd(data, *p, m_session.readings().find(p->id), s, option));
        }
        marks.push_back(mark);
    }
    for (int missing = data.study.plan.replicatesOf(option, condition) - own; missing > 0; --missing)
        marks.emplace_back();
    return marks;
}

void Board::place(Square& square, std::vector<MarkAt>& marks) const {
    const int perRow = std::max(1, (square.rect.width() - 4) / pitch()), rows = 2;
    if (static_cast<int>(marks.size()) > perRow * rows) {
        const auto done =
            std::count_if(marks.begin(), marks.end(), [](const MarkAt& m) { return m.pull != 0; });
        square.count = tr("%1/%2").arg(done).arg(marks.size());
        std::set<State> seen{State::counts, State::toMake, State::ready, State::preparing};
        std::erase_if(marks, [&](const MarkAt& m) { return !seen.insert(m.state).second; });
        square.stacked = perRow < 4 && !marks.empty();
        const int space = square.stacked ? perRow : std::max(1, perRow - 2);
        if (static_cast<int>(marks.size()) > space) marks.resize(static_cast<std::size_t>(space));
        for (std::size_t k = 0; k < marks.size(); ++k) {
            const int place = static_cast<int>(k);
            marks[k].rect = square.stacked
                                ? QRect(square.rect.left() + 4 + place * pitch(),
                                        square.rect.bottom() - markSize() - 3, markSize(), markSize())
                                : QRect(square.rect.right() - (place + 1) * pitch(),
                                        square.rect.center().y() - markSize() / 2, markSize(), markSize());
        }
        return;
    }
    const bool two = static_cast<int>(marks.size()) > perRow;
    for (std::size_t k = 0; k < marks.size(); ++k) {
        const int line = static_cast<int>(k) / perRow, place = static_cast<int>(k) % perRow;
        const int y =
            two ? square.rect.top() + 4 + line * (markSize() + 5) : square.rect.center().y() - markSize() / 2;
        marks[k].rect = QRect(square.rect.left() + 4 + place * pitch(), y, markSize(), markSize());
    }
}

void Board::relayout() {
    m_marks.clear();
    m_squares.clear();
    m_heads.clear();
    m_bottom = head();
    m_prepared = m_session.preparation().value_or(1);
    m_overdue = false;
    for (const auto& step : m_session.timetable())
        m_overdue = m_overdue || step.state == plan::StepState::overdue;
    const auto* data = m_session.study();
    if (!data || data->options.empty()) {
        setMinimumHeight(200);
        update();
        return;
    }
    const domain::PullsOfPieces pulls(*data);
    const bool all = gathered(*data);
    const int columns = all ? 1 : std::max<int>(1, static_cast<int>(data->conditions.size()));
    const int least = m_rail ? 0 : leastColumn();
    const int names = std::max(railNames(), std::min(wantedNames(*data), width() - columns * least - 4));
    const int column =
        std::max(least, std::min(m_rail ? width() : wantedColumn(*data), (width() - names - 4) / columns));
    setMinimumWidth(m_rail ? railWidth() : std::max(grown(180), grown(76) + columns * leastColumn()));
    const auto shortConditions = initials(namesOf(data->conditions)),
               shortOptions = initials(namesOf(data->options));
    for (int c = 0; !all && c < static_cast<int>(data->conditions.size()); ++c) {
        const auto name = qs(data->conditions[static_cast<std::size_t>(c)].name);
        m_heads.push_back({QRect(names + c * column, 0, column - 4, head()), name,
                           m_rail ? shortConditions[c] : name, true});
    }
    for (int r = 0; r < static_cast<int>(data->options.size()); ++r) {
        const auto& option = data->options[static_cast<std::size_t>(r)];
        const int top = head() + r * rowHeight();
        m_heads.push_back({QRect(6, top, names - 10, rowHeight() - 4), qs(option.name),
                           m_rail ? shortOptions[r] : qs(option.name), false});
        Square square{QRect(names, top, column - 4, rowHeight() - 4), option.id, 0, false, {}, false};
        std::vector<MarkAt> marks;
        for (int c = 0; c < static_cast<int>(data->conditions.size()); ++c) {
            const auto& condition = data->conditions[static_cast<std::size_t>(c)];
            const auto here = marksOf(*data, pulls, option.id, condition.id);
            marks.insert(marks.end(), here.begin(), here.end());
            if (all && c + 1 < static_cast<int>(data->conditions.size())) continue;
            if (!all) {
                const auto* planned = data->study.plan.square(option.id, condition.id);
                square.condition = condition.id;
                square.struck = planned && planned->struck && marks.empty();
                square.rect.moveLeft(names + c * column);
            }
            place(square, marks);
            m_marks.insert(m_marks.end(), marks.begin(), marks.end());
            m_squares.push_back(square);
            square.count.clear();
            square.stacked = false;
            marks.clear();
        }
        m_bottom = top + rowHeight();
    }
    setMinimumHeight(m_bottom + grown(70));
    updateGeometry();
    update();
}

void Board::resizeEvent(QResizeEvent*) { relayout(); }

QPoint Board::placeOf(Id pull) const {
    for (const auto& m : m_marks)
        if (m.pull == pull) return m.rect.center();
    return {};
}

QRect Board::squareOf(Id option, Id condition) const {
    for (const auto& s : m_squares)
        if (s.option == option && (s.condition == 0 || s.condition == condition)) return s.rect;
    return {};
}

QString Board::tipAt(const QPoint& at) const {
    const auto* data = m_session.study();
    if (!data) return {};
    for (const auto& m : m_marks)
        if (m.rect.adjusted(-2, -2, 2, 2).contains(at)) {
            const auto* s = data->specimen(m.specimen);
            if (!s) return tr("A piece to make: see Specimens.");
            auto text = tr("%1: %2").arg(qs(s->label), word(m.state));
            if (m.otherEnd)
                text += tr(", at the other end of a piece of %1").arg(qs(data->optionAt(s->option).name));
            if (!m.pull && m.look) return text + "\n" + tr("A step of the preparation is overdue");
            if (const auto r = m_session.readings().byPull.find(m.pull);
                r != m_session.readings().byPull.end())
                text += tr(", peak %1").arg(m_session.load(r->second.peak.load, r->second.loadKind));
            if (const auto* p = data->pull(m.pull); p && !p->reason.empty()) text += "\n" + qs(p->reason);
            if (m.look) text += "\n" + tr("Needs a look (F8)");
            return text;
        }
    for (const auto& s : m_squares)
        if (s.rect.contains(at))
            return s.condition ? tr("%1, %2").arg(qs(data->optionAt(s.option).name),
                                                  qs(data->conditionAt(s.condition).name))
                               : qs(data->optionAt(s.option).name);
    for (const auto& h : m_heads)
        if (h.rect.contains(at)) return h.name;
    return {};
}

void Board::mousePressEvent(QMouseEvent* event) {
    const auto at = event->position().toPoint();
    if (!m_session.study()) return emit importWanted();
    for (const auto& m : m_marks)
        if (m.pull && m.rect.adjusted(-2, -2, 2, 2).contains(at)) {
            m_session.selectPull(m.pull);
            return emit chosen();
        }
    for (const auto& s : m_squares)
        if (s.rect.contains(at)) {
            m_session.selectSquare(s.option, s.condition ? s.condition : m_session.condition());
            return emit chosen();
        }
}

void Board::mouseDoubleClickEvent(QMouseEvent*) {
    if (m_session.pull()) m_session.go(Stage::curves);
}

void Board::keyPressEvent(QKeyEvent* event) {
    const auto* data = m_session.study();
    if (!data || m_marks.empty()) return QWidget::keyPressEvent(event);
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return m_session.go(Stage::curves);
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    const int row = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (!step && !row) return QWidget::keyPressEvent(event);
    if (step) {
        std::vector<Id> pulls;
        for (const auto& m : m_marks)
            if (m.pull) pulls.push_back(m.pull);
        const auto at = std::find(pulls.begin(), pulls.end(), m_session.pull());
        if (at != pulls.end() && (step > 0 ? at + 1 != pulls.end() : at != pulls.begin()))
            m_session.selectPull(*(at + step));
        else if (at == pulls.end() && !pulls.empty())
            m_session.selectPull(pulls.front());
        return emit chosen();
    }
    for (std::size_t i = 0; i < data->options.size(); ++i)
        if (data->options[i].id == m_session.option()) {
            const auto to = static_cast<std::ptrdiff_t>(i) + row;
            if (to >= 0 && to < static_cast<std::ptrdiff_t>(data->options.size()))
                m_session.selectSquare(data->options[static_cast<std::size_t>(to)].id, m_session.condition());
            return;
        }
}

bool Board::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const auto tip = tipAt(help->pos());
        showTip(help->globalPos(), tip, this);
        return true;
    }
    return QWidget::event(event);
}

} // namespace anvil::app
