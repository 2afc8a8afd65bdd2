// The command line as a script sees it: keys, values, exit status, one line on stderr.
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <cmath>
#include <gtest/gtest.h>
#include <map>

namespace {

struct Result {
    int status = -1;
    QByteArray out, err;
    QJsonObject json() const { return QJsonDocument::fromJson(out).object(); }
};

struct Cli : testing::Test {
    QTemporaryDir dir;

    Result run(QStringList arguments, bool json = true) {
        if (json) arguments << "--json";
        QProcess p;
        p.setWorkingDirectory(dir.path());
        p.start(ANVIL_CLI, arguments);
        EXPECT_TRUE(p.waitForFinished(60000));
        return {p.exitCode(), p.readAllStandardOutput(), p.readAllStandardError()};
    }
    QString file(const QString& name, const QByteArray& bytes) {
        QFile f(dir.filePath(name));
        EXPECT_TRUE(f.open(QIODevice::WriteOnly));
        f.write(bytes);
        return f.fileName();
    }
    void expectFails(int status, const QStringList& arguments, const char* says) {
        const auto r = run(arguments);
        EXPECT_EQ(r.status, status) << arguments.join(' ').toStdString();
        EXPECT_TRUE(r.out.isEmpty()) << r.out.toStdString();
        EXPECT_EQ(r.err.count('\n'), 1) << r.err.toStdString();
        EXPECT_TRUE(r.err.contains(says)) << r.err.toStdString();
    }
};

/// Fails when an object has not exactly these keys.
void expectKeys(const QJsonObject& o, const char* keys) {
    auto want = QString::fromUtf8(keys).split(' ');
    auto got = o.keys();
    want.sort();
    got.sort();
    EXPECT_EQ(got.join(' ').toStdString(), want.join(' ').toStdString());
}

TEST_F(Cli, TheManualPageTellsEveryCommandThatHelpTells) {
    const auto help = run({"--help"}, false), man = run({"--man"}, false);
    EXPECT_EQ(help.status, 0);
    EXPECT_EQ(man.status, 0);
    EXPECT_TRUE(man.out.startsWith(".TH anvil 1")) << man.out.left(80).toStdString();
    const auto commands = QString::fromUtf8(help.out).section("Subcommands:", 1).split('\n');
    int told = 0;
    for (const auto& line : commands) {
        const auto name = line.simplified().section(' ', 0, 0);
        if (!line.startsWith("  ") || line.startsWith("   ") || name.isEmpty()) continue;
        EXPECT_TRUE(man.out.contains(".SS " + QString(name).replace("-", "\\-").toUtf8()))
            << name.toStdString();
        ++told;
    }
    EXPECT_GE(told, 10);
    EXPECT_TRUE(man.out.contains("anvil \\- Finds out which option is strongest")) << "for lists of pages";
    const QRegularExpression request("^\\.(TH|SH|SS|TP|B|I)\\b"); // nothing in a description is taken for one
    for (const auto& line : man.out.split('\n')) {
        if (!line.startsWith('.')) continue;
        EXPECT_TRUE(request.match(line).hasMatch()) << line.toStdString();
    }
}

TEST_F(Cli, Convert) {
    const auto r = run({"convert", "3 1/4 in", "mm"});
    EXPECT_EQ(r.status, 0);
    EXPECT_EQ(r.out,
              "{\"value\":82.55,\"upper\":null,\"doubt\":\"exact\",\"uncertainty\":null,\"unit\":\"mm\"}\n");
    EXPECT_EQ(run({"convert", "5 ft 3 1/2 in", "m"}).json()["value"].toDouble(), 1.6129);
    EXPECT_EQ(run({"convert", "48,3 kg", "N"}).json()["value"].toDouble(), 473.661195);
    EXPECT_EQ(run({"convert", "1 lbf", "N"}).json()["value"].toDouble(), 4.4482216152605);
    EXPECT_EQ(run({"convert", "20 °C", "°F"}).json()["value"].toDouble(), 68);
    const auto expectDoubt = [this](const char* text, const char* unit, const char* doubt, double value,
                                    QJsonValue upper, QJsonValue uncertainty) {
        const auto j = run({"convert", text, unit}).json();
        EXPECT_EQ(j.keys().join(' ').toStdString(), "doubt uncertainty unit upper value") << text;
        EXPECT_EQ(j["doubt"].toString().toStdString(), doubt) << text;
        EXPECT_EQ(j["value"].toDouble(), value) << text;
        EXPECT_EQ(j["upper"], upper) << text;
        EXPECT_EQ(j["uncertainty"], uncertainty) << text;
    };
    expectDoubt("12 N", "N", "exact", 12, {}, {});
    expectDoubt(">9 kN", "N", "above", 9000, {}, {});
    expectDoubt("<2 N", "N", "below", 2, {}, {});
    expectDoubt("4…5 kN", "N", "between", 4000, 5000, {});
    expectDoubt("~12 N", "N", "about", 12, {}, {});
    expectDoubt("12 ± 1 kN", "N", "exact", 12000, {}, 1000);
    expectDoubt("12 kN ± 5 %", "N", "exact", 12000, {}, 600);
    expectDoubt("10 lbf", "lb", "exact", 10, {}, {});
    EXPECT_EQ(run({"convert", "4…5 kN", "N"}, false).out, "4000…5000 N\n");
    EXPECT_EQ(run({"convert", ">9 kN", "N"}, false).out, ">9000 N\n");
    expectFails(3, {"convert", "12 mm", "N"}, "measures length");
    expectFails(3, {"convert", "12 mm", "zork"}, "not a unit known here");
    expectFails(3, {"convert", "1,250 N", "N"}, "1.25 or 1250?");
    expectFails(2, {"convert", "12 mm"}, "UNIT");
    expectFails(2, {"frobnicate"}, "");
    expectFails(2, {}, "");
}

TEST_F(Cli, ReadHasEveryKeyAndTheRightNumbers) {
    QByteArray log =
        "Time (s),Force (N),Travel (mm)\n"; // 1 mm of slack, 500 N/mm to 2000 N, down to 200 N within 0.1 mm
    for (int i = 0; i <= 900; ++i) {
        const double t = i * 0.01, x = std::max(0.0, t - 1);
        const double f = x < 1 ? 0 : x < 5 ? 500 * (x - 1) : x < 5.1 ? 2000 - 18000 * (x - 5) : 200;
        log += QByteArray::number(t, 'f', 2) + "," + QByteArray::number(f, 'f', 6) + "," +
               QByteArray::number(x, 'f', 6) + "\n";
    }
    const auto r = run({"read", file("log.csv", log)});
    ASSERT_EQ(r.status, 0) << r.err.toStdString();
    const auto o = r.json();
    expectKeys(o,
               "samples dropped spikes baseline_N noise_N off_scale peak first_slip break stiffness toe_mm "
               "slack_mm energy_to_first_slip_J energy_to_peak_J energy_to_break_J residual fall warnings");
    expectKeys(o["peak"].toObject(), "force_N time_s displacement_mm");
    expectKeys(o["stiffness"].toObject(), "value_N_per_mm se r2 from_N to_N");
    expectKeys(o["fall"].toObject(), "ratio word");
    EXPECT_EQ(o["samples"].toInt(), 901);
    EXPECT_TRUE(o["first_slip"].isNull());
    EXPECT_TRUE(o["residual"].isNull());
    EXPECT_FALSE(o["off_scale"].toBool());
    EXPECT_NEAR(o["peak"].toObject()["force_N"].toDouble(), 2000, 1e-6);
    EXPECT_NEAR(o["peak"].toObject()["displacement_mm"].toDouble(), 4, 1e-6);
    EXPECT_NEAR(o["stiffness"].toObject()["value_N_per_mm"].toDouble(), 500, 1e-4);
    EXPECT_NEAR(o["toe_mm"].toDouble(), 1, 1e-6);
    EXPECT_NEAR(o["slack_mm"].toDouble(), 1, 1e-6);
    EXPECT_NEAR(o["energy_to_peak_J"].toDouble(), 4, 1e-3);
    EXPECT_TRUE(run({"read", dir.filePath("log.csv"), "--rig-limit", "2 kN"}).json()["off_scale"].toBool());
    expectFails(3, {"read", dir.filePath("log.csv"), "--rig-limit", "0 N"}, "zero or less");
    expectFails(3, {"read", dir.filePath("none.csv")}, "no such file");
    expectFails(3, {"read", file("empty.csv", "")}, "the file is empty");
    expectFails(3, {"read", dir.filePath("log.csv"), "--force", "Humidity"}, "there is no column");
    expectFails(3, {"read", dir.filePath("log.csv"), "--force-unit", "mm"}, "force is wanted");
}

TEST_F(Cli, ReadWithoutUnitsAssumesAndWarns) {
    QByteArray log;
    for (int i = 0; i < 100; ++i)
        log += QByteArray::number(i) + "," + QByteArray::number(i < 20 ? 0 : (i - 20) * 10) + "\n";
    const auto o = run({"read", file("bare.csv", log)}).json();
    EXPECT_NEAR(o["peak"].toObject()["force_N"].toDouble(), 790, 1e-9);
    EXPECT_TRUE(o["peak"].toObject()["displacement_mm"].isNull());
    for (const char* key : {"stiffness", "toe_mm", "slack_mm", "energy_to_peak_J", "break", "fall"})
        EXPECT_TRUE(o[key].isNull()) << key;
    EXPECT_EQ(o["warnings"].toArray()[0].toString(), "The file names no force unit: newtons are assumed.");
    const auto kg = run({"read", dir.filePath("bare.csv"), "--force-unit", "kg"}).json();
    EXPECT_NEAR(kg["peak"].toObject()["force_N"].toDouble(), 790 * 9.80665, 1e-6);
}

TEST_F(Cli, StatsHasEveryKeyAndHandWorkedNumbers) {
    const auto path =
        file("v.csv",
             "option,value,condition,state,unit\nA,20,dry,,kN\nA,22,dry,,kN\nA,24,dry,,kN\nB,14,dry,,kN\nB,"
             "18,dry,,kN\nB,16,dry,,kN\nB,20,dry,,kN\nB,99,dry,aside,kN\nC,9000,dry,above,N\nC,8,dry,,kN\n");
    const auto r = run({"stats", path, "--margin", "10"});
    ASSERT_EQ(r.status, 0) << r.err.toStdString();
    const auto o = r.json();
    expectKeys(o, "unit groups comparisons columns_not_used");
    EXPECT_EQ(o["unit"].toString(), "kN");
    const auto a = o["groups"].toArray()[0].toObject(), b = o["groups"].toArray()[1].toObject(),
               c = o["groups"].toArray()[2].toObject();
    expectKeys(a, "option condition n n_above n_below n_between n_aside mean mean_basis sd cv_percent median "
                  "min max mean_ci95 drop_high_low_mean floors fits outliers");
    expectKeys(a["floors"].toObject(),
               "lowest mean_minus_3sd normal_90_95 normal_95_95 normal_99_95 lognormal_90_95 weibull_90_95");
    expectKeys(a["fits"].toObject(), "normal lognormal weibull");
    EXPECT_DOUBLE_EQ(a["mean"].toDouble(), 22);
    EXPECT_DOUBLE_EQ(a["sd"].toDouble(), 2);
    EXPECT_NEAR(a["cv_percent"].toDouble(), 100.0 / 11, 1e-9);
    EXPECT_NEAR(a["mean_ci95"].toArray()[0].toDouble(), 22 - 4.30265273 * 2 / std::sqrt(3.0), 1e-7);
    EXPECT_TRUE(a["drop_high_low_mean"].isNull());
    EXPECT_DOUBLE_EQ(a["floors"].toObject()["mean_minus_3sd"].toDouble(), 16);
    EXPECT_NEAR(a["floors"].toObject()["normal_90_95"].toDouble(), 22 - 6.155 * 2, 1e-3) << "k(3; 90/95)";
    expectKeys(a["fits"].toObject()["normal"].toObject(), "mu sigma loglik");
    EXPECT_NEAR(a["fits"].toObject()["normal"].toObject()["sigma"].toDouble(), std::sqrt(8.0 / 3), 1e-9);
    expectKeys(a["fits"].toObject()["weibull"].toObject(), "shape scale loglik shape_ci95 scale_ci95");
    EXPECT_TRUE(a["outliers"].isArray());
    EXPECT_EQ(b["n"].toInt(), 4);
    EXPECT_EQ(b["n_aside"].toInt(), 1);
    EXPECT_DOUBLE_EQ(b["mean"].toDouble(), 17);
    EXPECT_DOUBLE_EQ(b["drop_high_low_mean"].toDouble(), 17);
    EXPECT_EQ(c["n_above"].toInt(), 1);
    EXPECT_EQ(c["mean_basis"].toString(), "lognormal");
    EXPECT_GT(c["mean"].toDouble(), 8.5) << "9000 N beside kN is 9 kN, and may be more";
    EXPECT_LT(c["mean"].toDouble(), 9.5);
    EXPECT_TRUE(c["mean_ci95"].isNull()) << "one exact value bounds nothing";
    EXPECT_TRUE(c["drop_high_low_mean"].isNull());
    EXPECT_DOUBLE_EQ(c["median"].toDouble(), 8) << "half are left beyond it";
    const auto ab = o["comparisons"].toArray()[0].toObject(), ac = o["comparisons"].toArray()[1].toObject();
    expectKeys(
        ab,
        "a b condition test ratio ratio_ci95 t df p p_holm p_pooled mann_whitney_p tost_p verdict more_each");
    EXPECT_EQ(ab["a"].toString() + ab["b"].toString(), "AB");
    EXPECT_NEAR(ab["t"].toDouble(), 5 / std::sqrt(3.0), 1e-9);
    EXPECT_NEAR(ab["df"].toDouble(), 243.0 / 49, 1e-9);
    EXPECT_NEAR(ab["p"].toDouble(), ab["p_holm"].toDouble(), 1e-15) << "the only tested pair of its family";
    EXPECT_EQ(ab["verdict"].toString(), "stronger");
    EXPECT_EQ(ac["verdict"].toString(), "stronger");
    EXPECT_EQ(ac["test"].toString(), "censored");
    EXPECT_TRUE(ac["t"].isNull() && ac["df"].isNull() && ac["mann_whitney_p"].isNull());
    EXPECT_GT(ac["ratio_ci95"].toArray()[0].toDouble(), 1);
    EXPECT_EQ(o["comparisons"].toArray().size(), 3);
}

TEST_F(Cli, StatsBadInput) {
    expectFails(3, {"stats", file("mixed.csv", "option,value,unit\nA,1,kN\nA,2,mm\n")},
                "one cannot become the other");
    expectFails(3, {"stats", file("no.csv", "hello\n")}, "no columns");
    expectFails(3, {"stats", file("ok.csv", "option,value\nA,1\n"), "--margin", "0"}, "more than 0 %");
    expectFails(2, {"stats", dir.filePath("ok.csv"), "--margin", "lots"}, "");
    const auto o = run({"stats", dir.filePath("ok.csv")}).json();
    EXPECT_TRUE(o["unit"].isNull());
    EXPECT_TRUE(o["groups"].toArray()[0].toObject()["condition"].isNull());
}

TEST_F(Cli, StatsComparesConditionsOfOneOptionToo) {
    const auto o =
        run({"stats", file("c.csv", "option,value,condition\nA,10,dry\nA,11,dry\nA,5,wet\nA,6,wet\n")})
            .json();
    ASSERT_EQ(o["comparisons"].toArray().size(), 1);
    const auto c = o["comparisons"].toArray()[0].toObject();
    EXPECT_EQ(c["a"].toString(), "dry");
    EXPECT_EQ(c["b"].toString(), "wet");
    EXPECT_TRUE(c["condition"].isNull());
    EXPECT_EQ(c["option"].toString(), "A");
}

TEST_F(Cli, WordsForPeopleNameUnitsAndSayHowSure) {
    const auto path =
        file("p.csv", "option,value,condition,state,upper,unit\nPin,20,dry,,,kN\nPin,22,dry,,,kN\n"
                      "Pin,24,dry,,,kN\nBolt,4,dry,between,5,kN\nBolt,6,dry,below,,kN\n"
                      "Hook,2000,dry,above,,N\nClip,21,dry,,,kN\nClip,23,dry,,,kN\nClip,25,dry,,,kN\n");
    auto text = QString::fromUtf8(run({"stats", path}, false).out);
    const auto line = [&](const QString& begin) {
        const auto lines = text.split('\n').filter(QRegularExpression("^" + begin + " "));
        EXPECT_FALSE(lines.empty()) << begin.toStdString() << " in:\n" << text.toStdString();
        return lines.empty() ? QString() : lines.front().simplified();
    };
    EXPECT_EQ(line("Pin"), "Pin dry 3 22.00 kN 17.03 to 26.97 kN 2.000 kN 9.1 % 20.00 kN");
    EXPECT_EQ(line("Bolt"), "Bolt dry 2 – – – – 4.000 kN") << "what has no mean is at least nothing";
    EXPECT_EQ(line("Hook"), "Hook dry 1 at least 2.000 kN – – – 2.000 kN") << "one unit for the table";
    EXPECT_TRUE(text.contains("Pin is stronger than Bolt in dry: 3.99 times")) << text.toStdString();
    EXPECT_TRUE(
        text.contains("Pin against Hook in dry: not enough pulls (3 and 1; two of each is the least)."));
    EXPECT_TRUE(text.contains(
        "Pin against Clip in dry is too close to call: 4.3 % less (95 % interval over all pairs "))
        << text.toStdString();
    EXPECT_FALSE(text.contains('_')) << "no code word of the JSON";
    text = QString::fromUtf8(run({"rank", path}, false).out);
    EXPECT_TRUE(line("1").startsWith("1 Clip dry about 22.94 kN ")) << line("1").toStdString();
    EXPECT_TRUE(line("1").endsWith(" % a"));
    EXPECT_TRUE(line("2").startsWith("2 Pin dry about 21.94 kN ")) << "geometric, as bounds stand beside";
    EXPECT_EQ(line("3"), "3 Bolt dry at most 5.500 kN 0.0 %") << "a letter that nobody shares ties nothing";
    EXPECT_EQ(line("4"), "4 Hook dry at least 2.000 kN 0.0 %");
    text = QString::fromUtf8(
        run({"rank", file("m.csv", "option,value,state\nPin,20,\nPin,22,\nBolt,4,below\n")}, false).out);
    EXPECT_TRUE(text.contains("Bolt cannot be ranked: its values say only \"at most\"."))
        << text.toStdString();
    EXPECT_EQ(run({"convert", "3 1/4 in", "mm"}, false).out, "82.55 mm\n");
    text = QString::fromUtf8(run({"read", QString(DEMO_LOGS) + "/wedge-socket_salt-soaked.csv"}, false).out);
    EXPECT_TRUE(line("Peak").endsWith(" N"));
    EXPECT_TRUE(line("Stiffness").endsWith(" N/mm"));
    EXPECT_TRUE(line("Energy to peak").endsWith(" J"));
    EXPECT_TRUE(text.contains("The file holds 3 runs: run 1 is read, --run N chooses another."));
    EXPECT_EQ(run({"replicates", "--cv", "12", "--difference", "15"}, false).out, "12 of each\n");
}

TEST_F(Cli, BetweenAndAtMostKeepTheirState) {
    const auto o = run({"stats", file("b.csv", "option,value,upper,state,unit\nA,4,5,between,kN\nA,4500,,,N\n"
                                               "B,6,,below,kN\nB,5,,,kN\n")})
                       .json();
    const auto a = o["groups"].toArray()[0].toObject(), b = o["groups"].toArray()[1].toObject();
    EXPECT_EQ(a["n_between"].toInt(), 1);
    EXPECT_EQ(a["mean_basis"].toString(), "bound");
    EXPECT_NEAR(a["mean"].toDouble(), 4.25, 1e-12)
        << "a bracketed value is counted at what it is known to have held";
    EXPECT_NEAR(a["min"].toDouble(), 4, 1e-12);
    EXPECT_NEAR(a["max"].toDouble(), 5, 1e-12) << "the greatest recorded, a bound or not";
    EXPECT_EQ(b["n_below"].toInt(), 1);
    EXPECT_TRUE(b["mean"].isNull() && b["mean_basis"].isNull() && b["sd"].isNull());
    EXPECT_NEAR(b["floors"].toObject()["lowest"].toDouble(), 5, 1e-12);
    EXPECT_EQ(o["comparisons"].toArray()[0].toObject()["verdict"].toString(), "too_close");
    expectFails(3, {"stats", file("u.csv", "option,value,upper,state,unit\nA,4,3,between,kN\n")},
                "cannot be the upper bound of 4");
    expectFails(3, {"rank", dir.filePath("none.csv")}, "no such file");
}

TEST_F(Cli, VerdictTellsAllOfTheContract) {
    const auto demo = dir.filePath("demo.anvil");
    ASSERT_EQ(QProcess::execute(ANVIL_DEMO, {"--to", demo}), 0);
    const auto o = run({"verdict", demo}).json();
    expectKeys(o,
               "study method metric unit sense groups comparisons ranking headlines cautions next needs odd "
               "trend treatment score spread");
    EXPECT_EQ(o["unit"].toString(), "N");
    const auto g = o["groups"].toArray()[0].toObject();
    EXPECT_EQ(g["mean_basis"].toString(), "lognormal") << "two of its pulls topped out";
    EXPECT_EQ(g["rank"].toInt(), 1);
    expectKeys(o["ranking"].toArray()[0].toObject(),
               "option condition p_best expected_rank rank90 letters at_least");
    EXPECT_GT(o["ranking"].toArray()[0].toObject()["p_best"].toDouble(), 0.9);
    expectKeys(o["needs"].toArray()[0].toObject(), "option condition need verdict p_next");
    expectKeys(o["next"].toArray()[0].toObject(), "action sentence");
    EXPECT_EQ(o["next"].toArray()[0].toObject()["action"].toString(), "more_reach");
    expectKeys(o["odd"].toArray()[0].toObject(), "specimen sentence");
    expectKeys(o["treatment"].toObject(), "control treated ratio ratio_ci95 p interaction_p squares");
    EXPECT_LT(o["treatment"].toObject()["ratio"].toDouble(), 1) << "salt weakens";
    EXPECT_TRUE(o["trend"].isNull());
    EXPECT_GE(o["cautions"].toArray().size(), 1);
    EXPECT_TRUE(o["headlines"].toArray()[0].toString().contains("The chance that it is the best is"));
    const auto svg = dir.filePath("page.svg");
    EXPECT_EQ(run({"verdict", demo, "--to", svg}, false).status, 0);
    EXPECT_TRUE(QFile::exists(svg));
    EXPECT_EQ(run({"verdict", demo, "--to", dir.filePath("page.png")}, false).status, 0);
    expectFails(3, {"verdict", demo, "--to", dir.filePath("page.gif")}, ".png or .svg");
    expectFails(3, {"verdict", demo, "--study", "Nobody's"}, "no study called");
    expectFails(3, {"verdict", demo, "--metric", "sagging"}, "no metric with the key");
    expectFails(3, {"verdict", dir.filePath("none.anvil")}, "");
}

TEST_F(Cli, RankIsDrawn) {
    const auto r = run({"rank",
                        file("r.csv", "option,value,condition,state\nA,10,wet,\nA,11,wet,\nB,20,wet,\nB,21,"
                                      "wet,above\nA,3,dry,\nB,2,dry,\n"),
                        "--seed", "4", "--draws", "1000"});
    ASSERT_EQ(r.status, 0) << r.err.toStdString();
    const auto o = r.json();
    expectKeys(o, "ranking spread");
    const auto rows = o["ranking"].toArray();
    ASSERT_EQ(rows.size(), 4);
    expectKeys(rows[0].toObject(), "option condition p_best expected_rank rank90 letters at_least");
    QString order;
    for (const auto& row : rows)
        order += row.toObject()["condition"].toString() + row.toObject()["option"].toString() + " ";
    EXPECT_EQ(order, "dryA dryB wetB wetA ");
    EXPECT_TRUE(rows[0].toObject()["p_best"].isNull()) << "one of each: no spread can be told";
    EXPECT_GT(rows[2].toObject()["p_best"].toDouble(), 0.9);
    EXPECT_NEAR(rows[2].toObject()["p_best"].toDouble() + rows[3].toObject()["p_best"].toDouble(), 1, 1e-12);
    EXPECT_EQ(rows[2].toObject()["rank90"].toArray().size(), 2);
    EXPECT_FALSE(rows[2].toObject()["at_least"].toBool()) << "one of its values is exact";
    EXPECT_EQ(o["spread"], "pooled");
    EXPECT_EQ(run({"rank", dir.filePath("r.csv"), "--seed", "4", "--draws", "1000"}).out, r.out);
    expectFails(3, {"rank", dir.filePath("r.csv"), "--draws", "3"}, "between 100 and");
}

TEST_F(Cli, SimulateWritesTheRunAndItsTruth) {
    for (const char* model : {"pull-out", "brittle-bond", "wire-rope", "yielding-metal", "smooth-friction",
                              "plastic", "cracking-sheet", "slipping-grip"}) {
        const auto r = run({"simulate", model, "--seed", "7", "--to", dir.filePath("s.csv"), "--truth",
                            dir.filePath("t.json")});
        ASSERT_EQ(r.status, 0) << r.err.toStdString();
        QFile truth(dir.filePath("t.json"));
        ASSERT_TRUE(truth.open(QIODevice::ReadOnly));
        const auto t = QJsonDocument::fromJson(truth.readAll()).object();
        const auto read = run({"read", dir.filePath("s.csv")}).json();
        EXPECT_NEAR(read["peak"].toObject()["force_N"].toDouble() / t["peak_N"].toDouble(), 1, 0.01) << model;
        EXPECT_NEAR(read["stiffness"].toObject()["value_N_per_mm"].toDouble() /
                        t["stiffness_N_per_mm"].toDouble(),
                    1, 0.03)
            << model;
    }
    expectFails(3, {"simulate", "jelly", "--seed", "1", "--to", dir.filePath("x.csv")},
                "is no specimen model");
    expectFails(3, {"simulate", "pull-out", "--seed", "1", "--to", "/no/such/x.csv"}, "cannot be written");
    expectFails(2, {"simulate", "pull-out", "--to", dir.filePath("x.csv")}, "--seed");
}

TEST_F(Cli, ImportCheckReport) {
    const auto project = dir.filePath("p.anvil");
    auto r = run({"import", project, QString(DEMO_LOGS) + "/wedge-socket_salt-soaked.csv",
                  QString(DEMO_LOGS) + "/saddle-clamps_salt-soaked_1.tsv", "--rig-limit", "5 kN"});
    ASSERT_EQ(r.status, 0) << r.err.toStdString();
    EXPECT_EQ(r.json()["imported"].toInt(), 4);
    r = run({"import", project, QString(DEMO_LOGS) + "/wedge-socket_salt-soaked.csv"});
    EXPECT_EQ(r.status, 0);
    EXPECT_EQ(r.json()["imported"].toInt(), 0);
    EXPECT_EQ(r.json()["repeats"].toInt(), 3);
    r = run({"check", project});
    EXPECT_EQ(r.status, 0) << r.err.toStdString();
    r = run({"import", project,
             file("noted.csv", "option,condition,value,unit,state\nPin,Plain,4.2,kN,above\n"), "--values"});
    EXPECT_EQ(r.json()["imported"].toInt(), 1) << r.err.toStdString();
    for (const char* name : {"r.html", "r.pdf", "r.txt"}) {
        r = run({"report", project, "--to", dir.filePath(name), "--force-unit", "kgf"});
        EXPECT_EQ(r.status, 0) << r.err.toStdString();
        EXPECT_GT(QFileInfo(dir.filePath(name)).size(), 2000);
    }
    expectFails(3, {"report", project, "--to", dir.filePath("r.docx")}, ".html, .pdf or .txt");
    expectFails(3, {"report", project, "--to", dir.filePath("r.pdf"), "--study", "Nope"}, "no study called");
    expectFails(3, {"check", dir.filePath("none.anvil")}, "There is no file");
    expectFails(3, {"import", project, file("bad.csv", "nothing\n")},
                "bad.csv: there are no rows of numbers in it.");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("none.anvil")));
    expectFails(3, {"import", dir.filePath("fresh.anvil"), dir.filePath("bad.csv")}, "no rows of numbers");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("fresh.anvil")))
        << "a failed import leaves no empty project behind";
}

