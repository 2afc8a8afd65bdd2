#include <anvil/results/legs.h>

#include <algorithm>
#include <anvil/results/evidence.h>
#include <numeric>

namespace anvil::results {
namespace {

std::vector<double> sharesOf(const std::vector<double>& loads) {
    const double sum = std::accumulate(loads.begin(), loads.end(), 0.0);
    std::vector<double> out;
    out.reserve(loads.size());
    for (const double v : loads)
        out.push_back(sum > 0 ? v / sum : 0);
    return out;
}

/// What the directions of the legs would have, and what is left where one is lost, at another load: all of it
/// grows as the load does.
void predict(SquareLegs& legs, const methods::SharedLoad& shared, double load) {
    legs.predicted = sharesOf(shared.predicted);
    legs.without = shared.without;
    for (auto& rest : legs.without)
        if (rest && shared.load > 0)
            for (auto& v : *rest)
                v *= load / shared.load;
}

} // namespace

std::vector<SquareLegs> legsOf(const Results& results) {
    std::vector<SquareLegs> out;
    const auto& data = results.data();
    if (methodOf(data.study.plan).key != "load-share") return out;
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            SquareLegs legs;
            legs.option = o.id;
            legs.condition = c.id;
            std::optional<methods::SharedLoad> last;
            double load = 0;
            std::size_t told = 0; // pulls of pieces whose legs have directions
            for (const auto& attempt : results.attempts(o.id, c.id)) {
                const auto& pull = *attempt.pull;
                if (standingOf(data, pull, nullptr) != domain::Standing::counts) continue;
                const auto evidence = evidenceOf(data, pull, results.readings().find(pull.id));
                const auto shared =
                    evidence ? methods::sharedLoad(*evidence) : tl::unexpected(evidence.error());
                if (!shared || shared->loads.size() < 2) continue;
                if (legs.loads.empty()) legs.loads.resize(shared->loads.size());
                if (legs.loads.size() != shared->loads.size()) continue;
                for (std::size_t i = 0; i < legs.loads.size(); ++i)
                    legs.loads[i] += shared->loads[i];
                ++legs.pulls;
                if (shared->directions.empty()) continue;
                legs.directions = shared->directions;
                load += shared->load;
                ++told;
                if (!shared->predicted.empty()) last = *shared; // what was measured is shown either way
            }
            if (legs.pulls == 0) continue;
            for (auto& v : legs.loads)
                v /= static_cast<double>(legs.pulls);
            legs.shares = sharesOf(legs.loads);
            if (last) predict(legs, *last, load / static_cast<double>(told));
            out.push_back(std::move(legs));
        }
    return out;
}

std::optional<SquareLegs> legsNow(const StudyData& data, const Specimen& piece,
                                  std::span<const double> loads) {
    SquareLegs legs;
    legs.option = piece.option;
    legs.condition = piece.condition;
    legs.pulls = 1;
    for (const double load : loads)
        legs.loads.push_back(std::max(load, 0.0)); // a cell without load shows some noise
    legs.shares = sharesOf(legs.loads);
    if (loads.size() < 2 || std::accumulate(legs.loads.begin(), legs.loads.end(), 0.0) <= 0)
        return std::nullopt;
    Pull pull;
    pull.specimen = piece.id;
    auto e = evidenceOf(data, pull, nullptr);
    if (!e) return legs;
    for (const double load : legs.loads)
        e->legs["leg"].push_back({load, {}, {}, 0, 0, &quantity::unit("N"), -1});
    const auto shared = methods::sharedLoad(*e);
    if (!shared || shared->predicted.empty() || shared->loads.size() != legs.loads.size()) return legs;
    legs.directions = shared->directions;
    predict(legs, *shared, shared->load);
    return legs;
}

} // namespace anvil::results
