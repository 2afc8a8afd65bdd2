#include <anvil/project/board_commands.h>

#include "done.h"
#include <algorithm>
#include <anvil/quantity/entry.h>
#include <set>

namespace anvil::project {
namespace {

template <class T> std::string nameOf(const std::vector<T>& all, Id id) {
    for (const auto& x : all)
        if (x.id == id) return x.name;
    return {};
}

/// The names as they will stand, each once and none that is there. Error: a sentence about the noun.
template <class T>
Expected<QStringList> freshNames(const std::vector<T>& known, const QStringList& names, const QString& noun) {
    QStringList clean;
    for (const auto& name : names)
        if (!name.simplified().isEmpty()) clean << name.simplified();
    if (clean.isEmpty()) return fail(OpenProject::tr("Type the name of the %1.").arg(noun).toStdString());
    std::set<QString> seen;
    for (const auto& x : known)
        seen.insert(QString::fromStdString(x.name).toLower());
    for (const auto& name : clean)
        if (!seen.insert(name.toLower()).second)
            return fail(OpenProject::tr("There is %1 %2 \"%3\" already.")
                            .arg(noun.startsWith('o') ? "an" : "a", noun, name)
                            .toStdString());
    return clean;
}

template <class T>
void addAll(store::Writer& w, Id study, const std::vector<T>& known, const QStringList& names) {
    int position = static_cast<int>(known.size());
    for (const auto& name : names) {
        T x;
        x.study = study;
        x.position = position++;
        domain::giveName(x, name.toStdString());
        w.add(x);
    }
}

QString newNames(const QString& noun, const QStringList& names) {
    return names.size() == 1 ? OpenProject::tr("New %1 \"%2\"").arg(noun, names.first())
                             : OpenProject::tr("%1 new %2s").arg(names.size()).arg(noun);
}

/// Puts one of them at a place and counts all anew.
template <class T> void renumber(store::Writer& w, const std::vector<T>& all, Id id, int place) {
    auto order = all;
    const auto at = std::find_if(order.begin(), order.end(), [&](const T& x) { return x.id == id; });
    const T moved = *at;
    order.erase(at);
    order.insert(order.begin() +
                     std::clamp<std::ptrdiff_t>(place, 0, static_cast<std::ptrdiff_t>(order.size())),
                 moved);
    for (std::size_t i = 0; i < order.size(); ++i) {
        auto after = order[i];
        after.position = static_cast<int>(i);
        w.change(order[i], after);
    }
}

} // namespace

Expected<Id> addStudy(OpenProject& project, const domain::Study& value) {
    Id id = 0;
    auto entry = project.run(OpenProject::tr("New study \"%1\"").arg(QString::fromStdString(value.title)),
                             [&](store::Writer& w) { id = w.add(value); });
    if (!entry) return entry;
    return id;
}

Expected<Id> addOption(OpenProject& project, Id studyId, const QString& name) {
    const auto* data = project.study(studyId);
    const auto clean = name.simplified();
    if (!data || clean.isEmpty()) return fail("An option needs a name.");
    for (const auto& o : data->options)
        if (QString::fromStdString(o.name).compare(clean, Qt::CaseInsensitive) == 0)
            return fail(OpenProject::tr("There is an option \"%1\" already.").arg(clean).toStdString());
    domain::Option o;
    o.study = studyId;
    o.position = static_cast<int>(data->options.size());
    o.name = clean.toStdString();
    Id id = 0;
    auto entry = project.run(OpenProject::tr("New option \"%1\"").arg(clean),
                             [&](store::Writer& w) { id = w.add(o); });
    if (!entry) return entry;
    return id;
}

Expected<Id> addCondition(OpenProject& project, Id studyId, const QString& name) {
    const auto* data = project.study(studyId);
    const auto clean = name.simplified();
    if (!data || clean.isEmpty()) return fail("A condition needs a name.");
    for (const auto& c : data->conditions)
        if (QString::fromStdString(c.name).compare(clean, Qt::CaseInsensitive) == 0)
            return fail(OpenProject::tr("There is a condition \"%1\" already.").arg(clean).toStdString());
    domain::Condition c;
    c.study = studyId;
    c.position = static_cast<int>(data->conditions.size());
    domain::giveName(c, clean.toStdString());
    Id id = 0;
    auto entry = project.run(OpenProject::tr("New condition \"%1\"").arg(clean),
                             [&](store::Writer& w) { id = w.add(c); });
    if (!entry) return entry;
    return id;
}

Expected<void> addOptions(OpenProject& project, Id studyId, const QStringList& names) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto clean = freshNames(data->options, names, OpenProject::tr("option"));
    if (!clean) return tl::unexpected(clean.error());
    return done(project.run(newNames(OpenProject::tr("option"), *clean),
                            [&](store::Writer& w) { addAll(w, studyId, data->options, *clean); }));
}

Expected<void> addConditions(OpenProject& project, Id studyId, const QStringList& names) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto clean = freshNames(data->conditions, names, OpenProject::tr("condition"));
    if (!clean) return tl::unexpected(clean.error());
    return done(project.run(newNames(OpenProject::tr("condition"), *clean),
                            [&](store::Writer& w) { addAll(w, studyId, data->conditions, *clean); }));
}

