#include "shell/picture_dialog.h"

#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include <QButtonGroup>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {
namespace {

using Tool = MarkedPicture::Tool;

QString kindName(methods::MarkKind kind) {
    switch (kind) {
    case methods::MarkKind::distance:
        return QObject::tr("distance");
    case methods::MarkKind::angle:
        return QObject::tr("angle");
    case methods::MarkKind::area:
        return QObject::tr("area");
    case methods::MarkKind::whole:
        return QObject::tr("share of the whole");
    }
    return {};
}

} // namespace

std::vector<PictureTarget> pictureTargets(const std::vector<project::MeasuredField>& fields) {
    std::vector<PictureTarget> out;
    out.reserve(fields.size());
    for (const auto& f : fields)
        out.push_back({qs(f.key), qs(f.title), f.dimension});
    return out;
}

PictureDialog::PictureDialog(const Photo& picture, const QString& name, const methods::PictureMarks& marks,
                             std::vector<PictureTarget> targets, const QString& wanted,
                             const quantity::Units& units, QWidget* parent)
    : QDialog(parent), m_targets(std::move(targets)), m_wanted(wanted), m_units(units) {
    setObjectName("pictureDialog");
    setWindowTitle(tr("Measure on %1").arg(name));
    auto* layout = new QVBoxLayout(this);
    m_next = wrappedLabel("pictureNext");
    layout->addWidget(m_next);
    layout->addWidget(makeTools());
    auto* middle = new QHBoxLayout;
    m_picture = new MarkedPicture(picture, marks);
    middle->addWidget(m_picture, 1);
    auto* side = new QWidget;
    side->setFixedWidth(grown(330));
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(makeKnown());
    column->addWidget(makeResults(), 1);
    middle->addWidget(side);
    layout->addLayout(middle, 1);
    auto* buttons = new QDialogButtonBox;
    auto* keepIt = buttons->addButton(tr("Keep"), QDialogButtonBox::AcceptRole);
    keepIt->setObjectName("primary");
    keepIt->setAutoDefault(false); // Return ends an outline, or a field
    buttons->addButton(tr("Cancel"), QDialogButtonBox::RejectRole)->setAutoDefault(false);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
    connect(m_picture, &MarkedPicture::changed, this, &PictureDialog::show);
    connect(m_picture, &MarkedPicture::toolFinished, this, [this] {
        const bool known = m_picture->tool() == Tool::length || m_picture->tool() == Tool::rectangle;
        if (known) m_length->setFocus();
        if (!known) m_table->selectRow(m_table->rowCount() - 1);
    });
    connect(m_picture, &MarkedPicture::markPicked, this, [this](int mark) { m_table->selectRow(mark); });
    const auto tool = methods::isComplete(marks.scale) ? Tool::distance : Tool::length;
    m_picture->setTool(tool);
    m_tools->button(static_cast<int>(tool))->setChecked(true);
    show();
    QSize room(1080, 720);
    if (parent) room = room.boundedTo(parent->window()->size() - QSize(40, 60));
    resize(room);
    m_picture->setFocus();
}

void PictureDialog::keyPressEvent(QKeyEvent* event) {
    const bool ends = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (ends && !qobject_cast<QPushButton*>(focusWidget())) return m_picture->setFocus();
    QDialog::keyPressEvent(event);
}

const quantity::Unit& PictureDialog::unitOf(quantity::Dimension dimension) const {
    return dimension == quantity::Dimension::ratio ? quantity::unit("%") : m_units.of(dimension);
}

QWidget* PictureDialog::makeTools() {
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(0, 0, 0, 0);
    m_tools = new QButtonGroup(this);
    const auto tool = [&](Tool which, const QString& text, const QString& tip, const char* name) {
        auto* b = new QPushButton(text);
        b->setObjectName(QString::fromLatin1(name));
        b->setCheckable(true);
        b->setAutoDefault(false);
        setTip(b, tip);
        m_tools->addButton(b, static_cast<int>(which));
        row->addWidget(b);
    };
    tool(Tool::length, tr("Known length"), tr("Its two ends; everything measured lies in its plane"),
         "toolLength");
    tool(Tool::rectangle, tr("Known rectangle"),
         tr("Its four corners going round; undoes the perspective of its plane"), "toolRectangle");
    row->addSpacing(16);
    tool(Tool::distance, tr("Distance"), tr("Two places"), "toolDistance");
    tool(Tool::angle, tr("Angle"), tr("Three places, the corner in the middle"), "toolAngle");
    tool(Tool::area, tr("Area"), tr("An outline; a double click or Return ends it"), "toolArea");
    tool(Tool::whole, tr("Whole"), tr("The outline of what the areas are a share of"), "toolWhole");
    row->addStretch();
    connect(m_tools, &QButtonGroup::idClicked, this, [this](int id) {
        m_picture->setTool(static_cast<Tool>(id));
        m_picture->setFocus();
        sayNext();
    });
    return bar;
}

