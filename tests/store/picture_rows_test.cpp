// What is marked on a picture, through text and file.
#include <QFile>
#include <QTemporaryDir>
#include <anvil/store/project.h>
#include <anvil/store/texts.h>
#include <gtest/gtest.h>

namespace anvil::store {
namespace {

methods::PictureMarks some() {
    using methods::MarkKind;
    return {{{{10.5, 20}, {310.25, 22}, {305, 230}, {12, 228}}, 0.3, 0.2, 0.0005},
            1.5,
            {{MarkKind::distance, "sag", {{1, 2}, {3.125, 4}}},
             {MarkKind::whole, "", {{0, 0}, {50, 0}, {50, 50}}},
             {MarkKind::angle, "leg α", {{0, 0}, {9, 0}, {9, 9}}}}};
}

TEST(PictureRows, ComeBackAsTheyWere) {
    const auto marks = some();
    EXPECT_EQ(*marksFromJson(marksToJson(marks)), marks);
    EXPECT_EQ(*marksFromJson(marksToJson({})), methods::PictureMarks{});
    EXPECT_EQ(*marksFromJson(QString()), methods::PictureMarks{});
    EXPECT_EQ(marksToJson({}), "{}");
}

TEST(PictureRows, WhatIsNoMarkIsRefused) {
    for (const char* json :
         {R"({"marks":[{"kind":"circle","points":[]}]})", R"({"marks":[{"kind":"area","points":[[1]]}]})",
          R"({"marks":[{"kind":"area","points":[["a","b"]]}]})", R"({"scale":{"points":7}})",
          R"({"marks":7})", R"({"click_px":"two"})", "[1", R"({"scale":{"points":[],"length_m":1e999}})"})
        EXPECT_FALSE(marksFromJson(json)) << json;
}

TEST(PictureRows, AFileOfVersion8GetsThem) {
    QTemporaryDir dir;
    const auto path = dir.filePath("p.anvil");
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-8.anvil"), path));
    QFile(path).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    {
        const auto project = Project::open(path);
        ASSERT_TRUE(project) << project.error().message;
        const auto studies = (*project)->load();
        ASSERT_TRUE(studies) << studies.error().message;
        ASSERT_EQ(studies->front().attachments.size(), 1u);
        EXPECT_EQ(studies->front().attachments[0].marks, methods::PictureMarks{});
        const auto before = studies->front().attachments[0];
        auto after = before;
        after.marks = some();
        ASSERT_TRUE((*project)->write("marked", [&](Writer& w) { w.change(before, after); }));
    }
    EXPECT_TRUE(QFile::exists(dir.filePath("p.version-8.anvil")));
    const auto again = Project::open(path);
    EXPECT_EQ((*again)->load()->front().attachments[0].marks, some());
    EXPECT_TRUE((*again)->check().problems.isEmpty());
}

} // namespace
} // namespace anvil::store