/// The keys are fixed: scripts use them.
TEST_F(Cli, MethodsHaveTheirKeys) {
    const auto all = run({"methods"});
    EXPECT_EQ(all.status, 0);
    expectKeys(all.json(), "methods");
    const std::map<QString, const char*> metrics{
        {"axial-pull", "peak first_slip stiffness energy residual peak_per_length"},
        {"tension-coupon", "peak strength yield_strength modulus elongation"},
        {"compression", "peak strength"},
        {"pin-shear", "peak shear_strength"},
        {"lap-shear", "peak shear_strength"},
        {"three-point-bend", "peak bending_strength bending_modulus strain_at_peak short_beam_shear"},
        {"lever-bend", "moment bending_stress"},
        {"sag", "sag stiffness bending_stiffness permanent_set"},
        {"torsion", "peak_torque shear_stress greatest_angle"},
        {"torque", "breakaway running"},
        {"hammer", "energy energy_per_area"},
        {"drop", "peak_deceleration severity pulse_width velocity_change energy"},
        {"creep", "creep rate_per_decade recovery permanent_set time_to_limit"},
        {"attempts", "success_rate"},
        {"load-share", "unevenness greatest_share residual"},
        {"advantage", "advantage efficiency"},
        {"holding", "holding creeping holding_per_weight"},
        {"step-ladder", "holding"},
        {"by-eye", "rating"}};
    const auto methods = all.json()["methods"].toArray();
    ASSERT_EQ(static_cast<std::size_t>(methods.size()), metrics.size());
    for (const auto& v : methods) {
        const auto m = v.toObject();
        expectKeys(m, "key title inputs metrics");
        QStringList keys;
        for (const auto& x : m["metrics"].toArray()) {
            expectKeys(x.toObject(), "key title dimension unit sense");
            keys << x.toObject()["key"].toString();
        }
        const auto key = m["key"].toString();
        ASSERT_TRUE(metrics.contains(key)) << key.toStdString();
        for (const auto& wanted : QString(metrics.at(key)).split(' '))
            EXPECT_TRUE(keys.contains(wanted)) << key.toStdString() << " " << wanted.toStdString();
        for (const auto& x : m["inputs"].toArray())
            expectKeys(x.toObject(), "key title of form dimension needed");
    }
    const auto one = run({"methods", "pin-shear"}).json()["methods"].toArray();
    ASSERT_EQ(one.size(), 1);
    const auto planes = one[0].toObject()["inputs"].toArray()[2].toObject();
    EXPECT_EQ(planes["key"], "planes");
    EXPECT_EQ(planes["of"], "specimen");
    EXPECT_EQ(planes["form"], "one");
    EXPECT_EQ(planes["needed"], false);
    expectFails(3, {"methods", "wishing"}, "There is no method \"wishing\"");
}

