#include <QDir>
#include <QFile>
#include <QTemporaryDir>
#include <anvil/methods/method.h>
#include <anvil/project/import.h>
#include <anvil/project/rig_commands.h>
#include <anvil/results/values.h>
#include <cmath>
#include <gtest/gtest.h>
#include <sys/stat.h>

using namespace anvil;
using namespace anvil::project;

namespace {

QByteArray log(int rows, double scale, const char* head = "Time (s),Force (N),Travel (mm)\n") {
    QByteArray out = head;
    for (int i = 0; i < rows; ++i)
        out += QByteArray::number(i * 0.1, 'f', 1) + "," +
               QByteArray::number(i < 20 || i > rows - 12 ? 0 : scale * (i - 20), 'f', 2) + "," +
               QByteArray::number(i * 0.05, 'f', 2) + "\n";
    return out;
}

struct Import : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<OpenProject> p = std::move(*OpenProject::create(dir.filePath("p.anvil")));

    QString file(const QString& name, const QByteArray& bytes) {
        QFile f(dir.filePath(name));
        EXPECT_TRUE(f.open(QIODevice::WriteOnly));
        f.write(bytes);
        return f.fileName();
    }
    ImportPlan look(const QStringList& paths, const ImportChoices& choices = {}) {
        return lookAt(paths, choices, p->file().curveDigests().value());
    }
    domain::StudyData fresh() const {
        domain::StudyData d;
        d.study.title = "Pegs";
        return d;
    }
    const domain::StudyData& only() { return p->studies().front(); }
};

TEST_F(Import, FilesBecomeABoardInOneUndoableStep) {
    const auto plan = look({file("pin_dry_1.csv", log(80, 10)), file("pin_dry_2.csv", log(90, 11)),
                            file("bolt_dry_1.csv", log(85, 20)), file("bolt_wet_1.csv", log(85, 15))});
    ASSERT_EQ(plan.rows.size(), 4U);
    EXPECT_EQ(plan.rows[0].option, "Pin");
    EXPECT_EQ(plan.rows[3].condition, "Wet");
    const auto done = importRuns(p->file(), fresh(), plan);
    ASSERT_TRUE(done) << done.error().message;
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    ASSERT_EQ(p->studies().size(), 1U);
    EXPECT_EQ(only().options.size(), 2U);
    EXPECT_EQ(only().conditions.size(), 2U);
    EXPECT_EQ(only().pulls.size(), 4U);
    EXPECT_EQ(only().specimens[0].label, "A1-1");
    EXPECT_EQ(p->undoText(), "Import 4 runs");
    ASSERT_TRUE(p->undo());
    EXPECT_TRUE(p->studies().empty());
    ASSERT_TRUE(p->redo());
    EXPECT_EQ(only().pulls.size(), 4U);
    EXPECT_TRUE(p->file().check().problems.isEmpty());
}

/// Cancelled: nothing of it is in the project.
TEST_F(Import, CancellingLeavesNothing) {
    const auto plan = look({file("pin_dry_1.csv", log(80, 10)), file("pin_dry_2.csv", log(90, 11))});
    const std::atomic<bool> stop{true};
    const auto done = importRuns(p->file(), fresh(), plan, &stop);
    ASSERT_FALSE(done);
    EXPECT_NE(done.error().message.find("cancelled"), std::string::npos);
    EXPECT_TRUE(p->file().load()->empty());
    EXPECT_TRUE(p->file().curveDigests()->empty());
    EXPECT_TRUE(p->file().check().problems.isEmpty());
}

