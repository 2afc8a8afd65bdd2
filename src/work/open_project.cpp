#include <anvil/plan/replication.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/work/open_project.h>

#include <algorithm>

namespace anvil::work {
namespace {

template <class T> std::string nameOf(const std::vector<T>& all, Id id) {
    for (const auto& x : all)
        if (x.id == id) return x.name;
    return {};
}

Expected<void> done(const Expected<Id>& result) {
    if (!result) return tl::unexpected(result.error());
    return {};
}

const char* word(Handle handle) {
    static constexpr const char* words[] = {"peak", "first slip", "break", "start of the stiffness line",
                                            "end of the stiffness line"};
    static_assert(std::size(words) == static_cast<std::size_t>(Handle::fitTo) + 1);
    return words[static_cast<int>(handle)];
}

} // namespace

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

Expected<void> OpenProject::reload() {
    auto all = m_file->load();
    if (!all) return tl::unexpected(all.error());
    auto setups = readSetups();
    if (!setups) return tl::unexpected(setups.error());
    m_studies = std::move(*all);
    m_setups = std::move(*setups);
    m_readings.clear();
    m_verdicts.clear();
    m_results.clear();
    emit changed();
    return {};
}

Expected<void> OpenProject::adopt(Id journalEntry, const QString& what) {
    if (journalEntry) {
        m_done.push_back({journalEntry, what, m_group});
        m_undone.clear();
    }
    return reload();
}

const results::Readings& OpenProject::readings(Id studyId) {
    const auto known = m_readings.find(studyId);
    if (known != m_readings.end()) return known->second;
    results::Readings out;
    if (const auto* data = study(studyId))
        for (const auto& pull : data->pulls) {
            if (!pull.curve) continue;
            auto& cached = m_readingCache[pull.id];
            if (cached.curve != pull.curve || !(cached.settings == pull.settings)) {
                cached = {pull.curve, pull.settings, std::nullopt, {}};
                const auto curve = m_file->curve(pull.curve);
                auto reading = curve ? curve::read(*curve, pull.settings) : tl::unexpected(curve.error());
                if (reading)
                    cached.reading = std::move(*reading);
                else
                    cached.error = reading.error().message;
            }
            if (cached.reading)
                out.byPull[pull.id] = *cached.reading;
            else
                out.unreadable[pull.id] = cached.error;
        }
    return m_readings[studyId] = std::move(out);
}

Expected<std::shared_ptr<const curve::ReadCurve>> OpenProject::readCurve(Id pullId) {
    const auto* data = studyOfPull(pullId);
    const auto* pull = data ? data->pull(pullId) : nullptr;
    if (!pull || !pull->curve) return fail("This result was typed in: it has no curve.");
    auto& drawn = m_drawn[pullId];
    if (drawn.curve && drawn.settings == pull->settings) return drawn.curve;
    const auto raw = m_file->curve(pull->curve);
    if (!raw) return tl::unexpected(raw.error());
    auto got = curve::readAndKeep(*raw, pull->settings);
    if (!got) return tl::unexpected(got.error());
    if (m_drawn.size() > 64) // some tens of curves are on screen at a time; samples are cheap to read again
        m_drawn.clear();
    auto shared = std::make_shared<const curve::ReadCurve>(std::move(*got));
    m_drawn[pullId] = {pull->settings, shared};
    return std::shared_ptr<const curve::ReadCurve>(shared);
}

const results::Verdict& OpenProject::verdict(Id studyId, domain::Metric metric) {
    const auto key = std::pair(studyId, metric);
    const auto known = m_verdicts.find(key);
    if (known != m_verdicts.end()) return known->second;
    const auto* data = study(studyId);
    if (!data) return m_verdicts[key] = {};
    auto table = m_results.find(studyId);
    if (table == m_results.end())
        table = m_results.emplace(studyId, results::Results(*data, readings(studyId))).first;
    return m_verdicts[key] = results::evaluate(table->second, domain::goalFor(data->study.goal, metric));
}

Expected<Id> OpenProject::run(const QString& what, const std::function<void(store::Writer&)>& change) {
    auto entry = m_file->write(what, change);
    if (!entry) return entry;
    if (*entry) {
        m_done.push_back({*entry, what, m_group});
        m_undone.clear();
        if (auto ok = reload(); !ok) return tl::unexpected(ok.error());
    }
    return entry;
}

Expected<void> OpenProject::applyJournal(Id id, bool backwards, const QString& what) {
    const auto entry = m_file->journalEntry(id);
    if (!entry) return tl::unexpected(entry.error());
    return done(m_file->write(
        what,
        [&](store::Writer& w) {
            const auto n = entry->changes.size();
            for (qsizetype k = 0; k < n; ++k)
                w.apply(entry->changes[backwards ? n - 1 - k : k].toObject(), backwards);
        },
        id));
}

Expected<void> OpenProject::step(std::vector<Done>& from, std::vector<Done>& to, bool backwards) {
    if (from.empty()) return {};
    const int group = from.back().group;
    do {
        const auto last = from.back();
        const auto what = backwards ? tr("Undo: %1").arg(last.what) : tr("Redo: %1").arg(last.what);
        if (auto ok = applyJournal(last.journal, backwards, what); !ok) return ok;
        from.pop_back();
        to.push_back(last);
    } while (group && !from.empty() && from.back().group == group);
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

Expected<Id> OpenProject::addStudy(const domain::Study& value) {
    Id id = 0;
    auto entry = run(tr("New study \"%1\"").arg(QString::fromStdString(value.title)),
                     [&](store::Writer& w) { id = w.add(value); });
    if (!entry) return entry;
    return id;
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
    return edit(data ? data->condition(id) : nullptr, "There is no such condition any more.", what, change);
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

Expected<Id> OpenProject::addOption(Id studyId, const QString& name) {
    const auto* data = study(studyId);
    const auto clean = name.simplified();
    if (!data || clean.isEmpty()) return fail("An option needs a name.");
    for (const auto& o : data->options)
        if (QString::fromStdString(o.name).compare(clean, Qt::CaseInsensitive) == 0)
            return fail(tr("There is an option \"%1\" already.").arg(clean).toStdString());
    domain::Option o;
    o.study = studyId;
    o.position = static_cast<int>(data->options.size());
    o.name = clean.toStdString();
    Id id = 0;
    auto entry = run(tr("New option \"%1\"").arg(clean), [&](store::Writer& w) { id = w.add(o); });
    if (!entry) return entry;
    return id;
}

Expected<Id> OpenProject::addCondition(Id studyId, const QString& name) {
    const auto* data = study(studyId);
    const auto clean = name.simplified();
    if (!data || clean.isEmpty()) return fail("A condition needs a name.");
    for (const auto& c : data->conditions)
        if (QString::fromStdString(c.name).compare(clean, Qt::CaseInsensitive) == 0)
            return fail(tr("There is a condition \"%1\" already.").arg(clean).toStdString());
    domain::Condition c;
    c.study = studyId;
    c.position = static_cast<int>(data->conditions.size());
    c.name = clean.toStdString();
    Id id = 0;
    auto entry = run(tr("New condition \"%1\"").arg(clean), [&](store::Writer& w) { id = w.add(c); });
    if (!entry) return entry;
    return id;
}

Expected<void> OpenProject::removeOption(Id id) {
    for (const auto& s : m_studies) {
        if (!s.option(id)) continue;
        const auto name = nameOf(s.options, id);
        if (std::any_of(s.specimens.begin(), s.specimens.end(),
                        [&](const auto& p) { return p.option == id; }))
            return fail(
                "\"" + name +
                "\" has pulls; what was recorded cannot be taken away. Move them to another option first.");
        return done(run(tr("Take away option \"%1\"").arg(QString::fromStdString(name)),
                        [&](store::Writer& w) { w.remove(s.optionAt(id)); }));
    }
    return fail("There is no such option any more.");
}

Expected<void> OpenProject::removeCondition(Id id) {
    for (const auto& s : m_studies) {
        if (!s.condition(id)) continue;
        const auto name = nameOf(s.conditions, id);
        if (std::any_of(s.specimens.begin(), s.specimens.end(),
                        [&](const auto& p) { return p.condition == id; }))
            return fail("\"" + name +
                        "\" has pulls; what was recorded cannot be taken away. Move them to another "
                        "condition first.");
        return done(run(tr("Take away condition \"%1\"").arg(QString::fromStdString(name)),
                        [&](store::Writer& w) { w.remove(s.conditionAt(id)); }));
    }
    return fail("There is no such condition any more.");
}

Expected<void> OpenProject::setStanding(Id pullId, domain::Standing standing, const QString& reason) {
    const auto* data = studyOfPull(pullId);
    if (!data) return fail("There is no such pull any more.");
    if (standing != domain::Standing::counts && reason.trimmed().isEmpty())
        return fail(
            "Say why: a pull is only set apart for a reason that lies in the test, never for its number.");
    const auto* specimen = data->specimen(data->pull(pullId)->specimen);
    return changePull(
        pullId,
        tr("%1: %2").arg(QString::fromStdString(specimen->label), QString::fromUtf8(domain::word(standing))),
        [&](domain::Pull& p) {
            p.standing = standing;
            p.reason = standing == domain::Standing::counts ? std::string() : reason.trimmed().toStdString();
        });
}

Expected<void> OpenProject::setReadingSettings(Id pullId, const curve::ReadingSettings& settings,
                                               const QString& what) {
    return changePull(pullId, what, [&](domain::Pull& p) { p.settings = settings; });
}

Expected<void> OpenProject::setRigLimit(Id studyId, std::optional<double> limit) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    return done(run(tr("Rig limit of the study"), [&](store::Writer& w) {
        for (const auto& p : data->pulls) {
            if (!p.curve) continue;
            auto changed = p;
            changed.settings.rigLimit = limit;
            w.change(p, changed);
        }
    }));
}

Expected<void> OpenProject::setLandmark(Id pullId, Handle handle, std::optional<curve::Override> value) {
    const auto* data = studyOfPull(pullId);
    const auto* pull = data ? data->pull(pullId) : nullptr;
    if (!pull || !pull->curve) return fail("There is no curve to move a landmark on.");
    auto settings = pull->settings;
    switch (handle) {
    case Handle::peak:
        settings.peak = value;
        break;
    case Handle::firstSlip:
        settings.firstSlip = value;
        break;
    case Handle::breakPoint:
        settings.breakPoint = value;
        break;
    case Handle::fitFrom:
    case Handle::fitTo: {
        if (!value) { // the line is found anew as a whole
            settings.fitFrom.reset();
            settings.fitTo.reset();
            break;
        }
        const auto curve = readCurve(pullId);
        if (!curve || !(*curve)->reading.stiffness) return fail("There is no stiffness line to move.");
        const auto& reading = (*curve)->reading;
        const auto& t = (*curve)->cleaned.time;
        if (!settings.fitFrom) settings.fitFrom = curve::Override{t[reading.stiffness->fromIndex], false};
        if (!settings.fitTo) settings.fitTo = curve::Override{t[reading.stiffness->toIndex], false};
        (handle == Handle::fitFrom ? settings.fitFrom : settings.fitTo) = value;
        break;
    }
    }
    const auto label = QString::fromStdString(data->specimenAt(pull->specimen).label);
    return setReadingSettings(pullId, settings,
                              value ? tr("%1: move %2").arg(label, QString::fromUtf8(word(handle)))
                                    : tr("%1: find %2 again").arg(label, QString::fromUtf8(word(handle))));
}

Expected<void> OpenProject::moveSpecimen(Id specimenId, Id option, Id condition) {
    for (const auto& s : m_studies) {
        const auto* specimen = s.specimen(specimenId);
        if (!specimen) continue;
        int replicate = 0;
        for (const auto& other : s.specimens)
            if (other.option == option && other.condition == condition && other.id != specimenId)
                replicate = std::max(replicate, other.replicate);
        return done(run(tr("Move %1 to %2, %3")
                            .arg(QString::fromStdString(specimen->label),
                                 QString::fromStdString(nameOf(s.options, option)),
                                 QString::fromStdString(nameOf(s.conditions, condition))),
                        [&](store::Writer& w) {
                            auto moved = *specimen;
                            moved.option = option;
                            moved.condition = condition;
                            moved.replicate = replicate + 1;
                            w.change(*specimen, moved);
                        }));
    }
    return fail("There is no such specimen any more.");
}

} // namespace anvil::work
