// At least three cases of every method, worked out apart from this program; some of each mix units.
#include <anvil/methods/method.h>
#include <cmath>
#include <gtest/gtest.h>
#include <map>
#include <set>

namespace anvil::methods {
namespace {

struct Worked {
    const char* method;
    std::vector<std::pair<std::string, std::string>> typed;
    const char* metric;
    double value; ///< SI
};

const std::vector<Worked>& worked() {
    static const std::vector<Worked> all{
        {"axial-pull", {{"peak", "3.6 kN"}, {"engagement", "60 mm"}}, "peak_per_length", 60000.0},
        {"axial-pull",
         {{"peak", "180 kgf"}, {"engagement", "1 1/4 in"}},
         "peak_per_length",
         55596.7559055118},
        {"axial-pull", {{"peak", "940 lb"}, {"engagement", "38 mm"}}, "peak_per_length", 110034.95574591761},
        {"tension-coupon",
         {{"peak", "12.4 kN"}, {"breadth", "12.7 mm"}, {"thickness", "3.2 mm"}},
         "strength",
         305118110.2362205},
        {"tension-coupon", {{"peak", "1200 lb"}, {"diameter", "6 mm"}}, "strength", 188788388.8098463},
        {"tension-coupon",
         {{"peak", "3 kN"}, {"diameter", "20 mm"}, {"wall", "2 mm"}},
         "strength",
         26525823.84864922},
        {"tension-coupon",
         {{"peak", "2 kN"}, {"area", "25 mm²"}, {"gauge_length", "2 in"}, {"extension_at_break", "6.35 mm"}},
         "elongation",
         0.125},
        {"tension-coupon",
         {{"peak", "2 kN"}, {"area", "25 mm²"}, {"gauge_length", "50 mm"}, {"stiffness", "4 kN/mm"}},
         "modulus",
         8000000000.0},
        {"tension-coupon",
         {{"peak", "1 kN"}, {"diameter", "0.5 mm"}, {"strands", "7"}},
         "strength",
         727565454.1343787},
        {"compression",
         {{"peak", "40 kN"}, {"breadth", "50 mm"}, {"depth", "50 mm"}},
         "strength",
         16000000.0},
        {"compression", {{"peak", "9000 lb"}, {"diameter", "2 in"}}, "strength", 19752024.683279537},
        {"compression", {{"peak", "5 kN"}, {"area", "625 mm²"}}, "strength", 8000000.0},
        {"pin-shear", {{"peak", "6 kN"}, {"diameter", "4.8 mm"}}, "shear_strength", 331572798.1081154},
        {"pin-shear",
         {{"peak", "2400 lb"}, {"diameter", "5 mm"}, {"planes", "2"}},
         "shear_strength",
         271855279.8861787},
        {"pin-shear",
         {{"peak", "9 kN"}, {"area", "20 mm²"}, {"planes", "1"}},
         "shear_strength",
         449999999.99999994},
        {"lap-shear",
         {{"peak", "5 kN"}, {"width", "25 mm"}, {"overlap", "12.5 mm"}},
         "shear_strength",
         15999999.999999996},
        {"lap-shear",
         {{"peak", "800 lb"}, {"width", "1 in"}, {"overlap", "12 mm"}},
         "shear_strength",
         11675122.349765092},
        {"lap-shear",
         {{"peak", "250 kgf"}, {"width", "30 mm"}, {"overlap", "20 mm"}},
         "shear_strength",
         4086104.166666667},
        {"three-point-bend",
         {{"peak", "850 N"}, {"span", "320 mm"}, {"breadth", "40 mm"}, {"depth", "18 mm"}},
         "bending_strength",
         31481481.481481485},
        {"three-point-bend",
         {{"peak", "190 lb"}, {"span", "12 in"}, {"diameter", "12 mm"}},
         "bending_strength",
         379621985.1651325},
        {"three-point-bend",
         {{"peak", "1 kN"},
          {"span", "300 mm"},
          {"breadth", "20 mm"},
          {"depth", "15 mm"},
          {"stiffness", "120 N/mm"}},
         "bending_modulus",
         12000000000.0},
        {"three-point-bend",
         {{"peak", "1 kN"}, {"span", "300 mm"}, {"diameter", "14 mm"}, {"stiffness", "120 N/mm"}},
         "bending_modulus",
         35794947634.16221},
        {"three-point-bend",
         {{"peak", "1 kN"},
          {"span", "300 mm"},
          {"breadth", "20 mm"},
          {"depth", "15 mm"},
          {"deflection_at_peak", "9 mm"}},
         "strain_at_peak",
         0.009},
        {"three-point-bend",
         {{"peak", "1 kN"}, {"span", "60 mm"}, {"breadth", "20 mm"}, {"depth", "15 mm"}},
         "short_beam_shear",
         2500000.0},
        {"lever-bend", {{"steps", "100 N at 400 mm held; 120 N at 400 mm failed"}}, "moment", 40.0},
        {"lever-bend",
         {{"steps", "20 kg at 0.5 m held; 25 kg at 0.5 m failed"}},
         "moment",
         98.06649999999999},
        {"lever-bend",
         {{"steps", "40 lb at 14 in held; 50 lb at 14 in failed"}, {"own_moment", "3 N·m"}},
         "moment",
         66.27150425546535},
        {"lever-bend",
         {{"steps", "100 N at 400 mm held; 120 N at 400 mm failed"}, {"diameter", "25 mm"}, {"wall", "2 mm"}},
         "bending_stress",
         51930807.76307867},
        {"lever-bend",
         {{"steps", "100 N at 400 mm held; 120 N at 400 mm failed"}, {"breadth", "30 mm"}, {"depth", "6 mm"}},
         "bending_stress",
         222222222.2222222},
        {"sag", {{"unloaded", "700 mm"}, {"loaded", "688 mm"}, {"weight", "8 kg"}}, "sag", 0.012},
        {"sag",
         {{"unloaded", "27 1/2 in"}, {"loaded", "690 mm"}, {"weight", "8 kg"}},
         "sag",
         0.008500000000000063},
        {"sag",
         {{"unloaded", "700 mm"}, {"loaded", "688 mm"}, {"weight", "20 lb"}},
         "stiffness",
         7413.702692100833},
        {"sag",
         {{"unloaded", "700 mm"}, {"loaded", "688 mm"}, {"weight", "8 kg"}, {"span", "1.2 m"}},
         "bending_stiffness",
         235.35959999999994},
        {"torsion", {{"peak", "25 N·m"}, {"diameter", "10 mm"}}, "shear_stress", 127323954.47351629},
        {"torsion", {{"peak", "18 lb·ft"}, {"diameter", "3/8 in"}}, "shear_stress", 143829854.40482312},
        {"torsion", {{"peak", "2.4 kN·m"}, {"diameter", "45 mm"}}, "shear_stress", 134135524.05440399},
        {"torque", {{"breakaway", "12 N·m"}}, "breakaway", 12.0},
        {"torque", {{"force", "80 N"}, {"arm", "250 mm"}}, "breakaway", 20.0},
        {"torque", {{"force", "30 lb"}, {"arm", "9 in"}}, "breakaway", 30.505903837456508},
        {"hammer", {{"mass", "4 kg"}, {"from", "1.2 m"}, {"to", "0.75 m"}}, "energy", 17.65197},
        {"hammer", {{"mass", "10 lb"}, {"from", "4 ft"}, {"to", "700 mm"}}, "energy", 23.095166626432523},
        {"hammer",
         {{"mass", "2 kg"}, {"arm", "600 mm"}, {"from", "90°"}, {"to", "30°"}},
         "energy",
         10.191369631227197},
        {"hammer",
         {{"mass", "4 kg"},
          {"from", "1.2 m"},
          {"to", "0.75 m"},
          {"free", "1.17 m"},
          {"breadth", "10 mm"},
          {"depth", "8 mm"}},
         "energy_per_area",
         205939.65},
        {"drop", {{"height", "1.5 m"}, {"peak", "120 g0"}, {"mass", "3 kg"}}, "energy", 44.129925},
        {"drop", {{"height", "4 ft"}, {"peak", "90 g0"}, {"mass", "7 lb"}}, "energy", 37.962902553279214},
        {"drop", {{"height", "1.5 m"}, {"peak", "850 m/s²"}}, "peak_deceleration", 850.0},
        {"creep", {{"gauge", "0 s: 10 mm; 1000 s: 10.4 mm; 10000 s: 10.6 mm"}}, "creep", 0.0006},
        {"creep",
         {{"gauge", "0 s: 10 mm; 100 s: 10.2 mm; 1000 s: 10.5 mm; 10000 s: 10.8 mm"}},
         "rate_per_decade",
         0.0003},
        {"creep",
         {{"gauge", "0 h: 10 mm; 1 h: 10.4 mm; 2 h: 10.2 mm"}, {"unloaded_at", "5400 s"}},
         "recovery",
         0.5},
        {"creep", {{"gauge", "0 d: 1/2 in; 1 d: 13.5 mm"}}, "creep", 0.0008000000000000004},
        {"attempts", {{"successes", "7"}, {"tries", "8"}}, "success_rate", 0.875},
        {"attempts", {{"successes", "0"}, {"tries", "5"}}, "success_rate", 0.0},
        {"attempts", {{"successes", "12"}, {"tries", "12"}}, "success_rate", 1.0},
        {"load-share", {{"leg.1", "500 N"}, {"leg.2", "300 N"}, {"leg.3", "200 N"}}, "unevenness", 1.5},
        {"load-share", {{"leg.1", "40 kgf"}, {"leg.2", "300 N"}}, "greatest_share", 0.5666405687986987},
        {"load-share", {{"leg.1", "500 N"}, {"leg.2", "300 N"}, {"master", "1 kN"}}, "residual", 200.0},
        {"load-share",
         {{"leg.1", "500 N"},
          {"leg.2", "500 N"},
          {"direction.1", "0°"},
          {"direction.2", "90°"},
          {"master", "800 N"}},
         "residual",
         92.89321881345245},
        {"advantage", {{"input", "250 N"}, {"output", "610 N"}}, "advantage", 2.44},
        {"advantage",
         {{"input", "60 lb"}, {"output", "70 kgf"}, {"ideal", "3"}},
         "efficiency",
         0.8573532418300793},
        {"advantage",
         {{"input", "250 N"}, {"output", "610 N"}, {"ideal", "3"}, {"line_angle", "20°"}},
         "efficiency",
         0.8655312549470752},
        {"holding", {{"moves", "1.8 kN"}, {"weight", "12 kg"}}, "holding_per_weight", 15.295743194668924},
        {"holding", {{"moves", "400 lb"}, {"weight", "15 kg"}}, "holding_per_weight", 12.095796533333333},
        {"holding", {{"moves", "2 kN"}, {"creeps", "1.4 kN"}}, "creeping", 1400.0},
        {"step-ladder", {{"steps", "10 kg held; 12 kg failed"}}, "holding", 98.06649999999999},
        {"step-ladder", {{"steps", "50 lb held; 250 N held; 300 N failed"}}, "holding", 250.0},
        {"step-ladder", {{"steps", "100 N held; 110 N held; 120 N failed"}}, "holding", 110.0},
        {"by-eye", {{"rating", "4"}}, "rating", 4.0},
        {"by-eye", {{"rating", "6.5"}}, "rating", 6.5},
        {"by-eye", {{"rating", "0"}}, "rating", 0.0},
    };
    return all;
}

TEST(WorkedCases, AllComeOut) {
    for (const auto& w : worked()) {
        const auto& method = *find(w.method);
        const auto evidence = evidenceFrom(method, w.typed);
        ASSERT_TRUE(evidence) << w.method << ": " << evidence.error().message;
        const auto all = measure(method, *evidence);
        ASSERT_TRUE(all) << w.method << ": " << all.error().message;
        const auto* number = all->find(w.metric);
        ASSERT_TRUE(number && number->value)
            << w.method << " " << w.metric << ": " << (number ? number->whyNot : "");
        EXPECT_NEAR(number->value->value, w.value, 1e-12 + 1e-9 * std::abs(w.value))
            << w.method << " " << w.metric;
    }
}

TEST(WorkedCases, EveryMethodHasThreeAndMixesUnits) {
    std::map<std::string_view, int> count;
    std::map<std::string_view, std::set<std::string_view>> units;
    for (const auto& w : worked()) {
        ++count[w.method];
        for (const auto& [key, text] : w.typed) {
            const auto* input = inputNamed(*find(w.method), key);
            ASSERT_TRUE(input) << key;
            if (const auto entry = input->form == Form::series || input->form == Form::steps
                                       ? Expected<quantity::Entry>(tl::unexpected(Error{}))
                                       : entryOf(*input, text))
                units[w.method].insert(entry->unit->symbol);
        }
    }
    const std::set<std::string_view> ofNumbersOnly{"attempts", "by-eye", "creep", "lever-bend",
                                                   "step-ladder"};
    for (const auto* method : all()) {
        EXPECT_GE(count[method->key], 3) << method->key;
        if (!ofNumbersOnly.contains(method->key)) {
            EXPECT_GE(units[method->key].size(), 3u) << method->key;
        }
    }
}

} // namespace
} // namespace anvil::methods