TEST_F(Cli, DeriveGivesNumbersAndReasons) {
    const auto r = run({"derive", "pin-shear", "diameter=4 mm", "peak=>3 kN"});
    EXPECT_EQ(r.status, 0) << r.err.toStdString();
    expectKeys(r.json(), "results notes");
    const auto results = r.json()["results"].toObject();
    expectKeys(results, "peak shear_strength first_slip stiffness energy residual force_at_displacement "
                        "displacement_at_force "
                        "relaxation permanent_set");
    const auto strength = results["shear_strength"].toObject();
    expectKeys(strength, "value unit state upper");
    EXPECT_NEAR(strength["value"].toDouble(), 3000 / (M_PI * 4e-6), 1e-3);
    EXPECT_EQ(strength["unit"], "Pa");
    EXPECT_EQ(strength["state"], "above");
    EXPECT_TRUE(strength["upper"].isNull());
    const auto missing = run({"derive", "pin-shear", "peak=3 kN"}).json();
    EXPECT_TRUE(missing["results"].toObject()["shear_strength"].isNull());
    EXPECT_TRUE(
        missing["notes"].toArray().contains("Shear strength: it needs the diameter or the cross-section."));
    const auto steps =
        run({"derive", "step-ladder", "steps=10 N held; 12 N failed"}).json()["results"].toObject();
    EXPECT_EQ(steps["holding"].toObject()["state"], "between");
    EXPECT_EQ(steps["holding"].toObject()["upper"], 12);
    const auto series =
        run({"derive", "creep", "gauge=0 s: 12 mm; 3600 s: 12.4 mm"}).json()["results"].toObject();
    EXPECT_NEAR(series["creep"].toObject()["value"].toDouble(), 0.0004, 1e-12);
    const auto legs = run({"derive", "load-share", "leg.1=3 kN", "leg.2=1 kN"}).json()["results"].toObject();
    EXPECT_EQ(legs["unevenness"].toObject()["value"], 1.5);
    EXPECT_TRUE(run({"derive", "lever-bend", "steps=25 lb at 14 in held"}, false)
                    .out.startsWith("Moment: at least "));
    expectFails(3, {"derive", "pin-shear", "diameter=4 N"}, "Diameter");
    expectFails(3, {"derive", "pin-shear", "colour=red"}, "has no input");
    expectFails(3, {"derive", "pin-shear", "red"}, "is no entry");
    expectFails(3, {"derive", "hammer", "mass=2 kg", "from=600 mm", "to=210 m"}, "energy cannot come out");
    expectFails(2, {"derive"}, "METHOD");
}

