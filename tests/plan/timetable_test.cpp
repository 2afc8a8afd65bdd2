#include <anvil/plan/fairness.h>
#include <anvil/plan/timetable.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <gtest/gtest.h>

using namespace anvil::domain;
using namespace anvil::results;
using namespace anvil::plan;

namespace {

constexpr Instant hour = 3600, day = 86400;
constexpr Instant monday = 20577 * day; // 2026-05-04T00:00:00Z

const std::vector<RecipeStep> bond{{"Clean", 10, 0, 0, 1, 0, "", ""},
                                   {"Prime", 5, 20, 60, 1, 0, "primer", "2026-04-01"},
                                   {"Apply and clamp", 15, 24 * 60, 0, 1, 0, "adhesive", "2027-01-01"}};

std::vector<Step> layOut(const std::vector<RecipeStep>& r, Instant start,
                         const std::map<std::string, Instant>& done, Instant now,
                         const WorkingHours& h = {}) {
    auto t = timetable(r, start, done, now, h);
    if (!t) {
        ADD_FAILURE() << t.error().message;
        return {};
    }
    return *t;
}

TEST(Timetable, StepsFollowEachOther) {
    const Instant start = monday + 9 * hour;
    const auto t = layOut(bond, start, {}, start);
    ASSERT_EQ(t.size(), 3U);
    EXPECT_EQ(t[0].earliest, start);
    EXPECT_EQ(t[0].state, StepState::due);
    EXPECT_EQ(t[1].earliest, start + 10 * 60);
    EXPECT_EQ(t[1].state, StepState::waiting);
    EXPECT_EQ(t[2].earliest, start + (10 + 5 + 20) * 60);
    EXPECT_EQ(t[2].latest, start + (10 + 5 + 60) * 60);
    EXPECT_EQ(finished(t, start), start + (10 + 5 + 20 + 15 + 24 * 60) * 60)
        << "the cure belongs to the preparation; past midnight";
}

TEST(Timetable, WhatWasDoneMovesTheRestAndEarlyAndLateAreSeen) {
    const Instant start = monday + 9 * hour;
    auto t = layOut(bond, start, {{"0.0", start + 60 * 60}}, start + 61 * 60);
    EXPECT_EQ(t[1].earliest, start + 70 * 60);
    t = layOut(bond, start, {{"0.0", start}, {"1.0", start + 10 * 60}, {"2.0", start + 20 * 60}},
               start + 61 * 60);
    EXPECT_EQ(t[1].state, StepState::done);
    EXPECT_EQ(t[2].state, StepState::doneEarly) << "5 minutes after priming, 20 were to be waited";
    t = layOut(bond, start, {{"0.0", start}, {"1.0", start + 10 * 60}}, start + 80 * 60);
    EXPECT_EQ(t[2].state, StepState::overdue) << "the primer's open time is over";
    t = layOut(bond, start, {{"0.0", start}, {"1.0", start + 10 * 60}, {"2.0", start + 80 * 60}},
               start + 90 * 60);
    EXPECT_EQ(t[2].state, StepState::doneLate);
}

TEST(Timetable, RepeatsKeepTheirInterval) {
    const std::vector<RecipeStep> wash{{"Wash", 5, 0, 0, 4, 24 * 60, "", ""}};
    const Instant start = monday + 9 * hour;
    const auto t = layOut(wash, start, {{"0.0", start}}, start + 25 * hour);
    ASSERT_EQ(t.size(), 4U);
    EXPECT_EQ(t[1].name, "Wash, 2 of 4");
    for (int k = 1; k < 4; ++k)
        EXPECT_EQ(t[static_cast<std::size_t>(k)].earliest, start + k * day);
    EXPECT_EQ(t[1].state, StepState::due);
    const auto missed = layOut(wash, start, {{"0.0", start}}, start + 49 * hour);
    EXPECT_EQ(missed[1].state, StepState::overdue);
    EXPECT_EQ(missed[2].state, StepState::due) << "one that was missed does not hold up the next";
    EXPECT_EQ(missed[3].state, StepState::waiting);
    EXPECT_EQ(layOut(wash, start, {}, start + 49 * hour)[1].state, StepState::waiting)
        << "a schedule begins with its first";
}

TEST(Timetable, WorkingHoursAreRespected) {
    WorkingHours hours{8 * 60, 17 * 60, [](Instant) { return 0; }};
    EXPECT_EQ(nextWorking(monday + 9 * hour, hours), monday + 9 * hour);
    EXPECT_EQ(nextWorking(monday + 5 * hour, hours), monday + 8 * hour);
    EXPECT_EQ(nextWorking(monday + 17 * hour, hours), monday + day + 8 * hour) << "past midnight";
    const auto t = layOut({{"Clean", 10, 12 * 60, 0, 1, 0, "", ""}, {"Apply", 10, 0, 0, 1, 0, "", ""}},
                          monday + 16 * hour, {}, monday + 16 * hour, hours);
    EXPECT_EQ(t[1].earliest, monday + day + 8 * hour);
}

// Summer time begins on 2026-03-29 at 01:00 UTC: the offset goes from 60 to 120 minutes.
/// The one way a study's preparation is laid out: for the window by the wall clock, for fairness by its own.
TEST(Timetable, APreparationKeepsItsWorkingHoursAndBlamesNobodyForAnEvening) {
    Plan plan;
    EXPECT_TRUE(preparationOf(plan, 0, {instantOf})->empty()) << "nothing begun";
    RecipeStep glue, wash;
    glue.name = "Glue";
    glue.minutes = 10;
    glue.waitMinutes = 120;
    wash.name = "Wash";
    plan.recipe = {glue, wash};
    plan.workFrom = 8 * 60;
    plan.workTo = 17 * 60;
    plan.recipeStarted = "2026-05-04T16:00:00";
    const auto at = [](const char* text) { return *instantOf(text); };
    const auto waiting = *preparationOf(plan, at("2026-05-04T16:00:00"), {instantOf});
    ASSERT_EQ(waiting.size(), 2U);
    EXPECT_EQ(waiting[1].earliest, at("2026-05-05T08:00:00")) << "nobody is there before";
    plan.stepsDone = {{"0.0", "2026-05-04T16:00:00"}, {"1.0", "2026-05-04T18:30:00"}};
    EXPECT_EQ(preparationOf(plan, at("2026-05-04T19:00:00"), {instantOf})->at(1).state, StepState::done)
        << "after hours, but the wait was over at ten past six";
    plan.stepsDone[1].second = "2026-05-04T17:00:00";
    EXPECT_EQ(preparationOf(plan, at("2026-05-04T19:00:00"), {instantOf})->at(1).state, StepState::doneEarly);
}

TEST(Timetable, SummerTime) {
    const Instant sunday = 20541 * day;
    WorkingHours hours{8 * 60, 17 * 60, [=](Instant at) { return at < sunday + hour ? 60 : 120; }};
    EXPECT_EQ(nextWorking(sunday - 6 * hour, hours), sunday + 6 * hour)
        << "Saturday 19:00 → Sunday 08:00 summer time is 06:00 UTC";
    const auto t = layOut({{"Clean", 0, 24 * 60, 0, 1, 0, "", ""}, {"Apply", 10, 0, 0, 1, 0, "", ""}},
                          sunday - 15 * hour, {}, sunday - 15 * hour, hours);
    EXPECT_EQ(t[1].earliest, sunday + 9 * hour)
        << "24 hours are 24 hours, whatever the clock on the wall does";
}

TEST(Timetable, BadRecipesAreSentences) {
    EXPECT_EQ(timetable({{"", 1, 0, 0, 1, 0, "", ""}}, 0, {}, 0).error().message, "Step 1 has no name.");
    EXPECT_EQ(timetable({{"Wash", -1, 0, 0, 1, 0, "", ""}}, 0, {}, 0).error().message,
              "\"Wash\" has a time below zero.");
    EXPECT_EQ(timetable({{"Wash", 1, 0, 0, 0, 0, "", ""}}, 0, {}, 0).error().message,
              "\"Wash\" is repeated 0 times: give 1 to 1000.");
    EXPECT_EQ(
        timetable({{"Prime", 1, 20, 10, 1, 0, "", ""}}, 0, {}, 0).error().message,
        "After \"Prime\" one must wait longer than one may: the latest time lies before the wait is over.");
    EXPECT_TRUE(timetable({}, 0, {}, 0)->empty());
}

TEST(Timetable, ProgressRunsFromNothingToAll) {
    const Instant start = monday + 9 * hour;
    auto t = layOut(bond, start, {}, start);
    EXPECT_EQ(progress(t, start, start), 0);
    EXPECT_LT(progress(t, start, start + 100 * day), 1) << "not ready while a step is open";
    const std::map<std::string, Instant> all{{"0.0", start}, {"1.0", start + 600}, {"2.0", start + 2400}};
    t = layOut(bond, start, all, start + 12 * hour);
    EXPECT_NEAR(progress(t, start, start + 12 * hour), 12.0 / (24 + (2400 + 900) / 3600.0), 1e-9);
    EXPECT_EQ(progress(t, start, start + 26 * hour), 1);
}

TEST(Timetable, ProductsPastTheirDate) {
    const auto e = expired(bond, "2026-05-04");
    ASSERT_EQ(e.size(), 1U);
    EXPECT_EQ(e[0], "primer is past its date (2026-04-01): it may cure badly and spoil the square.");
}

TEST(Calendar, IsWellFormed) {
    auto t =
        layOut({{"Clean, dry; and \\ wait a while until the very long description has gone past the fold", 10,
                 0, 30, 1, 0, "", ""},
                {"Apply", 5, 0, 0, 1, 0, "", ""}},
               monday, {}, monday);
    const auto ics = toCalendar(t, "Hooks", monday);
    EXPECT_TRUE(ics.starts_with("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"));
    EXPECT_TRUE(ics.ends_with("END:VCALENDAR\r\n"));
    EXPECT_NE(ics.find("DTSTART:20260504T000000Z\r\n"), std::string::npos);
    EXPECT_NE(ics.find("Clean\\, dry\\; and \\\\ wait"), std::string::npos);
    for (std::size_t at = 0; at < ics.size();) {
        const auto end = ics.find("\r\n", at);
        ASSERT_NE(end, std::string::npos) << "every line ends with CRLF";
        EXPECT_LE(end - at, 75U);
        at = end + 2;
    }
    t[0].done = t[1].done = monday;
    EXPECT_EQ(toCalendar(t, "Hooks", monday).find("VEVENT"), std::string::npos)
        << "what is done needs no reminder";
}

} // namespace
