#include <anvil/curve/reading.h>

#include "asked.h"
#include "line.h"
#include "parts.h"
#include "rest.h"
#include <algorithm>
#include <anvil/curve/steady.h>
#include <anvil/quantity/print.h>
#include <boost/math/distributions/normal.hpp>
#include <cmath>
#include <fmt/format.h>

namespace anvil::curve {
namespace {

using quantity::percent;

std::size_t nearest(std::span<const double> time, double t) {
    const auto at = std::lower_bound(time.begin(), time.end(), t);
    if (at == time.end()) return time.size() - 1;
    const auto i = static_cast<std::size_t>(at - time.begin());
    return i > 0 && t - time[i - 1] < time[i] - t ? i - 1 : i;
}

/// How much too high a peak picked from noise is expected to read: the mean of the greatest of k normal
/// deviates (Blom 1958), k the samples around the peak that noise could have lifted to the top.
double peakPickingBias(std::span<const double> f, std::size_t peak, double noise) {
    const double floor = f[peak] - 5 * noise;
    std::size_t k = 1;
    for (std::size_t i = peak; i-- > 0 && f[i] > floor;)
        ++k;
    for (std::size_t i = peak + 1; i < f.size() && f[i] > floor; ++i)
        ++k;
    if (k < 2) return 0;
    const auto n = static_cast<double>(k);
    return noise * boost::math::quantile(boost::math::normal(), (n - 0.375) / (n + 0.25));
}

} // namespace

ReadingSettings ReadingSettings::withoutHand() const {
    auto out = *this;
    out.peak = out.firstSlip = out.breakPoint = out.fitFrom = out.fitTo = out.holdFrom = out.holdTo =
        std::nullopt;
    return out;
}

namespace {

struct Reader {
    const ReadingSettings& settings;
    Reading r;
    std::span<const double> t, f, x;   ///< x: displacement along the pull, or empty
    std::optional<std::size_t> jump{}; ///< sample before which the level jumped under load

    std::span<const double> abscissa() const { return x.empty() ? t : x; }

    Landmark landmark(std::size_t i, bool byHand = false) const {
        Landmark m{i, t[i], f[i], std::nullopt, byHand};
        return m;
    }

    bool reachesLimit(std::span<const double> rawLoad, const std::vector<std::size_t>& spikes) const {
        if (!(settings.rigLimit.value_or(0) > 0)) return false;
        std::size_t s = 0;
        for (std::size_t i = 0; i < rawLoad.size(); ++i) {
            if (s < spikes.size() && spikes[s] == i)
                ++s;
            else if (std::abs(rawLoad[i]) >= 0.998 * *settings.rigLimit)
                return true;
        }
        return false;
    }

    /// Whether the top is the piece's own, the rig's end, or somebody should look.
    void judgeTop(std::span<const double> rawLoad, const std::vector<std::size_t>& spikes) {
        r.offScale = r.offScale || reachesLimit(rawLoad, spikes);
        if (r.offScale) return;
        const std::size_t top = peakIndex(f);
        if (stoodStill(x, f, r.departure, top, r.noise)) return; // held there, on purpose
        if (flatTop(f, r.noise, r.resolution)) {
            const double limit = settings.rigLimit.value_or(0), shown = std::abs(rawLoad[top]);
            r.offScale = !(limit > 0) || shown >= 0.9 * limit;
            if (r.offScale)
                r.warnings.push_back(
                    "The top of the curve is flat: it was clipped somewhere in the chain, so "
                    "the peak is \"at least\".");
            else
                r.warnings.push_back(
                    fmt::format("The top of the curve is flat far below the rig's limit: it "
                                "counts as a plateau, at {} of the limit. Look whether it is "
                                "one.",
                                percent(shown / limit)));
        } else if (clippedUnderNoise(f, top, r.noise, r.resolution)) {
            r.warnings.push_back("The top of the curve is flat within its noise, at the end of a steep rise: "
                                 "was it clipped somewhere in the chain? Then the peak is \"at least\".");
        }
    }

