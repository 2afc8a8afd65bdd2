// What a fit to bounds may not be used for.
#include "study_maker.h"
#include <anvil/plan/reach.h>
#include <anvil/plan/replication.h>
#include <gtest/gtest.h>

namespace anvil::plan {

using namespace domain;
using namespace results;
namespace {

/// The spread of a fit to few values and bounds is too small to plan by.
TEST(PlanningByBounds, TakesNoSpreadFromAFit) {
    results::Maker m;
    m.option("Pin").condition("Dry").square(1, 11, {4000, 4100});
    m.pull(1, 11, 4200, domain::Standing::atLeast);
    const auto v = m.verdict();
    ASSERT_TRUE(v.groups[0].summary.sd) << "there is a fit";
    EXPECT_FALSE(ownCv(v));
    EXPECT_EQ(headRoom(m.data, v, 1, 11).upper, 0) << "nothing is predicted from it";
}

} // namespace
} // namespace anvil::plan
