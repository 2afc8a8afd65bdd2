// The reader against the truth a virtual specimen was built from: 200 seeds in a row for each model, worst
// errors printed.
#include <algorithm>
#include <anvil/curve/reading.h>
#include <anvil/sim/specimen.h>
#include <anvil/sim/virtual_rig.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::sim;

namespace {

struct Worst {
    double value = 0;
    std::uint64_t seed = 0;
    void see(double v, std::uint64_t s) {
        if (std::abs(v) > std::abs(value)) {
            value = v;
            seed = s;
        }
    }
};

/// The work done up to a sample of a run, J, from the same specimen pulled on a rig without any of its
/// troubles: a second method, by trapezoids on forces that nobody had to clean.
double workUpTo(const Bench& bench, std::uint64_t seed, std::size_t index) {
    auto quiet = bench.logger;
    quiet.noise = quiet.zeroOffset = quiet.drift = quiet.resolution = 0;
    quiet.spikes = 0;
    quiet.limit.reset();
    quiet.rezeroAt = {};
    const auto c = pull(bench.specimen, quiet, seed).curve;
    double work = 0;
    for (std::size_t i = 1; i <= index && i < c.load.size(); ++i)
        work += 0.5 * (c.load[i] + c.load[i - 1]) * (c.travel[i] - c.travel[i - 1]);
    return work;
}

class Truth200 : public testing::TestWithParam<Model> {};

TEST_P(Truth200, ReadingAgreesWithTheTruth) {
    Worst peak, stiffness, toe, slip, energy;
    double stiffnessSum = 0;
    int slipsMissed = 0, slipsInvented = 0, spikesWrong = 0, offScale = 0;
    constexpr std::uint64_t seeds = 200;
    for (std::uint64_t seed = 1; seed <= seeds; ++seed) {
        const auto bench = typicalBench(GetParam(), seed);
        const auto run = pull(bench.specimen, bench.logger, seed);
        const auto got = curve::read(run.curve);
        ASSERT_TRUE(got) << seed << ": " << got.error().message;
        const auto& t = run.truth;
        spikesWrong += static_cast<int>(got->spikes) != t.spikes;
        peak.see(got->peak.load / t.peak - 1, seed);
        ASSERT_TRUE(got->stiffness) << seed;
        stiffness.see(got->stiffness->value / t.stiffness - 1, seed);
        stiffnessSum += got->stiffness->value / t.stiffness - 1;
        toe.see((*got->toe - t.toe) / (t.strength / t.stiffness), seed);
        // The greatest sample of a rounded or noisy top can lie well beside the top: the work is that up to
        // there.
        energy.see(*got->energyToPeak / workUpTo(bench, seed, got->peak.index) - 1, seed);
        if (t.firstSlip && got->firstSlip) slip.see(got->firstSlip->load / *t.firstSlip - 1, seed);
        slipsMissed += t.firstSlip && !got->firstSlip;
        slipsInvented += !t.firstSlip && got->firstSlip;
        offScale += got->offScale;
    }
    fmt::print("{:<15} worst of {} seeds: peak {:+.2f} % (seed {}), stiffness {:+.2f} % (seed {}, mean "
               "{:+.2f} %), toe {:+.2f} % of travel (seed {}), first slip {:+.2f} % (seed {}), "
               "energy {:+.2f} % (seed {}); slips missed {}, invented {}, spike counts off {}\n",
               name(GetParam()), static_cast<unsigned long long>(seeds), 100 * peak.value,
               static_cast<unsigned long long>(peak.seed), 100 * stiffness.value,
               static_cast<unsigned long long>(stiffness.seed), 100 * stiffnessSum / seeds, 100 * toe.value,
               static_cast<unsigned long long>(toe.seed), 100 * slip.value,
               static_cast<unsigned long long>(slip.seed), 100 * energy.value,
               static_cast<unsigned long long>(energy.seed), slipsMissed, slipsInvented, spikesWrong);
    EXPECT_LT(std::abs(peak.value), 0.005);
    EXPECT_LT(std::abs(stiffness.value), 0.05);
    EXPECT_LT(std::abs(stiffnessSum / seeds), 0.01);
    EXPECT_LT(std::abs(toe.value), 0.03);
    EXPECT_LT(std::abs(slip.value), 0.02);
    EXPECT_LT(std::abs(energy.value), 0.01);
    EXPECT_EQ(slipsMissed, 0);
    EXPECT_EQ(slipsInvented, 0);
    EXPECT_EQ(offScale, 0);
    EXPECT_LE(spikesWrong, 4) << "two spikes side by side, or one in the drop, may be seen as one event";
}

INSTANTIATE_TEST_SUITE_P(Models, Truth200, testing::ValuesIn(allModels), [](const auto& info) {
    std::string n = name(info.param);
    n.erase(std::remove(n.begin(), n.end(), '-'), n.end());
    return n;
});

TEST(Simulator, SameSeedSameRunOtherSeedAnother) {
    const auto b = typicalBench(Model::pullOut, 5);
    EXPECT_EQ(pull(b.specimen, b.logger, 5).curve, pull(b.specimen, b.logger, 5).curve);
    EXPECT_NE(pull(b.specimen, b.logger, 5).curve, pull(b.specimen, b.logger, 6).curve);
}

// Own generator and transforms: these numbers are the same on every machine.
TEST(Simulator, GeneratorIsPinned) {
    // By a second implementation of splitmix64 and xorshift128+, in another language.
    Random random(1);
    EXPECT_EQ(random.uniform(), 0.6064139899259523);
    EXPECT_EQ(random.uniform(), 0.5673224683686025);
    for (int i = 2; i < 999; ++i)
        random.uniform();
    EXPECT_EQ(random.uniform(), 0.0009912177899794594);
    double sum = 0, squares = 0;
    constexpr int n = 100000;
    for (int i = 0; i < n; ++i) {
        const double z = random.normal();
        sum += z;
        squares += z * z;
    }
    EXPECT_NEAR(sum / n, 0, 0.01);
    EXPECT_NEAR(squares / n, 1, 0.015);
}

TEST(Simulator, NoiseFreeTruthsByHand) {
    Specimen s;
    s.model = Model::brittleBond;
    s.strength = 1000;
    s.stiffness = 1e6;
    s.slack = 0.002;
    s.bedding = 0;
    Logger g;
    g.rate = 1000;
    const auto run = pull(s, g, 1);
    EXPECT_NEAR(run.truth.peak, 1000, 1.1) << "a sample every micrometre, 1 N apart";
    EXPECT_NEAR(run.truth.energyToPeak, 0.5, 1e-6) << "half of 1000 N over 1 mm";
    EXPECT_EQ(run.truth.toe, 0.002);
    EXPECT_FALSE(run.truth.firstSlip);
    EXPECT_FALSE(run.truth.saturated);
    g.limit = 800;
    const auto clipped = pull(s, g, 1);
    EXPECT_TRUE(clipped.truth.saturated);
    EXPECT_DOUBLE_EQ(*std::max_element(clipped.curve.load.begin(), clipped.curve.load.end()), 800);
    const auto read = curve::read(clipped.curve);
    ASSERT_TRUE(read);
    EXPECT_TRUE(read->offScale);
}

TEST(Simulator, ModelNames) {
    for (const auto m : allModels)
        EXPECT_EQ(modelFromName(name(m)), m);
    EXPECT_FALSE(modelFromName("jelly"));
}

TEST(VirtualBench, PausesRelaxesAndGoesOnWhereItStood) {
    RigOptions options;
    options.logger.noise = 0;
    options.logger.speed = 0.004;
    options.legs = {0.5, 0.3, 0.2};
    VirtualRig rig(options);
    rig.pull();
    RigReading last;
    while (last.load < 1000)
        for (const auto& r : rig.advance(0.01))
            last = r;
    EXPECT_EQ(rig.legs(), 3U);
    EXPECT_NEAR(last.legs[0] + last.legs[1] + last.legs[2], last.load, 1e-6)
        << "what is pulled hangs on the legs";
    const double held = last.load, place = last.travel;
    rig.pause(true);
    rig.pause(true); // twice is once
    double before = held + 1e-9;
    for (int i = 0; i < 10; ++i)
        for (const auto& r : rig.advance(0.5)) {
            EXPECT_LE(r.load, before) << "a held load only falls";
            EXPECT_EQ(r.travel, place);
            before = r.load;
            last = r;
        }
    EXPECT_LT(last.load, held);
    EXPECT_GT(last.load, 0.9 * held);
    EXPECT_LT(last.legs[2] / 0.2, last.legs[0] / 0.5) << "each leg relaxes at its own pace";
    rig.pause(false);
    double peak = 0;
    while (rig.pulling())
        for (const auto& r : rig.advance(0.05))
            peak = std::max(peak, r.load);
    EXPECT_NEAR(peak, rig.truth().peak, 1e-9) << "nothing of the specimen was skipped";
    rig.pause(true);
    EXPECT_FALSE(rig.pulling()) << "there is nothing to pause";
}

TEST(Simulator, AnAmplifierMayTakeItsOffsetAwayInMidPull) {
    Specimen s;
    Logger g;
    g.zeroOffset = 80;
    g.rezeroAt = 2.5;
    const auto run = pull(s, g, 3);
    EXPECT_NEAR(run.curve.load.front(), 80, 1e-9);
    auto plain = g;
    plain.rezeroAt.reset();
    const auto steady = pull(s, plain, 3);
    for (std::size_t i = 0; i < run.curve.load.size(); ++i)
        EXPECT_NEAR(steady.curve.load[i] - run.curve.load[i], run.curve.time[i] >= 2.5 ? 80 : 0, 1e-9);
    EXPECT_NEAR(run.truth.peak, steady.truth.peak, 1e-9) << "the truth is above the true zero either way";
}

} // namespace
