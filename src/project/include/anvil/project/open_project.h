// The open project: its studies, undo and journal, cached readings and verdicts. What can be done to it is in
// board_, plan_, study_, pull_, entry_ and rig_commands.h; window and command line both work through those.
#pragma once

#include <QObject>
#include <QStringList>
#include <anvil/curve/steady.h>
#include <anvil/domain/outcomes.h>
#include <anvil/project/curve_reading.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/sureness.h>
#include <anvil/results/values.h>
#include <anvil/rig/setup.h>
#include <anvil/store/project.h>
#include <map>
#include <memory>
#include <optional>
#include <vector>

namespace anvil::project {

using domain::Id;

/// What lies beside a closed project and belongs to it: its log, and tapes of recordings that broke off.
QStringList companionsOf(const QString& path);

/// A project with its studies in memory. Lives in one thread; every command is one transaction with a journal
/// row.
class OpenProject : public QObject {
    Q_OBJECT
public:
    static Expected<std::unique_ptr<OpenProject>> create(const QString& path);
    static Expected<std::unique_ptr<OpenProject>>
    open(const QString& path, store::Project::Access access = store::Project::Access::readWrite);

    store::Project& file() { return *m_file; }
    const store::Project& file() const { return *m_file; }
    const std::vector<domain::StudyData>& studies() const { return m_studies; }
    const domain::StudyData* study(Id id) const;
    const domain::StudyData* studyOfPull(Id pull) const;
    const domain::StudyData* studyOfSpecimen(Id specimen) const;
    const domain::StudyData* studyOfOption(Id option) const;
    const domain::StudyData* studyOfCondition(Id condition) const;

    /// Readings of every curve of a study; computed once and kept until its settings change.
    const results::Readings& readings(Id study);
    /// From now on readings are taken from where they are kept in the file, and kept there. Their samples are
    /// not looked at then: `keptCurves` says whose, for a SampleCheck.
    void useKeptReadings();
    const std::vector<Id>& keptCurves() const { return m_keptCurves; }
    /// Curves of a study whose readings are not at hand: `readings` would read them. For readCurves and
    /// `take`, where there are many.
    std::vector<CurveToRead> unread(Id study) const;
    void take(std::vector<CurveRead> read);
    /// The samples of a curve proved damaged, for this reason: its reading counts no longer.
    void doubt(Id curve, const std::string& why);
    /// The cleaned curve and reading of one pull, for drawing. Error: not a curve, or it cannot be read.
    Expected<std::shared_ptr<const curve::ReadCurve>> readCurve(Id pull);
    const results::Verdict& verdict(Id study, domain::Metric metric);
    /// What its pulls say, by square and metric; null: no such study.
    const results::Results* table(Id study);
    /// How sure that is; drawn when it is asked for.
    const results::Sureness& sureness(Id study, domain::Metric metric);

    /// The spread (CV, a share) to expect of a study's pulls, and where that comes from: its own pulls,
    /// another study of the same kind, else the usual one for the kind.
    struct Spread {
        double cv = 0.12;
        std::string from;
    };
    Spread expectedSpread(Id study);

    // A value changed as a whole; `what` names it for undo and journal. Error: it is not there any more, or
    // has no name.
    Expected<void> changeStudy(Id id, const QString& what, const std::function<void(domain::Study&)>& change);
    Expected<void> changeSpecimen(Id id, const QString& what,
                                  const std::function<void(domain::Specimen&)>& change);
    Expected<void> changeOption(Id id, const QString& what,
                                const std::function<void(domain::Option&)>& change);
    Expected<void> changeCondition(Id id, const QString& what,
                                   const std::function<void(domain::Condition&)>& change);
    Expected<void> changePull(Id id, const QString& what, const std::function<void(domain::Pull&)>& change);

    // Rigs and what was pulled on them
    /// The newest version of every rig's set-up, by id.
    std::vector<std::pair<Id, rig::Setup>> rigs() const;
    /// A set-up as it was when a pull was made. Error: unknown.
    Expected<rig::Setup> setupOf(Id setup) const;

