// What cannot be a package is refused with file and line, and nothing is changed.
#include "csv.h"
#include "trip.h"

#include <QDir>
#include <QFile>
#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <zip.h>

namespace anvil::exchange {
namespace {

struct Refused : testing::Test {
    QTemporaryDir dir;
    QString folder = dir.filePath("package");

    void SetUp() override {
        put("studies.csv", "study,method,metric\nTies,axial-pull,peak\n");
        put("options.csv", "option\nWire\nClip\n");
        put("specimens.csv", "specimen,option\nA,Wire\nB,Clip\n");
        put("pulls.csv", "pull,specimen\na,A\nb,B\n");
        put("inputs.csv", "of,input,value\na,peak,1 kN\nb,peak,>2 kN\n");
    }
    void put(const QString& name, const QByteArray& text) {
        QDir().mkpath(QFileInfo(folder + '/' + name).path());
        QFile file(folder + '/' + name);
        ASSERT_TRUE(file.open(QIODevice::WriteOnly));
        file.write(text);
    }
    std::string why() {
        const auto package = readPackage(folder);
        return package ? "" : package.error().message;
    }
    void expectWhy(const std::string& part) { EXPECT_NE(why().find(part), std::string::npos) << why(); }
};

TEST_F(Refused, WhatIsRightIsNot) {
    EXPECT_EQ(why(), "");
    const auto package = readPackage(folder);
    ASSERT_TRUE(package);
    const auto& pulls = package->studies.front().pulls;
    ASSERT_EQ(pulls.size(), 2u);
    EXPECT_EQ(pulls[0].standing, domain::Standing::counts);
    EXPECT_EQ(pulls[1].standing, domain::Standing::atLeast) << "as it was typed";
}

TEST_F(Refused, WhatNobodyKnows) {
    put("options.csv", "option,colour\nWire,red\n");
    expectWhy("options.csv: nobody knows the column \"colour\"");
    put("options.csv", "option,option\nWire,Wire\n");
    expectWhy("twice");
    put("options.csv", "option\nWire\n");
    expectWhy("specimens.csv, line 3, option: there is no option \"Clip\"; there is Wire");
    SetUp();
    put("studies.csv", "study,method,metric\nTies,axial-push,peak\n");
    expectWhy("studies.csv, line 2, method: there is no method \"axial-push\"");
    put("studies.csv", "study,method,metric\nTies,axial-pull,beak\n");
    expectWhy("studies.csv, line 2, metric: Axial pull has no metric \"beak\"");
    SetUp();
    put("inputs.csv", "of,input,value\na,peek,1 kN\n");
    expectWhy("inputs.csv, line 2, input: Axial pull has no input \"peek\"");
    put("inputs.csv", "of,input,value\nnobody,peak,1 kN\n");
    expectWhy("inputs.csv, line 2, of: there is no specimen and no pull \"nobody\"");
    put("inputs.csv", "of,input,value\na,peak,1 kN\n\na,peak,1 mm\n");
    expectWhy("inputs.csv, line 4, value");
    put("inputs.csv", "of,input,value\na,peak,1000\n");
    expectWhy("inputs.csv, line 2, value");
    SetUp();
    put("pulls.csv", "pull,specimen\na,C\n");
    expectWhy("pulls.csv, line 2, specimen: there is no specimen \"C\"");
    put("pulls.csv", "pull,specimen,standing\na,A,perhaps\n");
    expectWhy("pulls.csv, line 2, standing");
    put("pulls.csv", "pull,specimen,limited_by\na,A,weather\n");
    expectWhy("limited_by");
    put("pulls.csv", "pull,specimen,at\na,A,yesterday\n");
    expectWhy("pulls.csv, line 2, at");
    SetUp();
    put("specimens.csv", "study,specimen,option\nKnots,A,Wire\n");
    expectWhy("there is no study \"Knots\"");
}

TEST_F(Refused, TablesThatAreBroken) {
    put("options.csv", "option\n\"Wire\n");
    expectWhy("never closed");
    put("options.csv", "option\nWire,thin\n");
    expectWhy("options.csv: line 2 has 2 cells and the head has 1");
    put("options.csv", QByteArray("option\n\0\1\2\3", 11));
    EXPECT_NE(why(), "");
    put("options.csv", "");
    EXPECT_EQ(why(), "") << "an empty file says nothing";
    put("options.csv", "option\nWire\nWire\n");
    expectWhy("\"Wire\" is there twice");
}

TEST_F(Refused, PathsThatLeadOut) {
    QFile secret(dir.filePath("secret.csv"));
    ASSERT_TRUE(secret.open(QIODevice::WriteOnly));
    secret.write("time (s),force (N)\n0,0\n1,1\n2,2\n");
    secret.close();
    for (const char* path :
         {"../secret.csv", "curves/../../secret.csv", "/etc/passwd", "..\\secret.csv", "curves//a.csv"}) {
        put("pulls.csv", QByteArray("pull,specimen,curve\na,A,") + path + "\nb,B,\n");
        expectWhy("it is no file of this package");
    }
    ASSERT_TRUE(QFile::link(secret.fileName(), folder + "/link.csv"));
    put("pulls.csv", "pull,specimen,curve\na,A,link.csv\nb,B,\n");
    expectWhy("leads out of the package");
    put("pulls.csv", "pull,specimen,curve\na,A,curves/none.csv\nb,B,\n");
    expectWhy("curves/none.csv: it is not there");
}

TEST_F(Refused, CurvesThatAreNone) {
    put("pulls.csv", "pull,specimen,curve\na,A,curves/a.csv\nb,B,\n");
    put("curves/a.csv", "time (s),force\n0,1\n");
    expectWhy("names no unit");
    put("curves/a.csv", "time (s),force (mm)\n0,1\n");
    EXPECT_NE(why(), "");
    put("curves/a.csv", "time (s),displacement (mm)\n0,1\n");
    expectWhy("samples of a load");
    put("curves/a.csv", "time (s),force (N)\n0,1\n1,a lot\n");
    expectWhy("line 3");
    put("curves/a.csv", "time (s),force (kN),cell 2 (lbf),temperature (°C)\n0,0.1,1,20\n1,0.2,,21\n");
    EXPECT_EQ(why(), "");
    const auto package = readPackage(folder);
    ASSERT_TRUE(package);
    const auto& curve = package->curves.begin()->second;
    EXPECT_DOUBLE_EQ(curve.load[1], 200);
    ASSERT_EQ(curve.others.size(), 2u);
    EXPECT_NEAR(curve.others[0].values[0], 4.4482216152605, 1e-12);
    EXPECT_TRUE(std::isnan(curve.others[0].values[1]));
    EXPECT_NEAR(curve.others[1].values[1], 294.15, 1e-9);
}

TEST_F(Refused, NothingIsChanged) {
    const auto project = fresh(dir.filePath("p.anvil"));
    const auto package = readPackage(folder);
    ASSERT_TRUE(package);
    ASSERT_TRUE(takeIn(*project, *package));
    const auto before = project->load().value();
    const auto again = takeIn(*project, *package);
    ASSERT_FALSE(again);
    EXPECT_NE(again.error().message.find("\"Ties\" in this project already"), std::string::npos);
    EXPECT_TRUE(project->load().value() == before);
    EXPECT_FALSE(exportProject(*project, folder)) << "there is something in it";
}

TEST_F(Refused, WhatNothingNamesIsSaid) {
    put("notes.txt", "rain");
    put("photos/1.png", "x");
    put("README.md", "about");
    put("datapackage.json", "{}");
    const auto package = readPackage(folder);
    ASSERT_TRUE(package) << package.error().message;
    EXPECT_EQ(package->unknown, (std::vector<std::string>{"README.md", "notes.txt", "photos"}));
}

/// Whoever has a damaged project gets the rest of it out.
TEST(Rescue, DamagedCurvesAndFilesAreLeftOutAndSaid) {
    QTemporaryDir dir;
    const auto path = dir.filePath("p.anvil");
    domain::Study study;
    study.title = "Ties";
    Id damagedCurve = 0, damagedFile = 0;
    {
        const auto p = fresh(path);
        ASSERT_TRUE(p->write("Fill", [&](store::Writer& w) {
            study.id = w.add(study);
            domain::Option option;
            option.study = study.id;
            option.name = "Wire";
            option.id = w.add(option);
            domain::Condition condition;
            condition.study = study.id;
            condition.name = "Dry";
            condition.id = w.add(condition);
            for (int i = 1; i <= 3; ++i) {
                domain::Pull pull;
                pull.specimen = w.add(
                    domain::Specimen{0, study.id, option.id, condition.id, i, "A" + std::to_string(i), ""});
                curve::Curve c;
                for (int k = 0; k < 300; ++k) {
                    c.time.push_back(k * 0.01);
                    c.load.push_back(k < 100 ? 0 : k * (1.0 + i));
                }
                pull.curve = w.addCurve(c);
                if (i == 2) damagedCurve = pull.curve;
                if (i == 2) pull.note = "kept";
                const auto id = w.add(pull);
                domain::Attachment a;
                a.pull = id;
                a.name = "photo.png";
                a.file = w.addFile(store::ImportedFile::pack("photo.png", QByteArray(2000, char('a' + i))));
                if (i == 3) damagedFile = a.file;
                w.add(a);
            }
        }));
    }
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "damage");
        db.setDatabaseName(path);
        ASSERT_TRUE(db.open());
        QSqlQuery query(db);
        ASSERT_TRUE(query.exec(
            QString("UPDATE chunk SET data = zeroblob(length(data)) WHERE curve = %1").arg(damagedCurve)))
            << query.lastError().text().toStdString();
        ASSERT_TRUE(query.exec(
            QString("UPDATE file SET data = zeroblob(length(data)) WHERE id = %1").arg(damagedFile)))
            << query.lastError().text().toStdString();
    }
    QSqlDatabase::removeDatabase("damage");
    const auto folder = dir.filePath("package");
    const auto p = store::Project::open(path, store::Project::Access::readOnly);
    ASSERT_TRUE(p) << p.error().message;
    const auto written = exportProject(**p, folder);
    ASSERT_TRUE(written) << written.error().message;
    ASSERT_EQ(written->leftOut.size(), 2);
    EXPECT_TRUE(written->leftOut[0].contains("photo.png")) << written->leftOut[0].toStdString();
    EXPECT_TRUE(written->leftOut[1].contains("The curve of A2")) << written->leftOut[1].toStdString();
    const auto package = readPackage(folder);
    ASSERT_TRUE(package) << package.error().message;
    const auto& data = package->studies.front();
    EXPECT_EQ(package->curves.size(), 2u);
    EXPECT_EQ(package->files.size(), 2u);
    EXPECT_EQ(data.attachments.size(), 2u);
    ASSERT_EQ(data.pulls.size(), 3u);
    EXPECT_EQ(data.pulls[1].standing, domain::Standing::notRead);
    EXPECT_NE(data.pulls[1].reason.find("damaged"), std::string::npos);
    EXPECT_EQ(data.pulls[1].note, "kept");
    EXPECT_EQ(data.pulls[2].standing, domain::Standing::counts);
}

