#include "shell/import_sheet.h"

#include "shell/preferences.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include "widgets/small_curve.h"
#include <QComboBox>
#include <QCompleter>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QProgressBar>
#include <QPushButton>
#include <QScreen>
#include <QStringListModel>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <QtConcurrentRun>
#include <anvil/methods/method.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/words/unlikely.h>

namespace anvil::app {
ImportSheet::ImportSheet(Session& session, const QStringList& paths, QWidget* parent)
    : QDialog(parent), m_session(session), m_paths(paths) {
    setWindowTitle(tr("Import logger files"));
    setObjectName("importSheet");
    constexpr int frame = 40; // of the window around it, so that its buttons lie on the screen
    resize(QSize(1080, 640).boundedTo(screen()->availableSize() - QSize(frame, frame)));
    auto* layout = new QVBoxLayout(this);
    m_summary = plainLabel();
    m_summary->setObjectName("big");
    m_summary->setWordWrap(true);
    layout->addWidget(m_summary);
    m_trouble = plainLabel();
    m_trouble->setObjectName("trouble");
    m_trouble->setWordWrap(true);
    layout->addWidget(m_trouble);
    makeAsks(layout);
    makeTable(layout);
    makeFoot(layout);
    connect(&m_watcher, &QFutureWatcher<project::ImportPlan>::finished, this, &ImportSheet::looked);
    connect(&m_writing, &QFutureWatcher<Expected<project::Imported>>::finished, this, &ImportSheet::written);
    auto* ticker = new QTimer(this);
    connect(ticker, &QTimer::timeout, this,
            [this] { m_bar->setValue(static_cast<int>(m_progressShare * 100)); });
    ticker->start(80);
    look();
}

ImportSheet::~ImportSheet() {
    m_stop = true;
    m_watcher.waitForFinished();
    m_writing.waitForFinished();
}

void ImportSheet::reject() {
    m_stop = true;
    m_again = false;
    if (m_watcher.isRunning() || !m_written) return m_summary->setText(tr("Cancelling…"));
    QDialog::reject();
}

/// What was written may have been through before it could be cancelled: then it is in the project, and undo
/// takes it back.
void ImportSheet::written() {
    auto result = m_writing.result();
    m_written = true;
    m_plan = std::move(*std::exchange(m_given, nullptr));
    setWriting(false);
    if (!result) {
        if (m_stop) return QDialog::reject();
        m_trouble->setText(qs(result.error().message));
        m_trouble->show();
        return;
    }
    m_imported = result->pulls;
    showInTheirUnit();
    m_session.tell(m_session.project()->adopt(result->journal, result->what, std::move(result->read)));
    accept();
}

/// Who never chose a unit sees the one the files use.
void ImportSheet::showInTheirUnit() {
    if (preferences::unitsChosen()) return;
    const quantity::Unit* unit = nullptr;
    for (const auto& f : m_plan.files) {
        if (!f.forceUnit || f.forceUnit->dimension != quantity::Dimension::force ||
            (unit && f.forceUnit != unit))
            return;
        unit = f.forceUnit;
    }
    if (unit)
        m_session.setUnits(qs(std::string(unit->symbol)), qs(std::string(m_session.units().length->symbol)));
}

/// What is being written stays as it was said: everything but Cancel is closed meanwhile.
void ImportSheet::setWriting(bool on) {
    for (QWidget* w : std::initializer_list<QWidget*>{m_table, m_asks, m_words, m_study, m_limit})
        w->setEnabled(!on);
    m_go->setVisible(!on);
    m_bar->setRange(0, on ? 0 : 100);
    m_bar->setVisible(on);
}

void ImportSheet::look() {
    if (writing()) return;
    if (m_watcher.isRunning()) {
        m_again = true;
        m_stop = true;
        return;
    }
    m_choices.hints.forceUnit = m_forceUnit->currentData().toString().isEmpty()
                                    ? nullptr
                                    : &quantity::unit(m_forceUnit->currentData().toString().toStdString());
    m_choices.hints.displacementUnit =
        m_lengthUnit->currentData().toString().isEmpty()
            ? nullptr
            : &quantity::unit(m_lengthUnit->currentData().toString().toStdString());
    m_choices.hints.timeUnit = m_timeUnit->currentData().toString().isEmpty()
                                   ? nullptr
                                   : &quantity::unit(m_timeUnit->currentData().toString().toStdString());
    m_choices.hints.decimal = m_decimal->currentData().toString().isEmpty()
                                  ? '\0'
                                  : m_decimal->currentData().toString()[0].toLatin1();
    m_choices.columnsWhereNeeded = true;
    m_choices.hints.load = m_load->text().trimmed().toStdString();
    m_choices.hints.time = m_time->text().trimmed().toStdString();
    m_choices.hints.travel = m_way->text().trimmed().toStdString();
    m_choices.hints.sheet = m_sheet->text().trimmed().toStdString();
    m_choices.rigLimit.reset();
    const auto into = target();
    const auto* method = methods::find(into.study.plan.method);
    m_choices.hints.loadKind = method && method->load ? *method->load : quantity::Dimension::force;
    m_choices.path = m_session.project() ? project::pathOf(*m_session.project(), into) : std::nullopt;
    const auto chosen = m_readAt->currentData().toString();
    m_choices.readAt = chosen.isEmpty() ? into.study.plan.readAt : chosen.toStdString();
    m_trouble->clear();
    if (!m_limit->text().trimmed().isEmpty()) {
        const auto limit = m_session.read(m_limit->text(), quantity::Dimension::force);
        if (limit && limit->si > 0)
            m_choices.rigLimit = limit->si;
        else
            m_trouble->setText(limit ? tr("A rig limit of zero or less cannot be.")
                                     : qs(limit.error().message));
    }
    using Known = std::map<QString, store::Id>;
    const auto known =
        m_session.project() ? m_session.project()->file().curveDigests() : Expected<Known>(Known{});
    if (!known) return m_trouble->setText(qs(known.error().message));
    m_summary->setText(tr("Looking at %1 files…").arg(m_paths.size()));
    m_bar->show();
    m_go->hide();
    m_stop = false;
    m_progressShare = 0;
    m_watcher.setFuture(QtConcurrent::run([this, known = *known] {
        return project::lookAt(
            m_paths, m_choices, known, [this](double share) { m_progressShare = share; }, &m_stop);
    }));
}

void ImportSheet::looked() {
    if (m_again) {
        m_again = false;
        return look();
    }
    if (m_stop) return QDialog::reject();
    auto fresh = m_watcher.result();
    // A unit is asked once for files without one; hints apply to all files, so what was typed by hand is
    // carried over.
    for (auto& row : fresh.rows)
        for (const auto& old : m_plan.rows)
            if (old.corrected && old.file == row.file && old.run == row.run) {
                row.option = old.option;
                row.condition = old.condition;
                row.replicate = old.replicate;
                row.corrected = true;
            }
    const bool forceAsked = m_plan.needsForceUnit || m_forceAsk->isVisible(),
               lengthAsked = m_plan.needsDisplacementUnit || m_lengthAsk->isVisible();
    const bool decimalAsked = m_plan.unsureDecimal || m_decimalAsk->isVisible();
    m_plan = std::move(fresh);
    m_forceAsk->setVisible(m_plan.needsForceUnit || forceAsked);
    m_lengthAsk->setVisible(m_plan.needsDisplacementUnit || lengthAsked);
    m_decimalAsk->setVisible(m_plan.unsureDecimal || decimalAsked);
    m_readAsk->setVisible(m_plan.needsReadAt() || m_readAt->currentIndex() > 0);
    m_timeAsk->setVisible(m_plan.firstWants == Wants::timeUnit || m_timeUnit->currentIndex() > 0);
    const bool otherwise = m_plan.firstWants == Wants::timeUnit; // which column is what is plain there
    m_columnAsk->setVisible((!m_plan.unread.isEmpty() && !otherwise) || m_columnAsk->isVisible());
    QStringList headings;
    for (const auto& f : m_plan.files)
        for (const auto& c : f.columns)
            if (const auto h = qs(c.header); !headings.contains(h)) headings << h;
    m_headings->setStringList(headings);
    m_bar->hide();
    fill();
}

void ImportSheet::fill() {
    if (writing()) return;
    project::place(m_plan, target());
    m_filling = true;
    m_table->setRowCount(static_cast<int>(m_plan.rows.size()));
    for (int i = 0; i < m_table->rowCount(); ++i) {
        const auto& row = m_plan.rows[static_cast<std::size_t>(i)];
        auto* include = new QTableWidgetItem;
        include->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
        include->setCheckState(row.include ? Qt::Checked : Qt::Unchecked);
        m_table->setItem(i, includeColumn, include);
        auto* picture = new QTableWidgetItem;
        picture->setData(Qt::DecorationRole, smallCurve(row.curve));
        picture->setFlags(Qt::ItemIsEnabled);
        m_table->setItem(i, curveColumn, picture);
        const auto& file = m_plan.files[static_cast<std::size_t>(row.fileIndex)];
        const bool load = file.forceUnit && file.forceUnit->dimension == row.curve.loadKind;
        const auto& unit = load ? *file.forceUnit : m_session.units().of(row.curve.loadKind);
        const QString peak = row.reading ? (row.isBound() ? tr("at least ") : QString()) +
                                               qs(quantity::withUnit(row.reading->peak.load, unit))
                                         : QStringLiteral("–");
        const QStringList texts{(row.run.isEmpty() ? row.file : tr("%1, run %2").arg(row.file, row.run)) +
                                    "\n" + file.layout,
                                m_plan.needsForceUnit ? tr("unit?") : peak,
                                row.option,
                                row.condition,
                                QString::number(row.replicate),
                                !row.include          ? QString()
                                : row.piece.isEmpty() ? tr("new")
                                                      : row.piece,
                                row.remark()};
        for (int k = 0; k < texts.size(); ++k) {
            auto* item = new QTableWidgetItem(texts[k]);
            const int column = fileColumn + k;
            const bool editable =
                column == optionColumn || column == conditionColumn || column == replicateColumn;
            item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                           (editable ? Qt::ItemIsEditable : Qt::NoItemFlags));
            setTip(item, column != pieceColumn ? texts[k]
                         : row.specimen ? tr("It fills this waiting piece. Click: a new piece instead.")
                         : row.isNew    ? tr("A new piece, as you said. Click: the one that waits.")
                                        : tr("No piece of the plan waits for it: it makes a new one."));
            if (column == peakColumn) {
                item->setFont(figures(13));
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            }
            m_table->setItem(i, column, item);
        }
    }
    m_filling = false;
    showNames();
    summarise();
}

