#include "shell/import_sheet.h"

#include "shell/preferences.h"
#include "theme/theme.h"
#include "widgets/path_question.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QCompleter>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPainter>
#include <QProgressBar>
#include <QPushButton>
#include <QStringListModel>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <QtConcurrentRun>
#include <anvil/chart/charts.h>
#include <anvil/chart/painter.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/words/unlikely.h>

namespace anvil::app {
namespace {

enum Columns {
    includeColumn,
    curveColumn,
    fileColumn,
    peakColumn,
    optionColumn,
    conditionColumn,
    replicateColumn,
    remarkColumn,
    columnCount
};

QPixmap smallCurve(const curve::Curve& c) {
    constexpr int w = 84, h = 30;
    QPixmap pixmap(w * 2, h * 2);
    pixmap.setDevicePixelRatio(2);
    pixmap.fill(Qt::transparent);
    std::vector<double> index(c.force.size());
    for (std::size_t i = 0; i < index.size(); ++i)
        index[i] = static_cast<double>(i);
    const auto points = curve::Pyramid(c.force).draw(index, c.force, 0, static_cast<double>(index.size()), w);
    const auto [low, high] = std::minmax_element(c.force.begin(), c.force.end());
    const double range = *high > *low ? *high - *low : 1;
    QPolygonF line;
    for (const auto& p : points)
        line << QPointF(2 + p.x / static_cast<double>(index.size()) * (w - 4),
                        h - 3 - (p.y - *low) / range * (h - 6));
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(chart::color(theme().charts(), chart::Ink::series0), 1.4));
    painter.drawPolyline(line);
    return pixmap;
}

} // namespace

ImportSheet::ImportSheet(Session& session, const QStringList& paths, QWidget* parent)
    : QDialog(parent), m_session(session), m_paths(paths) {
    setWindowTitle(tr("Import logger files"));
    setObjectName("importSheet");
    resize(1080, 640);
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
    connect(&m_watcher, &QFutureWatcher<work::ImportPlan>::finished, this, &ImportSheet::looked);
    connect(&m_writing, &QFutureWatcher<Expected<work::Imported>>::finished, this, &ImportSheet::written);
    auto* ticker = new QTimer(this);
    connect(ticker, &QTimer::timeout, this,
            [this] { m_bar->setValue(static_cast<int>(m_progressShare * 100)); });
    ticker->start(80);
    look();
}

void ImportSheet::makeAsks(QVBoxLayout* layout) {
    m_asks = new QWidget;
    auto* asks = new QHBoxLayout(m_asks);
    asks->setContentsMargins(0, 0, 0, 0);
    const auto ask = [&](const QString& text, const QStringList& units, QComboBox*& box, const char* name) {
        auto* holder = new QWidget;
        auto* row = new QHBoxLayout(holder);
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(plainLabel(text));
        box = new QComboBox;
        box->setObjectName(name);
        box->addItem(tr("choose…"), QString());
        for (const auto& u : units)
            box->addItem(u, u);
        row->addWidget(box);
        asks->addWidget(holder);
        connect(box, &QComboBox::activated, this, &ImportSheet::look);
        return holder;
    };
    m_forceAsk = ask(tr("Some files name no force unit. They are in"), {"N", "kN", "daN", "kgf", "lbf"},
                     m_forceUnit, "forceUnit");
    m_lengthAsk =
        ask(tr("Displacement without a unit is in"), {"mm", "cm", "m", "in"}, m_lengthUnit, "lengthUnit");
    m_decimalAsk = ask(tr("Does 1,250 mean"), {}, m_decimal, "decimal");
    m_decimal->addItem(tr("1.25 (decimal comma)"), ",");
    m_decimal->addItem(tr("1250 (thousands)"), ".");
    m_readAsk = ask(tr("The loads are those"), {}, m_readAt, "readAt");
    m_readAt->addItem(tr("on the display"), "display");
    m_readAt->addItem(tr("at the piece"), "piece");
    for (auto* holder : {m_forceAsk, m_lengthAsk, m_decimalAsk, m_readAsk})
        holder->hide();
    makeColumnAsks();
    layout->addWidget(m_columnAsk);
    auto* limitLabel = plainLabel(tr("Rig limit, if it had one"));
    asks->addWidget(limitLabel);
    m_limit = new QLineEdit;
    m_limit->setObjectName("limit");
    m_limit->setPlaceholderText(tr("such as 5 kN"));
    m_limit->setMaximumWidth(grown(110));
    asks->addWidget(m_limit);
    connect(m_limit, &QLineEdit::editingFinished, this, [this] {
        if (m_limit->isModified()) {
            m_limit->setModified(false);
            look();
        }
    });
    asks->addWidget(plainLabel(tr("Into")));
    makeStudies();
    asks->addWidget(m_study);
    asks->addStretch();
    auto* change = new QPushButton(tr("Change columns…"));
    change->setObjectName("changeColumns");
    change->setAutoDefault(false);
    asks->addWidget(change);
    connect(change, &QPushButton::clicked, this, [this] {
        m_columnAsk->show();
        m_load->setFocus();
    });
    layout->addWidget(m_asks);
}

