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
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <anvil/work/reading_commands.h>

namespace anvil::app {
namespace {

/// The fields of the form, and whose curves they are for.
class ReadingForm {
public:
    ReadingForm(Session& session, const domain::Pull& pull, const curve::Reading& reading, QWidget* parent)
        : m_session(session), m_pull(pull.id), m_load(session.units().of(reading.load)),
          m_travel(session.units().of(reading.travel)),
          m_dialog(
              QObject::tr("How curves are read"),
              QObject::tr(
                  "What is chosen here holds for whole groups of curves; what was moved by hand on one of "
                  "them stays. An empty field is not asked for."),
              QObject::tr("Read them so"), parent) {
        const auto c = work::choicesOf(pull.settings, m_load, m_travel);
        using quantity::Dimension;
        m_scope = new QComboBox;
        m_scope->setObjectName("readingScope");
        m_scope->addItems(
            {QObject::tr("This curve"), QObject::tr("Its square"), QObject::tr("The whole study")});
        m_scope->setCurrentIndex(1);
        m_dialog.addWide(m_scope);
        field("breakShare", QObject::tr("Broken below, in % of the peak"), c.breakShare, "40",
              &work::ReadingChoices::breakShare);
        const bool force = reading.load == Dimension::force;
        if (force && !reading.againstTime) addStiffness(c);
        if (force && !reading.againstTime)
            field("yieldOffset", QObject::tr("Yield at an offset of"), c.yieldOffset,
                  QObject::tr("such as 0.1 mm"), &work::ReadingChoices::yieldOffset);
        if (!reading.againstTime) {
            field("atTravel", QObject::tr("Load at"), c.atTravel,
                  reading.travel == Dimension::angle ? QObject::tr("such as 45°")
                                                     : QObject::tr("such as 5 mm"),
                  &work::ReadingChoices::atTravel);
            field("atLoad", QObject::tr("Travel at"), c.atLoad,
                  force ? QObject::tr("such as 500 N") : QObject::tr("such as 3 N·m"),
                  &work::ReadingChoices::atLoad);
        }
        if (force) {
            field("sustainedFor", QObject::tr("Sustained for"), c.sustainedFor, QObject::tr("such as 30 s"),
                  &work::ReadingChoices::sustainedFor);
            field("sustainedSpeed", QObject::tr("… at no more than"), c.sustainedSpeed,
                  QObject::tr("such as 2 mm/min"), &work::ReadingChoices::sustainedSpeed);
        }
        if (reading.load == Dimension::acceleration) {
            field("lowPass", QObject::tr("Low-pass, Hz"), c.lowPass, QObject::tr("empty: as recorded"),
                  &work::ReadingChoices::lowPass);
            field("severityWindow", QObject::tr("Severity over at most"), c.severityWindow, "36 ms",
                  &work::ReadingChoices::severityWindow);
        }
        if (reading.load == Dimension::torque) {
            field("breakawayWithin", QObject::tr("Breakaway within"), c.breakawayWithin, "90°",
                  &work::ReadingChoices::breakawayWithin);
            field("runningUntil", QObject::tr("Running until"), c.runningUntil, "360°",
                  &work::ReadingChoices::runningUntil);
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
    using Text = std::string work::ReadingChoices::*;
    void field(const char* name, const QString& title, const std::string& text, const QString& hint,
               Text target) {
        auto* edit = m_dialog.addField(title, qs(text), hint);
        edit->setObjectName(name);
        m_fields.emplace_back(edit, target);
    }
    void addStiffness(const work::ReadingChoices& c) {
        m_stiffness = new QComboBox;
        m_stiffness->setObjectName("stiffnessBy");
        m_stiffness->addItems({QObject::tr("Stiffness: the steepest straight part"),
                               QObject::tr("Stiffness: chord between two loads"),
                               QObject::tr("Stiffness: chord between two shares of the peak"),
                               QObject::tr("Stiffness: secant to the peak")});
        m_stiffness->setCurrentIndex(static_cast<int>(c.stiffnessBy));
        m_dialog.addWide(m_stiffness);
        field("chordFrom", QObject::tr("… of a chord, from"), c.chordFrom,
              QObject::tr("such as 100 N, or 10 %"), &work::ReadingChoices::chordFrom);
        field("chordTo", QObject::tr("… to"), c.chordTo, QObject::tr("such as 400 N, or 40 %"),
              &work::ReadingChoices::chordTo);
        QObject::connect(m_stiffness, &QComboBox::activated, &m_dialog, [this] { chordFields(); });
        chordFields();
    }
    /// A chord's ends are asked for where a chord is chosen.
    void chordFields() {
        const int by = m_stiffness->currentIndex();
        for (auto& [edit, target] : m_fields)
            if (target == &work::ReadingChoices::chordFrom || target == &work::ReadingChoices::chordTo)
                m_dialog.showField(edit, by == 1 || by == 2);
    }
    Expected<curve::ReadingSettings> chosen() const {
        work::ReadingChoices c;
        for (const auto& [edit, target] : m_fields)
            c.*target = edit->text().trimmed().toStdString();
        if (m_stiffness) c.stiffnessBy = static_cast<curve::StiffnessBy>(m_stiffness->currentIndex());
        return work::chosenFrom(c, m_load.dimension, m_travel.dimension,
                                [this](quantity::Dimension d) { return m_session.typedUnit(d); });
    }
    std::vector<Id> pulls() const {
        return work::curvesIn(*m_session.study(), m_pull,
                              static_cast<work::ReadingScope>(m_scope->currentIndex()));
    }
    Expected<void> apply() {
        const auto settings = chosen();
        if (!settings) return tl::unexpected(settings.error());
        return work::applyReading(*m_session.project(), m_session.studyId(), pulls(), *settings);
    }
    void preview() {
        const auto settings = chosen();
        if (!settings) return m_preview->setText(qs(settings.error().message));
        const auto all = pulls();
        QProgressDialog progress(QObject::tr("Reading the curves anew"), QObject::tr("Cancel"), 0,
                                 static_cast<int>(all.size()), &m_dialog);
        progress.setMinimumDuration(400);
        const auto seen = work::previewReading(*m_session.project(), m_session.studyId(), all, *settings,
                                               [&](std::size_t done) {
                                                   progress.setValue(static_cast<int>(done));
                                                   return !progress.wasCanceled();
                                               });
        progress.reset();
        m_preview->setText(seen ? textOf(*seen) : qs(seen.error().message));
    }
    QString textOf(const work::ReadingPreview& p) const {
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
