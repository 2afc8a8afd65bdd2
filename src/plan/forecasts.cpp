#include <anvil/domain/outcomes.h>
#include <anvil/plan/forecasts.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace anvil::plan {

using namespace domain;
using namespace results;

namespace {

struct Sum {
    ForecastScore score;
    double logs = 0, distance = 0;
};

void addStudy(const StudyData& data, const Verdict& verdict, std::map<std::string, Sum>& by) {
    const auto parts = breakableParts(data);
    for (const auto& square : data.study.plan.squares)
        for (const auto& g : verdict.groups) {
            if (g.option != square.option || g.condition != square.condition) continue;
            std::vector<std::string> broke; // a part of the load path, for each pull that names one
            for (const auto& v : g.values)
                if (const auto* p = data.pull(v.pull))
                    if (const auto& part = p->outcome.part;
                        std::any_of(parts.begin(), parts.end(),
                                    [&](const auto& known) { return samePart(known, part); }))
                        broke.push_back(part);
            for (const auto& f : square.forecasts) {
                auto& sum = by[f.by];
                sum.score.by = f.by;
                if (g.summary.typical && g.summary.bound == stats::Bound::exact && *g.summary.typical > 0 &&
                    f.value > 0) {
                    const double ratio = *g.summary.typical / f.value;
                    ++sum.score.squares;
                    sum.score.inside += std::abs(ratio - 1) <= f.cv;
                    sum.logs += std::log(ratio);
                    sum.distance += std::abs(std::log(ratio));
                    sum.score.worst = std::max(sum.score.worst, std::max(ratio, 1 / ratio));
                }
                if (!f.goesFirst.empty() && !broke.empty()) {
                    ++sum.score.parts;
                    const auto right = std::count_if(broke.begin(), broke.end(), [&](const auto& part) {
                        return samePart(part, f.goesFirst);
                    });
                    sum.score.partsRight += 2 * right > static_cast<std::ptrdiff_t>(broke.size());
                }
            }
        }
}

} // namespace

std::vector<ForecastScore> scoreForecasts(const StudyData& data, const Verdict& verdict) {
    return scoreForecasts({{&data, &verdict}});
}

std::vector<ForecastScore> scoreForecasts(const std::vector<StudyVerdict>& studies) {
    std::map<std::string, Sum> by;
    for (const auto& s : studies)
        addStudy(*s.data, *s.verdict, by);
    std::vector<Sum> all;
    all.reserve(by.size());
    for (auto& [name, sum] : by) {
        if (sum.score.squares == 0 && sum.score.parts == 0) continue;
        if (sum.score.squares > 0) {
            sum.score.ratio = std::exp(sum.logs / sum.score.squares);
            sum.distance /= sum.score.squares;
        }
        all.push_back(sum);
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const Sum& a, const Sum& b) { return a.distance < b.distance; });
    std::vector<ForecastScore> out;
    out.reserve(all.size());
    for (auto& sum : all)
        out.push_back(std::move(sum.score));
    return out;
}

std::string sentence(const ForecastScore& s) {
    std::string out = (s.by.empty() ? std::string("Somebody") : s.by) + ":";
    if (s.squares > 0)
        out += fmt::format(" {} of {} inside the stated band, measured {} times the expected", s.inside,
                           s.squares, quantity::significant(s.ratio, 3));
    if (s.parts > 0)
        out += fmt::format("{} {} of {} parts right", s.squares > 0 ? "," : "", s.partsRight, s.parts);
    return out + ".";
}

} // namespace anvil::plan
