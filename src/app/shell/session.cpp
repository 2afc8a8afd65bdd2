#include "shell/session.h"

#include "shell/earlier_index.h"
#include "shell/preferences.h"
#include "shell/rig_desk.h"

#include <QFileInfo>
#include <QTimer>
#include <anvil/domain/pulls_of_pieces.h>
#include <anvil/pages/source.h>
#include <anvil/plan/timetable.h>
#include <anvil/project/wall_clock.h>
#include <anvil/quantity/print.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>

namespace anvil::app {

Session::Session(QObject* parent) : QObject(parent) {
    m_units =
        quantity::unitsFrom(preferences::forceUnit().toStdString(), preferences::lengthUnit().toStdString());
    m_rig = std::make_unique<RigDesk>(*this);
}

Session::~Session() = default;

bool Session::open(const QString& path) {
    auto project = project::OpenProject::open(path);
    if (!tell(project)) return false;
    (*project)->useKeptReadings();
    if (!adopt(std::move(*project))) return false;
    if (m_project->file().readOnly()) say(m_project->file().readOnlyReason(), true);
    if (const auto notes = m_project->file().tapeNotes(); !notes.isEmpty()) say(notes.join(" "), true);
    return true;
}

bool Session::create(const QString& path) {
    auto project = project::OpenProject::create(path);
    if (!tell(project)) return false;
    (*project)->useKeptReadings();
    return adopt(std::move(*project));
}

bool Session::adopt(std::unique_ptr<project::OpenProject> project) {
    const auto first = project->studies().empty() ? Id{0} : project->studies().front().study.id;
    if (m_wait && !m_wait(*project, first)) return false;
    emit leaving();
    m_rig->letGo();
    m_check.reset();
    m_project = std::move(project);
    m_study = m_pull = m_option = m_condition = 0;
    if (!m_project->studies().empty()) m_study = m_project->studies().front().study.id;
    connect(m_project.get(), &project::OpenProject::changed, this, [this] {
        emit leaving(); // the studies lie elsewhere now, and one of them may be gone
        keepSelectionValid();
        emit changed();
    });
    keepSelectionValid();
    m_rig->takeFromProject();
    if (!m_project->keptCurves().empty()) {
        m_check = std::make_unique<project::SampleCheck>(m_project->file(), m_project->keptCurves());
        // The check itself is the receiver: what it still had to say is gone with it, and with its project.
        connect(m_check.get(), &project::SampleCheck::damaged, m_check.get(),
                [this](long long curve, const QString& why) {
                    m_project->doubt(curve, why.toStdString());
                    say(why, true);
                });
        // Once the first pages stand there; it is nothing anybody waits for.
        QTimer::singleShot(2000, m_check.get(), &project::SampleCheck::begin);
    }
    emit projectChanged();
    emit changed();
    emit selectionChanged();
    return true;
}

void Session::close() {
    emit leaving();
    m_rig->letGo();
    m_check.reset();
    m_project.reset();
    m_study = m_pull = m_option = m_condition = 0;
    emit projectChanged();
    emit changed();
    emit selectionChanged();
}

bool Session::readOnly() const { return !m_project || m_project->file().readOnly(); }

const domain::StudyData* Session::study() const { return m_project ? m_project->study(m_study) : nullptr; }

void Session::showStudy(Id id) {
    if (id == m_study || (m_project && m_wait && !m_wait(*m_project, id))) return;
    m_study = id;
    m_pull = m_option = m_condition = 0;
    keepSelectionValid();
    emit changed();
    emit selectionChanged();
}

void Session::keepSelectionValid() {
    if (m_project && !m_project->study(m_study))
        m_study = m_project->studies().empty() ? 0 : m_project->studies().front().study.id;
    const auto* data = study();
    const auto* pull = data ? data->pull(m_pull) : nullptr;
    if (!pull && data) { // the first of the chosen square, else of all
        for (const auto& p : data->pulls)
            if (const auto* s = data->specimen(p.specimen);
                !m_option || (s && s->option == m_option && s->condition == m_condition)) {
                pull = &p;
                m_pull = p.id;
                break;
            }
    }
    if (!pull) m_pull = 0;
    if (const auto* s = pull ? data->specimen(pull->specimen) : nullptr) {
        m_option = s->option;
        m_condition = s->condition;
    }
}

const results::Readings& Session::readings() const {
    static const results::Readings none;
    return m_project && m_study ? m_project->readings(m_study) : none;
}

const results::Verdict& Session::verdict(domain::Metric metric) const {
    static const results::Verdict none;
    return m_project && m_study ? m_project->verdict(m_study, metric) : none;
}

pages::Source Session::source() const {
    auto source = pages::sourceOf(*m_project, m_study);
    source.earlier = [path = m_project->file().path()] { return earlier_index::all(path); };
    return source;
}

void Session::selectPull(Id id) {
    const auto* data = study();
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull) return;
    m_pull = id;
    keepSelectionValid();
    emit selectionChanged();
}