TEST_F(Cli, Replicates) {
    EXPECT_EQ(run({"replicates", "--cv", "12", "--difference", "15"}).out, "{\"n_per_group\":12}\n");
    EXPECT_EQ(
        run({"replicates", "--cv", "10", "--difference", "8", "--power", "80"}).json()["n_per_group"].toInt(),
        26)
        << "d = 0.8, Cohen (1988)";
    expectFails(3, {"replicates", "--cv", "0", "--difference", "15"}, "more than 0 %");
    expectFails(3, {"replicates", "--cv", "12", "--difference", "15", "--power", "100"}, "between 1 and 100");
    expectFails(2, {"replicates", "--cv", "12"}, "--difference");
}

TEST_F(Cli, PlanTellsSquaresRunListAndDueSteps) {
    const auto demo = dir.filePath("demo.anvil");
    QProcess p;
    p.start(ANVIL_DEMO, {"--to", demo});
    ASSERT_TRUE(p.waitForFinished(60000));
    auto o = run({"plan", demo, "--study", "Hooks bonded to glazing", "--now", "2026-05-04T09:00:00"}).json();
    expectKeys(
        o, "study replicates squares cost currency pulling_s preparation_s forecasts fairness seed run_list "
           "steps");
    EXPECT_EQ(o["replicates"].toInt(), 55);
    ASSERT_EQ(o["squares"].toArray().size(), 12);
    expectKeys(o["squares"].toArray()[0].toObject(),
               "option condition replicates struck made pulled head_room expected_N upper_N limit_N "
               "travel_upper_mm travel_limit_mm");
    EXPECT_EQ(o["squares"].toArray()[1].toObject()["head_room"].toString(), "tight");
    EXPECT_TRUE(o["squares"].toArray()[11].toObject()["struck"].toBool());
    EXPECT_EQ(o["run_list"].toArray().size(), 55);
    ASSERT_EQ(o["steps"].toArray().size(), 3);
    expectKeys(o["steps"].toArray()[0].toObject(), "step from latest state");
    EXPECT_EQ(o["steps"].toArray()[0].toObject()["state"].toString(), "overdue");
    EXPECT_EQ(o["steps"].toArray()[1].toObject()["state"].toString(), "due");
    EXPECT_EQ(o["steps"].toArray()[1].toObject()["from"].toString(), "2026-05-04T08:30:00");
    EXPECT_EQ(run({"plan", demo, "--study", "Hooks bonded to glazing", "--now", "2026-05-03T09:00:00"})
                  .json()["steps"]
                  .toArray()[0]
                  .toObject()["state"]
                  .toString(),
              "due");
    o = run({"plan", demo}).json();
    EXPECT_EQ(o["fairness"].toArray()[0].toObject()["rule"].toString(), "day");
    EXPECT_FALSE(o["fairness"].toArray()[0].toObject()["accepted"].isNull());
    expectFails(3, {"plan", demo, "--now", "soon"}, "is not a time");
    expectFails(3, {"plan", demo, "--study", "Nope"}, "no study called");
}