Expected<void> moveOption(OpenProject& project, Id id, int place) {
    const auto* data = project.studyOfOption(id);
    if (!data) return fail("There is no such option any more.");
    return done(project.run(
        OpenProject::tr("Move option \"%1\"").arg(QString::fromStdString(data->optionAt(id).name)),
        [&](store::Writer& w) { renumber(w, data->options, id, place); }));
}

Expected<void> moveCondition(OpenProject& project, Id id, int place) {
    const auto* data = project.studyOfCondition(id);
    if (!data) return fail("There is no such condition any more.");
    return done(project.run(
        OpenProject::tr("Move condition \"%1\"").arg(QString::fromStdString(data->conditionAt(id).name)),
        [&](store::Writer& w) { renumber(w, data->conditions, id, place); }));
}

Expected<void> removeOption(OpenProject& project, Id id) {
    for (const auto& s : project.studies()) {
        if (!s.option(id)) continue;
        const auto name = nameOf(s.options, id);
        if (std::any_of(s.specimens.begin(), s.specimens.end(),
                        [&](const auto& p) { return p.option == id; }))
            return fail(
                "\"" + name +
                "\" has pulls; what was recorded cannot be taken away. Move them to another option first.");
        return done(project.run(OpenProject::tr("Take away option \"%1\"").arg(QString::fromStdString(name)),
                                [&](store::Writer& w) { w.remove(s.optionAt(id)); }));
    }
    return fail("There is no such option any more.");
}

Expected<void> removeCondition(OpenProject& project, Id id) {
    for (const auto& s : project.studies()) {
        if (!s.condition(id)) continue;
        const auto name = nameOf(s.conditions, id);
        if (std::any_of(s.specimens.begin(), s.specimens.end(),
                        [&](const auto& p) { return p.condition == id; }))
            return fail("\"" + name +
                        "\" has pulls; what was recorded cannot be taken away. Move them to another "
                        "condition first.");
        return done(
            project.run(OpenProject::tr("Take away condition \"%1\"").arg(QString::fromStdString(name)),
                        [&](store::Writer& w) { w.remove(s.conditionAt(id)); }));
    }
    return fail("There is no such condition any more.");
}

Expected<void> setAxis(OpenProject& project, Id studyId, const std::string& axis,
                       const std::string& unitText) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    const quantity::Unit* unit = nullptr;
    if (!unitText.empty()) {
        const auto found = quantity::findUnit(unitText);
        if (!found) return tl::unexpected(found.error());
        unit = *found;
    }
    return done(project.run(OpenProject::tr("What the conditions vary"), [&](store::Writer& w) {
        auto s = data->study;
        s.plan.axis = axis;
        s.plan.axisUnit = unitText;
        w.change(data->study, s);
        for (const auto& c : data->conditions) {
            const auto value =
                unit ? quantity::parseEntry(c.name, unit->dimension, unit) : tl::unexpected(Error{});
            auto named = c;
            named.value = value ? std::optional(value->si) : std::nullopt;
            w.change(c, named);
        }
    }));
}

Expected<void> moveSpecimen(OpenProject& project, Id specimenId, Id option, Id condition) {
    for (const auto& s : project.studies()) {
        const auto* specimen = s.specimen(specimenId);
        if (!specimen) continue;
        int replicate = 0;
        for (const auto& other : s.specimens)
            if (other.option == option && other.condition == condition && other.id != specimenId)
                replicate = std::max(replicate, other.replicate);
        return done(project.run(OpenProject::tr("Move %1 to %2, %3")
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

Expected<Id> addUnplanned(OpenProject& project, Id studyId, const QString& optionName,
                          const QString& conditionName) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto option = optionName.simplified(), condition = conditionName.simplified();
    if (option.isEmpty() || condition.isEmpty())
        return fail("Say what it is and under which condition it is pulled.");
    Id made = 0;
    auto entry =
        project.run(OpenProject::tr("Unplanned: %1, %2").arg(option, condition), [&](store::Writer& w) {
            domain::StudyData grown = *data;
            const auto named = [&](auto& all, const QString& name) {
                for (const auto& x : all)
                    if (QString::fromStdString(x.name).compare(name, Qt::CaseInsensitive) == 0) return x.id;
                typename std::remove_reference_t<decltype(all)>::value_type x;
                x.study = studyId;
                x.position = static_cast<int>(all.size());
                domain::giveName(x, name.toStdString());
                x.id = w.add(x);
                all.push_back(x);
                return x.id;
            };
            domain::Specimen s;
            s.study = studyId;
            s.option = named(grown.options, option);
            s.condition = named(grown.conditions, condition);
            s.replicate = 1;
            for (const auto& other : grown.specimens)
                if (other.option == s.option && other.condition == s.condition)
                    s.replicate = std::max(s.replicate, other.replicate + 1);
            s.label = domain::freshLabel(grown, s.option, s.condition, s.replicate);
            made = w.add(s);
        });
    if (!entry) return entry;
    return made;
}

} // namespace anvil::project
