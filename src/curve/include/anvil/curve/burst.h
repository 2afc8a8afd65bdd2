// The blow of a fall: a burst of acceleration, filtered, and what it says.
#pragma once

#include <anvil/quantity/error.h>
#include <optional>
#include <span>
#include <vector>

namespace anvil::curve {

/// How a blow is read.
struct BurstSettings {
    double lowPass = 0;           ///< Hz, cut-off of the low-pass; 0: as recorded
    double longestWindow = 0.036; ///< s, of the severity
    bool operator==(const BurstSettings&) const = default;
};

/// What a blow says; accelerations as it was filtered.
struct Burst {
    double peak = 0;           ///< m/s²
    double peakTime = 0;       ///< s
    double width = 0;          ///< s, at half the peak, crossings interpolated
    double velocityChange = 0; ///< m/s, the integral from where it rises to where it is gone again
    double severity = 0;       ///< s: (t₂ − t₁)·(mean of a/g₀)^2.5 at its greatest
    double severityFrom = 0, severityTo = 0; ///< s, the window of it
    double lowPass = 0;                      ///< Hz; 0: as recorded
    bool operator==(const Burst&) const = default;
};

/// A second-order Butterworth low-pass run forward and backward, so that nothing is shifted; each pass is
/// designed at cutOff/0.8022, which puts −3 dB of both together at the cut-off. The bilinear transform with
/// its frequency warped beforehand (Oppenheim and Schafer 2010, §7.1; Winter 2009, §3.4.4 for the
/// correction). `rate`: samples a second. Error: a cut-off that is not between 0 and 0.4 of the rate.
Expected<std::vector<double>> lowPassed(std::span<const double> values, double rate, double cutOff);

/// The severity integral: the greatest (t₂ − t₁)·[mean of a/g₀ over the window]^2.5 over all windows between
/// samples that are no longer than `longest`, s; the mean by the trapezoid rule.
struct Severity {
    double value = 0, from = 0, to = 0; ///< s
};
/// Of accelerations in m/s² at rising times in s; 0 where there is none above zero.
Severity severityOf(std::span<const double> time, std::span<const double> acceleration,
                    double longest = 0.036);

/// Reads a blow from accelerations above their baseline, m/s², at rising times, s. `noise`: their standard
/// deviation; the blow begins and ends where it is within three of them. Error: too few samples, or a filter
/// that cannot be at this rate.
Expected<Burst> readBurst(std::span<const double> time, std::span<const double> acceleration,
                          const BurstSettings& settings = {}, double noise = 0);

} // namespace anvil::curve
