// Inputs that came later: sections of tubes and strands, legs in space, lines that lean; hand-worked.
#include <anvil/methods/method.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>

namespace anvil::methods {
namespace {

using Typed = std::vector<std::pair<std::string, std::string>>;

Expected<Numbers> derived(const char* method, const Typed& typed) {
    const auto* m = find(method);
    const auto e = evidenceFrom(*m, typed);
    if (!e) return tl::unexpected(e.error());
    return measure(*m, *e);
}

double valueOf(const Expected<Numbers>& all, const char* metric) {
    if (!all) {
        ADD_FAILURE() << all.error().message;
        return NAN;
    }
    const auto* n = all->find(metric);
    if (!n || !n->value) {
        ADD_FAILURE() << metric << ": " << (n ? n->whyNot : "no such metric");
        return NAN;
    }
    return n->value->value;
}

bool hasNote(const Expected<Numbers>& all, const char* part) {
    return all && std::any_of(all->notes.begin(), all->notes.end(),
                              [&](const std::string& n) { return n.find(part) != std::string::npos; });
}

TEST(Sections, TubeStrandsAndBar) {
    // π/4 (20² − 16²) = 113.097 mm²
    EXPECT_NEAR(
        valueOf(derived("tension-coupon", {{"diameter", "20 mm"}, {"wall", "2 mm"}, {"peak", "10 kN"}}),
                "strength"),
        1e4 / 113.0973355e-6, 10);
    // seven wires of 1 mm: 5.49779 mm²
    EXPECT_NEAR(
        valueOf(derived("tension-coupon", {{"diameter", "1 mm"}, {"strands", "7"}, {"peak", "1000 lbf"}}),
                "strength"),
        4448.2216152605 / 5.497787144e-6, 10);
    EXPECT_NEAR(valueOf(derived("tension-coupon",
                                {{"breadth", "1/2 in"}, {"thickness", "1/8 in"}, {"peak", "500 lbf"}}),
                        "strength"),
                8000 * 6894.757293168, 10); // 8000 psi
    EXPECT_FALSE(derived("tension-coupon", {{"diameter", "10 mm"}, {"wall", "6 mm"}, {"peak", "1 kN"}}));
    EXPECT_FALSE(derived("tension-coupon", {{"diameter", "1 mm"}, {"strands", "2.5"}, {"peak", "1 kN"}}));
}

TEST(AxialPull, ByAreaAndWeight) {
    const auto all = derived(
        "axial-pull", {{"peak", ">2 kN"}, {"area", "4 cm²"}, {"weight", "2 kg"}, {"engagement", "40 mm"}});
    EXPECT_NEAR(valueOf(all, "peak_per_area"), 5e6, 1e-3);
    EXPECT_NEAR(valueOf(all, "peak_per_weight"), 2000 / (2 * 9.80665), 1e-9);
    EXPECT_NEAR(valueOf(all, "peak_per_length"), 5e4, 1e-6);
    EXPECT_EQ(all->find("peak_per_area")->value->bound, stats::Bound::above) << "a bound stays one";
}

TEST(LoadShare, ALegByDifference) {
    const auto plain = derived("load-share", {{"leg.1", "300 N"}, {"leg.3", "500 N"}, {"master", "1.2 kN"}});
    EXPECT_NEAR(valueOf(plain, "greatest_share"), 500.0 / 1200, 1e-12);
    EXPECT_TRUE(hasNote(plain, "Leg 2 has no sensor: its load is told by difference, 400.0 N"));
    EXPECT_NEAR(valueOf(plain, "unevenness"), 500.0 * 3 / 1200, 1e-12);
    EXPECT_FALSE(derived("load-share", {{"leg.1", "300 N"}, {"leg.3", "500 N"}})) << "no load on all";
    EXPECT_FALSE(derived("load-share", {{"leg.1", "300 N"}, {"leg.4", "500 N"}, {"master", "2 kN"}}))
        << "two are missing";
    EXPECT_FALSE(derived("load-share", {{"leg.1", "900 N"}, {"leg.3", "500 N"}, {"master", "1 kN"}}))
        << "more than all";
}

Typed tripod(const char* a, const char* b, const char* c) {
    Typed out{
        {"direction.1", "0°"}, {"direction.2", "120°"}, {"direction.3", "240°"}, {"leg.1", a}, {"leg.2", b},
        {"leg.3", c}};
    for (const char* leg : {"elevation.1", "elevation.2", "elevation.3"})
        out.emplace_back(leg, "60°");
    return out;
}

TEST(LoadShare, LegsInSpace) {
    auto typed = tripod("400 N", "400 N", "400 N");
    typed.emplace_back("master", "1039.23 N"); // 1200 sin 60°
    const auto even = derived("load-share", typed);
    EXPECT_NEAR(valueOf(even, "unevenness"), 1, 1e-12);
    EXPECT_NEAR(valueOf(even, "residual"), 0, 0.01);
    EXPECT_NEAR(valueOf(even, "off_plan"), 0, 1e-9);
    EXPECT_TRUE(hasNote(even, "33 %, 33 % and 33 %"));
    auto off = tripod("600 N", "300 N", "300 N");
    off.emplace_back("master", "1500 N");
    EXPECT_TRUE(hasNote(derived("load-share", off), "differ by more than a tenth"));
    EXPECT_NEAR(valueOf(derived("load-share", off), "off_plan"), 0.5 - 1.0 / 3, 1e-9);
}

TEST(LoadShare, WhatCannotBe) {
    EXPECT_FALSE(derived("load-share", {{"leg.1", "-3 N"}, {"leg.2", "5 N"}}));
    EXPECT_FALSE(derived("load-share", {{"direction.1", "0°"}, {"leg.1", "3 N"}, {"leg.2", "5 N"}}))
        << "some have no direction";
    auto typed = tripod("1 N", "1 N", "1 N");
    typed[6].second = "95°";
    EXPECT_FALSE(derived("load-share", typed)) << "a leg rises by 90° at most";
    EXPECT_FALSE(derived("load-share", {{"leg.1", "400 mm"}, {"leg.2", "5 N"}}));
}

TEST(Advantage, LinesThatLean) {
    const auto all = derived(
        "advantage", {{"ideal", "3"}, {"line_angle", "60°"}, {"input", "400 N"}, {"output", "540 N"}});
    EXPECT_NEAR(valueOf(all, "efficiency"), 540.0 / 400 / 1.5, 1e-9); // cos 60° = 1/2
    EXPECT_TRUE(hasNote(all, "The ideal of 3 is 1.5"));
    EXPECT_TRUE(hasNote(derived("advantage", {{"ideal", "3"}, {"input", "40 kg"}, {"output", "140 kg"}}),
                        "more than the ideal"));
    EXPECT_FALSE(derived("advantage", {{"ideal", "0.5"}, {"input", "40 kg"}, {"output", "140 kg"}}));
    EXPECT_FALSE(derived("advantage",
                         {{"ideal", "3"}, {"line_angle", "90°"}, {"input", "40 kg"}, {"output", "140 kg"}}));
}

TEST(Attempts, WithTheirInterval) {
    const auto all = derived("attempts", {{"successes", "9"}, {"tries", "10"}});
    EXPECT_NEAR(valueOf(all, "success_rate"), 0.9, 1e-12);
    EXPECT_TRUE(hasNote(all, "between 55.5 and 99.7 %")); // Clopper and Pearson's table
    EXPECT_EQ(all->find("success_rate")->tally, (stats::Tally{9, 10}));
    EXPECT_FALSE(derived("attempts", {{"successes", "11"}, {"tries", "10"}}));
    EXPECT_FALSE(derived("attempts", {{"successes", "1"}, {"tries", "1e9"}}));
}

TEST(Grades, AreStepsOfAScale) {
    const auto& m = *find("axial-pull");
    Evidence e = evidenceFrom(m, Typed{{"peak", "1 kN"}}).value();
    e.afterwards = "bent";
    auto all = measure(m, e);
    EXPECT_FALSE(all->find("afterwards")->value);
    EXPECT_NE(all->find("afterwards")->whyNot.find("no step"), std::string::npos);
    e.grade = 4;
    all = measure(m, e);
    EXPECT_EQ(all->find("afterwards")->value->value, 4);
    EXPECT_EQ(all->find("afterwards")->metric->scale, Scale::graded);
}

TEST(Drop, WhatABurstSays) {
    const auto& m = *find("drop");
    Evidence e = evidenceFrom(m, Typed{{"height", "1 m"}, {"mass", "3 kg"}}).value();
    curve::Reading r;
    r.loadKind = quantity::Dimension::acceleration;
    r.peak.load = 1000;
    r.burst = curve::Burst{900, 0.1, 0.004, 4.4, 12, 0.09, 0.1, 300};
    e.reading = &r;
    const auto all = measure(m, e);
    EXPECT_EQ(valueOf(all, "peak_deceleration"), 900) << "as it was filtered";
    EXPECT_EQ(valueOf(all, "severity"), 12);
    EXPECT_EQ(valueOf(all, "pulse_width"), 0.004);
    EXPECT_EQ(valueOf(all, "velocity_change"), 4.4);
    EXPECT_NEAR(valueOf(all, "energy"), 3 * 9.80665, 1e-9);
    EXPECT_TRUE(hasNote(all, "low-pass at 300 Hz"));
    r.burst->velocityChange = 20; // √(2·g·1 m) is 4.43 m/s
    EXPECT_TRUE(hasNote(measure(m, e), "more speed than twice"));
}

TEST(Legs, AreOfTheirInput) {
    const auto& m = *find("load-share");
    EXPECT_EQ(inputNamed(m, "leg.2"), m.input("leg"));
    EXPECT_EQ(inputNamed(m, "leg"), nullptr) << "a leg has a number";
    EXPECT_EQ(inputNamed(m, "master"), m.input("master"));
    EXPECT_EQ(inputNamed(m, "master.1"), nullptr);
}

} // namespace
} // namespace anvil::methods

