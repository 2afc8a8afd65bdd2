#include <anvil/project/study_commands.h>

#include "done.h"
#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/plan/replication.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <map>
#include <set>

namespace anvil::project {
namespace {

constexpr int mostReplicates = 200;

/// What belongs to squares, pieces and days stays behind when a study is started from another.
void leaveBehind(domain::Plan& plan) {
    plan.squares.clear();
    plan.runOrder.clear();
    plan.accepted.clear();
    plan.recipeStarted.clear();
    plan.stepsDone.clear();
    plan.reordered = false;
}

template <class T> std::vector<Id> idsOf(const std::vector<T>& all) {
    std::vector<Id> out;
    out.reserve(all.size());
    for (const auto& x : all)
        out.push_back(x.id);
    return out;
}

} // namespace

Expected<domain::StudyData> studyFrom(const NewStudy& study) {
    domain::StudyData out;
    const auto question = study.question.simplified();
    auto title = study.title.simplified();
    if (title.isEmpty()) title = question;
    if (title.isEmpty()) title = OpenProject::tr("New study");
    out.study.question = question.toStdString();
    out.study.title = title.toStdString();
    if (!study.method.empty() && !methods::find(study.method))
        return fail("There is no method \"" + study.method + "\".");
    out.study.plan.method = study.method;
    domain::decideBy(out.study.goal, domain::metricsOf(study.method).front());
    if (study.replicates < 0 || study.replicates > mostReplicates)
        return fail(OpenProject::tr("Of each 1 to %1 can be planned.").arg(mostReplicates).toStdString());
    out.study.plan.replicates = study.replicates;
    std::set<QString> seen;
    const auto addTo = [&](auto& all, const QStringList& names, const QString& what) -> Expected<void> {
        for (const auto& given : names) {
            const auto name = given.simplified();
            if (name.isEmpty()) continue;
            if (!seen.insert(name.toLower()).second)
                return fail(
                    OpenProject::tr("\"%1\" stands twice among the %2.").arg(name, what).toStdString());
            auto& x = all.emplace_back();
            x.position = static_cast<int>(all.size()) - 1;
            x.id = static_cast<Id>(all.size()); // so that squares can be told apart
            domain::giveName(x, name.toStdString());
        }
        seen.clear();
        return {};
    };
    if (auto ok = addTo(out.options, study.options, OpenProject::tr("options")); !ok)
        return tl::unexpected(ok.error());
    const bool named = std::any_of(study.conditions.begin(), study.conditions.end(),
                                   [](const QString& c) { return !c.simplified().isEmpty(); });
    if (auto ok = addTo(out.conditions, named ? study.conditions : QStringList{OpenProject::tr("As it is")},
                        OpenProject::tr("conditions"));
        !ok)
        return tl::unexpected(ok.error());
    return out;
}

Expected<Id> planStudy(OpenProject& project, const NewStudy& study) {
    auto made = studyFrom(study);
    if (!made) return tl::unexpected(made.error());
    Id id = 0;
    made->study.position = static_cast<int>(project.studies().size());
    auto entry =
        project.run(OpenProject::tr("New study \"%1\"").arg(QString::fromStdString(made->study.title)),
                    [&](store::Writer& w) {
                        id = w.add(made->study);
                        const auto addAll = [&](auto& all) {
                            for (auto& x : all) {
                                x.id = 0;
                                x.study = id;
                                w.add(x);
                            }
                        };
                        addAll(made->options);
                        addAll(made->conditions);
                    });
    if (!entry) return entry;
    return id;
}

Expected<Id> startFrom(OpenProject& project, Id studyId, const QString& title, const QString& condition) {
    const auto* from = project.study(studyId);
    if (!from) return fail("There is no such study any more.");
    if (title.simplified().isEmpty()) return fail("The new study needs a title.");
    Id made = 0;
    auto entry = project.run(OpenProject::tr("New study \"%1\" from \"%2\"")
                                 .arg(title.simplified(), QString::fromStdString(from->study.title)),
                             [&](store::Writer& w) {
                                 auto s = from->study;
                                 s.id = 0;
                                 s.position = static_cast<int>(project.studies().size());
                                 s.title = title.simplified().toStdString();
                                 const auto old = s.plan;
                                 s.plan = {};
                                 s.card = {}; // it weighs the results of that one
                                 s.telling.publications.clear();
                                 s.telling.corrections.clear();
                                 made = s.id = w.add(s);
                                 std::map<Id, Id> ids; // old → new
                                 for (auto o : from->options) {
                                     const Id was = o.id;
                                     o.id = 0;
                                     o.study = made;
                                     ids[was] = w.add(o);
                                 }
                                 if (condition.simplified().isEmpty()) {
                                     for (auto c : from->conditions) {
                                         c.id = 0;
                                         c.study = made;
                                         w.add(c);
                                     }
                                 } else {
                                     domain::Condition c;
                                     c.study = made;
                                     c.name = condition.simplified().toStdString();
                                     w.add(c);
                                 }
                                 auto plan = old;
                                 leaveBehind(plan);
                                 auto goal = from->study.goal;
                                 goal.control = ids.contains(goal.control) ? ids[goal.control] : 0;
                                 auto planned = s;
                                 planned.plan = plan;
                                 planned.goal = goal;
                                 w.change(s, planned);
                             });
    if (!entry) return entry;
    return made;
}

Expected<void> planMore(OpenProject& project, Id studyId, const std::vector<std::pair<Id, Id>>& squares,
                        int more) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    return changePlan(project, studyId, OpenProject::tr("%1 more of each").arg(more), [&](domain::Plan& p) {
        for (const auto& [option, condition] : squares) {
            const auto made = std::count_if(
                data->specimens.begin(), data->specimens.end(),
                [o = option, c = condition](const auto& s) { return s.option == o && s.condition == c; });
            auto& s = p.squareFor(option, condition);
            s.struck = false;
            s.replicates = std::min(mostReplicates, static_cast<int>(made) + more);
        }
    });
}

