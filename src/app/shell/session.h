// What the window is looking at: the open project, study, selection, units. Every part of the window listens
// to it.
#pragma once

#include <QDateTime>
#include <QObject>
#include <anvil/pages/page.h>
#include <anvil/plan/timetable.h>
#include <anvil/project/open_project.h>
#include <anvil/project/sample_check.h>
#include <anvil/quantity/entry.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <functional>
#include <memory>

namespace anvil::app {

using domain::Id;

inline QString qs(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

class RigDesk;

enum class Stage { question, specimens, rig, pull, curves, verdict, report };
inline constexpr int stageCount = 7;

class Session : public QObject {
    Q_OBJECT
public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    // Project. The message says what went wrong; the old project stays open then.
    bool open(const QString& path);
    bool create(const QString& path);
    void close();
    project::OpenProject* project() const { return m_project.get(); }
    bool readOnly() const;

    /// Asked before a study is shown whose curves have to be read first; gives false where somebody would
    /// rather not wait, and the study is not shown then.
    void setWaiting(std::function<bool(project::OpenProject& project, Id study)> wait) {
        m_wait = std::move(wait);
    }

    // Study
    const domain::StudyData* study() const;
    Id studyId() const { return m_study; }
    void showStudy(Id id);
    const results::Readings& readings() const;
    const results::Verdict& verdict(domain::Metric metric) const;
    pages::Source source() const;

    // Selection: a pull, or a square without one
    Id pull() const { return m_pull; }
    Id option() const { return m_option; }
    Id condition() const { return m_condition; }
    void selectPull(Id pull);
    void selectSquare(Id option, Id condition);
    /// Pulls with a remark nobody has looked at, in board order.
    std::vector<Id> needingLook() const;
    void selectNextNeedingLook();

    /// The live rig.
    RigDesk& rig() { return *m_rig; }

    // Time
    /// Now, by the session's own clock: the wall's, or one set by hand for the demo and for tests.
    QDateTime now() const { return QDateTime::currentDateTime().addMSecs(m_clockShift); }
    void setNow(const QDateTime& now);
    /// The wall's clock again.
    void resetClock();
    /// One set when the program was started stays, whatever is opened.
    void keepClock() { m_clockKept = true; }
    /// Time has gone on so far that something is due: everything that tells the time is shown anew.
    void tick() { emit changed(); }
    /// The preparation of the study laid out in time; empty when nothing has been begun.
    std::vector<plan::Step> timetable() const;
    /// Share of the preparation that lies behind, or nothing when none was begun.
    std::optional<double> preparation() const;

    // Units
    /// The unit of a number typed without one: the one spoken last in the study on show. Null: it has to be
    /// typed. What somebody looks at (`units`) never decides what was meant.
    const quantity::Unit* typedUnit(quantity::Dimension dimension) const;
    /// What was typed, with its unit or the spoken one. Error: a sentence, such as one that asks for the
    /// unit.
    Expected<quantity::Entry> read(const QString& text, quantity::Dimension dimension) const;
    /// What was typed is kept now: its unit is that of bare numbers from here on. To be called before the
    /// command that keeps it, and undone with it.
    void heard(const quantity::Entry& entry);
    const quantity::Units& units() const { return m_units; }
    void setUnits(const QString& force, const QString& length);
    QString force(double si) const;
    /// A load of a curve, in the unit of what the curve measures.
    QString load(double si, quantity::Dimension dimension) const;

    /// Passes a command's result on: an error becomes a message. True when it worked.
    template <class T> bool tell(const Expected<T>& result) {
        if (!result) emit message(qs(result.error().message), true);
        return result.has_value();
    }
    void say(const QString& text, bool problem = false) { emit message(text, problem); }
    void go(Stage stage) { emit stageWanted(stage); }
    /// Something wants doing now: the window says so, and the desktop if it can.
    void notify(const QString& text) { emit due(text); }

signals:
    void leaving(); ///< what was drawn from the project must not be drawn anew: it goes, or has changed
    void projectChanged(); ///< another project, or none
    void changed();        ///< data of the project, or another study
    void selectionChanged();
    void unitsChanged();
    void message(const QString& text, bool problem);
    void stageWanted(anvil::app::Stage stage);
    void due(const QString& text);
    void projectWanted(); ///< somebody asks for a new project

private:
    bool adopt(std::unique_ptr<project::OpenProject> project);
    void keepSelectionValid();
    std::unique_ptr<project::OpenProject> m_project;
    std::unique_ptr<project::SampleCheck> m_check; ///< goes before the project it reads
    std::function<bool(project::OpenProject&, Id)> m_wait;
    std::unique_ptr<RigDesk> m_rig; ///< goes before the project it records into
    Id m_study = 0, m_pull = 0, m_option = 0, m_condition = 0;
    Id m_lastLooked = 0; ///< where F8 went last
    qint64 m_clockShift = 0;
    bool m_clockKept = false;
    quantity::Units m_units;
};

} // namespace anvil::app
