#include <anvil/quantity/print.h>
#include <gtest/gtest.h>
#include <limits>

using namespace anvil::quantity;

namespace {

TEST(Print, SignificantDigits) {
    EXPECT_EQ(significant(1234.56), "1235");
    EXPECT_EQ(significant(12345.6), "12\u00a0350");
    EXPECT_EQ(significant(9999.7), "10\u00a0000");
    EXPECT_EQ(significant(0.0123456), "0.01235");
    EXPECT_EQ(significant(2, 3), "2.00");
    EXPECT_EQ(significant(-1.5), "-1.500");
    EXPECT_EQ(significant(0), "0");
    EXPECT_EQ(significant(0.99996), "1.000");
    EXPECT_EQ(significant(std::numeric_limits<double>::quiet_NaN()), "–");
}

TEST(Print, GroupsOfThreeFromFiveDigitsOn) {
    EXPECT_EQ(fixed(1234, 0), "1234");
    EXPECT_EQ(fixed(-1234567.25, 2), "-1\u00a0234\u00a0567.25");
    EXPECT_EQ(fixed(-0.001, 2), "0.00");
}

TEST(Print, ShortestHidesBinaryDust) {
    EXPECT_EQ(shortest(48.3 * 9.80665 / 9.80665), "48.3");
    EXPECT_EQ(shortest(0.1 + 0.2), "0.3");
    EXPECT_EQ(shortest(1e20), "1e+20");
    EXPECT_EQ(shortest(0), "0");
    EXPECT_EQ(shortest(1250), "1250");
}

TEST(Print, WithUnitAndPercent) {
    EXPECT_EQ(withUnit(2345.6, unit("kN")), "2.346 kN");
    EXPECT_EQ(withUnit(2345.6, unit("lbf")), "527.3 lbf");
    EXPECT_EQ(percent(0.0412), "4.1 %");
    EXPECT_EQ(percent(0.314), "31 %");
    EXPECT_EQ(tidy(3.25 * 0.0254 / 0.001), 82.55);
}

TEST(Print, AtStepShowsWhatADisplayResolves) {
    EXPECT_EQ(atStep(21.46, 0.5), "21.5");
    EXPECT_EQ(atStep(-0.04, 0.5), "0.0") << "never minus nothing";
    EXPECT_EQ(atStep(4321.7, 1), "4322");
    EXPECT_EQ(atStep(4.3217, 0.0005), "4.3217");
    EXPECT_EQ(atStep(0.1234, 0.1), "0.1");
    EXPECT_EQ(atStep(12.34, 0), significant(12.34));
    EXPECT_EQ(atStep(123456, 50), fixed(123456, 0));
}

TEST(Print, WhatSomebodyTypedComesBackInAsFewDigits) {
    EXPECT_EQ(asEntered(50, unit("N")), "50 N");
    EXPECT_EQ(asEntered(1500, unit("kN")), "1.5 kN");
    EXPECT_EQ(asEntered(98.0665, unit("kgf")), "10 kgf") << "no dust of the conversion";
    EXPECT_EQ(asEntered(86400, unit("d")), "1 d");
    EXPECT_EQ(asEntered(0.125, siUnit(Dimension::ratio)), "0.125");
}

} // namespace
