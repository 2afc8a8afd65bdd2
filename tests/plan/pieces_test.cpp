#include <anvil/domain/labels.h>
#include <anvil/plan/pieces.h>
#include <anvil/plan/timetable.h>
#include <anvil/results/evidence.h>
#include <anvil/results/verdict.h>

#include <gtest/gtest.h>
#include <numbers>
#include <set>

namespace anvil::plan {

using namespace domain;
using namespace results;
namespace {

std::vector<Measured> lengths(std::initializer_list<std::pair<const char*, double>> all) {
    std::vector<Measured> out;
    for (const auto& [name, value] : all)
        out.push_back({name, std::nullopt, std::nullopt, {value}});
    return out;
}

TEST(DerivedArea, ByWhatWasMeasured) {
    EXPECT_NEAR(derivedArea(lengths({{"Breadth", 0.02}, {"depth", 0.01}}))->value, 2e-4, 1e-15);
    EXPECT_EQ(derivedArea(lengths({{"Breadth", 0.02}, {"depth", 0.01}}))->how, "breadth × depth");
    EXPECT_NEAR(derivedArea(lengths({{"diameter", 0.008}}))->value, 5.026548245743669e-5, 1e-18);
    // a tube of 20 mm outside and 2 mm wall: π/4 (20² − 16²) mm²
    EXPECT_NEAR(derivedArea(lengths({{"outer diameter", 0.02}, {"wall", 0.002}}))->value,
                std::numbers::pi / 4 * (4e-4 - 2.56e-4), 1e-15);
    EXPECT_EQ(derivedArea(lengths({{"overlap", 0.0125}, {"width", 0.025}}))->how, "width × overlap");
}

TEST(DerivedArea, NoneWhereALengthIsMissing) {
    EXPECT_FALSE(derivedArea({}));
    EXPECT_FALSE(derivedArea(lengths({{"depth", 0.01}})));
    EXPECT_FALSE(derivedArea({{"diameter", 0.01, 0.001, {}}})) << "wanted, but not measured yet";
    EXPECT_FALSE(derivedArea(lengths({{"outer diameter", 0.02}, {"wall", 0.01}}))) << "no tube is left";
}

StudyData sheet() {
    StudyData d;
    for (int i = 0; i < 3; ++i) {
        Specimen s;
        s.id = i + 1;
        s.label = "A1-" + std::to_string(i + 1);
        s.block = "sheet 1";
        s.x = 0.03 * i;
        s.y = 0.04;
        d.specimens.push_back(s);
    }
    return d;
}

TEST(ClosePairs, WithinOneSheetNearestFirst) {
    auto d = sheet();
    EXPECT_TRUE(closePairs(d, 0.03).empty()) << "exactly as far apart as wanted";
    d.specimens[2].x = 0.05;
    const auto pairs = closePairs(d, 0.04);
    ASSERT_EQ(pairs.size(), 2U);
    EXPECT_NEAR(pairs[0].distance, 0.02, 1e-12);
    EXPECT_EQ(pairs[0].a, 2);
    d.specimens[2].block = "sheet 2";
    EXPECT_EQ(closePairs(d, 0.04).size(), 1U);
    EXPECT_EQ(sheets(d), (std::vector<std::string>{"sheet 1", "sheet 2"}));
    d.specimens[0].x.reset();
    EXPECT_TRUE(closePairs(d, 0.04).empty()) << "a place that is not known is not judged";
}

TEST(Timing, EarlyLateAndInTime) {
    auto d = sheet();
    d.study.plan.recipe = {{"Glue", 10, 600, 1440, 1, 0, "", ""}};
    d.study.plan.recipeStarted = "2026-05-04T09:00:00";
    d.study.plan.stepsDone = {{"0.0", "2026-05-04T09:00:00"}};
    Pull p;
    p.performedAt = "2026-05-04T16:10:00"; // ready at 19:10
    EXPECT_EQ(timingOf(d, p), "pulled 3 h before the preparation was over");
    p.performedAt = "2026-05-04T19:10:00";
    EXPECT_EQ(timingOf(d, p), "");
    p.performedAt = "2026-05-07T09:10:00"; // latest: 24 h after the glue was on
    EXPECT_EQ(timingOf(d, p), "pulled 2 d after the latest time");
    d.study.plan.stepsDone.clear();
    d.study.plan.recipe[0].waitMinutes = 0;
    d.study.plan.recipeStarted.clear();
    EXPECT_EQ(timingOf(d, p), "") << "nothing was prepared";
}

TEST(Labels, FollowTheSchemeOfThePlan) {
    StudyData d;
    Option o;
    o.id = 1;
    o.name = "Toggle";
    d.options.push_back(o);
    o.id = 2;
    o.name = "Hook";
    d.options.push_back(o);
    Condition c;
    c.id = 11;
    c.name = "Wet";
    d.conditions.push_back(c);
    EXPECT_EQ(freshLabel(d, 2, 11, 3), "B1-3");
    d.study.plan.labelScheme = "{option}/{condition} {n}";
    EXPECT_EQ(freshLabel(d, 2, 11, 3), "Hook/Wet 3");
    d.study.plan.labelScheme = "{a}{1}{n}";
    EXPECT_EQ(freshLabel(d, 2, 11, 3), "b13");
    d.study.plan.labelScheme = "pin";
    Specimen s;
    s.label = "pin";
    d.specimens.push_back(s);
    EXPECT_EQ(freshLabel(d, 2, 11, 3), "pina") << "never used twice";
    // However many there are: every one is new, and of letters and digits.
    Labels labels(d);
    std::set<std::string> all{"pin"};
    for (int n = 1; n <= 2000; ++n) {
        const auto l = labels.fresh(d, 2, 11, n);
        EXPECT_TRUE(all.insert(l).second) << l;
        EXPECT_EQ(l.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-"), std::string::npos) << l;
    }
    EXPECT_TRUE(all.contains("pinz") && all.contains("pinaa") && all.contains("pinzz"));
}

TEST(Stretch, InTheUnitThatFits) {
    EXPECT_EQ(stretch(45), "45 s");
    EXPECT_EQ(stretch(600), "10 min");
    EXPECT_EQ(stretch(3 * 3600), "3 h");
    EXPECT_EQ(stretch(3 * 86400), "3 d");
}

} // namespace
} // namespace anvil::plan
