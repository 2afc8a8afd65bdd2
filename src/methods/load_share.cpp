// Load share: how legs share a load.
#include "common_metrics.h"
#include "tell.h"

#include <algorithm>
#include <anvil/methods/load_plan.h>
#include <anvil/quantity/print.h>
#include <cmath>
#include <limits>
#include <map>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"direction", "Direction", "of a leg in plan, from the point it holds; all legs or none",
     Dimension::angle, Of::specimen, Form::perLeg, false, false, true},
    {"elevation", "Rise", "of a leg above the plan, such as 30°; down is below zero", Dimension::angle,
     Of::specimen, Form::perLeg, false, false, true},
    {"length", "Length", "of a leg; a longer one gives way more", Dimension::length, Of::specimen,
     Form::perLeg},
    {"stiffness", "Stiffness", "of a leg, where it is not by its length", Dimension::stiffness, Of::specimen,
     Form::perLeg},
    {"pair", "Meets with", "legs of one number meet in a point of their own: 1, 2 …", Dimension::ratio,
     Of::specimen, Form::perLeg},
    {"strand", "One line with", "two legs of one number are one line that slides: 1, 2 …", Dimension::ratio,
     Of::specimen, Form::perLeg},
    {"grip", "Grip of a sliding line", "how many times as much one side may carry, from 1", Dimension::ratio,
     Of::specimen},
    {"leg", "Load", "in a leg; one without a sensor is left out", Dimension::force, Of::pull, Form::perLeg,
     true, false, true},
    {"master", "Load on all", "in the line that carries them", Dimension::force, Of::pull},
};
constexpr Metric metrics[] = {
    {"unevenness", "Unevenness", "unevenness", Dimension::ratio, Sense::less},
    {"greatest_share", "Greatest share", "greatest share of one leg", Dimension::ratio, Sense::less, "%"},
    {"residual", "Difference to the master", "load the legs do not account for", Dimension::force,
     Sense::less},
    {"off_plan", "Off the predicted shares", "greatest difference from the predicted shares",
     Dimension::ratio, Sense::less, "%"},
    {"worst_loss", "Load after a leg is lost", "greatest predicted load after one leg is lost",
     Dimension::force, Sense::less},
    peakRow,
};

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

/// An entry of every leg, unknown where nobody said; empty where it was said of none.
std::vector<double> ofLegs(const Evidence& e, const char* key) {
    std::vector<double> out;
    if (const auto at = e.legs.find(key); at != e.legs.end())
        for (const auto& entry : at->second)
            out.push_back(entry.si);
    return out;
}

/// The legs of a log, where none was entered: every channel beside the main one, while all stood still.
const curve::Together* loggedLegs(const Evidence& e) {
    const bool typed = e.legs.contains("leg");
    const auto* both = !typed && e.reading && e.reading->together ? &*e.reading->together : nullptr;
    return both && both->others.size() > 1 ? both : nullptr;
}

/// The load on all: as entered, else what the main channel of the same log showed.
std::optional<double> masterOf(const Evidence& e) {
    const auto* logged = loggedLegs(e);
    const auto typed = e.value("master");
    return typed || !logged ? typed : std::optional(logged->load);
}

bool complete(const std::vector<double>& all, std::size_t n) {
    return all.size() == n && std::none_of(all.begin(), all.end(), [](double v) { return std::isnan(v); });
}

/// What is known of the legs: loads, and where they lie if that was said.
struct Legs {
    std::vector<double> loads;
    std::vector<Direction> directions; ///< empty: not said
    bool rises = false;
};

