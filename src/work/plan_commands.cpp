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

} // namespace

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

namespace {

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
        x.name = name.toStdString();
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

Expected<void> OpenProject::addOptions(Id studyId, const QStringList& names) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto clean = freshNames(data->options, names, tr("option"));
    if (!clean) return tl::unexpected(clean.error());
    return done(run(newNames(tr("option"), *clean),
                    [&](store::Writer& w) { addAll(w, studyId, data->options, *clean); }));
}

Expected<void> OpenProject::addConditions(Id studyId, const QStringList& names) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto clean = freshNames(data->conditions, names, tr("condition"));
    if (!clean) return tl::unexpected(clean.error());
    return done(run(newNames(tr("condition"), *clean),
                    [&](store::Writer& w) { addAll(w, studyId, data->conditions, *clean); }));
}

Expected<void> OpenProject::moveOption(Id id, int place) {
    const auto* data = studyOfOption(id);
    if (!data) return fail("There is no such option any more.");
    return done(run(tr("Move option \"%1\"").arg(QString::fromStdString(data->optionAt(id).name)),
                    [&](store::Writer& w) { renumber(w, data->options, id, place); }));
}

Expected<void> OpenProject::moveCondition(Id id, int place) {
    const auto* data = studyOfCondition(id);
    if (!data) return fail("There is no such condition any more.");
    return done(run(tr("Move condition \"%1\"").arg(QString::fromStdString(data->conditionAt(id).name)),
                    [&](store::Writer& w) { renumber(w, data->conditions, id, place); }));
}

Expected<void> OpenProject::setAxis(Id studyId, const std::string& axis, const std::string& unitText) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    const quantity::Unit* unit = nullptr;
    if (!unitText.empty()) {
        const auto found = quantity::findUnit(unitText);
        if (!found) return tl::unexpected(found.error());
        unit = *found;
    }
    return done(run(tr("What the conditions vary"), [&](store::Writer& w) {
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

Expected<void> OpenProject::measureAll(Id studyId, const domain::Measured& what) {
    const auto* data = study(studyId);
    if (!data || data->specimens.empty()) return fail("There is no piece to measure yet.");
    if (what.name.empty()) return fail("Type what is measured, such as: depth.");
    return done(run(tr("Measure %1").arg(QString::fromStdString(what.name)), [&](store::Writer& w) {
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

Expected<void> OpenProject::changePlan(Id studyId, const QString& what,
                                       const std::function<void(domain::Plan&)>& change) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    return changeStudy(studyId, what, [&](domain::Study& s) { change(s.plan); });
}

Expected<void> OpenProject::changeGoal(Id studyId, const QString& what,
                                       const std::function<void(domain::Goal&)>& change) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    return changeStudy(studyId, what, [&](domain::Study& s) { change(s.goal); });
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
    const auto title =
        about ? QString::fromUtf8(about->title.data(), static_cast<qsizetype>(about->title.size()))
              : tr("not said yet");
    return changeStudy(id, tr("Method: %1").arg(title), [&](domain::Study& s) {
        s.plan = plan;
        s.goal = goal;
    });
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
            w.add(s);
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
                if (p != weakest) {
                    auto held = *p;
                    held.standing = domain::Standing::atLeast;
                    held.reason = tr("The other joint of the piece failed first.").toStdString();
                    w.change(*p, held);
                }
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
                if (s.batch.empty()) {
                    auto one = s;
                    one.batch = "one batch";
                    w.change(s, one);
                }
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
        made = s.id = w.add(s);
        std::map<Id, Id> options, conditions; // old → new, only those asked for
        for (auto o : from->options) {
            const Id was = o.id;
            if (std::none_of(squares.begin(), squares.end(), [&](const auto& q) { return q.first == was; }))
                continue;
            o.id = 0;
            o.study = made;
            o.position = static_cast<int>(options.size());
            options[was] = w.add(o);
        }
        for (auto c : from->conditions) {
            const Id was = c.id;
            if (std::none_of(squares.begin(), squares.end(), [&](const auto& q) { return q.second == was; }))
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

Expected<Id> OpenProject::addUnplanned(Id studyId, const QString& optionName, const QString& conditionName) {
    const auto* data = study(studyId);
    if (!data) return fail("There is no such study any more.");
    const auto option = optionName.simplified(), condition = conditionName.simplified();
    if (option.isEmpty() || condition.isEmpty())
        return fail("Say what it is and under which condition it is pulled.");
    Id made = 0;
    auto entry = run(tr("Unplanned: %1, %2").arg(option, condition), [&](store::Writer& w) {
        domain::StudyData grown = *data;
        const auto named = [&](auto& all, const QString& name) {
            for (const auto& x : all)
                if (QString::fromStdString(x.name).compare(name, Qt::CaseInsensitive) == 0) return x.id;
            typename std::remove_reference_t<decltype(all)>::value_type x;
            x.study = studyId;
            x.position = static_cast<int>(all.size());
            x.name = name.toStdString();
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

} // namespace anvil::work