QWidget* PictureDialog::makeKnown() {
    auto* box = new QWidget;
    auto* form = new QFormLayout(box);
    form->setContentsMargins(0, 0, 0, 0);
    m_length = field("knownLength", tr("such as 300 mm"), 150);
    m_height = field("knownHeight", tr("such as 200 mm"), 150);
    m_doubt = field("knownDoubt", tr("exact"), 150);
    m_click = field("clickDoubt", tr("2"), 150);
    form->addRow(tr("First place to second"), m_length);
    m_heightTitle = plainLabel(tr("Second to third"));
    form->addRow(m_heightTitle, m_height);
    form->addRow(tr("Known to ±"), m_doubt);
    form->addRow(tr("A click is good to ± px"), m_click);
    m_wrong = wrappedLabel("warning");
    m_wrong->hide();
    form->addRow(m_wrong);
    for (auto* edit : {m_length, m_height, m_doubt, m_click})
        whenEdited(edit, this, [this] { readKnown(); });
    const auto& marks = m_picture->marks();
    const auto text = [&](double si) {
        return si > 0 ? qs(quantity::asEntered(si, unitOf(quantity::Dimension::length))) : QString();
    };
    m_length->setText(text(marks.scale.length));
    m_height->setText(text(marks.scale.height));
    m_doubt->setText(text(marks.scale.doubt));
    m_click->setText(qs(quantity::shortest(marks.click)));
    return box;
}

QWidget* PictureDialog::makeResults() {
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 8, 0, 0);
    m_table = makeTable({tr("Name"), tr("Measures")}, "pictureMarks");
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    m_table->setColumnWidth(0, grown(110));
    m_table->setWordWrap(true);
    column->addWidget(m_table, 1);
    connect(m_table, &QTableWidget::itemSelectionChanged, this, [this] {
        if (m_filling) return;
        const int row = m_table->currentRow();
        m_picture->select(row < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(row)));
        showTargets();
    });
    connect(m_table, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
        if (m_filling || item->column() != 0) return;
        auto marks = m_picture->marks();
        marks.marks[static_cast<std::size_t>(item->row())].name = item->text().simplified().toStdString();
        m_picture->setMarks(std::move(marks));
    });
    m_remove = new QPushButton(tr("Take this mark away"));
    m_remove->setObjectName("removeMark");
    m_remove->setAutoDefault(false);
    column->addWidget(m_remove);
    connect(m_remove, &QPushButton::clicked, this, [this] {
        if (m_table->currentRow() >= 0)
            m_picture->removeMark(static_cast<std::size_t>(m_table->currentRow()));
    });
    m_target = new QComboBox;
    m_target->setObjectName("pictureTarget");
    m_target->setAccessibleName(tr("Field that takes the number"));
    m_put = new QPushButton(tr("Put it there"));
    m_put->setObjectName("putIntoField");
    m_put->setAutoDefault(false);
    auto* row = new QHBoxLayout;
    row->addWidget(m_target, 1);
    row->addWidget(m_put);
    column->addLayout(row);
    connect(m_put, &QPushButton::clicked, this, &PictureDialog::put);
    return box;
}

void PictureDialog::readKnown() {
    auto marks = m_picture->marks();
    QString wrong;
    const auto length = [&](QLineEdit* edit, double& target) {
        if (edit->text().trimmed().isEmpty()) return void(target = 0);
        const auto entry = quantity::parseEntry(edit->text().toStdString(), quantity::Dimension::length);
        if (!entry)
            wrong = qs(entry.error().message);
        else if (!(entry->si > 0))
            wrong = tr("A known length is above zero.");
        else
            target = entry->si;
    };
    length(m_length, marks.scale.length);
    length(m_height, marks.scale.height);
    length(m_doubt, marks.scale.doubt);
    if (const auto click = quantity::parseNumber(m_click->text().toStdString()); click && *click > 0)
        marks.click = *click;
    else
        wrong = tr("A click is good to some pixels: a number above zero.");
    m_wrong->setText(wrong);
    m_wrong->setVisible(!wrong.isEmpty());
    if (marks.scale.points.size() != 4) marks.scale.height = 0;
    m_picture->setMarks(std::move(marks));
    show();
}

void PictureDialog::show() {
    const bool rectangle = m_picture->marks().scale.points.size() == 4;
    m_height->setVisible(rectangle);
    m_heightTitle->setVisible(rectangle);
    showResults();
    showTargets();
    sayNext();
}

