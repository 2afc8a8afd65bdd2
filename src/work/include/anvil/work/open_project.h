// The open project: commands with undo and journal, cached readings and verdicts. Window and command line
// both work through it.
#pragma once

#include <QObject>
#include <QStringList>
#include <anvil/curve/steady.h>
#include <anvil/domain/outcomes.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/rig/setup.h>
#include <anvil/store/project.h>
#include <map>
#include <memory>
#include <optional>
#include <vector>

namespace anvil::work {

using domain::Id;

/// One landmark of a reading, for moving it by hand.
enum class Handle { peak, firstSlip, breakPoint, fitFrom, fitTo };

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
    /// The cleaned curve and reading of one pull, for drawing. Error: not a curve, or it cannot be read.
    Expected<std::shared_ptr<const curve::ReadCurve>> readCurve(Id pull);
    const results::Verdict& verdict(Id study, domain::Metric metric);

    /// The spread (CV, a share) to expect of a study's pulls, and where that comes from: its own pulls,
    /// another study of the same kind, else the usual one for the kind.
    struct Spread {
        double cv = 0.12;
        std::string from;
    };
    Spread expectedSpread(Id study);

    // Commands. Each returns the sentence of what was wrong, or nothing.
    Expected<Id> addStudy(const domain::Study& value);
    // A value changed as a whole; `what` names it for undo and journal. Error: it is not there any more, or
    // has no name.
    Expected<void> changeStudy(Id id, const QString& what, const std::function<void(domain::Study&)>& change);
    Expected<Id> addOption(Id study, const QString& name);
    Expected<Id> addCondition(Id study, const QString& name);
    /// Several names as one command; all or none. Error: empty, or there already.
    Expected<void> addOptions(Id study, const QStringList& names);
    Expected<void> addConditions(Id study, const QStringList& names);
    /// Moves an option (or condition) to a place on the board.
    Expected<void> moveOption(Id option, int place);
    Expected<void> moveCondition(Id condition, int place);
    /// Changes the plan of a study. `what` names it for undo and journal.
    Expected<void> changePlan(Id study, const QString& what,
                              const std::function<void(domain::Plan&)>& change);
    /// Likewise of what is wanted: the metric that decides, its sense, limits, margin, control and part.
    Expected<void> changeGoal(Id study, const QString& what,
                              const std::function<void(domain::Goal&)>& change);
    /// Sets the method; where it does not tell what decides so far, its usual metric decides, and less is
    /// wanted of a sag, a creep and a shock. Empty: no method.
    Expected<void> setMethod(Id study, const std::string& method);
    /// Replicates of every square that says nothing of its own. Error: below 0 or above 200.
    Expected<void> planReplicates(Id study, int replicates);
    /// Replicates of some squares; empty: as the study says.
    Expected<void> planSquares(Id study, const std::vector<std::pair<Id, Id>>& squares,
                               std::optional<int> replicates);
    Expected<void> strikeSquares(Id study, const std::vector<std::pair<Id, Id>>& squares, bool struck);
    /// Makes the pieces that are planned and missing; returns how many. Error: nothing is planned, or all are
    /// made.
    Expected<int> makePieces(Id study, const QString& batch);
    /// Carries out a fairness finding's remedy.
    Expected<void> applyRemedy(Id study, const std::string& rule);
    /// Accepts a finding for a reason, which lands in the report. An empty reason takes the acceptance back.
    Expected<void> acceptFinding(Id study, const std::string& rule, const QString& why);
    /// Draws the run list from a seed; with `groupConditions` the set-up is changed once a block at most.
    Expected<void> drawRunList(Id study, std::uint64_t seed, bool groupConditions);
    Expected<void> moveInRunList(Id study, int from, int to);
    Expected<void> setRecipe(Id study, const std::vector<domain::RecipeStep>& recipe);
    /// Begins the preparation of the pieces that are made; `at` is ISO 8601. An empty text takes the
    /// beginning back.
    Expected<void> startRecipe(Id study, const QString& at);
    Expected<void> markStep(Id study, const std::string& key, const QString& at);
    /// A study with the same options and plan, without pieces; conditions are taken over too unless another
    /// is named.
    Expected<Id> startFrom(Id study, const QString& title, const QString& condition);
    /// Plans more replicates of some squares of a study that has been pulled.
    Expected<void> planMore(Id study, const std::vector<std::pair<Id, Id>>& squares, int more);
    /// A study of its own for what another left open: the options and conditions of these squares, `more`
    /// pieces of each, the other squares struck out. Error: no title, or no square.
    Expected<Id> followUpStudy(Id study, const QString& title, const std::vector<std::pair<Id, Id>>& squares,
                               int more);
    /// A piece nobody planned, in one step: option and condition are made when they are new. Returns the
    /// specimen.
    Expected<Id> addUnplanned(Id study, const QString& option, const QString& condition);
    Expected<void> changeSpecimen(Id id, const QString& what,
                                  const std::function<void(domain::Specimen&)>& change);
    Expected<void> changeOption(Id id, const QString& what,
                                const std::function<void(domain::Option&)>& change);
    Expected<void> changeCondition(Id id, const QString& what,
                                   const std::function<void(domain::Condition&)>& change);
    /// Only an option (or condition) without specimens can be taken away.
    Expected<void> removeOption(Id option);
    Expected<void> removeCondition(Id condition);
    /// Everything but `counts` needs a reason.
    Expected<void> setStanding(Id pull, domain::Standing standing, const QString& reason);
    Expected<void> changePull(Id id, const QString& what, const std::function<void(domain::Pull&)>& change);
    Expected<void> setLandmark(Id pull, Handle handle, std::optional<curve::Override> value);
    Expected<void> setReadingSettings(Id pull, const curve::ReadingSettings& settings, const QString& what);
    /// The limit of the rig for every curve of a study, which are read again against it; empty: none.
    Expected<void> setRigLimit(Id study, std::optional<double> limit);
    /// What is measured on every piece of a study, by name: nominal and tolerance where it is known already.
    /// Error: no piece, or no name.
    Expected<void> measureAll(Id study, const domain::Measured& what);
    /// What the conditions vary, and the unit of its values; with one their names are read as values.
    Expected<void> setAxis(Id study, const std::string& axis, const std::string& unit);
    /// Moves a specimen to another square (a mislabelled piece).
    Expected<void> moveSpecimen(Id specimen, Id option, Id condition);

