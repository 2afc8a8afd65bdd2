#include "file_words.h"

#include <gtest/gtest.h>

namespace anvil::exchange {
namespace {

using domain::Limit;
using domain::Standing;

/// The words that docs/exchange.md names.
TEST(FileWords, AreThoseOfTheDocument) {
    const char* words[] = {"counts", "at least", "at most", "between", "aside", "void", "not read"};
    for (std::size_t i = 0; i < std::size(words); ++i) {
        EXPECT_EQ(fileWord(domain::standings[i]), words[i]);
        EXPECT_EQ(standingFrom(words[i]), domain::standings[i]);
    }
    EXPECT_EQ(fileWord(Limit::toppedOut), "topped out");
    EXPECT_EQ(fileWord(domain::Intent::asUsed), "as used");
}

TEST(FileWords, EveryOneIsReadBack) {
    for (int i = 0; i <= static_cast<int>(Limit::powerGone); ++i)
        EXPECT_EQ(limitFrom(fileWord(static_cast<Limit>(i))), static_cast<Limit>(i));
    for (int i = 0; i <= static_cast<int>(domain::Intent::asUsed); ++i)
        EXPECT_EQ(intentFrom(fileWord(static_cast<domain::Intent>(i))), static_cast<domain::Intent>(i));
}

TEST(FileWords, AreReadInAnySpellingAndAsEarlierPackagesHadThem) {
    EXPECT_EQ(standingFrom("At_Least"), Standing::atLeast);
    EXPECT_EQ(standingFrom("  set aside"), Standing::aside);
    EXPECT_EQ(limitFrom("rig topped out"), Limit::toppedOut);
    EXPECT_EQ(limitFrom("stopped on purpose"), Limit::stopped);
    EXPECT_EQ(limitFrom("rig fell silent"), Limit::linkLost);
    EXPECT_EQ(limitFrom("set up wrongly"), Limit::wrongSetup);
    EXPECT_EQ(limitFrom("number lost"), Limit::lost);
    EXPECT_EQ(limitFrom("it slipped"), Limit::slipped);
    EXPECT_EQ(limitFrom("it tipped"), Limit::tipped);
    EXPECT_FALSE(standingFrom("perhaps"));
    EXPECT_FALSE(limitFrom("set aside"));
    EXPECT_FALSE(intentFrom(""));
}

} // namespace
} // namespace anvil::exchange
