// What a heading says: the same to a file, a device and a package.
#include <anvil/columns/heading.h>
#include <anvil/columns/marks.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::columns;
using quantity::Dimension;

namespace {

const char* const kinds[] = {"unknown", "time", "load", "travel", "run", "another"};

std::string said(const Heading& h) {
    return fmt::format("{} {} [{}]{}{}", kinds[static_cast<int>(h.kind)],
                       h.dimension ? quantity::name(*h.dimension) : "-", h.unit ? h.unit->symbol : "",
                       h.factor == 1 ? "" : fmt::format(" x{:g}", h.factor), h.unknownUnit ? " ?" : "");
}

TEST(Heading, KindDimensionAndUnitFromUnitAndWordsTogether) {
    const std::pair<const char*, const char*> cases[] = {{"Force (kN)", "load force [kN]"},
                                                         {"Load [kg]", "load force [kgf]"},
                                                         {"force_lbf", "load force [lbf]"},
                                                         {"F/N", "load force [N]"},
                                                         {"Kraft in daN", "load force [daN]"},
                                                         {"force2", "load force []"},
                                                         {"Torque (N·m)", "load torque [N·m]"},
                                                         {"Drehmoment [Nm]", "load torque [N·m]"},
                                                         {"torque", "load torque []"},
                                                         {"Angle (°)", "travel angle [°]"},
                                                         {"twist", "travel angle []"},
                                                         {"decel (g)", "load acceleration [g₀]"},
                                                         {"ax (m/s²)", "load acceleration [m/s²]"},
                                                         {"az", "load acceleration []"},
                                                         {"Pressure (bar)", "another stress [bar]"},
                                                         {"Temperature (°C)", "another temperature [°C]"},
                                                         {"T1", "unknown - []"},
                                                         {"F1 [N]", "load force [N]"},
                                                         {"Time (ms)", "time time [ms]"},
                                                         {"t", "time time []"},
                                                         {"Time [0.1 s]", "time time [s] x0.1"},
                                                         {"Load [10 N]", "load force [N] x10"},
                                                         {"Load (kN x 10)", "load force [kN] x10"},
                                                         {"Load (x1000 N)", "load force [N] x1000"},
                                                         {"Displacement (mm)", "travel length [mm]"},
                                                         {"Weg in mm", "travel length [mm]"},
                                                         {"Load rate (N/s)", "another - []"},
                                                         {"Setpoint (N)", "another force [N]"},
                                                         {"FORCE_MN", "load force []"},
                                                         {"Force (MN)", "load force [MN]"},
                                                         {"Load (zork)", "load force [] ?"},
                                                         {"pull no", "another - []"},
                                                         {"Run", "run - []"},
                                                         {"n", "unknown - []"},
                                                         {"remark", "unknown - []"},
                                                         {"", "unknown - []"}};
    for (const auto& [text, wanted] : cases)
        EXPECT_EQ(said(readHeading(text)), wanted) << text;
    EXPECT_EQ(said(readHeading("Load", "(kN)")), "load force [kN]");
    EXPECT_EQ(readHeading("Load", "[kN]").name, "Load");
}

TEST(Heading, UnitsBesideWordsDecideBeforeThem) {
    EXPECT_EQ(readHeading("Load (N)").load, LoadClaim::wordAndUnit);
    EXPECT_EQ(readHeading("Channel (N)").load, LoadClaim::unitOnly);
    EXPECT_EQ(readHeading("Load").load, LoadClaim::wordOnly);
    EXPECT_EQ(readHeading("Load limit (N)").load, LoadClaim::unlikely);
    EXPECT_EQ(readHeading("Remark").load, LoadClaim::never);
}

TEST(Heading, OwnFilesByExactNames) {
    ASSERT_NE(ownColumn("torque"), nullptr);
    EXPECT_EQ(ownColumn("torque")->dimension, Dimension::torque);
    EXPECT_EQ(ownColumn("leg 1"), nullptr);
    EXPECT_EQ(ownColumn("Force"), nullptr);
    for (const auto& c : ownColumns())
        EXPECT_EQ(ownColumn(ownName(c.kind, c.dimension))->dimension, c.dimension) << c.name;
    EXPECT_EQ(bracketed("leg 1 (kN)"), std::pair(std::string("leg 1"), std::string("kN")));
    EXPECT_EQ(bracketed("leg (1) left"), std::pair(std::string("leg (1) left"), std::string()));
}

TEST(Marks, OneListOfWhatIsNoReading) {
    for (const char* cell :
         {"OL", "0L", "o.l.", "HI", "O/R", "----", "###", "inf", "-Inf", "9.9E+37", "-9.9e37", "Overload"})
        EXPECT_EQ(markOf(cell), Mark::overload) << cell;
    for (const char* cell : {"error", "ERR", "timeout", "False", "bad", "not ok"})
        EXPECT_EQ(markOf(cell), Mark::invalid) << cell;
    for (const char* cell : {"", "n/a", "NaN", "null", "-", "--"})
        EXPECT_EQ(markOf(cell), Mark::missing) << cell;
    for (const char* cell : {"12", "ok", "9.9e30", "9e99", "true", "x"})
        EXPECT_EQ(markOf(cell), Mark::none) << cell;
    EXPECT_TRUE(tellsStanding("Valid"));
    EXPECT_TRUE(tellsStanding("cell status"));
    EXPECT_FALSE(tellsStanding("Load"));
    EXPECT_TRUE(tellsWrong("Alarm"));
    EXPECT_FALSE(tellsWrong("Valid"));
}

} // namespace