void Session::selectSquare(Id option, Id condition) {
    m_option = option;
    m_condition = condition;
    m_pull = 0;
    if (const auto* data = study())
        for (const auto& p : data->pulls)
            if (const auto* s = data->specimen(p.specimen);
                s && s->option == option && s->condition == condition) {
                m_pull = p.id;
                break;
            }
    emit selectionChanged();
}

std::vector<Id> Session::needingLook() const {
    std::vector<Id> out;
    if (const auto* data = study()) {
        const domain::PullsOfPieces pulls(*data);
        for (const auto& s : data->specimens)
            for (const auto* p : pulls.of(s.id))
                if (!results::needsLook(*p, readings()).empty()) out.push_back(p->id);
    }
    return out;
}

void Session::selectNextNeedingLook() {
    const auto all = needingLook();
    if (all.empty()) {
        say(tr("No curve needs a look."));
        return;
    }
    auto at = std::find(all.begin(), all.end(), m_pull);
    if (at == all.end())
        at = all.begin();
    else if (m_pull == m_lastLooked &&
             ++at == all.end()) // the one selected comes first, if it was not shown by this before
        at = all.begin();
    m_lastLooked = *at;
    selectPull(*at);
    go(Stage::curves);
}

void Session::setNow(const QDateTime& now) {
    if (m_clockKept) return;
    m_clockShift = QDateTime::currentDateTime().msecsTo(now);
    emit changed();
}

void Session::resetClock() {
    if (m_clockKept || m_clockShift == 0) return;
    m_clockShift = 0;
    emit changed();
}

std::vector<plan::Step> Session::timetable() const {
    const auto* data = study();
    return data ? project::wallTimetable(*data, now().toSecsSinceEpoch()).value_or(std::vector<plan::Step>{})
                : std::vector<plan::Step>{};
}

std::optional<double> Session::preparation() const {
    const auto* data = study();
    const auto start = data ? project::wallInstant(data->study.plan.recipeStarted) : std::nullopt;
    if (!start) return std::nullopt;
    return plan::progress(timetable(), *start, now().toSecsSinceEpoch());
}

const quantity::Unit* Session::typedUnit(quantity::Dimension dimension) const {
    if (m_project) return m_project->unitSpoken(m_study, dimension);
    return dimension == quantity::Dimension::ratio || dimension == quantity::Dimension::money
               ? &quantity::siUnit(dimension)
               : nullptr;
}

Expected<quantity::Entry> Session::read(const QString& text, quantity::Dimension dimension) const {
    return quantity::parseEntry(text.toStdString(), dimension, typedUnit(dimension));
}

void Session::heard(const quantity::Entry& entry) {
    if (m_project && entry.unit) m_project->heard(m_study, *entry.unit);
}

void Session::setUnits(const QString& force, const QString& length) {
    m_units = quantity::unitsFrom(force.toStdString(), length.toStdString());
    preferences::setUnits(force, length);
    emit unitsChanged();
}

QString Session::load(double si, quantity::Dimension dimension) const {
    return qs(quantity::withUnit(si, m_units.of(dimension)));
}

QString Session::force(double si) const { return qs(quantity::withUnit(si, *m_units.force)); }

} // namespace anvil::app
