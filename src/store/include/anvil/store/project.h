// A project file: one SQLite database, written by one thread, never losing a sample. Layout:
// docs/file-format.md.
#pragma once

#include <QByteArray>
#include <QDateTime>
#include <QJsonArray>
#include <QJsonObject>
#include <QString>
#include <QStringList>
#include <anvil/curve/pyramid.h>
#include <anvil/curve/reading.h>
#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>
#include <functional>
#include <memory>
#include <span>

class QSqlDatabase;

namespace anvil::store {

struct PackedChunk;

using domain::Id;

/// Version of the files this program writes: that of the newest of its fields.
int schemaVersion();

/// One journal row: who changed what, when, and every touched row before and after.
struct JournalEntry {
    Id id = 0;
    Id undoes = 0; ///< the entry this one takes back, or 0
    QString at, who, what;
    QJsonArray changes; ///< {table, id, before, after}; before or after is null for a row made or taken away
};

/// A file as it was imported, packed for keeping (a zstd frame, which carries a checksum of its own).
struct ImportedFile {
    QString name;
    QString digest; ///< of the bytes as imported, XXH3, 128 bits, hex
    qint64 bytes = 0;
    QByteArray packed;

    /// Packs a file; the costly part, for any thread.
    static ImportedFile pack(const QString& name, const QByteArray& bytes);
    /// The bytes as imported. Error: damaged.
    Expected<QByteArray> unpack() const;
};

/// What is stored of a curve once all its samples are there.
struct CurveSummary {
    Id curve = 0;
    std::size_t samples = 0, channels = 0, chunks = 0;
    QString digest; ///< as `digest` of the samples; empty when there are none
    curve::Pyramid pyramid;
};

/// A version of a rig's set-up, as pulls point to it. `json` is rig::toJson's.
struct SetupRow {
    Id id = 0;
    QString rig;
    int version = 0;
    QString madeAt, json;
};

/// A reading that was kept beside its curve, so that it need not be made again.
struct KeptReading {
    Id curve = 0;
    QString digest; ///< of the samples it was made of
    curve::ReadingSettings settings;
    curve::Reading reading;
};

class Statements;

/// Handed to the function given to Project::write; every change goes through it, so that the journal is
/// complete. After the first failure the rest does nothing and the whole transaction is rolled back.
class Writer {
public:
    explicit Writer(QSqlDatabase& database);
    ~Writer();
    Writer(const Writer&) = delete;
    Writer& operator=(const Writer&) = delete;

    /// Adds a value of the domain as a row and returns its id; an id other than 0 is kept. Of Study, Option,
    /// Condition, Specimen, Pull and Attachment.
    template <class T> Id add(const T& value);
    /// Writes what `after` says otherwise than `before`, and nothing else: what has become of the row
    /// meanwhile, by a recording for one, stays.
    template <class T> void change(const T& before, const T& after);
    /// Takes a row away; it stays in the journal.
    template <class T> void remove(const T& value);
    /// A rig as it was set up; never changed.
    Id addSetup(const SetupRow& setup);
    /// One change of a journal entry once more, or backwards.
    void apply(const QJsonObject& change, bool backwards);

    /// Adds a row and returns its id. A field "id" other than 0 is kept.
    Id insert(const QString& table, QJsonObject fields);
    /// Changes the given fields of a row.
    void update(const QString& table, Id id, const QJsonObject& fields);
    /// Takes a row away; it stays in the journal.
    void remove(const QString& table, Id id);
    /// Stores samples in checksummed chunks with their pyramid. Not journalled: samples cannot be undone.
    /// `known`: their digest, if it is at hand.
    /// `beside`: the curve of the main device where this is of one that was read at the same time.
    Id addCurve(const curve::Curve& curve, const QString& known = {}, Id beside = 0);
    /// A curve that is still being recorded: no samples, no digest yet. Not journalled, like all samples.
    /// `shape` has the channels it will have; `beside`: the main device's curve when this is of a device read
    /// at the same time.
    Id beginCurve(const curve::Curve& shape, Id beside = 0);
    /// Adds a stretch to such a curve; `sequence` counts from 0.
    void appendSamples(Id curve, int sequence, const curve::Curve& part);
    /// Ends such a curve: stores digest and pyramid, and lays many small chunks together. `summary`: of all
    /// its samples.
    void finishCurve(const CurveSummary& summary);
    /// Keeps a file as imported. Not journalled. The same bytes are kept once.
    Id addFile(const ImportedFile& file);

    /// Ends a transaction that changed something with its journal row.
    void addToJournal(const QString& at, const QString& who, const QString& what, Id undoes);
    Id journalId() const { return m_journalId; } ///< 0: none was written

    void failWith(const QString& message);
    bool failed() const { return !m_error.isEmpty(); }
    const QString& error() const { return m_error; }
    const QJsonArray& changes() const { return m_changes; }
    bool samplesAdded() const { return m_samplesAdded; }

private:
    bool known(const QString& table);
    Id run(const QString& sql, const QVariantList& values); ///< the id of the row it made, if it did
    void seal(const QString& table, Id key);
    void addChunk(Id curve, int channel, int sequence, std::size_t samples, const PackedChunk& chunk);
    void addPyramid(Id curve, const curve::Pyramid& pyramid);
    void addChannels(Id curve, const curve::Curve& shape);
    void addChunks(Id curve, const curve::Curve& samples);
    void layTogether(const CurveSummary& summary);
    QJsonObject row(const QString& table, Id id);
    QSqlDatabase& m_database;
    std::unique_ptr<Statements> m_statements;
    QJsonArray m_changes;
    QString m_error;
    Id m_journalId = 0;
    bool m_samplesAdded = false;
};

/// What `check` found.
struct Integrity {
    QStringList problems; ///< empty: all is well
    Id curves = 0, samples = 0, pulls = 0;
};

/// An open project. Reading may be done from any thread; writing is queued to the one writer thread.
class Project {
public:
    enum class Access { readWrite, readOnly };

