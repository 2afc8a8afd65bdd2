#include <anvil/study/planning.h>
#include <anvil/study/timetable.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace anvil::study {
namespace {

std::string joined(const std::vector<std::string>& names, std::size_t most = 3) {
    std::string out;
    for (std::size_t i = 0; i < std::min(most, names.size()); ++i)
        out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    if (names.size() > most) out += fmt::format(" and {} more", names.size() - most);
    return out;
}

std::string dayOf(const Pull& pull) { return pull.performedAt.substr(0, 10); }

class Judge {
public:
    Judge(const StudyData& data, const Readings& readings)
        : m_data(data), m_plan(data.study.plan), m_readings(readings) {}

    std::vector<Finding> findings;

    void replicates() {
        if (m_plan.replicates == 0 && m_plan.squares.empty())
            return; // nothing is planned: imported studies are judged by their pulls
        std::vector<std::string> few;
        int least = 1000;
        forSquares([&](const Option& o, const Condition& c, int n) {
            if (n > 0 && n < 3) {
                few.push_back(o.name + " in " + c.name);
                least = std::min(least, n);
            }
        });
        if (!few.empty())
            add("replicates",
                fmt::format("{} {} only {} replicate{}: {}. Three is the least for a comparison.",
                            joined(few), few.size() == 1 ? "has" : "have", least, least == 1 ? "" : "s",
                            least == 1 ? "one pull says nothing about spread"
                                       : "two show repeatability, no more"),
                "Plan three of each");
    }

    void control() {
        if (m_data.options.size() < 2) return;
        if (m_plan.control && m_data.option(m_plan.control)) return;
        add("control",
            "No option is named as the control, so nothing says what the others are compared with.",
            fmt::format("Take {} as the control", m_data.options.front().name));
    }

    void batches() {
        std::vector<std::string> unrecorded, mixed;
        for (const auto& o : m_data.options) {
            std::set<std::string> seen;
            bool missing = false, any = false;
            for (const auto& s : m_data.specimens)
                if (s.option == o.id) {
                    any = true;
                    if (s.batch.empty())
                        missing = true;
                    else
                        seen.insert(s.batch);
                }
            if (any && missing) unrecorded.push_back(o.name);
            if (seen.size() > 1) mixed.push_back(o.name);
        }
        if (!unrecorded.empty())
            add("batch",
                fmt::format(
                    "The batch of {} is not recorded: pieces of two lots can differ more than two options.",
                    joined(unrecorded)),
                "Put all in one batch");
        if (!mixed.empty())
            add("mixed batch",
                fmt::format("{} {} pieces of more than one batch.", joined(mixed),
                            mixed.size() == 1 ? "has" : "have"),
                "");
    }

    void grades() {
        std::map<std::string, std::set<std::string>> gradesOf; // by kind
        for (const auto& o : m_data.options)
            if (!o.kind.empty() && !o.grade.empty()) gradesOf[o.kind].insert(o.grade);
        for (const auto& [kind, grades] : gradesOf)
            if (grades.size() > 1)
                add("grade",
                    fmt::format("Options of one kind ({}) are of different grades: {}.", kind,
                                joined({grades.begin(), grades.end()})),
                    "");
    }

    void blocks() {
        const bool any = std::any_of(m_data.specimens.begin(), m_data.specimens.end(),
                                     [](const Specimen& s) { return !s.block.empty(); });
        if (!any) return;
        std::map<std::string, std::set<Id>> options; // by block
        for (const auto& s : m_data.specimens)
            if (!s.block.empty()) options[s.block].insert(s.option);
        std::vector<std::string> lone;
        for (const auto& [block, inside] : options)
            if (inside.size() < 2 && m_data.options.size() > 1) lone.push_back(block);
        if (!lone.empty())
            add("block",
                fmt::format("Only one option was made in {}: the piece it was made in cannot be told from "
                            "the option.",
                            joined(lone)),
                "");
    }

    void reuse() {
        std::map<Id, int> pulls;
        for (const auto& p : m_data.pulls)
            if (p.standing != Standing::voided) ++pulls[p.specimen];
        std::vector<std::string> labels;
        for (const auto& s : m_data.specimens)
            if (pulls[s.id] > 1 || s.history.find("re-used") != std::string::npos) labels.push_back(s.label);
        if (!labels.empty())
            add("re-use",
                fmt::format("{} {} pulled more than once: what it carried before may have weakened it.",
                            joined(labels), labels.size() == 1 ? "was" : "were"),
                "");
    }

