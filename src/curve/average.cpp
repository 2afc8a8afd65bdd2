#include <anvil/curve/average.h>

#include <algorithm>
#include <cmath>

namespace anvil::curve {
namespace {

/// A curve's way up and beyond, against a rising abscissa.
struct Track {
    std::vector<double> x, load;
    double peakX = 0, peakLoad = 0;
    std::optional<double> breakX;
};

bool hasTravel(const ReadCurve& c) { return !c.cleaned.travel.empty() && c.reading.peak.travel; }

double placeOf(const ReadCurve& c, const Landmark& at, bool time) {
    return time ? at.time - c.cleaned.time[c.reading.departure] : at.travel.value_or(0);
}

/// What lies beyond everything before it; the peak itself is always there.
Track trackOf(const ReadCurve& c, bool time) {
    Track t;
    const auto& r = c.reading;
    const double zero = time ? c.cleaned.time[r.departure] : c.cleaned.travel[r.peak.index] - *r.peak.travel;
    const auto& along = time ? c.cleaned.time : c.cleaned.travel;
    t.peakX = placeOf(c, r.peak, time);
    t.peakLoad = r.peak.load;
    if (r.breakPoint) t.breakX = placeOf(c, *r.breakPoint, time);
    for (std::size_t i = 0; i < along.size(); ++i) {
        const double x = along[i] - zero;
        if (i == r.peak.index) { // what had run ahead of it goes
            while (!t.x.empty() && t.x.back() >= x) {
                t.x.pop_back();
                t.load.pop_back();
            }
        } else if (!t.x.empty() && x <= t.x.back()) {
            continue;
        }
        t.x.push_back(x);
        t.load.push_back(c.cleaned.load[i]);
    }
    return t;
}

double at(const Track& t, double x) {
    const auto after = std::lower_bound(t.x.begin(), t.x.end(), x);
    if (after == t.x.begin()) return t.load.front();
    if (after == t.x.end()) return t.load.back();
    const auto k = static_cast<std::size_t>(after - t.x.begin());
    const double w = (x - t.x[k - 1]) / (t.x[k] - t.x[k - 1]);
    return t.load[k - 1] + w * (t.load[k] - t.load[k - 1]);
}

std::vector<Track> tracks(const std::vector<const ReadCurve*>& curves, bool& time) {
    time = std::any_of(curves.begin(), curves.end(), [](const auto* c) { return !hasTravel(*c); });
    std::vector<Track> out;
    out.reserve(curves.size());
    for (const auto* c : curves)
        out.push_back(trackOf(*c, time));
    return out;
}

/// A force at a registered position: exactly the peak at 1.
double registered(const Track& t, double s, bool toTheBreak) {
    if (s == 1) return t.peakLoad;
    if (s < 1) return at(t, s * t.peakX);
    const double length = toTheBreak ? *t.breakX - t.peakX : t.peakX;
    return at(t, t.peakX + (s - 1) * length);
}

/// How far all of them go beyond the peak, registered.
double endOf(const std::vector<Track>& all, bool toTheBreak) {
    if (toTheBreak) return 2;
    double end = 2;
    for (const auto& t : all)
        end = std::min(end, 1 + (t.x.back() - t.peakX) / t.peakX);
    return std::max(1.0, end);
}

void addPoint(Average& out, const std::vector<Track>& all, double s, double x) {
    double sum = 0, least = INFINITY, greatest = -INFINITY;
    std::vector<double> loads;
    loads.reserve(all.size());
    for (const auto& t : all) {
        loads.push_back(registered(t, s, out.toTheBreak));
        sum += loads.back();
        least = std::min(least, loads.back());
        greatest = std::max(greatest, loads.back());
    }
    const auto n = static_cast<double>(all.size());
    const double mean = sum / n;
    double squares = 0;
    for (const double f : loads)
        squares += (f - mean) * (f - mean);
    const double sd = all.size() > 1 ? std::sqrt(squares / (n - 1)) : 0;
    out.x.push_back(x);
    out.load.push_back(mean);
    out.low.push_back(mean - sd);
    out.high.push_back(mean + sd);
    out.least.push_back(least);
    out.greatest.push_back(greatest);
}

} // namespace

std::optional<Average> averaged(const std::vector<const ReadCurve*>& curves, std::size_t points) {
    if (curves.empty() || points < 2) return {};
    Average out;
    const auto all = tracks(curves, out.againstTime);
    out.curves = all.size();
    double peakX = 0, beyond = 0;
    out.toTheBreak =
        std::all_of(all.begin(), all.end(), [](const Track& t) { return t.breakX && *t.breakX > t.peakX; });
    for (const auto& t : all) {
        if (!(t.peakX > 0) || t.x.size() < 2) return {};
        peakX += t.peakX / static_cast<double>(all.size());
    }
    for (const auto& t : all)
        beyond += (out.toTheBreak ? *t.breakX - t.peakX : t.peakX) / static_cast<double>(all.size());
    for (std::size_t i = 0; i < points; ++i) {
        const double s = static_cast<double>(i) / static_cast<double>(points);
        addPoint(out, all, s, s * peakX);
    }
    out.peak = out.x.size();
    addPoint(out, all, 1, peakX);
    const double end = endOf(all, out.toTheBreak);
    for (std::size_t i = 1; i <= points && end > 1; ++i) {
        const double s = 1 + (end - 1) * static_cast<double>(i) / static_cast<double>(points);
        addPoint(out, all, s, peakX + (s - 1) * beyond);
    }
    return out;
}

std::optional<PlainMean> plainMean(const std::vector<const ReadCurve*>& curves, std::size_t points) {
    if (curves.empty() || points < 2) return {};
    bool time = false;
    const auto all = tracks(curves, time);
    double end = INFINITY, peaks = 0;
    for (const auto& t : all) {
        if (t.x.empty()) return {};
        end = std::min(end, t.x.back());
        peaks += t.peakLoad / static_cast<double>(all.size());
    }
    if (!(end > 0)) return {};
    PlainMean out;
    double top = 0;
    for (std::size_t i = 0; i <= points; ++i) {
        const double x = end * static_cast<double>(i) / static_cast<double>(points);
        double sum = 0;
        for (const auto& t : all)
            sum += at(t, x);
        out.x.push_back(x);
        out.load.push_back(sum / static_cast<double>(all.size()));
        top = std::max(top, out.load.back());
    }
    out.bias = peaks - top;
    return out;
}

} // namespace anvil::curve
