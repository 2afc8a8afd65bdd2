#include "read_package.h"

#include "curve_file.h"
#include "file_words.h"
#include <QDateTime>
#include <algorithm>
#include <anvil/domain/bounds.h>
#include <anvil/results/evidence.h>
#include <anvil/store/texts.h>
#include <anvil/words/stands.h>
#include <fmt/format.h>
#include <numeric>

namespace anvil::exchange {
namespace {

/// "A, B and 3 more": what there is, for somebody who meant one of them.
template <class V> std::string known(const std::map<std::string, V>& all) {
    std::string out;
    std::size_t n = 0;
    for (const auto& [name, value] : all) {
        if (++n > 8) return out + fmt::format(" and {} more", all.size() - 8);
        out += (out.empty() ? "" : ", ") + name;
    }
    return out.empty() ? "none" : out;
}

} // namespace

namespace {

/// How many letters have to be changed, added or taken away to make one word of the other (Levenshtein 1966).
std::size_t lettersApart(std::string_view a, std::string_view b) {
    std::vector<std::size_t> row(b.size() + 1);
    std::iota(row.begin(), row.end(), std::size_t{0});
    for (std::size_t i = 1; i <= a.size(); ++i) {
        std::size_t diagonal = row[0];
        row[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const auto above = row[j];
            row[j] = std::min({above + 1, row[j - 1] + 1, diagonal + (a[i - 1] == b[j - 1] ? 0 : 1)});
            diagonal = above;
        }
    }
    return row[b.size()];
}

/// A file whose name is nearly a table's would be left out in silence, and with it what it says; so would a
/// folder or a device in the place of one.
std::string strangeTable(const Folder& folder) {
    for (const auto& name : folder.names()) {
        auto low = QString::fromStdString(name).toLower().toStdString();
        if (low == "results.csv" && name == low) continue; // written, never read back
        for (const auto* table : allTables) {
            if (name == table->file && !folder.has(name))
                return fmt::format("{}: this is no file of a table but a folder or a device", name);
            if (name == table->file) break;
            const bool near = lettersApart(low, table->file) <= 2 && low.ends_with(".csv");
            const bool other = std::any_of(allTables.begin(), allTables.end(),
                                           [&](const TableKind* t) { return t->file == name; });
            if (near && !other)
                return fmt::format("{}: is {} meant? A package has no table of this name.", name,
                                   table->file);
        }
    }
    return {};
}

} // namespace

bool isPackage(const QString& path) { return Folder::open(path).has_value(); }

Expected<Package> readPackage(const QString& path) {
    auto folder = Folder::open(path);
    if (!folder) return tl::unexpected(folder.error());
    return PackageReader(std::move(*folder)).read();
}

Expected<Package> PackageReader::read() {
    if (auto why = strangeTable(m_folder); !why.empty()) return fail(std::move(why));
    studies();
    options();
    conditions();
    goals();
    specimens();
    setups();
    pulls();
    inputs();
    forecasts();
    references();
    criteria();
    attachments();
    standings();
    if (auto ok = m_trouble.done(); !ok) return tl::unexpected(ok.error());
    if (m_out.studies.empty()) return fail("studies.csv: there is no study in it");
    unknowns();
    for (auto& data : m_out.studies) {
        if (auto ok = domain::validate(data); !ok) return tl::unexpected(ok.error());
        data.count();
    }
    return std::move(m_out);
}

domain::StudyData* PackageReader::studyOf(const Row& row, std::string_view column) {
    const auto& title = row.text(column);
    if (title.empty() && m_out.studies.size() == 1) return &m_out.studies.front();
    const auto at = m_studies.find(title);
    if (at != m_studies.end()) return &m_out.studies[at->second];
    row.wrong(column, title.empty()
                          ? "there are several studies: say which"
                          : fmt::format("there is no study \"{}\"; there is {}", title, known(m_studies)));
    return nullptr;
}

void PackageReader::studies() {
    Table(m_folder, studiesTable, m_trouble).each([&](const Row& row) {
        domain::StudyData data;
        data.study.id = static_cast<Id>(m_out.studies.size() + 1);
        data.study.position = static_cast<int>(m_out.studies.size());
        data.study.title = row.text("study");
        if (data.study.title.empty()) return row.wrong("study", "a study needs a title");
        if (!m_studies.emplace(data.study.title, m_out.studies.size()).second)
            return row.wrong("study", fmt::format("\"{}\" is there twice", data.study.title));
        m_out.studies.push_back(std::move(data));
    });
}

/// Goals name options, so they come after these.
void PackageReader::goals() {
    Table(m_folder, studiesTable, m_trouble).each([&](const Row& row) {
        if (auto* data = studyOf(row)) goal(row, *data);
    });
}

Id PackageReader::option(const Row& row, domain::StudyData& data, std::string_view column) {
    auto& n = names(data);
    const auto& name = row.text(column);
    if (const auto at = n.options.find(name); at != n.options.end()) return at->second;
    if (n.optionsTold || name.empty()) {
        row.wrong(column, name.empty() ? "an option is needed"
                                       : fmt::format("there is no option \"{}\"; there is {}", name,
                                                     known(n.options)));
        return 0;
    }
    domain::Option o;
    o.id = ++m_options;
    o.study = data.study.id;
    o.position = static_cast<int>(data.options.size());
    domain::giveName(o, name);
    data.options.push_back(o);
    n.options.emplace(name, o.id);
    return o.id;
}

Id PackageReader::condition(const Row& row, domain::StudyData& data) {
    auto& n = names(data);
    const auto& said = row.text("condition");
    if (said.empty() && n.conditionsTold && data.conditions.size() == 1) return data.conditions.front().id;
    const auto name = said.empty() ? std::string("As tested") : said;
    if (const auto at = n.conditions.find(name); at != n.conditions.end()) return at->second;
    if (n.conditionsTold) {
        row.wrong("condition", said.empty() ? "a condition is needed"
                                            : fmt::format("there is no condition \"{}\"; there is {}", name,
                                                          known(n.conditions)));
        return 0;
    }
    domain::Condition c;
    c.id = ++m_conditions;
    c.study = data.study.id;
    c.position = static_cast<int>(data.conditions.size());
    domain::giveName(c, name);
    data.conditions.push_back(c);
    n.conditions.emplace(name, c.id);
    return c.id;
}

void PackageReader::options() {
    Table(m_folder, optionsTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        domain::Option o;
        o.id = ++m_options;
        o.study = data->study.id;
        o.position = static_cast<int>(data->options.size());
        o.name = row.text("option");
        if (o.name.empty()) return row.wrong("option", "an option needs a name");
        if (!names(*data).options.emplace(o.name, o.id).second)
            return row.wrong("option", fmt::format("\"{}\" is there twice", o.name));
        names(*data).optionsTold = true;
        readPlain(row, o, plainOfOption);
        data->options.push_back(std::move(o));
    });
}

