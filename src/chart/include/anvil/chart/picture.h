// Pictures as values: lines, areas, marks and labels in a box, free of any toolkit. One painter and one SVG
// writer show them.
#pragma once

#include <cstdint>
#include <string>
#include <variant>
#include <vector>

namespace anvil::chart {

/// What a colour is for; the palette says which it is on light and on dark ground.
enum class Ink {
    paper,
    text,
    faint,
    grid,
    accent,
    warn,
    band,
    series0,
    series1,
    series2,
    series3,
    series4,
    series5,
    series6,
    series7
};

/// The ink of the n-th series; repeats after eight, so dashes and marks tell them apart too.
Ink seriesInk(std::size_t n);

enum class Dash { solid, dashed, dotted, dashDot };
Dash seriesDash(std::size_t n);

enum class Align { left, center, right };

/// Marks tell standing by shape, never by colour alone.
enum class MarkShape { disc, ring, arrowRight, arrowLeft, span, cross, diamond, triangleUp, tick, square };

struct Point {
    double x = 0, y = 0;
};
struct Line {
    Point a, b;
    Ink ink = Ink::text;
    double width = 1;
    Dash dash = Dash::solid;
};
struct Polyline {
    std::vector<Point> points;
    Ink ink = Ink::text;
    double width = 1.5;
    Dash dash = Dash::solid;
    double opacity = 1;
};
struct Area {
    std::vector<Point> points;
    Ink ink = Ink::band;
    double opacity = 1;
};
struct Mark {
    Point at;
    MarkShape shape = MarkShape::disc;
    double size = 9;
    Ink ink = Ink::text;
};
struct Label {
    Point at; ///< baseline
    std::string text;
    double size = 13; ///< px
    Align align = Align::left;
    Ink ink = Ink::text;
    bool bold = false;
};
using Shape = std::variant<Line, Polyline, Area, Mark, Label>;

/// What a place in a picture stands for.
struct OfPull {
    long long pull = 0;
    bool operator==(const OfPull&) const = default;
};
/// A pair of the verdict, by the places of its groups.
struct OfPair {
    std::size_t a = 0, b = 0;
    bool operator==(const OfPair&) const = default;
};
struct OfPiece {
    long long piece = 0;
    bool operator==(const OfPiece&) const = default;
};
/// One of several charts drawn together, by its place.
struct OfChart {
    std::size_t at = 0;
    bool operator==(const OfChart&) const = default;
};
using HitOf = std::variant<std::monostate, OfPull, OfPair, OfPiece, OfChart>; ///< of nothing: it only says

/// A place that answers to pointing: what it says and what it stands for.
struct Hit {
    double x = 0, y = 0, width = 0, height = 0;
    std::string tip;
    HitOf of{};
};

struct Picture {
    double width = 0, height = 0;
    std::vector<Shape> shapes;
    std::vector<Hit> hits;

    template <class T> void add(T shape) { shapes.emplace_back(std::move(shape)); }
    /// All text in it, in drawing order.
    std::vector<std::string> labels() const;
};

/// Red, green, blue of every ink.
struct Palette {
    std::uint32_t rgb[15];
    std::uint32_t operator[](Ink ink) const { return rgb[static_cast<int>(ink)]; }
};
const Palette& lightPalette();
const Palette& darkPalette();

/// The picture as an SVG element with real text, for embedding in HTML or saving. Escapes every label.
std::string toSvg(const Picture& picture, const Palette& palette);

/// A round step so that about `wanted` ticks fit between low and high.
double niceStep(double low, double high, int wanted);
/// The multiples of `step` from `low` to `high`; none when there would be more than a thousand.
std::vector<double> ticks(double low, double high, double step);
/// Tick text with as many decimals as the step needs.
std::string tickText(double value, double step);
/// Cut to so many characters, with an ellipsis.
std::string elided(const std::string& text, std::size_t most);

} // namespace anvil::chart
