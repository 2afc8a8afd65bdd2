#include "wait.h"
#include <QCoreApplication>
#include <QEventLoop>
#include <anvil/link/device.h>
#include <anvil/link/rig_server.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::link;

namespace {

struct Heard {
    Device device;
    rig::LineCutter cutter;
    std::vector<std::string> lines;
    int gained = 0, lost = 0;
    explicit Heard(const QString& address) : device(*addressFrom(address)) {
        QObject::connect(&device, &Device::arrived, [this](const QByteArray& b) {
            cutter.feed(std::string_view(b.constData(), static_cast<std::size_t>(b.size())),
                        [this](std::string_view l) { lines.emplace_back(l); });
        });
        QObject::connect(&device, &Device::stateChanged,
                         [this](bool on, const QString&) { ++(on ? gained : lost); });
        device.open();
    }
};

TEST(Addresses, AreReadOrExplained) {
    EXPECT_EQ(addressFrom("tcp:127.0.0.1:4711")->port, 4711);
    EXPECT_EQ(addressFrom(" serial:/dev/ttyUSB0@9600 ")->port, 9600);
    EXPECT_EQ(addressFrom("serial:/dev/ttyACM0")->port, 115200);
    for (const char* bad : {"", "tcp:", "tcp::1", "tcp:127.0.0.1:0", "tcp:127.0.0.1:70000", "usb",
                            "serial:", "serial:/dev/x@fast"})
        EXPECT_FALSE(addressFrom(bad)) << bad;
    EXPECT_NE(addressFrom("tcp:192.168.1.7:4711").error().message.find("another machine"), std::string::npos);
    EXPECT_TRUE(addressFrom("tcp:192.168.1.7:4711", true));
    EXPECT_TRUE(addressFrom("tcp:localhost:4711"));
}

TEST(Rig, SpeaksLinesOverTcpAndIsPulledByCommand) {
    sim::RigOptions quick;
    quick.logger.speed = 0.01;
    RigServer server(quick, false);
    Heard heard(*server.listenTcp(0));
    ASSERT_TRUE(runUntil([&] { return heard.lines.size() > 5; }));
    EXPECT_EQ(heard.lines[0], "time [s],force [N],travel [mm]");
    const auto layout = *rig::guessLayout(heard.lines);
    EXPECT_EQ(layout.columns[1].unit, "N");
    const auto make = *rig::SampleMaker::make(layout);
    heard.device.send("!pull");
    double peak = 0;
    ASSERT_TRUE(runUntil(
        [&] {
            for (const auto& l : heard.lines)
                if (const auto s = make(l)) peak = std::max(peak, s->load);
            heard.lines.clear();
            return server.rig().pulls() == 1 && !server.rig().pulling();
        },
        60000));
    EXPECT_NEAR(peak, server.rig().truth().peak, 20);
}

TEST(Rig, ShowsTorqueDecelerationAndLegs) {
    sim::RigOptions options;
    options.legs = {0.5, 0.25};
    {
        RigServer server(options, false);
        Heard heard(*server.listenTcp(0));
        ASSERT_TRUE(runUntil([&] { return heard.lines.size() > 3; }));
        EXPECT_EQ(heard.lines[0], "time [s],force [N],travel [mm],leg 1 [N],leg 2 [N]");
        const auto maker = *rig::SampleMaker::make(*rig::guessLayout(heard.lines));
        EXPECT_EQ(maker.others().size(), 2U) << "the legs are channels without a word";
    }
    for (const auto load : {quantity::Dimension::torque, quantity::Dimension::acceleration}) {
        RigServer server({}, false);
        server.show(load);
        Heard heard(*server.listenTcp(0));
        ASSERT_TRUE(runUntil([&] { return heard.lines.size() > 3; }));
        EXPECT_EQ(*rig::guessLayout(heard.lines), rig::simulatedLayout(load)) << heard.lines[0];
    }
}

TEST(Rig, ObeysEveryFault) {
    sim::RigOptions quick;
    quick.logger.speed = 0.004;
    quick.logger.zeroOffset = 50;
    RigServer server(quick, false);
    Heard heard(*server.listenTcp(0));
    const auto make = *rig::SampleMaker::make(rig::simulatedLayout());
    const auto last = [&] {
        for (auto l = heard.lines.rbegin(); l != heard.lines.rend(); ++l)
            if (const auto s = make(*l)) return *s;
        return rig::RawSample{};
    };
    const auto fresh = [&] {
        heard.lines.clear();
        return runUntil([&] { return heard.lines.size() > 8; });
    };
    ASSERT_TRUE(fresh());
    EXPECT_NEAR(last().load, 50, 20);
    server.obey("!rezero");
    ASSERT_TRUE(fresh());
    EXPECT_NEAR(last().load, 0, 20);
    server.obey("!drift 400");
    ASSERT_TRUE(runUntil([&] { return last().load > 80; })) << "a fifth of a second and more";
    server.obey("!drift 0");
    server.obey("!rezero");
    server.obey("!pull");
    ASSERT_TRUE(runUntil([&] { return last().load > 500; }));
    server.obey("!pause");
    ASSERT_TRUE(fresh());
    const double held = last().load, at = *last().travel;
    ASSERT_TRUE(fresh());
    EXPECT_NEAR(last().load, held, 0.05 * held) << "a held load relaxes a little";
    EXPECT_EQ(*last().travel, at) << "the crosshead stands still";
    server.obey("!go");
    ASSERT_TRUE(runUntil([&] { return *last().travel > at + 0.0005; }));
    server.obey("!release");
    heard.lines.clear();
    server.obey("!spike 3");
    int spikes = 0;
    ASSERT_TRUE(runUntil([&] {
        spikes = 0;
        for (const auto& l : heard.lines)
            if (const auto s = make(l)) spikes += std::abs(s->load) > 400;
        return spikes == 3;
    }));
    server.obey("!skew 0.5");
    ASSERT_TRUE(fresh());
    const double before = *last().time;
    ASSERT_TRUE(fresh());
    EXPECT_GT(*last().time, before);
}

TEST(Rig, AnswersQuestions) {
    RigServer server({}, true);
    Heard heard(*server.listenTcp(0));
    ASSERT_TRUE(runUntil([&] { return heard.gained == 1; }));
    for (const char* question : {"*IDN?", "MEAS:FORC?", "MEAS:DISP?", "nonsense"})
        heard.device.send(question);
    ASSERT_TRUE(runUntil([&] { return heard.lines.size() == 4; }));
    EXPECT_NE(heard.lines[0].find("simulated rig"), std::string::npos);
    EXPECT_TRUE(rig::answerOf(heard.lines[1]));
    EXPECT_EQ(*rig::answerOf(heard.lines[2]), 0);
    EXPECT_EQ(heard.lines[3], "ERR unknown");
}

TEST(Rig, SpeaksOverATerminal) {
    RigServer server({}, false);
    const auto address = server.openTerminal();
    ASSERT_TRUE(address) << address.error().message;
    Heard heard(*address);
    ASSERT_TRUE(runUntil([&] { return heard.lines.size() > 20; }));
    heard.device.send("!pull");
    EXPECT_TRUE(runUntil([&] { return server.rig().pulls() == 1; }));
}

/// Orders that no rig could follow are none.
TEST(Rig, OrdersBeyondAllMeasureAreNone) {
    sim::RigOptions quick;
    quick.logger.speed = 0.01;
    RigServer server(quick, false);
    Heard heard(*server.listenTcp(0));
    ASSERT_TRUE(runUntil([&] { return heard.lines.size() > 5; }));
    for (const char* order :
         {"!strength 1e308", "!strength 1e-308", "!strength nan", "!strength inf", "!drift 1e308",
          "!skew 1e308", "!clock inf", "!spike 1e308", "!garbage -1e308", "!unplug -5", "!silent nan"})
        heard.device.send(order);
    heard.device.send("!pull");
    ASSERT_TRUE(runUntil([&] { return server.rig().pulls() == 1 && !server.rig().pulling(); }, 20000));
    EXPECT_NEAR(server.rig().truth().strength, quick.strength, 0.5 * quick.strength);
}

/// A port that cannot be opened, for whatever reason, is looked for again and again.
TEST(Rig, APortThatCannotBeOpenedIsTriedAgain) {
    for (const char* address :
         {"serial:/dev/null", "serial:/no/such/port", "serial:/tmp", "serial:/proc/version"}) {
        Heard heard(QString::fromLatin1(address));
        EXPECT_TRUE(runUntil([&] { return heard.lost + heard.gained >= 2; }, 10000)) << address;
    }
}

TEST(Rig, ComesBackAfterUnplugging) {
    RigServer server({}, false);
    Heard heard(*server.listenTcp(0));
    ASSERT_TRUE(runUntil([&] { return heard.lines.size() > 5; }));
    heard.device.send("!unplug 1");
    ASSERT_TRUE(runUntil([&] { return heard.lost > 0 && !heard.device.connected(); }));
    heard.lines.clear();
    EXPECT_TRUE(runUntil([&] { return heard.lines.size() > 5; }, 8000)) << "found again by itself";
    EXPECT_GE(heard.gained, 2);
}

TEST(Rig, SameSeedSameSpecimens) {
    sim::VirtualRig a({}), b({});
    for (auto* r : {&a, &b}) {
        r->advance(0.5);
        r->pull();
    }
    for (int i = 0; i < 50; ++i) {
        const auto x = a.advance(0.1), y = b.advance(0.1);
        ASSERT_EQ(x.size(), y.size());
        for (std::size_t k = 0; k < x.size(); ++k)
            ASSERT_EQ(x[k].load, y[k].load);
    }
    EXPECT_EQ(a.truth().peak, b.truth().peak);
    a.stop();
    EXPECT_FALSE(a.pulling());
}

} // namespace
