// What file names say of what was pulled.
#include <anvil/tables/names.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil::tables;

namespace {

TEST(Names, WordsOfAFileName) {
    const auto p = partsOf("/logs/wedge-socket_salt-soaked_3.csv", {});
    EXPECT_EQ(p.option, "wedge socket");
    EXPECT_EQ(p.condition, "salt soaked");
    EXPECT_EQ(p.replicate, 3);
    EXPECT_EQ(partsOf("pin_rep07.log", {}).replicate, 7);
    EXPECT_EQ(partsOf("pin.csv", {}).option, "pin");
    EXPECT_EQ(partsOf("pin.csv", {}).replicate, 0);
}

TEST(Names, ACorrectionTeachesWhereTheWordsStand) {
    const auto places = learn("2026_dry_pin_3.csv", "pin");
    ASSERT_TRUE(places);
    NamePattern pattern;
    pattern.option = *places;
    pattern.condition = *learn("2026_dry_pin_3.csv", "Dry");
    const auto p = partsOf("2026_wet_bolt_4.csv", pattern);
    EXPECT_EQ(p.option, "bolt");
    EXPECT_EQ(p.condition, "wet");
    EXPECT_EQ(p.replicate, 4);
    EXPECT_FALSE(learn("2026_dry_pin_3.csv", "screw"));
}

/// "option|condition#replicate" of each name under the pattern that is found for all.
std::string told(const std::vector<std::string>& names) {
    const auto pattern = patternOf(names);
    std::string out;
    for (const auto& n : names) {
        const auto p = partsOf(n, pattern);
        out += (out.empty() ? "" : ", ") + p.option + (p.condition.empty() ? "" : "|" + p.condition) +
               (p.replicate ? fmt::format("#{}", p.replicate) : "");
    }
    return out;
}

TEST(Names, WhatVariesMatters) {
    EXPECT_EQ(told({"M8_zinc_dry_1.csv", "M8_zinc_wet_1.csv"}), "M8 zinc|dry#1, M8 zinc|wet#1")
        << "two conditions of one option, never one square";
    EXPECT_EQ(told({"M8_zinc_dry_1.csv", "M10_zinc_wet_2.csv"}), "M8|dry#1, M10|wet#2");
    EXPECT_EQ(told({"test_gorse_1.csv", "test_alder_1.csv"}), "gorse#1, alder#1");
    EXPECT_EQ(told({"pull_gorse_dry_1.csv", "pull_alder_dry_1.csv"}), "gorse|dry#1, alder|dry#1");
    EXPECT_EQ(told({"bench_A12_gorse_salt_1.csv", "bench_A12_alder_dry_1.csv"}), "gorse|salt#1, alder|dry#1");
    EXPECT_EQ(told({"salt_gorse_1.csv", "dry_alder_1.csv"}), "gorse|salt#1, alder|dry#1")
        << "conditions in front";
    EXPECT_EQ(told({"gorse-hook_salt-soaked_1.csv", "alder-clip_salt-soaked_1.csv"}),
              "gorse hook|salt soaked#1, alder clip|salt soaked#1")
        << "a condition all share is one nevertheless";
    EXPECT_EQ(told({"gorse_24h_1.csv", "gorse_48h_1.csv"}), "gorse|24h#1, gorse|48h#1");
    EXPECT_EQ(told({"gorse_1.csv", "gorse_2.csv"}), "gorse#1, gorse#2");
    EXPECT_EQ(told({"gorse 2 mm_1.csv", "gorse 3 mm_1.csv"}), "gorse 2 mm#1, gorse 3 mm#1");
}

TEST(Names, DatesCopiesAndNumbersAreNoOptions) {
    for (const char* name :
         {"gorse_3.csv", "gorse_2026-03-02_3.csv", "20260302_gorse_3.csv", "2026-03-02 gorse run 3.csv",
          "gorse (3).csv", "copy of gorse (3).csv", "gorse r3.csv", "gorse_n°3.csv", "gorse_rep03.csv",
          "gorse_test_3.csv", "gorse-2026-03-02-3.csv", "gorse_02.03.2026_3.csv",
          "gorse_2026-03-02_14-05-33_3.csv", "gorse #3.csv"}) {
        const auto p = partsOf(name, {});
        EXPECT_EQ(p.option, "gorse") << name;
        EXPECT_EQ(p.condition, "") << name;
        EXPECT_EQ(p.replicate, 3) << name;
    }
    EXPECT_EQ(partsOf("M8.csv", {}).option, "M8");
    EXPECT_EQ(partsOf("M8.csv", {}).replicate, 0);
}

TEST(Names, FoldersNameWhatIsNumbered) {
    EXPECT_EQ(told({"gorse hook/dry/1.csv", "gorse hook/wet/1.csv", "alder/dry/01.csv"}),
              "gorse hook|dry#1, gorse hook|wet#1, alder|dry#1");
    EXPECT_EQ(told({"gorse/1.csv", "alder/1.csv"}), "gorse#1, alder#1");
    EXPECT_EQ(told({"dry/bench_M8_zinc_dry_1.csv", "wet/bench_M8_zinc_wet_1.csv"}),
              "M8 zinc|dry#1, M8 zinc|wet#1")
        << "said twice";
    EXPECT_EQ(told({"dry/gorse_1.csv", "wet/gorse_1.csv"}), "gorse|dry#1, gorse|wet#1");
}

TEST(Names, TwoFormsOfALetterAreOne) {
    const std::string one = "cafe\u0301_1.csv", two = "caf\u00e9_2.csv";
    EXPECT_EQ(partsOf(one, {}).option, partsOf(two, {}).option);
    EXPECT_EQ(told({one, two}), "caf\u00e9#1, caf\u00e9#2");
}

TEST(Names, AnyBytesAreAName) {
    for (const char* name :
         {"", "/", "...", "_", ".csv", "((((", "\xff\xfe.csv", "a/b/c/", "\\\\server\\x.csv"}) {
        const auto p = partsOf(name, patternOf({name}));
        EXPECT_GE(p.replicate, 0);
    }
    EXPECT_EQ(patternOf({}), NamePattern{});
}

} // namespace