    void findPeakAndScale(std::span<const double> rawLoad, const std::vector<std::size_t>& spikes) {
        std::size_t at = peakIndex(f);
        const bool byHand = settings.peak && !settings.peak->none;
        if (byHand) at = nearest(t, settings.peak->time);
        r.peak = landmark(at, byHand);
        judgeTop(rawLoad, spikes);
        if (const double shown = r.peak.load + r.baseline;
            settings.calibratedTo && *settings.calibratedTo > 0 && shown > *settings.calibratedTo) {
            r.guessed = true;
            r.warnings.push_back(
                fmt::format("The peak lies {} beyond the end of the calibration table: up there "
                            "the load is a guess.",
                            percent(shown / *settings.calibratedTo - 1)));
        }
        if (at < 50)
            r.warnings.push_back(fmt::format(
                "Only {} samples up to the peak: spikes and slips are hard to tell apart.", at + 1));
        if (r.noise > 0.003 * r.peak.load && !r.offScale)
            r.warnings.push_back(fmt::format(
                "Noise is {} of the peak: a peak picked from noise reads high, here by about {}.",
                percent(r.noise / r.peak.load), percent(peakPickingBias(f, at, r.noise) / r.peak.load)));
    }

    void findJump(double baseline) {
        jump = jumpUnderLoad(f, r.departure, r.peak.index, baseline, r.noise, r.resolution);
        if (jump)
            r.warnings.push_back(
                fmt::format("The force jumps at {:.4g} s and goes on from there: was the zero set "
                            "again under load? Then the peak is off by as much.",
                            t[*jump]));
    }

    /// Whether the displacement went back with the force between the peak and sample `i`.
    bool letDown(std::size_t i) const {
        if (x.empty()) return false;
        return x[r.peak.index] - x[i] > 0.05 * (x[r.peak.index] - x[r.departure]);
    }

    void findSlipAndBreak() {
        if (settings.firstSlip) {
            if (!settings.firstSlip->none) r.firstSlip = landmark(nearest(t, settings.firstSlip->time), true);
        } else if (const auto slip = firstSlip(f, t, x, r.departure, r.peak.index, r.noise, r.resolution);
                   slip && !(jump && *slip < *jump && *jump - *slip <= 2)) {
            r.firstSlip = landmark(*slip);
        }
        if (settings.breakPoint) {
            if (!settings.breakPoint->none)
                r.breakPoint = landmark(nearest(t, settings.breakPoint->time), true);
            return;
        }
        const double level = settings.breakShare * r.peak.load;
        std::size_t i = r.peak.index + 1;
        while (i < f.size() && f[i] >= level)
            ++i;
        if (i >= f.size()) return;
        if (letDown(i))
            r.notes.push_back("The piece was let down after the peak: it did not break.");
        else
            r.breakPoint = landmark(i);
    }

    void findStiffness() {
        if (x.empty()) return;
        const bool slipFirst = r.firstSlip && r.firstSlip->index < r.peak.index;
        const std::size_t end = slipFirst ? r.firstSlip->index : r.peak.index;
        if (settings.fitFrom && settings.fitTo) {
            std::size_t a = nearest(t, settings.fitFrom->time), b = nearest(t, settings.fitTo->time);
            if (a > b) std::swap(a, b);
            if (b >= a + 2)
                setStiffness(fitLine(x, f, a, b), a, b, true);
            else
                r.warnings.push_back("The stiffness line set by hand spans fewer than three samples, so "
                                     "there is no stiffness.");
            return;
        }
        if (settings.stiffnessBy != StiffnessBy::straightPart) return findChord();
        const auto found = straightSteepPart(x, f, r.departure, end, f[end], r.noise);
        if (!found) return;
        if (!found->straight)
            r.warnings.push_back("No part of the rise is straight: the stiffness is the best line there is.");
        setStiffness(found->fit, found->first, found->last, false);
    }

