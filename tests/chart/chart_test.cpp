#include <QFile>
#include <QFontDatabase>
#include <QFontMetricsF>
#include <QImage>
#include <QPainter>
#include <QProcess>
#include <QTemporaryDir>
#include <algorithm>
#include <anvil/chart/charts.h>
#include <anvil/chart/method_card.h>
#include <anvil/chart/painter.h>
#include <anvil/quantity/print.h>
#include <anvil/results/verdict.h>
#include <cmath>
#include <gtest/gtest.h>
#include <map>
#include <set>

using namespace anvil;
using namespace anvil::chart;

namespace {

struct Small {
    domain::StudyData data;
    results::Verdict verdict;

    Small() {
        using domain::Standing;
        for (const char* name : {"Pin & <shaft>", "Bolt", "Hook"}) {
            domain::Option o;
            o.id = static_cast<domain::Id>(data.options.size() + 1);
            o.name = name;
            data.options.push_back(o);
        }
        for (const char* name : {"Dry", "Wet"}) {
            domain::Condition c;
            c.id = static_cast<domain::Id>(data.conditions.size() + 11);
            c.name = name;
            data.conditions.push_back(c);
        }
        add(1, 11, {1000, 1020, 980});
        add(2, 11, {1900, 2100, 2000}, Standing::atLeast);
        add(3, 11, {990, 1010, 1040});
        add(1, 12, {800, 810}, Standing::aside);
        add(2, 12, {1500, 1550, 1450});
        verdict = results::evaluate(data, {}, {});
    }
    /// The last value gets `last` as its standing.
    void add(domain::Id option, domain::Id condition, std::vector<double> values,
             domain::Standing last = domain::Standing::counts) {
        for (std::size_t i = 0; i < values.size(); ++i) {
            domain::Specimen s;
            s.id = 100 + static_cast<domain::Id>(data.specimens.size());
            s.option = option;
            s.condition = condition;
            s.label = "S" + std::to_string(s.id);
            data.specimens.push_back(s);
            domain::Pull p;
            p.id = 500 + s.id;
            p.specimen = s.id;
            p.standing = i + 1 == values.size() ? last : domain::Standing::counts;
            p.typed = domain::TypedValue{domain::metric("peak"), values[i], values[i], ""};
            data.pulls.push_back(p);
        }
    }
    Picture picture(double width = 700) const { return ladder(data, verdict, quantity::unit("kN"), width); }
};

bool has(const std::vector<std::string>& all, const std::string& what) {
    return std::find(all.begin(), all.end(), what) != all.end();
}

/// Marks of a shape above the axis title: the key beneath has its own.
std::size_t count(const Picture& p, MarkShape shape) {
    double bottom = 0;
    for (const auto& s : p.shapes)
        if (const auto* l = std::get_if<Label>(&s); l && l->text.starts_with("Peak force")) bottom = l->at.y;
    return static_cast<std::size_t>(std::count_if(p.shapes.begin(), p.shapes.end(), [&](const Shape& s) {
        const auto* m = std::get_if<Mark>(&s);
        return m && m->shape == shape && m->at.y < bottom;
    }));
}

TEST(Ladder, ShowsEveryRungWithItsNumbers) {
    const auto labels = Small().picture().labels();
    for (const char* want : {"Dry", "Wet", "Pin & <shaft>", "Bolt", "Hook", "about 2.029 kN",
                             "about 0.9999 kN", "about 1.013 kN", "1.500 kN", "Peak force (kN)"})
        EXPECT_TRUE(has(labels, want)) << want << " among " << ::testing::PrintToString(labels);
}

TEST(Ladder, ShapeTellsTheStanding) {
    const auto p = Small().picture();
    EXPECT_EQ(count(p, MarkShape::cross), 1U) << "set aside";
    EXPECT_EQ(count(p, MarkShape::arrowRight), 1U) << "one at-least pull; the mean is that of a fit";
    EXPECT_EQ(count(p, MarkShape::disc), 2U + 3 + 3 + 1 + 3);
}

TEST(Ladder, EveryPullAnswersToPointing) {
    const Small s;
    const auto p = s.picture();
    for (const auto& pull : s.data.pulls)
        EXPECT_EQ(std::count_if(p.hits.begin(), p.hits.end(),
                                [&](const Hit& h) { return h.of == HitOf(OfPull{pull.id}); }),
                  1)
            << pull.id;
    const auto at = std::find_if(p.hits.begin(), p.hits.end(),
                                 [](const Hit& h) { return h.tip == "S105: at least 2.000 kN"; });
    EXPECT_NE(at, p.hits.end());
}

TEST(Ladder, SaysWhatItsMarksMeanAndNoMore) {
    const auto words = [](const Picture& p) {
        std::set<std::string> out;
        for (const auto& l : p.labels())
            if (l == "mean" || l == "mean, or median of the fit (about)" || l == "mean, at least" ||
                l == "95 % interval" || l == "lowest" || l == "one pull" || l == "at least" ||
                l == "at most" || l == "between" || l == "set aside")
                out.insert(l);
        return out;
    };
    EXPECT_EQ(words(Small().picture()),
              (std::set<std::string>{"mean, or median of the fit (about)", "95 % interval", "lowest",
                                     "one pull", "at least", "set aside"}));
    Small one;
    one.data.pulls.resize(1);
    one.verdict = results::evaluate(one.data, {}, {});
    EXPECT_EQ(words(one.picture()), (std::set<std::string>{"mean", "one pull"}))
        << "one pull has no interval";
    EXPECT_TRUE(words(ladder({}, {}, quantity::unit("N"), 500)).empty());
}

TEST(Ladder, AGuessIsMarkedAndPointingAtItSaysSo) {
    Small s;
    const auto signs = [&] { // in the ladder, and in the key under it
        int hollow = 0, key = 0;
        for (const auto& shape : s.picture().shapes) {
            if (const auto* mark = std::get_if<Mark>(&shape)) hollow += mark->ink == Ink::paper;
            if (const auto* label = std::get_if<Label>(&shape))
                key += label->text == "hollow: a guess, beyond the calibration table";
        }
        return std::pair(hollow, key);
    };
    EXPECT_EQ(signs(), std::pair(0, 0));
    s.verdict.groups.front().values.front().guess = true;
    const auto id = s.verdict.groups.front().values.front().pull;
    int guesses = 0;
    for (const auto& h : s.picture().hits)
        if (h.tip.find('~') != std::string::npos) {
            ++guesses;
            EXPECT_EQ(h.of, HitOf(OfPull{id}));
        }
    EXPECT_EQ(guesses, 1);
    EXPECT_EQ(signs(), std::pair(2, 1)) << "one in the ladder, one in the key";
}

TEST(Ladder, MarksStandWhereTheirValueIs) {
    const Small s;
    const auto p = s.picture();
    std::vector<std::pair<double, double>> xs; // value, x
    for (const auto& h : p.hits)
        for (const auto& pull : s.data.pulls)
            if (h.of == HitOf(OfPull{pull.id})) xs.emplace_back(pull.typed->value, h.x + h.width / 2);
    std::sort(xs.begin(), xs.end());
    const double perNewton = (xs.back().second - xs.front().second) / (xs.back().first - xs.front().first);
    for (const auto& [value, x] : xs)
        EXPECT_NEAR(x, xs.front().second + (value - xs.front().first) * perNewton, 0.01);
}

TEST(Ladder, FitsNarrowAndWideAndNothingLeavesThePicture) {
    for (const double width : {360.0, 500.0, 900.0, 2000.0}) {
        const auto p = Small().picture(width);
        for (const auto& shape : p.shapes)
            if (const auto* m = std::get_if<Mark>(&shape)) {
                EXPECT_GE(m->at.x, 0);
                EXPECT_LE(m->at.x, width);
                EXPECT_LE(m->at.y, p.height);
            }
    }
    EXPECT_GT(ladder({}, {}, quantity::unit("N"), 500).height, 0) << "an empty study is no crash";
}

/// Results far from zero: 4000 to 4400 N.
Picture farFromZero(LadderLook look) {
    Small s;
    s.data.pulls.clear();
    s.data.specimens.clear();
    s.add(1, 11, {4000, 4100, 4050});
    s.add(2, 11, {4300, 4400, 4350});
    s.verdict = results::evaluate(s.data, {}, {});
    return ladder(s.data, s.verdict, quantity::unit("N"), 900, 0, look);
}

TEST(Ladder, AScaleThatStartsAboveZeroSaysSo) {
    const auto labels = [](const Picture& p) {
        std::string out;
        for (const auto& l : p.labels())
            out += l + "\n";
        return out;
    };
    const auto spread = [](const Picture& p) { // of the single results, px
        double low = 1e9, high = 0;
        for (const auto& h : p.hits)
            if (std::holds_alternative<OfPull>(h.of)) low = std::min(low, h.x), high = std::max(high, h.x);
        return high - low;
    };
    const auto cut = farFromZero({}), whole = farFromZero({0, true});
    EXPECT_NE(labels(cut).find(", not from zero"), std::string::npos) << labels(cut);
    EXPECT_EQ(labels(cut).find("\n0\n"), std::string::npos) << "no tick says zero";
    EXPECT_EQ(labels(whole).find("not from zero"), std::string::npos);
    EXPECT_NE(labels(whole).find("\n0\n"), std::string::npos);
    EXPECT_GT(spread(cut), 4 * spread(whole)) << "differences can be seen";
    const auto strokes = [](const Picture& p) { // across a rung: neither upright nor level
        return std::count_if(p.shapes.begin(), p.shapes.end(), [](const Shape& s) {
            const auto* l = std::get_if<Line>(&s);
            return l && l->a.x != l->b.x && l->a.y != l->b.y;
        });
    };
    EXPECT_EQ(strokes(cut), 2 * 2) << "a break of two strokes in each of two rungs";
    EXPECT_EQ(strokes(whole), 0);
    EXPECT_EQ(strokes(Small().picture()), 0) << "values from 800 to 2100 show from zero";
}

TEST(Ladder, ThirtyRungsFitAPageAndKeepTheirNumbers) {
    Small s;
    s.data.options.clear();
    s.data.pulls.clear();
    s.data.specimens.clear();
    for (int i = 1; i <= 30; ++i) {
        domain::Option o;
        o.id = i;
        o.name = "Peg " + std::to_string(i);
        s.data.options.push_back(o);
        s.add(i, 11, {1000.0 + i, 1010.0 + i, 1020.0 + i});
    }
    s.verdict = results::evaluate(s.data, {}, {});
    const auto p = ladder(s.data, s.verdict, quantity::unit("N"), 900, 0, {560, false});
    EXPECT_LE(p.height, 560);
    for (int i = 1; i <= 30; ++i)
        EXPECT_TRUE(has(p.labels(), "Peg " + std::to_string(i))) << i;
    EXPECT_TRUE(has(p.labels(), "1040 N"));
    std::vector<double> lines; // where names stand: no two on each other
    for (const auto& shape : p.shapes)
        if (const auto* l = std::get_if<Label>(&shape); l && l->text.starts_with("Peg "))
            lines.push_back(l->at.y);
    std::sort(lines.begin(), lines.end());
    for (std::size_t i = 1; i < lines.size(); ++i)
        EXPECT_GE(lines[i] - lines[i - 1], 13);
}

TEST(Ladder, AnIntervalThatIsCutSaysSo) {
    Small s;
    s.data.pulls.clear();
    s.data.specimens.clear();
    s.add(1, 11, {1000, 2000}); // two pulls: the interval is many times as long as their distance
    s.verdict = results::evaluate(s.data, {}, {});
    ASSERT_GT(s.verdict.groups[0].summary.meanInterval->second, 5000);
    const auto p = ladder(s.data, s.verdict, quantity::unit("N"), 900);
    const auto cuts = [&](MarkShape shape) {
        return std::count_if(p.shapes.begin(), p.shapes.end(), [&](const Shape& one) {
            const auto* m = std::get_if<Mark>(&one);
            return m && m->shape == shape && m->ink == Ink::faint;
        });
    };
    EXPECT_EQ(cuts(MarkShape::arrowRight), 1);
    EXPECT_EQ(cuts(MarkShape::arrowLeft), 1) << "below zero too";
}

TEST(Ladder, RungsStandApartToFillTheRoomAndNoFurther) {
    const double least = farFromZero({}).height;
    EXPECT_GT(farFromZero({least + 60, false}).height, least);
    EXPECT_LE(farFromZero({least + 60, false}).height, least + 61);
    EXPECT_LT(farFromZero({1, false}).height, least) << "closer than usual where there is no room";
    EXPECT_EQ(farFromZero({40, false}).height, farFromZero({1, false}).height)
        << "never nearer than they may";
    EXPECT_EQ(farFromZero({5000, false}).height, farFromZero({4000, false}).height) << "nor absurdly far";
}

TEST(Axis, StepsAndTicks) {
    EXPECT_DOUBLE_EQ(niceStep(0, 10, 5), 2);
    EXPECT_DOUBLE_EQ(niceStep(0, 0.7, 7), 0.1);
    EXPECT_DOUBLE_EQ(niceStep(3, 3, 5), 1);
    EXPECT_EQ(tickText(0.30000000000000004, 0.1), "0.3");
    EXPECT_EQ(tickText(-1e-17, 0.5), "0.0");
    EXPECT_EQ(elided("Füße", 4), "Füße");
    EXPECT_EQ(elided("Füßen", 4), "Füß…");
}

TEST(Fonts, FiguresStandInColumnsAndTheirPointIsNarrow) {
    loadFonts();
    ASSERT_TRUE(QFontDatabase::hasFamily("Anvil Sans"));
    QFont font("Anvil Sans");
    font.setPixelSize(100);
    for (const bool bold : {false, true}) {
        font.setBold(bold);
        const QFontMetricsF metrics(font);
        const double width = metrics.horizontalAdvance('0');
        for (const char digit : {'1', '2', '3', '4', '5', '6', '7', '8', '9'})
            EXPECT_EQ(metrics.horizontalAdvance(digit), width) << digit;
        for (const char mark : {'.', ','})
            EXPECT_LT(metrics.horizontalAdvance(mark), 0.6 * width) << mark << ": no torn decimals";
    }
}

// The SVG goes through another renderer, which writes a PDF whose text is read back.
TEST(Svg, EveryLabelShowsInAnotherRenderer) {
    const auto p = Small().picture();
    QTemporaryDir dir;
    QFile svg(dir.filePath("ladder.svg"));
    ASSERT_TRUE(svg.open(QIODevice::WriteOnly));
    svg.write(QByteArray::fromStdString(toSvg(p, lightPalette())));
    svg.close();
    ASSERT_EQ(
        QProcess::execute("rsvg-convert", {"-f", "pdf", "-o", dir.filePath("ladder.pdf"), svg.fileName()}),
        0);
    QProcess text;
    text.start("pdftotext", {"-layout", dir.filePath("ladder.pdf"), "-"});
    ASSERT_TRUE(text.waitForFinished());
    const auto seen = QString::fromUtf8(text.readAllStandardOutput()).simplified().remove(' ');
    for (const auto& label : p.labels())
        EXPECT_TRUE(seen.contains(QString::fromStdString(label).simplified().remove(' '))) << label;
}

TEST(Svg, EscapesWhatPeopleType) {
    Picture p;
    p.add(Label{{0, 0}, "<script>alert(\"x\")</script> & co"});
    const auto svg = toSvg(p, lightPalette());
    EXPECT_EQ(svg.find("<script>"), std::string::npos);
    EXPECT_NE(svg.find("&lt;script&gt;alert(&quot;x&quot;)&lt;/script&gt; &amp; co"), std::string::npos);
}

double luminance(std::uint32_t rgb) { // WCAG 2.1, relative luminance
    const auto channel = [](double c) {
        return c <= 0.03928 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
    };
    return 0.2126 * channel((rgb >> 16 & 255) / 255.0) + 0.7152 * channel((rgb >> 8 & 255) / 255.0) +
           0.0722 * channel((rgb & 255) / 255.0);
}

TEST(Palette, TextHasContrastOnLightAndDark) {
    for (const auto* palette : {&lightPalette(), &darkPalette()})
        for (const auto ink : {Ink::text, Ink::faint, Ink::accent, Ink::warn}) {
            const double a = luminance((*palette)[Ink::paper]), b = luminance((*palette)[ink]);
            EXPECT_GE((std::max(a, b) + 0.05) / (std::min(a, b) + 0.05), 4.5) << static_cast<int>(ink);
        }
}

TEST(Painter, PaintsEveryShapeInBothPalettes) {
    const auto p = Small().picture();
    for (const auto* palette : {&lightPalette(), &darkPalette()}) {
        QImage image(700, static_cast<int>(p.height), QImage::Format_ARGB32);
        QPainter painter(&image);
        paint(painter, p, *palette);
        painter.end();
        EXPECT_EQ(image.pixelColor(1, 1).rgb() & 0xffffff, (*palette)[Ink::paper]);
        int text = 0;
        for (int x = 0; x < image.width(); ++x)
            for (int y = 0; y < image.height(); ++y)
                text += (image.pixel(x, y) & 0xffffff) == (*palette)[Ink::text];
        EXPECT_GT(text, 500);
    }
}

TEST(Curves, PinsLimitAndLegendAreDrawn) {
    CurveChart c;
    c.traces = {{"A1-1", Ink::series0, Dash::solid, 1.6, 1, {{0, 0}, {1, 10}, {2, 5}}, 7}};
    c.pins = {{"Peak", 1, 10, false, 0, true, false},
              {"First slip", 0.5, 5, true, 1, true, false},
              {"Elsewhere", 50, 5, false, 2, true, false}};
    c.limit = 11;
    c.x1 = 2;
    c.y1 = 12;
    c.xTitle = "Displacement (mm)";
    c.yTitle = "Force (N)";
    c.legend = true;
    Plane plane;
    const auto p = curves(c, 700, 400, &plane);
    for (const char* want :
         {"Peak", "First slip (by hand)", "rig limit", "A1-1", "Displacement (mm)", "Force (N)"})
        EXPECT_TRUE(has(p.labels(), want)) << want;
    EXPECT_FALSE(has(p.labels(), "Elsewhere")) << "outside of what is seen";
    EXPECT_NEAR(plane.x(plane.px(1.25)), 1.25, 1e-12);
}

TEST(Curves, WhatLiesBeyondTheCalibrationIsDashed) {
    CurveChart c;
    c.traces = {{"", Ink::series0, Dash::solid, 1.6, 1, {{0, 0}, {10, 100}, {20, 0}, {30, 80}}, 0},
                {"", Ink::faint, Dash::dotted, 1, 1, {{0, 100}, {30, 100}}, 0}};
    c.x1 = 30;
    c.y1 = 120;
    const auto lines = [&] {
        std::vector<Polyline> out;
        for (const auto& shape : curves(c, 700, 400).shapes)
            if (const auto* line = std::get_if<Polyline>(&shape)) out.push_back(*line);
        return out;
    };
    EXPECT_EQ(lines().size(), 2U) << "no table, nothing to guess";
    c.traces[0].calibratedTo = 50;
    Plane plane;
    const auto p = curves(c, 700, 400, &plane);
    EXPECT_TRUE(has(p.labels(), "calibrated up to here"));
    const auto cut = lines();
    ASSERT_EQ(cut.size(), 5U) << "up, beyond, down and up, beyond; and the dotted line as it was";
    const Dash want[] = {Dash::solid, Dash::dashed, Dash::solid, Dash::dashed, Dash::dotted};
    for (std::size_t i = 0; i < cut.size(); ++i)
        EXPECT_EQ(cut[i].dash, want[i]) << i;
    EXPECT_NEAR(cut[0].points.back().x, plane.px(5), 1e-9) << "it crosses half way up";
    EXPECT_NEAR(cut[0].points.back().y, plane.py(50), 1e-9);
    EXPECT_EQ(cut[1].points.size(), 3U);
    for (std::size_t i = 1; i < 4; ++i) {
        EXPECT_NEAR(cut[i].points.front().x, cut[i - 1].points.back().x, 1e-9) << "no gap";
        EXPECT_NEAR(cut[i].points.front().y, cut[i - 1].points.back().y, 1e-9);
    }
    c.traces[0].calibratedTo = 500;
    EXPECT_EQ(lines().size(), 2U);
    EXPECT_FALSE(has(curves(c, 700, 400).labels(), "calibrated up to here")) << "nothing went that far";
}

TEST(LivePull, GrowsFromTheBeginningAndShowsTheLimitWhenNear) {
    LivePull pull;
    pull.limit = 5000;
    const auto has = [](const Picture& p, const std::string& text) {
        const auto labels = p.labels();
        return std::find(labels.begin(), labels.end(), text) != labels.end();
    };
    EXPECT_TRUE(has(livePull(pull, quantity::unit("N"), 600, 400), "Force (N)"))
        << "also before anything came";
    for (int i = 0; i < 3000; ++i)
        pull.trace.push_back({100 + 0.01 * i, i * 0.5, i * 0.5 + 2});
    EXPECT_FALSE(has(livePull(pull, quantity::unit("N"), 600, 400), "rig limit")) << "far below it";
    for (auto& s : pull.trace)
        s.high *= 2;
    const auto near = livePull(pull, quantity::unit("kN"), 600, 400);
    EXPECT_TRUE(has(near, "rig limit"));
    EXPECT_TRUE(has(near, "Force (kN)"));
    for (const auto& shape : near.shapes)
        if (const auto* line = std::get_if<Polyline>(&shape)) {
            EXPECT_LE(line->points.size(), 2U * 300) << "no more than the width shows";
        }
    pull.marks = {{105, "mark 1"}};
    EXPECT_TRUE(has(livePull(pull, quantity::unit("N"), 600, 400), "mark 1"));
}

} // namespace

