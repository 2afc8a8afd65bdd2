// Commands of the plan: options and conditions, replicates, fairness, pieces, run list.
#include <anvil/methods/method.h>
#include <anvil/plan/replication.h>
#include <anvil/plan/run_order.h>
#include <anvil/plan/timetable.h>
#include <anvil/results/values.h>
#include <anvil/work/open_project.h>

#include <algorithm>
#include <map>
#include <set>

namespace anvil::work {
namespace {

constexpr int mostReplicates = 200;

Expected<void> done(const Expected<Id>& result) {
    if (!result) return tl::unexpected(result.error());
    return {};
}

Expected<void> sensible(int replicates) {
    if (replicates < 0) return fail("A square cannot have fewer than no replicates.");
    if (replicates > mostReplicates)
        return fail("More than 200 replicates of one square are a slip of the finger: type 200 or fewer.");
    return {};
}

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

/// The columns of a study that hold its plan and its goal.
QJsonObject goalFields(const domain::Plan& plan, const domain::Goal& goal) {
    return {{"plan", store::planToJson(plan, goal)},
            {"metric",
             QString::fromUtf8(goal.metric->key.data(), static_cast<qsizetype>(goal.metric->key.size()))},
            {"margin", goal.margin}};
}

} // namespace

Expected<void> OpenProject::addNames(const QString& table, Id studyId, const QStringList& names) {
    const auto* data = study(studyId);
    const bool option = table == "option";
    const auto noun = option ? tr("option") : tr("condition");
    QStringList clean;
    for (const auto& name : names)
        if (!name.simplified().isEmpty()) clean << name.simplified();
    if (!data || clean.isEmpty()) return fail(tr("Type the name of the %1.").arg(noun).toStdString());
    std::set<QString> seen;
    for (const auto& o : data->options)
        if (option) seen.insert(QString::fromStdString(o.name).toLower());
    for (const auto& c : data->conditions)
        if (!option) seen.insert(QString::fromStdString(c.name).toLower());
    for (const auto& name : clean)
        if (!seen.insert(name.toLower()).second)
            return fail(
                tr("There is %1 %2 \"%3\" already.").arg(option ? "an" : "a", noun, name).toStdString());
    const auto what = clean.size() == 1 ? tr("New %1 \"%2\"").arg(noun, clean.first())
                                        : tr("%1 new %2s").arg(clean.size()).arg(noun);
    return done(run(what, [&](store::Writer& w) {
        int position = static_cast<int>(option ? data->options.size() : data->conditions.size());
        for (const auto& name : clean) {
            if (option) {
                domain::Option o;
                o.study = studyId;
                o.position = position++;
                o.name = name.toStdString();
                w.insert(table, store::toRow(o));
            } else {
                domain::Condition c;
                c.study = studyId;
                c.position = position++;
                c.name = name.toStdString();
                w.insert(table, store::toRow(c));
            }
        }
    }));
}

Expected<void> OpenProject::addOptions(Id studyId, const QStringList& names) {
    return addNames("option", studyId, names);
}
Expected<void> OpenProject::addConditions(Id studyId, const QStringList& names) {
    return addNames("condition", studyId, names);
}

Expected<void> OpenProject::movePlace(const QString& table, std::vector<Id> order, Id id, int place,
                                      const QString& what) {
    const auto at = std::find(order.begin(), order.end(), id);
    if (at == order.end()) return fail("It is not on the board any more.");
    order.erase(at);
    order.insert(
        order.begin() + std::clamp<std::ptrdiff_t>(place, 0, static_cast<std::ptrdiff_t>(order.size())), id);
    return done(run(what, [&](store::Writer& w) {
        for (std::size_t i = 0; i < order.size(); ++i)
            w.update(table, order[i], {{"position", static_cast<int>(i)}});
    }));
}

Expected<void> OpenProject::moveOption(Id id, int place) {
    for (const auto& s : m_studies)
        if (s.option(id))
            return movePlace("option", idsOf(s.options), id, place,
                             tr("Move option \"%1\"").arg(QString::fromStdString(s.optionAt(id).name)));
    return fail("There is no such option any more.");
}

Expected<void> OpenProject::moveCondition(Id id, int place) {
    for (const auto& s : m_studies)
        if (s.condition(id))
            return movePlace("condition", idsOf(s.conditions), id, place,
                             tr("Move condition \"%1\"").arg(QString::fromStdString(s.conditionAt(id).name)));
    return fail("There is no such condition any more.");
}

Expected<void> OpenProject::changePlan(Id studyId, const QString& what,
                                       const std::function<void(domain::Plan&)>& change) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    auto plan = data->study.plan;
    change(plan);
    return changeStudy(studyId, {{"plan", store::planToJson(plan, data->study.goal)}}, what);
}