/// Runs of one file can be joined, and a run can be parted at every stretch without load.
void ImportSheet::showRowMenu(const QPoint& at) {
    const int row = m_table->rowAt(at.y());
    if (row < 0 || row >= static_cast<int>(m_plan.rows.size())) return;
    const auto index = static_cast<std::size_t>(row);
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName("rowMenu");
    auto* join = menu->addAction(tr("Join with the run above"), this, [this, index] {
        if (writing()) return;
        project::joinWithAbove(m_plan, index);
        fill();
    });
    join->setEnabled(index > 0 && m_plan.rows[index].fileIndex == m_plan.rows[index - 1].fileIndex);
    menu->addAction(tr("Split wherever the load is off"), this, [this, index] {
        if (writing()) return;
        if (project::splitAtRises(m_plan, index)) return fill();
        m_trouble->setText(tr("This run rises from nothing only once: there is nothing to split."));
        m_trouble->show();
    });
    menu->popup(m_table->viewport()->mapToGlobal(at));
}

void ImportSheet::showNames() {
    m_pattern->setText(
        (m_plan.patternSentence() + " " +
         tr("Say below what a word is, or correct a row, and all that are named alike follow."))
            .trimmed());
    m_pattern->setVisible(!m_plan.rows.empty());
    const auto* row = m_plan.byName();
    const auto words = row ? tables::wordsOf(row->naming) : std::vector<std::string>{};
    constexpr std::size_t mostWords = 7;
    const bool shown = words.size() > 1 && words.size() <= mostWords;
    m_words->setVisible(shown);
    qDeleteAll(m_words->findChildren<QWidget*>(Qt::FindDirectChildrenOnly));
    m_wordBoxes.clear();
    auto* layout = qobject_cast<QHBoxLayout*>(m_words->layout());
    while (auto* item = layout->takeAt(0))
        delete item;
    for (std::size_t i = 0; i < words.size() && shown; ++i) {
        const auto word = qs(words[i]);
        auto* label = plainLabel(word.size() > 18 ? word.left(17) + QStringLiteral("\u2026") : word);
        setTip(label, word);
        auto* box = new QComboBox;
        box->setObjectName(QStringLiteral("word%1").arg(i + 1));
        box->setAccessibleName(tr("What the word %1 is").arg(word));
        box->addItems({tr("not used"), tr("option"), tr("condition")});
        const auto in = [i](const std::vector<std::size_t>& places) {
            return std::find(places.begin(), places.end(), i) != places.end();
        };
        box->setCurrentIndex(in(m_plan.pattern.option) ? 1 : in(m_plan.pattern.condition) ? 2 : 0);
        connect(box, &QComboBox::activated, this, &ImportSheet::namesChosen);
        m_wordBoxes.push_back(box);
        layout->addWidget(label);
        layout->addWidget(box);
        layout->addSpacing(10);
    }
    layout->addStretch();
}

