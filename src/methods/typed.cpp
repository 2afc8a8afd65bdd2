// Evidence as people and scripts type it.
#include <anvil/methods/method.h>

#include <algorithm>
#include <cctype>
#include <charconv>
#include <fmt/format.h>
#include <limits>

namespace anvil::methods {

Expected<quantity::Entry> entryOf(const Input& input, std::string_view text, const quantity::Unit* fallback) {
    const bool other = fallback && input.orElse && fallback->dimension == *input.orElse;
    auto entry = quantity::parseEntry(text, other ? *input.orElse : input.dimension, fallback);
    if (!entry && input.orElse)
        if (auto second = quantity::parseEntry(text, other ? input.dimension : *input.orElse)) return second;
    if (!entry) return fail(fmt::format("{}: {}", input.title, entry.error().message));
    return entry;
}

namespace {

std::string_view trimmed(std::string_view s) {
    while (!s.empty() && (s.front() == ' ' || s.front() == '\t'))
        s.remove_prefix(1);
    while (!s.empty() && (s.back() == ' ' || s.back() == '\t'))
        s.remove_suffix(1);
    return s;
}

/// The parts between semicolons, those that hold something.
std::vector<std::string_view> partsOf(std::string_view text) {
    std::vector<std::string_view> out;
    while (!text.empty()) {
        const auto end = std::min(text.find(';'), text.size());
        if (const auto part = trimmed(text.substr(0, end)); !part.empty()) out.push_back(part);
        text.remove_prefix(std::min(end + 1, text.size()));
    }
    return out;
}

/// "0 s: 12 mm; 3600 s: 12.4 mm".
Expected<std::vector<SeriesPoint>> seriesOf(const Input& input, std::string_view text) {
    std::vector<SeriesPoint> out;
    for (const auto part : partsOf(text)) {
        const auto colon = part.rfind(':');
        if (colon == std::string_view::npos)
            return fail(
                fmt::format("\"{}\" under {} has no time: write \"3600 s: 12.4 mm\".", part, input.title));
        const auto at = quantity::parseEntry(trimmed(part.substr(0, colon)), quantity::Dimension::time);
        if (!at) return tl::unexpected(at.error());
        const auto value = entryOf(input, trimmed(part.substr(colon + 1)));
        if (!value) return tl::unexpected(value.error());
        out.push_back({at->si, value->si});
    }
    return out;
}

/// "10 N held; 12 N failed", "25 lb at 14 in held", "3 failed".
Expected<std::vector<Step>> stepsOf(const Input& input, std::string_view text) {
    std::vector<Step> out;
    for (auto part : partsOf(text)) {
        Step step;
        const auto word = part.rfind(' ');
        const auto said = word == std::string_view::npos ? std::string_view() : trimmed(part.substr(word));
        if (said != "held" && said != "failed")
            return fail(
                fmt::format("\"{}\" under {} does not say whether it held: write \"10 N held\" or \"12 N "
                            "failed\".",
                            part, input.title));
        step.held = said == "held";
        part = trimmed(part.substr(0, word));
        if (const auto at = part.find(" at "); at != std::string_view::npos) {
            const auto distance =
                quantity::parseEntry(trimmed(part.substr(at + 4)), quantity::Dimension::length);
            if (!distance) return tl::unexpected(distance.error());
            step.distance = distance->si;
            part = trimmed(part.substr(0, at));
        }
        const auto load = entryOf(input, part);
        if (!load) return tl::unexpected(load.error());
        step.load = load->si;
        out.push_back(step);
    }
    return out;
}

/// The number behind the point of "leg.2"; 0 where there is none.
std::size_t legOf(std::string_view key) {
    const auto point = key.rfind('.');
    std::size_t n = 0;
    if (point == std::string_view::npos) return 0;
    const auto* end = key.data() + key.size();
    const auto [p, error] = std::from_chars(key.data() + point + 1, end, n);
    return error == std::errc{} && p == end && n <= 64 ? n : 0;
}

/// "it has peak, leg.1": what could have been meant.
std::string inputsOf(const Method& method) {
    std::string known;
    for (const auto& i : method.inputs)
        known += fmt::format("{}{}{}", known.empty() ? "" : ", ", i.key, i.form == Form::perLeg ? ".1" : "");
    return known;
}

/// The value of a leg, at its place; those that are not known yet are NaN.
void putLeg(std::vector<quantity::Entry>& all, std::size_t leg, const quantity::Entry& entry) {
    quantity::Entry unknown;
    unknown.si = std::numeric_limits<double>::quiet_NaN();
    if (all.size() < leg) all.resize(leg, unknown);
    all[leg - 1] = entry;
}

} // namespace

bool sameName(std::string_view a, std::string_view b) {
    const auto plain = [](char c) {
        return c == '_' ? ' ' : static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    };
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [&](char x, char y) { return plain(x) == plain(y); });
}

bool isLength(const Input& input) {
    return input.dimension == quantity::Dimension::length &&
           (input.form == Form::one || input.form == Form::repeated);
}

const Input* inputMeasured(const Method& method, std::string_view name) {
    const auto at = std::find_if(method.inputs.begin(), method.inputs.end(), [&](const Input& i) {
        return isLength(i) && (sameName(name, i.key) || sameName(name, i.title));
    });
    return at == method.inputs.end() ? nullptr : &*at;
}

const Input* inputNamed(const Method& method, std::string_view key) {
    const auto leg = legOf(key);
    const auto* input = method.input(leg ? key.substr(0, key.rfind('.')) : key);
    return input && (input->form == Form::perLeg) == (leg > 0) ? input : nullptr;
}

Expected<void> enter(Evidence& evidence, const Method& method, std::string_view key, std::string_view text) {
    const auto leg = legOf(key);
    const auto name = std::string(leg ? key.substr(0, key.rfind('.')) : key);
    const auto* input = method.input(name);
    if (!input || input != inputNamed(method, key))
        return fail(fmt::format("{} has no input \"{}\"; it has {}.", method.title, key, inputsOf(method)));
    if (input->form == Form::series) {
        auto series = seriesOf(*input, text);
        if (!series) return tl::unexpected(series.error());
        evidence.series[name] = std::move(*series);
    } else if (input->form == Form::steps) {
        auto steps = stepsOf(*input, text);
        if (!steps) return tl::unexpected(steps.error());
        evidence.steps[name] = std::move(*steps);
    } else {
        const auto entry = entryOf(*input, text);
        if (!entry) return tl::unexpected(entry.error());
        if (leg)
            putLeg(evidence.legs[name], leg, *entry);
        else
            evidence.inputs[name] = *entry;
    }
    return {};
}

Expected<Evidence> evidenceFrom(const Method& method,
                                std::span<const std::pair<std::string, std::string>> typed) {
    Evidence out;
    for (const auto& [key, text] : typed)
        if (auto ok = enter(out, method, key, text); !ok) return tl::unexpected(ok.error());
    return out;
}

} // namespace anvil::methods
