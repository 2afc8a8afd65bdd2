// What the channels beside a pull's own showed, in a table's rows.
#include <anvil/words/beside.h>
#include <gtest/gtest.h>
#include <limits>

using namespace anvil;
using namespace anvil::words;

namespace {

TEST(Beside, AtThePeakAndBetweenWhatItWent) {
    const double none = std::numeric_limits<double>::quiet_NaN();
    Table t{"numbers", {}, {}};
    addBeside(t,
              std::vector<curve::Channel>{{"Air", "K", {293.15, 294.15, 296.15}},
                                          {"Leg 2", "N", {0, 500, 100}},
                                          {"Bridge (mV/V)", "", {0.5, 0.5, 0.5}},
                                          {"Gate", "", {1, none, 3}},
                                          {"Nothing", "N", {none, none, none}},
                                          {"No clock", "N", {}}},
              1, quantity::unitsFrom("N", "mm"));
    ASSERT_EQ(t.rows.size(), 4U) << "what showed nothing has no row";
    EXPECT_EQ(t.rows[0].cells, (std::vector<std::string>{"Air at the peak", "21.00 °C", "",
                                                         "from 20.00 °C to 23.00 °C over the log"}));
    EXPECT_EQ(t.rows[1].cells[1], "500.0 N");
    EXPECT_EQ(t.rows[2].cells[3], "the same all along");
    EXPECT_EQ(t.rows[3].cells[1], "–") << "nothing was shown there";
    EXPECT_EQ(t.rows[3].cells[3], "from 1.000 to 3.000 over the log");
}

} // namespace