void ImportSheet::makeColumnAsks() {
    // Which column is what, where nobody can tell: by name or number, for all files alike.
    m_columnAsk = new QWidget;
    auto* columns = new QHBoxLayout(m_columnAsk);
    columns->setContentsMargins(0, 0, 0, 0);
    const auto column = [&](const QString& text, const char* name) {
        columns->addWidget(plainLabel(text));
        auto* edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(tr("name or number"));
        edit->setMaximumWidth(grown(130));
        edit->setAccessibleName(text);
        columns->addWidget(edit);
        connect(edit, &QLineEdit::editingFinished, this, [this, edit] {
            if (!edit->isModified()) return;
            edit->setModified(false);
            look();
        });
        return edit;
    };
    m_load = column(tr("The load is in column"), "loadColumn");
    m_time = column(tr("the time in"), "timeColumn");
    m_way = column(tr("the way in"), "wayColumn");
    m_sheet = column(tr("of the sheet"), "sheetName");
    columns->addStretch();
    m_headings = new QStringListModel(this);
    for (auto* edit : {m_load, m_time, m_way}) {
        auto* completer = new QCompleter(m_headings, edit);
        completer->setCaseSensitivity(Qt::CaseInsensitive);
        completer->setCompletionMode(QCompleter::UnfilteredPopupCompletion);
        edit->setCompleter(completer);
    }
    m_columnAsk->hide();
}

void ImportSheet::makeStudies() {
    m_study = new QComboBox;
    m_study->setObjectName("intoStudy");
    m_study->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_study->setMinimumContentsLength(18);
    if (m_session.project())
        for (const auto& s : m_session.project()->studies())
            m_study->addItem(qs(s.study.title), s.study.id);
    m_study->addItem(tr("a new study: %1").arg(qs(work::studyFor(m_paths, 0).title)), Id{0});
    m_study->setCurrentIndex(m_session.studyId() ? m_study->findData(m_session.studyId())
                                                 : m_study->count() - 1);
}

void ImportSheet::makeTable(QVBoxLayout* layout) {
    m_table = new QTableWidget(0, columnCount);
    m_table->setObjectName("runs");
    m_table->setHorizontalHeaderLabels({tr("In"), tr("Curve"), tr("File, run"), tr("Peak"), tr("Option"),
                                        tr("Condition"), tr("Replicate"), tr("Remark")});
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(grown(46));
    m_table->setColumnWidth(includeColumn, 34);
    m_table->setColumnWidth(curveColumn, 96);
    m_table->setColumnWidth(fileColumn, 270);
    m_table->horizontalHeader()->setSectionResizeMode(peakColumn, QHeaderView::ResizeToContents);
    m_table->setColumnWidth(optionColumn, 140);
    m_table->setColumnWidth(conditionColumn, 110);
    m_table->setColumnWidth(replicateColumn, 72);
    m_table->horizontalHeader()->setSectionResizeMode(remarkColumn, QHeaderView::Stretch);
    layout->addWidget(m_table, 1);
    connect(m_table, &QTableWidget::cellChanged, this, &ImportSheet::edited);
    m_table->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(m_table, &QTableWidget::customContextMenuRequested, this, &ImportSheet::showRowMenu);
}

