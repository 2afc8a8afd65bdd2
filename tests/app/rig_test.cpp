// Rig and Pull against a live virtual rig, by keys alone.
#include "harness.h"
#include "squeezed.h"
#include "store/disks.h"

#include "shell/bench_line.h"
#include "shell/rig_desk.h"
#include "stages/pull/bench_view.h"
#include "stages/pull/live_curve.h"
#include "stages/pull/pull_stage.h"
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QPushButton>
#include <QTabWidget>
#include <QTableWidget>
#include <QTimer>
#include <anvil/link/rig_server.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/practice.h>
#include <anvil/store/recording.h>
#include <anvil/words/stands.h>
#include <set>

using namespace anvil;
using namespace anvil::app;
using station::PullStep;

namespace {

struct AtTheRig : Window {
    std::unique_ptr<link::RigServer> server;
    QString address;

    void startRig(double speed = 0.03, double offset = 20, double cv = 0.05) {
        sim::RigOptions options;
        options.cv = cv;
        options.logger.speed = speed;
        options.logger.noise = 1;
        options.logger.zeroOffset = offset;
        options.logger.rate = 200;
        server = std::make_unique<link::RigServer>(options, false);
        address = *server->listenTcp(0);
    }
    /// The virtual rig as it ships, in a process of its own.
    void startRigBeside(QProcess& program) {
        program.start(ANVIL_RIG,
                      {"--tcp", "0", "--rate", "200", "--speed", "15", "--noise", "1", "--offset", "20"});
        ASSERT_TRUE(program.waitForReadyRead(5000));
        address = QString::fromUtf8(program.readLine()).trimmed();
    }
    rig::Setup setup() const {
        rig::Setup s;
        s.name = "Shed winch";
        s.address = address.toStdString();
        s.layout = rig::simulatedLayout();
        s.rigLimit = 5000;
        s.onArm = "!pull";
        s.onStop = "!release";
        return s;
    }
    BenchView* view() { return window->findChild<BenchView*>(); }
    PullStep step() { return view()->flow().step(); }
    /// Waits for a step; what was seen instead, in order, if it does not come.
    testing::AssertionResult until(PullStep wanted, int seconds = 20) {
        std::vector<PullStep> seen{step()};
        QElapsedTimer t;
        t.start();
        while (step() != wanted && t.elapsed() < 1000 * seconds) {
            QTest::qWait(10);
            if (step() != seen.back()) seen.push_back(step());
        }
        if (step() == wanted) return testing::AssertionSuccess();
        auto failure = testing::AssertionFailure()
                       << "step " << static_cast<int>(wanted) << " did not come, but";
        for (const auto s : seen)
            failure << " " << static_cast<int>(s);
        return failure;
    }
    /// One key, once the guard against bouncing gloves is over.
    void press(int k) {
        QTest::qWait(static_cast<int>(station::PullFlow::guardMs) + 30);
        QTest::keyClick(view(), static_cast<Qt::Key>(k));
    }
    domain::Id sevenPins() {
        const auto id = newStudy({"Pin"}, {"Dry"});
        EXPECT_TRUE(project::planReplicates(*session().project(), id, 7));
        EXPECT_TRUE(project::makePieces(*session().project(), id, ""));
        return id;
    }
    /// From the cautions until the first pull is being recorded.
    void startPulling() {
        seeToTheCautions();
        press(Qt::Key_Space);
        ASSERT_TRUE(until(PullStep::ready));
        press(Qt::Key_Space);
        ASSERT_TRUE(until(PullStep::loading));
    }
    /// The first part, the first way, accepted.
    void judge() {
        ASSERT_TRUE(until(PullStep::part));
        server->obey("!release");
        press(Qt::Key_1);
        press(Qt::Key_1);
        press(Qt::Key_Space);
    }
    void seeToTheCautions() {
        ASSERT_TRUE(until(PullStep::safety));
        // A rig that is connected anew may be away for an instant in between.
        for (int i = 0; i < 40 && step() != PullStep::zero; ++i) {
            if (step() == PullStep::safety)
                press(Qt::Key_Space);
            else
                QTest::qWait(100);
        }
        ASSERT_TRUE(until(PullStep::zero));
    }
};

TEST_F(AtTheRig, SevenSpecimensBySpaceAndDigitsAlone) {
    sevenPins();
    QProcess program;
    startRigBeside(program);
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    seeToTheCautions();
    QList<Tone> tones;
    QObject::connect(view(), &BenchView::toned, view(), [&](Tone t) { tones << t; });
    EXPECT_TRUE(child<QLabel>("bigLoad")->text().contains("N"));
    EXPECT_GE(QFontInfo(child<QLabel>("bigLoad")->font()).pixelSize(), 72);
    for (int i = 0; i < 7; ++i) {
        for (int k = 0; k < 20 && step() != PullStep::ready; ++k) {
            QTest::qWait(static_cast<int>(station::PullFlow::guardMs) + 30);
            if (step() == PullStep::zero) QTest::keyClick(view(), Qt::Key_Space);
        }
        ASSERT_TRUE(until(PullStep::ready)) << i;
        EXPECT_TRUE(child<QLabel>("nextPiece")->text().contains(QStringLiteral("A1-%1").arg(i + 1)))
            << child<QLabel>("nextPiece")->text().toStdString();
        press(Qt::Key_Space); // arm
        if (i == 2) {
            ASSERT_TRUE(until(PullStep::loading));
            QTest::keyClick(view(), Qt::Key_4); // marks the instant
        }
        ASSERT_TRUE(until(PullStep::part)) << i;
        session().rig().bench().send("!release");
        press(i == 3 ? Qt::Key_3 : Qt::Key_1); // the pin; once it was what it was fixed to
        press(Qt::Key_2);
        ASSERT_EQ(step(), PullStep::accept);
        press(Qt::Key_Space);
    }
    ASSERT_TRUE(until(PullStep::finished));
    EXPECT_EQ(tones.count(Tone::armed), 7) << "somebody who looks at the piece hears what goes on";
    EXPECT_EQ(tones.count(Tone::broke), 7);
    EXPECT_EQ(tones.count(Tone::saved), 7);
    ASSERT_EQ(study().pulls.size(), 7U);
    for (const auto& p : study().pulls) {
        EXPECT_EQ(p.recording, domain::Recording::done);
        EXPECT_EQ(p.setup, session().rig().setupId());
        EXPECT_FALSE(p.outcome.part.empty());
        EXPECT_FALSE(p.outcome.mode.empty());
        EXPECT_EQ(p.outcome.limit, domain::Limit::broke);
    }
    EXPECT_EQ(study().pulls[2].outcome.marks.size(), 1U);
    EXPECT_EQ(results::standingOf(study(), study().pulls[3], nullptr), domain::Standing::atLeast)
        << study().pulls[3].outcome.part;
    EXPECT_FALSE(words::reasonOf(study(), study().pulls[3], nullptr).empty());
    const auto& v = session().verdict(domain::metric("peak"));
    ASSERT_EQ(v.groups.size(), 1U);
    EXPECT_EQ(v.groups[0].values.size(), 7U);
    for (const auto& p : study().pulls) {
        const auto& r = session().readings().byPull.at(p.id);
        EXPECT_NEAR(r.peak.load, 2000, 500);
        EXPECT_LT(std::abs(r.baseline), 8) << "it was zeroed";
    }
    EXPECT_TRUE(session().project()->file().check().problems.isEmpty());
    program.kill();
    program.waitForFinished();
}

/// A disk that takes nothing: no tone says "saved", and the sentence says what became of the pull.
TEST_F(AtTheRig, APullThatCouldNotBeSavedSoundsSo) {
    sevenPins();
    QProcess program;
    startRigBeside(program);
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    seeToTheCautions();
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::ready));
    QList<Tone> tones;
    QObject::connect(view(), &BenchView::toned, view(), [&](Tone t) { tones << t; });
    QStringList said;
    QObject::connect(&session(), &Session::message, &session(),
                     [&](const QString& text, bool) { said << text; });
    {
        const FileLimit limit(1);
        press(Qt::Key_Space); // arm
        ASSERT_TRUE(until(PullStep::part));
    }
    EXPECT_TRUE(tones.contains(Tone::notSaved));
    EXPECT_FALSE(tones.contains(Tone::saved));
    EXPECT_TRUE(said.join(' ').contains("not in the project")) << said.join(' ').toStdString();
    EXPECT_TRUE(study().pulls.empty());
    program.kill();
    program.waitForFinished();
}

