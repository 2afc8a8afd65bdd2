#include <anvil/station/pull_flow.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::station;

namespace {

struct Flow : testing::Test {
    PullFlow flow;
    Live live;
    qint64 now = 0;
    void SetUp() override {
        flow.setPieces({"the fitting", "wire"}, {"pulled out", "snapped"}, true, now);
        flow.restart({"Eyes.", "Tail line."}, false, now);
    }
    void see(rig::RecorderState state, std::optional<rig::Ending> ending = {}, bool saved = false) {
        live.recorder = state;
        live.ending = ending;
        live.saved = saved;
        flow.follow(live, now += 1000);
    }
    PullAction space() { return flow.space(now += 1000); }
    PullAction digit(int n) { return flow.digit(n, now += 1000); }
    void toReady() {
        live.link = LinkState::connected;
        flow.follow(live, now += 1000);
        space();
        space();
        live.zeroedAt = 1;
        flow.follow(live, now += 1000);
    }
};

TEST_F(Flow, GoesFromSafetyToTheNextPieceBySpaceAndDigits) {
    EXPECT_EQ(flow.step(), PullStep::noRig);
    live.link = LinkState::connected;
    flow.follow(live, now);
    ASSERT_EQ(flow.step(), PullStep::safety);
    EXPECT_EQ(flow.sentence(), "Eyes.");
    space();
    EXPECT_EQ(flow.sentence(), "Tail line.");
    space();
    ASSERT_EQ(flow.step(), PullStep::zero);
    EXPECT_EQ(space(), PullAction::zero);
    live.zeroedAt = 1;
    flow.follow(live, now += 1000);
    ASSERT_EQ(flow.step(), PullStep::ready);
    EXPECT_EQ(digit(9), PullAction::anotherPiece);
    EXPECT_EQ(space(), PullAction::arm);
    see(rig::RecorderState::armed);
    ASSERT_EQ(flow.step(), PullStep::armed);
    see(rig::RecorderState::loading);
    ASSERT_EQ(flow.step(), PullStep::loading);
    EXPECT_EQ(digit(5), PullAction::mark);
    see(rig::RecorderState::done, rig::Ending::broke);
    ASSERT_EQ(flow.step(), PullStep::saving);
    EXPECT_EQ(space(), PullAction::nothing);
    see(rig::RecorderState::done, rig::Ending::broke, true);
    ASSERT_EQ(flow.step(), PullStep::part);
    EXPECT_EQ(flow.action(), "the fitting") << "what the space bar would say";
    digit(2);
    ASSERT_EQ(flow.step(), PullStep::how);
    EXPECT_EQ(flow.part(), "wire");
    digit(0);
    ASSERT_EQ(flow.step(), PullStep::part);
    digit(1);
    digit(2);
    ASSERT_EQ(flow.step(), PullStep::accept);
    EXPECT_EQ(flow.how(), "snapped");
    EXPECT_EQ(flow.limit(), domain::Limit::broke);
    EXPECT_EQ(space(), PullAction::accept);
    flow.accepted(now);
    EXPECT_EQ(flow.step(), PullStep::ready);
}

TEST_F(Flow, KeysRightAfterAChangeAreIgnored) {
    toReady();
    ASSERT_EQ(flow.step(), PullStep::ready);
    live.recorder = rig::RecorderState::armed;
    flow.follow(live, now += 1000);
    EXPECT_EQ(flow.space(now + 300), PullAction::nothing) << "a bouncing glove";
    EXPECT_EQ(flow.space(now + 600), PullAction::stop);
}

TEST_F(Flow, OffZeroAsksForZeroingBetweenPieces) {
    toReady();
    see(rig::RecorderState::armed);
    see(rig::RecorderState::loading);
    see(rig::RecorderState::done, rig::Ending::stopped, false);
    see(rig::RecorderState::done, rig::Ending::stopped, true);
    EXPECT_EQ(flow.limit(), domain::Limit::stopped);
    space(); // nothing broke is the likeliest
    ASSERT_EQ(flow.step(), PullStep::limit);
    EXPECT_EQ(flow.action(), "stopped on purpose");
    space();
    ASSERT_EQ(flow.step(), PullStep::accept);
    EXPECT_TRUE(flow.part().empty());
    EXPECT_EQ(flow.limit(), domain::Limit::stopped);
    live.offZero = true;
    live.recorder = rig::RecorderState::idle;
    flow.follow(live, now);
    flow.accepted(now);
    EXPECT_EQ(flow.step(), PullStep::zero);
    EXPECT_TRUE(flow.sentence().contains("off zero"));
}

/// The window may look away for longer than a short pull takes.
TEST_F(Flow, APullMayBeginAndEndBetweenTwoLooks) {
    toReady();
    ++live.armings;
    see(rig::RecorderState::armed);
    see(rig::RecorderState::done, rig::Ending::broke);
    ASSERT_EQ(flow.step(), PullStep::saving);
    see(rig::RecorderState::done, rig::Ending::broke, true);
    digit(2);
    digit(1);
    digit(6);
    digit(5);
    EXPECT_EQ(flow.afterwards(), "bent");
    EXPECT_TRUE(flow.whileUnloading());
    see(rig::RecorderState::idle);
    flow.accepted(now);
    ASSERT_EQ(flow.step(), PullStep::ready);
    ++live.armings; // neither the arming nor the load is seen
    see(rig::RecorderState::done, rig::Ending::broke);
    ASSERT_EQ(flow.step(), PullStep::saving);
    EXPECT_TRUE(flow.part().empty()) << "nothing of the pull before";
    EXPECT_TRUE(flow.afterwards().empty());
    EXPECT_FALSE(flow.whileUnloading());
    see(rig::RecorderState::done, rig::Ending::broke, true);
    digit(1);
    digit(1);
    see(rig::RecorderState::idle);
    flow.accepted(now);
    ++live.armings;
    see(rig::RecorderState::loading);
    EXPECT_EQ(flow.step(), PullStep::loading);
}

TEST_F(Flow, AnEndSeenWithoutAnArmingIsAnOldOne) {
    toReady();
    see(rig::RecorderState::done, rig::Ending::broke, true);
    EXPECT_EQ(flow.step(), PullStep::ready);
    ++live.armings; // armed, and let go again
    see(rig::RecorderState::idle);
    EXPECT_EQ(flow.step(), PullStep::ready);
    see(rig::RecorderState::done, rig::Ending::broke, true);
    EXPECT_EQ(flow.step(), PullStep::ready);
}

TEST_F(Flow, UnpluggedInMidPullStillAsksWhatBroke) {
    toReady();
    see(rig::RecorderState::armed);
    see(rig::RecorderState::loading);
    live.link = LinkState::searching;
    see(rig::RecorderState::done, rig::Ending::linkLost, true);
    see(rig::RecorderState::done, rig::Ending::linkLost, true);
    ASSERT_EQ(flow.step(), PullStep::part);
    EXPECT_EQ(flow.limit(), domain::Limit::linkLost);
    digit(9);
    space();
    flow.accepted(now);
    EXPECT_EQ(flow.step(), PullStep::noRig);
    live.link = LinkState::connected;
    live.recorder = rig::RecorderState::idle;
    flow.follow(live, now += 1000);
    EXPECT_EQ(flow.step(), PullStep::ready) << "the cautions were seen to";
}

TEST_F(Flow, DisconnectedByHandInMidPullItWaitsForARig) {
    for (const auto seen : {rig::RecorderState::loading, rig::RecorderState::done}) {
        SetUp();
        live = {};
        toReady();
        see(rig::RecorderState::armed);
        see(rig::RecorderState::loading);
        see(seen);
        ASSERT_EQ(flow.step(), seen == rig::RecorderState::done ? PullStep::saving : PullStep::loading);
        live.link = LinkState::none; // nothing is left of the recording
        see(rig::RecorderState::idle);
        EXPECT_EQ(flow.step(), PullStep::noRig) << flow.sentence().toStdString();
    }
}

TEST_F(Flow, ADiskThatTakesNothingIsWaitedForAndNotForEver) {
    toReady();
    see(rig::RecorderState::armed);
    see(rig::RecorderState::loading);
    live.trouble = "database is locked";
    see(rig::RecorderState::done);
    see(rig::RecorderState::done);
    EXPECT_EQ(flow.step(), PullStep::saving);
    now += PullFlow::savePatienceMs;
    see(rig::RecorderState::done);
    EXPECT_EQ(flow.step(), PullStep::part);
}

TEST_F(Flow, WhatEndedItWhatItIsLikeNowAndWhichEnd) {
    flow.setRules({"end 1: knot", "end 2: splice"}, 0);
    toReady();
    see(rig::RecorderState::armed);
    see(rig::RecorderState::loading);
    see(rig::RecorderState::done, rig::Ending::broke, true);
    see(rig::RecorderState::done, rig::Ending::broke, true);
    digit(9);
    ASSERT_EQ(flow.step(), PullStep::limit);
    digit(3);
    EXPECT_EQ(flow.limit(), domain::Limit::outOfTravel);
    ASSERT_EQ(flow.step(), PullStep::accept);
    digit(0); // no, it did break
    digit(1);
    digit(1);
    ASSERT_EQ(flow.step(), PullStep::end) << "a piece with two joints";
    digit(3); // there is no third end
    ASSERT_EQ(flow.step(), PullStep::end);
    digit(2);
    ASSERT_EQ(flow.step(), PullStep::accept);
    EXPECT_EQ(flow.limit(), domain::Limit::broke);
    EXPECT_EQ(flow.end(), 2);
    digit(5);
    digit(6);
    EXPECT_TRUE(flow.whileUnloading());
    EXPECT_EQ(flow.afterwards(), "bent");
    digit(6);
    EXPECT_EQ(flow.afterwards(), "") << "the same digit takes it back";
    digit(8);
    EXPECT_EQ(flow.afterwards(), "still works");
    // The next pull knows nothing of it.
    space();
    flow.accepted(now);
    live.recorder = rig::RecorderState::idle;
    see(rig::RecorderState::armed);
    see(rig::RecorderState::loading);
    EXPECT_EQ(flow.end(), 0);
    EXPECT_TRUE(flow.afterwards().empty());
    EXPECT_FALSE(flow.whileUnloading());
}

TEST_F(Flow, PausesToBeLookedAt) {
    flow.setRules({"end 1"}, 500);
    toReady();
    see(rig::RecorderState::armed);
    live.load = 100;
    see(rig::RecorderState::loading);
    see(rig::RecorderState::loading);
    EXPECT_EQ(flow.step(), PullStep::loading);
    live.load = 520;
    see(rig::RecorderState::loading);
    ASSERT_EQ(flow.step(), PullStep::look);
    EXPECT_EQ(flow.action(), "Go on");
    EXPECT_EQ(digit(4), PullAction::mark);
    EXPECT_EQ(space(), PullAction::resume);
    see(rig::RecorderState::loading);
    EXPECT_EQ(flow.step(), PullStep::loading) << "not twice at the same step";
    live.load = 1700; // two steps at once are one pause
    see(rig::RecorderState::loading);
    ASSERT_EQ(flow.step(), PullStep::look);
    EXPECT_EQ(digit(9), PullAction::stop);
    see(rig::RecorderState::done, rig::Ending::stopped, true);
    EXPECT_EQ(flow.step(), PullStep::saving);
}

TEST_F(Flow, ItMayBreakWhileItIsLookedAt) {
    flow.setRules({"end 1"}, 500);
    toReady();
    see(rig::RecorderState::armed);
    see(rig::RecorderState::loading);
    live.load = 600;
    see(rig::RecorderState::loading);
    ASSERT_EQ(flow.step(), PullStep::look);
    see(rig::RecorderState::done, rig::Ending::broke, false);
    EXPECT_EQ(flow.step(), PullStep::saving);
}

TEST(Troubles, AreSentencesAboutWhatCameInBetween) {
    Live before, after;
    EXPECT_TRUE(troublesBetween(before, after).isEmpty());
    before.noise = 4; // the greeting
    before.clockJumps = 1;
    after.noise = 5;
    after.clockJumps = 3;
    EXPECT_EQ(troublesBetween(before, after),
              (QStringList{"the rig's clock jumped 2 times", "a line held no numbers"}));
    before = after;
    after.beyondTable = {"leg B"};
    EXPECT_EQ(troublesBetween(before, after), QStringList{"leg B read beyond its calibration table"});
}

TEST_F(Flow, EveryStepSaysWhatSpaceDoes) {
    toReady();
    EXPECT_EQ(flow.action(), "Arm");
    flow.setPieces({}, {}, false, now);
    EXPECT_EQ(flow.step(), PullStep::finished);
    EXPECT_TRUE(flow.action().isEmpty());
    EXPECT_FALSE(flow.sentence().isEmpty());
    flow.setPieces({}, {}, true, now);
    EXPECT_EQ(flow.step(), PullStep::ready);
}

} // namespace
