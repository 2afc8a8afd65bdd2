// Lines that say what they measure, as home-made loggers and scales print them.
#include "typed_columns.h"

#include <anvil/columns/line.h>
#include <anvil/rig/lines.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::rig;

namespace {

struct Said {
    const char* line; ///< {} is the reading
    double newtons;   ///< a reading of 1
    const char* columns;
};

constexpr double kg = 9.80665;

TEST(Labelled, LoadsAreFoundInWhatDevicesPrint) {
    for (const auto& [line, newtons, columns] :
         {Said{"Load: {:.2f} kg", kg, "Load [kgf]"},
          {"Load: {:.2f}kg", kg, "Load [kgf]"},
          {"ST,GS,+{:07.2f}kg", kg, "load [kgf]"},
          {"US,NT,+  {:.2f} lb", 4.4482216152605, "load [lbf]"},
          {"weight={:.3f}", 1, "weight"},
          {"Reading: {:.1f} lbs calibration_factor: -7050.00", 4.4482216152605, "Reading [lbf], -"},
          {"12:05:33.125 -> Load: {:.2f} N", 1, "Load [N]"},
          {"2026-03-02 12:05:33 bench logger[812]: Force {:.2f} kN", 1000, "Force [kN]"},
          {"27.11.2026 12:05:33 Load: {:.2f} N", 1, "Load [N]"},
          {"t: 12 ms F: {:.2f} N x: 3.5 mm", 1, "t [ms], F [N], x [mm]"},
          {"HX711 load {:.2f} N", 1, "HX711 load [N]"}}) {
        std::vector<std::string> lines{"hello, this is the logger"};
        for (int i = 0; i < 12; ++i)
            lines.push_back(fmt::format(fmt::runtime(line), 100.0 + i));
        const auto layout = guessLayout(lines);
        ASSERT_TRUE(layout) << line << ": " << layout.error().message;
        EXPECT_EQ(columnsText(layout->columns), columns) << line;
        const auto maker = SampleMaker::make(*layout);
        ASSERT_TRUE(maker) << line << ": " << maker.error().message;
        for (int i = 0; i < 12; ++i) {
            const auto sample = (*maker)(lines[static_cast<std::size_t>(i) + 1]);
            ASSERT_TRUE(sample) << lines[static_cast<std::size_t>(i) + 1];
            EXPECT_NEAR(sample->load, (100.0 + i) * newtons, 1e-6) << line;
            EXPECT_FALSE(sample->overload);
        }
        EXPECT_FALSE((*maker)("hello, this is the logger")) << "a greeting is no sample";
    }
}

TEST(Labelled, MinusCommaAndPowersAreRead) {
    std::vector<std::string> lines;
    for (int i = 0; i < 6; ++i)
        lines.push_back(fmt::format("Kraft: -{},25 kN", i));
    const auto layout = guessLayout(lines);
    ASSERT_TRUE(layout);
    EXPECT_EQ(layout->decimal, ',');
    EXPECT_NEAR((*SampleMaker::make(*layout))("Kraft: -3,25 kN")->load, -3250, 1e-9);
    EXPECT_NEAR((*SampleMaker::make(*layout))("Kraft: - 3,25 kN")->load, -3250, 1e-9);
    EXPECT_NEAR((*SampleMaker::make(*layout))("Kraft: 1,5e-3 kN")->load, 1.5, 1e-9);
}

/// A device that changes its unit with the reading, or speaks of other things between.
TEST(Labelled, EachLineIsTakenAsItSays) {
    std::vector<std::string> lines;
    for (int i = 0; i < 6; ++i)
        lines.push_back(fmt::format("Load: {}.250 kg", i + 1));
    auto layout = *guessLayout(lines);
    const auto read = [&](const char* line) -> std::optional<double> {
        const auto maker = SampleMaker::make(layout);
        EXPECT_TRUE(maker);
        const auto sample = (*maker)(line);
        return sample ? std::optional(sample->load) : std::nullopt;
    };
    EXPECT_NEAR(read("Load: 950 g").value(), 0.95 * kg, 1e-9);
    EXPECT_NEAR(read("Load: 2 kN").value(), 2000, 1e-9);
    EXPECT_NEAR(read("Cell A Load: 1.5 kg").value(), 1.5 * kg, 1e-9);
    EXPECT_NEAR(read("1.5 kg").value(), 1.5 * kg, 1e-9);
    EXPECT_NEAR(read("Load: 1.5").value(), 1.5 * kg, 1e-9);
    for (const char* other : {"Battery: 3 V", "Temperature: 21.5", "Load: 21 °C", "21.5", "Limit: 500 kg"})
        EXPECT_FALSE(read(other)) << other;
    // What a tester says of the unit holds for what the device prints, however it prints it.
    layout.columns = keepingWhatIsKnown(*columnsFrom("leg A [lbf]"), layout.columns);
    layout.columns[0].role = Role::load;
    EXPECT_NEAR(read("Load: 1.5 kg").value(), 1.5 * 4.4482216152605, 1e-9);
    EXPECT_NEAR(read("Load: 1500 g").value(), 1.5 * 4.4482216152605, 1e-9);
    EXPECT_FALSE(read("Battery: 3 V"));
}

/// As signal tools print a channel: its unit follows the size of the number.
TEST(Labelled, UnitsThatFollowTheNumber) {
    const std::vector<std::string> lines{"A1: 0.0 mN", "A1: 3.0902 N", "A1: 5.8779 N", "A1: 9.5106 N"};
    const auto layout = guessLayout(lines);
    ASSERT_TRUE(layout);
    const auto maker = SampleMaker::make(*layout);
    ASSERT_TRUE(maker);
    EXPECT_NEAR((*maker)("A1: 730.5 mN")->load, 0.7305, 1e-12);
    EXPECT_NEAR((*maker)("A1: 9.5106 N")->load, 9.5106, 1e-12);
}

TEST(Labelled, ThousandsSetApart) {
    const auto point = guessLayout(std::vector<std::string>{"Load: 0.5 kg", "Load: 1.0 kg", "Load: 1.5 kg"});
    const auto maker = *SampleMaker::make(*point);
    EXPECT_NEAR(maker("Load: 1,234.5 kg")->load, 1234.5 * kg, 1e-9);
    EXPECT_NEAR(maker("Load: 12,345,678.5 kg")->load, 12345678.5 * kg, 1e-6);
    const auto comma = guessLayout(std::vector<std::string>{"Load: 0,5 kg", "Load: 1,0 kg", "Load: 1,5 kg"});
    const auto other = *SampleMaker::make(*comma);
    EXPECT_NEAR(other("Load: 1.234,5 kg")->load, 1234.5 * kg, 1e-9);
    for (const char* unclear : {"Load: 1.234 kg", "Load: 1.2.3 kg"})
        EXPECT_FALSE(other(unclear)) << unclear;
    EXPECT_FALSE(maker("Load: 1,234 kg") && maker("Load: 1,234 kg")->load < 1000 * kg)
        << "a thousand is not one";
}

TEST(Labelled, PlainColumnsStayPlain) {
    const auto layout = guessLayout(std::vector<std::string>{"time_s,force_N", "0.1,5", "0.2,6", "0.3,7"});
    ASSERT_TRUE(layout);
    EXPECT_FALSE(layout->labelled);
    EXPECT_EQ(layout->delimiter, ',');
}

TEST(Labelled, OverloadIsHeard) {
    for (const char* line : {"OL,GS,+9999.99kg", "ST,OL", "Load: OVERLOAD", "O.L", "Load: ------ kg", "over"})
        EXPECT_TRUE(columns::saysOverload(line)) << line;
    for (const char* line : {"ST,GS,+0012.34kg", "Load: 12.5 kg", "Holding: 3", "lower -- 3"})
        EXPECT_FALSE(columns::saysOverload(line)) << line;
    Layout l;
    l.labelled = true;
    l.columns = {{"load", Role::load, "kgf"}};
    const auto sample = (*SampleMaker::make(l))("OL,GS,+99.99kg");
    ASSERT_TRUE(sample);
    EXPECT_TRUE(sample->overload);
    EXPECT_FALSE((*SampleMaker::make(l))("OL")) << "no number: whoever listens knows the last one";
}

TEST(Labelled, PartsOfALine) {
    using Kind = columns::LinePart::Kind;
    const std::string line = "12:05:33 ST,Load: +12.5 kg x 3";
    std::string out;
    for (const auto& p : columns::partsOf(line))
        out += fmt::format("{}{}({}) ",
                           p.kind == Kind::label    ? "label"
                           : p.kind == Kind::number ? "number"
                           : p.kind == Kind::unit   ? "unit"
                           : p.kind == Kind::status ? "status"
                           : p.kind == Kind::clock  ? "clock"
                                                    : "other",
                           p.column, line.substr(p.from, p.to - p.from));
    EXPECT_EQ(
        out, "clock-1(12:05:33) status-1(ST) label-1(Load) number0(+12.5) unit0( kg) label-1(x) number1(3) ");
}

TEST(Labelled, AnyBytesGiveAnAnswer) {
    unsigned state = 5;
    const char alphabet[] = "0123456789+-.,:/eE \t[]#abkgNOLxyz\xc2\xb1\xff=";
    Layout l;
    l.labelled = true;
    l.columns = {{"load", Role::load, "kgf"}};
    const auto maker = SampleMaker::make(l);
    std::vector<std::string> lines;
    for (int round = 0; round < 20000; ++round) {
        std::string line;
        for (unsigned n = (state = state * 1664525 + 1013904223) % 40; n > 0; --n) {
            state = state * 1664525 + 1013904223;
            line += alphabet[state / 65536 % (sizeof alphabet - 1)];
        }
        const auto sample = (*maker)(line);
        if (sample) {
            EXPECT_TRUE(std::isfinite(sample->load)) << line;
        }
        for (const auto& p : columns::partsOf(line))
            EXPECT_LE(p.to, line.size());
        if (lines.size() < 40) lines.push_back(line);
    }
    (void)guessLayout(lines);
}

} // namespace
