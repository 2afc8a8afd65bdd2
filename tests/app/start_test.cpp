// From an empty window into a project, through each of the four doors, by clicks and keys.
#include "harness.h"

#include "shell/documents.h"
#include "shell/preferences.h"
#include "shell/rig_desk.h"
#include <QDir>
#include <QFileInfo>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QStandardPaths>
#include <anvil/project/board_commands.h>

namespace anvil::app {
namespace {

struct Start : Window {
    void SetUp() override {
        QDir(QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)).removeRecursively();
        Window::SetUp();
    }
    QString path() { return session().project()->file().path(); }
    QAbstractButton* saying(const QString& text) {
        for (auto* b : window->findChildren<QAbstractButton*>())
            if (b->isVisible() && b->text() == text) return b;
        ADD_FAILURE() << "nothing says " << text.toStdString();
        return nullptr;
    }
    void click(const QString& text) {
        if (auto* b = saying(text)) QTest::mouseClick(b, Qt::LeftButton);
        settle();
    }
    QString said() { return visibleTexts(window.get()).join('\n'); }
    void typeList(const char* name, const QStringList& rows) {
        auto* list = child<RowEditor>(name);
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {},
                          list->visualItemRect(list->item(0, 0)).center());
        for (const auto& row : rows) { // as it is typed: the editor takes the keys
            QTest::keyClicks(list, row.left(1));
            auto* editor = list->viewport()->findChild<QLineEdit*>();
            ASSERT_TRUE(editor) << row.toStdString();
            QTest::keyClicks(editor, row.mid(1));
            QTest::keyClick(editor, Qt::Key_Return);
            settle();
        }
    }
};

TEST_F(Start, AnEmptyWindowAsksWhatIsWanted) {
    EXPECT_TRUE(said().contains("What do you want to do?"));
    EXPECT_FALSE(child<QPushButton>("headline")->isVisible()) << "there is no question yet";
    EXPECT_FALSE(said().contains("Lately"));
    for (const char* door : {"Plan a test", "I have logs or a table", "Practise", "Look at a worked example"})
        EXPECT_TRUE(saying(door)->focusPolicy() & Qt::TabFocus) << door;
}

TEST_F(Start, APlanIsThreeStepsAndAsksForNoFileName) {
    click("Plan a test");
    QTest::keyClicks(shown<QLineEdit>("The question"), "Which peg holds best: long/short?");
    EXPECT_TRUE(said().contains("Type at least two options"));
    QTest::keyClicks(shown<QLineEdit>("Find a method"), "wire");
    EXPECT_FALSE(said().contains("Drop"));
    click("Axial pull");
    EXPECT_FALSE(said().contains("Creep")) << "what was picked leaves the room to the next step";
    typeList("planOptions", {"Long", "Short", "Screw"});
    EXPECT_TRUE(said().contains("15 pieces in 3 squares.")) << said().toStdString();
    EXPECT_TRUE(said().contains("5 of each show a difference of")) << said().toStdString();
    typeList("planConditions", {"Dry", "Wet"});
    EXPECT_TRUE(said().contains("30 pieces in 6 squares."));
    click("Make the study");
    ASSERT_TRUE(session().project());
    EXPECT_EQ(QFileInfo(path()).fileName(), "Which peg holds best long short.anvil");
    EXPECT_EQ(QFileInfo(path()).absolutePath(),
              QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation));
    EXPECT_EQ(study().study.question, "Which peg holds best: long/short?");
    EXPECT_EQ(study().study.plan.method, "axial-pull");
    EXPECT_EQ(study().study.plan.replicates, 5);
    ASSERT_EQ(study().options.size(), 3U);
    EXPECT_EQ(study().options[2].name, "Screw");
    ASSERT_EQ(study().conditions.size(), 2U);
    EXPECT_EQ(child<StageStrip>("strip")->current(), Stage::question) << "the plan, not an empty verdict";
    EXPECT_TRUE(window->messageText().contains("Kept in"));
    key(Qt::Key_Z, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(session().project()->studies().empty()) << "one undo takes all of it back";
}

TEST_F(Start, WhatCannotBeIsSaidAndNothingIsMade) {
    click("Plan a test");
    typeList("planOptions", {"Long", "long"});
    EXPECT_TRUE(said().contains("\"long\" stands twice among the options."));
    click("Make the study");
    EXPECT_FALSE(session().project());
    EXPECT_TRUE(window->messageText().contains("stands twice"));
    click("Axial pull");
    click("Back");
    click("Plan a test");
    EXPECT_TRUE(said().contains("Creep")) << "afresh";
    click("Back");
    EXPECT_TRUE(said().contains("What do you want to do?"));
}

