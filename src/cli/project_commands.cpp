// import, check, report.
#include "output.h"

#include <CLI/Validators.hpp>
#include <QFile>
#include <QFileInfo>
#include <algorithm>
#include <anvil/chart/painter.h>
#include <anvil/exchange/export.h>
#include <anvil/exchange/package.h>
#include <anvil/methods/method.h>
#include <anvil/pages/page.h>
#include <anvil/pages/paper.h>
#include <anvil/pages/source.h>
#include <anvil/pages/write.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/import.h>
#include <anvil/quantity/entry.h>
#include <anvil/words/unlikely.h>
#include <fmt/format.h>

namespace anvil::cli {
namespace {

using quantity::Dimension;

struct ImportOptions {
    std::string project, study, option, condition, forceUnit, displacementUnit, timeUnit, rigLimit, comma,
        force, time, displacement, sheet, readAt;
    std::vector<std::string> files;
    bool values = false, allowLoss = false, asItStands = false;
};

/// `made`: set where the project was not there before, so that it is this command's to take away again.
Expected<std::unique_ptr<project::OpenProject>> openOrMake(const std::string& path, bool& made) {
    const auto name = QString::fromStdString(path);
    if (QFileInfo::exists(name)) return project::OpenProject::open(name);
    auto project = project::OpenProject::create(name);
    made = project.has_value();
    return project;
}

/// How a question about columns is answered here; empty: it is none.
std::string_view howToChoose(Wants wants) {
    return wants == Wants::sheet ? " With --sheet NAME, or its number from 1."
           : wants == Wants::columns
               ? " With --force COLUMN (and --time, --displacement), by name or by number from 1."
           : wants == Wants::timeUnit ? " With --time-unit ms or s."
                                      : "";
}

/// The column that was taken as this, or null.
Json columnFor(const project::ImportFile& file, tables::Role role) {
    for (const auto& c : file.columns)
        if (c.role == role) return c.header;
    return nullptr;
}

/// Why a column was taken as this, in a word for scripts; null where none was.
Json whyFor(const project::ImportFile& file, tables::Role role) {
    static constexpr const char* words[] = {"nothing", "name_and_unit", "unit",  "name",
                                            "numbers", "only_one",      "person"};
    static_assert(std::size(words) == static_cast<std::size_t>(tables::Why::person) + 1);
    for (const auto& c : file.columns)
        if (c.role == role) return words[static_cast<int>(c.why)];
    return nullptr;
}

/// Where a landmark lies among the raw samples, some of which the reading may have dropped or spread over a
/// whole second's stamp: the greatest load at the stamp next to it.
std::optional<std::size_t> placeOf(const curve::Landmark& mark, const curve::Curve& raw) {
    std::optional<std::size_t> best;
    if (raw.time.empty()) // told by the load alone
        for (std::size_t i = 0; i < raw.load.size(); ++i)
            if (!best || std::abs(raw.load[i]) > std::abs(raw.load[*best])) best = i;
    for (std::size_t i = 0; i < raw.time.size(); ++i) {
        if (!best) best = i;
        const double here = std::abs(raw.time[i] - mark.time), there = std::abs(raw.time[*best] - mark.time);
        if (here < there || (here == there && std::abs(raw.load[i]) > std::abs(raw.load[*best]))) best = i;
    }
    return best;
}

/// A row for each run that was found, as it was taken.
Json runsOf(const project::ImportPlan& plan) {
    Json out = Json::array();
    for (const auto& row : plan.rows) {
        const auto& file = plan.files[static_cast<std::size_t>(row.fileIndex)];
        const auto* peak = row.reading ? &row.reading->peak : nullptr;
        const Json unit = file.forceUnit ? Json(std::string(file.forceUnit->symbol)) : Json(nullptr);
        std::vector<std::string> remarks;
        for (const auto& r : row.doubts + row.notes)
            remarks.push_back(r.toStdString());
        const auto& c = row.curve;
        const auto at = peak ? placeOf(*peak, c) : std::nullopt;
        const auto since = [&](const std::vector<double>& v, double unitOf) {
            return number(at && *at < v.size() ? std::optional((v[*at] - v[0]) * unitOf) : std::nullopt);
        };
        out.push_back(
            {{"file", row.file.toStdString()},
             {"run", row.run.isEmpty() ? Json(nullptr) : Json(row.run.toStdString())},
             {"option", row.option.toStdString()},
             {"condition", row.condition.isEmpty() ? Json(nullptr) : Json(row.condition.toStdString())},
             {"replicate", row.replicate},
             {"piece", row.piece.isEmpty() ? Json(nullptr) : Json(row.piece.toStdString())},
             {"filled", row.specimen != 0},
             {"samples", c.load.size()},
             {"force_from", columnFor(file, tables::Role::load)},
             {"force_unit", unit},
             {"time_from", columnFor(file, tables::Role::time)},
             {"displacement_from", columnFor(file, tables::Role::travel)},
             {"force_why", whyFor(file, tables::Role::load)},
             {"time_why", whyFor(file, tables::Role::time)},
             {"displacement_why", whyFor(file, tables::Role::travel)},
             {"peak_N", number(peak && c.loadKind == quantity::Dimension::force ? std::optional(peak->load)
                                                                                : std::nullopt)},
             {"peak_time_s", since(c.time, 1)},
             {"peak_displacement_mm", since(c.travel, 1000)},
             {"state", !row.reading    ? "unread"
                       : row.isBound() ? "above"
                                       : "exact"},
             {"remarks", remarks}});
    }
    return out;
}

Json leftOutOf(const project::ImportPlan& plan) {
    Json out = Json::array();
    for (const auto& f : plan.files)
        for (const auto& p : f.problems)
            out.push_back({{"file", f.name.toStdString()}, {"line", p.line}, {"reason", p.reason}});
    return out;
}

/// Columns of numbers that nothing was taken from.
Json notUsedIn(const project::ImportPlan& plan) {
    Json out = Json::array();
    for (const auto& f : plan.files) {
        std::vector<std::string> columns;
        for (const auto& c : f.columns)
            if (c.role == tables::Role::ignore && !c.words) columns.push_back(c.header);
        if (!columns.empty()) out.push_back({{"file", f.name.toStdString()}, {"columns", columns}});
    }
    return out;
}

/// Tables of single results, each as one journal entry.
Expected<Output> importTables(const ImportOptions& o, project::OpenProject& project, domain::StudyData into,
                              const tables::Hints& hints) {
    const auto title = into.study.title;
    if (!o.readAt.empty()) {
        if (into.study.id)
            if (auto ok = project::setReadAt(project, into.study.id, o.readAt); !ok)
                return tl::unexpected(ok.error());
        into.study.plan.readAt = o.readAt;
    }
    int pulls = 0;
    std::size_t rowsLeftOut = 0;
    Json values = Json::array(), leftOut = Json::array(), notUsed = Json::array();
    std::vector<std::pair<std::string, tables::ValueTable>> read;
    for (const auto& f : o.files) { // all are looked at before one goes in
        const auto bytes = readFile(f);
        if (!bytes) return tl::unexpected(bytes.error());
        auto table = tables::readValues(*bytes, hints.sheet);
        if (!table) return fail(f + ": " + table.error().message);
        if (table->losesMuch() && !o.allowLoss)
            return fail(f + ": " + table->lossText() +
                        ": mend the table, or take the rest with --allow-loss");
        const auto odd = project::unlikelyRows(*table, hints.forceUnit);
        if (!odd.empty() && !o.asItStands)
            return fail(
                fmt::format("{}: line {}: {} Mend it, or take the table as it stands with --as-it-stands.", f,
                            odd[0].line, words::sentence(odd[0].odd, odd[0].told)));
        read.emplace_back(f, std::move(*table));
    }
    for (const auto& [f, table] : read) {
        const auto name = QFileInfo(QString::fromStdString(f)).fileName();
        auto done = project::importValues(project, into, table, hints.forceUnit, name);
        if (!done)
            return fail(f + ": " + done.error().message +
                        (project::readThrough(project, into) ? "" : " With --read-at display or piece."));
        pulls += done->pulls;
        const auto places = project::placesOf(into, table);
        for (std::size_t k = 0; k < table.rows.size(); ++k) {
            const auto& row = table.rows[k];
            const auto* unit = row.unit ? row.unit : hints.forceUnit;
            const bool between = row.value.bound == stats::Bound::between;
            values.push_back(
                {{"file", name.toStdString()},
                 {"line", row.line},
                 {"option", row.option},
                 {"condition", row.condition.empty() ? Json(nullptr) : Json(row.condition)},
                 {"piece", places[k].specimen ? Json(places[k].label.toStdString()) : Json(nullptr)},
                 {"filled", places[k].specimen != 0},
                 {"value", row.value.value},
                 {"upper", between ? Json(row.value.upper) : Json(nullptr)},
                 {"state", row.value.word()},
                 {"unit", unit ? Json(std::string(unit->symbol)) : Json(nullptr)}});
        }
        rowsLeftOut += table.problems.size();
        for (const auto& p : table.problems)
            leftOut.push_back({{"file", name.toStdString()}, {"line", p.line}, {"reason", p.reason}});
        if (!table.notUsed.empty())
            notUsed.push_back({{"file", name.toStdString()}, {"columns", table.notUsed}});
        if (auto ok = project.adopt(done->journal, done->what); !ok) return tl::unexpected(ok.error());
        for (const auto& s : project.studies())
            if (s.study.title == title) into = s;
    }
    auto text = fmt::format("{} results imported into \"{}\".\n", pulls, title);
    for (const auto& l : leftOut)
        text += fmt::format("{}: line {} {}: left out.\n", l["file"].get<std::string>(),
                            l["line"].get<std::size_t>(), l["reason"].get<std::string>());
    return Output{{{"study", title},
                   {"imported", pulls},
                   {"repeats", 0},
                   {"unread", Json::array()},
                   {"runs", Json::array()},
                   {"values", values},
                   {"rows_left_out", rowsLeftOut},
                   {"left_out", leftOut},
                   {"columns_not_used", notUsed}},
                  text};
}

/// What the options say of how files are read.
Expected<project::ImportChoices> choicesOf(const ImportOptions& o) {
    project::ImportChoices choices;
    for (const auto& [text, dimension, target] :
         {std::tuple{&o.forceUnit, Dimension::force, &choices.hints.forceUnit},
          std::tuple{&o.timeUnit, Dimension::time, &choices.hints.timeUnit},
          std::tuple{&o.displacementUnit, Dimension::length, &choices.hints.displacementUnit}}) {
        if (text->empty()) continue;
        auto u = quantity::findUnit(*text, dimension);
        if (!u && dimension == Dimension::force) // of a display in front of a ram or a sensor
            for (const auto shown : {Dimension::stress, Dimension::voltage})
                if (const auto other = quantity::findUnit(*text, shown); other && !u) u = other;
        if (!u) return tl::unexpected(u.error());
        *target = *u;
    }
    if (!o.rigLimit.empty()) {
        const auto limit = quantity::parseEntry(o.rigLimit, Dimension::force);
        if (!limit) return tl::unexpected(limit.error());
        if (!(limit->si > 0))
            return fail("A rig limit of zero or less cannot be: give what the rig can show.");
        choices.rigLimit = limit->si;
    }
    if (!o.comma.empty()) choices.hints.decimal = o.comma == "decimal" ? ',' : '.';
    choices.hints.load = o.force;
    choices.hints.time = o.time;
    choices.hints.travel = o.displacement;
    choices.hints.sheet = o.sheet;
    choices.lossAllowed = o.allowLoss;
    return choices;
}

/// What of the files could not be read, a line each.
std::string unreadText(const project::ImportPlan& plan) {
    std::string text;
    for (const auto& u : plan.unread)
        text += u.toStdString() + "\n";
    for (const auto& f : plan.files)
        for (const auto& p : f.problems)
            text += fmt::format("{}: line {} {}: left out.\n", f.name.toStdString(), p.line, p.reason);
    return text;
}

/// The runs of a plan that are new, as pulls. Error: what was wrong, and how to choose.
Expected<int> importPlan(project::OpenProject& project, const domain::StudyData& into,
                         const project::ImportPlan& plan) {
    auto done = project::importRuns(project.file(), into, plan);
    if (!done)
        return fail(plan.rows.empty() && !plan.unread.isEmpty()
                        ? plan.unread.first().toStdString() + std::string(howToChoose(plan.firstWants))
                        : done.error().message +
                              (plan.needsReadAt() ? " With --read-at display or piece." : ""));
    project.take(std::move(done->read)); // the window need not read them once more
    return done->pulls;
}

Expected<Output> importInto(const ImportOptions& o, bool& made) {
    const auto asked = choicesOf(o);
    if (!asked) return tl::unexpected(asked.error());
    auto choices = *asked;
    QStringList paths;
    for (const auto& f : o.files)
        paths << QString::fromStdString(f);
    auto project = openOrMake(o.project, made);
    if (!project) return tl::unexpected(project.error());
    const auto title = o.study.empty() ? project::studyFor(paths, 0).title : o.study;
    domain::StudyData into;
    into.study = project::studyFor(paths, static_cast<int>((*project)->studies().size()));
    into.study.title = title;
    for (const auto& s : (*project)->studies())
        if (s.study.title == title) into = s;
    if (o.values) return importTables(o, **project, into, choices.hints);
    const auto known = (*project)->file().curveDigests();
    if (!known) return tl::unexpected(known.error());
    choices.path = project::pathOf(**project, into);
    if (const auto* method = methods::find(into.study.plan.method); method && method->load)
        choices.hints.loadKind = *method->load;
    choices.readAt = o.readAt.empty() ? into.study.plan.readAt : o.readAt;
    auto plan = project::lookAt(paths, choices, *known);
    for (const auto& f : plan.files)
        if (f.losesMuch() && !o.allowLoss)
            return fail(f.name.toStdString() + ": " + f.lossText().toStdString() +
                        ": mend the file, or take it all the same with --allow-loss");
    int repeats = 0;
    std::size_t leftOut = 0;
    for (auto& row : plan.rows) {
        repeats += row.repeat;
        if (!o.option.empty()) row.option = QString::fromStdString(o.option);
        if (!o.condition.empty()) row.condition = QString::fromStdString(o.condition);
    }
    project::place(plan, into);
    Output out{{}, unreadText(plan)};
    Json unread = Json::array();
    for (const auto& u : plan.unread)
        unread.push_back(u.toStdString());
    for (const auto& f : plan.files)
        leftOut += f.rowsLeftOut;
    const bool nothingNew = !plan.rows.empty() && repeats == static_cast<int>(plan.rows.size());
    const auto done = nothingNew ? Expected<int>(0) : importPlan(**project, into, plan);
    if (!done) return tl::unexpected(done.error());
    const int imported = *done;
    out.text += fmt::format("{} run{} imported into \"{}\"{}.\n", imported, imported == 1 ? "" : "s", title,
                            repeats ? fmt::format(", {} already there", repeats) : "");
    out.json = {
        {"study", title},           {"imported", imported},        {"repeats", repeats},
        {"unread", unread},         {"runs", runsOf(plan)},        {"values", Json::array()},
        {"rows_left_out", leftOut}, {"left_out", leftOutOf(plan)}, {"columns_not_used", notUsedIn(plan)}};
    return out;
}

/// A package is taken in whole, or not at all.
Expected<Output> importPackage(const std::string& path, const std::string& into, bool& made) {
    const auto package =
        exchange::readPackage(QString::fromStdString(path)); // before a project is made for it
    if (!package) return tl::unexpected(package.error());
    auto project = openOrMake(into, made);
    if (!project) return tl::unexpected(project.error());
    const auto done = exchange::takeIn((*project)->file(), *package);
    if (!done) return tl::unexpected(done.error());
    Json studies = Json::array(), unread = Json::array();
    for (const auto& data : package->studies)
        studies.push_back(data.study.title);
    std::string told;
    for (const auto& name : package->unknown) {
        const auto line = name + ": no table of the package names it; it was left out.";
        unread.push_back(line);
        told += line + "\n";
    }
    return Output{{{"study", package->studies.front().study.title},
                   {"studies", studies},
                   {"imported", done->pulls},
                   {"repeats", 0},
                   {"unread", unread},
                   {"runs", Json::array()},
                   {"values", Json::array()},
                   {"rows_left_out", 0},
                   {"left_out", Json::array()},
                   {"columns_not_used", Json::array()}},
                  fmt::format("{} stud{} with {} pull{} imported.\n", done->studies,
                              done->studies == 1 ? "y" : "ies", done->pulls, done->pulls == 1 ? "" : "s") +
                      told};
}

/// A project made for an import that failed is taken away again.
Expected<Output> importFiles(const ImportOptions& o) {
    const auto path = QString::fromStdString(o.project);
    bool made = false;
    const bool package = std::any_of(o.files.begin(), o.files.end(), [](const auto& f) {
        return exchange::isPackage(QString::fromStdString(f));
    });
    if (package && o.files.size() > 1)
        return fail("A package is imported by itself: name one folder or archive.");
    auto done = package ? importPackage(o.files.front(), o.project, made) : importInto(o, made);
    if (!done && made) QFile::remove(path);
    return done;
}

Expected<Output> check(const std::string& path) {
    auto project = store::Project::open(QString::fromStdString(path), store::Project::Access::readOnly);
    if (!project) return tl::unexpected(project.error());
    const auto found = (*project)->check();
    if (!found.problems.isEmpty())
        return fail(fmt::format("{}: {} problem{}: {}", path, found.problems.size(),
                                found.problems.size() == 1 ? "" : "s",
                                found.problems.join(" ").toStdString()));
    auto text = fmt::format("{} pulls, {} curves, {} samples: all as recorded.\n", found.pulls, found.curves,
                            found.samples);
    for (const auto& note : (*project)->tapeNotes())
        text += note.toStdString() + "\n";
    return Output{{{"ok", true},
                   {"problems", Json::array()},
                   {"curves", found.curves},
                   {"samples", found.samples},
                   {"pulls", found.pulls}},
                  text};
}

Expected<Output> exportTo(const std::string& path, const std::string& folder) {
    auto project = store::Project::open(QString::fromStdString(path), store::Project::Access::readOnly);
    if (!project) return tl::unexpected(project.error());
    const auto written = exchange::exportProject(**project, QString::fromStdString(folder));
    if (!written) return tl::unexpected(written.error());
    Json files = Json::array(), leftOut = Json::array();
    for (const auto& f : written->files)
        files.push_back(f.toStdString());
    auto text = fmt::format("{} files written to {}\n", written->files.size(), folder);
    for (const auto& why : written->leftOut) {
        leftOut.push_back(why.toStdString());
        text += why.toStdString() + "\n";
    }
    Output out{{{"folder", folder}, {"files", files}}, text};
    if (!leftOut.empty()) out.json["left_out"] = leftOut;
    return out;
}

struct ReportOptions {
    std::string project, to, study, force = "N", length = "mm";
};

Expected<Output> report(const ReportOptions& o) {
    auto project =
        project::OpenProject::open(QString::fromStdString(o.project), store::Project::Access::readOnly);
    if (!project) return tl::unexpected(project.error());
    auto& p = **project;
    const domain::StudyData* data = nullptr;
    for (const auto& s : p.studies())
        if (!data && (o.study.empty() || s.study.title == o.study)) data = &s;
    if (!data)
        return fail(o.study.empty() ? std::string("The project has no study yet.")
                                    : "The project has no study called \"" + o.study + "\".");
    const auto id = data->study.id;
    for (const auto& [text, dimension] :
         {std::pair{&o.force, Dimension::force}, std::pair{&o.length, Dimension::length}})
        if (const auto u = quantity::findUnit(*text, dimension); !u) return tl::unexpected(u.error());
    chart::loadFonts();
    const auto page = pages::report(pages::sourceOf(p, id), {quantity::unitsFrom(o.force, o.length)});
    const auto to = QString::fromStdString(o.to);
    if (to.endsWith(".pdf", Qt::CaseInsensitive)) {
        if (auto ok = pages::writePdf(page, to); !ok) return tl::unexpected(ok.error());
    } else if (to.endsWith(".html", Qt::CaseInsensitive) || to.endsWith(".htm", Qt::CaseInsensitive)) {
        if (auto ok = writeFile(o.to, pages::toHtml(page)); !ok) return tl::unexpected(ok.error());
    } else if (to.endsWith(".txt", Qt::CaseInsensitive)) {
        if (auto ok = writeFile(o.to, pages::toText(page)); !ok) return tl::unexpected(ok.error());
    } else {
        return fail(o.to + ": a report is written as .html, .pdf or .txt");
    }
    return Output{{{"file", o.to}, {"study", data->study.title}},
                  fmt::format("Report on \"{}\" written to {}\n", data->study.title, o.to)};
}

} // namespace

void addProjectCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    const auto options = std::make_shared<ImportOptions>();
    auto* i = app.add_subcommand("import", "Import logger files (with --values tables of results), or a data "
                                           "package, into a project; makes the project if there is none");
    i->add_option("PROJECT", options->project)->required();
    i->add_option("FILES", options->files)->required();
    i->add_option("--study", options->study, "title of the study; made if there is none");
    i->add_option("--option", options->option, "option of all runs, instead of the file names' word");
    i->add_option("--condition", options->condition);
    i->add_option("--force", options->force, "column of the load, by name or number from 1");
    i->add_option("--time", options->time);
    i->add_option("--displacement", options->displacement);
    i->add_option("--sheet", options->sheet, "sheet of a spreadsheet, by name or number");
    i->add_option("--force-unit", options->forceUnit, "of files that name none");
    i->add_option("--time-unit", options->timeUnit);
    i->add_option("--displacement-unit", options->displacementUnit);
    i->add_option("--rig-limit", options->rigLimit);
    i->add_option("--comma", options->comma,
                  "what a comma is where the files leave it open: decimal or grouping")
        ->check(CLI::IsMember({"decimal", "grouping"}));
    i->add_option("--read-at", options->readAt,
                  "where loads were read or logged, on the rig's display or at the piece")
        ->check(CLI::IsMember({"display", "piece"}));
    i->add_flag("--as-it-stands", options->asItStands,
                "of tables: take values that look as if they were in another unit");
    i->add_flag("--allow-loss", options->allowLoss,
                "take files of which more than 2 % of the rows are left out");
    i->add_flag("--values", options->values,
                "the files are tables: option, condition, value, unit, standing");
    commands.emplace_back(i, [options] { return importFiles(*options); });

    const auto path = std::make_shared<std::string>();
    auto* c = app.add_subcommand("check", "Check a project: database, checksums of all samples, references");
    c->add_option("PROJECT", *path)->required();
    commands.emplace_back(c, [path] { return check(*path); });

    const auto folder = std::make_shared<std::string>();
    auto* e = app.add_subcommand("export", "Write a project as a data package: tables, curves and files");
    e->add_option("PROJECT", *path)->required();
    e->add_option("--to", *folder, "a folder that is not there or empty")->required();
    commands.emplace_back(e, [path, folder] { return exportTo(*path, *folder); });

    const auto paper = std::make_shared<ReportOptions>();
    auto* r = app.add_subcommand("report", "Write the report of a study as HTML, PDF or plain text");
    r->add_option("PROJECT", paper->project)->required();
    r->add_option("--to", paper->to, ".html, .pdf or .txt")->required();
    r->add_option("--study", paper->study, "title; the first study if not given");
    r->add_option("--force-unit", paper->force, "N, kN, kgf or lbf");
    r->add_option("--length-unit", paper->length, "mm or in");
    commands.emplace_back(r, [paper] { return report(*paper); });
}

} // namespace anvil::cli
