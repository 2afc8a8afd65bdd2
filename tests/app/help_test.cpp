// The manual: for what is on show, with links that lead somewhere, and every key that there is.
#include "harness.h"

#include "help/help_window.h"
#include <QAction>
#include <QRegularExpression>
#include <QTextBrowser>
#include <QTextDocument>

namespace anvil::app {
namespace {

struct Help : Window {
    HelpWindow* shown() {
        for (auto* w : window->findChildren<HelpWindow*>())
            if (w->isVisible()) return w;
        return nullptr;
    }
    void f1() {
        key(Qt::Key_F1);
        settle();
    }
};

QString manual(const QString& page) {
    QFile file(":/manual/" + page + ".md");
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

TEST_F(Help, OpensForWhatIsOnShow) {
    f1();
    ASSERT_TRUE(shown());
    EXPECT_EQ(shown()->page(), "first-steps");
    shown()->close();
    openDemo();
    const QStringList pages{"question", "specimens", "rig", "pull", "curves", "verdict", "report"};
    for (int k = 0; k < stageCount; ++k) {
        window->goTo(static_cast<Stage>(k));
        window->activateWindow();
        ASSERT_TRUE(QTest::qWaitForWindowActive(window.get()));
        f1();
        ASSERT_TRUE(shown());
        EXPECT_EQ(shown()->page(), pages[k]);
        EXPECT_GT(shown()->findChild<QTextBrowser*>()->document()->characterCount(), 200);
        shown()->close();
    }
}

TEST_F(Help, EveryPageIsThereAndEveryLinkLeadsSomewhere) {
    f1();
    const QRegularExpression link("\\]\\(([^)]+)\\)");
    for (const auto& page : HelpWindow::pages()) {
        const auto text = manual(page);
        EXPECT_TRUE(text.startsWith("# ")) << page.toStdString();
        for (auto at = link.globalMatch(text); at.hasNext();) {
            const auto to = at.next().captured(1);
            EXPECT_TRUE(to.endsWith(".md") && HelpWindow::pages().contains(to.chopped(3)))
                << page.toStdString() << " points to " << to.toStdString();
        }
    }
}

TEST_F(Help, ALinkIsFollowedWithinTheManualOnly) {
    f1();
    auto* text = shown()->findChild<QTextBrowser*>();
    emit text->anchorClicked(QUrl("verdict.md"));
    EXPECT_EQ(shown()->page(), "verdict");
    emit text->anchorClicked(QUrl("file:///etc/passwd"));
    EXPECT_EQ(shown()->page(), "first-steps") << "what is no page of ours leads to the first one";
}

TEST_F(Help, NoKeyOfTheMenusIsMissing) {
    f1();
    const auto keys = manual("keys");
    for (const auto* action : window->findChildren<QAction*>()) {
        const auto key = action->shortcut().toString(QKeySequence::PortableText);
        if (key.isEmpty() || key == "Ctrl+Q") continue;
        const bool stage = QRegularExpression("^Ctrl\\+[1-7]$").match(key).hasMatch();
        EXPECT_TRUE(stage || keys.contains(key))
            << action->text().toStdString() << " by " << key.toStdString() << " is not among the keys";
    }
}

} // namespace
} // namespace anvil::app
