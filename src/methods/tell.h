// How a method's file gives back its numbers.
#pragma once

#include <anvil/methods/method.h>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace anvil::methods {

inline constexpr double g0 = 9.80665; ///< m/s², standard gravity (CGPM 1901)

/// Gathers the numbers of one pull; metrics that nobody speaks of say why.
class Tell {
public:
    Tell(const Method& method, const Evidence& evidence) : m_evidence(evidence) {
        for (const auto& metric : method.metrics)
            m_out.numbers.push_back({&metric, {}, false, {}});
    }
    /// A value of a metric of this method.
    void number(std::string_view metric, const std::optional<stats::Value>& value, bool guess = false) {
        if (auto* n = find(metric); n && value) {
            n->value = value;
            n->guess = guess;
        }
    }
    /// A value that stands as its pull does.
    void said(std::string_view metric, double value) {
        number(metric, stats::Value{value, m_evidence.bound, value});
    }
    /// Why a number is only a bound.
    void bound(std::string_view metric, BoundBy why) {
        if (auto* n = find(metric)) n->boundBy = why;
    }
    void exact(std::string_view metric, double value) {
        number(metric, stats::Value{value, stats::Bound::exact, value});
    }
    /// Why a metric has no value; the first reason stands.
    void without(std::string_view metric, std::string_view why);
    void note(std::string_view text);
    bool tells(std::string_view metric) {
        const auto* n = find(metric);
        return n && n->value;
    }
    /// A rate of successes.
    void counted(std::string_view metric, stats::Tally tally) {
        said(metric, static_cast<double>(tally.successes) / tally.tries);
        if (auto* n = find(metric)) n->tally = tally;
    }
    Numbers done() { return std::move(m_out); }

private:
    Number* find(std::string_view metric) {
        for (auto& n : m_out.numbers)
            if (n.metric->key == metric) return &n;
        return nullptr;
    }
    const Evidence& m_evidence;
    Numbers m_out;
};

/// A value times a factor above zero: a bound stays one.
inline stats::Value times(stats::Value v, double factor) {
    v.value *= factor;
    v.upper *= factor;
    return v;
}

/// The greatest load: as entered under "peak", else read from a curve of this load, with the state of its
/// pull.
struct Peak {
    std::optional<stats::Value> value;
    bool guess = false;
    std::string whyNot;
};
Peak peakOf(const Evidence& evidence, quantity::Dimension load = quantity::Dimension::force);

/// The greatest load under the metric "peak", or why there is none; and what it is.
Peak tellPeak(Tell& tell, const Evidence& evidence);

/// What a force curve says of the metrics peak, first_slip, stiffness, energy and residual, of those the
/// method has, and gives back the peak. A bound leaves no residual; first slip and stiffness were seen before
/// it.
Peak tellForceCurve(Tell& tell, const Evidence& evidence);

/// What a curve answers where it was asked, and what was said of the piece afterwards: the metrics
/// force_at_displacement, displacement_at_force, relaxation, permanent_set and afterwards, of those the
/// method has.
void tellAsked(Tell& tell, const Evidence& evidence);

/// 1/x, where there is an x.
inline std::optional<double> over(std::optional<double> x) {
    return x ? std::optional(1 / *x) : std::nullopt;
}

/// A metric that is the peak times a factor, such as 1/area; without a factor it says what is missing.
void tellFromPeak(Tell& tell, std::string_view metric, const Peak& peak, std::optional<double> factor,
                  std::string_view missing);

/// The stiffness of a force curve or as entered, N/m; empty: neither.
std::optional<double> stiffnessOf(const Evidence& evidence);

/// Error: two cross-sections were entered, such as an area beside a diameter, or strands of what is no round
/// one.
Expected<void> oneSection(const Evidence& evidence);
/// The cross-section, m²: as entered under "area", from breadth and thickness (or depth), or from diameter
/// (and wall: a tube); empty where none is complete.
std::optional<double> areaOf(const Evidence& evidence);

} // namespace anvil::methods
