#include <anvil/words/read_off.h>

#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::words {

using quantity::Dimension;
using quantity::withUnit;
using results::Pull;
using results::ReadThrough;

namespace {

/// What one of what the display shows is at the piece: "3.56", "123 N for each bar".
std::string factorText(const ReadThrough& path, double of) {
    if (path.shows == Dimension::force || !path.table.empty()) return quantity::significant(of);
    const auto& unit = quantity::unit(path.shows == Dimension::stress ? "bar" : "V");
    return fmt::format("{} N for each {}", quantity::significant(of * unit.factor), unit.symbol);
}

} // namespace

std::string displaySentence(const results::ReadThrough& path, const std::string& rig,
                            const std::string& readAt) {
    if (readAt.empty())
        return fmt::format("{}: {}. Where are the loads read that you type?", rig,
                           domain::standsBetween(path));
    const bool times = path.shows == Dimension::force && path.table.empty();
    if (readAt == "display")
        return times ? fmt::format("Loads are read off the display; the piece feels {} × that.",
                                   quantity::significant(path.factor))
                     : "What is typed is read off the display; what that is at the piece follows.";
    return times ? fmt::format("Loads are those at the piece; the display shows 1/{} of that.",
                               quantity::significant(path.factor))
                 : "Loads are those at the piece, not what the display shows.";
}

std::string readOffText(const Pull& pull, const ReadThrough& path, const quantity::Units& units) {
    const auto& load = units.of(Dimension::force);
    const bool plain = path.shows == Dimension::force && path.table.empty();
    std::string text = "Read off the display: ";
    if (!path.table.empty()) text += "a table says what that comes to, and ";
    text += "the piece feels " + factorText(path, path.factor);
    text += path.table.empty() ? path.shows == Dimension::force ? " × that" : "" : " × what it says";
    if (path.doubt > 0) text += fmt::format(" (± {})", factorText(path, path.doubt));
    if (path.offset != 0)
        text += fmt::format(", and {} {}", withUnit(std::abs(path.offset), load),
                            path.offset > 0 ? "more" : "less");
    if (!pull.typed || pull.typed->metric->dimension != Dimension::force) return text + ".";
    const auto entry = quantity::parseEntry(pull.typed->asTyped, path.shows);
    const bool inLoads = path.shows == Dimension::force && entry && entry->unit;
    const auto felt = path.felt(pull.typed->value);
    text += fmt::format(": {}{} = {}{} at the piece", pull.typed->asTyped,
                        plain ? " × " + quantity::significant(path.factor) : "", felt.inside ? "" : "~",
                        withUnit(felt.value, inLoads ? *entry->unit : load));
    return text + (felt.inside ? "." : ", a guess beyond the end of the table.");
}

} // namespace anvil::words
