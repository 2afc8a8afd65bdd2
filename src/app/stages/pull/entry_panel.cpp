#include "stages/pull/entry_panel.h"

#include "shell/picture_dialog.h"
#include "shell/pictures_list.h"
#include "shell/preferences.h"
#include "theme/theme.h"
#include "widgets/path_question.h"
#include "widgets/photo.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/row_editor.h"
#include "widgets/unit_question.h"
#include "widgets/unit_tail.h"
#include <QComboBox>
#include <QDropEvent>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <anvil/chart/charts.h>
#include <anvil/domain/outcomes.h>
#include <anvil/domain/rating.h>
#include <anvil/methods/method.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/picture_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/results/inputs.h>
#include <anvil/results/unlikely.h>
#include <anvil/tables/file.h>
#include <anvil/words/values.h>
#include <utility>

namespace anvil::app {

EntryPanel::EntryPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    setObjectName("entryPanel");
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    m_piece = wrappedLabel("nextPiece");
    layout->addWidget(m_piece);
    m_about = wrappedLabel("faint");
    layout->addWidget(m_about);
    auto* path = new PathQuestion(m_session);
    layout->addWidget(path);
    connect(path, &PathQuestion::answered, this, [this] { focusFirst(); });
    layout->addSpacing(8);
    layout->addLayout(makeForm());
    auto* row = new QHBoxLayout;
    m_broke = new QComboBox;
    m_broke->setObjectName("entryBroke");
    row->addWidget(m_broke);
    auto* keepIt = new QPushButton(tr("Keep, next piece"));
    keepIt->setObjectName("primary");
    auto* other = new QPushButton(tr("Another piece"));
    other->setObjectName("entryOther");
    row->addWidget(keepIt);
    row->addWidget(other);
    row->addStretch();
    layout->addSpacing(8);
    layout->addLayout(row);
    layout->addWidget(m_question = new UnitQuestion(m_session));
    layout->addSpacing(8);
    m_scale = wrappedLabel("ratingScale");
    layout->addWidget(m_scale);
    m_words = new RowEditor({tr("Step, 0 to 10"), tr("What it means, such as: falls out by hand")},
                            tr("What the steps of the scale mean"));
    m_words->setObjectName("ratingWords");
    layout->addWidget(m_words);
    layout->addStretch();
    connect(m_words, &RowEditor::edited, this, &EntryPanel::saveWords);
    connect(keepIt, &QPushButton::clicked, this, &EntryPanel::keep);
    connect(other, &QPushButton::clicked, this, [this] {
        m_question->hide();
        m_turn.passOver(m_next);
        m_taken.clear(); // they are of the piece that was passed over
        refill();
    });
    follow();
}

/// The fields of the method, and beside them its piece.
QLayout* EntryPanel::makeForm() {
    m_form = new QWidget;
    m_grid = new QGridLayout(m_form);
    m_grid->setContentsMargins(0, 0, 0, 0);
    m_grid->setColumnStretch(2, 1);
    auto* middle = new QHBoxLayout;
    middle->addWidget(m_form, 1);
    m_picture = new PictureView;
    m_picture->setFixedSize(grown(300), grown(170));
    auto* beside = new QVBoxLayout;
    beside->addWidget(m_picture);
    m_measure = new QPushButton(tr("Measure on a picture…"));
    m_measure->setObjectName("measureOnPicture");
    setTip(m_measure, tr("Choose a photo, or drop it on the field that wants the number"));
    beside->addWidget(m_measure, 0, Qt::AlignLeft);
    beside->addStretch();
    middle->addLayout(beside);
    connect(m_measure, &QPushButton::clicked, this, &EntryPanel::choosePicture);
    return middle;
}

QLineEdit* EntryPanel::addLine(int row, const QString& key, const QString& title, const QString& hint,
                               bool needed) {
    auto* edit = field("", hint, 260);
    edit->setObjectName("entry-" + key);
    edit->setAccessibleName(title);
    edit->setMinimumWidth(grown(250));
    auto* label = plainLabel(title);
    if (!needed) label->setObjectName("faint"); // may stay empty
    label->setBuddy(edit);
    m_grid->addWidget(label, row, 0);
    m_grid->addWidget(edit, row, 1);
    return edit;
}

