// Measuring on pictures, and the pages that put numbers beside each other, through the real window.
#include "harness.h"

#include "shell/ledger.h"
#include "shell/picture_dialog.h"
#include "stages/pull/entry_panel.h"
#include "stages/rig/path_panel.h"
#include "widgets/photo.h"
#include <QBuffer>
#include <QComboBox>
#include <QDialog>
#include <QDropEvent>
#include <QImage>
#include <QImageReader>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPushButton>
#include <QTimer>
#include <anvil/project/entry_commands.h>
#include <anvil/project/picture_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>

namespace anvil::app {
namespace {

struct Measuring : Window {
    QString picture(const char* name = "sag.png") {
        const auto path = dir.filePath(name);
        QImage image(400, 300, QImage::Format_RGB32);
        image.fill(Qt::gray);
        EXPECT_TRUE(image.save(path));
        return path;
    }
    void openStudy(const char* title) {
        openDemo();
        for (const auto& s : session().project()->studies())
            if (s.study.title == title) session().showStudy(s.study.id);
        ASSERT_EQ(study().study.title, title);
        settle();
    }
    /// What is done in the dialog that opens next.
    template <class Do> void inDialog(Do what) {
        QTimer::singleShot(0, window.get(), [what] {
            auto* dialog = qobject_cast<PictureDialog*>(QApplication::activeModalWidget());
            ASSERT_TRUE(dialog);
            settle();
            what(*dialog);
            if (dialog->isVisible()) dialog->reject();
        });
    }
    static MarkedPicture* view(QDialog& d) { return d.findChild<MarkedPicture*>("markedPicture"); }
    static void press(QDialog& d, const char* name) {
        auto* b = d.findChild<QPushButton*>(name);
        ASSERT_TRUE(b) << name;
        QTest::mouseClick(b, Qt::LeftButton);
        settle();
    }
    static void clickAt(QDialog& d, double x, double y) {
        QTest::mouseClick(view(d), Qt::LeftButton, {}, view(d)->shownAt({x, y}).toPoint());
    }
    static void type(QDialog& d, const char* name, const QString& text) {
        auto* edit = d.findChild<QLineEdit*>(name);
        ASSERT_TRUE(edit) << name;
        edit->setFocus();
        retype(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
        settle();
        EXPECT_TRUE(d.isVisible()) << "Return ends the number, not the dialog";
    }
    static QString said(QDialog& d) { return d.findChild<QLabel*>("pictureNext")->text(); }
    void drop(QWidget* onto, const QString& path) {
        QMimeData data;
        data.setUrls({QUrl::fromLocalFile(path)});
        QDragEnterEvent enter(QPoint(5, 5), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(onto, &enter);
        EXPECT_TRUE(enter.isAccepted());
        QDropEvent event(QPointF(5, 5), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(onto, &event);
        settle();
    }
    QString seen(QWidget* in) { return visibleTexts(in).join('\n'); }
};

/// A photograph as cameras write it: its pixels lie as the sensor saw them, and beside them stands how the
/// camera was held (Exif 2.32, tag 274).
QByteArray heldAs(const QImage& image, char orientation) {
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    EXPECT_TRUE(image.save(&buffer, "JPEG", 95));
    auto bytes = buffer.data();
    QByteArray exif("\xff\xe1\x00\x22"
                    "Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0?\0\0\0\0\0\0\0",
                    36);
    exif[28] = orientation;
    return bytes.insert(2, exif);
}

TEST(Photos, AreTheRightWayUpAndTheirPlacesStay) {
    QImage image(600, 400, QImage::Format_RGB32);
    image.fill(Qt::white);
    for (int x = 0; x < 100; ++x)
        for (int y = 0; y < 50; ++y)
            image.setPixelColor(x, y, Qt::red); // the corner where the file begins
    const auto isRed = [](const QImage& in, const QPointF& at) {
        const auto c = in.pixelColor(at.toPoint());
        return c.red() > 200 && c.green() < 80;
    };
    for (char orientation = 1; orientation <= 8; ++orientation) {
        const auto photo = photoFrom(heldAs(image, orientation));
        ASSERT_TRUE(photo);
        const auto seen = photo->picture.toImage();
        EXPECT_EQ(seen.size(), orientation < 5 ? QSize(600, 400) : QSize(400, 600)) << int(orientation);
        EXPECT_TRUE(isRed(seen, photo->turn.map(QPointF(20, 10)))) << int(orientation);
        EXPECT_TRUE(isRed(seen, photo->turn.map(QPointF(80, 40)))) << int(orientation);
        EXPECT_FALSE(isRed(seen, photo->turn.map(QPointF(40, 80)))) << int(orientation);
        const auto small = smallPhoto(heldAs(image, orientation), 144);
        EXPECT_EQ(small.size(), orientation < 5 ? QSize(144, 96) : QSize(96, 144));
    }
    // Held upright (6): what is drawn at the top right is where the file begins.
    EXPECT_TRUE(isRed(photoFrom(heldAs(image, 6))->picture.toImage(), QPointF(380, 20)));
    MarkedPicture shown(*photoFrom(heldAs(image, 6)), {});
    shown.resize(400, 600);
    const auto at = shown.shownAt({10, 20});
    EXPECT_NEAR(at.x(), 380, 1e-9);
    EXPECT_NEAR(at.y(), 10, 1e-9);
    const auto back = shown.placeAt(at);
    EXPECT_NEAR(back.x, 10, 1e-9);
    EXPECT_NEAR(back.y, 20, 1e-9);
}

TEST(Photos, LargeOnesAreShownAndOthersRefused) {
    QImage large(8064, 6048, QImage::Format_RGB32); // 48.8 megapixels
    large.fill(Qt::darkGreen);
    QBuffer jpeg, png;
    jpeg.open(QIODevice::WriteOnly);
    png.open(QIODevice::WriteOnly);
    ASSERT_TRUE(large.save(&jpeg, "JPEG"));
    large = large.convertToFormat(QImage::Format_RGBA64); // eight bytes a pixel, as some cameras export
    ASSERT_TRUE(large.save(&png, "PNG"));
    for (const auto& bytes : {jpeg.data(), png.data()}) {
        const auto photo = photoFrom(bytes);
        ASSERT_TRUE(photo);
        EXPECT_EQ(photo->picture.size(), QSize(8064, 6048));
        EXPECT_EQ(smallPhoto(bytes, 144).size(), QSize(144, 108));
    }
    EXPECT_FALSE(photoFrom("no picture"));
    EXPECT_TRUE(smallPhoto("no picture", 100).isNull());
}

TEST(Photos, OnlyWhatCanBeReadIsOffered) {
    for (const auto& ending : pictureEndings())
        EXPECT_TRUE(QImageReader::supportedImageFormats().contains(ending.toLatin1()));
    EXPECT_TRUE(pictureEndings().contains("jpg"));
    EXPECT_TRUE(pictureEndings().contains("webp")) << "its plugin is among the packages";
}

TEST_F(Measuring, APhotoDroppedOnAFieldIsCalibratedAndItsNumberTaken) {
    begin("sag");
    child<QLineEdit>("entry-unloaded")->setText("412 mm");
    inDialog([](PictureDialog& d) {
        EXPECT_TRUE(said(d).startsWith("Click one end"));
        press(d, "toolDistance");
        clickAt(d, 20, 20);
        clickAt(d, 20, 60);
        auto* table = d.findChild<QTableWidget*>("pictureMarks");
        ASSERT_EQ(table->rowCount(), 1);
        EXPECT_TRUE(table->item(0, 1)->text().contains("No length is known")) << "a sentence, no number";
        EXPECT_FALSE(d.findChild<QPushButton*>("putIntoField")->isEnabled());
        press(d, "removeMark");
        press(d, "toolLength");
        clickAt(d, 50, 280);
        EXPECT_TRUE(said(d).startsWith("Click its other end"));
        clickAt(d, 350, 280);
        EXPECT_TRUE(said(d).startsWith("Type how long"));
        type(d, "knownLength", "-3 mm");
        EXPECT_TRUE(d.findChild<QLabel*>("warning")->isVisible());
        type(d, "knownLength", "600 mm");
        press(d, "toolDistance");
        clickAt(d, 100, 50);
        clickAt(d, 100, 249);
        ASSERT_EQ(table->rowCount(), 1);
        EXPECT_EQ(d.findChild<QComboBox*>("pictureTarget")->currentText(), "Height loaded")
            << "where it was dropped";
        press(d, "putIntoField");
        d.accept();
    });
    drop(child<QLineEdit>("entry-loaded"), picture());
    const auto text = child<QLineEdit>("entry-loaded")->text();
    const auto entry = quantity::parseEntry(text.toStdString(), quantity::Dimension::length);
    ASSERT_TRUE(entry) << text.toStdString();
    EXPECT_NEAR(entry->si, 0.398, 0.004) << "199 px at 2 mm each, as well as a screen is clicked";
    EXPECT_EQ(entry->precision, quantity::Precision::plusMinus);
    // √2·2 px of the ends and of what is known, each 2 mm, over 300 px and 199.
    EXPECT_NEAR(entry->plusMinusSi, 0.002 * 2 * std::sqrt(2.0) * std::hypot(1.0, 199.0 / 300), 0.0003);
    QTest::keyClick(child<QLineEdit>("entry-after"), Qt::Key_Return);
    settle();
    ASSERT_EQ(study().pulls.size(), 1u) << window->messageText().toStdString();
    ASSERT_EQ(study().attachments.size(), 1u);
    EXPECT_EQ(study().attachments[0].pull, study().pulls[0].id);
    EXPECT_EQ(study().attachments[0].marks.marks.size(), 1u) << "the picture is kept with its marks";
    EXPECT_NEAR(results::valueOf(study(), study().pulls[0], nullptr, domain::metric("sag")).value->value,
                0.412 - entry->si, 1e-9);
    ASSERT_TRUE(session().project()->undo());
    EXPECT_TRUE(study().pulls.empty() && study().attachments.empty()) << "one undo";
}

TEST_F(Measuring, ByKeysAlone) {
    begin("sag");
    inDialog([](PictureDialog& d) {
        auto* v = view(d);
        v->setFocus();
        QTest::keyClick(v, Qt::Key_Space); // the middle
        for (int i = 0; i < 10; ++i)
            QTest::keyClick(v, Qt::Key_Left, Qt::ShiftModifier);
        QTest::keyClick(v, Qt::Key_Space);
        ASSERT_EQ(d.marks().scale.points.size(), 2u);
        EXPECT_NEAR(d.marks().scale.points[1].x - d.marks().scale.points[0].x, 100, 1e-6);
        QTest::keyClick(v, Qt::Key_Plus);
        QTest::keyClick(v, Qt::Key_0);
        press(d, "toolArea");
        for (const auto& [x, y] : {std::pair{10, 10}, {60, 10}, {60, 60}})
            clickAt(d, x, y);
        QTest::keyClick(v, Qt::Key_Backspace);
        QTest::keyClick(v, Qt::Key_Return);
        EXPECT_TRUE(d.marks().marks.empty()) << "two places are no outline";
        clickAt(d, 60, 60);
        QTest::keyClick(v, Qt::Key_Return);
        ASSERT_EQ(d.marks().marks.size(), 1u);
        QTest::keyClick(v, Qt::Key_Delete);
        EXPECT_TRUE(d.marks().marks.empty());
        clickAt(d, 10, 10);
        QTest::keyClick(v, Qt::Key_Escape);
        EXPECT_EQ(v->begun(), 0u);
        EXPECT_TRUE(d.isVisible()) << "Escape takes back what was begun before it closes anything";
        d.accept();
    });
    drop(child<QLineEdit>("entry-loaded"), picture());
    EXPECT_TRUE(child<QLineEdit>("entry-loaded")->text().isEmpty());
}

TEST_F(Measuring, WhatIsNoPictureIsSaid) {
    begin("sag");
    QFile file(dir.filePath("broken.png"));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("not a picture");
    file.close();
    drop(child<QLineEdit>("entry-loaded"), file.fileName());
    EXPECT_TRUE(window->messageText().contains("no picture that can be measured on"));
    EXPECT_TRUE(study().attachments.empty());
}

TEST_F(Measuring, APictureOfAPullIsMeasuredAgain) {
    openStudy("Roller plastic");
    session().selectPull(pullOf("A1-1"));
    key(Qt::Key_L, Qt::ControlModifier);
    settle();
    ASSERT_EQ(child<QListWidget>("pictures")->count(), 2);
    const auto before = study().pull(session().pull())->outcome.entered.fields[0].text;
    inDialog([&](PictureDialog& d) {
        auto* table = d.findChild<QTableWidget*>("pictureMarks");
        ASSERT_EQ(table->rowCount(), 2);
        EXPECT_EQ(table->item(0, 1)->text(), "angle: " + QString::fromStdString(before))
            << "what the field says was read off here";
        table->selectRow(0);
        settle();
        auto* target = d.findChild<QComboBox*>("pictureTarget");
        const int to = target->findData("to");
        ASSERT_GE(to, 0) << "a height may be told by its angle";
        target->setCurrentIndex(to);
        auto* v = view(d);
        QTest::mouseClick(v, Qt::LeftButton, {}, v->shownAt(d.marks().marks[0].points[2]).toPoint());
        for (int i = 0; i < 4; ++i)
            QTest::keyClick(v, Qt::Key_Right, Qt::ShiftModifier); // the head swung further
        press(d, "putIntoField");
        d.accept();
    });
    pressButton("Measure…");
    settle();
    const auto after = study().pull(session().pull())->outcome.entered.fields[0].text;
    EXPECT_GT(quantity::parseEntry(after)->si, quantity::parseEntry(before)->si + 0.1);
    EXPECT_NE(study().attachments[0].marks.marks[0].points[2].x, 0);
    ASSERT_TRUE(session().project()->undo());
    EXPECT_EQ(study().pull(session().pull())->outcome.entered.fields[0].text, before) << "one undo";
}

TEST_F(Measuring, AMeasuredNumberGoesToThePieceToo) {
    openStudy("Roller plastic");
    const auto pull = pullOf("B1-1");
    auto& project = *session().project();
    ASSERT_TRUE(project::enterMeasured(project, pull, "breadth", "10.1 ± 0.1 mm"));
    const auto* p = study().pull(pull);
    EXPECT_NEAR(*results::evidenceOf(study(), *p, nullptr)->value("breadth"), 0.0101, 1e-12);
    EXPECT_FALSE(project::enterMeasured(project, pull, "breadth", "10 N"));
    EXPECT_FALSE(project::enterMeasured(project, pull, "colour", "10 mm"));
    EXPECT_FALSE(project::enterMeasured(project, pull, "to", "95°")) << "a hammer that gains energy";
    const auto mode = project::enterMeasured(project, pull, "mode", "31.44 % ± 0.9 %");
    ASSERT_TRUE(mode) << mode.error().message;
    EXPECT_DOUBLE_EQ(study().pull(pull)->outcome.shares[0].share, 0.314);
    EXPECT_FALSE(project::enterMeasured(project, pull, "mode", "140 %"));
    EXPECT_FALSE(project::setMarks(project, 9999, {}));
}

using Pages = Measuring;

TEST_F(Pages, MetricsStandSideBySide) {
    openStudy("Recycled-plastic slats");
    window->goTo(Stage::verdict);
    showPage("Side by side");
    const auto text = seen(window->verdict());
    EXPECT_TRUE(text.contains("The peak force decides."));
    EXPECT_TRUE(
        text.contains("By bending strength Oxbow would stand first instead of Millbrook: Dry and Wet."))
        << text.toStdString();
    auto* table = child<QTableWidget>("metrics");
    const auto peak = session().verdict(domain::metric("peak"));
    EXPECT_EQ(table->rowCount(), static_cast<int>(peak.groups.size()));
    EXPECT_TRUE(cell(table, 0, "bending_strength").endsWith(" MPa (4)"))
        << cell(table, 0, "bending_strength").toStdString();
}

TEST_F(Pages, APhaseCanRank) {
    openStudy("Ground pegs");
    window->goTo(Stage::verdict);
    showPage("Answer");
    auto* box = shown<QComboBox>("Ranked by");
    const int at = box->findText("Phase \"first movement\": force");
    ASSERT_GE(at, 0);
    box->setCurrentIndex(at);
    emit box->activated(at);
    settle();
    const auto text = seen(window->verdict());
    EXPECT_TRUE(text.contains("force in the phase \"first movement\"")) << text.toStdString();
    const auto& v = session().verdict(domain::metric("phase.force.first movement"));
    EXPECT_EQ(study().optionAt(v.groups.front().option).name, "Half pipe");
}

TEST_F(Pages, CreepIsShownOverBothTimes) {
    openStudy("Net clips");
    window->goTo(Stage::verdict);
    showPage("Over time");
    EXPECT_TRUE(seen(window->verdict()).contains("Time since it was loaded (d)"));
    EXPECT_TRUE(seen(window->verdict()).contains("limit 3.000 mm"));
    EXPECT_TRUE(seen(window->verdict()).contains("at least 11.00 d"));
    auto* box = shown<QComboBox>("Time");
    box->setCurrentIndex(1);
    emit box->activated(1);
    settle();
    EXPECT_TRUE(seen(window->verdict()).contains("by its logarithm"));
}

TEST_F(Pages, HitsOnASpotAreSeenGrowing) {
    openStudy("Door-roller buckets");
    window->goTo(Stage::verdict);
    showPage("Hit by hit");
    auto* table = child<QTableWidget>("hits");
    ASSERT_EQ(table->rowCount(), 2);
    EXPECT_EQ(cell(table, 1, "where"), "rim by the handle");
    EXPECT_GT(cell(table, 1, "change").toDouble(), 1.7);
    EXPECT_TRUE(seen(window->verdict()).contains("Hit on the same spot"));
}

TEST_F(Pages, ALimitLineIsDrawnOverTheBlow) {
    openStudy("Door-roller buckets");
    ASSERT_TRUE(session().project()->changeStudy(study().study.id, "line", [](domain::Study& s) {
        s.telling.references = {{"what the case bears", 60 * 9.80665, {}}};
    }));
    session().selectPull(pullOf("B1-1"));
    window->goTo(Stage::curves);
    settle();
    QStringList labels;
    for (const auto& l : window->curves()->view()->picture().labels())
        labels << QString::fromStdString(l);
    EXPECT_TRUE(labels.contains("what the case bears"));
}

TEST_F(Pages, AnArrangementIsHeldAgainstBothBaselines) {
    const auto id = newStudy({"Plain tie", "Doubled tie"}, {"Dry"});
    auto& project = *session().project();
    ASSERT_TRUE(project::planReplicates(project, id, 3));
    ASSERT_TRUE(project::makePieces(project, id, ""));
    const auto pieces = study().specimens;
    const char* loads[] = {"1.48 kN", "1.50 kN", "1.52 kN", "2.3 kN", "2.4 kN", "2.5 kN"};
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        project::TypedPull typed;
        typed.specimen = pieces[i].id;
        typed.text = loads[i];
        ASSERT_TRUE(project::addTypedPull(project, typed));
    }
    ASSERT_TRUE(
        project.changeOption(study().options[0].id, "rating", [](domain::Option& o) { o.rating = 1000; }));
    window->goTo(Stage::verdict);
    settle();
    showPage("Arrangement");
    QTimer::singleShot(0, window.get(), [] {
        auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        ASSERT_TRUE(dialog);
        auto* rows = dialog->findChild<RowEditor*>();
        const auto take = [&](const QString& base, const QString& factor) {
            typeRows(rows, {{"Plain tie", "", ""}, {"Doubled tie", base, factor}});
            for (auto* b : dialog->findChildren<QPushButton*>())
                if (b->text() == "Take these") QTest::mouseClick(b, Qt::LeftButton);
            settle();
        };
        take("Doubled tie", "2");
        EXPECT_TRUE(visibleTexts(dialog).join('\n').contains("cannot be an arrangement of itself"));
        take("Plain tie", "-2");
        EXPECT_TRUE(visibleTexts(dialog).join('\n').contains("no factor"));
        take("plain TIE", "2");
        EXPECT_FALSE(dialog->isVisible());
    });
    pressButton("Set them…");
    settle();
    const auto text = seen(window->verdict());
    EXPECT_TRUE(text.contains("Doubled tie holds 120 % of what the maker's rating promises it, and 80 %"))
        << text.toStdString();
    EXPECT_TRUE(text.contains("turns the conclusion round"));
    auto* table = child<QTableWidget>("arrangement");
    EXPECT_EQ(cell(table, 0, "by_rating"), "2000 N");
    EXPECT_EQ(cell(table, 0, "by_measured"), "3000 N");
}

TEST_F(Pages, AThingThatStillStandsIsDrawn) {
    newStudy({"Post"}, {"Dry"});
    window->goTo(Stage::rig);
    showTab("rigTabs", "Load path");
    settle();
    for (const auto& [name, text] : {std::pair{"pivotWeight", "400 N"},
                                     {"pivotCentre", "1 m"},
                                     {"pivotFoot", "0 m"},
                                     {"pivotLift", "2.5 m"}}) {
        auto* edit = child<QLineEdit>(name);
        retype(edit, text);
        emit edit->editingFinished();
    }
    settle();
    const auto text = seen(window.get());
    EXPECT_TRUE(text.contains("reads 160.0 N")) << text.toStdString();
    EXPECT_TRUE(text.contains("stands at 0"));
    retype(child<QLineEdit>("pivotLift"), "0 m");
    emit child<QLineEdit>("pivotLift")->editingFinished();
    EXPECT_FALSE(child<QWidget>("pivotPicture")->isVisible())
        << "lifted where it stands: no number, no picture";
}

} // namespace
} // namespace anvil::app
