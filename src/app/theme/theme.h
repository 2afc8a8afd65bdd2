// Light and dark: one place for colours, fonts and icons of the window.
#pragma once

#include <QColor>
#include <QFont>
#include <QIcon>
#include <QString>
#include <anvil/chart/picture.h>

class QApplication;

namespace anvil::app {

enum class Appearance { light, dark, followDesktop };

/// The colours of panels; charts have their own palette to match.
struct Theme {
    bool dark = false;
    QColor ground, panel, text, faint, line, accent, onAccent, warn;
    const chart::Palette& charts() const { return dark ? chart::darkPalette() : chart::lightPalette(); }
};

/// The theme in force.
const Theme& theme();

/// Sets palette, style sheet and fonts of the application. `followDesktop` asks the desktop's portal and
/// falls back to light.
void applyTheme(QApplication& application, Appearance appearance);

/// An icon from the set that ships with the program, in the theme's text colour or in the one that goes on
/// the accent.
QIcon icon(const QString& name, bool onAccent = false);

/// The face for figures in columns, at a size of the usual scale.
QFont figures(int pixels, bool bold = false);

/// How large text is, as a multiple of its usual size: 1 to 2. Widgets measure themselves when they are made,
/// so it is set before there are any.
double textScale();
void setTextScale(double scale);
/// The text scale the desktop asks for, in steps of 5 %; 1 where it asks for less.
double desktopTextScale();
/// A length that has to hold text: so many pixels at the usual size.
int grown(int pixels);

} // namespace anvil::app
