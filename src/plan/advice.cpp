#include <anvil/plan/advice.h>

#include <algorithm>
#include <anvil/domain/outcomes.h>
#include <anvil/plan/fairness.h>
#include <anvil/plan/forecasts.h>
#include <anvil/plan/reach.h>
#include <anvil/plan/replication.h>
#include <anvil/plan/weakest_link.h>
#include <anvil/quantity/print.h>
#include <anvil/stats/power.h>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace anvil::plan {

using namespace domain;
using namespace results;
namespace {

using quantity::percent;

constexpr std::string_view keys[] = {"fair",      "enough", "reach", "weakest",
                                     "forecasts", "order",  "facts", "safety"};
constexpr std::string_view titles[] = {"Fair",      "Enough", "Reach", "Weakest link",
                                       "Forecasts", "Order",  "Facts", "Safety"};
static_assert(std::size(keys) == adviceCount && std::size(titles) == adviceCount);
static_assert(static_cast<int>(Advice::safety) + 1 == adviceCount);

std::string counted(std::size_t n, std::string_view one, std::string_view many) {
    return fmt::format("{} {}", n, n == 1 ? one : many);
}

AdviceLine fair(const StudyData& data, const Readings& readings) {
    if (data.options.size() < 2 || data.conditions.empty())
        return {Advice::fair, Sign::open, "What would make it unfair shows as you plan."};
    const auto findings = fairness(data, readings);
    std::vector<const Finding*> open;
    for (const auto& f : findings)
        if (!f.accepted) open.push_back(&f);
    if (open.empty())
        return {Advice::fair, Sign::fine,
                findings.empty()
                    ? std::string("Nothing stands in the way of a fair comparison.")
                    : counted(findings.size(), "thing is", "things are") + " accepted, with a reason."};
    return {Advice::fair, Sign::look,
            open.size() == 1 ? open.front()->sentence : fmt::format("{} things to settle.", open.size())};
}

AdviceLine enough(const StudyData& data, double cv) {
    int least = 0;
    for (const auto& o : data.options)
        for (const auto& c : data.conditions)
            if (const int n = data.study.plan.replicatesOf(o.id, c.id); n > 0)
                least = least == 0 ? n : std::min(least, n);
    if (least == 0) return {Advice::enough, Sign::open, "Say how many of each will be pulled."};
    const auto rows = schools(cv, least);
    const auto mine = std::find_if(rows.begin(), rows.end(), [&](const auto& r) { return r.n == least; });
    if (mine == rows.end() || !mine->detectable)
        return {Advice::enough, Sign::look, "One of each ranks nothing: it shows no spread."};
    const double margin = data.study.goal.margin;
    const auto sees = fmt::format("{} of each see {}; you care for {}.", least, percent(*mine->detectable),
                                  percent(margin));
    if (*mine->detectable <= margin) return {Advice::enough, Sign::fine, sees};
    const auto settle = stats::replicatesFor(cv, margin);
    return {Advice::enough, Sign::look,
            settle ? fmt::format("{} That takes {} of each.", sees, *settle)
                   : sees + " That takes more than you can pull."};
}

AdviceLine reach(const StudyData& data, const Readings& readings, const Verdict& verdict) {
    std::size_t beyond = 0, tight = 0, small = 0, known = 0;
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            if (data.study.plan.replicatesOf(o.id, c.id) == 0) continue;
            const auto room = squareRoom(data, readings, verdict, o.id, c.id);
            known += room.reach != Reach::unknown;
            beyond += room.reach == Reach::topsOut;
            tight += room.reach == Reach::tight;
            small += room.reach == Reach::tooSmall;
        }
    if (known == 0) return {Advice::reach, Sign::open, "Needs what the rig can do, and what is expected."};
    if (beyond) return {Advice::reach, Sign::look, counted(beyond, "square", "squares") + " will top out."};
    if (small)
        return {Advice::reach, Sign::look,
                counted(small, "square is", "squares are") + " too weak for this cell to resolve."};
    if (tight) return {Advice::reach, Sign::look, counted(tight, "square is", "squares are") + " tight."};
    return {Advice::reach, Sign::fine, "The rig reaches every square that is known."};
}

