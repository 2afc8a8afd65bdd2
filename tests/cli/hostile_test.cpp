// What a stranger may hand to the programs: every run ends with 0, 2 or 3, in time, with at most one line on
// stderr.
#include <QDir>
#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QSqlDatabase>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <gtest/gtest.h>
#include <iostream>
#include <map>

namespace {

struct Hostile : testing::Test {
    QTemporaryDir dir;
    struct Result {
        int status = -1;
        QByteArray out, err;
    };
    QString file(const QString& name, const QByteArray& bytes) {
        QFile f(dir.filePath(name));
        EXPECT_TRUE(f.open(QIODevice::WriteOnly));
        f.write(bytes);
        return f.fileName();
    }
    /// Runs a program and expects a clean end.
    Result run(const QString& program, const QStringList& arguments) {
        QProcess p;
        p.setWorkingDirectory(dir.path());
        p.start(program, arguments);
        EXPECT_TRUE(p.waitForFinished(20000)) << arguments.join(' ').toStdString() << " hangs";
        const Result r{p.exitCode(), p.readAllStandardOutput(), p.readAllStandardError()};
        const auto what = arguments.join(' ').toStdString();
        EXPECT_EQ(p.exitStatus(), QProcess::NormalExit) << what;
        EXPECT_TRUE(r.status == 0 || r.status == 2 || r.status == 3) << what << ": " << r.status;
        EXPECT_EQ(r.err.count('\n'), r.status == 0 ? 0 : 1) << what << ": " << r.err.toStdString();
        return r;
    }
    Result anvil(const QStringList& arguments) { return run(ANVIL_CLI, arguments); }
    QString demo() {
        EXPECT_EQ(run(ANVIL_DEMO, {"--to", dir.filePath("demo.anvil")}).status, 0);
        return dir.filePath("demo.anvil");
    }
    static void sql(const QString& path, const char* statement) {
        {
            auto db = QSqlDatabase::addDatabase("QSQLITE", "hostile");
            db.setDatabaseName(path);
            ASSERT_TRUE(db.open());
            ASSERT_TRUE(QSqlQuery(db).exec(statement)) << statement;
        }
        QSqlDatabase::removeDatabase("hostile");
    }
};

TEST_F(Hostile, ValuesAtTheEndsOfWhatANumberHolds) {
    for (const char* scale : {"1e-300", "1e-160", "1e-100", "1e-10", "1e100", "1e160", "1e300"}) {
        QByteArray csv = "option,value\n";
        for (const char* mantissa : {"1.0", "1.1", "1.2", "0.9"})
            for (const char* option : {"A", "B"})
                csv += QByteArray(option) + "," +
                       QByteArray::number(QByteArray(mantissa).toDouble() * (*option == 'B' ? 2 : 1) *
                                          QByteArray(scale).toDouble()) +
                       "\n";
        const auto f = file("v.csv", csv);
        const auto r = anvil({"stats", f, "--json"});
        EXPECT_EQ(r.status, 0) << r.err.toStdString();
        const auto pair = QJsonDocument::fromJson(r.out).object()["comparisons"].toArray()[0].toObject();
        EXPECT_NEAR(pair["ratio"].toDouble(), 0.5, 1e-9) << scale << r.out.toStdString();
        EXPECT_EQ(pair["verdict"].toString(), "weaker") << scale;
        EXPECT_EQ(anvil({"rank", f, "--json"}).status, 0);
    }
    const auto mixed =
        file("m.csv", "option,value\nA,1e-300\nA,1e300\nB,1e300\nB,-1e300\nC,0\nC,0\nC,5e-324\n");
    anvil({"stats", mixed, "--json"});
    anvil({"stats", mixed, "--margin", "1e-300"});
    anvil({"stats", mixed, "--margin", "1e300"});
    anvil({"stats", file("inf.csv", "option,value\nA,inf\nA,nan\nA,1e999\nB,1\nB,2\n"), "--json"});
}

TEST_F(Hostile, ArgumentsThatAreNoNumbers) {
    for (const char* v : {"inf", "-inf", "nan", "1e308", "1e-308", "-1", "0"}) {
        anvil({"replicates", "--cv", v, "--difference", "10"});
        anvil({"replicates", "--cv", "10", "--difference", v});
        anvil({"replicates", "--cv", "10", "--difference", "10", "--power", v});
        anvil({"convert", v, "N"});
        anvil({"convert", QString(v) + " kN", "N"});
        anvil({"stats", file("v.csv", "option,value\nA,1\nA,2\nB,1\nB,3\n"), "--margin", v});
        anvil({"simulate", "pull-out", "--seed", v, "--to", dir.filePath("run.csv")});
    }
    anvil({"convert", QString(100000, '9'), "N"});
    anvil({"convert", QString("1 a ").repeated(30000), "N"});
}

TEST_F(Hostile, TextThatIsNoText) {
    for (const QByteArray& odd :
         {QByteArray("\xff\xfe\xfd"), QByteArray("\xed\xa0\x80"), QByteArray("\xf5\x80\x80\x80"),
          QByteArray("\xc0\xaf"), QByteArray("a\0b", 3), QByteArray(39, 'x') + "\xc3\xa9\xc3\xa9"}) {
        const auto log = file("log.csv", "Time (s),Force (N)\n0,1\n1,2\n2," + odd + "\n3,4\n4,5\n");
        const auto r = anvil({"read", log, "--json"});
        if (r.status == 0) {
            EXPECT_TRUE(QJsonDocument::fromJson(r.out).isObject()) << r.out.toStdString();
        }
        const auto table = file("v.csv", "option,value\n" + odd + ",1\n" + odd + ",2\nB,3\nB,4\n");
        const auto s = anvil({"stats", table, "--json"});
        if (s.status == 0) {
            EXPECT_TRUE(QJsonDocument::fromJson(s.out).isObject()) << s.out.toStdString();
        }
        anvil({"stats", file("head.csv", "option," + odd + "\nA,1\nB,2\n"), "--json"});
    }
    const auto odd = file("two\nlines.csv", "nothing\n");
    anvil({"read", odd});
    anvil({"stats", odd});
    anvil({"import", dir.filePath("p.anvil"), odd});
}

/// Fifty, then five hundred options that nobody can tell apart.
TEST_F(Hostile, ManyOptionsThatAllTie) {
    for (const int n : {50, 500}) {
        QByteArray csv = "option,value\n";
        for (int i = 0; i < n; ++i)
            for (int k = 0; k < 3; ++k)
                csv += "O" + QByteArray::number(i) + "," + QByteArray::number(100 + (i * 7 + k * 13) % 11) +
                       "\n";
        EXPECT_EQ(anvil({"rank", file("v.csv", csv), "--json"}).status, 0);
    }
}

TEST_F(Hostile, FilesThatAreNoFiles) {
    for (const QString& f :
         {QStringLiteral("/dev/zero"), QStringLiteral("/dev/stdin"), dir.path(), dir.filePath("none")})
        for (const char* command : {"read", "stats", "rank", "check", "plan"})
            EXPECT_EQ(anvil({command, f}).status, 3) << command << f.toStdString();
    EXPECT_EQ(anvil({"read", file("long.csv", "1,2\n" + QByteArray(40'000'000, '1'))}).status, 3);
}

/// A project in which something is damaged is not reported on, imported into or planned from.
TEST_F(Hostile, ADamagedProjectIsRefusedByEveryCommand) {
    const auto path = demo();
    const auto log = file("a_b_1.csv", "Time (s),Force (N)\n0,1\n1,2\n2,3\n3,4\n");
    const auto whole = [&] {
        QFile f(path);
        EXPECT_TRUE(f.open(QIODevice::ReadOnly));
        return f.readAll();
    }();
    for (const char* damage : {"UPDATE pull SET value = 7 WHERE id = 1", "DELETE FROM specimen WHERE id = 2",
                               "UPDATE study SET plan = '{'", "DROP TABLE attachment"}) {
        sql(path, damage);
        for (const auto& command :
             {QStringList{"report", path, "--to", dir.filePath("r.html")}, QStringList{"plan", path},
              QStringList{"import", path, log}, QStringList{"check", path}})
            EXPECT_EQ(anvil(command).status, 3) << damage << command[0].toStdString();
        EXPECT_FALSE(QFile::exists(dir.filePath("r.html"))) << damage;
        QFile f(path);
        ASSERT_TRUE(f.open(QIODevice::WriteOnly));
        f.write(whole);
    }
    EXPECT_EQ(anvil({"check", path}).status, 0);
    EXPECT_EQ(QDir(dir.path()).entryList({"demo*"}, QDir::Files), QStringList{"demo.anvil"})
        << "reading leaves nothing beside it";
}

/// A curve that cannot be read is named by everything that leaves it out.
TEST_F(Hostile, ADamagedCurveIsNamed) {
    const auto path = demo();
    sql(path, "UPDATE chunk SET data = zeroblob(length(data)) WHERE curve = 1");
    const auto plan = anvil({"plan", path});
    EXPECT_EQ(plan.status, 0);
    EXPECT_TRUE(plan.out.contains("its curve cannot be read")) << plan.out.toStdString();
    const auto unread = QJsonDocument::fromJson(anvil({"plan", path, "--json"}).out)["unread"].toArray();
    ASSERT_EQ(unread.size(), 1);
    const auto piece = unread[0].toObject()["specimen"].toString();
    EXPECT_TRUE(anvil({"verdict", path}).out.contains(piece.toUtf8()));
    const auto exported = anvil({"export", path, "--to", dir.filePath("rescued")});
    EXPECT_EQ(exported.status, 0);
    EXPECT_TRUE(exported.out.contains("The curve of " + piece.toUtf8() + " is damaged"))
        << exported.out.toStdString();
}

/// Words of the command line in any order: an answer, or one line. ANVIL_ARGUMENTS: how many of them.
/// What a command takes, by kind of word.
struct Grammar {
    const char* command;
    QStringList positionals;
    std::vector<std::pair<const char*, const char*>> options; ///< flag and kind of its value; "" for a switch
};

const std::vector<Grammar>& grammars() {
    static const std::vector<Grammar> all{
        {"convert", {"quantity", "unit"}, {}},
        {"read",
         {"log"},
         {{"--time", "column"},
          {"--force", "column"},
          {"--displacement", "column"},
          {"--sheet", "column"},
          {"--force-unit", "unit"},
          {"--time-unit", "unit"},
          {"--displacement-unit", "unit"},
          {"--run", "count"},
          {"--rig-limit", "quantity"}}},
        {"simulate", {"model"}, {{"--seed", "count"}, {"--to", "rows"}, {"--truth", "truth"}}},
        {"methods", {}, {}},
        {"derive", {"method", "entry", "entry", "entry"}, {}},
        {"stats",
         {"table"},
         {{"--sheet", "column"}, {"--allow-loss", ""}, {"--margin", "number"}, {"--all-pairs", ""}}},
        {"rank", {"table"}, {{"--allow-loss", ""}, {"--seed", "count"}, {"--draws", "many"}}},
        {"replicates", {}, {{"--cv", "number"}, {"--difference", "number"}, {"--power", "number"}}},
        {"plan", {"project"}, {{"--study", "study"}, {"--now", "clock"}}},
        {"verdict",
         {"project"},
         {{"--study", "study"}, {"--metric", "metric"}, {"--to", "picture"}, {"--all-pairs", ""}}},
        {"import",
         {"new", "log", "table"},
         {{"--study", "study"},
          {"--option", "study"},
          {"--condition", "study"},
          {"--force", "column"},
          {"--time", "column"},
          {"--force-unit", "unit"},
          {"--time-unit", "unit"},
          {"--rig-limit", "quantity"},
          {"--comma", "comma"},
          {"--read-at", "reading"},
          {"--as-it-stands", ""},
          {"--allow-loss", ""},
          {"--values", ""}}},
        {"check", {"project"}, {}},
        {"export", {"project"}, {{"--to", "folder"}}},
        {"report",
         {"project"},
         {{"--to", "page"}, {"--study", "study"}, {"--force-unit", "unit"}, {"--length-unit", "unit"}}},
    };
    return all;
}

TEST_F(Hostile, ArgumentsByChance) {
    const int asked = qEnvironmentVariableIntValue("ANVIL_ARGUMENTS");
    const int count = asked > 0 ? asked : 60;
    const auto path = demo();
    const auto log = file("a_b_1.csv", "Time (s),Force (N)\n0,1\n1,2\n2,3\n3,4\n4,0\n");
    const auto table = file("v.csv", "option,value,unit\na,1,N\na,2,N\nb,3,N\nb,4,N\n");
    const std::map<QString, QStringList> sound{
        {"project", {path}},
        {"new", {path, dir.filePath("new.anvil"), dir.filePath("other.anvil")}},
        {"log", {log}},
        {"table", {table}},
        {"quantity", {"12 kN", "3 1/4 in", "800 lbf", "5,5 kN", "90 deg", "20 min", "1.5 ft-lb"}},
        {"unit", {"N", "kN", "lbf", "kgf", "mm", "in", "s", "ms"}},
        {"column", {"1", "2", "Time (s)", "Force (N)", "time", "force"}},
        {"count", {"1", "2", "7"}},
        {"many", {"1000", "20000"}},
        {"number", {"5", "10", "20", "0.8"}},
        {"model", {"pull-out", "brittle-bond", "wire-rope", "yielding-metal"}},
        {"method",
         {"axial-pull", "pin-shear", "lap-shear", "tension-coupon", "three-point-bend", "torque", "drop"}},
        {"entry", {"peak=3 kN", "diameter=4 mm", "peak=800 lbf", "span=100 mm", "area=2 cm2", "mass=3 kg"}},
        {"metric", {"peak", "stiffness", "energy", "first_slip"}},
        {"study", {"Net clips", "Ground pegs", "Hose-clamp screws"}},
        {"clock", {"2026-05-04T09:00:00", "2026-05-04"}},
        {"reading", {"display", "piece"}},
        {"comma", {"decimal", "grouping"}},
        {"rows", {"out.csv", "second.csv", "out.pdf"}},
        {"truth", {"out.json", "out.csv"}},
        {"picture", {"out.png", "out.svg", "out.jpg"}},
        {"page", {"out.pdf", "out.html", "out.txt", "out.svg"}},
    };
    const QStringList odd{"",
                          " ",
                          "-",
                          "--",
                          "--no-such",
                          "--help",
                          "--version",
                          "--json",
                          "0",
                          "-1",
                          "1e999",
                          "nan",
                          "-5 N",
                          "1e308 kN",
                          "99999999999999999999",
                          "=1+1",
                          "a\nb",
                          QString(5000, 'x'),
                          "/dev/null",
                          dir.filePath("no/such/file"),
                          dir.path(),
                          path,
                          log,
                          table,
                          "12.5 kN",
                          QString::fromUtf8("Gr\u00f6\u00dfe")};
    unsigned state = 11;
    const auto below = [&](qsizetype n) {
        state = state * 1664525 + 1013904223;
        return static_cast<qsizetype>(state >> 8) % n;
    };
    int folders = 0;
    const auto wordOf = [&](const QString& kind) {
        if (below(16) == 0) return odd[below(odd.size())];
        if (kind == "folder") return dir.filePath(QString("folder %1").arg(folders++));
        const auto& from = sound.at(kind);
        const auto word = from[below(from.size())];
        return word.startsWith("out.") ? dir.filePath(word) : word;
    };
    std::map<int, int> ends;
    for (int i = 0; i < count; ++i) {
        const auto& grammar = grammars()[static_cast<std::size_t>(below(std::ssize(grammars())))];
        QStringList arguments{grammar.command};
        for (const auto& kind : grammar.positionals)
            arguments << wordOf(kind);
        for (const auto& [flag, kind] : grammar.options) {
            // What must be told mostly is; the rest now and then.
            const bool needed =
                QStringList{"--to", "--seed", "--cv", "--difference"}.contains(QString(flag)) &&
                QString(grammar.command) != "verdict";
            if (needed ? below(16) == 0 : below(4) != 0) continue;
            arguments << flag;
            if (*kind) arguments << wordOf(kind);
        }
        if (below(3) == 0) arguments << "--json";
        if (below(8) == 0) arguments.insert(below(arguments.size()), odd[below(odd.size())]);
        if (below(12) == 0) arguments.removeAt(below(arguments.size()));
        ++ends[anvil(arguments).status];
        if (HasFailure()) break;
    }
    EXPECT_EQ(anvil({"check", path}).status, 0) << "the project is whole after all of it";
    EXPECT_GT(ends[0], count / 5) << "the words are too odd to reach a command";
    std::cout << "measured: " << count << " sets of arguments: " << ends[0] << " answers, " << ends[2]
              << " not understood, " << ends[3] << " refused\n";
}

TEST_F(Hostile, TheOtherProgramsKeepTheContractToo) {
    EXPECT_EQ(run(ANVIL_DEMO, {}).status, 2);
    EXPECT_EQ(run(ANVIL_DEMO, {"--nonsense"}).status, 2);
    EXPECT_EQ(run(ANVIL_DEMO, {"--to", "/no/such/folder/p.anvil"}).status, 3);
    for (const QStringList& wrong : {QStringList{"--tcp", "70000"},
                                     {"--tcp", "-2"},
                                     {"--rate", "inf"},
                                     {"--cv", "-1"},
                                     {"--nonsense"},
                                     {"--speed", "0"},
                                     {"--noise", "nan"}})
        EXPECT_EQ(run(ANVIL_RIG, wrong).status, 2) << wrong.join(' ').toStdString();
    for (const QStringList& bad : {QStringList{"--strength", "1e308 N"},
                                   {"--strength", "-5 N"},
                                   {"--model", "dragon"},
                                   {"--limit", "0 N"},
                                   {"--rate", "300000", "--speed", "0.001"}})
        EXPECT_EQ(run(ANVIL_RIG, bad).status, 3) << bad.join(' ').toStdString();
}

/// What another project of the name left behind is not taken for a part of a new one.
TEST_F(Hostile, ANewProjectTakesNothingOver) {
    file("p.anvil-wal", "old");
    const auto log = file("a_b_1.csv", "Time (s),Force (N)\n0,1\n1,2\n2,3\n3,4\n");
    EXPECT_EQ(anvil({"import", dir.filePath("p.anvil"), log}).status, 3);
    EXPECT_TRUE(QFile::exists(dir.filePath("p.anvil-wal")));
    QFile::remove(dir.filePath("p.anvil-wal"));
    EXPECT_EQ(anvil({"import", dir.filePath("p.anvil"), log}).status, 0);
}

} // namespace
