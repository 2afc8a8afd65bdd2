// Small drawings of how a piece failed: our own, of a block that holds, a piece, and what happened between
// them.
#include <anvil/chart/charts.h>

namespace anvil::chart {
namespace {

constexpr double middle = 24; // y of the line of pull

void bar(Picture& p, double x0, double x1, double half, Ink ink = Ink::series0, double dy = 0) {
    p.add(Area{{{x0, middle + dy - half},
                {x1, middle + dy - half},
                {x1, middle + dy + half},
                {x0, middle + dy + half}},
               ink,
               1});
}

/// The base that holds the piece, with its right edge at x.
void base(Picture& p, double x = 26) { p.add(Area{{{2, 4}, {x, 4}, {x, 44}, {2, 44}}, Ink::faint, 0.55}); }

void pullArrow(Picture& p) {
    p.add(Line{{64, middle}, {76, middle}, Ink::accent, 2.2});
    p.add(Area{{{79, middle}, {72, middle - 5}, {72, middle + 5}}, Ink::accent, 1});
}

void zigzag(Picture& p, double x, double from, double to, Ink ink = Ink::warn) {
    Polyline line{{}, ink, 2};
    for (int i = 0; i <= 6; ++i)
        line.points.push_back({x + (i % 2 ? 4.0 : -2.0), from + (to - from) * i / 6});
    p.add(std::move(line));
}

void headThrough(Picture& p) {
    base(p, 22);
    bar(p, 30, 34, 11, Ink::series2);
    bar(p, 34, 62, 5);
    p.add(Line{{22, middle}, {29, middle}, Ink::warn, 1.5, Dash::dotted});
}

void strandByStrand(Picture& p) {
    base(p);
    for (const double dy : {-9.0, 0.0, 9.0})
        bar(p, 26, dy < 0 ? 38 : dy > 0 ? 50 : 62, 2.2, Ink::series0, dy);
    zigzag(p, 41, 10, 20);
    zigzag(p, 53, 28, 38);
}

void threadStripped(Picture& p) {
    base(p);
    bar(p, 20, 62, 5);
    for (int i = 0; i < 4; ++i)
        p.add(Line{{22 + 6.0 * i, middle - 5}, {25 + 6.0 * i, middle - 10}, Ink::warn, 2});
    for (int i = 0; i < 4; ++i)
        p.add(Line{{22 + 6.0 * i, middle + 5}, {25 + 6.0 * i, middle + 10}, Ink::warn, 2});
}

void pulledOut(Picture& p) {
    base(p, 22);
    bar(p, 32, 62, 5);
    p.add(Line{{22, middle - 5}, {31, middle - 5}, Ink::warn, 1.5, Dash::dotted});
    p.add(Line{{22, middle + 5}, {31, middle + 5}, Ink::warn, 1.5, Dash::dotted});
}

/// The glue stayed on the base.
void leftPiece(Picture& p) {
    base(p, 22);
    p.add(Area{{{22, 10}, {28, 10}, {28, 38}, {22, 38}}, Ink::series2, 1});
    bar(p, 36, 62, 12);
}

void withinGlue(Picture& p) {
    base(p, 22);
    p.add(Area{{{22, 10}, {25, 10}, {25, 38}, {22, 38}}, Ink::series2, 1});
    p.add(Area{{{33, 10}, {36, 10}, {36, 38}, {33, 38}}, Ink::series2, 1});
    bar(p, 36, 62, 12);
    zigzag(p, 29, 8, 40);
}

void baseBroke(Picture& p) {
    base(p);
    bar(p, 16, 62, 5);
    zigzag(p, 14, 2, 46);
}

void sheared(Picture& p) {
    bar(p, 6, 44, 6, Ink::series0, -8);
    bar(p, 38, 76, 6, Ink::series2, 8);
    p.add(Line{{34, middle}, {50, middle}, Ink::warn, 2.4, Dash::dashed});
}

/// Pressed from both ends, it went sideways.
void buckled(Picture& p) {
    p.add(Polyline{{{14, 30}, {28, 24}, {41, 10}, {54, 24}, {68, 30}}, Ink::series0, 7});
    p.add(Line{{2, 30}, {9, 30}, Ink::accent, 2.2});
    p.add(Line{{80, 30}, {73, 30}, Ink::accent, 2.2});
}

/// Pressed in where the load stands.
void crushed(Picture& p) {
    p.add(Polyline{{{6, 22}, {30, 22}, {41, 32}, {52, 22}, {76, 22}}, Ink::series0, 7});
    p.add(Line{{41, 4}, {41, 18}, Ink::accent, 2.2});
    p.add(Line{{30, 30}, {41, 40}, Ink::warn, 2});
    p.add(Line{{41, 40}, {52, 30}, Ink::warn, 2});
}

void bent(Picture& p, bool stayed) {
    p.add(Polyline{{{6, 36}, {24, 22}, {41, 14}, {58, 22}, {76, 36}}, Ink::series0, 7});
    p.add(Line{{6, 40}, {76, 40}, stayed ? Ink::warn : Ink::faint, 1.5, stayed ? Dash::solid : Dash::dotted});
}

void slid(Picture& p) {
    base(p, 20);
    bar(p, 16, 62, 5);
    for (int i = 0; i < 3; ++i)
        p.add(Line{{24 + 8.0 * i, middle + 9}, {29 + 8.0 * i, middle + 9}, Ink::warn, 2});
}

void cracked(Picture& p) {
    base(p, 12);
    bar(p, 12, 66, 14);
    p.add(Polyline{{{34, 10}, {37, 17}, {33, 22}, {38, 28}}, Ink::warn, 2});
    p.add(Polyline{{{37, 17}, {43, 20}}, Ink::warn, 2});
}

void tore(Picture& p) {
    base(p, 12);
    bar(p, 12, 34, 12);
    bar(p, 42, 66, 12);
    zigzag(p, 34, 12, 36, Ink::series0);
    zigzag(p, 42, 12, 36);
}

/// Where it is held.
void brokeAtEnd(Picture& p) {
    base(p);
    bar(p, 20, 28, 5);
    bar(p, 36, 62, 5);
    zigzag(p, 32, middle - 9, middle + 9);
}

/// In its length.
void snapped(Picture& p) {
    base(p, 16);
    bar(p, 16, 36, 5);
    bar(p, 44, 62, 5);
    zigzag(p, 40, middle - 9, middle + 9);
}

} // namespace

Picture failurePicture(methods::Failure failure) {
    using methods::Failure;
    Picture p;
    p.width = 82;
    p.height = 48;
    switch (failure) {
    case Failure::headThrough:
        headThrough(p);
        break;
    case Failure::strandByStrand:
        strandByStrand(p);
        break;
    case Failure::threadStripped:
        threadStripped(p);
        break;
    case Failure::pulledOut:
    case Failure::leftBase:
        pulledOut(p);
        break;
    case Failure::leftPiece:
        leftPiece(p);
        break;
    case Failure::withinGlue:
        withinGlue(p);
        break;
    case Failure::baseBroke:
        baseBroke(p);
        break;
    case Failure::sheared:
        sheared(p);
        return p; // nothing pulls at it
    case Failure::buckled:
        buckled(p);
        return p; // nothing pulls at it
    case Failure::crushed:
        crushed(p);
        return p; // nothing pulls at it
    case Failure::bent:
    case Failure::bentForGood:
        bent(p, failure == Failure::bentForGood);
        return p; // nothing pulls at it
    case Failure::slid:
        slid(p);
        break;
    case Failure::cracked:
        cracked(p);
        break;
    case Failure::tore:
        tore(p);
        break;
    case Failure::brokeAtEnd:
    case Failure::outsideGauge:
        brokeAtEnd(p);
        break;
    case Failure::snapped:
        snapped(p);
        break;
    }
    pullArrow(p);
    return p;
}

} // namespace anvil::chart
