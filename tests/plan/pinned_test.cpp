// What is said of the plans of many random studies, as kept.
#include "pins.h"
#include "rich_study.h"

#include <anvil/plan/advice.h>
#include <anvil/plan/fairness.h>
#include <anvil/plan/follow_ups.h>
#include <anvil/plan/forecasts.h>
#include <anvil/plan/next.h>
#include <anvil/plan/pieces.h>
#include <anvil/plan/reach.h>
#include <anvil/plan/replication.h>
#include <anvil/plan/run_order.h>
#include <anvil/plan/timetable.h>
#include <anvil/plan/weakest_link.h>

namespace anvil::plan {
namespace {

using namespace domain;
using namespace results;
using pins::num;
using pins::Pin;

void addPlan(StudyData& data, std::uint64_t seed) {
    auto& p = data.study.plan;
    p.minutesEach = seed % 2 ? 6 : 0;
    p.replicates = 3;
    if (seed % 3 == 0) p.speed = 0.01, p.connector = "8 mm shackle";
    if (seed % 4 == 1) p.reused = true;
    if (seed % 2)
        p.recipe = {{"Clean", 5, 20, 0, 1, 0, "", ""},
                    {"Glue", 10, 1440, 30, 1, 0, "two-part", "2026-05-03"},
                    {"Wash", 5, 60, 0, 3, 120, "", ""}};
    if (seed % 2) p.recipeStarted = "2026-05-01T09:00:00";
    if (seed % 5 == 1) p.stepsDone = {{"0.0", "2026-05-01T09:10:00"}, {"1.0", "2026-05-01T09:12:00"}};
    data.reach.limit = 1500 + 200.0 * static_cast<double>(seed % 4);
    if (seed % 2) data.reach.cell = 5000;
    if (seed % 3 == 1) data.reach.travel = 0.03;
    for (std::size_t i = 0; i < data.specimens.size(); ++i) {
        auto& s = data.specimens[i];
        if (i % 4 == 0) s.x = 0.01 * static_cast<double>(i), s.y = 0.02;
        if (i % 3 == 0) s.measured = {{"width", {}, {}, {0.02, 0.0202}}, {"depth", 0.01, 0.0005, {0.0104}}};
        if (i % 7 == 0) s.measured = {{"outer diameter", {}, {}, {0.03}}, {"wall", {}, {}, {0.002}}};
    }
}

void say(Pin& pin, const char* what, const HeadRoom& h) {
    pin.say("{} {} {} {} {} from {}: {}", what, word(h.reach), num(h.expected), num(h.upper), num(h.limit),
            h.from, h.sentence);
}

TEST(Pinned, WhatIsSaidOfPlans) {
    Pin pin;
    for (std::uint64_t seed = 1; seed <= 12; ++seed) {
        auto m = richStudy(seed);
        addPlan(m.data, seed);
        m.data.count();
        const auto& d = m.data;
        const Results table(d, m.readings);
        const auto v = evaluate(table, d.study.goal);
        const auto sure = surenessOf(table, v);
        pin.line("== " + d.study.title);
        for (const auto& f : fairness(d, m.readings))
            pin.say("fair {}: {} [{}] {}", f.rule, f.sentence, f.remedy, f.accepted);
        for (const auto& a : advise(d, m.readings, v, 0.12))
            pin.say("advice {} {} {}", key(a.about), static_cast<int>(a.sign), a.sentence);
        for (const auto* s : {static_cast<const Sureness*>(nullptr), &sure})
            for (const auto& f : followUps(d, v, s)) {
                std::string squares;
                for (const auto& [o, c] : f.squares)
                    squares += fmt::format("{}/{} ", o, c);
                pin.say("next {} {} {}x{}: {} ({}) {}", word(f.remedy), squares, f.pulls, f.more, f.sentence,
                        effortText(f), num(f.cost));
            }
        for (const auto& f : scoreForecasts(d, v))
            pin.say("forecaster {} ({} {} {} {} {} {})", sentence(f), f.squares, f.inside, num(f.ratio),
                    num(f.worst), f.parts, f.partsRight);
        for (const auto& o : d.options)
            for (const auto& c : d.conditions) {
                const auto room = squareRoom(d, m.readings, v, o.id, c.id);
                say(pin, "load", room.load);
                say(pin, "travel", room.travel);
                pin.say("room {} {} {}", word(room.reach), room.word, room.sentence);
            }
        const auto t = totals(d);
        pin.say("totals {} {} {} {} {} {} {}", t.squares, t.replicates, t.pulled, num(t.cost), t.currency,
                num(t.pulling), num(t.preparation));
        for (const auto& s : stock(d))
            pin.say("stock {} {} {} {} {} {} {}", s.what, s.needed, s.made, num(s.unitCost), num(s.cost),
                    s.currency, s.supply);
        pin.line("own cv " + num(ownCv(v)));
        const auto* piece = nextSpecimen(d);
        const auto* rung = nextOnLadder(d);
        pin.say("next {} {}", piece ? piece->label : "-", rung ? rung->label : "-");
        std::string order;
        auto fresh = d;
        fresh.pulls.clear();
        fresh.count();
        for (const bool grouped : {false, true})
            for (const auto& l : drawRunOrder(fresh, seed, grouped))
                order += l + " ";
        pin.line("order " + order);
        for (const auto& p : closePairs(d, 0.05))
            pin.say("close {} {} {}", p.a, p.b, num(p.distance));
        for (const auto& s : d.specimens)
            if (const auto area = derivedArea(s.measured)) pin.say("area {} {}", num(area->value), area->how);
        for (const auto& p : d.pulls)
            if (const auto said = timingOf(d, p); !said.empty()) pin.line("timing " + said);
        if (!d.study.plan.recipe.empty()) {
            const auto now = *instantOf("2026-05-02T12:00:00");
            const auto steps = preparationOf(d.study.plan, now, {instantOf});
            if (steps) {
                const auto start = *instantOf(d.study.plan.recipeStarted);
                for (const auto& s : *steps)
                    pin.say("step {} {} {} {} {} {}", s.name, s.earliest - start, s.finish - start,
                            s.latest ? s.latest - start : 0, word(s.state), s.done ? s.done - start : 0);
                pin.say("progress {} finished {}", num(progress(*steps, start, now)),
                        finished(*steps, start) - start);
            }
            for (const auto& e : expired(d.study.plan.recipe, "2026-05-04"))
                pin.line(e);
        }
        const auto weak = weakestLink(d.study.plan.chain);
        pin.line(weakestSentence(weak));
        for (const auto& w : weak)
            pin.say("weakest {} {} {}", w.name, num(w.probability), w.specimen);
    }
    for (const double cv : {0.02, 0.1, 0.35})
        for (const auto& s : schools(cv, 4))
            pin.say("school {} {} {} {}", cv, s.n, num(s.detectable), s.school);
    for (const char* kind : {"", "rope", "adhesive bond", "bolt", "timber", "plastic"})
        pin.say("cv {} {}", kind, num(defaultCv(kind)));
    for (const double seconds : {0.4, 59.0, 60.0, 3599.0, 3600.0, 90000.0, 864000.0})
        pin.line(stretch(seconds));
    pin.check("plans");
}

TEST(Pinned, LaddersAndHours) {
    Pin pin;
    std::vector<LadderStep> steps;
    for (int i = 0; i < 6; ++i) {
        const auto next = nextStep(steps, 100, 25, i % 2 ? std::optional(0.4) : std::nullopt, 0.1);
        if (!next) break;
        pin.say("step {} {} {}", num(next->load), num(next->distance), next->held);
        steps.push_back(*next);
        steps.back().held = i < 4;
    }
    const auto at = *instantOf("2026-05-04T20:15:00");
    for (const auto& [from, to] : {std::pair{0, 1440}, {480, 1020}, {1080, 1320}, {600, 660}})
        pin.say("working {}", nextWorking(at, {from, to}) - at);
    for (const char* text : {"2026-05-04T20:15:00", "2026-05-04", "2026-13-01", "", "x"})
        pin.say("{} {}", text, instantOf(text) ? 1 : 0);
    pin.check("ladders");
}

} // namespace
} // namespace anvil::plan
