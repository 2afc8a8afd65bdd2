#include <anvil/domain/bounds.h>

#include <anvil/domain/model.h>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace anvil::domain {
namespace {

/// Collects the first thing that is wrong.
class Check {
public:
    explicit Check(std::string study) : m_study(std::move(study)) {}
    void that(bool good, const std::string& what) {
        if (!good && m_wrong.empty()) m_wrong = what;
    }
    void number(double v, double least, double most, const std::string& what) {
        that(v >= least && v <= most, fmt::format("{} is {}", what, v)); // false for NaN too
    }
    void value(double v, const std::string& what) { number(v, -bounds::value, bounds::value, what); }
    void value(const std::optional<double>& v, const std::string& what) {
        if (v) value(*v, what);
    }
    Expected<void> done() const {
        if (m_wrong.empty()) return {};
        return fail(fmt::format("In the study \"{}\", {}: that cannot be.", m_study, m_wrong));
    }

private:
    std::string m_study, m_wrong;
};

template <class T> std::set<Id> idsOf(const std::vector<T>& all) {
    std::set<Id> out;
    for (const auto& x : all)
        out.insert(x.id);
    return out;
}

void goal(Check& c, const Goal& g) {
    c.number(g.margin, 1e-9, bounds::margin, "the margin that matters");
    c.value(g.need, "the need");
    c.value(g.ceiling, "what is enough");
    if (g.window) {
        c.value(g.window->first, "an end of the window");
        c.value(g.window->second, "an end of the window");
    }
}

void plan(Check& c, const Plan& p) {
    c.number(p.replicates, 0, bounds::replicates, "the number of replicates");
    c.number(p.joints, 1, bounds::joints, "the number of joints");
    c.number(p.minutesEach, 0, bounds::minutes, "the time of one pull");
    c.number(p.workFrom, 0, 1440, "the hour when work begins");
    c.number(p.workTo, 0, 1440, "the hour when work ends");
    for (const auto& v : {p.speed, p.apart, p.gaugeEvery, p.ladder.distance})
        c.value(v, "a number of the plan");
    for (const double v : {p.ladder.first, p.ladder.more, p.ladder.further})
        c.value(v, "a step of the ladder");
    for (const auto& s : p.squares) {
        if (s.replicates)
            c.number(*s.replicates, 0, bounds::replicates, "the number of replicates of a square");
        c.value(s.speed, "the speed of a square");
        for (const auto& f : s.forecasts) {
            c.value(f.value, "a forecast");
            c.number(f.cv, 0, bounds::spread, "the spread of a forecast");
            c.value(f.travel, "the travel of a forecast");
        }
    }
    for (const auto& part : p.chain) {
        c.value(part.strength, "the strength of a part");
        c.number(part.cv, 0, bounds::spread, "the spread of a part");
    }
    for (const auto& s : p.recipe) {
        c.number(s.repeat, 1, bounds::repeats, "how often a step is repeated");
        for (const double m : {s.minutes, s.waitMinutes, s.latestMinutes, s.everyMinutes})
            c.number(m, 0, bounds::minutes, "a time of the recipe, in minutes,");
    }
}

void typed(Check& c, const TypedValue& v) {
    c.value(v.value, "a typed value");
    c.value(v.upper, "a typed value");
}

} // namespace

Expected<void> validate(const StudyData& data) {
    Check c(data.study.title);
    goal(c, data.study.goal);
    plan(c, data.study.plan);
    for (const auto& o : data.options) {
        c.number(o.position, 0, bounds::position, "the place of an option");
        for (const auto& v : {o.unitCost, o.weight, o.rating})
            c.value(v, "a number of the option \"" + o.name + "\"");
    }
    for (const auto& k : data.conditions) {
        c.number(k.position, 0, bounds::position, "the place of a condition");
        c.value(k.value, "the value of the condition \"" + k.name + "\"");
    }
    const auto options = idsOf(data.options), conditions = idsOf(data.conditions),
               pieces = idsOf(data.specimens), pulls = idsOf(data.pulls);
    for (const auto& s : data.specimens) {
        c.that(options.count(s.option), "the piece " + s.label + " is of an option that is not there");
        c.that(conditions.count(s.condition),
               "the piece " + s.label + " is of a condition that is not there");
        c.number(s.replicate, 0, bounds::replicate, "the number of the piece " + s.label + " in its square");
        c.value(s.x, "the place of the piece " + s.label);
        c.value(s.y, "the place of the piece " + s.label);
        for (const auto& m : s.measured) {
            c.value(m.nominal, "a measure of the piece " + s.label);
            c.value(m.tolerance, "a measure of the piece " + s.label);
            for (const double r : m.readings)
                c.value(r, "a measure of the piece " + s.label);
        }
    }
    for (const auto& p : data.pulls) {
        c.that(pieces.count(p.specimen), fmt::format("pull {} is of a piece that is not there", p.id));
        if (p.typed) typed(c, *p.typed);
    }
    for (const auto& a : data.attachments)
        c.that(pulls.count(a.pull), "the picture \"" + a.name + "\" is of a pull that is not there");
    return c.done();
}

} // namespace anvil::domain
