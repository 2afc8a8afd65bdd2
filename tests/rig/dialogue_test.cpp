// Devices that answer questions.
#include "typed_columns.h"

#include <anvil/rig/dialogue.h>
#include <anvil/rig/recorder.h>
#include <anvil/rig/setup.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::rig;

namespace {

TEST(Dialogue, ARoundOfAnswersMakesASample) {
    rig::Setup s;
    s.protocol = Protocol::answers;
    s.forceQuery = "F?";
    s.displacementQuery = "X?";
    s.asked = *columnsFrom("leg [kN] = L?");
    const auto layout = heardLayout(s);
    const auto maker = SampleMaker::make(layout);
    ASSERT_TRUE(maker) << maker.error().message;
    Dialogue talk(layout);
    EXPECT_EQ(talk.question(), "F?");
    EXPECT_EQ(*talk.answer("+1.5E+02 N"), "");
    EXPECT_EQ(talk.question(), "X?");
    EXPECT_FALSE(talk.answer("ERROR -113")) << "no number: asked again";
    EXPECT_EQ(talk.question(), "X?");
    EXPECT_EQ(*talk.answer("12 mm"), "") << "said in millimetres, kept in metres";
    EXPECT_EQ(talk.question(), "L?");
    const auto line = talk.answer("750 N");
    ASSERT_TRUE(line);
    const auto sample = (*maker)(*line);
    ASSERT_TRUE(sample) << *line;
    EXPECT_NEAR(sample->load, 150, 1e-9);
    EXPECT_NEAR(*sample->travel, 0.012, 1e-12);
    EXPECT_NEAR(sample->others[0], 750, 1e-9);
    EXPECT_EQ(talk.question(), "F?") << "the next round";
    (void)talk.answer("1");
    talk.restart();
    EXPECT_EQ(talk.question(), "F?") << "half a round is of another instant";
    for (const char* a : {"-1e-12", "3", "4e14"})
        (void)talk.answer(a);
    Dialogue nothing{Layout{}};
    EXPECT_EQ(nothing.question(), "");
    EXPECT_FALSE(nothing.answer("1"));
}

TEST(Dialogue, ALateAnswerIsNotTakenForAnothers) {
    Dialogue talk(Layout{',', '.', *columnsFrom("leg [N] = L?, other [N] = K?"), 0});
    EXPECT_FALSE(talk.due(100)) << "nothing was asked yet";
    talk.asked(0);
    EXPECT_EQ(*talk.answer("5", 0.1), "");
    EXPECT_FALSE(talk.due(50)) << "what is answered is not waited for";
    talk.asked(0.1);
    EXPECT_FALSE(talk.due(1.0));
    EXPECT_FALSE(talk.due(1.15)) << "given up, but the answer may still be on its way";
    EXPECT_FALSE(talk.answer("700", 1.3)) << "the second one's, late";
    EXPECT_FALSE(talk.due(1.6));
    EXPECT_TRUE(talk.due(1.75)) << "quiet again";
    EXPECT_EQ(talk.question(), "L?") << "a new round";
    talk.asked(1.75);
    EXPECT_EQ(*talk.answer("6", 1.8), "");
    talk.asked(1.8);
    EXPECT_EQ(*talk.answer("701", 1.9), "6,701");

    talk.asked(2); // lost on the way, and nothing comes late
    EXPECT_FALSE(talk.due(3.05));
    EXPECT_TRUE(talk.due(3.46));
    talk.asked(3.5); // a device that never is quiet
    double t = 4.55;
    for (; !talk.due(t) && t < 10; t += 0.05)
        EXPECT_FALSE(talk.answer("9", t));
    EXPECT_LT(t - 3.5, 2) << "before the device would pass for a silent one";
}

TEST(Dialogue, ALateAnswerToTheOnlyQuestionIsAnAnswer) {
    Dialogue talk(Layout{',', '.', *columnsFrom("leg [N] = L?"), 0});
    talk.asked(0);
    EXPECT_TRUE(talk.due(1.01));
    talk.asked(1.01);
    EXPECT_EQ(*talk.answer("5", 1.2), "5");
    EXPECT_FALSE(talk.due(9));
}

TEST(Dialogue, NumbersPassUnchangedFromAnswerToSample) {
    Layout layout{',', '.', *columnsFrom("leg [N] = L?"), 0};
    const auto maker = *SampleMaker::make(layout, false);
    for (const double v : {0.0, -0.1, 1.0 / 3, 6.02214076e14, -4.9e-324, 1e-300, 123456789.123456789}) {
        Dialogue talk(layout);
        const auto line = talk.answer(fmt::format("{}", v));
        ASSERT_TRUE(line);
        ASSERT_TRUE(maker(*line)) << *line;
        EXPECT_EQ(maker(*line)->others[0], v);
    }
}

} // namespace
