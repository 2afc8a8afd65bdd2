#include <anvil/domain/pulls_of_pieces.h>
#include <anvil/words/pull.h>
#include <anvil/words/stands.h>

#include <algorithm>
#include <anvil/domain/joints.h>
#include <anvil/domain/outcomes.h>
#include <anvil/domain/phases.h>
#include <anvil/methods/method.h>
#include <anvil/methods/phase_metric.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/ends.h>
#include <anvil/results/evidence.h>
#include <anvil/words/read_off.h>
#include <anvil/words/values.h>
#include <array>
#include <fmt/format.h>
#include <numbers>

namespace anvil::words {
namespace {

using domain::Pull;
using domain::Specimen;
using domain::StudyData;
using quantity::Units;
using quantity::withUnit;
using results::Readings;

std::string heldText(int joints, const char* first) {
    if (joints <= 0) return {};
    return joints == 1 ? fmt::format("{}ts other end held at least that", first)
                       : fmt::format("{}ts other {} joints held at least that", first, joints);
}

bool byHand(const Pull& pull) {
    const auto& set = pull.settings;
    return set.peak || set.firstSlip || set.breakPoint || set.fitFrom;
}

std::string phasesLine(const Pull& pull, const Units& units) {
    auto text = domain::phasesText(
        pull.outcome.phases, [&](quantity::Dimension d) -> const quantity::Unit& { return units.of(d); });
    for (std::size_t at; (at = text.find('\n')) != std::string::npos;)
        text.replace(at, 1, "; ");
    return text;
}

/// Whether a metric stands in the table of what was read from a curve.
bool readFromCurve(std::string_view metric) {
    constexpr std::array read{"peak", "first_slip", "stiffness", "energy", "residual"};
    return std::find(read.begin(), read.end(), metric) != read.end();
}

/// What was entered for a pull, and what its method makes of it; what was typed as it is, or stands in the
/// table of its curve, is not said twice.
void addEntered(std::vector<std::string>& out, const StudyData& data, const Pull& pull,
                const Specimen& specimen, const curve::Reading* reading, const Units& units) {
    const auto& method = results::methodOf(data, specimen);
    for (const auto& f : pull.outcome.entered.fields)
        if (const auto* input = methods::inputNamed(method, f.key)) {
            const auto leg = input->form == methods::Form::perLeg ? f.key.find('.') : std::string::npos;
            out.push_back(fmt::format(
                "{}{}: {}", input->title,
                leg == std::string::npos ? std::string() : ", leg " + f.key.substr(leg + 1), f.text));
        }
    if (pull.outcome.entered == domain::Entered{} && !pull.typed && !reading) return;
    if (const auto all = results::measured(data, pull, reading))
        for (const auto& n : all->numbers)
            if (n.value && !(pull.typed && pull.typed->metric->key == n.metric->key) &&
                !(reading && readFromCurve(n.metric->key)) && !methods::phaseMetricOf(n.metric->key))
                out.push_back(fmt::format("→ {}: {}", n.metric->title,
                                          valueText(*n.value, methods::unitFor(*n.metric, units), n.guess)));
}

/// When, by whom, and what ended it.
void addCircumstances(std::vector<std::string>& out, const Pull& pull, const Timing& timing) {
    if (!pull.performedAt.empty()) {
        auto when = pull.performedAt.substr(0, 16);
        std::replace(when.begin(), when.end(), 'T', ' ');
        out.push_back("When: " + when);
    }
    if (const auto said = timing ? timing(pull) : std::string(); !said.empty()) out.push_back("⚠ " + said);
    if (!pull.operatorName.empty()) out.push_back("By: " + pull.operatorName);
    if (pull.outcome.limit) out.push_back(fmt::format("Ended: {}", domain::word(*pull.outcome.limit)));
    for (std::size_t k = 0; k < pull.outcome.marks.size(); ++k)
        out.push_back(fmt::format("{} at {} s", domain::markName(pull.outcome.marks, k),
                                  quantity::significant(pull.outcome.marks[k].at, 4)));
}

void addCurveFacts(std::vector<std::string>& out, const curve::Reading& r, const Units& units) {
    const auto& load = units.of(r.loadKind);
    out.push_back(r.spikes
                      ? fmt::format("{} samples, {} of them spikes that were bridged", r.samples, r.spikes)
                      : fmt::format("{} samples", r.samples));
    out.insert(out.end(), r.notes.begin(), r.notes.end());
    out.push_back(fmt::format("Zero: {}, noise {}", withUnit(r.baseline, load), withUnit(r.noise, load)));
}

/// The rows of a table of what was read from a curve.
struct ReadRows {
    const curve::Reading& r;
    const Pull& pull;
    const Units& units;
    Table& table;
    bool bound;

