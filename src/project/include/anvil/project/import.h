// Bringing logger files and tables of results into a project: look first, correct, then one command.
#pragma once

#include <QStringList>
#include <anvil/project/curve_reading.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/open_project.h>
#include <anvil/project/placement.h>
#include <anvil/results/unlikely.h>
#include <anvil/tables/log.h>
#include <anvil/tables/names.h>
#include <anvil/tables/values.h>
#include <atomic>
#include <functional>

namespace anvil::project {

/// One run found in the files, as a row of the import sheet.
struct ImportRow {
    QString file; ///< name without folder
    std::string
        naming; ///< what its option and condition are read from: the path below the files' common folder
    int fileIndex = 0;
    QString run; ///< its label within the file; empty when the file holds one
    curve::Curve curve;
    std::optional<curve::Reading> reading; ///< for the preview; empty when it cannot be read
    curve::ReadingSettings settings;       ///< by which it was read
    std::string error;
    QString unusable{}; ///< why its load cannot be that at the piece; empty: it can
    QString option, condition;
    QString ownOption, ownCondition; ///< as columns of the file say; they win over its name
    int replicate = 0;
    QString digest;
    bool overload = false; ///< the file says that its cell could not show all of this pull
    bool repeat = false;   ///< the same samples are in the project already, or earlier in this sheet
    bool include = true;
    bool corrected = false; ///< option and condition were typed by hand
    QString piece{};        ///< the label of the waiting piece of the plan that it is of; empty: a new one
    Id specimen = 0;        ///< that piece
    bool isNew = false;     ///< somebody said that it is of a new piece
    QStringList doubts;     ///< what somebody should look at
    QStringList notes;      ///< what was put right without doubt

    bool needsYou() const {
        return !include || reading == std::nullopt || option.isEmpty() || !doubts.isEmpty();
    }
    /// Its peak is "at least": it topped out.
    bool isBound() const { return overload || (reading && reading->offScale); }
    QString remark() const { return (doubts + notes).join("; "); }
};

/// A file that was looked at.
struct ImportFile {
    QString name, path;
    store::ImportedFile kept; ///< as it will be stored
    std::vector<tables::Problem> problems;
    std::size_t rowsLeftOut = 0, rows = 0; ///< rows: those that were read
    QString encoding, layout;              ///< layout: how it is written, and what was taken as what and why
    const quantity::Unit* forceUnit = nullptr; ///< as the file names it
    std::vector<tables::Column> columns;       ///< what each was taken as

    /// More than one row in fifty would be lost: somebody has to say that this is all right.
    bool losesMuch() const { return 50 * rowsLeftOut > rows + rowsLeftOut; }
    /// The first row that would be lost, in a sentence.
    QString lossText() const;
};

/// Gives every row its piece (see placesFor), and the study's spelling of its option and condition.
struct ImportPlan;
void place(ImportPlan& plan, const domain::StudyData& into);

/// What would be imported.
struct ImportPlan {
    std::vector<ImportFile> files;
    std::vector<ImportRow> rows;
    QStringList unread;                ///< "file: reason" for files that gave nothing
    Wants firstWants = Wants::nothing; ///< what would let the first of them be read
    bool needsForceUnit = false, needsDisplacementUnit = false, unsureDecimal = false;
    tables::NamePattern pattern;
    std::optional<double> rigLimit; ///< N, for all runs
    /// The rig whose display the files may have been logged at, and "display" or "piece" as somebody said;
    /// empty: nobody yet, or nothing stands between.
    std::optional<DisplayPath> path;
    std::string readAt;
    bool needsReadAt() const; ///< loads are among them, something stands between, and nobody said
    bool readOffDisplay() const { return path && readAt == "display"; }