Expected<void> OpenProject::changeGoal(Id studyId, const QString& what,
                                       const std::function<void(domain::Goal&)>& change) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    auto goal = data->study.goal;
    change(goal);
    return changeStudy(studyId, goalFields(data->study.plan, goal), what);
}

Expected<void> OpenProject::setMethod(Id id, const std::string& method) {
    const auto* data = study(id);
    if (!data) return fail("There is no such study any more.");
    auto plan = data->study.plan;
    plan.method = method;
    auto goal = data->study.goal;
    const auto offered = domain::metricsOf(method);
    // What somebody chose stays where the new method tells it too; the usual one gives way to the usual one.
    const bool usual = goal.metric == domain::metricsOf(data->study.plan.method).front();
    const auto same = usual ? offered.end() : std::find(offered.begin(), offered.end(), goal.metric);
    domain::decideBy(goal, same == offered.end() ? offered.front() : *same);
    const auto* about = methods::find(method);
    const auto done = run(
        tr("Method: %1")
            .arg(about ? QString::fromUtf8(about->title.data(), static_cast<qsizetype>(about->title.size()))
                       : tr("not said yet")),
        [&](store::Writer& w) { w.update("study", id, goalFields(plan, goal)); });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

Expected<void> OpenProject::planReplicates(Id studyId, int replicates) {
    if (auto ok = sensible(replicates); !ok) return ok;
    return changePlan(studyId, tr("%1 replicates each").arg(replicates),
                      [&](domain::Plan& p) { p.replicates = replicates; });
}

Expected<void> OpenProject::planSquares(Id studyId, const std::vector<std::pair<Id, Id>>& squares,
                                        std::optional<int> replicates) {
    if (replicates)
        if (auto ok = sensible(*replicates); !ok) return ok;
    return changePlan(studyId,
                      replicates ? tr("%1 replicates").arg(*replicates) : tr("Replicates as the others"),
                      [&](domain::Plan& p) {
                          for (const auto& [option, condition] : squares) {
                              auto& s = p.squareFor(option, condition);
                              s.replicates = replicates;
                              s.struck = false;
                          }
                      });
}

Expected<void> OpenProject::strikeSquares(Id studyId, const std::vector<std::pair<Id, Id>>& squares,
                                          bool struck) {
    return changePlan(studyId, struck ? tr("Strike out") : tr("Test it after all"), [&](domain::Plan& p) {
        for (const auto& [option, condition] : squares)
            p.squareFor(option, condition).struck = struck;
    });
}

Expected<int> OpenProject::makePieces(Id studyId, const QString& batch) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    if (plan::totals(*data).replicates == 0)
        return fail("Nothing is planned yet: type the replicates on the board in Question.");
    auto pieces = domain::missingPieces(*data);
    if (pieces.empty()) return fail("Every planned piece has been made.");
    const auto count = static_cast<int>(pieces.size());
    const auto entry = run(tr("Make %1 pieces").arg(count), [&](store::Writer& w) {
        for (auto& s : pieces) {
            s.batch = batch.simplified().toStdString();
            w.insert("specimen", store::toRow(s));
        }
    });
    if (!entry) return tl::unexpected(entry.error());
    return count;
}

Expected<void> OpenProject::countWeakestJoints(const domain::StudyData& data) {
    const auto& known = readings(data.study.id);
    const auto valueOf = [&](const domain::Pull& p) {
        const auto v = results::valueOf(data, p, known.find(p.id), data.study.goal.metric).value;
        return v ? v->value : 0.0;
    };
    return done(run(tr("Count the joint that failed"), [&](store::Writer& w) {
        for (const auto& s : data.specimens) {
            std::vector<const domain::Pull*> counted;
            for (const auto& p : data.pulls)
                if (p.specimen == s.id &&
                    results::standingOf(p, known.find(p.id)) == domain::Standing::counts)
                    counted.push_back(&p);
            if (counted.size() < 2) continue;
            const auto* weakest =
                *std::min_element(counted.begin(), counted.end(),
                                  [&](const auto* a, const auto* b) { return valueOf(*a) < valueOf(*b); });
            for (const auto* p : counted)
                if (p != weakest)
                    w.update("pull", p->id,
                             {{"standing", domain::key(domain::Standing::atLeast)},
                              {"reason", tr("The other joint of the piece failed first.")}});
        }
    }));
}