Expected<Id> followUpStudy(OpenProject& project, Id studyId, const QString& title,
                           const std::vector<std::pair<Id, Id>>& squares, int more) {
    const auto* from = project.study(studyId);
    if (!from) return fail("There is no such study any more.");
    if (title.simplified().isEmpty()) return fail("The new study needs a title.");
    if (squares.empty()) return fail("Nothing is left open, so there is nothing to follow up.");
    Id made = 0;
    auto entry =
        project.run(OpenProject::tr("Follow-up \"%1\"").arg(title.simplified()), [&](store::Writer& w) {
            auto s = from->study;
            auto plan = s.plan;
            s.id = 0;
            s.position = static_cast<int>(project.studies().size());
            s.title = title.simplified().toStdString();
            s.plan = {};
            s.card = {};
            s.telling.publications.clear();
            s.telling.corrections.clear();
            made = s.id = w.add(s);
            std::map<Id, Id> options, conditions; // old → new, only those asked for
            for (auto o : from->options) {
                const Id was = o.id;
                if (std::none_of(squares.begin(), squares.end(),
                                 [&](const auto& q) { return q.first == was; }))
                    continue;
                o.id = 0;
                o.study = made;
                o.position = static_cast<int>(options.size());
                options[was] = w.add(o);
            }
            for (auto c : from->conditions) {
                const Id was = c.id;
                if (std::none_of(squares.begin(), squares.end(),
                                 [&](const auto& q) { return q.second == was; }))
                    continue;
                c.id = 0;
                c.study = made;
                c.position = static_cast<int>(conditions.size());
                conditions[was] = w.add(c);
            }
            leaveBehind(plan);
            auto goal = s.goal;
            goal.control = options.contains(goal.control) ? options[goal.control] : 0;
            plan.replicates = std::clamp(more, 1, mostReplicates);
            for (const auto& [o, newOption] : options)
                for (const auto& [c, newCondition] : conditions)
                    if (std::find(squares.begin(), squares.end(), std::pair(o, c)) == squares.end())
                        plan.squareFor(newOption, newCondition).struck = true;
            auto planned = s;
            planned.plan = plan;
            planned.goal = goal;
            w.change(s, planned);
        });
    if (!entry) return entry;
    return made;
}

Expected<Id> addRigCheckPiece(OpenProject& project, const std::string& rig) {
    Id study = 0;
    for (const auto& s : project.studies())
        if (s.study.plan.rigCheck) study = s.study.id;
    if (!study) {
        domain::Study s;
        s.title = OpenProject::tr("Rig checks").toStdString();
        s.question = OpenProject::tr("How much does the rig itself give way?").toStdString();
        s.goal.metric = domain::metric("stiffness");
        s.position = static_cast<int>(project.studies().size());
        s.plan.rigCheck = true;
        s.plan.reused = true;
        auto made = addStudy(project, s);
        if (!made) return made;
        study = *made;
    }
    return addUnplanned(project, study, OpenProject::tr("Rigid bar"), QString::fromStdString(rig));
}

} // namespace anvil::project
