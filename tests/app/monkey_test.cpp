// Somebody who knows nothing at the real window: clicks, keys, text and wheels by chance, from a seed.
// Nothing crashes, Qt complains of nothing, and what is in the file is what the window shows.
// ANVIL_MONKEY_SEED and ANVIL_MONKEY_ACTIONS say which and how many; the same seed does the same.
#include "harness.h"

#include "shell/session.h"
#include <QAbstractItemView>
#include <QAccessible>
#include <QClipboard>
#include <QComboBox>
#include <QDateTime>
#include <QDialog>
#include <QEventLoop>
#include <QFileDialog>
#include <QMenu>
#include <QMenuBar>
#include <QTabBar>
#include <QTimer>
#include <QWheelEvent>
#include <deque>
#include <iostream>
#include <random>

namespace anvil::app {
namespace {

int fromEnvironment(const char* name, int otherwise) {
    bool ok = false;
    const int value = qEnvironmentVariableIntValue(name, &ok);
    return ok ? value : otherwise;
}

class Monkey : public QObject {
public:
    Monkey(MainWindow& window, QString demo, unsigned seed, int actions)
        : m_window(window), m_demo(std::move(demo)), m_random(seed), m_left(actions) {}

    void run() {
        next();
        m_loop.exec();
        shutDialogs();
    }
    /// What was done last, for whoever has to find out.
    std::string last() const {
        std::string out;
        for (const auto& what : m_last)
            out += "\n    " + what.toStdString();
        return out;
    }
    const std::map<QString, int>& done() const { return m_done; }

private:
    int below(int n) { return static_cast<int>(m_random() % static_cast<unsigned>(std::max(1, n))); }
    template <class T> const T& oneOf(const std::vector<T>& all) {
        return all[static_cast<std::size_t>(below(static_cast<int>(all.size())))];
    }
    void note(const QString& kind, const QString& what) {
        ++m_done[kind];
        m_last.push_back(kind + ' ' + what);
        if (m_last.size() > 25) m_last.pop_front();
        if (qEnvironmentVariableIsSet("ANVIL_MONKEY_TELLS")) std::cerr << m_last.back().toStdString() << "\n";
    }
    static QString nameOf(const QWidget* w) {
        const auto* button = qobject_cast<const QAbstractButton*>(w);
        return QString::fromLatin1(w->metaObject()->className()) + ' ' + w->objectName() +
               (button ? " \"" + button->text() + '"' : QString());
    }

    /// The next action is ordered before this one is done: one that opens a dialog returns only after it.
    void next() {
        QTimer::singleShot(1, this, [this] { // what the last one posted comes first, as it does for a person
            if (m_left-- <= 0) return end();
            next();
            act();
        });
    }
    void end() {
        shutDialogs();
        if (m_deep > 0 || QApplication::activeModalWidget()) {
            QTimer::singleShot(20, this, [this] { end(); });
            return;
        }
        m_loop.quit();
    }
    void shutDialogs() {
        while (auto* popup = QApplication::activePopupWidget())
            if (!popup->close()) break;
        if (auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget())) dialog->reject();
    }

    QWidget* ground() {
        if (auto* popup = QApplication::activePopupWidget()) return popup;
        if (auto* modal = QApplication::activeModalWidget()) return modal;
        const auto tops = QApplication::topLevelWidgets();
        std::vector<QWidget*> shown;
        for (auto* w : tops)
            if (w->isVisible() && w->windowType() != Qt::ToolTip && w != &m_window) shown.push_back(w);
        return !shown.empty() && below(4) == 0 ? oneOf(shown) : &m_window;
    }
    QWidget* somewhere(QPoint& at) {
        auto* top = ground();
        std::vector<QWidget*> all;
        for (auto* w : top->findChildren<QWidget*>())
            if (w->isVisible() && w->isEnabled() && w->width() > 2 && w->height() > 2 && w->window() == top &&
                !w->visibleRegion().isEmpty())
                all.push_back(w);
        auto* w = all.empty() ? top : oneOf(all);
        const auto seen = w->visibleRegion().boundingRect();
        at = seen.topLeft() + QPoint(below(seen.width()), below(seen.height()));
        return w;
    }

    /// What a screen reader asks for: name, place and children, some levels down.
    static void hear(QAccessibleInterface* of, int levels) {
        if (!of || !of->isValid()) return;
        (void)of->text(QAccessible::Name);
        (void)of->rect();
        (void)of->state();
        if (auto* table = of->tableInterface())
            for (int row = 0; row < std::min(5, table->rowCount()); ++row)
                for (int column = 0; column < table->columnCount(); ++column)
                    if (auto* cell = table->cellAt(row, column)) (void)cell->text(QAccessible::Name);
        for (int i = 0; levels > 0 && i < std::min(30, of->childCount()); ++i)
            hear(of->child(i), levels - 1);
    }