TEST_F(AtTheRig, ClosingUnderLoadStopsTheRigAndAsks) {
    sevenPins();
    QProcess program;
    startRigBeside(program);
    window->goTo(Stage::pull);
    auto driven = setup();
    driven.onStop = "!stop";
    ASSERT_TRUE(session().rig().use(driven));
    seeToTheCautions();
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::ready));
    press(Qt::Key_Space); // arm
    ASSERT_TRUE(until(PullStep::loading));
    QString asked;
    const auto answer = [&](const char* button) {
        QTimer::singleShot(200, window.get(), [&asked, button, this] {
            auto* box = window->findChild<QMessageBox*>("closeUnderLoad");
            ASSERT_TRUE(box);
            EXPECT_EQ(squeezedIn(box).join('\n').toStdString(), "");
            asked = box->text() + ' ' + box->informativeText();
            for (auto* b : box->buttons())
                if (b->text().remove('&') == QLatin1String(button)) b->click();
        });
    };
    answer("Stay");
    EXPECT_FALSE(window->close());
    EXPECT_TRUE(asked.contains("has been told to stop")) << asked.toStdString();
    EXPECT_NE(session().rig().live().recorder, rig::RecorderState::loading) << "stopped before it was asked";
    ASSERT_TRUE(until(PullStep::part));
    ASSERT_EQ(study().pulls.size(), 1U) << "what was recorded is there, to be judged";
    EXPECT_TRUE(window->close()) << "no load, no question";
    program.kill();
    program.waitForFinished();
}