void PictureDialog::showResults() {
    m_filling = true;
    const auto& marks = m_picture->marks();
    const int current = m_table->currentRow();
    m_table->setRowCount(static_cast<int>(marks.marks.size()));
    for (std::size_t i = 0; i < marks.marks.size(); ++i) {
        const auto& mark = marks.marks[i];
        const auto measure = methods::measureMark(marks, i);
        const auto text =
            measure ? tr("%1: %2").arg(
                          kindName(mark.kind),
                          qs(quantity::print(methods::asEntry(*measure, unitOf(measure->dimension)))))
                    : qs(measure.error().message);
        auto* name = new QTableWidgetItem(mark.name.empty() ? QString::number(i + 1) : qs(mark.name));
        auto* said = new QTableWidgetItem(text);
        said->setFlags(said->flags() & ~Qt::ItemIsEditable);
        setTip(said, text);
        m_table->setItem(static_cast<int>(i), 0, name);
        m_table->setItem(static_cast<int>(i), 1, said);
    }
    m_table->resizeRowsToContents();
    m_filling = false;
    const int rows = m_table->rowCount();
    if (rows > 0) m_table->selectRow(current >= 0 && current < rows ? current : rows - 1);
}

std::optional<methods::PictureMeasure> PictureDialog::chosen() const {
    const int row = m_table->currentRow();
    if (row < 0 || row >= static_cast<int>(m_picture->marks().marks.size())) return std::nullopt;
    const auto measure = methods::measureMark(m_picture->marks(), static_cast<std::size_t>(row));
    return measure ? std::optional(*measure) : std::nullopt;
}

void PictureDialog::showTargets() {
    const auto before = m_target->currentData();
    m_target->clear();
    const auto measure = chosen();
    for (const auto& t : m_targets)
        if (measure && t.dimension == measure->dimension) {
            const auto given = m_given.find(t.key);
            m_target->addItem(given == m_given.end() ? t.title : tr("%1 = %2").arg(t.title, given->second),
                              t.key);
        }
    const int wanted = m_target->findData(before.isValid() ? before : QVariant(m_wanted));
    m_target->setCurrentIndex(std::max(0, wanted));
    const bool any = m_target->count() > 0;
    m_target->setVisible(!m_targets.empty());
    m_put->setVisible(!m_targets.empty());
    m_target->setEnabled(any);
    m_put->setEnabled(any);
    if (!any && !m_targets.empty())
        m_target->addItem(measure ? tr("no field takes such a number") : tr("mark something first"));
    m_remove->setEnabled(m_table->currentRow() >= 0);
}

void PictureDialog::put() {
    const auto measure = chosen();
    const auto key = m_target->currentData().toString();
    if (!measure || key.isEmpty()) return;
    m_given[key] = qs(quantity::print(methods::asEntry(*measure, unitOf(measure->dimension))));
    showTargets();
    m_next->setText(tr("%1 goes to the field when you keep this.").arg(m_given[key]));
}

void PictureDialog::sayNext() {
    const auto& marks = m_picture->marks();
    const auto begun = m_picture->begun();
    const auto said = [&]() -> QString {
        switch (m_picture->tool()) {
        case Tool::length:
            if (marks.scale.points.empty() || begun > 0)
                return begun == 0 ? tr("Click one end of something whose length you know.")
                                  : tr("Click its other end.");
            if (!methods::isComplete(marks.scale)) return tr("Type how long it is, at the right.");
            return tr("The scale is known. Choose what to measure: distance, angle or area.");
        case Tool::rectangle:
            if (marks.scale.points.size() != 4 || begun > 0)
                return tr("Click the four corners of a rectangle whose sides you know, going round: %1 of 4.")
                    .arg(begun);
            if (!methods::isComplete(marks.scale)) return tr("Type how long its sides are, at the right.");
            return tr("Scale and perspective are known. Choose what to measure: distance, angle or area.");
        case Tool::distance:
            return begun == 0 ? tr("Click where the distance begins.") : tr("Click where it ends.");
        case Tool::angle:
            return begun == 0   ? tr("Click a place on one side of the angle.")
                   : begun == 1 ? tr("Click its corner.")
                                : tr("Click a place on the other side.");
        case Tool::area:
        case Tool::whole:
            return begun < 3
                       ? tr("Click round the outline.")
                       : tr("Go on round the outline; a double click, Return or its first place ends it.");
        }
        return {};
    }();
    m_next->setText(said + ' ' +
                    tr("(Wheel zooms, right button moves, arrow keys nudge the last place by a pixel.)"));
}

} // namespace anvil::app
