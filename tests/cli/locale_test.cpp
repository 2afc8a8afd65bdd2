// What is printed, kept and told is the same, byte for byte, wherever numbers have a decimal comma.
#include <QDir>
#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <gtest/gtest.h>

namespace {

struct CommaLocale : testing::Test {
    QTemporaryDir dir;

    static QByteArray run(const char* program, const QStringList& arguments, bool comma) {
        QProcess p;
        auto environment = QProcessEnvironment::systemEnvironment();
        environment.insert("LOCPATH", ANVIL_COMMA_LOCALES);
        environment.insert("LC_ALL", comma ? "de_DE.UTF-8" : "C.UTF-8");
        environment.insert("QT_QPA_PLATFORM", "offscreen");
        p.setProcessEnvironment(environment);
        p.start(program, arguments);
        EXPECT_TRUE(p.waitForFinished(120000));
        EXPECT_EQ(p.exitCode(), 0) << arguments.join(' ').toStdString()
                                   << p.readAllStandardError().toStdString();
        return p.readAllStandardOutput();
    }
    static void expectTheSame(const QStringList& arguments) {
        const auto point = run(ANVIL_CLI, arguments, false), comma = run(ANVIL_CLI, arguments, true);
        EXPECT_FALSE(point.isEmpty());
        EXPECT_EQ(point.toStdString(), comma.toStdString()) << arguments.join(' ').toStdString();
    }
    static QByteArray bytes(const QString& path) {
        QFile f(path);
        EXPECT_TRUE(f.open(QIODevice::ReadOnly)) << path.toStdString();
        return f.readAll();
    }
    QString file(const QString& name, const QByteArray& text) {
        QFile f(dir.filePath(name));
        EXPECT_TRUE(f.open(QIODevice::WriteOnly));
        f.write(text);
        return f.fileName();
    }
};

TEST_F(CommaLocale, NumbersAreReadAndPrintedAsEverywhere) {
    expectTheSame({"convert", "3,25 mm", "mm", "--json"});
    EXPECT_EQ(run(ANVIL_CLI, {"convert", "3,25 mm", "mm"}, true), "3.25 mm\n");
    const auto table =
        file("table.csv", "option,value,unit\nPin,1234.5,N\nPin,1250.5,N\nHook,987.5,N\nHook,991.25,N\n");
    expectTheSame({"stats", table, "--json"});
    expectTheSame({"rank", table, "--json"});
    EXPECT_TRUE(run(ANVIL_CLI, {"stats", table, "--json"}, true).contains("1242.5"));
}

TEST_F(CommaLocale, OptionsTakeBothMarks) {
    for (const bool comma : {false, true})
        EXPECT_EQ(run(ANVIL_CLI, {"replicates", "--cv", "12,5", "--difference", "15.5", "--json"}, comma),
                  run(ANVIL_CLI, {"replicates", "--cv", "12.5", "--difference", "15,5", "--json"}, comma));
}

TEST_F(CommaLocale, AProjectIsMadeJudgedAndReportedTheSame) {
    QStringList made;
    for (const bool comma : {false, true}) {
        const auto path = dir.filePath(comma ? "comma.anvil" : "point.anvil");
        run(ANVIL_DEMO, {"--to", path}, comma);
        made << path;
    }
    for (const char* study : {"Wire end fittings", "Blind rivets in hoop tube"}) {
        const auto asked = [&](const QString& project) {
            return QStringList{"verdict", project, "--study", study, "--json"};
        };
        const auto want = run(ANVIL_CLI, asked(made[0]), false);
        EXPECT_EQ(want.toStdString(), run(ANVIL_CLI, asked(made[0]), true).toStdString());
        EXPECT_EQ(want.toStdString(), run(ANVIL_CLI, asked(made[1]), true).toStdString()) << "made under it";
    }
    for (const bool comma : {false, true})
        run(ANVIL_CLI, {"report", made[1], "--to", dir.filePath(comma ? "comma.html" : "point.html")}, comma);
    EXPECT_EQ(bytes(dir.filePath("point.html")), bytes(dir.filePath("comma.html")));
}

} // namespace
