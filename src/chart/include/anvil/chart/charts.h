// The charts of this program: from verdicts and curves to pictures.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/curve/pyramid.h>
#include <anvil/methods/devices.h>
#include <anvil/methods/method.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/probability.h>
#include <anvil/results/ratios.h>
#include <anvil/results/score_card.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/results/why.h>
#include <anvil/rig/live_trace.h>
#include <anvil/rig/setup.h>
#include <anvil/words/effects.h>
#include <map>
#include <memory>
#include <optional>

namespace anvil::chart {

/// The mark of a pull's standing.
MarkShape markOf(const stats::Value& value);

/// How a ladder is looked at.
struct LadderLook {
    double height = 0; ///< what there is, px: the rungs stand apart or close up to fill it; 0: as is usual
    bool fromZero = false; ///< the scale begins at zero, however far away the results are
};

/// The strength ladder: a scale on which every option is a rung, one block for each condition; single results
/// as marks, mean and 95 % interval, lowest seen, ties bracketed, and what of this stands for what beneath.
/// Where nothing lies in the lower part of the scale it begins above zero; a break in every rung and a
/// sentence under it say so. `selected` is drawn larger. The picture is as high as it has to be, and at most
/// as high as `look` has room.
Picture ladder(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
               double width, domain::Id selected = 0, LadderLook look = {});

/// The same with a ladder for each condition, side by side on scales of their own.
Picture ladderColumns(const domain::StudyData& data, const results::Verdict& verdict,
                      const quantity::Unit& unit, double width, domain::Id selected = 0,
                      LadderLook look = {});

/// A picture with sentences above it, broken to its width; the first ones larger.
Picture underSentences(const std::vector<std::string>& sentences, Picture picture);

/// One curve to be drawn, in display units.
struct Trace {
    std::string name;
    Ink ink = Ink::series0;
    Dash dash = Dash::solid;
    double width = 1.6, opacity = 1;
    std::vector<curve::Pyramid::Point> points;
    domain::Id pull = 0;
    std::optional<double> calibratedTo{}; ///< where its calibration table ends, on the force axis: above that
                                          ///< a solid line is dashed, since it is a guess
};

/// A landmark on a curve.
struct Pin {
    std::string name; ///< "Peak"
    double x = 0, y = 0;
    bool byHand = false;
    int handle = 0;        ///< what a window makes of it
    bool upright = true;   ///< label above (or below) the point
    bool leftward = false; ///< label to the left of the point
};

/// What is seen of a plane, and how it maps to the picture.
struct Plane {
    double x0 = 0, x1 = 1, y0 = 0, y1 = 1;           ///< in display units
    double left = 0, top = 0, right = 1, bottom = 1; ///< in the picture
    double px(double x) const { return left + (x - x0) / (x1 - x0) * (right - left); }
    double py(double y) const { return bottom - (y - y0) / (y1 - y0) * (bottom - top); }
    double x(double px) const { return x0 + (px - left) / (right - left) * (x1 - x0); }
};

/// What lies between two lines over the same x, in display units.
struct Band {
    std::vector<curve::Pyramid::Point> low, high;
    Ink ink = Ink::band;
    double opacity = 0.5;
};

struct CurveChart {
    std::vector<Trace> traces;
    std::vector<Band> bands{}; ///< behind the traces
    std::vector<Pin> pins;
    std::optional<std::pair<curve::Pyramid::Point, curve::Pyramid::Point>> stiffnessLine;
    std::optional<double> limit; ///< rig limit, on the force axis
    /// Lines to see the curve against, and bands where there is an upper end; on the force axis.
    struct Line {
        std::string name;
        double value = 0;
        std::optional<double> upper{};
    };
    std::vector<Line> lines{};
    std::string xTitle, yTitle;
    double x0 = 0, x1 = 1, y0 = 0, y1 = 1;
    bool legend = false;
};

/// "Force (N)", "Torque (N·m)", "Deceleration (g₀)": the title of an axis that shows a load in this unit.
std::string loadTitle(const quantity::Unit& unit);
/// "Displacement from the toe (mm)", or of an angle.
std::string travelTitle(const quantity::Unit& unit);

/// The samples' times since the load began, s.
std::vector<double> sinceLoad(const curve::ReadCurve& curve);

/// Draws curves with axes; `plane` receives the mapping.
Picture curves(const CurveChart& chart, double width, double height, Plane* plane = nullptr);

/// Charts beside and under each other, all on one scale, each with its name above it. A hit's `pull` is one
/// more than the place of the chart.
Picture smallMultiples(const std::vector<std::pair<std::string, CurveChart>>& charts, double width,
                       double height);

/// How fast a curve was pulled, over the same x as it, and where its like were pulled otherwise. In display
/// units.
struct RateStrip {
    std::vector<curve::Pyramid::Point> rate;            ///< x as the curve's, so much a second
    std::optional<double> own;                          ///< on the way up
    std::vector<std::pair<std::string, double>> others; ///< of another rate: whose, and which
    std::string unit;                                   ///< "mm/s"
    double x0 = 0, x1 = 1;
};
Picture rateStrip(const RateStrip& strip, double width, double height, const Plane& plane);

/// What a treatment does to each option, and to all: the ratio with its interval on a logarithmic scale,
/// and a line where there is no effect.
Picture forest(const std::vector<words::EffectRow>& rows, double width, double height);

/// The ladder on another scale, a block for each condition: shares in per cent, or so much for a price or a
/// weight; the mean's interval with it, and a line at 100 %.
Picture ratioLadder(const domain::StudyData& data, const results::Verdict& verdict, results::RatioBase base,
                    const quantity::Unit& unit, double width, double height);

/// Every pair of a condition by a sign, options best first with their tie letters. A hit's `pull` is one more
/// than the place of the pair in the verdict.
Picture verdictTriangle(const domain::StudyData& data, const results::Verdict& verdict, domain::Id condition,
                        double width);

/// Two groups beside each other: every value, mean and interval, and below them the ratio with the margin
/// within which they count as the same.
Picture pairStrips(const domain::StudyData& data, const results::Verdict& verdict, const results::Why& why,
                   const quantity::Unit& unit, double width);

/// Where the values of a group lie, and what fitted families say. `title` of the metric.
Picture probability(const results::ProbabilityPlot& plot, const domain::StudyData& data,
                    const std::string& title, const quantity::Unit& unit, double width, double height);

/// A bar for each option of a score card, best first: its score, dashed where its blanks could put it, and
/// how often it comes first over all weights.
Picture scoreBars(const results::CardResult& card, double width, double height);

/// What each device passes on, from nothing to all, with twice its standard error each way.
Picture deviceLadder(const std::vector<methods::DeviceEfficiency>& devices, double width);

/// A bar for each square: expected pull, upper prediction, and where the rig ends.
Picture reachBars(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
                  double width);

/// The same for travel: how far the rig has to move until each square's pieces break.
Picture travelBars(const domain::StudyData& data, const results::Readings& readings,
                   const quantity::Unit& unit, double width);

/// Where the pieces of one sheet lie, seen from above, with half the wanted distance drawn around each; pairs
/// that are too close are joined. A hit's `pull` is the specimen.
Picture sheetMap(const domain::StudyData& data, const std::string& sheet, const quantity::Unit& unit,
                 double width);

/// What is drawn of a pull while it grows; SI.
struct LivePull {
    std::vector<rig::LiveTrace::Stretch> trace;
    std::vector<domain::Mark> marks;
    std::vector<Trace> earlier; ///< replicates of its square: s from the beginning of the log, N
    std::optional<std::pair<double, double>> expected; ///< N: what is predicted, and its upper end
    std::optional<double> limit;                       ///< N; drawn once half of it is reached
    std::optional<double> calibratedTo{};              ///< N, where the calibration table ends
};
/// Force against time, from the beginning of the trace; the earlier replicates faint behind.
Picture livePull(const LivePull& pull, const quantity::Unit& unit, double width, double height);

/// The load path from cell to specimen, drawn part by part, with what one at the cell is after each.
Picture loadPath(std::span<const rig::RatioPart> parts, double width);

/// A calibration table: reading against true load, the curve through it (dashed beyond its ends), and how far
/// each point lies off the straight line. `shown` is the unit of the readings, `unit` that of the true load.
Picture calibrationPicture(const rig::Calibration& calibration, const quantity::Unit& shown,
                           const quantity::Unit& unit, double width, double height);

/// Chance of seeing a difference against its size, for the usual numbers of replicates and the planned one;
/// CV and margin as shares.
Picture powerCurve(double cv, int planned, double margin, double width, double height);

/// The piece of a method with the symbols of its formulas, and beside each what was typed of it, by the key
/// of its input; 300 by 170. Our own drawing of every method.
Picture methodSketch(const methods::Method& method,
                     const std::map<std::string, std::string, std::less<>>& typed);

/// A small drawing of how a piece failed.
Picture failurePicture(methods::Failure failure);

/// The x a curve is drawn against: displacement from the toe where there is one, else time from the departure
/// of the load; in SI.
std::vector<double> abscissa(const curve::ReadCurve& curve);

} // namespace anvil::chart
