// convert, read, simulate.
#include "output.h"

#include <anvil/curve/reading.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/sim/specimen.h>
#include <anvil/tables/log.h>
#include <fmt/format.h>

namespace anvil::cli {
namespace {

using quantity::Dimension;

/// The unit called `to` that measures what was typed: "lb" is a mass, and a force beside one.
Expected<std::pair<quantity::Entry, const quantity::Unit*>> typedIn(const std::string& text,
                                                                    const std::string& to) {
    const auto target = quantity::findUnit(to);
    if (!target) return tl::unexpected(target.error());
    const auto entry = quantity::parseEntry(text, (*target)->dimension);
    if (entry) return std::pair(*entry, *target);
    for (const auto& u : quantity::allUnits()) {
        const auto other = quantity::findUnit(to, u.dimension);
        if (u.dimension == (*target)->dimension || !other) continue;
        if (const auto again = quantity::parseEntry(text, u.dimension)) return std::pair(*again, *other);
    }
    return tl::unexpected(entry.error());
}

/// The doubts a number can carry in the contract's words; a reading uncertainty is a number of its own.
std::string_view doubtWord(const quantity::Entry& entry) {
    switch (entry.bound) {
    case quantity::Bound::above:
        return "above";
    case quantity::Bound::below:
        return "below";
    case quantity::Bound::between:
        return "between";
    case quantity::Bound::exact:
        break;
    }
    return entry.precision == quantity::Precision::about ? "about" : "exact";
}

Expected<Output> convert(const std::string& text, const std::string& to) {
    const auto typed = typedIn(text, to);
    if (!typed) return tl::unexpected(typed.error());
    const auto& [entry, target] = *typed;
    // Through the ratio of the factors: 3 1/4 in is 82.55 mm, without the dust of going through metres.
    const auto in = [&, from = entry.unit, into = target](double si) -> Expected<double> {
        auto value = quantity::convert(quantity::tidy(from->fromSi(si)), *from, *into);
        if (!value) return value;
        return quantity::tidy(*value);
    };
    const auto value = in(entry.si), upper = in(entry.upperSi);
    if (!value) return tl::unexpected(value.error());
    const bool between = entry.bound == quantity::Bound::between;
    const double uncertainty = quantity::tidy(entry.plusMinusSi / target->factor);
    const bool measured = entry.precision == quantity::Precision::plusMinus;
    std::string shown = quantity::shortest(*value);
    if (between)
        shown += "…" + quantity::shortest(*upper);
    else if (measured)
        shown += " ± " + quantity::shortest(uncertainty);
    else if (!entry.plain())
        shown.insert(0, entry.bound == quantity::Bound::above   ? ">"
                        : entry.bound == quantity::Bound::below ? "<"
                                                                : "~");
    return Output{{{"value", *value},
                   {"upper", between ? Json(*upper) : Json(nullptr)},
                   {"doubt", std::string(doubtWord(entry))},
                   {"uncertainty", measured ? Json(uncertainty) : Json(nullptr)},
                   {"unit", std::string(target->symbol)}},
                  shown + " " + std::string(target->symbol) + "\n"};
}

Json landmark(const curve::Landmark& m) {
    return {{"force_N", number(m.load)},
            {"time_s", number(m.time)},
            {"displacement_mm", number(m.travel ? std::optional(*m.travel * 1000) : std::nullopt)}};
}

Json landmark(const std::optional<curve::Landmark>& m) { return m ? landmark(*m) : Json(nullptr); }

struct ReadOptions {
    std::string file, time, force, displacement, sheet, forceUnit, displacementUnit, timeUnit, rigLimit;
    std::size_t run = 1; ///< which of the file's runs, from 1
};

/// What was said of the file's columns. Error: a unit that is none.
Expected<tables::Hints> hintsOf(const ReadOptions& o) {
    tables::Hints hints;
    hints.time = o.time;
    hints.load = o.force;
    hints.travel = o.displacement;
    hints.sheet = o.sheet;
    for (const auto& [text, dimension, target] :
         {std::tuple{&o.forceUnit, Dimension::force, &hints.forceUnit},
          std::tuple{&o.timeUnit, Dimension::time, &hints.timeUnit},
          std::tuple{&o.displacementUnit, Dimension::length, &hints.displacementUnit}}) {
        if (text->empty()) continue;
        const auto u = quantity::findUnit(*text, dimension);
        if (!u) return tl::unexpected(u.error());
        *target = *u;
    }
    return hints;
}

Expected<curve::ReadingSettings> settingsOf(const ReadOptions& o) {
    curve::ReadingSettings settings;
    if (!o.rigLimit.empty()) {
        const auto limit = quantity::parseEntry(o.rigLimit, Dimension::force);
        if (!limit) return tl::unexpected(limit.error());
        if (!(limit->si > 0))
            return fail("A rig limit of zero or less cannot be: give what the rig can show.");
        settings.rigLimit = limit->si;
    }
    return settings;
}

/// Everything somebody should know of a run that was read.
std::vector<std::string> warningsOf(const tables::Log& log, std::size_t run, const curve::Reading& reading) {
    std::vector<std::string> warnings;
    if (!log.forceUnitKnown) warnings.emplace_back("The file names no force unit: newtons are assumed.");
    if (!log.displacementUnitKnown)
        warnings.emplace_back("The file names no displacement unit: millimetres are assumed.");
    if (log.layout.decimalUnsure)
        warnings.emplace_back("Every comma is followed by three digits: it is taken as the decimal mark.");
    if (log.runs.size() > 1)
        warnings.push_back(fmt::format("The file holds {} runs: run {} is read, --run N chooses another.",
                                       log.runs.size(), run));
    if (log.runs[run - 1].overload) warnings.push_back(log.overload);
    warnings.insert(warnings.end(), log.notes.begin(), log.notes.end());
    for (const auto& p : log.problems)
        warnings.push_back(fmt::format("Line {} {}: left out.", p.line, p.reason));
    warnings.insert(warnings.end(), reading.warnings.begin(), reading.warnings.end());
    warnings.insert(warnings.end(), reading.notes.begin(), reading.notes.end());
    return warnings;
}

std::string textOf(const curve::Reading& r, bool bound, const std::vector<std::string>& warnings) {
    const auto& N = quantity::unit("N");
    std::vector<std::vector<std::string>> rows{
        {"Peak", (bound ? "at least " : "") + quantity::withUnit(r.peak.load, N)}};
    if (r.firstSlip) rows.push_back({"First slip", quantity::withUnit(r.firstSlip->load, N)});
    if (r.stiffness)
        rows.push_back({"Stiffness", quantity::withUnit(r.stiffness->value, quantity::unit("N/mm"))});
    if (r.energyToPeak)
        rows.push_back({"Energy to peak", quantity::withUnit(*r.energyToPeak, quantity::unit("J"))});
    if (r.residual) rows.push_back({"Residual grip", quantity::withUnit(r.residual->load, N)});
    if (r.fall) rows.push_back({"Fall", r.fall->word});
    auto text = table(rows);
    for (const auto& w : warnings)
        text += w + "\n";
    return text;
}

Expected<Output> read(const ReadOptions& o) {
    const auto hints = hintsOf(o);
    if (!hints) return tl::unexpected(hints.error());
    const auto settings = settingsOf(o);
    if (!settings) return tl::unexpected(settings.error());
    const auto bytes = readFile(o.file);
    if (!bytes) return tl::unexpected(bytes.error());
    const auto log = tables::readLog(*bytes, *hints);
    if (!log)
        return fail(o.file + ": " + log.error().message +
                    (log.error().wants == Wants::timeUnit ? ", with --time-unit ms or s" : ""));
    if (o.run < 1 || o.run > log->runs.size())
        return fail(
            fmt::format("{}: there is no run {}: the file holds {}.", o.file, o.run, log->runs.size()));
    if (log->runs[o.run - 1].curve.loadKind != Dimension::force)
        return fail(
            fmt::format("It logs {} and no force: import it into a study of the method that measures it.",
                        quantity::name(log->runs[o.run - 1].curve.loadKind)));
    const auto reading = curve::read(log->runs[o.run - 1].curve, *settings);
    if (!reading) return fail(o.file + ": " + reading.error().message);
    const bool overload = log->runs[o.run - 1].overload;
    const auto warnings = warningsOf(*log, o.run, *reading);
    const auto& r = *reading;
    const auto mm = [](const std::optional<double>& v) {
        return number(v ? std::optional(*v * 1000) : std::nullopt);
    };
    Json stiffness = nullptr;
    if (r.stiffness)
        stiffness = {{"value_N_per_mm", number(r.stiffness->value / 1000)},
                     {"se", number(r.stiffness->standardError / 1000)},
                     {"r2", number(r.stiffness->r2)},
                     {"from_N", number(r.stiffness->from)},
                     {"to_N", number(r.stiffness->to)}};
    Json residual = nullptr, fall = nullptr;
    if (r.residual)
        residual = {{"force_N", number(r.residual->load)}, {"percent", number(r.residual->share * 100)}};
    if (r.fall) fall = {{"ratio", number(r.fall->ratio)}, {"word", r.fall->word}};
    Output out;
    out.json = {{"samples", r.samples},
                {"dropped", r.dropped + log->rowsLeftOut},
                {"spikes", r.spikes},
                {"baseline_N", number(r.baseline)},
                {"noise_N", number(r.noise)},
                {"off_scale", r.offScale || overload},
                {"peak", landmark(r.peak)},
                {"first_slip", landmark(r.firstSlip)},
                {"break", landmark(r.breakPoint)},
                {"stiffness", stiffness},
                {"toe_mm", mm(r.toe)},
                {"slack_mm", mm(r.slack)},
                {"energy_to_first_slip_J", number(r.energyToFirstSlip)},
                {"energy_to_peak_J", number(r.energyToPeak)},
                {"energy_to_break_J", number(r.energyToBreak)},
                {"residual", residual},
                {"fall", fall},
                {"warnings", warnings}};
    out.text = textOf(r, r.offScale || overload, warnings);
    return out;
}

Expected<Output> simulate(const std::string& modelName, std::uint64_t seed, const std::string& to,
                          const std::string& truthFile) {
    const auto model = sim::modelFromName(modelName);
    if (!model) {
        std::string names;
        for (const auto m : sim::allModels)
            names += (names.empty() ? "" : ", ") + std::string(sim::name(m));
        return fail("\"" + modelName + "\" is no specimen model; there are " + names);
    }
    const auto bench = sim::typicalBench(*model, seed);
    const auto run = sim::pull(bench.specimen, bench.logger, seed);
    std::string csv = "Time (s),Force (N),Displacement (mm)\n";
    for (std::size_t i = 0; i < run.curve.load.size(); ++i)
        csv += fmt::format("{:.6f},{:.6f},{:.9f}\n", run.curve.time[i], run.curve.load[i],
                           run.curve.travel[i] * 1000);
    if (!to.empty() && to == truthFile)
        return fail("The log and its truth need files of their own: --to and --truth name one.");
    if (auto ok = writeFile(to, csv); !ok) return tl::unexpected(ok.error());
    const auto& t = run.truth;
    const Json truth = {{"model", modelName},
                        {"seed", seed},
                        {"slack_mm", number(t.slack * 1000)},
                        {"toe_mm", number(t.toe * 1000)},
                        {"peak_N", number(t.peak)},
                        {"strength_N", number(t.strength)},
                        {"stiffness_N_per_mm", number(t.stiffness / 1000)},
                        {"first_slip_N", number(t.firstSlip)},
                        {"energy_to_peak_J", number(t.energyToPeak)},
                        {"spikes", t.spikes},
                        {"saturated", t.saturated}};
    if (!truthFile.empty())
        if (auto ok = writeFile(truthFile, truth.dump(2) + "\n"); !ok) return tl::unexpected(ok.error());
    return Output{{{"file", to}, {"samples", run.curve.load.size()}, {"truth", truth}},
                  fmt::format("{} samples of a {} written to {}\n", run.curve.load.size(), modelName, to)};
}

} // namespace

void addCoreCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    struct Conversion {
        std::string quantity, unit;
    };
    const auto conversion = std::make_shared<Conversion>();
    auto* c =
        app.add_subcommand("convert", "Convert a quantity as people type it: anvil convert \"3 1/4 in\" mm");
    c->add_option("QUANTITY", conversion->quantity)->required();
    c->add_option("UNIT", conversion->unit)->required();
    commands.emplace_back(c, [conversion] { return convert(conversion->quantity, conversion->unit); });

