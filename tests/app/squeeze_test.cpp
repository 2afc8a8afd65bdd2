// No page is squeezed: at every stage, tab and form each control is as high as its text, and no button lies
// outside the window; what does not fit scrolls.
#include "harness.h"

#include "help/help_window.h"
#include "shell/import_sheet.h"
#include "shell/picture_dialog.h"
#include "squeezed.h"
#include "stages/curves/reading_form.h"
#include "stages/verdict/trail.h"
#include "stages/verdict/verdict_forms.h"
#include "theme/theme.h"

#include <QTabBar>
#include <QTabWidget>
#include <QTimer>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>

namespace anvil::app {
namespace {

struct Squeezed : Window {
    static void look(const QString& where, QWidget* top) {
        settle();
        const auto bad = squeezedIn(top);
        EXPECT_TRUE(bad.isEmpty()) << where.toStdString() << " at " << top->width() << " x " << top->height()
                                   << ", text " << textScale() << ":\n  "
                                   << bad.mid(0, 8).join("\n  ").toStdString();
    }
    void look(const QString& where) { look(where, window.get()); }
    /// What opens and waits for an answer is looked at, and turned down.
    template <class Open> void lookAtDialog(const QString& what, Open open) {
        bool seen = false;
        QTimer::singleShot(0, window.get(), [&] {
            auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
            ASSERT_TRUE(dialog) << what.toStdString();
            look(what, dialog);
            EXPECT_LE(dialog->width(), window->width()) << what.toStdString();
            EXPECT_LE(dialog->height(), window->height()) << what.toStdString();
            seen = true;
            dialog->reject();
        });
        open();
        settle();
        EXPECT_TRUE(seen) << what.toStdString();
    }
    void dialogs(const QString& of) {
        auto* w = window.get();
        const auto pull = session().pull();
        window->goTo(Stage::verdict);
        lookAtDialog(of + ", reference lines", [&] { askReferences(session(), w); });
        lookAtDialog(of + ", working limit", [&] { askUse(session(), w); });
        lookAtDialog(of + ", by eye", [&] { askRatings(session(), w); });
        lookAtDialog(of + ", devices", [&] { askReevings(session(), w); });
        lookAtDialog(of + ", arrangements", [&] { askArrangements(session(), w); });
        if (pull) lookAtDialog(of + ", set aside", [&] { askAside(session(), pull, w); });
        if (pull) lookAtDialog(of + ", how to read", [&] { askHowToRead(session(), w); });
        lookAtDialog(of + ", about", [&] { showAbout(w); });
        lookAtDialog(of + ", help", [&] {
            HelpWindow help(w);
            help.exec();
        });
        const auto metric = domain::metric("peak");
        if (const auto& v = session().verdict(metric); !v.groups.empty())
            lookAtDialog(of + ", where from", [&] {
                TrailDialog trail(session(), metric, v, 0, "mean", w);
                trail.exec();
            });
        lookAtDialog(of + ", a photo", [&] {
            QPixmap picture(900, 600);
            picture.fill(Qt::gray);
            PictureDialog dialog(picture, "A photo with a rather long name.jpg", {}, {}, {},
                                 session().units(), w);
            dialog.exec();
        });
        QFile log(dir.filePath("a rather long name of a log_dry_1.csv"));
        ASSERT_TRUE(log.open(QIODevice::WriteOnly));
        for (int i = 0; i < 100; ++i)
            log.write(QByteArray::number(i * 0.1) + "," + QByteArray::number(i < 20 ? 0 : i * 7) + "\n");
        log.close();
        auto* sheet = window->importFiles({log.fileName()});
        ASSERT_TRUE(sheet);
        ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().rows.empty(); }));
        look(of + ", import", sheet);
        sheet->reject();
        ValuesSheet values(session(), "option,value\nA rather long name of a pin,1200\nHook,900\n", "pasted",
                           w);
        values.show();
        look(of + ", results", &values);
    }
    /// The same window with larger text: widgets measure themselves when they are made.
    void enlarge(double scale) {
        const auto path = session().project() ? session().project()->file().path() : QString();
        window.reset();
        setTextScale(scale);
        applyTheme(*qApp, Appearance::light);
        window = std::make_unique<MainWindow>();
        window->resize(1280, 800);
        window->show();
        if (!path.isEmpty()) {
            ASSERT_TRUE(window->openPath(path));
        }
        settle();
    }
    void TearDown() override {
        Window::TearDown();
        setTextScale(1);
        applyTheme(*qApp, Appearance::light);
    }
    /// Every stage, and every tab of those that have some.
    void walk(const QString& what) {
        for (int k = 0; k < stageCount; ++k) {
            const auto stage = static_cast<Stage>(k);
            window->goTo(stage);
            const auto name = what + ", " + StageStrip::name(stage);
            look(name);
            for (auto* tabs : window->findChildren<QTabWidget*>())
                for (int t = 0; tabs->isVisible() && t < tabs->count(); ++t) {
                    tabs->setCurrentIndex(t);
                    look(name + ", " + tabs->tabText(t));
                }
            if (stage == Stage::verdict) pagesOfVerdict(name);
            if (stage == Stage::question) pagesOfPlan(name);
        }
    }
    void pagesOfVerdict(const QString& of) {
        auto* pages = child<QTabBar>("pages");
        for (int t = 0; pages && pages->isVisible() && t < pages->count(); ++t) {
            pages->setCurrentIndex(t);
            look(of + ", " + pages->tabText(t));
        }
        if (pages) pages->setCurrentIndex(0);
    }
    void pagesOfPlan(const QString& of) {
        for (const char* page :
             {"Method", "Fair", "Enough", "Reach", "Weakest link", "Forecasts", "Order", "Facts", "Safety"}) {
            planPage(page);
            look(of + ", " + page);
        }
        for (auto* b : window->findChildren<QPushButton*>()) // and back to the plan
            if (b->isVisible() && b->text().endsWith("The plan")) return b->click();
    }
    static constexpr QSize sizes[] = {{1280, 800}, {1024, 700}};
};