namespace anvil::methods {
namespace {

TEST(Drop, AFilterTellsNoMoreThanTheSensorShowed) {
    const auto& m = *find("drop");
    Evidence e = evidenceFrom(m, std::vector<std::pair<std::string, std::string>>{{"height", "1 m"}}).value();
    curve::Reading r;
    r.loadKind = quantity::Dimension::acceleration;
    r.peak.load = 1471; // where the sensor ends
    r.burst = curve::Burst{1503, 0.1, 0.004, 4.4, 12, 0.09, 0.1, 500};
    e.reading = &r;
    e.bound = stats::Bound::above;
    EXPECT_EQ(measure(m, e)->find("peak_deceleration")->value->value, 1471);
}

TEST(Inputs, WhatWasMeasuredGoesByTheNameOfItsInput) {
    const auto& bend = *find("three-point-bend");
    const auto* span = bend.input("span");
    ASSERT_TRUE(span);
    for (const char* name : {"span", "Span", "SPAN"})
        EXPECT_EQ(inputMeasured(bend, name), span) << name;
    const auto& coupon = *find("tension-coupon");
    for (const char* name : {"gauge_length", "Gauge length", "gauge LENGTH"})
        EXPECT_EQ(inputMeasured(coupon, name), coupon.input("gauge_length")) << name;
    EXPECT_EQ(inputMeasured(bend, "spans"), nullptr);
    EXPECT_EQ(inputMeasured(bend, "peak"), nullptr) << "a load is not measured of a piece";
    EXPECT_EQ(inputMeasured(bend, ""), nullptr);
    EXPECT_TRUE(sameName("A_b", "a B"));
    EXPECT_FALSE(sameName("a b", "a bc"));
}

} // namespace
} // namespace anvil::methods
