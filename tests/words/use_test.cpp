#include <anvil/words/use.h>

#include "study_maker.h"
#include <gtest/gtest.h>

namespace anvil::words {
namespace {

results::Maker two() {
    results::Maker m;
    m.option("Pin").option("Hook").condition("Dry");
    m.square(1, 11, {1000, 1020, 980}).square(2, 11, {500, 510, 490});
    return m;
}

const quantity::Unit& newton() { return quantity::unit("N"); }

TEST(LimitWords, SayFloorLimitAndHowMany) {
    auto m = two();
    const auto v = m.verdict();
    results::WorkingLimit with{0, 640.0, 128.0, 4, ""}, without{1, {}, {}, {}, "Too few pulls."};
    auto t = limitTable(m.data, v, {with, without}, newton());
    ASSERT_EQ(t.columns.size(), 5U);
    EXPECT_EQ(t.rows[0].cells, (std::vector<std::string>{m.data.optionAt(v.groups[0].option).name, "640.0 N",
                                                         "128.0 N", "4", ""}));
    EXPECT_EQ(t.rows[1].cells, (std::vector<std::string>{m.data.optionAt(v.groups[1].option).name, "none",
                                                         "none", "–", "Too few pulls."}));
    EXPECT_EQ(t.rows[1].of, 1);
    m.data.study.telling.use.step = 10;
    with.limit = 120;
    EXPECT_EQ(limitTable(m.data, v, {with}, newton()).rows[0].cells[2], "120 N")
        << "a step has no digits to spare";
    m.condition("Wet");
    EXPECT_EQ(limitTable(m.data, m.verdict(), {}, newton()).columns[1].title, "Condition");
}

TEST(LimitWords, SayTheRule) {
    domain::Use use;
    EXPECT_TRUE(ruleOfLimits(use, newton()).starts_with("Nobody should work at the breaking load."));
    use.designFactor = 0.9;
    EXPECT_TRUE(ruleOfLimits(use, newton()).starts_with("Nobody should work"));
    use.designFactor = 5;
    EXPECT_EQ(ruleOfLimits(use, newton()), "Working limit = 90/95 floor ÷ 5.00.");
    use.why = "it wears.";
    EXPECT_EQ(ruleOfLimits(use, newton()), "Working limit = 90/95 floor ÷ 5.00: it wears.");
    use.why.clear();
    use.step = 50;
    EXPECT_EQ(ruleOfLimits(use, newton()), "Working limit = 90/95 floor ÷ 5.00, rounded down to 50 N.");
    use.load = 2000;
    EXPECT_EQ(ruleOfLimits(use, newton()), "Working limit = 90/95 floor ÷ 5.00, rounded down to 50 N. How "
                                           "many: 2000 N in all, shared among them.");
    use.uneven = 1.5;
    EXPECT_TRUE(ruleOfLimits(use, newton())
                    .ends_with(", the most loaded one at 1.50 times its even share, shared among them."));
}

TEST(ForecastWords, StandBesideWhatCame) {
    auto m = two();
    const auto v = m.verdict();
    const domain::Forecast said{"Ines", 900, 0.1, "the wire", "", {}}, nobody{"", 600, 0.2, "", "", {}};
    const auto at = static_cast<std::size_t>(v.group(1, 11) - v.groups.data());
    const auto t = forecastTable(m.data, v,
                                 {{at, &said, 1000.0 / 900, false, true, "wire"},
                                  {at, &said, 1000.0 / 900, true, false, "the hook"},
                                  {at, &nobody, {}, false, {}, ""}},
                                 newton());
    const auto& first = t.rows[0].cells;
    EXPECT_EQ(first[0], "Pin");
    EXPECT_EQ(first[1], "Ines");
    EXPECT_EQ(first[2], "900 N ± 10 %");
    EXPECT_EQ(first[4], "1.11");
    EXPECT_EQ(first[5], "yes");
    EXPECT_EQ(first[6], "the wire");
    EXPECT_EQ(first[7], "wire, as expected");
    const auto& second = t.rows[1].cells;
    EXPECT_EQ(second[4], "at least 1.11");
    EXPECT_EQ(second[5], "no");
    EXPECT_EQ(second[7], "the hook");
    const auto& third = t.rows[2].cells;
    EXPECT_EQ(third[1], "somebody");
    EXPECT_EQ(third[4], "–");
    EXPECT_EQ(third[5], "–");
    EXPECT_EQ(third[6], "–");
    EXPECT_EQ(third[7], "not said");
}

} // namespace
} // namespace anvil::words