/// Devices and pipes would be read without end, endless lines make no table.
TEST_F(Import, OnlyFilesOfLinesAreRead) {
    const auto pipe = dir.filePath("pipe.csv");
    ASSERT_EQ(::mkfifo(pipe.toLocal8Bit().constData(), 0600), 0);
    const auto endless = file("endless.csv", "Time,Force\n" + QByteArray(3'000'000, '7'));
    const auto sparse = file("huge.csv", "1,2\n");
    ASSERT_TRUE(QFile::resize(sparse, 1'000'000'000));
    const auto plan = look({"/dev/zero", pipe, endless, sparse, dir.filePath("none.csv")});
    EXPECT_TRUE(plan.rows.empty());
    const auto said = plan.unread.join('\n');
    EXPECT_EQ(said.count("no file of data"), 2) << said.toStdString();
    EXPECT_TRUE(said.contains("endless.csv: a line of it is longer than 1 MB"));
    EXPECT_TRUE(said.contains("huge.csv: it is larger than 400 MB"));
    EXPECT_TRUE(said.contains("none.csv: there is no such file"));
}

TEST_F(Import, RepeatsAreRecognisedByContentWhateverTheirName) {
    const auto a = file("pin_dry_1.csv", log(80, 10)), b = file("copy of pin.csv", log(80, 10));
    auto plan = look({a, b});
    EXPECT_FALSE(plan.rows[0].repeat);
    EXPECT_TRUE(plan.rows[1].repeat) << "twice in one sheet";
    const auto done = importRuns(p->file(), fresh(), plan);
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    EXPECT_EQ(only().pulls.size(), 1U);
    plan = look({a, b, file("pin_dry_2.csv", log(80, 12))});
    EXPECT_TRUE(plan.rows[0].repeat && plan.rows[1].repeat);
    EXPECT_FALSE(plan.rows[2].repeat);
    ASSERT_TRUE(p->undo());
    EXPECT_FALSE(look({a}).rows[0].repeat) << "an import taken back is no repeat";
}

TEST_F(Import, CorrectingOneNameReReadsAll) {
    auto plan = look({file("0413_wet_pin_1.csv", log(80, 10)), file("0413_dry_bolt_1.csv", log(80, 11))});
    plan.rows[0].option = "Pin";
    plan.rows[0].condition = "Wet";
    relearn(plan, 0);
    EXPECT_EQ(plan.rows[1].option, "Bolt");
    EXPECT_EQ(plan.rows[1].condition, "Dry");
    plan.rows[1].option = "Something else"; // stands nowhere in the name: only this row
    relearn(plan, 1);
    EXPECT_EQ(plan.rows[0].option, "Pin");
}

/// A folder stands for the logs below it, and names what is only numbered in it.
TEST_F(Import, FoldersNameWhatIsNumbered) {
    QDir(dir.path()).mkpath("rig/gorse hook/dry");
    QDir(dir.path()).mkpath("rig/gorse hook/wet");
    int peak = 10;
    for (const char* name : {"dry/1.csv", "dry/2.csv", "wet/1.csv", "wet/photo.png"})
        file(QString("rig/gorse hook/%1").arg(name), log(80, ++peak));
    const auto plan = look({dir.filePath("rig")});
    ASSERT_EQ(plan.rows.size(), 3U);
    EXPECT_TRUE(plan.unread.isEmpty()) << "a picture is passed over";
    for (const auto& row : plan.rows)
        EXPECT_EQ(row.option, "Gorse hook");
    EXPECT_EQ(plan.rows[0].condition, "Dry");
    EXPECT_EQ(plan.rows[2].condition, "Wet");
    EXPECT_EQ(plan.rows[1].replicate, 2);
    EXPECT_EQ(look({dir.filePath("rig/gorse hook/dry/1.csv")}).rows[0].option, "Gorse hook");
}

TEST_F(Import, ColumnsOfProductAndConditionAreWhatTheySay) {
    QByteArray text = "Product,Condition,Time (s),Force (N),Travel (mm)\n";
    for (const char* what : {"Gorse hook,dry", "Gorse hook,wet", "Alder clip,dry"})
        for (int i = 0; i < 60; ++i)
            text += QByteArray(what) + "," + QByteArray::number(i * 0.1) + "," +
                    QByteArray::number(i < 50 ? i * 20 : 0) + "," + QByteArray::number(i * 0.05) + "\n";
    const auto plan = look({file("all_3.csv", text)});
    ASSERT_EQ(plan.rows.size(), 3U);
    EXPECT_EQ(plan.rows[1].option, "Gorse hook");
    EXPECT_EQ(plan.rows[1].condition, "Wet");
    EXPECT_EQ(plan.rows[2].option, "Alder clip");
}

/// What the program cut can be joined, what it kept whole can be split; not a sample is lost.
TEST_F(Import, RunsAreJoinedAndSplitByHand) {
    const auto rises = [](const char* pace) { // two rises of one piece, or of two
        QByteArray text = "Time (s),Force (N)\n";
        int row = 0;
        const auto add = [&](double f) {
            text += QByteArray::number(0.1 * row++) + "," + QByteArray::number(f) + "\n";
        };
        for (int rise = 0; rise < 2; ++rise) {
            for (int i = 0; i < 30; ++i)
                add(0.1 * (i % 2));
            for (int i = 0; i < 50; ++i)
                add(i * 20);
            for (int i = 50; i > 0 && *pace == 's'; --i)
                add(i * 20);
        }
        for (int i = 0; i < 30; ++i)
            add(0.1 * (i % 2));
        return text;
    };
    auto plan = look({file("gorse_cycles.csv", rises("slowly"))});
    ASSERT_EQ(plan.rows.size(), 1U) << "let down slowly: one piece";
    ASSERT_TRUE(splitAtRises(plan, 0));
    ASSERT_EQ(plan.rows.size(), 2U);
    EXPECT_EQ(plan.rows[0].curve.load.size() + plan.rows[1].curve.load.size(), 290U);
    EXPECT_EQ(plan.rows[1].replicate, 2);
    EXPECT_NE(plan.rows[0].digest, plan.rows[1].digest);
    joinWithAbove(plan, 1);
    ASSERT_EQ(plan.rows.size(), 1U);
    EXPECT_EQ(plan.rows[0].curve.load.size(), 290U);
    EXPECT_FALSE(splitAtRises(plan, 7)) << "no such row";
    auto two = look({file("gorse_two.csv", rises("at once")), file("alder.csv", log(80, 10))});
    ASSERT_EQ(two.rows.size(), 3U);
    joinWithAbove(two, 2);
    EXPECT_EQ(two.rows.size(), 3U) << "not across files";
    joinWithAbove(two, 1);
    ASSERT_EQ(two.rows.size(), 2U);
    EXPECT_EQ(two.rows[0].curve.load.size(), 190U);
    EXPECT_TRUE(std::is_sorted(two.rows[0].curve.time.begin(), two.rows[0].curve.time.end()));
    EXPECT_FALSE(splitAtRises(two, 1)) << "it rises only once";
}

TEST_F(Import, AMissingUnitIsAskedNotGuessed) {
    const auto path = file("pin.csv", log(80, 10, "Time,Force,Travel\n"));
    auto plan = look({path});
    EXPECT_TRUE(plan.open());
    EXPECT_FALSE(importRuns(p->file(), fresh(), plan));
    ImportChoices choices;
    choices.hints.forceUnit = &quantity::unit("kgf");
    EXPECT_TRUE(look({path}, choices).needsDisplacementUnit);
    choices.hints.displacementUnit = &quantity::unit("mm");
    plan = look({path}, choices);
    EXPECT_FALSE(plan.open());
    EXPECT_NEAR(plan.rows[0].reading->peak.load, 480 * 9.80665, 1e-6);
}

TEST_F(Import, CommasThatCanBeReadBothWaysAreAsked) {
    QByteArray text = "Time (s);Force (N)\n";
    for (int i = 0; i < 60; ++i)
        text +=
            QByteArray::number(i) + ";" + (i < 20 ? "1,001" : "1," + QByteArray::number(100 + 10 * i)) + "\n";
    const auto path = file("pin.csv", text);
    EXPECT_TRUE(look({path}).unsureDecimal);
    EXPECT_FALSE(importRuns(p->file(), fresh(), look({path})));
    ImportChoices choices;
    choices.hints.decimal = '.';
    const auto plan = look({path}, choices);
    EXPECT_FALSE(plan.open());
    EXPECT_EQ(plan.rows[0].curve.load[0], 1001);
}

/// Studies of every kind of load get their numbers from files that other tools wrote.
struct FromFiles : Import {
    /// Rows that rise over 5 s, are held for 5 s and let go; `cells` gives what stands behind the time.
    static QByteArray held(const char* head, const std::function<QString(double)>& cells) {
        QByteArray out = head;
        for (int i = 0; i < 300; ++i) {
            const double load = i < 40 ? 0 : i < 140 ? (i - 40) / 100.0 : i < 260 ? 1 : 0;
            out += (QString::number(i * 0.05, 'f', 2) + "," + cells(load) + "\n").toLatin1();
        }
        return out;
    }
    /// The number of a metric of the only pull of a study of this method, imported from one file.
    std::optional<double> number(const char* method, const char* metric, const QByteArray& bytes) {
        auto d = fresh();
        d.study.plan.method = method;
        ImportChoices choices;
        choices.hints.loadKind = *methods::find(method)->load;
        const auto plan = look({file("pin.csv", bytes)}, choices);
        EXPECT_TRUE(plan.unread.isEmpty()) << plan.unread.join("; ").toStdString();
        const auto done = importRuns(p->file(), d, plan);
        EXPECT_TRUE(done) << (done ? "" : done.error().message);
        if (!done || !p->adopt(done->journal, done->what)) return {};
        const auto& data = only();
        const auto& pull = data.pulls.at(0);
        const auto* reading = p->readings(data.study.id).find(pull.id);
        const auto value = results::valueOf(data, pull, reading, domain::metric(metric)).value;
        return value ? std::optional(value->value) : std::nullopt;
    }
};

TEST_F(FromFiles, ATwist) {
    EXPECT_NEAR(number("torque", "breakaway",
                       held("t (s),Angle (deg),Torque (lbf·in),Axial force (N)\n",
                            [](double f) {
                                return QStringLiteral("%1,%2,%3").arg(60 * f).arg(f * 100).arg(f * 9000);
                            }))
                    .value_or(0),
                100 * 4.4482216152605 * 0.0254, 1e-6)
        << "not the force beside it";
}

TEST_F(FromFiles, ADrop) {
    QByteArray text = "Time (ms),Acceleration (g),Temp (C)\n";
    for (int i = 0; i < 400; ++i) { // a half sine of 80 g0 over 10 ms
        const double a = i >= 100 && i < 200 ? 80 * std::sin((i - 100) * 3.14159265358979 / 100) : 0;
        text += QStringLiteral("%1,%2,21\n").arg(i * 0.1, 0, 'f', 1).arg(a, 0, 'f', 4).toLatin1();
    }
    EXPECT_NEAR(number("drop", "peak_deceleration", text).value_or(0), 80 * 9.80665, 0.5);
}

TEST_F(FromFiles, LegsOfALoad) {
    EXPECT_NEAR(
        number(
            "load-share", "greatest_share",
            held(
                "Time (s),Leg A (N),Leg B (N),Leg C (N),Master (N)\n",
                [](double f) {
                    return QStringLiteral("%1,%2,%3,%4").arg(500 * f).arg(300 * f).arg(200 * f).arg(1000 * f);
                }))
            .value_or(0),
        0.5, 1e-3);
}

TEST_F(FromFiles, AHaulingSystem) {
    EXPECT_NEAR(number("advantage", "advantage",
                       held("Time (s),Input (kgf),Output (N)\n",
                            [](double f) { return QStringLiteral("%1,%2").arg(20 * f).arg(540 * f); }))
                    .value_or(0),
                540 / (20 * 9.80665), 1e-3);
}

TEST_F(Import, ResultsFillThePlanBeforeNewPiecesAreMade) {
    const auto first = look({file("pin_dry_1.csv", log(80, 10)), file("bolt_dry_1.csv", log(85, 20))});
    auto done = importRuns(p->file(), fresh(), first);
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    auto data = only(); // three pieces of the pin wait, one of them with a label that a file names
    const auto planned = p->file().write("plan", [&](store::Writer& w) {
        for (int k = 2; k <= 4; ++k) {
            domain::Specimen s;
            s.study = data.study.id;
            s.option = data.options[0].id;
            s.condition = data.conditions[0].id;
            s.replicate = k;
            s.label = "A1-" + std::to_string(k);
            w.add(s);
        }
    });
    ASSERT_TRUE(planned && p->adopt(*planned, "plan"));
    auto plan = look({file("PIN_Dry_2.csv", log(80, 11)), file("a1-4.csv", log(80, 12)),
                      file("pin_dry_7.csv", log(80, 13)), file("pin_dry_8.csv", log(80, 14))});
    place(plan, only());
    std::map<QString, QString> pieces;
    for (const auto& row : plan.rows)
        pieces[row.file] = row.piece;
    EXPECT_EQ(pieces["PIN_Dry_2.csv"], "A1-2");
    EXPECT_EQ(pieces["a1-4.csv"], "A1-4");
    EXPECT_EQ(pieces["pin_dry_7.csv"], "A1-3") << "the next that waits";
    EXPECT_EQ(pieces["pin_dry_8.csv"], "") << "a new one";
    EXPECT_EQ(plan.filled(), 3);
    for (auto& row : plan.rows)
        if (row.file == "pin_dry_7.csv") row.isNew = true;
    place(plan, only());
    EXPECT_EQ(plan.filled(), 3) << "then the other has the one that waits";
}

TEST_F(Import, ToppedOutPullsComeInAsAtLeast) {
    ImportChoices choices;
    choices.rigLimit = 400;
    const auto plan = look({file("pin.csv", log(80, 10)), file("bolt.csv", log(60, 5))}, choices);
    const auto done = importRuns(p->file(), fresh(), plan);
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    const auto& readings = p->readings(only().study.id);
    const auto& pull = only().pulls[0];
    EXPECT_EQ(results::standingOf(only(), pull, readings.find(pull.id)), domain::Standing::atLeast);
    EXPECT_EQ(pull.standing, domain::Standing::counts)
        << "not frozen: another limit may turn out to be right";
    EXPECT_EQ(results::standingOf(only(), only().pulls[1], readings.find(only().pulls[1].id)),
              domain::Standing::counts);
}

TEST_F(Import, AFileThatSaysOverloadGivesABound) {
    QByteArray text = "Time (s),Force (kgf),Status\n";
    for (int i = 0; i < 200; ++i)
        text += QStringLiteral("%1,%2,%3\n")
                    .arg(i * 0.02, 0, 'f', 2)
                    .arg(i < 20    ? 0.1 * (i % 2)
                         : i < 180 ? i - 20.0
                                   : 0.1 * (i % 2),
                         0, 'f', 1)
                    .arg(i > 170 && i < 180 ? "OL" : "OK")
                    .toLatin1();
    const auto plan = look({file("Hook 1.csv", text)});
    ASSERT_EQ(plan.rows.size(), 1U);
    EXPECT_TRUE(plan.rows[0].isBound());
    EXPECT_FALSE(plan.rows[0].reading->offScale); // no flat top: only the file says so
    const auto done = importRuns(p->file(), fresh(), plan);
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    const auto& pull = only().pulls[0];
    EXPECT_EQ(pull.outcome.limit, domain::Limit::toppedOut);
    EXPECT_EQ(results::standingOf(only(), pull, p->readings(only().study.id).find(pull.id)),
              domain::Standing::atLeast);
}

TEST_F(Import, WhatCannotBeReadIsNamedAndTheRestGoesIn) {
    const auto plan =
        look({file("broken.csv", "nothing here\n"), dir.filePath("gone.csv"), file("pin.csv", log(80, 10)),
              file("flat.csv", "Time (s),Force (N)\n0,5\n1,5\n2,5\n3,5\n4,5\n5,5\n6,5\n")});
    ASSERT_EQ(plan.unread.size(), 2);
    EXPECT_EQ(plan.unread[0], "broken.csv: there are no rows of numbers in it.");
    EXPECT_TRUE(plan.unread[1].startsWith("gone.csv: "));
    ASSERT_EQ(plan.rows.size(), 2U);
    EXPECT_FALSE(plan.rows[1].include);
    EXPECT_TRUE(plan.rows[1].remark().contains("no pull in this log"));
    EXPECT_EQ(importRuns(p->file(), fresh(), plan)->pulls, 1);
    EXPECT_EQ(importRuns(p->file(), fresh(), ImportPlan{}).error().message, "There is no run to import.");
}

TEST_F(Import, TheEightDemoLogsComeOutAsTheSameRuns) {
    QStringList logs;
    for (const auto& f : QDir(DEMO_LOGS).entryInfoList(QDir::Files, QDir::Name))
        logs << f.absoluteFilePath();
    ASSERT_EQ(logs.size(), 8);
    const auto plan = look(logs);
    EXPECT_TRUE(plan.unread.isEmpty()) << plan.unread.join("\n").toStdString();
    EXPECT_FALSE(plan.open());
    std::map<QString, int> byOption;
    for (const auto& r : plan.rows) {
        ++byOption[r.option];
        EXPECT_EQ(r.condition, "Salt soaked") << r.file.toStdString();
        ASSERT_TRUE(r.reading) << r.file.toStdString();
        EXPECT_GT(r.reading->peak.load, 1500) << r.file.toStdString();
        EXPECT_LT(r.reading->peak.load, 5001) << r.file.toStdString();
    }
    EXPECT_EQ(byOption,
              (std::map<QString, int>{
                  {"Pressed sleeve", 2}, {"Saddle clamps", 3}, {"Tucked splice", 3}, {"Wedge socket", 4}}));
}

TEST_F(Import, AJobCanBeCancelledBetweenFiles) {
    const std::atomic<bool> stop{true};
    EXPECT_TRUE(lookAt({file("pin.csv", log(80, 10))}, {}, {}, {}, &stop).rows.empty());
}

TEST_F(Import, ATableGoesThroughTheLoadPathAsWhatIsTypedDoes) {
    rig::Setup lever;
    lever.name = "Long arm";
    lever.path = {{rig::RatioPart::Kind::lever, 1, 0.1, 0.002, 0.002, 0}};
    ASSERT_TRUE(project::saveRig(*p, lever));
    const auto table = tables::readValues("option,value,unit\nPin,42,lbf\nPin,44,lbf\n");
    ASSERT_TRUE(table);
    auto into = fresh();
    const auto refused = importValues(*p, into, *table, nullptr, "noted.csv");
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("Long arm"), std::string::npos) << refused.error().message;
    EXPECT_TRUE(p->studies().empty()) << "nothing half done";
    into.study.plan.readAt = "display";
    const auto done = importValues(*p, into, *table, nullptr, "noted.csv");
    ASSERT_TRUE(done) << done.error().message;
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    const auto& pull = only().pulls[0];
    ASSERT_TRUE(pull.outcome.path);
    EXPECT_NEAR(pull.outcome.path->factor, 10, 1e-12);
    EXPECT_GT(pull.outcome.path->doubt, 0.1) << "of the ratio";
    EXPECT_NEAR(results::valueOf(only(), pull, nullptr, domain::metric("peak")).value->value,
                420 * 4.4482216152605, 1e-6);
}

TEST_F(Import, ALogGoesThroughTheLoadPathOnceSomebodySaidWhereItWasRead) {
    rig::Setup lever;
    lever.name = "Long arm";
    lever.path = {{rig::RatioPart::Kind::lever, 1, 0.1, 0.002, 0.002, 3}};
    ASSERT_TRUE(project::saveRig(*p, lever));
    const QStringList files{file("pin_dry_1.csv", log(80, 10))};
    ImportChoices choices;
    choices.path = pathOf(*p, fresh());
    ASSERT_TRUE(choices.path);
    auto plan = look(files, choices);
    EXPECT_TRUE(plan.open());
    const auto refused = importRuns(p->file(), fresh(), plan);
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("Long arm"), std::string::npos) << refused.error().message;
    const double read = look(files).rows[0].reading->peak.load;
    choices.readAt = "display";
    plan = look(files, choices);
    ASSERT_TRUE(plan.rows[0].reading);
    EXPECT_NEAR(plan.rows[0].reading->peak.load, 10 * read + 30, 1e-6)
        << "the arm's own 3 N·m over 0.1 m too";
    const auto done = importRuns(p->file(), fresh(), plan);
    ASSERT_TRUE(done) << done.error().message;
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    const auto& pull = only().pulls[0];
    ASSERT_TRUE(pull.outcome.path);
    EXPECT_NEAR(pull.outcome.path->factor, 10, 1e-12);
    EXPECT_EQ(pull.setup, choices.path->setup) << "the rig as it was set up goes with it";
    EXPECT_EQ(only().study.plan.readAt, "display") << "asked once";
    choices.readAt = "piece";
    EXPECT_NEAR(look(files, choices).rows[0].reading->peak.load, read, 1e-9);
}

