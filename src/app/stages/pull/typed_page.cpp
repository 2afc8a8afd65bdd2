#include "stages/pull/typed_page.h"

#include "shell/preferences.h"
#include "theme/theme.h"
#include "widgets/path_question.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/scrolled.h"
#include "widgets/unit_question.h"
#include "widgets/unit_tail.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollBar>
#include <anvil/chart/charts.h>
#include <anvil/domain/outcomes.h>
#include <anvil/methods/method.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/results/evidence.h>
#include <anvil/results/unlikely.h>
#include <anvil/words/pull.h>

namespace anvil::app {

namespace {

constexpr int entryWidth = 380, lastShown = 3;

} // namespace

TypedPage::TypedPage(Session& session, QWidget* parent) : Panel(session, parent) {
    const bool large = textScale() > 1.2; // two columns have no room then
    auto* columns = new QBoxLayout(large ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight, this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    auto* left = new QWidget;
    left->setLayout(makeEntry());
    if (large)
        columns->addWidget(left);
    else {
        left->setFixedWidth(grown(entryWidth));
        auto* area = scrolled(left); // two questions stand there at times, and the window may be low
        area->setFixedWidth(left->width() + area->verticalScrollBar()->sizeHint().width());
        area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        columns->addWidget(area);
    }
    columns->addLayout(makeSoFar(), 1);
    follow();
}

QLayout* TypedPage::makeEntry() {
    auto* column = new QVBoxLayout;
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    m_piece = plainLabel();
    m_piece->setObjectName("typedPiece");
    m_place = wrappedLabel("big");
    m_none = wrappedLabel("sentence");
    column->addWidget(m_piece);
    column->addWidget(m_place);
    column->addWidget(m_none);
    m_entry = new QWidget;
    auto* entry = new QVBoxLayout(m_entry);
    entry->setContentsMargins(0, 0, 0, 0);
    entry->setSpacing(8);
    auto* path = new PathQuestion(m_session);
    entry->addWidget(path);
    entry->addWidget(m_value = field("typedValue", {}));
    connect(path, &PathQuestion::answered, m_value, qOverload<>(&QWidget::setFocus));
    new UnitTail(m_value, m_session, [this] {
        const auto* data = m_session.study();
        return data ? std::optional(project::typedIn(*m_session.project(), *data)) : std::nullopt;
    });
    m_value->setAccessibleName(tr("What was read"));
    m_doubt = wrappedLabel("faint");
    m_doubt->setText(tr(
        "> at least, < at most, 4\u20265 between, ~ about, \u00b1 with its doubt. Steps: what held and what "
        "it failed at, as 3\u20263.5."));
    m_broke = new QComboBox;
    m_broke->setObjectName("typedBroke");
    m_broke->setAccessibleName(tr("What broke"));
    entry->addWidget(m_broke);
    m_keep = new QPushButton(tr("Keep"));
    m_keep->setObjectName("primary");
    m_keep->setMinimumHeight(grown(56));
    entry->addWidget(m_keep);
    entry->addWidget(m_question = new UnitQuestion(m_session));
    auto* row = new QHBoxLayout;
    auto* lost = new QPushButton(tr("Number lost"));
    auto* other = new QPushButton(tr("Another piece"));
    for (auto* b : {lost, other}) {
        b->setMinimumHeight(grown(40));
        row->addWidget(b);
    }
    entry->addLayout(row);
    entry->addWidget(m_doubt);
    column->addWidget(m_entry);
    column->addSpacing(12);
    column->addLayout(makeUnplanned());
    column->addStretch();
    connect(m_keep, &QPushButton::clicked, this, [this] { keep(false); });
    connect(m_value, &QLineEdit::returnPressed, this, [this] { keep(false); });
    connect(m_value, &QLineEdit::textEdited, m_question, &QWidget::hide);
    connect(lost, &QPushButton::clicked, this, [this] { keep(true); });
    connect(other, &QPushButton::clicked, this, [this] {
        m_question->hide(); // it was about the one that is passed over
        m_turn.passOver(m_next);
        refill();
    });
    return column;
}

/// What was entered so far: the ladder filling up, the last entries, and the way back.
QLayout* TypedPage::makeSoFar() {
    auto* column = new QVBoxLayout;
    column->setSpacing(8);
    m_soFar = wrappedLabel("section");
    column->addWidget(m_soFar);
    m_ladder = new PictureView;
    m_ladder->setObjectName("soFar");
    column->addWidget(m_ladder, 1);
    m_last = new QVBoxLayout;
    m_last->setSpacing(2);
    column->addLayout(m_last);
    m_takeBack = new QPushButton;
    column->addWidget(m_takeBack, 0, Qt::AlignLeft);
    column->addStretch();
    connect(m_ladder, &PictureView::clicked, this, [this](const chart::HitOf& of) {
        if (const auto* one = std::get_if<chart::OfPull>(&of)) m_session.selectPull(one->pull);
    });
    connect(m_takeBack, &QPushButton::clicked, this, [this] {
        const auto what = m_session.project()->undoText();
        if (m_session.tell(m_session.project()->undo())) m_session.say(tr("Taken back: %1").arg(what));
        m_value->setFocus();
    });
    return column;
}

QLayout* TypedPage::makeUnplanned() {
    auto* column = new QVBoxLayout;
    column->setSpacing(4);
    auto* why = wrappedLabel("faint");
    why->setText(tr("Thought of something after the last one broke? It makes its own square on the board."));
    column->addWidget(why);
    auto* row = new QHBoxLayout;
    auto* option = field("unplannedOption", tr("what it is"));
    auto* condition = field("unplannedCondition", tr("how it is pulled"));
    auto* add = new QPushButton(tr("Add"));
    add->setObjectName("unplannedAdd");
    setTip(add, tr("Adds a piece that nobody planned"));
    row->addWidget(option, 1);
    row->addWidget(condition, 1);
    row->addWidget(add);
    column->addLayout(row);
    const auto make = [this, &session = m_session, option, condition] {
        if (!session.study()) return session.say(tr("There is no study yet: start one in Question."), true);
        const auto made =
            project::addUnplanned(*session.project(), session.studyId(), option->text(), condition->text());
        if (!session.tell(made)) return;
        m_turn.wish(*made);
        refill();
        session.say(tr("%1 waits to be pulled.").arg(qs(session.study()->specimenAt(*made).label)));
        option->setText({});
    };
    connect(add, &QPushButton::clicked, this, make);
    connect(condition, &QLineEdit::returnPressed, this, make);
    return column;
}

void TypedPage::showPiece(const domain::StudyData* data) {
    const auto* next = data ? m_turn.of(*data) : nullptr;
    m_next = next ? next->id : 0;
    const auto missing = data ? domain::missingPieces(*data) : std::vector<domain::Specimen>{};
    const bool some = next || !missing.empty();
    const auto* shown = next ? next : missing.empty() ? nullptr : &missing.front();
    m_piece->setText(next                              ? qs(next->label)
                     : !shown                          ? QString()
                     : data && data->specimens.empty() ? tr("The first piece")
                                                       : tr("The next piece"));
    m_place->setText(data && shown ? tr("%1, %2").arg(qs(data->optionAt(shown->option).name),
                                                      qs(data->conditionAt(shown->condition).name))
                                   : QString());
    m_none->setText(!data ? tr("There is no study yet: start one in Question.")
                    : data->pulls.empty()
                        ? tr("Nothing is planned yet. Say in Question how many of each, or add a piece.")
                        : tr("Everything that is planned has been pulled."));
    m_piece->setVisible(some);
    m_place->setVisible(some);
    m_none->setVisible(!some);
    m_entry->setVisible(some);
    if (!data) return;
    m_value->setPlaceholderText(m_session.typedUnit(project::typedIn(*m_session.project(), *data))
                                    ? tr("the number")
                                    : tr("number with its unit"));
}

void TypedPage::showLast(const domain::StudyData* data) {
    while (auto* item = m_last->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
    const auto metric = data ? results::typedMetric(*data) : domain::metric("peak");
    int shown = 0;
    for (std::size_t i = data ? data->pulls.size() : 0; i-- > 0 && shown < lastShown; ++shown) {
        const auto& pull = data->pulls[i];
        const auto& piece = data->specimenAt(pull.specimen);
        auto* line = plainLabel(tr("%1   %2   %3, %4")
                                    .arg(qs(piece.label),
                                         qs(words::metricText(*data, pull, piece, m_session.readings(),
                                                              metric, m_session.units())),
                                         qs(data->optionAt(piece.option).name),
                                         qs(data->conditionAt(piece.condition).name)));
        if (shown > 0) line->setObjectName("faint");
        m_last->addWidget(line);
    }
    const auto* project = m_session.project();
    m_takeBack->setVisible(project && project->canUndo() && shown > 0);
    if (project && project->canUndo()) m_takeBack->setText(tr("Take back: %1").arg(project->undoText()));
}

void TypedPage::outdated() { m_ladder->freeze(); }

void TypedPage::fill() {
    const auto* data = m_session.study();
    showPiece(data);
    showLast(data);
    const bool some = data && !data->pulls.empty();
    m_soFar->setText(some ? tr("%1 so far, the last first").arg(data->pulls.size())
                          : tr("What you enter stands here, as the ladder of the study."));
    m_ladder->setVisible(some);
    if (some)
        m_ladder->setBuild([this](double width, double height) {
            const auto* study = m_session.study();
            if (!study) return chart::Picture{};
            const auto metric = results::typedMetric(*study);
            return chart::ladder(*study, m_session.verdict(metric),
                                 methods::unitFor(*metric, m_session.units()), width, m_session.pull(),
                                 {height, false});
        });
    const auto before = m_broke->currentText();
    m_broke->clear();
    m_broke->addItem(tr("what broke?"), QString());
    if (data)
        for (const auto& part : domain::breakableParts(*data))
            m_broke->addItem(qs(part), qs(part));
    m_broke->setCurrentIndex(std::max(0, m_broke->findText(before)));
}

bool TypedPage::makeWaiting() {
    if (m_next) return true;
    if (!m_session.tell(project::makePieces(*m_session.project(), m_session.studyId(), QString())))
        return false;
    m_turn = {}; // nobody was passed over of what was not made yet
    const auto* next = m_turn.of(*m_session.study());
    m_next = next ? next->id : 0;
    return m_next != 0;
}

void TypedPage::keep(bool lost) {
    if (!m_session.project() || !m_session.study()) return;
    const auto text = m_value->text().trimmed();
    if (lost) return keepNumber({}, true);
    if (text.isEmpty())
        return m_session.say(tr("Type what was read, or say that the number was lost."), true);
    const auto& data = *m_session.study();
    const auto metric = results::typedMetric(data);
    const auto through = project::readThrough(*m_session.project(), data); // unsaid: told when it is kept
    const auto entry = m_session.read(text, project::typedIn(*m_session.project(), data));
    if (!m_session.tell(entry)) return; // before any piece is made for it
    if (m_question->ask(*entry, results::fellowsOf(data, m_next, metric, through ? *through : std::nullopt),
                        [this](const QString& kept) { keepNumber(kept, false); }))
        return;
    keepNumber(text, false);
}

void TypedPage::keepNumber(const QString& text, bool lost) {
    const auto part = m_broke->currentData().toString().toStdString();
    if (!makeWaiting()) return;
    const auto* data = m_session.study();
    project::TypedPull typed;
    typed.specimen = m_next;
    typed.text = lost ? std::string() : text.toStdString();
    typed.fallback = m_session.typedUnit(project::typedIn(*m_session.project(), *data));
    typed.part = part;
    typed.performedAt = m_session.now().toString(Qt::ISODate).toStdString();
    typed.operatorName = preferences::operatorName().toStdString();
    const auto label = qs(data->specimenAt(m_next).label);
    m_value->setText({}); // begins anew, without a history: Ctrl+Z is the project's then
    const auto made = project::addTypedPull(*m_session.project(), typed);
    if (!m_session.tell(made)) return m_value->setText(text);
    showPiece(m_session.study());
    m_session.selectPull(*made);
    m_session.say(tr("%1 kept. Ctrl+Z takes it back.").arg(label));
    m_broke->setCurrentIndex(0);
    m_value->setFocus();
}

} // namespace anvil::app