    void add(std::string what, std::string load, std::string where = {}, std::string how = {}) const {
        table.rows.push_back({{std::move(what), std::move(load), std::move(where), std::move(how)}, 0});
    }
    std::string load(double si) const { return withUnit(si, units.of(r.loadKind)); }
    std::string travel(double si) const { return withUnit(si, units.of(r.travelKind)); }
    std::string seconds(double s) const { return withUnit(s, quantity::unit("s")); }
    std::string where(const curve::Landmark& m) const {
        return m.travel ? travel(*m.travel) : seconds(m.time);
    }
    void landmarks() const {
        add("Peak", (bound ? "at least " : "") + std::string(r.guessed ? "~" : "") + load(r.peak.load),
            where(r.peak),
            r.peak.byHand ? "moved by hand"
            : r.guessed   ? "greatest sample; beyond the calibration table: a guess"
            : r.offScale  ? "greatest sample; the rig or its cell topped out"
                          : "greatest sample that is no spike");
        if (r.burst) return; // a blow neither slips nor breaks
        add("First slip", r.firstSlip ? load(r.firstSlip->load) : "none",
            r.firstSlip ? where(*r.firstSlip) : "",
            r.firstSlip && r.firstSlip->byHand ? "moved by hand"
            : r.firstSlip                      ? "first fall by more than 3 % before the peak"
            : pull.settings.firstSlip          ? "taken away by hand"
                                               : "it rises without a fall of 3 %");
        const auto level = quantity::percent(pull.settings.breakShare);
        add("Break", r.breakPoint ? load(r.breakPoint->load) : "none seen",
            r.breakPoint ? where(*r.breakPoint) : "",
            r.breakPoint && r.breakPoint->byHand ? "moved by hand"
            : r.breakPoint                       ? fmt::format("first sample below {} of the peak", level)
                                                 : fmt::format("it never fell below {} of the peak", level));
        if (r.yield)
            add("Yield", load(r.yield->load), where(*r.yield),
                fmt::format("the stiffness line shifted by {}",
                            travel(pull.settings.yieldOffset.value_or(0))));
        else if (pull.settings.yieldOffset)
            add("Yield", "none", "", "the curve does not meet the shifted line before its peak");
    }
    void turning() const {
        const auto degrees = [](double rad) { return fmt::format("{:.0f}°", rad * 180 / std::numbers::pi); };
        const auto first = degrees(pull.settings.breakawayWithin),
                   until = degrees(pull.settings.runningUntil);
        add("Breakaway", r.breakaway ? load(*r.breakaway) : "cannot be told", "",
            "greatest within the first " + first);
        add("Running", r.running ? load(*r.running) : "not turned far enough", "",
            fmt::format("mean from {} to {}", first, until));
    }
    std::string stiffnessHow() const {
        using enum curve::StiffnessBy;
        const auto& k = *r.stiffness;
        if (k.byHand)
            return fmt::format("least squares between two places set by hand, {} samples, R² {:.4f}",
                               k.samples, k.r2);
        switch (pull.settings.stiffnessBy) {
        case chordOfLoads:
            return "chord between two forces";
        case chordOfShares:
            return fmt::format("chord from {} to {} of the peak", quantity::percent(pull.settings.chordFrom),
                               quantity::percent(pull.settings.chordTo));
        case secant:
            return "secant from where the load begins to the peak";
        case straightPart:
            break;
        }
        return fmt::format(
            "steepest straight part, R² {:.4f}, {} samples, ± {}", k.r2, k.samples,
            quantity::significant(units.of(quantity::Dimension::stiffness).fromSi(k.standardError), 2) + " " +
                std::string(units.of(quantity::Dimension::stiffness).symbol));
    }
    void stiffness() const {
        using quantity::Dimension;
        if (r.stiffness)
            add("Stiffness", withUnit(r.stiffness->value, units.of(Dimension::stiffness)),
                fmt::format("{} to {}", quantity::significant(units.force->fromSi(r.stiffness->from)),
                            load(r.stiffness->to)),
                stiffnessHow());
        else
            add("Stiffness", "none", "", r.againstTime ? "no displacement was logged" : "");
        if (r.energyToPeak)
            add("Energy to peak", withUnit(*r.energyToPeak, units.of(Dimension::energy)), "",
                "area under the curve from where the load begins");
    }
    void blow() const {
        if (!r.burst) return;
        const auto& b = *r.burst;
        add("Peak as filtered", load(b.peak), seconds(b.peakTime),
            b.lowPass > 0
                ? fmt::format("low-pass at {} Hz, forward and backward", quantity::significant(b.lowPass))
                : "no filter: as recorded");
        add("Pulse width", seconds(b.width), "", "at half of that peak");
        add("Change of velocity", withUnit(b.velocityChange, quantity::unit("m/s")), "",
            "area under the blow");
        add("Severity", seconds(b.severity),
            fmt::format("{} to {}", seconds(b.severityFrom), seconds(b.severityTo)),
            fmt::format("greatest over windows up to {}", seconds(pull.settings.burst.longestWindow)));
    }
    void asked() const {
        if (r.loadAtTravel)
            add("Load at " + travel(r.loadAtTravel->at),
                r.loadAtTravel->value ? load(*r.loadAtTravel->value) : "not reached", "", "on the way up");
        if (r.travelAtLoad)
            add("Travel at " + load(r.travelAtLoad->at), "",
                r.travelAtLoad->value ? travel(*r.travelAtLoad->value) : "not reached",
                "where it was first reached");
        if (pull.settings.sustainedFor > 0)
            add("Sustained load", r.sustained ? load(*r.sustained) : "none", "",
                fmt::format("held {} at no more than {}", seconds(pull.settings.sustainedFor),
                            withUnit(pull.settings.sustainedSpeed, quantity::unit("mm/min"))));
        if (r.hold) {
            add("Held load", load(r.hold->mean) + " ± " + load(r.hold->sd),
                fmt::format("{} to {}", seconds(r.hold->from), seconds(r.hold->to)),
                "mean and spread over the window");
            add("Relaxation", quantity::percent(r.hold->relaxation), "",
                r.hold->law ? fmt::format("F = a − b·ln(1 + t/τ), τ {}, R² {:.3f}", seconds(r.hold->law->tau),
                                          r.hold->law->r2)
                            : std::string("by a straight line over the window"));
        }
        if (r.permanent) add("Permanent set", "", travel(*r.permanent), "left where the load was let down");
    }
    void after() const {
        const bool told = r.residual && !bound;
        add("Residual grip", told ? load(r.residual->load) : "cannot be told",
            told ? quantity::percent(r.residual->share) + " of the peak" : "",
            told ? "median once and twice as far beyond the peak" : "");
        if (r.fall)
            add("How it let go", r.fall->word, "",
                fmt::format("90 to 50 % down over 50 to 90 % up: {:.2f}", r.fall->ratio));
        if (r.slack) add("Slack taken up", "", travel(*r.slack), "up to where the stiffness line meets zero");
    }
};

} // namespace

std::string metricText(const StudyData& data, const Pull& pull, const Specimen& specimen,
                       const Readings& readings, domain::Metric metric, const Units& units) {
    const auto* reading = readings.find(pull.id);
    const auto& unit = methods::unitFor(*metric, units);
    const auto got = results::valueAtEnd(data, pull, specimen, specimen.option, reading, metric);
    // "About" was said with it, and stays with it.
    const bool about =
        pull.typed && pull.typed->metric->key == metric->key && pull.typed->asTyped.starts_with('~');
    if (got.value) return valueText(*got.value, unit, got.guess || about);
    if (pull.standing == domain::Standing::voided || pull.recording != domain::Recording::done)
        if (const auto all = results::measured(data, pull, reading))
            if (const auto* shown = all->find(metric->key); shown && shown->value)
                return withUnit(shown->value->value, unit);
    return "–";
}

Table readingTable(const StudyData& data, const curve::Reading& reading, const Pull& pull,
                   const Units& units) {
    Table t{"numbers",
            {{"what", "Read from the curve"},
             {"load",
              reading.loadKind == quantity::Dimension::torque         ? "Torque"
              : reading.loadKind == quantity::Dimension::acceleration ? "Deceleration"
                                                                      : "Force",
              true},
             {"where", "Where", true},
             {"how", "How it was found"}},
            {}};
    const ReadRows rows{reading, pull, units, t,
                        results::standingOf(data, pull, &reading) == domain::Standing::atLeast};
    rows.landmarks();
    if (reading.loadKind == quantity::Dimension::torque) rows.turning();
    if (reading.loadKind == quantity::Dimension::force) rows.stiffness();
    rows.blow();
    rows.asked();
    if (!reading.burst) rows.after();
    return t;
}

std::vector<std::string> remarksOn(const StudyData& data, const Pull& pull, const Specimen& specimen,
                                   const Readings& readings, const Units& units, const Timing& timing) {
    std::vector<std::string> out;
    const auto add = [&](std::string words) {
        if (words.ends_with('.')) words.pop_back(); // they are joined by semicolons
        if (!words.empty() && std::find(out.begin(), out.end(), words) == out.end())
            out.push_back(std::move(words));
    };
    add(domain::brokeText(pull.outcome));
    for (const auto& words : domain::remarksOf(pull.outcome))
        add(words);
    add(heldText(results::jointsThatHeld(data, pull, specimen), "i"));
    const auto* reading = readings.find(pull.id);
    add(reasonOf(data, pull, reading));
    for (const auto& words : results::notesOf(data, pull, reading))
        add(words);
    add(phasesLine(pull, units));
    add(pull.note);
    add(timing ? timing(pull) : std::string());
    if (reading && reading->guessed) add("its peak lies beyond the calibration table: a guess");
    if (byHand(pull)) add("landmarks moved by hand");
    return out;
}

std::string standsText(const Pull& pull, domain::Standing standing) {
    switch (pull.recording) {
    case domain::Recording::running:
        return "being recorded";
    case domain::Recording::interrupted:
        return "waits for a decision";
    case domain::Recording::done:
        break;
    }
    return domain::word(standing);
}

Table pullTable(const StudyData& data, const Readings& readings, std::span<const domain::Metric> metrics,
                const Units& units, const Timing& timing) {
    Table t{"pulls", {{"specimen", "Specimen"}, {"option", "Option"}, {"condition", "Condition"}}, {}};
    for (const auto& m : metrics)
        t.columns.push_back(
            {m->key, m == domain::metric("peak") ? std::string("Peak") : std::string(m->title), true});
    t.columns.push_back({"standing", "Standing"});
    t.columns.push_back({"remarks", "What broke, why, remarks"});
    const domain::PullsOfPieces pulls(data);
    for (const auto& s : data.specimens)
        for (const auto* pull : pulls.of(s.id)) {
            const auto& p = *pull;
            const auto* o = data.option(s.option);
            const auto* c = data.condition(s.condition);
            Row row{{s.label, o ? o->name : "", c ? c->name : ""}, p.id};
            for (const auto& m : metrics)
                row.cells.push_back(metricText(data, p, s, readings, m, units));
            auto remarks = remarksOn(data, p, s, readings, units, timing);
            const auto bad = readings.unreadable.find(p.id);
            const bool unread = bad != readings.unreadable.end();
            if (unread) remarks.insert(remarks.begin(), bad->second);
            row.cells.emplace_back(
                standsText(p, unread ? domain::Standing::notRead
                                     : results::standingAtEnd(data, p, readings.find(p.id), s, s.option)));
            row.cells.push_back(fmt::format("{}", fmt::join(remarks, "; ")));
            t.rows.push_back(std::move(row));
        }
    return t;
}

std::vector<std::string> factsOf(const StudyData& data, const Pull& pull, const Specimen& specimen,
                                 const Readings& readings, const Units& units, const Timing& timing) {
    const auto* reading = readings.find(pull.id);
    std::vector<std::string> out;
    if (pull.typed) out.push_back("Typed: " + pull.typed->asTyped);
    if (pull.outcome.path) {
        out.push_back(readOffText(pull, *pull.outcome.path, units));
    } else if (!pull.sourceName.empty())
        out.push_back("Source: " + pull.sourceName);
    addEntered(out, data, pull, specimen, reading, units);
    for (const auto& note : results::notesOf(data, pull, reading))
        out.push_back(note);
    addCircumstances(out, pull, timing);
    const auto& load = units.of(reading ? reading->loadKind : quantity::Dimension::force);
    if (pull.settings.rigLimit) out.push_back("Rig limit: " + withUnit(*pull.settings.rigLimit, load));
    if (pull.settings.calibratedTo)
        out.push_back("Calibrated up to: " + withUnit(*pull.settings.calibratedTo, load));
    if (const auto other = domain::otherEndOf(data, specimen))
        out.push_back("At its other end: " + data.optionAt(other).name);
    if (auto held = heldText(results::jointsThatHeld(data, pull, specimen), "I"); !held.empty())
        out.push_back(std::move(held));
    if (reading) addCurveFacts(out, *reading, units);
    return out;
}

Table steadyTable(const std::string& label, std::span<const curve::Steady> windows, const Units& units) {
    Table t{"steady",
            {{"specimen", "Specimen"},
             {"at", "At", true},
             {"channel", "Channel"},
             {"mean", "Mean", true},
             {"sd", "s", true},
             {"share", "Share", true},
             {"still", ""}},
            {}};
    for (const auto& window : windows) {
        const auto shares = curve::sharesOf(window);
        for (const auto& c : window.channels) {
            const auto unit = quantity::findUnit(c.unit);
            const auto shown = [&](double v) {
                return unit ? withUnit(v, units.of((*unit)->dimension)) : quantity::significant(v);
            };
            const auto share =
                std::find_if(shares.begin(), shares.end(), [&](const auto& x) { return x.name == c.name; });
            t.rows.push_back({{label, quantity::significant(window.to, 4) + " s", c.name, shown(c.mean),
                               shown(c.sd), share == shares.end() ? "" : quantity::percent(share->share),
                               window.still ? "" : "not standing still"},
                              0});
        }
    }
    return t;
}

} // namespace anvil::words
