#include "headings.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace anvil::tables {
namespace {

using quantity::Dimension;
using Words = std::vector<std::string>;

template <class Wanted> bool any(const Words& words, const Wanted& wanted) {
    return std::any_of(words.begin(), words.end(), [&](const std::string& w) {
        return std::find(std::begin(wanted), std::end(wanted), w) != std::end(wanted);
    });
}

constexpr std::string_view timeWords[] = {
    "time",     "elapsed", "stamp",  "timestamp", "clock", "seconds",  "secs",     "sec",     "t",
    "datetime", "millis",  "micros", "uptime",    "zeit",  "uhrzeit",  "temps",    "tempo",   "tiempo",
    "tijd",     "tid",     "czas",   "čas",       "cas",   "aika",     "idő",      "zaman",   "süre",
    "время",    "χρόνος",  "时间",   "時間",      "시간",  "duration", "laufzeit", "messzeit"};
constexpr std::string_view travelWords[] = {"displacement",
                                            "disp",
                                            "travel",
                                            "position",
                                            "pos",
                                            "extension",
                                            "ext",
                                            "stroke",
                                            "crosshead",
                                            "deflection",
                                            "weg",
                                            "distance",
                                            "x",
                                            "elongation",
                                            "deplacement",
                                            "verschiebung",
                                            "déplacement",
                                            "dehnweg",
                                            "spostamento",
                                            "desplazamiento",
                                            "deslocamento",
                                            "verplaatsing",
                                            "överföring",
                                            "przemieszczenie",
                                            "przesunięcie",
                                            "dráha",
                                            "draha",
                                            "siirtymä",
                                            "elmozdulás",
                                            "перемещение",
                                            "удлинение",
                                            "μετατόπιση",
                                            "变位",
                                            "变形",
                                            "位移",
                                            "変位",
                                            "변위",
                                            "traverse",
                                            "hub"};
constexpr std::string_view loadWords[] = {
    "force", "load",     "loads",  "kraft",    "weight",    "pull",    "tension",  "f",      "effort",
    "last",  "fuerza",   "carga",  "forza",    "carico",    "cell",    "loadcell", "scale",  "força",
    "forca", "kracht",   "siła",   "sila",     "síla",      "voima",   "erő",      "kuvvet", "yük",
    "сила",  "нагрузка", "усилие", "δύναμη",   "力",        "载荷",    "負荷",     "负荷",   "荷重",
    "拉力",  "하중",     "힘",     "zugkraft", "prüfkraft", "gewicht", "poids",    "peso"};
constexpr std::string_view runWords[] = {"run",     "test",   "specimen", "piece", "trial",  "probe",
                                         "versuch", "pullno", "essai",    "prova", "ensayo", "образец"};
/// These say that a column speaks of the load without being it.
constexpr std::string_view against[] = {
    "rate",    "raw",     "setpoint", "target",      "limit",  "min",     "max",  "mean",     "avg",
    "average", "minimum", "maximum",  "temperature", "temp",   "voltage", "volt", "volts",    "angle",
    "no",      "number",  "nr",       "count",       "counts", "adc",     "zero", "offset",   "tare",
    "status",  "state",   "sollwert", "set",         "alarm",  "gauge",   "gage", "diameter", "thickness",
    "width",   "speed",   "velocity", "percent",     "id"};
/// Units of what is neither load nor length nor time, beyond those the program knows.
constexpr std::array<std::string_view, 27> otherUnits{
    "v",    "mv",    "mv/v",   "uv",    "µv",  "a",     "ma",  "hz",   "khz",
    "bit",  "bits",  "counts", "count", "raw", "adc",   "lsb", "n/s",  "kn/s",
    "kg/s", "kgf/s", "lbf/s",  "n/min", "rpm", "1/min", "db",  "volt", "volts"};

bool isOther(std::string_view unit) {
    const auto u = lowered(unit);
    return std::find(otherUnits.begin(), otherUnits.end(), u) != otherUnits.end();
}

/// What a gauge in front of a ram or a sensor shows: no load by itself, and one where the rig says of what.
const quantity::Unit* displayUnit(std::string_view unit) {
    for (const auto d : {Dimension::stress, Dimension::voltage})
        if (const auto known = quantity::findUnit(unit, d)) return *known;
    return nullptr;
}

bool ends(const Words& words, std::string_view tail) {
    return std::any_of(words.begin(), words.end(),
                       [&](const auto& w) { return w.size() > tail.size() && w.ends_with(tail); });
}
bool begins(const Words& words, std::string_view stem) {
    return std::any_of(words.begin(), words.end(), [&](const auto& w) { return w.starts_with(stem); });
}

bool tellsTime(const Words& w) { return any(w, timeWords) || ends(w, "zeit"); }
bool tellsTravel(const Words& w) {
    return any(w, travelWords) || ends(w, "weg") || begins(w, "displ") || begins(w, "elong") ||
           begins(w, "extens") || begins(w, "deflec") || begins(w, "depla") || begins(w, "verlängerung");
}
bool tellsLoad(const Words& w) { return any(w, loadWords) || ends(w, "kraft"); }

constexpr std::string_view accelerationWords[] = {
    "acceleration", "accelerations", "accel", "acc",    "deceleration",   "decel",      "ax", "ay",
    "az",           "gforce",        "shock", "impact", "beschleunigung", "verzögerung"};

bool tellsAcceleration(const Words& w) {
    return any(w, accelerationWords) || begins(w, "accel") || begins(w, "decel");
}

/// "g" beside words of an acceleration is g₀, never gram-force.
const quantity::Unit* gravity(const Words& words, std::string_view unit) {
    const auto u = lowered(unit);
    return (u == "g" || u == "gs" || u == "g0" || u == "g's") && tellsAcceleration(words)
               ? &quantity::unit("g₀")
               : nullptr;
}

/// A small n counts: only the capital letter is the newton.
bool onlyCounts(std::string_view text) { return text == "n" || text == "#"; }

/// The known unit a text names, the load's meaning first: kg is a load in a heading.
const quantity::Unit* unitNamed(std::string_view text) {
    if (text.empty() || onlyCounts(text)) return nullptr;
    for (const auto d : {Dimension::force, Dimension::length, Dimension::time})
        if (const auto u = quantity::findUnit(text, d)) return *u;
    const auto u = quantity::findUnit(text);
    return u ? *u : nullptr;
}

/// A short word in brackets is meant as a unit; "channel 1" is not.
bool meantAsUnit(std::string_view text) {
    return !text.empty() && text.size() <= 8 && std::none_of(text.begin(), text.end(), [](char c) {
        return std::isdigit(static_cast<unsigned char>(c)) || c == ':';
    });
}

} // namespace

