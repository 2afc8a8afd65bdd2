#include <anvil/project/import.h>

#include "import_names.h"
#include "import_squares.h"
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <algorithm>
#include <anvil/domain/bounds.h>
#include <anvil/domain/spoken.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/told_rig.h>
#include <anvil/results/evidence.h>
#include <anvil/tables/file.h>
#include <anvil/words/stands.h>
#include <future>

namespace anvil::project {
namespace {

QString becauseOf(tables::Why why) {
    using enum tables::Why;
    switch (why) {
    case nameAndUnit:
        return " (by name and unit)";
    case unit:
        return " (by its unit)";
    case name:
        return " (by its name)";
    case numbers:
        return " (by how its numbers run)";
    case onlyOne:
        return " (nothing else can be it)";
    case person:
        return " (as you said)";
    case nothing:
        break;
    }
    return {};
}

QString layoutText(const tables::Layout& layout) {
    QStringList parts;
    for (const auto& [role, what] :
         {std::pair{tables::Role::load, "load"}, std::pair{tables::Role::time, "time"},
          std::pair{tables::Role::travel, "way"}})
        if (const auto i = layout.find(role)) {
            const auto& c = layout.columns[*i];
            parts << QStringLiteral("%1 from \"%2\"%3%4")
                         .arg(what, QString::fromStdString(c.header),
                              c.unit ? " in " + QString::fromStdString(std::string(c.unit->symbol))
                                     : QString(),
                              becauseOf(c.why));
        }
    QStringList unused, kept;
    for (const auto& c : layout.columns) {
        if (c.role == tables::Role::ignore && !c.words) unused << QString::fromStdString(c.header);
        if (c.role == tables::Role::other) kept << QString::fromStdString(c.header);
    }
    if (!kept.isEmpty()) parts << "kept beside it: " + kept.join(", ");
    if (!unused.isEmpty()) parts << "not used: " + unused.join(", ");
    parts << (layout.delimiter == '\t'  ? "tabs"
              : layout.delimiter == ' ' ? "blanks"
              : layout.delimiter == ';' ? "semicolons"
              : layout.delimiter == '|' ? "bars"
                                        : "commas");
    if (layout.decimal == ',') parts << "decimal comma";
    return parts.join(", ");
}

/// A log by the answers that were given, those about columns where they help.
Expected<tables::Log> read(const std::string& bytes, const ImportChoices& choices) {
    const auto& told = choices.hints;
    auto log = tables::readLog(bytes, told);
    if (!choices.columnsWhereNeeded || (told.load + told.time + told.travel).empty()) return log;
    auto own = told;
    own.load = own.time = own.travel = {};
    // A number means another column in every kind of file, a name means what it says.
    const bool byNumber = told.load.find_first_not_of("0123456789") == std::string::npos;
    if (log && !byNumber) return log;
    auto plain = tables::readLog(bytes, own);
    return plain ? plain : log;
}

/// Reads a row's curve for the preview, and says what somebody should look at.
void readInto(ImportRow& row, const ImportPlan& plan) {
    row.digest = store::digest(row.curve);
    row.reading.reset();
    row.error = row.unusable.toStdString();
    row.settings = {};
    if (!row.error.empty()) {
        row.doubts << row.unusable;
        row.include = false;
        return;
    }
    row.settings.rigLimit = plan.rigLimit;
    if (plan.readOffDisplay() && row.curve.loadKind == quantity::Dimension::force) {
        const auto& through = plan.path->through;
        row.settings.preload = through.offset;
        if (!through.table.empty()) {
            const auto ends = {through.felt(through.table.front().reading).value,
                               through.felt(through.table.back().reading).value};
            row.settings.calibratedTo = std::max(ends);
        }
    }
    auto reading = curve::read(row.curve, row.settings);
    if (!reading) {
        row.error = reading.error().message;
        row.doubts << QString::fromStdString(row.error);
        row.include = false;
        return;
    }
    row.reading = std::move(*reading);
    if (row.isBound()) row.doubts << "topped out: \"at least\"";
    if (row.reading->spikes)
        row.notes << (row.reading->spikes == 1
                          ? QStringLiteral("1 spike bridged")
                          : QStringLiteral("%1 spike samples bridged").arg(row.reading->spikes));
    for (const auto& w : row.reading->warnings)
        row.doubts << QString::fromStdString(w);
    for (const auto& n : row.reading->notes)
        row.notes << QString::fromStdString(n);
}

/// What was logged at a display becomes what the piece felt; what cannot become a load is left out.
void feltAtPiece(ImportRow& row, const ImportPlan& plan) {
    using quantity::Dimension;
    const auto load = row.curve.loadKind;
    const bool other = load == Dimension::stress || load == Dimension::voltage;
    if (plan.readOffDisplay() && load == plan.path->through.shows) {
        const auto& through = plan.path->through;
        const auto table = quantity::Calibration::make(through.table).value_or(quantity::Calibration{});
        for (auto& f : row.curve.load) // as `felt` of each, with the table's curve laid once
            f = through.factor * table(f).value + through.offset;
        row.curve.loadKind = Dimension::force;
        row.notes << QStringLiteral("read off the display of %1, and given as the piece felt it")
                         .arg(QString::fromStdString(plan.path->rig));
    } else if (other && !plan.needsReadAt()) {
        row.unusable =
            QStringLiteral(
                "its load stands there as %1, and no rig says what that is at the piece: set one up "
                "whose display shows it (Rig, Load path)")
                .arg(load == Dimension::stress ? QStringLiteral("a pressure") : QStringLiteral("volts"));
    } else if (plan.readOffDisplay() && load == Dimension::force) {
        row.unusable =
            QStringLiteral("the display of %1 shows no load, and this file holds one: say that it is "
                           "that at the piece")
                .arg(QString::fromStdString(plan.path->rig));
    }
}

/// As a curve was kept that was imported before its further channels were.
QString digestWithoutChannels(const curve::Curve& curve) {
    if (curve.others.empty()) return {};
    return store::digest({curve.time, curve.load, curve.travel, {}, curve.loadKind, curve.travelKind});
}

/// Numbers runs of the same square one after another where their names number none, or two alike.
void numberReplicates(ImportPlan& plan) {
    std::map<std::pair<QString, QString>, std::set<int>> taken;
    for (auto& row : plan.rows) {
        auto& used = taken[{row.option, row.condition}];
        if (row.replicate <= 0 || used.contains(row.replicate))
            for (row.replicate = 1; used.contains(row.replicate);)
                ++row.replicate;
        used.insert(row.replicate);
    }
}

/// Why nothing of a plan goes in.
std::string noRunBecause(const ImportPlan& plan) {
    const std::string none = "There is no run to import";
    for (const auto& row : plan.rows)
        if (!row.include && !row.doubts.isEmpty())
            return none + ": " + (row.file + ": " + row.doubts.first()).toStdString() +
                   (row.doubts.first().endsWith('.') ? "" : ".");
    return none + ".";
}

} // namespace

void joinWithAbove(ImportPlan& plan, std::size_t index) {
    if (index == 0 || index >= plan.rows.size() ||
        plan.rows[index].fileIndex != plan.rows[index - 1].fileIndex)
        return;
    auto& above = plan.rows[index - 1];
    auto& c = above.curve;
    auto& more = plan.rows[index].curve;
    if (!c.time.empty() && !more.time.empty() && more.time.front() <= c.time.back()) {
        const double step =
            c.time.size() > 1 ? (c.time.back() - c.time.front()) / static_cast<double>(c.time.size() - 1) : 1;
        const double shift = c.time.back() + step - more.time.front();
        for (auto& t : more.time)
            t += shift;
    }
    for (const auto v : {&curve::Curve::time, &curve::Curve::load, &curve::Curve::travel})
        (c.*v).insert((c.*v).end(), (more.*v).begin(), (more.*v).end());
    for (std::size_t i = 0; i < std::min(c.others.size(), more.others.size()); ++i) // of one file: the same
        c.others[i].values.insert(c.others[i].values.end(), more.others[i].values.begin(),
                                  more.others[i].values.end());
    above.overload = above.overload || plan.rows[index].overload;
    above.run += "+" + plan.rows[index].run;
    above.doubts.clear();
    above.notes = QStringList{QStringLiteral("runs joined by hand")};
    above.include = true;
    readInto(above, plan);
    plan.rows.erase(plan.rows.begin() + static_cast<std::ptrdiff_t>(index));
}

bool splitAtRises(ImportPlan& plan, std::size_t index) {
    if (index >= plan.rows.size()) return false;
    const auto whole = plan.rows[index];
    const auto parts = curve::splitAtPulls(whole.curve, curve::Cut::atEveryRise);
    if (parts.size() < 2) return false;
    plan.rows.erase(plan.rows.begin() + static_cast<std::ptrdiff_t>(index));
    for (std::size_t k = 0; k < parts.size(); ++k) {
        auto row = whole;
        row.curve = parts[k];
        row.run = (whole.run.isEmpty() ? QString() : whole.run + ".") + QString::number(k + 1);
        row.doubts.clear();
        row.notes = QStringList{QStringLiteral("split by hand")};
        row.include = true;
        row.replicate = k == 0 ? whole.replicate : 0;
        readInto(row, plan);
        plan.rows.insert(plan.rows.begin() + static_cast<std::ptrdiff_t>(index + k), std::move(row));
    }
    numberReplicates(plan);
    return true;
}

QString ImportFile::lossText() const {
    auto text = QStringLiteral("%1 of %2 rows would be left out").arg(rowsLeftOut).arg(rows + rowsLeftOut);
    if (!problems.empty())
        text += QStringLiteral(" (line %1 %2)")
                    .arg(problems[0].line)
                    .arg(QString::fromStdString(problems[0].reason));
    return text;
}

bool ImportPlan::needsReadAt() const {
    using quantity::Dimension;
    return path && readAt.empty() && std::any_of(rows.begin(), rows.end(), [](const ImportRow& r) {
               const auto load = r.curve.loadKind;
               return r.include &&
                      (load == Dimension::force || load == Dimension::stress || load == Dimension::voltage);
           });
}

int ImportPlan::alike() const {
    return static_cast<int>(
        std::count_if(rows.begin(), rows.end(), [](const ImportRow& r) { return !r.needsYou(); }));
}

int ImportPlan::filled() const {
    return static_cast<int>(std::count_if(rows.begin(), rows.end(),
                                          [](const ImportRow& r) { return r.include && r.specimen != 0; }));
}

void place(ImportPlan& plan, const domain::StudyData& into) {
    std::vector<Homeless> results;
    std::vector<ImportRow*> rows;
    for (auto& row : plan.rows) {
        row.piece.clear();
        row.specimen = 0;
        if (!row.include) continue;
        auto naming = QString::fromStdString(row.naming);
        if (!row.run.isEmpty()) naming += " " + row.run;
        results.push_back(
            {row.option, row.condition, row.replicate, row.corrected ? QString() : naming, row.isNew});
        rows.push_back(&row);
    }
    const auto places = placesFor(into, results);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const auto& p = places[i];
        rows[i]->option = p.option;
        rows[i]->condition = p.condition;
        rows[i]->specimen = p.specimen;
        rows[i]->piece = p.label;
        if (p.specimen) rows[i]->replicate = p.replicate;
    }
}