TEST_F(Cli, DemoIsTheSameEveryTime) {
    for (const char* name : {"one", "two"}) {
        QProcess p;
        p.start(ANVIL_DEMO, {"--to", dir.filePath(QString(name) + ".anvil"), "--logs", dir.filePath(name)});
        ASSERT_TRUE(p.waitForFinished(60000));
        ASSERT_EQ(p.exitCode(), 0) << p.readAllStandardError().toStdString();
    }
    EXPECT_EQ(run({"check", dir.filePath("one.anvil")}).out, run({"check", dir.filePath("two.anvil")}).out);
    for (const auto& f : QDir(dir.filePath("one")).entryInfoList(QDir::Files)) {
        QFile a(f.absoluteFilePath()), b(dir.filePath("two/" + f.fileName())),
            kept(QString(DEMO_LOGS) + "/" + f.fileName());
        ASSERT_TRUE(a.open(QIODevice::ReadOnly) && b.open(QIODevice::ReadOnly) &&
                    kept.open(QIODevice::ReadOnly))
            << f.fileName().toStdString();
        const auto bytes = a.readAll();
        EXPECT_EQ(bytes, b.readAll());
        EXPECT_EQ(bytes, kept.readAll())
            << f.fileName().toStdString() << ": the logs in the tree are those the demo writes";
    }
}

