#include <anvil/plan/pieces.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <numbers>

namespace anvil::plan {

using namespace domain;
namespace {

std::string lower(std::string text) {
    for (auto& c : text)
        c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

} // namespace

std::optional<DerivedArea> derivedArea(const std::vector<Measured>& measured) {
    std::map<std::string, double> by;
    for (const auto& m : measured)
        if (const auto mean = m.mean()) by[lower(m.name)] = *mean;
    const auto first =
        [&](std::initializer_list<const char*> names) -> const std::pair<const std::string, double>* {
        for (const char* name : names)
            if (const auto at = by.find(name); at != by.end()) return &*at;
        return nullptr;
    };
    const auto *outer = first({"outer diameter"}), *wall = first({"wall", "wall thickness"});
    if (outer && wall && 2 * wall->second < outer->second)
        return DerivedArea{std::numbers::pi * (outer->second - wall->second) * wall->second,
                           "tube: outer diameter and wall"};
    if (const auto* d = first({"diameter", "core diameter"}); d && !outer)
        return DerivedArea{std::numbers::pi * d->second * d->second / 4, "round: " + d->first};
    const auto* across = first({"width", "breadth"});
    const auto* along = first({"overlap", "depth", "thickness", "height"});
    if (across && along)
        return DerivedArea{across->second * along->second, across->first + " × " + along->first};
    return std::nullopt;
}

std::vector<ClosePair> closePairs(const StudyData& data, double apart) {
    std::vector<ClosePair> out;
    const auto& all = data.specimens;
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t j = i + 1; j < all.size(); ++j) {
            const auto &a = all[i], &b = all[j];
            if (a.block != b.block || !a.x || !a.y || !b.x || !b.y) continue;
            const double d = std::hypot(*a.x - *b.x, *a.y - *b.y);
            if (d < apart * (1 - 1e-9)) out.push_back({a.id, b.id, d});
        }
    std::stable_sort(out.begin(), out.end(),
                     [](const ClosePair& a, const ClosePair& b) { return a.distance < b.distance; });
    return out;
}

std::vector<std::string> sheets(const StudyData& data) {
    std::vector<std::string> out;
    for (const auto& s : data.specimens)
        if (!s.block.empty() && std::find(out.begin(), out.end(), s.block) == out.end())
            out.push_back(s.block);
    return out;
}

std::string stretch(double seconds) {
    const auto text = [&](double unit, const char* word) {
        return quantity::shortest(std::round(seconds / unit)) + " " + word;
    };
    if (seconds >= 2 * 86400) return text(86400, "d");
    if (seconds >= 2 * 3600) return text(3600, "h");
    if (seconds >= 120) return text(60, "min");
    return text(1, "s");
}

std::string timingOf(const StudyData& data, const Pull& pull,
                     const std::function<std::optional<Instant>(const std::string&)>& instant) {
    const auto& plan = data.study.plan;
    const auto start = instant(plan.recipeStarted), at = instant(pull.performedAt);
    if (!start || !at || *at < *start || plan.recipe.empty()) return {};
    std::map<std::string, Instant> done;
    for (const auto& [key, when] : plan.stepsDone)
        if (const auto i = instant(when)) done[key] = *i;
    const auto steps = timetable(plan.recipe, *start, done, *at);
    if (!steps || steps->empty()) return {};
    const auto open = std::count_if(steps->begin(), steps->end(), [](const Step& s) { return s.done == 0; });
    const Instant ready = finished(*steps, *start);
    if (*at < ready)
        return fmt::format("pulled {} before the preparation was over",
                           stretch(static_cast<double>(ready - *at)));
    if (open > 0)
        return fmt::format("pulled with {} step{} of the preparation not marked done", open,
                           open == 1 ? "" : "s");
    const auto& last = plan.recipe.back();
    if (last.latestMinutes > 0) {
        const auto latest = ready + static_cast<Instant>(60 * (last.latestMinutes - last.waitMinutes));
        if (*at > latest)
            return fmt::format("pulled {} after the latest time", stretch(static_cast<double>(*at - latest)));
    }
    return {};
}

} // namespace anvil::plan