    /// The stiffness as a chord or secant, as it was chosen.
    void findChord() {
        const double top = r.peak.load;
        const bool shares = settings.stiffnessBy == StiffnessBy::chordOfShares;
        if (settings.stiffnessBy == StiffnessBy::secant) {
            if (r.peak.index < r.departure + 2) return;
            const double way = x[r.peak.index] - x[r.departure];
            if (!(way > 0)) {
                r.warnings.push_back(
                    "The displacement stands still up to the peak, so there is no stiffness.");
                return;
            }
            LineFit line;
            line.slope = (top - f[r.departure]) / way;
            line.intercept = top - line.slope * x[r.peak.index];
            line.r2 = 1;
            line.samples = r.peak.index - r.departure + 1;
            return setStiffness(line, r.departure, r.peak.index, false);
        }
        const auto chord =
            chordBetween(x, f, r.departure, r.peak.index, settings.chordFrom * (shares ? top : 1),
                         settings.chordTo * (shares ? top : 1));
        if (chord) return setStiffness(chord->fit, chord->first, chord->last, false);
        r.warnings.push_back(
            "The loads between which the stiffness was to be read are not both reached on the way "
            "up, so there is no stiffness.");
    }

    void setStiffness(const LineFit& fit, std::size_t a, std::size_t b, bool byHand) {
        if (!(fit.slope > 0) || !std::isfinite(fit.slope) || fit.samples < 3) {
            r.warnings.push_back("The force does not rise with the displacement, so there is no stiffness.");
            return;
        }
        r.stiffness =
            Stiffness{fit.slope, fit.standardError, fit.r2, f[a], f[b], a, b, fit.samples, false, byHand};
        r.toe = -fit.intercept / fit.slope;
    }

    void measureFromToe() {
        if (x.empty()) return;
        if (!r.toe) {
            std::size_t i = r.departure;
            while (i < r.peak.index && f[i] <= 0.02 * r.peak.load)
                ++i;
            r.toe = x[i];
        }
        r.slack = *r.toe - x.front();
        const auto set = [&](Landmark& m) { m.travel = x[m.index] - *r.toe; };
        set(r.peak);
        if (r.firstSlip) set(*r.firstSlip);
        if (r.breakPoint) set(*r.breakPoint);
    }

    /// What is read only where it is asked for.
    void findAsked() {
        if (settings.holdFrom && settings.holdTo) {
            std::size_t a = nearest(t, settings.holdFrom->time), b = nearest(t, settings.holdTo->time);
            if (a > b) std::swap(a, b);
            r.hold = heldOver(t, f, a, b);
        }
        if (settings.sustainedFor > 0)
            r.sustained = sustainedLoad(t, x, f, r.departure, settings.sustainedFor, settings.sustainedSpeed);
        if (x.empty()) return;
        if (r.stiffness && settings.yieldOffset)
            r.yield = yieldAt(t, x, f, r.stiffness->toIndex, r.peak.index, r.stiffness->value, *r.toe,
                              *settings.yieldOffset);
        if (settings.atTravel)
            r.loadAtTravel = At{*settings.atTravel, loadAt(x, f, r.departure, *r.toe, *settings.atTravel)};
        if (settings.atLoad)
            r.travelAtLoad = At{*settings.atLoad, travelAt(x, f, r.departure, *r.toe, *settings.atLoad)};
        if (!r.breakPoint) r.permanent = permanentAfter(x, f, r.peak.index, *r.toe);
    }

    void findEnergies() {
        if (x.empty()) return;
        double sum = 0;
        const std::size_t last = std::max(
            {r.peak.index, r.firstSlip ? r.firstSlip->index : 0, r.breakPoint ? r.breakPoint->index : 0});
        const auto note = [&](std::size_t i) {
            if (r.firstSlip && i == r.firstSlip->index) r.energyToFirstSlip = sum;
            if (i == r.peak.index) r.energyToPeak = sum;
            if (r.breakPoint && i == r.breakPoint->index) r.energyToBreak = sum;
        };
        note(r.departure);
        for (std::size_t i = r.departure + 1; i <= last; ++i) {
            sum += 0.5 * (f[i] + f[i - 1]) * (x[i] - x[i - 1]);
            note(i);
        }
    }