int ImportPlan::needYou() const { return static_cast<int>(rows.size()) - alike(); }

ImportPlan lookAt(const QStringList& given, const ImportChoices& choices, const std::map<QString, Id>& known,
                  const std::function<void(double)>& progress, const std::atomic<bool>* stop) {
    ImportPlan plan;
    const auto found = filesIn(given, stop);
    if (!found) {
        plan.unread << QString::fromStdString(found.error().message + ".");
        return plan;
    }
    const auto& paths = *found;
    const auto names = namesOf(paths);
    plan.pattern = choices.pattern.value_or(tables::patternOf(names));
    plan.rigLimit = choices.rigLimit;
    plan.path = choices.path;
    plan.readAt = choices.readAt;
    auto hinted = choices;
    if (choices.path && choices.path->through.shows != quantity::Dimension::force)
        hinted.hints.loadKind = choices.path->through.shows;
    std::set<QString> seen;
    for (qsizetype i = 0; i < paths.size() && !(stop && *stop); ++i) {
        ImportFile file;
        file.path = paths[i];
        file.name = QFileInfo(paths[i]).fileName();
        const auto bytes = tables::readFile(QFile::encodeName(paths[i]).toStdString());
        auto log = bytes ? read(*bytes, hinted) : tl::unexpected(bytes.error());
        if (!log) {
            if (plan.unread.isEmpty()) plan.firstWants = log.error().wants;
            plan.unread << QStringLiteral("%1: %2.").arg(file.name,
                                                         QString::fromStdString(log.error().message));
            continue;
        }
        auto packing = std::async(std::launch::async, [&] {
            return store::ImportedFile::pack(
                file.name, QByteArray::fromRawData(bytes->data(), static_cast<qsizetype>(bytes->size())));
        }); // beside the reading
        file.problems = std::move(log->problems);
        file.rowsLeftOut = log->rowsLeftOut;
        file.columns = log->layout.columns;
        for (const auto& run : log->runs)
            file.rows += run.curve.load.size();
        file.encoding = QString::fromStdString(log->encoding);
        file.layout = layoutText(log->layout);
        if (const auto force = log->layout.find(tables::Role::load))
            file.forceUnit = log->layout.columns[*force].unit;
        plan.needsForceUnit = plan.needsForceUnit || !log->forceUnitKnown;
        plan.needsDisplacementUnit = plan.needsDisplacementUnit || !log->displacementUnitKnown;
        plan.unsureDecimal = plan.unsureDecimal || log->layout.decimalUnsure;
        const auto fileIndex = static_cast<int>(plan.files.size());
        for (auto& run : log->runs) {
            ImportRow row;
            row.file = file.name;
            row.naming = names[static_cast<std::size_t>(i)];
            row.ownOption = sentenceCase(QString::fromStdString(run.option));
            row.ownCondition = sentenceCase(QString::fromStdString(run.condition));
            row.fileIndex = fileIndex;
            row.run = QString::fromStdString(run.label);
            row.curve = std::move(run.curve);
            row.overload = run.overload;
            feltAtPiece(row, plan);
            readInto(row, plan);
            assignNames(row, plan.pattern);
            if (known.contains(row.digest) || known.contains(digestWithoutChannels(row.curve)) ||
                !seen.insert(row.digest).second) {
                row.repeat = true;
                row.include = false;
                row.doubts.prepend("already here: the same samples");
            }
            if (run.overload) row.doubts << QString::fromStdString(log->overload);
            for (const auto& n : log->notes)
                row.notes << QString::fromStdString(n);
            if (file.losesMuch() && !choices.lossAllowed) {
                row.include = false;
                row.doubts << file.lossText();
            }
            if (file.rowsLeftOut)
                row.notes << QStringLiteral("%1 row%2 left out")
                                 .arg(file.rowsLeftOut)
                                 .arg(file.rowsLeftOut == 1 ? "" : "s");
            plan.rows.push_back(std::move(row));
        }
        file.kept = packing.get();
        plan.files.push_back(std::move(file));
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(paths.size()));
    }
    numberReplicates(plan);
    return plan;
}

