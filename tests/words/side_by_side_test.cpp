#include <anvil/words/corrections.h>
#include <anvil/words/earlier.h>
#include <anvil/words/needs.h>
#include <anvil/words/side_by_side.h>
#include <anvil/words/unlikely.h>

#include "study_maker.h"
#include <anvil/quantity/units.h>
#include <gtest/gtest.h>

namespace anvil::words {
namespace {

const quantity::Unit& newton() { return quantity::unit("N"); }

/// A number of each pull beside its peak.
results::Maker two(double slipOfPin, double slipOfHook) {
    results::Maker m;
    m.option("Pin").option("Hook").condition("Dry");
    const auto add = [&](domain::Id option, double peak, double slip) {
        auto& p = m.pull(option, 11, peak);
        p.outcome.phases.push_back({"Set", "", "", {*quantity::parseEntry(std::to_string(slip) + " N")}, {}});
    };
    for (const double f : {0.99, 1.0, 1.01}) {
        add(1, 1000 * f, slipOfPin * f);
        add(2, 500 * f, slipOfHook * f);
    }
    return m;
}

std::vector<std::string> sentencesOf(const results::Maker& m) {
    const auto peak = m.verdict(), set = m.verdict(domain::metric("phase.force.set"));
    const results::Verdict* all[] = {&peak, &set};
    return sideBySideSentences(m.data, all);
}

TEST(SideBySide, SaysWhereAnotherNumberWouldTurnTheOrder) {
    const auto noun = std::string(domain::metric("phase.force.set")->noun);
    EXPECT_EQ(sentencesOf(two(200, 100)),
              (std::vector<std::string>{"The peak force decides.",
                                        "No other number would put another option first."}));
    EXPECT_EQ(sentencesOf(two(100, 200)),
              (std::vector<std::string>{"The peak force decides.",
                                        "By " + noun + " Hook would stand first instead of Pin."}));
    EXPECT_EQ(sentencesOf(two(100, 100.2)),
              (std::vector<std::string>{"The peak force decides.",
                                        "By " + noun +
                                            " Hook has the better mean, but is not told apart from Pin."}));
}

TEST(SideBySide, HasAColumnOfEach) {
    const auto m = two(100, 200);
    const auto peak = m.verdict(), set = m.verdict(domain::metric("phase.force.set"));
    const results::Verdict* all[] = {&peak, &set};
    const auto t = sideBySideTable(m.data, all, quantity::unitsFrom("N", "mm"));
    ASSERT_EQ(t.columns.size(), 3U);
    EXPECT_EQ(t.columns[1].title, "Peak force, decides");
    EXPECT_EQ(t.columns[2].title.find(", decides"), std::string::npos);
    ASSERT_EQ(t.rows.size(), 2U);
    EXPECT_EQ(t.rows[0].cells, (std::vector<std::string>{"Pin", "1000 N (1)", "100.0 N (2)"}));
    EXPECT_EQ(t.rows[1].cells, (std::vector<std::string>{"Hook", "500.0 N (2)", "200.0 N (1)"}));
}

TEST(NeedWords, SayWhatTheNextPieceDoes) {
    auto m = two(1, 2);
    m.data.study.goal.need = 600;
    auto v = results::evaluate(m.data, m.readings, m.data.study.goal);
    results::NeedResult need;
    need.group = static_cast<std::size_t>(v.group(1, 11) - v.groups.data());
    need.verdict = results::NeedVerdict::met;
    need.nextMeets = 0.8;
    need.meanMeets = 0.999;
    need.floorMeets = false;
    EXPECT_EQ(sentence(m.data, v, need, newton()),
              "Pin: met. The chance that the next piece has 600.0 N or more is 80 %.");
    auto cells = needTable(m.data, v, std::vector{need}, newton()).rows[0].cells;
    EXPECT_EQ(std::vector<std::string>(cells.begin() + 3, cells.end()),
              (std::vector<std::string>{"met", "over 99 %", "80 %", "no"}));
    need.verdict = results::NeedVerdict::cannotTell;
    need.allHeld = true;
    need.nextMeets.reset();
    need.floorMeets.reset();
    v.goal.sense = domain::Sense::less;
    EXPECT_EQ(sentence(m.data, v, need, newton()), "Pin: cannot tell. Nothing broke below 600.0 N or less in "
                                                   "3 pulls. There are too few pulls to say a chance.");
    cells = needTable(m.data, v, std::vector{need}, newton()).rows[0].cells;
    EXPECT_EQ(std::vector<std::string>(cells.begin() + 3, cells.end()),
              (std::vector<std::string>{"cannot tell", "nothing broke", "–", "none from so few"}));
    need.floorMeets = true;
    EXPECT_EQ(needTable(m.data, v, std::vector{need}, newton()).rows[0].cells.back(), "yes");
}

TEST(CorrectionWords, SayWasNowAndWhy) {
    const auto m = two(1, 2);
    results::Corrected c{
        m.data.pulls[0].id, "2026-06-01T10:00:00", stats::Value{100, stats::Bound::exact, 100}, {}, "", ""};
    const auto label = m.data.specimens[0].label;
    EXPECT_EQ(
        sentence(m.data, c, newton()),
        label +
            " was published on 2026-06-01 as 100.0 N and is without a value now; why has not been said yet.");
    c.now = stats::Value{90, stats::Bound::exact, 90, true};
    c.why = "it slipped";
    c.at = "2026-06-03T09:00:00";
    EXPECT_EQ(sentence(m.data, c, newton()),
              label + " was published on 2026-06-01 as 100.0 N and is 90.00 N, set aside now, "
                      "because it slipped (2026-06-03).");
    c.pull = 0;
    EXPECT_TRUE(sentence(m.data, c, newton()).starts_with("a pull was published"));
}

TEST(UnlikelyWords, AskWhatWasMeant) {
    results::Unlikely odd;
    odd.fellows = 400;
    odd.times = 4.5;
    const auto typed = *quantity::parseEntry("1800 N");
    EXPECT_EQ(sentence(odd, typed),
              "1800 N is 4.50 times the others of this square (400 N). Is it what was read?");
    odd.meant = &quantity::unit("lbf");
    EXPECT_EQ(sentence(odd, typed),
              "1800 N is 4.50 times the others of this square (400 N). Was 1800 lbf meant?");
    odd.times = 0.25;
    odd.meant = nullptr;
    EXPECT_EQ(sentence(odd, *quantity::parseEntry("100 N")),
              "The others of this square (400 N) are 4.00 times 100 N. Is it what was read?");
}

TEST(EarlierWords, SayWhatDiffers) {
    const auto m = two(1, 2);
    const auto v = m.verdict();
    results::ThenAndNow one;
    one.group = static_cast<std::size_t>(v.group(1, 11) - v.groups.data());
    one.then.mean = 900;
    one.then.n = 5;
    one.then.study = "Spring";
    auto cells = earlierTable(m.data, v, {one}, newton()).rows[0].cells;
    EXPECT_EQ(cells, (std::vector<std::string>{"Pin", "Dry", "1000 N", "900.0 N", "5", "not compared",
                                               "Spring", "none that is known"}));
    one.then.at = "2026-03-01";
    one.then.project = "yard.anvil";
    one.then.condition = "Wet";
    one.then.atLeast = true;
    one.otherCondition = one.otherRig = true;
    cells = earlierTable(m.data, v, {one}, newton()).rows[0].cells;
    EXPECT_EQ(cells[3], "at least 900.0 N");
    EXPECT_EQ(cells[6], "2026-03-01, Spring (yard.anvil), Wet");
    EXPECT_EQ(cells[7], "another condition, another rig");
    one.otherBatch = one.otherIntent = true;
    EXPECT_EQ(earlierTable(m.data, v, {one}, newton()).rows[0].cells[7],
              "another condition, another batch, another rig, another intent");
}

} // namespace
} // namespace anvil::words
