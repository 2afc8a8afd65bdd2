// Pictures and tables leave the window as they are on show.
#include "harness.h"

#include "widgets/keep_picture.h"
#include <QClipboard>
#include <QImage>
#include <QMimeData>

namespace anvil::app {
namespace {

struct Keeping : Window {
    QByteArray bytesOf(const QString& name) {
        QFile file(dir.filePath(name));
        EXPECT_TRUE(file.open(QIODevice::ReadOnly)) << name.toStdString();
        return file.readAll();
    }
};

TEST_F(Keeping, AFigureIsCopiedByKeyAndSavedInEveryForm) {
    openDemo();
    window->goTo(Stage::verdict);
    settle();
    auto* figure = ladder();
    figure->setFocus();
    QTest::keyClick(figure, Qt::Key_C, Qt::ControlModifier);
    const auto* held = QApplication::clipboard()->mimeData();
    ASSERT_TRUE(held && held->hasImage());
    const auto image = qvariant_cast<QImage>(held->imageData());
    EXPECT_EQ(image.width(), 2 * qRound(figure->picture().width)) << "twice as fine as on show";
    EXPECT_TRUE(held->data("image/svg+xml").contains("Pressed sleeve"));
    EXPECT_TRUE(window->messageText().contains("clipboard"));
    const Drawing drawing = [figure](double width) { return figure->drawn(width); };
    ASSERT_TRUE(writePicture(drawing, PictureForm::svg, dir.filePath("l.svg")));
    EXPECT_TRUE(bytesOf("l.svg").startsWith("<svg"));
    EXPECT_TRUE(bytesOf("l.svg").contains("about 4946 N")) << "its words stay words";
    ASSERT_TRUE(writePicture(drawing, PictureForm::png, dir.filePath("l.png")));
    EXPECT_EQ(QImage(dir.filePath("l.png")).size(), image.size());
    ASSERT_TRUE(writePicture(drawing, PictureForm::tall, dir.filePath("tall.png")));
    EXPECT_EQ(QImage(dir.filePath("tall.png")).width(), 1080);
    const auto refused = writePicture(drawing, PictureForm::png, "/no/such/folder/l.png");
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("cannot be written"), std::string::npos);
}

TEST_F(Keeping, ATableGoesToASpreadsheet) {
    openDemo();
    auto* table = ranking();
    table->setFocus();
    table->clearSelection();
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
    const auto text = QApplication::clipboard()->text();
    EXPECT_EQ(text.count('\n'), table->rowCount() + 1) << "its heads first";
    EXPECT_TRUE(text.contains("Pressed sleeve\t"));
    table->setRangeSelected(QTableWidgetSelectionRange(0, 0, 1, 1), true);
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
    EXPECT_EQ(QApplication::clipboard()->text().count('\n'), 2) << "only what is selected";
    const auto name = table->item(0, 0)->text();
    table->item(0, 0)->setText("=1+1\tx");
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
    EXPECT_TRUE(QApplication::clipboard()->text().startsWith("'=1+1 x\t")) << "no formula is pasted";
    table->item(0, 0)->setText(name);
    ASSERT_TRUE(writeTable(*table, dir.filePath("t.csv")));
    const auto csv = bytesOf("t.csv");
    EXPECT_EQ(csv.count('\n'), table->rowCount() + 1);
    EXPECT_TRUE(csv.contains("Pressed sleeve"));
    EXPECT_FALSE(writeTable(*table, "/no/such/folder/t.csv"));
}

TEST_F(Keeping, WhatIsAwkwardInCsvIsQuoted) {
    QTableWidget table(1, 3);
    table.setHorizontalHeaderLabels({"a,b", "hidden", "c"});
    table.setItem(0, 0, new QTableWidgetItem("say \"so\""));
    table.setItem(0, 1, new QTableWidgetItem("no"));
    table.setColumnHidden(1, true);
    ASSERT_TRUE(writeTable(table, dir.filePath("q.csv")));
    EXPECT_EQ(bytesOf("q.csv"), "\"a,b\",c\n\"say \"\"so\"\"\",\n");
}

TEST_F(Keeping, EveryFigureAndTableOfEveryStageHasItsMenu) {
    openDemo();
    for (int k = 0; k < stageCount; ++k) {
        window->goTo(static_cast<Stage>(k));
        settle();
        for (auto* w : window->findChildren<QWidget*>()) {
            const bool figure = qobject_cast<PictureView*>(w) || qobject_cast<CurveView*>(w);
            const auto* table = qobject_cast<QTableWidget*>(w);
            if (!w->isVisible() || !(figure || table)) continue;
            if (table && (table->objectName() == "planBoard" || qobject_cast<RowEditor*>(w)))
                continue; // typed in
            EXPECT_FALSE(w->actions().isEmpty()) << StageStrip::name(static_cast<Stage>(k)).toStdString()
                                                 << ": " << w->objectName().toStdString();
        }
    }
}

} // namespace
} // namespace anvil::app
