// Numbers of a line, with what is said of them: as files hold them and devices send them.
#include <anvil/columns/line.h>
#include <cmath>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::columns;

namespace {

std::string said(std::string_view line, char decimal = '.', bool clocks = false) {
    std::string out;
    for (const auto& i : itemsOf(line, decimal, clocks))
        out += fmt::format("{}{}{}={}{}", out.empty() ? "" : "; ", i.says.empty() ? "" : i.says + ":",
                           i.label, i.clock ? "clock" : fmt::format("{:.6g}", i.value),
                           i.unit.empty() ? "" : " " + i.unit);
    return out;
}

TEST(Line, NumbersWithTheirLabelsAndUnits) {
    const std::pair<const char*, const char*> cases[] = {{"Load: 71.61 kg", "Load=71.61 kgf"},
                                                         {"ST,GS,+0012.34kg", "GS:=12.34 kgf"},
                                                         {"US,NT,-  12.34 lb", "NT:=-12.34 lbf"},
                                                         {"F=12.3 x=0.4", "F=12.3; x=0.4"},
                                                         {"{t: 0.05, F: 12.3}", "t=0.05; F=12.3"},
                                                         {"12.3-", "=-12.3"},
                                                         {"12.3 -> 4", "=12.3; =4"},
                                                         {"Load 1,234.5 N", "Load=1234.5 N"},
                                                         {"HX711 M8 12 N", "HX711 M8=12 N"},
                                                         {"a 1.2.3", ""},
                                                         {"code 0x1A2 N", ""},
                                                         {"9.9E+37", ""},
                                                         {"2026-03-02 14:05:33 F 3 N", "F=3 N"},
                                                         {"", ""},
                                                         {"nothing", ""}};
    for (const auto& [line, wanted] : cases)
        EXPECT_EQ(said(line), wanted) << line;
    EXPECT_EQ(said("Kraft: 1.234,5 N", ','), "Kraft=1234.5 N");
    EXPECT_EQ(said("Kraft: 1.234 N", ','), "") << "a point that is no decimal mark";
}

TEST(Line, StampsAreItemsWhereTheyAreAskedFor) {
    const std::pair<const char*, const char*> cases[] = {
        {"14:05:33.050 -> 0.07", "Time=clock; =0.07"},
        {"2026-03-02 14:05:33 F 3 N", "Time=clock; F=3 N"},
        {"Mar 02 14:05:33 bench logger[812]: 12.5 N", "Time=clock; =12.5 N"},
        {"2026-03-02T14:05:33.1Z, 4.5", "Time=clock; =4.5"},
        {"Load: 3 kg at 14:05", "Load=3 kgf; Time=clock"}};
    for (const auto& [line, wanted] : cases)
        EXPECT_EQ(said(line, '.', true), wanted) << line;
    const auto items = itemsOf("14:05:33.050 -> 0.07", '.', true);
    ASSERT_EQ(items.size(), 2U);
    EXPECT_DOUBLE_EQ(items[0].value, 14 * 3600 + 5 * 60 + 33.05);
}

TEST(Line, AUnitMayFollowTheSizeOfItsNumber) {
    const auto kg = itemsOf("Load: 1.02 kg", '.')[0], g = itemsOf("Load: 950 g", '.')[0],
               mm = itemsOf("Load: 950 mm", '.')[0], other = itemsOf("Pull: 950 g", '.')[0];
    EXPECT_TRUE(kg.sameKind(g));
    EXPECT_FALSE(kg.sameKind(mm));
    EXPECT_FALSE(kg.sameKind(other));
}

TEST(Line, OverloadInWordsDashesAndNumbersNoDeviceShows) {
    for (const char* line : {"OL", "0L kg", "Load: ------ kg", "9.9E+37", "0.5,9.9E+37", "ST,OL,+99 kg", "HI",
                             "+inf", "#####", "O/R", "ovl", "Load: OVERLOAD"})
        EXPECT_TRUE(saysOverload(line)) << line;
    for (const char* line : {"ST,GS,+0012.34kg", "Load: 12.5 kg", "hi, this is the logger", "12 N or 3 kg",
                             "lower -- 3", "high res 12 bit", "", "-"})
        EXPECT_FALSE(saysOverload(line)) << line;
}

} // namespace