/// The demo as the program of version 7 made it tells the same, to the last letter, as the one made today;
/// but for the rigs, which are told apart from the plans now.
TEST_F(Cli, TheDemoOfVersionSevenTellsTheSame) {
    const auto old = dir.filePath("old.anvil"), today = dir.filePath("today.anvil");
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-7-demo.anvil"), old));
    QFile(old).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    QProcess demo;
    demo.start(ANVIL_DEMO, {"--to", today});
    ASSERT_TRUE(demo.waitForFinished(60000) && demo.exitCode() == 0);
    const auto told = [&](const QString& project, const QString& study) {
        const auto to = project + ".txt";
        EXPECT_EQ(run({"report", project, "--study", study, "--to", to}).status, 0);
        QFile file(to);
        EXPECT_TRUE(file.open(QIODevice::ReadOnly));
        QStringList lines;
        for (const auto& line : QString::fromUtf8(file.readAll()).split('\n'))
            if (!line.startsWith("- On ") && !line.startsWith("old, ") && !line.startsWith("today, "))
                lines << line;
        return lines;
    };
    for (const char* study : {"Wire end fittings", "Blind rivets in hoop tube", "Hooks bonded to glazing"}) {
        const auto then = told(old, study), now = told(today, study);
        EXPECT_GT(then.size(), 20);
        ASSERT_EQ(then.size(), now.size()) << study;
        for (qsizetype i = 0; i < then.size(); ++i)
            EXPECT_EQ(then[i].toStdString(), now[i].toStdString());
    }
}

