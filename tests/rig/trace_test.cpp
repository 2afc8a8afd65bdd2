// The clock of a recording, and what is drawn of it.
#include <anvil/rig/live_trace.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::rig;

namespace {

TEST(Timeline, NeverStepsBackAndSaysWhatTheDeviceClockDid) {
    Timeline device;
    EXPECT_NEAR(device.stamp(100.0, 5.0), 5.0, 1e-12);
    EXPECT_NEAR(device.stamp(100.5, 5.51), 5.5, 1e-12) << "the device's own differences";
    EXPECT_EQ(device.jumps(), 0);
    const double after = device.stamp(0.0, 6.0); // the device started anew
    EXPECT_GE(after, 5.5);
    EXPECT_EQ(device.jumps(), 1);
    EXPECT_GE(device.stamp(0.1, 6.1), after);
    EXPECT_EQ(device.stamp(5000.0, 6.2) < 20, true) << "a leap is no five thousand seconds of pull";
    EXPECT_EQ(device.jumps(), 2);
    Timeline fast;
    for (int i = 0; i <= 200; ++i)
        fast.stamp(i * 0.1 * 1.001, i * 0.1);
    EXPECT_NEAR(*fast.skew(), 0.001, 1e-6);
    // A clock that runs 300 parts in a million fast, its lines late by 5 to 25 ms: after half an hour the
    // stamps are still this machine's, and none has stepped back.
    Timeline steered;
    double last = -1, worst = 0;
    for (int i = 0; i < 1800 * 20; ++i) {
        const double truth = i * 0.05;
        const double stamp =
            steered.stamp(77 + truth * 1.0003, 3 + truth + 0.005 + 0.020 * ((i * 7919) % 101) / 101);
        EXPECT_GE(stamp, last);
        last = stamp;
        worst = std::max(worst, std::abs(stamp - 3 - truth - 0.015));
    }
    EXPECT_LT(worst, 0.02) << "unsteered it would be 0.54 s off";
    EXPECT_EQ(skewText(0.00012), "120 parts in a million fast");
    EXPECT_EQ(skewText(-0.01), "10000 parts in a million slow");
    Timeline rate(50);
    EXPECT_NEAR(rate.stamp({}, 1.0), 1.0, 1e-12);
    EXPECT_NEAR(rate.stamp({}, 1.2), 1.02, 1e-12) << "arrived in one packet, sampled evenly";
    EXPECT_NEAR(rate.stamp({}, 9.0), 9.0, 1e-12) << "lost samples leave their gap";
    Timeline arrival;
    arrival.stamp({}, 2.0);
    EXPECT_EQ(arrival.stamp({}, 1.5), 2.0);
}

TEST(LiveTrace, KeepsEveryExtremeInBoundedRoom) {
    LiveTrace trace;
    for (int i = 0; i < 3'000'000; ++i)
        trace.add(i * 1e-3, i == 1'234'567 ? 900 : i == 77 ? -5 : std::sin(i * 0.001));
    EXPECT_LE(trace.stretches().size(), LiveTrace::most);
    for (const std::size_t most : {10UL, 300UL, 5000UL}) {
        const auto thin = thinned(trace.stretches(), most);
        EXPECT_LE(thin.size(), std::max(most, std::size_t{1}));
        double low = 0, high = 0;
        for (std::size_t k = 0; k < thin.size(); ++k) {
            low = std::min(low, thin[k].low);
            high = std::max(high, thin[k].high);
            if (k) {
                EXPECT_GT(thin[k].time, thin[k - 1].time);
            }
        }
        EXPECT_EQ(low, -5);
        EXPECT_EQ(high, 900);
    }
    trace.clear();
    EXPECT_TRUE(trace.stretches().empty());
}

} // namespace
