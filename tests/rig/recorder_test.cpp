// When a recording begins and ends.
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>

using namespace anvil;
using namespace anvil::rig;

namespace {

struct Kept : SampleSink {
    int begun = 0, ended = 0;
    std::vector<Sample> samples;
    std::optional<Ending> ending;
    void begin() override { ++begun; }
    void append(std::span<const Sample> more) override {
        samples.insert(samples.end(), more.begin(), more.end());
    }
    void end(Ending e) override {
        ++ended;
        ending = e;
    }
};

/// A second and a half of unloaded rig.
double idle(Recorder& r, double t, double level = 0) {
    for (int i = 0; i < 150; ++i, t += 0.01)
        r.feed({t, level + (i % 2 ? 0.5 : -0.5), std::nullopt, true});
    return t;
}

/// What a home-made bench does to a run.
struct Fault {
    const char* name;
    void (*spoil)(sim::Logger&);
    void (*disturb)(curve::Curve&);
};
const Fault faults[] = {
    {"none", [](sim::Logger&) {}, nullptr},
    {"spikes", [](sim::Logger& g) { g.spikes = 5; }, nullptr},
    {"drift", [](sim::Logger& g) { g.drift = 3; }, nullptr},
    {"re-zero",
     [](sim::Logger& g) {
         g.zeroOffset = 60;
         g.rezeroAt = 4;
     },
     nullptr},
    {"saturation", [](sim::Logger& g) { g.limit = 1500; }, nullptr},
    {"coarse", [](sim::Logger& g) { g.resolution = 10; }, nullptr},
    {"noise", [](sim::Logger& g) { g.noise = 20; }, nullptr},
    {"drop-out", [](sim::Logger&) {},
     [](curve::Curve& c) { // a second in mid-rise that never arrives
         const auto cut = [](std::vector<double>& v) { v.erase(v.begin() + 350, v.begin() + 450); };
         cut(c.time);
         cut(c.load);
         cut(c.travel);
     }},
    {"numbers that are none", [](sim::Logger&) {},
     [](curve::Curve& c) {
         c.load[360] = std::nan("");
         c.load[361] = HUGE_VAL;
     }},
};

TEST(Recorder, RecordsOneWholePullOfEveryModel) {
    for (const auto model : sim::allModels) {
        Kept kept;
        Recorder r(kept);
        sim::Logger logger;
        logger.noise = 2;
        logger.before = 2;
        logger.after = 0.02;
        sim::Specimen specimen;
        specimen.model = model;
        specimen.residual = 0.2;
        const auto run = sim::pull(specimen, logger, 4);
        std::size_t i = 0;
        for (; i < 150; ++i)
            r.feed({run.curve.time[i], run.curve.load[i], run.curve.travel[i], true});
        r.arm({});
        for (; i < run.curve.time.size() && r.state() != RecorderState::done; ++i)
            r.feed({run.curve.time[i], run.curve.load[i], run.curve.travel[i], true});
        if (r.state() != RecorderState::done) r.stop();
        EXPECT_EQ(kept.begun, 1) << sim::name(model);
        EXPECT_EQ(kept.ended, 1) << sim::name(model);
        const bool lasts = model == sim::Model::slippingGrip || model == sim::Model::smoothFriction;
        EXPECT_EQ(*kept.ending, lasts ? Ending::stopped : Ending::broke) << sim::name(model);
        double peak = 0;
        for (std::size_t k = 1; k < kept.samples.size(); ++k) {
            EXPECT_GE(kept.samples[k].time, kept.samples[k - 1].time);
            peak = std::max(peak, kept.samples[k].load);
        }
        EXPECT_NEAR(peak, run.truth.peak, 1e-9) << sim::name(model);
        EXPECT_LT(kept.samples.front().load, 20) << "the unloaded start is there";
    }
}

TEST(Recorder, KeepsEveryPullWholeWhateverTheBenchDoes) {
    for (const auto model : sim::allModels)
        for (const auto& fault : faults) {
            SCOPED_TRACE(std::string(sim::name(model)) + ", " + fault.name);
            Kept kept;
            Recorder r(kept);
            sim::Logger logger;
            logger.noise = 2;
            logger.before = 2;
            logger.after = 0.03;
            fault.spoil(logger);
            sim::Specimen specimen;
            specimen.model = model;
            specimen.residual = 0.2;
            auto run = sim::pull(specimen, logger, 11);
            if (fault.disturb) fault.disturb(run.curve);
            const auto& c = run.curve;
            RecorderSettings settings;
            settings.limit = logger.limit;
            settings.startForce = 100;
            std::size_t begun = 0, i = 0;
            for (; i < c.time.size() && r.state() != RecorderState::done; ++i) {
                if (i == 150) r.arm(settings);
                r.feed({c.time[i], c.load[i], c.travel[i], true});
                if (!begun && r.state() == RecorderState::loading) begun = i;
            }
            if (r.state() != RecorderState::done) r.stop();
            EXPECT_EQ(kept.begun, 1);
            EXPECT_EQ(kept.ended, 1);
            ASSERT_TRUE(kept.ending);
            const bool lasts = model == sim::Model::slippingGrip || model == sim::Model::smoothFriction;
            EXPECT_EQ(*kept.ending, lasts ? Ending::stopped : Ending::broke);
            // Every finite sample from the first one kept to the last one fed is there once, in order,
            // unchanged.
            ASSERT_FALSE(kept.samples.empty());
            std::size_t at = 0;
            while (c.time[at] < kept.samples.front().time)
                ++at;
            for (const auto& s : kept.samples) {
                while (!std::isfinite(c.load[at]))
                    ++at;
                ASSERT_EQ(s.time, c.time[at]);
                ASSERT_EQ(s.load, c.load[at]);
                ++at;
            }
            EXPECT_EQ(at, i);
            EXPECT_LE(kept.samples.front().time, c.time[begun] - 1.4) << "the unloaded start is kept too";
        }
}

TEST(Recorder, SpikesStartNothingAndStopFromArmedKeepsNothing) {
    Kept kept;
    Recorder r(kept);
    double t = idle(r, 0);
    r.arm({});
    r.feed({t += 0.01, 900, std::nullopt, true});
    r.feed({t += 0.01, 0, std::nullopt, true});
    EXPECT_EQ(r.state(), RecorderState::armed);
    r.stop();
    EXPECT_EQ(r.state(), RecorderState::idle);
    EXPECT_EQ(kept.begun, 0);
}

/// A spike just before the arming is no noise, and one in mid-rise is no peak that the load fell from.
TEST(Recorder, SpikesNeitherHideAPullNorEndIt) {
    Kept kept;
    Recorder r(kept);
    double t = idle(r, 0);
    const auto feed = [&](double force) { r.feed({t += 0.01, force, std::nullopt, true}); };
    feed(5000);
    for (int i = 0; i < 20; ++i)
        feed(i % 2 ? 0.5 : -0.5);
    r.arm({});
    for (int i = 1; i <= 100; ++i) { // up to 1000 N
        feed(10.0 * i);
        if (i == 20) { // of the bench's electricity, at 200 N
            feed(4000);
            feed(-3000);
            feed(4000);
        }
        if (i == 60) {
            EXPECT_NEAR(r.peak(), 590, 11) << "up to the last sample but one";
            feed(9000);
            feed(9000);
        }
    }
    EXPECT_EQ(r.state(), RecorderState::loading);
    for (int i = 0; i < 31; ++i) {
        EXPECT_EQ(r.state(), RecorderState::loading);
        feed(i == 15 ? 3000 : 50);
    }
    for (int i = 0; i < 3; ++i)
        feed(50);
    EXPECT_EQ(r.state(), RecorderState::done) << "nor does one after the break keep it going";
    EXPECT_EQ(*kept.ending, Ending::broke);
    EXPECT_EQ(kept.samples.back().load, 50);
}

/// Whatever the seed, model and spikes: the greatest sample that is no spike has been recorded.
TEST(Recorder, HasThePeakOfEveryPullWithSpikes) {
    for (const auto model : sim::allModels)
        for (std::uint64_t seed = 1; seed <= 200; ++seed) {
            Kept kept;
            Recorder r(kept);
            sim::Logger logger;
            logger.noise = 2;
            logger.before = 2;
            logger.after = 0.03;
            logger.spikes = 12;
            sim::Specimen specimen;
            specimen.model = model;
            specimen.residual = 0.2;
            const auto run = sim::pull(specimen, logger, seed);
            const auto& c = run.curve;
            const std::size_t armed = static_cast<std::size_t>(1.5 * logger.rate);
            for (std::size_t i = 0; i < c.time.size() && r.state() != RecorderState::done; ++i) {
                if (i == armed) r.arm({});
                r.feed({c.time[i], c.load[i], c.travel[i], true});
            }
            const auto has = std::any_of(kept.samples.begin(), kept.samples.end(), [&](const Sample& s) {
                return std::abs(s.load - logger.zeroOffset - run.truth.peak) < 1e-9;
            });
            ASSERT_TRUE(has) << sim::name(model) << ", seed " << seed;
        }
}

TEST(Recorder, LearnsTheNoiseOfACoarseResolution) {
    Kept kept;
    Recorder r(kept);
    double t = 0;
    for (int i = 0; i < 150; ++i) // one step of 10 N now and then
        r.feed({t += 0.01, i % 12 == 0 ? 10.0 : 0.0, std::nullopt, true});
    EXPECT_TRUE(r.offZero() || r.level() < 3 * r.noise());
    r.arm({});
    for (int i = 0; i < 5; ++i)
        r.feed({t += 0.01, 10, std::nullopt, true});
    EXPECT_EQ(r.state(), RecorderState::armed) << "a step of the display is no load";
    for (int i = 0; i < 3; ++i)
        r.feed({t += 0.01, 60, std::nullopt, true});
    EXPECT_EQ(r.state(), RecorderState::loading);
}

TEST(Recorder, EndsByHandByHoldAndByALostLink) {
    for (const auto ending : {Ending::stopped, Ending::held, Ending::linkLost, Ending::cannotSave}) {
        Kept kept;
        Recorder r(kept);
        double t = idle(r, 0);
        RecorderSettings settings;
        settings.holdSeconds = ending == Ending::held ? 1 : 0;
        settings.limit = 1000;
        r.arm(settings);
        for (int i = 0; i < 100; ++i)
            r.feed({t += 0.01, 9.5 * i, std::nullopt, true});
        EXPECT_EQ(r.state(), RecorderState::loading);
        EXPECT_TRUE(r.nearLimit());
        EXPECT_NEAR(*r.loadRate(), 950, 40);
        for (int i = 0; i < 150 && r.state() == RecorderState::loading; ++i)
            r.feed({t += 0.01, 940, std::nullopt, true});
        if (ending == Ending::stopped) r.stop();
        if (ending == Ending::linkLost) r.linkLost();
        if (ending == Ending::cannotSave) r.cannotSave();
        ASSERT_TRUE(kept.ending);
        EXPECT_EQ(*kept.ending, ending);
        EXPECT_EQ(kept.samples.size(), r.recorded());
        EXPECT_STRNE(sentence(ending), "");
        r.feed({t += 0.01, 0, std::nullopt, true});
        EXPECT_EQ(kept.ended, 1) << "nothing after the end";
        r.reset();
        EXPECT_EQ(r.state(), RecorderState::idle);
    }
}

TEST(Recorder, CountsHowOftenTheLoadCameNearTheLimit) {
    Kept kept;
    Recorder r(kept);
    double t = idle(r, 0);
    RecorderSettings settings;
    settings.limit = 1000;
    const auto feed = [&](std::initializer_list<double> forces) {
        for (const double f : forces)
            r.feed({t += 0.01, f, std::nullopt, true});
    };
    r.arm(settings);
    feed({300, 500, 700, 880});
    EXPECT_EQ(r.nearLimitTimes(), 0U);
    feed({990, 880});
    EXPECT_EQ(r.nearLimitTimes(), 0U) << "a single spike is no load";
    feed({910, 920, 930, 950, 890});
    EXPECT_EQ(r.nearLimitTimes(), 1U) << "however short it was, and once for each time";
    EXPECT_FALSE(r.nearLimit()) << "by now it is over";
    feed({905, 910, 20, 10, 5});
    EXPECT_EQ(r.nearLimitTimes(), 2U);
    r.stop();
    feed({950, 950, 950});
    EXPECT_EQ(r.nearLimitTimes(), 2U) << "nothing is being pulled";
    r.arm(settings);
    EXPECT_EQ(r.nearLimitTimes(), 2U) << "it goes on over the pulls, so that whoever looks late hears of all";
}

TEST(Recorder, AsksForZeroingWhenOff) {
    Kept kept;
    Recorder r(kept);
    idle(r, 0, 0);
    EXPECT_FALSE(r.offZero());
    Recorder off(kept);
    idle(off, 0, 8);
    EXPECT_TRUE(off.offZero());
    EXPECT_NEAR(off.level(), 8, 0.2);
}

} // namespace
