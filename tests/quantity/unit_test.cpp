#include <anvil/quantity/unit.h>
#include <anvil/quantity/units.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>

using namespace anvil::quantity;

namespace {

struct Factor {
    const char* symbol;
    double si;
};

// Published exact values (international yard and pound agreement; CGPM; BIPM SI brochure), typed here
// independently of the code.
TEST(Units, ExactFactors) {
    for (const auto& [symbol, si] : {Factor{"lbf", 4.4482216152605},
                                     {"kgf", 9.80665},
                                     {"in", 0.0254},
                                     {"ft", 0.3048},
                                     {"lb", 0.45359237},
                                     {"oz", 0.028349523125},
                                     {"tf", 9806.65},
                                     {"tonf", 8896.443230521},
                                     {"kn", 1852.0 / 3600},
                                     {"mph", 0.44704},
                                     {"g₀", 9.80665},
                                     {"bar", 1e5},
                                     {"psi", 6894.757293168361},
                                     {"ksi", 6894757.293168361},
                                     {"ft·lbf", 1.3558179483314004},
                                     {"in·lbf", 0.1129848290276167},
                                     {"kgf·cm", 0.0980665},
                                     {"MPa", 1e6},
                                     {"GPa", 1e9},
                                     {"kgf/mm", 9806.65},
                                     {"lbf/in", 175.12683524647636},
                                     {"N/in", 1 / 0.0254},
                                     {"lbf/mm", 4448.2216152605},
                                     {"°", std::numbers::pi / 180},
                                     {"ozf", 0.27801385095378125}})
        EXPECT_NEAR(unit(symbol).factor / si, 1, 1e-14) << symbol;
}

TEST(Units, TemperaturesHaveAnOffset) {
    EXPECT_NEAR(unit("°C").toSi(25), 298.15, 1e-12);
    EXPECT_NEAR(unit("°F").toSi(212), 373.15, 1e-10);
    EXPECT_NEAR(unit("°F").fromSi(273.15), 32, 1e-10);
    EXPECT_NEAR(*convert(-40, unit("°C"), unit("°F")), -40, 1e-10);
}

TEST(Units, KnotAndKilonewtonAreToldApart) {
    EXPECT_EQ((*findUnit("kN"))->dimension, Dimension::force);
    EXPECT_EQ((*findUnit("kn"))->dimension, Dimension::speed);
    EXPECT_EQ((*findUnit("kn", Dimension::force))->symbol, "kN");
    EXPECT_EQ((*findUnit("kN", Dimension::speed))->symbol, "kn");
}

TEST(Units, MassesInAForceFieldAreForces) {
    for (const auto& [typed, symbol] : {std::pair{"kg", "kgf"},
                                        {"g", "gf"},
                                        {"lb", "lbf"},
                                        {"lbs", "lbf"},
                                        {"t", "tf"},
                                        {"oz", "ozf"},
                                        {"KG", "kgf"}})
        EXPECT_EQ((*findUnit(typed, Dimension::force))->symbol, symbol) << typed;
    EXPECT_EQ((*findUnit("kg"))->dimension, Dimension::mass);
    EXPECT_EQ((*findUnit("g", Dimension::acceleration))->symbol, "g₀");
}

TEST(Units, SpellingsOfTorque) {
    for (const char* typed : {"ft-lb", "ft lb", "ft·lbf", "ft.lbf", "lb-ft", "FT-LB"})
        EXPECT_EQ((*findUnit(typed, Dimension::torque))->symbol, "ft·lbf") << typed;
    EXPECT_EQ((*findUnit("Nm", Dimension::torque))->symbol, "N·m");
    EXPECT_EQ((*findUnit("Nm", Dimension::energy))->symbol, "J");
}

TEST(Units, ConvertingThereAndBackIsTheSameNumber) {
    for (const auto& a : allUnits())
        for (const auto& b : allUnits())
            if (a.dimension == b.dimension) {
                const double there = *convert(123.456, a, b);
                EXPECT_NEAR(*convert(there, b, a), 123.456, 1e-9) << a.symbol << " " << b.symbol;
            }
}

TEST(Units, WrongDimensionAndUnknownUnitSayWhatWouldDo) {
    const auto wrong = findUnit("mm", Dimension::force);
    ASSERT_FALSE(wrong);
    EXPECT_EQ(wrong.error().message.substr(0, 53), "\"mm\" measures length, but force is wanted here: use N");
    const auto unknown = findUnit("furlong", Dimension::length);
    ASSERT_FALSE(unknown);
    EXPECT_NE(unknown.error().message.find("\"furlong\" is not a unit known here: use m, mm"),
              std::string::npos);
    EXPECT_FALSE(convert(1, unit("N"), unit("mm")));
}

TEST(Units, EveryAliasFindsItsUnitInItsDimension) {
    for (const auto& u : allUnits()) {
        std::string_view rest = u.aliases;
        while (!rest.empty()) {
            const auto alias = rest.substr(0, rest.find(' '));
            const auto found = findUnit(alias, u.dimension);
            ASSERT_TRUE(found) << alias;
            EXPECT_EQ((*found)->factor, u.factor) << alias;
            rest = alias.size() == rest.size() ? std::string_view{} : rest.substr(alias.size() + 1);
        }
    }
}

TEST(Units, FollowTheChoice) {
    for (const char* force : {"N", "kN", "kgf", "lbf"})
        for (const char* length : {"mm", "in"}) {
            const auto u = unitsFrom(force, length);
            EXPECT_EQ(u.of(Dimension::force).symbol, force);
            EXPECT_EQ(std::string(u.of(Dimension::stiffness).symbol), std::string(force) + "/" + length);
            EXPECT_NEAR(u.of(Dimension::stiffness).factor, u.force->factor / u.length->factor,
                        1e-9 * u.of(Dimension::stiffness).factor);
        }
    EXPECT_EQ(unitsFrom("stone", "cubit").force->symbol, "N");
}

} // namespace