void ImportSheet::namesChosen() {
    if (writing()) return;
    tables::NamePattern pattern{{}, {}};
    for (std::size_t i = 0; i < m_wordBoxes.size(); ++i) {
        if (m_wordBoxes[i]->currentIndex() == 1) pattern.option.push_back(i);
        if (m_wordBoxes[i]->currentIndex() == 2) pattern.condition.push_back(i);
    }
    project::rename(m_plan, pattern);
    m_choices.pattern = pattern;
    QTimer::singleShot(0, this, &ImportSheet::fill); // the box that was used is made anew there
}

void ImportSheet::summarise() {
    const auto count =
        std::count_if(m_plan.rows.begin(), m_plan.rows.end(), [](const auto& r) { return r.include; });
    const int need = m_plan.needYou();
    auto text = m_plan.rows.empty() ? tr("No run was found in these files.")
                : need == 0         ? tr("%1 runs, all alike").arg(m_plan.alike())
                                    : tr("%1 alike, %2 need you").arg(m_plan.alike()).arg(need);
    if (const int filled = m_plan.filled(); filled > 0)
        text += tr(" · %1 fill the plan, %2 new").arg(filled).arg(static_cast<int>(count) - filled);
    m_summary->setText(text);
    QStringList trouble = m_plan.unread;
    for (const auto& f : m_plan.files)
        if (!f.problems.empty())
            trouble << tr("%1: line %2 %3%4.")
                           .arg(f.name)
                           .arg(f.problems.front().line)
                           .arg(qs(f.problems.front().reason),
                                f.rowsLeftOut > 1 ? tr(" (and %1 more rows left out)").arg(f.rowsLeftOut - 1)
                                                  : tr(" (left out)"));
    if (m_plan.unsureDecimal)
        trouble << tr(
            "Every comma is followed by three digits. Say whether 1,250 means 1.25 or 1250 to go on.");
    else if (m_plan.needsReadAt())
        trouble << qs(project::nobodySaid(*m_plan.path));
    else if (m_plan.needsForceUnit)
        trouble << tr("Choose the force unit to go on.");
    else if (m_plan.needsDisplacementUnit)
        trouble << tr("Choose the displacement unit to go on.");
    m_trouble->setText(trouble.join("\n"));
    m_trouble->setVisible(!trouble.isEmpty());
    m_go->setText(count == 1 ? tr("Import 1 run") : tr("Import %1 runs").arg(count));
    m_go->setVisible(count > 0 && !m_plan.open());
}

