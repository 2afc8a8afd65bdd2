// Readings kept beside their samples: the same to the last bit, and nothing where there is a doubt.
#include "../../src/store/reading_bytes.h"

#include <QSqlDatabase>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <anvil/store/project.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::store;

namespace {

/// Every field other than it is made.
ReadingAndSettings full() {
    ReadingAndSettings x;
    x.settings.rigLimit = 5000;
    x.settings.calibratedTo = 4000;
    x.settings.crossheadSpeed = 0.001;
    x.settings.preload = 12;
    x.settings.breakShare = 0.3;
    x.settings.peak = curve::Override{1.5, false};
    x.settings.firstSlip = curve::Override{0, true};
    x.settings.breakPoint = curve::Override{2.5, false};
    x.settings.fitFrom = curve::Override{0.5, false};
    x.settings.fitTo = curve::Override{0.75, false};
    auto& r = x.reading;
    r.samples = 5000;
    r.dropped = 3;
    r.spikes = 2;
    r.baseline = -1.25;
    r.noise = 0.1;
    r.resolution = 0.5;
    r.flipped = r.offScale = r.guessed = r.againstTime = true;
    r.loadKind = quantity::Dimension::torque;
    r.travelKind = quantity::Dimension::angle;
    r.breakaway = 4.5;
    r.running = 1.0 / 3;
    r.departure = 17;
    r.peak = {900, 9.0, 4321.0987654321, 0.0123, true};
    r.firstSlip = curve::Landmark{400, 4.0, 2000, {}, false};
    r.breakPoint = curve::Landmark{950, 9.5, 1700, 0.014, true};
    r.stiffness = curve::Stiffness{5e5, 12, 0.9993, 212, 640, 20, 120, 101, true, true};
    r.toe = 0.001;
    r.slack = 0.002;
    r.energyToFirstSlip = 1;
    r.energyToPeak = 20;
    r.energyToBreak = 30;
    r.residual = curve::Residual{400, 0.1};
    r.fall = curve::Fall{0.2, "sudden"};
    r.loadRate = 100;
    r.travelRate = 0.0007;
    r.warnings = {"A gap of 2 s.", ""};
    r.notes = {"The force was logged as negative."};
    return x;
}

TEST(ReadingBytes, ComeBackTheSame) {
    const auto x = full();
    const auto back = readingFrom(toBytes(x.settings, x.reading));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->settings, x.settings);
    EXPECT_EQ(back->reading, x.reading);
    const auto empty = readingFrom(toBytes({}, {}));
    ASSERT_TRUE(empty);
    EXPECT_EQ(empty->reading, curve::Reading{});
    EXPECT_EQ(empty->settings, curve::ReadingSettings{});
}

/// Whatever is cut off, added or turned, there is no crash, and what is short or long is no reading.
TEST(ReadingBytes, WhatIsNotAllOfThemIsNone) {
    const auto x = full();
    const auto bytes = toBytes(x.settings, x.reading);
    for (qsizetype n = 0; n < bytes.size(); ++n)
        EXPECT_FALSE(readingFrom(bytes.left(n))) << n;
    EXPECT_FALSE(readingFrom(bytes + QByteArray(1, 0)));
    for (qsizetype i = 0; i < bytes.size(); ++i)
        for (const char c : {'\x01', '\x7f', '\xff'}) {
            auto turned = bytes;
            turned[i] = c;
            (void)readingFrom(turned);
        }
}

struct KeptReadings : testing::Test {
    QTemporaryDir dir;
    QString path = dir.filePath("p.anvil");
    Id curve = 0;
    QString digest;

    void SetUp() override {
        auto p = Project::create(path);
        ASSERT_TRUE(p);
        curve::Curve c;
        for (int i = 0; i < 200; ++i) {
            c.time.push_back(i * 0.01);
            c.load.push_back(i < 20 ? 0 : i < 150 ? 10.0 * i : 5);
        }
        ASSERT_TRUE((*p)->write("curve", [&](Writer& w) { curve = w.addCurve(c); }));
        digest = (*p)->finishedCurves().value().at(curve);
        const auto x = full();
        (*p)->keepReadings({{curve, digest, x.settings, x.reading}});
    }
    std::vector<KeptReading> kept() {
        return (*Project::open(path, Project::Access::readOnly))->keptReadings();
    }
    void sql(const QString& statement) {
        {
            auto db = QSqlDatabase::addDatabase("QSQLITE", "poke");
            db.setDatabaseName(path);
            ASSERT_TRUE(db.open());
            EXPECT_TRUE(QSqlQuery(db).exec(statement));
        }
        QSqlDatabase::removeDatabase("poke");
    }
};

TEST_F(KeptReadings, OutliveTheProgram) {
    const auto all = kept();
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].curve, curve);
    EXPECT_EQ(all[0].reading, full().reading);
    EXPECT_EQ(all[0].settings, full().settings);
    auto p = Project::open(path);
    EXPECT_TRUE((*p)->check().problems.isEmpty());
    EXPECT_TRUE((*p)->journal().value().empty()) << "a cache is no change";
    auto other = full();
    other.reading.peak.load = 1;
    (*p)->keepReadings({{curve, digest, other.settings, other.reading}});
    (void)(*p)->write("waits", [](Writer&) {});
    ASSERT_EQ((*p)->keptReadings().size(), 1U) << "one for a curve";
    EXPECT_EQ((*p)->keptReadings()[0].reading.peak.load, 1);
    (*p)->dropReading(curve);
    (void)(*p)->write("waits", [](Writer&) {});
    EXPECT_TRUE((*p)->keptReadings().empty());
}

TEST_F(KeptReadings, OfAnotherReaderAreNone) {
    sql("UPDATE reading SET reader = reader + 1");
    EXPECT_TRUE(kept().empty());
}

TEST_F(KeptReadings, OfOtherSamplesAreNone) {
    sql("UPDATE reading SET digest = 'other'");
    EXPECT_TRUE(kept().empty());
}

TEST_F(KeptReadings, ThatAreDamagedAreNone) {
    sql("UPDATE reading SET data = zeroblob(length(data))");
    EXPECT_TRUE(kept().empty());
    sql("UPDATE reading SET data = x''");
    EXPECT_TRUE(kept().empty());
}

TEST_F(KeptReadings, WhatIsRecordedBesideACurveIsNotInItsDigest) {
    auto p = Project::open(path);
    curve::Curve shape;
    shape.time = {0};
    shape.load = {0};
    Id main = 0, side = 0;
    ASSERT_TRUE((*p)->write("recording", [&](Writer& w) {
        main = w.beginCurve(shape);
        side = w.beginCurve(shape, main);
    }));
    const auto finished = (*p)->finishedCurves().value();
    EXPECT_TRUE(finished.contains(curve));
    EXPECT_FALSE(finished.contains(main));
    EXPECT_FALSE(finished.contains(side));
}

TEST_F(KeptReadings, SamplesAreVerifiedBehindThem) {
    const auto problems = [&] {
        QStringList out;
        auto p = Project::open(path, Project::Access::readOnly);
        const std::vector<Id> all{curve};
        (*p)->verifySamples(all, [&](Id, const Expected<void>& ok) {
            if (!ok) out << QString::fromStdString(ok.error().message);
            return true;
        });
        return out;
    };
    EXPECT_TRUE(problems().isEmpty());
    sql("UPDATE chunk SET data = zeroblob(length(data))");
    EXPECT_EQ(problems().size(), 1);
}

} // namespace