    // Rigs and what was pulled on them
    /// The newest version of every rig's set-up, by id.
    std::vector<std::pair<Id, rig::Setup>> rigs() const;
    /// A set-up as it was when a pull was made. Error: unknown.
    Expected<rig::Setup> setupOf(Id setup) const;
    /// Keeps a set-up as a new version of its rig, unless it is the newest one already; returns its id. What
    /// was pulled on older versions stays as it is. Error: no name.
    Expected<Id> saveRig(const rig::Setup& setup);
    /// A fresh piece in the study of rig checks, which is made with the first: a rigid bar pulled on the rig
    /// of this name, to learn how much the rig gives way. Returns the specimen.
    Expected<Id> addRigCheckPiece(const std::string& rig);
    /// A study of three unknown pins on the virtual bench, pieces made and in order. The seed hides their
    /// strengths; see practiceStrength.
    Expected<Id> addPracticeStudy(std::uint64_t seed);
    /// A result read off a display: with its doubt (">9 kN", "4…5 kN", "~12 N", "12 ± 1 N"); an empty text
    /// keeps a pull whose number was lost. Error: not a value of the deciding metric, or nothing to pull.
    struct TypedPull {
        Id specimen = 0;
        std::string text;
        const quantity::Unit* fallback = nullptr;    ///< of a number without a unit
        std::string part, performedAt, operatorName; ///< part: what broke; empty: not said
    };
    Expected<Id> addTypedPull(const TypedPull& typed);
    // Results that are no curve: the method says what is entered and what follows.
    /// A form filled in for a piece: makes the pull, or changes `pull` when it is not 0. Error: what is wrong
    /// with the form.
    struct Entry {
        Id specimen = 0, pull = 0;
        std::vector<domain::FieldText> fields; ///< by the keys of the method's inputs
        std::function<const quantity::Unit&(quantity::Dimension)> unitOf;
        std::string part, note, performedAt, operatorName;
    };
    Expected<Id> addEntry(const Entry& entry);
    /// One more step of a piece's ladder; the first one makes the pull. Returns the pull. Error: a step that
    /// cannot be, or the piece has failed already.
    Expected<Id> addLadderStep(Id specimen, const domain::LadderStep& step, const std::string& performedAt,
                               const std::string& operatorName);
    /// Takes the last step of a ladder back; the pull goes with its first.
    Expected<void> takeBackLadderStep(Id pull);
    /// What let go at the end of a ladder. Another part than the one asked for leaves what was held as a
    /// lower bound; where nothing was held it says nothing of the piece and is set aside.
    Expected<void> ladderBroke(Id pull, const std::string& part);
    /// One more reading of a piece's gauge; the first one makes the pull, which counts from the second on.
    Expected<Id> addGaugeReading(Id specimen, const domain::GaugeReading& reading, bool unloaded,
                                 const std::string& operatorName);
    /// Phases of a pull, as one command.
    Expected<void> setPhases(Id pull, const std::vector<domain::Phase>& phases);