Words wordsIn(std::string_view name) {
    Words out(1);
    for (std::size_t i = 0; i < name.size(); ++i) {
        const auto c = static_cast<unsigned char>(name[i]);
        const bool letter = std::isalnum(c) || c >= 0x80;
        const bool hump = i > 0 && std::isupper(c) && std::islower(static_cast<unsigned char>(name[i - 1]));
        if ((!letter || hump) && !out.back().empty()) out.emplace_back();
        if (letter) out.back() += name[i];
    }
    if (out.back().empty()) out.pop_back();
    for (auto& word : out)
        word = lowered(word);
    return out;
}

const quantity::Unit* unitByName(std::string_view name, std::string_view unit) {
    return gravity(wordsIn(name), unit);
}

std::pair<std::string, std::string> nameAndUnit(std::string_view heading) {
    const std::string h(trimmed(heading));
    for (const auto& [open, close] : {std::pair{'(', ')'}, std::pair{'[', ']'}, std::pair{'{', '}'}}) {
        const auto a = h.find(open), b = h.rfind(close);
        if (a != std::string::npos && b != std::string::npos && b > a)
            return {std::string(trimmed(h.substr(0, a))), std::string(trimmed(h.substr(a + 1, b - a - 1)))};
    }
    for (const std::string_view mark : {" in ", "/", "_", ",", " "}) {
        const auto at = h.rfind(mark);
        if (at == std::string::npos || at == 0 || at + mark.size() >= h.size()) continue;
        const auto tail = h.substr(at + mark.size());
        if (onlyCounts(tail)) continue;
        if (quantity::findUnit(tail, Dimension::force) || quantity::findUnit(tail, Dimension::length) ||
            quantity::findUnit(tail, Dimension::time) || (mark != " " && isOther(tail)))
            return {std::string(trimmed(h.substr(0, at))), tail};
    }
    return {h, ""};
}

bool looksLikeUnit(std::string_view text) { return unitNamed(text) != nullptr || isOther(text); }

