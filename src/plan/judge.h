// The rules of a fair test, one function each; fairness.cpp holds those about the plan, fairness_pulls.cpp
// those about what was pulled.
#pragma once

#include <anvil/plan/fairness.h>
#include <map>
#include <set>

namespace anvil::plan {

/// "A, B and C", or "A, B, C and 4 more".
std::string joined(const std::vector<std::string>& names, std::size_t most = 3);

class Judge {
public:
    Judge(const domain::StudyData& data, const results::Readings& readings)
        : m_data(data), m_plan(data.study.plan), m_readings(readings) {}

    std::vector<Finding> findings;

    void replicates();
    void control();
    void batches();
    void grades();
    void blocks();
    void reuse();
    void speeds();
    /// Conditions that each had a day, batch or operator of their own cannot be told from it.
    void tangled();
    /// Two conditions that differ in more than one thing, with nothing between them.
    void oneDifference();
    /// Squares that will be compared but are not pulled alike: another method, speed or connecting part.
    void alike();
    /// Articles that are not destroyed: what changes from one deployment to the next is wear, not the option.
    void drift();
    /// Both ends of one piece counted as if they were two pieces.
    void joints();
    /// Places in one sheet that lie too close.
    void distances();
    /// What the preparation did wrong: products past their date, steps done early or late, pieces pulled
    /// before it was over.
    void preparation();

private:
    /// Whether at least two conditions have entries and no two share one.
    static bool apart(const std::map<domain::Id, std::set<std::string>>& of) {
        if (of.size() < 2) return false;
        for (auto a = of.begin(); a != of.end(); ++a)
            for (auto b = std::next(a); b != of.end(); ++b)
                if (std::any_of(a->second.begin(), a->second.end(),
                                [&](const auto& x) { return b->second.contains(x); }))
                    return false;
        return true;
    }
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

    const domain::StudyData& m_data;
    const domain::Plan& m_plan;
    const results::Readings& m_readings;
};

} // namespace anvil::plan