AdviceLine weakest(const StudyData& data) {
    const auto parts = weakestLink(data.study.plan.chain);
    if (parts.size() < 2) return {Advice::weakest, Sign::open, "Type what else carries the load."};
    const auto first = std::max_element(parts.begin(), parts.end(), [](const auto& a, const auto& b) {
        return a.probability < b.probability;
    });
    return {Advice::weakest, weakestSentence(parts).empty() ? Sign::fine : Sign::look,
            fmt::format("{} goes first, {} of 100.", first->name, std::lround(100 * first->probability))};
}

AdviceLine forecasts(const StudyData& data, const Verdict& verdict) {
    const auto scores = scoreForecasts(data, verdict);
    if (!scores.empty() && scores.front().squares > 0)
        return {Advice::forecasts, Sign::fine, "Nearest so far: " + scores.front().by + "."};
    std::set<std::string> people;
    for (const auto& s : data.study.plan.squares)
        for (const auto& f : s.forecasts)
            people.insert(f.by);
    if (people.empty()) return {Advice::forecasts, Sign::open, "Nobody has said what to expect."};
    std::string names;
    for (const auto& p : people)
        names += (names.empty() ? "" : ", ") + (p.empty() ? std::string("somebody") : p);
    return {Advice::forecasts, Sign::fine, names + "."};
}

AdviceLine order(const StudyData& data) {
    const auto& plan = data.study.plan;
    const auto waiting = std::count_if(data.specimens.begin(), data.specimens.end(), [&](const auto& s) {
        return std::none_of(data.pulls.begin(), data.pulls.end(),
                            [&](const auto& p) { return p.specimen == s.id; });
    });
    if (plan.runOrder.empty() && !data.specimens.empty() && waiting == 0)
        return {Advice::order, Sign::open, "Everything is pulled."};
    if (plan.runOrder.empty())
        return {Advice::order, data.specimens.empty() ? Sign::open : Sign::look,
                data.specimens.empty() ? "Drawn once the pieces are made."
                                       : "Not drawn yet: pulled in the order of the list."};
    return {Advice::order, Sign::fine,
            plan.reordered ? "Drawn at random, then changed by hand." : "Drawn at random."};
}

AdviceLine facts(const StudyData& data) {
    const auto n = data.options.size();
    const auto priced = std::count_if(data.options.begin(), data.options.end(),
                                      [](const auto& o) { return o.unitCost.has_value(); });
    const auto rated = std::count_if(data.options.begin(), data.options.end(),
                                     [](const auto& o) { return o.rating.has_value(); });
    if (n == 0) return {Advice::facts, Sign::open, "Prices, ratings and weights of the options."};
    if (priced + rated == 0) return {Advice::facts, Sign::open, "No price and no rating is known yet."};
    return {Advice::facts, Sign::fine,
            fmt::format("Price of {} and rating of {} of {} options.", priced, rated, n)};
}

AdviceLine safety(const StudyData& data) {
    const auto n = cautionsOf(data).size() + data.study.plan.cautions.size();
    return {Advice::safety, n ? Sign::look : Sign::open,
            n ? counted(n, "caution", "cautions") + " for this method and these pieces."
              : "Choose a method."};
}

} // namespace

std::string_view key(Advice about) { return keys[static_cast<std::size_t>(about)]; }
std::string_view title(Advice about) { return titles[static_cast<std::size_t>(about)]; }

std::vector<AdviceLine> advise(const StudyData& data, const Readings& readings, const Verdict& verdict,
                               double cv) {
    return {fair(data, readings),
            enough(data, cv),
            reach(data, readings, verdict),
            weakest(data),
            forecasts(data, verdict),
            order(data),
            facts(data),
            safety(data)};
}

} // namespace anvil::plan
