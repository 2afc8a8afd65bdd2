// A set-up as it is kept.
#include <anvil/rig/setup.h>

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace anvil::rig {

namespace {

using Json = nlohmann::json;

constexpr const char* partKeys[] = {"lever", "line", "angle", "plain", "ram", "sensor"};
static_assert(std::size(partKeys) == static_cast<std::size_t>(RatioPart::Kind::sensor) + 1);

void put(Json& o, const char* key, const std::optional<double>& v) {
    if (v) o[key] = *v;
}
void put(Json& o, const char* key, const std::string& v) {
    if (!v.empty()) o[key] = v;
}

std::optional<double> number(const Json& o, const char* key) {
    return o.contains(key) ? std::optional(o.at(key).get<double>()) : std::nullopt;
}
std::string text(const Json& o, const char* key) { return o.value(key, std::string()); }

void put(Json& o, const CalibrationRecord& record) {
    for (const auto& p : record.points)
        o["calibration"].push_back({p.reading, p.truth});
    put(o, "calibrated", record.from);
    put(o, "expires", record.until);
    for (const auto& c : record.checks) {
        Json check{{"at", c.at}, {"known_N", c.known}, {"shown_N", c.shown}, {"tolerance", c.tolerance}};
        if (c.unit != "N") check["unit"] = c.unit; // then both are in it, whatever their keys say
        o["checks"].push_back(std::move(check));
    }
}

CalibrationRecord recordFrom(const Json& o) {
    CalibrationRecord out;
    for (const auto& p : o.value("calibration", Json::array()))
        out.points.push_back({p.at(0).get<double>(), p.at(1).get<double>()});
    out.from = text(o, "calibrated");
    out.until = text(o, "expires");
    for (const auto& c : o.value("checks", Json::array()))
        out.checks.push_back({text(c, "at"), c.value("known_N", 0.0), c.value("shown_N", 0.0),
                              c.value("tolerance", 0.01), c.value("unit", std::string("N"))});
    return out;
}

Json columnsToJson(const std::vector<LineColumn>& from) {
    Json columns = Json::array();
    for (const auto& c : from) {
        Json o{{"name", c.name}, {"role", key(c.role)}, {"unit", c.unit}};
        if (c.flipped) o["flipped"] = true;
        put(o, "limit", c.limit);
        put(o, "question", c.question);
        put(o, "label", c.label);
        put(o, "printed", c.printed);
        put(o, c.calibration);
        columns.push_back(std::move(o));
    }
    return columns;
}

std::vector<LineColumn> columnsFromJson(const Json& columns) {
    std::vector<LineColumn> out;
    for (const auto& c : columns)
        out.push_back({text(c, "name"), roleFromKey(text(c, "role")).value_or(Role::none), text(c, "unit"),
                       c.value("flipped", false), number(c, "limit"), recordFrom(c), text(c, "question"),
                       text(c, "label"), text(c, "printed")});
    return out;
}

Json layoutToJson(const Layout& l) {
    return {{"delimiter", std::string(1, l.delimiter)},
            {"decimal", std::string(1, l.decimal)},
            {"rate", l.rate},
            {"labelled", l.labelled},
            {"columns", columnsToJson(l.columns)}};
}

Layout layoutFrom(const Json& o) {
    Layout l;
    const auto first = [&](const char* key, char usual) {
        const auto s = text(o, key);
        return s.empty() ? usual : s[0];
    };
    l.delimiter = first("delimiter", ',');
    l.decimal = first("decimal", '.');
    l.rate = o.value("rate", 0.0);
    l.labelled = o.value("labelled", false);
    l.columns = columnsFromJson(o.value("columns", Json::array()));
    return l;
}

} // namespace
std::string toJson(const Setup& s) {
    Json o{{"name", s.name},
           {"protocol", s.protocol == Protocol::answers ? "answers" : "lines"},
           {"layout", layoutToJson(s.layout)}};
    put(o, "address", s.address);
    put(o, "force_query", s.forceQuery);
    put(o, "displacement_query", s.displacementQuery);
    if (!s.asked.empty()) o["asked"] = columnsToJson(s.asked);
    if (s.flipped) o["flipped"] = true;
    put(o, "cell_limit_N", s.cellLimit);
    put(o, "rig_limit_N", s.rigLimit);
    put(o, "travel_m", s.travel);
    put(o, "resolution_N", s.resolution);
    put(o, "speed_m_per_s", s.speed);
    if (s.compliance != 0) o["compliance_m_per_N"] = s.compliance;
    if (s.shows != quantity::Dimension::force) o["shows"] = quantity::name(s.shows);
    for (const auto& p : s.path)
        o["path"].push_back({{"kind", partKeys[static_cast<int>(p.kind)]},
                             {"a", p.a},
                             {"b", p.b},
                             {"ua", p.ua},
                             {"ub", p.ub},
                             {"moment_Nm", p.moment}});
    put(o, s.calibration);
    for (const auto& d : s.sides)
        o["sides"].push_back({{"name", d.name}, {"address", d.address}, {"layout", layoutToJson(d.layout)}});
    if (s.holdSeconds > 0) o["hold_s"] = s.holdSeconds;
    if (s.lookEvery > 0) o["look_every_N"] = s.lookEvery;
    put(o, "on_pause", s.onPause);
    put(o, "on_resume", s.onResume);
    put(o, "on_arm", s.onArm);
    put(o, "on_stop", s.onStop);
    put(o, "on_zero", s.onZero);
    if (s.practice) o["practice"] = true;
    return o.dump(-1, ' ', false, Json::error_handler_t::replace); // names may hold anything
}

Expected<Setup> setupFromJson(const std::string& text_) {
    try {
        const auto o = Json::parse(text_);
        Setup s;
        s.name = text(o, "name");
        s.address = text(o, "address");
        s.protocol = text(o, "protocol") == "answers" ? Protocol::answers : Protocol::lines;
        s.forceQuery = text(o, "force_query");
        s.displacementQuery = text(o, "displacement_query");
        s.asked = columnsFromJson(o.value("asked", Json::array()));
        s.layout = layoutFrom(o.value("layout", Json::object()));
        s.flipped = o.value("flipped", false);
        s.cellLimit = number(o, "cell_limit_N");
        s.rigLimit = number(o, "rig_limit_N");
        s.travel = number(o, "travel_m");
        s.resolution = number(o, "resolution_N");
        s.speed = number(o, "speed_m_per_s");
        s.compliance = o.value("compliance_m_per_N", 0.0);
        s.shows = quantity::dimensionNamed(text(o, "shows")).value_or(quantity::Dimension::force);
        for (const auto& p : o.value("path", Json::array())) {
            RatioPart part;
            for (std::size_t k = 0; k < std::size(partKeys); ++k)
                if (text(p, "kind") == partKeys[k]) part.kind = static_cast<RatioPart::Kind>(k);
            part.a = p.value("a", 1.0);
            part.b = p.value("b", 1.0);
            part.ua = p.value("ua", 0.0);
            part.ub = p.value("ub", 0.0);
            part.moment = p.value("moment_Nm", 0.0);
            s.path.push_back(part);
        }
        s.calibration = recordFrom(o);
        for (const auto& d : o.value("sides", Json::array()))
            s.sides.push_back(
                {text(d, "name"), text(d, "address"), layoutFrom(d.value("layout", Json::object()))});
        s.holdSeconds = o.value("hold_s", 0.0);
        s.lookEvery = o.value("look_every_N", 0.0);
        s.onPause = text(o, "on_pause");
        s.onResume = text(o, "on_resume");
        s.onArm = text(o, "on_arm");
        s.onStop = text(o, "on_stop");
        s.onZero = text(o, "on_zero");
        s.practice = o.value("practice", false);
        return s;
    } catch (const Json::exception& e) {
        return fail(fmt::format("The set-up of a rig cannot be read ({}).", e.what()));
    }
}

} // namespace anvil::rig
