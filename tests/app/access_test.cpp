// For those who use keys only, who hear the window, or who see little contrast.
#include "harness.h"

#include "shell/start_page.h"
#include "theme/theme.h"
#include "widgets/picture_button.h"
#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QCheckBox>
#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QTabBar>
#include <cmath>

namespace anvil::app {
namespace {

struct Access : Window {
    /// Does it at every stage of the demo, and on the start page first.
    void everywhere(const std::function<void(const QString& where)>& look) {
        settle();
        look("start page");
        key(Qt::Key_N, Qt::ControlModifier);
        settle();
        look("plan page");
        key(Qt::Key_Escape);
        pressButton("Back");
        if (const auto path = dir.filePath("demo.anvil"); QFile::exists(path))
            ASSERT_TRUE(window->openPath(path));
        else
            openDemo();
        settle();
        for (int k = 0; k < stageCount; ++k) {
            window->goTo(static_cast<Stage>(k));
            settle();
            look(StageStrip::name(static_cast<Stage>(k)));
        }
        key(Qt::Key_L, Qt::ControlModifier);
        settle();
        look("ledger");
    }
};

/// What a screen reader says of a widget.
QString nameOf(const QWidget* w) {
    if (!w->accessibleName().isEmpty()) return w->accessibleName();
    if (const auto* b = qobject_cast<const QAbstractButton*>(w)) return b->text();
    if (const auto* t = qobject_cast<const QTabBar*>(w)) return t->tabText(t->currentIndex());
    return {};
}

TEST_F(Access, WhatCanBeReachedByKeyHasAName) {
    everywhere([&](const QString& where) {
        for (auto* w : window->findChildren<QWidget*>()) {
            if (!w->isVisible() || !(w->focusPolicy() & Qt::TabFocus) || w->focusProxy()) continue;
            if (qobject_cast<QHeaderView*>(w)) continue; // part of its table
            if (qobject_cast<QAbstractSpinBox*>(w->parent()) || qobject_cast<QComboBox*>(w->parent()))
                continue;
            if (w->objectName().startsWith("qt_")) continue; // parts of a larger one
            EXPECT_FALSE(nameOf(w).isEmpty()) << where.toStdString() << ": " << w->metaObject()->className()
                                              << " " << w->objectName().toStdString();
        }
    });
}

TEST_F(Access, EveryButtonAndFieldIsReachedByKey) {
    everywhere([&](const QString& where) {
        for (auto* w : window->findChildren<QWidget*>()) {
            const bool control = qobject_cast<QPushButton*>(w) || qobject_cast<QLineEdit*>(w) ||
                                 qobject_cast<QComboBox*>(w) || qobject_cast<QAbstractItemView*>(w);
            if (!control || !w->isVisible() || qobject_cast<QHeaderView*>(w) ||
                w->objectName().startsWith("qt_"))
                continue;
            if (qobject_cast<QAbstractSpinBox*>(w->parent()) || qobject_cast<QComboBox*>(w->parent()))
                continue;
            EXPECT_TRUE(w->focusPolicy() & Qt::TabFocus)
                << where.toStdString() << ": " << w->metaObject()->className() << " "
                << w->objectName().toStdString();
        }
    });
}

/// What of the words on show does not fit where it stands.
QStringList cutWords(const QWidget& window) {
    QStringList out;
    for (const auto* label : window.findChildren<QLabel*>()) {
        if (!label->isVisible() || label->objectName() == "message") continue; // it may be any path
        if (label->wordWrap() ? label->heightForWidth(label->width()) > label->height() + 2
                              : label->sizeHint().width() > label->width() + 1)
            out << label->text();
    }
    for (const auto* button : window.findChildren<QAbstractButton*>()) {
        if (!button->isVisible() || button->objectName() == "headline") continue;
        if (!qobject_cast<const QPushButton*>(button) && !qobject_cast<const QCheckBox*>(button)) continue;
        if (button->fontMetrics().horizontalAdvance(button->text().remove('&')) > button->width())
            out << button->text();
    }
    for (const auto* card : window.findChildren<PictureButton*>()) {
        if (!card->isVisible()) continue;
        auto bold = card->font();
        bold.setBold(card->isChecked());
        for (const auto& word : card->text().split(' ')) // it wraps between words
            if (QFontMetrics(bold).horizontalAdvance(word) > card->width() - 20) out << card->text();
        if (card->heightForWidth(card->width()) > card->height() + 2) out << card->text() + " (height)";
    }
    for (const auto* edit : window.findChildren<QLineEdit*>()) {
        const auto& text = edit->text().isEmpty() ? edit->placeholderText() : QString();
        if (edit->isVisible() && edit->fontMetrics().horizontalAdvance(text) > edit->width() - 8) out << text;
    }
    for (const auto* box : window.findChildren<QComboBox*>())
        if (box->isVisible() && !box->isEditable() &&
            box->fontMetrics().horizontalAdvance(box->currentText()) > box->width() - 20)
            out << box->currentText();
    return out;
}

TEST_F(Access, NoWordIsCutAtEitherSize) {
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        window->resize(size);
        everywhere([&](const QString& where) {
            for (const auto& text : cutWords(*window))
                ADD_FAILURE() << where.toStdString() << " at " << size.width() << ": " << text.toStdString();
        });
        session().close();
        window->goTo(Stage::question);
        key(Qt::Key_0, Qt::ControlModifier);
    }
}

/// Text larger than usual, as a share of its size in per cent.
struct LargeText : Access, testing::WithParamInterface<int> {
    static void setScale(double scale) {
        setTextScale(scale);
        applyTheme(*qobject_cast<QApplication*>(QApplication::instance()), Appearance::light);
    }
    void SetUp() override {
        setScale(GetParam() / 100.0);
        Access::SetUp();
    }
    void TearDown() override {
        Access::TearDown();
        setScale(1);
    }
};

TEST_P(LargeText, IsNotCut) {
    everywhere([&](const QString& where) {
        EXPECT_LE(window->width(), 1280) << where.toStdString() << ": the window had to grow";
        EXPECT_LE(window->height(), 800) << where.toStdString() << ": the window had to grow";
        for (const auto& text : cutWords(*window))
            ADD_FAILURE() << where.toStdString() << ": " << text.toStdString();
    });
    const auto* message = child<QLabel>("message");
    EXPECT_EQ(message->font().pixelSize(), grown(13)) << "it is large indeed";
}

INSTANTIATE_TEST_SUITE_P(At, LargeText, testing::Values(150, 200));

/// Relative luminance and contrast as WCAG 2.1 defines them.
double luminance(const QColor& c) {
    const auto part = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
}
double contrast(const QColor& a, const QColor& b) {
    const double la = luminance(a), lb = luminance(b);
    return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

TEST(Contrast, IsMeasuredAsItIsDefined) {
    EXPECT_NEAR(contrast(Qt::black, Qt::white), 21, 1e-9);
    EXPECT_NEAR(contrast(QColor(0x777777), Qt::white), 4.478, 0.001) << "the well-known grey that just fails";
}

TEST(Contrast, SufficesInBothAppearances) {
    auto& application = *qobject_cast<QApplication*>(QApplication::instance());
    for (const auto appearance : {Appearance::light, Appearance::dark}) {
        applyTheme(application, appearance);
        const auto& t = theme();
        const auto base = QApplication::palette().color(QPalette::Base);
        const char* const which = t.dark ? "dark" : "light";
        for (const auto& ground : {t.ground, t.panel, base})
            for (const auto& ink : {t.text, t.faint, t.accent, t.warn})
                EXPECT_GE(contrast(ink, ground), 4.5)
                    << which << ": " << ink.name().toStdString() << " on " << ground.name().toStdString();
        EXPECT_GE(contrast(t.onAccent, t.accent), 4.5) << which;
        const auto items = QApplication::palette("QAbstractItemView");
        EXPECT_GE(contrast(items.color(QPalette::HighlightedText), items.color(QPalette::Highlight)), 4.5)
            << which;
        const auto ink = [&](chart::Ink i) { return QColor::fromRgb(t.charts()[i]); };
        for (const auto i : {chart::Ink::text, chart::Ink::faint, chart::Ink::warn, chart::Ink::accent})
            EXPECT_GE(contrast(ink(i), ink(chart::Ink::paper)), 4.5)
                << which << " chart " << static_cast<int>(i);
        for (int i = static_cast<int>(chart::Ink::series0); i <= static_cast<int>(chart::Ink::series7); ++i)
            EXPECT_GE(contrast(ink(static_cast<chart::Ink>(i)), ink(chart::Ink::paper)), 3)
                << which << " series " << i;
    }
    applyTheme(application, Appearance::light);
}

} // namespace
} // namespace anvil::app
