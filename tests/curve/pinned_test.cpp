// Every reading of many simulated curves, as kept.
#include "pins.h"

#include <anvil/curve/average.h>
#include <anvil/curve/pyramid.h>
#include <anvil/curve/reading.h>
#include <anvil/curve/steady.h>
#include <anvil/sim/awkward.h>
#include <anvil/sim/specimen.h>

namespace anvil::curve {
namespace {

using pins::num;
using pins::Pin;

std::string of(const Landmark& l) {
    return fmt::format("{}@{} {} {} {}", l.index, num(l.time), num(l.load), num(l.travel), l.byHand);
}
std::string of(const std::optional<Landmark>& l) { return l ? of(*l) : "-"; }

void say(Pin& pin, const std::string& name, const Expected<ReadCurve>& read) {
    if (!read) return pin.line(name + " refused: " + read.error().message);
    const auto& r = read->reading;
    pin.say("{}: {} {} {} base {} noise {} res {} {}{}{}{} dep {} peak {} slip {} break {} yield {}", name,
            r.samples, r.dropped, r.spikes, num(r.baseline), num(r.noise), num(r.resolution),
            r.flipped ? 'f' : '-', r.offScale ? 'o' : '-', r.guessed ? 'g' : '-', r.againstTime ? 't' : '-',
            r.departure, of(r.peak), of(r.firstSlip), of(r.breakPoint), of(r.yield));
    if (const auto& s = r.stiffness)
        pin.say("  k {} ± {} r2 {} {}..{} {}..{} {} {}{}", num(s->value), num(s->standardError), num(s->r2),
                num(s->from), num(s->to), s->fromIndex, s->toIndex, s->samples, s->includesRigStretch,
                s->byHand);
    pin.say("  toe {} slack {} J {} {} {} res {} {} fall {} {} rates {} {} sustained {} permanent {}",
            num(r.toe), num(r.slack), num(r.energyToFirstSlip), num(r.energyToPeak), num(r.energyToBreak),
            num(r.residual ? std::optional(r.residual->load) : std::nullopt),
            num(r.residual ? std::optional(r.residual->share) : std::nullopt),
            num(r.fall ? std::optional(r.fall->ratio) : std::nullopt), r.fall ? r.fall->word : "",
            num(r.loadRate), num(r.travelRate), num(r.sustained), num(r.permanent));
    if (r.loadAtTravel || r.travelAtLoad)
        pin.say("  at {} {}", num(r.loadAtTravel ? r.loadAtTravel->value : std::nullopt),
                num(r.travelAtLoad ? r.travelAtLoad->value : std::nullopt));
    if (const auto& h = r.hold)
        pin.say("  hold {}..{} {} {} {} law {}", num(h->from), num(h->to), num(h->mean), num(h->sd),
                num(h->relaxation),
                h->law ? num(h->law->a) + " " + num(h->law->b) + " " + num(h->law->tau) : "-");
    for (const auto& w : r.warnings)
        pin.line("  warning: " + w);
    for (const auto& n : r.notes)
        pin.line("  note: " + n);
}

/// What is asked of a curve beside the usual, one way and the other.
ReadingSettings asked(std::size_t k) {
    ReadingSettings s;
    if (k % 2) s.rigLimit = 2500;
    if (k % 3 == 1) s.yieldOffset = 0.0002, s.stiffnessBy = StiffnessBy::chordOfShares;
    if (k % 3 == 2) s.stiffnessBy = StiffnessBy::secant, s.rigCompliance = 1e-7;
    if (k % 4 == 1) s.atTravel = 0.002, s.atLoad = 400;
    if (k % 4 == 2) s.sustainedFor = 0.2, s.sustainedSpeed = 0.002;
    if (k % 4 == 3) s.stiffnessBy = StiffnessBy::chordOfLoads, s.chordFrom = 200, s.chordTo = 700;
    if (k % 5 == 4) s.preload = 12, s.calibratedTo = 900;
    return s;
}

TEST(Pinned, ReadingsOfSimulatedPulls) {
    Pin pin;
    std::size_t k = 0;
    for (const auto model : sim::allModels)
        for (std::uint64_t seed = 1; seed <= 4; ++seed, ++k) {
            const auto bench = sim::typicalBench(model, seed);
            auto run = sim::pull(bench.specimen, bench.logger, seed);
            if (k % 7 == 3)
                for (auto& f : run.curve.load)
                    f = -f;
            if (k % 7 == 5) run.curve.travel.clear();
            auto settings = asked(k);
            if (k % 7 == 5 && k % 2) settings.crossheadSpeed = 0.001;
            say(pin, fmt::format("{} {}", sim::name(model), seed), readAndKeep(run.curve, settings));
        }
    pin.check("curves");
}

TEST(Pinned, ReadingsOfAwkwardCurves) {
    Pin pin;
    std::size_t k = 0;
    for (const auto trouble : sim::allTroubles)
        for (std::uint64_t seed = 1; seed <= 4; ++seed, ++k) {
            const auto run = sim::awkward(trouble, seed);
            auto settings = asked(seed == 4 ? k : 0);
            settings.rigLimit = run.rigLimit;
            say(pin, fmt::format("{} {}", sim::name(trouble), seed), readAndKeep(run.curve, settings));
        }
    pin.check("awkward_curves");
}

/// Several pulls in one log, cut apart again; their average and what a screen shows of them.
TEST(Pinned, CutsAveragesAndPictures) {
    Pin pin;
    for (const auto model : sim::allModels) {
        Curve log;
        std::vector<ReadCurve> read;
        for (std::uint64_t seed = 11; seed <= 14; ++seed) {
            auto bench = sim::typicalBench(model, seed);
            const auto run = sim::pull(bench.specimen, bench.logger, seed);
            const double shift = log.time.empty() ? 0 : log.time.back() + 1.5;
            for (std::size_t i = 0; i < run.curve.time.size(); ++i) {
                log.time.push_back(run.curve.time[i] + shift);
                log.load.push_back(run.curve.load[i]);
                log.travel.push_back(run.curve.travel[i]);
            }
            if (auto one = readAndKeep(run.curve)) read.push_back(std::move(*one));
        }
        for (const auto cut : {Cut::betweenPieces, Cut::atEveryRise}) {
            std::string text = sim::name(model);
            for (const auto& part : splitAtPulls(log, cut))
                text += fmt::format(" {}:{}..{}", part.time.size(), num(part.time.front()),
                                    num(part.time.back()));
            pin.line(text);
        }
        auto back = log; // the clock starts again half way
        for (std::size_t i = back.time.size() / 2; i < back.time.size(); ++i)
            back.time[i] -= log.time[back.time.size() / 2];
        pin.say("resets {}", runsByClock(back).size());
        std::vector<const ReadCurve*> all;
        for (const auto& r : read)
            all.push_back(&r);
        if (const auto mean = averaged(all, 40)) {
            std::string text = fmt::format("average {} {}{} {}:", mean->curves, mean->againstTime,
                                           mean->toTheBreak, mean->peak);
            for (std::size_t i = 0; i < mean->x.size(); i += 5)
                text +=
                    fmt::format(" {} {} {} {} {} {};", num(mean->x[i]), num(mean->load[i]), num(mean->low[i]),
                                num(mean->high[i]), num(mean->least[i]), num(mean->greatest[i]));
            pin.line(text);
        }
        if (const auto plain = plainMean(all, 20))
            pin.say("plain {} {}", num(plain->bias), num(plain->load[plain->load.size() / 2]));
        const Pyramid pyramid(log.load);
        std::string drawn = "drawn";
        for (const auto& p : pyramid.draw(log.time, log.load, 1, 9, 12))
            drawn += " " + num(p.x) + "," + num(p.y);
        pin.line(drawn);
        for (const double at : {0.5, 3.0, 7.0})
            if (const auto steady = steadyAt(log, at, 0.8)) {
                std::string text = fmt::format("steady {}..{} {} {}", num(steady->from), num(steady->to),
                                               steady->samples, steady->still);
                for (const auto& c : steady->channels)
                    text += fmt::format(" {} {} {} {}", c.name, num(c.mean), num(c.sd), num(c.drift));
                pin.line(text);
            }
        if (const auto common = commonSteady(log, 0.3))
            pin.say("common {}..{}", num(common->from), num(common->to));
    }
    pin.check("cuts");
}

} // namespace
} // namespace anvil::curve