void EntryPanel::makeForm(const methods::Method& method) {
    m_method = &method;
    m_fields.clear();
    while (auto* item = m_grid->takeAt(0)) {
        if (auto* w = item->widget()) w->deleteLater();
        delete item;
    }
    int row = 0;
    for (const auto& input : method.inputs)
        if (input.of == methods::Of::pull && input.form == methods::Form::one) {
            m_fields.push_back({&input,
                                addLine(row++, qs(input.key), qs(input.title), qs(input.hint), input.needed),
                                qs(input.key)});
        } else if (input.of == methods::Of::pull && input.form == methods::Form::perLeg) {
            for (int leg = 1; leg <= m_legs; ++leg) {
                const auto key = QStringLiteral("%1.%2").arg(qs(input.key)).arg(leg);
                m_fields.push_back({&input,
                                    addLine(row++, key, tr("%1, leg %2").arg(qs(input.title)).arg(leg),
                                            qs(input.hint), false),
                                    key});
            }
        }
    m_note = addLine(row, "note", tr("What was seen"), tr("a few words"), false);
    for (const auto& f : m_fields)
        connect(f.edit, &QLineEdit::textChanged, this, &EntryPanel::drawSketch);
    for (const auto& f : m_fields) {
        f.edit->installEventFilter(this);
        connect(f.edit, &QLineEdit::textEdited, m_question, &QWidget::hide);
        auto* tail = new UnitTail(
            f.edit, m_session, [this, input = f.input] { return std::optional(typedIn(*input)); },
            [this, edit = f.edit] { return unitBefore(edit); });
        for (const auto& other : m_fields)
            if (other.edit != f.edit) connect(other.edit, &QLineEdit::textChanged, tail, &UnitTail::update);
    }
    for (const auto& f : m_fields)
        connect(f.edit, &QLineEdit::returnPressed, this, [this, edit = f.edit] { entered(edit); });
    connect(m_note, &QLineEdit::returnPressed, this, &EntryPanel::keep);
    m_about->setText(qs(method.entryHint));
}

quantity::Dimension EntryPanel::typedIn(const methods::Input& input) const {
    const auto* data = m_session.study();
    return data ? project::typedIn(*m_session.project(), *data, input) : input.dimension;
}

const quantity::Unit* EntryPanel::unitBefore(const QLineEdit* edit) const {
    const auto at =
        std::find_if(m_fields.begin(), m_fields.end(), [&](const Field& f) { return f.edit == edit; });
    if (at == m_fields.end()) return nullptr;
    for (auto f = at; f-- != m_fields.begin();)
        if (const auto entry = entryOf(*f, nullptr);
            entry && entry->unit && entry->unit->dimension == typedIn(*at->input))
            return entry->unit;
    return nullptr;
}

Expected<quantity::Entry> EntryPanel::entryOf(const Field& field, const quantity::Unit* unit) const {
    const auto text = field.edit->text().trimmed().toStdString();
    const auto shown = typedIn(*field.input);
    return shown == field.input->dimension ? methods::entryOf(*field.input, text, unit)
                                           : quantity::parseEntry(text, shown, unit);
}

void EntryPanel::entered(const QLineEdit* edit) {
    const bool complete = std::none_of(m_fields.begin(), m_fields.end(), [](const Field& f) {
        return f.input->needed && f.edit->text().trimmed().isEmpty();
    });
    if (complete && edit->text().trimmed().isEmpty()) return keep();
    for (std::size_t i = 0; i + 1 < m_fields.size(); ++i)
        if (m_fields[i].edit == edit) return m_fields[i + 1].edit->setFocus();
    keep();
}

