#include "harness.h"

#include "theme/theme.h"
#include <QAbstractButton>
#include <QAction>
#include <QComboBox>
#include <QElapsedTimer>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QSettings>
#include <QTabBar>
#include <QTabWidget>
#include <QTableWidget>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <iostream>

namespace anvil::app {

bool waitFor(const std::function<bool()>& condition) {
    QElapsedTimer timer;
    timer.start();
    while (!condition()) {
        if (timer.elapsed() > 5000) return false;
        QTest::qWait(5);
    }
    return true;
}

void settle() {
    for (int round = 0; round < 4; ++round) { // an event may post another
        QCoreApplication::sendPostedEvents();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        QCoreApplication::processEvents();
    }
}

QStringList visibleTexts(QWidget* root) {
    QStringList out;
    for (auto* w : root->findChildren<QWidget*>()) {
        if (!w->isVisibleTo(root)) continue;
        if (const auto* label = qobject_cast<QLabel*>(w))
            out << label->text();
        else if (const auto* button = qobject_cast<QAbstractButton*>(w))
            out << button->text() << button->accessibleDescription(); // painted ones say both
        else if (const auto* edit = qobject_cast<QLineEdit*>(w))
            out << edit->text();
        else if (const auto* box = qobject_cast<QComboBox*>(w))
            out << box->currentText();
        else if (const auto* picture = qobject_cast<PictureView*>(w))
            for (const auto& l : picture->picture().labels())
                out << qs(l);
        else if (const auto* curve = qobject_cast<CurveView*>(w))
            for (const auto& l : curve->picture().labels())
                out << qs(l);
        else if (const auto* pages = qobject_cast<PagesView*>(w))
            for (const auto& page : pages->sheets())
                for (const auto& item : page.items) {
                    out << item.text;
                    if (item.picture)
                        for (const auto& l : item.picture->labels())
                            out << qs(l);
                }
        else if (const auto* list = qobject_cast<QListWidget*>(w))
            for (int i = 0; i < list->count(); ++i)
                out << list->item(i)->text();
        else if (const auto* table = qobject_cast<QTableWidget*>(w))
            for (int r = 0; r < table->rowCount(); ++r)
                for (int c = 0; c < table->columnCount(); ++c)
                    if (!table->isColumnHidden(c) && table->item(r, c)) out << table->item(r, c)->text();
    }
    out.removeAll(QString());
    return out;
}

QString runProgram(const QString& program, const QStringList& arguments) {
    QProcess p;
    p.start(program, arguments);
    EXPECT_TRUE(p.waitForFinished(60000)) << program.toStdString();
    EXPECT_EQ(p.exitCode(), 0) << p.readAllStandardError().toStdString();
    return QString::fromUtf8(p.readAllStandardOutput());
}

QString demoCopy(const QTemporaryDir& dir) {
    static const QTemporaryDir once;
    // One that was made before; under the thread sanitizer no other program can be started from here.
    const auto made = qEnvironmentVariable("ANVIL_TEST_DEMO", once.filePath("demo.anvil"));
    if (!QFile::exists(made)) runProgram(ANVIL_DEMO, {"--to", made});
    const auto copy = dir.filePath("demo.anvil");
    EXPECT_TRUE(QFile::copy(made, copy));
    return copy;
}

void Window::SetUp() {
    QSettings().clear();
    window = std::make_unique<MainWindow>();
    window->resize(1280, 800);
    window->show();
    ASSERT_TRUE(QTest::qWaitForWindowExposed(window.get()));
}

void Window::TearDown() {
    window->close();
    window.reset();
}

void Window::openDemo() {
    ASSERT_TRUE(window->openPath(demoCopy(dir)));
    settle();
}

domain::Id Window::newStudy(const QStringList& options, const QStringList& conditions) {
    if (!session().project()) {
        EXPECT_TRUE(session().create(dir.filePath("p.anvil")));
    }
    domain::Study s;
    s.title = "Pegs";
    const auto id = *project::addStudy(*session().project(), s);
    EXPECT_TRUE(project::addOptions(*session().project(), id, options));
    EXPECT_TRUE(project::addConditions(*session().project(), id, conditions));
    session().showStudy(id);
    return id;
}

void Window::begin(const char* method) {
    const auto id = newStudy({"Pin", "Hook"}, {"Dry"});
    ASSERT_TRUE(project::setMethod(*session().project(), id, method));
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    ASSERT_TRUE(project::makePieces(*session().project(), id, ""));
    window->goTo(Stage::pull);
    settle();
}

domain::Id Window::pullOf(const std::string& label) {
    for (const auto& s : study().specimens)
        for (const auto& p : study().pulls)
            if (s.label == label && p.specimen == s.id) return p.id;
    ADD_FAILURE() << "no pull of " << label;
    return 0;
}

void Window::menu(const QString& text) {
    for (auto* action : window->findChildren<QAction*>())
        if (action->objectName() == text || action->text().remove('&') == text) return action->trigger();
    ADD_FAILURE() << "no menu entry " << text.toStdString();
}

void Window::pressButton(const QString& text) {
    QList<QPushButton*> found;
    for (auto* b : window->findChildren<QPushButton*>())
        if (b->isVisible() && b->text().remove('&') == text) found << b;
    ASSERT_EQ(found.size(), 1) << "buttons that say " << text.toStdString();
    QTest::mouseClick(found[0], Qt::LeftButton);
}

void retype(QLineEdit* field, const QString& text) {
    field->selectAll();
    field->insert(text);
}

void typeRows(RowEditor* list, const std::vector<QStringList>& rows) {
    list->setFocus();
    while (!list->rows().empty()) {
        list->setCurrentCell(0, 0);
        QTest::keyClick(list, Qt::Key_Delete);
    }
    for (std::size_t r = 0; r < rows.size(); ++r)
        for (int k = 0; k < static_cast<int>(rows[r].size()); ++k)
            if (!rows[r][k].isEmpty()) list->item(static_cast<int>(r), k)->setText(rows[r][k]);
}

int columnOf(const QTableWidget* table, const QString& key) {
    for (int k = 0; k < table->columnCount(); ++k)
        if (table->horizontalHeaderItem(k)->data(Qt::UserRole) == key) return k;
    return -1;
}

QString cell(const QTableWidget* table, int row, const QString& key) {
    const auto* item = table->item(row, columnOf(table, key));
    if (!item) ADD_FAILURE() << "no cell " << key.toStdString();
    return item ? item->text() : QString();
}

void Window::showPage(const QString& title) {
    window->goTo(Stage::verdict);
    settle();
    auto* bar = child<QTabBar>("pages");
    for (int i = 0; bar && i < bar->count(); ++i)
        if (bar->tabText(i) == title) {
            QTest::mouseClick(bar, Qt::LeftButton, {}, bar->tabRect(i).center());
            return settle();
        }
    if (title != "Answer" || !bar || bar->count() > 0) ADD_FAILURE() << "no page " << title.toStdString();
}

void Window::planPage(const QString& title) {
    settle();
    for (auto* b : window->findChildren<QPushButton*>())
        if (b->isVisible() && b->text().endsWith("The plan")) QTest::mouseClick(b, Qt::LeftButton);
    settle();
    for (auto* b : window->findChildren<QAbstractButton*>())
        if (b->isVisible() && (title == "Method" ? b->objectName() == "chooseMethod" : b->text() == title)) {
            QTest::mouseClick(b, Qt::LeftButton);
            return settle();
        }
    ADD_FAILURE() << "no page of the plan " << title.toStdString();
}

void Window::showTab(const char* name, const QString& text) {
    auto* tabs = child<QTabWidget>(name);
    for (int i = 0; tabs && i < tabs->count(); ++i)
        if (tabs->tabText(i).startsWith(text)) return tabs->setCurrentIndex(i);
    ADD_FAILURE() << "no tab " << text.toStdString();
}

} // namespace anvil::app

int main(int argc, char** argv) {
    testing::InitGoogleTest(&argc, argv);
    // What Qt complains of is a fault of ours, but for what the machine of the test lacks.
    qInstallMessageHandler([](QtMsgType type, const QMessageLogContext&, const QString& text) {
        std::cerr << text.toStdString() << "\n";
        if (type == QtDebugMsg || type == QtInfoMsg || text.contains("XDG_RUNTIME_DIR") ||
            text.contains("plugin does not support"))
            return;
        ADD_FAILURE() << "Qt says: " << text.toStdString();
    });
    const QTemporaryDir settings;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    qputenv("HOME", settings.path().toUtf8()); // where documents are kept
    QApplication application(argc, argv);
    QApplication::setApplicationName("Jaunty Anvil tests");
    anvil::app::applyTheme(application, anvil::app::Appearance::light);
    return RUN_ALL_TESTS();
}
