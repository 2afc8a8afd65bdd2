// A stranger who clicks and types at random: nothing breaks, nothing is lost, and undo leads all the way
// back.
#include "harness.h"

#include <QAbstractButton>
#include <QAbstractSpinBox>
#include <QAction>
#include <QClipboard>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QPlainTextEdit>
#include <QTabBar>
#include <QTableWidget>
#include <QTimer>
#include <fmt/format.h>
#include <random>

using namespace anvil;
using namespace anvil::app;

namespace {

/// Draws what a stranger does next, the same for the same seed.
class Stranger {
public:
    Stranger(MainWindow& window, unsigned seed) : m_window(window), m_random(seed) {
        // Whatever asks something is closed without an answer; its own event loop would wait for ever.
        QObject::connect(&m_closer, &QTimer::timeout, [] {
            if (auto* popup = QApplication::activePopupWidget()) popup->close();
            if (auto* modal = QApplication::activeModalWidget()) modal->close();
        });
        m_closer.start(15);
    }

    void act() {
        QApplication::clipboard()->setText(pick(texts));
        auto* w = somebody();
        if (!w) return;
        switch (below(6)) {
        case 0:
        case 1:
            QTest::mouseClick(w, Qt::LeftButton, {}, {below(w->width()), below(w->height())});
            break;
        case 2:
            QTest::mouseDClick(w, Qt::LeftButton, {}, {below(w->width()), below(w->height())});
            break;
        case 3:
            QTest::keyClick(w, pick(keys), pick(modifiers));
            break;
        case 4:
            for (const auto letter : pick(texts))
                QTest::sendKeyEvent(QTest::Click, typing(w), Qt::Key_unknown, QString(letter),
                                    Qt::NoModifier);
            w = typing(w);
            QTest::keyClick(w, pick({Qt::Key_Return, Qt::Key_Tab, Qt::Key_Escape}));
            break;
        default: {
            const auto actions = m_window.findChildren<QAction*>();
            auto* action = actions[below(static_cast<int>(actions.size()))];
            if (action->isEnabled() && !action->menu() && !leaves(*action)) action->trigger();
        }
        }
    }

private:
    static inline const std::vector<QString> texts{
        "5",        "-3",   "1e400",         "2,5 kN",   ">9 kN", "x",      "12 ± 1 mm",  "nothing much",
        "+ option", "=1+1", "Käfer <b>&\"'", "3 1/4 in", "0",     "999999", "a\tb\nc\td", QString(300, 'm')};
    static inline const std::vector<Qt::Key> keys{Qt::Key_Space, Qt::Key_Return, Qt::Key_Delete, Qt::Key_Up,
                                                  Qt::Key_Down,  Qt::Key_Left,   Qt::Key_Right,  Qt::Key_Tab,
                                                  Qt::Key_F8,    Qt::Key_Escape, Qt::Key_0,      Qt::Key_1,
                                                  Qt::Key_9,     Qt::Key_V,      Qt::Key_Home,   Qt::Key_End};
    static inline const std::vector<Qt::KeyboardModifiers> modifiers{
        Qt::NoModifier, Qt::NoModifier, Qt::ControlModifier, Qt::AltModifier, Qt::ShiftModifier};

    int below(int n) { return n > 0 ? std::uniform_int_distribution<int>(0, n - 1)(m_random) : 0; }
    template <class T> const T& pick(const std::vector<T>& all) {
        return all[static_cast<std::size_t>(below(static_cast<int>(all.size())))];
    }
    Qt::Key pick(std::initializer_list<Qt::Key> all) {
        return *(all.begin() + below(static_cast<int>(all.size())));
    }
    /// Who gets the keys meant for a widget: in a table the editor that the first of them opened.
    static QWidget* typing(QWidget* w) {
        auto* focus = QApplication::focusWidget();
        return focus && w->isAncestorOf(focus) ? focus : w;
    }
    /// Somebody of the window who is to be seen; mostly one that takes something.
    QWidget* somebody() {
        std::vector<QWidget*> seen, takers;
        for (auto* w : m_window.findChildren<QWidget*>()) {
            if (!w->isVisible() || !w->isEnabled() || w->isWindow()) continue;
            if (const auto* b = qobject_cast<QAbstractButton*>(w); b && b->text().startsWith("Take back"))
                continue; // undo, which is tried at the end
            seen.push_back(w);
            if (qobject_cast<QAbstractButton*>(w) || qobject_cast<QLineEdit*>(w) ||
                qobject_cast<QComboBox*>(w) || qobject_cast<QAbstractSpinBox*>(w) ||
                qobject_cast<QTableWidget*>(w) || qobject_cast<QPlainTextEdit*>(w) ||
                qobject_cast<QTabBar*>(w))
                takers.push_back(w);
        }
        if (seen.empty()) return nullptr;
        auto* w = below(5) && !takers.empty() ? pick(takers) : pick(seen);
        if (auto* table = qobject_cast<QTableWidget*>(w); table && table->rowCount() && table->columnCount())
            table->setCurrentCell(below(table->rowCount()), below(table->columnCount()));
        return w;
    }
    /// Undo is tried at the end; the rest would leave the project or the program.
    static bool leaves(const QAction& action) {
        for (const auto* word :
             {"undo", "redo", "quit", "open", "close", "new project", "recent", "start page"})
            if (action.text().remove('&').contains(word, Qt::CaseInsensitive)) return true;
        return action.text().endsWith(".anvil");
    }

    MainWindow& m_window;
    std::mt19937 m_random;
    QTimer m_closer;
};

class Strangers : public Window, public testing::WithParamInterface<unsigned> {};

TEST_P(Strangers, BreakNothingAndAreUndone) {
    openDemo();
    const auto before = session().project()->studies();
    Stranger stranger(*window, GetParam());
    for (const auto stage : {Stage::question, Stage::specimens, Stage::curves, Stage::verdict, Stage::report,
                             Stage::rig, Stage::pull}) {
        ASSERT_TRUE(session().project());
        window->goTo(stage);
        for (int i = 0; i < 60; ++i) {
            stranger.act();
            QApplication::processEvents();
        }
        settle();
    }
    ASSERT_TRUE(window->isVisible());
    ASSERT_TRUE(session().project());
    EXPECT_EQ(session().project()->file().check().problems, QStringList());
    auto& project = *session().project();
    const auto left = project.studies();
    int steps = 0;
    for (; project.canUndo(); ++steps) {
        const auto what = project.undoText().toStdString();
        const auto undone = project.undo();
        ASSERT_TRUE(undone) << what << ": " << undone.error().message;
    }
    fmt::print("seed {}: {} steps undone and done again\n", GetParam(), steps);
    EXPECT_GT(steps, 2) << "the stranger changed next to nothing";
    EXPECT_TRUE(project.studies() == before) << steps << " steps undone";
    for (; project.canRedo(); --steps) {
        const auto what = project.redoText().toStdString();
        const auto redone = project.redo();
        ASSERT_TRUE(redone) << what << ": " << redone.error().message;
    }
    EXPECT_EQ(steps, 0);
    EXPECT_TRUE(project.studies() == left) << "and done again";
}

INSTANTIATE_TEST_SUITE_P(Seeds, Strangers, testing::Values(5U, 6U, 18U));

} // namespace
