#include "stages/specimens/preparation_panel.h"

#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/plain_text.h"
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/plan/reach.h>
#include <anvil/plan/timetable.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/write_file.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::app {
namespace {

enum RecipeColumns {
    nameColumn,
    minutesColumn,
    waitColumn,
    latestColumn,
    repeatColumn,
    everyColumn,
    productColumn,
    expiresColumn,
    recipeColumns
};

/// Minutes as people type them: "20 min", "24 h", "3 d"; a bare number is minutes.
Expected<double> minutesFrom(const QString& text) {
    if (text.trimmed().isEmpty()) return 0.0;
    const auto entry =
        quantity::parseEntry(text.toStdString(), quantity::Dimension::time, &quantity::unit("min"));
    if (!entry) return tl::unexpected(entry.error());
    return entry->si / 60;
}

QString minutesText(double minutes) {
    if (minutes == 0) return {};
    const bool days = std::fmod(minutes, 1440) == 0, hours = std::fmod(minutes, 60) == 0;
    return qs(quantity::shortest(minutes / (days    ? 1440
                                            : hours ? 60
                                                    : 1))) +
           (days    ? " d"
            : hours ? " h"
                    : " min");
}

QString when(plan::Instant at) {
    return at ? QDateTime::fromSecsSinceEpoch(at).toString("d MMM hh:mm") : QString();
}

/// "8:00" from minutes after midnight.
QString clock(int minutes) {
    return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QChar('0'));
}

/// Minutes after midnight of "8:00", "8" or "24:00"; what to take for an empty text.
std::optional<int> minutesOfDay(const QString& text, int none) {
    if (text.trimmed().isEmpty()) return none;
    const auto parts = text.trimmed().split(':');
    bool hoursOk = false, minutesOk = parts.size() == 1;
    const int hours = parts[0].toInt(&hoursOk), minutes = parts.size() == 2 ? parts[1].toInt(&minutesOk) : 0;
    const int all = 60 * hours + minutes;
    if (!hoursOk || !minutesOk || parts.size() > 2 || hours < 0 || minutes < 0 || minutes > 59 ||
        all > 24 * 60)
        return std::nullopt;
    return all;
}

} // namespace

PreparationPanel::PreparationPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    makeSteps(layout);
    makeRecipe(layout);
    for (auto* edit : {m_from, m_to})
        whenEdited(edit, this, [this] { saveHours(); });
    connect(m_recipe, &QTableWidget::cellChanged, this, &PreparationPanel::recipeEdited);
    follow();
}

void PreparationPanel::makeSteps(QVBoxLayout* layout) {
    m_prepSentence = wrappedLabel("prepSentence");
    layout->addWidget(m_prepSentence);
    m_steps = makeTable({tr("Step"), tr("From"), tr("At the latest"), tr("State"), tr("Done at")}, "steps");
    m_steps->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_steps->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_steps->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_steps->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    layout->addWidget(m_steps, 3);
    auto* row = new QHBoxLayout;
    m_begin = new QPushButton;
    m_begin->setObjectName("beginBatch");
    auto* done = new QPushButton(icon("check"), tr("Done now"));
    done->setObjectName("stepDone");
    setTip(done, tr("Marks the selected step, or the first that is due, as done now"));
    auto* calendar = new QPushButton(tr("Calendar file…"));
    setTip(calendar, tr("The steps that are left as .ics, for any calendar"));
    row->addWidget(m_begin);
    row->addWidget(done);
    row->addStretch();
    row->addWidget(calendar);
    layout->addLayout(row);
    connect(m_begin, &QPushButton::clicked, this, &PreparationPanel::begin);
    connect(done, &QPushButton::clicked, this, &PreparationPanel::stepDone);
    connect(calendar, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(
            this, tr("Save the timetable"), QStringLiteral("preparation.ics"), tr("Calendar (*.ics)"));
        if (!path.isEmpty()) writeCalendar(path);
    });
}

