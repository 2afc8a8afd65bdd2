// How the import sheet is laid out.
#include "shell/import_sheet.h"

#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QCompleter>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QStringListModel>
#include <QTableWidget>
#include <QVBoxLayout>

namespace anvil::app {

/// A question that one choice answers, a row of its own: two of them beside each other would be wider than a
/// small screen.
QWidget* ImportSheet::makeAsk(const QString& text, const QStringList& units, QComboBox*& box,
                              const char* name) {
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
    row->addStretch();
    connect(box, &QComboBox::activated, this, &ImportSheet::look);
    holder->hide();
    return holder;
}

void ImportSheet::makeAsks(QVBoxLayout* layout) {
    m_asks = new QWidget;
    auto* rows = new QVBoxLayout(m_asks);
    rows->setContentsMargins(0, 0, 0, 0);
    m_forceAsk =
        makeAsk(tr("Some files name no force unit. They are in"),
                {"N", "kN", "daN", "mN", "kgf", "gf", "tf", "lbf", "ozf", "kip"}, m_forceUnit, "forceUnit");
    m_lengthAsk =
        makeAsk(tr("Displacement without a unit is in"), {"mm", "cm", "m", "in"}, m_lengthUnit, "lengthUnit");
    m_timeAsk =
        makeAsk(tr("A clock without a unit counts"), {"s", "ms", "µs", "min", "h"}, m_timeUnit, "timeUnit");
    m_decimalAsk = makeAsk(tr("Does 1,250 mean"), {}, m_decimal, "decimal");
    m_decimal->addItem(tr("1.25 (decimal comma)"), ",");
    m_decimal->addItem(tr("1250 (thousands)"), ".");
    m_readAsk = makeAsk(tr("The loads are those"), {}, m_readAt, "readAt");
    m_readAt->addItem(tr("on the display"), "display");
    m_readAt->addItem(tr("at the piece"), "piece");
    for (auto* holder : {m_forceAsk, m_lengthAsk, m_timeAsk, m_decimalAsk, m_readAsk})
        rows->addWidget(holder);
    makeColumnAsks();
    layout->addWidget(m_columnAsk);
    makeTarget(rows);
    layout->addWidget(m_asks);
}

void ImportSheet::makeTarget(QVBoxLayout* rows) {
    auto* row = new QHBoxLayout;
    row->addWidget(plainLabel(tr("Rig limit, if it had one")));
    m_limit = new QLineEdit;
    m_limit->setObjectName("limit");
    m_limit->setPlaceholderText(tr("such as 5 kN"));
    m_limit->setMaximumWidth(grown(110));
    row->addWidget(m_limit);
    connect(m_limit, &QLineEdit::editingFinished, this, [this] {
        if (m_limit->isModified()) {
            m_limit->setModified(false);
            look();
        }
    });
    row->addWidget(plainLabel(tr("Into")));
    makeStudies();
    row->addWidget(m_study);
    row->addStretch();
    auto* change = new QPushButton(tr("Change columns…"));
    change->setObjectName("changeColumns");
    change->setAutoDefault(false);
    row->addWidget(change);
    connect(change, &QPushButton::clicked, this, [this] {
        m_columnAsk->show();
        m_load->setFocus();
    });
    rows->addLayout(row);
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
    m_study->addItem(tr("a new study: %1").arg(qs(project::studyFor(m_paths, 0).title)), Id{0});
    connect(m_study, &QComboBox::activated, this, &ImportSheet::look); // its method says what the load is
    m_study->setCurrentIndex(m_session.studyId() ? m_study->findData(m_session.studyId())
                                                 : m_study->count() - 1);
}

void ImportSheet::makeTable(QVBoxLayout* layout) {
    m_table = new QTableWidget(0, columnCount);
    m_table->setObjectName("runs");
    m_table->setHorizontalHeaderLabels({tr("In"), tr("Curve"), tr("File, run"), tr("Peak"), tr("Option"),
                                        tr("Condition"), tr("Replicate"), tr("Piece"), tr("Remark")});
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(grown(46));
    m_table->setColumnWidth(includeColumn, 34);
    m_table->setColumnWidth(curveColumn, 96);
    m_table->setColumnWidth(fileColumn, 270);
    m_table->horizontalHeader()->setSectionResizeMode(peakColumn, QHeaderView::ResizeToContents);
    m_table->setColumnWidth(optionColumn, 140);
    m_table->setColumnWidth(conditionColumn, 110);
    m_table->setColumnWidth(replicateColumn, 72);
    m_table->setColumnWidth(pieceColumn, 76);
    m_table->horizontalHeader()->setSectionResizeMode(remarkColumn, QHeaderView::Stretch);
    layout->addWidget(m_table, 1);
    connect(m_table, &QTableWidget::cellChanged, this, &ImportSheet::edited);
    connect(m_table, &QTableWidget::cellClicked, this, [this](int row, int column) {
        if (column == pieceColumn) turnPiece(row);
    });
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

} // namespace anvil::app
