#include <anvil/quantity/digits.h>
#include <anvil/quantity/entry.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil::quantity;

namespace {

struct Typed {
    const char* text;
    Dimension wanted;
    double si;
};

TEST(Entry, WhatPeopleType) {
    for (const auto& [text, wanted, si] : {Typed{"3 1/4 in", Dimension::length, 0.08255},
                                           {"3-1/4\"", Dimension::length, 0.08255},
                                           {"5' 3 1/2\"", Dimension::length, 1.6129},
                                           {"1.5kN", Dimension::force, 1500},
                                           {"48,3 kg", Dimension::force, 48.3 * 9.80665},
                                           {"1 250 N", Dimension::force, 1250},
                                           {"12 ft-lb", Dimension::torque, 12 * 1.3558179483314004},
                                           {"1/2 in", Dimension::length, 0.0127},
                                           {"  7   mm ", Dimension::length, 0.007},
                                           {"1.250 kN", Dimension::force, 1250},
                                           {"1,250,000 N", Dimension::force, 1.25e6},
                                           {"1,250.5 N", Dimension::force, 1250.5},
                                           {"1.250,5 N", Dimension::force, 1250.5},
                                           {"0,125 in", Dimension::length, 0.003175},
                                           {"-3 N", Dimension::force, -3},
                                           {"1e3 N", Dimension::force, 1000},
                                           {"2.5E-3 kN", Dimension::force, 2.5},
                                           {".5 N", Dimension::force, 0.5},
                                           {"5'", Dimension::length, 1.524},
                                           {"5 ft 3 in", Dimension::length, 1.6002},
                                           {"12 345 678 N", Dimension::force, 12345678}}) {
        const auto got = parseEntry(text, wanted);
        ASSERT_TRUE(got) << text << ": " << got.error().message;
        EXPECT_NEAR(got->si, si, 1e-9 * std::abs(si)) << text;
        EXPECT_TRUE(got->plain()) << text;
    }
}

TEST(Entry, Doubt) {
    const auto above = parseEntry(">9 kN", Dimension::force);
    ASSERT_TRUE(above);
    EXPECT_EQ(above->bound, Bound::above);
    EXPECT_DOUBLE_EQ(above->si, 9000);
    EXPECT_EQ(parseEntry("<2 N", Dimension::force)->bound, Bound::below);
    EXPECT_EQ(parseEntry("≥ 2 N", Dimension::force)->bound, Bound::above);
    EXPECT_EQ(parseEntry("~12 N", Dimension::force)->precision, Precision::about);
    for (const char* text : {"4…5 kN", "4-5 kN", "4 - 5 kN", "4–5 kN", "4...5 kN", "4 kN … 5 kN"}) {
        const auto range = parseEntry(text, Dimension::force);
        ASSERT_TRUE(range) << text << ": " << range.error().message;
        EXPECT_EQ(range->bound, Bound::between) << text;
        EXPECT_DOUBLE_EQ(range->si, 4000) << text;
        EXPECT_DOUBLE_EQ(range->upperSi, 5000) << text;
    }
    const auto pm = parseEntry("12 ± 1 N", Dimension::force);
    ASSERT_TRUE(pm);
    EXPECT_EQ(pm->precision, Precision::plusMinus);
    EXPECT_DOUBLE_EQ(pm->si, 12);
    EXPECT_DOUBLE_EQ(pm->plusMinusSi, 1);
}

TEST(Entry, OneCommaAndThreeDigitsIsRefused) {
    const auto got = parseEntry("1,250 N", Dimension::force);
    ASSERT_FALSE(got);
    EXPECT_EQ(got.error().message,
              "1.25 or 1250? \"1,250\" can be read both ways: write it with a point or without the comma.");
}

struct Bad {
    const char* text;
    const char* says;
};

TEST(Entry, BadInputNamesTheTextAndWhatWouldDo) {
    for (const auto& [text, says] : {Bad{"", "Nothing was entered"},
                                     {"   ", "Nothing was entered"},
                                     {"abc", "does not start with a number"},
                                     {"12", "has no unit: add one, such as N, kN, kgf or lbf"},
                                     {"12 mm", "measures length, but force is wanted here"},
                                     {"12 zork", "\"zork\" is not a unit known here"},
                                     {"1e400 N", "too large or too small"},
                                     {"5…4 N", "runs from the larger to the smaller"},
                                     {"12,34,5 N", "grouping mark in the wrong place"},
                                     {"1/0 N", "divides by zero"},
                                     {">", "does not start with a number"},
                                     {"± 3 N", "does not start with a number"},
                                     {"1.2.3 N", "grouping mark"},
                                     {"--5 N", "does not start"},
                                     {"nan N", "does not start with a number"},
                                     {"inf N", "does not start with a number"}}) {
        const auto got = parseEntry(text, Dimension::force);
        ASSERT_FALSE(got) << text;
        EXPECT_NE(got.error().message.find(says), std::string::npos) << text << ": " << got.error().message;
    }
}

TEST(Entry, MassesInAForceFieldAreShownAsForces) {
    EXPECT_EQ(print(*parseEntry("48.3 kg", Dimension::force)), "48.3 kgf");
}

TEST(Entry, PrintsBackWithItsDigits) {
    for (const char* text :
         {"48.3 kgf", "1.50 kN", ">9 kN", "4…5 kN", "~12 N", "12 ± 1 N", "0.10 mm", "3.25 in", "12 345 N"}) {
        const auto entry = parseEntry(text);
        ASSERT_TRUE(entry) << text;
        std::string want = text;
        if (want == "12 345 N") want = "12\u00a0345 N";
        EXPECT_EQ(print(*entry), want);
    }
    EXPECT_EQ(print(*parseEntry("3 1/4 in")), "3.25 in");
}

TEST(Entry, PrintsInAnotherUnitWithItsDoubt) {
    const auto in = [](const char* text, const char* symbol) {
        const auto& u = unit(symbol);
        return printIn(*parseEntry(text, u.dimension), u);
    };
    EXPECT_EQ(in("1.50 kN", "kN"), "1.50 kN") << "as typed";
    EXPECT_EQ(in("1.5 kN", "N"), "1500 N");
    EXPECT_EQ(in(">9 kN", "N"), ">9000 N");
    EXPECT_EQ(in("4…5 kN", "N"), "4000…5000 N");
    EXPECT_EQ(in("~1 in", "mm"), "~25.40 mm");
    EXPECT_EQ(in("12 ± 1 kgf", "N"), "117.7 ± 9.807 N");
    EXPECT_EQ(in("<20 °C", "K"), "<293.1 K") << "an offset is no part of the doubt";
}

TEST(Entry, EveryTypedNumberSurvivesPrintingInEveryUnit) {
    for (const auto& u : allUnits())
        for (int i = 1; i < 400; ++i) {
            const auto digits = fmt::format("{}.{}", i, i % 7);
            const Entry entry = {
                u.toSi(machineNumber(digits).value()), Bound::exact, Precision::stated, 0, 0, &u, 1};
            const auto text = print(entry);
            EXPECT_EQ(text.substr(0, text.find(' ')), digits) << u.symbol;
        }
}

TEST(Entry, AnyBytesGiveAnAnswer) { // a stranger's keyboard: no crash, no hang, always a value or a sentence
    unsigned state = 1;
    const char alphabet[] = "0123456789.,/-+' \"eEkNmg<>~\xc2\xb1\xe2\x80\xa6x";
    for (int round = 0; round < 20000; ++round) {
        std::string text;
        for (unsigned n = (state = state * 1664525 + 1013904223) % 12; n > 0; --n)
            text += alphabet[(state = state * 1664525 + 1013904223) / 65536 % (sizeof alphabet - 1)];
        const auto got = parseEntry(text);
        if (!got)
            EXPECT_FALSE(got.error().message.empty());
        else
            EXPECT_TRUE(std::isfinite(got->si)) << text;
    }
}

TEST(Number, Bare) {
    EXPECT_DOUBLE_EQ(*parseNumber("0,35"), 0.35);
    EXPECT_DOUBLE_EQ(*parseNumber("1 250"), 1250);
    EXPECT_FALSE(parseNumber("12 N"));
    EXPECT_FALSE(parseNumber("cheap"));
    EXPECT_FALSE(parseNumber("1,250"));
}

/// Nested feet, endless digits, endless units: a sentence at once.
TEST(Entry, WhatIsNoMeasurementEndsAtOnce) {
    for (const char* piece : {"1 a ", "5' ", "1 1/2 ", "1-", "1…", "±", "((", "9", "1e9", "µ", "1,250 "}) {
        std::string text;
        while (text.size() < 100'000)
            text += piece;
        EXPECT_FALSE(parseEntry(text)) << piece;
        EXPECT_FALSE(parseNumber(text)) << piece;
        EXPECT_FALSE(parseEntry(text.substr(0, 190), Dimension::length)) << piece;
    }
    EXPECT_NEAR(parseEntry("5' 3 1/2\"", Dimension::length)->si, (5 * 12 + 3.5) * 0.0254, 1e-12);
    EXPECT_NEAR(parseEntry("5 ft 3", Dimension::length)->si, 63 * 0.0254, 1e-12) << "inches by themselves";
    EXPECT_FALSE(parseEntry("5' 3' 2\"", Dimension::length));
    EXPECT_FALSE(parseEntry("1e308 kN")) << "too large once it is in newtons";
}

/// A number has one decimal mark and groups of three, or it is refused.
TEST(Entry, GroupsOfThreeOrNone) {
    for (const char* bad :
         {"1.25,0 N", "12,50.5 N", "1,2.5 N", "32,25011,22151,2500 N", "1,250,50 N", "1.250.00 N",
          "1234,567.8 N", ",250,000 N", "1,250.000,5 N", "1 250,000.5 N", "1,,250 N"})
        EXPECT_FALSE(parseEntry(bad)) << bad;
    EXPECT_EQ(parseEntry("1,250,000 N")->si, 1250000);
    EXPECT_EQ(parseEntry("1.250.000 N")->si, 1250000);
    EXPECT_EQ(parseEntry("1,250.5 N")->si, 1250.5);
    EXPECT_EQ(parseEntry("1.250,5 N")->si, 1250.5);
    EXPECT_EQ(parseEntry("1 250,5 N")->si, 1250.5);
    EXPECT_EQ(parseEntry("12,5 N")->si, 12.5);
    EXPECT_EQ(parseEntry("1e-5 m")->si, 1e-5);
}

/// Spellings from other keyboards, phones and word processors.
TEST(Entry, EveryKeyboard) {
    constexpr double in = 0.0254, ft = 0.3048, lbf = 4.4482216152605, kgf = 9.80665;
    using enum Dimension;
    for (const auto& [text, wanted, si] : {Typed{"3¼ in", length, 3.25 * in},
                                           {"⅞\"", length, 0.875 * in},
                                           {"3⁄8 in", length, 0.375 * in},
                                           {"1⅔ ft", length, 5.0 / 3 * ft},
                                           {"⅒ in", length, 0.1 * in},
                                           {"5'-3\"", length, 63 * in},
                                           {"5' - 3 1/2\"", length, 63.5 * in},
                                           {"5ft3in", length, 63 * in},
                                           {"5ft 3in", length, 63 * in},
                                           {"5 ft. 3 in.", length, 63 * in},
                                           {"5’ 3½”", length, 63.5 * in},
                                           {"5′3″", length, 63 * in},
                                           {"3''", length, 3 * in},
                                           {"-5'3\"", length, -63 * in},
                                           {"1'250 N", force, 1250},
                                           {"1’250’000 N", force, 1250000},
                                           {"1\u2009250 N", force, 1250},
                                           {"1\u202f250,5\u00a0N", force, 1250.5},
                                           {"−12 N", force, -12},
                                           {"–12 N", force, -12},
                                           {"12 N⋅m", torque, 12},
                                           {"12 N·m", torque, 12},
                                           {"12 N•m", torque, 12},
                                           {"12 N∙m", torque, 12},
                                           {"12 N.m", torque, 12},
                                           {"12 N*m", torque, 12},
                                           {"12 N-m", torque, 12},
                                           {"12 N−m", torque, 12},
                                           {"12 foot pounds", torque, 12 * ft * lbf},
                                           {"12 foot-pounds", torque, 12 * ft * lbf},
                                           {"12 lb-ft", torque, 12 * ft * lbf},
                                           {"12 ft·lbf", energy, 12 * ft * lbf},
                                           {"12 foot pounds", energy, 12 * ft * lbf},
                                           {"2 kgf/cm²", stress, 2 * kgf * 1e4},
                                           {"2 kg/cm2", stress, 2 * kgf * 1e4},
                                           {"2 kg/cm^2", stress, 2 * kgf * 1e4},
                                           {"9 lb/in²", stress, 9 * lbf / in / in},
                                           {"9 lbf/in^2", stress, 9 * lbf / in / in},
                                           {"3 kip", force, 3000 * lbf},
                                           {"3 kips", force, 3000 * lbf},
                                           {"25 cN", force, 0.25},
                                           {"25 dN", force, 2.5},
                                           {"25 kgs", force, 25 * kgf},
                                           {"25 lbs", force, 25 * lbf},
                                           {"25 lbsf", force, 25 * lbf},
                                           {"25 LBF", force, 25 * lbf},
                                           {"25 KN", force, 25000},
                                           {"25 MM", length, 0.025},
                                           {"25 Mm²", area, 25e-6},
                                           {"25 mpa", stress, 25e6},
                                           {"5 Min", time, 300}}) {
        if (std::string_view(text) == "25 Mm²") { // a megametre squared for all one can tell
            EXPECT_FALSE(parseEntry(text, wanted)) << text;
            continue;
        }
        const auto got = parseEntry(text, wanted);
        ASSERT_TRUE(got) << text << ": " << got.error().message;
        EXPECT_NEAR(got->si, si, 1e-12 * std::abs(si)) << text;
        EXPECT_TRUE(got->plain()) << text;
    }
}

/// Where a capital decides by a thousand or a thousand million, the entry must be written right.
TEST(Entry, CapitalsThatDecide) {
    for (const auto& [text, wanted] : {std::pair{"12 Mm", Dimension::length},
                                       {"12 Ms", Dimension::time},
                                       {"12 mn", Dimension::force},
                                       {"5'250\"", Dimension::length},
                                       {"1'25 N", Dimension::force},
                                       {"12 ft2", Dimension::length}})
        EXPECT_FALSE(parseEntry(text, wanted)) << text;
    EXPECT_EQ(parseEntry("12 mN", Dimension::force)->si, 0.012);
    EXPECT_EQ(parseEntry("12 MJ", Dimension::energy)->si, 12e6);
    EXPECT_EQ(parseEntry("12 mJ", Dimension::energy)->si, 0.012);
    EXPECT_EQ(parseEntry("12 mPa", Dimension::stress)->si, 0.012);
    EXPECT_EQ(parseEntry("12 mpa", Dimension::stress)->si, 12e6)
        << "who minds no capitals means the usual one";
    EXPECT_EQ(parseEntry("12 MPA", Dimension::stress)->si, 12e6);
    EXPECT_EQ(parseEntry("12 MN", Dimension::force)->si, 12e6);
}

TEST(Entry, DoubtInManySpellings) {
    for (const char* text : {"4 to 5 kN", "4 kN - 5 kN", "4 kN – 5 kN", "4..5 kN", "4 — 5 kN"}) {
        const auto range = parseEntry(text, Dimension::force);
        ASSERT_TRUE(range) << text << ": " << range.error().message;
        EXPECT_EQ(range->bound, Bound::between) << text;
        EXPECT_DOUBLE_EQ(range->si, 4000) << text;
        EXPECT_DOUBLE_EQ(range->upperSi, 5000) << text;
    }
    for (const char* text :
         {"12 N ± 5 %", "12 ± 5% N", "12 N +/- 5%", "12 ± 0.6 N", "(12 ± 0.6) N", "12 N +- 0.6 N"}) {
        const auto pm = parseEntry(text, Dimension::force);
        if (std::string_view(text) == "12 ± 5% N") {
            EXPECT_FALSE(pm) << "a share has its own place, after the unit";
            continue;
        }
        ASSERT_TRUE(pm) << text << ": " << pm.error().message;
        EXPECT_EQ(pm->precision, Precision::plusMinus) << text;
        EXPECT_DOUBLE_EQ(pm->si, 12) << text;
        EXPECT_NEAR(pm->plusMinusSi, 0.6, 1e-12) << text;
    }
    EXPECT_EQ(parseEntry("12 % ± 1 %", Dimension::ratio)->plusMinusSi, 0.01)
        << "per cent of per cent is points";
    EXPECT_NEAR(parseEntry("(12 ± 1) %", Dimension::ratio)->plusMinusSi, 0.01, 1e-15)
        << "the unit belongs to both";
    EXPECT_NEAR(parseEntry("(12 ± 1) %", Dimension::ratio)->si, 0.12, 1e-15);
    EXPECT_NE(parseEntry("12 ± 1 %", Dimension::ratio).error().message.find("12 % ± 1 %"), std::string::npos);
    EXPECT_EQ(print(*parseEntry("(12 ± 1) %", Dimension::ratio)), "12 % ± 1 %");
    EXPECT_EQ(parseEntry(print(*parseEntry("(12 ± 1) %", Dimension::ratio)), Dimension::ratio)->plusMinusSi,
              0.01);
    EXPECT_FALSE(parseEntry("20 °C ± 5 %", Dimension::temperature));
    EXPECT_EQ(parseEntry(">= 9 kN")->bound, Bound::above);
    EXPECT_EQ(parseEntry("⩽ 9 kN")->bound, Bound::below);
}

} // namespace