Expected<void> OpenProject::applyRemedy(Id studyId, const std::string& rule) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    if (rule == "replicates")
        return changePlan(studyId, tr("Three replicates at least"), [&](domain::Plan& p) {
            for (const auto& o : data->options)
                for (const auto& c : data->conditions)
                    if (const int n = p.replicatesOf(o.id, c.id); n > 0 && n < 3)
                        p.squareFor(o.id, c.id).replicates = 3;
            if (p.replicates > 0 && p.replicates < 3) p.replicates = 3;
        });
    if (rule == "control" && !data->options.empty())
        return changeGoal(studyId, tr("Control: %1").arg(QString::fromStdString(data->options.front().name)),
                          [&](domain::Goal& g) { g.control = data->options.front().id; });
    if (rule == "batch")
        return done(run(tr("One batch for all"), [&](store::Writer& w) {
            for (const auto& s : data->specimens)
                if (s.batch.empty()) w.update("specimen", s.id, {{"batch", "one batch"}});
        }));
    if (rule == "method" || rule == "connector" || rule == "planned speed")
        return changePlan(studyId, tr("All squares alike"), [&](domain::Plan& p) {
            for (auto& square : p.squares) {
                if (rule == "method") square.method.clear();
                if (rule == "connector") square.connector.clear();
                if (rule == "planned speed") square.speed.reset();
            }
        });
    if (rule == "joints") return countWeakestJoints(*data);
    return fail("There is no remedy by one click; say why it is acceptable, or change the plan.");
}

Expected<void> OpenProject::acceptFinding(Id studyId, const std::string& rule, const QString& why) {
    const auto reason = why.trimmed().toStdString();
    return changePlan(studyId,
                      reason.empty() ? tr("No longer accepted") : tr("Accepted: %1").arg(why.trimmed()),
                      [&](domain::Plan& p) {
                          std::erase_if(p.accepted, [&](const auto& a) { return a.rule == rule; });
                          if (!reason.empty()) p.accepted.push_back({rule, reason});
                      });
}

Expected<void> OpenProject::drawRunList(Id studyId, std::uint64_t seed, bool groupConditions) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    auto order = plan::drawRunOrder(*data, seed, groupConditions);
    if (order.empty())
        return fail("There is no piece waiting to be pulled: make the pieces first, in Specimens.");
    return changePlan(studyId, tr("Run list drawn from seed %1").arg(seed), [&](domain::Plan& p) {
        p.seed = seed;
        p.runOrder = std::move(order);
        p.reordered = false;
    });
}

Expected<void> OpenProject::moveInRunList(Id studyId, int from, int to) {
    return changePlan(studyId, tr("Run list changed by hand"), [&](domain::Plan& p) {
        const auto n = static_cast<int>(p.runOrder.size());
        if (from < 0 || from >= n || to < 0 || to >= n || from == to) return;
        auto label = std::move(p.runOrder[static_cast<std::size_t>(from)]);
        p.runOrder.erase(p.runOrder.begin() + from);
        p.runOrder.insert(p.runOrder.begin() + to, std::move(label));
        p.reordered = true;
    });
}

Expected<void> OpenProject::setRecipe(Id studyId, const std::vector<domain::RecipeStep>& recipe) {
    if (const auto laidOut = plan::timetable(recipe, 0, {}, 0); !laidOut)
        return tl::unexpected(laidOut.error());
    return changePlan(studyId, tr("Recipe"), [&](domain::Plan& p) { p.recipe = recipe; });
}

Expected<void> OpenProject::startRecipe(Id studyId, const QString& at) {
    const auto* data = study(studyId);
    if (!data || data->study.plan.recipe.empty())
        return fail("There is no recipe yet: type its steps first.");
    return changePlan(studyId, at.isEmpty() ? tr("Batch not begun") : tr("Batch begun"),
                      [&](domain::Plan& p) {
                          p.recipeStarted = at.toStdString();
                          p.stepsDone.clear();
                      });
}

Expected<void> OpenProject::markStep(Id studyId, const std::string& key, const QString& at) {
    return changePlan(studyId, at.isEmpty() ? tr("Step not done") : tr("Step done"), [&](domain::Plan& p) {
        std::erase_if(p.stepsDone, [&](const auto& d) { return d.first == key; });
        if (!at.isEmpty()) p.stepsDone.emplace_back(key, at.toStdString());
    });
}

Expected<Id> OpenProject::startFrom(Id studyId, const QString& title, const QString& condition) {
    const auto* from = study(studyId);
    if (!from) return fail("There is no such study any more.");
    if (title.simplified().isEmpty()) return fail("The new study needs a title.");
    Id made = 0;
    auto entry = run(
        tr("New study \"%1\" from \"%2\"").arg(title.simplified(), QString::fromStdString(from->study.title)),
        [&](store::Writer& w) {
            auto s = from->study;
            s.id = 0;
            s.position = static_cast<int>(m_studies.size());
            s.title = title.simplified().toStdString();
            const auto old = s.plan;
            s.plan = {};
            made = w.insert("study", store::toRow(s));
            std::map<Id, Id> ids; // old → new
            for (auto o : from->options) {
                const Id was = o.id;
                o.id = 0;
                o.study = made;
                ids[was] = w.insert("option", store::toRow(o));
            }
            if (condition.simplified().isEmpty()) {
                for (auto c : from->conditions) {
                    c.id = 0;
                    c.study = made;
                    w.insert("condition", store::toRow(c));
                }
            } else {
                domain::Condition c;
                c.study = made;
                c.name = condition.simplified().toStdString();
                w.insert("condition", store::toRow(c));
            }
            auto plan = old;
            leaveBehind(plan);
            auto goal = from->study.goal;
            goal.control = ids.contains(goal.control) ? ids[goal.control] : 0;
            w.update("study", made, goalFields(plan, goal));
        });
    if (!entry) return entry;
    return made;
}

