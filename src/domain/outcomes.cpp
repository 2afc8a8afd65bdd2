#include <anvil/domain/outcomes.h>

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace anvil::domain {
namespace {

constexpr std::size_t most = 8;

std::string lowered(std::string s) {
    std::transform(s.begin(), s.end(), s.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return s;
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

std::string brokeText(const Outcome& o) {
    return o.part + (o.part.empty() || o.mode.empty() ? "" : ", ") + o.mode;
}

std::string markName(const std::vector<Mark>& marks, std::size_t index) {
    return marks[index].text.empty() ? "mark " + std::to_string(index + 1) : marks[index].text;
}

bool samePart(const std::string& a, const std::string& b) { return plain(a) == plain(b); }

std::vector<std::string> failureModes(const std::string& kind) {
    std::vector<std::string> out;
    for (const auto& m : methods::failureModes(methods::pieceKind(kind)))
        out.emplace_back(m.words);
    return out;
}

std::vector<std::string> cautionsOf(const StudyData& data) {
    std::vector<const methods::Method*> used{methods::find(data.study.plan.method)};
    for (const auto& s : data.study.plan.squares)
        if (!s.struck && !s.method.empty()) used.push_back(methods::find(s.method));
    std::vector<methods::PieceKind> kinds;
    kinds.reserve(data.options.size());
    for (const auto& o : data.options)
        kinds.push_back(methods::pieceKind(o.kind));
    return methods::cautions(used, kinds);
}

std::vector<Limit> limitsWithoutBreak() {
    return {Limit::stopped, Limit::toppedOut, Limit::outOfTravel,
            Limit::slipped, Limit::tipped,    Limit::powerGone};
}

Proposal proposeStanding(const StudyData& data, const curve::Reading* reading, const std::string& broke,
                         Limit limit) {
    Proposal derived{Standing::atLeast, Because::toppedOut, {}, {}, {}, true};
    const bool offScale = reading && reading->offScale;
    switch (limit) {
    case Limit::wrongSetup:
        return {Standing::voided, Because::setUpWrongly};
    case Limit::lost:
        return {Standing::notRead, Because::numberLost};
    case Limit::toppedOut:
        return derived;
    case Limit::linkLost:
        return {Standing::atLeast, Because::silent};
    case Limit::outOfTravel:
        return {Standing::atLeast, Because::outOfTravel};
    case Limit::powerGone:
        return {Standing::atLeast, Because::powerGone};
    case Limit::slipped: // what slips or tips shows all it holds: the greatest load is its strength
    case Limit::tipped:
        return offScale ? derived : Proposal{};
    case Limit::broke:
    case Limit::stopped:
        break;
    }
    if (broke.empty()) // a bound whatever becomes of the limit, so that it is kept
        return {Standing::atLeast, offScale ? Because::toppedOut : Because::stopped};
    const auto parts = breakableParts(data);
    if (!parts.empty() && !samePart(broke, parts.front()))
        return {Standing::atLeast, Because::otherPart, {}, parts.front(), broke};
    return offScale ? derived : Proposal{};
}

namespace {

/// The part whose strength is asked for; empty: nobody said one.
std::string askedPart(const StudyData& data) {
    if (!data.study.goal.part.empty()) return data.study.goal.part;
    for (const auto& p : data.study.plan.chain)
        if (p.specimen) return p.name;
    return {};
}

} // namespace

Proposal standingFollows(const StudyData& data, const Outcome& outcome) {
    Proposal out;
    if (outcome.limit && *outcome.limit != Limit::broke && *outcome.limit != Limit::stopped)
        out = proposeStanding(data, nullptr, outcome.part, *outcome.limit);
    else if (outcome.limit == Limit::stopped && outcome.part.empty())
        out = {Standing::atLeast, Because::stopped};
    auto asked = askedPart(data);
    // Nobody said one: of the parts that are offered the first is meant; other words tell nothing.
    if (const auto offered = breakableParts(data);
        asked.empty() && std::any_of(offered.begin(), offered.end(),
                                     [&](const auto& part) { return samePart(part, outcome.part); }))
        asked = offered.front();
    if (out.standing == Standing::counts && !asked.empty() && !outcome.part.empty() &&
        !samePart(outcome.part, asked))
        out = {Standing::atLeast, Because::otherPart, {}, asked, outcome.part};
    out.derived = true;
    return out;
}

Expected<std::vector<ModeShare>> sharesOf(std::span<const std::pair<std::string, std::string>> typed) {
    std::vector<ModeShare> out;
    double sum = 0;
    for (const auto& [mode, text] : typed) {
        const auto number = quantity::parseNumber(text.substr(0, text.find('%')));
        if (mode.empty()) return fail(fmt::format("Say how the piece failed over \"{}\" of it.", text));
        if (!number || !(*number > 0))
            return fail(
                fmt::format("\"{}\" is no share of \"{}\": type a percentage, such as 60.", text, mode));
        out.push_back({mode, *number / 100});
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
    if (o.end > 0) out.push_back("end " + std::to_string(o.end));
    if (!o.where.empty()) out.push_back(o.where);
    if (!o.shares.empty()) out.push_back(sharesText(o.shares));
    if (o.limit && o.limit != Limit::broke && o.limit != Limit::toppedOut) // that is why it stands as it does
        out.emplace_back(word(*o.limit));
    if (o.whileUnloading) out.emplace_back("broke while being unloaded or handled");
    if (!o.afterwards.empty()) out.push_back(o.afterwards + " afterwards");
    for (const auto& m : o.marks) // one that was only pressed says nothing by itself
        if (!m.text.empty()) out.push_back("at " + quantity::significant(m.at, 3) + " s: " + m.text);
    return out;
}

} // namespace anvil::domain
