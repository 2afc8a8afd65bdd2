#include "csv.h"
#include "curve_file.h"
#include "file_words.h"
#include "ids.h"
#include "read_package.h"

#include <QDir>
#include <QFileInfo>
#include <algorithm>
#include <anvil/exchange/export.h>
#include <anvil/project/write_file.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/store/texts.h>
#include <fmt/format.h>
#include <set>

namespace anvil::exchange {

std::string exactText(double si, quantity::Dimension dimension) {
    const auto symbol = quantity::siUnit(dimension).symbol;
    const bool plain = dimension == quantity::Dimension::ratio || dimension == quantity::Dimension::money;
    return plain || symbol.empty() ? fmt::format("{}", si) : fmt::format("{} {}", si, symbol);
}

namespace {

using Cells = std::vector<std::pair<std::string_view, std::string>>;
using quantity::Dimension;

std::string maybe(const std::optional<double>& v, Dimension dimension) {
    return v ? exactText(*v, dimension) : std::string();
}

/// "10 %", with as many digits as tell the share from any other when it is read.
std::string percentText(double share) {
    // A hundred times a double is no double: more digits are needed for a hundredth of it to be the share
    // again.
    const auto plain = fmt::format("{}", share * 100);
    if (shareFrom(plain) == std::optional(share)) return plain + " %";
    return fmt::format("{:.21g} %", static_cast<long double>(share) * 100);
}

/// A table while it is written: rows in the order of its columns; one that would be empty is not written.
class TableWriter {
public:
    explicit TableWriter(const TableKind& kind) : m_kind(kind) {}
    void row(const Cells& cells) {
        std::vector<std::string> all(m_kind.columns.size());
        for (const auto& [column, text] : cells)
            for (std::size_t i = 0; i < m_kind.columns.size(); ++i)
                if (m_kind.columns[i].name == column) all[i] = text;
        m_rows.push_back(std::move(all));
    }
    bool empty() const { return m_rows.empty(); }
    const TableKind& kind() const { return m_kind; }
    /// Columns in which nothing stands are left out.
    std::vector<std::size_t> used() const {
        std::vector<std::size_t> out;
        for (std::size_t i = 0; i < m_kind.columns.size(); ++i)
            if (i == 0 ||
                std::any_of(m_rows.begin(), m_rows.end(), [&](const auto& r) { return !r[i].empty(); }))
                out.push_back(i);
        return out;
    }
    std::string text() const {
        const auto columns = used();
        std::string out;
        std::vector<std::string> cells;
        const auto put = [&](const auto& of) {
            cells.clear();
            for (const auto i : columns)
                cells.push_back(of(i));
            addCsvRow(out, cells);
        };
        put([&](std::size_t i) { return std::string(m_kind.columns[i].name); });
        for (const auto& r : m_rows)
            put([&](std::size_t i) { return r[i]; });
        return out;
    }

private:
    const TableKind& m_kind;
    std::vector<std::vector<std::string>> m_rows;
};

/// Whether fields can be written as rows and come back as they were.
bool asRows(const methods::Method& method, const std::vector<domain::FieldText>& fields) {
    return std::all_of(fields.begin(), fields.end(), [&](const domain::FieldText& f) {
        const auto* input = methods::inputNamed(method, f.key);
        const bool once =
            input && (input->form == methods::Form::one || input->form == methods::Form::repeated ||
                      input->form == methods::Form::perLeg);
        return once && f.key != "unloaded_at" && methods::entryOf(*input, f.text).has_value();
    });
}

const methods::Input* inputOfForm(const methods::Method& method, methods::Form form) {
    for (const auto& i : method.inputs)
        if (i.form == form) return &i;
    return nullptr;
}

/// The tables of a project.
class Writing {
public:
    Writing(const std::vector<domain::StudyData>& studies, const std::vector<store::SetupRow>& setups)
        : m_studies(studies), m_setups(setups) {}

