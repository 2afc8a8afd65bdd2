// The frame of the window: the room belongs to the stage on show, at every size.
#include "harness.h"

#include "shell/initials.h"
#include <QAbstractItemView>
#include <QScrollArea>
#include <QScrollBar>

namespace anvil::app {
namespace {

struct Frame : Window {
    static double area(const QWidget* w) { return static_cast<double>(w->width()) * w->height(); }
    double share() {
        const auto* workspace = child<QFrame>("workspace");
        return area(workspace) / area(window.get());
    }
    bool ledgerOpen() { return child<QWidget>("ledgerPanel")->isVisible(); }
};

TEST_F(Frame, TheStageHasMostOfTheWindowAtEverySize) {
    openDemo();
    struct Size {
        QSize size;
        double least;
    };
    for (const auto& [size, least] : {Size{{1280, 800}, 0.70}, Size{{1024, 700}, 0.62}}) {
        window->resize(size);
        for (int k = 0; k < stageCount; ++k) {
            const auto stage = static_cast<Stage>(k);
            key(Qt::Key_1 + k, Qt::ControlModifier);
            settle();
            ASSERT_EQ(window->size(), size);
            EXPECT_GE(share(), least) << StageStrip::name(stage).toStdString() << " at " << size.width();
            EXPECT_FALSE(ledgerOpen()) << "nobody asked for it";
            const auto* body = child<QFrame>("workspace");
            EXPECT_LE(body->mapTo(window.get(), QPoint()).y() -
                          child<QPushButton>("headline")->mapTo(window.get(), QPoint()).y(),
                      96)
                << "headline and strip";
        }
    }
}

TEST_F(Frame, TheBoardIsARailWhereTheWindowIsNarrowAndAtMostAQuarter) {
    openDemo();
    auto* board = window->board();
    const auto* panel = child<QWidget>("boardPanel");
    EXPECT_TRUE(board->rail());
    EXPECT_TRUE(board->tipAt(QPoint(20, 60)).contains("Pressed sleeve")) << "the whole name is told";
    window->resize(1920, 1080);
    settle();
    EXPECT_FALSE(board->rail());
    EXPECT_LE(panel->width(), 1920 / 4);
    EXPECT_EQ(panel->width(), std::min(board->wantedWidth() + 4, 1920 / 4)) << "as wide as what it shows";
    key(Qt::Key_M, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(board->rail());
    key(Qt::Key_M, Qt::ControlModifier);
    window->resize(1280, 800);
    settle();
    EXPECT_FALSE(board->rail()) << "as it was left by hand";
    EXPECT_LE(panel->width(), 1280 / 4);
    key(Qt::Key_1, Qt::ControlModifier);
    settle();
    EXPECT_FALSE(panel->isVisible()) << "the plan is the board there";
}

TEST_F(Frame, TheLedgerIsADrawer) {
    openDemo();
    key(Qt::Key_6, Qt::ControlModifier);
    settle();
    auto* board = window->board();
    const auto square = board->squareOf(study().options[0].id, study().conditions[1].id);
    QTest::mouseClick(board, Qt::LeftButton, {}, square.center());
    settle();
    EXPECT_TRUE(ledgerOpen()) << "it opens for what is chosen";
    const auto* workspace = child<QFrame>("workspace");
    const auto* ledger = child<QWidget>("ledgerPanel");
    const auto left = [&](const QWidget* w) { return w->mapTo(window.get(), QPoint()).x(); };
    EXPECT_GE(left(ledger), left(workspace) + workspace->width()) << "beside it";
    window->resize(1024, 700);
    settle();
    EXPECT_LT(left(ledger), left(workspace) + workspace->width()) << "over it";
    EXPECT_GE(share(), 0.62);
    key(Qt::Key_Escape);
    settle();
    EXPECT_FALSE(ledgerOpen());
    key(Qt::Key_L, Qt::ControlModifier);
    settle();
    EXPECT_TRUE(ledgerOpen());
    key(Qt::Key_7, Qt::ControlModifier);
    settle();
    EXPECT_FALSE(ledgerOpen()) << "closed unless asked for";
}

TEST_F(Frame, NothingScrollsSidewaysInTheDemo) {
    openDemo();
    window->resize(1280, 800);
    for (const auto& s : session().project()->studies()) {
        session().showStudy(s.study.id);
        for (int k = 0; k < stageCount; ++k) {
            key(Qt::Key_1 + k, Qt::ControlModifier);
            settle();
            for (auto* area : window->findChildren<QAbstractScrollArea*>())
                if (area->isVisible() && area->horizontalScrollBar()->isVisible() &&
                    area->horizontalScrollBarPolicy() != Qt::ScrollBarAlwaysOff)
                    ADD_FAILURE() << s.study.title << ", "
                                  << StageStrip::name(static_cast<Stage>(k)).toStdString() << ": "
                                  << area->metaObject()->className() << " "
                                  << area->objectName().toStdString() << " in "
                                  << area->parentWidget()->metaObject()->className();
        }
    }
}

TEST_F(Frame, NoBoxThatScrollsShowsFewerThanSixRows) {
    openDemo();
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        window->resize(size);
        for (const auto& s : session().project()->studies()) {
            session().showStudy(s.study.id);
            for (int k = 0; k < stageCount; ++k) {
                key(Qt::Key_1 + k, Qt::ControlModifier);
                settle();
                for (auto* view : window->findChildren<QAbstractItemView*>()) {
                    if (!view->isVisible() || !view->verticalScrollBar()->isVisible() || !view->model())
                        continue;
                    const int row = std::max(1, view->sizeHintForRow(0));
                    EXPECT_GE(view->viewport()->height(), 6 * row)
                        << s.study.title << ", " << StageStrip::name(static_cast<Stage>(k)).toStdString()
                        << " at " << size.width() << ": " << view->objectName().toStdString();
                }
            }
        }
    }
}

TEST(Initials, AreShortAndTellApart) {
    EXPECT_EQ(initials({"Pressed sleeve", "Wedge socket", "Saddle clamps"}), QStringList({"PS", "WS", "SC"}));
    EXPECT_EQ(initials({"Plain", "Salt-soaked"}), QStringList({"Pl", "SS"}));
    EXPECT_EQ(initials({"Dome 4.0", "Dome 4.8"}).removeDuplicates(), 0);
    const auto many = initials(QStringList(60, "Peg"));
    EXPECT_EQ(QSet<QString>(many.begin(), many.end()).size(), 60);
    EXPECT_EQ(initials({"", "–", "ß"}).size(), 3);
}

} // namespace
} // namespace anvil::app