/// From the space bar on the window gets no time until the piece has broken.
TEST_F(AtTheRig, AWindowThatIsHeldUpMissesNoPull) {
    sevenPins();
    QProcess program; // the rig goes on meanwhile
    startRigBeside(program);
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    seeToTheCautions();
    QList<Tone> tones;
    QObject::connect(view(), &BenchView::toned, view(), [&](Tone t) { tones << t; });
    press(Qt::Key_Space);
    for (std::size_t i = 0; i < 2; ++i) {
        ASSERT_TRUE(until(PullStep::ready));
        press(Qt::Key_Space);
        const auto& bench = session().rig().bench();
        for (int k = 0; k < 400 && bench.live().recorder != rig::RecorderState::done; ++k)
            QThread::msleep(50);
        ASSERT_EQ(bench.live().recorder, rig::RecorderState::done);
        ASSERT_EQ(step(), PullStep::ready) << "it has seen nothing";
        tones.clear();
        ASSERT_TRUE(until(PullStep::part));
        EXPECT_EQ(tones, (QList<Tone>{Tone::armed, Tone::broke, Tone::saved}))
            << "what was missed is heard late";
        session().rig().bench().send("!release");
        press(Qt::Key_1);
        press(Qt::Key_1);
        press(Qt::Key_Space);
        ASSERT_EQ(study().pulls.size(), i + 1);
        EXPECT_EQ(study().pulls[i].recording, domain::Recording::done);
        EXPECT_FALSE(study().pulls[i].outcome.part.empty());
        EXPECT_NEAR(session().readings().byPull.at(study().pulls[i].id).peak.load, 2000, 500);
    }
    program.kill();
    program.waitForFinished();
}

TEST_F(AtTheRig, UnpluggedInMidPullAndFinishedAfterwards) {
    sevenPins();
    startRig(0.004);
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    startPulling();
    QTest::qWait(300);
    server->obey("!unplug 1");
    EXPECT_TRUE(waitFor([&] { return window->bench()->stateText().contains("looking for it"); }))
        << window->bench()->stateText().toStdString();
    ASSERT_TRUE(until(PullStep::part));
    EXPECT_TRUE(waitFor([&] { return session().rig().live().link == station::LinkState::connected; }))
        << "plugged in again, it is found by itself";
    press(Qt::Key_9); // nothing broke
    ASSERT_EQ(step(), PullStep::accept);
    EXPECT_TRUE(child<QLabel>("benchSentence")->text().contains("fell silent"));
    press(Qt::Key_Space);
    ASSERT_EQ(study().pulls.size(), 1U);
    EXPECT_EQ(results::standingOf(study(), study().pulls[0], nullptr), domain::Standing::atLeast);
    EXPECT_EQ(study().pulls[0].recording, domain::Recording::done) << "judged by the tester";
    server->obey("!release");
    QElapsedTimer t;
    t.start();
    while (step() != PullStep::ready && t.elapsed() < 20000) {
        QTest::qWait(static_cast<int>(station::PullFlow::guardMs) + 30);
        if (step() == PullStep::zero) QTest::keyClick(view(), Qt::Key_Space); // not what comes after it
    }
    ASSERT_EQ(step(), PullStep::ready) << "found again without a key";
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::loading));
    press(Qt::Key_Space); // stopped by hand
    ASSERT_TRUE(until(PullStep::part));
    press(Qt::Key_Space);
    EXPECT_EQ(step(), PullStep::limit) << "stopped: nothing broke is the likeliest";
    press(Qt::Key_Space);
    EXPECT_EQ(step(), PullStep::accept);
    press(Qt::Key_3); // set up wrongly
    press(Qt::Key_Space);
    EXPECT_EQ(study().pulls.back().standing, domain::Standing::voided);
}

TEST_F(AtTheRig, RenamingTheProjectInMidPullKeepsWhatWasPulled) {
    sevenPins();
    startRig(0.004);
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    startPulling();
    QTest::qWait(400);
    EXPECT_TRUE(window->moveTo(dir.filePath("renamed.anvil")));
    ASSERT_TRUE(session().project());
    EXPECT_TRUE(session().project()->file().path().endsWith("renamed.anvil"));
    ASSERT_EQ(study().pulls.size(), 1U);
    EXPECT_GT(session().project()->file().curve(study().pulls[0].curve)->load.size(), 10U);
    EXPECT_EQ(results::standingOf(study(), study().pulls[0], nullptr), domain::Standing::notRead)
        << "it waits for a decision";
    EXPECT_FALSE(visibleTexts(window->bench()).join(' ').contains("Saving"));
    EXPECT_FALSE(visibleTexts(window.get()).join(' ').contains("Recording\u2026"));
    // And the rig can be taken again.
    ASSERT_TRUE(session().rig().use(setup()));
    EXPECT_TRUE(waitFor([&] { return session().rig().live().link == station::LinkState::connected; }));
}

