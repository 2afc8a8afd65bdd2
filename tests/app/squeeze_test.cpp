// No page is squeezed: at every stage, tab and form each control is as high as its text, and no button lies
// outside the window; what does not fit scrolls.
#include "harness.h"

#include <QAbstractScrollArea>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QTabWidget>
#include <anvil/work/board_commands.h>
#include <anvil/work/plan_commands.h>

namespace anvil::app {
namespace {

/// The view it scrolls in, if any.
const QWidget* viewportOf(const QWidget* w) {
    for (const auto* p = w->parentWidget(); p; p = p->parentWidget())
        if (const auto* area = qobject_cast<const QAbstractScrollArea*>(p)) return area->viewport();
    return nullptr;
}

QString textOf(const QWidget* w) {
    if (const auto* b = qobject_cast<const QAbstractButton*>(w)) return b->text();
    if (const auto* e = qobject_cast<const QLineEdit*>(w))
        return e->text().isEmpty() ? e->placeholderText() : e->text();
    if (const auto* c = qobject_cast<const QComboBox*>(w)) return c->currentText();
    if (const auto* l = qobject_cast<const QLabel*>(w)) return l->text();
    return {};
}

struct Squeezed : Window {
    /// What is wrong with what is on show now, a line each.
    QStringList faults() {
        QStringList out;
        const QRect inside(QPoint(), window->size());
        for (auto* w : window->findChildren<QWidget*>()) {
            const auto text = textOf(w);
            if (!w->isVisible() || text.isEmpty()) continue;
            const auto name =
                QStringLiteral("%1 \"%2\" (%3)")
                    .arg(QString::fromLatin1(w->metaObject()->className()), text.left(40), w->objectName());
            if (w->height() + 1 < w->fontMetrics().height())
                out << name + QStringLiteral(" is %1 px high, its text %2")
                                  .arg(w->height())
                                  .arg(w->fontMetrics().height());
            const QRect at(w->mapTo(window.get(), QPoint()), w->size());
            if (qobject_cast<QAbstractButton*>(w) && !viewportOf(w) && !inside.contains(at))
                out << name + QStringLiteral(" lies outside the window");
        }
        return out;
    }
    void look(const QString& where) {
        settle();
        const auto bad = faults();
        EXPECT_TRUE(bad.isEmpty()) << where.toStdString() << " at " << window->width() << " x "
                                   << window->height() << ":\n  " << bad.mid(0, 8).join("\n  ").toStdString();
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
        }
    }
    static constexpr QSize sizes[] = {{1280, 800}, {1024, 700}};
};

TEST_F(Squeezed, NothingInTheDemo) {
    openDemo();
    for (const auto& size : sizes) {
        window->resize(size);
        walk("the demo");
    }
}

TEST_F(Squeezed, NothingInAProjectThatWasJustBegun) {
    newStudy({"Pin"}, {"Dry"});
    for (const auto& size : sizes) {
        window->resize(size);
        walk("a new project");
    }
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
    }
}

TEST_F(Squeezed, NoFormOfAnyMethod) {
    const auto id = newStudy({"Pin", "Hook"}, {"Dry"});
    ASSERT_TRUE(work::planReplicates(*session().project(), id, 2));
    ASSERT_TRUE(work::makePieces(*session().project(), id, ""));
    window->goTo(Stage::pull);
    for (const auto& size : sizes) {
        window->resize(size);
        for (const auto& method : methods::all()) {
            ASSERT_TRUE(work::setMethod(*session().project(), id, std::string(method->key)));
            look(QStringLiteral("the form of ") + QString::fromUtf8(method->title.data()));
        }
    }
}

} // namespace
} // namespace anvil::app
