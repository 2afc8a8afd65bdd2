#include "parts.h"

#include <algorithm>
#include <anvil/domain/joints.h>
#include <anvil/domain/outcomes.h>
#include <anvil/domain/phases.h>
#include <anvil/domain/rating.h>
#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/results/ends.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/work/wall_clock.h>
#include <set>

namespace anvil::report {
namespace {

using quantity::Dimension;
using quantity::withUnit;

constexpr std::size_t mostMetrics = 3; // more columns would leave no room for what was said

/// The metrics a table of pulls has columns for: those that any pull tells, the deciding one always.
std::vector<domain::Metric> columnsOf(const Source& source) {
    const auto& study = source.study->study;
    std::vector<domain::Metric> out;
    for (const auto& m : domain::metricsOf(study.plan.method))
        if (!source.verdict(m).empty()) out.push_back(m);
    if (out.size() > mostMetrics) out.resize(mostMetrics);
    if (std::find(out.begin(), out.end(), study.goal.metric) == out.end()) {
        if (out.size() == mostMetrics) out.pop_back();
        out.push_back(study.goal.metric);
    }
    return out;
}

QString headOf(domain::Metric metric) {
    return metric == domain::metric("peak") ? QStringLiteral("Peak") : text(metric->title);
}

QString cell(const Source& source, const domain::Pull& p, const domain::Specimen& s, domain::Metric metric,
             const Units& units) {
    const auto* r = source.readings->find(p.id);
    const auto& unit = units.of(*metric);
    const auto got = results::valueAtEnd(*source.study, p, s, s.option, r, metric);
    if (got.value) return text(chart::valueText(*got.value, unit, got.guess));
    // What a void pull showed is told beside its reason, though it is in no mean.
    if (p.standing == domain::Standing::voided || p.recording != domain::Recording::done)
        if (const auto all = results::measured(*source.study, p, r))
            if (const auto* shown = all->find(metric->key); shown && shown->value)
                return text(withUnit(shown->value->value, unit));
    return QStringLiteral("–");
}

QStringList remarksOn(const Source& source, const domain::Pull& p, const domain::Specimen& s,
                      const Units& units) {
    QStringList out;
    const auto add = [&](const std::string& words) {
        if (!words.empty()) out << text(words);
    };
    add(domain::brokeText(p.outcome));
    for (const auto& words : domain::remarksOf(p.outcome))
        add(words);
    if (const int held = results::jointsThatHeld(*source.study, p, s); held > 0)
        add(held == 1 ? "its other end held at least that" : "its other joints held at least that");
    add(results::reasonOf(p, source.readings->find(p.id)));
    for (const auto& words : results::notesOf(*source.study, p))
        add(words);
    auto phases = text(domain::phasesText(p.outcome.phases,
                                          [&](Dimension d) -> const quantity::Unit& { return units.of(d); }));
    if (!phases.isEmpty()) out << phases.replace('\n', QStringLiteral("; "));
    add(p.note);
    add(work::wallTiming(*source.study, p));
    if (const auto r = source.readings->byPull.find(p.id);
        r != source.readings->byPull.end() && r->second.guessed)
        out << "its peak lies beyond the calibration table: a guess";
    if (p.settings.peak || p.settings.firstSlip || p.settings.breakPoint || p.settings.fitFrom)
        out << "landmarks moved by hand";
    for (auto& words : out) // they are joined by semicolons
        if (words.endsWith('.')) words.chop(1);
    return out;
}

/// A rig in a sentence or two.
QString rigText(const rig::Setup& setup, const Units& units) {
    const auto& unit = units.of(rig::loadOf(rig::heardLayout(setup)));
    QStringList out;
    if (const auto ratio = rig::ratioOf(setup.path); ratio && !setup.path.empty())
        out << text(rig::sentence(*ratio));
    if (const auto limit = rig::limitOf(setup))
        out << QStringLiteral("It can show %1.").arg(text(withUnit(*limit, unit)));
    const auto& record = setup.calibration;
    if (!record.points.empty())
        out << QStringLiteral("Calibrated at %1 points%2%3.")
                   .arg(record.points.size())
                   .arg(record.from.empty() ? QString() : QStringLiteral(" on ") + text(record.from))
                   .arg(record.until.empty() ? QString()
                                             : QStringLiteral(", good until ") + text(record.until));
    if (!record.checks.empty())
        out << QStringLiteral("Last look at a known weight: ") +
                   text(rig::sentence(record.checks.back(), unit));
    if (setup.practice) out << "It is a virtual bench.";
    return QStringLiteral("On %1. %2").arg(text(setup.name), out.join(' ')).trimmed();
}

} // namespace

Table pullTable(const Source& source, const Units& units) {
    const auto& data = *source.study;
    const auto metrics = columnsOf(source);
    Table t;
    t.header = {"Specimen", "Option", "Condition"};
    t.right = {false, false, false};
    for (const auto m : metrics) {
        t.header << headOf(m);
        t.right.push_back(true);
    }
    t.header << "Standing"
             << "What broke, why, remarks";
    t.right.insert(t.right.end(), {false, false});
    for (const auto& s : data.specimens)
        for (const auto& p : data.pulls) {
            if (p.specimen != s.id) continue;
            const auto* o = data.option(s.option);
            const auto* c = data.condition(s.condition);
            QStringList row{text(s.label), o ? text(o->name) : "", c ? text(c->name) : ""};
            for (const auto m : metrics)
                row << cell(source, p, s, m, units);
            const auto bad = source.readings->unreadable.find(p.id);
            const bool unread = bad != source.readings->unreadable.end();
            auto remarks = remarksOn(source, p, s, units);
            if (unread) remarks.prepend(text(bad->second));
            row << domain::word(
                       unread ? domain::Standing::notRead
                              : results::standingAtEnd(data, p, source.readings->find(p.id), s, s.option))
                << remarks.join("; ");
            t.rows.push_back(std::move(row));
        }
    return t;
}

Table steadyTable(const Source& source, const Units& units) {
    Table t;
    t.header = {"Specimen", "At", "Channel", "Mean", "s", "Share", ""};
    t.right = {false, true, false, true, true, true, false};
    if (!source.steady) return t;
    for (const auto& p : source.study->pulls) {
        const auto* s = source.study->specimen(p.specimen);
        if (!s || p.outcome.marks.empty()) continue;
        for (const auto& window : source.steady(p.id)) {
            const auto shares = curve::sharesOf(window);
            for (const auto& c : window.channels) {
                const auto unit = quantity::findUnit(c.unit);
                const auto shown = [&](double v) {
                    return text(unit ? withUnit(v, units.of((*unit)->dimension)) : quantity::significant(v));
                };
                const auto share = std::find_if(shares.begin(), shares.end(),
                                                [&](const auto& x) { return x.name == c.name; });
                t.rows.push_back({text(s->label), text(quantity::significant(window.to, 4)) + " s",
                                  text(c.name), shown(c.mean), shown(c.sd),
                                  share == shares.end() ? QString() : text(quantity::percent(share->share)),
                                  window.still ? QString() : QStringLiteral("not standing still")});
            }
        }
    }
    return t;
}

QStringList testedHow(const Source& source, const Units& units) {
    const auto& plan = source.study->study.plan;
    QStringList out;
    if (const auto* method = methods::find(plan.method)) {
        auto tells = text(std::string(method->measures));
        tells[0] = tells[0].toLower();
        const auto line = QStringLiteral("%1: it tells %2").arg(text(std::string(method->title)), tells);
        out << (line.endsWith('.') ? line : line + '.');
    }
    if (!source.study->study.goal.part.empty())
        out << QStringLiteral("The strength asked for is that of %1.")
                   .arg(text(source.study->study.goal.part));
    if (plan.speed)
        out << QStringLiteral("Pulled at %1.").arg(text(withUnit(*plan.speed, quantity::unit("mm/s"))));
    if (!plan.connector.empty()) out << QStringLiteral("Joined to the rig by: %1.").arg(text(plan.connector));
    if (plan.joints > 1)
        out << QStringLiteral(
                   "Each piece carries %1 joints: the one that fails counts, the others held at least "
                   "that and are listed beside it.")
                   .arg(plan.joints);
    if (!plan.ratingWords.empty())
        out << QStringLiteral("The steps of the scale: %1.")
                   .arg(text(domain::ratingWordsText(plan.ratingWords)));
    std::set<domain::Id> used;
    for (const auto& p : source.study->pulls)
        used.insert(p.setup);
    for (const auto& [id, setup] : source.setups)
        if (used.contains(id)) out << rigText(setup, units);
    return out;
}

} // namespace anvil::report