    void all() {
        for (const auto& data : m_studies) {
            study(data.study, data);
            for (const auto& o : data.options)
                option(data, o);
            for (const auto& c : data.conditions)
                condition(data, c);
            for (const auto& s : data.specimens)
                specimen(data, s);
            pullNames.merge(namesOf(data));
            for (const auto& p : data.pulls)
                pull(data, p);
            forecasts(data);
            for (const auto& r : data.study.telling.references)
                references.row({{"study", title(data)},
                                {"name", r.name},
                                {"value", exactText(r.value, data.study.goal.metric->dimension)},
                                {"upper", maybe(r.upper, data.study.goal.metric->dimension)}});
            criteriaOf(data);
        }
        for (const auto& s : m_setups)
            setups.row({{"rig", s.rig.toStdString()},
                        {"version", std::to_string(s.version)},
                        {"at", s.madeAt.toStdString()},
                        {"setup", s.json.toStdString()}});
    }

    TableWriter studies{studiesTable}, options{optionsTable}, conditions{conditionsTable},
        specimens{specimensTable}, pulls{pullsTable}, inputs{inputsTable}, forecastRows{forecastsTable},
        references{referencesTable}, criteria{criteriaTable}, setups{setupsTable},
        attachments{attachmentsTable}, files{filesTable};
    std::map<Id, std::string> pullNames; ///< by local id
    std::map<Id, std::vector<std::string>> besideFiles;
    std::set<Id> damaged; ///< pulls whose curve could not be read

    static std::string title(const domain::StudyData& data) { return data.study.title; }

private:
    static std::string optionName(const domain::StudyData& data, Id id) {
        return id ? data.optionAt(id).name : "";
    }

    void study(domain::Study s, const domain::StudyData& data) {
        const auto g = s.goal;
        const auto dimension = g.metric->dimension;
        const auto inputsOfStudy = s.plan.inputs;
        const auto& method = results::methodOf(s.plan);
        Cells cells{{"study", s.title},
                    {"question", s.question},
                    {"method", s.plan.method},
                    {"metric", std::string(g.metric->key)},
                    {"sense", std::string(methods::key(g.sense))},
                    {"need", maybe(g.need, dimension)},
                    {"ceiling", maybe(g.ceiling, dimension)},
                    {"margin", percentText(g.margin)},
                    {"control", optionName(data, g.control)},
                    {"part", g.part},
                    {"intent", fileWord(s.intent)},
                    {"axis", s.plan.axis},
                    {"axis_unit", s.plan.axisUnit},
                    {"replicates", s.plan.replicates ? std::to_string(s.plan.replicates) : ""},
                    {"note", s.note}};
        if (g.window)
            cells.emplace_back("window",
                               fmt::format("{}…{}", g.window->first, exactText(g.window->second, dimension)));
        if (asRows(method, inputsOfStudy)) {
            for (const auto& f : inputsOfStudy)
                inputs.row({{"study", s.title}, {"input", f.key}, {"value", f.text}});
            s.plan.inputs.clear();
        }
        const auto family = g.family;
        s.goal = {};
        s.goal.family = family;
        s.plan.method.clear();
        s.plan.axis.clear();
        s.plan.axisUnit.clear();
        s.plan.replicates = 0;
        for (auto& q : s.plan.squares) {
            q.forecasts.clear();
            if (hasPieces(data, q)) q.otherEnd = 0; // it stands with its pieces
        }
        s.card = {};
        s.telling.references.clear();
        const domain::Study none;
        const auto rest = store::planToJson(s);
        if (rest != store::planToJson(none)) cells.emplace_back("plan", rest.toStdString());
        studies.row(cells);
    }

    static bool hasPieces(const domain::StudyData& data, const domain::PlannedSquare& q) {
        return std::any_of(data.specimens.begin(), data.specimens.end(), [&](const domain::Specimen& s) {
            return s.option == q.option && s.condition == q.condition;
        });
    }

    void option(const domain::StudyData& data, const domain::Option& o) {
        Cells cells{{"study", title(data)}, {"option", o.name}};
        addPlain(cells, o, plainOfOption);
        options.row(cells);
    }

    void condition(const domain::StudyData& data, const domain::Condition& c) {
        std::string levels;
        for (const auto& level : c.levels)
            levels += (levels.empty() ? "" : "; ") + level;
        if (c.levels == domain::levelsIn(c.name))
            levels.clear();
        else if (levels.empty())
            levels.assign(1, '-'); // none, whatever its name looks like
        const auto unit = quantity::findUnit(data.study.plan.axisUnit);
        Cells cells{
            {"study", title(data)},
            {"condition", c.name},
            {"value", c.value ? exactText(*c.value, unit ? (*unit)->dimension : Dimension::ratio) : ""},
            {"levels", levels}};
        addPlain(cells, c, plainOfCondition);
        conditions.row(cells);
    }