Expected<void> OpenProject::planMore(Id studyId, const std::vector<std::pair<Id, Id>>& squares, int more) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    return changePlan(studyId, tr("%1 more of each").arg(more), [&](domain::Plan& p) {
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

Expected<Id> OpenProject::followUpStudy(Id studyId, const QString& title,
                                        const std::vector<std::pair<Id, Id>>& squares, int more) {
    const auto* from = study(studyId);
    if (!from) return fail("There is no such study any more.");
    if (title.simplified().isEmpty()) return fail("The new study needs a title.");
    if (squares.empty()) return fail("Nothing is left open, so there is nothing to follow up.");
    Id made = 0;
    auto entry = run(tr("Follow-up \"%1\"").arg(title.simplified()), [&](store::Writer& w) {
        auto s = from->study;
        auto plan = s.plan;
        s.id = 0;
        s.position = static_cast<int>(m_studies.size());
        s.title = title.simplified().toStdString();
        s.plan = {};
        made = w.insert("study", store::toRow(s));
        std::map<Id, Id> options, conditions; // old → new, only those asked for
        for (auto o : from->options) {
            const Id was = o.id;
            if (std::none_of(squares.begin(), squares.end(), [&](const auto& q) { return q.first == was; }))
                continue;
            o.id = 0;
            o.study = made;
            o.position = static_cast<int>(options.size());
            options[was] = w.insert("option", store::toRow(o));
        }
        for (auto c : from->conditions) {
            const Id was = c.id;
            if (std::none_of(squares.begin(), squares.end(), [&](const auto& q) { return q.second == was; }))
                continue;
            c.id = 0;
            c.study = made;
            c.position = static_cast<int>(conditions.size());
            conditions[was] = w.insert("condition", store::toRow(c));
        }
        leaveBehind(plan);
        auto goal = s.goal;
        goal.control = options.contains(goal.control) ? options[goal.control] : 0;
        plan.replicates = std::clamp(more, 1, mostReplicates);
        for (const auto& [o, newOption] : options)
            for (const auto& [c, newCondition] : conditions)
                if (std::find(squares.begin(), squares.end(), std::pair(o, c)) == squares.end())
                    plan.squareFor(newOption, newCondition).struck = true;
        w.update("study", made, goalFields(plan, goal));
    });
    if (!entry) return entry;
    return made;
}

Expected<Id> OpenProject::addUnplanned(Id studyId, const QString& optionName, const QString& conditionName) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto option = optionName.simplified(), condition = conditionName.simplified();
    if (option.isEmpty() || condition.isEmpty())
        return fail("Say what it is and under which condition it is pulled.");
    Id made = 0;
    auto entry = run(tr("Unplanned: %1, %2").arg(option, condition), [&](store::Writer& w) {
        domain::StudyData grown = *data;
        const auto named = [&](auto& all, const QString& name, const QString& table) {
            for (const auto& x : all)
                if (QString::fromStdString(x.name).compare(name, Qt::CaseInsensitive) == 0) return x.id;
            typename std::remove_reference_t<decltype(all)>::value_type x;
            x.study = studyId;
            x.position = static_cast<int>(all.size());
            x.name = name.toStdString();
            x.id = w.insert(table, store::toRow(x));
            all.push_back(x);
            return x.id;
        };
        domain::Specimen s;
        s.study = studyId;
        s.option = named(grown.options, option, "option");
        s.condition = named(grown.conditions, condition, "condition");
        s.replicate = 1;
        for (const auto& other : grown.specimens)
            if (other.option == s.option && other.condition == s.condition)
                s.replicate = std::max(s.replicate, other.replicate + 1);
        s.label = domain::freshLabel(grown, s.option, s.condition, s.replicate);
        made = w.insert("specimen", store::toRow(s));
    });
    if (!entry) return entry;
    return made;
}

Expected<void> OpenProject::changeSpecimen(Id specimen, const QJsonObject& fields, const QString& what) {
    return done(run(what, [&](store::Writer& w) { w.update("specimen", specimen, fields); }));
}

} // namespace anvil::work