    /// Keeps a picture or clip with a pull. `madeAt`: when it was made, to find its instant on the curve.
    /// Error: too large (256 MB), empty, or no such pull.
    Expected<Id> attach(Id pull, const QString& name, const QByteArray& bytes, const QDateTime& madeAt);
    Expected<void> removeAttachment(Id attachment);
    /// Force channels that were recorded beside a pull's own, N, at the samples of its cleaned curve; empty
    /// for most.
    std::vector<curve::Channel> legs(Id pull);
    /// What every channel showed over the second before each mark of a pull; empty without marks, or where
    /// nothing was recorded beside force and travel.
    std::vector<curve::Steady> steadyAtMarks(Id pull);

    /// What the tester said of a pull that has just been recorded, or was interrupted, as one command.
    struct Judgement {
        std::string part, mode; ///< what broke and how; empty: nothing
        domain::Limit limit = domain::Limit::broke;
        domain::Proposal standing;
        std::vector<domain::Mark> marks;
        int end = 0; ///< which end failed; 0: not noted
        std::string afterwards{};
        bool whileUnloading = false;
    };
    Expected<void> judge(Id pull, const Judgement& judgement);
    /// What is noted of a pull beside its number, changed by hand.
    Expected<void> changeOutcome(Id pull, const domain::Outcome& outcome, const QString& what);

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
    /// Puts a change made outside `run` (a background import) on the undo stack and reloads.
    Expected<void> adopt(Id journalEntry, const QString& what);

signals:
    void changed();

private:
    /// Makes a pull of a piece, or changes what was entered of it.
    Expected<Id> keepEntered(const domain::Pull& pull, const QString& what);
    Expected<void> countWeakestJoints(const domain::StudyData& data);
    struct Done {
        Id journal;
        QString what;
        int group = 0; ///< commands with the same are undone together; 0: alone
    };
    Expected<void> step(std::vector<Done>& from, std::vector<Done>& to, bool backwards);
    explicit OpenProject(std::unique_ptr<store::Project> file);
    Expected<void> applyJournal(Id entry, bool backwards, const QString& what);

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
    struct CachedReading {
        Id curve = 0;
        curve::ReadingSettings settings;
        std::optional<curve::Reading> reading;
        std::string error;
    };
    std::map<Id, CachedReading> m_readingCache; // by pull
    std::map<Id, results::Results> m_results;   // by study, of the readings below, dropped on change
    std::map<Id, results::Readings> m_readings; // by study, dropped on change
    std::map<std::pair<Id, domain::Metric>, results::Verdict>
        m_verdicts; // by study and metric, dropped on change
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

/// The hidden mean strength of an option of a practice study, N: 1500 to 2500, no two within 6 %.
double practiceStrength(std::uint64_t seed, int option);

/// How a practice study was run, as sentences that begin with ✓ or ✗: zeroed, slack taken up, even rate, what
/// broke, replicates, verdict.
std::vector<std::string> practiceScore(const domain::StudyData& data, const results::Readings& readings,
                                       const results::Verdict& verdict);

} // namespace anvil::work
