#include <anvil/domain/spoken.h>
#include <anvil/plan/replication.h>
#include <anvil/project/open_project.h>
#include <anvil/project/rig_commands.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/store/tape.h>

#include "done.h"
#include <QFileInfo>
#include <algorithm>
#include <utility>

namespace anvil::project {

QStringList companionsOf(const QString& path) {
    QStringList out;
    for (const char* end : {"-wal", "-shm", "-journal"})
        if (QFileInfo::exists(path + end)) out << path + end;
    for (const auto& sides : store::tapesOf(path))
        out << sides;
    return out;
}

OpenProject::OpenProject(std::unique_ptr<store::Project> file) : m_file(std::move(file)) {}

Expected<std::unique_ptr<OpenProject>> OpenProject::create(const QString& path) {
    auto file = store::Project::create(path);
    if (!file) return tl::unexpected(file.error());
    return std::unique_ptr<OpenProject>(new OpenProject(std::move(*file)));
}

Expected<std::unique_ptr<OpenProject>> OpenProject::open(const QString& path, store::Project::Access access) {
    auto file = store::Project::open(path, access);
    if (!file) return tl::unexpected(file.error());
    std::unique_ptr<OpenProject> project(new OpenProject(std::move(*file)));
    if (auto ok = project->reload(); !ok) return tl::unexpected(ok.error());
    return project;
}

const domain::StudyData* OpenProject::study(Id id) const {
    for (const auto& s : m_studies)
        if (s.study.id == id) return &s;
    return nullptr;
}

const domain::StudyData* OpenProject::studyOfPull(Id pull) const {
    for (const auto& s : m_studies)
        if (s.pull(pull)) return &s;
    return nullptr;
}

const domain::StudyData* OpenProject::studyOfSpecimen(Id specimen) const {
    for (const auto& s : m_studies)
        if (s.specimen(specimen)) return &s;
    return nullptr;
}

const domain::StudyData* OpenProject::studyOfOption(Id option) const {
    for (const auto& s : m_studies)
        if (s.option(option)) return &s;
    return nullptr;
}

const domain::StudyData* OpenProject::studyOfCondition(Id condition) const {
    for (const auto& s : m_studies)
        if (s.condition(condition)) return &s;
    return nullptr;
}

Expected<void> OpenProject::reload() {
    auto all = m_file->load();
    if (!all) return tl::unexpected(all.error());
    auto setups = readSetups();
    if (!setups) return tl::unexpected(setups.error());
    m_studies = std::move(*all);
    m_setups = std::move(*setups);
    for (auto& s : m_studies)
        for (const auto& [id, setup] : rigs())
            if (!s.study.plan.rig.empty() && setup.name == s.study.plan.rig) s.reach = reachOf(setup);
    m_readings.clear();
    m_verdicts.clear();
    m_sureness.clear();
    m_results.clear();
    emit changed();
    return {};
}

Expected<void> OpenProject::adopt(Id journalEntry, const QString& what, std::vector<CurveRead> read) {
    take(std::move(read));
    if (journalEntry) {
        m_done.push_back({journalEntry, what, m_group});
        m_undone.clear();
    }
    return reload();
}

Expected<std::shared_ptr<const curve::ReadCurve>> OpenProject::readCurve(Id pullId) {
    const auto* data = studyOfPull(pullId);
    const auto* pull = data ? data->pull(pullId) : nullptr;
    if (!pull || !pull->curve) return fail("This result was typed in: it has no curve.");
    const bool growing = pull->recording == domain::Recording::running;
    auto& drawn = m_drawn[pullId];
    if (!growing && drawn.curve && drawn.settings == pull->settings) return drawn.curve;
    const auto raw = m_file->curve(pull->curve);
    if (!raw) return tl::unexpected(raw.error());
    auto got = curve::readAndKeep(*raw, pull->settings);
    if (!got) return tl::unexpected(got.error());
    if (m_drawn.size() > 64) // some tens of curves are on screen at a time; samples are cheap to read again
        m_drawn.clear();
    auto shared = std::make_shared<const curve::ReadCurve>(std::move(*got));
    if (growing)
        m_drawn.erase(pullId);
    else
        m_drawn[pullId] = {pull->settings, shared};
    return std::shared_ptr<const curve::ReadCurve>(shared);
}

const results::Verdict& OpenProject::verdict(Id studyId, domain::Metric metric) {
    const auto key = std::pair(studyId, metric);
    const auto known = m_verdicts.find(key);
    if (known != m_verdicts.end()) return known->second;
    const auto* data = study(studyId);
    if (!data) return m_verdicts[key] = {};
    auto judged = results::evaluate(resultsOf(*data), domain::goalFor(data->study.goal, metric));
    if (std::any_of(judged.groups.begin(), judged.groups.end(),
                    [](const results::Group& g) { return g.summary.n == 1; }))
        judged.usual = usualSpread(*data);
    return m_verdicts[key] = std::move(judged);
}

results::UsualSpread OpenProject::usualSpread(const domain::StudyData& data) const {
    std::vector<results::Verdict> others;
    for (const auto& s : m_studies)
        if (s.study.id != data.study.id && s.study.plan.method == data.study.plan.method &&
            std::none_of(s.pulls.begin(), s.pulls.end(), [](const domain::Pull& p) { return p.curve != 0; }))
            others.push_back(results::evaluate(s, {}, s.study.goal));
    return results::pooledSpread(others);
}

const results::Sureness& OpenProject::sureness(Id studyId, domain::Metric metric) {
    const auto key = std::pair(studyId, metric);
    const auto known = m_sureness.find(key);
    if (known != m_sureness.end()) return known->second;
    const auto* data = study(studyId);
    if (!data) return m_sureness[key] = {};
    const auto& judged = verdict(studyId, metric);
    return m_sureness[key] = results::surenessOf(resultsOf(*data), judged);
}

const results::Results* OpenProject::table(Id studyId) {
    const auto* data = study(studyId);
    return data ? &resultsOf(*data) : nullptr;
}

const results::Results& OpenProject::resultsOf(const domain::StudyData& data) {
    const auto id = data.study.id;
    auto table = m_results.find(id);
    if (table == m_results.end()) table = m_results.emplace(id, results::Results(data, readings(id))).first;
    return table->second;
}

Expected<Id> OpenProject::run(const QString& what, const std::function<void(store::Writer&)>& change) {
    auto entry = m_file->write(what, change);
    if (!entry) return entry;
    if (*entry) {
        m_done.push_back({*entry, what, m_group});
        m_undone.clear();
        if (auto ok = reload(); !ok) return tl::unexpected(ok.error());
        if (auto ok = keepHeard(what); !ok) return tl::unexpected(ok.error());
    }
    return entry;
}

const quantity::Unit* OpenProject::unitSpoken(Id id, quantity::Dimension dimension) const {
    const auto fresh = m_heard.find({id, dimension});
    if (fresh != m_heard.end()) return fresh->second;
    const auto* data = study(id);
    return data ? domain::unitSpoken(*data, dimension) : nullptr;
}

void OpenProject::heard(Id id, const quantity::Unit& unit) { m_heard[{id, unit.dimension}] = &unit; }

Expected<void> OpenProject::keepHeard(const QString& what) {
    const auto heard = std::exchange(m_heard, {});
    std::vector<std::pair<const domain::Study*, domain::Study>> news;
    for (const auto& [key, unit] : heard) {
        const auto* data = study(key.first);
        if (!data) continue;
        if (news.empty() || news.back().first != &data->study) news.emplace_back(&data->study, data->study);
        domain::speak(news.back().second.plan, *unit);
    }
    auto entry = m_file->write(what, [&](store::Writer& w) {
        for (const auto& [before, after] : news)
            w.change(*before, after);
    });
    if (!entry) return tl::unexpected(entry.error());
    if (!*entry) return {};
    auto& value = m_done.back(); // one undo takes back both
    if (!value.group) value.group = ++m_groups;
    m_done.push_back({*entry, what, value.group});
    return reload();
}

Expected<void> OpenProject::step(std::vector<Done>& from, std::vector<Done>& to, bool backwards) {
    if (from.empty()) return {};
    const int group = from.back().group;
    auto first = from.end() - 1; // of those that go together, in one transaction: all of them or none
    while (group && first != from.begin() && (first - 1)->group == group)
        --first;
    std::vector<store::JournalEntry> entries;
    for (auto one = from.end(); one != first;) {
        auto entry = m_file->journalEntry((--one)->journal);
        if (!entry) return tl::unexpected(entry.error());
        entries.push_back(std::move(*entry));
    }
    const auto& last = from.back();
    const auto what = backwards ? tr("Undo: %1").arg(last.what) : tr("Redo: %1").arg(last.what);
    auto ok = done(m_file->write(
        what,
        [&](store::Writer& w) {
            for (const auto& entry : entries) {
                const auto n = entry.changes.size();
                for (qsizetype k = 0; k < n; ++k)
                    w.apply(entry.changes[backwards ? n - 1 - k : k].toObject(), backwards);
            }
        },
        last.journal));
    if (!ok) return ok;
    to.insert(to.end(), from.rbegin(), std::make_reverse_iterator(first));
    from.erase(first, from.end());
    return reload();
}

Expected<void> OpenProject::undo() { return step(m_done, m_undone, true); }
Expected<void> OpenProject::redo() { return step(m_undone, m_done, false); }

void OpenProject::together(const std::function<void()>& commands) {
    m_group = ++m_groups;
    commands();
    m_group = 0;
}

OpenProject::Spread OpenProject::expectedSpread(Id studyId) {
    const auto* data = study(studyId);
    if (!data) return {0.12, "a usual guess"};
    if (const auto own = plan::ownCv(verdict(studyId, data->study.goal.metric)))
        return {*own, "from the pulls of this study"};
    const auto kind = data->options.empty() ? std::string() : data->options.front().kind;
    if (!kind.empty())
        for (const auto& s : m_studies)
            if (s.study.id != studyId && !s.options.empty() && s.options.front().kind == kind)
                if (const auto own = plan::ownCv(verdict(s.study.id, s.study.goal.metric)))
                    return {*own, "from your study \"" + s.study.title + "\""};
    return {plan::defaultCv(kind), kind.empty() ? "a usual guess" : "usual for a " + kind};
}

template <class T>
Expected<void> OpenProject::edit(const T* before, const char* gone, const QString& what,
                                 const std::function<void(T&)>& change) {
    if (!before) return fail(gone);
    auto after = *before;
    change(after);
    if constexpr (std::is_same_v<T, domain::Option> || std::is_same_v<T, domain::Condition>)
        if (after.name.find_first_not_of(" \t") == std::string::npos)
            return fail(std::is_same_v<T, domain::Option> ? "An option needs a name."
                                                          : "A condition needs a name.");
    return done(run(what, [&](store::Writer& w) { w.change(*before, after); }));
}

Expected<void> OpenProject::changeStudy(Id id, const QString& what,
                                        const std::function<void(domain::Study&)>& change) {
    const auto* data = study(id);
    return edit(data ? &data->study : nullptr, "There is no such study any more.", what, change);
}

Expected<void> OpenProject::changeOption(Id id, const QString& what,
                                         const std::function<void(domain::Option&)>& change) {
    const auto* data = studyOfOption(id);
    return edit(data ? data->option(id) : nullptr, "There is no such option any more.", what, change);
}

Expected<void> OpenProject::changeCondition(Id id, const QString& what,
                                            const std::function<void(domain::Condition&)>& change) {
    const auto* data = studyOfCondition(id);
    return edit<domain::Condition>(data ? data->condition(id) : nullptr,
                                   "There is no such condition any more.", what, [&](domain::Condition& c) {
                                       const auto before = c;
                                       change(c);
                                       // Spelled out by its name so far, and nothing else was said: by its
                                       // new one from now on.
                                       if (c.name != before.name && c.levels == before.levels &&
                                           c.levels == domain::levelsIn(before.name))
                                           c.levels = domain::levelsIn(c.name);
                                   });
}

Expected<void> OpenProject::changeSpecimen(Id id, const QString& what,
                                           const std::function<void(domain::Specimen&)>& change) {
    const auto* data = studyOfSpecimen(id);
    return edit(data ? data->specimen(id) : nullptr, "There is no such piece any more.", what, change);
}

Expected<void> OpenProject::changePull(Id id, const QString& what,
                                       const std::function<void(domain::Pull&)>& change) {
    const auto* data = studyOfPull(id);
    return edit(data ? data->pull(id) : nullptr, "There is no such pull any more.", what, change);
}

Expected<std::vector<OpenProject::KeptSetup>> OpenProject::readSetups() const {
    const auto rows = m_file->setups();
    if (!rows) return tl::unexpected(rows.error());
    std::vector<KeptSetup> out;
    for (const auto& row : *rows) {
        auto setup = rig::setupFromJson(row.json.toStdString());
        if (!setup) return fail("Rig \"" + row.rig.toStdString() + "\": " + setup.error().message);
        out.push_back({row, std::move(*setup)});
    }
    return out;
}

std::vector<std::pair<Id, rig::Setup>> OpenProject::rigs() const {
    std::map<QString, const KeptSetup*> newest;
    for (const auto& kept : m_setups)
        newest[kept.row.rig] = &kept;
    std::vector<std::pair<Id, rig::Setup>> out;
    out.reserve(newest.size());
    for (const auto& [name, kept] : newest)
        out.emplace_back(kept->row.id, kept->setup);
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    return out;
}

Expected<rig::Setup> OpenProject::setupOf(Id id) const {
    for (const auto& kept : m_setups)
        if (kept.row.id == id) return kept.setup;
    return fail("The set-up this was pulled on is not in the project.");
}

std::vector<curve::Channel> OpenProject::beside(Id id) {
    const auto* data = studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull || !pull->curve || !m_file->hasMoreChannels(pull->curve).value_or(false)) return {};
    const auto raw = m_file->curve(pull->curve);
    const auto drawn = readCurve(id);
    if (!raw || !drawn) return {};
    std::vector<curve::Channel> out;
    for (const auto& o : raw->others)
        out.push_back({o.name, o.unit, curve::resampled(raw->time, o.values, (*drawn)->cleaned.time)});
    return out;
}

std::vector<curve::Steady> OpenProject::steadyAtMarks(Id id) {
    std::vector<curve::Steady> out;
    const auto* data = studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull || !pull->curve || pull->outcome.marks.empty() ||
        !m_file->hasMoreChannels(pull->curve).value_or(false))
        return out;
    if (m_steady.pull == id && m_steady.marks == pull->outcome.marks) return m_steady.values;
    const auto curve = m_file->curve(pull->curve);
    if (!curve) return out;
    for (const auto& m : pull->outcome.marks)
        if (auto steady = curve::steadyAt(*curve, m.at)) out.push_back(std::move(*steady));
    m_steady = {id, pull->outcome.marks, out};
    return out;
}

} // namespace anvil::project
