#include "judge.h"

#include <algorithm>
#include <anvil/plan/pieces.h>
#include <anvil/quantity/print.h>
#include <cctype>
#include <fmt/format.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

std::string joined(const std::vector<std::string>& names, std::size_t most) {
    std::string out;
    for (std::size_t i = 0; i < std::min(most, names.size()); ++i)
        out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    if (names.size() > most) out += fmt::format(" and {} more", names.size() - most);
    return out;
}

void Judge::replicates() {
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
            fmt::format("{} {} only {} replicate{}: {}. Three is the least for a comparison.", joined(few),
                        few.size() == 1 ? "has" : "have", least, least == 1 ? "" : "s",
                        least == 1 ? "one pull says nothing about spread"
                                   : "two show repeatability, no more"),
            "Plan three of each");
}

void Judge::control() {
    if (m_data.options.size() < 2) return;
    if (m_data.option(m_data.study.goal.control)) return;
    add("control", "No option is named as the control, so nothing says what the others are compared with.",
        fmt::format("Take {} as the control", m_data.options.front().name));
}

void Judge::batches() {
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

void Judge::grades() {
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

void Judge::blocks() {
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

namespace {

std::string lower(std::string text) {
    for (char& c : text)
        c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

} // namespace

void Judge::oneDifference() {
    const auto parts = [](const Condition& condition) {
        std::set<std::string> out;
        for (const auto& level : condition.levels)
            out.insert(lower(level));
        return out;
    };
    const auto& all = m_data.conditions;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto a = parts(all[i]);
        if (a.size() < 2) continue;
        // the nearest other condition must differ in one part
        std::size_t least = 100, nearest = i;
        for (std::size_t k = 0; k < all.size(); ++k) {
            const auto b = parts(all[k]);
            if (k == i || b.size() != a.size()) continue;
            std::vector<std::string> shared;
            std::set_intersection(a.begin(), a.end(), b.begin(), b.end(), std::back_inserter(shared));
            if (a.size() - shared.size() < least) least = a.size() - shared.size(), nearest = k;
        }
        if (nearest != i && least > 1) {
            add("one difference",
                fmt::format("\"{}\" and \"{}\" differ in {} things at once: which of them made the "
                            "difference cannot be told. Add a condition between them.",
                            all[i].name, all[nearest].name, least == 2 ? "two" : std::to_string(least)),
                "");
            return;
        }
    }
}

void Judge::alike() {
    std::vector<std::string> methods, connectors, speeds;
    forSquares([&](const Option& o, const Condition& c, int n) {
        const auto* square = m_plan.square(o.id, c.id);
        if (!square || n == 0) return;
        const auto name = o.name + " in " + c.name;
        if (!square->method.empty() && square->method != m_plan.method)
            methods.push_back(name + " (" + square->method + ")");
        if (!square->connector.empty() && square->connector != m_plan.connector)
            connectors.push_back(name + " (" + square->connector + ")");
        if (square->speed && square->speed != m_plan.speed)
            speeds.push_back(name + " (" + quantity::significant(60e3 * *square->speed, 3) + " mm/min)");
    });
    if (!methods.empty())
        add("method",
            fmt::format("{} will be tested by another method than the rest: its numbers do not compare.",
                        joined(methods)),
            "One method for all");
    if (!connectors.empty())
        add("connector",
            fmt::format("{} will hang on other connecting parts than the rest: the part in between may "
                        "decide.",
                        joined(connectors)),
            "The same parts for all");
    if (!speeds.empty())
        add("planned speed", fmt::format("{} will be pulled at another speed than the rest.", joined(speeds)),
            "One speed for all");
}

void Judge::distances() {
    if (!m_plan.apart) return;
    const auto pairs = closePairs(m_data, *m_plan.apart);
    if (pairs.empty()) return;
    const auto *a = m_data.specimen(pairs[0].a), *b = m_data.specimen(pairs[0].b);
    add("apart",
        fmt::format("{} and {}{} lie {} mm apart, {} mm were wanted: the first pull may weaken the "
                    "second{}.",
                    a->label, b->label, a->block.empty() ? "" : " in " + a->block,
                    quantity::significant(1e3 * pairs[0].distance, 3),
                    quantity::significant(1e3 * *m_plan.apart, 3),
                    pairs.size() > 1
                        ? fmt::format(" ({} more pair{})", pairs.size() - 1, pairs.size() == 2 ? "" : "s")
                        : ""),
        "");
}

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
        judge.tangled();
        judge.oneDifference();
    }
    judge.alike();
    judge.joints();
    judge.distances();
    judge.preparation();
    judge.grades();
    judge.blocks();
    if (data.study.plan.reused)
        judge.drift();
    else
        judge.reuse();
    return std::move(judge.findings);
}

} // namespace anvil::plan
