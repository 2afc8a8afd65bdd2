#include <anvil/columns/marks.h>

#include <algorithm>
#include <anvil/columns/heading.h>
#include <anvil/columns/number.h>
#include <anvil/columns/text.h>
#include <cmath>

namespace anvil::columns {
namespace {

constexpr std::string_view missingWords[] = {"",     "na",  "n/a", "n.a.", "nan", "null",
                                             "none", "nil", "nd",  "-",    "--",  "\u2014"};
constexpr std::string_view invalidWords[] = {"invalid",  "bad",       "error",     "err",      "fault",
                                             "void",     "nok",       "not ok",    "rejected", "discard",
                                             "timeout",  "timed out", "false",     "lost",     "fail",
                                             "excluded", "exclude",   "no signal", "unstable", "ungültig"};
constexpr std::string_view overloadWords[] = {
    "overload", "overloaded", "overrange", "over range",   "over-range", "ol",    "o.l",  "o.l.",
    "0l",       "ovl",        "ovld",      "ovr",          "oload",      "over",  "hi",   "o/r",
    "or",       "saturated",  "sat",       "clipped",      "err4",       "inf",   "+inf", "-inf",
    "infinity", "+infinity",  "overflow",  "out of range", "überlast",   "oflow", "high", "\u221e"};
constexpr std::string_view standingWords[] = {"status", "state", "valid",    "validity", "quality",
                                              "flag",   "ok",    "check",    "error",    "err",
                                              "fault",  "alarm", "overload", "good",     "flags"};
constexpr std::string_view wrongWords[] = {"error", "err", "fault", "alarm", "overload"};
/// What bus instruments answer where they cannot measure as much, and where they have no number (SCPI-99,
/// 7.2.1.4 and 7.2.1.5).
constexpr double infinite = 9.9e37, noNumber = 9.91e37;

template <std::size_t n> bool among(std::string_view word, const std::string_view (&words)[n]) {
    return std::find(std::begin(words), std::end(words), word) != std::end(words);
}

template <std::size_t n> bool anyAmong(std::string_view heading, const std::string_view (&words)[n]) {
    const auto in = wordsIn(heading);
    return std::any_of(in.begin(), in.end(), [&](const auto& w) { return among(w, words); });
}

bool onlyOf(std::string_view cell, char mark, std::size_t least) {
    return cell.size() >= least && cell.find_first_not_of(mark) == std::string_view::npos;
}

} // namespace

Mark markOf(std::string_view cell) {
    const auto word = lowered(trimmed(cell));
    if (among(word, missingWords)) return Mark::missing;
    if (onlyOf(word, '-', 3) || onlyOf(word, '#', 2) || onlyOf(word, '*', 3) || among(word, overloadWords))
        return Mark::overload;
    if (among(word, invalidWords)) return Mark::invalid;
    const auto v = readNumber(word, '.');
    if (v && std::abs(*v) == infinite) return Mark::overload;
    return v && std::abs(*v) == noNumber ? Mark::invalid : Mark::none;
}

bool tellsStanding(std::string_view heading) { return anyAmong(heading, standingWords); }
bool tellsWrong(std::string_view heading) { return anyAmong(heading, wrongWords); }

} // namespace anvil::columns