TEST_F(Import, ALogInBarGoesThroughTheRamAndNowhereElse) {
    const QStringList files{file("pin_dry_1.csv", log(80, 10, "Time (s),Pressure (bar),Travel (mm)\n"))};
    EXPECT_TRUE(look(files).rows.empty()) << "no column looks like a force";
    ImportChoices told;
    told.hints.load = "pressure (bar)"; // as it stands in the file, or its name alone
    const auto alone = look(files, told);
    ASSERT_EQ(alone.rows.size(), 1U);
    EXPECT_FALSE(alone.rows[0].include) << "bars are no newtons";
    EXPECT_NE(alone.rows[0].error.find("pressure"), std::string::npos) << alone.rows[0].error;
    rig::Setup press;
    press.name = "Press";
    press.shows = quantity::Dimension::stress;
    press.path = {{rig::RatioPart::Kind::ram, 10e-4, 0, 0, 0, 0}};
    ASSERT_TRUE(project::saveRig(*p, press));
    ImportChoices choices;
    choices.path = pathOf(*p, fresh());
    choices.readAt = "display";
    const auto plan = look(files, choices);
    ASSERT_EQ(plan.rows.size(), 1U);
    ASSERT_TRUE(plan.rows[0].reading) << plan.rows[0].error;
    // The greatest of the log: 10 · (68 − 20) bar.
    EXPECT_NEAR(plan.rows[0].reading->peak.load, 480e5 * 10e-4, 1e-6);
    EXPECT_EQ(plan.rows[0].curve.loadKind, quantity::Dimension::force);
}

