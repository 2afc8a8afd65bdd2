#include <anvil/words/earlier.h>

#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {

namespace {

std::string differences(const results::ThenAndNow& t) {
    std::string out;
    const auto add = [&](bool differs, const char* what) {
        if (differs) out += (out.empty() ? "" : ", ") + std::string(what);
    };
    add(t.otherCondition, "another condition");
    add(t.otherBatch, "another batch");
    add(t.otherRig, "another rig");
    add(t.otherIntent, "another intent");
    return out.empty() ? "none that is known" : out;
}

} // namespace

Table earlierTable(const domain::StudyData& data, const results::Verdict& verdict,
                   const std::vector<results::ThenAndNow>& all, const quantity::Unit& unit) {
    Table t{"earlier",
            {{"option", "Option"},
             {"condition", "Condition"},
             {"now", "Now", true},
             {"then", "Then", true},
             {"n", "n then", true},
             {"ratio", "Now is"},
             {"when", "When and where"},
             {"differs", "What differs"}},
            {}};
    for (const auto& one : all) {
        const auto& g = verdict.groups[one.group];
        const auto& then = one.then;
        const std::string mean = then.mean ? quantity::withUnit(*then.mean, unit) : std::string("–");
        std::string where = then.at.empty() ? then.study : then.at + ", " + then.study;
        if (!then.project.empty()) where += " (" + then.project + ")";
        if (one.otherCondition) where += ", " + then.condition;
        t.rows.push_back(
            {{data.optionAt(g.option).name, data.conditionAt(g.condition).name, meanText(g.summary, unit),
              (then.atLeast ? "at least " : "") + mean, fmt::format("{}", then.n),
              one.comparison && one.comparison->ratio ? sizeText(*one.comparison) : "not compared", where,
              differences(one)},
             static_cast<long long>(one.group)});
    }
    return t;
}

} // namespace anvil::words
