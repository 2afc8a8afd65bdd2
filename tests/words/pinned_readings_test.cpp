// What is said of pulls with curves, forms and displays, as kept.
#include "pins.h"
#include "study_maker.h"

#include <anvil/curve/steady.h>
#include <anvil/sim/specimen.h>
#include <anvil/words/pull.h>
#include <anvil/words/read_off.h>
#include <anvil/words/unlikely.h>

namespace anvil::words {
namespace {

using namespace results;
using pins::Pin;

void say(Pin& pin, const Table& t) {
    std::string head = "[" + std::string(t.key) + "]";
    for (const auto& c : t.columns)
        head += " | " + c.title;
    pin.line(head);
    for (const auto& row : t.rows) {
        std::string text;
        for (const auto& cell : row.cells)
            text += cell + " | ";
        pin.line(text);
    }
}

/// Settings by hand and what was asked for beside, one way and the other.
curve::ReadingSettings settings(int k) {
    curve::ReadingSettings s;
    if (k % 6 == 1) s.peak = curve::Override{3.1};
    if (k % 6 == 2) s.firstSlip = curve::Override{0, true};
    if (k % 6 == 3) s.breakPoint = curve::Override{4.5};
    if (k % 6 == 4) s.fitFrom = curve::Override{2.2}, s.fitTo = curve::Override{2.8};
    if (k % 3 == 1) s.yieldOffset = 0.0002, s.atTravel = 0.003;
    if (k % 3 == 2)
        s.atLoad = 300, s.rigCompliance = 1e-7, s.holdFrom = curve::Override{2},
        s.holdTo = curve::Override{3};
    if (k % 4 == 3) s.rigLimit = 1500;
    return s;
}

TEST(Pinned, WhatIsSaidOfCurves) {
    Pin pin;
    Maker m;
    m.option("Ash").condition("Dry");
    m.data.study.plan.method = "axial-pull";
    int k = 0;
    for (const auto model : sim::allModels)
        for (std::uint64_t seed = 1; seed <= 3; ++seed, ++k) {
            const auto bench = sim::typicalBench(model, seed);
            auto run = sim::pull(bench.specimen, bench.logger, seed);
            if (k % 5 == 4) run.curve.travel.clear();
            auto& p = m.pull(1, 11, 1, k % 7 == 6 ? Standing::aside : Standing::counts);
            p.typed.reset();
            p.curve = p.id;
            p.settings = settings(k);
            if (k % 4 == 1) p.outcome.part = "the pin", p.outcome.where = "at the head";
            if (k % 4 == 2) p.outcome.limit = Limit::stopped;
            if (k % 8 == 3) p.outcome.marks = {{1.5, "creaks"}, {2.5, ""}};
            const auto read = curve::read(run.curve, p.settings);
            if (!read) {
                m.readings.unreadable[p.id] = read.error().message;
                continue;
            }
            m.readings.byPull[p.id] = *read;
            const std::vector<curve::Steady> windows = [&] {
                std::vector<curve::Steady> out;
                for (const double at : {0.5, 2.0})
                    if (const auto s = curve::steadyAt(run.curve, at, 0.5)) out.push_back(*s);
                return out;
            }();
            say(pin, steadyTable("P", windows, quantity::unitsFrom("N", "mm")));
        }
    m.data.count();
    for (const auto& [force, length] : {std::pair{"N", "mm"}, {"lbf", "in"}}) {
        const auto units = quantity::unitsFrom(force, length);
        for (const auto& p : m.data.pulls) {
            const auto& piece = m.data.specimenAt(p.specimen);
            pin.say("== {} {}", p.id,
                    metricText(m.data, p, piece, m.readings, domain::metric("peak"), units));
            if (const auto* r = m.readings.find(p.id)) say(pin, readingTable(m.data, *r, p, units));
            for (const auto& line : factsOf(m.data, p, piece, m.readings, units, {}))
                pin.line("fact: " + line);
            for (const auto& line : remarksOn(m.data, p, piece, m.readings, units, {}))
                pin.line("remark: " + line);
        }
        const Metric metrics[] = {domain::metric("peak"), domain::metric("stiffness"),
                                  domain::metric("energy")};
        say(pin, pullTable(m.data, m.readings, metrics, units, {}));
    }
    pin.check("words_curves");
}

TEST(Pinned, WhatIsSaidOfFormsAndDisplays) {
    Pin pin;
    const auto units = quantity::unitsFrom("kN", "mm");
    Maker m;
    m.option("Ash").condition("Dry");
    for (const auto& [method, key, text] : {std::tuple{"torque", "breakaway", "4…5 N·m"},
                                            {"torque", "running", "1.1 N·m"},
                                            {"load-share", "leg.2", "300 N"},
                                            {"sag", "weight", "5 kg"},
                                            {"holding", "moves", ">2 kN"},
                                            {"attempts", "tries", "10"}}) {
        m.data.study.plan.method = method;
        m.data.study.goal.metric = domain::metricsOf(method).front();
        auto& p = m.pull(1, 11, 1);
        p.typed.reset();
        p.outcome.entered.fields = {{key, text}};
        p.outcome.afterwards = "bent";
        m.data.count();
        const auto& piece = m.data.specimenAt(p.specimen);
        pin.say("== {} {}", method,
                metricText(m.data, p, piece, m.readings, m.data.study.goal.metric, units));
        for (const auto& line : factsOf(m.data, p, piece, m.readings, units, {}))
            pin.line("fact: " + line);
        for (const auto& line : remarksOn(m.data, p, piece, m.readings, units, {}))
            pin.line("remark: " + line);
    }
    ReadThrough lever{20, 0, 0.5, quantity::Dimension::force, {}};
    ReadThrough ram{0.0012, -40, 0, quantity::Dimension::stress, {}};
    ReadThrough dial{2, 15, 0.1, quantity::Dimension::ratio, {{0, 0}, {100, 5000}}};
    ReadThrough sensor{250, 0, 0, quantity::Dimension::voltage, {}};
    for (const auto& path : {lever, ram, dial, sensor})
        for (const char* at : {"", "display", "piece"})
            pin.line(displaySentence(path, "The rig", at));
    for (const auto& [path, text, si] : {std::tuple{lever, "48 lbf", 213.5},
                                         {ram, "60 bar", 6e6},
                                         {dial, "40", 40.0},
                                         {dial, "140", 140.0},
                                         {sensor, "2.5 V", 2.5}}) {
        Pull p;
        p.typed = TypedValue{domain::metric("peak"), si, si, text};
        pin.line(readOffText(p, path, units));
        p.typed.reset();
        pin.line(readOffText(p, path, units));
    }
    for (const char* text : {"40 lbf", "4100 N", "0.4 kN", "412 kgf", "41 N"})
        if (const auto typed = quantity::parseEntry(text))
            if (const auto odd = unlikely(*typed, {405, 410, 420, 398}))
                pin.line(std::string(text) + ": " + words::sentence(*odd, *typed));
    pin.check("words_forms");
}

} // namespace
} // namespace anvil::words