TEST_F(Import, TablesOfSingleNumbers) {
    const auto table = tables::readValues(
        "option,condition,value,unit,state\nPin,Dry,4.2,kN,\nPin,Dry,4.4,kN,above\nBolt,Dry,900,lbf,\n");
    ASSERT_TRUE(table);
    const auto done = importValues(*p, fresh(), *table, nullptr, "noted.csv");
    ASSERT_TRUE(done) << done.error().message;
    ASSERT_TRUE(p->adopt(done->journal, done->what));
    EXPECT_EQ(done->pulls, 3);
    EXPECT_NEAR(only().pulls[0].typed->value, 4200, 1e-9);
    EXPECT_EQ(only().pulls[1].standing, domain::Standing::atLeast);
    EXPECT_NEAR(only().pulls[2].typed->value, 900 * 4.4482216152605, 1e-6);
    const auto bare = tables::readValues("option,value\nPin,4.2\n");
    EXPECT_EQ(importValues(*p, only(), *bare, nullptr, "x").error().message,
              "The table names no unit: choose one first.");
    const auto lengths = tables::readValues("option,value,unit\nPin,4.2,mm\n");
    EXPECT_NE(importValues(*p, only(), *lengths, nullptr, "x").error().message.find("measure length"),
              std::string::npos);
}