TEST_F(AtTheRig, AnotherPieceAndTheBenchLine) {
    sevenPins();
    startRig();
    EXPECT_TRUE(window->bench()->stateText().startsWith("No rig is connected"));
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    seeToTheCautions();
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::ready));
    press(Qt::Key_9);
    EXPECT_TRUE(child<QLabel>("nextPiece")->text().contains("A1-2"));
    window->goTo(Stage::verdict);
    ASSERT_TRUE(waitFor([&] { return window->bench()->loadText().endsWith(" N"); }));
    QTest::mouseClick(child<QPushButton>("benchUnit"), Qt::LeftButton);
    ASSERT_TRUE(waitFor([&] { return window->bench()->loadText().endsWith(" kN"); }));
    session().setUnits("N", "mm");
    session().rig().disconnectRig();
    EXPECT_TRUE(waitFor([&] { return window->bench()->stateText().startsWith("No rig is connected"); }));
}

TEST_F(AtTheRig, CautionsAreAskedAgainWhenTheSetUpChanges) {
    sevenPins();
    startRig();
    window->goTo(Stage::pull);
    auto s = setup();
    ASSERT_TRUE(session().rig().use(s));
    seeToTheCautions();
    const auto first = session().rig().setupId();
    EXPECT_TRUE(session().rig().safetySeen());
    s.rigLimit = 4000;
    ASSERT_TRUE(session().rig().keep(s));
    EXPECT_NE(session().rig().setupId(), first);
    EXPECT_TRUE(until(PullStep::safety));
    EXPECT_EQ(*session().project()->setupOf(first)->rigLimit, 5000)
        << "what was pulled before keeps its set-up";
}

TEST_F(AtTheRig, PracticeStaysInItsOwnStudy) {
    const auto real = sevenPins();
    window->goTo(Stage::pull);
    settle();
    pressButton("Practise on the virtual bench");
    EXPECT_TRUE(study().study.plan.practice);
    EXPECT_EQ(study().options.size(), 3U);
    EXPECT_EQ(study().specimens.size(), 15U);
    ASSERT_TRUE(until(PullStep::safety));
    session().showStudy(real);
    const auto pull = station::pullFor(study(), study().specimens[0], session().rig().station(),
                                       session().rig().circumstances());
    ASSERT_FALSE(pull);
    EXPECT_NE(pull.error().message.find("practice study only"), std::string::npos);
    EXPECT_TRUE(study().pulls.empty());
    // Hidden strengths are far enough apart to be found, and the same for the same seed.
    std::set<double> strengths;
    for (int k = 0; k < 3; ++k)
        strengths.insert(project::practiceStrength(42, k));
    ASSERT_EQ(strengths.size(), 3U);
    EXPECT_GT(*strengths.rbegin() / *std::next(strengths.begin()), 1.06);
    EXPECT_EQ(project::practiceStrength(42, 1), project::practiceStrength(42, 1));
}

TEST_F(AtTheRig, NothingCanBeRecordedIntoAProjectForLooking) {
    startRig();
    EXPECT_FALSE(session().rig().use(setup()));
    EXPECT_TRUE(window->messageText().contains("Open a project first"));
}

TEST_F(AtTheRig, TheAssistantFindsTheColumns) {
    sevenPins();
    startRig();
    window->goTo(Stage::rig);
    settle();
    auto* address = shown<QLineEdit>("reached at");
    retype(address, "somewhere");
    emit address->editingFinished();
    auto* connectButton = child<QTabWidget>("rigTabs")->widget(0)->findChild<QPushButton*>("primary");
    QTest::mouseClick(connectButton, Qt::LeftButton);
    EXPECT_TRUE(window->messageText().contains("is no address of a rig"))
        << window->messageText().toStdString();
    shown<QLineEdit>("Rig")->setText("Shed winch");
    retype(address, this->address);
    emit address->editingFinished();
    QTest::mouseClick(connectButton, Qt::LeftButton);
    ASSERT_TRUE(waitFor([&] { return session().rig().bench().lines().size() > 30; }));
    pressButton("Guess from what arrives");
    auto* columns = child<QTableWidget>("columns");
    ASSERT_EQ(columns->rowCount(), 3);
    const bool named = session().rig().setup().layout.columns[1].unit == "N"; // if the header was still there
    if (!named) {
        EXPECT_TRUE(window->messageText().contains("never guessed"));
        columns->item(1, 2)->setText("mm");
        EXPECT_TRUE(window->messageText().contains("force is wanted")) << window->messageText().toStdString();
        columns->item(0, 2)->setText("s");
        columns->item(1, 2)->setText("N");
    }
    ASSERT_TRUE(waitFor([&] { return session().rig().live().perSecond > 50; }));
    EXPECT_TRUE(waitFor([&] { return child<QLabel>("linkState")->text().contains("samples a second"); }));
    EXPECT_EQ(session().rig().setup().name, "Shed winch");
    EXPECT_GE(session().project()->rigs().size(), 1U) << "kept in the project";
}

