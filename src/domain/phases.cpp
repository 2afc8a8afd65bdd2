#include <anvil/domain/phases.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <optional>

namespace anvil::domain {
namespace {

using quantity::Dimension;

constexpr Dimension readable[] = {Dimension::force, Dimension::length, Dimension::torque,
                                  Dimension::angle, Dimension::time,   Dimension::speed};

std::string trimmed(const std::string& s) {
    const auto from = s.find_first_not_of(" \t\r");
    return from == std::string::npos ? std::string() : s.substr(from, s.find_last_not_of(" \t\r") - from + 1);
}

template <class Take> void split(const std::string& text, char by, Take take) {
    for (std::size_t at = 0; at <= text.size();) {
        const auto end = std::min(text.find(by, at), text.size());
        take(trimmed(text.substr(at, end - at)));
        at = end + 1;
    }
}

/// A quantity of one of the readable dimensions; words and bare numbers are none.
std::optional<quantity::Entry> readingIn(const std::string& word) {
    if (word.find_first_of("0123456789") == std::string::npos) return std::nullopt;
    for (const auto dimension : readable)
        if (const auto entry = quantity::parseEntry(word, dimension)) return *entry;
    return std::nullopt;
}

} // namespace

Expected<std::vector<Phase>> phasesFrom(const std::string& text) {
    std::vector<Phase> out;
    std::string bad;
    split(text, '\n', [&](const std::string& line) {
        if (line.empty()) return;
        const auto colon = line.find(':');
        Phase p;
        p.name = trimmed(line.substr(0, colon));
        if (p.name.empty() && bad.empty()) bad = line;
        if (colon != std::string::npos)
            split(line.substr(colon + 1), ',', [&](const std::string& word) {
                if (word.empty()) return;
                if (const auto reading = readingIn(word))
                    p.readings.push_back(*reading);
                else if (p.direction.empty())
                    p.direction = word;
                else
                    p.outcome += (p.outcome.empty() ? "" : ", ") + word;
            });
        out.push_back(std::move(p));
    });
    if (!bad.empty()) return fail("\"" + bad + "\" has no name: write it as set: down, 400 N, held.");
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