Expected<Legs> legsIn(const Evidence& e) {
    Legs out;
    const auto plan = ofLegs(e, "direction"), rise = ofLegs(e, "elevation");
    out.loads = ofLegs(e, "leg");
    if (const auto* logged = loggedLegs(e))
        for (const auto& [name, load] : logged->others)
            out.loads.push_back(load);
    const auto n = std::max({out.loads.size(), plan.size(), rise.size()});
    out.loads.resize(n, unknown);
    if (plan.empty() && rise.empty()) return out;
    if (!complete(plan, n)) return fail("Some legs have a direction and some none.");
    if (!rise.empty() && !complete(rise, n)) return fail("Some legs have a rise and some none.");
    for (std::size_t i = 0; i < n; ++i) {
        const double up = rise.empty() ? 0 : rise[i];
        if (std::abs(plan[i]) > 2 * std::numbers::pi + 1e-9)
            return fail("A direction lies within a full turn.");
        if (std::abs(up) > std::numbers::pi / 2 + 1e-9) return fail("A leg rises by 90° at most.");
        out.rises = out.rises || up != 0;
        out.directions.push_back(
            {std::cos(up) * std::cos(plan[i]), std::cos(up) * std::sin(plan[i]), std::sin(up)});
    }
    return out;
}

/// Along which the load on all pulls: straight down where legs rise, else against what the legs pull
/// together.
Direction pullOf(const Legs& legs) {
    if (legs.rises) return {0, 0, -1};
    Direction sum{};
    for (std::size_t i = 0; i < legs.directions.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            sum[c] -= (std::isnan(legs.loads[i]) ? 1 : legs.loads[i]) * legs.directions[i][c];
    return sum;
}

/// The load of the one leg without a sensor. Error: more than one, or nothing to tell it from.
Expected<std::optional<std::size_t>> fillIn(Legs& legs, const std::optional<double>& master, Tell& tell) {
    std::optional<std::size_t> missing;
    for (std::size_t i = 0; i < legs.loads.size(); ++i) {
        if (!std::isnan(legs.loads[i])) continue;
        if (missing)
            return fail(fmt::format("leg.{} and leg.{} are missing: the load of one leg can be told by "
                                    "difference, not of two.",
                                    *missing + 1, i + 1));
        missing = i;
    }
    if (!missing) return missing;
    if (!master)
        return fail(
            fmt::format("leg.{} is missing: it can be told by difference where the load on all is entered.",
                        *missing + 1));
    if (legs.directions.empty()) {
        double rest = *master;
        for (std::size_t i = 0; i < legs.loads.size(); ++i)
            if (i != *missing) rest -= legs.loads[i];
        if (rest < 0)
            return fail("The other legs carry more than the load on all: look at zeros and calibrations.");
        legs.loads[*missing] = rest;
    } else {
        const Direction down{0, 0, -1};
        if (!legs.rises)
            return fail(
                fmt::format("leg.{} is missing: in a plan without rises the load on all has no direction to "
                            "tell it from.",
                            *missing + 1));
        const auto found = byDifference(
            legs.directions,
            [&] {
                auto known = legs.loads;
                known[*missing] = 0;
                return known;
            }(),
            *missing, down, *master);
        if (!found) return tl::unexpected(found.error());
        legs.loads[*missing] = found->load;
        if (found->across > 0.1)
            tell.note(
                fmt::format("What is missing points {:.0f} % beside leg {}: look at directions and zeros.",
                            100 * found->across, *missing + 1));
    }
    tell.note(fmt::format("Leg {} has no sensor: its load is told by difference, {}.", *missing + 1,
                          quantity::withUnit(legs.loads[*missing], quantity::unit("N"))));
    return missing;
}

std::string sharesText(const std::vector<double>& loads) {
    double sum = 0;
    for (const double v : loads)
        sum += v;
    std::string out;
    for (std::size_t i = 0; i < loads.size(); ++i)
        out += fmt::format("{}{:.0f} %",
                           i == 0                  ? ""
                           : i + 1 == loads.size() ? " and "
                                                   : ", ",
                           100 * loads[i] / sum);
    return out;
}

/// As entered, or by the lengths of legs of one make; empty: all as stiff.
std::vector<double> stiffnessesOf(const Evidence& e, std::size_t n) {
    auto stiffness = ofLegs(e, "stiffness");
    const auto lengths = ofLegs(e, "length");
    if (stiffness.empty() && complete(lengths, n))
        for (const double l : lengths)
            stiffness.push_back(1 / l); // of one material and section
    if (!complete(stiffness, n)) stiffness.clear();
    return stiffness;
}

/// A number of each leg, 0 where nobody said one.
Expected<std::vector<int>> numbersOf(const Evidence& e, const char* key, std::size_t n) {
    std::vector<int> out(n, 0);
    const auto told = ofLegs(e, key);
    for (std::size_t i = 0; i < std::min(n, told.size()); ++i) {
        if (std::isnan(told[i])) continue;
        if (told[i] != std::floor(told[i]) || told[i] > 99)
            return fail(fmt::format("\"{}\" of leg {} is a number to know others by: 1, 2, 3 …", key, i + 1));
        out[i] = static_cast<int>(told[i]);
    }
    return out;
}

/// How the legs hang together: which meet in points of their own, which are one sliding line.
struct Rigging {
    std::vector<Direction> directions;
    std::vector<double> stiffness; ///< empty: all as stiff
    std::vector<int> pair, strand; ///< 0: none
    double grip = 1;
    Direction pull{};
    double load = 0;
};

Expected<Rigging> riggingOf(const Evidence& e, const Legs& legs, double load) {
    const auto n = legs.directions.size();
    auto pair = numbersOf(e, "pair", n), strand = numbersOf(e, "strand", n);
    if (!pair) return tl::unexpected(pair.error());
    if (!strand) return tl::unexpected(strand.error());
    Rigging r{legs.directions,
              stiffnessesOf(e, n),
              *pair,
              *strand,
              e.value("grip").value_or(1),
              pullOf(legs),
              load};
    if (!(r.grip >= 1)) return fail("A sliding line grips by 1 or more: 1 is without friction.");
    for (std::size_t i = 0; i < n; ++i) {
        if (r.strand[i] == 0) continue;
        const auto count = std::count(r.strand.begin(), r.strand.end(), r.strand[i]);
        if (count != 2)
            return fail(fmt::format("Line {} has {} legs: one that slides has two.", r.strand[i], count));
        for (std::size_t k = 0; k < i; ++k)
            if (r.strand[k] == r.strand[i] && r.pair[k] != r.pair[i])
                return fail(
                    fmt::format("Legs {} and {} are one line and meet in different points.", k + 1, i + 1));
    }
    return r;
}

/// The loads of the legs without one of them; `cut` may be none of them. A point that is left with one leg is
/// none any more: that leg swings into line.
Expected<std::vector<double>> loadsWithout(const Rigging& r, std::size_t cut) {
    const auto n = r.directions.size();
    // A line that slides runs out when either of its legs is cut: the other holds nothing then.
    const auto gone = [&](std::size_t i) {
        return i == cut || (cut < n && r.strand[cut] != 0 && r.strand[i] == r.strand[cut]);
    };
    LoadPlan plan;
    plan.grip = r.grip;
    plan.loads.push_back(r.pull);
    const double size = std::hypot(r.pull[0], r.pull[1], r.pull[2]);
    for (auto& c : plan.loads.front())
        c *= size > 0 ? r.load / size : 0;
    const auto stiffness = [&](std::size_t i) { return r.stiffness.empty() ? 1.0 : r.stiffness[i]; };
    const auto kept = [&](int number, const std::vector<int>& of) {
        std::size_t count = 0;
        for (std::size_t i = 0; i < n; ++i)
            count += !gone(i) && of[i] == number;
        return count;
    };
    std::map<int, int> pointOf; // of a pair
    std::vector<std::size_t> which;
    double most = 0;
    for (std::size_t i = 0; i < n; ++i) {
        if (gone(i)) continue;
        int at = 0;
        if (r.pair[i] != 0 && kept(r.pair[i], r.pair) > 1) {
            const auto [place, fresh] = pointOf.emplace(r.pair[i], static_cast<int>(plan.loads.size()));
            if (fresh) plan.loads.push_back({0, 0, 0});
            at = place->second;
        }
        const bool slides = r.strand[i] != 0 && kept(r.strand[i], r.strand) == 2;
        plan.legs.push_back({r.directions[i], stiffness(i), at, -1, slides ? r.strand[i] : -1});
        which.push_back(i);
        most = std::max(most, stiffness(i));
    }
    for (const auto& [number, point] : pointOf) { // what joins it to the one that holds all, and hardly gives
        Direction along{};
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t c = 0; c < 3; ++c)
                if (!gone(i) && r.pair[i] == number) along[c] += r.directions[i][c];
        if (std::hypot(along[0], along[1], along[2]) < 1e-9)
            return fail(fmt::format("The legs of pair {} pull against each other only.", number));
        plan.legs.push_back({along, 1000 * most, 0, point});
    }
    const auto solved = legLoads(plan);
    if (!solved) return tl::unexpected(solved.error());
    std::vector<double> out(n, 0);
    for (std::size_t k = 0; k < which.size(); ++k)
        out[which[k]] = solved->load[k];
    return out;
}