    void act() {
        if (below(5) == 0) {
            hear(QAccessible::queryAccessibleInterface(QApplication::focusWidget()), 2);
            hear(QAccessible::queryAccessibleInterface(ground()), 3);
        }
        ++m_deep;
        if (auto* files = qobject_cast<QFileDialog*>(QApplication::activeModalWidget())) {
            note("closes", "a file dialog");
            files->reject();
        } else if (!m_window.isVisible()) {
            note("opens", "the window");
            m_window.show();
        } else if (!m_window.session().project() && below(8) == 0) {
            note("opens", "the demo");
            m_window.openPath(m_demo);
        } else {
            const int what = below(100);
            if (what < 35)
                click();
            else if (what < 50)
                press();
            else if (what < 62)
                type();
            else if (what < 75)
                key();
            else if (what < 81)
                choose();
            else if (what < 86)
                item();
            else if (what < 90)
                wheel();
            else if (what < 93)
                stage();
            else if (what < 96)
                menu();
            else if (what < 98)
                tick();
            else
                size();
        }
        --m_deep;
    }
    void click() {
        QPoint at;
        QPointer<QWidget> w = somewhere(at);
        const auto which = below(8) == 0 ? Qt::RightButton : Qt::LeftButton;
        note("clicks", nameOf(w) + QString(" at %1,%2").arg(at.x()).arg(at.y()));
        if (which == Qt::RightButton) {
            QContextMenuEvent event(QContextMenuEvent::Mouse, at, w->mapToGlobal(at));
            QApplication::sendEvent(w, &event);
        } else if (below(6) == 0) {
            QTest::mouseDClick(w, which, {}, at);
        } else {
            QTest::mouseClick(w, which, {}, at);
        }
    }
    void press() {
        std::vector<QAbstractButton*> all;
        for (auto* b : ground()->findChildren<QAbstractButton*>())
            if (b->isVisible() && b->isEnabled() && !b->visibleRegion().isEmpty()) all.push_back(b);
        if (all.empty()) return key();
        auto* b = oneOf(all);
        note("presses", nameOf(b));
        QTest::mouseClick(b, Qt::LeftButton);
    }
    void type() {
        auto* w = QApplication::focusWidget();
        if (!w) w = ground();
        static const std::vector<QString> texts{"12.5 kN",
                                                "230 lbf",
                                                "3,5",
                                                "-1",
                                                "0",
                                                "1/2 in",
                                                ">4 kN",
                                                "abc",
                                                "=1+1",
                                                "1e308",
                                                "40 ft·lbf",
                                                QString(300, 'x'),
                                                QString::fromUtf8("Größe é 𝛼"),
                                                "  ",
                                                "12 mm; 13 mm",
                                                "5 %",
                                                "12.13 kN",
                                                "nan"};
        const auto text = oneOf(texts);
        note("types", text.left(20) + " into " + nameOf(w));
        const QPointer<QWidget> typed = w;
        for (const auto c : text.toUcs4()) { // QTest knows only the letters of ASCII
            const char32_t letter = c;
            const auto one = QString::fromUcs4(&letter, 1);
            for (const auto kind : {QEvent::KeyPress, QEvent::KeyRelease}) {
                QKeyEvent event(kind, 0, Qt::NoModifier, one);
                if (typed) QApplication::sendEvent(typed, &event);
            }
        }
        w = typed;
        if (w && below(2)) QTest::keyClick(w, below(2) ? Qt::Key_Return : Qt::Key_Tab);
    }
    void key() {
        struct Stroke {
            Qt::Key key;
            Qt::KeyboardModifiers with;
        };
        static const std::vector<Stroke> strokes{{Qt::Key_Return, {}},
                                                 {Qt::Key_Tab, {}},
                                                 {Qt::Key_Backtab, {}},
                                                 {Qt::Key_Escape, {}},
                                                 {Qt::Key_Space, {}},
                                                 {Qt::Key_Up, {}},
                                                 {Qt::Key_Down, {}},
                                                 {Qt::Key_Left, {}},
                                                 {Qt::Key_Right, {}},
                                                 {Qt::Key_Delete, {}},
                                                 {Qt::Key_Backspace, {}},
                                                 {Qt::Key_F2, {}},
                                                 {Qt::Key_Home, {}},
                                                 {Qt::Key_End, {}},
                                                 {Qt::Key_PageDown, {}},
                                                 {Qt::Key_1, {}},
                                                 {Qt::Key_3, {}},
                                                 {Qt::Key_9, {}},
                                                 {Qt::Key_F8, {}},
                                                 {Qt::Key_Z, Qt::ControlModifier},
                                                 {Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier},
                                                 {Qt::Key_A, Qt::ControlModifier},
                                                 {Qt::Key_C, Qt::ControlModifier},
                                                 {Qt::Key_V, Qt::ControlModifier},
                                                 {Qt::Key_X, Qt::ControlModifier},
                                                 {Qt::Key_Plus, Qt::ControlModifier},
                                                 {Qt::Key_Minus, Qt::ControlModifier},
                                                 {Qt::Key_0, Qt::ControlModifier}};
        const auto stroke = oneOf(strokes);
        auto* w = QApplication::focusWidget();
        if (!w || below(5) == 0) w = ground();
        note("keys", QKeySequence(stroke.key | stroke.with).toString() + " on " + nameOf(w));
        QTest::keyClick(w, stroke.key, stroke.with);
    }
    void choose() {
        std::vector<QComboBox*> boxes;
        for (auto* b : ground()->findChildren<QComboBox*>())
            if (b->isVisible() && b->isEnabled() && b->count() > 0) boxes.push_back(b);
        std::vector<QTabBar*> tabs;
        for (auto* t : ground()->findChildren<QTabBar*>())
            if (t->isVisible() && t->isEnabled() && t->count() > 0) tabs.push_back(t);
        if (!tabs.empty() && (boxes.empty() || below(2) == 0)) {
            auto* t = oneOf(tabs);
            const int k = below(t->count());
            note("tabs", t->tabText(k));
            QTest::mouseClick(t, Qt::LeftButton, {}, t->tabRect(k).center());
        } else if (!boxes.empty()) {
            auto* b = oneOf(boxes);
            const int k = below(b->count());
            note("chooses", nameOf(b) + ' ' + b->itemText(k));
            b->setCurrentIndex(k);
            emit b->activated(k);
        }
    }
    void item() {
        std::vector<QAbstractItemView*> views;
        for (auto* v : ground()->findChildren<QAbstractItemView*>())
            if (v->isVisible() && v->isEnabled() && v->model() && v->model()->rowCount() > 0)
                views.push_back(v);
        if (views.empty()) return;
        QPointer<QAbstractItemView> v = oneOf(views);
        const auto index = v->model()->index(below(v->model()->rowCount()), below(v->model()->columnCount()));
        note("cells", nameOf(v) + QString(" %1,%2").arg(index.row()).arg(index.column()));
        v->scrollTo(index);
        const auto at = v->visualRect(index).center();
        QTest::mouseClick(v->viewport(), Qt::LeftButton, {}, at);
        if (v && below(2)) QTest::mouseDClick(v->viewport(), Qt::LeftButton, {}, at);
    }
    void wheel() {
        QPoint at;
        QPointer<QWidget> w = somewhere(at);
        note("wheels", nameOf(w));
        QWheelEvent event(at, w->mapToGlobal(at), {}, QPoint(0, below(2) ? 240 : -240), Qt::NoButton,
                          below(4) ? Qt::NoModifier : Qt::ControlModifier, Qt::NoScrollPhase, false);
        QApplication::sendEvent(w, &event);
    }
    void stage() {
        if (ground() != &m_window || !m_window.session().project()) return;
        const auto to = static_cast<Stage>(below(stageCount));
        note("goes", QString::number(static_cast<int>(to)));
        m_window.goTo(to);
        if (below(3) == 0) {
            const auto& all = m_window.session().project()->studies();
            if (!all.empty()) m_window.session().showStudy(oneOf(all).study.id);
        }
    }
    void menu() {
        if (ground() != &m_window) return;
        std::vector<QAction*> all;
        for (auto* menu : m_window.findChildren<QMenu*>())
            for (auto* a : menu->actions())
                if (a->isEnabled() && a->isVisible() && !a->isSeparator() && !a->menu() &&
                    !a->text().contains("Quit"))
                    all.push_back(a);
        if (all.empty()) return;
        auto* a = oneOf(all);
        note("menu", a->text());
        a->trigger();
    }
    void tick() {
        note("time", "goes on");
        m_window.session().tick();
        QCoreApplication::processEvents();
    }
    void size() {
        const QSize to(700 + below(900), 500 + below(500));
        note("sizes", QString("%1x%2").arg(to.width()).arg(to.height()));
        m_window.resize(to);
    }

