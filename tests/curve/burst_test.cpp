// The blow of a fall against closed forms and brute force.
#include <anvil/curve/burst.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>
#include <random>

namespace anvil::curve {
namespace {

constexpr double g0 = 9.80665;

struct Log {
    std::vector<double> t, a;
};

/// A half sine of `peak` g₀ and `width` s, sampled at `rate`, with a quiet second around it.
Log halfSine(double peak, double width, double rate) {
    Log log;
    for (int i = 0; i < static_cast<int>(rate * 0.2); ++i) {
        const double t = i / rate, x = t - 0.1;
        log.t.push_back(t);
        log.a.push_back(x >= 0 && x <= width ? peak * g0 * std::sin(std::numbers::pi * x / width) : 0);
    }
    return log;
}

TEST(Burst, AHalfSineSaysWhatItsFormulaSays) {
    for (const double width : {0.004, 0.011, 0.02}) {
        const auto log = halfSine(80, width, 20000);
        const auto burst = readBurst(log.t, log.a);
        ASSERT_TRUE(burst);
        EXPECT_NEAR(burst->peak, 80 * g0, 80 * g0 * 1e-4);
        EXPECT_NEAR(burst->width, 2 * width / 3, 2e-5);                                   // sin x ≥ 1/2
        EXPECT_NEAR(burst->velocityChange, 2 * 80 * g0 * width / std::numbers::pi, 0.01); // ∫ sin
        EXPECT_NEAR(burst->peakTime, 0.1 + width / 2, 1e-4);
        // The best window of a half sine, by a fine search over symmetric windows.
        double best = 0;
        for (double half = 1e-4; half <= width / 2; half += 1e-6) {
            const double w = std::numbers::pi * half / width, mean = 80 * std::sin(w) / w;
            best = std::max(best, 2 * half * std::pow(mean, 2.5));
        }
        EXPECT_NEAR(burst->severity, best, 1e-3 * best);
    }
}

TEST(Burst, SeverityIsThatOfBruteForce) {
    std::mt19937 random(7);
    std::uniform_real_distribution<> any(-30, 90);
    for (int set = 0; set < 20; ++set) {
        Log log;
        for (int i = 0; i < 120; ++i) {
            log.t.push_back(i * 0.0007);
            log.a.push_back(any(random) * g0);
        }
        double best = 0;
        for (std::size_t i = 0; i < log.t.size(); ++i)
            for (std::size_t k = i + 1; k < log.t.size() && log.t[k] - log.t[i] <= 0.036 + 1e-12; ++k) {
                double area = 0;
                for (std::size_t m = i; m < k; ++m)
                    area += 0.5 * (log.a[m] + log.a[m + 1]) / g0 * (log.t[m + 1] - log.t[m]);
                const double mean = area / (log.t[k] - log.t[i]);
                if (mean > 0) best = std::max(best, (log.t[k] - log.t[i]) * std::pow(mean, 2.5));
            }
        EXPECT_NEAR(severityOf(log.t, log.a).value, best, 1e-9 * best);
    }
}

TEST(Burst, SeverityOfAPlateauIsItsWindow) {
    Log log;
    for (int i = 0; i <= 1000; ++i) {
        log.t.push_back(i * 1e-4);
        log.a.push_back(50 * g0);
    }
    const auto s = severityOf(log.t, log.a);
    EXPECT_NEAR(s.value, 0.036 * std::pow(50, 2.5), 1e-6 * s.value);
    EXPECT_NEAR(s.to - s.from, 0.036, 1e-9);
    EXPECT_NEAR(severityOf(log.t, log.a, 0.015).value, 0.015 * std::pow(50, 2.5), 1e-3);
    for (auto& a : log.a)
        a = -a;
    EXPECT_EQ(severityOf(log.t, log.a).value, 0);
}

/// All windows, one after the other.
Severity byForce(const Log& log, double longest) {
    const auto& [t, a] = log;
    std::vector<double> sum(a.size(), 0.0);
    for (std::size_t i = 1; i < a.size(); ++i)
        sum[i] = sum[i - 1] + 0.5 * (a[i] + a[i - 1]) / g0 * (t[i] - t[i - 1]);
    Severity best;
    double greatest = 0;
    for (std::size_t i = 0; i + 1 < a.size(); ++i)
        for (std::size_t k = i + 1; k < a.size() && t[k] - t[i] <= longest * (1 + 1e-9); ++k) {
            const double s = sum[k] - sum[i], width = t[k] - t[i];
            const double square = s > 0 && width > 0 ? s * s * s * s * s / (width * width * width) : 0;
            if (square > greatest) {
                greatest = square;
                best = {std::sqrt(square), t[i], t[k]};
            }
        }
    return best;
}

TEST(Burst, SeverityIsTheOneOfAllWindowsWhateverTheShape) {
    std::mt19937 random(11);
    std::normal_distribution<double> normal;
    for (int round = 0; round < 60; ++round) {
        Log log;
        double t = 0, level = 0;
        const auto n = 3 + static_cast<int>(random() % 1200);
        for (int i = 0; i < n; ++i) {
            t += 1e-4 * (round % 3 == 0 ? 1 : 0.2 + static_cast<double>(random() % 100) / 50);
            switch (round % 4) {
            case 0: // a walk through both signs
                level += 20 * normal(random);
                break;
            case 1: // noise alone
                level = normal(random);
                break;
            case 2: // a plateau with many windows alike
                level = i > n / 3 && i < n / 2 ? 400 : 0;
                break;
            default: // several blows
                level = 300 * std::pow(std::sin(0.02 * i), 15) + 3 * normal(random);
            }
            log.t.push_back(t);
            log.a.push_back(level);
        }
        for (const double longest : {0.036, 0.003, 1.0}) {
            const auto want = byForce(log, longest), got = severityOf(log.t, log.a, longest);
            EXPECT_EQ(got.value, want.value) << round << " " << longest;
            EXPECT_EQ(got.from, want.from) << round << " " << longest;
            EXPECT_EQ(got.to, want.to) << round << " " << longest;
        }
    }
}

TEST(LowPass, HalvesThePowerAtItsCutOffAndShiftsNothing) {
    const double rate = 10000;
    for (const double f : {20.0, 100.0, 400.0}) {
        std::vector<double> v;
        for (int i = 0; i < 20000; ++i)
            v.push_back(std::sin(2 * std::numbers::pi * f * i / rate));
        const auto out = lowPassed(v, rate, 100);
        ASSERT_TRUE(out);
        // Amplitude and phase in the middle, by correlation.
        double s = 0, c = 0;
        for (int i = 5000; i < 15000; ++i) {
            s += 2 * (*out)[static_cast<std::size_t>(i)] * std::sin(2 * std::numbers::pi * f * i / rate) /
                 10000;
            c += 2 * (*out)[static_cast<std::size_t>(i)] * std::cos(2 * std::numbers::pi * f * i / rate) /
                 10000;
        }
        // Each pass: 1/√(1 + (f/f₀)⁴) with f₀ = cut-off/0.8022; both: its square.
        const double wanted = 1 / (1 + std::pow(std::tan(std::numbers::pi * f / rate) /
                                                    std::tan(std::numbers::pi * 100 / 0.8022 / rate),
                                                4));
        EXPECT_NEAR(std::hypot(s, c), wanted, 2e-3) << f;
        EXPECT_NEAR(c, 0, 2e-3) << "no shift at " << f;
    }
    EXPECT_NEAR(1 / (1 + std::pow(0.8022, 4)), 0.7071, 2e-4) << "−3 dB at the cut-off";
    EXPECT_FALSE(lowPassed(std::vector<double>(100, 1.0), 1000, 600));
    EXPECT_FALSE(lowPassed(std::vector<double>(100, 1.0), 1000, 0));
    EXPECT_NEAR(lowPassed(std::vector<double>(100, 3.0), 1000, 50)->at(50), 3, 1e-9) << "a level stays";
}

TEST(Burst, IsRefusedWhereItCannotBe) {
    EXPECT_FALSE(readBurst(std::vector<double>{0, 1, 2}, std::vector<double>{1, 2, 3}));
    const std::vector<double> t{0, 1, 2, 3, 4, 5, 6};
    EXPECT_FALSE(readBurst(t, std::vector<double>(7, -1.0)));
    std::vector<double> uneven{0, 1, 2, 3, 4.5, 5, 6};
    const std::vector<double> a{0, 1, 2, 3, 2, 1, 0};
    EXPECT_TRUE(readBurst(uneven, a));
    EXPECT_FALSE(readBurst(uneven, a, {0.2})) << "an uneven clock cannot be filtered";
}

} // namespace
} // namespace anvil::curve
