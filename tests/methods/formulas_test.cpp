// Every formula against cases worked by hand, with units mixed, at the edges, and what is refused.
#include <anvil/methods/method.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::methods;
using stats::Bound;

namespace {

using Typed = std::vector<std::pair<std::string, std::string>>;

Expected<Numbers> derived(const char* method, const Typed& typed) {
    const auto* m = find(method);
    const auto evidence = evidenceFrom(*m, typed);
    if (!evidence) return tl::unexpected(evidence.error());
    return measure(*m, *evidence);
}

stats::Value of(const char* method, const Typed& typed, const char* metric) {
    const auto got = derived(method, typed);
    EXPECT_TRUE(got) << (got ? "" : got.error().message);
    const auto* n = got ? got->find(metric) : nullptr;
    EXPECT_TRUE(n && n->value) << metric << ": " << (n ? n->whyNot : "no such metric");
    return n && n->value ? *n->value : stats::Value{std::nan(""), Bound::exact, 0};
}

std::string whyNot(const char* method, const Typed& typed, const char* metric) {
    const auto got = derived(method, typed);
    EXPECT_TRUE(got) << (got ? "" : got.error().message);
    const auto* n = got ? got->find(metric) : nullptr;
    EXPECT_TRUE(n && !n->value) << metric << " has a value";
    return n ? n->whyNot : "";
}

std::string refusal(const char* method, const Typed& typed) {
    const auto got = derived(method, typed);
    return got ? "taken" : got.error().message;
}

bool notes(const char* method, const Typed& typed, const char* words) {
    const auto got = derived(method, typed);
    if (!got) return false;
    for (const auto& n : got->notes)
        if (n.find(words) != std::string::npos) return true;
    return false;
}

/// What follows where it was seen how the piece failed.
stats::Value failed(const char* method, const Typed& typed, std::optional<Failure> how, const char* metric,
                    std::vector<std::string>* notes = nullptr) {
    auto evidence = evidenceFrom(*find(method), typed);
    EXPECT_TRUE(evidence);
    evidence->failureTold = true;
    evidence->failure = how;
    const auto got = measure(*find(method), *evidence);
    EXPECT_TRUE(got);
    if (notes) *notes = got->notes;
    return got->find(metric)->value.value();
}

#define EXPECT_REL(value, expected) EXPECT_NEAR((value) / (expected), 1, 1e-9)

TEST(Formulas, AxialPull) {
    EXPECT_REL(of("axial-pull", {{"peak", "4.2 kN"}, {"engagement", "42 mm"}}, "peak_per_length").value, 1e5);
    const auto bound = of("axial-pull", {{"peak", ">2 kN"}, {"engagement", "2 in"}}, "peak_per_length");
    EXPECT_EQ(bound.bound, Bound::above);
    EXPECT_REL(bound.value, 2000 / 0.0508);
    EXPECT_EQ(whyNot("axial-pull", {{"peak", "4 kN"}}, "peak_per_length"), "no engagement was entered");
    EXPECT_EQ(whyNot("axial-pull", {{"peak", "4 kN"}}, "stiffness"), "only its peak was recorded");
    EXPECT_EQ(whyNot("axial-pull", {}, "peak"), "no peak was entered and there is no curve");
}

TEST(Formulas, TensionCoupon) {
    // 12.5 × 2 mm = 25 mm²; 10 kN / 25 mm² = 400 MPa; 50 N/mm·... k = 35 kN/mm, L₀ = 50 mm: 70 GPa.
    const Typed t{{"breadth", "12.5 mm"},        {"thickness", "2 mm"},     {"peak", "10 kN"},
                  {"yield", "7.5 kN"},           {"gauge_length", "50 mm"}, {"stiffness", "35 kN/mm"},
                  {"extension_at_break", "6 mm"}};
    EXPECT_REL(of("tension-coupon", t, "strength").value, 400e6);
    EXPECT_REL(of("tension-coupon", t, "yield_strength").value, 300e6);
    EXPECT_REL(of("tension-coupon", t, "modulus").value, 70e9);
    EXPECT_REL(of("tension-coupon", t, "elongation").value, 0.12);
    // A quarter of an inch round: 31.6692 mm².
    EXPECT_NEAR(of("tension-coupon", {{"diameter", "1/4 in"}, {"peak", "2000 lbf"}}, "strength").value /
                    6894.757293,
                2000 / 0.04908738521, 0.01);
    EXPECT_REL(of("tension-coupon", {{"area", "25 mm²"}, {"peak", "10 kN"}}, "strength").value, 400e6);
    for (const auto how : {Failure::outsideGauge, Failure::brokeAtEnd, Failure::snapped}) {
        std::vector<std::string> said;
        EXPECT_REL(failed("tension-coupon", t, how, "elongation", &said).value, 0.12);
        EXPECT_EQ(std::any_of(said.begin(), said.end(),
                              [](const auto& n) { return n.starts_with("It broke outside of the gauge"); }),
                  how != Failure::snapped);
    }
    EXPECT_NE(whyNot("tension-coupon", {{"peak", "10 kN"}}, "strength").find("cross-section"),
              std::string::npos);
    EXPECT_EQ(refusal("tension-coupon", {{"diameter", "0 mm"}}), "\"Diameter\" must be more than zero.");
}

TEST(Formulas, Compression) {
    EXPECT_REL(
        of("compression", {{"breadth", "20 mm"}, {"depth", "25 mm"}, {"peak", "20 kN"}}, "strength").value,
        40e6);
    EXPECT_REL(of("compression", {{"diameter", "20 mm"}, {"peak", "10 kN"}}, "strength").value,
               1e4 / (M_PI * 1e-4));
    EXPECT_TRUE(notes("compression", {{"breadth", "20 mm"}, {"depth", "20 mm"}, {"height", "50 mm"}},
                      "twice as high"));
    EXPECT_TRUE(notes("compression", {{"diameter", "20 mm"}, {"height", "15 mm"}}, "lower than wide"));
    EXPECT_FALSE(notes("compression", {{"diameter", "20 mm"}, {"height", "30 mm"}}, "wide"));
}

TEST(Formulas, PinShear) {
    // 4 mm round: 12.566 mm²; 3 kN in one plane 238.73 MPa, in two half of it.
    EXPECT_NEAR(of("pin-shear", {{"diameter", "4 mm"}, {"peak", "3 kN"}}, "shear_strength").value / 1e6,
                238.7324, 1e-4);
    EXPECT_NEAR(
        of("pin-shear", {{"diameter", "4 mm"}, {"planes", "2"}, {"peak", "3 kN"}}, "shear_strength").value /
            1e6,
        119.3662, 1e-4);
    EXPECT_REL(
        of("pin-shear", {{"area", "0.02 in²"}, {"planes", "1"}, {"peak", "500 lbf"}}, "shear_strength").value,
        25000 * 6894.757293168361);
    const auto between = of("pin-shear", {{"area", "10 mm²"}, {"peak", "2…3 kN"}}, "shear_strength");
    EXPECT_EQ(between.bound, Bound::between);
    EXPECT_REL(between.upper, 300e6);
    EXPECT_EQ(refusal("pin-shear", {{"planes", "3"}}), "A pin is sheared in 1 or in 2 planes.");
    EXPECT_EQ(refusal("pin-shear", {{"diameter", ">4 mm"}, {"peak", "3 kN"}}),
              "\"Diameter\" is needed as one number, not as a bound.");
    EXPECT_EQ(whyNot("pin-shear", {{"peak", "3 kN"}}, "shear_strength"),
              "it needs the diameter or the cross-section");
    EXPECT_TRUE(notes("pin-shear", {{"diameter", "4 mm"}}, "One shear plane"));
}

TEST(Formulas, LapShear) {
    EXPECT_REL(
        of("lap-shear", {{"width", "25 mm"}, {"overlap", "12.5 mm"}, {"peak", "5 kN"}}, "shear_strength")
            .value,
        16e6);
    EXPECT_REL(
        of("lap-shear", {{"width", "1 in"}, {"overlap", "1/2 in"}, {"peak", "1000 lbf"}}, "shear_strength")
            .value,
        2000 * 6894.757293168361);
    EXPECT_EQ(
        of("lap-shear", {{"width", "25 mm"}, {"overlap", "12.5 mm"}, {"peak", ">5 kN"}}, "shear_strength")
            .bound,
        Bound::above);
}

TEST(Formulas, ThreePointBend) {
    // L = 160, b = 20, d = 8 mm, F = 500 N: σ = 3·500·160/(2·20·64) = 93.75 MPa; D = 4 mm: ε = 6·4·8/25600;
    // k = 125 N/mm: E = 125·160³/(4·20·512) = 12.5 GPa; τ = 0.75·500/160 = 2.34375 MPa.
    const Typed t{{"span", "160 mm"}, {"breadth", "20 mm"},           {"depth", "8 mm"},
                  {"peak", "500 N"},  {"deflection_at_peak", "4 mm"}, {"stiffness", "125 N/mm"}};
    EXPECT_REL(of("three-point-bend", t, "bending_strength").value, 93.75e6);
    EXPECT_REL(of("three-point-bend", t, "strain_at_peak").value, 6 * 4 * 8 / 25600.0);
    EXPECT_REL(of("three-point-bend", t, "bending_modulus").value, 12.5e9);
    EXPECT_REL(of("three-point-bend", t, "short_beam_shear").value, 2.34375e6);
    EXPECT_FALSE(notes("three-point-bend", t, "less than 16"));
    // Round, 10 mm over 200 mm, 785.398 N (250·π): σ = 8·250π·200/(π·1000) = 400 MPa; k = 30π N/mm: E =
    // 4·30π·8e6/(3π·1e4).
    const Typed round{{"span", "20 cm"},
                      {"diameter", "10 mm"},
                      {"peak", "785.3981633974483 N"},
                      {"stiffness", "94.24777960769379 N/mm"}};
    EXPECT_REL(of("three-point-bend", round, "bending_strength").value, 400e6);
    EXPECT_REL(of("three-point-bend", round, "bending_modulus").value, 32e9);
    EXPECT_EQ(whyNot("three-point-bend", round, "short_beam_shear"), "it is told of a rectangle only");
    EXPECT_TRUE(notes("three-point-bend", {{"span", "100 mm"}, {"breadth", "20 mm"}, {"depth", "8 mm"}},
                      "less than 16"));
    EXPECT_TRUE(notes("three-point-bend", {{"span", "100 mm"}, {"deflection_at_peak", "11 mm"}},
                      "tenth of its span"));
    EXPECT_TRUE(
        notes("three-point-bend", {{"span", "400 mm"}, {"breadth", "5 mm"}, {"depth", "20 mm"}}, "swapped"));
    EXPECT_EQ(refusal("three-point-bend", {{"span", "10 mm"}, {"breadth", "20 mm"}, {"depth", "20 mm"}}),
              "The span is shorter than the piece is deep.");
    EXPECT_EQ(whyNot("three-point-bend", {{"peak", "500 N"}}, "bending_strength"), "it needs the span");
}

/// One load, two strengths: the one that did not fail is at least what was reached.
TEST(Formulas, HowABentPieceFailedSaysWhichStrengthWasReached) {
    const Typed slim{{"span", "160 mm"}, {"breadth", "20 mm"}, {"depth", "8 mm"}, {"peak", "500 N"}};
    const char* bend = "three-point-bend";
    std::vector<std::string> said;
    EXPECT_EQ(failed(bend, slim, Failure::sheared, "bending_strength", &said).bound, Bound::above);
    EXPECT_EQ(failed(bend, slim, Failure::sheared, "short_beam_shear").bound, Bound::exact);
    EXPECT_TRUE(std::any_of(said.begin(), said.end(),
                            [](const auto& n) { return n.starts_with("It sheared along"); }));
    for (const auto how :
         {std::optional(Failure::snapped), std::optional(Failure::crushed), std::optional<Failure>()}) {
        EXPECT_EQ(failed(bend, slim, how, "bending_strength", &said).bound, Bound::exact);
        EXPECT_EQ(failed(bend, slim, how, "short_beam_shear").bound, Bound::above);
        EXPECT_EQ(
            std::any_of(said.begin(), said.end(), [](const auto& n) { return n.starts_with("It gave way"); }),
            how == Failure::crushed);
    }
    // Nobody said how: a slim piece fails by bending, of a stout one nobody knows.
    EXPECT_EQ(of(bend, slim, "short_beam_shear").bound, Bound::above);
    const Typed stout{{"span", "127 mm"}, {"breadth", "20 mm"}, {"depth", "8 mm"}, {"peak", "500 N"}};
    EXPECT_EQ(of(bend, stout, "short_beam_shear").bound, Bound::exact);
}

TEST(Formulas, LeverBend) {
    // 25 lb at 14 in held, at 16 in failed, and 10 N·m of the arm.
    const Typed t{{"own_moment", "10 N·m"}, {"steps", "25 lb at 14 in held; 25 lb at 16 in failed"}};
    const auto m = of("lever-bend", t, "moment");
    EXPECT_EQ(m.bound, Bound::between);
    EXPECT_REL(m.value, 25 * 4.4482216152605 * 14 * 0.0254 + 10);
    EXPECT_REL(m.upper, 25 * 4.4482216152605 * 16 * 0.0254 + 10);
    // Tube 20 × 2 mm: I = π(20⁴ − 16⁴)/64 = 4637.0 mm⁴; 10 N·m: 21.5658 MPa.
    EXPECT_NEAR(of("lever-bend", {{"diameter", "20 mm"}, {"wall", "2 mm"}, {"steps", "10 N at 1 m failed"}},
                   "bending_stress")
                        .value /
                    1e6,
                10e3 * 10 / (M_PI * (160000 - 65536) / 64), 1e-9);
    EXPECT_REL(of("lever-bend", {{"breadth", "20 mm"}, {"depth", "5 mm"}, {"steps", "10 N at 1 m held"}},
                  "bending_stress")
                   .value,
               6 * 10 / (20e-3 * 25e-6));
    EXPECT_EQ(refusal("lever-bend", {{"steps", "10 N held"}}),
              "Every step needs a weight and a distance above zero.");
    EXPECT_EQ(
        refusal("lever-bend", {{"diameter", "20 mm"}, {"wall", "11 mm"}, {"steps", "10 N at 1 m held"}}),
        "The wall is thicker than half the tube.");
}

TEST(Formulas, Sag) {
    // 5 kg over 1 m sink by 14 mm: EI = 49.03325·1/(48·0.014).
    const Typed t{{"weight", "5 kg"},
                  {"span", "1 m"},
                  {"unloaded", "412 mm"},
                  {"loaded", "39.8 cm"},
                  {"after", "410 mm"}};
    EXPECT_REL(of("sag", t, "sag").value, 0.014);
    EXPECT_REL(of("sag", t, "stiffness").value, 49.03325 / 0.014);
    EXPECT_REL(of("sag", t, "bending_stiffness").value, 49.03325 / (48 * 0.014));
    EXPECT_REL(of("sag", t, "permanent_set").value, 0.002);
    EXPECT_NE(refusal("sag", {{"unloaded", "398 mm"}, {"loaded", "412 mm"}}).find("swapped"),
              std::string::npos);
    EXPECT_EQ(whyNot("sag", {{"unloaded", "412 mm"}, {"loaded", "398 mm"}}, "stiffness"),
              "it needs the weight");
    EXPECT_EQ(whyNot("sag", {{"unloaded", "412 mm"}, {"loaded", "412 mm"}, {"weight", "5 kg"}}, "stiffness"),
              "it did not sag");
}

TEST(Formulas, Torsion) {
    // 10 N·m on 8 mm: 16·10/(π·0.008³) = 99.4718 MPa.
    const Typed t{{"diameter", "8 mm"}, {"peak", "10 N·m"}, {"angle_at_peak", "270°"}};
    EXPECT_NEAR(of("torsion", t, "shear_stress").value / 1e6, 99.47184, 1e-5);
    EXPECT_REL(of("torsion", t, "greatest_angle").value, 1.5 * M_PI);
    EXPECT_EQ(of("torsion", {{"peak", ">12 N·m"}}, "peak_torque").bound, Bound::above);
    EXPECT_EQ(whyNot("torsion", {{"peak", "12 N·m"}}, "shear_stress"), "it needs the diameter");
    EXPECT_NE(refusal("torsion", {{"peak", "12 kN"}}), "taken") << "a force is no torque";
}

TEST(Formulas, TorsionFromACurve) {
    curve::Reading r;
    r.loadKind = quantity::Dimension::torque;
    r.travelKind = quantity::Dimension::angle;
    r.peak.load = 9;
    r.peak.travel = 2.5;
    Evidence e;
    e.reading = &r;
    e.inputs["diameter"] = *quantity::parseEntry("8 mm");
    const auto got = measure(*find("torsion"), e);
    ASSERT_TRUE(got);
    EXPECT_EQ(got->find("peak_torque")->value->value, 9);
    EXPECT_EQ(got->find("greatest_angle")->value->value, 2.5);
    EXPECT_REL(got->find("shear_stress")->value->value, 16 * 9 / (M_PI * 0.008 * 0.008 * 0.008));
    e.bound = Bound::above;
    EXPECT_EQ(measure(*find("torsion"), e)->find("greatest_angle")->value->bound, Bound::above);
    r.loadKind = quantity::Dimension::force;
    EXPECT_EQ(measure(*find("torsion"), e)->find("peak_torque")->whyNot,
              "its curve is of force, not of torque");
}

TEST(Formulas, Torque) {
    EXPECT_REL(of("torque", {{"force", "40 N"}, {"arm", "250 mm"}}, "breakaway").value, 10);
    EXPECT_REL(of("torque", {{"breakaway", "10 ft-lb"}, {"running", "2 N·m"}}, "breakaway").value,
               10 * 0.3048 * 4.4482216152605);
    EXPECT_EQ(of("torque", {{"force", ">40 N"}, {"arm", "1 m"}}, "breakaway").bound, Bound::above);
    EXPECT_TRUE(notes("torque", {{"breakaway", "2 N·m"}, {"running", "3 N·m"}}, "more to keep it turning"));
    EXPECT_TRUE(notes("torque", {{"breakaway", "2 N·m"}, {"from", "3 N·m"}, {"to", "5 N·m"}}, "below"));
    EXPECT_TRUE(notes("torque", {{"breakaway", "4 N·m"}, {"from", "3 N·m"}, {"to", "5 N·m"}}, "inside"));
    EXPECT_TRUE(notes("torque", {{"breakaway", "6 N·m"}, {"from", "3 N·m"}, {"to", "5 N·m"}}, "above"));
    EXPECT_EQ(refusal("torque", {{"from", "5 N·m"}, {"to", "3 N·m"}}),
              "The published range ends below where it begins.");
}

TEST(Formulas, Hammer) {
    EXPECT_REL(
        of("hammer", {{"mass", "2 kg"}, {"from", "600 mm"}, {"to", "210 mm"}, {"free", "580 mm"}}, "energy")
            .value,
        2 * 9.80665 * 0.37);
    EXPECT_REL(
        of("hammer", {{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}, {"arm", "800 mm"}}, "energy").value,
        2 * 9.80665 * 0.8 * 0.5);
    EXPECT_REL(
        of("hammer",
           {{"mass", "2 kg"}, {"from", "600 mm"}, {"to", "210 mm"}, {"breadth", "10 mm"}, {"depth", "8 mm"}},
           "energy_per_area")
            .value,
        2 * 9.80665 * 0.39 / 80e-6);
    EXPECT_EQ(of("hammer", {{"mass", "2 kg"}, {"from", "600 mm"}, {"to", "0 mm"}}, "energy").bound,
              Bound::above);
    EXPECT_NE(refusal("hammer", {{"mass", "2 kg"}, {"from", "600 mm"}, {"to", "210 m"}})
                  .find("energy cannot come out"),
              std::string::npos)
        << "a thousand times too much";
    EXPECT_EQ(refusal("hammer", {{"mass", "2 kg"}, {"from", "90°"}, {"to", "60°"}}),
              "An angle needs the length of the hammer's arm.");
    EXPECT_EQ(refusal("hammer", {{"mass", "2 kg"}, {"from", "200°"}, {"to", "60°"}, {"arm", "1 m"}}),
              "A hammer swings through 180° at most.");
}

TEST(Formulas, Drop) {
    const Typed t{{"mass", "250 g"}, {"height", "1.2 m"}, {"peak", "85 g0"}};
    EXPECT_REL(of("drop", t, "peak_deceleration").value, 85 * 9.80665);
    EXPECT_REL(of("drop", t, "energy").value, 0.25 * 9.80665 * 1.2);
    EXPECT_TRUE(notes("drop", t, "It hit at 4.851 m/s."));
    EXPECT_TRUE(notes("drop", {{"height", "1 m"}, {"hit", "3"}}, "no longer fresh"));
    EXPECT_FALSE(whyNot("drop", t, "severity").empty());
}

TEST(Formulas, Creep) {
    // 12 mm at once, 12.4 after 1000 s, 12.6 after 10 000 s, 12.8 after 100 000 s: 0.2 mm for every tenfold
    // time.
    const Typed t{
        {"gauge", "0 s: 12 mm; 1000 s: 12.4 mm; 10000 s: 12.6 mm; 100000 s: 12.8 mm; 200000 s: 12.2 mm"},
        {"unloaded_at", "150000 s"},
        {"limit", "0.5 mm"}};
    EXPECT_NEAR(of("creep", t, "creep").value, 0.0008, 1e-12);
    EXPECT_NEAR(of("creep", t, "rate_per_decade").value, 0.0002, 1e-12);
    EXPECT_NEAR(of("creep", t, "recovery").value, 0.75, 1e-9);
    EXPECT_NEAR(of("creep", t, "permanent_set").value, 0.0002, 1e-12);
    const auto reached = of("creep", t, "time_to_limit");
    EXPECT_EQ(reached.bound, Bound::between) << "nobody looked between two readings";
    EXPECT_EQ(reached.value, 1000);
    EXPECT_EQ(reached.upper, 10000);
    // Back past the first reading under load: what sprang back at once was never measured.
    const Typed past{{"gauge", "0 s: 12 mm; 1000 s: 12.4 mm; 3000 s: 11.8 mm"}, {"unloaded_at", "2000 s"}};
    for (const char* metric : {"recovery", "permanent_set"})
        EXPECT_NE(whyNot("creep", past, metric).find("before loading"), std::string::npos) << metric;
    const auto notBy =
        of("creep", {{"gauge", "0 h: 12 mm; 2 h: 12.1 mm"}, {"limit", "1 mm"}}, "time_to_limit");
    EXPECT_EQ(notBy.bound, Bound::above);
    EXPECT_EQ(notBy.value, 7200);
    EXPECT_EQ(refusal("creep", {{"gauge", "10 s: 1 mm; 5 s: 2 mm"}}),
              "Every reading must be later than the one before.");
    EXPECT_NE(refusal("creep", {{"gauge", "12 mm"}}).find("has no time"), std::string::npos);
}

TEST(Formulas, CountsRatingsSharesAndSteps) {
    EXPECT_REL(of("attempts", {{"successes", "7"}, {"tries", "12"}}, "success_rate").value, 7.0 / 12);
    EXPECT_EQ(refusal("attempts", {{"successes", "13"}, {"tries", "12"}}),
              "13 successes in 12 tries cannot be.");
    EXPECT_EQ(refusal("attempts", {{"successes", "1.5"}, {"tries", "12"}}),
              "Successes and tries are whole numbers.");
    EXPECT_EQ(of("by-eye", {{"rating", "3.5"}}, "rating").value, 3.5);
    EXPECT_NE(refusal("by-eye", {{"rating", "3.3"}}), "taken");
    const Typed legs{{"leg.1", "3 kN"}, {"leg.2", "1 kN"}, {"master", "4 kN"}};
    EXPECT_REL(of("load-share", legs, "unevenness").value, 1.5);
    EXPECT_REL(of("load-share", legs, "greatest_share").value, 0.75);
    EXPECT_NEAR(of("load-share", legs, "residual").value, 0, 1e-9);
    // Two legs at right angles, 3 and 4 kN: 5 kN together.
    EXPECT_NEAR(of("load-share",
                   {{"leg.1", "3 kN"},
                    {"leg.2", "4 kN"},
                    {"direction.1", "0°"},
                    {"direction.2", "90°"},
                    {"master", "5.1 kN"}},
                   "residual")
                    .value,
                100, 1e-6);
    EXPECT_NE(refusal("load-share", {{"leg.1", "3 kN"}, {"leg.3", "4 kN"}}).find("leg.2 is missing"),
              std::string::npos);
    EXPECT_REL(
        of("advantage", {{"ideal", "3"}, {"input", "400 N"}, {"output", "100 kg"}}, "efficiency").value,
        980.665 / 400 / 3);
    EXPECT_TRUE(
        notes("advantage", {{"ideal", "2"}, {"input", "100 N"}, {"output", "300 N"}}, "more than the ideal"));
    EXPECT_REL(of("holding", {{"weight", "10 kg"}, {"moves", "1.8 kN"}}, "holding_per_weight").value,
               1800 / 98.0665);
    EXPECT_EQ(of("holding", {{"moves", ">2 kN"}}, "holding").bound, Bound::above);
    const auto ladder = of("step-ladder", {{"steps", "10 N held; 11 N held; 12 N failed"}}, "holding");
    EXPECT_EQ(ladder.bound, Bound::between);
    EXPECT_EQ(ladder.value, 11);
    EXPECT_EQ(ladder.upper, 12);
    EXPECT_TRUE(notes("step-ladder", {{"steps", "10 N held; 12 N failed"}}, "20 %"));
    EXPECT_EQ(refusal("step-ladder", {{"steps", "12 N held; 10 N failed"}}),
              "It held more than it failed at: one of the steps is noted wrongly.");
    EXPECT_NE(refusal("step-ladder", {{"steps", "12 N"}}).find("does not say whether it held"),
              std::string::npos);
    EXPECT_EQ(of("step-ladder", {{"steps", "3 held; 4 failed"}}, "holding").value, 3) << "a count";
}

TEST(Formulas, KeysAndUnitsAreChecked) {
    EXPECT_NE(refusal("pin-shear", {{"colour", "red"}}).find("has no input \"colour\"; it has diameter"),
              std::string::npos);
    EXPECT_NE(refusal("pin-shear", {{"diameter", "4 N"}}), "taken");
    EXPECT_NE(refusal("pin-shear", {{"diameter", "4"}}), "taken") << "no unit";
    EXPECT_NE(refusal("pin-shear", {{"leg.1", "4 mm"}}), "taken");
    EXPECT_NE(refusal("load-share", {{"leg", "4 N"}}), "taken") << "which leg?";
    Evidence e;
    e.inputs["diameter"] = *quantity::parseEntry("4 N");
    EXPECT_EQ(measure(*find("pin-shear"), e).error().message, "\"Diameter\" is force: length is needed.");
}

/// Whatever is entered, every metric has a number or a reason, and no number that is none.
TEST(Formulas, EveryMetricHasANumberOrAReason) {
    for (const auto* m : all()) {
        ASSERT_FALSE(m->metrics.empty()) << m->key;
        const auto nothing = measure(*m, {});
        ASSERT_TRUE(nothing) << m->key;
        ASSERT_EQ(nothing->numbers.size(), m->metrics.size()) << m->key;
        for (const auto& n : nothing->numbers) {
            EXPECT_FALSE(n.value) << m->key << " " << n.metric->key;
            EXPECT_FALSE(n.whyNot.empty()) << m->key << " " << n.metric->key;
        }
        for (const auto& i : m->inputs)
            EXPECT_EQ(m->input(i.key), &i) << m->key << " " << i.key;
        for (const auto& x : m->metrics)
            EXPECT_EQ(m->metric(x.key), &x) << m->key << " " << x.key;
    }
}

} // namespace