void PackageReader::conditions() {
    std::map<std::string, std::string> axisUnits; // they are on the rows of the studies
    Table(m_folder, studiesTable, m_trouble).each([&](const Row& row) {
        axisUnits[row.text("study")] = row.text("axis_unit");
    });
    Table(m_folder, conditionsTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        domain::Condition c;
        c.id = ++m_conditions;
        c.study = data->study.id;
        c.position = static_cast<int>(data->conditions.size());
        domain::giveName(c, row.text("condition"));
        if (c.name.empty()) return row.wrong("condition", "a condition needs a name");
        if (!names(*data).conditions.emplace(c.name, c.id).second)
            return row.wrong("condition", fmt::format("\"{}\" is there twice", c.name));
        names(*data).conditionsTold = true;
        if (row.has("levels")) c.levels = partsOf(row.text("levels"));
        if (row.text("levels") == "-") c.levels.clear(); // its name only looks as if it set several things
        readPlain(row, c, plainOfCondition);
        if (row.has("value")) {
            const auto unit = quantity::findUnit(axisUnits[data->study.title]);
            auto entry = quantity::parseEntry(row.text("value"),
                                              unit ? std::optional((*unit)->dimension) : std::nullopt,
                                              unit ? *unit : nullptr);
            if (!entry && !unit) entry = quantity::parseEntry(row.text("value"), quantity::Dimension::ratio);
            if (!entry) return row.wrong("value", entry.error().message);
            c.value = entry->si;
        }
        data->conditions.push_back(std::move(c));
    });
}

void PackageReader::specimens() {
    Table(m_folder, specimensTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        domain::Specimen s;
        s.id = ++m_specimens;
        s.study = data->study.id;
        s.label = row.text("specimen");
        if (s.label.empty()) return row.wrong("specimen", "a specimen needs a label");
        if (!names(*data).specimens.emplace(s.label, s.id).second)
            return row.wrong("specimen", fmt::format("\"{}\" is there twice", s.label));
        s.option = option(row, *data);
        s.condition = condition(row, *data);
        auto& last = names(*data).lastReplicate[{s.option, s.condition}];
        s.replicate = row.whole("replicate").value_or(last + 1);
        last = std::max(last, s.replicate);
        readPlain(row, s, plainOfSpecimen);
        if (row.has("other_end") && s.option && s.condition) {
            const auto end = option(row, *data, "other_end");
            auto& square = data->study.plan.squareFor(s.option, s.condition);
            if (square.otherEnd && square.otherEnd != end)
                return row.wrong("other_end", "the pieces of one square have the same at their other end");
            square.otherEnd = end;
            data->study.plan.joints = std::max(2, data->study.plan.joints);
        }
        if (row.has("measured")) {
            auto texts = store::pieceFromJson(QString::fromStdString(row.text("measured")));
            if (!texts) return row.wrong("measured", texts.error().message);
            s.measured = std::move(texts->measured);
            s.inputs = std::move(texts->inputs);
        }
        data->specimens.push_back(std::move(s));
    });
}

