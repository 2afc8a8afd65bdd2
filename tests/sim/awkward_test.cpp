// Ordinary awkward curves, 200 seeds each, against what they were made from.
#include <algorithm>
#include <anvil/curve/reading.h>
#include <anvil/sim/awkward.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::sim;

namespace {

bool says(const std::vector<std::string>& lines, const char* words) {
    return std::any_of(lines.begin(), lines.end(),
                       [&](const auto& l) { return l.find(words) != std::string::npos; });
}

class Awkward : public testing::TestWithParam<Trouble> {};

TEST_P(Awkward, IsReadRight) {
    const auto trouble = GetParam();
    double peak = 0, stiffness = 0, stiffnessSum = 0;
    std::uint64_t peakSeed = 0;
    int slips = 0, spikes = 0, offScale = 0, remarks = 0, breaks = 0, loaded = 0, jumps = 0, again = 0,
        dropped = 0, runs = 0, plateaus = 0, read = 0;
    constexpr int seeds = 200;
    for (std::uint64_t seed = 1; seed <= seeds; ++seed) {
        const auto run = awkward(trouble, seed);
        curve::ReadingSettings settings;
        settings.rigLimit = run.rigLimit;
        const auto got = curve::read(run.curve, settings);
        ASSERT_TRUE(got) << seed << ": " << got.error().message;
        ++read;
        if (const double off = got->peak.load / run.peak - 1; std::abs(off) > std::abs(peak)) {
            peak = off;
            peakSeed = seed;
        }
        slips += got->firstSlip.has_value();
        spikes += static_cast<int>(got->spikes);
        dropped += static_cast<int>(got->dropped);
        offScale += got->offScale;
        remarks += says(got->warnings, "clipped somewhere in the chain");
        plateaus += says(got->warnings, "counts as a plateau");
        loaded += says(got->warnings, "starts under load");
        jumps += says(got->warnings, "The zero was set again under load");
        again += says(got->notes, "The zero was set again");
        breaks += got->breakPoint.has_value();
        runs += !curve::splitAtPulls(run.curve).empty();
        if (got->stiffness) {
            const double off = got->stiffness->value / run.stiffness - 1;
            stiffness = std::max(stiffness, std::abs(off));
            stiffnessSum += off;
        }
    }
    fmt::print(
        "{:<20} peak {:+.2f} % (seed {}), stiffness worst {:.2f} % mean {:+.3f} %; slips {}, spikes {}, "
        "dropped "
        "{}, off scale {}, remarks {}, plateaus {}, starts loaded {}, jumps {}, zero again {}, breaks "
        "{}, cut {}\n",
        name(trouble), 100 * peak, static_cast<unsigned long long>(peakSeed), 100 * stiffness,
        100 * stiffnessSum / seeds, slips, spikes, dropped, offScale, remarks, plateaus, loaded, jumps, again,
        breaks, runs);
    const auto onlyFor = [&](Trouble which) { return trouble == which ? read : 0; };
    const bool clipped = trouble == Trouble::clipped || trouble == Trouble::clippedUnderNoise;
    EXPECT_LT(std::abs(peak), 0.01);
    EXPECT_EQ(offScale, onlyFor(Trouble::clipped));
    EXPECT_EQ(remarks, clipped ? read : 0);
    EXPECT_EQ(plateaus, onlyFor(Trouble::plateau));
    EXPECT_EQ(loaded, onlyFor(Trouble::startsLoaded));
    EXPECT_EQ(jumps, onlyFor(Trouble::jumpUnderLoad));
    EXPECT_EQ(again, onlyFor(Trouble::setToZeroAgain));
    EXPECT_EQ(breaks, trouble == Trouble::proofLoad ? 0 : read);
    EXPECT_EQ(slips, 0);
    EXPECT_EQ(spikes, 0);
    EXPECT_EQ(dropped, 0);
    EXPECT_EQ(runs, 0) << "one piece is one run";
    EXPECT_LT(trouble == Trouble::softToe ? std::abs(stiffnessSum / seeds) : 0, 0.003);
}

INSTANTIATE_TEST_SUITE_P(Troubles, Awkward, testing::ValuesIn(allTroubles), [](const auto& info) {
    std::string n = name(info.param);
    n.erase(std::remove(n.begin(), n.end(), '-'), n.end());
    return n;
});

} // namespace