/// Predicted shares and what a lost leg does, by small displacements.
void tellPrediction(Tell& tell, const Evidence& e, const Legs& legs, double together, double sum) {
    const auto n = legs.loads.size();
    const bool byLength = ofLegs(e, "stiffness").empty();
    if (legs.directions.empty()) {
        for (const char* metric : {"off_plan", "worst_loss"})
            tell.without(metric, "it needs the directions of the legs");
        return;
    }
    const auto rigging = riggingOf(e, legs, together);
    const auto predicted = rigging ? loadsWithout(*rigging, n) : tl::unexpected(rigging.error());
    if (!predicted) {
        tell.note(predicted.error().message);
        for (const char* metric : {"off_plan", "worst_loss"})
            tell.without(metric, "the shares cannot be predicted");
        return;
    }
    double expected = 0, off = 0;
    for (const double v : *predicted)
        expected += v;
    for (std::size_t i = 0; i < n; ++i)
        off = std::max(off, std::abs(legs.loads[i] / sum - (*predicted)[i] / expected));
    tell.exact("off_plan", off);
    tell.note(fmt::format("By directions{} the legs would carry {}.",
                          rigging->stiffness.empty() ? " (all as stiff)"
                          : byLength                 ? " and lengths"
                                                     : " and stiffnesses",
                          sharesText(*predicted)));
    double worst = 0;
    std::size_t lost = n, bears = 0;
    for (std::size_t i = 0; i < n; ++i)
        if (const auto rest = loadsWithout(*rigging, i))
            for (std::size_t k = 0; k < n; ++k)
                if ((*rest)[k] > worst) {
                    worst = (*rest)[k];
                    lost = i;
                    bears = k;
                }
    if (lost < n) {
        tell.exact("worst_loss", worst);
        tell.note(fmt::format("If leg {} is lost, leg {} carries {}.", lost + 1, bears + 1,
                              quantity::withUnit(worst, quantity::unit("N"))));
    }
    tell.without("worst_loss", "no leg can be lost: the rest would not hold the load");
}