    /// Every channel that was recorded or logged beside a pull's own, SI, at the samples of its cleaned curve;
    /// empty for most.
    std::vector<curve::Channel> beside(Id pull);
    /// What every channel showed over the second before each mark of a pull; empty without marks, or where
    /// nothing was recorded beside force and travel.
    std::vector<curve::Steady> steadyAtMarks(Id pull);

    /// The unit of a number typed without one in this study; null: it has to be asked for.
    const quantity::Unit* unitSpoken(Id study, quantity::Dimension dimension) const;
    /// A quantity was typed in this unit: the next number without one is in it too. Kept with the next change
    /// of the project, and taken back with it.
    void heard(Id study, const quantity::Unit& unit);

    /// Runs several commands so that one undo takes them all back.
    void together(const std::function<void()>& commands);
    /// Runs any change as one undoable command.
    Expected<Id> run(const QString& what, const std::function<void(store::Writer&)>& change);

    bool canUndo() const { return !m_done.empty(); }
    bool canRedo() const { return !m_undone.empty(); }
    QString undoText() const { return m_done.empty() ? QString() : m_done.back().what; }
    QString redoText() const { return m_undone.empty() ? QString() : m_undone.back().what; }
    Expected<void> undo();
    Expected<void> redo();
    /// Reads everything again; after a change made from another thread.
    Expected<void> reload();
    /// Puts a change made outside `run` (a background import) on the undo stack and reloads; what was
    /// read of its curves is taken over.
    Expected<void> adopt(Id journalEntry, const QString& what, std::vector<CurveRead> read = {});

signals:
    void changed();

private:
    const results::Results& resultsOf(const domain::StudyData& data);
    /// By the other studies of its method whose numbers were typed: no curve is read for it.
    results::UsualSpread usualSpread(const domain::StudyData& data) const;
    struct Done {
        Id journal;
        QString what;
        int group = 0; ///< commands with the same are undone together; 0: alone
    };
    Expected<void> step(std::vector<Done>& from, std::vector<Done>& to, bool backwards);
    explicit OpenProject(std::unique_ptr<store::Project> file);

    std::unique_ptr<store::Project> m_file;
    /// A row of a rig's set-up, read.
    template <class T>
    Expected<void> edit(const T* before, const char* gone, const QString& what,
                        const std::function<void(T&)>& change);
    struct KeptSetup {
        store::SetupRow row;
        rig::Setup setup;
    };
    Expected<std::vector<KeptSetup>> readSetups() const;
    std::vector<domain::StudyData> m_studies;
    std::vector<KeptSetup> m_setups;
    std::vector<Done> m_done, m_undone;
    int m_group = 0, m_groups = 0;
    std::map<std::pair<Id, quantity::Dimension>, const quantity::Unit*> m_heard; // not kept yet
    Expected<void> keepHeard(const QString& what);
    struct CachedReading {
        Id curve = 0;
        curve::ReadingSettings settings;
        std::optional<curve::Reading> reading;
        std::string error;
    };
    std::map<Id, CachedReading> m_readingCache; // by pull
    bool m_keeps = false;
    std::vector<Id> m_keptCurves;               // whose readings were taken from the file
    std::map<Id, results::Results> m_results;   // by study, of the readings below, dropped on change
    std::map<Id, results::Readings> m_readings; // by study, dropped on change
    std::map<std::pair<Id, domain::Metric>, results::Verdict>
        m_verdicts; // by study and metric, dropped on change
    std::map<std::pair<Id, domain::Metric>, results::Sureness> m_sureness; // likewise
    struct Drawn {
        curve::ReadingSettings settings;
        std::shared_ptr<const curve::ReadCurve> curve;
    };
    std::map<Id, Drawn> m_drawn;
    struct {
        Id pull = 0;
        std::vector<domain::Mark> marks;
        std::vector<curve::Steady> values;
    } m_steady; ///< of the pull looked at last: its samples are read once
};

} // namespace anvil::project