void PackageReader::setups() {
    Table(m_folder, setupsTable, m_trouble).each([&](const Row& row) {
        store::SetupRow s;
        s.id = static_cast<Id>(m_out.setups.size() + 1);
        s.rig = QString::fromStdString(row.text("rig"));
        s.version = row.whole("version").value_or(1);
        s.madeAt = QString::fromStdString(row.text("at"));
        s.json = QString::fromStdString(row.text("setup"));
        if (s.rig.isEmpty()) return row.wrong("rig", "a rig needs a name");
        if (const auto read = rig::setupFromJson(row.text("setup")); !read)
            return row.wrong("setup", read.error().message);
        m_out.setups.push_back(std::move(s));
    });
}

Id PackageReader::keep(const Row& row, std::string_view column, const QString& name) {
    const auto& path = row.text(column);
    if (const auto at = m_kept.find(path); at != m_kept.end()) return at->second;
    auto bytes = m_folder.read(path);
    if (!bytes) {
        row.wrong(column, bytes.error().message);
        return 0;
    }
    m_out.files.push_back({name.isEmpty() ? QString::fromStdString(path).section('/', -1) : name,
                           QByteArray(bytes->data(), static_cast<qsizetype>(bytes->size()))});
    return m_kept[path] = static_cast<Id>(m_out.files.size());
}

void PackageReader::forecasts() {
    Table(m_folder, forecastsTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        domain::Forecast f;
        f.by = row.text("by");
        const auto value = row.quantity("value", data->study.goal.metric->dimension);
        if (!value) return row.wrong("value", "an expectation needs a value");
        f.value = *value;
        f.cv = row.percent("spread").value_or(f.cv);
        f.goesFirst = row.text("part");
        f.source = row.text("source");
        f.travel = row.quantity("travel", quantity::Dimension::length);
        const auto o = option(row, *data), c = condition(row, *data);
        if (o && c) data->study.plan.squareFor(o, c).forecasts.push_back(std::move(f));
    });
}

void PackageReader::references() {
    Table(m_folder, referencesTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        const auto dimension = data->study.goal.metric->dimension;
        const auto value = row.quantity("value", dimension);
        if (!value) return row.wrong("value", "a line needs a value");
        const auto upper = row.quantity("upper", dimension);
        if (upper && *upper < *value) return row.wrong("upper", "the band ends below where it begins");
        data->study.telling.references.push_back({row.text("name"), *value, upper});
    });
}

void PackageReader::attachments() {
    Table(m_folder, filesTable, m_trouble).each([&](const Row& row) {
        keep(row, "file", QString::fromStdString(row.text("name")));
    });
    Table(m_folder, attachmentsTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        const auto pull = names(*data).pulls.find(row.text("pull"));
        if (pull == names(*data).pulls.end())
            return row.wrong("pull", fmt::format("there is no pull \"{}\"", row.text("pull")));
        domain::Attachment a;
        a.id = ++m_attachments;
        a.pull = pull->second;
        a.name = row.text("name");
        a.at = row.quantity("at", quantity::Dimension::time);
        a.file = keep(row, "file", QString::fromStdString(a.name));
        if (row.has("marks")) {
            auto marks = store::marksFromJson(QString::fromStdString(row.text("marks")));
            if (!marks) return row.wrong("marks", marks.error().message);
            a.marks = std::move(*marks);
        }
        data->attachments.push_back(std::move(a));
    });
}

/// What lies in the package and is named by nothing.
void PackageReader::unknowns() {
    std::set<std::string> tops{"datapackage.json", "results.csv"};
    for (const auto* table : allTables)
        tops.emplace(table->file);
    const auto add = [&](const std::string& path) { tops.insert(path.substr(0, path.find('/'))); };
    for (const auto& path : m_curves)
        add(path);
    for (const auto& [path, id] : m_kept)
        add(path);
    for (const auto& name : m_folder.names())
        if (!tops.contains(name)) m_out.unknown.push_back(name);
    std::sort(m_out.unknown.begin(), m_out.unknown.end());
}

} // namespace anvil::exchange
