// What a verdict says, word for word where it decides something.
#include "study_maker.h"
#include <algorithm>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/words/verdict.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;

namespace {

bool contains(const std::vector<std::string>& all, const std::string& what) {
    return std::any_of(all.begin(), all.end(),
                       [&](const auto& s) { return s.find(what) != std::string::npos; });
}

Maker twoPins() {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    return m;
}

struct Said {
    std::string headline, pair;
    std::vector<std::string> next;
};
Said said(const Maker& m, Metric metric = metric("peak")) {
    const auto v = m.verdict(metric);
    const auto lines = words::headlines(m.data, v);
    return {lines.empty() ? "" : lines[0], v.pairs.empty() ? "" : words::sentence(m.data, v, v.pairs[0]),
            words::next(m.data, v)};
}

TEST(Words, WhoIsStrongerAndByHowMuch) {
    auto m = twoPins();
    m.square(1, 11, {100, 102, 98}).square(2, 11, {200, 204, 196});
    const auto s = said(m);
    EXPECT_TRUE(s.pair.starts_with("Pin is weaker than Bolt in Dry: 0.500 times (95 % interval ")) << s.pair;
    EXPECT_TRUE(s.headline.starts_with("Dry: Bolt is the strongest by peak force, 2.00 times Pin"))
        << s.headline;
}

TEST(Words, ATieSaysHowManyMore) {
    auto m = twoPins();
    m.square(1, 11, {100, 120, 140}).square(2, 11, {110, 130, 150});
    const auto s = said(m);
    EXPECT_NE(s.headline.find("too close to call against Pin"), std::string::npos) << s.headline;
    EXPECT_TRUE(contains(s.next, "more pulls of each."));
    m.data.options[0].name.clear();
    m = twoPins();
    m.square(1, 11, {100, 102});
    EXPECT_TRUE(contains(said(m).next, "three is the least"));
}

TEST(Words, BoundsAloneCannotBeToldYet) {
    auto m = twoPins();
    m.square(1, 11, {240, 252, 238});
    for (int i = 0; i < 3; ++i)
        m.pull(2, 11, 250, Standing::atLeast);
    const auto s = said(m);
    EXPECT_EQ(s.pair, "Pin against Bolt in Dry cannot be told yet: 3 of 3 pulls of Bolt give only a bound.");
    EXPECT_NE(s.headline.find("so how far ahead it is cannot be told yet"), std::string::npos) << s.headline;
}

TEST(Words, BoundsFarAboveTheOthersSayWhoIsStronger) {
    auto m = twoPins();
    m.square(1, 11, {100, 102, 98});
    for (int i = 0; i < 3; ++i)
        m.pull(2, 11, 250, Standing::atLeast);
    const auto s = said(m);
    EXPECT_TRUE(s.pair.starts_with("Pin is weaker than Bolt in Dry: at most 0.4")) << s.pair;
    EXPECT_NE(s.pair.find(" times (95 % interval up to 0.4"), std::string::npos) << s.pair;
    EXPECT_TRUE(s.headline.starts_with("Dry: Bolt is the strongest by peak force, at least 2.50 times Pin"))
        << s.headline;
}

TEST(Words, GuessesAreCounted) {
    auto m = twoPins();
    m.condition("Wet").square(1, 11, {100, 102}).square(1, 12, {90, 92});
    const auto beyond = [&](Standing standing) {
        auto& p = m.pull(2, 11, 0, standing);
        p.typed.reset();
        p.curve = 7;
        p.settings.calibratedTo = 150;
        curve::Reading r;
        r.peak.load = 200;
        m.readings.byPull[p.id] = r;
    };
    beyond(Standing::counts);
    EXPECT_TRUE(said(m).headline.ends_with(
        " One value was read beyond the end of the calibration table, which makes it a guess."))
        << said(m).headline;
    beyond(Standing::atLeast);
    beyond(Standing::aside);
    EXPECT_TRUE(said(m).headline.ends_with(
        " 2 values were read beyond the end of the calibration table, which makes them guesses."))
        << said(m).headline;
    EXPECT_EQ(words::headlines(m.data, m.verdict())[1].find("guess"), std::string::npos);
}

TEST(Words, NothingPulled) {
    Maker m;
    m.option("Pin").condition("Dry");
    EXPECT_EQ(said(m).headline, "");
    m.pull(1, 11, 100, Standing::voided);
    EXPECT_EQ(said(m).headline, "Dry: no pull has a peak force yet.");
}

/// The slat that sags least wins, and the words say so.
TEST(Words, LessIsWanted) {
    auto m = twoPins();
    m.data.study.goal.sense = Sense::less;
    m.square(1, 11, {100, 102, 98}).square(2, 11, {200, 204, 196});
    auto s = said(m);
    EXPECT_TRUE(s.headline.starts_with("Dry: Pin has the lowest peak force, 0.500 times Bolt")) << s.headline;
    EXPECT_TRUE(s.pair.starts_with("Pin is weaker than Bolt")) << s.pair;
    m.data.study.goal.need = 150;
    EXPECT_TRUE(said(m).headline.ends_with(" Bolt does not meet the need.")) << said(m).headline;
    m.data.study.goal = {};
    decideBy(m.data.study.goal, metric("sag"));
    for (auto& p : m.data.pulls)
        p.typed->metric = metric("sag");
    s = said(m, metric("sag"));
    EXPECT_TRUE(s.headline.starts_with("Dry: Pin has the lowest sag, 0.500 times Bolt")) << s.headline;
    EXPECT_TRUE(s.pair.starts_with("Pin sags less than Bolt in Dry: 0.500 times")) << s.pair;
}

TEST(Words, BeyondWhatIsEnoughAllAreEqual) {
    auto m = twoPins();
    m.option("Peg")
        .square(1, 11, {100, 102, 98})
        .square(2, 11, {200, 204, 196})
        .square(3, 11, {300, 304, 296});
    m.data.study.goal.ceiling = 150;
    const auto v = m.verdict();
    EXPECT_EQ(words::headlines(m.data, v)[0], "Dry: Peg and Bolt are beyond what is enough by their peak "
                                              "force, so they count as equally good.");
    const auto both = std::find_if(v.pairs.begin(), v.pairs.end(), [&](const auto& p) {
        return v.groups[p.a].option == 2 && v.groups[p.b].option == 3;
    });
    ASSERT_NE(both, v.pairs.end());
    EXPECT_TRUE(
        words::sentence(m.data, v, *both)
            .starts_with("Bolt and Peg are both beyond what is enough in Dry, so they count as equally "
                         "good: 33 % less"))
        << words::sentence(m.data, v, *both);
    EXPECT_TRUE(words::next(m.data, v).empty());
}

TEST(Words, InsideAWindow) {
    auto m = twoPins();
    m.square(1, 11, {100, 140, 160, 180}).square(2, 11, {300, 310, 150, 305});
    m.data.study.goal.sense = Sense::inside;
    EXPECT_EQ(said(m).headline, "Dry: a window is wanted, but its ends have not been said yet.");
    m.data.study.goal.window = {{120, 200}};
    EXPECT_EQ(said(m).headline,
              "Dry: Pin lies inside the window most often: 3 of 4 pulls; Bolt in 1 of 4 pulls.");
}

} // namespace