    void specimen(const domain::StudyData& data, const domain::Specimen& s) {
        const auto* square = data.study.plan.square(s.option, s.condition);
        const auto& method = results::methodOf(data, s);
        // A row names the input, so that only a name that is the input's own comes back as it was.
        const auto rowOf = [&](const std::string& name) {
            const auto* input = methods::inputMeasured(method, name);
            return input && input->of != methods::Of::pull && name == input->title ? input : nullptr;
        };
        const bool rows = std::all_of(s.measured.begin(), s.measured.end(), [&](const domain::Measured& m) {
            return !m.nominal && !m.tolerance && !m.readings.empty() && rowOf(m.name);
        });
        store::PieceTexts rest; // what cannot be rows
        if (!rows) rest.measured = s.measured;
        const bool inputRows =
            asRows(method, s.inputs) && std::all_of(s.inputs.begin(), s.inputs.end(), [&](const auto& f) {
                const auto* input = methods::inputNamed(method, f.key);
                return input->of == methods::Of::specimen && !isMeasure(*input, f.text);
            });
        if (!inputRows) rest.inputs = s.inputs;
        Cells cells{{"study", title(data)},
                    {"specimen", s.label},
                    {"option", optionName(data, s.option)},
                    {"condition", data.conditionAt(s.condition).name},
                    {"replicate", std::to_string(s.replicate)},
                    {"other_end", square ? optionName(data, square->otherEnd) : ""},
                    {"measured", rest == store::PieceTexts{} ? "" : store::pieceToJson(rest).toStdString()}};
        addPlain(cells, s, plainOfSpecimen);
        specimens.row(cells);
        for (const auto& m : s.measured)
            if (const auto* input = rows ? rowOf(m.name) : nullptr)
                for (const double r : m.readings)
                    inputs.row({{"study", title(data)},
                                {"of", s.label},
                                {"input", std::string(input->key)},
                                {"value", exactText(r, Dimension::length)}});
        for (const auto& f : s.inputs)
            if (inputRows)
                inputs.row({{"study", title(data)}, {"of", s.label}, {"input", f.key}, {"value", f.text}});
    }

    /// "A1-1/2" of the second pull of a piece; no specimen has the same name.
    std::map<Id, std::string> namesOf(const domain::StudyData& data) {
        std::set<std::string> labels;
        for (const auto& s : data.specimens)
            labels.insert(s.label);
        std::map<Id, std::vector<Id>> byPiece;
        for (const auto& p : data.pulls)
            byPiece[p.specimen].push_back(p.id);
        std::map<Id, std::string> out;
        for (auto& [piece, pulls] : byPiece) {
            std::sort(pulls.begin(), pulls.end());
            for (std::size_t i = 0; i < pulls.size(); ++i) {
                auto name = fmt::format("{}/{}", data.specimenAt(piece).label, i + 1);
                while (labels.contains(name))
                    name += "'";
                out[pulls[i]] = std::move(name);
            }
        }
        return out;
    }

