#include <anvil/domain/phases.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <optional>

namespace anvil::domain {
namespace {

using quantity::Dimension;

constexpr Dimension readable[] = {Dimension::force, Dimension::length, Dimension::torque,
                                  Dimension::angle, Dimension::time,   Dimension::speed};

/// A quantity of one of the readable dimensions; words and bare numbers are none.
std::optional<quantity::Entry> readingIn(const std::string& word) {
    if (word.find_first_of("0123456789") == std::string::npos) return std::nullopt;
    for (const auto dimension : readable)
        if (const auto entry = quantity::parseEntry(word, dimension)) return *entry;
    return std::nullopt;
}

} // namespace

Expected<std::vector<Phase>> phasesOf(std::span<const PhaseText> typed) {
    std::vector<Phase> out;
    for (const auto& t : typed) {
        if (t.name.empty()) return fail("A phase needs a name, such as set, turned, pulled or reset.");
        Phase p{t.name, t.direction, t.outcome};
        for (const auto& text : t.readings) {
            if (text.empty()) continue;
            const auto reading = readingIn(text);
            if (!reading)
                return fail("\"" + text + "\" in \"" + t.name +
                            "\" is no force, length, torque, angle, time or speed: type it with its unit.");
            p.readings.push_back(*reading);
        }
        out.push_back(std::move(p));
    }
    return out;
}

std::string phasesText(const std::vector<Phase>& phases,
                       const std::function<const quantity::Unit&(Dimension)>& unitOf) {
    std::string out;
    for (const auto& p : phases) {
        std::string words;
        const auto add = [&](const std::string& w) {
            words += w.empty() ? "" : (words.empty() ? "" : ", ") + w;
        };
        add(p.direction);
        for (const auto& r : p.readings)
            add(quantity::printIn(r, unitOf(r.unit->dimension)));
        add(p.outcome);
        out += (out.empty() ? "" : "\n") + p.name + (words.empty() ? "" : ": " + words);
    }
    return out;
}

} // namespace anvil::domain