TEST_F(AtTheRig, LoadPathCalibrationAndChecksAreKept) {
    sevenPins();
    startRig(0.03, 0);
    window->goTo(Stage::rig);
    ASSERT_TRUE(session().rig().use(setup()));
    showTab("rigTabs", "Load path");
    settle();
    QTest::mouseClick(child<QPushButton>("add-0"), Qt::LeftButton);
    const auto typed = [&](const char* name, const QString& text) {
        auto* edit = child<QLineEdit>(name);
        retype(edit, text);
        emit edit->editingFinished();
        settle();
    };
    typed("part0-a", "1.52 m");
    typed("part0-b", "100");
    EXPECT_TRUE(child<QLabel>("pathSentence")->text().startsWith("Reads 1, the specimen feels 15.2"))
        << child<QLabel>("pathSentence")->text().toStdString();
    EXPECT_EQ(child<QLineEdit>("part0-a")->text(), "1520 mm") << "every measure says its unit";
    typed("part0-b", "0");
    EXPECT_TRUE(window->messageText().contains("lever arm of zero"));
    EXPECT_NEAR(session().rig().setup().path[0].b, 0.1, 1e-12) << "nothing lost";
    typed("part0-b", "4 kN");
    EXPECT_TRUE(window->messageText().contains("length is wanted")) << window->messageText().toStdString();
    EXPECT_EQ(shown<QLineEdit>("Pivot to piece")->text(), "100 mm");
    pressButton("Take out");
    EXPECT_TRUE(session().rig().setup().path.empty());
    shown<QLineEdit>("Pivot check: weight")->setText("400 N");
    retype(shown<QLineEdit>("centre at"), "1 m");
    retype(shown<QLineEdit>("lifted at"), "2.5 m");
    emit shown<QLineEdit>("lifted at")->editingFinished();
    EXPECT_EQ(child<QLabel>("pivotSays")->text(), "A scale there reads 160.0 N of the true 400.0 N.");
    showTab("rigTabs", "Calibration");
    settle();
    auto* table = shown<QTableWidget>("Reading, True load");
    table->item(0, 0)->setText("0");
    table->item(0, 1)->setText("0 N");
    table->item(1, 0)->setText("100");
    table->item(1, 1)->setText("102 N");
    ASSERT_EQ(session().rig().setup().calibration.points.size(), 2U);
    table->item(2, 0)->setText("100");
    table->item(2, 1)->setText("110 N");
    EXPECT_TRUE(window->messageText().contains("stands twice")) << window->messageText().toStdString();
    EXPECT_EQ(session().rig().setup().calibration.points.size(), 2U);
    ASSERT_TRUE(waitFor([&] { return session().rig().live().fresh; }));
    shown<QLineEdit>("such as 10 kg")->setText("98.1 N");
    pressButton("Check it");
    ASSERT_EQ(session().rig().setup().calibration.checks.size(), 1U);
    EXPECT_FALSE(session().rig().setup().calibration.checks[0].passed()) << "nothing hangs there";
    EXPECT_TRUE(window->messageText().contains("more than 1.0 %"));
    retype(shown<QLineEdit>("Good until"), "soon");
    emit shown<QLineEdit>("Good until")->editingFinished();
    EXPECT_TRUE(window->messageText().contains("is not a date"));
    showTab("rigTabs", "Limits");
    settle();
    auto* limit = shown<QLineEdit>("The rig pulls at most");
    retype(limit, "0 N");
    emit limit->editingFinished();
    EXPECT_TRUE(window->messageText().contains("zero or less"));
    EXPECT_EQ(*session().rig().setup().rigLimit, 5000);
}