    /// The first row whose option is told by its name under the pattern; null: none is.
    const ImportRow* byName() const;
    /// What the pattern makes of that row's name, in a sentence; empty where there is none.
    QString patternSentence() const;
    /// Something has to be answered before this can go in.
    bool open() const { return needsForceUnit || needsDisplacementUnit || unsureDecimal || needsReadAt(); }
    int alike() const;   ///< rows with nothing to say
    int needYou() const; ///< rows with a remark
    int filled() const;  ///< rows that go in and fill a waiting piece of the plan
};

/// Answers that steer a look at files.
struct ImportChoices {
    tables::Hints hints;
    std::optional<tables::NamePattern> pattern; ///< which words of the names are what; found if not given
    std::optional<double> rigLimit;
    std::optional<DisplayPath> path; ///< what may stand between what was logged and the piece
    std::string readAt;              ///< "display" or "piece", as the study or somebody said; empty: nobody
    bool columnsWhereNeeded =
        false;                ///< columns in `hints` serve only files that have them, or need to be told
    bool lossAllowed = false; ///< files that lose more than one row in fifty are taken all the same
};

/// Bounds of what a folder is taken for: the whole disk is no folder of logs.
inline constexpr int mostFilesLookedAt = 100'000, mostFilesOfFolder = 20'000;
inline constexpr qint64 mostBytesOfFolder = 4'000'000'000;

/// The files of a list in which folders stand for all the files below them that can hold a log or a table.
/// Links to folders are not followed. `stop` cancels. Error: cancelled, or a folder beyond the bounds.
Expected<QStringList> filesIn(const QStringList& paths, const std::atomic<bool>* stop = nullptr);

/// Another pattern for the names of all rows that were not typed by hand.
void rename(ImportPlan& plan, const tables::NamePattern& pattern);

/// Reads the files (folders stand for what is in them) and makes a plan. `known` are the digests already in
/// the project. `progress` gets 0 … 1 and may run on any thread; `stop` cancels between files.
ImportPlan lookAt(const QStringList& paths, const ImportChoices& choices, const std::map<QString, Id>& known,
                  const std::function<void(double)>& progress = {}, const std::atomic<bool>* stop = nullptr);

/// Makes one run of a row and the row above it, which must be of the same file; where the clock begins anew
/// it goes on instead. Nothing where there is no such row.
void joinWithAbove(ImportPlan& plan, std::size_t row);
/// Makes a run of every rise of a row's curve from nothing, cycles of one piece too. Whether there were
/// several.
bool splitAtRises(ImportPlan& plan, std::size_t row);

/// After a row's option or condition was corrected: learns where it stands in the file name and re-reads all
/// rows not typed by hand.
void relearn(ImportPlan& plan, std::size_t row);

/// Writes the plan into a study as one journal entry. Call from any thread; afterwards OpenProject::adopt on
/// its own. `stop` cancels: nothing of it is in the project then. Loads that were logged at a display go
/// through its path; the files are kept as they are. Error: cancelled, no row to import, a missing unit, or
/// nobody said where the loads were read.
struct Imported {
    Id journal = 0;
    int pulls = 0;
    QString what;
    std::vector<CurveRead> read{}; ///< its curves were read to be looked at: they need not be once more
};
Expected<Imported> importRuns(store::Project& project, const domain::StudyData& into, const ImportPlan& plan,
                              const std::atomic<bool>* stop = nullptr);

/// A row of a table that is off the others of its square as if another unit had been meant.
struct UnlikelyRow {
    std::size_t line = 0; ///< in the file
    quantity::Entry told;
    results::Unlikely odd;
};
/// Those of a table, in its order; `unit` for values without one. Values that are bounds are not looked at.
std::vector<UnlikelyRow> unlikelyRows(const tables::ValueTable& table, const quantity::Unit* unit);

/// Where each row of a table goes (see placesFor).
std::vector<Placement> placesOf(const domain::StudyData& into, const tables::ValueTable& table);

/// Writes a table of single results into a study as one journal entry. `unit` for values without one; loads
/// go through what stands between display and piece, as typed ones do. Error: mixed dimensions, no unit, or
/// nobody said where the loads were read.
Expected<Imported> importValues(OpenProject& project, const domain::StudyData& into,
                                const tables::ValueTable& table, const quantity::Unit* unit,
                                const QString& sourceName);

/// A new study called after the folder that the files lie in, or the folder that was given.
domain::Study studyFor(const QStringList& paths, int position);

} // namespace anvil::project