    MainWindow& m_window;
    QString m_demo;
    std::mt19937 m_random;
    int m_left, m_deep = 0;
    QEventLoop m_loop;
    std::deque<QString> m_last;
    std::map<QString, int> m_done;
};

struct Chance : Window {};

TEST_F(Chance, NothingItDoesBreaksTheWindow) {
    const auto seed = static_cast<unsigned>(fromEnvironment("ANVIL_MONKEY_SEED", 1));
    const int actions = fromEnvironment("ANVIL_MONKEY_ACTIONS", 300);
    QAccessible::setActive(true);
    openDemo();
    Monkey monkey(*window, session().project()->file().path(), seed, actions);
    const bool before = HasFailure();
    monkey.run();
    if (HasFailure() && !before) ADD_FAILURE() << "seed " << seed << ", last:" << monkey.last();
    if (auto* project = session().project()) {
        const auto file = project->file().load();
        ASSERT_TRUE(file) << file.error().message;
        ASSERT_EQ(file->size(), project->studies().size());
        for (std::size_t i = 0; i < file->size(); ++i) {
            EXPECT_EQ((*file)[i].study, project->studies()[i].study) << "seed " << seed;
            EXPECT_EQ((*file)[i].pulls, project->studies()[i].pulls) << "seed " << seed;
        }
    }
    int all = 0;
    for (const auto& [kind, n] : monkey.done())
        all += n;
    std::cout << "measured: seed " << seed << ", " << all << " actions\n";
    EXPECT_GT(all, actions / 2);
}

} // namespace
} // namespace anvil::app