/// unevenness = max/mean; share = max/sum; residual = master − |vector sum of the legs|, or their plain sum
/// where no directions are known.
/// Source: equilibrium of a point (Meriam & Kraige, Statics, ch. 3); predicted shares by small displacements
/// of springs that only pull (direct stiffness method; McGuire, Gallagher & Ziemian, Matrix Structural
/// Analysis, ch. 3).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    tellPeak(tell, e);
    auto legs = legsIn(e);
    if (!legs) return tl::unexpected(legs.error());
    const auto n = legs->loads.size();
    const auto master = masterOf(e);
    if (const auto* logged = loggedLegs(e))
        tell.note(
            fmt::format("Read from {:.4g} to {:.4g} s, where all stood still.", logged->from, logged->to));
    const bool any =
        std::any_of(legs->loads.begin(), legs->loads.end(), [](double v) { return !std::isnan(v); });
    if (any)
        if (const auto filled = fillIn(*legs, master, tell); !filled) return tl::unexpected(filled.error());
    double sum = 0, most = 0;
    Direction vector{};
    for (std::size_t i = 0; any && i < n; ++i) {
        const double load = legs->loads[i];
        if (load < 0) return fail("A leg pulls or is slack: a load below zero cannot be.");
        sum += load;
        most = std::max(most, load);
        for (std::size_t c = 0; c < 3 && !legs->directions.empty(); ++c)
            vector[c] += load * legs->directions[i][c];
    }
    if (n < 2 || !(sum > 0)) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "it needs the loads of at least two legs");
        return tell.done();
    }
    tell.exact("unevenness", most * static_cast<double>(n) / sum);
    tell.exact("greatest_share", most / sum);
    const double together = legs->directions.empty() ? sum : std::hypot(vector[0], vector[1], vector[2]);
    if (master) {
        const double off = *master - together;
        tell.exact("residual", std::abs(off)); // either way is as far off
        if (off != 0)
            tell.note(off > 0 ? "The master shows more than the legs account for."
                              : "The legs account for more than the master shows.");
        if (std::abs(*master - together) > 0.1 * *master)
            tell.note(
                "The legs together differ by more than a tenth from the load on all of them: look at zeros, "
                "directions and calibrations.");
    }
    tell.without("residual", "no load on all of them was entered");
    tellPrediction(tell, e, *legs, master.value_or(together), sum);
    return tell.done();
}

