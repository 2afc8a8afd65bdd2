#include <anvil/project/plan_commands.h>

#include "done.h"
#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/plan/replication.h>
#include <anvil/plan/run_order.h>
#include <anvil/plan/timetable.h>
#include <anvil/quantity/entry.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/words/stands.h>
#include <map>
#include <set>

namespace anvil::project {
namespace {

constexpr int mostReplicates = 200;

const domain::Option* optionCalled(const domain::StudyData& data, const std::string& name) {
    const auto plain = [](const std::string& s) { return QString::fromStdString(s).simplified().toLower(); };
    const auto at = std::find_if(data.options.begin(), data.options.end(),
                                 [&](const auto& o) { return plain(o.name) == plain(name); });
    return at == data.options.end() ? nullptr : &*at;
}

Expected<void> sensible(int replicates) {
    if (replicates < 0) return fail("A square cannot have fewer than no replicates.");
    if (replicates > mostReplicates)
        return fail("More than 200 replicates of one square are a slip of the finger: type 200 or fewer.");
    return {};
}

Expected<void> countWeakestJoints(OpenProject& project, const domain::StudyData& data) {
    const auto& known = project.readings(data.study.id);
    const auto valueOf = [&](const domain::Pull& p) {
        const auto v = results::valueOf(data, p, known.find(p.id), data.study.goal.metric).value;
        return v ? v->value : 0.0;
    };
    return done(project.run(OpenProject::tr("Count the joint that failed"), [&](store::Writer& w) {
        for (const auto& s : data.specimens) {
            std::vector<const domain::Pull*> counted;
            for (const auto& p : data.pulls)
                if (p.specimen == s.id &&
                    results::standingOf(data, p, known.find(p.id)) == domain::Standing::counts)
                    counted.push_back(&p);
            if (counted.size() < 2) continue;
            const auto* weakest =
                *std::min_element(counted.begin(), counted.end(),
                                  [&](const auto* a, const auto* b) { return valueOf(*a) < valueOf(*b); });
            for (const auto* p : counted)
                if (p != weakest) {
                    auto held = *p;
                    held.standing = domain::Standing::atLeast;
                    held.reason = words::whyStands({held.standing, domain::Because::otherJoint});
                    w.change(*p, held);
                }
        }
    }));
}

} // namespace

Expected<void> changePlan(OpenProject& project, Id studyId, const QString& what,
                          const std::function<void(domain::Plan&)>& change) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    return project.changeStudy(studyId, what, [&](domain::Study& s) { change(s.plan); });
}

Expected<void> changeGoal(OpenProject& project, Id studyId, const QString& what,
                          const std::function<void(domain::Goal&)>& change) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    return project.changeStudy(studyId, what, [&](domain::Study& s) { change(s.goal); });
}

Expected<void> setMethod(OpenProject& project, Id id, const std::string& method) {
    const auto* data = project.study(id);
    if (!data) return fail("There is no such study any more.");
    auto plan = data->study.plan;
    plan.method = method;
    auto goal = data->study.goal;
    auto offered = domain::metricsOf(method);
    for (const auto& phase : results::phaseMetricsOf(*data))
        offered.push_back(phase); // whatever the method, its pulls were read so
    // What somebody chose stays where the new method tells it too; the usual one gives way to the usual one.
    const bool usual = goal.metric == domain::metricsOf(data->study.plan.method).front();
    const auto same = usual ? offered.end() : std::find(offered.begin(), offered.end(), goal.metric);
    domain::decideBy(goal, same == offered.end() ? offered.front() : *same);
    const auto* about = methods::find(method);
    const auto title =
        about ? QString::fromUtf8(about->title.data(), static_cast<qsizetype>(about->title.size()))
              : OpenProject::tr("not said yet");
    return project.changeStudy(id, OpenProject::tr("Method: %1").arg(title), [&](domain::Study& s) {
        s.plan = plan;
        s.goal = goal;
    });
}

Expected<void> planReplicates(OpenProject& project, Id studyId, int replicates) {
    if (auto ok = sensible(replicates); !ok) return ok;
    return changePlan(project, studyId, OpenProject::tr("%1 replicates each").arg(replicates),
                      [&](domain::Plan& p) { p.replicates = replicates; });
}

Expected<void> planSquares(OpenProject& project, Id studyId, const std::vector<std::pair<Id, Id>>& squares,
                           std::optional<int> replicates) {
    if (replicates)
        if (auto ok = sensible(*replicates); !ok) return ok;
    return changePlan(project, studyId,
                      replicates ? OpenProject::tr("%1 replicates").arg(*replicates)
                                 : OpenProject::tr("Replicates as the others"),
                      [&](domain::Plan& p) {
                          for (const auto& [option, condition] : squares) {
                              auto& s = p.squareFor(option, condition);
                              s.replicates = replicates;
                              s.struck = false;
                          }
                      });
}

