#include <algorithm>
#include <anvil/methods/method.h>
#include <gtest/gtest.h>
#include <set>

using namespace anvil::methods;

namespace {

bool says(const std::vector<std::string>& all, const char* words) {
    return std::any_of(all.begin(), all.end(),
                       [&](const auto& s) { return s.find(words) != std::string::npos; });
}

TEST(Methods, EveryOneSaysWhatItMeasuresAndNeeds) {
    std::set<std::string_view> keys;
    for (const auto& m : all()) {
        EXPECT_TRUE(keys.insert(m.key).second) << m.key;
        EXPECT_EQ(find(m.key), &m);
        EXPECT_TRUE(m.measures.ends_with('.') && m.needs.ends_with('.')) << m.key;
    }
    EXPECT_EQ(keys.size(), 18U);
    EXPECT_EQ(find("wishing"), nullptr);
    EXPECT_EQ(find(""), nullptr);
}

TEST(Methods, CautionsFitTheMethodAndTheKind) {
    for (const auto& m : all()) {
        const auto c = cautions(&m, "");
        EXPECT_TRUE(says(c, "Eye protection"));
        EXPECT_TRUE(says(c, "licensed or competent person"));
        EXPECT_EQ(std::set<std::string>(c.begin(), c.end()).size(), c.size()) << "each once";
    }
    EXPECT_TRUE(says(cautions(find("axial-pull"), ""), "line of pull"));
    EXPECT_TRUE(says(cautions(find("three-point-bend"), ""), "fly in pieces"));
    EXPECT_TRUE(says(cautions(find("drop"), ""), "can fall"));
    EXPECT_TRUE(says(cautions(find("torque"), ""), "trap hands"));
    EXPECT_FALSE(says(cautions(find("axial-pull"), ""), "solvents"));
    EXPECT_TRUE(says(cautions(find("axial-pull"), "adhesive bond"), "solvents"));
    EXPECT_TRUE(says(cautions(nullptr, "wire rope"), "line of pull"))
        << "no method chosen is no reason for silence";
}

} // namespace
