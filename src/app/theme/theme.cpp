#include "theme/theme.h"

#include <QApplication>
#include <QFile>
#include <QPainter>
#include <QPalette>
#include <QPixmap>
#include <QProcess>
#include <QRegularExpression>
#include <QScreen>
#include <QStyleFactory>
#include <QSvgRenderer>
#include <algorithm>
#include <anvil/chart/painter.h>
#include <cmath>

static void initIcons() { Q_INIT_RESOURCE(icons); }

namespace anvil::app {
namespace {

bool desktopIsDark() {
    // The settings portal answers "uint32 1" for dark; without a desktop there is no answer and light it is.
    QProcess ask;
    ask.start("gdbus",
              {"call", "--session", "--timeout", "1", "--dest", "org.freedesktop.portal.Desktop",
               "--object-path", "/org/freedesktop/portal/desktop", "--method",
               "org.freedesktop.portal.Settings.Read", "org.freedesktop.appearance", "color-scheme"});
    return ask.waitForFinished(1500) && ask.exitCode() == 0 &&
           ask.readAllStandardOutput().contains("uint32 1");
}

Theme lightTheme() {
    return {false,
            QColor(0xe6e2d9),
            QColor(0xf5f3ed),
            QColor(0x23282c),
            QColor(0x5f6468),
            QColor(0xcbc6ba),
            QColor(0xa83b16),
            QColor(0xffffff),
            QColor(0x8a5200)};
}

Theme darkTheme() {
    return {true,
            QColor(0x191c1f),
            QColor(0x22272a),
            QColor(0xe9e6de),
            QColor(0xa5a9aa),
            QColor(0x3d4347),
            QColor(0xf2925a),
            QColor(0x1d1f21),
            QColor(0xf0bf62)};
}

/// The theme in force; light until one is applied.
Theme& current() {
    static Theme theme = lightTheme();
    return theme;
}

double scaleInForce = 1;

/// The sheet's sizes of type at the text scale; frames and gaps stay.
QString atScale(const QString& sheet) {
    static const QRegularExpression size(QStringLiteral("(font-size|min-height): (\\d+)px"));
    QString out;
    qsizetype from = 0;
    for (auto all = size.globalMatch(sheet); all.hasNext();) {
        const auto m = all.next();
        out += sheet.mid(from, m.capturedStart() - from) +
               QStringLiteral("%1: %2px").arg(m.captured(1)).arg(grown(m.captured(2).toInt()));
        from = m.capturedEnd();
    }
    return out + sheet.mid(from);
}

QString sheet(const Theme& t) {
    return atScale(QStringLiteral(R"(
QWidget { font-size: 13px; }
QMainWindow, QDialog { background: %1; }
QMenuBar { background: %1; }
QFrame#boardPanel, QFrame#ledgerPanel, QFrame#workspace, QFrame#card { background: %2; border: 1px solid %5; border-radius: 3px; }
QLabel#sentence { font-size: 15px; }
QLabel#faint { color: %4; }
QLabel#pageHead { font-size: 20px; font-weight: bold; }
QLabel#step { font-size: 15px; font-weight: bold; }
QLineEdit#planQuestion { font-size: 15px; padding: 6px 8px; }
QWidget#goalSentence QLabel { font-size: 15px; }
QLabel#typedPiece { font-size: 34px; font-weight: bold; }
QLineEdit#typedValue { font-size: 34px; padding: 10px 12px; }
QComboBox#typedBroke { font-size: 20px; min-height: 40px; }
QTextBrowser#manual { font-size: 15px; }
QLabel#answer { font-size: 20px; }
QLabel#big { font-size: 20px; font-weight: bold; }
QLabel#bigLoad { font-size: 74px; font-weight: bold; }
QLabel#peakHold { font-size: 20px; }
QLabel#benchLoad { font-size: 20px; font-weight: bold; }
QLabel#nextPiece, QLabel#spaceAction { font-size: 34px; font-weight: bold; }
QLabel#benchSentence { font-size: 20px; }
QLabel#choiceText { font-size: 15px; }
QLabel#ladderLoad { font-size: 74px; font-weight: bold; }
QLabel#section { font-weight: bold; color: %4; }
QPushButton { padding: 5px 12px; border: 1px solid %5; border-radius: 3px; background: %2; }
QPushButton:hover { border-color: %6; }
QPushButton:checked { border: 2px solid %6; font-weight: bold; }
QPushButton:focus, QLineEdit:focus, QAbstractItemView:focus, QPlainTextEdit:focus { border: 2px solid %6; }
QPushButton#primary { background: %6; color: %7; border-color: %6; font-weight: bold; }
QPushButton#closeLedger { font-size: 20px; }
QPushButton#quiet, QPushButton#closeLedger { border: none; background: transparent; color: %6; padding: 0 4px; }
QPushButton#headline { text-align: left; font-size: 20px; font-weight: bold; border: none; background: transparent; padding: 4px 6px; }
QPushButton#headline:hover { color: %6; }
QLineEdit, QPlainTextEdit { background: %8; border: 1px solid %5; border-radius: 3px; padding: 3px 5px; }
QTableWidget, QListWidget, QTextBrowser { background: %8; border: 1px solid %5; border-radius: 3px; gridline-color: %5; }
QHeaderView::section { background: %2; border: none; border-bottom: 1px solid %5; padding: 4px 6px; font-weight: bold; }
QToolTip { background: %8; color: %3; border: 1px solid %5; padding: 3px; }
QSplitter::handle { background: %1; }
QScrollArea { border: none; background: transparent; }
)")
                       .arg(t.ground.name(), t.panel.name(), t.text.name(), t.faint.name(), t.line.name(),
                            t.accent.name(), t.onAccent.name(),
                            t.dark ? QStringLiteral("#272c30") : QStringLiteral("#fbfaf6")));
}

} // namespace

const Theme& theme() { return current(); }

double textScale() { return scaleInForce; }

void setTextScale(double scale) { scaleInForce = std::clamp(scale, 1.0, 2.0); }

double desktopTextScale() {
    const auto* screen = QGuiApplication::primaryScreen();
    if (!screen) return 1;
    return std::clamp(std::round(screen->logicalDotsPerInch() / 96 * 20) / 20, 1.0, 2.0);
}

int grown(int pixels) { return static_cast<int>(std::lround(pixels * scaleInForce)); }

void applyTheme(QApplication& application, Appearance appearance) {
    initIcons();
    chart::loadFonts();
    const bool dark =
        appearance == Appearance::dark || (appearance == Appearance::followDesktop && desktopIsDark());
    current() = dark ? darkTheme() : lightTheme();
    QApplication::setStyle(QStyleFactory::create("Fusion"));
    QFont font(QStringLiteral("Anvil Sans"));
    font.setPixelSize(grown(13));
    QApplication::setFont(font);
    QPalette p;
    const QColor base(dark ? 0x272c30 : 0xfbfaf6);
    p.setColor(QPalette::Window, current().ground);
    p.setColor(QPalette::WindowText, current().text);
    p.setColor(QPalette::Base, base);
    p.setColor(QPalette::AlternateBase, current().panel);
    p.setColor(QPalette::Text, current().text);
    p.setColor(QPalette::PlaceholderText, current().faint);
    p.setColor(QPalette::Button, current().panel);
    p.setColor(QPalette::ButtonText, current().text);
    p.setColor(QPalette::Highlight, current().accent);
    p.setColor(QPalette::HighlightedText, current().onAccent);
    p.setColor(QPalette::ToolTipBase, base);
    p.setColor(QPalette::ToolTipText, current().text);
    p.setColor(QPalette::Link, current().accent);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, current().faint);
    QApplication::setPalette(p);
    // What is chosen in a list is tinted; the accent itself is for what to do next.
    const auto& back = current().ground;
    const auto& accent = current().accent;
    const auto mixed = [](int a, int b) { return (3 * a + b) / 4; };
    p.setColor(QPalette::Highlight,
               QColor(mixed(back.red(), accent.red()), mixed(back.green(), accent.green()),
                      mixed(back.blue(), accent.blue())));
    p.setColor(QPalette::HighlightedText, current().text);
    QApplication::setPalette(p, "QAbstractItemView");
    application.setStyleSheet(sheet(current()));
}

QIcon icon(const QString& name, bool onAccent) {
    QFile file(":/icons/" + name + ".svg");
    if (!file.open(QIODevice::ReadOnly)) return {};
    auto svg = file.readAll();
    svg.replace("currentColor", (onAccent ? current().onAccent : current().text).name().toLatin1());
    QSvgRenderer renderer(svg);
    QPixmap pixmap(grown(36), grown(36));
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    renderer.render(&painter);
    painter.end();
    pixmap.setDevicePixelRatio(2);
    return QIcon(pixmap);
}

QFont figures(int pixels, bool bold) {
    QFont font(QStringLiteral("Anvil Sans")); // its digits are of one width, its point and comma narrow
    font.setPixelSize(grown(pixels));
    font.setBold(bold);
    return font;
}

} // namespace anvil::app