    void pull(const domain::StudyData& data, const domain::Pull& p) {
        const auto& name = pullNames[p.id];
        const bool lost = damaged.contains(p.id);
        // What the tester set aside stays so; what would count has nothing left to count by.
        const bool out = p.standing == domain::Standing::aside || p.standing == domain::Standing::voided;
        const auto reason = lost ? (p.reason.empty() ? "" : p.reason + " ") +
                                       std::string("Its curve is damaged and was left out.")
                                 : p.reason;
        auto rest = p.outcome;
        const auto& method = results::methodOf(data, data.specimenAt(p.specimen));
        entered(data, name, method, rest.entered);
        rest.part.clear();
        rest.mode.clear();
        rest.end = 0;
        rest.limit.reset();
        rest.afterwards.clear();
        if (p.standing == domain::Standing::counts) rest.standingSaid = false; // its column says so
        Cells cells{{"study", title(data)},
                    {"pull", name},
                    {"specimen", data.specimenAt(p.specimen).label},
                    {"at", p.performedAt},
                    {"standing", lost && !out ? fileWord(domain::Standing::notRead)
                                 : p.standing == domain::Standing::counts && !p.outcome.standingSaid
                                     ? "" // follows from the rest
                                     : fileWord(p.standing)},
                    {"reason", reason},
                    {"broke", p.outcome.part},
                    {"mode", p.outcome.mode},
                    {"end", p.outcome.end ? std::to_string(p.outcome.end) : ""},
                    {"limited_by", p.outcome.limit ? fileWord(*p.outcome.limit) : ""},
                    {"afterwards", p.outcome.afterwards},
                    {"curve", p.curve && !lost ? curveName(p.id) : ""},
                    {"recording", domain::key(p.recording)}};
        addPlain(cells, p, plainOfPull);
        if (p.settings != curve::ReadingSettings{} || p.curve)
            cells.emplace_back("reading", store::settingsToJson(p.settings).toStdString());
        if (rest != domain::Outcome{})
            cells.emplace_back("outcome", store::outcomeToJson(rest).toStdString());
        if (p.typed) {
            const bool off = p.outcome.path && p.typed->metric->dimension == Dimension::force;
            const auto dimension = off ? p.outcome.path->shows : p.typed->metric->dimension;
            cells.emplace_back("metric", p.typed->metric->key);
            cells.emplace_back("value", exactText(p.typed->value, dimension));
            if (p.typed->upper != 0) cells.emplace_back("upper", exactText(p.typed->upper, dimension));
            cells.emplace_back("as_typed", p.typed->asTyped);
        }
        for (const auto& s : m_setups)
            if (p.setup && &s == &m_setups[static_cast<std::size_t>(p.setup - 1)]) {
                cells.emplace_back("rig", s.rig.toStdString());
                cells.emplace_back("rig_version", std::to_string(s.version));
            }
        std::string beside;
        for (const auto& file : besideFiles[p.id])
            beside += (beside.empty() ? "" : "; ") + file;
        cells.emplace_back("beside", beside);
        pulls.row(cells);
    }

    /// What was entered of a pull as rows; what cannot be a row stays.
    void entered(const domain::StudyData& data, const std::string& name, const methods::Method& method,
                 domain::Entered& e) {
        const auto put = [&](const std::string& input, const std::string& value, const std::string& at = {},
                             const std::string& step = {}) {
            inputs.row({{"study", title(data)},
                        {"of", name},
                        {"input", input},
                        {"value", value},
                        {"at", at},
                        {"step", step}});
        };
        if (asRows(method, e.fields)) {
            for (const auto& f : e.fields)
                put(f.key, f.text);
            e.fields.clear();
        }
        const auto* steps = inputOfForm(method, methods::Form::steps);
        if (steps && std::all_of(e.steps.begin(), e.steps.end(), [](const auto& s) { return s.load > 0; })) {
            for (const auto& s : e.steps)
                put(std::string(steps->key), exactText(s.load, steps->dimension),
                    maybe(s.distance, Dimension::length), s.held ? "held" : "failed");
            e.steps.clear();
        }
        if (const auto* series = inputOfForm(method, methods::Form::series)) {
            for (const auto& g : e.gauge)
                put(std::string(series->key), exactText(g.value, series->dimension),
                    exactText(g.at, Dimension::time));
            e.gauge.clear();
        }
        if (e.unloadedFrom && method.input("unloaded_at")) {
            put("unloaded_at", exactText(*e.unloadedFrom, Dimension::time));
            e.unloadedFrom.reset();
        }
    }

    void forecasts(const domain::StudyData& data) {
        for (const auto& q : data.study.plan.squares)
            for (const auto& f : q.forecasts)
                forecastRows.row({{"study", title(data)},
                                  {"option", optionName(data, q.option)},
                                  {"condition", data.conditionAt(q.condition).name},
                                  {"by", f.by},
                                  {"value", exactText(f.value, data.study.goal.metric->dimension)},
                                  {"spread", percentText(f.cv)},
                                  {"part", f.goesFirst},
                                  {"source", f.source},
                                  {"travel", maybe(f.travel, Dimension::length)}});
    }

