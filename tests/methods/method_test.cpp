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
    for (const auto* m : all()) {
        EXPECT_TRUE(keys.insert(m->key).second) << m->key;
        EXPECT_EQ(find(m->key), m);
        EXPECT_TRUE(m->measures.ends_with('.') && m->needs.ends_with('.')) << m->key;
        EXPECT_TRUE(m->drawings.sketch && m->drawings.card) << m->key << " draws itself";
        EXPECT_TRUE(m->formulas && !m->metrics.empty()) << m->key;
    }
    EXPECT_FALSE(keys.empty());
    EXPECT_EQ(find("wishing"), nullptr);
    EXPECT_EQ(find(""), nullptr);
}

std::vector<std::string> of(const Method* method, std::string_view kind) {
    const PieceKind kinds[] = {pieceKind(kind)};
    return cautions(std::span(&method, 1), kinds);
}

TEST(Methods, CautionsFitTheMethodAndTheKind) {
    for (const auto* m : all()) {
        const auto c = of(m, "");
        EXPECT_TRUE(says(c, "Eye protection"));
        EXPECT_TRUE(says(c, "licensed or competent person"));
        EXPECT_EQ(std::set<std::string>(c.begin(), c.end()).size(), c.size()) << "each once";
    }
    EXPECT_TRUE(says(of(find("axial-pull"), ""), "line of pull"));
    EXPECT_TRUE(says(of(find("three-point-bend"), ""), "fly in pieces"));
    EXPECT_TRUE(says(of(find("drop"), ""), "can fall"));
    EXPECT_TRUE(says(of(find("torque"), ""), "trap hands"));
    EXPECT_FALSE(says(of(find("axial-pull"), ""), "solvents"));
    EXPECT_TRUE(says(of(find("axial-pull"), "adhesive bond"), "solvents"));
    EXPECT_TRUE(says(of(find("sag"), "Rope"), "line of pull")) << "in capitals too";
    EXPECT_TRUE(says(cautions({}, {}), "line of pull")) << "no method chosen is no reason for silence";
    // Of several methods and kinds all cautions hold.
    const Method* both[] = {find("sag"), find("torque")};
    const PieceKind kinds[] = {pieceKind("glued hook"), pieceKind("ropes")};
    const auto c = cautions(both, kinds);
    for (const char* words : {"line of pull", "can fall", "trap hands", "solvents"})
        EXPECT_TRUE(says(c, words)) << words;
}

TEST(PieceKinds, AreFoundAsWholeWords) {
    EXPECT_TRUE(pieceKind("Rope").rope);
    EXPECT_TRUE(pieceKind("WIRE ropes").rope);
    EXPECT_TRUE(pieceKind("bonded joint").adhesive);
    EXPECT_TRUE(pieceKind("glued").adhesive);
    EXPECT_TRUE(pieceKind("blind rivet (steel)").fastener);
    EXPECT_TRUE(pieceKind("plastic slat").section);
    const auto both = pieceKind("taped wire");
    EXPECT_TRUE(both.rope && both.adhesive);
    for (const char* none : {"", "pine board", "barrel", "linear rail", "spinner", "thing"}) {
        const auto k = pieceKind(none);
        EXPECT_FALSE(k.rope || k.adhesive || k.fastener || k.section) << none;
    }
}

TEST(PieceKinds, SpreadAndFailures) {
    EXPECT_EQ(pieceKind("wire end fitting").cv, 0.07);
    EXPECT_EQ(pieceKind("steel wire rope").cv, 0.08) << "the rope scatters more than its metal";
    EXPECT_EQ(pieceKind("thing").cv, 0.12);
    EXPECT_EQ(failureModes(pieceKind("adhesive bond")).front().words, "let go from the base");
    EXPECT_EQ(failureModes(pieceKind("Blind rivet"))[1].words, "sheared off");
    for (const char* kind : {"", "rope", "glue", "rivet", "plastic slat", "thing"}) {
        const auto modes = failureModes(pieceKind(kind));
        EXPECT_FALSE(modes.empty()) << kind;
        EXPECT_LE(modes.size(), 8U) << kind;
        for (const auto& m : modes)
            EXPECT_EQ(failureOf(m.words), m.failure) << m.words << ": one name, one drawing";
    }
    EXPECT_EQ(failureOf("vanished"), std::nullopt);
    EXPECT_EQ(failureOf("Sheared, along the grain"), Failure::sheared) << "in one's own words";
    EXPECT_EQ(failureOf("gave way in compression"), Failure::crushed);
    EXPECT_EQ(failureOf("outside of the gauge length"), Failure::outsideGauge);
    EXPECT_EQ(failureOf("in the upper grip"), Failure::brokeAtEnd);
    EXPECT_EQ(failureOf("not sheared but bent"), std::nullopt) << "what did not happen";
    EXPECT_EQ(failureOf(""), std::nullopt);
}

} // namespace
