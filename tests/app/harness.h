// The real window on the demo project, driven by events.
#pragma once

#include "shell/board.h"
#include "shell/main_window.h"
#include "shell/stage_strip.h"
#include "stages/curves/curves_stage.h"
#include "stages/report/report_stage.h"
#include "stages/verdict/verdict_stage.h"
#include "widgets/curve_view.h"
#include "widgets/picture_view.h"
#include "widgets/row_editor.h"
#include <QApplication>
#include <QElapsedTimer>
#include <QFile>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>
#include <functional>
#include <gtest/gtest.h>

namespace anvil::app {

/// Lets events run until the condition holds; false after five seconds.
bool waitFor(const std::function<bool()>& condition);
/// Lets what is posted be done, without waiting for the clock.
void settle();

/// Every text a person can see in a visible widget: labels, buttons, tables, lists, drawn pictures.
QStringList visibleTexts(QWidget* root);

/// Puts a text in the place of what stands in a field, as typing it would.
void retype(QLineEdit* field, const QString& text);

/// Types rows into a list that is typed cell by cell, as they would be by hand; what stood there goes.
void typeRows(RowEditor* list, const std::vector<QStringList>& rows);

/// The column of a page's table by its key; -1 where there is none.
int columnOf(const QTableWidget* table, const QString& key);
/// A cell's text by row and the column's key.
QString cell(const QTableWidget* table, int row, const QString& key);

/// A fresh copy of the demo project, made once.
QString demoCopy(const QTemporaryDir& dir);

QString runProgram(const QString& program, const QStringList& arguments);

struct Window : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<MainWindow> window;

    void SetUp() override;
    void TearDown() override;
    void openDemo();
    Session& session() { return window->session(); }
    const domain::StudyData& study() { return *session().study(); }
    template <class T> T* child(const char* name) {
        auto* found = window->findChild<T*>(name);
        if (!found) ADD_FAILURE() << "no " << name;
        return found;
    }
    /// The one control of its kind on show that is called this, as those hear it who do not see it.
    template <class T> T* shown(const QString& name) {
        QList<T*> found;
        for (auto* w : window->findChildren<T*>())
            if (w->isVisible() && w->accessibleName() == name) found << w;
        if (found.size() != 1) ADD_FAILURE() << found.size() << " on show are called " << name.toStdString();
        return found.isEmpty() ? nullptr : found.front();
    }
    /// Clicks the one visible button that says this.
    void pressButton(const QString& text);
    /// A fresh study, in a fresh project where none is open, of these options and conditions; nothing is
    /// planned.
    domain::Id newStudy(const QStringList& options, const QStringList& conditions);
    /// A study of a pin and a hook by this method, two pieces each; Pull is on show.
    void begin(const char* method);
    /// The pull of a specimen label in the study on show.
    domain::Id pullOf(const std::string& label);
    void key(int key, Qt::KeyboardModifiers modifiers = {}) {
        QTest::keyClick(window.get(), static_cast<Qt::Key>(key), modifiers);
    }
    /// Triggers a menu action by its object name or text.
    void menu(const QString& text);
    /// Shows a page of the verdict by clicking its name.
    void showPage(const QString& title);
    /// The strength ladder, on show.
    PictureView* ladder() {
        showPage("Answer");
        return child<PictureView>("ladder");
    }
    /// The ranked table, on show.
    QTableWidget* ranking() {
        showPage("Table");
        return child<QTableWidget>("ranking");
    }
    /// Opens a page of the plan by clicking what the advisor, or the method's drawing, says; Question is on
    /// show.
    void planPage(const QString& title);
    /// Shows the tab whose text begins with this.
    void showTab(const char* tabs, const QString& text);
};

} // namespace anvil::app