    void criteriaOf(const domain::StudyData& data) {
        const auto& card = data.study.card;
        for (const auto& c : card.criteria) {
            const bool results = c.judged == domain::Judged::byResults;
            const auto from = std::find_if(m_studies.begin(), m_studies.end(), [&](const auto& s) {
                return s.study.id == (c.study ? c.study : data.study.id);
            });
            const auto dimension = results ? c.metric->dimension : Dimension::ratio;
            static constexpr const char* words[] = {"", "eye", "cost", "weight"};
            Cells cells{{"card", card.title},
                        {"owner", title(data)},
                        {"criterion", c.name},
                        {"study", c.study && from != m_studies.end() ? title(*from) : ""},
                        {"metric", results ? std::string(c.metric->key) : words[static_cast<int>(c.judged)]},
                        {"condition", results && c.condition && from != m_studies.end()
                                          ? from->conditionAt(c.condition).name
                                          : ""},
                        {"sense", std::string(methods::key(c.sense))},
                        {"weight", fmt::format("{}", c.weight)}};
            if (c.anchors) {
                cells.emplace_back("none", exactText(c.anchors->first, dimension));
                cells.emplace_back("full", exactText(c.anchors->second, dimension));
            }
            criteria.row(cells);
            for (const auto& r : c.ratings)
                criteria.row({{"card", card.title},
                              {"owner", title(data)},
                              {"criterion", c.name},
                              {"metric", "eye"},
                              {"option", r.option},
                              {"rating", fmt::format("{}", r.rating)}});
        }
    }

public:
    static std::string curveName(Id pull) { return fmt::format("curves/{}.csv", pull); }

private:
    const std::vector<domain::StudyData>& m_studies;
    const std::vector<store::SetupRow>& m_setups;
};

using project::writeFile;

/// A name that is one in any folder: what could lead elsewhere, or be a device, is left out.
QString fileName(Id number, const QString& name) {
    QString safe;
    for (const auto c : name.section('/', -1).section('\\', -1))
        safe += c.isLetterOrNumber() || c == '.' || c == '-' || c == '_' || c == ' ' ? c : QChar('_');
    return QStringLiteral("files/%1-%2").arg(number).arg(safe.right(120));
}

/// Curves and files of a project, one after another into their folders.
class Contents {
public:
    Contents(const store::Project& project, const QString& folder) : m_project(project), m_folder(folder) {}

    Expected<void> curves(const std::vector<domain::StudyData>& studies, const IdMaps& maps, Writing& tables,
                          const std::function<bool(double)>& progress) {
        std::size_t done = 0;
        for (const auto& data : studies)
            for (const auto& p : data.pulls) {
                if (progress &&
                    !progress(static_cast<double>(done++) / static_cast<double>(maps.pull.size())))
                    return fail("The export was cancelled.");
                if (!p.curve) continue;
                const auto id = maps.pull.at(p.id);
                const auto piece = data.specimenAt(p.specimen).label;
                const auto main = curve(p.curve, Writing::curveName(id), "The curve of " + piece);
                if (!main) return tl::unexpected(main.error());
                if (!*main) tables.damaged.insert(id);
                const auto beside = m_project.curvesBeside(p.curve);
                if (!beside) return tl::unexpected(beside.error());
                for (const auto other : *beside) {
                    const auto n = tables.besideFiles[id].size() + 1;
                    const auto name = fmt::format("curves/{}-beside-{}.csv", id, n);
                    const auto ok = curve(other, name, "A curve beside that of " + piece);
                    if (!ok) return tl::unexpected(ok.error());
                    if (*ok && *main) tables.besideFiles[id].push_back(name);
                }
            }
        return {};
    }

    Expected<void> files(Writing& tables, std::map<Id, std::string>& names) {
        const auto all = m_project.importedFiles();
        if (!all) return tl::unexpected(all.error());
        for (const auto id : *all) {
            const auto file = m_project.importedFile(id);
            const auto bytes = file ? file->unpack() : tl::unexpected(file.error());
            if (!bytes) {
                leaveOut(file ? file->name.toStdString() : fmt::format("File {}", id), bytes.error());
                continue;
            }
            const auto name = fileName(id, file->name);
            if (auto ok = put(name, *bytes); !ok) return ok;
            names[id] = name.toStdString();
            tables.files.row({{"file", name.toStdString()}, {"name", file->name.toStdString()}});
        }
        return {};
    }

    Expected<void> put(const QString& name, const QByteArray& bytes) {
        const auto path = m_folder + '/' + name;
        QDir().mkpath(QFileInfo(path).path());
        written << name;
        return writeFile(path, bytes);
    }

