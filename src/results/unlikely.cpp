#include <anvil/results/unlikely.h>

#include <algorithm>
#include <anvil/results/evidence.h>
#include <cmath>

namespace anvil::results {
namespace {

/// 5 % either way, on logs.
constexpr double within = 0.05;
/// Further off than any two replicates are; a little less than ten, so that ten itself is asked about.
constexpr double far = 9.5;
/// The digits would lie among their fellows if they are no further from the median than this.
constexpr double among = 1.6;

double median(std::vector<double> v) {
    const auto middle = v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2);
    std::nth_element(v.begin(), middle, v.end());
    return v.size() % 2 ? *middle : (*middle + *std::max_element(v.begin(), middle)) / 2;
}

/// Whether two numbers stand to each other as two units that are taken for each other.
bool asTwoUnits(double times) {
    const double off = std::abs(std::log(times));
    for (const double ratio : {4.4482216152605, 9.80665, 1.3558179483314, 25.4, 1000.0})
        if (std::abs(off - std::log(ratio)) <= within) return true;
    return false;
}
bool mixedUp(double times) { return asTwoUnits(times) || std::abs(std::log(times)) >= std::log(far); }

} // namespace

std::optional<Unlikely> unlikely(const quantity::Entry& typed, std::vector<double> fellows) {
    std::erase_if(fellows, [](double v) { return !(v > 0); });
    if (fellows.empty() || !(typed.si > 0) || !typed.unit) return {};
    Unlikely out;
    out.fellows = median(std::move(fellows));
    out.times = typed.si / out.fellows;
    if (!mixedUp(out.times)) return {};
    const double digits = typed.unit->fromSi(typed.si);
    double nearest = std::log(among);
    for (const auto& u : quantity::allUnits()) {
        if (u.dimension != typed.unit->dimension || &u == typed.unit || u.offset != 0) continue;
        const double off = std::abs(std::log(u.toSi(digits) / out.fellows));
        if (off < nearest) nearest = off, out.meant = &u;
    }
    // A ratio of two units between honest replicates is no rarity where it is small: only a unit that fits
    // says that it was one.
    if (!out.meant && std::abs(std::log(out.times)) < std::log(far)) return {};
    return out;
}

std::optional<Unlikely> unlikelyRow(const quantity::Entry& told, const std::vector<double>& fellows,
                                    const quantity::Unit* theirs) {
    auto odd = unlikely(told, fellows);
    if (!odd || !asTwoUnits(odd->times)) return {};
    const auto close = [&](double v) {
        return v > 0 && std::abs(std::log(v / odd->fellows)) <= std::log(among);
    };
    if (fellows.size() < 2 || !std::all_of(fellows.begin(), fellows.end(), close)) return {};
    const bool asTheirs = theirs && theirs != told.unit && close(theirs->toSi(told.unit->fromSi(told.si)));
    if (asTheirs) odd->meant = theirs;
    constexpr double noWeakPiece = 24; // an inch is 25.4 mm
    return odd->meant && (asTheirs || std::abs(std::log(odd->times)) > std::log(noWeakPiece)) ? odd
                                                                                              : std::nullopt;
}

quantity::Entry asMeant(const quantity::Entry& typed, const quantity::Unit& meant) {
    auto out = typed;
    const double times = meant.factor / typed.unit->factor;
    out.si *= times, out.upperSi *= times, out.plusMinusSi *= times;
    out.unit = &meant;
    return out;
}

namespace {

template <class F> void forSquare(const domain::StudyData& data, domain::Id specimen, const F& f) {
    const auto* piece = data.specimen(specimen);
    if (!piece) return;
    for (const auto& pull : data.pulls)
        if (const auto* other = data.specimen(pull.specimen);
            other && other->option == piece->option && other->condition == piece->condition)
            f(pull);
}

/// What was read in one pull, as another display would have shown the same load.
double shownBehind(const Through& through, const domain::Pull& pull, double read) {
    const double felt = pull.outcome.path ? pull.outcome.path->felt(read).value : read;
    return through ? through->shown(felt) : felt;
}

} // namespace

std::vector<double> fellowsOf(const domain::StudyData& data, domain::Id specimen, domain::Metric metric,
                              const Through& through) {
    std::vector<double> out;
    forSquare(data, specimen, [&](const domain::Pull& pull) {
        if (pull.typed && pull.typed->metric == metric)
            out.push_back(metric->dimension == quantity::Dimension::force
                              ? shownBehind(through, pull, pull.typed->value)
                              : pull.typed->value);
    });
    return out;
}

std::vector<double> fellowsOf(const domain::StudyData& data, domain::Id specimen, const methods::Input& input,
                              const std::string& key, const Through& through) {
    std::vector<double> out;
    forSquare(data, specimen, [&](const domain::Pull& pull) {
        for (const auto& field : pull.outcome.entered.fields)
            if (field.key == key)
                if (const auto entry = pull.outcome.path && readOffDisplay(input)
                                           ? quantity::parseEntry(field.text, pull.outcome.path->shows)
                                           : methods::entryOf(input, field.text))
                    out.push_back(input.dimension == quantity::Dimension::force
                                      ? shownBehind(through, pull, entry->si)
                                      : entry->si);
    });
    return out;
}

} // namespace anvil::results
