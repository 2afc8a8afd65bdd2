#include <anvil/columns/heading.h>

#include <algorithm>
#include <anvil/columns/number.h>
#include <anvil/columns/text.h>
#include <array>
#include <cctype>
#include <tuple>

namespace anvil::columns {
namespace {

using quantity::Dimension;
using Words = std::vector<std::string>;

/// A word without the number at its end: "force2" → force. A letter keeps its own: T1 is no time.
std::string_view stem(std::string_view word) {
    const auto end = word.find_last_not_of("0123456789");
    return end == std::string_view::npos || end == 0 ? word : word.substr(0, end + 1);
}

template <class Wanted> bool any(const Words& words, const Wanted& wanted) {
    return std::any_of(words.begin(), words.end(), [&](const std::string& w) {
        return std::find(std::begin(wanted), std::end(wanted), stem(w)) != std::end(wanted);
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
constexpr std::string_view torqueWords[] = {"torque", "moment", "drehmoment", "torsion", "coppia",
                                            "couple", "koppel", "vridmoment", "крутящий"};
constexpr std::string_view angleWords[] = {"angle",  "rotation", "twist",  "winkel", "drehwinkel",
                                           "angolo", "ángulo",   "angulo", "vinkel", "угол"};

bool tellsAcceleration(const Words& w) {
    return any(w, accelerationWords) || begins(w, "accel") || begins(w, "decel");
}
bool tellsTorque(const Words& w) { return any(w, torqueWords); }
bool tellsAngle(const Words& w) { return any(w, angleWords); }

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

namespace {

/// A unit's text without the factor beside it: "10 N" → N, 10; "N x 10", "x10 N", "kN × 10".
std::pair<std::string, double> factorOf(const std::string& text) {
    std::string number, rest;
    bool times = false;
    for (const auto& part : splitFields(text, ' ')) {
        std::string_view w = part;
        for (const std::string_view mark : {"×", "x", "X", "*", "·"}) {
            const bool alone = w == mark;
            const auto behind = w.starts_with(mark) ? w.substr(mark.size()) : std::string_view();
            if (!alone && (behind.empty() || !readNumber(behind, '.'))) continue;
            times = true;
            w = behind;
            break;
        }
        if (w.empty()) continue;
        if (number.empty() && readNumber(w, '.'))
            number = w;
        else
            rest += (rest.empty() ? "" : " ") + std::string(w);
    }
    const auto v = readNumber(number, '.');
    const bool plain = v && *v > 0 && !rest.empty() && (times || looksLikeUnit(rest));
    return plain ? std::pair(rest, *v) : std::pair(text, 1.0);
}

/// FORCE_MN, all in capitals: millinewtons as well as meganewtons.
bool couldBeEither(std::string_view heading, std::string_view unit) {
    return unit == "MN" && std::none_of(heading.begin(), heading.end(),
                                        [](char c) { return std::islower(static_cast<unsigned char>(c)); });
}

/// What words alone tell, where no unit does.
std::optional<Dimension> dimensionBy(const Words& words, Kind kind) {
    switch (kind) {
    case Kind::time:
        return Dimension::time;
    case Kind::load:
        return tellsTorque(words)         ? Dimension::torque
               : tellsAcceleration(words) ? Dimension::acceleration
                                          : Dimension::force;
    case Kind::travel:
        return tellsAngle(words) ? Dimension::angle : Dimension::length;
    case Kind::unknown:
    case Kind::run:
    case Kind::another:
        break;
    }
    return {};
}

/// What a column measures by the dimension of its unit.
void takeUnit(Heading& h, const Words& words, bool speaksAgainst) {
    const auto claim = [&](bool named) {
        h.load = speaksAgainst ? LoadClaim::unlikely : named ? LoadClaim::wordAndUnit : LoadClaim::unitOnly;
        h.kind = speaksAgainst ? Kind::another : Kind::load;
    };
    h.dimension = h.unit->dimension;
    h.kind = Kind::another; // degrees, volts, per cent: whatever the words say
    if (*h.dimension == Dimension::force) {
        claim(tellsLoad(words));
    } else if (*h.dimension == Dimension::torque) {
        claim(tellsTorque(words) || tellsLoad(words));
    } else if (*h.dimension == Dimension::acceleration && tellsAcceleration(words)) {
        claim(true);
    } else if (*h.dimension == Dimension::length) {
        h.kind = speaksAgainst ? Kind::another : Kind::travel;
    } else if (*h.dimension == Dimension::angle) {
        h.kind = speaksAgainst && !tellsAngle(words) ? Kind::another : Kind::travel;
    } else if (*h.dimension == Dimension::time) {
        h.kind = speaksAgainst && !tellsTime(words) ? Kind::another : Kind::time;
    }
}

/// What a column measures by its words alone.
void takeWords(Heading& h, const Words& words, bool speaksAgainst) {
    if (tellsTime(words) && !speaksAgainst) {
        h.kind = Kind::time;
    } else if ((tellsTravel(words) && !speaksAgainst) || tellsAngle(words)) {
        h.kind = Kind::travel;
    } else if (tellsLoad(words) || tellsTorque(words) || tellsAcceleration(words)) {
        h.load = speaksAgainst ? LoadClaim::unlikely : LoadClaim::wordOnly;
        h.kind = speaksAgainst ? Kind::another : Kind::load;
    } else if (any(words, runWords) &&
               !any(words, std::array<std::string_view, 4>{"temperature", "temp", "rate", "name"})) {
        h.kind = Kind::run;
    }
    h.dimension = dimensionBy(words, h.kind);
}

constexpr OwnColumn own[] = {{"time", Kind::time, Dimension::time},
                             {"force", Kind::load, Dimension::force},
                             {"load", Kind::load, Dimension::force},
                             {"torque", Kind::load, Dimension::torque},
                             {"acceleration", Kind::load, Dimension::acceleration},
                             {"displacement", Kind::travel, Dimension::length},
                             {"travel", Kind::travel, Dimension::length},
                             {"angle", Kind::travel, Dimension::angle}};

} // namespace

Heading readHeading(std::string_view text, std::string_view unitBelow) {
    Heading h;
    auto [name, unit] = nameAndUnit(text);
    if (!unitBelow.empty()) {
        name = std::string(trimmed(text));
        unit = std::string(trimmed(unitBelow));
        if (unit.size() > 2 && (unit.front() == '(' || unit.front() == '['))
            unit = unit.substr(1, unit.size() - 2);
    }
    std::tie(unit, h.factor) = factorOf(unit);
    const auto words = wordsIn(name);
    if (unit.empty() && !tellsTime(words) && !tellsTravel(words) && !tellsLoad(words))
        if (const auto* u = unitNamed(name); (u && (name.size() > 1 || u->symbol == name)) || isOther(name))
            unit = name; // headed by nothing but its unit
    h.name = name.empty() ? std::string(trimmed(text)) : name;
    h.written = std::string(trimmed(text));
    h.unitText = unit;
    const bool other = isOther(unit), either = couldBeEither(text, unit);
    h.unit = other ? displayUnit(unit) : either ? nullptr : unitNamed(unit);
    if (const auto* g = gravity(words, unit)) h.unit = g;
    h.unknownUnit = !other && !h.unit && !either && meantAsUnit(unit) && lowered(unit) != "hh:mm:ss";
    const bool speaksAgainst = any(words, against);
    if (h.unit)
        takeUnit(h, words, speaksAgainst);
    else if (other)
        h.kind = Kind::another;
    else
        takeWords(h, words, speaksAgainst);
    h.against = speaksAgainst || other || (h.unit && h.kind == Kind::another);
    return h;
}

std::pair<std::string, std::string> bracketed(std::string_view text) {
    const auto open = text.rfind('('), close = text.rfind(')');
    if (open == std::string_view::npos || close != text.size() - 1) return {std::string(text), {}};
    return {std::string(trimmed(text.substr(0, open))), std::string(text.substr(open + 1, close - open - 1))};
}

std::span<const OwnColumn> ownColumns() { return own; }

const OwnColumn* ownColumn(std::string_view name) {
    const auto* at =
        std::find_if(std::begin(own), std::end(own), [&](const auto& c) { return c.name == name; });
    return at == std::end(own) ? nullptr : at;
}

std::string_view ownName(Kind kind, Dimension dimension) {
    const auto* at = std::find_if(std::begin(own), std::end(own),
                                  [&](const auto& c) { return c.kind == kind && c.dimension == dimension; });
    return at == std::end(own) ? std::string_view(kind == Kind::travel ? "displacement" : "force") : at->name;
}

} // namespace anvil::columns
