// Drawings of failures, and the titles of axes that show something else than a force.
#include <anvil/chart/charts.h>
#include <anvil/domain/outcomes.h>
#include <gtest/gtest.h>
#include <set>

using namespace anvil;
using namespace anvil::chart;

namespace {

/// Every point of a picture.
std::vector<Point> pointsOf(const Picture& p) {
    std::vector<Point> out;
    for (const auto& s : p.shapes) {
        if (const auto* line = std::get_if<Line>(&s)) out.insert(out.end(), {line->a, line->b});
        if (const auto* line = std::get_if<Polyline>(&s))
            out.insert(out.end(), line->points.begin(), line->points.end());
        if (const auto* area = std::get_if<Area>(&s))
            out.insert(out.end(), area->points.begin(), area->points.end());
    }
    return out;
}

TEST(Failures, EveryWayToFailHasADrawingWithinItsBox) {
    for (const char* kind : {"adhesive", "rope", "rivet", "plastic sheet", "", "something else"})
        for (const auto& mode : domain::failureModes(kind)) {
            const auto p = failurePicture(methods::failureOf(mode).value());
            EXPECT_GE(p.shapes.size(), 2U) << mode;
            for (const auto& at : pointsOf(p)) {
                EXPECT_GE(at.x, 0) << mode;
                EXPECT_LE(at.x, p.width) << mode;
                EXPECT_GE(at.y, 0) << mode;
                EXPECT_LE(at.y, p.height) << mode;
            }
        }
}

TEST(Failures, TheWaysOfOneKindCanBeToldApart) {
    for (const char* kind : {"adhesive", "rope", "rivet", "plastic sheet"}) {
        std::set<std::string> drawn;
        const auto modes = domain::failureModes(kind);
        for (const auto& mode : modes)
            drawn.insert(toSvg(failurePicture(methods::failureOf(mode).value()), lightPalette()));
        EXPECT_GE(drawn.size() + 1, modes.size()) << kind << ": at most two may look alike";
    }
}

TEST(Axes, AreNamedByWhatTheyShow) {
    EXPECT_EQ(loadTitle(quantity::unit("kN")), "Force (kN)");
    EXPECT_EQ(loadTitle(quantity::unit("N·m")), "Torque (N·m)");
    EXPECT_EQ(loadTitle(quantity::unit("g₀")), "Deceleration (g₀)");
    EXPECT_EQ(travelTitle(quantity::unit("mm")), "Displacement from the toe (mm)");
    EXPECT_EQ(travelTitle(quantity::unit("°")), "Angle from the toe (°)");
    LivePull pull;
    pull.trace = {{0, 0, 0}, {1, 4, 5}};
    const auto labels = livePull(pull, quantity::unit("N·m"), 500, 300).labels();
    EXPECT_NE(std::find(labels.begin(), labels.end(), "Torque (N·m)"), labels.end());
}

} // namespace
