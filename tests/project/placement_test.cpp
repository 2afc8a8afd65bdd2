// Which piece of the plan a result is of.
#include <anvil/project/placement.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::project;

namespace {

/// Two options in two conditions, three pieces each, labelled as the program does.
domain::StudyData planned() {
    domain::StudyData d;
    d.study.id = 1;
    for (const auto& [id, name] : {std::pair{1, "Long spike"}, {2, "Wedge 4x45"}}) {
        d.options.emplace_back();
        d.options.back().id = id;
        d.options.back().name = name;
    }
    for (const auto& [id, name] : {std::pair{11, "Dry"}, {12, "Salt-soaked"}}) {
        d.conditions.emplace_back();
        d.conditions.back().id = id;
        d.conditions.back().name = name;
    }
    domain::Id next = 100;
    for (const auto& o : d.options)
        for (const auto& c : d.conditions)
            for (int k = 1; k <= 3; ++k) {
                domain::Specimen s;
                s.id = next++;
                s.option = o.id;
                s.condition = c.id;
                s.replicate = k;
                s.label = fmt::format("{}{}-{}", o.id == 1 ? 'A' : 'B', c.id - 10, k);
                d.specimens.push_back(s);
            }
    return d;
}

void pullOf(domain::StudyData& d, const char* label) {
    for (const auto& s : d.specimens)
        if (s.label == label) {
            d.pulls.emplace_back();
            d.pulls.back().id = 1000 + s.id;
            d.pulls.back().specimen = s.id;
        }
}

std::string placed(const domain::StudyData& d, const std::vector<Homeless>& results) {
    std::string out;
    for (const auto& p : placesFor(d, results))
        out += fmt::format("{}{}", out.empty() ? "" : " ",
                           p.specimen
                               ? p.label.toStdString()
                               : fmt::format("new:{}|{}", p.option.toStdString(), p.condition.toStdString()));
    return out;
}

TEST(Placement, NamesInAnySpelling) {
    for (const auto& [a, b] : {std::pair{"Salt-soaked", "salt soaked"},
                               {"Salt-soaked", "SOAKED_SALT"},
                               {"Wedge 4x45", "wedge-4x45"},
                               {"4 x 45", "4x45"},
                               {"no lead", "No-Lead"}})
        EXPECT_TRUE(sameThing(a, b)) << a << " " << b;
    for (const auto& [a, b] :
         {std::pair{"lead", "no lead"}, {"4 x 45", "45 x 4"}, {"Dry", "Dry 2"}, {"", "Dry"}})
        EXPECT_FALSE(sameThing(a, b)) << a << " " << b;
}

TEST(Placement, ThePieceWhoseLabelIsToldFirst) {
    const auto d = planned();
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 0, "2026/A1-3.csv"},
                         {"Long spike", "Dry", 0, "pull a1-1 again.csv"}}),
              "A1-3 A1-1");
    EXPECT_EQ(placed(d, {{"", "", 0, "B2-2.csv"}}), "B2-2") << "the name holds nothing else";
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 0, "xA1-3y.csv"}}), "A1-1") << "a part of a word is no label";
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 0, "B2-2.csv"}}), "A1-1") << "of another option than is said";
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 0, "A1-1.csv"}, {"Long spike", "Dry", 0, "A1-1.csv, run 2"}}),
              "A1-1 A1-2")
        << "no piece is given twice";
}

TEST(Placement, ElseTheNextThatWaitsInItsSquare) {
    auto d = planned();
    pullOf(d, "A2-1");
    const std::vector<Homeless> three(3, {"long-spike", "soaked salt", 0});
    EXPECT_EQ(placed(d, three), "A2-2 A2-3 new:Long spike|Salt-soaked");
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 3}, {"Long spike", "Dry", 1}, {"Long spike", "Dry", 7}}),
              "A1-3 A1-1 A1-2");
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 0}, {"Long spike", "Dry", 1}}), "A1-2 A1-1")
        << "who tells the replicate has it";
    EXPECT_EQ(placed(d, {{"Peg", "Dry", 1}, {"Long spike", "Wet", 1}}), "new:Peg|Dry new:Long spike|Wet");
    EXPECT_EQ(placed(d, {{"Long spike", "Dry", 1, "", true}}), "new:Long spike|Dry") << "as somebody said";
}

TEST(Placement, TheOnlyConditionIsMeantWhereNoneIsTold) {
    auto d = planned();
    EXPECT_EQ(placed(d, {{"Long spike", ""}}), "new:Long spike|") << "there are two";
    d.conditions.pop_back();
    std::erase_if(d.specimens, [](const auto& s) { return s.condition == 12; });
    EXPECT_EQ(placed(d, {{"Long spike", ""}, {"Peg", ""}}), "A1-1 new:Peg|Dry");
}

} // namespace