    const auto options = std::make_shared<ReadOptions>();
    auto* r = app.add_subcommand("read", "Read one force curve from a logger's file");
    r->add_option("FILE", options->file)->required();
    r->add_option("--time", options->time, "column of the time, by heading or number");
    r->add_option("--force", options->force, "column of the force");
    r->add_option("--displacement", options->displacement, "column of the displacement");
    r->add_option("--sheet", options->sheet, "sheet of a spreadsheet, by name or number");
    r->add_option("--force-unit", options->forceUnit);
    r->add_option("--time-unit", options->timeUnit);
    r->add_option("--displacement-unit", options->displacementUnit);
    r->add_option("--run", options->run, "which of the file's runs to read, counted from 1");
    r->add_option("--rig-limit", options->rigLimit, "what the rig can show, such as \"5 kN\"");
    commands.emplace_back(r, [options] { return read(*options); });

    struct Simulation {
        std::string model, to, truth;
        std::uint64_t seed = 1;
    };
    const auto run = std::make_shared<Simulation>();
    auto* s = app.add_subcommand("simulate", "Pull a virtual specimen and write its log");
    s->add_option("MODEL", run->model, "pull-out, brittle-bond, wire-rope or yielding-metal")->required();
    s->add_option("--seed", run->seed)->required();
    s->add_option("--to", run->to, "CSV file to write")->required();
    s->add_option("--truth", run->truth, "JSON file for what the run was made from");
    commands.emplace_back(s, [run] { return simulate(run->model, run->seed, run->to, run->truth); });
}

} // namespace anvil::cli