void EntryPanel::fill() {
    const auto* data = m_session.study();
    const auto* next = data ? m_turn.of(*data) : nullptr;
    if (m_next != (next ? next->id : 0)) m_taken.clear();
    m_next = next ? next->id : 0;
    // A square may be tested in a way of its own.
    const auto& method =
        next ? results::methodOf(*data, *next) : results::methodOf(data ? data->study.plan : domain::Plan{});
    const int legs = data && next ? results::legCount(*data, *next) : 3;
    if (&method != m_method || legs != m_legs) {
        m_legs = legs;
        makeForm(method);
    }
    m_piece->setText(next ? tr("%1\n%2, %3")
                                .arg(qs(next->label), qs(data->optionAt(next->option).name),
                                     qs(data->conditionAt(next->condition).name))
                          : tr("Every piece has its result. Plan more in Question, or see the verdict."));
    m_form->setVisible(next != nullptr);
    m_about->setVisible(next && !method.entryHint.empty());
    m_picture->setVisible(next);
    drawSketch();
    for (auto* b : findChildren<QPushButton*>())
        if (b->parentWidget() == this) b->setVisible(next != nullptr);
    m_measure->setVisible(next && !project::measuredFields(*data, *next, nullptr).empty());
    m_broke->clear();
    m_broke->addItem(tr("what broke?"), QString());
    if (data)
        for (const auto& part : domain::breakableParts(*data))
            m_broke->addItem(qs(part), qs(part));
    m_broke->setVisible(next && method.metrics.front().atEnd);
    showScale(data);
}

/// The drawing follows what is typed, and what is known of the piece and the study already.
void EntryPanel::drawSketch() {
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(m_next) : nullptr;
    if (!m_method || !piece) return;
    auto known = results::knownOf(*data, *piece, m_session.units());
    for (const auto& f : m_fields)
        if (!f.edit->text().trimmed().isEmpty())
            known[f.key.toStdString()] = f.edit->text().trimmed().toStdString();
    m_picture->setBuild([method = m_method, known](double) { return chart::methodSketch(*method, known); });
}

void EntryPanel::showScale(const domain::StudyData* data) {
    const bool rating = data && m_method && m_method->metric("rating");
    m_scale->setVisible(rating && !data->study.plan.ratingWords.empty());
    m_words->setVisible(rating);
    if (!rating) return;
    QStringList lines;
    for (const auto& w : data->study.plan.ratingWords)
        lines << tr("%1   %2").arg(qs(quantity::shortest(w.step)), qs(w.words));
    m_scale->setText(lines.join('\n'));
    std::vector<QStringList> rows;
    rows.reserve(data->study.plan.ratingWords.size());
    for (const auto& w : data->study.plan.ratingWords)
        rows.push_back({qs(quantity::shortest(w.step)), qs(w.words)});
    m_words->setRows(rows);
}

void EntryPanel::saveWords() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    std::vector<std::pair<std::string, std::string>> typed;
    for (const auto& row : m_words->rows()) {
        if (row[0].isEmpty() || row[1].isEmpty()) return; // the other half is still to come
        typed.emplace_back(row[0].toStdString(), row[1].toStdString());
    }
    const auto words = domain::ratingWordsOf(typed);
    if (!m_session.tell(words) || *words == data->study.plan.ratingWords) return;
    m_session.tell(project::changePlan(*m_session.project(), data->study.id,
                                       tr("What the steps of the scale mean"),
                                       [&](domain::Plan& p) { p.ratingWords = *words; }));
}

bool EntryPanel::asks() {
    const auto& data = *m_session.study();
    const auto through = project::readThrough(*m_session.project(), data); // unsaid: told when it is kept
    for (const auto& f : m_fields) {
        const auto text = f.edit->text().trimmed();
        if (text.isEmpty() || f.input->stays || m_accepted[f.key] == text) continue;
        const auto* unit = unitBefore(f.edit);
        const auto entry = entryOf(f, unit ? unit : m_session.typedUnit(typedIn(*f.input)));
        if (!entry) continue; // said when it is kept
        const auto taken = [this, key = f.key, edit = f.edit](const QString& kept) {
            m_accepted[key] = kept;
            edit->setText(kept);
            keep();
        };
        if (m_question->ask(*entry,
                            results::fellowsOf(data, m_next, *f.input, f.key.toStdString(),
                                               through ? *through : std::nullopt),
                            taken))
            return true;
    }
    return false;
}

