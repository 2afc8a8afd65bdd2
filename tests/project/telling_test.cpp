// Score card, reference lines, working limits, publishing and the index of earlier results, through the file.
#include "typed_pulls.h"

#include <QTemporaryDir>
#include <anvil/project/earlier_index.h>
#include <anvil/project/score_commands.h>
#include <anvil/project/study_commands.h>
#include <anvil/project/telling_commands.h>
#include <anvil/quantity/units.h>
#include <barrier>
#include <gtest/gtest.h>
#include <thread>

namespace anvil::project {
namespace {

struct Telling : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<OpenProject> project;
    Id study = 0;

    void SetUp() override {
        project = std::move(OpenProject::create(dir.filePath("p.anvil")).value());
        study =
            planStudy(*project, {"Which clip?", "Clips", "axial-pull", {"Clip", "Hook"}, {"Dry"}, 3}).value();
        ASSERT_TRUE(addTypedPulls(
            *project, study, 3, [](int n) { return 100.0 + 10 * n; }, "box 7"));
    }
    const domain::Telling& told() { return project->study(study)->study.telling; }
    /// What is kept is what was said, after the file was closed and opened.
    void reopen() {
        const auto before = project->study(study)->study;
        project.reset();
        project = std::move(OpenProject::open(dir.filePath("p.anvil")).value());
        EXPECT_EQ(project->study(study)->study, before);
    }
};

TEST_F(Telling, ACardIsKeptAndUndone) {
    const auto offered = offeredCriteria(*project, study);
    ASSERT_FALSE(offered.empty());
    ASSERT_TRUE(addCriterion(*project, study, offered.front()));
    domain::Criterion eye;
    eye.name = "Looks";
    eye.judged = domain::Judged::byEye;
    eye.ratings = {{"Clip", 4}};
    EXPECT_FALSE(addCriterion(*project, study, eye)) << "one rating tells nothing";
    eye.ratings.push_back({"Hook", 2.5});
    ASSERT_TRUE(addCriterion(*project, study, eye));
    EXPECT_FALSE(addCriterion(*project, study, {})) << "no name";
    ASSERT_TRUE(weighCriterion(*project, study, 1, 3));
    EXPECT_FALSE(weighCriterion(*project, study, 1, -1));
    EXPECT_FALSE(weighCriterion(*project, study, 9, 1));
    reopen();
    const auto card = cardOf(*project, study, {});
    ASSERT_TRUE(card);
    EXPECT_EQ(card->criteria.size(), 2u);
    EXPECT_DOUBLE_EQ(card->criteria[1].share, 0.75);
    const auto dragged = cardOf(*project, study, {1, 0});
    EXPECT_DOUBLE_EQ(dragged->criteria[1].share, 0) << "while it is dragged";
    ASSERT_TRUE(removeCriterion(*project, study, 0));
    EXPECT_EQ(project->study(study)->study.card.criteria.size(), 1u);
    ASSERT_TRUE(project->undo());
    EXPECT_EQ(project->study(study)->study.card.criteria.size(), 2u);
}

TEST_F(Telling, LinesAndLimitsAreReadAsTyped) {
    ASSERT_TRUE(setReferences(*project, study, {{"Gust", "0.3 kN", ""}, {"Range", "100 N", "200 N"}},
                              quantity::Dimension::force));
    ASSERT_EQ(told().references.size(), 2u);
    EXPECT_DOUBLE_EQ(told().references[0].value, 300);
    EXPECT_EQ(told().references[1].upper, 200);
    EXPECT_FALSE(setReferences(*project, study, {{"Range", "200 N", "100 N"}}, quantity::Dimension::force))
        << "upside down";
    EXPECT_FALSE(setReferences(*project, study, {{"", "200 N", ""}}, quantity::Dimension::force));
    EXPECT_FALSE(setReferences(*project, study, {{"x", "12 mm", ""}}, quantity::Dimension::force))
        << "a length is no load";
    EXPECT_EQ(told().references.size(), 2u) << "what was refused changed nothing";
    EXPECT_FALSE(setUse(*project, study, {"0.5", "why", "", "", ""}));
    EXPECT_FALSE(setUse(*project, study, {"3", "", "", "", ""})) << "a factor needs its reason";
    ASSERT_TRUE(setUse(*project, study, {"3", "weather", "50 N", "2 kN", "1,5"}));
    EXPECT_EQ(told().use, (domain::Use{3, "weather", 50, 2000, 1.5}));
    ASSERT_TRUE(setFamily(*project, study, stats::Family::weibull));
    ASSERT_TRUE(setInReport(*project, study, "floors", false));
    ASSERT_TRUE(setInReport(*project, study, "floors", false));
    EXPECT_EQ(told().leftOut.size(), 1u);
    reopen();
    EXPECT_EQ(project->study(study)->study.goal.family, stats::Family::weibull);
    ASSERT_TRUE(setInReport(*project, study, "floors", true));
    EXPECT_TRUE(told().leftOut.empty());
}

TEST_F(Telling, APublishedValueKeepsWhatItWas) {
    ASSERT_TRUE(publish(*project, study, "2026-06-01T10:00:00"));
    const auto pull = project->study(study)->pulls.front().id;
    EXPECT_FALSE(explainCorrection(*project, study, pull, "2026-06-02T10:00:00", "why"))
        << "nothing has changed";
    ASSERT_TRUE(project->changePull(pull, "Corrected", [](domain::Pull& p) { p.typed->value = 50; }));
    EXPECT_FALSE(explainCorrection(*project, study, pull, "2026-06-02T10:00:00", "  ")) << "no reason";
    ASSERT_TRUE(explainCorrection(*project, study, pull, "2026-06-02T10:00:00", "misread"));
    reopen();
    EXPECT_EQ(told().publications.front().values.front().value, 110);
    EXPECT_EQ(told().corrections.front().why, "misread");
}

TEST_F(Telling, ResultsAreRememberedByProject) {
    const auto index = dir.filePath("deep/er/earlier.tsv");
    EXPECT_TRUE(rememberedResults(index, {}).empty());
    rememberResults(index, *project);
    rememberResults(index, *project); // again: replaced, not doubled
    EXPECT_TRUE(rememberedResults(index, dir.filePath("p.anvil")).empty()) << "its own are none";
    const auto all = rememberedResults(index, dir.filePath("other.anvil"));
    ASSERT_EQ(all.size(), 2u);
    EXPECT_EQ(all[0].project, "p");
    EXPECT_EQ(all[0].option, "Hook") << "best first";
    EXPECT_EQ(all[0].at, "2026-03-03");
    EXPECT_EQ(all[0].n, 3u);
    EXPECT_DOUBLE_EQ(all[0].mean.value(), 150);
    EXPECT_DOUBLE_EQ(all[0].sd.value(), 10);
    EXPECT_EQ(all[0].batches, std::vector<std::string>{"box 7"});
    QFile broken(index);
    ASSERT_TRUE(broken.open(QIODevice::WriteOnly));
    broken.write("\x01\x02 nonsense\n\t\t\n");
    broken.close();
    EXPECT_TRUE(rememberedResults(index, {}).empty());
}

TEST_F(Telling, TwoWindowsLoseNothingOfEachOther) {
    constexpr int rounds = 15;
    const auto index = [&](int round) { return dir.filePath(QString("earlier-%1.tsv").arg(round)); };
    std::barrier both(2);
    const auto window = [&](const QString& name) {
        auto p = std::move(OpenProject::create(dir.filePath(name + ".anvil")).value());
        const auto one =
            planStudy(*p, {"Which?", "Clips", "axial-pull", {"Clip", "Hook"}, {"Dry"}, 3}).value();
        EXPECT_TRUE(addTypedPulls(
            *p, one, 3, [](int n) { return 100.0 + 10 * n; }, "box 7"));
        for (int k = 0; k < rounds; ++k) {
            both.arrive_and_wait();
            rememberResults(index(k), *p);
        }
    };
    std::thread a(window, "a"), b(window, "b");
    a.join();
    b.join();
    for (int k = 0; k < rounds; ++k)
        EXPECT_EQ(rememberedResults(index(k), {}).size(), 4u) << "two of each, round " << k;
}

} // namespace
} // namespace anvil::project
