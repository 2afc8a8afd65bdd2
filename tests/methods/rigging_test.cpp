// Legs that meet in points of their own and lines that slide, as they are entered; against statics by hand.
#include <anvil/methods/load_plan.h>
#include <anvil/methods/method.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::methods {
namespace {

using Typed = std::vector<std::pair<std::string, std::string>>;

Evidence evidence(const Typed& typed) {
    const auto e = evidenceFrom(*find("load-share"), typed);
    EXPECT_TRUE(e) << (e ? "" : e.error().message);
    return *e;
}

/// Legs at 30°, 90° and 150°; the outer two are one line, one side three times as stiff as the other.
Typed sliding() {
    return {{"direction.1", "30°"},    {"direction.2", "90°"},    {"direction.3", "150°"},
            {"stiffness.1", "3 N/mm"}, {"stiffness.2", "1 N/mm"}, {"stiffness.3", "1 N/mm"},
            {"strand.1", "1"},         {"strand.3", "1"},         {"leg.1", "300 N"},
            {"leg.2", "400 N"},        {"leg.3", "300 N"}};
}

TEST(Rigging, ALineThatSlidesCarriesTheSameOnBothSides) {
    // Its sides stretch together: 3·1/(3 + 1) = 0.75 against 1 of the middle leg; T·(½ + ½) + F = W.
    const auto shared = sharedLoad(evidence(sliding()));
    ASSERT_TRUE(shared) << shared.error().message;
    ASSERT_EQ(shared->predicted.size(), 3u);
    const double w = shared->load;
    EXPECT_NEAR(w, 700, 1e-9);
    EXPECT_NEAR(shared->predicted[0], w * 0.75 / 1.75, 1e-6 * w);
    EXPECT_NEAR(shared->predicted[1], w / 1.75, 1e-6 * w);
    EXPECT_NEAR(shared->predicted[2], w * 0.75 / 1.75, 1e-6 * w);
    const auto all = measure(*find("load-share"), evidence(sliding()));
    ASSERT_TRUE(all);
    EXPECT_NEAR(all->find("off_plan")->value->value, 0, 1e-6) << "300, 400 and 300 are as it would have it";
}

/// The same pulled to one side: level, the outer legs must differ by 200 N.
Typed sideways(const char* grip) {
    auto typed = sliding();
    for (auto& [key, text] : typed)
        if (key == "leg.1")
            text = "400 N";
        else if (key == "leg.2")
            text = "1 kN";
        else if (key == "leg.3")
            text = "200 N";
    typed.emplace_back("grip", grip);
    return typed;
}

TEST(Rigging, FrictionHoldsTheSidesApart) {
    // Stuck, K·d = F with K = (3, 0.866; 0.866, 2): 685.7 and 485.7 N, a ratio of 1.41.
    const auto stuck = sharedLoad(evidence(sideways("1.5")));
    ASSERT_TRUE(stuck && stuck->predicted.size() == 3);
    EXPECT_NEAR(stuck->predicted[0], 4800.0 / 7, 1e-6);
    EXPECT_NEAR(stuck->predicted[2], 3400.0 / 7, 1e-6);
    const auto loose = sharedLoad(evidence(sideways("1.4")));
    EXPECT_TRUE(loose && loose->predicted.empty())
        << "it needs 1.41 to hold: with less it runs away sideways";
    const auto free = sharedLoad(evidence(sideways("1")));
    EXPECT_TRUE(free && free->predicted.empty()) << "without friction it runs away sideways";
}

/// Two legs at 100° and 140° that meet in a point of their own, 20° to either side of 120°; a third at 60°.
Typed nested() {
    return {{"direction.1", "100°"}, {"direction.2", "140°"}, {"direction.3", "60°"},
            {"pair.1", "1"},         {"pair.2", "1"},         {"leg.1", "53.21 N"},
            {"leg.2", "53.21 N"},    {"leg.3", "100 N"},      {"master", "1 kN"}};
}

TEST(Rigging, ALegMayBeAPairThatMeetsFirst) {
    const auto shared = sharedLoad(evidence(nested()));
    ASSERT_TRUE(shared && shared->predicted.size() == 3);
    // Link and third leg carry T each, 2·T·cos 30° = 1000 N; the pair T/(2·cos 20°) each.
    const double t = 1000 / (2 * std::cos(M_PI / 6));
    EXPECT_NEAR(shared->predicted[2], t, 0.02);
    for (int i = 0; i < 2; ++i)
        EXPECT_NEAR(shared->predicted[static_cast<std::size_t>(i)], t / (2 * std::cos(M_PI / 9)), 0.02);
}

TEST(Rigging, AfterOneOfAPairIsLostTheOtherSwingsIntoLine) {
    const auto shared = sharedLoad(evidence(nested()));
    ASSERT_EQ(shared->without.size(), 3u);
    ASSERT_TRUE(shared->without[0]);
    // 140° and 60° under 1000 N: T₂·cos 140° + T₃·cos 60° = 0, T₂·sin 140° + T₃·sin 60° = 1000.
    const double ratio = -std::cos(140 * M_PI / 180) / std::cos(M_PI / 3);
    const double t2 = 1000 / (std::sin(140 * M_PI / 180) + ratio * std::sin(M_PI / 3));
    EXPECT_DOUBLE_EQ((*shared->without[0])[0], 0);
    EXPECT_NEAR((*shared->without[0])[1], t2, 0.02);
    EXPECT_NEAR((*shared->without[0])[2], ratio * t2, 0.02);
    EXPECT_FALSE(shared->without[2]) << "the pair alone pulls along 120° only";
}

TEST(Rigging, WhatCannotBeIsASentence) {
    const auto refused = [](Typed typed, const char* key, const char* text) {
        typed.emplace_back(key, text);
        const auto e = evidenceFrom(*find("load-share"), typed);
        if (!e) return e.error().message;
        const auto all = measure(*find("load-share"), *e);
        if (!all) return all.error().message;
        std::string notes;
        for (const auto& n : all->notes)
            notes += n + "\n";
        return all->find("off_plan")->value ? "taken" : notes;
    };
    EXPECT_NE(refused(nested(), "pair.3", "1.5").find("a number to know others by"), std::string::npos);
    EXPECT_NE(refused(nested(), "strand.3", "1").find("has two"), std::string::npos);
    EXPECT_NE(refused(sliding(), "strand.2", "1").find("has two"), std::string::npos);
    EXPECT_NE(refused(sliding(), "grip", "0.5").find("1 or more"), std::string::npos);
    auto apart = nested();
    apart.emplace_back("strand.2", "4");
    EXPECT_NE(refused(apart, "strand.3", "4").find("meet in different points"), std::string::npos);
}

} // namespace
} // namespace anvil::methods