TEST(Folders, AreGoneThroughWithinBounds) {
    QTemporaryDir dir;
    const auto touch = [&](const QString& name) {
        QFile file(dir.filePath(name));
        EXPECT_TRUE(file.open(QIODevice::WriteOnly));
        file.write("1\n");
    };
    ASSERT_TRUE(QDir(dir.path()).mkpath("logs/deep"));
    touch("logs/b.csv");
    touch("logs/deep/a.txt");
    touch("logs/picture.png");
    ASSERT_TRUE(QFile::link(dir.filePath("logs"), dir.filePath("logs/deep/again"))); // round in a circle
    const auto all = filesIn({dir.filePath("logs")});
    ASSERT_TRUE(all);
    EXPECT_EQ(*all, (QStringList{dir.filePath("logs/b.csv"), dir.filePath("logs/deep/a.txt")}));
    const std::atomic<bool> stop = true;
    EXPECT_FALSE(filesIn({dir.filePath("logs")}, &stop));
    ASSERT_TRUE(QDir(dir.path()).mkpath("bare/nothing/in/here"));
    EXPECT_FALSE(filesIn({dir.filePath("bare")}, &stop)) << "also where there are only folders";
    EXPECT_EQ(filesIn({dir.filePath("bare")}), QStringList{});
    QFile large(dir.filePath("logs/large.csv"));
    ASSERT_TRUE(large.open(QIODevice::WriteOnly) && large.resize(mostBytesOfFolder)); // takes no room
    const auto heavy = filesIn({dir.filePath("logs")});
    ASSERT_FALSE(heavy);
    EXPECT_NE(heavy.error().message.find("import it in parts"), std::string::npos);
    large.remove();
    for (int i = 0; i <= mostFilesOfFolder; ++i)
        touch(QString("logs/deep/%1.csv").arg(i));
    const auto many = lookAt({dir.filePath("logs")}, {}, {});
    EXPECT_TRUE(many.rows.empty() && many.files.empty());
    ASSERT_EQ(many.unread.size(), 1);
    EXPECT_TRUE(many.unread.first().contains("import it in parts"));
}

} // namespace