    /// Makes a new, empty project. Error: the file exists or the folder cannot be written.
    static Expected<std::unique_ptr<Project>> create(const QString& path);
    /// Opens a project; read-only when asked to, when somebody else holds it, or when the folder cannot be
    /// written. A file of an older version is brought to this one, with a copy of the old file beside it;
    /// where it is opened for looking only, a copy is. Error: not there, not a project, or made by a newer
    /// version of the program.
    static Expected<std::unique_ptr<Project>> open(const QString& path, Access access = Access::readWrite);
    ~Project();
    Project(const Project&) = delete;
    Project& operator=(const Project&) = delete;

    const QString& path() const;
    bool readOnly() const;
    /// Why it is read-only, naming who holds it; empty otherwise.
    const QString& readOnlyReason() const;
    /// Why the file that is open is not the one that lies at its place any more: another was put there (a
    /// sync, a restored copy), or it was deleted or moved. Nothing is written then; `saveCopy` keeps what is
    /// open under another name. Empty: it is in place.
    QString whyNotInPlace() const;
    /// Recordings that were running when whoever had it open last ended; they stand as interrupted now.
    int brokenOff() const;

    /// Runs `change` in one transaction on the writer thread and waits. Returns the id of its journal row, 0
    /// if nothing changed.
    Expected<Id> write(const QString& what, const std::function<void(Writer&)>& change, Id undoes = 0);
    /// To be called by a thread that has read and is about to end: its connection goes with it.
    void leaveThread() const;
    /// Everything but samples, by study.
    Expected<std::vector<domain::StudyData>> load() const;
    /// Every version of every rig, oldest first.
    Expected<std::vector<SetupRow>> setups() const;
    /// The raw samples of a curve; channels of devices beside it are laid on its clock. Error: unknown, or a
    /// chunk that fails its checksum.
    Expected<curve::Curve> curve(Id id) const;
    /// The same without the devices beside it, exactly as stored.
    Expected<curve::Curve> ownSamples(Id id) const;
    /// Reads the samples of a curve and of those beside it once, without keeping them; takes seconds for many
    /// millions. Error: a chunk that fails its checksum.
    Expected<std::vector<CurveSummary>> summarize(Id curve) const;
    /// Whether anything was recorded beside force and displacement; cheap.
    Expected<bool> hasMoreChannels(Id curve) const;
    /// Curves of devices that were read beside this one.
    Expected<std::vector<Id>> curvesBeside(Id id) const;
    /// Curves whose samples are all there and have a digest that tells all of them, with it.
    Expected<std::map<Id, QString>> finishedCurves() const;
    /// The readings kept by this version of the reader, of samples that are still the same. What is in doubt
    /// is left out: damaged, of another version, or of other samples.
    std::vector<KeptReading> keptReadings() const;
    /// Keeps readings some time soon, without waiting. It is a cache: what cannot be kept is lost, and
    /// nothing of it is in the journal.
    void keepReadings(std::vector<KeptReading> readings);
    /// Forgets what was kept of a curve.
    void dropReading(Id curve);
    /// Reads the samples of curves against their checksums and says of each how it went, until `told` gives
    /// false. From any thread.
    void verifySamples(std::span<const Id> curves,
                       const std::function<bool(Id, const Expected<void>&)>& told) const;
    /// A file as it was imported. Error: unknown.
    Expected<ImportedFile> importedFile(Id id) const;
    /// Ids of all files kept.
    Expected<std::vector<Id>> importedFiles() const;
    /// Curves by the digest of their samples, for recognising repeats.
    Expected<std::map<QString, Id>> curveDigests() const;
    /// The last entries, newest first. Error: one is not as it was written.
    Expected<std::vector<JournalEntry>> journal(int most = 500) const;
    Expected<JournalEntry> journalEntry(Id id) const;
    /// When the project was last changed; empty: never.
    QString lastChange() const;
    /// The last entries that touched a pull, newest first, without what they changed.
    std::vector<JournalEntry> historyOfPull(Id pull, int most) const;
    /// Sentences about what was recorded, lies beside the project and is not in it; see tape.h.
    QStringList tapeNotes() const;
    /// Checks the database, every chunk and every reference.
    Integrity check() const;
    /// A complete copy, made while the project stays open.
    Expected<void> saveCopy(const QString& path) const;

    /// For reproducible projects: the time and name written into the journal.
    void setClock(std::function<QDateTime()> clock);
    void setWho(const QString& who);

private:
    /// Pulls that were being recorded when the program or the power went: marked, with all that was saved.
    void endInterruptedRecordings();
    struct Private;
    explicit Project(std::unique_ptr<Private> d);
    std::unique_ptr<Private> d;
};

/// Digest of a curve's samples (XXH3, 128 bits, hex): tells repeats apart, no proof against forgery. Equal
/// for equal samples whatever the file was called.
QString digest(const curve::Curve& curve);

} // namespace anvil::store
