#include <anvil/words/why.h>

#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <anvil/words/values.h>
#include <anvil/words/verdict.h>
#include <fmt/format.h>
#include <map>

namespace anvil::words {

using namespace domain;
using namespace results;
using quantity::significant;

namespace {

std::string pText(double p) { return p < 0.001 ? std::string("under 0.1 %") : quantity::percent(p); }

/// What the pair was tested by, as a tester may look it up.
std::string testText(stats::PairTest test) {
    switch (test) {
    case stats::PairTest::welch:
        return "Welch's t-test, each by its own spread";
    case stats::PairTest::paired:
        return "a paired t-test of what lay side by side in the same piece";
    case stats::PairTest::ranks:
        return "Mann and Whitney's test of ranks: a scale has an order and no distances";
    case stats::PairTest::counts:
        return "Fisher's exact test of the counts";
    case stats::PairTest::censored:
        return "20 000 draws of both averages, with what the bounds leave open";
    case stats::PairTest::pooled:
        return "Student's t-test of logarithms with the spread that all options share, for there are two of "
               "each";
    case stats::PairTest::digits:
        return "the last digit that was typed, for neither shows a spread";
    case stats::PairTest::none:
        break;
    }
    return {};
}

std::string speedText(const std::string& a, const std::string& b, double factor) {
    return factor >= 1
               ? fmt::format("{} was pulled {} times as fast as {}.", a, significant(factor, 2), b)
               : fmt::format("{} was pulled {} times as fast as {}.", b, significant(1 / factor, 2), a);
}

} // namespace

std::vector<std::string> support(const StudyData& data, const Verdict& verdict, const Why& why) {
    std::vector<std::string> out;
    const auto& c = why.comparison;
    const auto &a = verdict.groups[why.a], &b = verdict.groups[why.b];
    if (c.test != stats::PairTest::none) {
        std::string text = "Told by " + testText(c.test);
        if (c.pHolm)
            text += fmt::format(
                "; a difference like that without any cause has a chance of {}{}", pText(*c.pHolm),
                c.p && *c.p != *c.pHolm ? ", counted over all pairs of the family (Holm)" : "");
        out.push_back(text + ".");
    }
    if (c.tostP && *c.tostP < 0.05)
        out.push_back(fmt::format("They are the same within {}: both ends of that margin are ruled out.",
                                  quantity::percent(verdict.goal.margin)));
    if (c.verdict == stats::PairVerdict::tooClose && c.moreEach && *c.moreEach > 0)
        out.push_back(fmt::format("{} more of each would settle a difference of {} four times in five.",
                                  *c.moreEach, quantity::percent(verdict.goal.margin)));
    for (const auto* g : {&a, &b})
        if (g->summary.n == 1)
            out.push_back(
                fmt::format("{} was pulled once: one pull says nothing of the next.", groupName(data, *g)));
    return out;
}

std::string sentence(const StudyData& data, const Verdict& verdict, const Why& why, const Differed& d) {
    const auto a = groupName(data, verdict.groups[why.a]), b = groupName(data, verdict.groups[why.b]);
    switch (d.what) {
    case Differed::What::batch:
        return fmt::format("Other batches: {} is of {}, {} of {}.", a, d.a, b, d.b);
    case Differed::What::day:
        return fmt::format("Other days: {} was pulled on {}, {} on {}.", a, d.a, b, d.b);
    case Differed::What::operatorName:
        return fmt::format("Other people: {} was pulled by {}, {} by {}.", a, d.a, b, d.b);
    case Differed::What::rig:
        return fmt::format("{} and {} were not pulled on the same set-up of the rig.", a, b);
    case Differed::What::speed:
        return speedText(a, b, d.factor);
    }
    return {};
}

std::string asideSentence(const StudyData& data, const Verdict& verdict, const Why& why) {
    const auto n = why.asideA + why.asideB;
    if (n == 0) return {};
    const auto count = fmt::format("{} value{} set aside", n, n == 1 ? " is" : "s are");
    if (!why.withAside || !why.withAside->ratio) return count + ".";
    const auto &a = verdict.groups[why.a], &b = verdict.groups[why.b];
    return fmt::format("{}. With {}, {} would hold {}; without, {}.", count, n == 1 ? "it" : "them",
                       groupName(data, a), sizeText(*why.withAside, false, groupName(data, b)),
                       sizeText(why.comparison));
}

std::vector<std::string> limitsOfResults(const StudyData& data, const Verdict& verdict) {
    std::vector<std::string> out;
    std::map<std::string, std::size_t> elsewhere;
    std::size_t single = 0, groups = 0;
    for (const auto& g : verdict.groups) {
        groups += g.summary.n > 0;
        single += g.summary.n == 1;
        for (const auto& v : g.values)
            if (const auto* pull = data.pull(v.pull); pull && !pull->outcome.elsewhere.empty())
                ++elsewhere[pull->outcome.elsewhere];
    }
    if (single > 0)
        out.push_back(
            fmt::format("{} of {} squares hold a single pull: one pull says nothing of the next, nor of "
                        "repeated load.",
                        single, groups));
    for (const auto& [who, n] : elsewhere)
        out.push_back(fmt::format("{} result{} from {}, not from here: another rig, other hands.", n,
                                  n == 1 ? " is" : "s are", who));
    return out;
}

Table brokeTable(const StudyData& data, const Verdict& verdict, const Why& why) {
    Table t{"broke",
            {{"part", "What broke"},
             {"a", groupName(data, verdict.groups[why.a]), true},
             {"b", groupName(data, verdict.groups[why.b]), true}},
            {}};
    for (const auto& c : why.broke)
        t.rows.push_back(
            {{c.part.empty() ? "not said" : c.part, fmt::format("{}", c.a), fmt::format("{}", c.b)}, 0});
    return t;
}

Sign signOf(stats::PairVerdict verdict) {
    switch (verdict) {
    case stats::PairVerdict::stronger:
        return {">", "is ahead of"};
    case stats::PairVerdict::weaker:
        return {"<", "is behind"};
    case stats::PairVerdict::same:
        return {"=", "is the same within the margin as"};
    case stats::PairVerdict::tooClose:
        return {"~", "is too close to call against"};
    case stats::PairVerdict::notEnough:
        return {"·", "has too few pulls against"};
    case stats::PairVerdict::notYet:
        return {"?", "cannot be told yet against"};
    }
    return {"", ""};
}

} // namespace anvil::words
