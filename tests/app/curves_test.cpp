// Curves by mouse and keys: what is seen of one, settings for many with their preview, averages, options;
// inputs of a method that hold for all; packages dropped on the window.
#include "harness.h"

#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QDragEnterEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QTimer>
#include <anvil/exchange/export.h>
#include <anvil/exchange/package.h>
#include <anvil/results/evidence.h>

namespace anvil::app {
namespace {

struct CurvesByHand : Window {
    void open(const char* title) {
        openDemo();
        for (const auto& s : session().project()->studies())
            if (s.study.title == title) {
                session().showStudy(s.study.id);
                return;
            }
        ADD_FAILURE() << "no study " << title;
    }
    void show(const std::string& label) {
        session().selectPull(pullOf(label));
        key(Qt::Key_5, Qt::ControlModifier);
        settle();
    }
    CurveView* view() { return window->curves()->view(); }
    void press(const char* name) {
        QTest::mouseClick(child<QPushButton>(name), Qt::LeftButton);
        settle();
    }
    QString seen() { return visibleTexts(window->curves()).join("\n"); }
    QPoint at(double x, double y) {
        return {static_cast<int>(x * view()->width()), static_cast<int>(y * view()->height())};
    }
};

TEST_F(CurvesByHand, ABoxIsZoomedToAndLeftAgain) {
    open("Wire end fittings");
    show("B1-1");
    const auto whole = view()->plane();
    QTest::mousePress(view(), Qt::LeftButton, Qt::ShiftModifier, at(0.3, 0.3));
    QTest::mouseMove(view(), at(0.6, 0.7));
    QTest::mouseRelease(view(), Qt::LeftButton, Qt::ShiftModifier, at(0.6, 0.7));
    const auto box = view()->plane();
    EXPECT_LT(box.x1 - box.x0, 0.5 * (whole.x1 - whole.x0));
    EXPECT_LT(box.y1 - box.y0, 0.6 * (whole.y1 - whole.y0));
    view()->setFocus();
    QTest::keyClick(view(), Qt::Key_Plus);
    EXPECT_LT(view()->plane().x1 - view()->plane().x0, box.x1 - box.x0);
    QTest::keyClick(view(), Qt::Key_Backspace);
    EXPECT_DOUBLE_EQ(view()->plane().x0, box.x0);
    QTest::keyClick(view(), Qt::Key_Backspace);
    EXPECT_DOUBLE_EQ(view()->plane().x1, whole.x1);
    EXPECT_DOUBLE_EQ(view()->plane().y1, whole.y1);
    QTest::keyClick(view(), Qt::Key_Backspace);
    EXPECT_DOUBLE_EQ(view()->plane().x1, whole.x1) << "there is nothing before the whole";
}

TEST_F(CurvesByHand, EachNumberSaysHowItWasFound) {
    open("Wire end fittings");
    show("B1-1");
    const auto text = seen();
    EXPECT_TRUE(text.contains("steepest straight part, R²")) << text.toStdString();
    EXPECT_TRUE(text.contains("greatest sample"));
}

TEST_F(CurvesByHand, WhatIsOnShowIsTheHold) {
    open("Wire end fittings");
    show("B1-1");
    view()->setFocus();
    for (int i = 0; i < 4; ++i)
        QTest::keyClick(view(), Qt::Key_Plus);
    press("heldHere");
    const auto* pull = study().pull(pullOf("B1-1"));
    ASSERT_TRUE(pull->settings.holdFrom && pull->settings.holdTo);
    EXPECT_LT(pull->settings.holdFrom->time, pull->settings.holdTo->time);
    EXPECT_TRUE(seen().contains("Relaxation"));
    key(Qt::Key_Z, Qt::ControlModifier);
    settle();
    EXPECT_FALSE(study().pull(pullOf("B1-1"))->settings.holdFrom);
    EXPECT_FALSE(seen().contains("Relaxation"));
}

TEST_F(CurvesByHand, SettingsOfASquareSayWhatTheyWouldChange) {
    open("Wire end fittings");
    show("B1-1");
    QString preview;
    QTimer::singleShot(50, [&] {
        auto* form = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        ASSERT_TRUE(form);
        auto* yield = form->findChild<QLineEdit*>("yieldOffset");
        ASSERT_TRUE(yield);
        QTest::keyClicks(yield, "a lot");
        QTest::mouseClick(form->findChild<QPushButton*>("readingLook"), Qt::LeftButton);
        EXPECT_TRUE(form->findChild<QLabel*>("readingPreview")->text().contains("a lot"));
        yield->clear();
        QTest::keyClicks(yield, "0.2 mm");
        QTest::mouseClick(form->findChild<QPushButton*>("readingLook"), Qt::LeftButton);
        preview = form->findChild<QLabel*>("readingPreview")->text();
        for (auto* button : form->findChildren<QPushButton*>())
            if (button->text() == "Read them so") QTest::mouseClick(button, Qt::LeftButton);
    });
    press("howRead");
    EXPECT_TRUE(preview.contains("stays as it is in all of them")) << preview.toStdString();
    int with = 0;
    for (const auto& p : study().pulls)
        with += p.settings.yieldOffset == std::optional(0.0002);
    EXPECT_EQ(with, 5) << "the pulls of its square";
    EXPECT_TRUE(seen().contains("Yield"));
    window->activateWindow(); // the form had it
    ASSERT_TRUE(QTest::qWaitForWindowActive(window.get()));
    key(Qt::Key_Z, Qt::ControlModifier);
    settle();
    for (const auto& p : study().pulls)
        EXPECT_FALSE(p.settings.yieldOffset) << "one undo";
}

TEST_F(CurvesByHand, AveragesOptionsAndLandmarks) {
    open("Blind rivets in hoop tube");
    show("A1-1");
    press("average");
    const auto text = seen();
    EXPECT_TRUE(text.contains("is the mean of the peaks")) << text.toStdString();
    EXPECT_TRUE(text.contains("The plain mean at equal travel blurs the peaks")) << text.toStdString();
    auto* against = child<QComboBox>("against");
    against->setCurrentIndex(1);
    emit against->activated(1);
    settle();
    EXPECT_TRUE(seen().contains(" less ")) << seen().toStdString();
    press("byOption");
    EXPECT_TRUE(seen().contains("All on one scale"));
    press("overlay");
    auto* along = child<QComboBox>("along");
    along->setCurrentIndex(2);
    emit along->activated(2);
    settle();
    EXPECT_TRUE(view()->picture().labels().size() > 3);
    EXPECT_TRUE(seen().contains("toe 0, peak 1, break 2")) << seen().toStdString();
    press("onePull");
    press("asLogged");
    EXPECT_TRUE(seen().contains("as logged"));
}

TEST_F(CurvesByHand, AnInputHoldsForEveryPiece) {
    open("Three-leg hoop foot");
    const auto pull = pullOf("A1-1");
    const auto noteOf = [&] {
        QString all;
        for (const auto& n : results::notesOf(study(), *study().pull(pull)))
            all += QString::fromStdString(n) + "\n";
        return all;
    };
    EXPECT_TRUE(noteOf().contains("By directions")) << noteOf().toStdString();
    key(Qt::Key_1, Qt::ControlModifier);
    settle();
    planPage("Method");
    auto* line = child<QLineEdit>("study-direction");
    ASSERT_TRUE(line->isVisible());
    EXPECT_EQ(line->text(), "0°; 120°; 240°");
    line->setFocus();
    line->selectAll();
    QTest::keyClicks(line, "0°; 90°; a lot");
    QTest::keyClick(line, Qt::Key_Return);
    settle();
    EXPECT_EQ(child<QLineEdit>("study-direction")->text(), "0°; 120°; 240°")
        << "what is no angle changes nothing";
    line = child<QLineEdit>("study-direction");
    line->setFocus();
    line->selectAll();
    QTest::keyClicks(line, "0°; 90°; 200°");
    QTest::keyClick(line, Qt::Key_Return);
    settle();
    EXPECT_TRUE(QString::fromStdString(study().study.plan.inputs.back().text).startsWith("200"));
}

TEST_F(CurvesByHand, LegsAreDrawnAndLost) {
    open("Three-leg hoop foot");
    showPage("Legs");
    const auto text = visibleTexts(window->verdict()).join("\n");
    EXPECT_TRUE(text.contains("Without leg 1") || text.contains("lost")) << text.toStdString();
    EXPECT_TRUE(text.contains("33.3 %")) << "as predicted: " << text.toStdString();
}

TEST_F(CurvesByHand, DevicesAreToldAndChanged) {
    open("Reeving the cover line");
    showPage("Devices");
    const auto text = visibleTexts(window->verdict()).join("\n");
    EXPECT_TRUE(text.contains("Roller passes on 9")) << text.toStdString();
    EXPECT_TRUE(text.contains("The best device belongs nearest to the hand"));
}

/// A folder or archive let go over the window.
void drop(QWidget* window, const QString& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter(QPoint(5, 5), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window, &enter);
    QDropEvent event(QPointF(5, 5), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window, &event);
    settle();
}

TEST_F(CurvesByHand, APackageIsDroppedOnAnEmptyWindow) {
    const auto folder = dir.filePath("stakes");
    QDir().mkpath(folder);
    for (const auto& name : QDir(QStringLiteral(TEST_DATA "/packages/axial-pull")).entryList(QDir::Files))
        ASSERT_TRUE(
            QFile::copy(QStringLiteral(TEST_DATA "/packages/axial-pull/") + name, folder + '/' + name));
    drop(window.get(), folder);
    ASSERT_TRUE(session().project());
    EXPECT_EQ(study().study.title, "Stakes");
    EXPECT_EQ(study().pulls.size(), 6u);
    EXPECT_TRUE(window->verdict()->isVisible());
    EXPECT_TRUE(visibleTexts(window->verdict()).join("\n").contains("Spiral stake"));
    key(Qt::Key_Z, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(session().project()->studies().empty()) << "one undo";
    window->resize(window->width() + 60, window->height() + 40); // nothing of the study is drawn anew
    settle();
    key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    settle();
    EXPECT_TRUE(visibleTexts(window->verdict()).join("\n").contains("Spiral stake"));
}

TEST_F(CurvesByHand, ABrokenPackageIsSaidAndChangesNothing) {
    const auto folder = dir.filePath("broken");
    QDir().mkpath(folder);
    QFile file(folder + "/studies.csv");
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("study,method\nTies,axial-push\n");
    file.close();
    drop(window.get(), folder);
    EXPECT_FALSE(session().project()) << "no project is made for it";
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("there is no method \"axial-push\""))
        << visibleTexts(window.get()).join("\n").toStdString();
}

} // namespace
} // namespace anvil::app