bool saysNothing(std::string_view name) {
    static constexpr std::string_view nothing[] = {"value",  "values",      "reading",  "readings", "data",
                                                   "signal", "field",       "messwert", "wert",     "valeur",
                                                   "valor",  "measurement", "measured", "output"};
    for (auto word : wordsIn(name)) {
        while (!word.empty() && std::isdigit(static_cast<unsigned char>(word.back())))
            word.pop_back();
        if (!word.empty() && std::find(std::begin(nothing), std::end(nothing), word) == std::end(nothing))
            return false;
    }
    return !name.empty();
}

namespace {

constexpr std::string_view optionColumns[] = {"product", "option",  "material",
                                              "article", "variant", "produkt"};
constexpr std::string_view conditionColumns[] = {"condition", "treatment", "substrate", "environment",
                                                 "exposure"};

} // namespace

Tells whatItTells(std::string_view heading) {
    const auto words = wordsIn(heading);
    return any(words, optionColumns)      ? Tells::option
           : any(words, conditionColumns) ? Tells::condition
                                          : Tells::run;
}

bool tellsWhat(std::string_view heading) {
    const auto words = wordsIn(heading);
    return any(words, optionColumns) || any(words, conditionColumns) || any(words, runWords) ||
           any(words, std::array<std::string_view, 1>{"sample"});
}

Heading readHeading(std::string_view text, std::string_view unitBelow) {
    Heading h;
    auto [name, unit] = nameAndUnit(text);
    if (!unitBelow.empty()) {
        name = std::string(trimmed(text));
        unit = std::string(trimmed(unitBelow));
        if (unit.size() > 2 && (unit.front() == '(' || unit.front() == '['))
            unit = unit.substr(1, unit.size() - 2);
    }
    auto words = wordsIn(name);
    if (unit.empty() && !tellsTime(words) && !tellsTravel(words) && !tellsLoad(words))
        if (const auto* u = unitNamed(name); (u && (name.size() > 1 || u->symbol == name)) || isOther(name))
            unit = name; // headed by nothing but its unit
    h.name = name.empty() ? std::string(trimmed(text)) : name;
    h.unitText = unit;
    const bool other = isOther(unit);
    h.unit = other ? displayUnit(unit) : unitNamed(unit);
    h.written = std::string(trimmed(text));
    if (const auto* g = gravity(words, unit)) h.unit = g;
    h.unknownUnit = !other && !h.unit && meantAsUnit(unit) && lowered(unit) != "hh:mm:ss";
    const auto measures = [&](Dimension d) { return h.unit && h.unit->dimension == d; };
    const bool speaksAgainst = any(words, against);
    h.against =
        speaksAgainst || other ||
        (h.unit && !measures(Dimension::force) && !measures(Dimension::length) && !measures(Dimension::time));
    if (measures(Dimension::acceleration) && tellsAcceleration(words) && !speaksAgainst) {
        h.load = LoadClaim::unitOnly; // beside a force it is no load
        h.role = Role::load;
        h.against = false;
    } else if (measures(Dimension::force)) {
        h.load = speaksAgainst      ? LoadClaim::unlikely
                 : tellsLoad(words) ? LoadClaim::wordAndUnit
                                    : LoadClaim::unitOnly;
        h.role = h.load > LoadClaim::unlikely ? Role::load : Role::ignore;
    } else if (measures(Dimension::length)) {
        h.role = speaksAgainst ? Role::ignore : Role::travel;
    } else if (measures(Dimension::time)) {
        h.role = speaksAgainst && !tellsTime(words) ? Role::ignore : Role::time;
    } else if (other || h.unit) {
        h.role = Role::ignore; // degrees, volts, per cent, rates: whatever the words say
    } else if (tellsTime(words) && !speaksAgainst) {
        h.role = Role::time;
    } else if (tellsTravel(words) && !speaksAgainst) {
        h.role = Role::travel;
    } else if (tellsLoad(words)) {
        h.load = speaksAgainst ? LoadClaim::unlikely : LoadClaim::wordOnly;
        h.role = speaksAgainst ? Role::ignore : Role::load;
    } else if (any(words, runWords) &&
               !any(words, std::array<std::string_view, 4>{"temperature", "temp", "rate", "name"})) {
        h.role = Role::run;
    }
    return h;
}

} // namespace anvil::tables