TEST_F(AtTheRig, LegsAreShownWithTheirSharesAndKeptAtEveryMark) {
    sevenPins();
    sim::RigOptions options;
    options.logger.speed = 0.006;
    options.logger.noise = 1;
    options.legs = {0.6, 0.4};
    server = std::make_unique<link::RigServer>(options, false);
    address = *server->listenTcp(0);
    auto s = setup();
    for (const char* leg : {"leg east", "leg west"})
        s.layout.columns.push_back({leg, rig::Role::load, "N"});
    window->goTo(Stage::rig);
    ASSERT_TRUE(session().rig().use(s));
    showTab("rigTabs", "More channels");
    settle();
    auto* table = child<QTableWidget>("moreChannels");
    ASSERT_EQ(table->rowCount(), 2);
    ASSERT_TRUE(waitFor([&] { return table->item(0, 1)->text().endsWith(" N"); }));
    table->item(0, 2)->setText("0 N");
    EXPECT_TRUE(window->messageText().contains("zero or less"));
    table->item(0, 2)->setText("900 N");
    EXPECT_EQ(*session().rig().setup().layout.columns[3].limit, 900);
    showTab("rigTabs", "Calibration");
    settle();
    auto* channel = child<QComboBox>("calibratedChannel");
    ASSERT_EQ(channel->count(), 3) << "the load and its two legs";
    channel->setCurrentIndex(2);
    emit channel->activated(2);
    auto* points = shown<QTableWidget>("Reading, True load");
    points->item(0, 0)->setText("0");
    points->item(0, 1)->setText("0 N");
    points->item(1, 0)->setText("100");
    points->item(1, 1)->setText("100 N");
    EXPECT_EQ(session().rig().setup().layout.columns[4].calibration.points.size(), 2U);
    EXPECT_TRUE(session().rig().setup().calibration.points.empty()) << "the load has its own";
    EXPECT_TRUE(child<QWidget>("calibrationPicture")->isVisible());
    retype(shown<QLineEdit>("Good until"), "2020-01-01");
    emit shown<QLineEdit>("Good until")->editingFinished();
    EXPECT_EQ(session().rig().setup().layout.columns[4].calibration.until, "2020-01-01");
    EXPECT_EQ(session().rig().setup().calibration.until, "") << "each has dates of its own";
    EXPECT_TRUE(
        rig::problems(session().rig().setup(), "2026-05-04").at(0).starts_with("leg west: The calibration"));
    retype(shown<QLineEdit>("Good until"), "");
    emit shown<QLineEdit>("Good until")->editingFinished();
    ASSERT_TRUE(waitFor([&] { return session().rig().live().channels.at(1).fresh; }));
    shown<QLineEdit>("such as 10 kg")->setText("50 N");
    pressButton("Check it");
    ASSERT_EQ(session().rig().setup().layout.columns[4].calibration.checks.size(), 1U)
        << window->messageText().toStdString();
    EXPECT_FALSE(session().rig().setup().layout.columns[4].calibration.checks[0].passed());
    ASSERT_EQ(child<QListWidget>("checks")->count(), 1);
    showTab("rigTabs", "More channels");
    settle();
    pressButton("Add a device");
    auto* devices = shown<QTableWidget>("Device, Reached at, Its columns, State");
    ASSERT_EQ(devices->rowCount(), 1);
    auto* columns = shown<RowEditor>("Columns of the device");
    typeRows(columns, {{"time", "s", ""}, {"air", "zork", ""}});
    EXPECT_TRUE(window->messageText().contains("zork"));
    pressButton("Take it away");
    EXPECT_TRUE(session().rig().setup().sides.empty());
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(session().rig().setup()));
    startPulling();
    ASSERT_TRUE(waitFor([&] { return session().rig().live().load > 800; }));
    QTest::keyClick(view(), Qt::Key_1);
    EXPECT_TRUE(waitFor([&] { return child<QLabel>("liveChannels")->text().contains("60 %"); }))
        << child<QLabel>("liveChannels")->text().toStdString();
    EXPECT_TRUE(waitFor([&] {
        const auto* legs = child<PictureView>("liveLegs");
        return legs->isVisible() && visibleTexts(legs->parentWidget()).join(' ').contains("1: 60 %");
    })) << "the shares are drawn while it is pulled";
    judge();
    ASSERT_EQ(study().pulls.size(), 1U);
    session().selectPull(study().pulls[0].id);
    const auto text = child<QLabel>("steady")->text();
    EXPECT_TRUE(text.contains("leg east") && text.contains("60 % of the legs") &&
                text.contains("not standing still"))
        << text.toStdString();
    window->goTo(Stage::curves);
    settle();
    QStringList labels;
    for (const auto& l : window->curves()->view()->picture().labels())
        labels << QString::fromStdString(l);
    EXPECT_TRUE(labels.contains("leg west")) << "every leg is drawn beside the whole";
}

