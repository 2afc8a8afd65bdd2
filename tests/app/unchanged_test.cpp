// What is shown never comes back as data, and a bare number is in the unit that was spoken.
#include "harness.h"
#include "widgets/unit_question.h"
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QPlainTextEdit>
#include <QTabWidget>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/digits.h>
#include <clocale>
#include <cstdlib>

namespace anvil::app {
namespace {

struct Unchanged : Window {
    /// Two options with three pieces each, at the page where numbers are typed; the field for them.
    QLineEdit* readyToPull(const QStringList& conditions) {
        newStudy({"Pin", "Hook"}, conditions);
        EXPECT_TRUE(project::planReplicates(*session().project(), session().studyId(), 3));
        EXPECT_TRUE(project::makePieces(*session().project(), session().studyId(), ""));
        window->goTo(Stage::pull);
        settle();
        return child<QLineEdit>("typedValue");
    }
    /// Visits every field on show with the keyboard and leaves it with Tab. How many there were.
    int visitAll() {
        int visited = 0;
        for (auto* w : window->findChildren<QWidget*>()) {
            const bool field = qobject_cast<QLineEdit*>(w) || qobject_cast<QAbstractSpinBox*>(w) ||
                               qobject_cast<QPlainTextEdit*>(w) || qobject_cast<QComboBox*>(w);
            if (!field || !w->isVisible() || !w->isEnabled()) continue;
            w->setFocus(Qt::TabFocusReason);
            if (!w->hasFocus() && (!w->focusProxy() || !w->focusProxy()->hasFocus())) continue;
            QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
            ++visited;
        }
        return visited;
    }
    int visitTabs() {
        int visited = visitAll();
        for (auto* tabs : window->findChildren<QTabWidget*>()) {
            if (!tabs->isVisible()) continue;
            for (int i = 0; i < tabs->count(); ++i) {
                tabs->setCurrentIndex(i);
                settle();
                visited += visitAll();
            }
        }
        return visited;
    }
    void typeInto(const char* name, const QString& text) {
        auto* edit = child<QLineEdit>(name);
        ASSERT_TRUE(edit && edit->isVisible()) << name;
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Tab);
        settle();
    }
};

TEST_F(Unchanged, LeavingAFieldSavesNothing) {
    openDemo();
    session().setUnits("lbf", "in"); // nothing stands there in the digits it was typed in
    const auto before = session().project()->studies();
    const auto rigs = session().project()->rigs();
    int visited = 0;
    for (const auto& s : before) {
        session().showStudy(s.study.id);
        for (int stage = 0; stage < stageCount; ++stage) {
            window->goTo(static_cast<Stage>(stage));
            settle();
            visited += visitTabs();
            ASSERT_FALSE(session().project()->canUndo()) << s.study.title << ", stage " << stage << ": "
                                                         << session().project()->undoText().toStdString();
        }
        for (const char* page : {"Method", "Will the rig reach?", "How many?"}) {
            window->goTo(Stage::question);
            settle();
            for (auto* b : window->findChildren<QAbstractButton*>())
                if (b->isVisible() && (b->objectName() == "chooseMethod" || b->text() == page)) {
                    QTest::mouseClick(b, Qt::LeftButton);
                    settle();
                    break;
                }
            visited += visitTabs();
        }
        ASSERT_FALSE(session().project()->canUndo()) << session().project()->undoText().toStdString();
    }
    EXPECT_GT(visited, 200);
    EXPECT_TRUE(session().project()->studies() == before);
    EXPECT_TRUE(session().project()->rigs() == rigs);
}

TEST_F(Unchanged, DigitsThatAreOnlyShownStayDigits) {
    newStudy({"Pin", "Hook"}, {"Dry"});
    window->goTo(Stage::question);
    settle();
    typeInto("need", "2451.66 N");
    EXPECT_EQ(study().study.goal.need, 2451.66);
    auto* need = child<QLineEdit>("need");
    EXPECT_TRUE(need->text().startsWith("2452")) << need->text().toStdString();
    need->setFocus();
    QTest::keyClicks(need, "x");
    QTest::keyClick(need, Qt::Key_Backspace); // touched, and as it was
    QTest::keyClick(need, Qt::Key_Tab);
    settle();
    EXPECT_EQ(study().study.goal.need, 2451.66);
}

TEST_F(Unchanged, ABareNumberIsInTheUnitThatWasSpoken) {
    newStudy({"Pin", "Hook"}, {"Dry"});
    session().setUnits("kN", "mm"); // another project was looked at so
    window->goTo(Stage::question);
    settle();
    typeInto("need", "400");
    EXPECT_FALSE(study().study.goal.need) << "nobody has said a unit yet: it is asked for";
    typeInto("need", "400 N");
    EXPECT_EQ(study().study.goal.need, 400);
    typeInto("need", "450");
    EXPECT_EQ(study().study.goal.need, 450) << "newtons, as before";
    const auto path = dir.filePath("p.anvil");
    session().close();
    ASSERT_TRUE(window->openPath(path));
    settle();
    window->goTo(Stage::question);
    settle();
    typeInto("need", "500");
    EXPECT_EQ(study().study.goal.need, 500) << "kept with the study";
    key(Qt::Key_Z, Qt::ControlModifier);
    settle();
    EXPECT_EQ(study().study.goal.need, 450);
}

TEST_F(Unchanged, AnUnlikelyNumberIsAskedAbout) {
    auto* value = readyToPull({"Dry"});
    ASSERT_TRUE(value);
    const auto enter = [&](const QString& text) {
        value->setFocus();
        QTest::keyClicks(value, text);
        QTest::keyClick(value, Qt::Key_Return);
        settle();
    };
    enter("400 lb");
    ASSERT_EQ(study().pulls.size(), 1U);
    enter("410 N"); // 4.45 times off: the pounds were meant
    ASSERT_EQ(study().pulls.size(), 1U) << "not kept before it is asked about";
    pressButton("It was 410 lbf");
    settle();
    ASSERT_EQ(study().pulls.size(), 2U);
    EXPECT_NEAR(study().pulls[1].typed->value, 410 * 4.4482216152605, 1e-6);
    enter("4100");
    ASSERT_EQ(study().pulls.size(), 2U) << "ten times its fellows";
    pressButton("Keep 4100 lbf");
    settle();
    ASSERT_EQ(study().pulls.size(), 3U);
    session().project()->undo();
    settle();
    enter("40");
    EXPECT_TRUE(child<QPushButton>("unitAsTyped")->isVisible());
    pressButton("Another piece");
    EXPECT_FALSE(child<QPushButton>("unitAsTyped")->isVisible()) << "it was about the piece before";
    EXPECT_EQ(study().pulls.size(), 2U);
}

TEST_F(Unchanged, WhatWasJustKeptIsTakenBackByItsKeys) {
    auto* value = readyToPull({"Dry"});
    ASSERT_TRUE(value);
    value->setFocus();
    QTest::keyClicks(value, "4 kN");
    QTest::keyClick(value, Qt::Key_Return);
    settle();
    ASSERT_EQ(study().pulls.size(), 1U);
    ASSERT_TRUE(value->hasFocus());
    QTest::keyClick(value, Qt::Key_Z, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(study().pulls.empty()) << "the project's, not the field's";
    EXPECT_TRUE(value->text().isEmpty()) << "no old text comes back for the next piece";
    QTest::keyClicks(value, "5");
    QTest::keyClick(value, Qt::Key_Z, Qt::ControlModifier);
    EXPECT_TRUE(value->text().isEmpty()) << "what is being typed is the field's own";
}

TEST_F(Unchanged, TheNumberLandsOnThePieceThatStandsAbove) {
    auto* value = readyToPull({"Dry", "Wet"});
    ASSERT_TRUE(value);
    std::uint64_t state = 5;
    const auto pick = [&](int n) {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return static_cast<int>((state >> 33) % static_cast<std::uint64_t>(n));
    };
    int kept = 0;
    for (int step = 0; step < 60; ++step) {
        const auto above = child<QLabel>("typedPiece")->text();
        const auto before = study().pulls.size();
        domain::Id newest = 0;
        for (const auto& s : study().specimens)
            newest = std::max(newest, s.id);
        switch (pick(5)) {
        case 0:
            if (value->isVisible()) pressButton("Number lost");
            break;
        case 1:
            if (value->isVisible()) pressButton("Another piece");
            break;
        case 2:
            key(Qt::Key_Z, Qt::ControlModifier);
            break;
        case 3: {
            auto* option = child<QLineEdit>("unplannedOption");
            auto* condition = child<QLineEdit>("unplannedCondition");
            if (step > 30) break;
            option->setFocus();
            QTest::keyClicks(option, "Pin");
            condition->setFocus();
            condition->selectAll();
            QTest::keyClicks(condition, "Dry");
            QTest::keyClick(condition, Qt::Key_Return);
            settle();
            EXPECT_EQ(child<QLabel>("typedPiece")->text().toStdString(),
                      std::max_element(study().specimens.begin(), study().specimens.end(),
                                       [](const auto& a, const auto& b) { return a.id < b.id; })
                          ->label)
                << "what was just added is next";
            break;
        }
        default:
            if (!value->isVisible()) break;
            value->setFocus();
            QTest::keyClicks(value, QString("4.%1 kN").arg(step % 10));
            QTest::keyClick(value, Qt::Key_Return);
        }
        settle();
        if (study().pulls.size() > before) {
            const auto& pull = *std::max_element(study().pulls.begin(), study().pulls.end(),
                                                 [](const auto& a, const auto& b) { return a.id < b.id; });
            const auto& piece = study().specimenAt(pull.specimen);
            if (above.startsWith("The ")) { // it was only made for the number
                EXPECT_GT(piece.id, newest) << step;
            } else {
                EXPECT_EQ(piece.label, above.toStdString()) << step;
            }
            ++kept;
        }
    }
    EXPECT_GT(kept, 5);
}

/// What a walk through Question and Rig keeps, under a locale.
struct Walked {
    std::optional<double> need, limit;
    double margin = 0;
    std::string shown;
    bool operator==(const Walked&) const = default;
};

TEST_F(Unchanged, AWalkUnderACommaIsTheSame) {
    setenv("LOCPATH", ANVIL_COMMA_LOCALES, 1);
    std::vector<Walked> walks;
    for (const bool comma : {false, true}) {
        std::setlocale(LC_ALL, comma ? "de_DE.UTF-8" : "C");
        QLocale::setDefault(comma ? QLocale(QLocale::German) : QLocale::c());
        if (comma) {
            ASSERT_STREQ(std::localeconv()->decimal_point, ",") << "the locale was not made";
        }
        quantity::usePoints(); // as the program does after its application object
        session().close();
        ASSERT_TRUE(session().create(dir.filePath(comma ? "comma.anvil" : "point.anvil")));
        newStudy({"Pin", "Hook"}, {"Dry"});
        window->goTo(Stage::question);
        settle();
        typeInto("need", "1234.5 N");
        auto* margin = child<QAbstractSpinBox>("studyMargin");
        margin->setFocus();
        margin->selectAll();
        QTest::keyClicks(margin, "12,5");
        QTest::keyClick(margin, Qt::Key_Tab);
        settle();
        visitTabs();
        window->goTo(Stage::rig);
        settle();
        visitTabs();
        walks.push_back({study().study.goal.need, study().reach.limit, study().study.goal.margin,
                         child<QLineEdit>("need")->text().toStdString()});
    }
    std::setlocale(LC_ALL, "C");
    QLocale::setDefault(QLocale());
    EXPECT_EQ(walks[0].need, 1234.5);
    EXPECT_NEAR(walks[0].margin, 0.125, 1e-12);
    EXPECT_TRUE(walks[0] == walks[1]) << walks[0].shown << " / " << walks[1].shown;
}

} // namespace
} // namespace anvil::app