    void findAfterPeak() {
        const auto a = abscissa();
        double start = 0;
        if (!x.empty()) {
            start = *r.toe;
        } else {
            std::size_t i = r.departure;
            while (i < r.peak.index && f[i] <= 0.02 * r.peak.load)
                ++i;
            start = t[i];
        }
        r.residual = residual(a, f, r.peak.index, a[r.peak.index] - start);
        r.fall = fall(a, f, r.peak.index);
    }

    void findRates() {
        std::size_t from = r.departure, to = r.departure;
        for (std::size_t i = r.peak.index; i > r.departure && !(f[i] < 0.2 * r.peak.load); --i) {
            from = i;
            if (f[i] >= 0.8 * r.peak.load) to = i;
        }
        if (to < from + 2) return;
        r.loadRate = fitLine(t, f, from, to).slope;
        if (!x.empty() && !r.stiffness.value_or(Stiffness{}).includesRigStretch)
            r.travelRate = fitLine(t, x, from, to).slope;
    }
};

/// What had to be done to the clock, said.
void tellOrder(Reading& r, const Ordered& ordered, bool clock) {
    if (ordered.moved)
        r.notes.push_back(
            fmt::format("{} time stamps were out of order and have been sorted.", ordered.moved));
    if (ordered.spread)
        r.notes.push_back(
            fmt::format("{} samples shared a time stamp and were spread evenly.", ordered.spread));
    if (ordered.otherRuns)
        r.warnings.push_back(fmt::format(
            "The clock steps back: the last {} samples belong to another run and are not read here.",
            ordered.otherRuns));
    if (!clock) r.warnings.push_back("The log has no clock: samples are numbered as if one a second.");
}

/// What the level after the pull says of the zero, done and said.
void settle(Cleaned& c, Reading& r, std::span<const double> time) {
    const auto settled = settleZero(c.load, time, r.departure, r.noise);
    if (settled.step) {
        r.warnings.push_back(fmt::format(
            "The zero was set again under load at {:.4g} s, by {} of the peak, as the level "
            "after the pull shows: "
            "that step is taken back. Look whether it was one.",
            time[settled.step->at],
            percent(std::abs(settled.step->by) / *std::max_element(c.load.begin(), c.load.end()))));
    } else if (settled.drift) {
        const auto again = findBaseline(c.load, r.noise, r.resolution);
        if (again.level) {
            for (auto& f : c.load)
                f -= *again.level;
            r.departure = again.end;
        }
        r.guessed = r.guessed || settled.drift->byLine;
        r.warnings.push_back(fmt::format(
            "The zero drifted by {} of the peak over the log{}: it is taken off along a straight line.",
            percent(std::abs(settled.drift->slope) * (time.back() - time.front()) /
                    *std::max_element(c.load.begin(), c.load.end())),
            settled.drift->byLine ? ", as the levels before and after the pull show" : ""));
    } else if (settled.below > 0) {
        r.guessed = true;
        r.warnings.push_back(
            fmt::format("After the pull the load rests {} of the peak below its zero, and nothing in the log "
                        "tells why: the "
                        "zero moved under load, and the peak is a guess.",
                        percent(settled.below / *std::max_element(c.load.begin(), c.load.end()))));
    }
}

/// Where nothing was logged under load; a peak that may lie there is at least what was seen.
void tellGaps(const Cleaned& c, Reading& r, std::span<const double> time) {
    for (const auto& gap : gapsUnderLoad(c.load, time)) {
        r.warnings.push_back(fmt::format(
            "Nothing was logged from {:.4g} s to {:.4g} s, under load{}.", time[gap.before],
            time[gap.before + 1], gap.atPeak ? ": the peak may lie there, so it is \"at least\"" : ""));
        r.offScale = r.offScale || gap.atPeak;
    }
}

/// Bridges spikes, takes the zero off and turns the load upwards; what is taken off every force, by its sign.
/// Error: nothing is pulled in this log.
Expected<double> clean(Cleaned& c, Reading& r, const Ordered& ordered, const ReadingSettings& settings) {
    c.load.assign(ordered.load.begin(), ordered.load.end());
    r.resolution = resolution(ordered.load);
    r.noise = noise(ordered.load, r.resolution, longestLag(ordered.time));
    c.spikes = removeSpikes(c.load, r.noise, r.resolution);
    r.spikes = c.spikes.size();

    const auto zero = findBaseline(c.load, r.noise, r.resolution);
    r.departure = zero.end;
    if (zero.level) {
        r.baseline = *zero.level;
        if (zero.setAgain)
            r.notes.push_back("The zero was set again before the load came: the last one counts.");
    } else {
        r.warnings.push_back("The log starts under load: no zero could be read, so forces are as logged.");
        r.departure = 0;
    }
    r.flipped = pullsDown(c.load, ordered.time, r.baseline);
    const double sign = r.flipped ? -1 : 1;
    if (r.flipped) r.notes.push_back("The load was logged as negative force and has been turned round.");
    // What the baseline took away although the piece carries it; without a baseline it is still there.
    const double preload = zero.level ? settings.preload : 0;
    for (auto& f : c.load)
        f = sign * (f - r.baseline) + preload;
    const double top = *std::max_element(c.load.begin(), c.load.end()) - preload;
    if (!(top > 0) || (zero.level && top <= 5 * r.noise))
        return fail("The force never rises clearly above its noise: there is no pull in this log.");
    if (zero.level && preload == 0) settle(c, r, ordered.time);
    tellGaps(c, r, ordered.time);
    return sign * r.baseline;
}

/// What a torque gives within its first turns.
void readTurning(Reading& r, const Curve& raw, std::span<const double> angle, std::span<const double> torque,
                 const ReadingSettings& settings) {
    r.loadKind = raw.loadKind;
    r.travelKind = raw.travelKind;
    if (raw.loadKind != quantity::Dimension::torque) return;
    r.breakaway = r.peak.load; // without an angle: the greatest there was
    if (raw.travelKind != quantity::Dimension::angle || angle.empty()) return;
    const auto turned = turning(angle, torque, r.departure, settings.breakawayWithin, settings.runningUntil);
    r.breakaway = turned.breakaway;
    r.running = turned.running;
}

/// All channels of force over the longest window in which they stood still.
void readTogether(Reading& r, const Curve& raw, std::span<const double> cleanTime,
                  const ReadingSettings& settings) {
    const auto window = raw.others.empty() ? std::nullopt : commonSteady(raw);
    if (!window) return;
    // Where the main channel has a baseline, the others showed theirs at the same time.
    const double left = cleanTime[r.departure];
    const auto rest = r.baseline != 0 ? steadyAt(raw, left, left - raw.time[0]) : std::nullopt;
    const double load = (r.flipped ? -1 : 1) * (window->channels.front().mean - r.baseline);
    Together all{window->from, window->to, load + settings.preload, {}};
    for (std::size_t i = 1; i < window->channels.size(); ++i)
        if (const auto& c = window->channels[i]; c.unit == "N")
            all.others.emplace_back(c.name, std::abs(c.mean - (rest ? rest->channels[i].mean : 0)));
    r.together = std::move(all);
}

/// What the way is measured by: the displacement, else the crosshead's speed, else nothing.
void chooseWay(Reader& reader, const Ordered& ordered, const ReadingSettings& settings,
               std::vector<double>& along) {
    if (!ordered.travel.empty()) {
        reader.x = ordered.travel;
    } else if (settings.crossheadSpeed && *settings.crossheadSpeed > 0) {
        along.resize(ordered.time.size());
        for (std::size_t i = 0; i < along.size(); ++i)
            along[i] = (ordered.time[i] - ordered.time[0]) * *settings.crossheadSpeed;
        reader.x = along;
    } else {
        reader.r.againstTime = true;
    }
}

/// Counts a logged way in the direction of the pull and takes the rig's stretch off it; whether it was
/// turned.
bool straightenWay(Reader& reader, const Ordered& ordered, const ReadingSettings& settings,
                   std::vector<double>& along) {
    auto& r = reader.r;
    const bool reversed = !ordered.travel.empty() && reader.x[r.peak.index] < reader.x[r.departure];
    if (reversed) {
        along.resize(reader.x.size());
        std::transform(reader.x.begin(), reader.x.end(), along.begin(), [](double d) { return -d; });
        reader.x = along;
        r.notes.push_back("Displacement was logged as negative and has been turned round.");
    }
    if (settings.rigCompliance > 0 && !reader.x.empty() && !ordered.travel.empty()) {
        if (!reversed) along.assign(reader.x.begin(), reader.x.end());
        for (std::size_t i = 0; i < along.size(); ++i)
            along[i] -= settings.rigCompliance * reader.f[i];
        reader.x = along;
        r.notes.push_back("The stretch of the rig is taken off the displacement.");
    }
    return reversed;
}

Expected<ReadCurve> readImpl(const Curve& raw, const ReadingSettings& settings, bool keep) {
    const Ordered ordered = order(raw);
    const std::size_t n = ordered.load.size();
    Reader reader{settings, {}, {}, {}, {}};
    Reading& r = reader.r;
    r.samples = n;
    r.dropped = ordered.dropped;
    if (n < 3) return fail(fmt::format("Only {} usable sample{}: nothing to read.", n, n == 1 ? "" : "s"));
    tellOrder(r, ordered, !raw.time.empty());
    Cleaned c;
    const auto taken = clean(c, r, ordered, settings);
    if (!taken) return tl::unexpected(taken.error());
    reader.t = ordered.time;
    reader.f = c.load;
    std::vector<double> along; // displacement counted in the direction of the pull
    chooseWay(reader, ordered, settings, along);
    reader.findPeakAndScale(ordered.load, c.spikes);
    if (r.peak.index < r.departure) r.departure = 0;
    const bool reversed = straightenWay(reader, ordered, settings, along);
    reader.findJump(*taken);
    reader.findSlipAndBreak();
    reader.findStiffness();
    reader.measureFromToe();
    reader.findAsked();
    reader.findEnergies();
    reader.findAfterPeak();
    if (r.stiffness && ordered.travel.empty()) {
        r.stiffness->includesRigStretch = true;
        r.notes.push_back("Stiffness is from the crosshead speed: it includes rig stretch.");
    }
    reader.findRates();
    readTurning(r, raw, reader.x, reader.f, settings);
    readTogether(r, raw, reader.t, settings);
    if (raw.loadKind == quantity::Dimension::acceleration) {
        const auto burst = readBurst(reader.t, reader.f, settings.burst, r.noise);
        if (burst)
            r.burst = *burst;
        else
            r.warnings.push_back(burst.error().message);
    }
    if (keep) {
        c.time.assign(ordered.time.begin(), ordered.time.end());
        c.travel.assign(reader.x.begin(), reader.x.end());
    }
    ReadCurve out{std::move(r), {}};
    if (reversed && out.reading.toe) out.reading.toe = -*out.reading.toe;
    if (keep) out.cleaned = std::move(c);
    return out;
}

} // namespace

Expected<Reading> read(const Curve& raw, const ReadingSettings& settings) {
    auto got = readImpl(raw, settings, false);
    if (!got) return tl::unexpected(got.error());
    return std::move(got->reading);
}

Expected<ReadCurve> readAndKeep(const Curve& raw, const ReadingSettings& settings) {
    return readImpl(raw, settings, true);
}

std::optional<double> loadAt(const ReadCurve& c, double travel) {
    const auto& x = c.cleaned.travel;
    if (x.empty() || !c.reading.peak.travel) return std::nullopt;
    const double toe = x[c.reading.peak.index] - *c.reading.peak.travel;
    for (std::size_t i = c.reading.departure + 1; i < x.size(); ++i) {
        const double a = x[i - 1] - toe, b = x[i] - toe;
        if (a <= travel && travel <= b && b > a)
            return c.cleaned.load[i - 1] +
                   (c.cleaned.load[i] - c.cleaned.load[i - 1]) * (travel - a) / (b - a);
    }
    return std::nullopt;
}

} // namespace anvil::curve
