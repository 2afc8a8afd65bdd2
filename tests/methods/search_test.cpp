// A method is found by the words of those who want it.
#include <anvil/methods/method.h>
#include <gtest/gtest.h>

#include <algorithm>

namespace anvil::methods {
namespace {

bool finds(std::string_view text, std::string_view key) {
    const auto found = search(text);
    return std::any_of(found.begin(), found.end(), [&](const Method* m) { return m->key == key; });
}

TEST(MethodSearch, PlainWordsFindWhatFits) {
    EXPECT_TRUE(finds("glue", "lap-shear"));
    EXPECT_TRUE(finds("GLUE", "axial-pull"));
    EXPECT_FALSE(finds("glue", "drop"));
    for (const auto* key : {"three-point-bend", "lever-bend"})
        EXPECT_TRUE(finds("bend", key)) << key;
    EXPECT_TRUE(finds("wire", "axial-pull"));
    EXPECT_TRUE(finds("screw loos", "torque")) << "every word, and its beginning is enough";
    EXPECT_FALSE(finds("screw helmet", "torque")) << "one word that fits is not enough";
}

TEST(MethodSearch, TheTitleComesFirst) {
    EXPECT_EQ(search("torsion").front()->key, "torsion");
    EXPECT_EQ(search("drop").front()->key, "drop");
}

TEST(MethodSearch, NothingTypedFindsAllAndNonsenseNone) {
    EXPECT_TRUE(std::ranges::equal(search(""), all()));
    EXPECT_TRUE(std::ranges::equal(search("  ,; "), all()));
    EXPECT_TRUE(search("zzyzx").empty());
    EXPECT_TRUE(search("\xff\xfe").empty()) << "no text at all";
}

TEST(MethodSearch, EveryMethodHasWordsAndIsFoundByEach) {
    for (const auto* m : all()) {
        ASSERT_FALSE(m->words.empty()) << m->key;
        for (std::size_t from = 0; from < m->words.size();) {
            const auto to = std::min(m->words.find(' ', from), m->words.size());
            EXPECT_TRUE(finds(m->words.substr(from, to - from), m->key)) << m->key;
            from = to + 1;
        }
    }
}

} // namespace
} // namespace anvil::methods