TEST_F(Start, TheWorkedExampleIsACopyWithAClockOfItsOwn) {
    click("Look at a worked example");
    ASSERT_TRUE(session().project());
    EXPECT_EQ(QFileInfo(path()).completeBaseName(), "Worked example");
    EXPECT_GE(session().project()->studies().size(), 3U);
    EXPECT_EQ(child<StageStrip>("strip")->current(), Stage::verdict);
    EXPECT_EQ(session().now().date(), QDate(2026, 5, 4));
    const auto example = path();
    ASSERT_TRUE(window->createProject("Mine"));
    EXPECT_NE(session().now().date(), QDate(2026, 5, 4)) << "the wall's clock again";
    ASSERT_TRUE(window->openPath(example));
    EXPECT_EQ(session().now().date(), QDate(2026, 5, 4));
    key(Qt::Key_0, Qt::ControlModifier);
    settle();
    click("Look at a worked example");
    EXPECT_EQ(QFileInfo(path()).completeBaseName(), "Worked example 2") << "a fresh one beside it";
}

TEST_F(Start, PracticeGoesIntoAProjectOfItsOwnThatStays) {
    click("Practise");
    ASSERT_TRUE(session().project());
    EXPECT_EQ(QFileInfo(path()).completeBaseName(), "Practice");
    EXPECT_TRUE(study().study.plan.practice);
    EXPECT_EQ(child<StageStrip>("strip")->current(), Stage::pull);
    EXPECT_TRUE(waitFor([&] { return session().rig().live().link == station::LinkState::connected; }));
    session().close();
    key(Qt::Key_0, Qt::ControlModifier);
    settle();
    click("Practise");
    EXPECT_EQ(QFileInfo(path()).completeBaseName(), "Practice") << "the same one";
    EXPECT_EQ(session().project()->studies().size(), 1U);
}

TEST_F(Start, ProjectsOfLatelyAreListedWithTheirAnswer) {
    openDemo();
    const auto question = QString::fromStdString(study().study.question);
    key(Qt::Key_0, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(said().contains("Lately"));
    const auto all = preferences::recent();
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].progress, "40 of 40 pulled");
    EXPECT_TRUE(all[0].leads.contains("Pressed sleeve")) << all[0].leads.toStdString();
    ASSERT_EQ(all[0].rungs.size(), 4U);
    EXPECT_GT(all[0].rungs[0].mean, all[0].rungs[3].mean);
    click(question);
    ASSERT_TRUE(waitFor([&] { return child<StageStrip>("strip")->isVisible(); })) << "it is open still";
    key(Qt::Key_0, Qt::ControlModifier);
    session().close();
    settle();
    click(question);
    ASSERT_TRUE(waitFor([&] { return session().project() != nullptr; }));
    EXPECT_EQ(QFileInfo(path()).fileName(), "demo.anvil");
    QFile::remove(dir.filePath("demo.anvil"));
    session().close();
    key(Qt::Key_0, Qt::ControlModifier);
    settle();
    EXPECT_FALSE(said().contains("Lately")) << "what is gone is not offered";
}

TEST_F(Start, AProjectIsRenamedAndGoesOn) {
    openDemo();
    const auto before = study().pulls.size();
    ASSERT_TRUE(window->moveTo(dir.filePath("end fittings.anvil")));
    EXPECT_EQ(QFileInfo(path()).fileName(), "end fittings.anvil");
    EXPECT_FALSE(QFileInfo::exists(dir.filePath("demo.anvil")));
    EXPECT_EQ(study().pulls.size(), before);
    EXPECT_TRUE(window->windowTitle().contains("end fittings"));
    ASSERT_TRUE(project::addOption(*session().project(), session().studyId(), "Another"));
    QFile other(dir.filePath("other.anvil"));
    ASSERT_TRUE(other.open(QIODevice::WriteOnly));
    EXPECT_FALSE(window->moveTo(dir.filePath("other.anvil"))) << "nothing is written over";
    EXPECT_TRUE(window->messageText().contains("there already"));
    EXPECT_EQ(QFileInfo(path()).fileName(), "end fittings.anvil") << "and it goes on where it was";
    EXPECT_EQ(QFileInfo(other).size(), 0);
    EXPECT_FALSE(window->moveTo(dir.filePath("no/such/folder.anvil")));
    EXPECT_EQ(study().options.back().name, "Another");
}

TEST(Documents, NamesAreFitForAnyDisk) {
    EXPECT_EQ(fileNameFrom("Which holds best?"), "Which holds best");
    EXPECT_EQ(fileNameFrom("../../etc/passwd"), "etc passwd");
    EXPECT_EQ(fileNameFrom(" ... "), "Study");
    EXPECT_EQ(fileNameFrom(""), "Study");
    EXPECT_EQ(fileNameFrom("a\nb\tc*<>|"), "a b c");
    EXPECT_LE(fileNameFrom(QString(500, 'x')).size(), 60);
    EXPECT_EQ(fileNameFrom(QString::fromUtf8("Größte Last – Öse")), QString::fromUtf8("Größte Last Öse"));
    const auto long_ = fileNameFrom(
        "Which of the many end fittings that we bought in May holds a three millimetre wire best");
    EXPECT_TRUE(long_.endsWith("that we bought in May") || long_.size() <= 60) << long_.toStdString();
    EXPECT_FALSE(fileNameFrom(QString::fromUtf8("🔩").repeated(40)).back().isHighSurrogate());
}

} // namespace
} // namespace anvil::app
