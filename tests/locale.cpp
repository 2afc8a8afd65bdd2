// Every test program runs under the locale of its environment, as a desktop program does: half of Europe
// writes a comma where the other half writes a point. CTest runs the core and the command line under such a
// one too.
#include <clocale>
#include <cstdlib>
#include <gtest/gtest.h>

namespace {

const char* const taken = std::setlocale(LC_ALL, "");

TEST(Locale, IsTheOneThatWasAskedFor) { // or a run under a comma would prove nothing
    ASSERT_NE(taken, nullptr) << "the locale of the environment is not to be had";
    if (std::getenv("ANVIL_EXPECT_COMMA")) {
        EXPECT_STREQ(std::localeconv()->decimal_point, ",");
    }
}

} // namespace