TEST_F(Squeezed, NothingInTheDemo) {
    openDemo();
    for (const auto& size : sizes) {
        window->resize(size);
        walk("the demo");
        dialogs("the demo");
    }
    enlarge(1.5);
    walk("the demo");
    dialogs("the demo");
}

TEST_F(Squeezed, NothingInAProjectThatWasJustBegun) {
    newStudy({"Pin"}, {"Dry"});
    for (const auto& size : sizes) {
        window->resize(size);
        walk("a new project");
        dialogs("a new project");
    }
    enlarge(1.5);
    walk("a new project");
    dialogs("a new project");
}

TEST_F(Squeezed, NothingUnderLongNames) {
    const auto longName = [](const char* of) {
        return QString(of) +
               QStringLiteral(" with a name that goes on for longer than anybody would read it aloud");
    };
    newStudy({longName("Pin"), longName("Hook")}, {longName("Dry"), longName("Wet")});
    for (const auto& size : sizes) {
        window->resize(size);
        walk("long names");
        dialogs("long names");
    }
    enlarge(1.5);
    walk("long names");
    dialogs("long names");
}

TEST_F(Squeezed, NoFormOfAnyMethod) {
    const auto id = newStudy({"Pin", "Hook"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    ASSERT_TRUE(project::makePieces(*session().project(), id, ""));
    const auto every = [&] {
        window->goTo(Stage::pull);
        for (const auto& method : methods::all()) {
            ASSERT_TRUE(project::setMethod(*session().project(), id, std::string(method->key)));
            look(QStringLiteral("the form of ") + QString::fromUtf8(method->title.data()));
        }
    };
    for (const auto& size : sizes) {
        window->resize(size);
        every();
    }
    enlarge(1.5);
    every();
}

} // namespace
} // namespace anvil::app