TEST_F(AtTheRig, ARigThatAnswersIsAskedForFurtherReadings) {
    sevenPins();
    sim::RigOptions options;
    options.legs = {0.6, 0.4};
    server = std::make_unique<link::RigServer>(options, true);
    address = *server->listenTcp(0);
    window->goTo(Stage::rig);
    ASSERT_TRUE(session().rig().keep(setup()));
    showTab("rigTabs", "Connection");
    settle();
    auto* more = child<RowEditor>("moreQueries");
    EXPECT_FALSE(more->isVisible()) << "this one sends lines";
    auto* protocol = shown<QComboBox>("How the rig sends");
    protocol->setCurrentIndex(1);
    emit protocol->activated(1);
    settle();
    ASSERT_TRUE(more->isVisible());
    EXPECT_FALSE(child<QTableWidget>("columns")->isVisible());
    const auto type = [&](const char* name, const QString& text) {
        retype(child<QLineEdit>(name), text);
        emit child<QLineEdit>(name)->editingFinished();
        settle();
    };
    EXPECT_FALSE(session().rig().use(session().rig().setup())) << "asked for nothing";
    EXPECT_TRUE(window->messageText().contains("which question")) << window->messageText().toStdString();
    type("forceQuery", "MEAS:FORC?");
    typeRows(more, {{"leg B", "N", ""}});
    EXPECT_TRUE(window->messageText().contains("needs a name and its question"))
        << window->messageText().toStdString();
    typeRows(more, {{"leg B", "zork", "MEAS:FORC2?"}});
    EXPECT_TRUE(window->messageText().contains("zork"));
    EXPECT_TRUE(session().rig().setup().asked.empty()) << "nothing half done";
    typeRows(more, {{"leg B", "N", "MEAS:FORC2?"}, {"leg C", "N", "MEAS:FORC3?"}});
    ASSERT_EQ(session().rig().setup().asked.size(), 2U);
    ASSERT_TRUE(session().rig().use(session().rig().setup()));
    ASSERT_TRUE(waitFor([&] {
        const auto live = session().rig().live();
        return live.channels.size() == 2 && live.channels[1].fresh && live.perSecond > 5;
    }));
    showTab("rigTabs", "More channels");
    settle();
    auto* table = child<QTableWidget>("moreChannels");
    ASSERT_EQ(table->rowCount(), 2);
    EXPECT_EQ(table->item(0, 4)->text(), "none");
    session().rig().edit([](rig::Setup& s) { s.asked[0].calibration.points = {{0, 0}, {100, 102}}; });
    settle();
    EXPECT_EQ(table->item(0, 4)->text(), "2 points");
    showTab("rigTabs", "Connection");
    settle();
    more->setCurrentCell(1, 0);
    QTest::keyClick(more, Qt::Key_Delete);
    ASSERT_EQ(session().rig().setup().asked.size(), 1U);
    EXPECT_EQ(session().rig().setup().asked[0].calibration.points.size(), 2U) << "its table stays with it";
    protocol->setCurrentIndex(0);
    emit protocol->activated(0);
    EXPECT_EQ(session().rig().setup().layout, rig::simulatedLayout())
        << "what its lines held is not forgotten";
    EXPECT_EQ(session().rig().setup().asked.size(), 1U);
}

TEST_F(AtTheRig, GarbageAndAClockJumpInMidPullAreNotedWithIt) {
    sevenPins();
    startRig(0.006);
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(setup()));
    startPulling();
    server->obey("!garbage 500");
    server->obey("!clock -30");
    judge();
    ASSERT_EQ(study().pulls.size(), 1U);
    QStringList noted;
    for (const auto& m : study().pulls[0].outcome.marks)
        noted << QString::fromStdString(m.text);
    EXPECT_TRUE(noted.contains("the rig's clock jumped")) << noted.join("; ").toStdString();
    EXPECT_EQ(noted.filter("held no numbers").size(), 1);
    EXPECT_NEAR(session().readings().byPull.at(study().pulls[0].id).peak.load, server->rig().truth().peak,
                30);
    menu("foldBench");
    EXPECT_FALSE(window->bench()->isVisible());
    menu("foldBench");
    EXPECT_TRUE(window->bench()->isVisible());
}

TEST_F(AtTheRig, PausesToLookAndWarnsNearTheLimit) {
    sevenPins();
    // Slow, for the window may be held up before it asks for the pause; no spread: every pin must come above
    // nine tenths of the limit.
    startRig(0.002, 20, 0);
    server->obey("!strength 2150");
    auto s = setup();
    s.rigLimit = 2300;
    s.lookEvery = 1200;
    s.onPause = "!pause";
    s.onResume = "!go";
    window->goTo(Stage::pull);
    ASSERT_TRUE(session().rig().use(s));
    QList<Tone> tones;
    QObject::connect(view(), &BenchView::toned, view(), [&](Tone t) { tones << t; });
    seeToTheCautions();
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::ready));
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::look));
    EXPECT_TRUE(tones.contains(Tone::look));
    QTest::qWait(700);
    const double held = session().rig().live().load;
    EXPECT_GT(held, 1000);
    EXPECT_LT(held, 1400) << "the drive waits";
    QTest::qWait(300);
    EXPECT_LT(session().rig().live().load, held + 20)
        << "and goes on waiting: it would have broken the pin by now";
    EXPECT_GT(session().rig().live().load, 0.8 * held);
    press(Qt::Key_Space);
    ASSERT_TRUE(until(PullStep::part));
    server->obey("!release");
    EXPECT_TRUE(tones.contains(Tone::nearLimit)) << "nine tenths of 2300 N";
    press(Qt::Key_1);
    press(Qt::Key_1);
    press(Qt::Key_Space);
    ASSERT_EQ(study().pulls.size(), 1U);
    EXPECT_NEAR(session().readings().byPull.at(study().pulls[0].id).peak.load, server->rig().truth().peak, 30)
        << "one recording over the pause";
}