Expected<Imported> importRuns(store::Project& project, const domain::StudyData& into, const ImportPlan& plan,
                              const std::atomic<bool>* stop) {
    const auto count =
        std::count_if(plan.rows.begin(), plan.rows.end(), [](const ImportRow& r) { return r.include; });
    if (count == 0) return fail(noRunBecause(plan));
    if (plan.needsForceUnit) return fail("These files name no force unit: choose one first.");
    if (plan.needsDisplacementUnit) return fail("These files name no displacement unit: choose one first.");
    if (plan.unsureDecimal)
        return fail(
            "Every comma in these files is followed by three digits: say whether 1,250 means 1.25 or 1250.");
    for (const auto& row : plan.rows)
        if (row.include && row.option.trimmed().isEmpty())
            return fail("A run has no option: type what it was a pull of.");
    Imported out;
    out.pulls = static_cast<int>(count);
    out.what = count == 1 ? QStringLiteral("Import 1 run") : QStringLiteral("Import %1 runs").arg(count);
    if (plan.needsReadAt()) return fail(nobodySaid(*plan.path));
    if (plan.readOffDisplay() && !plan.path->trouble.empty())
        return fail(plan.path->rig + ": " + plan.path->trouble);
    const auto rigs = project.setups();
    if (!rigs) return tl::unexpected(rigs.error());
    auto entry = project.write(out.what, [&](store::Writer& w) {
        Id setup = 0;
        auto study = into;
        if (plan.rigLimit && !plan.readOffDisplay()) { // what was told of it is kept as a rig
            rig::Setup told;
            told.name = rigOfLogs;
            told.rigLimit = plan.rigLimit;
            setup = keepSetup(w, *rigs, told);
            if (!study.study.id && study.study.plan.rig.empty()) study.study.plan.rig = rigOfLogs;
        }
        if (plan.path) study.study.plan.readAt = plan.readAt;
        if (plan.readOffDisplay()) {
            setup = plan.path->setup;
            if (!study.study.id && study.study.plan.rig.empty()) study.study.plan.rig = plan.path->rig;
        }
        // What the files are in is what is meant by a number typed without a unit from now on.
        for (const auto& row : plan.rows)
            if (const auto* unit = plan.files[static_cast<std::size_t>(row.fileIndex)].forceUnit;
                row.include && unit && !domain::unitSpoken(study, unit->dimension))
                domain::speak(study.study.plan, *unit);
        if (study.study.id) w.change(into.study, study.study);
        Squares squares(w, study);
        std::set<int> filesKept;
        for (const auto& row : plan.rows) {
            if (stop && *stop) return w.failWith(QStringLiteral("The import was cancelled."));
            if (!row.include) continue;
            if (filesKept.insert(row.fileIndex).second)
                w.addFile(plan.files[static_cast<std::size_t>(row.fileIndex)].kept);
            domain::Pull pull;
            pull.specimen =
                row.specimen ? row.specimen : squares.specimen(row.option, row.condition, row.replicate);
            pull.curve = w.addCurve(row.curve, row.digest);
            pull.sourceName = (row.run.isEmpty() ? row.file : row.file + ", run " + row.run).toStdString();
            pull.performedAt = QFileInfo(plan.files[static_cast<std::size_t>(row.fileIndex)].path)
                                   .lastModified()
                                   .toString(Qt::ISODate)
                                   .toStdString();
            pull.settings = row.settings;
            pull.setup = setup;
            if (plan.readOffDisplay() && row.curve.loadKind == quantity::Dimension::force)
                pull.outcome.path = plan.path->through;
            if (row.overload) pull.outcome.limit = domain::Limit::toppedOut;
            const auto id = w.add(pull);
            if (row.reading) out.read.push_back({{id, pull.curve, row.settings, row.digest}, *row.reading});
        }
    });
    if (!entry) return tl::unexpected(entry.error());
    out.journal = *entry;
    return out;
}

domain::Study studyFor(const QStringList& paths, int position) {
    domain::Study s;
    s.position = position;
    const auto folder = QDir(commonFolder(paths)).dirName();
    s.title = (folder.isEmpty() ? QStringLiteral("New study")
                                : sentenceCase(QString(folder).replace('_', ' ').replace('-', ' ')))
                  .toStdString();
    s.question = "Which option is strongest?";
    return s;
}

} // namespace anvil::project
