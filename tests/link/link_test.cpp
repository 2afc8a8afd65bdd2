#include "wait.h"
#include <QCoreApplication>
#include <QEventLoop>
#include <anvil/link/device.h>
#include <anvil/link/rig_server.h>
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
                if (const auto s = make(l)) peak = std::max(peak, s->force);
            heard.lines.clear();
            return server.rig().pulls() == 1 && !server.rig().pulling();
        },
        60000));
    EXPECT_NEAR(peak, server.rig().truth().peak, 20);
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
            ASSERT_EQ(x[k].force, y[k].force);
    }
    EXPECT_EQ(a.truth().peak, b.truth().peak);
    a.stop();
    EXPECT_FALSE(a.pulling());
}

} // namespace