Expected<void> strikeSquares(OpenProject& project, Id studyId, const std::vector<std::pair<Id, Id>>& squares,
                             bool struck) {
    return changePlan(project, studyId,
                      struck ? OpenProject::tr("Strike out") : OpenProject::tr("Test it after all"),
                      [&](domain::Plan& p) {
                          for (const auto& [option, condition] : squares)
                              p.squareFor(option, condition).struck = struck;
                      });
}

Expected<int> makePieces(OpenProject& project, Id studyId, const QString& batch) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    if (plan::totals(*data).replicates == 0)
        return fail("Nothing is planned yet: type the replicates on the board in Question.");
    auto pieces = domain::missingPieces(*data);
    if (pieces.empty()) return fail("Every planned piece has been made.");
    const auto count = static_cast<int>(pieces.size());
    const auto entry = project.run(OpenProject::tr("Make %1 pieces").arg(count), [&](store::Writer& w) {
        for (auto& s : pieces) {
            s.batch = batch.simplified().toStdString();
            w.add(s);
        }
    });
    if (!entry) return tl::unexpected(entry.error());
    return count;
}

Expected<void> measureAll(OpenProject& project, Id studyId, const domain::Measured& what) {
    const auto* data = project.study(studyId);
    if (!data || data->specimens.empty()) return fail("There is no piece to measure yet.");
    if (what.name.empty()) return fail("Type what is measured, such as: depth.");
    return done(project.run(
        OpenProject::tr("Measure %1").arg(QString::fromStdString(what.name)), [&](store::Writer& w) {
            for (const auto& s : data->specimens) {
                auto after = s;
                const auto at = std::find_if(after.measured.begin(), after.measured.end(),
                                             [&](const auto& m) { return m.name == what.name; });
                if (at == after.measured.end()) {
                    after.measured.push_back(what);
                } else {
                    at->nominal = what.nominal;
                    at->tolerance = what.tolerance;
                }
                w.change(s, after);
            }
        }));
}

Expected<void> applyRemedy(OpenProject& project, Id studyId, const std::string& rule) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    if (rule == "replicates")
        return changePlan(project, studyId, OpenProject::tr("Three replicates at least"),
                          [&](domain::Plan& p) {
                              for (const auto& o : data->options)
                                  for (const auto& c : data->conditions)
                                      if (const int n = p.replicatesOf(o.id, c.id); n > 0 && n < 3)
                                          p.squareFor(o.id, c.id).replicates = 3;
                              if (p.replicates > 0 && p.replicates < 3) p.replicates = 3;
                          });
    if (rule == "control" && !data->options.empty())
        return changeGoal(
            project, studyId,
            OpenProject::tr("Control: %1").arg(QString::fromStdString(data->options.front().name)),
            [&](domain::Goal& g) { g.control = data->options.front().id; });
    if (rule == "batch")
        return done(project.run(OpenProject::tr("One batch for all"), [&](store::Writer& w) {
            for (const auto& s : data->specimens)
                if (s.batch.empty()) {
                    auto one = s;
                    one.batch = "one batch";
                    w.change(s, one);
                }
        }));
    if (rule == "method" || rule == "connector" || rule == "planned speed")
        return changePlan(project, studyId, OpenProject::tr("All squares alike"), [&](domain::Plan& p) {
            for (auto& square : p.squares) {
                if (rule == "method") square.method.clear();
                if (rule == "connector") square.connector.clear();
                if (rule == "planned speed") square.speed.reset();
            }
        });
    if (rule == "joints") return countWeakestJoints(project, *data);
    return fail("There is no remedy by one click; say why it is acceptable, or change the plan.");
}

Expected<void> acceptFinding(OpenProject& project, Id studyId, const std::string& rule, const QString& why) {
    const auto reason = why.trimmed().toStdString();
    return changePlan(project, studyId,
                      reason.empty() ? OpenProject::tr("No longer accepted")
                                     : OpenProject::tr("Accepted: %1").arg(why.trimmed()),
                      [&](domain::Plan& p) {
                          std::erase_if(p.accepted, [&](const auto& a) { return a.rule == rule; });
                          if (!reason.empty()) p.accepted.push_back({rule, reason});
                      });
}