    QStringList written, leftOut;

private:
    /// False where the samples are damaged.
    Expected<bool> curve(Id id, const std::string& name, const std::string& what) {
        const auto samples = m_project.ownSamples(id);
        if (!samples) {
            leaveOut(what, samples.error());
            return false;
        }
        const auto ok = put(QString::fromStdString(name), QByteArray::fromStdString(curveFile(*samples)));
        return ok ? Expected<bool>(true) : tl::unexpected(ok.error());
    }
    void leaveOut(const std::string& what, const Error& why) {
        leftOut << QString::fromStdString(what + " is damaged and was left out: " + why.message);
    }
    const store::Project& m_project;
    QString m_folder;
};

/// An export that fails leaves nothing behind.
struct Leftovers {
    QString folder;
    bool made; ///< the folder too
    const QStringList* written = nullptr;
    ~Leftovers() {
        if (!written) return;
        for (const auto& name : *written)
            QFile::remove(folder + '/' + name);
        for (const char* sub : {"curves", "files"})
            QDir(folder).rmdir(sub);
        if (made) QDir().rmdir(folder);
    }
};

} // namespace

Expected<Exported> exportProject(const store::Project& project, const QString& folder,
                                 const std::function<bool(double)>& progress) {
    const QDir dir(folder);
    if (dir.exists() && !dir.isEmpty(QDir::AllEntries | QDir::NoDotAndDotDot | QDir::Hidden))
        return fail(folder.toStdString() +
                    ": there is something in it already; a package needs a folder of its own");
    const bool made = !dir.exists();
    if (!QDir().mkpath(folder)) return fail(folder.toStdString() + ": the folder cannot be made");
    const auto studies = project.load();
    if (!studies) return tl::unexpected(studies.error());
    const auto setups = project.setups();
    if (!setups) return tl::unexpected(setups.error());
    Leftovers leftovers{folder, made};
    IdMaps maps;
    const auto mine = numbered(*studies, maps, *setups);
    Writing tables(mine, *setups);
    Contents contents(project, folder);
    leftovers.written = &contents.written;
    std::map<Id, std::string> fileNames;
    if (auto ok = contents.files(tables, fileNames); !ok) return tl::unexpected(ok.error());
    if (auto ok = contents.curves(*studies, maps, tables, progress); !ok) return tl::unexpected(ok.error());
    tables.all();
    for (const auto& data : mine)
        for (const auto& a : data.attachments)
            if (fileNames.contains(a.file)) // else it is damaged, and that was said
                tables.attachments.row({{"study", Writing::title(data)},
                                        {"pull", tables.pullNames[a.pull]},
                                        {"name", a.name},
                                        {"at", maybe(a.at, Dimension::time)},
                                        {"file", fileNames[a.file]},
                                        {"marks", a.marks == methods::PictureMarks{}
                                                      ? std::string()
                                                      : store::marksToJson(a.marks).toStdString()}});
    std::vector<store::TableText> described;
    for (const auto* table : {&tables.studies, &tables.options, &tables.conditions, &tables.specimens,
                              &tables.pulls, &tables.inputs, &tables.forecastRows, &tables.references,
                              &tables.criteria, &tables.setups, &tables.attachments, &tables.files}) {
        if (table->empty() && table != &tables.studies) continue;
        store::TableText text{QString::fromUtf8(table->kind().file.data()), {}};
        for (const auto i : table->used()) {
            const auto& c = table->kind().columns[i];
            text.fields.push_back(
                {QString::fromUtf8(c.name.data()), QString::fromUtf8(c.holds.data()),
                 QString::fromUtf8(c.refersTo.data(), static_cast<qsizetype>(c.refersTo.size()))});
        }
        if (auto ok = contents.put(text.file, QByteArray::fromStdString(table->text())); !ok)
            return tl::unexpected(ok.error());
        described.push_back(std::move(text));
    }
    QStringList curves;
    for (const auto& name : contents.written)
        if (name.startsWith("curves/")) curves << name;
    if (auto ok = contents.put(
            "datapackage.json",
            store::dataPackageJson(QFileInfo(project.path()).completeBaseName(), described, curves));
        !ok)
        return tl::unexpected(ok.error());
    leftovers.written = nullptr;
    return Exported{contents.written, contents.leftOut};
}

} // namespace anvil::exchange
