// The project's file is replaced or deleted by another program while it is open.
#include "harness.h"
#include "squeezed.h"

#include "shell/place_watch.h"

#include <QFileDialog>
#include <QMessageBox>
#include <QTimer>

namespace anvil::app {
namespace {

struct Place : Window {
    QString told;
    PlaceWatch* watch() { return window->findChild<PlaceWatch*>(); }
    /// Answers the question that comes up with the button of this role; a name is given where one is asked
    /// for.
    void answer(QMessageBox::ButtonRole role, const QString& name = {}) {
        QTimer::singleShot(0, window.get(), [this, role, name] {
            auto* box = window->findChild<QMessageBox*>("fileNotInPlace");
            ASSERT_TRUE(box);
            EXPECT_EQ(squeezedIn(box).join('\n').toStdString(), "");
            told = box->text() + ' ' + box->informativeText();
            if (!name.isEmpty()) give(name);
            for (auto* b : box->buttons())
                if (box->buttonRole(b) == role) return b->click();
            FAIL() << "no such button";
        });
    }
    /// Gives a name to the file dialog once it is there.
    void give(const QString& name) {
        QTimer::singleShot(20, window.get(), [this, name] {
            auto* files = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            if (!files) return give(name);
            files->selectFile(name);
            QMetaObject::invokeMethod(files, "accept");
        });
    }
    QString begun() {
        newStudy({"Pin", "Hook"}, {"Dry"});
        return session().project()->file().path();
    }
};

TEST_F(Place, AReplacedFileIsToldOnceAndWhatIsOpenIsKeptUnderAnotherName) {
    const auto path = begun();
    EXPECT_TRUE(watch()->look()) << "it is in its place";
    ASSERT_TRUE(QFile::rename(path, path + ".old"));
    ASSERT_TRUE(QFile::copy(path + ".old", path)) << "as a sync does";
    answer(QMessageBox::RejectRole);
    EXPECT_FALSE(window->close()) << "with a question, and then one stays";
    EXPECT_TRUE(told.contains("Another file was put in the place")) << told.toStdString();
    EXPECT_TRUE(watch()->look()) << "told once";
    told.clear();
    EXPECT_TRUE(window->close());
    EXPECT_TRUE(told.isEmpty());
}

TEST_F(Place, WhatWasDeletedUnderneathIsSavedUnderAnotherName) {
    const auto path = begun();
    const auto kept = dir.filePath("kept.anvil");
    ASSERT_TRUE(QFile::remove(path));
    answer(QMessageBox::AcceptRole, kept);
    EXPECT_TRUE(watch()->look()) << "kept, and on show";
    EXPECT_TRUE(told.contains("deleted or moved")) << told.toStdString();
    ASSERT_TRUE(session().project());
    EXPECT_EQ(session().project()->file().path(), kept);
    EXPECT_EQ(study().options.size(), 2U);
    EXPECT_TRUE(watch()->look()) << "in its place";
}

} // namespace
} // namespace anvil::app
