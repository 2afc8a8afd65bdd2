#include <anvil/words/stands.h>
#include <gtest/gtest.h>
#include <set>

namespace anvil::words {
namespace {

using domain::Because;
using domain::Standing;

TEST(Stands, EveryReasonIsASentenceOfItsOwn) {
    std::set<std::string> all;
    for (int i = static_cast<int>(Because::running); i <= static_cast<int>(Because::markedInTable); ++i) {
        const auto text =
            whyStands({Standing::atLeast, static_cast<Because>(i), {}, "the fitting", "the wire"});
        EXPECT_TRUE(text.ends_with('.')) << i << text;
        EXPECT_TRUE(all.insert(text).second) << text;
    }
    EXPECT_EQ(whyStands({}), "");
    EXPECT_EQ(whyStands({Standing::aside, Because::said, "mislabelled"}), "mislabelled") << "as it was said";
}

TEST(Stands, NamesTheParts) {
    EXPECT_EQ(whyStands({Standing::atLeast, Because::otherPart, {}, "the fitting", "the wire"}),
              "Not the fitting but the wire failed.");
    EXPECT_EQ(whyStands({Standing::aside, Because::otherPartAtOnce, {}, "the fitting", "the wire"}),
              "Not the fitting but the wire failed. Nothing had been held.");
}

TEST(Stands, SaysOfAPullWhatIsKnownOfIt) {
    const domain::StudyData data;
    domain::Pull pull;
    EXPECT_EQ(reasonOf(data, pull, nullptr), "");
    pull.outcome.limit = domain::Limit::powerGone;
    EXPECT_EQ(reasonOf(data, pull, nullptr), "The power went before it broke.");
    pull.standing = Standing::aside;
    pull.reason = "Mislabelled.";
    EXPECT_EQ(reasonOf(data, pull, nullptr), "Mislabelled.") << "what the tester said wins";
    pull.recording = domain::Recording::interrupted;
    EXPECT_EQ(reasonOf(data, pull, nullptr), "Its recording was interrupted: it waits for a decision.");
}

} // namespace
} // namespace anvil::words