TEST_F(Refused, ArchivesAreReadAlike) {
    const auto path = dir.filePath("package.zip");
    const auto pack = [&](const std::string& prefix, bool evil) {
        QFile::remove(path);
        int error = 0;
        auto* archive = zip_open(path.toStdString().c_str(), ZIP_CREATE, &error);
        ASSERT_TRUE(archive);
        std::vector<QByteArray> kept;
        for (const auto& name : QDir(folder).entryList(QDir::Files)) {
            QFile file(folder + '/' + name);
            ASSERT_TRUE(file.open(QIODevice::ReadOnly));
            kept.push_back(file.readAll());
            zip_file_add(archive, (prefix + name.toStdString()).c_str(),
                         zip_source_buffer(archive, kept.back().data(),
                                           static_cast<zip_uint64_t>(kept.back().size()), 0),
                         0);
        }
        if (evil) zip_file_add(archive, "../evil.csv", zip_source_buffer(archive, "x", 1, 0), 0);
        ASSERT_EQ(zip_close(archive), 0);
    };
    for (const std::string prefix : {"", "ties/"}) {
        pack(prefix, false);
        ASSERT_TRUE(isPackage(path));
        const auto package = readPackage(path);
        ASSERT_TRUE(package) << package.error().message;
        EXPECT_EQ(package->studies.front().pulls.size(), 2u);
    }
    pack("", true);
    const auto evil = readPackage(path);
    ASSERT_FALSE(evil);
    EXPECT_NE(evil.error().message.find("outside"), std::string::npos) << evil.error().message;
}

TEST(Formulas, AreMadeHarmlessAndComeBack) {
    std::string text;
    addCsvRow(text, {"a", "b", "c", "d", "e"});
    addCsvRow(text, {"=1+2", "-5 mm", "+1", "@x", "'=y"});
    EXPECT_EQ(text, "a,b,c,d,e\n'=1+2,'-5 mm,+1,'@x,''=y\n");
    const auto back = readCsv(text);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->rows[0].cells, (std::vector<std::string>{"=1+2", "-5 mm", "+1", "@x", "'=y"}));
}

} // namespace
} // namespace anvil::exchange