TEST_F(Cli, WhatWasReadInFrontOfALeverGoesThroughIt) {
    QDir(dir.path()).mkpath("pack");
    file("pack/studies.csv", "study\nPegs\n");
    file("pack/setups.csv", "rig,version,setup\nLong arm,1,\"{\"\"name\"\":\"\"Long arm\"\",\"\"path\"\":"
                            "[{\"\"kind\"\":\"\"lever\"\",\"\"a\"\":1,\"\"b\"\":0.1}]}\"\n");
    ASSERT_EQ(run({"import", "p.anvil", "pack"}).status, 0);
    file("noted.csv", "option,value,unit\nPin,42,lbf\nPin,44,lbf\nPin,43,lbf\n");
    expectFails(3, {"import", "p.anvil", "noted.csv", "--values", "--study", "Pegs"}, "--read-at");
    QByteArray log = "Time (s),Force (N)\n";
    for (int i = 0; i < 60; ++i)
        log +=
            QByteArray::number(i * 0.1, 'f', 1) + ',' + QByteArray::number(i < 10 ? 0 : 4 * (i - 9)) + '\n';
    file("pin_1.csv", log);
    expectFails(3, {"import", "p.anvil", "pin_1.csv", "--study", "Pegs"}, "--read-at");
    auto r = run({"import", "p.anvil", "noted.csv", "--values", "--study", "Pegs", "--read-at", "display"});
    ASSERT_EQ(r.status, 0) << r.err.toStdString();
    r = run({"import", "p.anvil", "pin_1.csv", "--study", "Pegs"}); // said once for the study
    ASSERT_EQ(r.status, 0) << r.err.toStdString();
    EXPECT_NEAR(r.json()["runs"].toArray()[0].toObject()["peak_N"].toDouble(), 2000, 1e-6);
    const auto v = run({"verdict", "p.anvil", "--study", "Pegs"}).json();
    EXPECT_NEAR(v["groups"].toArray()[0].toObject()["max"].toDouble(), 2000, 1e-6);
    EXPECT_NEAR(v["groups"].toArray()[0].toObject()["min"].toDouble(), 420 * 4.4482216152605, 1e-6);
}

TEST_F(Cli, ARowInAnotherUnitThanItsFellowsIsAskedAbout) {
    file("slip.csv", "option,value,unit\nPin,4.2,kN\nPin,4.3,kN\nPin,4250,kN\nPin,4.1,kN\n");
    expectFails(3, {"import", "p.anvil", "slip.csv", "--values"}, "Was 4250 N meant?");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("p.anvil")));
    EXPECT_EQ(run({"import", "p.anvil", "slip.csv", "--values", "--as-it-stands"}).status, 0);
    file("wide.csv", "option,value,unit\nPin,4.2,kN\nPin,4.3,kN\nPin,0.9,kN\nPin,4.1,kN\n");
    EXPECT_EQ(run({"import", "q.anvil", "wide.csv", "--values"}).status, 0)
        << "a weak one is no slip of the pen";
    file("mixed.csv", "option,value,unit\nPin,1000,N\nPin,1050,N\nPin,1020,lbf\n");
    expectFails(3, {"import", "r.anvil", "mixed.csv", "--values"}, "Was 1020 N meant?");
}

