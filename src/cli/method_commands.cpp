// methods, derive: what can be done to a piece, what has to be entered, what follows.
#include "output.h"
#include "run.h"

#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <fmt/format.h>

namespace anvil::cli {
namespace {

std::string asText(std::string_view s) { return std::string(s); }

/// Results of scripts are in SI.
std::string siSymbol(quantity::Dimension d) { return asText(quantity::siUnit(d).symbol); }

Json inputRows(const methods::Method& m) {
    Json out = Json::array();
    for (const auto& i : m.inputs)
        out.push_back({{"key", asText(i.key)},
                       {"title", asText(i.title)},
                       {"of", asText(methods::key(i.of))},
                       {"form", asText(methods::key(i.form))},
                       {"dimension", asText(quantity::name(i.dimension))},
                       {"needed", i.needed}});
    return out;
}

Json metricRows(const methods::Method& m) {
    Json out = Json::array();
    for (const auto& x : m.metrics)
        out.push_back({{"key", asText(x.key)},
                       {"title", asText(x.title)},
                       {"dimension", asText(quantity::name(x.dimension))},
                       {"unit", siSymbol(x.dimension)},
                       {"sense", asText(methods::key(x.sense))}});
    return out;
}

Expected<const methods::Method*> methodNamed(const std::string& key) {
    if (const auto* m = methods::find(key)) return m;
    std::string known;
    for (const auto* m : methods::all())
        known += (known.empty() ? "" : ", ") + asText(m->key);
    return fail(fmt::format("There is no method \"{}\". There are: {}.", key, known));
}

Expected<Output> listMethods(const std::string& key) {
    std::vector<const methods::Method*> chosen(methods::all().begin(), methods::all().end());
    if (!key.empty()) {
        const auto one = methodNamed(key);
        if (!one) return tl::unexpected(one.error());
        chosen = {*one};
    }
    Output out;
    Json all = Json::array();
    for (const auto* m : chosen) {
        all.push_back({{"key", asText(m->key)},
                       {"title", asText(m->title)},
                       {"inputs", inputRows(*m)},
                       {"metrics", metricRows(*m)}});
        out.text += fmt::format("{}: {}. {}\n", m->key, m->title, m->measures);
        for (const auto& i : m->inputs)
            out.text += fmt::format("    {}{}: {} ({}, {}, of the {})\n", i.key, i.needed ? "*" : "", i.title,
                                    quantity::name(i.dimension), methods::key(i.form), methods::key(i.of));
        for (const auto& x : m->metrics)
            out.text += fmt::format("  → {}: {} ({})\n", x.key, x.title, quantity::name(x.dimension));
    }
    out.json = {{"methods", all}};
    return out;
}

Expected<Output> deriveNumbers(const std::string& key, const std::vector<std::string>& entered) {
    const auto method = methodNamed(key);
    if (!method) return tl::unexpected(method.error());
    std::vector<std::pair<std::string, std::string>> typed;
    for (const auto& e : entered) {
        const auto sign = e.find('=');
        if (sign == std::string::npos)
            return fail(fmt::format("\"{}\" is no entry: write key=\"quantity\".", e));
        typed.emplace_back(e.substr(0, sign), e.substr(sign + 1));
    }
    const auto evidence = methods::evidenceFrom(**method, typed);
    if (!evidence) return tl::unexpected(evidence.error());
    const auto measured = methods::measure(**method, *evidence);
    if (!measured) return tl::unexpected(measured.error());
    Output out;
    Json results = Json::object(), notes = Json::array();
    for (const auto& n : measured->numbers) {
        const auto metric = asText(n.metric->key);
        const auto& unit = quantity::siUnit(n.metric->dimension);
        if (!n.value) {
            results[metric] = nullptr;
            notes.push_back(fmt::format("{}: {}.", n.metric->title, n.whyNot));
            continue;
        }
        const bool between = n.value->bound == stats::Bound::between;
        results[metric] = {{"value", number(n.value->value)},
                           {"unit", asText(unit.symbol)},
                           {"state", n.value->word()},
                           {"upper", between ? Json(n.value->upper) : Json(nullptr)}};
        const char* sign = n.value->bound == stats::Bound::above   ? "at least "
                           : n.value->bound == stats::Bound::below ? "at most "
                                                                   : "";
        out.text +=
            fmt::format("{}: {}{}{}\n", n.metric->title, sign, quantity::withUnit(n.value->value, unit),
                        between ? " to " + quantity::withUnit(n.value->upper, unit) : "");
    }
    for (const auto& n : measured->notes)
        notes.push_back(n);
    for (const auto& n : notes)
        out.text += n.get<std::string>() + "\n";
    out.json = {{"results", results}, {"notes", notes}};
    return out;
}

} // namespace

void addMethodCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    struct Asked {
        std::string method, derived;
        std::vector<std::string> entered;
    };
    const auto asked = std::make_shared<Asked>();
    auto* m = app.add_subcommand("methods", "The methods, what is entered for each, and what follows");
    m->add_option("METHOD", asked->method, "only this one");
    commands.emplace_back(m, [asked] { return listMethods(asked->method); });
    auto* d = app.add_subcommand(
        "derive",
        "What follows from what was entered: anvil derive pin-shear diameter=\"4 mm\" peak=\"3 kN\"");
    d->add_option("METHOD", asked->derived, "see anvil methods")->required();
    d->add_option("ENTRIES", asked->entered, "key=\"quantity\"");
    commands.emplace_back(d, [asked] { return deriveNumbers(asked->derived, asked->entered); });
}

} // namespace anvil::cli
