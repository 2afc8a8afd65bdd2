// Finding out how a serial device speaks, against stand-ins on pseudo-terminals.
#include "wait.h"
#include <QTimer>
#include <anvil/link/speed_finder.h>
#include <gtest/gtest.h>
#include <pty.h>
#include <termios.h>
#include <unistd.h>

using namespace anvil;
using namespace anvil::link;

namespace {

/// The other end of a port.
struct StandIn {
    int master = -1, slave = -1;
    QString path;
    StandIn() {
        char name[128];
        termios raw{};
        cfmakeraw(&raw);
        EXPECT_EQ(openpty(&master, &slave, name, &raw, nullptr), 0);
        path = name;
    }
    ~StandIn() {
        close(slave);
        close(master);
    }
    void say(const QByteArray& text) const {
        EXPECT_EQ(write(master, text.constData(), static_cast<std::size_t>(text.size())), text.size());
    }
};

/// A device that answers "W" and nothing else, so late.
struct Scale : StandIn {
    QByteArray heard;
    QTimer look;
    explicit Scale(int late) {
        QObject::connect(&look, &QTimer::timeout, [this, late] {
            char bytes[64];
            fd_set set;
            FD_ZERO(&set);
            FD_SET(master, &set);
            timeval none{};
            if (select(master + 1, &set, nullptr, nullptr, &none) <= 0) return;
            const auto n = read(master, bytes, sizeof bytes);
            if (n > 0) heard.append(bytes, n);
            if (!heard.contains("W\r\n")) return;
            heard.clear();
            QTimer::singleShot(late, &look, [this] { say("ST,GS,+0012.34kg\r\n"); });
        });
        look.start(10);
    }
};

struct Outcome {
    int speed = 0;
    QByteArray question;
    QString line, why;
    bool over = false;
    void follow(SpeedFinder& finder) {
        QObject::connect(&finder, &SpeedFinder::found, [this](int s, const QByteArray& q, const QString& l) {
            speed = s;
            question = q;
            line = l;
            over = true;
        });
        QObject::connect(&finder, &SpeedFinder::notFound, [this](const QString& w) {
            why = w;
            over = true;
        });
    }
};

TEST(Speeds, TextIsToldFromWhatAWrongSpeedMakes) {
    EXPECT_EQ(textShare("Load: 1.5 kg\r\nLoad: 1.6 kg\r\n"), 1);
    EXPECT_LT(textShare("\x83\xfe\x00\x81\n\xf0\xaa\x7f\x1b"), 0.5);
    EXPECT_EQ(textShare("no line yet"), 0);
    EXPECT_EQ(textShare("1\n"), 0) << "too little to tell";
}

TEST(Speeds, ADeviceThatSpeaksIsFound) {
    StandIn device;
    QTimer talk;
    QObject::connect(&talk, &QTimer::timeout, [&] { device.say("Load: 71.61 kg\r\n"); });
    talk.start(50);
    SpeedFinder finder(device.path, {});
    Outcome outcome;
    outcome.follow(finder);
    finder.start();
    ASSERT_TRUE(runUntil([&] { return outcome.over; }));
    EXPECT_EQ(outcome.speed, SpeedFinder::speeds().front());
    EXPECT_EQ(outcome.question, QByteArray());
    EXPECT_EQ(outcome.line, "Load: 71.61 kg");
}

TEST(Speeds, ADeviceThatMustBeAskedIsAskedOnlyWhenToldTo) {
    Scale device(0);
    SpeedFinder finder(device.path, usualQuestions());
    Outcome outcome;
    outcome.follow(finder);
    finder.start();
    ASSERT_TRUE(runUntil([&] { return outcome.over; }));
    EXPECT_EQ(outcome.question, "W\r\n");
    EXPECT_EQ(outcome.line, "ST,GS,+0012.34kg");
}

/// Its answer comes when the next questions have been asked already.
TEST(Speeds, ASlowAnswerBelongsToItsOwnQuestion) {
    Scale device(SpeedFinder::answerMs * 3 / 2);
    SpeedFinder finder(device.path, usualQuestions());
    Outcome outcome;
    outcome.follow(finder);
    finder.start();
    ASSERT_TRUE(runUntil([&] { return outcome.over; }, 20000));
    EXPECT_EQ(outcome.question, "W\r\n");
    EXPECT_EQ(outcome.line, "ST,GS,+0012.34kg");
}

TEST(Speeds, APortThatCannotBeOpenedIsASentence) {
    SpeedFinder finder("/dev/no-such-port", {});
    Outcome outcome;
    outcome.follow(finder);
    finder.start();
    ASSERT_TRUE(runUntil([&] { return outcome.over; }));
    EXPECT_TRUE(outcome.why.startsWith("/dev/no-such-port cannot be opened")) << outcome.why.toStdString();
}

TEST(Speeds, PortsOfThisMachineHaveAnAddress) {
    for (const auto& p : serialPorts())
        EXPECT_FALSE(p.address.isEmpty());
}

} // namespace
