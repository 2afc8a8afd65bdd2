// The pages of the verdict by keys and mouse: weights, two groups side by side, scales, setting aside, use,
// publishing.
#include "harness.h"

#include "shell/earlier_index.h"
#include "typed_pulls.h"
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QSlider>
#include <QTabBar>
#include <QTimer>

namespace anvil::app {
namespace {

struct VerdictPages : Window {
    void open(const char* title) {
        openDemo();
        for (const auto& s : session().project()->studies())
            if (s.study.title == title) return session().showStudy(s.study.id);
        ADD_FAILURE() << "no study " << title;
    }
    QString seen() { return visibleTexts(window->verdict()).join("\n"); }
    /// Fills the form that opens next: fields by their names, then its action.
    static void fillNext(const QList<std::pair<QString, QString>>& fields, const QString& action) {
        QTimer::singleShot(50, [=] {
            auto* form = qobject_cast<QDialog*>(QApplication::activeModalWidget());
            ASSERT_TRUE(form);
            for (const auto& [name, text] : fields) {
                QLineEdit* found = nullptr;
                for (auto* edit : form->findChildren<QLineEdit*>())
                    if (edit->accessibleName() == name) found = edit;
                ASSERT_TRUE(found) << name.toStdString();
                QTest::keyClicks(found, text);
            }
            for (auto* button : form->findChildren<QPushButton*>())
                if (button->text() == action) return QTest::mouseClick(button, Qt::LeftButton);
            ADD_FAILURE() << "no " << action.toStdString();
            form->reject();
        });
    }
    /// Chooses in the box that is called this, as by key.
    void choose(const QString& box, const QString& start) {
        auto* combo = shown<QComboBox>(box);
        ASSERT_TRUE(combo);
        for (int i = 0; i < combo->count(); ++i)
            if (combo->itemText(i).startsWith(start)) {
                combo->setCurrentIndex(i);
                emit combo->activated(i);
                return settle();
            }
        ADD_FAILURE() << box.toStdString() << " offers no " << start.toStdString();
    }
};

TEST_F(VerdictPages, AWeightIsDraggedAndTheWinnersShareMoves) {
    open("Recycled-plastic slats");
    showPage("Score card");
    const auto before = seen();
    EXPECT_TRUE(before.contains("With these weights Oxbow comes first")) << before.toStdString();
    EXPECT_TRUE(before.contains("Stonecrop: only 86 % of the weight is tested"));
    EXPECT_TRUE(before.contains("4.20 EUR")) << "a price has its currency";
    auto* weight = shown<QSlider>("Weight of Weight");
    ASSERT_TRUE(weight);
    weight->setFocus();
    QTest::keyClick(weight, Qt::Key_Home); // what it weighs counts for nothing
    settle();
    const auto after = seen();
    EXPECT_NE(after, before);
    EXPECT_FALSE(after.contains("With these weights Oxbow comes first, 90")) << after.toStdString();
    EXPECT_DOUBLE_EQ(study().study.card.criteria[2].weight, 0);
    key(Qt::Key_Z, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(seen().contains("With these weights Oxbow comes first, 90")) << "one undo";
}

TEST_F(VerdictPages, ACardIsMadeFromWhatIsOffered) {
    open("Wire end fittings");
    showPage("Score card");
    EXPECT_TRUE(seen().contains("Different tests have different winners"));
    for (auto* b : window->verdict()->findChildren<QPushButton*>())
        if (b->isVisible() && b->text() == "Add to the card") {
            QTest::mouseClick(b, Qt::LeftButton);
            break;
        }
    settle();
    ASSERT_EQ(study().study.card.criteria.size(), 1U);
    EXPECT_TRUE(seen().contains("Pressed sleeve comes first, 100 of 100")) << seen().toStdString();
    QTimer::singleShot(50, [] {
        auto* form = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        ASSERT_TRUE(form);
        auto* rows = form->findChild<RowEditor*>();
        rows->item(0, 1)->setText("2");
        rows->item(1, 1)->setText("5");
        QTest::keyClicks(form->findChild<QLineEdit*>(), "ease of fitting");
        for (auto* button : form->findChildren<QPushButton*>())
            if (button->text() == "Add to the card") QTest::mouseClick(button, Qt::LeftButton);
    });
    pressButton("Judge by eye…");
    settle();
    ASSERT_EQ(study().study.card.criteria.size(), 2U);
    EXPECT_TRUE(seen().contains("Weight of ease") || shown<QSlider>("Weight of ease of fitting"));
}

TEST_F(VerdictPages, TwoAreChosenAndSideBySide) {
    openDemo();
    showPage("Pairs and why");
    EXPECT_TRUE(seen().contains("Pressed sleeve is stronger than Wedge socket in Plain: 12 % more"));
    EXPECT_TRUE(seen().contains("Told by 20 000 draws"));
    choose("with", "Saddle clamps in Plain");
    EXPECT_TRUE(seen().contains("Pressed sleeve is stronger than Saddle clamps in Plain: 5"))
        << seen().toStdString();
    EXPECT_TRUE(seen().contains("1 value is set aside")) << "the mislabelled piece";
    choose("Compare", "Pressed sleeve in Salt-soaked");
    EXPECT_TRUE(seen().contains("in Salt-soaked"));
    const auto pairs = session().verdict(study().study.goal.metric).pairs;
    auto* triangle = child<PictureView>("triangle");
    ASSERT_TRUE(triangle);
    const auto at = triangle->placeOf(chart::OfPair{pairs.at(1).a, pairs.at(1).b});
    ASSERT_FALSE(at.isNull());
    QTest::mouseClick(triangle, Qt::LeftButton, {}, at);
    settle();
    EXPECT_EQ(shown<QComboBox>("Compare")->currentText(), "Pressed sleeve in Plain");
}

TEST_F(VerdictPages, TheLadderIsShownForItsPrice) {
    open("Blind rivets in hoop tube");
    ladder();
    choose("Shown", "For its price");
    EXPECT_TRUE(seen().contains("N per EUR")) << seen().toStdString();
    choose("Shown", "Against the rating");
    EXPECT_TRUE(seen().contains("as a share of the rating (%)"));
    choose("Shown", "As it is");
    EXPECT_TRUE(seen().contains("Peak force (N)"));
}

TEST_F(VerdictPages, LinesAreDrawnToSeeResultsAgainst) {
    openDemo();
    ladder();
    QTimer::singleShot(50, [] {
        auto* form = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        ASSERT_TRUE(form);
        auto* rows = form->findChild<RowEditor*>();
        rows->item(0, 0)->setText("Gust");
        rows->item(0, 1)->setText("3.5 kN");
        rows->item(0, 2)->setText("3 kN");
        QPushButton* draw = nullptr;
        for (auto* button : form->findChildren<QPushButton*>())
            if (button->text() == "Draw them") draw = button;
        ASSERT_TRUE(draw);
        QTest::mouseClick(draw, Qt::LeftButton);
        EXPECT_TRUE(form->isVisible());
        EXPECT_TRUE(visibleTexts(form).join("\n").contains("upside down"));
        rows->item(0, 2)->setText("4 kN");
        QTest::mouseClick(draw, Qt::LeftButton);
    });
    pressButton("Lines…");
    settle();
    EXPECT_TRUE(seen().contains("Gust 3500 to 4000 N")) << seen().toStdString();
}

TEST_F(VerdictPages, AnOddValueIsSetAsideWithItsReason) {
    open("Ground pegs");
    EXPECT_TRUE((ladder(), seen()).contains("Straight: Spiral has the highest mean"));
    window->goTo(Stage::report);
    settle();
    EXPECT_TRUE(
        visibleTexts(child<QScrollArea>("reportScroll")).join("\n").contains("C1-3 of Spiral in Straight"))
        << "the report tells of it too";
    showPage("Floors");
    ASSERT_TRUE(seen().contains("C1-3 of Spiral in Straight"));
    EXPECT_TRUE(seen().contains("fits best")) << "the probability plot";
    fillNext({{"Physical reason", "a root came up with it"}}, "Set it aside");
    for (auto* b : window->verdict()->findChildren<QPushButton*>())
        if (b->isVisible() && b->text() == "Set it aside…") {
            QTest::mouseClick(b, Qt::LeftButton);
            break;
        }
    settle();
    EXPECT_EQ(study().pull(pullOf("C1-3"))->standing, domain::Standing::aside);
    EXPECT_EQ(study().pull(pullOf("C1-3"))->reason, "a root came up with it");
    EXPECT_TRUE((ladder(), seen()).contains("Straight: Angle iron")) << seen().toStdString();
}

TEST_F(VerdictPages, AWorkingLimitNeedsAReason) {
    openDemo();
    showPage("Working limit");
    EXPECT_TRUE(seen().contains("No design factor is chosen yet."));
    EXPECT_TRUE(seen().contains("licensed or competent person"));
    choose("Design factor", "3");
    EXPECT_TRUE(seen().contains("90/95 floor ÷ 3")) << seen().toStdString();
    fillNext({{"Load to be held in all", "5 kN"}, {"Rounded down to", "100 N"}}, "Use these");
    pressButton("Set them…");
    settle();
    EXPECT_TRUE(seen().contains("rounded down to 100 N"));
    EXPECT_TRUE(seen().contains("1200 N")) << "3893 ÷ 3, rounded down";
}

TEST_F(VerdictPages, WhatWasPublishedStaysKnown) {
    open("Hose-clamp screws");
    window->goTo(Stage::report);
    settle();
    pressButton("Mark as published");
    settle();
    ASSERT_EQ(study().study.telling.publications.size(), 1U);
    const auto pull = pullOf("A1-1");
    ASSERT_TRUE(
        session().project()->changePull(pull, "Corrected", [](domain::Pull& p) { p.typed->value = 5; }));
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("A1-1 was published on")) << "in the report";
    session().selectPull(pull);
    menu("Open or close the ledger");
    settle();
    auto* why = child<QLineEdit>("correction");
    ASSERT_TRUE(why);
    QTest::keyClicks(why, "the wrench was read in the wrong unit");
    QTest::keyClick(why, Qt::Key_Return);
    settle();
    EXPECT_EQ(study().study.telling.corrections.size(), 1U);
    EXPECT_TRUE(
        visibleTexts(window.get()).join("\n").contains("because the wrench was read in the wrong unit"));
}

TEST_F(VerdictPages, ThePagesOfTheReportAreTicked) {
    openDemo();
    window->goTo(Stage::report);
    settle();
    const auto text = [&] { return visibleTexts(child<QScrollArea>("reportScroll")).join("\n"); };
    EXPECT_FALSE(text().contains("What else could count")) << "nothing to be done on paper";
    QCheckBox* floors = nullptr;
    for (auto* box : window->findChildren<QCheckBox*>())
        if (box->isVisible() && box->text() == "Floors") floors = box;
    ASSERT_TRUE(floors);
    EXPECT_TRUE(floors->isChecked());
    EXPECT_TRUE(text().contains("What each promises"));
    QTest::mouseClick(floors, Qt::LeftButton, {}, QPoint(8, floors->height() / 2));
    settle();
    EXPECT_EQ(study().study.telling.leftOut, (std::vector<std::string>{"floors"}));
    EXPECT_FALSE(text().contains("What each promises"));
}

TEST_F(VerdictPages, WhatIsOfferedHasSomethingToSayAndNothingElseHas) {
    openDemo();
    for (const auto& s : session().project()->studies()) {
        session().showStudy(s.study.id);
        const auto source = session().source();
        for (const auto& entry : pages::registry())
            for (const auto& metric : domain::metricsOf(s.study.plan.method)) {
                const pages::View view{session().units(), metric};
                EXPECT_EQ(entry.offered(source, view), entry.make(source, view).has_value())
                    << entry.key << " of " << s.study.title << " by " << metric->key;
            }
    }
}

TEST_F(VerdictPages, TheSameOptionsComeUpFromEarlierProjects) {
    const auto make = [&](const char* file, double value) {
        ASSERT_TRUE(session().create(dir.filePath(file)));
        const auto id = newStudy({"Clip", "Hook"}, {"Dry"});
        ASSERT_TRUE(project::addTypedPulls(*session().project(), id, 3, [&](int n) { return value + n; }));
    };
    make("old.anvil", 100);
    earlier_index::remember(*session().project());
    session().close();
    make("new.anvil", 130);
    showPage("Last time");
    EXPECT_TRUE(seen().contains("Clip")) << seen().toStdString();
    EXPECT_TRUE(seen().contains("2026-03-03, Pegs (old)"));
    EXPECT_TRUE(seen().contains("more"));
    earlier_index::setOn(false);
    ASSERT_TRUE(session().project()->reload());
    settle();
    auto* bar = child<QTabBar>("pages");
    for (int i = 0; i < bar->count(); ++i)
        EXPECT_NE(bar->tabText(i), "Last time") << "switched off";
    earlier_index::setOn(true);
}

} // namespace
} // namespace anvil::app