void EntryPanel::keep() {
    if (!m_session.project() || !m_next || asks()) return;
    project::FilledForm entry;
    entry.specimen = m_next;
    for (const auto& f : m_fields)
        if (!f.edit->text().trimmed().isEmpty())
            entry.fields.push_back({f.key.toStdString(), f.edit->text().trimmed().toStdString()});
    entry.note = m_note->text().trimmed().toStdString();
    entry.unitOf = [this](quantity::Dimension d) { return m_session.typedUnit(d); };
    entry.part = m_broke->currentData().toString().toStdString();
    entry.performedAt = m_session.now().toString(Qt::ISODate).toStdString();
    entry.operatorName = preferences::operatorName().toStdString();
    const auto label = m_piece->text().section('\n', 0, 0);
    Expected<Id> made = fail("");
    auto taken = std::exchange(m_taken, {}); // the next piece is on show once this one is kept
    m_session.project()->together([&] {
        made = project::addEntry(*m_session.project(), entry);
        for (const auto& picture : taken) {
            if (!made) break;
            const auto kept =
                project::attach(*m_session.project(), *made, picture.name, picture.bytes, picture.madeAt);
            if (m_session.tell(kept))
                m_session.tell(project::setMarks(*m_session.project(), *kept, picture.marks));
        }
    });
    if (!m_session.tell(made)) {
        m_taken = std::move(taken);
        return;
    }
    m_session.selectPull(*made);
    const auto& data = *m_session.study();
    const auto* pull = data.pull(*made);
    const auto told = results::told(data, *pull);
    if (!m_session.tell(told)) return;
    const auto& unit = methods::unitFor(*told->number.metric, m_session.units());
    QStringList said{
        tr("%1: %2 %3.")
            .arg(label, qs(told->number.metric->noun), qs(words::valueText(*told->number.value, unit)))};
    for (const auto& r : results::notesOf(data, *pull))
        said << qs(r);
    m_session.say(said.join(' '));
    clearForNext();
}

bool EntryPanel::eventFilter(QObject* watched, QEvent* event) {
    const auto pictureIn = [](const QMimeData* data) {
        const auto urls = data->urls();
        const auto path = urls.isEmpty() ? QString() : urls.front().toLocalFile();
        return PicturesList::isPicture(path) ? path : QString();
    };
    const auto at =
        std::find_if(m_fields.begin(), m_fields.end(), [&](const Field& f) { return f.edit == watched; });
    if (at != m_fields.end() && (event->type() == QEvent::DragEnter || event->type() == QEvent::Drop)) {
        auto* drop = static_cast<QDropEvent*>(event); // a QDragEnterEvent is one too
        if (const auto path = pictureIn(drop->mimeData()); !path.isEmpty()) {
            drop->acceptProposedAction();
            if (event->type() == QEvent::Drop) measureOn(path, at->key);
            return true;
        }
    }
    return Panel::eventFilter(watched, event);
}

void EntryPanel::choosePicture() {
    const auto path =
        QFileDialog::getOpenFileName(this, tr("Picture"), preferences::folder(preferences::Folder::pictures),
                                     tr("Pictures (*.%1)").arg(pictureEndings().join(" *.")));
    if (!path.isEmpty()) measureOn(path, {});
}

void EntryPanel::measureOn(const QString& path, const QString& key) {
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(m_next) : nullptr;
    if (!piece) return;
    const auto name = QFileInfo(path).fileName();
    const auto bytes = tables::readFile(QFile::encodeName(path).toStdString(), tables::mostPictureBytes);
    if (!bytes) return m_session.say(tr("%1: %2.").arg(name, qs(bytes.error().message)), true);
    const auto picture = photoFrom(QByteArray::fromStdString(*bytes));
    if (!picture) return m_session.say(tr("%1: %2.").arg(name, qs(picture.error().message)), true);
    PictureDialog dialog(*picture, name, {}, pictureTargets(project::measuredFields(*data, *piece, nullptr)),
                         key, m_session.units(), this);
    if (dialog.exec() != QDialog::Accepted) return;
    m_taken.push_back(
        {name, QByteArray::fromStdString(*bytes), QFileInfo(path).lastModified(), dialog.marks()});
    for (const auto& f : m_fields)
        if (const auto given = dialog.given().find(f.key); given != dialog.given().end()) {
            f.edit->setText(given->second);
            f.edit->setFocus();
        }
    m_session.say(tr("%1 will be kept with this piece's result.").arg(name));
}

void EntryPanel::clearForNext() {
    // Without a history: Ctrl+Z is the project's then.
    m_note->setText({});
    for (const auto& f : m_fields)
        if (!f.input->stays) f.edit->setText({});
    m_accepted.clear();
    focusFirst();
}

void EntryPanel::focusFirst() {
    for (const auto& f : m_fields)
        if (f.edit->text().isEmpty()) return f.edit->setFocus();
}

} // namespace anvil::app