void ImportSheet::edited(int i, int column) {
    if (m_filling || writing() || i >= static_cast<int>(m_plan.rows.size())) return;
    auto& row = m_plan.rows[static_cast<std::size_t>(i)];
    const auto text = m_table->item(i, column)->text().simplified();
    if (column == includeColumn) {
        row.include = m_table->item(i, column)->checkState() == Qt::Checked && row.reading.has_value();
        return summarise();
    }
    if (column == replicateColumn) {
        row.replicate = std::max(0, text.toInt());
        return fill();
    }
    (column == optionColumn ? row.option : row.condition) = text;
    project::relearn(m_plan, static_cast<std::size_t>(i));
    m_choices.pattern = m_plan.pattern;
    fill();
}

void ImportSheet::turnPiece(int i) {
    if (writing() || i < 0 || i >= static_cast<int>(m_plan.rows.size())) return;
    auto& row = m_plan.rows[static_cast<std::size_t>(i)];
    if (!row.include || !(row.specimen || row.isNew)) return;
    row.isNew = !row.isNew;
    fill();
}

domain::StudyData ImportSheet::target() const {
    domain::StudyData into;
    if (!m_session.project()) return into;
    into.study = project::studyFor(m_paths, static_cast<int>(m_session.project()->studies().size()));
    if (const auto* data = m_session.project()->study(m_study->currentData().toLongLong())) into = *data;
    return into;
}

void ImportSheet::import() {
    if (!m_session.project()) return;
    const auto into = target();
    setWriting(true);
    m_written = false;
    m_stop = false;
    m_given = std::make_shared<project::ImportPlan>(std::exchange(m_plan, {}));
    auto* file = &m_session.project()->file();
    m_writing.setFuture(
        QtConcurrent::run([file, into, plan = m_given, stop = &m_stop]() -> Expected<project::Imported> {
            return project::importRuns(*file, into, *plan, stop);
        }));
}

} // namespace anvil::app