namespace anvil::chart {
namespace {

TEST(MethodCards, AreOneOfItsOwnForEveryMethod) {
    std::map<std::string, std::string_view> seen;
    for (const auto* method : methods::all()) {
        const auto card = methodCard(*method);
        EXPECT_EQ(card.width, 150) << method->key;
        EXPECT_EQ(card.height, 90) << method->key;
        const auto [at, fresh] = seen.emplace(toSvg(card, lightPalette()), method->key);
        EXPECT_TRUE(fresh) << method->key << " and " << at->second << " have the same drawing";
    }
}

/// Effects whose intervals are open, and ratios that are none, have a place or no mark; never one that is no
/// number.
TEST(Forest, OpenEndsAndRatiosThatAreNone) {
    const double endless = std::numeric_limits<double>::infinity();
    const std::vector<words::EffectRow> rows{{"Hook", 1.2, std::pair{0.9, 1.6}, false},
                                             {"Clip", 0.4, std::pair{0.0, 2.0}, false},
                                             {"Ring", 3.0, std::pair{1.1, endless}, false},
                                             {"Peg", -2.0, std::nullopt, false},
                                             {"All together", 1.1, std::pair{0.0, endless}, true}};
    const auto picture = forest(rows, 700, 300);
    const auto within = [&](const Point& at) {
        EXPECT_TRUE(at.x >= 0 && at.x <= picture.width) << at.x;
        EXPECT_TRUE(at.y >= 0 && at.y <= picture.height) << at.y;
    };
    int marks = 0;
    for (const auto& shape : picture.shapes) {
        if (const auto* line = std::get_if<Line>(&shape)) {
            within(line->a);
            within(line->b);
        }
        if (const auto* mark = std::get_if<Mark>(&shape)) {
            within(mark->at);
            ++marks;
        }
    }
    EXPECT_EQ(marks, 4) << "a ratio below zero has no place";
}

TEST(Sketches, EveryMethodHasItsOwnWithinItsBoxAndShowsWhatWasTyped) {
    std::set<std::string> seen;
    for (const auto* method : methods::all()) {
        std::map<std::string, std::string, std::less<>> typed;
        for (const auto& input : method->inputs)
            typed[std::string(input.key) + (input.form == methods::Form::perLeg ? ".1" : "")] = "12.3 mm";
        const auto bare = methodSketch(*method, {}), full = methodSketch(*method, typed);
        EXPECT_EQ(bare.width, 300) << method->key << " has a drawing of its own";
        const auto labels = full.labels();
        const bool series =
            method->key == "step-ladder" || method->key == "lever-bend"; // its steps are a list
        EXPECT_TRUE(series ||
                    std::any_of(labels.begin(), labels.end(),
                                [](const auto& l) { return l.find("12.3 mm") != std::string::npos; }))
            << method->key;
        EXPECT_TRUE(seen.insert(toSvg(bare, lightPalette())).second) << method->key << " looks like another";
        for (const auto& shape : full.shapes)
            if (const auto* line = std::get_if<Line>(&shape))
                for (const auto& q : {line->a, line->b}) {
                    EXPECT_TRUE(q.x >= 0 && q.x <= 300 && q.y >= 0 && q.y <= 170) << method->key;
                }
    }
}

} // namespace
} // namespace anvil::chart