void PreparationPanel::makeRecipe(QVBoxLayout* layout) {
    auto* hours = new QHBoxLayout;
    auto* head = plainLabel(tr("Recipe: times as 20 min, 24 h or 3 d."));
    head->setObjectName("faint");
    hours->addWidget(head, 1);
    hours->addWidget(plainLabel(tr("Somebody is there from")));
    m_from = field("workFrom", tr("0:00"), 72);
    m_to = field("workTo", tr("24:00"), 72);
    for (auto* edit : {m_from, m_to})
        edit->setMinimumWidth(grown(72));
    hours->addWidget(m_from);
    hours->addWidget(plainLabel(tr("to")));
    hours->addWidget(m_to);
    layout->addLayout(hours);
    m_recipe = makeTable({tr("Step"), tr("Takes"), tr("Then wait"), tr("Next within"), tr("Times"),
                          tr("Every"), tr("Product"), tr("Good until")},
                         "recipe");
    m_recipe->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_recipe->horizontalHeader()->setStretchLastSection(true);
    layout->addWidget(m_recipe, 2);
}

void PreparationPanel::begin() {
    const auto* data = m_session.study();
    if (!data) return m_session.say(tr("There is no study yet."), true);
    const bool begun = !data->study.plan.recipeStarted.empty();
    m_session.tell(project::startRecipe(*m_session.project(), m_session.studyId(),
                                        begun ? QString() : m_session.now().toString(Qt::ISODate)));
}

/// The selected step, or the first that is not done.
void PreparationPanel::stepDone() {
    const auto steps = m_session.timetable();
    int at = m_steps->selectedItems().isEmpty() ? -1 : m_steps->currentRow();
    for (int i = 0; at < 0 && i < static_cast<int>(steps.size()); ++i)
        if (!steps[static_cast<std::size_t>(i)].done) at = i;
    if (at < 0 || at >= static_cast<int>(steps.size())) return m_session.say(tr("No step is left to do."));
    const auto& step = steps[static_cast<std::size_t>(at)];
    m_session.tell(project::markStep(*m_session.project(), m_session.studyId(), step.key,
                                     step.done ? QString() : m_session.now().toString(Qt::ISODate)));
}

void PreparationPanel::fillRecipe(const std::vector<domain::RecipeStep>& recipe) {
    m_recipe->setRowCount(static_cast<int>(recipe.size()) + 1);
    for (int r = 0; r < m_recipe->rowCount(); ++r) {
        const auto step =
            r < static_cast<int>(recipe.size()) ? recipe[static_cast<std::size_t>(r)] : domain::RecipeStep{};
        const QStringList cells{qs(step.name),
                                minutesText(step.minutes),
                                minutesText(step.waitMinutes),
                                minutesText(step.latestMinutes),
                                step.repeat > 1 ? QString::number(step.repeat) : QString(),
                                minutesText(step.everyMinutes),
                                qs(step.product),
                                qs(step.expires)};
        for (int k = 0; k < recipeColumns; ++k)
            m_recipe->setItem(r, k, new QTableWidgetItem(cells[k]));
    }
}

void PreparationPanel::fillSteps(const std::vector<plan::Step>& steps) {
    m_steps->setRowCount(static_cast<int>(steps.size()));
    for (int r = 0; r < m_steps->rowCount(); ++r) {
        const auto& s = steps[static_cast<std::size_t>(r)];
        const bool attention = s.state == plan::StepState::overdue || s.state == plan::StepState::doneEarly ||
                               s.state == plan::StepState::doneLate;
        const QStringList cells{qs(s.name), when(s.earliest), when(s.latest),
                                (attention ? QStringLiteral("\u26a0 ")
                                 : s.done  ? QStringLiteral("\u2713 ")
                                           : QString()) +
                                    QString::fromUtf8(plan::word(s.state)),
                                when(s.done)};
        for (int k = 0; k < 5; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (attention) item->setForeground(theme().warn);
            if (s.state == plan::StepState::due) {
                auto f = font();
                f.setBold(true);
                item->setFont(f);
            }
            m_steps->setItem(r, k, item);
        }
    }
}