    void speeds() {
        double slow = 0, fast = 0;
        std::string slowest, fastest;
        forSquares([&](const Option& o, const Condition& c, int) {
            std::vector<double> rates;
            for (const auto& p : m_data.pulls) {
                const auto* s = m_data.specimen(p.specimen);
                const auto r = m_readings.byPull.find(p.id);
                if (s && s->option == o.id && s->condition == c.id && r != m_readings.byPull.end() &&
                    r->second.displacementRate)
                    rates.push_back(*r->second.displacementRate);
            }
            if (rates.empty()) return;
            std::nth_element(rates.begin(), rates.begin() + static_cast<std::ptrdiff_t>(rates.size() / 2),
                             rates.end());
            const double rate = rates[rates.size() / 2];
            const auto name = o.name + " in " + c.name;
            if (slowest.empty() || rate < slow) slow = rate, slowest = name;
            if (fastest.empty() || rate > fast) fast = rate, fastest = name;
        });
        if (!slowest.empty() && slow > 0 && fast > 1.5 * slow)
            add("speed",
                fmt::format("{} was pulled {} times as fast as {}: the shape of the curve, and often its "
                            "peak, changes with speed.",
                            fastest, quantity::significant(fast / slow, 2), slowest),
                "");
    }

    /// Conditions pulled on days of their own cannot be told from those days.
    void days() {
        if (m_data.conditions.size() < 2) return;
        std::map<Id, std::set<std::string>> daysOf;
        for (const auto& p : m_data.pulls)
            if (const auto* s = m_data.specimen(p.specimen); s && dayOf(p).size() == 10)
                daysOf[s->condition].insert(dayOf(p));
        if (daysOf.size() < 2) return;
        for (auto a = daysOf.begin(); a != daysOf.end(); ++a)
            for (auto b = std::next(a); b != daysOf.end(); ++b)
                if (std::any_of(a->second.begin(), a->second.end(),
                                [&](const auto& d) { return b->second.contains(d); }))
                    return;
        add("day",
            "Every condition was pulled on days of its own, so what the condition did cannot be told from "
            "what the day did.",
            "");
    }

    /// What the preparation did wrong: products past their date, steps done early or late, pieces pulled
    /// before it was over.
    void preparation() {
        const auto start = instantOf(m_plan.recipeStarted);
        if (!start) return;
        for (const auto& sentence : expired(m_plan.recipe, m_plan.recipeStarted.substr(0, 10)))
            add("product", sentence, "");
        std::map<std::string, Instant> done;
        for (const auto& [key, at] : m_plan.stepsDone)
            if (const auto instant = instantOf(at)) done[key] = *instant;
        const auto steps = timetable(m_plan.recipe, *start, done, *start);
        if (!steps || steps->empty()) return;
        std::vector<std::string> early, late;
        for (const auto& s : *steps) {
            if (s.state == StepState::doneEarly) early.push_back(s.name);
            if (s.state == StepState::doneLate) late.push_back(s.name);
        }
        if (!early.empty())
            add("early",
                fmt::format("{} {} done before the wait was over.", joined(early),
                            early.size() == 1 ? "was" : "were"),
                "");
        if (!late.empty())
            add("late",
                fmt::format("{} {} done after the latest time.", joined(late),
                            late.size() == 1 ? "was" : "were"),
                "");
        const bool all = std::all_of(steps->begin(), steps->end(), [](const Step& s) { return s.done != 0; });
        std::vector<std::string> cut;
        for (const auto& p : m_data.pulls)
            if (const auto at = instantOf(p.performedAt);
                at && (!all || *at < finished(*steps, *start)) && *at >= *start)
                if (const auto* s = m_data.specimen(p.specimen)) cut.push_back(s->label);
        if (!cut.empty())
            add("cure",
                fmt::format("{} {} pulled before the preparation was over.", joined(cut),
                            cut.size() == 1 ? "was" : "were"),
                "");
    }

private:
    template <class F> void forSquares(F f) const {
        for (const auto& o : m_data.options)
            for (const auto& c : m_data.conditions)
                f(o, c, m_plan.replicatesOf(o.id, c.id));
    }
    void add(const std::string& rule, std::string sentence, std::string remedy) {
        const auto* accepted = m_plan.acceptance(rule);
        findings.push_back({rule, std::move(sentence), std::move(remedy), accepted != nullptr,
                            accepted ? accepted->why : std::string()});
    }

    const StudyData& m_data;
    const Plan& m_plan;
    const Readings& m_readings;
};

} // namespace

std::vector<Finding> fairness(const StudyData& data, const Readings& readings) {
    Judge judge(data, readings);
    const bool controlled = data.study.intent == Intent::controlled,
               exploratory = data.study.intent == Intent::exploratory;
    if (!exploratory) {
        judge.replicates();
        judge.control();
    }
    if (controlled) {
        judge.batches();
        judge.speeds();
        judge.days();
    }
    judge.preparation();
    judge.grades();
    judge.blocks();
    judge.reuse();
    return std::move(judge.findings);
}

} // namespace anvil::study
