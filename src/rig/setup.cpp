#include <anvil/rig/setup.h>

#include <anvil/quantity/print.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace anvil::rig {
namespace {

using Json = nlohmann::json;

constexpr const char* partKeys[] = {"lever", "line", "angle", "plain"};

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

Json layoutToJson(const Layout& l) {
    Json columns = Json::array();
    for (const auto& c : l.columns)
        columns.push_back({{"name", c.name}, {"role", key(c.role)}, {"unit", c.unit}});
    return {{"delimiter", std::string(1, l.delimiter)},
            {"decimal", std::string(1, l.decimal)},
            {"rate", l.rate},
            {"columns", columns}};
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
    for (const auto& c : o.value("columns", Json::array()))
        l.columns.push_back(
            {text(c, "name"), roleFromKey(text(c, "role")).value_or(Role::none), text(c, "unit")});
    return l;
}

} // namespace

std::optional<double> limitOf(const Setup& s) {
    const auto ratio = ratioOf(s.path);
    std::optional<double> cell;
    if (s.cellLimit && ratio) cell = ratio->specimen(*s.cellLimit);
    if (s.rigLimit && cell) return std::min(*s.rigLimit, *cell);
    return s.rigLimit ? s.rigLimit : cell;
}

double displayStep(const Setup& s) {
    const auto ratio = ratioOf(s.path);
    if (s.resolution && ratio) return *s.resolution * ratio->value;
    const auto limit = limitOf(s);
    return limit ? *limit / 2000 : 0.1;
}

std::vector<std::string> problems(const Setup& s, const std::string& today) {
    std::vector<std::string> out;
    if (s.name.empty()) out.emplace_back("The rig has no name yet.");
    for (const auto& [limit, what] :
         {std::pair{s.cellLimit, "cell"}, {s.rigLimit, "rig"}, {s.travel, "travel"}})
        if (limit && !(*limit > 0))
            out.push_back(fmt::format("A {} limit of zero or less cannot be: give what it can show.", what));
    if (const auto ratio = ratioOf(s.path); !ratio) out.push_back(ratio.error().message);
    if (const auto c = Calibration::make(s.calibration); !c) out.push_back(c.error().message);
    if (s.protocol == Protocol::lines && !s.address.empty())
        if (const auto m = SampleMaker::make(s.layout); !m) out.push_back(m.error().message);
    if (s.protocol == Protocol::answers && s.forceQuery.empty())
        out.emplace_back("Say which question the rig answers with its force, such as MEAS:FORC?");
    if (!s.expires.empty() && s.expires < today)
        out.push_back(fmt::format("The calibration ran out on {}.", s.expires));
    if (!s.checks.empty() && !s.checks.back().passed())
        out.push_back("The last look at a known weight did not pass: " + sentence(s.checks.back()));
    return out;
}

Expected<double> complianceFrom(const Setup& setup, double stiffness) {
    if (!(stiffness > 0)) return fail("A stiffness of zero or less says nothing of how the rig gives way.");
    return setup.compliance + 1 / stiffness;
}

std::string toJson(const Setup& s) {
    Json o{{"name", s.name},
           {"protocol", s.protocol == Protocol::answers ? "answers" : "lines"},
           {"layout", layoutToJson(s.layout)}};
    put(o, "address", s.address);
    put(o, "force_query", s.forceQuery);
    put(o, "displacement_query", s.displacementQuery);
    if (s.flipped) o["flipped"] = true;
    put(o, "cell_limit_N", s.cellLimit);
    put(o, "rig_limit_N", s.rigLimit);
    put(o, "travel_m", s.travel);
    put(o, "resolution_N", s.resolution);
    put(o, "speed_m_per_s", s.speed);
    if (s.compliance != 0) o["compliance_m_per_N"] = s.compliance;
    for (const auto& p : s.path)
        o["path"].push_back({{"kind", partKeys[static_cast<int>(p.kind)]},
                             {"a", p.a},
                             {"b", p.b},
                             {"ua", p.ua},
                             {"ub", p.ub},
                             {"moment_Nm", p.moment}});
    for (const auto& p : s.calibration)
        o["calibration"].push_back({p.reading, p.truth});
    put(o, "calibrated", s.calibrated);
    put(o, "expires", s.expires);
    for (const auto& c : s.checks)
        o["checks"].push_back(
            {{"at", c.at}, {"known_N", c.known}, {"shown_N", c.shown}, {"tolerance", c.tolerance}});
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
        s.layout = layoutFrom(o.value("layout", Json::object()));
        s.flipped = o.value("flipped", false);
        s.cellLimit = number(o, "cell_limit_N");
        s.rigLimit = number(o, "rig_limit_N");
        s.travel = number(o, "travel_m");
        s.resolution = number(o, "resolution_N");
        s.speed = number(o, "speed_m_per_s");
        s.compliance = o.value("compliance_m_per_N", 0.0);
        for (const auto& p : o.value("path", Json::array())) {
            RatioPart part;
            for (int k = 0; k < 4; ++k)
                if (text(p, "kind") == partKeys[k]) part.kind = static_cast<RatioPart::Kind>(k);
            part.a = p.value("a", 1.0);
            part.b = p.value("b", 1.0);
            part.ua = p.value("ua", 0.0);
            part.ub = p.value("ub", 0.0);
            part.moment = p.value("moment_Nm", 0.0);
            s.path.push_back(part);
        }
        for (const auto& p : o.value("calibration", Json::array()))
            s.calibration.push_back({p.at(0).get<double>(), p.at(1).get<double>()});
        s.calibrated = text(o, "calibrated");
        s.expires = text(o, "expires");
        for (const auto& c : o.value("checks", Json::array()))
            s.checks.push_back({text(c, "at"), c.value("known_N", 0.0), c.value("shown_N", 0.0),
                                c.value("tolerance", 0.01)});
        s.onArm = text(o, "on_arm");
        s.onStop = text(o, "on_stop");
        s.onZero = text(o, "on_zero");
        s.practice = o.value("practice", false);
        return s;
    } catch (const Json::exception& e) {
        return fail(fmt::format("The set-up of a rig cannot be read ({}).", e.what()));
    }
}

Expected<Conversion> Conversion::make(const Setup& s) {
    Conversion c;
    auto calibration = Calibration::make(s.calibration);
    if (!calibration) return tl::unexpected(calibration.error());
    const auto ratio = ratioOf(s.path);
    if (!ratio) return tl::unexpected(ratio.error());
    c.m_calibration = std::move(*calibration);
    c.m_ratio = *ratio;
    c.m_sign = s.flipped ? -1 : 1;
    c.m_compliance = s.compliance;
    return c;
}

Calibrated Conversion::force(double reading) const {
    // The zero is taken off what the table says, not off the reading: a curved scale would turn it otherwise.
    const auto now = m_calibration(reading), rest = m_calibration(m_zero);
    return {m_ratio.value * m_sign * (now.value - rest.value) + m_ratio.offset, now.inside};
}

double Conversion::cellEnd(double cellLimit) const {
    return m_ratio.value * (cellLimit - m_sign * m_calibration(m_zero).value) + m_ratio.offset;
}

} // namespace anvil::rig