Expected<void> drawRunList(OpenProject& project, Id studyId, std::uint64_t seed, bool groupConditions) {
    const auto* data = project.study(studyId);
    if (!data) return fail("There is no such study any more.");
    auto order = plan::drawRunOrder(*data, seed, groupConditions);
    if (order.empty())
        return fail("There is no piece waiting to be pulled: make the pieces first, in Specimens.");
    return changePlan(project, studyId, OpenProject::tr("Run list drawn from seed %1").arg(seed),
                      [&](domain::Plan& p) {
                          p.seed = seed;
                          p.runOrder = std::move(order);
                          p.reordered = false;
                      });
}

Expected<void> moveInRunList(OpenProject& project, Id studyId, int from, int to) {
    return changePlan(project, studyId, OpenProject::tr("Run list changed by hand"), [&](domain::Plan& p) {
        const auto n = static_cast<int>(p.runOrder.size());
        if (from < 0 || from >= n || to < 0 || to >= n || from == to) return;
        auto label = std::move(p.runOrder[static_cast<std::size_t>(from)]);
        p.runOrder.erase(p.runOrder.begin() + from);
        p.runOrder.insert(p.runOrder.begin() + to, std::move(label));
        p.reordered = true;
    });
}

Expected<void> setReevings(OpenProject& project, Id study,
                           const std::vector<std::tuple<Id, std::string, std::string>>& typed) {
    const auto* data = project.study(study);
    if (!data) return fail("There is no such study any more.");
    std::vector<domain::OptionReeving> all;
    for (const auto& [option, devices, redirect] : typed) {
        if (!data->option(option)) return fail("There is no such option any more.");
        domain::OptionReeving one{option, {QString::fromStdString(redirect).simplified().toStdString(), {}}};
        for (const auto& device : QString::fromStdString(devices).split(',', Qt::SkipEmptyParts))
            if (const auto name = device.simplified(); !name.isEmpty())
                one.reeving.devices.push_back(name.toStdString());
        if (!one.reeving.devices.empty() || !one.reeving.redirect.empty()) all.push_back(std::move(one));
    }
    return changePlan(project, study, OpenProject::tr("Over which devices the lines run"),
                      [&](domain::Plan& p) { p.reevings = all; });
}

Expected<void> setArrangements(OpenProject& project, Id study, const std::vector<TypedArrangement>& typed) {
    const auto* data = project.study(study);
    if (!data) return fail("There is no such study any more.");
    std::vector<domain::Arrangement> all;
    for (const auto& t : typed) {
        if (t.base.empty() && t.factor.empty()) continue;
        const auto* option = optionCalled(*data, t.option);
        const auto* base = optionCalled(*data, t.base);
        if (!option) return fail("There is no option \"" + t.option + "\".");
        if (!base)
            return fail("There is no option \"" + t.base + "\" that could be the plain one of " + t.option +
                        ".");
        if (option == base) return fail(t.option + " cannot be an arrangement of itself.");
        const auto factor = quantity::parseNumber(t.factor);
        if (!factor || !(*factor > 0))
            return fail("\"" + t.factor + "\" is no factor of " + t.option +
                        ": type a number such as 2 or 0.75.");
        all.push_back({option->id, base->id, *factor});
    }
    return changePlan(project, study, OpenProject::tr("Arrangements and their factors"),
                      [&](domain::Plan& p) { p.arrangements = all; });
}

Expected<void> setRecipe(OpenProject& project, Id studyId, const std::vector<domain::RecipeStep>& recipe) {
    if (const auto laidOut = plan::timetable(recipe, 0, {}, 0); !laidOut)
        return tl::unexpected(laidOut.error());
    return changePlan(project, studyId, OpenProject::tr("Recipe"),
                      [&](domain::Plan& p) { p.recipe = recipe; });
}

Expected<void> startRecipe(OpenProject& project, Id studyId, const QString& at) {
    const auto* data = project.study(studyId);
    if (!data || data->study.plan.recipe.empty())
        return fail("There is no recipe yet: type its steps first.");
    return changePlan(project, studyId,
                      at.isEmpty() ? OpenProject::tr("Batch not begun") : OpenProject::tr("Batch begun"),
                      [&](domain::Plan& p) {
                          p.recipeStarted = at.toStdString();
                          p.stepsDone.clear();
                      });
}

Expected<void> markStep(OpenProject& project, Id studyId, const std::string& key, const QString& at) {
    return changePlan(project, studyId,
                      at.isEmpty() ? OpenProject::tr("Step not done") : OpenProject::tr("Step done"),
                      [&](domain::Plan& p) {
                          std::erase_if(p.stepsDone, [&](const auto& d) { return d.first == key; });
                          if (!at.isEmpty()) p.stepsDone.emplace_back(key, at.toStdString());
                      });
}

} // namespace anvil::project