void PreparationPanel::fill() {
    const auto* data = m_session.study();
    const auto recipe = data ? data->study.plan.recipe : std::vector<domain::RecipeStep>{};
    const auto steps = m_session.timetable();
    fillRecipe(recipe);
    fillSteps(steps);
    const auto in = [&](plan::StepState state) {
        return std::count_if(steps.begin(), steps.end(),
                             [&](const plan::Step& s) { return s.state == state; });
    };
    const auto due = in(plan::StepState::due), overdue = in(plan::StepState::overdue);
    const bool begun = data && !data->study.plan.recipeStarted.empty();
    m_begin->setText(begun ? tr("The batch was not begun after all") : tr("Begin the batch now"));
    QString text =
        recipe.empty()
            ? tr("Type the steps of the preparation below: clean, prime, apply, clamp, cure, wash …")
        : !begun  ? tr("Begin the batch when the first step begins; the timetable then says what is due.")
        : overdue ? overdue == 1 ? tr("1 of the steps is overdue.")
                                 : tr("%1 of the steps are overdue.").arg(overdue)
        : due ? due == 1 ? tr("1 step is due now.") : tr("%1 steps are due now.").arg(due)
              : tr("Nothing is due; everything could be ready on %1.").arg(when(plan::finished(steps, 0)));
    for (const auto& e : plan::expired(recipe, m_session.now().toString("yyyy-MM-dd").toStdString()))
        text += "\n\u26a0 " + qs(e);
    m_prepSentence->setText(text);
    if (data) {
        m_from->setText(clock(data->study.plan.workFrom));
        m_to->setText(clock(data->study.plan.workTo));
    }
}

void PreparationPanel::saveHours() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    const auto from = minutesOfDay(m_from->text(), 0), to = minutesOfDay(m_to->text(), 24 * 60);
    if (!from || !to) {
        m_session.say(
            tr("\"%1\" is not a time of day: write it as 8:00.").arg((from ? m_to : m_from)->text()), true);
        return;
    }
    if (*from >= *to) return m_session.say(tr("The working day must end after it begins."), true);
    const auto& plan = data->study.plan;
    if (*from != plan.workFrom || *to != plan.workTo)
        m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(),
                                           tr("When somebody is there"), [&](domain::Plan& p) {
                                               p.workFrom = *from;
                                               p.workTo = *to;
                                           }));
}

void PreparationPanel::recipeEdited() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    std::vector<domain::RecipeStep> recipe;
    for (int r = 0; r < m_recipe->rowCount(); ++r) {
        const auto text = [&](int column) {
            return m_recipe->item(r, column) ? m_recipe->item(r, column)->text().simplified() : QString();
        };
        bool empty = true;
        for (int k = 0; k < recipeColumns; ++k)
            empty = empty && text(k).isEmpty();
        if (empty || text(nameColumn).isEmpty()) continue;
        domain::RecipeStep s;
        s.name = text(nameColumn).toStdString();
        s.repeat = text(repeatColumn).isEmpty() ? 1 : text(repeatColumn).toInt();
        for (const auto& [column, target] : {std::pair<int, double*>{minutesColumn, &s.minutes},
                                             {waitColumn, &s.waitMinutes},
                                             {latestColumn, &s.latestMinutes},
                                             {everyColumn, &s.everyMinutes}}) {
            const auto minutes = minutesFrom(text(column));
            if (!minutes) {
                m_session.say(qs(minutes.error().message), true);
                return refill();
            }
            *target = *minutes;
        }
        s.product = text(productColumn).toStdString();
        s.expires = text(expiresColumn).toStdString();
        if (!s.expires.empty() && !QDate::fromString(qs(s.expires), Qt::ISODate).isValid()) {
            m_session.say(tr("\"%1\" is not a date: write it as 2026-05-31.").arg(qs(s.expires)), true);
            return refill();
        }
        recipe.push_back(std::move(s));
    }
    if (!m_session.tell(project::setRecipe(*m_session.project(), m_session.studyId(), recipe))) refill();
}

bool PreparationPanel::writeCalendar(const QString& path) {
    const auto steps = m_session.timetable();
    if (steps.empty()) {
        m_session.say(tr("There is no timetable yet: type the recipe and begin the batch."), true);
        return false;
    }
    const auto text = QByteArray::fromStdString(
        plan::toCalendar(steps, m_session.study()->study.title, m_session.now().toSecsSinceEpoch()));
    if (!m_session.tell(project::writeFile(path, text))) return false;
    m_session.say(tr("The timetable is in %1.").arg(path));
    return true;
}

} // namespace anvil::app