void ImportSheet::makeFoot(QVBoxLayout* layout) {
    m_pattern = plainLabel();
    m_pattern->setObjectName("faint");
    m_pattern->setWordWrap(true);
    layout->addWidget(m_pattern);
    m_words = new QWidget;
    m_words->setObjectName("nameWords");
    new QHBoxLayout(m_words);
    m_words->layout()->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_words);
    auto* bottom = new QHBoxLayout;
    m_bar = new QProgressBar;
    m_bar->setRange(0, 100);
    m_cancel = new QPushButton(tr("Cancel"));
    m_cancel->setAutoDefault(false);
    m_go = new QPushButton(tr("Import"));
    m_go->setObjectName("primary");
    m_go->setDefault(false);
    m_go->setAutoDefault(false);
    bottom->addWidget(m_bar, 1);
    bottom->addStretch();
    bottom->addWidget(m_cancel);
    bottom->addWidget(m_go);
    layout->addLayout(bottom);
    connect(m_cancel, &QPushButton::clicked, this, &ImportSheet::reject);
    connect(m_go, &QPushButton::clicked, this, &ImportSheet::import);
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
    m_choices.hints.decimal = m_decimal->currentData().toString().isEmpty()
                                  ? '\0'
                                  : m_decimal->currentData().toString()[0].toLatin1();
    m_choices.columnsWhereNeeded = true;
    m_choices.hints.force = m_load->text().trimmed().toStdString();
    m_choices.hints.time = m_time->text().trimmed().toStdString();
    m_choices.hints.displacement = m_way->text().trimmed().toStdString();
    m_choices.hints.sheet = m_sheet->text().trimmed().toStdString();
    m_choices.rigLimit.reset();
    const auto into = target();
    m_choices.path = m_session.project() ? work::pathOf(*m_session.project(), into) : std::nullopt;
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
        return work::lookAt(
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
    m_columnAsk->setVisible(!m_plan.unread.isEmpty() || m_columnAsk->isVisible());
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
        const bool load = file.forceUnit && file.forceUnit->dimension == row.curve.load;
        const auto& unit = load ? *file.forceUnit : m_session.units().of(row.curve.load);
        const QString peak = row.reading ? (row.isBound() ? tr("at least ") : QString()) +
                                               qs(quantity::withUnit(row.reading->peak.force, unit))
                                         : QStringLiteral("–");
        const QStringList texts{(row.run.isEmpty() ? row.file : tr("%1, run %2").arg(row.file, row.run)) +
                                    "\n" + file.layout,
                                m_plan.needsForceUnit ? tr("unit?") : peak,
                                row.option,
                                row.condition,
                                QString::number(row.replicate),
                                row.remark()};
        for (int k = 0; k < texts.size(); ++k) {
            auto* item = new QTableWidgetItem(texts[k]);
            const int column = fileColumn + k;
            const bool editable =
                column == optionColumn || column == conditionColumn || column == replicateColumn;
            item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                           (editable ? Qt::ItemIsEditable : Qt::NoItemFlags));
            setTip(item, texts[k]);
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
        work::joinWithAbove(m_plan, index);
        fill();
    });
    join->setEnabled(index > 0 && m_plan.rows[index].fileIndex == m_plan.rows[index - 1].fileIndex);
    menu->addAction(tr("Split wherever the load is off"), this, [this, index] {
        if (writing()) return;
        if (work::splitAtRises(m_plan, index)) return fill();
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
    const auto row = std::find_if(m_plan.rows.begin(), m_plan.rows.end(),
                                  [](const auto& r) { return !r.corrected && r.ownOption.isEmpty(); });
    const auto words = row == m_plan.rows.end() ? std::vector<std::string>{} : tables::wordsOf(row->naming);
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
    work::rename(m_plan, pattern);
    m_choices.pattern = pattern;
    QTimer::singleShot(0, this, &ImportSheet::fill); // the box that was used is made anew there
}

void ImportSheet::summarise() {
    const auto count =
        std::count_if(m_plan.rows.begin(), m_plan.rows.end(), [](const auto& r) { return r.include; });
    const int need = m_plan.needYou();
    m_summary->setText(m_plan.rows.empty() ? tr("No run was found in these files.")
                       : need == 0         ? tr("%1 runs, all alike").arg(m_plan.alike())
                                           : tr("%1 alike, %2 need you").arg(m_plan.alike()).arg(need));
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
        trouble << qs(work::nobodySaid(*m_plan.path));
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
    work::relearn(m_plan, static_cast<std::size_t>(i));
    m_choices.pattern = m_plan.pattern;
    fill();
}

domain::StudyData ImportSheet::target() const {
    domain::StudyData into;
    if (!m_session.project()) return into;
    into.study = work::studyFor(m_paths, static_cast<int>(m_session.project()->studies().size()));
    if (const auto* data = m_session.project()->study(m_study->currentData().toLongLong())) into = *data;
    return into;
}

void ImportSheet::import() {
    if (!m_session.project()) return;
    const auto into = target();
    setWriting(true);
    m_written = false;
    m_stop = false;
    m_given = std::make_shared<work::ImportPlan>(std::exchange(m_plan, {}));
    auto* file = &m_session.project()->file();
    m_writing.setFuture(
        QtConcurrent::run([file, into, plan = m_given, stop = &m_stop]() -> Expected<work::Imported> {
            return work::importRuns(*file, into, *plan, stop);
        }));
}

ValuesSheet::ValuesSheet(Session& session, const QByteArray& bytes, const QString& sourceName,
                         QWidget* parent)
    : QDialog(parent), m_session(session), m_source(sourceName) {
    setWindowTitle(tr("Import results"));
    setObjectName("valuesSheet");
    resize(720, 480);
    auto* layout = new QVBoxLayout(this);
    auto* head = plainLabel();
    head->setObjectName("big");
    head->setWordWrap(true);
    layout->addWidget(head);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    auto table =
        tables::readValues(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!table) {
        head->setText(tr("%1: %2.").arg(sourceName, qs(table.error().message)));
        auto* help = plainLabel(tr("One row a piece, with the headings option, condition, value, unit and "
                                   "standing:\n\noption\tcondition\tvalue\tunit\tstanding\nWedge "
                                   "socket\tPlain\t4.21\tkN\texact\nWedge socket\tPlain\t4.40\tkN\tabove"));
        help->setObjectName("faint");
        layout->addWidget(help);
        layout->addStretch();
        layout->addWidget(buttons);
        return;
    }
    m_tableData = std::move(*table);
    const auto& rows = m_tableData->rows;
    head->setText(rows.size() == 1 ? tr("1 result") : tr("%1 results").arg(rows.size()));
    QStringList trouble;
    for (const auto& p : m_tableData->problems)
        trouble << tr("Line %1 %2 (left out).").arg(p.line).arg(qs(p.reason));
    const auto odd = work::unlikelyRows(*m_tableData, nullptr);
    for (const auto& o : odd)
        trouble.prepend(tr("Line %1: %2").arg(o.line).arg(qs(words::sentence(o.odd, o.told))));
    if (!trouble.isEmpty()) {
        auto* label = plainLabel(trouble.mid(0, 6).join("\n"));
        label->setObjectName("trouble");
        label->setWordWrap(true);
        layout->addWidget(label);
    }
    const bool needsUnit = std::any_of(rows.begin(), rows.end(), [](const auto& r) { return !r.unit; });
    if (needsUnit) {
        auto* row = new QHBoxLayout;
        row->addWidget(plainLabel(tr("The table names no unit. The values are in")));
        m_unit = new QComboBox;
        m_unit->setObjectName("valueUnit");
        for (const char* u : {"", "N", "kN", "kgf", "lbf", "N/mm", "J"})
            m_unit->addItem(*u ? QString::fromUtf8(u) : tr("choose…"), QString::fromUtf8(u));
        row->addWidget(m_unit);
        row->addStretch();
        layout->addLayout(row);
    }
    auto* view = new QTableWidget(static_cast<int>(rows.size()), 5);
    view->setHorizontalHeaderLabels({tr("Option"), tr("Condition"), tr("Value"), tr("Unit"), tr("Standing")});
    view->verticalHeader()->hide();
    view->setEditTriggers(QAbstractItemView::NoEditTriggers);
    view->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    static const char* const states[] = {"counts", "at least", "at most", "between", "set aside"};
    static_assert(std::size(states) == static_cast<std::size_t>(stats::State::aside) + 1);
    for (int i = 0; i < view->rowCount(); ++i) {
        const auto& r = rows[static_cast<std::size_t>(i)];
        const QStringList cells{qs(r.option), qs(r.condition), qs(r.asTyped),
                                r.unit ? qs(std::string(r.unit->symbol)) : tr("?"),
                                QString::fromUtf8(states[static_cast<int>(r.value.state)])};
        for (int k = 0; k < 5; ++k)
            view->setItem(i, k, new QTableWidgetItem(cells[k]));
    }
    layout->addWidget(view, 1);
    layout->addWidget(new PathQuestion(m_session));
    m_go = buttons->addButton(odd.empty() ? tr("Import") : tr("Import as it stands"),
                              QDialogButtonBox::AcceptRole);
    m_go->setObjectName("primary");
    connect(m_go, &QPushButton::clicked, this, &ValuesSheet::import);
    if (m_unit) {
        m_go->hide();
        connect(m_unit, &QComboBox::activated, this,
                [this] { m_go->setVisible(!m_unit->currentData().toString().isEmpty()); });
    }
    layout->addWidget(buttons);
}

void ValuesSheet::import() {
    if (!m_session.project()) return;
    domain::StudyData into;
    into.study = work::studyFor({}, static_cast<int>(m_session.project()->studies().size()));
    if (const auto* data = m_session.study()) into = *data;
    const auto* unit = m_unit ? &quantity::unit(m_unit->currentData().toString().toStdString()) : nullptr;
    if (const auto said = work::readThrough(*m_session.project(), into);
        !said && into.study.id && into.study.plan.readAt.empty())
        return void(m_session.tell(said)); // asked below the table
    const auto done = work::importValues(*m_session.project(), into, *m_tableData, unit, m_source);
    if (!m_session.tell(done)) return reject();
    m_imported = done->pulls;
    m_session.tell(m_session.project()->adopt(done->journal, done->what));
    accept();
}

} // namespace anvil::app
