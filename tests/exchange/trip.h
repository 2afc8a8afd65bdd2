// A project and its way through a package.
#pragma once

#include "ids.h"

#include <QTemporaryDir>
#include <anvil/exchange/export.h>
#include <anvil/exchange/package.h>
#include <anvil/project/open_project.h>
#include <anvil/store/texts.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

namespace anvil::exchange {

/// The studies of a project as a package counts them.
inline std::vector<domain::StudyData> counted(const store::Project& project) {
    IdMaps maps;
    auto all = project.load();
    EXPECT_TRUE(all) << all.error().message;
    auto out = numbered(all.value_or(std::vector<domain::StudyData>{}), maps, project.setups().value());
    for (auto& data : out)
        for (auto& a : data.attachments)
            a.file = 0; // files are compared by what is in them
    return out;
}

inline std::unique_ptr<store::Project> fresh(const QString& path) {
    auto made = store::Project::create(path);
    EXPECT_TRUE(made) << made.error().message;
    return std::move(*made);
}

/// What differs can be read from these.
inline std::string textOf(const domain::Study& s) {
    return s.title + " | " + s.question + " | " + s.note + " | " + std::string(s.goal.metric->key) + " | " +
           std::to_string(s.goal.margin) + " | " + domain::key(s.intent) + " | " +
           store::planToJson(s).toStdString();
}
inline std::string textOf(const domain::Pull& p) {
    return p.performedAt + " | " + p.sourceName + " | " + p.note + " | " + p.reason + " | " +
           domain::key(p.standing) + " | " + p.operatorName + " | " + std::to_string(p.setup) + " | " +
           std::to_string(p.curve) + " | " +
           (p.typed ? fmt::format("{} {} {} {}", p.typed->metric->key, p.typed->value, p.typed->upper,
                                  p.typed->asTyped)
                    : "") +
           " | " + store::settingsToJson(p.settings).toStdString() + " | " +
           store::outcomeToJson(p.outcome).toStdString();
}

/// Exports a project and imports it into another, which must be equal: studies, curves, files and rigs.
inline void expectEqualAfterTrip(const store::Project& project) {
    QTemporaryDir dir;
    const auto folder = dir.filePath("package");
    const auto written = exportProject(project, folder);
    ASSERT_TRUE(written) << written.error().message;
    const auto package = readPackage(folder);
    ASSERT_TRUE(package) << package.error().message;
    const auto other = fresh(dir.filePath("other.anvil"));
    const auto taken = takeIn(*other, *package);
    ASSERT_TRUE(taken) << taken.error().message;

    const auto a = counted(project), b = counted(*other);
    ASSERT_EQ(a.size(), b.size());
    for (std::size_t i = 0; i < a.size(); ++i) {
        EXPECT_EQ(textOf(a[i].study), textOf(b[i].study));
        EXPECT_TRUE(a[i].study == b[i].study) << a[i].study.title;
        EXPECT_TRUE(a[i].options == b[i].options);
        EXPECT_TRUE(a[i].conditions == b[i].conditions);
        EXPECT_TRUE(a[i].specimens == b[i].specimens);
        ASSERT_EQ(a[i].pulls.size(), b[i].pulls.size());
        for (std::size_t k = 0; k < a[i].pulls.size(); ++k) {
            EXPECT_EQ(textOf(a[i].pulls[k]), textOf(b[i].pulls[k]));
            EXPECT_TRUE(a[i].pulls[k] == b[i].pulls[k]) << a[i].study.title << ", pull " << k;
        }
        EXPECT_TRUE(a[i].attachments == b[i].attachments);
    }
    const auto digests = [](const store::Project& p) {
        std::multiset<QString> out;
        const auto finished = p.finishedCurves();
        for (const auto& [id, digest] : *finished)
            out.insert(digest);
        return out;
    };
    EXPECT_TRUE(digests(project) == digests(*other));
    const auto files = [](const store::Project& p) {
        std::multiset<std::pair<QString, QByteArray>> out;
        const auto all = p.importedFiles();
        for (const auto id : *all) {
            const auto file = p.importedFile(id);
            out.emplace(file->name, file->unpack().value());
        }
        return out;
    };
    EXPECT_TRUE(files(project) == files(*other));
    const auto rigs = [](const store::Project& p) {
        std::multiset<std::tuple<QString, int, QString>> out;
        const auto all = p.setups();
        for (const auto& s : *all)
            out.emplace(s.rig, s.version, s.json);
        return out;
    };
    EXPECT_TRUE(rigs(project) == rigs(*other));
    EXPECT_TRUE(other->check().problems.isEmpty());
}

} // namespace anvil::exchange