TEST_F(AtTheRig, ARigidBarTellsHowMuchTheRigGivesWay) {
    sevenPins();
    startRig(0.003, 0);
    auto s = setup();
    window->goTo(Stage::rig);
    showTab("rigTabs", "Limits");
    settle();
    pressButton("Measure it with a rigid bar");
    EXPECT_TRUE(window->messageText().contains("Connect the rig first"));
    ASSERT_TRUE(session().rig().use(s));
    ASSERT_TRUE(waitFor([&] { return session().rig().live().fresh; }));
    pressButton("Measure it with a rigid bar");
    EXPECT_TRUE(study().study.plan.rigCheck);
    EXPECT_EQ(study().specimens.size(), 1U);
    startPulling();
    ASSERT_TRUE(waitFor([&] { return session().rig().live().load > 1000; }));
    press(Qt::Key_Space); // stop
    ASSERT_TRUE(until(PullStep::part));
    for (int i = 0; i < 3; ++i)
        press(Qt::Key_Space); // nothing broke, stopped on purpose, accept
    ASSERT_EQ(study().pulls.size(), 1U) << static_cast<int>(step());
    const double stiffness = session().readings().byPull.at(study().pulls[0].id).stiffness->value;
    EXPECT_NEAR(session().rig().setup().compliance, 1 / stiffness, 1e-12);
    EXPECT_TRUE(window->messageText().contains("gives way by")) << window->messageText().toStdString();
    EXPECT_EQ(session().project()->studies().size(), 2U) << "a study of its own: never among the results";
}

TEST_F(AtTheRig, AnInterruptedPullIsShownAndSettled) {
    sevenPins();
    auto& file = session().project()->file();
    domain::Pull blank;
    blank.specimen = study().specimens[0].id;
    {
        store::PullRecording r(file, blank);
        r.begin();
        for (int i = 0; i < 400; ++i) {
            const rig::Sample s{i * 0.01, i < 100 ? 0.3 * (i % 3) : 5.0 * (i - 100), std::nullopt, true};
            r.append(std::span(&s, 1));
        }
        r.end(rig::Ending::linkLost);
    }
    const auto path = file.path();
    session().close();
    ASSERT_TRUE(window->openPath(path));
    ASSERT_EQ(study().pulls.size(), 1U);
    settle();
    EXPECT_TRUE(window->messageText().contains("interrupted"));
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("Its recording was interrupted."));
    EXPECT_TRUE(session().verdict(domain::metric("peak")).groups[0].values.empty())
        << "not before somebody has looked";
    pressButton("It held that much: at least");
    EXPECT_EQ(study().pulls[0].standing, domain::Standing::atLeast);
    EXPECT_EQ(study().pulls[0].recording, domain::Recording::done);
    EXPECT_EQ(session().verdict(domain::metric("peak")).groups[0].values.size(), 1U);
    session().project()->undo();
    EXPECT_EQ(study().pulls[0].recording, domain::Recording::interrupted);
}

TEST_F(AtTheRig, NumbersReadOffADisplayKeepTheirDoubt) {
    sevenPins();
    window->goTo(Stage::pull);
    settle();
    auto* value = shown<QLineEdit>("What was read");
    auto* broke = shown<QComboBox>("What broke");
    EXPECT_TRUE(child<QLabel>("typedPiece")->text().startsWith("A1-1"));
    const auto type = [&](const QString& text, int part) {
        broke->setCurrentIndex(part);
        value->setText(text);
        QTest::keyClick(value, Qt::Key_Return);
        settle();
    };
    type("12 mm", 1);
    EXPECT_TRUE(window->messageText().contains("measures length"));
    EXPECT_EQ(value->text(), "12 mm") << "nothing lost";
    type("4.2 kN", 1);
    type(">9 kN", 0);
    type(QString::fromUtf8("3\u20263.5 kN"), 1);
    type("12 kN", 3); // what it was fixed to
    pressButton("Number lost");
    settle();
    ASSERT_EQ(study().pulls.size(), 5U);
    EXPECT_EQ(study().pulls[0].typed->value, 4200);
    EXPECT_EQ(study().pulls[0].outcome.part, "the piece");
    EXPECT_EQ(study().pulls[0].standing, domain::Standing::counts);
    EXPECT_EQ(study().pulls[1].standing, domain::Standing::atLeast);
    EXPECT_EQ(study().pulls[2].standing, domain::Standing::between);
    EXPECT_EQ(study().pulls[2].typed->upper, 3500);
    EXPECT_EQ(results::standingOf(study(), study().pulls[3], nullptr), domain::Standing::atLeast)
        << "another part broke";
    EXPECT_EQ(study().pulls[4].standing, domain::Standing::notRead);
    pressButton("Another piece");
    EXPECT_TRUE(child<QLabel>("typedPiece")->text().startsWith("A1-7"))
        << child<QLabel>("typedPiece")->text().toStdString();
    session().selectPull(study().pulls[0].id);
    settle();
    auto* shares = child<RowEditor>("shares");
    typeRows(shares, {{"pulled out", "70"}, {"tore", "20"}});
    EXPECT_TRUE(window->messageText().contains("90 % together"));
    shares->item(1, 1)->setText("30 %");
    EXPECT_EQ(study().pulls[0].outcome.shares.size(), 2U);
    retype(child<QLineEdit>("afterwards"), "bent");
    emit child<QLineEdit>("afterwards")->editingFinished();
    EXPECT_EQ(study().pulls[0].outcome.afterwards, "bent");
    EXPECT_EQ(study().pulls[0].outcome.shares.size(), 2U);
}

} // namespace
