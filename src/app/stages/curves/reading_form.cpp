#include "stages/curves/reading_form.h"

#include "widgets/form_dialog.h"
#include "widgets/plain_text.h"
#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QProgressDialog>
#include <QPushButton>
#include <anvil/methods/method.h>
#include <anvil/project/reading_commands.h>
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>

namespace anvil::app {
namespace {

/// The fields of the form, and whose curves they are for.
class ReadingForm {
public:
    ReadingForm(Session& session, const domain::Pull& pull, const curve::Reading& reading, QWidget* parent)
        : m_session(session), m_pull(pull.id), m_load(session.units().of(reading.loadKind)),
          m_travel(session.units().of(reading.travelKind)),
          m_dialog(
              QObject::tr("How curves are read"),
              QObject::tr(
                  "What is chosen here holds for whole groups of curves; what was moved by hand on one of "
                  "them stays. An empty field is not asked for."),
              QObject::tr("Read them so"), parent) {
        const auto c = project::choicesOf(pull.settings, m_load, m_travel);
        using quantity::Dimension;
        m_scope = new QComboBox;
        m_scope->setObjectName("readingScope");
        m_scope->addItems(
            {QObject::tr("This curve"), QObject::tr("Its square"), QObject::tr("The whole study")});
        m_scope->setCurrentIndex(1);
        m_dialog.addWide(m_scope);
        field("breakShare", QObject::tr("Broken below, in % of the peak"), c.breakShare, "40",
              &project::ReadingChoices::breakShare);
        const bool force = reading.loadKind == Dimension::force;
        if (force && !reading.againstTime) addStiffness(c);
        if (force && !reading.againstTime)
            field("yieldOffset", QObject::tr("Yield at an offset of"), c.yieldOffset,
                  QObject::tr("such as 0.1 mm"), &project::ReadingChoices::yieldOffset);
        if (!reading.againstTime) {
            field("atTravel", QObject::tr("Load at"), c.atTravel,
                  reading.travelKind == Dimension::angle ? QObject::tr("such as 45°")
                                                         : QObject::tr("such as 5 mm"),
                  &project::ReadingChoices::atTravel);
            field("atLoad", QObject::tr("Travel at"), c.atLoad,
                  force ? QObject::tr("such as 500 N") : QObject::tr("such as 3 N·m"),
                  &project::ReadingChoices::atLoad);
        }
        if (force) {
            field("sustainedFor", QObject::tr("Sustained for"), c.sustainedFor, QObject::tr("such as 30 s"),
                  &project::ReadingChoices::sustainedFor);
            field("sustainedSpeed", QObject::tr("… at no more than"), c.sustainedSpeed,
                  QObject::tr("such as 2 mm/min"), &project::ReadingChoices::sustainedSpeed);
        }
        if (reading.loadKind == Dimension::acceleration) {
            field("lowPass", QObject::tr("Low-pass, Hz"), c.lowPass, QObject::tr("empty: as recorded"),
                  &project::ReadingChoices::lowPass);
            field("severityWindow", QObject::tr("Severity over at most"), c.severityWindow, "36 ms",
                  &project::ReadingChoices::severityWindow);
        }
        if (reading.loadKind == Dimension::torque) {
            field("breakawayWithin", QObject::tr("Breakaway within"), c.breakawayWithin, "90°",
                  &project::ReadingChoices::breakawayWithin);
            field("runningUntil", QObject::tr("Running until"), c.runningUntil, "360°",
                  &project::ReadingChoices::runningUntil);
        }
        m_preview = plainLabel();
        m_preview->setObjectName("readingPreview");
        m_preview->setWordWrap(true);
        auto* look = new QPushButton(QObject::tr("What would change?"));
        look->setObjectName("readingLook");
        m_dialog.addWide(look);
        m_dialog.addWide(m_preview);
        QObject::connect(look, &QPushButton::clicked, &m_dialog, [this] { preview(); });
        m_dialog.onDone([this] { return apply(); });
    }
    void ask() { m_dialog.exec(); }

private:
    using Text = std::string project::ReadingChoices::*;
    void field(const char* name, const QString& title, const std::string& text, const QString& hint,
               Text target) {
        auto* edit = m_dialog.addField(title, qs(text), hint);
        edit->setObjectName(name);
        m_fields.emplace_back(edit, target);
    }
    void addStiffness(const project::ReadingChoices& c) {
        m_stiffness = new QComboBox;
        m_stiffness->setObjectName("stiffnessBy");
        m_stiffness->addItems({QObject::tr("Stiffness: the steepest straight part"),
                               QObject::tr("Stiffness: chord between two loads"),
                               QObject::tr("Stiffness: chord between two shares of the peak"),
                               QObject::tr("Stiffness: secant to the peak")});
        m_stiffness->setCurrentIndex(static_cast<int>(c.stiffnessBy));
        m_dialog.addWide(m_stiffness);
        field("chordFrom", QObject::tr("… of a chord, from"), c.chordFrom,
              QObject::tr("such as 100 N, or 10 %"), &project::ReadingChoices::chordFrom);
        field("chordTo", QObject::tr("… to"), c.chordTo, QObject::tr("such as 400 N, or 40 %"),
              &project::ReadingChoices::chordTo);
        QObject::connect(m_stiffness, &QComboBox::activated, &m_dialog, [this] { chordFields(); });
        chordFields();
    }
    /// A chord's ends are asked for where a chord is chosen.
    void chordFields() {
        const int by = m_stiffness->currentIndex();
        for (auto& [edit, target] : m_fields)
            if (target == &project::ReadingChoices::chordFrom || target == &project::ReadingChoices::chordTo)
                m_dialog.showField(edit, by == 1 || by == 2);
    }
    Expected<curve::ReadingSettings> chosen() const {
        project::ReadingChoices c;
        for (const auto& [edit, target] : m_fields)
            c.*target = edit->text().trimmed().toStdString();
        if (m_stiffness) c.stiffnessBy = static_cast<curve::StiffnessBy>(m_stiffness->currentIndex());
        return project::chosenFrom(c, m_load.dimension, m_travel.dimension,
                                   [this](quantity::Dimension d) { return m_session.typedUnit(d); });
    }
    std::vector<Id> pulls() const {
        return project::curvesIn(*m_session.study(), m_pull,
                                 static_cast<project::ReadingScope>(m_scope->currentIndex()));
    }
    Expected<void> apply() {
        const auto settings = chosen();
        if (!settings) return tl::unexpected(settings.error());
        return project::applyReading(*m_session.project(), m_session.studyId(), pulls(), *settings);
    }
    void preview() {
        const auto settings = chosen();
        if (!settings) return m_preview->setText(qs(settings.error().message));
        const auto all = pulls();
        QProgressDialog progress(QObject::tr("Reading the curves anew"), QObject::tr("Cancel"), 0,
                                 static_cast<int>(all.size()), &m_dialog);
        progress.setMinimumDuration(400);
        const auto seen = project::previewReading(*m_session.project(), m_session.studyId(), all, *settings,
                                                  [&](std::size_t done) {
                                                      progress.setValue(static_cast<int>(done));
                                                      return !progress.wasCanceled();
                                                  });
        progress.reset();
        m_preview->setText(seen ? textOf(*seen) : qs(seen.error().message));
    }
    QString textOf(const project::ReadingPreview& p) const {
        const auto& metric = *m_session.study()->study.goal.metric;
        if (p.changed == 0)
            return QObject::tr("%1 curves: the %2 stays as it is in all of them.")
                .arg(p.curves)
                .arg(qs(metric.noun));
        auto text =
            QObject::tr("%1 of %2 curves change in %3").arg(p.changed).arg(p.curves).arg(qs(metric.noun));
        if (p.lost) text += QObject::tr("; %1 tell it no longer").arg(p.lost);
        if (p.won) text += QObject::tr("; %1 tell it now").arg(p.won);
        if (p.most) {
            const auto& data = *m_session.study();
            const auto& unit = methods::unitFor(metric, m_session.units());
            text += QObject::tr("; most of all %1, from %2 to %3")
                        .arg(qs(data.specimenAt(data.pull(p.most)->specimen).label),
                             qs(quantity::withUnit(p.from, unit)), qs(quantity::withUnit(p.to, unit)));
        }
        return text + '.';
    }

    Session& m_session;
    Id m_pull;
    const quantity::Unit &m_load, &m_travel;
    FormDialog m_dialog;
    QComboBox *m_scope, *m_stiffness = nullptr;
    QLabel* m_preview;
    std::vector<std::pair<QLineEdit*, Text>> m_fields;
};

} // namespace

void askHowToRead(Session& session, QWidget* parent) {
    const auto* data = session.study();
    const auto* pull = data ? data->pull(session.pull()) : nullptr;
    const auto* reading = pull ? session.readings().find(pull->id) : nullptr;
    if (!reading) return session.say(QObject::tr("There is no curve to read."), true);
    ReadingForm(session, *pull, *reading, parent).ask();
}

} // namespace anvil::app