TEST_F(Cli, FilesAreWrittenToFilesOnly) {
    expectFails(3, {"simulate", "pull-out", "--seed", "1", "--to", ""}, "needs a name");
    expectFails(3, {"simulate", "pull-out", "--seed", "1", "--to", "a.csv", "--truth", "a.csv"},
                "files of their own");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("a.csv")));
    QFile::link(dir.filePath("else.csv"), dir.filePath("link.csv"));
    expectFails(3, {"simulate", "pull-out", "--seed", "1", "--to", "link.csv"}, "is a link");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("else.csv")));
    file("v.csv", "option,value,unit\nPin,4.2,kN\nPin,4.3,kN\nHook,5.1,kN\nHook,5.3,kN\n");
    ASSERT_EQ(run({"import", "p.anvil", "v.csv", "--values"}).status, 0);
    const auto before = QFileInfo(dir.filePath("p.anvil")).size();
    expectFails(3, {"simulate", "pull-out", "--seed", "1", "--to", "p.anvil"}, "is a project");
    QFile::link(dir.filePath("else.html"), dir.filePath("page.html"));
    for (const char* to : {"page.html", "link.pdf"}) {
        QFile::link(dir.filePath("else.pdf"), dir.filePath("link.pdf"));
        expectFails(3, {"report", "p.anvil", "--to", to}, "is a link");
    }
    EXPECT_EQ(QFileInfo(dir.filePath("p.anvil")).size(), before);
    expectFails(3, {"read", QString(5000, 'x')}, " … ");
}

TEST_F(Cli, APackageNamesWhatIsNoTableOfItsAndAFailedImportTakesNothingAway) {
    QDir(dir.path()).mkpath("pack");
    file("pack/studies.csv", "study\nPegs\n");
    file("pack/pull.csv", "pull,specimen\n1,A1-1\n");
    expectFails(3, {"import", "p.anvil", "pack"}, "pull.csv: is pulls.csv meant?");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("p.anvil")));
    QFile::remove(dir.filePath("pack/pull.csv"));
    QDir(dir.path()).mkpath("pack/pulls.csv");
    expectFails(3, {"import", "p.anvil", "pack"}, "a folder or a device");
    QDir(dir.filePath("pack/pulls.csv")).removeRecursively();
    file("pack/options.csv", "option\nPin\x07\n");
    expectFails(3, {"import", "p.anvil", "pack"}, "options.csv");
    file("pack/options.csv", "option\nPin\n");
    // Empty means that none was told, whatever the order of the rows.
    for (const char* rows : {"A1-1,Pin,Dry\nA1-2,Pin,\n", "A1-2,Pin,\nA1-1,Pin,Dry\n"}) {
        QFile::remove(dir.filePath("p.anvil"));
        file("pack/specimens.csv", QByteArray("specimen,option,condition\n") + rows);
        file("pack/pulls.csv", "specimen,value\nA1-1,4 kN\nA1-2,5 kN\n");
        ASSERT_EQ(run({"import", "p.anvil", "pack"}).status, 0);
        const auto groups = run({"verdict", "p.anvil"}).json()["groups"].toArray();
        EXPECT_EQ(groups.size(), 2) << rows;
    }
    QByteArray wide = "time (s),force (N)";
    for (int k = 0; k < 70; ++k)
        wide += ",c" + QByteArray::number(k);
    wide += '\n';
    for (int i = 0; i < 5; ++i) {
        wide += QByteArray::number(i) + ",1";
        for (int k = 0; k < 70; ++k)
            wide += ",0";
        wide += '\n';
    }
    QDir(dir.path()).mkpath("pack/curves");
    file("pack/curves/1.csv", wide);
    file("pack/pulls.csv", "specimen,curve\nA1-1,curves/1.csv\n");
    expectFails(3, {"import", "q.anvil", "pack"}, "64 at most");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("q.anvil")));
}

TEST_F(Cli, OfVeryManyOptionsThePairsThatMatterAreGiven) {
    QByteArray table = "option,value,unit\n";
    for (int o = 0; o < 70; ++o)
        for (int k = 0; k < 3; ++k)
            table += QStringLiteral("opt%1,%2,N\n").arg(o).arg(1000 + 7 * o + 3 * k).toUtf8();
    file("many.csv", table);
    const auto few = run({"stats", "many.csv"}).json(),
               all = run({"stats", "many.csv", "--all-pairs"}).json();
    EXPECT_EQ(all["comparisons"].toArray().size(), 70 * 69 / 2);
    EXPECT_FALSE(all.contains("comparisons_left_out"));
    const auto pairs = few["comparisons"].toArray();
    run({"import", "many.anvil", "many.csv", "--values"});
    const auto told = run({"verdict", "many.anvil"}).json(),
               allTold = run({"verdict", "many.anvil", "--all-pairs"}).json();
    EXPECT_EQ(told["comparisons"].toArray().size(), pairs.size());
    EXPECT_EQ(told["comparisons_left_out"].toInt(), few["comparisons_left_out"].toInt());
    EXPECT_EQ(allTold["comparisons"].toArray().size(), 70 * 69 / 2);
    EXPECT_EQ(pairs.size() + few["comparisons_left_out"].toInt(), 70 * 69 / 2);
    EXPECT_GE(pairs.size(), 69 + 68) << "the leader's, and each with the next";
    EXPECT_LT(pairs.size(), 300);
    std::map<std::pair<std::string, std::string>, QJsonObject> byName;
    for (const auto& p : all["comparisons"].toArray())
        byName[{p.toObject()["a"].toString().toStdString(), p.toObject()["b"].toString().toStdString()}] =
            p.toObject();
    int leader = 0;
    for (const auto& p : pairs) {
        const auto o = p.toObject();
        EXPECT_EQ(o, (byName[{o["a"].toString().toStdString(), o["b"].toString().toStdString()}]))
            << "the family is that of all pairs";
        leader += o["a"] == "opt69" || o["b"] == "opt69";
    }
    EXPECT_EQ(leader, 69);
}

} // namespace