void sketch(Easel& e) {
    e.line({30, 14}, {270, 14}, Tone::ground, 4);
    static constexpr double tops[] = {50, 150, 250};
    static constexpr std::string_view keys[] = {"leg.1", "leg.2", "leg.3"};
    static constexpr std::string_view symbols[] = {"F1", "F2", "F3"};
    for (std::size_t i = 0; i < 3; ++i) {
        e.line({tops[i], 16}, {150, 96}, Tone::piece, 3);
        e.label({tops[i] + (i == 0   ? 4
                            : i == 2 ? -4
                                     : 6),
                 i == 1 ? 62.0 : 46.0},
                symbols[i], keys[i], i == 2 ? Beside::left : Beside::right);
    }
    e.force({150, 98}, {150, 150}, "F", "master");
}

void card(Easel& e) {
    for (const double x : {20.0, 75.0, 130.0})
        e.line({x, 10}, {75, 54}, Tone::piece, 3);
    e.arrow({75, 54}, {75, 84});
}

} // namespace

extern const Method loadShare;

Expected<SharedLoad> sharedLoad(const Evidence& e) {
    auto legs = legsIn(e);
    if (!legs) return tl::unexpected(legs.error());
    Tell unheard(loadShare, e);
    if (const auto filled = fillIn(*legs, masterOf(e), unheard); !filled)
        return tl::unexpected(filled.error());
    SharedLoad out{legs->loads, legs->directions, 0, {}, {}};
    if (legs->directions.empty()) return out;
    Direction together{};
    for (std::size_t i = 0; i < legs->loads.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            together[c] += legs->loads[i] * legs->directions[i][c];
    out.load = masterOf(e).value_or(std::hypot(together[0], together[1], together[2]));
    const auto rigging = riggingOf(e, *legs, out.load);
    if (!rigging) return out; // what was measured stands without a prediction
    if (auto all = loadsWithout(*rigging, legs->loads.size())) out.predicted = std::move(*all);
    for (std::size_t i = 0; i < legs->loads.size(); ++i) {
        auto rest = loadsWithout(*rigging, i);
        out.without.push_back(rest ? std::optional(std::move(*rest)) : std::nullopt);
    }
    return out;
}

const Method loadShare{"load-share",
                       "Load share",
                       "How legs share a load, and what one lost leg does to the rest.",
                       "A reading on each leg at the same instant.",
                       Action::share,
                       {sketch, card},
                       inputs,
                       metrics,
                       formulas,
                       Dimension::force,
                       {},
                       "anchor legs tripod bridle share distribute sling foot points"};

} // namespace anvil::methods
