#include <anvil/study/outcomes.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cctype>
#include <cmath>

namespace anvil::study {
namespace {

constexpr std::size_t most = 8;

std::string lowered(std::string s) {
    std::transform(s.begin(), s.end(), s.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return s;
}

bool holds(const std::string& text, std::initializer_list<const char*> words) {
    return std::any_of(words.begin(), words.end(),
                       [&](const char* w) { return text.find(w) != std::string::npos; });
}

/// "the fitting" and "Fitting" are one part.
std::string plain(const std::string& part) {
    auto low = lowered(part);
    if (low.starts_with("the ")) low.erase(0, 4);
    return low;
}

} // namespace

std::vector<std::string> breakableParts(const StudyData& data) {
    std::vector<std::string> out;
    const auto add = [&](const std::string& part) {
        if (part.empty() || out.size() == most) return;
        if (std::none_of(out.begin(), out.end(), [&](const auto& p) { return samePart(p, part); }))
            out.push_back(part);
    };
    const auto& plan = data.study.plan;
    add(data.study.goal.part);
    for (const auto& p : plan.chain)
        if (p.specimen) add(p.name);
    if (out.empty()) add("the piece");
    for (const auto& p : plan.chain)
        add(p.name);
    add(plan.connector);
    add("the grip");
    add("what it was fixed to");
    return out;
}

std::string partOf(const std::string& whatBroke) { return whatBroke.substr(0, whatBroke.find(',')); }

bool samePart(const std::string& a, const std::string& b) { return plain(a) == plain(b); }

std::vector<std::string> failureModes(const std::string& kind) {
    const auto k = lowered(kind);
    if (holds(k, {"adhesive", "glue", "bond", "tape"}))
        return {"let go from the base", "let go from the piece", "tore within the glue",
                "base tore or cracked", "slid off slowly"};
    if (holds(k, {"rope", "wire", "cable", "knot", "sling", "line"}))
        return {"pulled out", "slipped", "broke at the end", "broke in the free length", "strand by strand"};
    if (holds(k, {"rivet", "bolt", "screw", "nail", "pin", "peg", "anchor", "fasten"}))
        return {"pulled out",          "sheared off", "snapped in tension", "thread stripped",
                "head pulled through", "bent",        "base split"};
    if (holds(k, {"plastic", "sheet", "slat", "tube", "bar", "beam"}))
        return {"snapped", "cracked", "bent and stayed bent", "tore", "buckled", "broke at the grip"};
    return {"pulled out", "snapped", "sheared", "tore", "cracked", "bent", "slipped", "let go"};
}

const char* word(Limit limit) {
    static constexpr const char* words[] = {
        "broke",       "rig topped out", "stopped on purpose", "rig fell silent", "set up wrongly",
        "number lost", "out of travel",  "it slipped",         "it tipped",       "power gone"};
    return words[static_cast<int>(limit)];
}

std::vector<Limit> limitsWithoutBreak() {
    return {Limit::stopped, Limit::toppedOut, Limit::outOfTravel,
            Limit::slipped, Limit::tipped,    Limit::powerGone};
}

Proposal proposeStanding(const StudyData& data, const curve::Reading* reading, const std::string& broke,
                         Limit limit) {
    if (limit == Limit::wrongSetup) return {Standing::voided, "It was set up wrongly."};
    if (limit == Limit::lost) return {Standing::notRead, "The number was lost."};
    if (limit == Limit::toppedOut || (reading && reading->offScale))
        return {Standing::atLeast, "The rig topped out."};
    if (limit == Limit::linkLost) return {Standing::atLeast, "The rig fell silent before it broke."};
    if (limit == Limit::outOfTravel) return {Standing::atLeast, "The rig ran out of travel before it broke."};
    if (limit == Limit::powerGone) return {Standing::atLeast, "The power went before it broke."};
    // What slips or tips shows all it holds: the greatest load is its strength.
    if (limit == Limit::slipped || limit == Limit::tipped) return {};
    if (broke.empty()) return {Standing::atLeast, "Stopped before it broke."};
    const auto parts = breakableParts(data);
    if (!parts.empty() && !samePart(broke, parts.front()))
        return {Standing::atLeast, "Not " + parts.front() + " but " + broke + " failed."};
    return {};
}

Expected<std::vector<ModeShare>> sharesFrom(const std::string& text) {
    std::vector<ModeShare> out;
    double sum = 0;
    std::size_t at = 0;
    while (at < text.size()) {
        const auto comma = std::min(text.find_first_of(",;", at), text.size());
        const auto part = text.substr(at, comma - at);
        at = comma + 1;
        if (part.find_first_not_of(" \t") == std::string::npos) continue;
        const auto sign = part.find('%');
        const auto number =
            sign == std::string::npos ? tl::unexpected(Error{}) : quantity::parseNumber(part.substr(0, sign));
        const auto name =
            sign == std::string::npos ? std::string::npos : part.find_first_not_of(" \t", sign + 1);
        if (!number || !(*number > 0) || name == std::string::npos)
            return fail("\"" + part + "\" is no share: write it as 60 % let go, 40 % tore.");
        const auto end = part.find_last_not_of(" \t");
        out.push_back({part.substr(name, end - name + 1), *number / 100});
        sum += *number / 100;
    }
    if (!out.empty() && std::abs(sum - 1) > 0.01)
        return fail("The shares come to " + quantity::percent(sum) + " together, not 100 %.");
    return out;
}

std::string sharesText(const std::vector<ModeShare>& shares) {
    std::string out;
    for (const auto& s : shares)
        out += (out.empty() ? "" : ", ") + quantity::shortest(100 * s.share) + " % " + s.mode;
    return out;
}

std::vector<std::string> remarksOf(const Outcome& o) {
    std::vector<std::string> out;
    if (!o.where.empty()) out.push_back(o.where);
    if (!o.shares.empty()) out.push_back(sharesText(o.shares));
    if (!o.limitedBy.empty() && o.limitedBy != word(Limit::broke)) out.push_back(o.limitedBy);
    if (o.whileUnloading) out.emplace_back("broke while being unloaded or handled");
    if (!o.afterwards.empty()) out.push_back(o.afterwards + " afterwards");
    for (const auto& m : o.marks) // one that was only pressed says nothing by itself
        if (!m.text.empty() && !m.text.starts_with("mark "))
            out.push_back("at " + quantity::significant(m.at, 3) + " s: " + m.text);
    return out;
}

const Specimen* nextSpecimen(const StudyData& data, const std::set<Id>& skip) {
    const auto waits = [&](const Specimen& s) {
        return !skip.contains(s.id) && std::none_of(data.pulls.begin(), data.pulls.end(), [&](const Pull& p) {
            return p.specimen == s.id && p.practice == data.study.plan.practice &&
                   p.standing != Standing::notRead;
        });
    };
    for (const auto& label : data.study.plan.runOrder)
        for (const auto& s : data.specimens)
            if (s.label == label && waits(s)) return &s;
    for (const auto& s : data.specimens)
        if (waits(s)) return &s;
    return nullptr;
}

} // namespace anvil::study
